"""Locate simple zeros in many stretches at once, with enclosures: quick enough for every frame.

A stretch is settled if the function is defined and continuous in it and its slope keeps its sign,
so that it holds one zero at most. Newton's method guesses the zero; it is proved if
the signs of enclosures a few units in the last place to both sides of the guess differ. Everything
else is left to ``find_zeros``.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Enclosure, precision
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import RealFunction, digits_between, middles
from axis_path.core.locate.exact import quick_candidates, written
from axis_path.core.locate.finding import Finding, Kind

Floats = NDArray[np.float64]
_BITS, _DIGITS = 128, 10
_ROUNDS = 60
#: A guess that moves by less, relative to itself, has come to rest.
_SAME = 4e-16
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
    low, high = stretches[:, 0].copy(), stretches[:, 1].copy()
    values, slopes = _with_slopes(function, low, high)
    may_be = ~((values.low > 0) | (values.high < 0) | values.nowhere)
    settled = ~(values.partial | values.broken)
    if slopes is None:
        settled &= False
    else:
        settled &= ~(slopes.partial | slopes.broken) & ((slopes.low > 0) | (slopes.high < 0))
    low, high, settled = low[may_be], high[may_be], np.asarray(settled)[may_be]
    places = np.flatnonzero(settled)
    signs = _signs(function, np.concatenate([low[places], high[places]]))
    crossed = signs[: len(places)] * signs[len(places) :]
    # An end that is not told from zero is left to the slow way, as is what does not cross.
    left = set(np.flatnonzero(~settled).tolist()) | set(places[crossed == 0].tolist())
    places = places[crossed < 0]
    found: list[Finding] = []
    guess = _guessed(function, low[places], high[places])
    for reach in _REACHES:
        if not len(places):
            break
        a, b = _around(guess, reach, low[places], high[places])
        ends = _signs(function, np.concatenate([a, b]))
        proved = ends[: len(a)] * ends[len(a) :] < 0
        found += [_finding(function, *ends) for ends in zip(a[proved], b[proved], strict=True)]
        places, guess = places[~proved], guess[~proved]
    left |= set(places.tolist())
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


def _signs(function: RealFunction, xs: Floats) -> NDArray[np.int64]:
    """Give the proved signs at places, 0 where they are not known."""
    if not len(xs):
        return np.zeros(0, dtype=np.int64)
    values = function.enclose(xs, xs)
    known = ~(values.partial | values.nowhere)
    return np.where(known & (values.low > 0), 1, np.where(known & (values.high < 0), -1, 0))


def _guessed(function: RealFunction, low: Floats, high: Floats) -> Floats:
    """Guess the zero in each stretch, in which the function rises or falls, by Newton's method.

    A step that leaves what is left of the stretch is replaced by its middle.
    """
    if not len(low):
        return low
    a, b = low.copy(), high.copy()
    slope = function.expression.derivative()
    rises = function.values_near(b) > function.values_near(a)
    place = (a + b) / 2
    for _ in range(_ROUNDS):
        values, slopes = (middles(each) for each in function.enclose_together(place, place, slope))
        is_above = (values > 0) == rises
        a, b = np.where(is_above, a, place), np.where(is_above, place, b)
        with np.errstate(all="ignore"):
            step = place - values / slopes
        inside = (step >= a) & (step <= b)
        step = np.where(values == 0, place, np.where(inside, step, (a + b) / 2))
        is_there = np.abs(step - place) <= _SAME * np.abs(place)
        place = step
        if is_there.all():
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
        for candidate in quick_candidates(low, high):
            value = function.prove(candidate)
            if value.is_defined and value.exact is not None and value.exact == 0:
                return written(candidate)
    return None
