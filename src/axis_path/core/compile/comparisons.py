"""Whether a statement such as ``A B = B A`` holds, decided and not guessed."""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise

import numpy as np

from axis_path.core.arithmetic import precision
from axis_path.core.errors import ShapeError
from axis_path.core.evaluate import Result, ResultKind
from axis_path.core.evaluate.result import make_truth, no_truth
from axis_path.core.language.parsing.body import Condition
from axis_path.core.language.tree import Binary, Node, Operator

#: With so many binary digits two numbers are told apart.
_BITS = 512
_ARRAYS = (ResultKind.LIST, ResultKind.MATRIX)
Compute = Callable[[Node], Result]


def decide(condition: Condition, compute: Compute) -> Result:
    """Return whether a comparison holds; without a value if that could not be decided.

    Args:
        condition: the terms and the signs between them.
        compute: computes an expression.

    Raises:
        MathError: a term has no value, or what is compared has no order.
    """
    answers = [
        _holds(left, sign, right, compute)
        for (left, right), sign in zip(pairwise(condition.terms), condition.signs, strict=True)
    ]
    if False in answers:
        return make_truth(False)
    return no_truth() if None in answers else make_truth(True)


def _holds(left: Node, sign: str, right: Node, compute: Compute) -> bool | None:
    one, other = compute(left), compute(right)
    for result in (one, other):
        if result.reason:
            raise ShapeError(f"One side has no value: {result.reason}.")
    is_array = [result.kind in _ARRAYS for result in (one, other)]
    if any(is_array) or ResultKind.POINT in (one.kind, other.kind):
        if sign not in ("=", "!="):
            raise ShapeError("Lists, matrices and points are compared with = and ≠ only.")
        is_equal = _are_equal(one, other, left, right, compute)
    else:
        if sign not in ("=", "!="):
            return _in_order(Binary(Operator.SUBTRACT, left, right), sign, compute)
        is_equal = _is_zero(compute(Binary(Operator.SUBTRACT, left, right)))
    if is_equal is None:
        return None
    return is_equal is (sign == "=")


def _are_equal(
    one: Result, other: Result, left: Node, right: Node, compute: Compute
) -> bool | None:
    if one.kind is not other.kind or np.shape(one.value) != np.shape(other.value):
        return False
    answers = [_is_zero(part) for part in compute(Binary(Operator.SUBTRACT, left, right)).parts]
    if False in answers:
        return False
    return None if None in answers else True


def _is_zero(result: Result) -> bool | None:
    """Check whether a number is 0: by its bounds, by its exact form, or not at all."""
    if result.kind is ResultKind.COMPLEX:
        answers = [_is_zero(part) for part in result.parts]
        return False if False in answers else None if None in answers else True
    sign = _sign(result)
    return None if sign is None else sign == 0


def _sign(result: Result) -> int | None:
    if result.rational is not None:
        return (result.rational > 0) - (result.rational < 0)
    if result.at_bits is None:
        return None
    with precision(_BITS):
        sign = result.at_bits(_BITS).sign()
    if sign is None and result.exact == "0":
        return 0
    return sign


def _in_order(difference: Node, sign: str, compute: Compute) -> bool | None:
    result = compute(difference)
    if result.kind is ResultKind.COMPLEX:
        raise ShapeError("Complex numbers have no order.")
    found = _sign(result)
    if found is None:
        return None
    return {"<": found < 0, "<=": found <= 0, ">": found > 0, ">=": found >= 0}[sign]
