"""Zeros of polynomials in one inner function, such as e^(2x) - 4 e^x + 4, by its factors.

Where the polynomial has a double zero the function only touches zero, which no enclosure can tell
from passing close by. Its irreducible factors have simple zeros, so each is searched by itself, and
the zeros have the multiplicity of their factor.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

from flint import fmpq_poly, fmpz_poly

from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.evaluate import Expression, Op, RealFunction
from axis_path.core.evaluate.graph.graph import Step
from axis_path.core.locate.algebra.rational import IDENTITY, Quotient, quotient_in

_RATIONAL = frozenset(
    {Op.ADD, Op.SUBTRACT, Op.NEGATIVE, Op.MULTIPLY, Op.DIVIDE, Op.INTEGER_POWER, Op.VARIABLE}
)
#: A power is not seen as one of another beyond this exponent.
_MOST_TIMES = 60


@dataclass(frozen=True, slots=True)
class InnerFactor:
    """A factor of a polynomial in an inner function.

    Attributes:
        expression: the factor, of the same graph.
        times: how often it occurs.
    """

    expression: Expression
    times: int


def inner_factors(function: RealFunction, expression: Expression) -> list[InnerFactor] | None:
    """Return factors whose zeros, together, are those of a polynomial in an inner function.

    Args:
        function: it has the values of the sliders.
        expression: of its graph.

    Returns:
        None if it is no such polynomial, or one that has only one factor, once.
    """
    for position in _inner_functions(expression):
        quotient = quotient_in(function, expression, _atoms(expression, position))
        if quotient is None or quotient.top.degree() < 1:
            continue
        _, factors = quotient.top.numer().factor()
        if len(factors) == 1 and factors[0][1] == 1:
            return None
        return [
            InnerFactor(expression.polynomial_of(position, _coefficients(factor)), int(times))
            for factor, times in factors
        ]
    return None


def composed(expression: Expression) -> Iterator[tuple[Expression, Expression]]:
    """Return the ways in which an expression is G(u) with an inner function u that is no x.

    Returns:
        G as a function of the variable, and u.
    """
    steps = expression.program.steps
    for position in range(len(steps) - 1):
        own = steps[position]
        if own.op == Op.VARIABLE or not own.arguments:
            continue
        moves: list[bool] = []
        for k, step in enumerate(steps):
            is_moved = step.op == Op.VARIABLE or any(moves[a] for a in step.arguments)
            moves.append(is_moved and k != position)
        if not moves[expression.program.results[0]] and _moves(steps, position):
            yield expression.with_variable_at(position), expression.step_at(position)


def _moves(steps: tuple[Step, ...], position: int) -> bool:
    waiting = [position]
    while waiting:
        step = steps[waiting.pop()]
        if step.op == Op.VARIABLE:
            return True
        waiting.extend(step.arguments)
    return False


def _coefficients(factor: fmpz_poly) -> list[Fraction]:
    polynomial = fmpq_poly(factor)
    return [to_fraction(polynomial[k]) for k in range(int(polynomial.degree()) + 1)]


def _inner_functions(expression: Expression) -> Iterator[int]:
    """Return the steps that depend on the variable and are no polynomials of others."""
    moves: list[bool] = []
    for position, step in enumerate(expression.program.steps):
        moves.append(step.op == Op.VARIABLE or any(moves[k] for k in step.arguments))
        if moves[-1] and step.op not in _RATIONAL and position not in expression.program.results:
            yield position


def _atoms(expression: Expression, position: int) -> dict[int, Quotient]:
    """Return the steps that are known powers of an inner function, with these."""
    steps = expression.program.steps
    own = steps[position]
    atoms = {position: IDENTITY}
    degree = root_degree(own)
    if degree is not None:
        atoms[own.arguments[0]] = _power(degree)
    base = _exponential(steps, own)
    if base is not None:
        for k, step in enumerate(steps):
            other = _exponential(steps, step)
            times = None if other is None or k == position else _times(other, base)
            if times is not None:
                atoms[k] = _power(times)
    return atoms


def power_of(steps: tuple[Step, ...], position: int, other: int) -> int | None:
    """Return n > 0 if a step is the n-th power of another one, as e^(2x) of e^x; else None."""
    one, base = _exponential(steps, steps[position]), _exponential(steps, steps[other])
    return None if one is None or base is None else _times(one, base)


def _power(times: int) -> Quotient:
    return Quotient(fmpq_poly([0, 1]) ** times, fmpq_poly([1]))


def root_degree(step: Step) -> int | None:
    """Return q if a step is a q-th root; else None."""
    if step.op in ("sqrt", "cbrt"):
        return 2 if step.op == "sqrt" else 3
    if step.op == Op.ROOT and isinstance(step.payload, tuple) and step.payload[0] == 1:
        return step.payload[1]
    return None


@dataclass(frozen=True, slots=True)
class _Exponential:
    """A power b^(r u) of a fixed base.

    Attributes:
        base: a fraction; None for e.
        rate: r.
        inner: the step u.
    """

    base: Fraction | None
    rate: Fraction
    inner: int


def _exponential(steps: tuple[Step, ...], step: Step) -> _Exponential | None:
    if step.op == "exp":
        base, exponent = None, step.arguments[0]
    elif step.op == Op.POWER:
        below, exponent = steps[step.arguments[0]], step.arguments[1]
        if isinstance(below.payload, Fraction) and below.payload > 0:
            base = below.payload
        elif below.op == Op.CONSTANT and below.payload == "e":
            base = None
        else:
            return None
    else:
        return None
    rate, inner = Fraction(1), exponent
    while (parted := _less_a_factor(steps, steps[inner])) is not None:
        rate, inner = rate * parted[0], parted[1]
    return _Exponential(base, rate, inner)


def _less_a_factor(steps: tuple[Step, ...], step: Step) -> tuple[Fraction, int] | None:
    """Return a number r and a step u for a step r u; None for any other."""
    if step.op == Op.NEGATIVE:
        return Fraction(-1), step.arguments[0]
    numbers = [steps[argument].payload for argument in step.arguments]
    if step.op == Op.MULTIPLY and isinstance(numbers[0], Fraction):
        return numbers[0], step.arguments[1]
    if step.op == Op.DIVIDE and isinstance(numbers[1], Fraction) and numbers[1]:
        return 1 / numbers[1], step.arguments[0]
    return None


def _times(one: _Exponential, base: _Exponential) -> int | None:
    """Return n if one is the n-th power of the other, n > 0; None if not."""
    if one.inner != base.inner or not base.rate or (one.base is None) != (base.base is None):
        return None
    ratio = one.rate / base.rate
    if one.base is not None and base.base is not None and one.base != base.base:
        if base.base == 1 or one.base == 1:
            return None
        logarithms = math.log(one.base) / math.log(base.base)
        near = Fraction(logarithms).limit_denominator(_MOST_TIMES)
        if abs(near.numerator) > _MOST_TIMES:
            return None
        if one.base**near.denominator != base.base**near.numerator:
            return None
        ratio *= near
    is_whole = ratio.denominator == 1 and 0 < ratio <= _MOST_TIMES
    return int(ratio) if is_whole else None
