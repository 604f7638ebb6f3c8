"""Locate simple zeros in many stretches at once, with enclosures: quick enough for every frame.

A stretch is settled if the function is defined and continuous in it and its slope keeps its sign,
so that it holds one zero at most. Newton's method guesses the zero; it is proved if
the signs of enclosures a few units in the last place to both sides of the guess differ. One is also
settled, as holding none, if no factor of the function can be zero in it: so are poles. Everything
else is left to ``find_zeros``.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Enclosure, precision
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import RealFunction, digits_between
from axis_path.core.locate.exact import quick_candidates, written
from axis_path.core.locate.finding import Finding, Kind
from axis_path.core.locate.sift import crossings

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
_BITS, _DIGITS = 128, 10


def quick_zeros(
    function: RealFunction, stretches: Floats
) -> tuple[list[Finding], list[tuple[float, float]]]:
    """Locate the zeros in stretches of the function's domain, as far as that is quick.

    Args:
        function: it is taken as if it had no domain of its own.
        stretches: (n, 2) floats, apart from one another.

    Returns:
        The zeros that are proved, and the stretches that are not settled.
    """
    low, high = stretches[:, 0].copy(), stretches[:, 1].copy()
    values, slopes = _with_slopes(function, low, high)
    may_be = ~((values.low > 0) | (values.high < 0) | values.nowhere)
    settled = ~(values.partial | values.broken)
    if slopes is None:
        settled &= False
    else:
        settled &= ~(slopes.partial | slopes.broken) & ((slopes.low > 0) | (slopes.high < 0))
    low, high, settled = low[may_be], high[may_be], np.asarray(settled)[may_be]
    if not settled.all():
        may_be = settled | ~_without_zero(function, low, high)
        low, high, settled = low[may_be], high[may_be], settled[may_be]
    places = np.flatnonzero(settled)
    found: list[Finding] = []
    left = set(np.flatnonzero(~settled).tolist())
    if slopes is not None:
        slope = function.expression.derivative()
        stretch = (low[places], high[places])
        brackets, unsure = crossings(function, function.expression, slope, *stretch)
        with precision(_BITS):
            simple = quick_candidates(brackets)
            found = [
                _finding(function, *bracket, candidates)
                for bracket, candidates in zip(brackets, simple, strict=True)
            ]
        # An end that is not told from zero is left to the slow way.
        left |= set(places[unsure].tolist())
    return found, [(float(low[k]), float(high[k])) for k in sorted(left)]


def _with_slopes(
    function: RealFunction, low: Floats, high: Floats
) -> tuple[Enclosure, Enclosure | None]:
    """Enclose values and slopes over stretches, in one go; no slopes where they are not known."""
    try:
        slope = function.expression.derivative()
    except (LimitError, NotHandledError):
        return function.enclose(low, high), None
    values, slopes = function.enclose_together(low, high, slope)
    return values, slopes


def _without_zero(function: RealFunction, low: Floats, high: Floats) -> Flags:
    """Tell of each stretch whether no factor whose zeros may be the function's is zero in it."""
    sure = np.ones(len(low), dtype=np.bool_)
    for factor in function.expression.factors(through_pieces=True):
        values = function.enclose(low, high, factor)
        sure &= (values.low > 0) | (values.high < 0) | values.nowhere
    return sure


def _finding(function: RealFunction, low: float, high: float, candidates: list[Ball]) -> Finding:
    text = digits_between(low, high, _DIGITS) or next(
        (t for digits in range(_DIGITS - 1, 0, -1) if (t := digits_between(low, high, digits))),
        f"{(low + high) / 2:.3g}".replace("-", "−"),
    )
    exact = _exact(function, candidates)
    middle = (low + high) / 2 + 0.0
    return Finding(Kind.ZERO, middle, 0.0, (low, high), True, exact, exact or text)


def _exact(function: RealFunction, candidates: list[Ball]) -> str | None:
    """Give the zero in exact form, if a simple number in its bracket is proved to be it."""
    for candidate in candidates:
        value = function.prove(candidate)
        if value.is_defined and value.exact is not None and value.exact == 0:
            return written(candidate)
    return None
