"""Ranks, reduced forms, null spaces, eigenvalues and eigenvectors of large matrices.

Of a matrix of fractions FLINT finds the rank and the reduced form exactly, modulo primes. Of others
they are known where floats prove that as many rows or columns as possible are independent.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from flint import fmpq, fmpz_mat

from axis_path.core.arithmetic import ball, messages
from axis_path.core.arithmetic.arrays.array import need_matrix, need_square
from axis_path.core.arithmetic.arrays.flint_matrices import Matrices, exact_ball, rationals
from axis_path.core.arithmetic.arrays.large import bounded_form, of_bounded
from axis_path.core.arithmetic.bounded import operations, totals
from axis_path.core.arithmetic.bounded.entries import BoundedEntries, from_balls, from_common
from axis_path.core.arithmetic.bounded.linear import NotProvedError
from axis_path.core.arithmetic.bounded.pairs import (
    ComplexEntries,
    Entries,
    discs_of,
    entries_of,
    joined_entries,
    parts,
)
from axis_path.core.arithmetic.bounded.radii import Later
from axis_path.core.arithmetic.bounded.spectrum import Spectrum, spectrum
from axis_path.core.arithmetic.bounded.spectrum import eigenvectors as vectors_of
from axis_path.core.arithmetic.complex_ball import Scalar
from axis_path.core.errors import ListError

#: Multiplications of bits that FLINT does within about two seconds.
_MOST_WORK = 2e7


def _undecided(a: Matrices) -> ListError:
    return ListError(messages.DIGITS_COULD_NOT_DECIDED(array=a.words))


def _whole_rows(a: Matrices) -> fmpz_mat | None:
    """Return a matrix of fractions times their common denominator, else None."""
    entries = bounded_form(a)
    if isinstance(entries, ComplexEntries) or entries.exact is None:
        return None
    return fmpz_mat(a.row_count, a.column_count, entries.exact.numerators.tolist())


def rank(a: Matrices) -> Scalar:
    """Return the rank.

    Raises:
        ListError: it is not decided.
    """
    need_matrix(a, messages.RANK)
    whole = _whole_rows(a)
    count = _full_rank(a) if whole is None else whole.rank()
    return ball.from_fraction(count)


def _full_rank(a: Matrices) -> int:
    """Return the rank if it is as large as the shape allows: the Gram matrix has an inverse then.

    Raises:
        ListError: that is not proved.
    """
    rows, columns = a.shape
    entries = bounded_form(a)
    turned = operations.conjugate(_transposed(entries, rows, columns))
    size, other = min(rows, columns), max(rows, columns)
    pair = (entries, turned) if rows <= columns else (turned, entries)
    try:
        gram = operations.product(*pair, (size, other, size))
        if gram is not None:
            operations.inverse(gram, size)
            return size
    except NotProvedError:
        pass
    raise _undecided(a)


def _transposed(entries: Entries, rows: int, columns: int) -> Entries:
    return entries.take(np.arange(rows * columns).reshape(rows, columns).T.ravel())


def reduced_form(a: Matrices) -> Matrices:
    """Return the reduced row echelon form.

    Raises:
        ListError: it is not decided.
    """
    need_matrix(a, messages.REDUCED_FORM)
    whole = _whole_rows(a)
    if whole is None or _has_long_fractions(a):
        try:
            return _proved_form(a)
        except ListError:
            if whole is None:
                raise
    rows, bottom, _ = whole.rref()
    return of_bounded(a.shape, _fractions(rows, int(bottom)))


def _has_long_fractions(a: Matrices) -> bool:
    """Check whether the reduced form of fractions may take long: it can have long numerators."""
    rows, columns = a.shape
    real, _ = parts(bounded_form(a))
    size = 0 if real.exact is None else real.exact.size
    # Hadamard's bound for the determinants that the entries are quotients of.
    bits = rows * (size.bit_length() + rows.bit_length() / 2)
    return (columns - rows) * rows * bits > _MOST_WORK


def _proved_form(a: Matrices) -> Matrices:
    """Return the reduced form if the first columns are proved to be independent.

    Raises:
        ListError: they are not.
    """
    rows, columns = a.shape
    if rows >= columns:
        _full_rank(a)
        return of_bounded(a.shape, from_common(np.eye(rows, columns, dtype=np.int64).ravel()))
    solved = _solved(a)
    left = from_common(np.eye(rows, dtype=np.int64).ravel())
    indices = np.concatenate(
        [
            np.arange(rows * rows).reshape(rows, rows),
            rows * rows + np.arange(rows * (columns - rows)).reshape(rows, columns - rows),
        ],
        axis=1,
    )
    return of_bounded(a.shape, joined_entries([left, solved]).take(indices.ravel()))


def _solved(a: Matrices) -> Entries:
    """Return the columns after the first ones in terms of those, for more columns than rows.

    Raises:
        ListError: it is not proved that the first ones are independent.
    """
    rows, columns = a.shape
    entries = bounded_form(a)
    indices = np.arange(rows * columns).reshape(rows, columns)
    first, rest = (entries.take(part.ravel()) for part in (indices[:, :rows], indices[:, rows:]))
    try:
        return operations.solution(first, rest, rows, columns - rows)
    except NotProvedError:
        raise _undecided(a) from None


def _fractions(tops: fmpz_mat, bottom: int) -> BoundedEntries:
    known = [exact_ball(fmpq(int(entry), bottom)) for entry in tops.entries()]
    entries = from_balls(known)
    if entries is None:
        raise ListError(messages.ENTRY_RESULT_TOO_LARGE)
    return entries


def null_space(a: Matrices) -> Matrices:
    """Return a basis of the null space as the columns of a matrix; one column of 0 if it is {0}.

    Raises:
        ListError: it is not decided.
    """
    need_matrix(a, messages.NULL_SPACE)
    form = reduced_form(a)
    entries = bounded_form(form)
    pivots = _pivots(form)
    free = [column for column in range(a.column_count) if column not in set(pivots)]
    if not free:
        return of_bounded((a.column_count, 1), from_common(np.zeros(a.column_count, np.int64)))
    width = a.column_count
    chosen = [row * width + column for row in range(len(pivots)) for column in free]
    upper = operations.negative(entries.take(np.array(chosen, dtype=np.intp)))
    unit = from_common(np.eye(len(free), dtype=np.int64).ravel())
    order = np.zeros((width, len(free)), dtype=np.intp)
    order[pivots] = np.arange(len(chosen)).reshape(len(pivots), len(free))
    order[free] = len(chosen) + np.arange(len(free) ** 2).reshape(len(free), len(free))
    return of_bounded((width, len(free)), joined_entries([upper, unit]).take(order.ravel()))


def _pivots(form: Matrices) -> Sequence[int]:
    """Return the columns of the pivots of a reduced form."""
    real, imaginary = parts(bounded_form(form))
    rows = (np.abs(real.middles) + np.abs(imaginary.middles)).reshape(form.shape)
    heads = [int(np.argmax(row > 0)) for row in rows if row.any()]
    return list(dict.fromkeys(heads))


def _spectrum(a: Matrices) -> Spectrum:
    try:
        discs = discs_of(bounded_form(a))
        return spectrum(discs, a.row_count, is_symmetric=_is_symmetric(a))
    except NotProvedError:
        raise _not_apart(a) from None


def _is_symmetric(a: Matrices) -> bool:
    """Check whether a matrix is known to equal its conjugate transpose."""
    real, imaginary = (part.exact for part in parts(bounded_form(a)))
    if real is not None and imaginary is not None:
        one, other = (part.numerators.reshape(a.shape) for part in (real, imaginary))
        return bool((one == one.T).all() and (other == -other.T).all())
    # Fractions that are too long to be held so.
    known = rationals(a) if a.bounded is None else None
    return known is not None and known == known.transpose()


def _not_apart(a: Matrices) -> ListError:
    return ListError(messages.DIGITS_EIGENVALUES_ARRAY_COULD(array=a.words))


def eigenvalues(a: Matrices) -> Matrices:
    """Return all eigenvalues, by their real parts and then by their imaginary parts.

    Raises:
        ListError: it could not be proved where they lie.
    """
    need_square(a, "Eigenvalues")
    triangular = _diagonal_of_triangular(a)
    if triangular is not None:
        return of_bounded((a.row_count,), totals.in_order(triangular))
    known = _spectrum(a)
    return of_bounded((a.row_count,), _with_real(entries_of(known.values), known.real))


def _with_real(values: Entries, are_real: np.ndarray) -> Entries:
    """Return numbers, or columns of a matrix, of which some are known to be real."""
    if not isinstance(values, ComplexEntries):
        return values
    if bool(are_real.all()):
        return values.real
    radii = (values.imaginary.radii.reshape(-1, are_real.size) * ~are_real).ravel()
    return ComplexEntries(
        values.real, BoundedEntries(values.imaginary.middles, Later(lambda: radii))
    )


def _diagonal_of_triangular(a: Matrices) -> BoundedEntries | None:
    """Return the diagonal of a matrix with only zeros above or below it, else None."""
    entries, size = bounded_form(a), a.row_count
    if not isinstance(entries, BoundedEntries) or entries.exact is None:
        return None
    tops = entries.exact.numerators.reshape(size, size)
    if np.tril(tops, -1).any() and np.triu(tops, 1).any():
        return None
    return entries.take(np.arange(0, size * size, size + 1))


def eigenvectors(a: Matrices) -> Matrices:
    """Return an eigenvector of length 1 for each eigenvalue, as columns.

    The largest entry of each is positive.

    Raises:
        ListError: two eigenvalues lie too close to be kept apart.
    """
    need_square(a, "Eigenvalues")
    known = _spectrum(a)
    try:
        vectors = entries_of(vectors_of(known, a.row_count))
    except NotProvedError:
        raise _not_apart(a) from None
    return of_bounded(a.shape, _with_real(vectors, known.real))
