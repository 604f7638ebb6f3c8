"""Quotients of polynomials with rational coefficients, in lowest terms.

What is one in x, in an inner function or in the tangent of half an angle has its zeros from the
polynomial above the line, with their multiplicities.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction

from flint import fmpq, fmpq_poly

from axis_path.core.evaluate import Expression, Op, RealFunction
from axis_path.core.evaluate.graph.graph import Step
from axis_path.core.locate.algebra.polynomial import is_small


class NoQuotientError(Exception):
    """The expression is no quotient of polynomials, or one too large to be handled exactly."""


@dataclass(frozen=True, slots=True)
class Quotient:
    """A quotient of two polynomials without a common factor; the lower one is not 0."""

    top: fmpq_poly
    bottom: fmpq_poly

    @classmethod
    def of(cls, top: fmpq_poly, bottom: fmpq_poly) -> Quotient:
        """Return a quotient in lowest terms.

        Raises:
            NoQuotientError: the lower polynomial is 0, or one is too large.
        """
        if bottom == 0 or not (is_small(top) and is_small(bottom)):
            raise NoQuotientError
        if bottom.degree() == 0:
            return cls(top / bottom[0], fmpq_poly([1]))
        shared = top.gcd(bottom)
        return cls(top // shared, bottom // shared) if shared.degree() > 0 else cls(top, bottom)

    @classmethod
    def number(cls, value: Fraction) -> Quotient:
        """Return a number as a quotient."""
        return cls(fmpq_poly([fmpq(value.numerator, value.denominator)]), fmpq_poly([1]))


#: The variable itself.
IDENTITY = Quotient(fmpq_poly([0, 1]), fmpq_poly([1]))


def _added(a: Quotient, b: Quotient) -> Quotient:
    return Quotient.of(a.top * b.bottom + b.top * a.bottom, a.bottom * b.bottom)


def _negative(a: Quotient) -> Quotient:
    return Quotient(-a.top, a.bottom)


def _times(a: Quotient, b: Quotient) -> Quotient:
    return Quotient.of(a.top * b.top, a.bottom * b.bottom)


def _over(a: Quotient, b: Quotient) -> Quotient:
    return Quotient.of(a.top * b.bottom, a.bottom * b.top)


def _power(a: Quotient, n: int) -> Quotient:
    if n < 0:
        return _power(_over(Quotient.number(Fraction(1)), a), -n)
    if not (is_small(a.top, n) and is_small(a.bottom, n)):
        raise NoQuotientError
    return Quotient(a.top**n, a.bottom**n)


_OPERATIONS: dict[str, Callable[..., Quotient]] = {
    Op.ADD: _added,
    Op.SUBTRACT: lambda a, b: _added(a, _negative(b)),
    Op.NEGATIVE: _negative,
    Op.MULTIPLY: _times,
    Op.DIVIDE: _over,
    Op.GUARD: lambda a, _: a,
}


def apply(step: Step, arguments: Sequence[Quotient]) -> Quotient:
    """Return what an operation makes of quotients.

    Raises:
        NoQuotientError: it makes no quotient of them.
    """
    if step.op == Op.INTEGER_POWER and isinstance(step.payload, int):
        return _power(arguments[0], step.payload)
    if step.op not in _OPERATIONS:
        raise NoQuotientError
    return _OPERATIONS[step.op](*arguments)


def quotient_in(
    function: RealFunction, expression: Expression, atoms: Mapping[int, Quotient]
) -> Quotient | None:
    """Return an expression as a quotient of polynomials, or None if it is none.

    Args:
        function: it has the values of the sliders.
        expression: of the function's graph.
        atoms: the steps of the expression's program that are known quotients. What they are
            made of is not looked at.
    """
    program = expression.program
    made: list[Quotient | None] = []
    for position, step in enumerate(program.steps):
        given = [made[argument] for argument in step.arguments]
        made.append(atoms.get(position) or _step(function, step, given))
    return made[program.results[0]]


def _step(function: RealFunction, step: Step, given: list[Quotient | None]) -> Quotient | None:
    """Return a step as a quotient; None if it is none, which matters only where it is used."""
    if step.op == Op.NUMBER and isinstance(step.payload, Fraction):
        return Quotient.number(step.payload)
    if step.op == Op.PARAMETER:
        value = function.parameters[str(step.payload)]
        return Quotient.number(value) if isinstance(value, Fraction) else None
    known = [argument for argument in given if argument is not None]
    if not given or len(known) < len(given):
        return None
    try:
        return apply(step, known)
    except NoQuotientError:
        return None


def as_quotient(function: RealFunction, expression: Expression) -> Quotient | None:
    """Return an expression as a quotient of polynomials of the variable, or None."""
    steps = expression.program.steps
    atoms = {k: IDENTITY for k, step in enumerate(steps) if step.op == Op.VARIABLE}
    return quotient_in(function, expression, atoms)
