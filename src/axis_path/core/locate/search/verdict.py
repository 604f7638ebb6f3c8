"""From what a search found to findings, with the judgement whether they are all."""

from __future__ import annotations

import math
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, replace
from itertools import pairwise

from flint import arb

from axis_path.core.arithmetic import Ball, Defined
from axis_path.core.evaluate import digits_between, digits_of
from axis_path.core.locate.algebra.exact import written
from axis_path.core.locate.cells import (
    Cell,
    Root,
    Search,
    float_above,
    float_below,
    is_tiny,
    merged_cells,
)
from axis_path.core.locate.finding import Finding, Kind
from axis_path.core.locate.search.parts import Anatomy, SingularPoint

#: Floats around a number may share so many digits.
_DIGITS_OF_FLOATS = 14
#: How many digits are written; a study may want others.
_digits: ContextVar[int] = ContextVar("digits", default=10)
#: So many intervals are described.
_MOST_INTERVALS = 3
#: So many places that are left out are listed.
_MOST_GAPS = 6
#: Longer exact forms of values are given as decimals.
_LONGEST = 30
#: A value is shown if it is known better than this, as a part of its size.
_WIDEST = 1e-6


def make_finding(root: Root) -> Finding:
    """Return a root as a finding, with as many digits as are sure."""
    finding = finding_at(Kind.ZERO, root.abscissa, proved=root.proved, note=root.note)
    return replace(finding, y=0.0, multiplicity=root.order, exact=finding.exact or root.surd)


def finding_at(
    kind: Kind, abscissa: Ball, value: Ball | None = None, *,
    proved: bool, note: str = "", why: str = "",
) -> Finding:  # fmt: skip
    """Return a finding at a place, with as many digits as are sure.

    Args:
        kind: what it is.
        abscissa: a ball that contains it.
        value: the value there; None if there is none to show. One that is hardly known, such as
            that between the two sides of a jump, is not shown.
        proved: whether exactly one such point is proved to lie in the ball.
        note: why it is not proved.
        why: by what it is, or what else is known.
    """
    has_value = value is not None and value.is_defined and _is_narrow(value)
    return Finding(
        kind, float(abscissa.value.mid()) + 0.0,
        float(value.value.mid()) + 0.0 if value is not None and has_value else math.nan,
        bracket_of(abscissa), proved, written(abscissa), abscissa_text(abscissa), note,
        abscissa_text(value) if value is not None and has_value else "",
        y_exact=written(value) if value is not None and has_value else None, why=why,
    )  # fmt: skip


def _is_narrow(value: Ball) -> bool:
    return bool(value.value.rad() <= _WIDEST * max(abs(value.value).upper(), arb(1)))


@contextmanager
def showing(digits: int) -> Iterator[None]:
    """Write numbers with so many digits within the block."""
    token = _digits.set(digits)
    try:
        yield
    finally:
        _digits.reset(token)


def digits_shown() -> int:
    """Return how many digits are written now."""
    return _digits.get()


def abscissa_text(abscissa: Ball) -> str:
    """Write a number with the digits that are shown, each right; fewer where fewer are sure."""
    if (
        abscissa.exact is None
        and abscissa.value.is_finite()
        and digits_shown() <= _DIGITS_OF_FLOATS
    ):
        # Floats around it nearly always share their digits, and are quicker to write.
        quick = digits_between(*bracket_of(abscissa), digits_shown())
        if quick:
            return quick
    for digits in range(digits_shown(), 0, -1):
        text = digits_of(abscissa, digits)
        if text is not None:
            return text
    value = abscissa.value
    return f"{float(value.mid()):.3g} ± {float(value.rad()):.1g}".replace("-", "−")


def value_text(value: Ball) -> str:
    """Write a value in exact form where it has one, else as ``abscissa_text`` does."""
    exact = written(value)
    return exact if exact is not None and len(exact) <= _LONGEST else abscissa_text(value)


@dataclass(frozen=True, slots=True)
class Words:
    """How what is sought is called.

    Attributes:
        many: in the plural.
        holds: that it is so.
        along: before an interval in which it is so.
    """

    many: str
    holds: str
    along: str = "all along"


ZEROS = Words("zeros", "It is zero")
SAME_ALL_ALONG = Words("intersections", "They are the same")
TURNS = Words("places where the slope is zero", "It is level")
BENDS = Words("points of inflection", "It is straight")
SOLUTIONS = Words("solutions", "It is true", "for")


@dataclass(frozen=True, slots=True)
class Verdict:
    """What is to be said of a search.

    Attributes:
        roots: those that are points: not the ones in intervals where it is so all along.
        complete: whether it is proved that there are no others.
        note: what is not certain, in words.
        is_stopped: whether the search was stopped: this is what was found until then.
        along: the sentences about the intervals in which it is so all along, if it is proved that
            there is nothing but these and the roots.
    """

    roots: tuple[Root, ...]
    complete: bool
    note: str
    is_stopped: bool = False
    along: str = ""


def judge(anatomy: Anatomy, search: Search, words: Words = ZEROS) -> Verdict:
    """Judge whether a search is complete, and what is not certain."""
    width = _width(anatomy)
    intervals = _zero_intervals(anatomy, search.constant)
    notes = [
        f"{words.holds} {_write_interval(anatomy, zero_interval, width, words)}."
        for zero_interval in intervals[:_MOST_INTERVALS]
    ]
    along = " ".join(notes)
    brackets = [bracket_of(root.abscissa) for root in search.roots]
    notes += open_notes(anatomy, search, brackets, words)
    known_roots = tuple(
        root
        for root, bracket in zip(search.roots, brackets, strict=True)
        if not any(_holds_any(zero_interval.cell, [bracket]) for zero_interval in intervals)
    )
    is_sure = not search.undecided and not search.is_crowded
    is_all = (
        is_sure and all(root.proved for root in known_roots) and len(intervals) <= _MOST_INTERVALS
    )
    complete = is_all and not intervals
    if not complete and not notes:
        notes.append(f"Whether there are more {words.many} next to these is not decided.")
    return Verdict(known_roots, complete, " ".join(notes), along=along if is_all else "")


def bracket_of(abscissa: Ball) -> tuple[float, float]:
    """Return floats below and above a place."""
    return float_below(abscissa.value.lower()), float_above(abscissa.value.upper())


def open_notes(
    anatomy: Anatomy, search: Search, brackets: list[tuple[float, float]], words: Words
) -> list[str]:
    """Describe what a search has left open.

    Args:
        anatomy: of what was searched.
        search: what it has found.
        brackets: around what is given as found.
        words: what is sought.
    """
    variable, width = anatomy.function.variable, _width(anatomy)
    undecided = [c for c in merged_cells(search.undecided) if not _holds_any(c, brackets)]
    notes: list[str] = []
    crowd = _accumulation(anatomy, undecided) if search.is_crowded else None
    if crowd is not None:
        singular, cells = crowd
        undecided = [cell for cell in undecided if cell not in cells]
        centre = singular.abscissa.value
        reach = max(abs(end.value - centre).upper() for c in cells for end in (c.low, c.high))
        many = words.many[0].upper() + words.many[1:]
        notes.append(
            f"{many} crowd together at {variable} = {near(singular.abscissa, width)}: there may be "
            f"infinitely many. All that are farther from there than {_rounded_up(float(reach))} "
            "are given."
        )
    elif search.is_crowded:
        notes.append(f"There are more than {len(brackets):,}: search a shorter interval.")
    if len(undecided) > 3 or any(not is_tiny(cell) for cell in undecided):
        zero_interval = between(Cell(undecided[0].low, undecided[-1].high), variable, width)
        notes.append(
            f"Whether there are more {words.many} in parts of {zero_interval} could not be decided."
        )
    else:
        notes.extend(
            f"Whether there are {words.many} near {variable} = {near(cell.low, width)} "
            "could not be decided."
            for cell in undecided
        )
    return notes


def _width(anatomy: Anatomy) -> float:
    return float((anatomy.inside.high.value - anatomy.inside.low.value).mid())


def _accumulation(
    anatomy: Anatomy, undecided: list[Cell]
) -> tuple[SingularPoint, list[Cell]] | None:
    """Return a singular point at which all that is undecided comes together, with those cells."""
    for singular in anatomy.singular_points:
        if singular.is_end and not singular.zeros:
            # A smooth function has no more than so many zeros beside an end that is nothing else.
            continue
        near_by = [
            cell
            for cell in undecided
            if cell.hull().value.overlaps(singular.abscissa.value) and not is_tiny(cell)
        ]
        if near_by:
            low, high = near_by[0].low.value, near_by[-1].high.value
            room = high - low
            more = [
                cell
                for cell in undecided
                if bool(cell.low.value >= low - room) and bool(cell.high.value <= high + room)
            ]
            return singular, more
    return None


@dataclass(frozen=True, slots=True)
class _ZeroInterval:
    """An interval in which a function is zero, but for some places inside it."""

    cell: Cell
    gaps: tuple[Ball, ...] = ()


def _zero_intervals(anatomy: Anatomy, constant: list[Cell]) -> list[_ZeroInterval]:
    """Return where a function is zero all along, of where one of its factors is.

    An interval where a factor is zero but the function has no value is none of its zeros, nor one
    where another piece holds.
    """
    result: list[_ZeroInterval] = []
    for cell in merged_cells(constant):
        low, high = cell.low.value, cell.high.value
        inner = [
            singular
            for singular in anatomy.singular_points
            if singular.abscissa.value > low and singular.abscissa.value < high
        ]
        gaps = {id(singular.abscissa) for singular in inner if not _is_zero_at(anatomy, singular)}
        for one, other in pairwise(
            [cell.low, *(singular.abscissa for singular in inner), cell.high]
        ):
            part = Cell(one, other)
            value = anatomy.function.prove(Ball(arb(part.middle)))
            if value.defined is Defined.NO or value.excludes_zero():
                continue
            if result and result[-1].cell.high is one:
                before = result.pop()
                more = (one,) if id(one) in gaps else ()
                result.append(_ZeroInterval(Cell(before.cell.low, other), (*before.gaps, *more)))
            else:
                result.append(_ZeroInterval(part))
    return result


def _is_zero_at(anatomy: Anatomy, singular: SingularPoint) -> bool:
    value = anatomy.value_at(singular)
    return value.is_defined and value.value.is_zero()


def _write_interval(
    anatomy: Anatomy, zero_interval: _ZeroInterval, width: float, words: Words
) -> str:
    """Write an interval in which the function is zero, with the ends that belong to it."""
    inside, name, cell = anatomy.inside, anatomy.function.variable, zero_interval.cell
    goes_on = (
        inside.low_goes_on and bool(cell.low.value.overlaps(inside.low.value)),
        inside.high_goes_on and bool(cell.high.value.overlaps(inside.high.value)),
    )
    signs = []
    for end in (cell.low, cell.high):
        singular = next(
            (s for s in anatomy.singular_points if s.abscissa.value.overlaps(end.value)), None
        )
        signs.append("≤" if singular is not None and _is_zero_at(anatomy, singular) else "<")
    low, high = (written(end) or near(end, width) for end in (cell.low, cell.high))
    gaps = _except([written(gap) or near(gap, width) for gap in zero_interval.gaps], name)
    if all(goes_on):
        return f"for every {name}{gaps}"
    if goes_on[0]:
        return f"for every {name} {signs[1]} {high}{gaps}"
    if goes_on[1]:
        return f"for every {name} {'≥' if signs[0] == '≤' else '>'} {low}{gaps}"
    return f"{words.along} {low} {signs[0]} {name} {signs[1]} {high}{gaps}"


def _except(gaps: list[str], name: str) -> str:
    """Write the places that are left out."""
    if not gaps:
        return ""
    if len(gaps) == 1:
        return f" except {name} = {gaps[0]}"
    listed = ", ".join(gaps[:_MOST_GAPS] if len(gaps) > _MOST_GAPS else gaps[:-1])
    last = f"{len(gaps) - _MOST_GAPS} more places" if len(gaps) > _MOST_GAPS else gaps[-1]
    return f" except {listed} and {last}"


def _rounded_up(value: float) -> str:
    """Write a distance with two digits, not less than it is."""
    step = 10.0 ** (math.floor(math.log10(value)) - 1)
    return f"{math.ceil(value / step * (1 + 1e-12)) * step:.2g}"


def _holds_any(cell: Cell, brackets: list[tuple[float, float]]) -> bool:
    low, high = float(cell.low.value.mid()), float(cell.high.value.mid())
    return any(low <= b and a <= high for a, b in brackets)


def between(cell: Cell, variable: str, width: float) -> str:
    """Write that the variable lies in a cell."""
    return f"{near(cell.low, width)} < {variable} < {near(cell.high, width)}"


def near(abscissa: Ball, width: float) -> str:
    """Write a place roughly: to a billionth of the interval."""
    value = float(abscissa.value.mid())
    value = 0.0 if abs(value) < 1e-9 * width else value
    return f"{value:.5g}".replace("-", "−")
