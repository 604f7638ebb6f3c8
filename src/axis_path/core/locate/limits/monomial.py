"""Monomials times intervals, with logarithms and exponentials, and sums of them."""

from __future__ import annotations

from dataclasses import dataclass, field
from fractions import Fraction

from flint import arb, fmpq

_MOST_DEGREE = 12


class UnknownGrowthError(Exception):
    """How a step grows is not known."""


@dataclass(frozen=True, slots=True)
class Rate:
    """A coefficient: a ball, and the fraction that it is, if it is known to be one."""

    value: arb
    exact: fmpq | None = None

    @classmethod
    def of(cls, value: Fraction | int) -> Rate:
        """Make an exact coefficient."""
        exact = fmpq(value.numerator, value.denominator)
        return cls(arb(exact), exact)

    def plus(self, other: Rate) -> Rate:
        """Add."""
        exact = None
        if self.exact is not None and other.exact is not None:
            exact = self.exact + other.exact
        return Rate(self.value + other.value if exact is None else arb(exact), exact)

    def times(self, other: Rate) -> Rate:
        """Multiply."""
        exact = None
        if self.exact is not None and other.exact is not None:
            exact = self.exact * other.exact
        return Rate(self.value * other.value if exact is None else arb(exact), exact)

    def sign(self) -> int:
        """Return the sign.

        Raises:
            UnknownGrowthError: it is not known.
        """
        if bool(self.value > 0):
            return 1
        if bool(self.value < 0):
            return -1
        if self.value.is_zero():
            return 0
        raise UnknownGrowthError


ZERO, ONE, MINUS = Rate.of(0), Rate.of(1), Rate.of(-1)
#: A polynomial in x and 1/x by its coefficients; those that are exactly 0 are left out.
Polynomial = dict[int, Rate]


def poly_sum(a: Polynomial, b: Polynomial) -> Polynomial:
    """Add two polynomials."""
    made = {k: a.get(k, ZERO).plus(b.get(k, ZERO)) for k in {*a, *b}}
    return {k: rate for k, rate in made.items() if not rate.value.is_zero()}


def poly_product(a: Polynomial, b: Polynomial) -> Polynomial:
    """Multiply two polynomials.

    Raises:
        UnknownGrowthError: the degree is too large.
    """
    made: Polynomial = {}
    for i, one in a.items():
        for k, other in b.items():
            made[i + k] = made.get(i + k, ZERO).plus(one.times(other))
    if max(map(abs, made), default=0) > _MOST_DEGREE:
        raise UnknownGrowthError
    return {k: rate for k, rate in made.items() if not rate.value.is_zero()}


def poly_scaled(a: Polynomial, factor: Rate) -> Polynomial:
    """Multiply a polynomial by a number."""
    return {k: rate.times(factor) for k, rate in a.items()}


@dataclass(frozen=True, slots=True)
class Monomial:
    """e^q x^p (ln x)^r, positive for x > 1.

    Attributes:
        q: a polynomial without a constant.
        p: the power of x.
        r: the power of ln x.
    """

    q: Polynomial = field(default_factory=dict)
    p: Rate = ZERO
    r: Rate = ZERO

    def times(self, other: Monomial) -> Monomial:
        """Multiply."""
        return Monomial(poly_sum(self.q, other.q), self.p.plus(other.p), self.r.plus(other.r))

    def power(self, exponent: Rate) -> Monomial:
        """Raise to a power."""
        return Monomial(
            poly_scaled(self.q, exponent), self.p.times(exponent), self.r.times(exponent)
        )

    def over(self, other: Monomial) -> Monomial:
        """Divide."""
        return self.times(other.power(MINUS))

    def trend(self) -> int:
        """Return 1 if it grows beyond all bounds, -1 if it comes to 0, and 0 if it is 1."""
        for k in sorted(self.q, reverse=True):
            if sign := self.q[k].sign():
                return sign
        return self.p.sign() or self.r.sign()

    def falls_from(self, far: arb) -> bool:
        """Check whether it falls all along beyond an end."""
        if not self.q and self.p.value.is_zero():
            return bool(self.r.value < 0)
        return bool(self.steepness(far)[1] < 0)

    def steepness(self, far: arb) -> tuple[int, arb]:
        """Return a degree k and a bound b of x (ln m)' / x^k beyond an end."""
        parts = {k: rate.times(Rate.of(k)).value for k, rate in self.q.items()}
        parts[0] = self.p.value
        logarithmic = self.r.value / far.log()
        degree = max((k for k, part in parts.items() if not part.is_zero()), default=0)
        # Divided by the leading power, all others are greatest at the end.
        bound = parts[degree]
        for k, part in [*parts.items(), (0, logarithmic)]:
            if k < degree or part is logarithmic:
                bound += max(part.upper(), arb(0)) * far ** (k - degree)
        return degree, bound

    def at(self, x: arb) -> arb:
        """Return the value at a number above 1."""
        exponent = sum((rate.value * x**k for k, rate in self.q.items()), arb(0))
        return exponent.exp() * x**self.p.value * x.log() ** self.r.value
