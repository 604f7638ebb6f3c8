"""Sums, products and joins of lists and matrices, in any arithmetic."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from fractions import Fraction
from functools import reduce
from itertools import combinations
from typing import TypeVar

import numpy as np

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.arrays.array import (
    Array,
    Field,
    check_size,
    matrix,
    need_square,
    one_after_the_other,
    vector,
)
from axis_path.core.deadline import check
from axis_path.core.errors import LimitError, ShapeError
from axis_path.core.limits import MATRIX_POWER

E = TypeVar("E")


def entry_by_entry(function: Callable[[E, E], E], a: Array[E], b: Array[E], what: str) -> Array[E]:
    """Return what a function gives for each pair of entries.

    Raises:
        ShapeError: the shapes differ.
    """
    if a.shape != b.shape:
        raise ShapeError(messages.WHAT_NEEDS_TWO_EQUAL(what=what, first=a.words, second=b.words))
    return Array(a.shape, tuple(map(function, a.entries, b.entries)))


def product(a: Array[E], b: Array[E], field: Field[E]) -> Array[E]:
    """Return the matrix product; a list is a column, and a matrix times it a list.

    Raises:
        ShapeError: the shapes do not fit.
    """
    if not a.is_matrix and b.is_matrix and b.row_count == 1:
        a = Array((a.row_count, 1), a.entries)
    if not a.is_matrix:
        raise ShapeError(
            messages.FIRST_TIMES_SECOND_LIST(first=a.words.capitalize(), second=b.words)
        )
    if a.column_count != b.row_count:
        raise ShapeError(
            (
                messages.COLUMNS_AND_ROWS_DIFFER
                if b.is_matrix
                else messages.COLUMNS_AND_ENTRIES_DIFFER
            )(first=a.words.capitalize(), second=b.words)
        )
    columns = b.columns()
    made = []
    for row in a.rows():
        check()
        made.append([inner(row, column, field) for column in columns])
    return matrix(made) if b.is_matrix else vector([row[0] for row in made])


def inner(row: Sequence[E], column: Sequence[E], field: Field[E]) -> E:
    """Return the sum of the products of two rows of numbers, which are as long."""
    return reduce(field.add, map(field.multiply, row, column))


def transposed(a: Array[E]) -> Array[E]:
    """Return the transpose; of a list one row."""
    if not a.is_matrix:
        check_size(1, a.shape[0])
        return Array((1, a.shape[0]), a.entries)
    rows, columns = a.shape
    order = np.arange(rows * columns).reshape(a.shape).T.ravel()
    return a.taken((columns, rows), order)


def identity(size: int, field: Field[E]) -> Array[E]:
    """Return the identity matrix."""
    check_size(size, size)
    one, zero = field.number(1), field.number(0)
    entries = (one if row == column else zero for row in range(size) for column in range(size))
    return Array((size, size), tuple(entries))


def power(a: Array[E], exponent: int, times: Callable[[Array[E], Array[E]], Array[E]],
          field: Field[E]) -> Array[E]:  # fmt: skip
    """Return a whole power of a square matrix; the exponent is not negative.

    Args:
        a: the matrix.
        exponent: at least 0.
        times: multiplies two matrices.
        field: the arithmetic.

    Raises:
        ShapeError: it is not square. LimitError: the exponent is too large.
    """
    need_square(a, "A power")
    if exponent > MATRIX_POWER.value:
        raise LimitError(messages.POWER_MATRIX_GOES_UP(most=MATRIX_POWER.value))
    result: Array[E] | None = None
    square = a
    while exponent:
        check()
        if exponent % 2:
            result = square if result is None else times(result, square)
        exponent //= 2
        square = times(square, square) if exponent else square
    return identity(a.shape[0], field) if result is None else result


def beside(a: Array[E], b: Array[E]) -> Array[E]:
    """Return two matrices joined side by side; a list is a column.

    Raises:
        ShapeError: they have different numbers of rows.
    """
    if a.row_count != b.row_count:
        raise ShapeError(messages.JOIN_THEM_SIDE_BY(first=a.words, second=b.words))
    rows, first, second = a.row_count, a.column_count, b.column_count
    check_size(rows, first + second)
    order = np.hstack(
        [
            np.arange(rows * first).reshape(rows, first),
            rows * first + np.arange(rows * second).reshape(rows, second),
        ]
    )
    return one_after_the_other(a, b).taken((rows, first + second), order.ravel())


def above(a: Array[E], b: Array[E]) -> Array[E]:
    """Return one matrix put above another; two lists are joined to one.

    Raises:
        ShapeError: they have different numbers of columns.
    """
    if a.is_matrix == b.is_matrix is False:
        check_size(len(a.entries) + len(b.entries))
        return one_after_the_other(a, b)
    # A list above or below a matrix is a row of it.
    one, other = (part if part.is_matrix else transposed(part) for part in (a, b))
    if one.column_count != other.column_count:
        raise ShapeError(messages.JOIN_THEM_ONE_ABOVE(first=a.words, second=b.words))
    shape = (one.row_count + other.row_count, one.column_count)
    check_size(*shape)
    return Array(shape, one_after_the_other(one, other).entries)


def determinant_by_minors(a: Array[E], field: Field[E]) -> E:
    """Return the determinant, expanded along its rows; for small matrices of anything.

    Raises:
        ShapeError: the matrix is not square.
    """
    need_square(a, messages.DETERMINANT)
    size = a.shape[0]
    # The determinants of the last rows, by the columns that are left.
    minors: dict[tuple[int, ...], E] = {(): field.number(1)}
    for row in reversed(range(size)):
        grown: dict[tuple[int, ...], E] = {}
        for columns in _choices(size, size - row):
            total = None
            for position, column in enumerate(columns):
                rest = columns[:position] + columns[position + 1 :]
                term = field.multiply(a.at(row, column), minors[rest])
                if total is None:
                    total = term
                else:
                    total = (field.subtract if position % 2 else field.add)(total, term)
            if total is not None:
                grown[columns] = total
        minors = grown
    return minors[tuple(range(size))]


def _choices(size: int, count: int) -> list[tuple[int, ...]]:
    return list(combinations(range(size), count))


def inverse_by_minors(a: Array[E], field: Field[E]) -> Array[E]:
    """Return the inverse by the adjugate; for small matrices of anything."""
    need_square(a, messages.INVERSE)
    size = a.shape[0]
    whole = determinant_by_minors(a, field)
    if size == 1:
        return Array((1, 1), (field.divide(field.number(1), whole),))

    def cofactor(row: int, column: int) -> E:
        rows = [[a.at(r, c) for c in range(size) if c != column] for r in range(size) if r != row]
        minor = determinant_by_minors(matrix(rows), field)
        return field.negative(minor) if (row + column) % 2 else minor

    entries = [
        field.divide(cofactor(column, row), whole) for row in range(size) for column in range(size)
    ]
    return Array((size, size), tuple(entries))


def trace(a: Array[E], field: Field[E]) -> E:
    """Return the sum of the diagonal.

    Raises:
        ShapeError: the matrix is not square.
    """
    need_square(a, messages.TRACE)
    return reduce(field.add, (a.at(k, k) for k in range(a.shape[0])))


def cross(a: Array[E], b: Array[E], field: Field[E]) -> Array[E]:
    """Return the cross product of two lists of three.

    Raises:
        ShapeError: they are not of three.
    """
    if a.shape != (3,) or b.shape != (3,):
        raise ShapeError(messages.CROSS_PRODUCT_NEEDS_TWO(first=a.words, second=b.words))
    (u, v, w), (x, y, z) = a.entries, b.entries

    def minor(one: E, two: E, three: E, four: E) -> E:
        return field.subtract(field.multiply(one, two), field.multiply(three, four))

    return vector([minor(v, z, w, y), minor(w, x, u, z), minor(u, y, v, x)])


def dot(a: Array[E], b: Array[E], field: Field[E]) -> E:
    """Return the dot product of two lists.

    Raises:
        ShapeError: they are not lists of one length.
    """
    if a.is_matrix or b.is_matrix or a.shape != b.shape:
        raise ShapeError(messages.DOT_PRODUCT_NEEDS_TWO(first=a.words, second=b.words))
    return inner(a.entries, b.entries, field)


def norm(a: Array[E], field: Field[E]) -> E:
    """Return the length of a vector; of a matrix the root of the sum of all squares (Frobenius)."""
    return field.square_root(reduce(field.add, map(field.squared_size, a.entries)))


def scaled(a: Array[E], factor: Fraction | int, field: Field[E]) -> Array[E]:
    """Return a number times a list or a matrix."""
    number = field.number(factor)
    return a.map(lambda entry: field.multiply(number, entry))
