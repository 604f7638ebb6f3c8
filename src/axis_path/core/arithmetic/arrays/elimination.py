"""Determinants, inverses, solutions and reduced forms of matrices of proved numbers.

Fractions stay fractions (FLINT's exact linear algebra), exact complex numbers too (elimination by
rows); everything else is computed with balls, whose radius says how many digits are right.

Source: the algorithms of FLINT (fmpq_mat, arb_mat, acb_mat); Golub and Van Loan, *Matrix
Computations*, chapter 3.
"""

from __future__ import annotations

from typing import Any

from flint import acb_mat, arb_mat, fmpq, fmpq_mat

from axis_path.core.arithmetic import ball, messages
from axis_path.core.arithmetic.arrays.array import (
    check_work,
    matrix,
    need_matrix,
    need_square,
)
from axis_path.core.arithmetic.arrays.combine import transposed
from axis_path.core.arithmetic.arrays.echelon import (
    Form,
    UndecidedError,
    augmented,
    null_vectors,
    read_solution,
    reduce_rows,
)
from axis_path.core.arithmetic.arrays.flint_matrices import (
    Matrices,
    balls,
    exact_ball,
    from_matrix,
    is_complex,
    need_values,
    rationals,
)
from axis_path.core.arithmetic.arrays.scalars import SCALARS
from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.complex_ball import ComplexBall, Scalar
from axis_path.core.deadline import check
from axis_path.core.errors import ListError
from axis_path.core.limits import EXACT_SIDE, NUMERIC_SIDE


def _is_exact(*arrays: Matrices) -> bool:
    return all(entry.exact is not None for array in arrays for entry in array.entries) and all(
        max(array.shape) <= EXACT_SIDE.value for array in arrays
    )


def _fractions(*arrays: Matrices) -> list[fmpq_mat] | None:
    """Return matrices of fractions, if all are and none is too large for exact work."""
    if any(max(array.shape) > EXACT_SIDE.value for array in arrays):
        return None
    made = [rationals(array) for array in arrays]
    known = [one for one in made if one is not None]
    return known if len(known) == len(made) else None


def determinant(a: Matrices) -> Scalar:
    """Return the determinant.

    Raises:
        ShapeError: the matrix is not square. ListError: an entry has no value.
    """
    need_square(a, messages.DETERMINANT)
    need_values(a)
    known = _fractions(a)
    if known is not None:
        return exact_ball(known[0].det())
    if _is_exact(a):
        return _determinant_by_rows(a)
    check_work(a, messages.DETERMINANT, NUMERIC_SIDE)
    made = from_matrix(_as_matrix(balls(a, as_complex=is_complex(a)).det(), is_complex(a)))
    return made.entries[0]


def _as_matrix(number: Any, as_complex: bool) -> Any:  # noqa: ANN401 - arb or acb
    return (acb_mat if as_complex else arb_mat)(1, 1, [number])


def _determinant_by_rows(a: Matrices) -> Scalar:
    rows = [list(row) for row in a.rows()]
    result = SCALARS.number(1)
    for column in range(len(rows)):
        pivot = _pivot(rows, column, column)
        if pivot is None:
            return SCALARS.number(0)
        if pivot != column:
            rows[column], rows[pivot] = rows[pivot], rows[column]
            result = SCALARS.negative(result)
        result = SCALARS.multiply(result, rows[column][column])
        for row in range(column + 1, len(rows)):
            _take_off(rows, row, column, column)
    return result


def _pivot(rows: list[list[Scalar]], first: int, column: int) -> int | None:
    """Return the row from ``first`` on whose entry is surely not 0; None if all are 0.

    Raises:
        UndecidedError: one may be 0 or not.
    """
    unsure = False
    for row in range(first, len(rows)):
        sign = rows[row][column].sign()
        if sign:
            return row
        unsure |= sign is None
    if unsure:
        raise UndecidedError
    return None


def _take_off(rows: list[list[Scalar]], row: int, pivot: int, column: int) -> None:
    """Take off a multiple of the pivot's row, so that an entry becomes 0."""
    check()
    if rows[row][column].sign() == 0:
        return
    factor = SCALARS.divide(rows[row][column], rows[pivot][column])
    rows[row] = [
        SCALARS.subtract(entry, SCALARS.multiply(factor, other))
        for entry, other in zip(rows[row], rows[pivot], strict=True)
    ]
    rows[row][column] = SCALARS.number(0)


def reduced(a: Matrices) -> Form[Scalar]:
    """Return the reduced row echelon form.

    Raises:
        ListError: an entry has no value. UndecidedError: an entry may be 0 or not.
    """
    need_values(a)
    known = rationals(a)
    if known is not None:
        made, rank = known.rref()
        rows: list[list[Scalar]] = [
            [exact_ball(made[r, c]) for c in range(made.ncols())] for r in range(made.nrows())
        ]
        pivots = [next(c for c in range(made.ncols()) if made[r, c] != 0) for r in range(rank)]
        return Form(rows, pivots)
    check_work(a, messages.REDUCED_FORM, NUMERIC_SIDE)
    return reduce_rows(a, SCALARS)


def rank(a: Matrices) -> Scalar:
    """Return the rank."""
    need_matrix(a, messages.RANK)
    return ball.from_fraction(len(reduced(a).pivots))


def reduced_form(a: Matrices) -> Matrices:
    """Return the reduced row echelon form as a matrix."""
    need_matrix(a, messages.REDUCED_FORM)
    return matrix(reduced(a).rows)


def null_space(a: Matrices) -> Matrices:
    """Return a basis of the null space as the columns of a matrix; one column of 0 if it is {0}."""
    need_matrix(a, messages.NULL_SPACE)
    vectors = null_vectors(reduced(a), a.column_count, SCALARS)
    return transposed(matrix([_whole(entries) for entries in vectors]))


def _whole(entries: list[Scalar]) -> list[Scalar]:
    """Return a multiple of whole numbers without a common factor, if the entries are fractions."""
    exact = [entry.exact for entry in entries if isinstance(entry, Ball)]
    if len(exact) < len(entries) or any(value is None for value in exact):
        return entries
    numbers = [value for value in exact if value is not None]
    bottom = fmpq(1).q
    for value in numbers:
        bottom = bottom.lcm(value.q)
    top = (numbers[0] * 0).p
    for value in numbers:
        top = top.gcd((value * bottom).p)
    factor = fmpq(bottom, top) if top else fmpq(1)
    return [exact_ball(value * factor) for value in numbers]


def inverse(a: Matrices) -> Matrices:
    """Return the inverse.

    Raises:
        ShapeError: the matrix is not square. ListError: it has none, and why.
        UndecidedError: it is not sure whether it has one.
    """
    need_square(a, messages.INVERSE)
    need_values(a)
    known = _fractions(a)
    if known is not None:
        try:
            return from_matrix(known[0].inv())
        except ZeroDivisionError:
            raise _singular(a) from None
    if _is_exact(a):
        size = a.shape[0]
        one, zero = SCALARS.number(1), SCALARS.number(0)
        rows = [
            [*row, *(one if k == index else zero for k in range(size))]
            for index, row in enumerate(a.rows())
        ]
        form = reduce_rows(matrix(rows), SCALARS)
        if form.pivots[:size] != list(range(size)):
            raise _singular(a)
        return matrix([row[size:] for row in form.rows])
    check_work(a, messages.INVERSE, NUMERIC_SIDE)
    try:
        made = balls(a, as_complex=is_complex(a)).inv()
    except ZeroDivisionError:
        raise UndecidedError from None
    return from_matrix(made)


def condition(a: Matrices, inverted: Matrices) -> float:
    """Return the condition number of a matrix in the maximum norm, from its inverse."""
    return _longest_row(a) * _longest_row(inverted)


def _longest_row(a: Matrices) -> float:
    return max(sum(float(abs(entry.value).mid()) for entry in row) for row in a.rows())


def _singular(a: Matrices) -> ListError:
    return ListError(messages.MATRIX_HAS_NO_INVERSE(reason=why_singular(a)))


_ROW_WORDS = (messages.ROW_OF_ZEROS, messages.EQUAL_ROWS, messages.MULTIPLE_ROWS)
_COLUMN_WORDS = (messages.COLUMN_OF_ZEROS, messages.EQUAL_COLUMNS, messages.MULTIPLE_COLUMNS)


def why_singular(a: Matrices) -> str:
    """Return why an exact square matrix has no inverse, in words."""
    for words, lines in ((_ROW_WORDS, a.rows()), (_COLUMN_WORDS, a.columns())):
        zeros, equal, multiple = words
        for index, line in enumerate(lines):
            if all(entry.sign() == 0 for entry in line):
                return zeros(number=index + 1)
        for index, line in enumerate(lines):
            for before in range(index):
                factor = _multiple(line, lines[before])
                if factor is not None:
                    text = equal if factor == 1 else multiple
                    return text(number=index + 1, before=before + 1, factor=str(factor))
    return messages.DETERMINANT_IS_0


def _multiple(line: tuple[Scalar, ...], other: tuple[Scalar, ...]) -> fmpq | None:
    """Return by what one line of fractions is a multiple of the other; None if it is not."""
    factor: fmpq | None = None
    for one, two in zip(line, other, strict=True):
        if isinstance(one, ComplexBall) or isinstance(two, ComplexBall):
            return None
        if one.exact is None or two.exact is None:
            return None
        if two.exact == 0:
            if one.exact != 0:
                return None
            continue
        quotient = one.exact / two.exact
        if factor is not None and quotient != factor:
            return None
        factor = quotient
    return factor


def solution(a: Matrices, b: Matrices) -> Matrices:
    """Return the only x with A x = b.

    Raises:
        ShapeError: the shapes do not fit. ListError: there is none, or more than one.
        UndecidedError: it is not sure whether there is one.
    """
    whole = augmented(a, b)
    need_values(a, b)
    width = a.column_count
    known = _fractions(a, b) if a.row_count == width else None
    if known is not None:
        try:
            return from_matrix(known[0].solve(known[1]), is_list=not b.is_matrix)
        except ZeroDivisionError:
            pass
    elif a.row_count == width and not _is_exact(a, b):
        check_work(a, messages.SOLUTION, NUMERIC_SIDE)
        as_complex = is_complex(a, b)
        try:
            made = balls(a, as_complex=as_complex).solve(balls(b, as_complex=as_complex))
        except ZeroDivisionError:
            raise UndecidedError from None
        return from_matrix(made, is_list=not b.is_matrix)
    return read_solution(reduced(whole), width, is_list=not b.is_matrix)
