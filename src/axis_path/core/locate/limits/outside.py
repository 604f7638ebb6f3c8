"""What a function does beyond a far end: whether it has zeros or breaks out there."""

from __future__ import annotations

from fractions import Fraction

import numpy as np
from flint import fmpq, fmpq_poly

from axis_path.core.arithmetic import Ball, ball
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Branches, RealFunction
from axis_path.core.locate.algebra.rational import as_quotient
from axis_path.core.locate.cells import Cell
from axis_path.core.locate.limits.growth import growth
from axis_path.core.locate.search.search import is_zero_along

#: So many derivatives are looked at for one that keeps its sign.
_MOST_DERIVATIVES = 4


def cauchy_bound(polynomial: fmpq_poly) -> Fraction:
    """Return a bound of all zeros: 1 + max |a_k/a_n| (Cauchy), a little more."""
    top: fmpq = polynomial[polynomial.degree()]
    ratios = [abs(polynomial[k] / top) for k in range(polynomial.degree())]
    most = max(ratios, default=fmpq(0))
    return Fraction(int(most.p), int(most.q)) + 2


class Outside:
    """The numbers beyond a far end on one side.

    Args:
        branches: of the function that is looked at.
        side: -1 for the numbers below, 1 for those above.
        far: the size of the end.
    """

    def __init__(self, branches: Branches, side: int, far: float) -> None:
        self._branches, self._side, self._far = branches, side, far
        self._end = ball.from_fraction(Fraction(far) * side)

    def is_one_branch(self) -> bool:
        """Check whether the function is proved to be one smooth branch out there."""
        if not self._branches.is_known:
            return False
        at = Ball((self._end.value * 3 / 2).mid())
        try:
            return all(
                self.keeps_away(self._branches.branch(edge.function, at))
                for edge in self._branches.edges
            )
        except (LimitError, NotHandledError):
            return False

    def is_zero(self) -> bool:
        """Check whether the function is zero all along out there; it must be one branch."""
        low, high = sorted(Fraction(self._far) * self._side * times for times in (1, 2))
        cell = Cell(ball.from_fraction(low), ball.from_fraction(high))
        branch = self._branches.branch(self._branches.function, Ball(cell.hull().value.mid()))
        # Branches are analytic: what is zero all along an interval is zero as far as it goes.
        return is_zero_along(branch, cell)

    def keeps_away(self, function: RealFunction) -> bool:
        """Check whether a smooth function of the branches is proved to have no zero out there.

        Its values keep away from zero, or it rises where it is positive and falls where it is
        negative.
        """
        quotient = as_quotient(function, function.expression)
        if quotient is not None and quotient.top.degree() == 0:
            return True
        if quotient is not None and quotient.top != 0 and cauchy_bound(quotient.top) < self._far:
            return True
        growth_rate = growth(self._outward(function), self._far)
        if growth_rate is not None and growth_rate.sign is not None:
            return True
        derived = function
        for order in range(_MOST_DERIVATIVES):
            bounds = self._bounds(derived)
            if bounds is not None and not bounds[0] <= 0 <= bounds[1]:
                # A derivative keeps its sign; the ones before it must start out with the same.
                return self._goes_away(function, order, 1 if bounds[0] > 0 else -1)
            derived = self._branches.derivative(derived)
        return False

    def _outward(self, function: RealFunction) -> RealFunction:
        """Return the function of x, or of -x, that goes out to numbers above."""
        return function if self._side > 0 else self._branches.mirrored(function)

    def _goes_away(self, function: RealFunction, order: int, sign: int) -> bool:
        """Check whether the derivatives before one that keeps its sign all go its way."""
        chain = [function]
        for _ in range(order - 1):
            chain.append(self._branches.derivative(chain[-1]))
        for steps, derivative in enumerate(reversed(chain[:order]), start=1):
            # To the left every derivative turns the way around once more.
            if derivative.prove(self._end).sign() != sign * self._side**steps:
                return False
        return True

    def _bounds(self, function: RealFunction) -> tuple[float, float] | None:
        """Enclose a function out there; None if it is not known to have values all along."""
        low, high = np.array([self._far]), np.array([np.inf])
        enclosure = function.enclose(*((low, high) if self._side > 0 else (-high, -low)))
        if np.isnan(enclosure.low[0]) or np.isnan(enclosure.high[0]):
            return None
        return float(enclosure.low[0]), float(enclosure.high[0])
