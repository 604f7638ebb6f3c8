"""A function as a power series about a place, with proof.

About a ball the coefficients hold those about each number in it, so the last one bounds what a
shorter series leaves out (Lagrange).

Source: the power series of Arb (Johansson), in python-flint.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from flint import arb, arb_series, ctx

from axis_path.core.arithmetic import Ball
from axis_path.core.catalogue import CONSTANTS
from axis_path.core.evaluate.function import RealFunction
from axis_path.core.evaluate.graph.graph import Op, Step


class NoSeriesError(Exception):
    """An operation has no series here."""


def taylor(function: RealFunction, abscissa: Ball, count: int) -> list[arb] | None:
    """Return the first coefficients of a function's power series about a place.

    Called inside ``precision``.

    Args:
        function: of one variable; its own domain is not looked at.
        abscissa: the centre.
        count: how many coefficients; the one of x^0 comes first.

    Returns:
        None if an operation is not known as a series, or has none there.
    """
    made: list[arb_series] = []
    cap = ctx.cap
    try:
        # The library cuts every series off there.
        ctx.cap = count
        for step in function.expression.program.steps:
            given = [made[argument] for argument in step.arguments]
            made.append(_of_step(function, step, given, abscissa, count))
    except (NoSeriesError, ValueError, ZeroDivisionError):
        return None
    finally:
        ctx.cap = cap
    last = made[function.expression.program.results[0]]
    coefficients = [last[k] for k in range(count)]
    return coefficients if all(coefficient.is_finite() for coefficient in coefficients) else None


def _of_step(
    function: RealFunction, step: Step, given: list[arb_series], abscissa: Ball, count: int
) -> arb_series:
    match step.op, step.payload:
        case Op.VARIABLE, _:
            return arb_series([abscissa.value, 1], count)
        case Op.NUMBER, number:
            return arb_series([_number(number)], count)
        case Op.PARAMETER, name:
            return arb_series([_number(function.parameters[str(name)])], count)
        case Op.CONSTANT, name if name in CONSTANTS:
            return arb_series([CONSTANTS[str(name)].proving().value], count)
        case Op.INTEGER_POWER, int() as n:
            return _power(given[0], n)
        case Op.ROOT, (int() as top, int() as bottom):
            return (_positive(given[0]).log() * arb(top) / bottom).exp()
        case Op.POWER, _:
            return (given[1] * _positive(given[0]).log()).exp()
    if step.op not in _OPERATIONS:
        raise NoSeriesError
    return _OPERATIONS[step.op](*given)


def _number(value: object) -> arb:
    return arb(value.numerator) / value.denominator  # type: ignore[attr-defined]


def _positive(value: arb_series) -> arb_series:
    if not bool(value[0] > 0):
        raise NoSeriesError
    return value


def _divided(a: arb_series, b: arb_series) -> arb_series:
    if b[0].contains(0):
        raise NoSeriesError
    return a * b.inv()


def _power(base: arb_series, n: int) -> arb_series:
    power = arb_series([1], base.prec)
    for _ in range(abs(n)):
        power *= base
    return _divided(arb_series([1], base.prec), power) if n < 0 else power


def _hyperbolic(u: arb_series, sign: int) -> arb_series:
    return (u.exp() + (-u).exp() * sign) * arb(0.5)


_SINH, _COSH = partial(_hyperbolic, sign=-1), partial(_hyperbolic, sign=1)
_OPERATIONS: dict[str, Callable[..., arb_series]] = {
    Op.ADD: lambda a, b: a + b,
    Op.SUBTRACT: lambda a, b: a - b,
    Op.MULTIPLY: lambda a, b: a * b,
    Op.DIVIDE: _divided,
    Op.NEGATIVE: lambda a: -a,
    Op.GUARD: lambda body, _: body,
    "sin": lambda u: u.sin(),
    "cos": lambda u: u.cos(),
    "tan": lambda u: _divided(u.sin(), u.cos()),
    "exp": lambda u: u.exp(),
    "ln": lambda u: _positive(u).log(),
    "sqrt": lambda u: _positive(u).sqrt(),
    "atan": lambda u: u.atan(),
    "asin": lambda u: u.asin(),
    "acos": lambda u: u.acos(),
    "sinh": _SINH,
    "cosh": _COSH,
    "tanh": lambda u: _divided(_SINH(u), _COSH(u)),
    "asinh": lambda u: (u + (u * u + 1).sqrt()).log(),
    "atanh": lambda u: _positive(_divided(u + 1, 1 - u)).log() * arb(0.5),
    "erf": lambda u: u.erf(),
}
