"""What functions of lists and matrices need of their arguments."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from axis_path.core.arithmetic.arrays.array import Array
from axis_path.core.catalogue import FunctionEntry
from axis_path.core.errors import ListError, ShapeError
from axis_path.core.evaluate.objects.values import Coordinates, Value, words

_WORDS = {
    "list": "a list of numbers", "matrix": "a matrix", "array": "a list or a matrix",
    "any list": "a list", "any array": "a list or a matrix", "number": "a number",
    "count": "a whole number",
}  # fmt: skip


def check_needs(entry: FunctionEntry, arguments: Sequence[Value], algebra: Any) -> list[Value]:  # noqa: ANN401
    """Return the arguments of a function as it needs them; counts as whole numbers of Python.

    Raises:
        ShapeError: one of them is something else; both are named. ListError: a count is below 1.
    """
    arrays = entry.arrays
    if arrays is None:
        raise TypeError(f"{entry.name} takes no lists")
    checked: list[Value] = []
    for position, argument in enumerate(arguments):
        need = arrays.needs[min(position, len(arrays.needs) - 1)]
        if not _fits(need, argument):
            raise ShapeError(f"`{entry.name}` needs {_WORDS[need]}; this is {_shown(argument)}.")
        if need == "count":
            count = algebra.whole(argument)
            if count < 1:
                raise ListError(f"`{entry.name}` needs a whole number of at least 1.")
            argument = count
        checked.append(argument)
    return checked


def _fits(need: str, value: Value) -> bool:
    is_array = isinstance(value, Array)
    match need:
        case "number" | "count":
            return not isinstance(value, Array | Coordinates | bool)
        case "matrix":
            return is_array and value.is_matrix
        case "list":
            return is_array and not value.is_matrix and not _has_points(value)
        case "any list":
            return is_array and not value.is_matrix
        case "array":
            return is_array and not _has_points(value)
        case _:
            return is_array


def _has_points(value: Array[Any]) -> bool:
    # A list holds points only, or none.
    return isinstance(value.entries[0], Coordinates)


def _shown(value: Value) -> str:
    if isinstance(value, Array) and _has_points(value):
        return f"a list of {len(value.entries):,} points"
    return words(value)
