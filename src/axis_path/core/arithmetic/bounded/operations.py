"""Arithmetic with many numbers, real or complex: by parts, so that what is exact stays exact."""

from __future__ import annotations

from collections.abc import Callable
from math import isfinite

import numpy as np
from flint import acb

from axis_path.core.arithmetic import ball, messages
from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.bounded import entrywise, linear, totals
from axis_path.core.arithmetic.bounded.entries import (
    ROUNDING,
    BoundedEntries,
    from_common,
    outward,
)
from axis_path.core.arithmetic.bounded.pairs import (
    ComplexEntries,
    Entries,
    discs_of,
    entries_of,
    from_scalar,
    of_two_parts,
    parts,
    together,
)
from axis_path.core.arithmetic.bounded.radii import Later
from axis_path.core.arithmetic.complex_ball import Scalar

_Operation = Callable[[BoundedEntries, BoundedEntries], BoundedEntries | None]


def add(a: Entries, b: Entries) -> Entries | None:
    """Return a + b; None if an entry is too large for a float."""
    return _by_parts(entrywise.add, a, b)


def subtract(a: Entries, b: Entries) -> Entries | None:
    """Return a - b; None if an entry is too large for a float."""
    return _by_parts(entrywise.subtract, a, b)


def _by_parts(operation: _Operation, a: Entries, b: Entries) -> Entries | None:
    if isinstance(a, BoundedEntries) and isinstance(b, BoundedEntries):
        return operation(a, b)
    return together(*map(operation, parts(a), parts(b)))


def multiply(a: Entries, b: Entries) -> Entries | None:
    """Return a b; None if an entry is too large for a float."""
    if isinstance(a, BoundedEntries) and isinstance(b, BoundedEntries):
        return entrywise.multiply(a, b)
    return _multiplied(a, b, entrywise.multiply)


def _multiplied(a: Entries, b: Entries, times: _Operation) -> Entries | None:
    """Return a product, given how parts are multiplied; a factor that is real has one part."""
    if isinstance(b, BoundedEntries):
        real, imaginary = parts(a)
        return together(times(real, b), times(imaginary, b))
    if isinstance(a, BoundedEntries):
        return together(times(a, b.real), times(a, b.imaginary))
    products = (
        times(a.real, b.real), times(a.imaginary, b.imaginary),
        times(a.real, b.imaginary), times(a.imaginary, b.real),
    )  # fmt: skip
    known = [one for one in products if one is not None]
    if len(known) < len(products):
        return None
    return together(entrywise.subtract(*known[:2]), entrywise.add(*known[2:]))


def divide(a: Entries, b: Entries) -> Entries | None:
    """Return a / b; None if a divisor may be 0 or an entry is too large for a float."""
    if isinstance(b, BoundedEntries):
        if isinstance(a, BoundedEntries):
            return entrywise.divide(a, b)
        return together(entrywise.divide(a.real, b), entrywise.divide(a.imaginary, b))
    size, scaled = multiply(b, conjugate(b)), multiply(a, conjugate(b))
    if size is None or scaled is None:
        return None
    # A number times its conjugate is real, whatever its bounds are.
    return divide(scaled, parts(size)[0])


def conjugate(a: Entries) -> Entries:
    """Return the complex conjugates."""
    if isinstance(a, BoundedEntries):
        return a
    return ComplexEntries(a.real, entrywise.negative(a.imaginary))


def negative(a: Entries) -> Entries:
    """Return -a."""
    if isinstance(a, BoundedEntries):
        return entrywise.negative(a)
    return ComplexEntries(entrywise.negative(a.real), entrywise.negative(a.imaginary))


def _sizes(a: Entries) -> BoundedEntries:
    """Return the absolute values."""
    if isinstance(a, BoundedEntries):
        if a.exact is not None:
            return from_common(np.abs(a.exact.numerators), a.exact.denominator)
        return BoundedEntries(np.abs(a.middles), a.bounds)
    discs = discs_of(a)
    middles = np.abs(discs.middles)
    return BoundedEntries(middles, Later(lambda: outward(discs.radii + 4 * ROUNDING * middles)))


def total(a: Entries) -> Scalar:
    """Return the sum of all entries."""
    if isinstance(a, BoundedEntries):
        return totals.total(a)
    return of_two_parts(totals.total(a.real), totals.total(a.imaginary))


def mean(a: Entries) -> Scalar:
    """Return the mean of all entries."""
    count = ball.from_fraction(len(a))
    if isinstance(a, BoundedEntries):
        return ball.divide(totals.total(a), count)
    means = (ball.divide(totals.total(part), count) for part in parts(a))
    return of_two_parts(next(means), next(means))


def squares(a: Entries) -> Ball:
    """Return the sum of the squared absolute values."""
    sizes = _sizes(a)
    return totals.inner(sizes, sizes)


def from_mean(a: Entries) -> Entries:
    """Return each entry less the mean of all."""
    return _defined(subtract(a, from_scalar(mean(a))))


def inner(a: Entries, b: Entries) -> Scalar:
    """Return the sum of the products of two lists of one length."""
    return total(_defined(multiply(a, b)))


def _defined(a: Entries | None) -> Entries:
    if a is None:
        raise OverflowError(messages.ENTRY_TOO_LARGE_FLOAT)
    return a


def running(a: Entries) -> Entries:
    """Return the running sums."""
    if isinstance(a, BoundedEntries):
        return totals.running(a)
    return ComplexEntries(*map(totals.running, parts(a)))


def differences(a: Entries) -> Entries:
    """Return each entry less the one before it."""
    return _defined(subtract(a[1:], a[:-1]))


def product(a: Entries, b: Entries, shape: tuple[int, int, int]) -> Entries | None:
    """Return a matrix product, row by row; None if an entry is too large for a float.

    Args:
        a: m times n numbers, row by row.
        b: n times p numbers.
        shape: m, n and p.
    """

    def times(one: BoundedEntries, other: BoundedEntries) -> BoundedEntries | None:
        discs = linear.product(one, other, shape)
        if discs is None or not isfinite(discs.bounds.greatest()):
            return None
        entries = entries_of(discs)
        return entries if isinstance(entries, BoundedEntries) else None

    if isinstance(a, BoundedEntries) and isinstance(b, BoundedEntries):
        return times(a, b)
    return _multiplied(a, b, times)


def inverse(a: Entries, size: int) -> tuple[Entries, float]:
    """Return the inverse of a square matrix and its condition number.

    Raises:
        NotProvedError: the floats do not show that there is one.
    """
    inverted = linear.inverse(discs_of(a), size)
    return entries_of(inverted.entries), inverted.condition


def solution(a: Entries, b: Entries, size: int, columns: int) -> Entries:
    """Return X with A X = B for a square matrix A.

    Raises:
        NotProvedError: the floats do not show that there is exactly one.
    """
    return entries_of(linear.solution(discs_of(a), discs_of(b), size, columns))


def determinant(a: Entries, size: int) -> Scalar:
    """Return the determinant of a square matrix.

    Raises:
        NotProvedError: the floats do not show that it is not 0.
    """
    value = linear.determinant(discs_of(a), size)
    return (
        of_two_parts(Ball(value.real), Ball(value.imag)) if isinstance(value, acb) else Ball(value)
    )
