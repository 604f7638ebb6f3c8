"""Intervals over NumPy arrays: for each column of the picture, all values a function may take.

An enclosure of n columns is a pair of arrays ``low``, ``high`` and three flags per column:

* ``partial``: the function may be undefined somewhere in the column;
* ``nowhere``: it is undefined in the whole column (its bounds then mean nothing);
* ``broken``: it may be discontinuous in the column, where it is defined.

The flags err on the safe side: a column without them is proved to be defined and continuous.
Bounds are rounded outward: by one step of ``nextafter`` for the four operations, by a few units in
the last place for library functions, whose error NumPy keeps below 4.

Source: Moore, Kearfott, Cloud, *Introduction to Interval Analysis*, chapters 2 to 5.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_] | np.bool_

NO = np.bool_(False)
ONE_ULP = float(np.finfo(np.float64).eps)
LIBRARY_ERROR = 8 * ONE_ULP
#: Powers up to this are products of few factors, with an error of a few roundings.
_LARGEST_PRODUCT = 8
#: More than the unit in the last place of the smallest floats, and the largest float.
_LEAST, _MOST = 1e-307, float(np.finfo(np.float64).max)


@dataclass(frozen=True, slots=True)
class Enclosure:
    """Bounds and flags for n columns; every field is an array of shape (n,) or ()."""

    low: Floats
    high: Floats
    partial: Flags = NO
    nowhere: Flags = NO
    broken: Flags = NO

    def part(self, chosen: slice) -> Enclosure:
        """Return some of the columns; every field has shape (n,)."""
        return Enclosure(
            self.low[chosen], self.high[chosen], np.asarray(self.partial)[chosen],
            np.asarray(self.nowhere)[chosen], np.asarray(self.broken)[chosen],
        )  # fmt: skip

    def with_flags(self, *others: Enclosure) -> Enclosure:
        """Add the flags of what this enclosure was computed from."""
        partial, nowhere, broken = self.partial, self.nowhere, self.broken
        for other in others:
            # Most enclosures have no flags at all, and share the one that says so.
            partial = partial if other.partial is NO else partial | other.partial
            nowhere = nowhere if other.nowhere is NO else nowhere | other.nowhere
            broken = broken if other.broken is NO else broken | other.broken
        return Enclosure(self.low, self.high, partial, nowhere, broken)


def between(low: Floats, high: Floats) -> Enclosure:
    """Return the columns ``[low, high]`` themselves."""
    return Enclosure(np.asarray(low, dtype=np.float64), np.asarray(high, dtype=np.float64))


def constant(low: float, high: float) -> Enclosure:
    """Return one interval for all columns."""
    return Enclosure(np.float64(low) + np.zeros(()), np.float64(high) + np.zeros(()))


def outward(low: Floats, high: Floats, *sources: Enclosure) -> Enclosure:
    """Round outward by one unit in the last place; inf - inf and the like become unbounded."""
    return _widened(low, high, ONE_ULP).with_flags(*sources)


def library(low: Floats, high: Floats, *sources: Enclosure) -> Enclosure:
    """Round outward by what a library function may be wrong."""
    return _widened(low, high, LIBRARY_ERROR).with_flags(*sources)


def _widened(low: Floats, high: Floats, error: float) -> Enclosure:
    """Move both bounds outward by a relative error, and by the smallest amount there is."""
    room = np.abs(low)
    room = room * error + _LEAST
    lower = low - room
    room = np.abs(high)
    room = room * error + _LEAST
    upper = high + room
    # One sum tells whether anything is infinite or no number; nearly always nothing is.
    if not np.isfinite(lower.sum() + upper.sum()):
        # Infinity less infinity: the bound itself was infinite on the wrong side, or no number.
        if np.isnan(lower).any():
            lower = np.where(np.isnan(lower), np.where(low == np.inf, _MOST, -np.inf), lower)
        if np.isnan(upper).any():
            upper = np.where(np.isnan(upper), np.where(high == -np.inf, -_MOST, np.inf), upper)
    return Enclosure(lower, upper)


def add(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose a + b."""
    return outward(a.low + b.low, a.high + b.high, a, b)


def subtract(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose a - b."""
    return outward(a.low - b.high, a.high - b.low, a, b)


def negative(a: Enclosure) -> Enclosure:
    """Enclose -a."""
    return Enclosure(-a.high, -a.low, a.partial, a.nowhere, a.broken)


def _products(a: Enclosure, b: Enclosure) -> tuple[Floats, Floats]:
    for factor, other in ((a, b), (b, a)):
        if np.ndim(factor.low) == 0 and 0 <= factor.low <= factor.high < np.inf:
            # A positive number: the bounds keep their order.
            small, large = factor.low, factor.high
            if small == large:
                return other.low * small, other.high * small
    one, two, three, four = a.low * b.low, a.low * b.high, a.high * b.low, a.high * b.high
    low = np.minimum(np.minimum(one, two), np.minimum(three, four))
    if np.isnan(low.sum()):
        # 0 times an unbounded end is 0: the bound is never attained, the zero is.
        one, two, three, four = (
            np.where(np.isnan(corner), 0.0, corner) for corner in (one, two, three, four)
        )
        low = np.minimum(np.minimum(one, two), np.minimum(three, four))
    return low, np.maximum(np.maximum(one, two), np.maximum(three, four))


def multiply(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose a b."""
    if a is b:
        return integer_power(a, 2)
    return outward(*_products(a, b), a, b)


def reciprocal(a: Enclosure) -> Enclosure:
    """Enclose 1/a; a pole strictly inside makes the column broken."""
    low, high = 1 / a.high, 1 / a.low
    touches = (a.low <= 0) & (a.high >= 0)
    if not touches.any():
        return outward(low, high, a)
    inside = (a.low < 0) & (a.high > 0)
    result = outward(
        np.where(inside | (a.high == 0), -np.inf, low),
        np.where(inside | (a.low == 0), np.inf, high),
        a,
    )
    return Enclosure(
        result.low,
        result.high,
        result.partial | touches,
        result.nowhere | ((a.low == 0) & (a.high == 0)),
        result.broken | inside,
    )


def divide(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose a / b."""
    return multiply(a, reciprocal(b))


def absolute(a: Enclosure) -> Enclosure:
    """Enclose |a|."""
    low = np.maximum(np.maximum(a.low, -a.high), 0.0)
    return Enclosure(low, np.maximum(-a.low, a.high), a.partial, a.nowhere, a.broken)


def integer_power(a: Enclosure, n: int) -> Enclosure:
    """Enclose a^n for a fixed whole n; a^0 is 1."""
    if n == 0:
        one = np.ones(np.shape(a.low))
        return Enclosure(one, one).with_flags(a)
    if n < 0:
        return reciprocal(integer_power(a, -n))
    base = absolute(a) if n % 2 == 0 else a
    low, high = whole_power(base.low, n), whole_power(base.high, n)
    result = outward(low, high, a) if n <= 2 else library(low, high, a)
    return at_least(result, 0.0) if n % 2 == 0 else result


def whole_power(a: Floats, n: int) -> Floats:
    """Return a^n for n >= 1: small powers by products, which is much quicker and as near."""
    if n > _LARGEST_PRODUCT:
        return a**n
    result, square = None, a
    while n:
        if n % 2:
            result = square if result is None else result * square
        n //= 2
        square = square * square if n else square
    return a if result is None else result


def at_least(a: Enclosure, least: float) -> Enclosure:
    """Return an enclosure whose lower bound is at least a number."""
    return Enclosure(np.maximum(a.low, least), a.high, a.partial, a.nowhere, a.broken)


def root(a: Enclosure, numerator: int, denominator: int) -> Enclosure:
    """Enclose a^(numerator/denominator), in lowest terms; the real root for odd denominators."""
    if numerator < 0:
        return reciprocal(root(a, -numerator, denominator))
    if (numerator, denominator) == (1, 2):
        return square_root(a)
    if denominator % 2 == 0:
        positive = Enclosure(np.maximum(a.low, 0.0), np.maximum(a.high, 0.0)).with_flags(a)
        result = _root(positive, numerator, denominator)
        return replace(
            result,
            low=np.maximum(result.low, 0.0),
            partial=result.partial | (a.low < 0),
            nowhere=result.nowhere | (a.high < 0),
        )
    return _root(absolute(a) if numerator % 2 == 0 else a, numerator, denominator)


def _root(a: Enclosure, numerator: int, denominator: int) -> Enclosure:
    exponent = numerator / denominator
    low = np.sign(a.low) * np.abs(a.low) ** exponent
    high = np.sign(a.high) * np.abs(a.high) ** exponent
    # The exponent is rounded too, which weighs the more the further the base is from 1.
    low_error = _exponent_error(a.low, exponent) * np.abs(low)
    high_error = _exponent_error(a.high, exponent) * np.abs(high)
    return library(low - low_error, high + high_error, a)


def _exponent_error(base: Floats, exponent: float) -> Floats:
    size = np.abs(base)
    known = (size > 0) & np.isfinite(size)
    logarithm = np.log(np.where(known, size, 1.0))
    return np.abs(logarithm) * exponent * np.finfo(np.float64).eps


def square_root(a: Enclosure) -> Enclosure:
    """Enclose the square root of a; NumPy rounds it correctly."""
    low, high = np.sqrt(np.maximum(a.low, 0.0)), np.sqrt(np.maximum(a.high, 0.0))
    result = at_least(outward(low, high, a), 0.0)
    negative_too = a.low < 0
    if not negative_too.any():
        return result
    return Enclosure(
        result.low, result.high, result.partial | negative_too,
        result.nowhere | (a.high < 0), result.broken,
    )  # fmt: skip


def power(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose a^b for any exponent: whole exponents for every base, others for a > 0."""
    if np.ndim(b.low) == 0 and b.low == b.high and float(b.low).is_integer() and abs(b.low) < 1e9:
        return integer_power(a, int(b.low)).with_flags(b)
    result = exponential(multiply(b, logarithm(a)))
    # At a = 0 the power is 0 for b > 0; at a < 0 it is defined for whole b only.
    at_zero = (a.low <= 0) & (a.high >= 0)
    whole = np.floor(b.high) >= b.low
    low = np.where(at_zero, np.minimum(result.low, 0.0), result.low)
    wild = (a.low < 0) & whole
    return Enclosure(
        np.where(wild, -np.inf, low),
        np.where(wild, np.inf, result.high),
        result.partial | (a.low <= 0),
        a.nowhere | b.nowhere | ((a.high < 0) & ~whole),
        result.broken | wild,
    )


def exponential(a: Enclosure) -> Enclosure:
    """Enclose e^a."""
    return at_least(library(np.exp(a.low), np.exp(a.high), a), 0.0)


def logarithm(a: Enclosure) -> Enclosure:
    """Enclose the natural logarithm."""
    if (a.low > 0).all():
        return library(np.log(a.low), np.log(a.high), a)
    low = np.where(a.low > 0, np.log(np.where(a.low > 0, a.low, 1.0)), -np.inf)
    high = np.where(a.high > 0, np.log(np.where(a.high > 0, a.high, 1.0)), -np.inf)
    result = library(low, high, a)
    return replace(
        result,
        partial=result.partial | (a.low <= 0),
        nowhere=result.nowhere | (a.high <= 0),
    )


def decimal_logarithm(a: Enclosure) -> Enclosure:
    """Enclose the logarithm to base 10."""
    return divide(logarithm(a), constant(2.302585092994045, 2.302585092994046))


def _steps(low: Floats, high: Floats, a: Enclosure) -> Enclosure:
    result = Enclosure(low, high).with_flags(a)
    return replace(result, broken=result.broken | (low != high))


def floor(a: Enclosure) -> Enclosure:
    """Enclose the greatest whole number that is at most a."""
    return _steps(np.floor(a.low), np.floor(a.high), a)


def ceiling(a: Enclosure) -> Enclosure:
    """Enclose the smallest whole number that is at least a."""
    return _steps(np.ceil(a.low), np.ceil(a.high), a)


def sign(a: Enclosure) -> Enclosure:
    """Enclose the sign of a: -1, 0 or 1."""
    return _steps(np.sign(a.low), np.sign(a.high), a)


def minimum(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose the smaller of a and b."""
    return Enclosure(np.minimum(a.low, b.low), np.minimum(a.high, b.high)).with_flags(a, b)


def maximum(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose the greater of a and b."""
    return Enclosure(np.maximum(a.low, b.low), np.maximum(a.high, b.high)).with_flags(a, b)


def restrict(body: Enclosure, *, inside: Flags, outside: Flags) -> Enclosure:
    """Leave ``body`` only where a condition holds.

    Args:
        body: what is restricted.
        inside: columns where the condition is proved to hold throughout.
        outside: columns where it is proved to fail throughout.
    """
    return replace(body, partial=body.partial | ~inside, nowhere=body.nowhere | outside)


def join(parts: list[tuple[Flags, Enclosure]], covered: Flags) -> Enclosure:
    """Join enclosures of which, in each column, some may hold.

    Args:
        parts: for each, the columns in which it may hold.
        covered: the columns in which one of them holds throughout.
    """
    low: Floats = np.full((), np.inf)
    high: Floats = np.full((), -np.inf)
    partial: Flags = ~covered
    broken: Flags = NO
    some: Flags = NO
    count: NDArray[np.int64] = np.zeros((), dtype=np.int64)
    for possible, part in parts:
        held = possible & ~part.nowhere
        low = np.where(held, np.minimum(low, part.low), low)
        high = np.where(held, np.maximum(high, part.high), high)
        partial = partial | (possible & (part.partial | part.nowhere))
        broken = broken | (possible & part.broken)
        some = some | held
        count = count + possible
    return Enclosure(
        np.where(some, low, 0.0), np.where(some, high, 0.0), partial, ~some, broken | (count > 1)
    )
