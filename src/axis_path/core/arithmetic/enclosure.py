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
LIBRARY_ERROR = 8 * np.finfo(np.float64).eps


@dataclass(frozen=True, slots=True)
class Enclosure:
    """Bounds and flags for n columns; every field is an array of shape (n,) or ()."""

    low: Floats
    high: Floats
    partial: Flags = NO
    nowhere: Flags = NO
    broken: Flags = NO

    def with_flags(self, *others: Enclosure) -> Enclosure:
        """Add the flags of what this enclosure was computed from."""
        partial, nowhere, broken = self.partial, self.nowhere, self.broken
        for other in others:
            partial = partial | other.partial
            nowhere = nowhere | other.nowhere
            broken = broken | other.broken
        return Enclosure(self.low, self.high, partial, nowhere, broken)


def between(low: Floats, high: Floats) -> Enclosure:
    """Give the columns ``[low, high]`` themselves."""
    return Enclosure(np.asarray(low, dtype=np.float64), np.asarray(high, dtype=np.float64))


def constant(low: float, high: float) -> Enclosure:
    """Give one interval for all columns."""
    return Enclosure(np.float64(low) + np.zeros(()), np.float64(high) + np.zeros(()))


def outward(low: Floats, high: Floats, *sources: Enclosure) -> Enclosure:
    """Round outward by one step; inf - inf and the like become unbounded."""
    low = np.where(np.isnan(low), -np.inf, np.nextafter(low, -np.inf))
    high = np.where(np.isnan(high), np.inf, np.nextafter(high, np.inf))
    return Enclosure(low, high).with_flags(*sources)


def library(low: Floats, high: Floats, *sources: Enclosure) -> Enclosure:
    """Round outward by what a library function may be wrong."""
    with np.errstate(invalid="ignore"):
        low = np.where(np.isinf(low), low, low - LIBRARY_ERROR * np.abs(low))
        high = np.where(np.isinf(high), high, high + LIBRARY_ERROR * np.abs(high))
    return outward(low, high, *sources)


def add(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose a + b."""
    return outward(a.low + b.low, a.high + b.high, a, b)


def subtract(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose a - b."""
    return outward(a.low - b.high, a.high - b.low, a, b)


def negative(a: Enclosure) -> Enclosure:
    """Enclose -a."""
    return replace(a, low=-a.high, high=-a.low)


def _products(a: Enclosure, b: Enclosure) -> tuple[Floats, Floats]:
    corners = [a.low * b.low, a.low * b.high, a.high * b.low, a.high * b.high]
    # 0 times an unbounded end is 0: the bound is never attained, the zero is.
    corners = [np.where(np.isnan(corner), 0.0, corner) for corner in corners]
    low = np.minimum(np.minimum(corners[0], corners[1]), np.minimum(corners[2], corners[3]))
    high = np.maximum(np.maximum(corners[0], corners[1]), np.maximum(corners[2], corners[3]))
    return low, high


def multiply(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose a b."""
    return outward(*_products(a, b), a, b)


def reciprocal(a: Enclosure) -> Enclosure:
    """Enclose 1/a; a pole strictly inside makes the column broken."""
    inside = (a.low < 0) & (a.high > 0)
    touches = (a.low <= 0) & (a.high >= 0)
    low = np.where(inside | (a.high == 0), -np.inf, 1 / np.where(a.high == 0, 1.0, a.high))
    high = np.where(inside | (a.low == 0), np.inf, 1 / np.where(a.low == 0, 1.0, a.low))
    result = outward(low, high, a)
    return replace(
        result,
        partial=result.partial | touches,
        nowhere=result.nowhere | ((a.low == 0) & (a.high == 0)),
        broken=result.broken | inside,
    )


def divide(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose a / b."""
    return multiply(a, reciprocal(b))


def absolute(a: Enclosure) -> Enclosure:
    """Enclose |a|."""
    across = (a.low <= 0) & (a.high >= 0)
    low = np.where(across, 0.0, np.minimum(np.abs(a.low), np.abs(a.high)))
    return replace(a, low=low, high=np.maximum(np.abs(a.low), np.abs(a.high)))


def integer_power(a: Enclosure, n: int) -> Enclosure:
    """Enclose a^n for a fixed whole n; a^0 is 1."""
    if n == 0:
        one = np.ones(np.shape(a.low))
        return Enclosure(one, one).with_flags(a)
    if n < 0:
        return reciprocal(integer_power(a, -n))
    base = absolute(a) if n % 2 == 0 else a
    result = library(base.low**n, base.high**n, a)
    return replace(result, low=np.maximum(result.low, 0.0)) if n % 2 == 0 else result


def root(a: Enclosure, numerator: int, denominator: int) -> Enclosure:
    """Enclose a^(numerator/denominator), in lowest terms; the real root for odd denominators."""
    if numerator < 0:
        return reciprocal(root(a, -numerator, denominator))
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
    """Enclose the square root of a."""
    return root(a, 1, 2)


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
    result = library(np.exp(a.low), np.exp(a.high), a)
    return replace(result, low=np.maximum(result.low, 0.0))


def logarithm(a: Enclosure) -> Enclosure:
    """Enclose the natural logarithm."""
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


def _holds_multiple(a: Enclosure, offset: float) -> Flags:
    """Tell the columns that may hold ``offset + 2 pi k`` for a whole k."""
    # The margin covers the rounding of the quotient; beyond 1e8 nothing is told apart.
    margin = 1e-9 + 1e-15 * np.maximum(np.abs(a.low), np.abs(a.high))
    with np.errstate(invalid="ignore"):
        first = np.ceil((a.low - offset) / (2 * np.pi) - margin)
        last = np.floor((a.high - offset) / (2 * np.pi) + margin)
        return np.asarray(~(first > last))


def sine(a: Enclosure) -> Enclosure:
    """Enclose sin a."""
    wild = ~((np.abs(a.low) < 1e8) & (np.abs(a.high) < 1e8))
    with np.errstate(invalid="ignore"):
        one, other = np.sin(a.low), np.sin(a.high)
    low = np.where(wild | _holds_multiple(a, -np.pi / 2), -1.0, np.minimum(one, other))
    high = np.where(wild | _holds_multiple(a, np.pi / 2), 1.0, np.maximum(one, other))
    result = library(low, high, a)
    return replace(result, low=np.maximum(result.low, -1.0), high=np.minimum(result.high, 1.0))


def cosine(a: Enclosure) -> Enclosure:
    """Enclose cos a."""
    wild = ~((np.abs(a.low) < 1e8) & (np.abs(a.high) < 1e8))
    with np.errstate(invalid="ignore"):
        one, other = np.cos(a.low), np.cos(a.high)
    low = np.where(wild | _holds_multiple(a, np.pi), -1.0, np.minimum(one, other))
    high = np.where(wild | _holds_multiple(a, 0.0), 1.0, np.maximum(one, other))
    result = library(low, high, a)
    return replace(result, low=np.maximum(result.low, -1.0), high=np.minimum(result.high, 1.0))


def tangent(a: Enclosure) -> Enclosure:
    """Enclose tan a; a pole inside makes the column broken."""
    wild = ~((np.abs(a.low) < 1e8) & (np.abs(a.high) < 1e8))
    pole = wild | _holds_multiple(a, np.pi / 2) | _holds_multiple(a, -np.pi / 2)
    with np.errstate(invalid="ignore"):
        result = library(
            np.where(pole, -np.inf, np.tan(a.low)), np.where(pole, np.inf, np.tan(a.high)), a
        )
    return replace(result, partial=result.partial | pole, broken=result.broken | pole)


def _clipped(a: Enclosure) -> tuple[Enclosure, Flags, Flags]:
    """Cut to [-1, 1], with the columns partly and wholly outside."""
    inner = replace(a, low=np.clip(a.low, -1, 1), high=np.clip(a.high, -1, 1))
    return inner, (a.low < -1) | (a.high > 1), (a.low > 1) | (a.high < -1)


def arcsine(a: Enclosure) -> Enclosure:
    """Enclose arcsin a, in radians."""
    inner, partly, wholly = _clipped(a)
    result = library(np.arcsin(inner.low), np.arcsin(inner.high), a)
    return replace(result, partial=result.partial | partly, nowhere=result.nowhere | wholly)


def arccosine(a: Enclosure) -> Enclosure:
    """Enclose arccos a, in radians."""
    inner, partly, wholly = _clipped(a)
    result = library(np.arccos(inner.high), np.arccos(inner.low), a)
    return replace(result, partial=result.partial | partly, nowhere=result.nowhere | wholly)


def arctangent(a: Enclosure) -> Enclosure:
    """Enclose arctan a, in radians."""
    return library(np.arctan(a.low), np.arctan(a.high), a)


def hyperbolic_sine(a: Enclosure) -> Enclosure:
    """Enclose sinh a."""
    return library(np.sinh(a.low), np.sinh(a.high), a)


def hyperbolic_cosine(a: Enclosure) -> Enclosure:
    """Enclose cosh a."""
    size = absolute(a)
    result = library(np.cosh(size.low), np.cosh(size.high), a)
    return replace(result, low=np.maximum(result.low, 1.0))


def hyperbolic_tangent(a: Enclosure) -> Enclosure:
    """Enclose tanh a."""
    return library(np.tanh(a.low), np.tanh(a.high), a)


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
