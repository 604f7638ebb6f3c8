"""Where two algebraic curves touch: one common zero of two polynomials, proved to be one.

The resultants of the polynomials hold the coordinates of all their common zeros. In a small box in
which each has one zero there is at most one point; that both polynomials are zero there is decided
by a bound below which a number of that kind cannot be unless it is zero.

Source: Cox, Little, O'Shea, *Ideals, Varieties, and Algorithms*, section 3.6; the bound is that of
Liouville for several algebraic numbers, in Waldschmidt, *Diophantine Approximation on Linear
Algebraic Groups*, section 3.5.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction

from flint import Ordering, arb, fmpq, fmpq_mpoly, fmpq_mpoly_ctx, fmpq_poly, fmpz_poly

from axis_path.core.arithmetic import precision
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.evaluate import Op, RealSurface
from axis_path.core.evaluate.graph.graph import Step
from axis_path.core.locate.algebra.polynomial import real_zeros
from axis_path.core.locate.algebra.rational import Quotient

_CONTEXT = fmpq_mpoly_ctx.get(("x", "y"), Ordering.lex)
_X, _Y = _CONTEXT.gens()
_LARGEST_DEGREE, _MOST_BITS, _SPARE_BITS = 24, 20_000, 64


class _NoPolynomialError(Exception):
    """The expression is no polynomial of both variables, or one too large."""


@dataclass(frozen=True, slots=True)
class Contact:
    """A point at which both polynomials are zero, proved to be the only one in a box.

    Attributes:
        x: its coordinates; ``y`` the second.
        multiplicity: how often it counts; None if that is not known.
    """

    x: arb
    y: arb
    multiplicity: int | None


@dataclass(frozen=True, slots=True)
class _Zero:
    """A zero of an irreducible polynomial.

    Attributes:
        order: its multiplicity in the resultant.
    """

    abscissa: arb
    factor: fmpz_poly
    order: int


def polynomial_of(surface: RealSurface) -> fmpq_mpoly | None:
    """Return a function of two variables as a polynomial, or None if it is none."""
    made: list[fmpq_mpoly | None] = []
    for step in surface.expression.program.steps:
        given = [made[argument] for argument in step.arguments]
        try:
            made.append(_made(step, given, surface.parameters))
        except _NoPolynomialError:
            made.append(None)
    return made[surface.expression.program.results[0]]


def _made(step: Step, given: list[fmpq_mpoly | None], parameters: Parameters) -> fmpq_mpoly:
    if step.op == Op.VARIABLE:
        return _X
    if step.op == Op.INPUT:
        return _Y
    value = parameters[str(step.payload)] if step.op == Op.PARAMETER else step.payload
    if not given and isinstance(value, Fraction):
        return _CONTEXT.constant(fmpq(value.numerator, value.denominator))
    if not given or any(term is None for term in given):
        raise _NoPolynomialError
    return _combined(step, given[0], given[-1])


def _combined(step: Step, a: fmpq_mpoly, b: fmpq_mpoly) -> fmpq_mpoly:
    match step.op:
        case Op.ADD:
            return a + b
        case Op.SUBTRACT:
            return a - b
        case Op.NEGATIVE:
            return -a
        case Op.MULTIPLY:
            return _small(a * b)
        case Op.DIVIDE if b.is_constant() and b != 0:
            return a / b
        case Op.INTEGER_POWER if isinstance(step.payload, int) and step.payload > 0:
            if max(map(int, a.degrees())) * step.payload <= _LARGEST_DEGREE:
                return a**step.payload
    raise _NoPolynomialError


def _small(value: fmpq_mpoly) -> fmpq_mpoly:
    if max(map(int, value.degrees())) > _LARGEST_DEGREE:
        raise _NoPolynomialError
    return value


def difference(one: Quotient, other: Quotient) -> fmpq_mpoly:
    """Return what is zero where a quotient in x and one in y are equal."""
    top, bottom = _in(one.top, _X), _in(one.bottom, _X)
    other_top, other_bottom = _in(other.top, _Y), _in(other.bottom, _Y)
    return top * other_bottom - other_top * bottom


def _in(polynomial: fmpq_poly, variable: fmpq_mpoly) -> fmpq_mpoly:
    total = _CONTEXT.constant(0)
    for k in range(int(polynomial.degree()), -1, -1):
        total = total * variable + polynomial[k]
    return total


def contact(one: fmpq_mpoly, other: fmpq_mpoly, box: tuple[arb, arb]) -> Contact | bool:
    """Return the one common zero of two polynomials in a box.

    Args:
        one: a polynomial in x and y.
        other: another.
        box: a ball for x and one for y.

    Returns:
        False if it is proved that there is none; True if nothing is proved.
    """
    if one == 0 or other == 0:
        return True
    sides = [
        _zeros_of(one.resultant(other, name), k, ball)
        for k, (name, ball) in enumerate(zip(("y", "x"), box, strict=True))
    ]
    if any(side is None for side in sides):
        return True
    if any(not side for side in sides):
        return False
    if any(len(side or ()) != 1 for side in sides):
        return True
    x, y = (side[0] for side in sides if side)
    if not (bool(box[0].contains(x.abscissa)) and bool(box[1].contains(y.abscissa))):
        return True
    if not all(_vanishes(relation, x, y) for relation in (one, other)):
        # Whatever is zero in the box has these coordinates.
        return True
    across, up = (one.derivative("x"), one.derivative("y"))
    slopes = across * other.derivative("y") - up * other.derivative("x")
    if not _vanishes(slopes, x, y):
        return Contact(x.abscissa, y.abscissa, 1)
    # Where the slopes agree it counts twice at least, and never more often than a coordinate.
    return Contact(x.abscissa, y.abscissa, 2 if min(x.order, y.order) == 2 else None)


def _zeros_of(resultant: fmpq_mpoly, variable: int, within: arb) -> list[_Zero] | None:
    """Return the zeros of a resultant in a ball; None if they are not known."""
    if resultant == 0 or int(resultant.degrees()[variable]) > _LARGEST_DEGREE**2:
        return None
    coefficients = [fmpq(0)] * (int(resultant.degrees()[variable]) + 1)
    for exponents, coefficient in resultant.terms():
        coefficients[int(exponents[variable])] = coefficient
    _, factors = fmpq_poly(coefficients).numer().factor()
    return [
        _Zero(zero.abscissa, factor, int(order))
        for factor, order in factors
        for zero in real_zeros(fmpq_poly(factor))
        if zero.abscissa.overlaps(within)
    ]


def _vanishes(polynomial: fmpq_mpoly, x: _Zero, y: _Zero) -> bool:
    """Decide whether a polynomial is zero at a point of algebraic coordinates."""
    if polynomial == 0:
        return True
    bits = _least_bits(polynomial, x, y)
    if bits > _MOST_BITS:
        return False
    with precision(bits + _SPARE_BITS):
        abscissae = [_sharp(zero) for zero in (x, y)]
        value = arb(0)
        for (i, j), coefficient in polynomial.terms():
            value += arb(coefficient) * abscissae[0] ** int(i) * abscissae[1] ** int(j)
        return bool(abs(value) < arb(2) ** -bits)


def _sharp(zero: _Zero) -> arb:
    """Return a zero at the present precision."""
    return next(
        real_zero.abscissa
        for real_zero in real_zeros(fmpq_poly(zero.factor))
        if real_zero.abscissa.overlaps(zero.abscissa)
    )


def _least_bits(polynomial: fmpq_mpoly, x: _Zero, y: _Zero) -> int:
    """Return b so that the polynomial is 0 at the point if it is less than 2^-b there."""
    terms = list(polynomial.terms())
    shared = math.lcm(*(int(coefficient.q) for _, coefficient in terms))
    length = sum(abs(int(coefficient * shared)) for _, coefficient in terms)
    degrees = [max(int(exponents[k]) for exponents, _ in terms) for k in (0, 1)]
    m, n = int(x.factor.degree()), int(y.factor.degree())
    bits = (m * n - 1) * math.log2(max(length, 1)) + math.log2(shared)
    bits += n * degrees[0] * _mahler_bits(x.factor) + m * degrees[1] * _mahler_bits(y.factor)
    return math.ceil(bits) + 2


def _mahler_bits(factor: fmpz_poly) -> float:
    """Return the binary logarithm of a bound of Mahler's measure: the length of coefficients."""
    return math.log2(math.isqrt(sum(int(c) ** 2 for c in factor.coeffs())) + 1)
