"""Reduced forms in any arithmetic that can tell whether a number is 0; for small matrices."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Generic, Protocol, TypeVar

from axis_path.core.arithmetic.arrays.array import (
    Array,
    Field,
    matrix,
    need_matrix,
    vector,
)
from axis_path.core.arithmetic.arrays.combine import inverse_by_minors, transposed
from axis_path.core.deadline import check
from axis_path.core.errors import ListError, NotHandledError, ShapeError

E = TypeVar("E")
#: Entries are expressions that grow with each step.
MOST_SIDE = 4


class DecidingField(Field[E], Protocol[E]):
    """An arithmetic of entries that can tell which of them are 0."""

    def is_zero(self, a: E) -> bool:
        """Check whether a number is 0.

        Raises:
            NotHandledError: that cannot be decided here.
        """


@dataclass(frozen=True, slots=True)
class Form(Generic[E]):
    """A reduced row echelon form.

    Attributes:
        rows: the rows.
        pivots: the columns of the pivots, from 0.
    """

    rows: list[list[E]]
    pivots: list[int]


def reduce_rows(a: Array[E], field: DecidingField[E]) -> Form[E]:
    """Return the reduced row echelon form.

    Raises:
        NotHandledError: the matrix is too large, or it cannot be decided whether a number is 0.
    """
    if min(a.shape) > MOST_SIDE:
        raise NotHandledError("This matrix is too large to be reduced by its expressions.")
    rows = [list(row) for row in a.rows()]
    pivots: list[int] = []
    for column in range(a.column_count):
        at = len(pivots)
        pivot = next((r for r in range(at, len(rows)) if not field.is_zero(rows[r][column])), None)
        if pivot is None:
            for row in rows[at:]:
                row[column] = field.number(0)
            continue
        rows[at], rows[pivot] = rows[pivot], rows[at]
        head = rows[at][column]
        rows[at] = [field.divide(entry, head) for entry in rows[at]]
        rows[at][column] = field.number(1)
        for r, row in enumerate(rows):
            if r != at:
                rows[r] = _less(row, rows[at], column, field)
        pivots.append(column)
    return Form(rows, pivots)


def _less(row: list[E], pivot: list[E], column: int, field: DecidingField[E]) -> list[E]:
    """Return a row less a multiple of the pivot's row, so that one entry is 0."""
    check()
    factor = row[column]
    changed = [
        field.subtract(entry, field.multiply(factor, other))
        for entry, other in zip(row, pivot, strict=True)
    ]
    changed[column] = field.number(0)
    return changed


def rank(field: DecidingField[E], a: Array[E]) -> E:
    """Return the rank."""
    need_matrix(a, "The rank")
    return field.number(len(reduce_rows(a, field).pivots))


def reduced_form(field: DecidingField[E], a: Array[E]) -> Array[E]:
    """Return the reduced row echelon form as a matrix."""
    need_matrix(a, "The reduced form")
    return matrix(reduce_rows(a, field).rows)


def null_space(field: DecidingField[E], a: Array[E]) -> Array[E]:
    """Return a basis of the null space as the columns of a matrix; one column of 0 if it is {0}."""
    need_matrix(a, "The null space")
    form = reduce_rows(a, field)
    basis = []
    for free in (k for k in range(a.column_count) if k not in form.pivots):
        entries = [field.number(0)] * a.column_count
        entries[free] = field.number(1)
        for row, column in enumerate(form.pivots):
            entries[column] = field.negative(form.rows[row][free])
        basis.append(entries)
    return transposed(matrix(basis or [[field.number(0)] * a.column_count]))


def inverse(field: DecidingField[E], a: Array[E], determinant: E) -> Array[E]:
    """Return the inverse of a square matrix whose determinant is known.

    Raises:
        ListError: the determinant is 0.
    """
    if field.is_zero(determinant):
        raise ListError("The matrix has no inverse: the determinant is 0.")
    return inverse_by_minors(a, field)


def solution(field: DecidingField[E], a: Array[E], b: Array[E]) -> Array[E]:
    """Return the only x with A x = b.

    Raises:
        ShapeError: the shapes do not fit. ListError: there is none, or more than one.
    """
    need_matrix(a, "A system of equations")
    if a.row_count != b.row_count:
        raise ShapeError(
            f"{a.words.capitalize()} and {b.words} make no system: both need as many rows."
        )
    width = a.column_count
    joined: list[list[Any]] = [
        [*one, *other] for one, other in zip(a.rows(), b.rows(), strict=True)
    ]
    form = reduce_rows(matrix(joined), field)
    if any(pivot >= width for pivot in form.pivots):
        raise ListError("The system has no solution: its equations contradict one another.")
    if len(form.pivots) < width:
        raise ListError("The system has more than one solution. `rref` shows them all.")
    parts = [row[width:] for row in form.rows[:width]]
    return matrix(parts) if b.is_matrix else vector([part[0] for part in parts])
