"""The marks that stand on the plane and the lanes."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw import Curve, Window
from axis_path.core.draw.pixels import tenths_across
from axis_path.core.evaluate import RealFunction
from axis_path.core.evaluate.quantities import with_unit
from axis_path.core.limits import LARGEST_MARKS, MARK_CELLS
from axis_path.core.locate import Finding, Findings, find_zeros, interval, quick_zeros
from axis_path.core.threads import SharedCache

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class _Searched:
    """What is known of a function's zeros from earlier windows; zeros stay where they are.

    Attributes:
        low: from where on it was searched; ``high`` up to where.
        pixel: how wide the pixels were.
        zeros: what was found.
        open: intervals that could not be settled then.
    """

    low: float
    high: float
    pixel: float
    zeros: tuple[Finding, ...]
    open: tuple[tuple[float, float], ...]

    def holds(self, interval: tuple[float, float]) -> bool:
        return self.low <= interval[0] and interval[1] <= self.high


_MOST_SEARCHES, _MOST_CACHED = 64, 500
#: Pixels are finer than those of an earlier window if they are smaller by this.
_FINER = 0.9
_cache: SharedCache[tuple[object, ...], _Searched] = SharedCache(_MOST_SEARCHES)
#: Searches of single intervals that took the slow way and are complete.
_slow_cache: SharedCache[tuple[object, ...], Findings] = SharedCache(_MOST_CACHED)


def locate_marks(function: RealFunction, curve: Curve, window: Window) -> Findings:
    """Locate the zeros in the window, as far as a frame has time for.

    Only where the curve may cross the axis is searched, and only where it was not searched for an
    earlier window. Where there are more zeros than the screen could separate, none is marked:
    the Findings panel has the time to locate them.
    """
    intervals = _with_ends(curve.crossings, function, window)
    if len(intervals) > LARGEST_MARKS.value:
        return Findings((), complete=False, note="There are more zeros here than can be marked.")
    if not intervals:
        return Findings((), complete=True)
    key = function.key()
    known = _searched_on(function, intervals, window, _cache.get(key, None))
    _cache.put(key, known)
    low, high = window.x
    visible = [zero for zero in known.zeros if low <= zero.x <= high]
    if len(visible) > LARGEST_MARKS.value:
        return Findings((), complete=False, note="There are more zeros here than can be marked.")
    is_complete = not any(a <= high and low <= b for a, b in known.open)
    return Findings(tuple(visible), complete=is_complete)


def _searched_on(
    function: RealFunction,
    intervals: list[tuple[float, float]],
    window: Window,
    before: _Searched | None,
) -> _Searched:
    """Search what was not searched before, and put both together."""
    low, high = window.x
    pixel = window.pixel_at(low)
    if before is None or before.high < low or high < before.low or len(before.zeros) > _MOST_CACHED:
        before = _Searched(low, low, pixel, (), ())
    # With finer pixels more may be settled than before.
    again = before.open if pixel < _FINER * before.pixel else ()
    fresh = [
        interval
        for interval in intervals
        if not before.holds(interval)
        or any(a <= interval[1] and interval[0] <= b for a, b in again)
    ]
    zeros, still_open = _searched(function, fresh)
    added = zeros
    if before.zeros:
        added = [zero for zero in zeros if not any(_is_same(zero, known) for known in before.zeros)]
    left = [unsettled for unsettled in before.open if not again or not low <= unsettled[0] <= high]
    return _Searched(
        min(low, before.low),
        max(high, before.high),
        pixel if again else min(pixel, before.pixel) if not before.open else before.pixel,
        tuple(sorted((*before.zeros, *added), key=lambda zero: zero.x)),
        (*left, *still_open),
    )


def _is_same(zero: Finding, other: Finding) -> bool:
    return zero.bracket[0] <= other.bracket[1] and other.bracket[0] <= zero.bracket[1]


def _searched(
    function: RealFunction, intervals: list[tuple[float, float]]
) -> tuple[list[Finding], list[tuple[float, float]]]:
    """Return the zeros in intervals, and the intervals that are not settled."""
    if not intervals:
        return [], []
    quick, left = quick_zeros(function, np.array(intervals))
    zeros = quick
    if function.low is not None or function.high is not None or function.without:
        zeros = [zero for zero in quick if _is_inside(function, zero)]
        # One beside an end of the domain may lie on either side of it: the slow way finds out.
        left += [zero.bracket for zero in quick if _is_unsure(function, zero)]
    still_open = []
    for a, b in left:
        part = _slowly(function, a, b)
        zeros += part
        if not part.complete:
            still_open.append((a, b))
    return zeros, still_open


def _slowly(function: RealFunction, low: float, high: float) -> Findings:
    """Locate the zeros in an interval the slow way, once for all states that do not change it."""
    key = function.key_on(low, high)
    cached = _slow_cache.get(key, None)
    if cached is None:
        where = interval(Fraction(low), Fraction(high))
        cached = find_zeros(function, where, max_cells=MARK_CELLS.value)
        if cached.complete:
            _slow_cache.put(key, cached)
    return cached


def _is_unsure(function: RealFunction, zero: Finding) -> bool:
    """Check whether a zero may be an end of the domain or an excluded point."""
    low, high = zero.bracket
    ends = [end.near for end in (function.low, function.high) if end is not None]
    ends += [float(value.value.mid()) for value in function.without]
    return any(
        math.nextafter(low, -math.inf) <= end <= math.nextafter(high, math.inf) for end in ends
    )


def _is_inside(function: RealFunction, zero: Finding) -> bool:
    above = function.low is None or zero.x > function.low.near
    below = function.high is None or zero.x < function.high.near
    return above and below and not _is_unsure(function, zero)


def _with_ends(
    intervals: Floats, function: RealFunction, window: Window
) -> list[tuple[float, float]]:
    """Add what lies between an end of the domain and the float that the curve is drawn to."""
    slivers = [
        (math.nextafter(end.near, -math.inf), math.nextafter(end.near, math.inf))
        for end in (function.low, function.high)
        if end is not None and end.closed and window.x[0] <= end.near <= window.x[1]
    ]
    joined: list[tuple[float, float]] = []
    for low, high in sorted([*map(tuple, intervals.tolist()), *slivers]):
        if joined and low <= joined[-1][1]:
            joined[-1] = (joined[-1][0], max(high, joined[-1][1]))
        else:
            joined.append((low, high))
    return joined


def mark_dicts(findings: Findings, window: Window, unit: str = "") -> list[dict[str, Any]]:
    """Return marks as plain data, each with a short text that stands at it.

    Args:
        findings: what is marked.
        window: what part of the plane is seen.
        unit: of their places, as it is printed.
    """
    abscissae = tenths_across(np.array([finding.x for finding in findings]), window)
    return [
        {
            "x": x,
            "value": finding.x,
            "text": with_unit(finding.exact or finding.text, unit),
            "short": _short(finding),
            "kind": finding.kind.value,
            "proved": finding.proved,
        }
        for x, finding in zip(abscissae.tolist(), findings, strict=True)
    ]


def _short(finding: Finding) -> str:
    """Return the place in few figures, all of them right."""
    if finding.exact is not None and len(finding.exact) <= 6:
        return str(finding.exact)
    low, high = finding.bracket
    for digits in (3, 2, 1):
        one, other = f"{low:.{digits}g}", f"{high:.{digits}g}"
        if one == other:
            return one.replace("-", "−") if "e" not in one else str(finding.text)
    return str(finding.text)
