"""Many complex numbers at once: enclosures of their real and of their imaginary parts.

Numbers that may lie on the branch cut of a logarithm are left to the balls, one at a time, and so
are the functions that are not in the table.
"""

from __future__ import annotations

from fractions import Fraction
from typing import NamedTuple

import numpy as np

from axis_path.core.arithmetic import Enclosure, enclosure
from axis_path.core.catalogue import CONSTANTS, OPERATIONS
from axis_path.core.evaluate.backends.backends import Enclosing
from axis_path.core.evaluate.backends.table import NotExactError, TableBackend
from axis_path.core.evaluate.graph.graph import IMAGINARY, Op

_REALS = Enclosing()
_ZERO, _ONE = enclosure.constant(0.0, 0.0), enclosure.constant(1.0, 1.0)


class Columns(NamedTuple):
    """Complex numbers, each in a rectangle."""

    real: Enclosure
    imaginary: Enclosure = _ZERO


def _function(name: str, a: Enclosure) -> Enclosure:
    return OPERATIONS[name].enclosing(a)


def _add(a: Columns, b: Columns) -> Columns:
    return Columns(*map(enclosure.add, a, b))


def _subtract(a: Columns, b: Columns) -> Columns:
    return Columns(*map(enclosure.subtract, a, b))


def _negative(a: Columns) -> Columns:
    return Columns(*map(enclosure.negative, a))


def _multiply(a: Columns, b: Columns) -> Columns:
    times = enclosure.multiply
    return Columns(
        enclosure.subtract(times(a.real, b.real), times(a.imaginary, b.imaginary)),
        enclosure.add(times(a.real, b.imaginary), times(a.imaginary, b.real)),
    )


def _squared_size(a: Columns) -> Enclosure:
    return enclosure.add(*(enclosure.integer_power(part, 2) for part in a))


def _divide(a: Columns, b: Columns) -> Columns:
    size = _squared_size(b)
    return Columns(*(enclosure.divide(part, size) for part in _multiply(a, _conjugate(b))))


def _conjugate(a: Columns) -> Columns:
    return Columns(a.real, enclosure.negative(a.imaginary))


def _power(a: Columns, exponent: int) -> Columns:
    power, square, rest = Columns(_ONE), a, abs(exponent)
    while rest:
        power = _multiply(power, square) if rest % 2 else power
        rest //= 2
        square = _multiply(square, square) if rest else square
    return power if exponent >= 0 else _divide(Columns(_ONE), power)


def _argument(a: Columns) -> Enclosure:
    """Return the arguments of numbers off the branch cut: beside, above or below the origin."""
    x, y = a
    right, above, below = x.low > 0, y.low > 0, y.high < 0
    if not bool(np.all(right | above | below)):
        raise NotExactError
    half = enclosure.divide(_REALS.constant("pi"), _REALS.number(Fraction(2)))
    beside = _function("atan", enclosure.divide(y, x))
    across = enclosure.negative(_function("atan", enclosure.divide(x, y)))
    upper, lower = enclosure.add(across, half), enclosure.subtract(across, half)
    return enclosure.between(
        *(
            np.where(right, one, np.where(above, two, three))
            for one, two, three in (
                (beside.low, upper.low, lower.low), (beside.high, upper.high, lower.high)
            )
        )
    )  # fmt: skip


def _logarithm(a: Columns) -> Columns:
    half = _REALS.number(Fraction(1, 2))
    return Columns(enclosure.multiply(half, _function("ln", _squared_size(a))), _argument(a))


def _root(a: Columns) -> Columns:
    return _exponential(_multiply(Columns(_REALS.number(Fraction(1, 2))), _logarithm(a)))


def _general_power(a: Columns, b: Columns) -> Columns:
    return _exponential(_multiply(_logarithm(a), b))


def _exponential(a: Columns) -> Columns:
    size = Columns(_function("exp", a.real))
    return _multiply(size, Columns(_function("cos", a.imaginary), _function("sin", a.imaginary)))


def _sine(a: Columns) -> Columns:
    sine, cosine = _function("sin", a.real), _function("cos", a.real)
    return Columns(
        enclosure.multiply(sine, _function("cosh", a.imaginary)),
        enclosure.multiply(cosine, _function("sinh", a.imaginary)),
    )


def _cosine(a: Columns) -> Columns:
    sine, cosine = _function("sin", a.real), _function("cos", a.real)
    return Columns(
        enclosure.multiply(cosine, _function("cosh", a.imaginary)),
        enclosure.negative(enclosure.multiply(sine, _function("sinh", a.imaginary))),
    )


def _number(value: Fraction) -> Columns:
    return Columns(_REALS.number(value))


#: Each value is many numbers, or one.
COMPLEX_COLUMNS = TableBackend[Columns](
    _number,
    {
        Op.ADD: _add,
        Op.SUBTRACT: _subtract,
        Op.NEGATIVE: _negative,
        Op.MULTIPLY: _multiply,
        Op.DIVIDE: _divide,
        Op.INTEGER_POWER: _power,
        Op.POWER: _general_power,
        "exp": _exponential,
        "ln": _logarithm,
        "sqrt": _root,
        "arg": lambda a: Columns(_argument(a)),
        "sin": _sine,
        "cos": _cosine,
        "re": lambda a: Columns(a.real),
        "im": lambda a: Columns(a.imaginary),
        "conj": _conjugate,
        "abs": lambda a: Columns(_function("sqrt", _squared_size(a))),
    },
    {IMAGINARY: Columns(_ZERO, _ONE)}
    | {name: Columns(_REALS.constant(name)) for name in CONSTANTS},
)
