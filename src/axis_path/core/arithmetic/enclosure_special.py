"""Enclosures of functions beyond the elementary ones.

Functions of whole numbers are defined at single places only: a column that is more than one number
is never wholly inside their domain, and its bounds are then loose.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache

import numpy as np
from scipy import special

from axis_path.core.arithmetic import floats
from axis_path.core.arithmetic.enclosure import Enclosure, Flags, Floats, library, outward

#: How far SciPy's gamma and digamma may be off, measured against 60 digits with room to spare.
_SPECIAL_ERROR = 1e-12
#: Gamma is least here among positive numbers; between its poles it turns once.
_GAMMA_TURN = 1.4616321449683622
_FARTHEST_TURN = 180


def inverse_sinh(a: Enclosure) -> Enclosure:
    """Enclose arsinh a."""
    return library(np.arcsinh(a.low), np.arcsinh(a.high), a)


def inverse_cosh(a: Enclosure) -> Enclosure:
    """Enclose arcosh a."""
    low, high = (np.arccosh(np.maximum(end, 1.0)) for end in (a.low, a.high))
    result = library(low, high, a)
    return replace(
        result,
        low=np.maximum(result.low, 0.0),
        partial=result.partial | (a.low < 1),
        nowhere=result.nowhere | (a.high < 1),
    )


def inverse_tanh(a: Enclosure) -> Enclosure:
    """Enclose artanh a."""
    result = library(np.arctanh(np.clip(a.low, -1, 1)), np.arctanh(np.clip(a.high, -1, 1)), a)
    return replace(
        result,
        partial=result.partial | (a.low <= -1) | (a.high >= 1),
        nowhere=result.nowhere | (a.low >= 1) | (a.high <= -1),
    )


def error_function(a: Enclosure) -> Enclosure:
    """Enclose erf a."""
    result = library(special.erf(a.low), special.erf(a.high), a)
    return replace(result, low=np.maximum(result.low, -1.0), high=np.minimum(result.high, 1.0))


def angle_of(y: Enclosure, x: Enclosure) -> Enclosure:
    """Enclose the angle of the point (x, y); it jumps where y passes 0 at a negative x."""
    corners = [
        np.arctan2(b + 0.0, a + 0.0) for a in (x.low, x.high) for b in (y.low, y.high)
    ]  # fmt: skip
    jumps = (x.low < 0) & (y.low < 0) & (y.high >= 0)
    origin = (x.low <= 0) & (x.high >= 0) & (y.low <= 0) & (y.high >= 0)
    wild = jumps | origin
    low = np.where(wild, -np.pi, np.minimum.reduce(corners))
    high = np.where(wild, np.pi, np.maximum.reduce(corners))
    result = library(low, high, y, x)
    single = (x.low == 0) & (x.high == 0) & (y.low == 0) & (y.high == 0)
    return replace(
        result,
        partial=result.partial | origin,
        nowhere=result.nowhere | single,
        broken=result.broken | wild,
    )


@lru_cache(maxsize=1)
def _turns() -> tuple[Floats, Floats]:
    """Return where gamma turns between its poles, from (-1, 0) on, and its values there."""
    # It takes a quarter of a second to load, and is hardly ever needed.
    from scipy.optimize import brentq

    turns = [brentq(special.digamma, -n - 1 + 1e-9, -n - 1e-9) for n in range(_FARTHEST_TURN)]
    return np.array(turns), special.gamma(np.array(turns))


def _special(low: Floats, high: Floats, a: Enclosure) -> Enclosure:
    with np.errstate(invalid="ignore"):
        low = np.where(np.isinf(low), low, low - _SPECIAL_ERROR * (np.abs(low) + 1e-300))
        high = np.where(np.isinf(high), high, high + _SPECIAL_ERROR * (np.abs(high) + 1e-300))
    return outward(low, high, a)


def _holds_pole(a: Enclosure) -> Flags:
    return np.asarray((a.low <= 0) & (np.floor(np.minimum(a.high, 0.0)) >= a.low))


def _at_poles(result: Enclosure, a: Enclosure, pole: Flags) -> Enclosure:
    single = pole & (a.low == a.high)
    return replace(
        result,
        low=np.where(pole, -np.inf, result.low),
        high=np.where(pole, np.inf, result.high),
        partial=result.partial | pole,
        nowhere=result.nowhere | single,
        broken=result.broken | (pole & ~single),
    )


def gamma(a: Enclosure) -> Enclosure:
    """Enclose the gamma function: between two poles it turns once."""
    pole = _holds_pole(a)
    one, other = special.gamma(a.low), special.gamma(a.high)
    turns, values = _turns()
    number = np.clip(-np.floor(a.low) - 1, 0, _FARTHEST_TURN - 1).astype(np.int64)
    turn = np.where(a.low > 0, _GAMMA_TURN, turns[number])
    at_turn = np.where(a.low > 0, special.gamma(_GAMMA_TURN), values[number])
    inside = (a.low < turn) & (turn < a.high)
    extra = np.where(inside, at_turn, one)
    low, high = np.minimum(np.minimum(one, other), extra), np.maximum(np.maximum(one, other), extra)
    # So far to the left it is 0 for floats, and its turns are not in the table.
    far = a.low < -_FARTHEST_TURN + 1
    low, high = np.where(far, -1e-300, low), np.where(far, 1e-300, high)
    return _at_poles(_special(low, high, a), a, pole)


def digamma(a: Enclosure) -> Enclosure:
    """Enclose the digamma function: between two poles it rises."""
    low, high = special.digamma(a.low), special.digamma(a.high)
    # Near its zeros only the absolute error is small.
    room = 1e-13 + 1e-13 * np.abs(a.low)
    return _at_poles(_special(low - room, high + room, a), a, _holds_pole(a))


def _only_single(fast: Callable[..., Floats], low: float, *sources: Enclosure) -> Enclosure:
    """Enclose a function of whole numbers: exact on single numbers, unbounded on wider columns."""
    single: Flags = np.bool_(True)
    holds_whole: Flags = np.bool_(True)
    for source in sources:
        single = single & (source.low == source.high)
        holds_whole = holds_whole & (np.floor(source.high) >= source.low)
    values = fast(*(source.low for source in sources))
    missing = np.isnan(values)
    known = single & ~missing
    # Whole numbers up to 2^53 are floats themselves; larger ones are rounded.
    slack = np.where(np.abs(values) < 2.0**53, 0.0, _SPECIAL_ERROR * np.abs(values))
    bottom = np.where(np.isinf(values), np.finfo(np.float64).max, values - slack)
    result = Enclosure(
        np.where(known, bottom, low), np.where(known, values + slack, np.inf)
    ).with_flags(*sources)
    return replace(
        result,
        partial=result.partial | ~known,
        nowhere=result.nowhere | (single & missing) | ~holds_whole,
        broken=result.broken | ~single,
    )


def factorial(a: Enclosure) -> Enclosure:
    """Enclose a!."""
    result = _only_single(floats.factorial, 1.0, a)
    return replace(result, nowhere=result.nowhere | (a.high < 0))


def binomial(n: Enclosure, k: Enclosure) -> Enclosure:
    """Enclose the number of ways to take k of n things."""
    return _only_single(floats.binomial, 0.0, n, k)


def common_divisor(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose the greatest common divisor."""
    return _only_single(floats.common_divisor, 0.0, a, b)


def common_multiple(a: Enclosure, b: Enclosure) -> Enclosure:
    """Enclose the least common multiple."""
    return _only_single(floats.common_multiple, 0.0, a, b)
