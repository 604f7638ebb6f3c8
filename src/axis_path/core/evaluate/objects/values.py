"""What an expression may be: a number, a point, a list or a matrix, or true or false."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from axis_path.core.arithmetic.arrays.array import Array

E = TypeVar("E")


@dataclass(frozen=True, slots=True)
class Coordinates(Generic[E]):
    """A point of the plane."""

    first: E
    second: E

    def map(self, function: Callable[[E], E]) -> Coordinates[E]:
        """Return the point with a function applied to both coordinates."""
        return Coordinates(function(self.first), function(self.second))


#: A value: an entry of an arithmetic, a point, an array of entries or of points, true or false.
Value = Any


def words(value: Value) -> str:
    """Describe a value with its shape."""
    if isinstance(value, Array):
        return value.words
    if isinstance(value, Coordinates):
        return "a point"
    return "a statement" if isinstance(value, bool) else "a number"
