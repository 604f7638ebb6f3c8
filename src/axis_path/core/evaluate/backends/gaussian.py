"""Complex numbers whose parts are fractions, without rounding."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from flint import fmpq

from axis_path.core.evaluate.graph.graph import IMAGINARY, Op

_MOST_EXPONENT = 1_000


class NotGaussianError(Exception):
    """A part of a number is no fraction."""


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
            NotGaussianError: the divisor is 0.
        """
        size = other.re * other.re + other.im * other.im
        if size == 0:
            raise NotGaussianError
        return self.times(Gaussian(other.re / size, -other.im / size))

    def power(self, exponent: object) -> Gaussian:
        """Return a whole power.

        Raises:
            NotGaussianError: it is no whole power, or a large one.
        """
        if not isinstance(exponent, int) or abs(exponent) > _MOST_EXPONENT:
            raise NotGaussianError
        base = self if exponent >= 0 else _ONE.over(self)
        made, left = _ONE, abs(exponent)
        while left:
            made = made.times(base) if left % 2 else made
            base, left = base.times(base), left // 2
        return made

    def raised(self, exponent: Gaussian) -> Gaussian:
        """Return a power whose exponent was computed; see ``power``."""
        if exponent.im != 0 or exponent.re.q != 1:
            raise NotGaussianError
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


class GaussianBackend:
    """The backend.

    Raises:
        NotGaussianError: in every method, where a number has a part that is no fraction.
    """

    plan_name = ""
    is_fixed = False

    def number(self, value: Fraction) -> Gaussian:
        """Return a fraction."""
        return Gaussian(fmpq(value.numerator, value.denominator), fmpq(0))

    def constant(self, name: str) -> Gaussian:
        """Return i."""
        if name != IMAGINARY:
            raise NotGaussianError
        return Gaussian(fmpq(0), fmpq(1))

    def operation(self, op: str) -> Callable[..., Gaussian]:
        """Return an operation."""
        found = _OPERATIONS.get(op)
        if found is None:
            raise NotGaussianError
        return found

    def within(self, *_: Any) -> Gaussian:  # noqa: ANN401 - whatever it is given
        """Refuse domains."""
        raise NotGaussianError

    pieces = guard = summarise = within
