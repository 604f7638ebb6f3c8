"""Where inequalities in one unknown hold: all intervals and single places, with proof.

Each side's difference is taken apart; between its zeros and singular points it has one sign, which
is looked at once. Where several inequalities must hold together, all their cuts are taken together.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass, replace

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, precision
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate import RealFunction
from axis_path.core.locate.algebra.exact import written
from axis_path.core.locate.cells import Interval
from axis_path.core.locate.search.parts import Anatomy, SingularPoint, take_apart
from axis_path.core.locate.search.sampled import sampled_changes
from axis_path.core.locate.search.stopped import located_or_sampled
from axis_path.core.locate.search.verdict import abscissa_text
from axis_path.core.locate.search.zeros import SEARCH_BITS, find_roots

Floats = NDArray[np.float64]
#: A value seems to be zero if it is so many times smaller than one so far beside it.
_SMALL, _OFFSET = 1e-2, 1e-3


@dataclass(frozen=True, slots=True)
class EndPoint:
    """An end of a stretch: where, and how it is written."""

    x: float
    text: str
    exact: str | None


@dataclass(frozen=True, slots=True)
class SolutionInterval:
    """Numbers that satisfy an inequality, from one end to the other; one place has both in one.

    Attributes:
        low_closed: whether the lower end belongs to it; ``high_closed`` likewise.
        is_cut_low: whether it only ends there because the search does; ``is_cut_high`` likewise.
    """

    low: EndPoint
    high: EndPoint
    low_closed: bool
    high_closed: bool
    is_cut_low: bool = False
    is_cut_high: bool = False


@dataclass(frozen=True, slots=True)
class SolutionSet:
    """All numbers that satisfy inequalities.

    Attributes:
        complete: whether it is proved to be just these.
    """

    items: tuple[SolutionInterval, ...]
    complete: bool
    note: str = ""


@dataclass(frozen=True, slots=True)
class Condition:
    """A function that must be above zero, or not below it, or zero, or not zero."""

    function: RealFunction
    sign: str

    def holds(self, value: Ball) -> bool | None:
        """Check whether a value satisfies it; None if that is not known."""
        if value.defined is Defined.NO:
            return False
        sign = value.sign() if value.is_defined else None
        if sign is None:
            return None
        return {">": sign > 0, ">=": sign >= 0, "=": sign == 0, "!=": sign != 0}[self.sign]


@dataclass(frozen=True, slots=True)
class _Cut:
    end: Ball
    zeros_of: frozenset[int]
    surd: str | None = None


def find_solution_set(
    conditions: Sequence[Condition],
    inside: Interval,
    *,
    goes_on: tuple[bool, bool] = (False, False),
) -> SolutionSet:
    """Find where all conditions hold.

    Args:
        conditions: functions of one variable with what must be true of them.
        inside: where to search.
        goes_on: whether below and above the interval all is as at its ends, without end.

    Raises:
        LimitError: a search is too large; NotHandledError: it cannot be done.
        StoppedError: it was stopped, and nothing can be seen of it either.
    """
    try:
        return _located_intervals(conditions, inside, goes_on)
    except StoppedError as err:
        with precision(SEARCH_BITS):
            items, note = located_or_sampled(
                err, (), lambda: _sampled_intervals(conditions, inside)
            )
        return SolutionSet(tuple(items), complete=False, note=note)


def _located_intervals(
    conditions: Sequence[Condition], inside: Interval, goes_on: tuple[bool, bool]
) -> SolutionSet:
    with precision(SEARCH_BITS):
        cuts = [_Cut(inside.low, frozenset()), _Cut(inside.high, frozenset())]
        complete = True
        anatomies: list[Anatomy] = []
        for k, condition in enumerate(conditions):
            anatomy = take_apart(condition.function, inside)
            search = find_roots(anatomy)
            anatomies.append(anatomy)
            sure = not search.undecided and not search.is_crowded
            complete = complete and sure and all(root.proved for root in search.roots)
            cuts += [_Cut(r.abscissa, frozenset({k}), r.surd) for r in search.roots]
            cuts += [_Cut(singular.abscissa, frozenset()) for singular in anatomy.singular_points]
        ordered = _merged(cuts)
        items, sure = _solution_intervals(conditions, anatomies, ordered)
        complete = complete and sure
        items = [_without_end(item, goes_on) for item in items]
    note = "" if complete else "Whether it holds in all of these, and only these, is not proved."
    return SolutionSet(tuple(items), complete, note)


def _sampled_intervals(conditions: Sequence[Condition], inside: Interval) -> list[SolutionInterval]:
    """Return the intervals at whose samples all conditions hold; none of it is checked."""
    is_on, changes = sampled_changes(lambda xs: _hold(conditions, xs), inside)
    abscissae = [inside.low, *changes, inside.high]
    closed = [inside.low_closed, *_seem_closed(conditions, changes), inside.high_closed]
    last = len(abscissae) - 1
    return [
        SolutionInterval(
            _place(_Cut(abscissae[k], frozenset())), _place(_Cut(abscissae[k + 1], frozenset())),
            closed[k], closed[k + 1], is_cut_low=k == 0, is_cut_high=k + 1 == last,
        )
        for k in range(0 if is_on else 1, last, 2)
    ]  # fmt: skip


def _hold(conditions: Sequence[Condition], xs: Floats) -> NDArray[np.bool_]:
    """Return at which places, (n,), all conditions seem to hold."""
    flags = np.ones(len(xs), dtype=np.bool_)
    for condition in conditions:
        values = condition.function.sample(xs)
        with np.errstate(invalid="ignore"):
            flags &= {
                ">": values > 0, ">=": values >= 0, "=": values == 0,
                "!=": np.isfinite(values) & (values != 0),
            }[condition.sign]  # fmt: skip
    return flags


def _seem_closed(conditions: Sequence[Condition], abscissae: Sequence[Ball]) -> list[bool]:
    """Return which ends seem to belong to a stretch: zeros of what must not be negative."""
    at = np.array([float(end.value.mid()) for end in abscissae])
    offset = at + np.maximum(np.abs(at), 1) * _OFFSET
    flags = np.zeros(len(at), dtype=np.bool_)
    with suppress(StoppedError):
        for condition in conditions:
            if condition.sign == ">=" and len(at):
                values = np.abs(condition.function.sample(np.concatenate([at, offset])))
                flags |= values[: len(at)] < _SMALL * values[len(at) :]
    answers: list[bool] = flags.tolist()
    return answers


def _without_end(interval: SolutionInterval, goes_on: tuple[bool, bool]) -> SolutionInterval:
    if interval.is_cut_low and goes_on[0]:
        low = EndPoint(-math.inf, "−∞", None)
        interval = replace(interval, low=low, low_closed=False, is_cut_low=False)
    if interval.is_cut_high and goes_on[1]:
        high = EndPoint(math.inf, "∞", None)
        interval = replace(interval, high=high, high_closed=False, is_cut_high=False)
    return interval


def _merged(cuts: list[_Cut]) -> list[_Cut]:
    merged: list[_Cut] = []
    for cut in sorted(cuts, key=lambda item: item.end.value.mid()):
        if merged and merged[-1].end.value.overlaps(cut.end.value):
            other = merged[-1]
            end = cut.end if written(cut.end) is not None else other.end
            surd = other.surd or cut.surd
            merged[-1] = _Cut(end, other.zeros_of | cut.zeros_of, surd)
        else:
            merged.append(cut)
    return merged


def _solution_intervals(
    conditions: Sequence[Condition], anatomies: list[Anatomy], cuts: list[_Cut]
) -> tuple[list[SolutionInterval], bool]:
    """Look at every cut and between every two, and put together what holds."""
    result: list[SolutionInterval] = []
    sure = True
    current: SolutionInterval | None = None
    for k, cut in enumerate(cuts):
        at_cut = [_at(condition, anatomies[j], cut, j) for j, condition in enumerate(conditions)]
        here = _together(at_cut)
        sure = sure and here is not None
        end = _place(cut)
        is_first, is_last = k == 0, k == len(cuts) - 1
        if here and current is None:
            current = SolutionInterval(end, end, True, True, is_cut_low=is_first)
        elif current is not None:
            current = replace(current, high=end, high_closed=bool(here))
            if not here:
                result.append(current)
                current = None
        if is_last:
            break
        between = _between(conditions, cut, cuts[k + 1])
        sure = sure and between is not None
        if between and current is None:
            current = SolutionInterval(end, end, False, False, is_cut_low=is_first)
        elif not between and current is not None:
            result.append(replace(current, high=end, high_closed=True))
            current = None
    if current is not None:
        result.append(replace(current, is_cut_high=True))
    return result, sure


def _at(condition: Condition, anatomy: Anatomy, cut: _Cut, k: int) -> bool | None:
    if k in cut.zeros_of:
        return condition.sign in (">=", "=")
    singular = next(
        (s for s in anatomy.singular_points if s.abscissa.value.overlaps(cut.end.value)), None
    )
    value = anatomy.value_at(singular or SingularPoint(cut.end))
    return condition.holds(value)


def _between(conditions: Sequence[Condition], low: _Cut, high: _Cut) -> bool | None:
    a, b = low.end.value.mid(), high.end.value.mid()
    middle = Ball((a + (b - a) * arb(0.4876)).mid())
    return _together(
        [condition.holds(condition.function.prove_within(middle)) for condition in conditions]
    )


def _together(answers: list[bool | None]) -> bool | None:
    if False in answers:
        return False
    return None if None in answers else True


def _place(cut: _Cut) -> EndPoint:
    x = float(cut.end.value.mid()) + 0.0
    return EndPoint(x, abscissa_text(cut.end), written(cut.end) or cut.surd)
