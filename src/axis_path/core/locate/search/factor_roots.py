"""The zeros of one factor in one cell: narrowed, exact if possible, multiple or merely close."""

from __future__ import annotations

from collections.abc import Callable

from flint import arb

from axis_path.core.arithmetic import Ball, Defined
from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.locate.algebra.exact import candidates, quadratic_at
from axis_path.core.locate.algebra.polynomial import real_zeros
from axis_path.core.locate.cells import (
    Cell,
    Root,
)
from axis_path.core.locate.search.factor_values import FactorValues

#: A zero is narrowed to this part of itself: enough for a float and for its simple exact form.
_NARROW = arb(2) ** -70
#: Beyond the smallest floats nothing is narrowed.
_FINEST = arb(2) ** -1100
TOO_CLOSE = "the function comes so close to zero here that it could not be distinguished from zero"


class FactorRoots:
    """Finds the zeros of one factor in cells.

    Args:
        values: of the factor.
        order: returns the multiplicity of a zero, given the steps that are zero there.
    """

    def __init__(
        self, values: FactorValues, order: Callable[[Ball, frozenset[int]], int | None]
    ) -> None:
        self.values = values
        self._order = order

    def monotone_root(self, cell: Cell) -> Root | None:
        """Return the one zero of a factor that rises or falls all over a cell, None without one."""
        low, high = self.values.signs(cell)
        if low == 0:
            return Root(cell.low, proved=True, order=1)
        if high == 0:
            return Root(cell.high, proved=True, order=1)
        if low is None or high is None or low == high:
            return None
        abscissa = self.narrowed(cell)
        return self.exact_root(abscissa, order=1) or Root(Ball(abscissa), proved=True, order=1)

    def exact_root(self, abscissa: arb, order: int | None = None) -> Root | None:
        """Return a simple exact number in an enclosure at which the factor is zero."""
        for candidate, _ in candidates(abscissa.lower(), abscissa.upper()):
            if self.values.is_zero(candidate):
                return Root(candidate, proved=True, order=order)
        return None

    def narrowed(self, cell: Cell) -> arb:
        """Narrow a cell with exactly one zero by Newton's method on intervals.

        Every step keeps the zero inside; where a step does not help, the cell is halved by sign.
        """
        hull = cell.hull().value
        low_sign, high_sign = self.values.signs(cell)
        if low_sign is None and high_sign is not None:
            low_sign = -high_sign
        for _ in range(200):
            middle = hull.mid()
            # Relative to the zero itself: one at 10^-200 is narrowed until its digits are known.
            if hull.rad() <= _NARROW * abs(middle) or hull.rad() < _FINEST:
                break
            value = self.values.prove(Ball(middle))
            step = middle - value.value / self.values.prove(Ball(hull), 1).value
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

    def multiple_root(self, cell: Cell) -> Root | None:
        """Return an exact zero in a cell, proved to be the only one if a derivative tells so."""
        low, high = cell.low.value.lower(), cell.high.value.upper()
        ends = [e for e in (cell.low, cell.high) if e.exact is not None or e.turns is not None]
        for candidate in [*ends, *(result for result, _ in candidates(low, high))]:
            if not self.values.is_zero(candidate):
                continue
            order = self.values.order(candidate)
            if order is not None:
                next_one = self.values.prove(Ball(low.union(high)), order)
                if self.values.holds(next_one) and next_one.sign() in (-1, 1):
                    return Root(candidate, proved=True, order=order)
            reason = "the function is zero here; that it has no other zero this close is not proved"
            return Root(candidate, proved=False, note=reason, order=order)
        return None

    def root_of_tiny(self, cell: Cell) -> Root | None:
        """Return what is known of a zero in a cell that cannot be halved."""
        return self.multiple_root(cell) or self.surd_root(cell) or self._close_root(cell)

    def surd_root(self, cell: Cell) -> Root | None:
        """Return a zero at which the function touches the axis, if it is one of a quadratic.

        Where it is, its slope tells; that the function is zero there, the quadratic.
        """
        abscissa = self.turn_in(cell)
        quadratic = None if abscissa is None else quadratic_at(abscissa)
        if abscissa is None or quadratic is None:
            return None
        surds = real_zeros(quadratic)
        zero = next((z.abscissa for z in surds if z.abscissa.overlaps(abscissa)), None)
        if zero is None or len(surds) != 2:
            return None
        coefficients = [to_fraction(quadratic[k] / quadratic[2]) for k in range(3)]
        is_larger = all(
            bool(zero >= other.abscissa) for other in surds if other.abscissa is not zero
        )
        at_zero = self.values.factor.variable_less_surd(coefficients, 1 if is_larger else -1)
        zeros = frozenset({at_zero.step})
        if self.values.function.settle(Ball(zero), zeros, self.values.factor).exact != 0:
            return None
        order = self._order(Ball(zero), zeros)
        if order is None:
            return None
        over = self.values.prove(cell.hull(), order)
        if not (self.values.holds(over) and over.sign() in (-1, 1)):
            return None
        return Root(Ball(zero), proved=True, order=order, zeros=zeros)

    def turn_in(self, cell: Cell) -> arb | None:
        """Return the one place in a cell where the slope is zero, narrowed; None if not known."""
        try:
            slope, bend = self.values.derivative(1), self.values.derivative(2)
        except (LimitError, NotHandledError):
            return None
        over = self.values.prove(cell.hull(), 2)
        if not (self.values.holds(over) and over.sign() in (-1, 1)):
            return None
        values = FactorValues(self.values.function, slope, is_smooth=self.values.is_smooth)
        values.slopes.append(bend)
        low, high = values.signs(cell)
        if low is None or high is None or low * high >= 0:
            return None
        return FactorRoots(values, self._order).narrowed(cell)

    def _close_root(self, cell: Cell) -> Root | None:
        """Return what looks like a zero in a cell that is a point to the eye."""
        hull = Ball(cell.low.value.lower().union(cell.high.value.upper()))
        values = self.values.prove(hull)
        if values.defined is Defined.YES and self.values.holds(values):
            low_sign, high_sign = self.values.signs(cell)
            if low_sign is not None and high_sign is not None and low_sign * high_sign < 0:
                note = "the sign changes here; how often is not proved"
                return Root(hull, proved=False, note=note)
            if bool(abs(values.value) < arb(1e-9)):
                return Root(hull, proved=False, note=TOO_CLOSE)
        return None
