"""All zeros of a function on an interval, with proof.

The function is split into factors. For each factor the interval is halved until in every cell it is
proved that there is no zero (the ball of values excludes 0), or exactly one (the ball of slopes
excludes 0 and the signs at the ends differ). A cell that stays undecided is looked at once more:
a simple number that makes the factor exactly 0, at which it touches the axis, is proved by the
second derivative. What is still undecided is named, and the search is then not complete.

Source: Moore, Kearfott, Cloud, *Introduction to Interval Analysis*, chapter 8; Tucker, *Validated
Numerics*, chapter 5.
"""

from __future__ import annotations

from collections import deque

import numpy as np
from flint import arb, fmpq_poly

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.errors import LimitError, NotHandledError, StoppedError
from axis_path.core.evaluate import Expression, RealFunction
from axis_path.core.limits import FOUND, LOCATE_CELLS
from axis_path.core.locate.cells import (
    Cell,
    Interval,
    Root,
    Search,
    float_above,
    float_below,
    is_tiny,
    merged_cells,
)
from axis_path.core.locate.exact import candidates, written
from axis_path.core.locate.finding import Findings
from axis_path.core.locate.polynomial import as_polynomial, real_zeros
from axis_path.core.locate.verdict import judge, make_finding

_BITS = 128
#: A zero is narrowed to this part of itself: enough for a float and for its simple exact form.
_NARROW = arb(2) ** -70
#: Beyond the smallest floats nothing is narrowed.
_FINEST = arb(2) ** -1100


def find_zeros(
    function: RealFunction, interval: Interval, *, max_cells: int = LOCATE_CELLS.value
) -> Findings:
    """Locate all zeros of a function on an interval.

    Args:
        function: its own domain is respected.
        interval: where to search.
        max_cells: how many cells may be looked at for each factor.
    """
    with precision(_BITS):
        inside = _clip(function, interval)
        if inside is None:
            return Findings((), complete=True, note="The interval lies outside the domain.")
        search = Search([], [], [])
        try:
            for factor in function.expression.factors(through_pieces=True):
                _search_factor(function, factor, inside, search, max_cells)
        except StoppedError:
            raise
        except (LimitError, NotHandledError) as err:
            return Findings((), complete=False, note=err.message)
        roots = _distinct(_checked(function, inside, search.roots))
        findings = tuple(make_finding(root) for root in roots)
        return judge(function, inside, findings, search)


def _clip(function: RealFunction, interval: Interval) -> Interval | None:
    """Cut the interval to the function's own domain; None if nothing is left."""
    low, low_closed = interval.low, interval.low_closed
    high, high_closed = interval.high, interval.high_closed
    if function.low is not None and ball.subtract(function.low.value, low).sign() in (0, 1):
        same = ball.subtract(function.low.value, low).sign() == 0
        low, low_closed = function.low.value, function.low.closed and (not same or low_closed)
    if function.high is not None and ball.subtract(high, function.high.value).sign() in (0, 1):
        same = ball.subtract(high, function.high.value).sign() == 0
        high, high_closed = function.high.value, function.high.closed and (not same or high_closed)
    if ball.subtract(high, low).sign() != 1:
        return None
    return Interval(low, high, low_closed, high_closed)


def _search_factor(
    function: RealFunction, factor: Expression, inside: Interval, search: Search, max_cells: int
) -> None:
    polynomial = as_polynomial(function, factor)
    if polynomial is not None:
        _search_polynomial(function, factor, polynomial, inside, search)
        return
    slope = factor.derivative()
    waiting = deque([Cell(inside.low, inside.high)])
    looked_at = 0
    while waiting:
        cell = waiting.popleft()
        looked_at += 1
        hull = cell.hull()
        values = function.prove(hull, factor)
        if values.excludes_zero():
            continue
        if not values.value.is_finite() and _is_excluded_by_floats(function, factor, hull):
            continue
        if values.is_defined and values.sign() == 0:
            search.constant.append(cell)
            continue
        if values.is_defined and values.continuous:
            slopes = function.prove(hull, slope)
            if slopes.is_defined and _is_settled(function, factor, slope, cell, slopes, search):
                continue
        stop = looked_at > max_cells or len(search.roots) >= FOUND.value
        if cell.is_narrow or stop:
            search.undecided.append(cell)
            continue
        middle = Ball(arb(cell.middle))
        waiting.append(Cell(cell.low, middle))
        waiting.append(Cell(middle, cell.high))
    _settle(function, factor, search)


def _search_polynomial(
    function: RealFunction,
    factor: Expression,
    polynomial: fmpq_poly,
    inside: Interval,
    search: Search,
) -> None:
    if polynomial.degree() < 0:
        search.constant.append(Cell(inside.low, inside.high))
    if polynomial.degree() < 1:
        return
    for place in real_zeros(polynomial):
        if place < inside.low.value or place > inside.high.value:
            continue
        search.roots.append(_exact_root(function, factor, place) or Root(Ball(place), proved=True))


def _is_settled(
    function: RealFunction,
    factor: Expression,
    slope: Expression,
    cell: Cell,
    slopes: Ball,
    search: Search,
) -> bool:
    """Settle a cell in which the factor has a slope everywhere, if its slopes tell enough."""
    sign = slopes.sign()
    if sign == 0:
        if function.prove(cell.low, factor).sign() == 0:
            search.constant.append(cell)
            return True
        return function.prove(cell.low, factor).excludes_zero()
    if sign is not None:
        root = _monotone_root(function, factor, slope, cell)
        if root is not None:
            search.roots.append(root)
            return True
        return _has_no_root(function, factor, cell)
    # The mean value theorem: f(X) lies in f(m) + f'(X) (X - m), which is tighter in small cells.
    hull = cell.hull().value
    middle = hull.mid()
    value = function.prove(Ball(middle), factor)
    reach = value.value + slopes.value * (hull - middle)
    return value.is_defined and bool(reach > 0 or reach < 0)


def _is_excluded_by_floats(function: RealFunction, factor: Expression, hull: Ball) -> bool:
    """Exclude a zero by enclosures, which can be unbounded on one side only, as ln is at 0."""
    low = np.array([float_below(hull.value.lower())])
    high = np.array([float_above(hull.value.upper())])
    bounds = function.enclose(low, high, factor)
    return bool(np.any(bounds.nowhere) or bounds.low[0] > 0 or bounds.high[0] < 0)


def _signs(function: RealFunction, factor: Expression, cell: Cell) -> tuple[int | None, int | None]:
    return (
        function.prove(cell.low, factor).sign(),
        function.prove(cell.high, factor).sign(),
    )


def _has_no_root(function: RealFunction, factor: Expression, cell: Cell) -> bool:
    low, high = _signs(function, factor, cell)
    return low is not None and low == high and low != 0


def _monotone_root(
    function: RealFunction, factor: Expression, slope: Expression, cell: Cell
) -> Root | None:
    """Give the one zero of a factor that rises or falls all over a cell, None if there is none."""
    low, high = _signs(function, factor, cell)
    if low == 0:
        return Root(cell.low, proved=True)
    if high == 0:
        return Root(cell.high, proved=True)
    if low is None or high is None or low == high:
        return None
    place = _narrowed(function, factor, slope, cell)
    return _exact_root(function, factor, place) or Root(Ball(place), proved=True)


def _exact_root(function: RealFunction, factor: Expression, place: arb) -> Root | None:
    for candidate, _ in candidates(place.lower(), place.upper()):
        value = function.prove(candidate, factor)
        if value.is_defined and value.exact is not None and value.exact == 0:
            return Root(candidate, proved=True)
    return None


def _narrowed(function: RealFunction, factor: Expression, slope: Expression, cell: Cell) -> arb:
    """Narrow a cell with exactly one zero by Newton's method on intervals.

    Every step keeps the zero inside; where a step does not help, the cell is halved by sign.
    """
    hull = cell.hull().value
    low_sign = function.prove(cell.low, factor).sign()
    for _ in range(200):
        middle = hull.mid()
        # Relative to the zero itself: one at 10^-200 is narrowed until its digits are known.
        if hull.rad() <= _NARROW * abs(middle) or hull.rad() < _FINEST:
            break
        value = function.prove(Ball(middle), factor)
        slopes = function.prove(Ball(hull), slope)
        step = middle - value.value / slopes.value
        if step.is_finite() and step.overlaps(hull):
            narrower = step.intersection(hull)
            if narrower.rad() * 2 < hull.rad():
                hull = narrower
                continue
        sign = value.sign()
        if sign is None or sign == 0:
            break
        hull = middle.union(hull.upper()) if sign == low_sign else hull.lower().union(middle)
    return hull


def _settle(function: RealFunction, factor: Expression, search: Search) -> None:
    """Try once more where the cells stayed undecided; neighbours are taken together."""
    left: list[Cell] = []
    for cell in merged_cells(search.undecided):
        root = _touching_root(function, factor, cell) if is_tiny(cell) else None
        if root is None:
            left.append(cell)
        else:
            search.roots.append(root)
            if not root.proved:
                left.append(cell)
    search.undecided = sorted(left, key=lambda each: float(each.low.value.mid()))


def _touching_root(function: RealFunction, factor: Expression, cell: Cell) -> Root | None:
    low, high = cell.low.value.lower(), cell.high.value.upper()
    hull = Ball(low.union(high))
    ends = [
        (end, "") for end in (cell.low, cell.high) if end.exact is not None or end.turns is not None
    ]
    for candidate, _ in [*ends, *candidates(low, high)]:
        value = function.prove(candidate, factor)
        if not (value.is_defined and value.exact is not None and value.exact == 0):
            continue
        slope = factor.derivative()
        touches = function.prove(candidate, slope)
        bend = function.prove(hull, slope.derivative())
        only = (
            touches.is_defined
            and touches.sign() == 0
            and bend.is_defined
            and bend.continuous
            and bend.sign() in (-1, 1)
        )
        reason = (
            ""
            if only
            else "the function is zero here; that it has no other zero this close is not proved"
        )
        return Root(candidate, proved=only, note=reason)
    values = function.prove(hull, factor)
    if values.defined is Defined.YES and values.continuous:
        low_sign, high_sign = _signs(function, factor, cell)
        if low_sign is not None and high_sign is not None and low_sign * high_sign < 0:
            return Root(hull, proved=False, note="the sign changes here; how often is not proved")
        if bool(abs(values.value) < arb(1e-9)):
            return Root(hull, proved=False, note="the function comes so close to zero here "
                         "that it could not be told from zero")  # fmt: skip
    return None


def _checked(function: RealFunction, inside: Interval, roots: list[Root]) -> list[Root]:
    """Keep the zeros of factors that are zeros of the function and lie in the interval."""
    kept: list[Root] = []
    for root in roots:
        low = ball.subtract(root.place, inside.low).sign()
        high = ball.subtract(inside.high, root.place).sign()
        if -1 in (low, high):
            continue
        if (low == 0 and not inside.low_closed) or (high == 0 and not inside.high_closed):
            continue
        if any(ball.subtract(root.place, value).sign() == 0 for value in function.without):
            continue
        value = function.prove(root.place)
        if value.defined is Defined.NO or (value.is_defined and value.excludes_zero()):
            # It lies in a gap of the domain, or in another piece than the factor.
            continue
        if value.defined is Defined.YES and not value.continuous and root.place.exact is None:
            note = "whether it is a zero of the piece that holds here is not proved"
            root = Root(root.place, proved=False, note=note)
        if value.defined is Defined.MAYBE:
            note = f"whether there is a value here is not proved ({value.reason})"
            root = Root(root.place, proved=False, note=note)
        elif low is None or high is None:
            note = "whether it lies inside the interval is not proved"
            root = Root(root.place, proved=False, note=note)
        kept.append(root)
    return kept


def _distinct(roots: list[Root]) -> list[Root]:
    """Give each place once: two factors, or two cells that share an end, may find the same zero."""
    distinct: list[Root] = []
    for root in sorted(roots, key=lambda each: float(each.place.value.mid())):
        if distinct and distinct[-1].place.value.overlaps(root.place.value):
            other = distinct[-1]
            if written(root.place) is not None and written(root.place) == written(other.place):
                distinct[-1] = root if root.proved else other
                continue
            note = "two zeros may lie here, too close to be told apart"
            wide = Ball(other.place.value.union(root.place.value))
            distinct[-1] = Root(wide, proved=False, note=note)
        else:
            distinct.append(root)
    return distinct
