"""All zeros of one smooth function between two places, with proof.

The function is split into factors. A polynomial with rational coefficients is isolated exactly. Any
other factor is first pruned with enclosures (``prune.py``), which settles simple zeros. The rest
is halved with balls of 128 bits: a cell is settled when the ball of values excludes 0, or when the
ball of slopes does and the signs at its ends are known. Where the function touches the axis, a
simple number that makes it exactly 0 is looked for: if its first derivatives are exactly 0 there
too and the next keeps its sign, it is the only zero. Else the turning point is located and tells
whether the function passes the axis, unless it comes too close to be told from zero. What is still
undecided is named.

Source: Moore, Kearfott, Cloud, *Introduction to Interval Analysis*, chapter 8; Tucker, *Validated
Numerics*, chapter 5.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from flint import arb, fmpq_poly

from axis_path.core.arithmetic import Ball, Defined, Enclosure, ball
from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Expression, RealFunction
from axis_path.core.limits import FOUND, LOCATE_CELLS
from axis_path.core.locate.algebra.algebraic import vanishes
from axis_path.core.locate.algebra.by_form import is_exponential, search_by_form
from axis_path.core.locate.algebra.exact import candidates, quadratic_at, quick_candidates
from axis_path.core.locate.algebra.polynomial import as_polynomial, real_zeros
from axis_path.core.locate.algebra.rational import as_quotient
from axis_path.core.locate.algebra.several import cancels_in_parts
from axis_path.core.locate.algebra.turning import search_by_half_angle
from axis_path.core.locate.cells import (
    Cell,
    Root,
    Search,
    float_above,
    float_below,
    is_tiny,
    merged_cells,
)
from axis_path.core.locate.search.prune import Pruned, prune

#: A zero is narrowed to this part of itself: enough for a float and for its simple exact form.
_NARROW = arb(2) ** -70
#: Brackets of floats are sharp enough if they are no wider than this, relative to the zero.
_SHARP = 1e-14
#: Beyond the smallest floats nothing is narrowed.
_FINEST = arb(2) ** -1100
#: How many derivatives may vanish together with the function.
_MOST_ORDER = 8
_FEW_CELLS = 400
#: Where zeros crowd without end, so many of them are given.
_MOST_IN_CROWD = 120
#: A value this small, beside the values around it, cannot be told from zero.
_CLOSE = arb(10) ** -25


def search_branch(
    function: RealFunction,
    cells: Sequence[Cell],
    search: Search,
    *,
    is_smooth: bool,
    max_cells: int = LOCATE_CELLS.value,
) -> None:
    """Locate all zeros of a function in cells, as far as they can be proved.

    Args:
        function: its own domain is not looked at.
        cells: where to search, in order.
        search: takes what is found.
        is_smooth: whether the function is known to be smooth inside each cell, if not at its ends;
            otherwise that is proved where it is needed.
        max_cells: how many cells may be halved for each factor.

    Raises:
        LimitError: an expression grows too large; NotHandledError: a derivative is not known.
    """
    whole = _Factor(function, function.expression, Search(), is_smooth=is_smooth)
    for factor, polynomial in _parted(function):
        found = Search()
        searching = _Factor(function, factor, found, is_smooth=is_smooth)
        searching.search(cells, max_cells, polynomial)
        if factor is function.expression:
            found.roots = [_with_factors(function, root) for root in found.roots]
        if found.undecided or not all(root.proved for root in found.roots):
            found = (
                searching.by_quotient(cells)
                or searching.by_half_angle(cells)
                or search_by_form(_search_part, function, factor, cells, is_smooth=is_smooth)
                or found
            )
        for root in found.roots:
            zeros = root.zeros | {factor.step}
            is_own = factor.step == whole.factor.step
            order = root.order if is_own and root.order else whole.order(root.place, zeros)
            search.roots.append(replace(root, source=factor.step, order=order, zeros=zeros))
        search.undecided += found.undecided
        search.is_crowded = search.is_crowded or found.is_crowded
        search.constant += found.constant


def is_zero_along(function: RealFunction, cell: Cell) -> bool:
    """Check whether a smooth function is proved to be zero all along a cell."""
    factor = _Factor(function, function.expression, Search(), is_smooth=True)
    return factor.is_zero_along([cell])


def _search_part(
    function: RealFunction, expression: Expression, cells: Sequence[Cell], *, is_smooth: bool
) -> Search:
    """Search another expression of a function's graph."""
    found = Search()
    search_branch(replace(function, expression=expression), cells, found, is_smooth=is_smooth)
    return found


def _parted(function: RealFunction) -> list[tuple[Expression, fmpq_poly | None]]:
    """Return the factors of a function; beside each the polynomial that it is, if it is one."""
    whole = function.expression
    polynomial = as_polynomial(function, whole)
    if polynomial is not None:
        # Not parted, so that its zeros come with their multiplicities.
        return [(whole, polynomial)]
    factors = whole.factors(through_pieces=True)
    return [
        (each, None if each.step == whole.step else as_polynomial(function, each))
        for each in factors
    ]


def _with_factors(function: RealFunction, root: Root) -> Root:
    """Note which factor is zero at a root of the whole: the only one that can be."""
    able = function.expression.factors(through_pieces=True)
    if len(able) > 1:
        able = [each for each in able if not function.prove(root.place, each).excludes_zero()]
    return replace(root, zeros=root.zeros | {able[0].step}) if len(able) == 1 else root


class _Factor:
    """One factor of a function, and what has been found of its zeros."""

    def __init__(
        self, function: RealFunction, factor: Expression, search: Search, *, is_smooth: bool
    ) -> None:
        self.function = function
        self.factor = factor
        self.search_ = search
        self.is_smooth = is_smooth
        self.is_dense = False
        self._slopes: list[Expression] = [factor]
        #: Signs at ends that are known by what is zero there.
        self._at_ends: dict[tuple[float, frozenset[int]], int | None] = {}

    def search(
        self, cells: Sequence[Cell], max_cells: int, polynomial: fmpq_poly | None = None
    ) -> None:
        """Locate all zeros in cells, as far as they can be proved.

        Args:
            cells: where to search, in order.
            max_cells: how many of their parts may be halved.
            polynomial: the factor, if it is one.
        """
        if polynomial is not None:
            self._search_polynomial(polynomial, cells)
            return
        left = self._pruned(cells)
        if _width_of(left) * 2 > _width_of(cells) and self.is_zero_along(cells):
            self.search_.constant.extend(cells)
            return
        if left and is_exponential(self.function, self.factor):
            # Its form tells at once what halving would not: the exponent may be without bounds.
            self.search_.undecided += left
            return
        for part in left:
            root = self._multiple_root(part) if not is_tiny(part) else None
            if root is not None and root.proved:
                self.search_.roots.append(root)
            elif not self._is_settled_by_turn(part):
                # What enclosures could not thin out balls will not either.
                self._halve(part, min(max_cells, _FEW_CELLS) if self.is_dense else max_cells)
        self._settle()

    def by_quotient(self, cells: Sequence[Cell]) -> Search | None:
        """Return all zeros in cells of a quotient of polynomials; None if it is none."""
        quotient = as_quotient(self.function, self.factor)
        if quotient is None:
            return None
        found = _Factor(self.function, self.factor, Search(), is_smooth=self.is_smooth)
        found._search_polynomial(quotient.top, cells)
        return found.search_

    def by_half_angle(self, cells: Sequence[Cell]) -> Search | None:
        """Return all zeros in cells of what is made of waves; None if it is not."""
        found = search_by_half_angle(self.function, self.factor, cells)
        if found is not None:
            found.roots = [
                self._exact_root(root.place.value, root.order) or root for root in found.roots
            ]
        return found

    def order(self, place: Ball, zeros: frozenset[int]) -> int | None:
        """Return the multiplicity of a zero, if it can be told.

        Args:
            place: where it is.
            zeros: the steps that are known to be zero there.
        """
        if place.exact is not None or place.turns is not None:
            return self._order(place)
        try:
            for order in range(1, _MOST_ORDER + 1):
                value = self._prove(place, order)
                if value.is_defined and value.continuous and value.excludes_zero():
                    return order
                value = self.function.settle(place, zeros, self._derivative(order))
                if not value.is_defined or value.excludes_zero():
                    return order if value.is_defined else None
                if value.exact != 0:
                    break
        except (LimitError, NotHandledError):
            pass
        return self._order_by_form(place)

    def _order_by_form(self, place: Ball) -> int | None:
        """Return the multiplicity of a zero of a quotient of polynomials, or of waves."""
        around = [Cell(Ball(place.value.lower()), Ball(place.value.upper()))]
        found = self.by_quotient(around) or self.by_half_angle(around)
        orders = [] if found is None else [root.order for root in found.roots]
        return orders[0] if len(orders) == 1 else None

    def is_zero_along(self, cells: Sequence[Cell]) -> bool:
        """Check whether the factor is zero in all cells: its terms cancel, or it is level at 0."""
        if self._cancels(self.factor):
            return True
        try:
            if not self._cancels(self._derivative(1)):
                return False
        except (LimitError, NotHandledError):
            return False
        return all(any(map(self._is_zero, _simple_inside(cell))) for cell in cells)

    def _cancels(self, expression: Expression) -> bool:
        """Check whether an expression is zero by its terms, or as a quotient of polynomials."""
        if expression.is_zero():
            return True
        quotient = as_quotient(self.function, expression)
        if quotient is not None:
            return bool(quotient.top == 0)
        return cancels_in_parts(self.function, expression)

    # Proofs

    def _prove(self, place: Ball, order: int = 0) -> Ball:
        return self.function.prove(place, self._derivative(order))

    def _derivative(self, order: int) -> Expression:
        while len(self._slopes) <= order:
            self._slopes.append(self._slopes[-1].derivative())
        return self._slopes[order]

    def _holds(self, value: Ball) -> bool:
        """Check whether a ball over a cell tells of a continuous function on all of it."""
        if self.is_smooth:
            return bool(value.value.is_finite())
        return value.is_defined and value.continuous

    def _search_polynomial(self, polynomial: fmpq_poly, cells: Sequence[Cell]) -> None:
        if polynomial.degree() < 0:
            self.search_.constant.extend(cells)
        if polynomial.degree() < 1:
            return
        for zero in real_zeros(polynomial):
            if all(zero.place < c.low.value or zero.place > c.high.value for c in cells):
                continue
            root = self._exact_root(zero.place) or Root(Ball(zero.place), proved=True)
            self.search_.roots.append(replace(root, order=zero.order, surd=zero.surd))

    def _pruned(self, cells: Sequence[Cell]) -> list[Cell]:
        """Settle what enclosures can; give the cells that are left."""
        too_narrow = [cell for cell in cells if not _has_floats(cell)]
        wide = [cell for cell in cells if _has_floats(cell)]
        lows = {float_below(cell.low.value.lower()): cell for cell in wide}
        highs = {float_above(cell.high.value.upper()): cell for cell in wide}
        parts = list(zip(lows, highs, strict=True))
        found = prune(self.function, self.factor, parts, is_smooth=self.is_smooth)
        if found.is_crowded:
            found = _thinned(found)
        simple = quick_candidates(*np.array(found.brackets).reshape(-1, 2).T.copy())
        for bracket, numbers in zip(found.brackets, simple, strict=True):
            exact = next(filter(self._is_zero, numbers), None)
            place = exact or Ball(self._sharpened(*bracket))
            self.search_.roots.append(Root(place, proved=True, order=1))
        left = [_cell_between(a, lows.get(a), b, highs.get(b)) for a, b in found.rest] + too_narrow
        self.is_dense = found.is_dense
        if not found.is_crowded:
            return left
        self.search_.is_crowded = True
        crowd = max(left, key=lambda part: float((part.high.value - part.low.value).mid()))
        self.search_.undecided.append(crowd)
        return [part for part in left if part is not crowd]

    def _sharpened(self, low: float, high: float) -> arb:
        """Narrow a bracket that floats left wider than a float's own digits."""
        if high - low <= _SHARP * max(abs(low), abs(high)):
            return arb(low).union(arb(high))
        return self._narrowed(Cell(Ball(arb(low)), Ball(arb(high))))

    def _halve(self, cell: Cell, max_cells: int) -> None:
        """Halve a cell until all of it is settled, or too narrow, or too much."""
        waiting = deque([cell])
        looked_at = 0
        while waiting:
            cell = waiting.popleft()
            looked_at += 1
            hull = cell.hull()
            values = self._prove(hull)
            if values.excludes_zero():
                continue
            if not values.value.is_finite() and self._is_excluded_by_floats(hull):
                continue
            if values.is_defined and values.sign() == 0:
                self.search_.constant.append(cell)
                continue
            if self._holds(values) and self._is_settled(cell, self._prove(hull, 1)):
                continue
            stop = looked_at > max_cells or len(self.search_.roots) >= FOUND.value
            if cell.is_narrow or stop:
                self.search_.undecided.append(cell)
                continue
            middle = Ball(arb(cell.middle))
            waiting.extend(cell.cut(middle))

    def _is_settled(self, cell: Cell, slopes: Ball) -> bool:
        """Settle a cell in which the factor has a slope everywhere, if its slopes tell enough."""
        sign = slopes.sign() if self._holds(slopes) else self._slope_by_floats(cell)
        if sign is None and not self._holds(slopes):
            return False
        if sign == 0:
            if self._prove(cell.low).sign() == 0:
                self.search_.constant.append(cell)
                return True
            return self._prove(cell.low).excludes_zero()
        if sign is not None:
            root = self._monotone_root(cell)
            if root is not None:
                self.search_.roots.append(root)
                return True
            low, high = self._signs(cell)
            return low is not None and low == high and low != 0
        # The mean value theorem: f(X) lies in f(m) + f'(X) (X - m), tighter in small cells.
        hull = cell.hull().value
        middle = hull.mid()
        value = self._prove(Ball(middle))
        reach = value.value + slopes.value * (hull - middle)
        return value.is_defined and bool(reach > 0 or reach < 0)

    def _is_excluded_by_floats(self, hull: Ball) -> bool:
        """Exclude a zero by enclosures, which can be unbounded on one side only, as ln is at 0."""
        bounds = self._by_floats(hull, 0)
        return bool(np.any(bounds.nowhere) or bounds.low[0] > 0 or bounds.high[0] < 0)

    def _slope_by_floats(self, cell: Cell) -> int | None:
        """Return the sign of slopes that are unbounded on one side, as those of sqrt are at 0."""
        if not self.is_smooth:
            return None
        bounds = self._by_floats(cell.hull(), 1)
        return 1 if bounds.low[0] > 0 else -1 if bounds.high[0] < 0 else None

    def _by_floats(self, hull: Ball, order: int) -> Enclosure:
        low = np.array([float_below(hull.value.lower())])
        high = np.array([float_above(hull.value.upper())])
        return self.function.enclose(low, high, self._derivative(order))

    def _signs(self, cell: Cell) -> tuple[int | None, int | None]:
        return self._end_sign(cell.low, cell.low_zeros), self._end_sign(cell.high, cell.high_zeros)

    def _end_sign(self, place: Ball, zeros: frozenset[int]) -> int | None:
        """Return the sign at an end of a cell, of which it may be known what is zero there."""
        if not zeros:
            return self._sign(place)
        key = float(place.value.mid()), zeros
        if key not in self._at_ends:
            value = self.function.settle(place, zeros, self.factor)
            self._at_ends[key] = value.sign() if value.is_defined else None
        return self._at_ends[key]

    def _sign(self, place: Ball) -> int | None:
        value = self._prove(place)
        return value.sign() if value.is_defined else None

    def _monotone_root(self, cell: Cell) -> Root | None:
        """Return the one zero of a factor that rises or falls all over a cell, None without one."""
        low, high = self._signs(cell)
        if low == 0:
            return Root(cell.low, proved=True, order=1)
        if high == 0:
            return Root(cell.high, proved=True, order=1)
        if low is None or high is None or low == high:
            return None
        place = self._narrowed(cell)
        return self._exact_root(place, order=1) or Root(Ball(place), proved=True, order=1)

    def _exact_root(self, place: arb, order: int | None = None) -> Root | None:
        for candidate, _ in candidates(place.lower(), place.upper()):
            if self._is_zero(candidate):
                return Root(candidate, proved=True, order=order)
        return None

    def _is_zero(self, candidate: Ball, order: int = 0) -> bool:
        value = self._prove(candidate, order)
        if value.exact is not None:
            return value.is_defined and value.exact == 0
        if not value.is_defined or value.excludes_zero():
            return False
        expression = self._derivative(order)
        if candidate.exact is not None and expression.is_zero_at(to_fraction(candidate.exact)):
            return True
        return vanishes(self.function, expression, candidate)

    def _narrowed(self, cell: Cell) -> arb:
        """Narrow a cell with exactly one zero by Newton's method on intervals.

        Every step keeps the zero inside; where a step does not help, the cell is halved by sign.
        """
        hull = cell.hull().value
        low_sign, high_sign = self._signs(cell)
        if low_sign is None and high_sign is not None:
            low_sign = -high_sign
        for _ in range(200):
            middle = hull.mid()
            # Relative to the zero itself: one at 10^-200 is narrowed until its digits are known.
            if hull.rad() <= _NARROW * abs(middle) or hull.rad() < _FINEST:
                break
            value = self._prove(Ball(middle))
            step = middle - value.value / self._prove(Ball(hull), 1).value
            if step.is_finite() and step.overlaps(hull):
                narrower = step.intersection(hull)
                if narrower.rad() * 2 < hull.rad():
                    hull = narrower
                    continue
            if value.defined is Defined.NO:
                # Outside of the cell, within the ball of one of its ends.
                is_low = middle <= cell.low.value.upper()
                hull = middle.union(hull.upper()) if is_low else hull.lower().union(middle)
                continue
            sign = value.sign() if value.is_defined else None
            if low_sign is None or sign is None or sign == 0:
                break
            hull = middle.union(hull.upper()) if sign == low_sign else hull.lower().union(middle)
        return hull

    # Where the function touches the axis

    def _settle(self) -> None:
        """Try once more where the cells stayed undecided; neighbours are taken together."""
        left: list[Cell] = []
        for cell in merged_cells(self.search_.undecided):
            root = self._root_of_tiny(cell) if is_tiny(cell) else None
            if root is None:
                left.append(cell)
            else:
                self.search_.roots.append(root)
                if not root.proved:
                    left.append(cell)
        self.search_.undecided = left

    def _multiple_root(self, cell: Cell) -> Root | None:
        """Return an exact zero in a cell, proved to be the only one if a derivative tells so."""
        low, high = cell.low.value.lower(), cell.high.value.upper()
        ends = [e for e in (cell.low, cell.high) if e.exact is not None or e.turns is not None]
        for candidate in [*ends, *(found for found, _ in candidates(low, high))]:
            if not self._is_zero(candidate):
                continue
            order = self._order(candidate)
            if order is not None:
                next_one = self._prove(Ball(low.union(high)), order)
                if self._holds(next_one) and next_one.sign() in (-1, 1):
                    return Root(candidate, proved=True, order=order)
            reason = "the function is zero here; that it has no other zero this close is not proved"
            return Root(candidate, proved=False, note=reason, order=order)
        return None

    def _root_of_tiny(self, cell: Cell) -> Root | None:
        return self._multiple_root(cell) or self._surd_root(cell) or self._close_root(cell)

    def _surd_root(self, cell: Cell) -> Root | None:
        """Return a zero at which the function touches the axis, if it is one of a quadratic.

        Where it is, its slope tells; that the function is zero there, the quadratic.
        """
        place = self._turn_in(cell)
        quadratic = None if place is None else quadratic_at(place)
        if place is None or quadratic is None:
            return None
        found = real_zeros(quadratic)
        zero = next((z.place for z in found if z.place.overlaps(place)), None)
        if zero is None or len(found) != 2:
            return None
        coefficients = [to_fraction(quadratic[k] / quadratic[2]) for k in range(3)]
        is_larger = all(bool(zero >= other.place) for other in found if other.place is not zero)
        at_zero = self.factor.variable_less_surd(coefficients, 1 if is_larger else -1)
        zeros = frozenset({at_zero.step})
        if self.function.settle(Ball(zero), zeros, self.factor).exact != 0:
            return None
        order = self.order(Ball(zero), zeros)
        if order is None:
            return None
        over = self._prove(cell.hull(), order)
        if not (self._holds(over) and over.sign() in (-1, 1)):
            return None
        return Root(Ball(zero), proved=True, order=order, zeros=zeros)

    def _turn_in(self, cell: Cell) -> arb | None:
        """Return the one place in a cell where the slope is zero, narrowed; None if not known."""
        try:
            slope, bend = self._derivative(1), self._derivative(2)
        except (LimitError, NotHandledError):
            return None
        over = self._prove(cell.hull(), 2)
        if not (self._holds(over) and over.sign() in (-1, 1)):
            return None
        turn = _Factor(self.function, slope, Search(), is_smooth=self.is_smooth)
        turn._slopes.append(bend)
        low, high = turn._signs(cell)
        if low is None or high is None or low * high >= 0:
            return None
        return turn._narrowed(cell)

    def _order(self, candidate: Ball) -> int | None:
        """Return how many derivatives, the function first, are exactly zero; None if not known."""
        try:
            for order in range(1, _MOST_ORDER + 1):
                if not self._is_zero(candidate, order):
                    value = self._prove(candidate, order)
                    return order if value.is_defined and value.sign() in (-1, 1) else None
        except (LimitError, NotHandledError):
            pass
        return None

    def _close_root(self, cell: Cell) -> Root | None:
        """Return what looks like a zero in a cell that is a point to the eye."""
        hull = Ball(cell.low.value.lower().union(cell.high.value.upper()))
        values = self._prove(hull)
        if values.defined is Defined.YES and self._holds(values):
            low_sign, high_sign = self._signs(cell)
            if low_sign is not None and high_sign is not None and low_sign * high_sign < 0:
                note = "the sign changes here; how often is not proved"
                return Root(hull, proved=False, note=note)
            if bool(abs(values.value) < arb(1e-9)):
                return Root(hull, proved=False, note=_TOO_CLOSE)
        return None

    def _is_settled_by_turn(self, cell: Cell) -> bool:
        """Settle a cell in which the factor turns once, by its value at the turning point."""
        place = self._turn_in(cell)
        if place is None:
            return False
        over = self._prove(cell.hull(), 2)
        middle = place.mid()
        at_middle = self._prove(Ball(middle))
        # The slope is next to nothing here, so that the mean value theorem gives a sharp value.
        value = at_middle.value + self._prove(Ball(place), 1).value * (place - middle)
        sign = Ball(value).sign()
        if not at_middle.is_defined or not value.is_finite():
            return False
        if sign == over.sign():
            return True
        ends = self._signs(cell)
        if None in ends:
            return False
        if sign in (-1, 1):
            for part in cell.cut(Ball(place)):
                root = self._monotone_root(part)
                if root is not None:
                    self.search_.roots.append(root)
            return True
        around = min(abs(self._prove(end).value).lower() for end in (cell.low, cell.high))
        if not bool(abs(value) < _CLOSE * around):
            return False
        unsure = Root(Ball(place), proved=False, note=_TOO_CLOSE)
        self.search_.roots.append(self._surd_root(cell) or unsure)
        return True


def _width_of(cells: Sequence[Cell]) -> float:
    return sum(float((cell.high.value - cell.low.value).mid()) for cell in cells)


def _simple_inside(cell: Cell) -> list[Ball]:
    """Return simple numbers in a cell: 0 and 1 if they are, and one in its inner half."""
    low, high = cell.low.value, cell.high.value
    known = [ball.from_fraction(k) for k in (0, 1, -1) if bool(low < k) and bool(high > k)]
    return known + [found for found, _ in candidates((low * 3 + high) / 4, (low + high * 3) / 4)]


def _has_floats(cell: Cell) -> bool:
    """Check whether there are floats between the ends of a cell, so that these can be cut."""
    low, high = float_above(cell.low.value.upper()), float_below(cell.high.value.lower())
    return low < (low + high) / 2 < high


def _cell_between(low: float, first: Cell | None, high: float, last: Cell | None) -> Cell:
    """Return a cell between two floats, or from the ends of cells that these stand for."""
    return Cell(
        Ball(arb(low)) if first is None else first.low,
        Ball(arb(high)) if last is None else last.high,
        frozenset() if first is None else first.low_zeros,
        frozenset() if last is None else last.high_zeros,
    )


def _thinned(found: Pruned) -> Pruned:
    """Leave out the zeros next to where they crowd, so that a handful of them stands for all."""
    if len(found.brackets) <= _MOST_IN_CROWD:
        return found
    low, high = max(found.rest, key=lambda stretch: stretch[1] - stretch[0])
    middle = (low + high) / 2
    nearest = sorted(found.brackets, key=lambda bracket: abs(bracket[0] - middle))
    dropped = nearest[: len(nearest) - _MOST_IN_CROWD]
    ends = [low, high, *(end for bracket in dropped for end in bracket)]
    crowd = (min(ends), max(ends))
    rest = [(a, b) for a, b in found.rest if b < crowd[0] or a > crowd[1]]
    kept = sorted(nearest[len(dropped) :])
    return Pruned(kept, sorted([*rest, crowd]), is_dense=True, is_crowded=True)


_TOO_CLOSE = "the function comes so close to zero here that it could not be told from zero"
