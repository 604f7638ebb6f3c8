"""Functions of lists and matrices with many entries, in floats with error bounds.

Each serves the function of the catalogue of the same name. ``bounded_form`` decides which arrays
are computed so.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.arrays.array import (
    Array,
    check_size,
    need_list,
    need_matrix,
    need_square,
)
from axis_path.core.arithmetic.arrays.flint_matrices import Matrices, need_values
from axis_path.core.arithmetic.arrays.ordering import need_reals
from axis_path.core.arithmetic.arrays.scalars import SCALARS
from axis_path.core.arithmetic.bounded import operations, totals
from axis_path.core.arithmetic.bounded.entries import from_common
from axis_path.core.arithmetic.bounded.linear import NotProvedError
from axis_path.core.arithmetic.bounded.pairs import Entries, from_scalars
from axis_path.core.arithmetic.complex_ball import Scalar
from axis_path.core.errors import LimitError, ListError, ShapeError
from axis_path.core.limits import BALL_ENTRIES


def is_many(shape: tuple[int, ...]) -> bool:
    """Check whether a list or a matrix of a shape is computed in floats."""
    return math.prod(shape) > BALL_ENTRIES.value


def of_bounded(shape: tuple[int, ...], entries: Entries) -> Matrices:
    """Return bounded entries as a list or a matrix."""
    made: Any = entries
    return Array(shape, made)


def bounded_form(a: Matrices) -> Entries:
    """Return the entries of a list or a matrix as floats with error bounds.

    Raises:
        ListError: an entry has no value. LimitError: one is too large for a float.
    """
    if a.bounded is not None:
        return a.bounded
    need_values(a)
    made = from_scalars(a.entries)
    if made is None:
        raise LimitError(messages.MORE_THAN_MOST_ENTRIES(most=BALL_ENTRIES.value))
    return made


def _too_large(made: Entries | None) -> Entries:
    if made is None:
        raise ListError(messages.ENTRY_RESULT_TOO_LARGE)
    return made


def product(a: Matrices, b: Matrices) -> Matrices:
    """Return a matrix product; a list on the right is a column. The shapes fit."""
    rows, columns = a.row_count, b.column_count
    shape = (rows, a.column_count, columns)
    made = _too_large(operations.product(bounded_form(a), bounded_form(b), shape))
    return of_bounded((rows, columns) if b.is_matrix else (rows,), made)


def identity(size: int) -> Matrices:
    """Return the identity matrix."""
    check_size(size, size)
    return of_bounded((size, size), from_common(np.eye(size, dtype=np.int64).ravel()))


def inverse(a: Matrices) -> tuple[Matrices, float]:
    """Return the inverse of a square matrix and its condition number.

    Raises:
        ListError: it could not be proved that there is one.
    """
    try:
        made, condition = operations.inverse(bounded_form(a), a.shape[0])
    except NotProvedError:
        raise ListError(messages.INVERSE_UNDECIDED(array=a.words)) from None
    return of_bounded(a.shape, made), condition


def solution(a: Matrices, b: Matrices) -> Matrices:
    """Return the only x with A x = b for a square matrix A.

    Raises:
        ShapeError: the shapes do not fit. ListError: it could not be proved that there is one.
    """
    need_matrix(a, messages.SYSTEM_EQUATIONS)
    need_square(a, messages.SYSTEM_SO_MANY_ENTRIES)
    if a.row_count != b.row_count:
        raise ShapeError(messages.FIRST_SECOND_DO_NOT(first=a.words.capitalize(), second=b.words))
    entries = bounded_form(a), bounded_form(b)
    try:
        made = operations.solution(*entries, a.shape[0], b.column_count)
    except NotProvedError:
        raise ListError(messages.INVERSE_UNDECIDED(array=a.words)) from None
    return of_bounded(b.shape, made)


def determinant(a: Matrices) -> Scalar:
    """Return the determinant of a square matrix.

    Raises:
        ListError: it could not be distinguished from 0.
    """
    need_square(a, messages.DETERMINANT)
    try:
        return operations.determinant(bounded_form(a), a.shape[0])
    except NotProvedError:
        raise ListError(messages.INVERSE_UNDECIDED(array=a.words)) from None


def total(a: Matrices) -> Scalar:
    """Return the sum of all entries."""
    return operations.total(bounded_form(a))


def mean(a: Matrices) -> Scalar:
    """Return the mean of all entries."""
    return operations.mean(bounded_form(a))


def variance(a: Matrices, *words: str) -> Scalar:
    """Return the mean square distance from the mean; of a sample divided by n - 1."""
    entries = bounded_form(a)
    count = len(entries) - (not words)
    return SCALARS.divide(operations.squares(operations.from_mean(entries)), SCALARS.number(count))


def standard_deviation(a: Matrices, *words: str) -> Scalar:
    """Return the root of the variance."""
    return SCALARS.square_root(variance(a, *words))


def norm(a: Matrices) -> Scalar:
    """Return the root of the sum of all squares."""
    entries = bounded_form(a)
    return SCALARS.square_root(operations.squares(entries))


def dot(a: Matrices, b: Matrices) -> Scalar:
    """Return the dot product of two lists.

    Raises:
        ShapeError: they are not lists of one length.
    """
    _need_pair(a, b, messages.DOT_PRODUCT)
    return operations.inner(bounded_form(a), bounded_form(b))


def correlation(a: Matrices, b: Matrices) -> Scalar:
    """Return the correlation coefficient of two lists (Pearson).

    Raises:
        ShapeError: they are not lists of one length.
    """
    _need_pair(a, b, messages.CORRELATION)
    one, other = (operations.from_mean(bounded_form(part)) for part in (a, b))
    sizes = SCALARS.multiply(operations.squares(one), operations.squares(other))
    return SCALARS.divide(operations.inner(one, other), SCALARS.square_root(sizes))


def _need_pair(a: Matrices, b: Matrices, what: str) -> None:
    if a.is_matrix or b.is_matrix or a.shape != b.shape:
        raise ShapeError(messages.WHAT_NEEDS_TWO_LISTS(what=what, first=a.words, second=b.words))


def hadamard(a: Matrices, b: Matrices) -> Matrices:
    """Return the product entry by entry.

    Raises:
        ShapeError: the shapes differ.
    """
    if a.shape != b.shape:
        raise ShapeError(messages.PRODUCT_ENTRY_BY_ENTRY(first=a.words, second=b.words))
    made = operations.multiply(bounded_form(a), bounded_form(b))
    return of_bounded(a.shape, _too_large(made))


def _of_list(compute: Callable[[Entries], Entries]) -> Callable[[Matrices], Matrices]:
    """Return a function that makes a list of a list."""

    def apply(a: Matrices) -> Matrices:
        need_list(a, "This")
        made = compute(bounded_form(a))
        return of_bounded((len(made),), made)

    return apply


cumulative = _of_list(operations.running)
differences = _of_list(operations.differences)


def least(a: Matrices) -> Scalar:
    """Return the least entry."""
    return totals.extreme(need_reals(bounded_form(a), messages.MINIMUM), -1)


def greatest(a: Matrices) -> Scalar:
    """Return the greatest entry."""
    return totals.extreme(need_reals(bounded_form(a), messages.MAXIMUM), 1)
