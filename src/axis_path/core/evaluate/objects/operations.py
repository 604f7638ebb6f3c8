"""The two-sided operations between numbers, points, lists and matrices."""

from __future__ import annotations

from typing import Any, TypeVar

from axis_path.core.arithmetic.arrays import combine
from axis_path.core.arithmetic.arrays.array import Array
from axis_path.core.errors import ListError, ShapeError
from axis_path.core.evaluate.objects.algebra import Algebra
from axis_path.core.evaluate.objects.values import Coordinates, Value, words
from axis_path.core.language.tree import Operator

E = TypeVar("E")
_WORDS = {
    Operator.ADD: "A sum", Operator.SUBTRACT: "A difference", Operator.MULTIPLY: "A product",
    Operator.DIVIDE: "A quotient", Operator.POWER: "A power",
    Operator.ENTRYWISE: "The product entry by entry",
}  # fmt: skip


def operate(operator: Operator, a: Value, b: Value, algebra: Algebra[E]) -> Value:
    """Return an operation on two values.

    Raises:
        ShapeError: it has no meaning between them; both shapes are named.
    """
    if isinstance(a, Array) or isinstance(b, Array):
        large = algebra.large
        at_once = large and large.operated(operator, a, b)
        if at_once is not None:
            return at_once
    if isinstance(a, Array) and isinstance(b, Array):
        return _between(operator, a, b, algebra)
    if isinstance(a, Array):
        return _by_number(operator, a, b, algebra)
    if isinstance(b, Array):
        return _of_number(operator, a, b, algebra)
    if operator is Operator.ENTRYWISE:
        operator = Operator.MULTIPLY
    if isinstance(a, Coordinates) or isinstance(b, Coordinates):
        return _with_point(operator, a, b, algebra)
    _need_numbers(operator, a, b)
    return algebra.operated(operator, a, b)


def _need_numbers(operator: Operator, *values: Value) -> None:
    if any(isinstance(value, bool) for value in values):
        raise ShapeError(f"`{operator.value}` has no meaning for a statement.")


def _between(operator: Operator, a: Array[Any], b: Array[Any], algebra: Algebra[Any]) -> Value:
    def entries(one: Any, other: Any) -> Any:  # noqa: ANN401
        return operate(operator, one, other, algebra)

    if operator is Operator.ENTRYWISE or not (a.is_matrix or b.is_matrix):
        return combine.entry_by_entry(entries, a, b, _WORDS[operator])
    match operator:
        case Operator.ADD | Operator.SUBTRACT:
            return combine.entry_by_entry(entries, a, b, _WORDS[operator])
        case Operator.MULTIPLY:
            return algebra.product(a, b)
        case Operator.DIVIDE:
            raise ShapeError(
                f"{a.words.capitalize()} is not divided by {b.words}; multiply by the inverse, "
                "as in `A B^-1`."
            )
        case _:
            raise ShapeError(f"{a.words.capitalize()} has no power of {b.words}.")


def _by_number(operator: Operator, a: Array[Any], b: Value, algebra: Algebra[Any]) -> Value:
    """Return a list or a matrix with a number, or a list with a point."""
    _need_numbers(operator, b)
    if not a.is_matrix:
        return a.map(lambda entry: operate(operator, entry, b, algebra))
    if isinstance(b, Coordinates):
        raise _no_meaning(operator, a, b)
    match operator:
        case Operator.MULTIPLY | Operator.DIVIDE | Operator.ENTRYWISE:
            return a.map(lambda entry: operate(operator, entry, b, algebra))
        case Operator.POWER:
            try:
                exponent = algebra.whole(b)
            except ListError:
                raise ListError("The exponent of a matrix is a whole number.") from None
            return matrix_power(a, exponent, algebra)
        case _:
            raise _no_meaning(operator, a, b)


def matrix_power(a: Array[Any], exponent: int, algebra: Algebra[Any]) -> Array[Any]:
    """Return a whole power of a square matrix; below 0 that of its inverse."""
    base = algebra.inverse(a) if exponent < 0 else a
    return combine.power(base, abs(exponent), algebra.product, algebra.field)


def _of_number(operator: Operator, a: Value, b: Array[Any], algebra: Algebra[Any]) -> Value:
    _need_numbers(operator, a)
    if not b.is_matrix or operator in (Operator.MULTIPLY, Operator.ENTRYWISE):
        return b.map(lambda entry: operate(operator, a, entry, algebra))
    if operator is Operator.DIVIDE:
        raise ShapeError(f"A number is not divided by {b.words}; the inverse is written `A^-1`.")
    raise _no_meaning(operator, a, b)


def _no_meaning(operator: Operator, a: Value, b: Value) -> ShapeError:
    hint = ""
    if operator in (Operator.ADD, Operator.SUBTRACT):
        hint = " A multiple of the identity matrix is written `3 identity(2)`."
    return ShapeError(f"`{operator.value}` has no meaning between {words(a)} and {words(b)}.{hint}")


def _with_point(operator: Operator, a: Value, b: Value, algebra: Algebra[Any]) -> Value:
    if isinstance(a, Coordinates) and isinstance(b, Coordinates):
        if operator in (Operator.ADD, Operator.SUBTRACT):
            return Coordinates(
                algebra.operated(operator, a.first, b.first),
                algebra.operated(operator, a.second, b.second),
            )
    elif isinstance(b, Coordinates) and operator is Operator.MULTIPLY:
        return b.map(lambda part: algebra.operated(operator, a, part))
    elif isinstance(a, Coordinates) and operator in (Operator.MULTIPLY, Operator.DIVIDE):
        return a.map(lambda part: algebra.operated(operator, part, b))
    raise ShapeError(f"`{operator.value}` has no meaning between {words(a)} and {words(b)}.")


def need_number(value: Value, what: str = "A number is wanted here") -> Any:  # noqa: ANN401
    """Return a value that is a number.

    Raises:
        ShapeError: it is something else.
    """
    if isinstance(value, Array | Coordinates | bool):
        raise ShapeError(f"{what}; this is {words(value)}.")
    return value


def need_index(value: Value, algebra: Algebra[Any]) -> int:
    """Return a value that is a whole number.

    Raises:
        ShapeError, ListError: it is something else.
    """
    return algebra.whole(need_number(value, "An index is a whole number"))


def need_count(value: Value, algebra: Algebra[Any], what: str) -> int:
    """Return a whole number of at least 1.

    Raises:
        ShapeError, ListError: it is something else.
    """
    count = need_index(value, algebra)
    if count < 1:
        raise ListError(f"{what} is a whole number of at least 1.")
    return count
