"""Locate simple zeros in many stretches at once, with enclosures: quick enough for every frame.

A stretch is settled if the function is defined and continuous in it and its slope keeps its sign,
so that it holds one zero at most. Floats guess the zero by the method of Illinois; it is proved if
the signs of enclosures a few units in the last place to both sides of the guess differ. Everything
else is left to ``find_zeros``.

Source: Dowell and Jarratt, *A modified regula falsi method*, BIT 11 (1971), for the guess.
"""

from __future__ import annotations

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axis_path.core.arithmetic import precision
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import RealFunction, digits_between
from axis_path.core.locate.exact import candidates, written
from axis_path.core.locate.finding import Finding, Kind

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
_BITS, _DIGITS = 128, 10
_ROUNDS = 14
#: The guess is proved so many units in the last place to both sides, at first and at last.
_REACHES = (8.0, 65_536.0)


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
    low, high = stretches[:, 0], stretches[:, 1]
    values = function.enclose(low, high)
    may_be = ~((values.low > 0) | (values.high < 0) | values.nowhere)
    low, high = low[may_be], high[may_be]
    settled = np.asarray(~(values.partial | values.broken))[may_be]
    settled &= _keeps_slope(function, low, high)
    found: list[Finding] = []
    one, other = _signs(function, low[settled]), _signs(function, high[settled])
    crossed = one * other < 0
    places = np.flatnonzero(settled)
    # An end that is not told from zero is left to the slow way, as is what does not cross.
    left = set(np.flatnonzero(~settled).tolist()) | set(places[one * other == 0].tolist())
    places = places[crossed]
    guess = _guessed(function, low[places], high[places])
    for reach in _REACHES:
        a, b = _around(guess, reach, low[places], high[places])
        proved = _signs(function, a) * _signs(function, b) < 0
        found += [_finding(function, *ends) for ends in zip(a[proved], b[proved], strict=True)]
        places, guess = places[~proved], guess[~proved]
        if not len(places):
            break
    left |= set(places.tolist())
    return found, [(float(low[k]), float(high[k])) for k in sorted(left)]


def _keeps_slope(function: RealFunction, low: Floats, high: Floats) -> Flags:
    if not len(low):
        return np.zeros(0, dtype=np.bool_)
    try:
        slope = function.enclose(low, high, function.expression.derivative())
    except (LimitError, NotHandledError):
        return np.zeros(len(low), dtype=np.bool_)
    return np.asarray(~(slope.partial | slope.broken) & ((slope.low > 0) | (slope.high < 0)))


def _signs(function: RealFunction, xs: Floats) -> NDArray[np.int64]:
    """Give the proved signs at places, 0 where they are not known."""
    if not len(xs):
        return np.zeros(0, dtype=np.int64)
    values = function.enclose(xs, xs)
    known = ~(values.partial | values.nowhere)
    return np.where(known & (values.low > 0), 1, np.where(known & (values.high < 0), -1, 0))


def _guessed(function: RealFunction, low: Floats, high: Floats) -> Floats:
    """Guess the zero in each stretch by floats."""
    if not len(low):
        return low
    a, b = low.copy(), high.copy()
    at_a, at_b = function.sample_unrestricted(a), function.sample_unrestricted(b)
    place = (a + b) / 2
    for _ in range(_ROUNDS):
        with np.errstate(all="ignore"):
            place = b - at_b * (b - a) / (at_b - at_a)
        inside = (place >= np.minimum(a, b)) & (place <= np.maximum(a, b))
        place = np.where(inside, place, (a + b) / 2)
        value = function.sample_unrestricted(place)
        crosses = value * at_b < 0
        at_a = np.where(crosses, at_b, at_a / 2)
        a = np.where(crosses, b, a)
        b, at_b = place, value
        if not (value != 0).any():
            break
    return place


def _around(guess: Floats, reach: float, low: Floats, high: Floats) -> tuple[Floats, Floats]:
    room = reach * np.spacing(np.abs(guess)) + 1e-300
    return np.maximum(guess - room, low), np.minimum(guess + room, high)


def _finding(function: RealFunction, low: float, high: float) -> Finding:
    low, high = float(low), float(high)
    text = next(
        (t for digits in range(_DIGITS, 0, -1) if (t := digits_between(low, high, digits))),
        f"{(low + high) / 2:.3g}".replace("-", "−"),
    )
    exact = _exact(function, low, high)
    middle = (low + high) / 2 + 0.0
    return Finding(Kind.ZERO, middle, 0.0, (low, high), True, exact, exact or text)


def _exact(function: RealFunction, low: float, high: float) -> str | None:
    """Give the zero in exact form, if a simple number in its bracket is proved to be it."""
    with precision(_BITS):
        for candidate, _ in candidates(arb(low), arb(high)):
            value = function.prove(candidate)
            if value.is_defined and value.exact is not None and value.exact == 0:
                return written(candidate)
    return None
