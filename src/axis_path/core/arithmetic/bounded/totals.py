"""Sums, running sums, order and spread of many numbers."""

from __future__ import annotations

from fractions import Fraction
from math import fsum

import numpy as np
from flint import arb, fmpq

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.bounded import entrywise
from axis_path.core.arithmetic.bounded.entries import (
    MOST_EXACT,
    ROUNDING,
    BoundedEntries,
    from_bounds,
    from_common,
    outward,
)
from axis_path.core.arithmetic.bounded.radii import Later


def total(a: BoundedEntries) -> Ball:
    """Return the sum of all entries."""
    if a.exact is not None:
        return _exact_ball(_sum_of(a), a.exact.denominator)
    # fsum rounds once, whatever the number of terms (Shewchuk 1997).
    middle = fsum(a.middles)
    radius = outward(np.array([fsum(a.radii) + ROUNDING * abs(middle)]))
    return Ball(arb(middle, float(radius[0])))


def _sum_of(a: BoundedEntries) -> int:
    if a.exact is None:
        raise TypeError(messages.ONLY_FRACTIONS_HAVE_EXACT)
    if a.exact.size * len(a) < MOST_EXACT:
        return int(a.exact.numerators.sum())
    # Both halves of the numerators are small enough to be summed.
    high, low = np.divmod(a.exact.numerators, 2**31)
    return (int(high.sum()) << 31) + int(low.sum())


def _exact_ball(top: int, bottom: int) -> Ball:
    number = fmpq(top, bottom)
    return Ball(arb(number), exact=number)


def inner(a: BoundedEntries, b: BoundedEntries) -> Ball:
    """Return the sum of the products of two lists of one length."""
    return total(_defined(entrywise.multiply(a, b)))


def _defined(a: BoundedEntries | None) -> BoundedEntries:
    if a is None:
        raise OverflowError(messages.ENTRY_TOO_LARGE_FLOAT)
    return a


def running(a: BoundedEntries) -> BoundedEntries:
    """Return the running sums."""
    if a.exact is not None and a.exact.size * len(a) < MOST_EXACT:
        return from_common(np.cumsum(a.exact.numerators), a.exact.denominator)
    sums = np.cumsum(a.middles)
    errors = np.cumsum(np.abs(a.middles)) * (len(a) * ROUNDING) + np.cumsum(a.radii)
    radii = outward(errors * (1 + 2 * len(a) * ROUNDING))
    return BoundedEntries(sums, Later(lambda: radii))


def in_order(a: BoundedEntries) -> BoundedEntries:
    """Return the entries from the least to the greatest.

    The k-th number in order lies between the k-th lower and the k-th upper bound in order.
    """
    if a.exact is not None:
        return a.take(np.argsort(a.exact.numerators, kind="stable"))
    return from_bounds(np.sort(a.middles - a.radii), np.sort(a.middles + a.radii))


def extreme(a: BoundedEntries, sign: int) -> Ball:
    """Return the greatest entry, or with the sign -1 the least."""
    if a.exact is not None:
        best = a.exact.numerators.max() if sign > 0 else a.exact.numerators.min()
        return _exact_ball(int(best), a.exact.denominator)
    choose = np.max if sign > 0 else np.min
    low, high = choose(a.middles - a.radii), choose(a.middles + a.radii)
    return from_bounds(np.nextafter([low], -np.inf), np.nextafter([high], np.inf))[0]


def evenly_spaced(start: Fraction, step: Fraction, count: int) -> BoundedEntries | None:
    """Return start, start + step, ...; None if a number in it is too long."""
    bottom = start.denominator * step.denominator
    first, by = int(start * bottom), int(step * bottom)
    if bottom >= MOST_EXACT or abs(first) + abs(by) * count >= MOST_EXACT:
        return None
    return from_common(first + by * np.arange(count, dtype=np.int64), bottom)
