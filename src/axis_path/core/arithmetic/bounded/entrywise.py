"""Operations entry by entry; one side may be a single number."""

from __future__ import annotations

from collections.abc import Callable
from math import lcm

import numpy as np

from axis_path.core.arithmetic.bounded.entries import (
    MOST_EXACT,
    ROUNDING,
    BoundedEntries,
    Common,
    are_finite,
    from_common,
    outward,
)
from axis_path.core.arithmetic.bounded.radii import Floats, Later


def add(a: BoundedEntries, b: BoundedEntries) -> BoundedEntries | None:
    """Return a + b; None if an entry is too large for a float."""
    if _is_zero(a) and len(a) <= len(b):
        return b
    if _is_zero(b) and len(b) <= len(a):
        return a
    return _exact_sum(a, b, 1) or _rounded(lambda: a.middles + b.middles, lambda: a.radii + b.radii)


def subtract(a: BoundedEntries, b: BoundedEntries) -> BoundedEntries | None:
    """Return a - b; None if an entry is too large for a float."""
    if _is_zero(b) and len(b) <= len(a):
        return a
    if _is_zero(a) and len(a) <= len(b):
        return negative(b)
    return _exact_sum(a, b, -1) or _rounded(
        lambda: a.middles - b.middles, lambda: a.radii + b.radii
    )


def multiply(a: BoundedEntries, b: BoundedEntries) -> BoundedEntries | None:
    """Return a b; None if an entry is too large for a float."""
    if a.exact and b.exact:
        bottom = a.exact.denominator * b.exact.denominator
        if a.exact.size * b.exact.size < MOST_EXACT and bottom < MOST_EXACT:
            return from_common(a.exact.numerators * b.exact.numerators, bottom)
    if _is_zero(a) or _is_zero(b):
        return from_common(np.zeros(max(len(a), len(b)), dtype=np.int64))
    return _rounded(
        lambda: a.middles * b.middles,
        lambda: np.abs(a.middles) * b.radii + a.radii * (np.abs(b.middles) + b.radii),
    )


def divide(a: BoundedEntries, b: BoundedEntries) -> BoundedEntries | None:
    """Return a / b; None if a divisor may be 0 or an entry is too large for a float."""
    if a.exact and b.exact and b.exact.size and len(b) == 1:
        top = int(b.exact.numerators[0])
        turned = b.exact.denominator if top > 0 else -b.exact.denominator
        bottom = a.exact.denominator * abs(top)
        if a.exact.size * b.exact.denominator < MOST_EXACT and bottom < MOST_EXACT:
            return from_common(a.exact.numerators * turned, bottom)
    least = np.abs(b.middles) - b.radii
    if not bool((least > 0).all()):
        return None
    quotients = a.middles / b.middles
    return _rounded(
        lambda: quotients,
        lambda: (a.radii + (1 + 4 * ROUNDING) * np.abs(quotients) * b.radii) / least,
    )


def negative(a: BoundedEntries) -> BoundedEntries:
    """Return -a."""
    exact = None if a.exact is None else Common(-a.exact.numerators, a.exact.denominator)
    return BoundedEntries(-a.middles, a.bounds, exact)


def _is_zero(a: BoundedEntries) -> bool:
    """Check whether all entries are known to be 0."""
    return a.exact is not None and not a.exact.size


def _exact_sum(a: BoundedEntries, b: BoundedEntries, sign: int) -> BoundedEntries | None:
    if not (a.exact and b.exact):
        return None
    bottom = lcm(a.exact.denominator, b.exact.denominator)
    first, second = bottom // a.exact.denominator, bottom // b.exact.denominator
    if bottom >= MOST_EXACT or a.exact.size * first + b.exact.size * second >= MOST_EXACT:
        return None
    return from_common(a.exact.numerators * first + sign * second * b.exact.numerators, bottom)


def _rounded(compute: Callable[[], Floats], radii: Callable[[], Floats]) -> BoundedEntries | None:
    with np.errstate(over="ignore", invalid="ignore"):
        middles = compute()
        if not are_finite(middles):
            return None
    return BoundedEntries(middles, Later(lambda: outward(radii() + ROUNDING * np.abs(middles))))
