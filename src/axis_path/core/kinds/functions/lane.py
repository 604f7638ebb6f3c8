"""A lane: where a function is defined, its ends as handles, its marks; places in tenths of a px."""

from __future__ import annotations

import math
from fractions import Fraction
from itertools import accumulate
from typing import Any, cast

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import precision
from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.draw import Curve, Window, plain
from axis_path.core.draw.curves import compiled, refine
from axis_path.core.draw.pixels import PER_PX, point_tenths, tenths_across, tenths_down
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import VALUE_BITS, End, RealFunction, digits_of
from axis_path.core.evaluate.quantities import with_unit
from axis_path.core.lines.sliders import written_number
from axis_path.core.locate import written

Floats = NDArray[np.float64]

_END_DIGITS = 4
#: More intervals without values than this have no reasons of their own.
_MOST_REASONS = 8
#: Rise and fall are looked for in columns so wide.
_TREND_PX = 3


def end_points(function: RealFunction, window: Window) -> list[dict[str, Any]]:
    """Return the end points of a restricted curve, filled where the end belongs to it."""
    abscissae = [(end.near, end.closed) for end in (function.low, function.high) if end is not None]
    abscissae += [(float(value.value.mid()), False) for value in function.without]
    ends = []
    for x, closed in abscissae:
        y = float(function.sample_unrestricted(np.array([x]))[0])
        inside = window.x[0] <= x <= window.x[1] and window.y[0] <= y <= window.y[1]
        if inside:
            across, down = point_tenths(x, y, window)
            ends.append({"x": across, "y": down, "closed": closed})
    return ends


def holes(abscissae: list[tuple[float, float]], window: Window) -> list[dict[str, Any]]:
    """Return the rings of single points that are missing in a curve."""
    if not abscissae:
        return []
    points = np.array(abscissae).reshape(-1, 2)
    across, down = tenths_across(points[:, 0], window), tenths_down(points[:, 1], window)
    return [{"x": int(x), "y": int(y), "closed": False} for x, y in zip(across, down, strict=True)]


def make_lane(
    function: RealFunction,
    curve: Curve,
    window: Window,
    marks: list[dict[str, Any]],
) -> dict[str, Any]:
    """Return the lane of a function.

    Args:
        function: the function.
        curve: what was drawn of it, for the intervals without a value.
        window: the plane's window, whose horizontal axis the lane shares.
        marks: what stands on the lane.
    """
    unit = function.units.variable.printed
    low = _handle(function.low, window, unit)
    high = _handle(function.high, window, unit)
    left, right = -window.beyond * PER_PX, (window.visible.width + window.beyond) * PER_PX
    start = min(max(low["x"], left), right) if low else left
    stop = min(max(high["x"], left), right) if high else right
    wide = []
    if len(curve.undefined):
        edges = tenths_across(curve.undefined.ravel(), window).reshape(-1, 2)
        wide = [
            ([int(a), int(b)], interval)
            for (a, b), interval in zip(np.clip(edges, start, stop), curve.undefined, strict=True)
            if b - a >= PER_PX // 2
        ]
    undefined = [abscissae for abscissae, _ in wide]
    holes = [
        int(tenths_across(np.array([float(v.value.mid())]), window)[0]) for v in function.without
    ]
    return {
        "low": low, "high": high, "band": [start, stop] if start < stop else None,
        "undefined": undefined, "holes": holes, "marks": list(marks),
        "reasons": [_reason(function, interval) for _, interval in wide[:_MOST_REASONS]],
    }  # fmt: skip


def _reason(function: RealFunction, interval: Floats) -> str:
    """Explain why there is no value in an interval, at a short number inside it."""
    low, high = (float(end) for end in interval)
    middle = Fraction((low + high) / 2)
    for digits in (10, 100, 1_000):
        near = middle.limit_denominator(digits)
        if low < near < high:
            return function.reason_at(near)
    return function.reason_at(middle)


def signs_of(curve: Curve, window: Window) -> list[list[int]]:
    """Return the intervals in which a function keeps its sign, as from, to in tenths and 1 or -1.

    On a piece, which is proved to be continuous, it keeps its sign between the places where the
    curve may cross the axis.
    """
    if not curve.pieces:
        return []
    starts = np.array([0, *accumulate(map(len, curve.pieces))])
    points = np.concatenate(curve.pieces)
    rows = compiled.signs_between(points, starts, curve.crossings, *window.across_from)
    return cast("list[list[int]]", rows.tolist())


def trends_of(function: RealFunction, curve: Curve, window: Window) -> list[list[int]]:
    """Return the intervals in which a function is proved to rise (1) or fall (-1), in tenths."""
    if curve.domain is None or curve.is_empty:
        return []
    low, high = curve.domain
    (start, _), (stop, _) = (window.px_of(end, window.y[0]) for end in (low, high))
    count = max(int((stop - start) / _TREND_PX), 1)
    edges = window.between(low, high, count)
    try:
        slope = function.expression.derivative()
    except (LimitError, NotHandledError):
        return []
    form = function.compiled(slope)
    if form is None:
        bounds = function.enclose(edges[:-1], edges[1:], slope)
        rows = compiled.trends(
            bounds.low, bounds.high, bounds.partial, bounds.broken, edges, *window.across_from
        )
    else:
        rows = refine.trends_between(*form, edges, *window.across_from)
    return cast("list[list[int]]", rows.tolist())


def _handle(end: End | None, window: Window, unit: str) -> dict[str, Any] | None:
    if end is None:
        return None
    # Far outside the window a handle has a place too, but not one that overflows.
    near = min(max(float(window.across(np.array(end.near))), -1e6), 1e6)
    return {"x": round(near * PER_PX), "closed": end.closed, "text": end_text(end, unit)}


def end_text(end: End, unit: str = "") -> str:
    """Write an end of a domain: exactly if that is short, else with a few digits.

    Args:
        end: the end.
        unit: of the end, as it is printed; written behind the number.
    """
    if "text" not in end.cache:
        end.cache["text"] = _end_text(end)
    return with_unit(end.cache["text"], unit)


def _end_text(end: End) -> str:
    with precision(VALUE_BITS):
        exact = written(end.value)
        digits = digits_of(end.value, _END_DIGITS)
    if end.value.turns is not None and exact is not None:
        return exact
    if end.value.exact is not None:
        value = to_fraction(end.value.exact)
        text = written_number(value).replace("-", "−")
        return text if len(text) <= 8 else digits or text
    if digits or math.isfinite(end.near):
        return digits or plain(Fraction(end.near))
    return "beyond 10^308" if end.near > 0 else "beyond −10^308"
