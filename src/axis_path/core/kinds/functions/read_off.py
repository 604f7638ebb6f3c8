"""The value of a function at one place, in figures that are right; floats tell most of them."""

from __future__ import annotations

from fractions import Fraction

import numpy as np

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.evaluate import RealFunction, decimal_text, digits_between, float_bounds

#: So many figures are read off.
READING_DIGITS = 5
#: Of values between these all figures that are read stand without a power of ten.
_LEAST_USUAL, _MOST_USUAL = 1e-3, 1e4
#: Floats that are nearer to an end, relative to it, may be indistinguishable from it.
_NEAR_END = 1e-12


def read_value(function: RealFunction, x: Fraction) -> tuple[str, float]:
    """Return a value as a text, empty without one, and as a float."""
    text, y = quickly_read(function, x)
    if text:
        return text, y
    return proved_reading(function, x), float(function.sample(np.array([float(x)]))[0])


def quickly_read(function: RealFunction, x: Fraction) -> tuple[str, float]:
    """Read a value off its enclosure by floats; an empty text if that does not tell its digits.

    A last figure of 0 may be one that an exact value is written without, and beside an end of the
    domain floats are too coarse: then it is proved with more digits.
    """
    low, high = float_bounds(x)
    if not _is_clear_inside(function, low):
        return "", 0.0
    enclosure = function.enclose(np.array([low]), np.array([high]))
    if enclosure.partial[0] or enclosure.nowhere[0]:  # type: ignore[index]
        return "", 0.0
    bounds = float(enclosure.low[0]), float(enclosure.high[0])
    is_usual = all(_LEAST_USUAL < abs(bound) < _MOST_USUAL for bound in bounds)
    text = digits_between(*bounds, READING_DIGITS) if is_usual else ""
    return ("", 0.0) if text.endswith("0") else (text, sum(bounds) / 2)


def _is_clear_inside(function: RealFunction, x: float) -> bool:
    """Check whether a value of x lies in the domain and differs from its ends as a float."""
    for end, side in ((function.low, 1), (function.high, -1)):
        if end is not None and side * (x - end.near) <= _NEAR_END * max(abs(end.near), abs(x)):
            return False
    left_out = (float(value.value.mid()) for value in function.without)
    return not any(
        abs(x - abscissa) <= _NEAR_END * max(abs(abscissa), abs(x)) for abscissa in left_out
    )


def proved_reading(function: RealFunction, x: Fraction) -> str:
    """Read a value off with as many binary digits as its figures need; empty without a value."""

    def at_bits(bits: int) -> Ball:
        with precision(bits):
            return function.prove_within(ball.from_fraction(x))

    return decimal_text(at_bits, READING_DIGITS)
