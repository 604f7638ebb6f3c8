"""Many fractions at once, computed without rounding as long as they fit into 64 bits."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction

import numpy as np

from axis_path.core.arithmetic.bounded import entrywise
from axis_path.core.arithmetic.bounded.entries import (
    MOST_EXACT,
    BoundedEntries,
    Common,
    from_common,
)
from axis_path.core.evaluate.backends.table import NotExactError, TableBackend
from axis_path.core.evaluate.graph.graph import Op

_MOST_EXPONENT = 64


def _exact(made: BoundedEntries | None) -> BoundedEntries:
    if made is None or made.exact is None:
        raise NotExactError
    return made


def _known(a: BoundedEntries) -> Common:
    if a.exact is None:
        raise NotExactError
    return a.exact


def _power(a: BoundedEntries, exponent: object) -> BoundedEntries:
    if not isinstance(exponent, int) or not 0 <= exponent <= _MOST_EXPONENT:
        raise NotExactError
    made = from_common(np.ones(1, dtype=np.int64))
    for _ in range(exponent):
        made = _exact(entrywise.multiply(made, a))
    return made


def _floor(a: BoundedEntries) -> BoundedEntries:
    exact = _known(a)
    return from_common(exact.numerators // exact.denominator)


def _absolute(a: BoundedEntries) -> BoundedEntries:
    exact = _known(a)
    return from_common(np.abs(exact.numerators), exact.denominator)


_OPERATIONS: dict[str, Callable[..., BoundedEntries]] = {
    Op.ADD: lambda a, b: _exact(entrywise.add(a, b)),
    Op.SUBTRACT: lambda a, b: _exact(entrywise.subtract(a, b)),
    Op.MULTIPLY: lambda a, b: _exact(entrywise.multiply(a, b)),
    Op.DIVIDE: lambda a, b: _exact(entrywise.divide(a, b)),
    Op.NEGATIVE: entrywise.negative,
    Op.INTEGER_POWER: _power,
    "floor": _floor,
    "abs": _absolute,
}


def _number(value: Fraction) -> BoundedEntries:
    if abs(value.numerator) >= MOST_EXACT or value.denominator >= MOST_EXACT:
        raise NotExactError
    return from_common(np.array([value.numerator], dtype=np.int64), value.denominator)


#: Each value is many fractions, or one.
EXACT_COLUMNS = TableBackend(_number, _OPERATIONS, {})
