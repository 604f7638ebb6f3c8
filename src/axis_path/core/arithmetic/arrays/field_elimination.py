"""Functions of small matrices by their reduced forms, in any arithmetic."""

from __future__ import annotations

from typing import TypeVar

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.arrays.array import Array, matrix, need_matrix
from axis_path.core.arithmetic.arrays.combine import inverse_by_minors, transposed
from axis_path.core.arithmetic.arrays.echelon import (
    DecidingField,
    Form,
    augmented,
    null_vectors,
    read_solution,
    reduce_rows,
)
from axis_path.core.errors import ListError, NotHandledError

E = TypeVar("E")
#: Entries are expressions that grow with each step.
MOST_SIDE = 4


def _reduced(a: Array[E], field: DecidingField[E], what: str) -> Form[E]:
    need_matrix(a, what)
    if min(a.shape) > MOST_SIDE:
        raise NotHandledError(messages.MATRIX_TOO_LARGE_REDUCED)
    return reduce_rows(a, field)


def rank(field: DecidingField[E], a: Array[E]) -> E:
    """Return the rank."""
    return field.number(len(_reduced(a, field, messages.RANK).pivots))


def reduced_form(field: DecidingField[E], a: Array[E]) -> Array[E]:
    """Return the reduced row echelon form as a matrix."""
    return matrix(_reduced(a, field, messages.REDUCED_FORM).rows)


def null_space(field: DecidingField[E], a: Array[E]) -> Array[E]:
    """Return a basis of the null space as the columns of a matrix; one column of 0 if it is {0}."""
    form = _reduced(a, field, messages.NULL_SPACE)
    return transposed(matrix(null_vectors(form, a.column_count, field)))


def inverse(field: DecidingField[E], a: Array[E], determinant: E) -> Array[E]:
    """Return the inverse of a square matrix whose determinant is known.

    Raises:
        ListError: the determinant is 0.
    """
    if field.is_zero(determinant):
        raise ListError(messages.MATRIX_HAS_NO_INVERSE_DETERMINANT)
    return inverse_by_minors(a, field)


def solution(field: DecidingField[E], a: Array[E], b: Array[E]) -> Array[E]:
    """Return the only x with A x = b.

    Raises:
        ShapeError: the shapes do not fit. ListError: there is none, or more than one.
    """
    form = _reduced(augmented(a, b), field, messages.SYSTEM_EQUATIONS)
    return read_solution(form, a.column_count, is_list=not b.is_matrix)
