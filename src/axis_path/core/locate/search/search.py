"""All zeros of one smooth function between two places, with proof.

The function is split into factors. A polynomial with rational coefficients is isolated exactly. Any
other factor is first pruned with enclosures (``prune.py``), which settles simple zeros. The rest
is halved with balls of 128 bits: a cell is settled when the ball of values excludes 0, or when the
ball of slopes does and the signs at its ends are known. Where the function touches the axis, a
simple number that makes it exactly 0 is looked for: if its first derivatives are exactly 0 there
too and the next keeps its sign, it is the only zero. Else the turning point is located and tells
whether the function passes the axis, unless it comes too close to be distinguished from zero. What
is still undecided is named.

Source: Moore, Kearfott, Cloud, *Introduction to Interval Analysis*, chapter 8; Tucker, *Validated
Numerics*, chapter 5.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from flint import arb, fmpq_poly

from axis_path.core.arithmetic import Ball
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Expression, RealFunction
from axis_path.core.limits import LOCATE_CELLS, MOST_FINDINGS
from axis_path.core.locate.algebra.by_form import is_exponential, search_by_form
from axis_path.core.locate.algebra.exact import quick_candidates
from axis_path.core.locate.algebra.polynomial import as_polynomial, real_zeros
from axis_path.core.locate.algebra.rational import as_quotient
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
from axis_path.core.locate.search.crowds import cell_between, has_floats, thinned, width_of
from axis_path.core.locate.search.factor_roots import TOO_CLOSE, FactorRoots
from axis_path.core.locate.search.factor_values import MOST_ORDER, FactorValues
from axis_path.core.locate.search.prune import prune

#: Brackets of floats are sharp enough if they are no wider than this, relative to the zero.
_SHARP = 1e-14
_FEW_CELLS = 400
#: A value this small, beside the values around it, cannot be distinguished from zero.
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
        result = Search()
        searching = _Factor(function, factor, result, is_smooth=is_smooth)
        searching.search(cells, max_cells, polynomial)
        if factor is function.expression:
            result.roots = [_with_factors(function, root) for root in result.roots]
        if result.undecided or not all(root.proved for root in result.roots):
            result = (
                searching.by_quotient(cells)
                or searching.by_half_angle(cells)
                or search_by_form(_search_part, function, factor, cells, is_smooth=is_smooth)
                or result
            )
        for root in result.roots:
            zeros = root.zeros | {factor.step}
            is_own = factor.step == whole.values.factor.step
            order = root.order if is_own and root.order else whole.order(root.abscissa, zeros)
            search.roots.append(replace(root, source=factor.step, order=order, zeros=zeros))
        search.undecided += result.undecided
        search.is_crowded = search.is_crowded or result.is_crowded
        search.constant += result.constant


def is_zero_along(function: RealFunction, cell: Cell) -> bool:
    """Check whether a smooth function is proved to be zero all along a cell."""
    factor = _Factor(function, function.expression, Search(), is_smooth=True)
    return factor.values.is_zero_along([cell])


def _search_part(
    function: RealFunction, expression: Expression, cells: Sequence[Cell], *, is_smooth: bool
) -> Search:
    """Search another expression of a function's graph."""
    search = Search()
    search_branch(replace(function, expression=expression), cells, search, is_smooth=is_smooth)
    return search


def _parted(function: RealFunction) -> list[tuple[Expression, fmpq_poly | None]]:
    """Return the factors of a function; beside each the polynomial that it is, if it is one."""
    whole = function.expression
    polynomial = as_polynomial(function, whole)
    if polynomial is not None:
        # Not parted, so that its zeros come with their multiplicities.
        return [(whole, polynomial)]
    factors = whole.factors(through_pieces=True)
    return [
        (factor, None if factor.step == whole.step else as_polynomial(function, factor))
        for factor in factors
    ]


def _with_factors(function: RealFunction, root: Root) -> Root:
    """Note which factor is zero at a root of the whole: the only one that can be."""
    able = function.expression.factors(through_pieces=True)
    if len(able) > 1:
        able = [
            branch for branch in able if not function.prove(root.abscissa, branch).excludes_zero()
        ]
    return replace(root, zeros=root.zeros | {able[0].step}) if len(able) == 1 else root


class _Factor:
    """One factor of a function, and what has been found of its zeros."""

    def __init__(
        self, function: RealFunction, factor: Expression, search: Search, *, is_smooth: bool
    ) -> None:
        self.values = FactorValues(function, factor, is_smooth=is_smooth)
        self.roots = FactorRoots(self.values, self.order)
        self.search_ = search
        self.is_dense = False

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
        if width_of(left) * 2 > width_of(cells) and self.values.is_zero_along(cells):
            self.search_.constant.extend(cells)
            return
        if left and is_exponential(self.values.function, self.values.factor):
            # Its form tells at once what halving would not: the exponent may be without bounds.
            self.search_.undecided += left
            return
        for part in left:
            root = self.roots.multiple_root(part) if not is_tiny(part) else None
            if root is not None and root.proved:
                self.search_.roots.append(root)
            elif not self._is_settled_by_turn(part):
                # What enclosures could not thin out balls will not either.
                self._halve(part, min(max_cells, _FEW_CELLS) if self.is_dense else max_cells)
        self._settle()

    def by_quotient(self, cells: Sequence[Cell]) -> Search | None:
        """Return all zeros in cells of a quotient of polynomials; None if it is none."""
        quotient = as_quotient(self.values.function, self.values.factor)
        if quotient is None:
            return None
        factor = _Factor(
            self.values.function,
            self.values.factor,
            Search(),
            is_smooth=self.values.is_smooth,
        )
        factor._search_polynomial(quotient.top, cells)
        return factor.search_

    def by_half_angle(self, cells: Sequence[Cell]) -> Search | None:
        """Return all zeros in cells of what is made of waves; None if it is not."""
        search = search_by_half_angle(self.values.function, self.values.factor, cells)
        if search is not None:
            search.roots = [
                self.roots.exact_root(root.abscissa.value, root.order) or root
                for root in search.roots
            ]
        return search

    def order(self, abscissa: Ball, zeros: frozenset[int]) -> int | None:
        """Return the multiplicity of a zero, if it can be determined.

        Args:
            abscissa: where it is.
            zeros: the steps that are known to be zero there.
        """
        if abscissa.exact is not None or abscissa.turns is not None:
            return self.values.order(abscissa)
        try:
            for order in range(1, MOST_ORDER + 1):
                value = self.values.prove(abscissa, order)
                if value.is_defined and value.continuous and value.excludes_zero():
                    return order
                value = self.values.function.settle(abscissa, zeros, self.values.derivative(order))
                if not value.is_defined or value.excludes_zero():
                    return order if value.is_defined else None
                if value.exact != 0:
                    break
        except (LimitError, NotHandledError):
            pass
        return self._order_by_form(abscissa)

    def _order_by_form(self, abscissa: Ball) -> int | None:
        """Return the multiplicity of a zero of a quotient of polynomials, or of waves."""
        around = [Cell(Ball(abscissa.value.lower()), Ball(abscissa.value.upper()))]
        quotient = self.by_quotient(around) or self.by_half_angle(around)
        orders = [] if quotient is None else [root.order for root in quotient.roots]
        return orders[0] if len(orders) == 1 else None

    # Proofs

    def _search_polynomial(self, polynomial: fmpq_poly, cells: Sequence[Cell]) -> None:
        if polynomial.degree() < 0:
            self.search_.constant.extend(cells)
        if polynomial.degree() < 1:
            return
        for zero in real_zeros(polynomial):
            if all(zero.abscissa < c.low.value or zero.abscissa > c.high.value for c in cells):
                continue
            root = self.roots.exact_root(zero.abscissa) or Root(Ball(zero.abscissa), proved=True)
            self.search_.roots.append(replace(root, order=zero.order, surd=zero.surd))

    def _pruned(self, cells: Sequence[Cell]) -> list[Cell]:
        """Settle what enclosures can; give the cells that are left."""
        too_narrow = [cell for cell in cells if not has_floats(cell)]
        wide = [cell for cell in cells if has_floats(cell)]
        lows = {float_below(cell.low.value.lower()): cell for cell in wide}
        highs = {float_above(cell.high.value.upper()): cell for cell in wide}
        parts = list(zip(lows, highs, strict=True))
        pruned = prune(
            self.values.function,
            self.values.factor,
            parts,
            is_smooth=self.values.is_smooth,
        )
        if pruned.is_crowded:
            pruned = thinned(pruned)
        simple = quick_candidates(*np.array(pruned.brackets).reshape(-1, 2).T.copy())
        for bracket, numbers in zip(pruned.brackets, simple, strict=True):
            exact = next(filter(self.values.is_zero, numbers), None)
            abscissa = exact or Ball(self._sharpened(*bracket))
            self.search_.roots.append(Root(abscissa, proved=True, order=1))
        left = [cell_between(a, lows.get(a), b, highs.get(b)) for a, b in pruned.rest] + too_narrow
        self.is_dense = pruned.is_dense
        if not pruned.is_crowded:
            return left
        self.search_.is_crowded = True
        crowd = max(left, key=lambda part: float((part.high.value - part.low.value).mid()))
        self.search_.undecided.append(crowd)
        return [part for part in left if part is not crowd]

    def _sharpened(self, low: float, high: float) -> arb:
        """Narrow a bracket that floats left wider than a float's own digits."""
        if high - low <= _SHARP * max(abs(low), abs(high)):
            return arb(low).union(arb(high))
        return self.roots.narrowed(Cell(Ball(arb(low)), Ball(arb(high))))

    def _halve(self, cell: Cell, max_cells: int) -> None:
        """Halve a cell until all of it is settled, or too narrow, or too much."""
        waiting = deque([cell])
        looked_at = 0
        while waiting:
            cell = waiting.popleft()
            looked_at += 1
            hull = cell.hull()
            values = self.values.prove(hull)
            if values.excludes_zero():
                continue
            if not values.value.is_finite() and self.values.is_excluded_by_floats(hull):
                continue
            if values.is_defined and values.sign() == 0:
                self.search_.constant.append(cell)
                continue
            if self.values.holds(values) and self._is_settled(cell, self.values.prove(hull, 1)):
                continue
            stop = looked_at > max_cells or len(self.search_.roots) >= MOST_FINDINGS.value
            if cell.is_narrow or stop:
                self.search_.undecided.append(cell)
                continue
            middle = Ball(arb(cell.middle))
            waiting.extend(cell.cut(middle))

    def _is_settled(self, cell: Cell, slopes: Ball) -> bool:
        """Settle a cell in which the factor has a slope everywhere, if its slopes tell enough."""
        sign = slopes.sign() if self.values.holds(slopes) else self.values.slope_by_floats(cell)
        if sign is None and not self.values.holds(slopes):
            return False
        if sign == 0:
            if self.values.prove(cell.low).sign() == 0:
                self.search_.constant.append(cell)
                return True
            return self.values.prove(cell.low).excludes_zero()
        if sign is not None:
            root = self.roots.monotone_root(cell)
            if root is not None:
                self.search_.roots.append(root)
                return True
            low, high = self.values.signs(cell)
            return low is not None and low == high and low != 0
        # The mean value theorem: f(X) lies in f(m) + f'(X) (X - m), tighter in small cells.
        hull = cell.hull().value
        middle = hull.mid()
        value = self.values.prove(Ball(middle))
        reach = value.value + slopes.value * (hull - middle)
        return value.is_defined and bool(reach > 0 or reach < 0)

    # Where the function touches the axis

    def _settle(self) -> None:
        """Try once more where the cells stayed undecided; neighbours are taken together."""
        left: list[Cell] = []
        for cell in merged_cells(self.search_.undecided):
            root = self.roots.root_of_tiny(cell) if is_tiny(cell) else None
            if root is None:
                left.append(cell)
            else:
                self.search_.roots.append(root)
                if not root.proved:
                    left.append(cell)
        self.search_.undecided = left

    def _is_settled_by_turn(self, cell: Cell) -> bool:
        """Settle a cell in which the factor turns once, by its value at the turning point."""
        abscissa = self.roots.turn_in(cell)
        if abscissa is None:
            return False
        over = self.values.prove(cell.hull(), 2)
        middle = abscissa.mid()
        at_middle = self.values.prove(Ball(middle))
        # The slope is next to nothing here, so that the mean value theorem gives a sharp value.
        value = at_middle.value + self.values.prove(Ball(abscissa), 1).value * (abscissa - middle)
        sign = Ball(value).sign()
        if not at_middle.is_defined or not value.is_finite():
            return False
        if sign == over.sign():
            return True
        ends = self.values.signs(cell)
        if None in ends:
            return False
        if sign in (-1, 1):
            for part in cell.cut(Ball(abscissa)):
                root = self.roots.monotone_root(part)
                if root is not None:
                    self.search_.roots.append(root)
            return True
        around = min(abs(self.values.prove(end).value).lower() for end in (cell.low, cell.high))
        if not bool(abs(value) < _CLOSE * around):
            return False
        unsure = Root(Ball(abscissa), proved=False, note=TOO_CLOSE)
        self.search_.roots.append(self.roots.surd_root(cell) or unsure)
        return True
