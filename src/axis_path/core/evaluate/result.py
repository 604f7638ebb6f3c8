"""Numbers as text: as many digits as asked for, all of them right."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction
from functools import cache
from typing import Any

import numpy as np
from flint import acb, arb, fmpq
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined
from axis_path.core.arithmetic.conversion import (
    fraction_of,
    is_short,
    to_fraction,
)
from axis_path.core.evaluate.decimals import (
    MOST_BITS,
    NOT_DECIDED,
    START_BITS,
    ZEROS,
    decimal_text,
    is_writable,
    shown,
)
from axis_path.core.evaluate.exact.exact_pool import ExactForm
from axis_path.core.threads import lazy_property

#: A float's own bits; how near to 0 a value is taken as 0.
_FLOAT_BITS, _SMALL = 53, arb(2) ** -40
#: A part of a complex number that cannot be distinguished from 0 in so many digits is 0.
_REAL_DIGITS = 30


class ResultKind(StrEnum):
    """What an expression gave."""

    NUMBER = "number"
    COMPLEX = "complex"
    POINT = "point"
    LIST = "list"
    MATRIX = "matrix"
    TRUTH = "truth"
    QUANTITY = "quantity"


@dataclass(frozen=True)
class Result:
    """What was computed: a number, or a point or a list made of such.

    Attributes:
        kind: what it is.
        value: of a number the nearest float, NaN if there is no value, or a complex number; of a
            point a pair of floats; of a list (n,) floats, of points (n, 2).
        reason: why there is no value; empty if there is one.
        decimals: gives the decimal with so many digits.
        find_exact: looks for the exact form; it may take as long as the limit of exact work.
        parts: the coordinates of a point, or the first elements of a list, as results.
        rational: the number itself, if it is known to be this fraction without a search.
        remark: what else is to be said of it, such as a convention that it rests on.
        at_bits: computes a real number with so many binary digits; None for anything else.
        join: puts the texts of the parts together.
        unit: the symbol of its unit; of a point those of both coordinates, empty for plain numbers.
        dimension: what it measures, in base units, such as ``kg m s^-2``.
        number: the same result without its unit; None for plain numbers.
        attach: writes the unit behind a text of the number.
    """

    kind: ResultKind
    value: Any
    reason: str
    decimals: Callable[[int], str]
    find_exact: Callable[[], ExactForm]
    parts: Sequence[Result] = ()
    rational: Fraction | None = None
    remark: str = ""
    at_bits: Callable[[int], Ball] | None = None
    join: Callable[[list[str]], str] = ", ".join
    unit: str = ""
    dimension: str = ""
    number: Result | None = None
    attach: Callable[[str], str] = str

    def with_unit(self, text: str) -> str:
        """Return a text of the number, or of the numbers, with the unit behind it."""
        return self.attach(text) if text else text

    @lazy_property
    def _exact(self) -> ExactForm:
        return ExactForm(None) if self.reason else self.find_exact()

    @property
    def exact(self) -> str | None:
        """Return the exact form as a text of our language, if one is found in time; else None."""
        return self._exact.text

    @property
    def exact_note(self) -> str:
        """Return a note if the time for an exact form ran out; else an empty text."""
        return self._exact.note

    def decimal(self, digits: int = 10) -> str:
        """Return the value with ``digits`` significant digits, each of them right.

        Trailing zeros that follow from an exact number are left out.

        Raises:
            LimitError: more digits than one decimal may have.
        """
        return self.decimals(digits)


def make_result(
    at_bits: Callable[[int], Ball],
    look: Callable[[], ExactForm],
    *,
    most_bits: int = MOST_BITS,
    is_exact_sought: bool = False,
    remark: str = "",
) -> Result:
    """Make a number from what computes its ball at a precision.

    Args:
        at_bits: computes the ball with so many binary digits.
        look: looks for an exact form where the ball itself knows none.
        most_bits: with how many it may be asked at the most.
        is_exact_sought: whether a decimal that ends in zeros may look for the exact form, to leave
            them out.
        remark: what else is to be said of the number.
    """
    result = _settled(at_bits, most_bits)
    if not result.is_defined:
        return _no_value(result.reason or NOT_DECIDED)
    if not is_writable(result):
        return _no_value("too large or too small to be written")
    if not _is_decided(result):
        return _no_value(NOT_DECIDED)
    # What cannot be distinguished from zero is shown as zero, not as the noise of the last bits.
    value = 0.0 if result.value.contains(0) else float(result.value.mid())

    @cache
    def exact() -> ExactForm:
        known = known_form(result)
        return ExactForm(known) if known is not None else look()

    def decimals(digits: int) -> str:
        text = decimal_text(at_bits, digits, most_bits=most_bits)
        if not (is_exact_sought and "." in text and text.endswith(ZEROS)):
            return text
        number = _as_fraction(exact())
        return text if number is None else shown(number, digits)

    return Result(
        ResultKind.NUMBER, value, "", decimals, exact,
        rational=None if result.exact is None else to_fraction(result.exact), remark=remark,
        at_bits=at_bits,
    )  # fmt: skip


def _as_fraction(form: ExactForm) -> Fraction | None:
    try:
        return None if form.text is None else Fraction(form.text)
    except ValueError:
        return None


def _no_value(reason: str) -> Result:
    return Result(
        ResultKind.NUMBER, math.nan, reason, lambda digits: "", lambda: ExactForm(None)
    )  # fmt: skip


def _settled(at_bits: Callable[[int], Ball], most_bits: int) -> Ball:
    """Compute a ball finely enough to tell whether it is defined, and what number it is."""
    bits = START_BITS
    while True:
        middles = at_bits(bits)
        is_clear = middles.defined is not Defined.MAYBE and (
            not middles.is_defined or _is_decided(middles)
        )
        if is_clear or bits >= most_bits:
            return middles
        bits = min(4 * bits, most_bits)


def _is_decided(value: Ball) -> bool:
    """Check whether a ball says what number it is: its first digits, or that it is as good as 0."""
    if value.exact is not None or value.value.is_exact():
        return True
    if not value.value.contains(0):
        return bool(value.value.rel_accuracy_bits() >= _FLOAT_BITS)
    return bool(value.value.rad() < _SMALL)


def known_form(value: Ball) -> str | None:
    """Return the exact form that a ball carries along: a fraction, or one of pi; else None."""
    if value.exact is not None:
        return str(value.exact)
    if value.turns is None or not is_short(value.turns):
        return None
    top, bottom = int(value.turns.p), int(value.turns.q)
    size = "π" if abs(top) == 1 else f"{abs(top)}π"
    return ("-" if top < 0 else "") + (size if bottom == 1 else f"{size}/{bottom}")


def make_complex(
    at_bits: Callable[[int], acb], look: Callable[[], ExactForm], name_of_i: str = "i"
) -> Result:
    """Make a complex number; a real one is a number like any other.

    Args:
        at_bits: computes the complex ball with so many binary digits.
        look: looks for an exact form.
        name_of_i: how the imaginary unit is written.
    """
    value = at_bits(START_BITS)
    if not (value.real.is_finite() and value.imag.is_finite()):
        return Result(
            ResultKind.COMPLEX, complex(math.nan, math.nan), "no value there",
            lambda digits: "", lambda: ExactForm(None),
        )  # fmt: skip

    def part(index: int) -> ExactForm:
        text = look().text
        parts = None if text is None else complex_fractions(text)
        return ExactForm(None if parts is None else str(parts[index]))

    real = make_result(
        lambda bits: _as_ball(at_bits(bits).real), lambda: part(0), is_exact_sought=True
    )
    imaginary = make_result(
        lambda bits: _as_ball(at_bits(bits).imag), lambda: part(1), is_exact_sought=True
    )
    if imaginary.decimal(_REAL_DIGITS) == "0":
        return make_result(lambda bits: _as_ball(at_bits(bits).real), look, is_exact_sought=True)
    return complex_of(real, imaginary, look, name_of_i)


def _grouped(text: str) -> str:
    return f"({text})" if "±" in text else text


def complex_of(
    real: Result, imaginary: Result, look: Callable[[], ExactForm], name_of_i: str = "i"
) -> Result:
    """Make a complex number of its parts.

    Args:
        real: the real part.
        imaginary: the imaginary part.
        look: looks for an exact form.
        name_of_i: how the imaginary unit is written.
    """

    def decimals(digits: int) -> str:
        a, b = (_grouped(part.decimal(digits)) for part in (real, imaginary))
        if b == "0":
            return a
        size, sign = b.lstrip("−"), "−" if b.startswith("−") else "+"
        size = "" if size == "1" else size + " "
        if a == "0":
            return f"{'−' if sign == '−' else ''}{size}{name_of_i}"
        return f"{a} {sign} {size}{name_of_i}"

    return Result(
        ResultKind.COMPLEX, complex(real.value, imaginary.value), "", decimals, look,
        (real, imaginary),
    )  # fmt: skip


_COMPLEX_FRACTION = re.compile(
    r"(?P<real>-?\d+(?:/\d+)?)?\s*(?:(?P<sign>[+-]?)\s*(?P<top>\d*)i(?:/(?P<bottom>\d+))?)?"
)


def complex_fractions(text: str) -> tuple[Fraction, Fraction] | None:
    """Return both parts of an exact form made of fractions, such as ``1/2 - 3i/4``, else None."""
    bracketed = re.fullmatch(r"\((?P<inner>[^()]*)\)/(?P<bottom>\d+)", text)
    if bracketed:
        inner = complex_fractions(bracketed["inner"])
        bottom = int(bracketed["bottom"])
        return None if inner is None else (inner[0] / bottom, inner[1] / bottom)
    match = _COMPLEX_FRACTION.fullmatch(text.strip())
    if match is None:
        return None
    real = Fraction(match["real"] or 0)
    if "i" not in text:
        return real, Fraction(0)
    size = Fraction(int(match["top"] or 1), int(match["bottom"] or 1))
    return real, -size if match["sign"] == "-" else size


def _as_ball(value: arb) -> Ball:
    number = fraction_of(value)
    exact = None if number is None else fmpq(number.numerator, number.denominator)
    return Ball(value, exact=exact)


def make_point(first: Result, second: Result) -> Result:
    """Put two numbers together."""
    parts = (first, second)

    def exact() -> ExactForm:
        texts = [part.exact for part in parts]
        note = next((part.exact_note for part in parts if part.exact_note), "")
        if any(text is None for text in texts):
            return ExactForm(None, note)
        return ExactForm(f"({texts[0]}, {texts[1]})")

    reason = first.reason or second.reason

    def decimals(digits: int) -> str:
        return "" if reason else f"({first.decimal(digits)}, {second.decimal(digits)})"

    return Result(
        ResultKind.POINT, (first.value, second.value), reason, decimals, exact, parts,
        join=lambda texts: f"({', '.join(texts)})",
    )  # fmt: skip


def make_list(values: NDArray[np.float64], first: tuple[Result, ...]) -> Result:
    """Make a list from its float values and the results of its first elements."""
    return make_array((len(values),), (len(first),), values, first, None)


def make_array(
    shape: tuple[int, ...],
    shown: tuple[int, ...],
    values: NDArray[Any],
    parts: Sequence[Result],
    known: str | None,
    remark: str = "",
) -> Result:
    """Make a list or a matrix from the results of its entries.

    Args:
        shape: (n,) of a list, (m, n) of a matrix.
        shown: the shape of the first entries that have results of their own.
        values: all entries as numbers.
        parts: the results of the first entries, row by row.
        known: its exact form, if all entries are fractions.
        remark: what else is to be said of it.
    """

    def joined(texts: list[str]) -> str:
        if len(shape) == 1:
            return _in_brackets(texts, shape[0], " more")
        width = shown[1]
        rows = [texts[k : k + width] for k in range(0, len(texts), width)]
        return _in_brackets([_in_brackets(row, shape[1]) for row in rows], shape[0])

    def decimals(digits: int) -> str:
        return joined([part.decimal(digits) or "undefined" for part in parts])

    def exact() -> ExactForm:
        if known is not None:
            return ExactForm(known)
        texts = list[str]()
        for part in parts if shown == shape else ():
            # The first entry without a form answers for all: to look for a form can take long.
            if part.exact is None:
                return ExactForm(None, part.exact_note)
            texts.append(part.exact)
        return ExactForm(joined(texts) if shown == shape else None)

    kind = ResultKind.LIST if len(shape) == 1 else ResultKind.MATRIX
    return Result(kind, values, "", decimals, exact, parts, remark=remark, join=joined)


def _in_brackets(texts: list[str], count: int, what: str = "") -> str:
    """Return entries in brackets, and that there are more of them."""
    more = count - len(texts)
    rest = f", … {more:,}{what}" if more and what else ", …" if more else ""
    return f"[{', '.join(texts)}{rest}]"


def make_truth(value: bool) -> Result:
    """Make a result of a statement."""
    words = "true" if value else "false"
    return Result(
        ResultKind.TRUTH, value, "", lambda digits: words, lambda: ExactForm(None)
    )  # fmt: skip


def no_truth() -> Result:
    """Make the result of a statement of which it could not be decided whether it holds."""
    return Result(
        ResultKind.TRUTH, math.nan, NOT_DECIDED, lambda digits: "", lambda: ExactForm(None)
    )  # fmt: skip
