"""Complex numbers whose parts are fractions, without rounding."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from flint import fmpq

from axis_path.core.evaluate.backends.table import NotExactError, TableBackend
from axis_path.core.evaluate.graph.graph import IMAGINARY, Op

_MOST_EXPONENT = 1_000


@dataclass(frozen=True, slots=True)
class Gaussian:
    """A number re + im i."""

    re: fmpq
    im: fmpq

    def plus(self, other: Gaussian) -> Gaussian:
        """Return the sum."""
        return Gaussian(self.re + other.re, self.im + other.im)

    def minus(self, other: Gaussian) -> Gaussian:
        """Return the difference."""
        return Gaussian(self.re - other.re, self.im - other.im)

    def times(self, other: Gaussian) -> Gaussian:
        """Return the product."""
        return Gaussian(
            self.re * other.re - self.im * other.im, self.re * other.im + self.im * other.re
        )

    def over(self, other: Gaussian) -> Gaussian:
        """Return the quotient.

        Raises:
            NotExactError: the divisor is 0.
        """
        size = other.re * other.re + other.im * other.im
        if size == 0:
            raise NotExactError
        return self.times(Gaussian(other.re / size, -other.im / size))

    def power(self, exponent: object) -> Gaussian:
        """Return a whole power.

        Raises:
            NotExactError: it is no whole power, or a large one.
        """
        if not isinstance(exponent, int) or abs(exponent) > _MOST_EXPONENT:
            raise NotExactError
        base = self if exponent >= 0 else _ONE.over(self)
        made, left = _ONE, abs(exponent)
        while left:
            made = made.times(base) if left % 2 else made
            base, left = base.times(base), left // 2
        return made

    def raised(self, exponent: Gaussian) -> Gaussian:
        """Return a power whose exponent was computed; see ``power``."""
        if exponent.im != 0 or exponent.re.q != 1:
            raise NotExactError
        return self.power(int(exponent.re.p))


_ONE = Gaussian(fmpq(1), fmpq(0))
_OPERATIONS: dict[str, Callable[..., Gaussian]] = {
    Op.ADD: Gaussian.plus,
    Op.SUBTRACT: Gaussian.minus,
    Op.MULTIPLY: Gaussian.times,
    Op.DIVIDE: Gaussian.over,
    Op.NEGATIVE: lambda a: Gaussian(-a.re, -a.im),
    Op.INTEGER_POWER: Gaussian.power,
    Op.POWER: Gaussian.raised,
    "conj": lambda a: Gaussian(a.re, -a.im),
    "re": lambda a: Gaussian(a.re, fmpq(0)),
    "im": lambda a: Gaussian(a.im, fmpq(0)),
}


GAUSSIAN = TableBackend(
    lambda value: Gaussian(fmpq(value.numerator, value.denominator), fmpq(0)),
    _OPERATIONS,
    {IMAGINARY: Gaussian(fmpq(0), fmpq(1))},
)
