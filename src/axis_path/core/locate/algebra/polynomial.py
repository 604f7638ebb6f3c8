"""Polynomials with rational coefficients: all real zeros at once, exactly as many as there are.

An expression is tried as a polynomial by running its program on polynomials. Its zeros then come
from the library, which isolates them with proof and tells real ones from complex ones.

Source: Arb's ``arb_fmpz_poly_complex_roots`` (Johansson), in python-flint.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction

from flint import acb, arb, fmpq, fmpq_poly, fmpz, fmpz_poly

from axis_path.core.arithmetic.real_number import fractions_only
from axis_path.core.evaluate import Expression, Op, RealFunction, run
from axis_path.core.evaluate.graph.graph import Fence

#: Degrees beyond this take the general way: the library's time grows with the cube.
LARGEST_DEGREE = 120
#: Degree times bits of the coefficients: factoring takes 0.2 s at this size and cannot be stopped.
_LARGEST_SIZE = 2_000_000
_MOST_SURD_BITS = 60


class _NoPolynomialError(Exception):
    """The expression is no polynomial, or one too large to be handled exactly."""


def is_small(value: fmpq_poly, power: int = 1) -> bool:
    """Check whether a power of a polynomial is small enough to be handled exactly."""
    return int(value.degree()) * power <= LARGEST_DEGREE and _size(value, power) <= _LARGEST_SIZE


def _small(value: fmpq_poly) -> fmpq_poly:
    if not is_small(value):
        raise _NoPolynomialError
    return value


def _size(value: fmpq_poly, power: int = 1) -> int:
    """Return a bound on degree times bits of a power of a polynomial."""
    bits = int(value.numer().height_bits()) + int(value.denom().bit_length())
    return max(int(value.degree()) * power, 1) * max(bits, 1) * power


def _divide(a: fmpq_poly, b: fmpq_poly) -> fmpq_poly:
    if b.degree() != 0:
        raise _NoPolynomialError
    return _small(a * (1 / b[0]))


def _power(a: fmpq_poly, n: int) -> fmpq_poly:
    if n < 0 or not is_small(a, n):
        raise _NoPolynomialError
    return a**n


class _Polynomials:
    """The arithmetic of polynomials, as a backend."""

    # It is made for one run, so programs keep nothing that was bound to it.
    plan_name = ""
    is_fixed = True

    def number(self, value: Fraction) -> fmpq_poly:
        return fmpq_poly([fmpq(value.numerator, value.denominator)])

    def constant(self, name: str) -> fmpq_poly:
        raise _NoPolynomialError

    def operation(self, op: str) -> Callable[..., fmpq_poly]:
        if op not in _OPERATIONS:
            raise _NoPolynomialError
        return _OPERATIONS[op]

    def within(
        self, fence: Fence, body: fmpq_poly, subject: fmpq_poly, bounds: tuple[fmpq_poly, ...]
    ) -> fmpq_poly:
        raise _NoPolynomialError

    def pieces(self, split: object, subject: object, pieces: object) -> fmpq_poly:
        """Refuse what is in pieces."""
        raise _NoPolynomialError

    def guard(self, body: fmpq_poly, witness: fmpq_poly) -> fmpq_poly:
        """Return the body: a polynomial is defined everywhere."""
        return body

    def summarise(self, inner: object, low: object, high: object, captured: object) -> fmpq_poly:
        """Refuse sums, products and integrals."""
        raise _NoPolynomialError


_OPERATIONS: dict[str, Callable[..., fmpq_poly]] = {
    # Sums grow by what is added, so a line cannot make them large; products multiply.
    Op.ADD: lambda a, b: a + b,
    Op.SUBTRACT: lambda a, b: a - b,
    Op.NEGATIVE: lambda a: -a,
    Op.MULTIPLY: lambda a, b: _small(a * b),
    Op.DIVIDE: _divide,
    Op.INTEGER_POWER: _power,
}


def as_polynomial(function: RealFunction, expression: Expression) -> fmpq_poly | None:
    """Return an expression as a polynomial of the variable, or None if it is none."""
    program = expression.program
    known = fractions_only(function.parameters, program.parameters)
    if known is None:
        return None
    parameters = {name: _Polynomials().number(value) for name, value in known.items()}
    try:
        polynomial = run(program, _Polynomials(), fmpq_poly([0, 1]), parameters)[0]
    except _NoPolynomialError:
        return None
    return polynomial


def is_polynomial(function: RealFunction) -> bool:
    """Check whether all factors of a function are polynomials."""
    return all(
        as_polynomial(function, factor) is not None for factor in function.expression.factors()
    )


@dataclass(frozen=True, slots=True)
class PolynomialZero:
    """A real zero: a ball around it, its multiplicity, and its exact form if that is a surd."""

    abscissa: arb
    order: int
    surd: str | None = None


def real_zeros(polynomial: fmpq_poly) -> list[PolynomialZero]:
    """Return every real zero of a polynomial that is not 0."""
    zeros: list[PolynomialZero] = []
    _, factors = polynomial.numer().factor()
    for factor, order in factors:
        roots: list[tuple[acb, int]] = factor.complex_roots()
        real = [root.real for root, _ in roots if root.imag.is_zero()]
        surds = _surds(factor)
        for abscissa in real:
            # A quadratic's two surds lie apart: the ball of one cannot hold the other.
            surd = next((text for text, near in surds if near.overlaps(abscissa)), None)
            zeros.append(PolynomialZero(abscissa, order, surd))
    return zeros


def _surds(factor: fmpz_poly) -> list[tuple[str, arb]]:
    """Write the zeros of a quadratic that has no rational ones: (b ± s √k)/a in lowest terms."""
    if factor.degree() != 2:
        return []
    c, b, a = (int(factor[k]) for k in range(3))
    square = b * b - 4 * a * c
    if square <= 0 or square.bit_length() > _MOST_SURD_BITS:
        return []
    outside, inside = 1, 1
    for prime, power in fmpz(square).factor():
        outside *= int(prime) ** (power // 2)
        inside *= int(prime) ** (power % 2)
    shared = math.gcd(b, outside, 2 * a) * (1 if a > 0 else -1)
    middle, outside, bottom = -b // shared, outside // shared, 2 * a // shared
    root = arb(inside).sqrt()
    return [
        (_surd(middle, sign * outside, inside, bottom), (middle + sign * outside * root) / bottom)
        for sign in (1, -1)
    ]


def _surd(middle: int, outside: int, inside: int, bottom: int) -> str:
    root = ("" if abs(outside) == 1 else str(abs(outside))) + f"√{inside}"
    if not middle:
        top = f"−{root}" if outside < 0 else root
        return top if bottom == 1 else f"{top}/{bottom}"
    top = f"{middle} {'−' if outside < 0 else '+'} {root}".replace("-", "−")
    return top if bottom == 1 else f"({top})/{bottom}"
