"""What is known of the values of one factor of a function: proofs, signs, derivatives."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from axis_path.core.arithmetic import Ball, Enclosure, ball
from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Expression, RealFunction
from axis_path.core.locate.algebra.algebraic import vanishes
from axis_path.core.locate.algebra.exact import candidates
from axis_path.core.locate.algebra.rational import as_quotient
from axis_path.core.locate.algebra.several import cancels_in_parts
from axis_path.core.locate.cells import (
    Cell,
    float_above,
    float_below,
)

#: How many derivatives may vanish together with the function.
MOST_ORDER = 8


class FactorValues:
    """The values of one factor.

    Args:
        function: whose factor it is; its own domain is not looked at.
        factor: the expression.
        is_smooth: whether it is known to be smooth inside each cell that is searched.
    """

    def __init__(self, function: RealFunction, factor: Expression, *, is_smooth: bool) -> None:
        self.function = function
        self.factor = factor
        self.is_smooth = is_smooth
        self.slopes: list[Expression] = [factor]
        #: Signs at ends that are known by what is zero there.
        self._at_ends: dict[tuple[float, frozenset[int]], int | None] = {}

    def is_zero_along(self, cells: Sequence[Cell]) -> bool:
        """Check whether the factor is zero in all cells: its terms cancel, or it is level at 0."""
        if self._cancels(self.factor):
            return True
        try:
            if not self._cancels(self.derivative(1)):
                return False
        except (LimitError, NotHandledError):
            return False
        return all(any(map(self.is_zero, simple_inside(cell))) for cell in cells)

    def _cancels(self, expression: Expression) -> bool:
        """Check whether an expression is zero by its terms, or as a quotient of polynomials."""
        if expression.is_zero():
            return True
        quotient = as_quotient(self.function, expression)
        if quotient is not None:
            return bool(quotient.top == 0)
        return cancels_in_parts(self.function, expression)

    def prove(self, abscissa: Ball, order: int = 0) -> Ball:
        """Return the factor, or one of its derivatives, at a place or over an interval."""
        return self.function.prove(abscissa, self.derivative(order))

    def derivative(self, order: int) -> Expression:
        """Return the factor, or one of its derivatives."""
        while len(self.slopes) <= order:
            self.slopes.append(self.slopes[-1].derivative())
        return self.slopes[order]

    def holds(self, value: Ball) -> bool:
        """Check whether a ball over a cell tells of a continuous function on all of it."""
        if self.is_smooth:
            return bool(value.value.is_finite())
        return value.is_defined and value.continuous

    def is_excluded_by_floats(self, hull: Ball) -> bool:
        """Exclude a zero by enclosures, which can be unbounded on one side only, as ln is at 0."""
        bounds = self._by_floats(hull, 0)
        return bool(np.any(bounds.nowhere) or bounds.low[0] > 0 or bounds.high[0] < 0)

    def slope_by_floats(self, cell: Cell) -> int | None:
        """Return the sign of slopes that are unbounded on one side, as those of sqrt are at 0."""
        if not self.is_smooth:
            return None
        bounds = self._by_floats(cell.hull(), 1)
        return 1 if bounds.low[0] > 0 else -1 if bounds.high[0] < 0 else None

    def _by_floats(self, hull: Ball, order: int) -> Enclosure:
        low = np.array([float_below(hull.value.lower())])
        high = np.array([float_above(hull.value.upper())])
        return self.function.enclose(low, high, self.derivative(order))

    def signs(self, cell: Cell) -> tuple[int | None, int | None]:
        """Return the signs at the ends of a cell; None where they are unknown."""
        return self._end_sign(cell.low, cell.low_zeros), self._end_sign(cell.high, cell.high_zeros)

    def _end_sign(self, abscissa: Ball, zeros: frozenset[int]) -> int | None:
        """Return the sign at an end of a cell, of which it may be known what is zero there."""
        if not zeros:
            return self._sign(abscissa)
        key = float(abscissa.value.mid()), zeros
        if key not in self._at_ends:
            value = self.function.settle(abscissa, zeros, self.factor)
            self._at_ends[key] = value.sign() if value.is_defined else None
        return self._at_ends[key]

    def _sign(self, abscissa: Ball) -> int | None:
        value = self.prove(abscissa)
        return value.sign() if value.is_defined else None

    def is_zero(self, candidate: Ball, order: int = 0) -> bool:
        """Check whether the factor, or one of its derivatives, is proved to be zero at a place."""
        value = self.prove(candidate, order)
        if value.exact is not None:
            return value.is_defined and value.exact == 0
        if not value.is_defined or value.excludes_zero():
            return False
        expression = self.derivative(order)
        if candidate.exact is not None and expression.is_zero_at(to_fraction(candidate.exact)):
            return True
        return vanishes(self.function, expression, candidate)

    def order(self, candidate: Ball) -> int | None:
        """Return how many derivatives, the function first, are exactly zero; None if not known."""
        try:
            for order in range(1, MOST_ORDER + 1):
                if not self.is_zero(candidate, order):
                    value = self.prove(candidate, order)
                    return order if value.is_defined and value.sign() in (-1, 1) else None
        except (LimitError, NotHandledError):
            pass
        return None


def simple_inside(cell: Cell) -> list[Ball]:
    """Return simple numbers in a cell: 0 and 1 if they are, and one in its inner half."""
    low, high = cell.low.value, cell.high.value
    known = [ball.from_fraction(k) for k in (0, 1, -1) if bool(low < k) and bool(high > k)]
    return known + [simple for simple, _ in candidates((low * 3 + high) / 4, (low + high * 3) / 4)]
