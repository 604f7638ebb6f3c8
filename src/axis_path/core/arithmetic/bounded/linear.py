"""Products, inverses, solutions and determinants of large matrices.

A product of floats is bounded row by column: its rounding errors are at most γ_n |A| |B|, and an
entry of |A| |B| is at most the length of the row times that of the column. The parts of a complex
product of n terms are real products of 2n terms. An inverse is computed in floats, and proved by
how far its product with the matrix is from the identity.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from flint import acb, arb

from axis_path.core.arithmetic.bounded.discs import Discs, Numbers, exactly
from axis_path.core.arithmetic.bounded.entries import (
    LEAST,
    MOST_WHOLE,
    ROUNDING,
    BoundedEntries,
    are_finite,
    from_common,
    outward,
)
from axis_path.core.arithmetic.bounded.radii import Floats, Later, OuterSum, Relative

#: More than the roundings of a few sums and products make.
_SLACK = 1 + 16 * ROUNDING


class NotProvedError(Exception):
    """The floats do not prove that a matrix has an inverse."""


@dataclass(frozen=True, slots=True)
class Inverse:
    """The inverse of a matrix.

    Attributes:
        entries: of the inverse, row by row.
        condition: how many times larger a relative change of the matrix may become in it (the
            condition number in the maximum norm).
    """

    entries: Discs
    condition: float


def _gamma(terms: int) -> float:
    """Return the relative error of a sum of so many products, in any order of adding."""
    part = (terms + 4) * ROUNDING
    return part / (1 - 2 * part)


def _product_error(terms: int, *, is_complex: bool) -> float:
    """Return the relative error of an entry of a product; of a complex one of both parts."""
    return 1.5 * _gamma(2 * terms) if is_complex else _gamma(terms)


def lengths_of(a: Numbers, axis: int) -> Floats:
    """Return upper bounds for the lengths of the rows (axis 1) or the columns (axis 0)."""
    parts = (a.real, a.imag) if np.iscomplexobj(a) else (a,)
    along = "ij,ij->i" if axis else "ij,ij->j"
    with np.errstate(over="ignore"):
        squares = sum((np.einsum(along, part, part) for part in parts), np.zeros(()))
    if not are_finite(squares):
        # The squares are too large for floats; the numbers are not.
        greatest = float(np.abs(a).max())
        return lengths_of(a / greatest, axis) * (greatest * _SLACK)
    lengths: Floats = np.sqrt(squares) * (1 + _gamma(a.shape[axis])) + LEAST
    return lengths


def product(a: Discs, b: Discs, shape: tuple[int, int, int]) -> Discs | None:
    """Return a matrix product, row by row; None if an entry is too large for a float.

    Args:
        a: m times n numbers, row by row.
        b: n times p numbers.
        shape: m, n and p.
    """
    rows, terms, columns = shape
    one, other = a.middles.reshape(rows, terms), b.middles.reshape(terms, columns)
    known = _exact_product(a, b, shape)
    if known is not None:
        return known
    with np.errstate(over="ignore", invalid="ignore"):
        made = one @ other
        if not are_finite(made):
            return None
    rounding = _product_error(terms, is_complex=a.has_complex or b.has_complex)
    first, second = lengths_of(one, 1), lengths_of(other, 0)
    first_error = _error_lengths(a, first, (rows, terms), 1)
    second_error = _error_lengths(b, second, (terms, columns), 0)
    pairs = (
        (first, rounding * second + second_error),
        (first_error, second + second_error),
    )
    return Discs(made.ravel(), OuterSum(pairs, (_SLACK, terms * LEAST)))


def _exact_product(a: Discs, b: Discs, shape: tuple[int, int, int]) -> BoundedEntries | None:
    """Return a product of fractions if every partial sum is a whole number that a float holds."""
    if not (isinstance(a, BoundedEntries) and isinstance(b, BoundedEntries)):
        return None
    if not (a.exact and b.exact) or shape[1] * a.exact.size * b.exact.size > MOST_WHOLE:
        return None
    bottom = a.exact.denominator * b.exact.denominator
    if bottom >= MOST_WHOLE:
        return None
    tops = a.exact.numerators.reshape(shape[:2]).astype(np.float64)
    made = tops @ b.exact.numerators.reshape(shape[1:]).astype(np.float64)
    return from_common(made.astype(np.int64).ravel(), bottom)


def _error_lengths(a: Discs, lengths: Floats, shape: tuple[int, int], axis: int) -> Floats:
    """Return upper bounds for the lengths of the rows or the columns of the radii."""
    if isinstance(a.bounds, Relative):
        return a.bounds.factor * lengths
    return lengths_of(a.radii.reshape(shape), axis)


def inverse(a: Discs, size: int) -> Inverse:
    """Return the inverse of a square matrix.

    With X near the inverse and E = 1 - A X, the inverse is X + X E + X E^2 + ..., as long as the
    rows of E are shorter than 1.

    Raises:
        NotProvedError: the floats do not show that there is one.
    """
    near, errors, lengths, norm = _approximate(a, size)
    greatest = errors.max(axis=0) / (1 - norm)
    rest = np.abs(near) @ lengths
    first, second = lengths_of(near, 1), lengths_of(errors, 0)

    pairs = ((first, second), (rest * (1 + 4 * _gamma(size)), greatest))
    condition = _row_sum(a.middles.reshape(size, size)) * _row_sum(near)
    return Inverse(Discs(near.ravel(), OuterSum(pairs, (_SLACK, LEAST))), condition)


def summed(a: Floats, axis: int) -> Floats:
    """Return upper bounds for the sums of numbers that are not negative, along an axis."""
    sums: Floats = a.sum(axis=axis) * (1 + _gamma(a.shape[axis]))
    return sums


def _row_sum(a: Numbers) -> float:
    return float(np.abs(a).sum(axis=1).max())


def _approximate(a: Discs, size: int) -> tuple[Numbers, Floats, Floats, float]:
    """Return an approximate inverse X, bounds for |1 - A X|, their row sums and the greatest."""
    try:
        near = np.linalg.inv(a.middles.reshape(size, size))
    except np.linalg.LinAlgError:
        raise NotProvedError from None
    errors = distance_to_identity(a, exactly(near.ravel()), size)
    lengths = summed(errors, 1)
    norm = float(lengths.max())
    if not norm < 0.5:
        raise NotProvedError
    return near, errors, lengths, norm


def distance_to_identity(a: Discs, b: Discs, size: int) -> Floats:
    """Return bounds for the entries of 1 - A B, (n, n).

    Raises:
        NotProvedError: a product is too large for a float.
    """
    made = product(a, b, (size, size, size))
    if made is None:
        raise NotProvedError
    middles = made.middles.reshape(size, size).copy()
    middles[np.diag_indices(size)] -= 1
    return outward((1 + ROUNDING) * np.abs(middles) + made.radii.reshape(size, size))


def solution(a: Discs, b: Discs, size: int, columns: int) -> Discs:
    """Return X with A X = B for a square matrix A.

    Raises:
        NotProvedError: the floats do not show that there is exactly one.
    """
    near, _, lengths, norm = _approximate(a, size)
    made = near @ b.middles.reshape(size, columns)
    for _ in range(2):
        # One step of refinement, and what is left.
        residual = _residual(a, b, made, size, columns)
        made = made + near @ residual.middles.reshape(size, columns)
    residual = _residual(a, b, made, size, columns)
    left = np.abs(residual.middles) + residual.radii
    left = outward(left).reshape(size, columns)
    spread = left + np.outer(lengths, left.max(axis=0) / (1 - norm)) * (1 + _gamma(size))

    def radii() -> Floats:
        return outward((np.abs(near) @ spread).ravel() * (1 + 2 * _gamma(size)))

    return Discs(made.ravel(), Later(radii))


def _residual(a: Discs, b: Discs, made: Numbers, size: int, columns: int) -> Discs:
    """Return B - A X."""
    image = product(a, exactly(made.ravel()), (size, size, columns))
    if image is None:
        raise NotProvedError
    middles = b.middles - image.middles
    return Discs(
        middles, Later(lambda: outward(b.radii + image.radii + ROUNDING * np.abs(middles)))
    )


def determinant(a: Discs, size: int) -> arb | acb:
    """Return the determinant of a square matrix.

    With P A near L U, the matrix L^-1 P A U^-1 is 1 + F with a small F, and its determinant is
    exp(tr F - tr F^2/2 + tr F^3/3 - ...), where the trace of F^k is at most the k-th power of the
    length of F (the root of the sum of all squares).

    Raises:
        NotProvedError: the floats do not show that it is not 0.
    """
    # Only what needs it pays for loading it.
    from scipy.linalg import lapack, solve_triangular

    factorize = lapack.zgetrf if a.has_complex else lapack.dgetrf
    factors, swaps, info = factorize(a.middles.reshape(size, size))
    if info:
        raise NotProvedError
    one = np.eye(size)
    lower = solve_triangular(factors, one, lower=True, unit_diagonal=True)
    upper = solve_triangular(factors, one)
    order = np.arange(size)
    for row, other in enumerate(swaps):
        order[[row, other]] = order[[other, row]]
    swapped = (order[:, None] * size + np.arange(size)).ravel()
    moved = Discs(a.middles[swapped], Later(lambda: a.radii[swapped]))
    left = product(exactly(np.tril(lower).ravel()), moved, (size, size, size))
    if left is None:
        raise NotProvedError
    right = exactly(np.triu(upper).ravel())
    made = product(left, right, (size, size, size))
    errors = distance_to_identity(left, right, size)
    length = float(np.sqrt((errors * errors).sum())) * (1 + _gamma(size * size))
    if made is None or not length < 0.5:
        raise NotProvedError
    trace = sum((_ball(made, index) - 1 for index in range(0, size * size, size + 1)), arb(0))
    rest = arb(0, length * length / (1 - length))
    result = (trace + (acb(rest, rest) if a.has_complex else rest)).exp()
    for entry in np.diagonal(upper):
        result /= acb(entry.real, entry.imag) if a.has_complex else arb(float(entry))
    is_odd = sum(int(row != other) for row, other in enumerate(swaps)) % 2
    return -result if is_odd else result


def _ball(a: Discs, index: int) -> arb | acb:
    middle, radius = a.middles[index], a.bounds.at(index)
    if not a.has_complex:
        return arb(float(middle), radius)
    return acb(arb(middle.real, radius), arb(middle.imag, radius))
