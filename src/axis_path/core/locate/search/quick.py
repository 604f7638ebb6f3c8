"""Locate simple zeros in many intervals at once, with enclosures: quick enough for every frame.

An interval is settled if the function is defined and continuous in it and its slope keeps its sign,
so that it holds one zero at most. Newton's method guesses the zero; it is proved if
the signs of enclosures a few units in the last place to both sides of the guess differ. One is also
settled, as holding none, if no factor of the function can be zero in it: so are poles. Everything
else is left to ``find_zeros``.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Enclosure, precision
from axis_path.core.deadline import check
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import RealFunction, digits_between
from axis_path.core.locate.algebra.exact import quick_candidates, written
from axis_path.core.locate.finding import Finding, Kind
from axis_path.core.locate.search.prune import compiled_kernel, crossings
from axis_path.core.threads import SharedCache

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
_BITS, _DIGITS = 128, 10
#: Which simple numbers are zeros, by all that this depends on.
_cache: SharedCache[tuple[object, ...], bool] = SharedCache(2_000)


def quick_zeros(
    function: RealFunction, intervals: Floats
) -> tuple[list[Finding], list[tuple[float, float]]]:
    """Locate the zeros in intervals of the function's domain, as far as that is quick.

    Args:
        function: it is taken as if it had no domain of its own.
        intervals: (n, 2) floats, apart from one another.

    Returns:
        The zeros that are proved, and the intervals that are not settled.
    """
    if not function.expression.factors(through_pieces=True):
        # Its form tells that it is zero nowhere, as e^(1/x).
        return [], []
    low, high = intervals[:, 0].copy(), intervals[:, 1].copy()
    forms = _forms(function)
    if forms is None:
        below, above, left = _located(function, low, high)
    else:
        check()
        ends, known = compiled_kernel().simple_zeros(*forms, low, high)
        held, left = known > 0, known < 0
        below, above = ends[0, held], ends[1, held]
    with precision(_BITS):
        simple = quick_candidates(below, above)
        zeros = [
            _finding(bracket, _exact(function, numbers) if numbers else None)
            for *bracket, numbers in zip(below.tolist(), above.tolist(), simple, strict=True)
        ]
    return zeros, list(map(tuple, intervals[left].tolist()))


def _forms(function: RealFunction) -> tuple[Any, ...] | None:
    """Return the function with its slope, and its factors, as the kernel takes them, if it can."""
    try:
        pair = function.compiled(function.expression, function.expression.derivative())
    except (LimitError, NotHandledError):
        return None
    factors = function.compiled(*function.expression.factors(through_pieces=True))
    return None if pair is None or factors is None else (*pair, *factors)


def _located(function: RealFunction, low: Floats, high: Floats) -> tuple[Floats, Floats, Flags]:
    """Do what ``kernel.simple_zeros`` does, for a program whose enclosures are not compiled.

    Returns:
        Between which floats the zeros lie, and which intervals are not settled.
    """
    values, slopes = _with_slopes(function, low, high)
    may_be = ~((values.low > 0) | (values.high < 0) | values.nowhere)
    if slopes is None:
        return np.empty(0), np.empty(0), may_be & ~_without_zero(function, low, high)
    is_whole = ~(values.partial | values.broken | slopes.partial | slopes.broken)
    simple = may_be & is_whole & ((slopes.low > 0) | (slopes.high < 0))
    left = may_be & ~simple
    left[left] = ~_without_zero(function, low[left], high[left])
    slope = function.expression.derivative()
    indices = np.flatnonzero(simple)
    brackets, unsure = crossings(function, function.expression, slope, low[indices], high[indices])
    left[indices[unsure]] = True
    below, above = np.array(brackets).reshape(-1, 2).T.copy()
    return below, above, left


def _with_slopes(
    function: RealFunction, low: Floats, high: Floats
) -> tuple[Enclosure, Enclosure | None]:
    """Enclose values and slopes over intervals, in one go; no slopes where they are not known."""
    try:
        slope = function.expression.derivative()
    except (LimitError, NotHandledError):
        return function.enclose(low, high), None
    values, slopes = function.enclose_together(low, high, slope)
    return values, slopes


def _without_zero(function: RealFunction, low: Floats, high: Floats) -> Flags:
    """Return for each interval whether no relevant factor is zero in it."""
    sure = np.ones(len(low), dtype=np.bool_)
    for factor in function.expression.factors(through_pieces=True):
        values = function.enclose(low, high, factor)
        sure &= (values.low > 0) | (values.high < 0) | values.nowhere
    return sure


def _finding(bracket: list[float], exact: str | None) -> Finding:
    low, high = bracket
    text = (
        exact
        or digits_between(low, high, _DIGITS)
        or next(
            (t for digits in range(_DIGITS - 1, 0, -1) if (t := digits_between(low, high, digits))),
            f"{(low + high) / 2:.3g}".replace("-", "−"),
        )
    )
    return Finding(Kind.ZERO, (low + high) / 2 + 0.0, 0.0, (low, high), True, exact, text)


def _exact(function: RealFunction, candidates: tuple[Ball, ...]) -> str | None:
    """Return the zero in exact form, if a simple number in its bracket is proved to be it."""
    for candidate in candidates:
        if _is_zero(function, candidate):
            return written(candidate)
    return None


def _is_zero(function: RealFunction, candidate: Ball) -> bool:
    """Check whether a simple number is a zero, with proof: once for all states that agree there."""
    near = float(candidate.value.mid())
    around = math.nextafter(near, -math.inf), math.nextafter(near, math.inf)
    key = (*function.key_on(*around), written(candidate))
    return _cache.get_or_make(key, lambda: _is_proved_zero(function, candidate))


def _is_proved_zero(function: RealFunction, candidate: Ball) -> bool:
    value = function.prove(candidate)
    return bool(value.is_defined and value.exact is not None and value.exact == 0)
