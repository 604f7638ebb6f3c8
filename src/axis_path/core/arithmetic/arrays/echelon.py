"""The reduced row echelon form, in any arithmetic that can tell whether a number is 0."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Generic, Protocol, TypeVar

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.arrays.array import Array, Field, matrix, need_matrix, vector
from axis_path.core.deadline import check
from axis_path.core.errors import ListError, NotHandledError, ShapeError

E = TypeVar("E")


class UndecidedError(Exception):
    """More digits are needed to tell whether a number is 0."""


class DecidingField(Field[E], Protocol[E]):
    """An arithmetic of entries that can tell which of them are 0."""

    def is_zero(self, a: E) -> bool:
        """Check whether a number is 0.

        Raises:
            UndecidedError, NotHandledError: that cannot be decided here.
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
        UndecidedError, NotHandledError: it cannot be decided whether a number is 0.
    """
    rows = [list(row) for row in a.rows()]
    pivots: list[int] = []
    for column in range(a.column_count):
        at = len(pivots)
        pivot = _pivot_row(rows, at, column, field)
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


def _pivot_row(rows: list[list[E]], first: int, column: int, field: DecidingField[E]) -> int | None:
    """Return a row whose entry is surely not 0; None if all are 0.

    Raises:
        UndecidedError, NotHandledError: one may be 0 or not, and no other is surely not.
    """
    undecided: Exception | None = None
    for row in range(first, len(rows)):
        try:
            if not field.is_zero(rows[row][column]):
                return row
        except (UndecidedError, NotHandledError) as err:
            undecided = err
    if undecided is not None:
        raise undecided
    return None


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


def null_vectors(form: Form[E], count: int, field: DecidingField[E]) -> list[list[E]]:
    """Return a basis of the null space of a matrix; one vector of 0 if it is {0}.

    Args:
        form: of the matrix.
        count: how many columns it has.
        field: the arithmetic.
    """
    basis = []
    for free in (column for column in range(count) if column not in form.pivots):
        entries = [field.number(0)] * count
        entries[free] = field.number(1)
        for row, column in enumerate(form.pivots):
            entries[column] = field.negative(form.rows[row][free])
        basis.append(entries)
    return basis or [[field.number(0)] * count]


def augmented(a: Array[E], b: Array[E]) -> Array[E]:
    """Return the augmented matrix of the system A x = b.

    Raises:
        ShapeError: the shapes do not fit.
    """
    need_matrix(a, messages.SYSTEM_EQUATIONS)
    if a.row_count != b.row_count:
        raise ShapeError(messages.FIRST_SECOND_DO_NOT(first=a.words.capitalize(), second=b.words))
    return matrix([[*one, *other] for one, other in zip(a.rows(), b.rows(), strict=True)])


def read_solution(form: Form[E], width: int, *, is_list: bool) -> Array[E]:
    """Return the only solution of a system from the form of its augmented matrix.

    Args:
        form: of the augmented matrix.
        width: how many unknowns there are.
        is_list: whether the right side was a list.

    Raises:
        ListError: there is none, or more than one.
    """
    if any(pivot >= width for pivot in form.pivots):
        raise ListError(messages.SYSTEM_HAS_NO_SOLUTION)
    if len(form.pivots) < width:
        free = width - len(form.pivots)
        raise ListError(messages.FREE_UNKNOWNS(count=free))
    parts = [row[width:] for row in form.rows[:width]]
    return vector([part[0] for part in parts]) if is_list else matrix(parts)
