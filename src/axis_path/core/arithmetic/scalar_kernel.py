"""Enclosures of single numbers, compiled: what the kernel does with one column."""

from __future__ import annotations

import math

import numpy as np
from numba import njit

from axis_path.core.arithmetic import enclosure
from axis_path.core.arithmetic.opcodes import (
    ABSOLUTE,
    ARCCOSINE,
    ARCSINE,
    ARCTANGENT,
    CEILING,
    DECIMAL_LOGARITHM,
    FLOOR,
    HYPERBOLIC_COSINE,
    HYPERBOLIC_SINE,
    HYPERBOLIC_TANGENT,
    MAXIMUM,
    MINIMUM,
    NEGATIVE,
    SIGN,
    TANGENT,
)

PARTIAL, NOWHERE, BROKEN = 1, 2, 4


ULP, _LIBRARY = enclosure.ONE_ULP, enclosure.LIBRARY_ERROR


LEAST, _MOST = 1e-307, float(np.finfo(np.float64).max)


INF = math.inf


_TURN = 1 / (2 * math.pi)
#: Beyond the first exp overflows, beyond the second sinh and cosh do.
_LARGEST_EXPONENT, _LARGEST_HYPERBOLIC = 709.782712893384, 710.4758600739439


_LN10 = (2.302585092994045, 2.302585092994046)


#: Powers up to this are products of few factors, with an error of a few roundings.
_LARGEST_PRODUCT = 8


scalar = njit(cache=True, error_model="numpy")


@scalar
def below(low, error):
    lower = low - (abs(low) * error + LEAST)
    if lower != lower:
        return _MOST if low == INF else -INF
    return lower


@scalar
def above(high, error):
    upper = high + (abs(high) * error + LEAST)
    if upper != upper:
        return -_MOST if high == -INF else INF
    return upper


@scalar
def product(a, b, c, d):
    one, two, three, four = a * c, a * d, b * c, b * d
    if one + two + three + four != one + two + three + four:
        # 0 times an unbounded end is 0: the bound is never attained, the zero is.
        one = 0.0 if one != one else one
        two = 0.0 if two != two else two
        three = 0.0 if three != three else three
        four = 0.0 if four != four else four
    low = min(min(one, two), min(three, four))
    high = max(max(one, two), max(three, four))
    return below(low, ULP), above(high, ULP)


@scalar
def reciprocal(low, high):
    if not (low <= 0 and high >= 0):
        return below(1 / high, ULP), above(1 / low, ULP), 0
    flag = PARTIAL
    inside = low < 0 < high
    if inside:
        flag |= BROKEN
    if low == 0 and high == 0:
        flag |= NOWHERE
    lower = -INF if inside or high == 0 else below(1 / high, ULP)
    upper = INF if inside or low == 0 else above(1 / low, ULP)
    return lower, upper, flag


@scalar
def _whole_power(base, n):
    if n > _LARGEST_PRODUCT:
        return base ** float(n)
    result = 1.0
    for _ in range(n):
        result *= base
    return result


@scalar
def integer_power(low, high, n):
    if n == 0:
        return 1.0, 1.0, 0
    size = abs(n)
    if size % 2 == 0:
        low, high = max(max(low, -high), 0.0), max(-low, high)
    # Products one after the other are off by as many roundings as there are factors.
    error = ULP if size <= 2 else _LIBRARY
    low, high = below(_whole_power(low, size), error), above(_whole_power(high, size), error)
    if size % 2 == 0:
        low = max(low, 0.0)
    return reciprocal(low, high) if n < 0 else (low, high, 0)


@scalar
def _odd_power(base, exponent):
    """Return the power that keeps the sign, and how far it may be off for its rounded exponent."""
    size = abs(base)
    power = size**exponent
    error = 0.0
    if 0 < size < INF:
        error = abs(math.log(size)) * exponent * ULP * power
    return (-power if base < 0 else power), error


@scalar
def root(low, high, numerator, denominator):
    flag = 0
    size = abs(numerator)
    is_even = denominator % 2 == 0
    if is_even:
        if low < 0:
            flag |= PARTIAL
        if high < 0:
            flag |= NOWHERE
        low, high = max(low, 0.0), max(high, 0.0)
    elif size % 2 == 0:
        low, high = max(max(low, -high), 0.0), max(-low, high)
    if size == 1 and denominator == 2:
        lower, upper = below(math.sqrt(low), ULP), above(math.sqrt(high), ULP)
    else:
        power, error = _odd_power(low, size / denominator)
        lower = below(power - error, _LIBRARY)
        power, error = _odd_power(high, size / denominator)
        upper = above(power + error, _LIBRARY)
    if is_even or size % 2 == 0:
        lower = max(lower, 0.0)
    if numerator < 0:
        lower, upper, more = reciprocal(lower, upper)
        flag |= more
    return lower, upper, flag


@scalar
def _exp(x):
    # Without a compiler, as just after a first start, Python raises where it would be infinite.
    return INF if x > _LARGEST_EXPONENT else math.exp(x)


@scalar
def _sinh(x):
    return INF if x > _LARGEST_HYPERBOLIC else -INF if x < -_LARGEST_HYPERBOLIC else math.sinh(x)


@scalar
def _cosh(x):
    return INF if abs(x) > _LARGEST_HYPERBOLIC else math.cosh(x)


@scalar
def exponential(low, high):
    return max(below(_exp(low), _LIBRARY), 0.0), above(_exp(high), _LIBRARY)


@scalar
def logarithm(low, high):
    flag = 0
    if low <= 0:
        flag |= PARTIAL
    if high <= 0:
        flag |= NOWHERE
    lower = math.log(low) if low > 0 else -INF
    upper = math.log(high) if high > 0 else -INF
    return below(lower, _LIBRARY), above(upper, _LIBRARY), flag


@scalar
def _power(a_low, a_high, b_low, b_high):
    if b_low == b_high and np.floor(b_low) == b_low and abs(b_low) < 1e9:
        return integer_power(a_low, a_high, int(b_low))
    log_low, log_high, flag = logarithm(a_low, a_high)
    low, high = product(b_low, b_high, log_low, log_high)
    low, high = exponential(low, high)
    if a_low <= 0 <= a_high:
        low = min(low, 0.0)
    whole = np.floor(b_high) >= b_low
    flag = PARTIAL if a_low <= 0 else 0
    if a_high < 0 and not whole:
        flag |= NOWHERE
    if a_low < 0 and whole:
        return -INF, INF, flag | BROKEN
    return low, high, flag


@scalar
def _holds_multiple(low, high, offset):
    margin = 1e-9 + 1e-15 * max(abs(low), abs(high))
    first = np.ceil((low - offset) * _TURN - margin)
    last = np.floor((high - offset) * _TURN + margin)
    return first <= last


@scalar
def _is_wild(low, high):
    return not (abs(low) < 1e8 and abs(high) < 1e8)


@scalar
def sine(low, high):
    if _is_wild(low, high):
        return -1.0, 1.0
    one, other = math.sin(low), math.sin(high)
    lower = -1.0 if _holds_multiple(low, high, -math.pi / 2) else min(one, other)
    upper = 1.0 if _holds_multiple(low, high, math.pi / 2) else max(one, other)
    return max(below(lower, _LIBRARY), -1.0), min(above(upper, _LIBRARY), 1.0)


@scalar
def cosine(low, high):
    if _is_wild(low, high):
        return -1.0, 1.0
    one, other = math.cos(low), math.cos(high)
    lower = -1.0 if _holds_multiple(low, high, math.pi) else min(one, other)
    upper = 1.0 if _holds_multiple(low, high, 0.0) else max(one, other)
    return max(below(lower, _LIBRARY), -1.0), min(above(upper, _LIBRARY), 1.0)


@scalar
def _tangent(low, high):
    if (
        _is_wild(low, high)
        or _holds_multiple(low, high, math.pi / 2)
        or _holds_multiple(low, high, -math.pi / 2)
    ):
        return -INF, INF, PARTIAL | BROKEN
    return below(math.tan(low), _LIBRARY), above(math.tan(high), _LIBRARY), 0


@scalar
def _arc(low, high):
    """Cut to [-1, 1], with the flags of what lies outside."""
    flag = 0
    if low < -1 or high > 1:
        flag |= PARTIAL
    if low > 1 or high < -1:
        flag |= NOWHERE
    return min(max(low, -1.0), 1.0), min(max(high, -1.0), 1.0), flag


@scalar
def unary(code, low, high):
    """Enclose a function of one argument; its own flags come last."""
    if code == NEGATIVE:
        return -high, -low, 0
    if code == ABSOLUTE:
        return max(max(low, -high), 0.0), max(-low, high), 0
    if code == SIGN:
        low, high = np.sign(low), np.sign(high)
        return low, high, (BROKEN if low != high else 0)
    if code == FLOOR:
        low, high = np.floor(low), np.floor(high)
        return low, high, (BROKEN if low != high else 0)
    if code == CEILING:
        low, high = np.ceil(low), np.ceil(high)
        return low, high, (BROKEN if low != high else 0)
    if code == TANGENT:
        return _tangent(low, high)
    if code == ARCSINE:
        low, high, flag = _arc(low, high)
        return below(math.asin(low), _LIBRARY), above(math.asin(high), _LIBRARY), flag
    if code == ARCCOSINE:
        low, high, flag = _arc(low, high)
        return below(math.acos(high), _LIBRARY), above(math.acos(low), _LIBRARY), flag
    if code == ARCTANGENT:
        return below(math.atan(low), _LIBRARY), above(math.atan(high), _LIBRARY), 0
    if code == HYPERBOLIC_SINE:
        return below(_sinh(low), _LIBRARY), above(_sinh(high), _LIBRARY), 0
    if code == HYPERBOLIC_COSINE:
        low, high = max(max(low, -high), 0.0), max(-low, high)
        return (
            max(below(_cosh(low), _LIBRARY), 1.0), above(_cosh(high), _LIBRARY), 0,
        )  # fmt: skip
    if code == HYPERBOLIC_TANGENT:
        return below(math.tanh(low), _LIBRARY), above(math.tanh(high), _LIBRARY), 0
    if code == DECIMAL_LOGARITHM:
        low, high, flag = logarithm(low, high)
        low, high = product(low, high, below(1 / _LN10[1], ULP), above(1 / _LN10[0], ULP))
        return low, high, flag
    return -INF, INF, PARTIAL | BROKEN


@scalar
def binary(code, a, b, c, d):
    """Enclose an operation on [a, b] and [c, d]; its own flags come last."""
    if code == MINIMUM:
        return min(a, c), min(b, d), 0
    if code == MAXIMUM:
        return max(a, c), max(b, d), 0
    return _power(a, b, c, d)
