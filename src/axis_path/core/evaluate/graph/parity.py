"""Whether a function is odd or even about a place, proved from its steps."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from flint import fmpq, fmpq_poly

from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.catalogue import FUNCTIONS, Parity
from axis_path.core.evaluate.graph.graph import Op, Step
from axis_path.core.evaluate.graph.program import Program

#: Polynomials are multiplied out up to this degree.
_HIGHEST_DEGREE = 32


@dataclass(frozen=True, slots=True)
class _Known:
    """What is known of a step, as a function of the distance u from the place.

    Attributes:
        parity: None if it is neither odd nor even, or that is not known.
        polynomial: in u; None if it is none.
    """

    parity: Parity | None
    polynomial: fmpq_poly | None = None


_NOTHING = _Known(None)


def parity_about(program: Program, centre: Fraction, parameters: Parameters) -> Parity | None:
    """Return whether a function is odd or even about a place, where it has values.

    None says nothing: the function may be odd or even all the same.

    Args:
        program: of one variable, with one result.
        centre: the place.
        parameters: the values of the sliders.
    """
    known: list[_Known] = []
    for step in program.steps:
        known.append(_of_step(step, known, centre, parameters))
    return known[program.results[0]].parity


def _of_step(step: Step, known: list[_Known], centre: Fraction, parameters: Parameters) -> _Known:
    given = [known[argument] for argument in step.arguments]
    match step.op, given, step.payload:
        case Op.VARIABLE, _, _:
            return _of_polynomial(fmpq_poly([_rational(centre), 1]))
        case Op.NUMBER, _, Fraction() as number:
            return _of_polynomial(fmpq_poly([_rational(number)]))
        case Op.PARAMETER, _, str() as name if name in parameters:
            value = parameters[name]
            if not isinstance(value, Fraction):
                return _Known(Parity.EVEN)
            return _of_polynomial(fmpq_poly([_rational(value)]))
        case Op.CONSTANT, _, _:
            return _Known(Parity.EVEN)
        case Op.GUARD, [body, _], _:
            return _Known(body.parity)
    return _of_operation(step, given)


def _of_operation(step: Step, given: list[_Known]) -> _Known:
    match step.op, given, step.payload:
        case Op.ADD, [a, b], _:
            return _of_sum(a, b)
        case Op.SUBTRACT, [a, b], _:
            return _of_sum(a, _negative(b))
        case Op.NEGATIVE, [a], _:
            return _negative(a)
        case ((Op.MULTIPLY | Op.DIVIDE), [a, b], _):
            return _of_product(a, b, is_quotient=step.op == Op.DIVIDE)
        case Op.INTEGER_POWER, [a], int() as n:
            return _of_power(a, n)
        case Op.ROOT, [a], (int() as top, int() as bottom):
            is_real = bottom % 2 == 1 or a.parity is Parity.EVEN
            return _Known(_power_parity(a.parity, top)) if is_real else _NOTHING
    return _of_call(step.op, given) if given else _NOTHING


def _of_sum(a: _Known, b: _Known) -> _Known:
    if a.polynomial is not None and b.polynomial is not None:
        return _of_polynomial(a.polynomial + b.polynomial)
    return _Known(a.parity) if a.parity is b.parity else _NOTHING


def _negative(a: _Known) -> _Known:
    return a if a.polynomial is None else _of_polynomial(-a.polynomial)


def _of_call(name: str, given: list[_Known]) -> _Known:
    # Whatever is done to numbers that are the same on both sides gives the same on both sides.
    if all(argument.parity is Parity.EVEN for argument in given):
        return _Known(Parity.EVEN)
    if len(given) != 1 or given[0].parity is None or name not in FUNCTIONS:
        return _NOTHING
    return _Known(FUNCTIONS[name].parity)


def _of_product(a: _Known, b: _Known, *, is_quotient: bool) -> _Known:
    if a.polynomial is not None and b.polynomial is not None:
        if not is_quotient and _degree(a.polynomial) + _degree(b.polynomial) <= _HIGHEST_DEGREE:
            return _of_polynomial(a.polynomial * b.polynomial)
        if is_quotient and _degree(b.polynomial) == 0:
            return _of_polynomial(a.polynomial / b.polynomial[0])
    if a.parity is None or b.parity is None:
        return _NOTHING
    return _Known(Parity.EVEN if a.parity is b.parity else Parity.ODD)


def _of_power(a: _Known, n: int) -> _Known:
    if a.polynomial is not None and 0 <= n * _degree(a.polynomial) <= _HIGHEST_DEGREE and n >= 0:
        return _of_polynomial(a.polynomial**n)
    return _Known(_power_parity(a.parity, n))


def _power_parity(parity: Parity | None, n: int) -> Parity | None:
    return Parity.EVEN if parity is not None and n % 2 == 0 else parity


def _of_polynomial(polynomial: fmpq_poly) -> _Known:
    filled = {k % 2 for k in range(_degree(polynomial) + 1) if polynomial[k] != 0}
    if filled == {0, 1}:
        return _Known(None, polynomial)
    return _Known(Parity.ODD if filled == {1} else Parity.EVEN, polynomial)


def _degree(polynomial: fmpq_poly) -> int:
    return max(int(polynomial.degree()), 0)


def _rational(value: Fraction) -> fmpq:
    return fmpq(value.numerator, value.denominator)
