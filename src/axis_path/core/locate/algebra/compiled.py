"""What is asked of every zero of every frame, compiled."""

from __future__ import annotations

import numpy as np
from numba import njit

#: Beyond this floats do not give the convergents of a number well enough; nor after such a rest.
_LARGEST_QUICK, _LEAST_REST = 1_000.0, 1e-9


@njit("b1[::1](f8[::1], f8[::1], f8)", cache=True, error_model="numpy")
def may_hold_simple(lows, highs, largest):
    """Check quickly whether each [low, high] may hold a fraction with a small denominator.

    A fraction p/q that is nearer to x than 1/(2 q^2) is a convergent of the continued fraction of
    x (Legendre), and floats give those well enough.

    Source: Hardy and Wright, *An Introduction to the Theory of Numbers*, theorem 184.
    """
    flags = np.empty(len(lows), dtype=np.bool_)
    for k in range(len(lows)):
        x, width = (lows[k] + highs[k]) / 2, highs[k] - lows[k]
        flags[k] = True
        if abs(x) > _LARGEST_QUICK or not 4 * width * largest * largest < 1:
            continue
        p, q, p_before, q_before = 1.0, 0.0, 0.0, 1.0
        rest = x
        while True:
            whole = np.floor(rest)
            p, q, p_before, q_before = whole * p + p_before, whole * q + q_before, p, q
            if q > largest:
                flags[k] = False
                break
            rest -= whole
            if abs(p / q - x) <= width or rest < _LEAST_REST:
                break
            rest = 1 / rest
    return flags


@njit(
    "Tuple((i8[::1], b1[::1], b1[::1]))(f8[::1], f8[::1], f8, f8)", cache=True, error_model="numpy"
)
def holding_simple(lows, highs, largest, largest_of_pi):
    """Find, quickly, the brackets that may hold a simple fraction, or a simple multiple of pi.

    Args:
        lows: where they begin, (n,); ``highs`` where they end.
        largest: denominators of fractions are no larger.
        largest_of_pi: those of multiples of pi likewise.

    Returns:
        The places of such brackets, and of each whether it may hold the one and the other.
    """
    # The quotients by the float that is nearest to pi are off by less than this part of them.
    room = 1e-15 * np.maximum(np.abs(lows), np.abs(highs))
    fractions = may_hold_simple(lows, highs, largest)
    turns = may_hold_simple(lows / np.pi - room, highs / np.pi + room, largest_of_pi)
    indices = np.flatnonzero(fractions | turns)
    return indices, fractions[indices], turns[indices]
