"""Functions on float64 arrays that NumPy lacks or treats otherwise; NaN where undefined.

Whole-number functions are exact as far as floats are: they go through Python's integers.
"""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray
from scipy import special

from axis_path.core.arithmetic import messages

Floats = NDArray[np.float64]

#: n! for every n whose factorial is a float.
FACTORIALS = np.array([float(math.factorial(n)) for n in range(171)])


def is_whole(a: Floats) -> NDArray[np.bool_]:
    """Return which numbers are whole."""
    with np.errstate(invalid="ignore"):
        return np.asarray(np.isfinite(a) & (np.floor(a) == a))


def _from_positive(logarithms: Floats, a: Floats) -> Floats:
    # Of a negative number they are NaN already.
    # (Counting what is not zero is the quickest of the ways to find one.)
    return logarithms if np.count_nonzero(a) == a.size else np.where(a == 0, np.nan, logarithms)


def logarithm(a: Floats) -> Floats:
    """Return ln a; NaN for a <= 0, where NumPy gives -inf at 0."""
    return _from_positive(np.log(a), a)


def decimal_logarithm(a: Floats) -> Floats:
    """Return the logarithm to base 10."""
    return _from_positive(np.log10(a), a)


def inverse_tanh(a: Floats) -> Floats:
    """Return artanh a; NaN at -1 and 1."""
    return np.where(np.abs(a) < 1, np.arctanh(a), np.nan)


def angle_of(y: Floats, x: Floats) -> Floats:
    """Return the angle of the point (x, y) in radians, over -pi and up to pi; NaN at (0, 0)."""
    # Adding 0 turns -0 into 0: the angle of (-1, -0) is pi.
    return np.where((x == 0) & (y == 0), np.nan, np.arctan2(y + 0.0, x + 0.0))


def factorial(a: Floats) -> Floats:
    """Return a! for whole a >= 0; inf beyond all floats."""
    known = is_whole(a) & (a >= 0)
    argument = np.where(known, np.minimum(a, 171), 0).astype(np.int64)
    values = np.append(FACTORIALS, np.inf)[argument]
    return np.where(known, values, np.nan)


def gamma(a: Floats) -> Floats:
    """Return the gamma function; NaN at its poles."""
    return np.where(is_whole(a) & (a <= 0), np.nan, special.gamma(a))


def digamma(a: Floats) -> Floats:
    """Return the digamma function; NaN at its poles."""
    return np.where(is_whole(a) & (a <= 0), np.nan, special.digamma(a))


def error_function(a: Floats) -> Floats:
    """Return erf a."""
    return np.asarray(special.erf(a))


def _on_whole(function: Callable[[int, int], int]) -> Callable[[Floats, Floats], Floats]:
    def nearest(a: float, b: float) -> float:
        if not (math.isfinite(a) and math.isfinite(b) and a == int(a) and b == int(b)):
            return math.nan
        try:
            return float(function(int(a), int(b)))
        except OverflowError:
            return math.inf
        except ValueError:
            return math.nan

    over_arrays = np.frompyfunc(nearest, 2, 1)
    return lambda a, b: np.asarray(over_arrays(a, b), dtype=np.float64)


def choose(n: int, k: int) -> int:
    """Return the number of ways to take k of n things.

    Raises:
        ValueError: n is negative. OverflowError: the number is larger than any float.
    """
    if n < 0:
        raise ValueError(messages.NUMBER_THINGS_NEGATIVE)
    k = min(k, n - k)
    if k < 0:
        return 0
    # C(n, k) >= (n/k)^k: what is surely no float is not worked out.
    if k and k * math.log(max(n, 1) / k) > 720:
        raise OverflowError
    return math.comb(n, k)


binomial = _on_whole(choose)
common_divisor = _on_whole(math.gcd)
common_multiple = _on_whole(math.lcm)
