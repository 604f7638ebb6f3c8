"""Functions of lists and matrices with many entries, in floats with error bounds.

Each serves the function of the catalogue of the same name. ``bounded_form`` decides which arrays
are computed so.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np

from axis_path.core.arithmetic import ball
from axis_path.core.arithmetic.arrays.array import (
    Array,
    check_size,
    need_list,
    need_matrix,
    need_square,
)
from axis_path.core.arithmetic.arrays.flint_matrices import Matrices
from axis_path.core.arithmetic.arrays.scalars import SCALARS
from axis_path.core.arithmetic.ball import Ball, Defined
from axis_path.core.arithmetic.bounded import entrywise, linear, totals
from axis_path.core.arithmetic.bounded.entries import BoundedEntries, from_balls, from_common
from axis_path.core.arithmetic.complex_ball import Scalar
from axis_path.core.errors import LimitError, ListError, ShapeError
from axis_path.core.limits import BALL_ENTRIES, NUMERIC_SIDE

_NO_PROOF = (
    "With the 16 digits of floats it could not be decided whether {} has an inverse: its "
    "determinant is 0, or nearly so."
)


def is_many(shape: tuple[int, ...]) -> bool:
    """Check whether a list or a matrix of a shape is computed in floats."""
    return math.prod(shape) > BALL_ENTRIES.value


def of_bounded(shape: tuple[int, ...], entries: BoundedEntries) -> Matrices:
    """Return bounded entries as a list or a matrix."""
    made: Any = entries
    return Array(shape, made)


def too_many_complex() -> LimitError:
    """Return the error for many entries of which one is complex or has no value."""
    return LimitError(
        "A list or a matrix with complex entries, or entries without a value, has at most "
        f"{BALL_ENTRIES.value:,} of them."
    )


def bounded_form(a: Matrices) -> BoundedEntries:
    """Return the entries of a list or a matrix as floats with error bounds.

    Raises:
        LimitError: an entry is complex or has no value.
    """
    if a.bounded is not None:
        return a.bounded
    reals = [e for e in a.entries if isinstance(e, Ball) and e.defined is Defined.YES]
    made = from_balls(reals) if len(reals) == len(a.entries) else None
    if made is None:
        raise too_many_complex()
    return made


def _too_large(made: BoundedEntries | None) -> BoundedEntries:
    if made is None:
        raise ListError("An entry of the result is too large.")
    return made


def product(a: Matrices, b: Matrices) -> Matrices:
    """Return a matrix product; a list on the right is a column. The shapes fit."""
    rows, columns = a.row_count, b.column_count
    shape = (rows, a.column_count, columns)
    made = _too_large(linear.product(bounded_form(a), bounded_form(b), shape))
    return of_bounded((rows, columns) if b.is_matrix else (rows,), made)


def identity(size: int) -> Matrices:
    """Return the identity matrix."""
    check_size(size, size)
    return of_bounded((size, size), from_common(np.eye(size, dtype=np.int64).ravel()))


def rank(a: Matrices) -> Scalar:
    """Return the rank of a square matrix that is proved to have an inverse.

    Raises:
        LimitError: it is anything else.
    """
    try:
        if a.row_count == a.column_count:
            linear.inverse(bounded_form(a), a.row_count)
            return ball.from_fraction(a.row_count)
    except linear.NotProvedError:
        pass
    raise LimitError(
        f"The rank of {a.words} is found only where the matrix is square and has an inverse; "
        f"else {NUMERIC_SIDE.value:,} by {NUMERIC_SIDE.value:,} is the most."
    )


def inverse(a: Matrices) -> tuple[Matrices, float]:
    """Return the inverse of a square matrix and its condition number.

    Raises:
        ListError: it could not be proved that there is one.
    """
    try:
        made = linear.inverse(bounded_form(a), a.shape[0])
    except linear.NotProvedError:
        raise ListError(_NO_PROOF.format(a.words)) from None
    return of_bounded(a.shape, made.entries), made.condition


def solution(a: Matrices, b: Matrices) -> Matrices:
    """Return the only x with A x = b for a square matrix A.

    Raises:
        ShapeError: the shapes do not fit. ListError: it could not be proved that there is one.
    """
    need_matrix(a, "A system of equations")
    need_square(a, "A system with so many entries")
    if a.row_count != b.row_count:
        raise ShapeError(
            f"{a.words.capitalize()} and {b.words} make no system: both need as many rows."
        )
    entries = bounded_form(a), bounded_form(b)
    try:
        made = linear.solution(*entries, a.shape[0], b.column_count)
    except linear.NotProvedError:
        raise ListError(_NO_PROOF.format(a.words)) from None
    return of_bounded(b.shape, made)


def determinant(a: Matrices) -> Scalar:
    """Return the determinant of a square matrix.

    Raises:
        ListError: it could not be distinguished from 0.
    """
    need_square(a, "The determinant")
    try:
        return Ball(linear.determinant(bounded_form(a), a.shape[0]))
    except linear.NotProvedError:
        raise ListError(_NO_PROOF.format(a.words)) from None


def total(a: Matrices) -> Scalar:
    """Return the sum of all entries."""
    return totals.total(bounded_form(a))


def mean(a: Matrices) -> Scalar:
    """Return the mean of all entries."""
    return totals.mean(bounded_form(a))


def variance(a: Matrices, *words: str) -> Scalar:
    """Return the mean square distance from the mean; of a sample divided by n - 1."""
    entries = bounded_form(a)
    count = len(entries) - (not words)
    return SCALARS.divide(totals.squares_from_mean(entries), SCALARS.number(count))


def standard_deviation(a: Matrices, *words: str) -> Scalar:
    """Return the root of the variance."""
    return SCALARS.square_root(variance(a, *words))


def norm(a: Matrices) -> Scalar:
    """Return the root of the sum of all squares."""
    entries = bounded_form(a)
    return SCALARS.square_root(totals.inner(entries, entries))


def dot(a: Matrices, b: Matrices) -> Scalar:
    """Return the dot product of two lists.

    Raises:
        ShapeError: they are not lists of one length.
    """
    _need_pair(a, b, "The dot product")
    return totals.inner(bounded_form(a), bounded_form(b))


def correlation(a: Matrices, b: Matrices) -> Scalar:
    """Return the correlation coefficient of two lists (Pearson).

    Raises:
        ShapeError: they are not lists of one length.
    """
    _need_pair(a, b, "The correlation")
    one, other = (totals.from_mean(bounded_form(part)) for part in (a, b))
    sizes = ball.multiply(totals.inner(one, one), totals.inner(other, other))
    return ball.divide(totals.inner(one, other), ball.square_root(sizes))


def _need_pair(a: Matrices, b: Matrices, what: str) -> None:
    if a.is_matrix or b.is_matrix or a.shape != b.shape:
        raise ShapeError(
            f"{what} needs two lists of one length; these are {a.words} and {b.words}."
        )


def hadamard(a: Matrices, b: Matrices) -> Matrices:
    """Return the product entry by entry.

    Raises:
        ShapeError: the shapes differ.
    """
    if a.shape != b.shape:
        raise ShapeError(
            f"The product entry by entry needs two equal shapes; these are {a.words} and {b.words}."
        )
    made = entrywise.multiply(bounded_form(a), bounded_form(b))
    return of_bounded(a.shape, _too_large(made))


def _of_list(compute: Callable[[BoundedEntries], BoundedEntries]) -> Callable[[Matrices], Matrices]:
    """Return a function that makes a list of a list."""

    def apply(a: Matrices) -> Matrices:
        need_list(a, "This")
        made = compute(bounded_form(a))
        return of_bounded((len(made),), made)

    return apply


cumulative = _of_list(totals.running)
differences = _of_list(totals.differences)


def least(a: Matrices) -> Scalar:
    """Return the least entry."""
    return totals.extreme(bounded_form(a), -1)


def greatest(a: Matrices) -> Scalar:
    """Return the greatest entry."""
    return totals.extreme(bounded_form(a), 1)
