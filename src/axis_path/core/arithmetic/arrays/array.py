"""Lists and matrices of anything that can be added and multiplied."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Any, Generic, Protocol, TypeVar, cast

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.bounded.entries import BoundedEntries
from axis_path.core.arithmetic.bounded.pairs import (
    ComplexEntries,
    Entries,
    from_scalars,
    joined_entries,
)
from axis_path.core.arithmetic.complex_ball import ComplexBall
from axis_path.core.errors import LimitError, ListError, ShapeError
from axis_path.core.limits import LIST_LENGTH, MATRIX_SIDE, Limit
from axis_path.core.wording import Text

E = TypeVar("E")
F = TypeVar("F")


@dataclass(frozen=True, slots=True)
class Array(Generic[E]):
    """A list or a matrix.

    Attributes:
        shape: (n,) of a list, (m, n) of a matrix of m rows and n columns; no side is 0.
        entries: all entries, row by row: a tuple, or floats with error bounds if they are many.
    """

    shape: tuple[int, ...]
    entries: Sequence[E]

    @property
    def is_matrix(self) -> bool:
        """Check whether it is a matrix."""
        return len(self.shape) == 2

    @property
    def row_count(self) -> int:
        """Return the number of rows; a list is a column."""
        return self.shape[0]

    @property
    def column_count(self) -> int:
        """Return the number of columns; a list is a column."""
        return self.shape[1] if self.is_matrix else 1

    @property
    def words(self) -> str:
        """Describe it with its shape."""
        return shape_words(self.shape)

    def at(self, row: int, column: int = 0) -> E:
        """Return an entry; rows and columns count from 0."""
        return self.entries[row * self.column_count + column]

    def rows(self) -> list[tuple[E, ...]]:
        """Return the rows."""
        width, entries = self.column_count, tuple(self.entries)
        return [entries[k : k + width] for k in range(0, len(entries), width)]

    def columns(self) -> list[tuple[E, ...]]:
        """Return the columns."""
        return list(zip(*self.rows(), strict=True))

    def map(self, function: Callable[[E], F]) -> Array[F]:
        """Return what a function gives for each entry, in the same shape."""
        return Array(self.shape, tuple(map(function, self.entries)))

    @property
    def bounded(self) -> Entries | None:
        """Return the entries if they are floats with error bounds, else None."""
        entries = self.entries
        return entries if isinstance(entries, BoundedEntries | ComplexEntries) else None

    def taken(self, shape: tuple[int, ...], indices: Sequence[int] | NDArray[np.intp]) -> Array[E]:
        """Return the entries at these indices as a list or a matrix of a shape."""
        if self.bounded is not None:
            taken = self.bounded.take(np.asarray(indices, dtype=np.intp))
            return Array(shape, cast("Any", taken))
        return Array(shape, tuple([self.entries[index] for index in indices]))


class Field(Protocol[E]):
    """An arithmetic of entries."""

    def number(self, value: Fraction | int) -> E:
        """Return an exact number."""

    def add(self, a: E, b: E) -> E:
        """Return a + b."""

    def subtract(self, a: E, b: E) -> E:
        """Return a - b."""

    def multiply(self, a: E, b: E) -> E:
        """Return a b."""

    def divide(self, a: E, b: E) -> E:
        """Return a / b."""

    def negative(self, a: E) -> E:
        """Return -a."""

    def square_root(self, a: E) -> E:
        """Return the square root of a."""

    def squared_size(self, a: E) -> E:
        """Return |a|^2."""


def shape_words(shape: tuple[int, ...]) -> Text:
    """Describe a shape: ``a list of 4``, ``a 2 by 3 matrix``."""
    if len(shape) == 1:
        return messages.LIST_COUNT(count=shape[0])
    text = messages.MATRIX_SHAPE_AN if str(shape[0])[0] == "8" else messages.MATRIX_SHAPE
    return text(rows=shape[0], columns=shape[1])


def check_size(*shape: int) -> None:
    """Refuse what is too large.

    Raises:
        LimitError: a list or a matrix cannot have so many entries.
    """
    if len(shape) == 1 and shape[0] > LIST_LENGTH.value:
        raise LimitError(messages.LIST_COUNT_ELEMENTS_TOO(count=shape[0], most=LIST_LENGTH.value))
    if len(shape) == 2 and max(shape) > MATRIX_SIDE.value:
        raise LimitError(
            messages.WHAT_TOO_LARGE_LIMIT(
                what=shape_words(shape).capitalize(),
                most=MATRIX_SIDE.value,
                most_columns=MATRIX_SIDE.value,
            )
        )


def check_work(a: Array[E], what: str, most: Limit) -> None:
    """Refuse a matrix that would take too long.

    Raises:
        LimitError: it has more rows or columns than that.
    """
    if max(a.shape) > most.value:
        raise LimitError(
            messages.WHAT_ARRAY_WOULD_TAKE(
                what=what, array=a.words, most=most.value, most_columns=most.value
            )
        )


def vector(entries: Sequence[E]) -> Array[E]:
    """Make a list.

    Raises:
        ShapeError: it is empty. LimitError: it is too long.
    """
    check_size(len(entries))
    if not entries:
        raise ShapeError(messages.LIST_NEEDS_AT_LEAST)
    if isinstance(entries, BoundedEntries | ComplexEntries):
        return Array((len(entries),), cast("Any", entries))
    return Array((len(entries),), tuple(entries))


def one_after_the_other(a: Array[E], b: Array[E]) -> Array[E]:
    """Return a list of all entries of both."""
    count = len(a.entries) + len(b.entries)
    if a.bounded is None and b.bounded is None:
        return Array((count,), (*a.entries, *b.entries))
    parts = [_bounded(part) for part in (a, b)]
    known = [part for part in parts if part is not None]
    if len(known) < len(parts):
        return Array((count,), (*a.entries, *b.entries))
    return Array((count,), cast("Any", joined_entries(known)))


def _bounded(a: Array[Any]) -> Entries | None:
    if a.bounded is not None:
        return a.bounded
    known = [
        entry for entry in a.entries if isinstance(entry, Ball | ComplexBall) and entry.is_defined
    ]
    return from_scalars(known) if len(known) == len(a.entries) else None


def matrix(rows: Sequence[Sequence[E]]) -> Array[E]:
    """Make a matrix of its rows.

    Raises:
        ShapeError: it is empty, or the rows have different lengths. LimitError: it is too large.
    """
    lengths = [len(row) for row in rows]
    if not lengths or not lengths[0]:
        raise ShapeError(messages.MATRIX_NEEDS_AT_LEAST)
    for number, length in enumerate(lengths, 1):
        if length != lengths[0]:
            raise ShapeError(
                messages.ROWS_MATRIX_MUST_HAVE(
                    first=_entries(lengths[0]), number=number, other=_entries(length)
                )
            )
    check_size(len(rows), lengths[0])
    return Array((len(rows), lengths[0]), tuple(entry for row in rows for entry in row))


def _entries(count: int) -> Text:
    return messages.ENTRIES(count=count)


def check_same_length(counts: Iterable[int]) -> int:
    """Return the length that lists share.

    Raises:
        ListError: they have different lengths.
    """
    lengths = sorted(set(counts))
    if len(lengths) > 1:
        raise ListError(messages.LISTS_COMPUTED_TOGETHER_MUST(first=lengths[0], last=lengths[-1]))
    return lengths[0]


def need_square(a: Array[E], what: str) -> None:
    """Refuse a matrix that is not square, and a list.

    Raises:
        ShapeError: it is none.
    """
    if not a.is_matrix or a.shape[0] != a.shape[1]:
        raise ShapeError(messages.WHAT_NEEDS_SQUARE_MATRIX(what=what, array=a.words))


def need_matrix(a: Array[E], what: str) -> None:
    """Refuse a list.

    Raises:
        ShapeError: it is one.
    """
    if not a.is_matrix:
        raise ShapeError(messages.WHAT_NEEDS_MATRIX_BUT(what=what, array=a.words))


def need_list(a: Array[E], what: str) -> None:
    """Refuse a matrix.

    Raises:
        ShapeError: it is one.
    """
    if a.is_matrix:
        raise ShapeError(messages.WHAT_NEEDS_LIST_BUT(what=what, array=a.words))
