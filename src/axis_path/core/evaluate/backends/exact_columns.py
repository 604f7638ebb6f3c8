"""Many fractions at once, or complex numbers of them, as long as they fit into 64 bits."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction
from math import lcm

import numpy as np

from axis_path.core.arithmetic.bounded import operations
from axis_path.core.arithmetic.bounded.entries import (
    MOST_EXACT,
    BoundedEntries,
    Common,
    Whole,
    from_common,
)
from axis_path.core.arithmetic.bounded.pairs import ComplexEntries, Entries, parts
from axis_path.core.evaluate.backends.table import NotExactError, TableBackend
from axis_path.core.evaluate.graph.graph import IMAGINARY, Op

_MOST_EXPONENT = 64


def _exact(made: Entries | None) -> Entries:
    if made is None or any(part.exact is None for part in parts(made)):
        raise NotExactError
    return made


def _known(a: Entries) -> Common:
    if isinstance(a, ComplexEntries) or a.exact is None:
        raise NotExactError
    return a.exact


def _power(a: Entries, exponent: object) -> Entries:
    if not isinstance(exponent, int) or not 0 <= exponent <= _MOST_EXPONENT:
        raise NotExactError
    made: Entries = from_common(np.ones(1, dtype=np.int64))
    for _ in range(exponent):
        made = _exact(operations.multiply(made, a))
    return made


def _floor(a: Entries) -> BoundedEntries:
    exact = _known(a)
    return from_common(exact.numerators // exact.denominator)


def _absolute(a: Entries) -> BoundedEntries:
    exact = _known(a)
    return from_common(np.abs(exact.numerators), exact.denominator)


def _sign(a: Entries) -> Entries:
    return from_common(np.sign(_known(a).numerators))


def _extreme(choose: Callable[..., Whole]) -> Callable[[Entries, Entries], Entries]:
    def apply(a: Entries, b: Entries) -> Entries:
        one, other = _known(a), _known(b)
        bottom = lcm(one.denominator, other.denominator)
        scales = bottom // one.denominator, bottom // other.denominator
        if max(bottom, one.size * scales[0], other.size * scales[1]) >= MOST_EXACT:
            raise NotExactError
        tops = choose(one.numerators * scales[0], other.numerators * scales[1])
        return from_common(tops, bottom)

    return apply


_OPERATIONS: dict[str, Callable[..., Entries]] = {
    Op.ADD: lambda a, b: _exact(operations.add(a, b)),
    Op.SUBTRACT: lambda a, b: _exact(operations.subtract(a, b)),
    Op.MULTIPLY: lambda a, b: _exact(operations.multiply(a, b)),
    Op.DIVIDE: lambda a, b: _exact(operations.divide(a, b)),
    Op.NEGATIVE: operations.negative,
    Op.INTEGER_POWER: _power,
    "floor": _floor,
    "abs": _absolute,
    "sign": _sign,
    "max": _extreme(np.maximum),
    "min": _extreme(np.minimum),
    "re": lambda a: parts(a)[0],
    "im": lambda a: parts(a)[1],
    "conj": operations.conjugate,
}


def _number(value: Fraction) -> BoundedEntries:
    if abs(value.numerator) >= MOST_EXACT or value.denominator >= MOST_EXACT:
        raise NotExactError
    return from_common(np.array([value.numerator], dtype=np.int64), value.denominator)


_UNIT = ComplexEntries(
    from_common(np.zeros(1, dtype=np.int64)), from_common(np.ones(1, dtype=np.int64))
)
#: Each value is many fractions, or one.
EXACT_COLUMNS = TableBackend[Entries](_number, _OPERATIONS, {IMAGINARY: _UNIT})
