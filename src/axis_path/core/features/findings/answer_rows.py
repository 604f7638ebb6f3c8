"""Findings as rows of an answer, with the reasons for which they are sure."""

from __future__ import annotations

import math
from fractions import Fraction

from axis_path.core.arithmetic import precision
from axis_path.core.dimensions import PLAIN_UNITS, CurveUnits
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate import VALUE_BITS, RealFunction
from axis_path.core.evaluate.quantities import with_unit
from axis_path.core.features.findings.answer import (
    Row,
)
from axis_path.core.features.findings.section import QueryKind
from axis_path.core.locate import (
    Finding,
    Kind,
    ball_of,
    value_text,
)


def row(
    what: QueryKind, function: RealFunction | None, item: Finding, units: CurveUnits = PLAIN_UNITS
) -> Row:
    """Return a finding as a line of the answer."""
    units = units if function is None else function.units
    exact = item.exact if item.exact != item.text else None
    label = item.kind.label if what in (QueryKind.EXTREMA, QueryKind.BREAKS, QueryKind.DATA) else ""
    flags = [
        word for word, is_so in (("global", item.is_global), ("at an end", item.at_end)) if is_so
    ]
    if item.multiplicity is not None and item.multiplicity > 1:
        order = {2: "double", 3: "triple"}.get(item.multiplicity, f"order {item.multiplicity}")
        flags.append("touches" if what is QueryKind.INTERSECTIONS else order)
    value = item.y_text if is_same(item.y_exact, item.y_text) else item.y_exact or item.y_text
    shows_value = item.kind not in (Kind.ZERO,) and bool(item.y_exact or item.y_text)
    return Row(
        label, exact or item.text, item.text if exact else "",
        is_same(exact, item.text),
        value if shows_value else "",
        item.x, 0.0 if item.kind is Kind.ZERO and what is not QueryKind.DATA else item.y,
        item.proved, reasons(function, item), item.note, tuple(flags),
        units.variable.printed, units.y.printed if shows_value else "",
    )  # fmt: skip


def extremum_flags(
    item: Finding, function: RealFunction, searched: tuple[float | None, float | None]
) -> tuple[str, ...]:
    """Describe an extremum without claiming more than was searched.

    An end of the search that is no end of the domain says so, and ``global`` stands alone only
    where the whole domain was searched.

    Args:
        item: the extremum.
        function: has it.
        searched: between which ends was searched; None stands for the end of the domain.
    """
    low, high = function.low, function.high
    is_whole = (
        low is not None
        and high is not None
        and (searched[0] is None or searched[0] <= low.near)
        and (searched[1] is None or searched[1] >= high.near)
    )
    flags = []
    if item.is_global:
        flags.append("global" if is_whole else "global in this interval")
    if item.at_end:
        is_own = any(end is not None and _is_near(item.x, end.near) for end in (low, high))
        is_cut = any(end is not None and _is_near(item.x, end) for end in searched)
        flags.append(
            "where the search ends" if is_cut and not is_own else "at an end of the domain"
        )
    return tuple(flags)


def _is_near(x: float, end: float) -> bool:
    return math.isclose(x, end, rel_tol=1e-12, abs_tol=1e-300)


def is_same(exact: str | None, decimal: str) -> bool:
    """Check whether a decimal is the very fraction that stands beside it."""
    try:
        return bool(exact) and Fraction(_ascii(exact or "")) == Fraction(_ascii(decimal))
    except ValueError:
        return False


def _ascii(number: str) -> str:
    return number.replace("−", "-").replace("·10^", "e")


def reasons(function: RealFunction | None, item: Finding) -> tuple[str, ...]:
    """Describe by what a finding is sure, and put it in."""
    said: list[str] = []
    low, high = item.bracket
    if item.kind in (Kind.ZERO, Kind.SOLUTION) and item.proved:
        order = item.multiplicity
        if order is not None and order % 2 == 0:
            said.append("It touches here: the sign is the same on both sides.")
        elif order == 1:
            said.append("The sign changes here, and the slope keeps its sign all over the bracket.")
        elif order is not None:
            said.append(f"The first {order - 1} derivatives are zero here too; the next is not.")
    elif item.why:
        said.append(f"{item.why[0].upper()}{item.why[1:]}.")
    if item.exact:
        unit = "" if function is None else function.units.variable.printed
        said.append(f"It is exactly {with_unit(item.exact, unit)}.")
    elif low < high:
        said.append(f"It lies in a bracket {high - low:.1g} wide.".replace("e-", "·10^−"))
    if function is not None and item.kind is Kind.ZERO:
        said.append(_put_in(function, item))
    return tuple(sentence for sentence in said if sentence)


def _put_in(function: RealFunction, item: Finding) -> str:
    """Put a zero into its function."""
    if item.exact and "√" in item.exact:
        return f"Put in: {function.name}({item.exact}) = 0, for it is a root of a quadratic factor."
    with precision(VALUE_BITS):
        try:
            value = function.prove(ball_of(item.exact, *item.bracket))
        except StoppedError:
            # What was found before the time was over is shown without it.
            return ""
        if not value.is_defined:
            return ""
        at = with_unit(item.exact or item.text, function.units.variable.printed)
        called = f"{function.name}({at})"
        if value.exact is not None:
            own = with_unit(value_text(value), function.units.y.printed)
            return f"Put in: {called} = {own}."
        size = float(abs(value.value).upper())
    if size == 0:
        return f"Put in: {called} = 0."
    if not math.isfinite(size):
        # The digits that are known of the place are too few for the function.
        return ""
    # The least power of ten that is not below it.
    power = math.ceil(math.log10(size))
    return f"Put in: {called} lies within 10^{power} of 0.".replace("^-", "^−")
