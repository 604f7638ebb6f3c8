"""Points of a drawn function that has a value there and none on either side, as sqrt(-x^2)."""

from __future__ import annotations

from fractions import Fraction
from typing import Any

from axis_path.core.deadline import calculation
from axis_path.core.draw import Curve, Window
from axis_path.core.draw.pixels import PER_PX, point_tenths, tenths_across
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate import RealFunction
from axis_path.core.locate import interval, isolated_points, may_be_isolated
from axis_path.core.threads import SharedCache

_Points = tuple[tuple[float, float], ...]
#: What was found between two ends, by the function: points stay where they are.
_known: SharedCache[tuple[object, ...], tuple[float, float, _Points]] = SharedCache(64)


def single_points(function: RealFunction, curve: Curve, window: Window) -> list[dict[str, Any]]:
    """Return the single points of a function in the window, as filled ends are drawn.

    They are looked for only where the curve has intervals without values.
    """
    if not may_be_isolated(function) or not _has_gaps(curve, window):
        return []
    points = []
    for x, y in _points(function, window):
        if window.x[0] <= x <= window.x[1] and window.y[0] <= y <= window.y[1]:
            across, down = point_tenths(x, y, window)
            points.append({"x": across, "y": down, "closed": True})
    return points


def _has_gaps(curve: Curve, window: Window) -> bool:
    ends = tenths_across(curve.undefined.ravel(), window).reshape(-1, 2)
    return bool(((ends[:, 1] - ends[:, 0]) >= PER_PX).any())


def _points(function: RealFunction, window: Window) -> _Points:
    """Return the points in the window and, for the next moves, a window to each side."""
    low, high = window.x
    key = function.key()
    known = _known.get(key, None)
    if known is not None and known[0] <= low and high <= known[1]:
        return known[2]
    room = 0.0 if window.log_x else high - low
    ends = low - room, high + room
    try:
        with calculation():
            isolated = isolated_points(function, interval(Fraction(ends[0]), Fraction(ends[1])))
    except StoppedError:
        return ()
    points = tuple((float(x.value.mid()), float(y.value.mid())) for x, y in isolated)
    _known.put(key, (*ends, points))
    return points
