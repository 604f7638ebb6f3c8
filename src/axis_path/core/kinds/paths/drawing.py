"""All that is drawn of a path or a curve by an angle: its line, and a lane of its own scale."""

from __future__ import annotations

import math
import sys
from fractions import Fraction
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.deadline import calculation
from axis_path.core.draw import Curve, Labels, Window, make_ticks, sample_path
from axis_path.core.draw.curves.clip import nearest_part
from axis_path.core.draw.pixels import (
    last_visible_point,
    point_tenths,
    tenths_across,
    visible_lines,
)
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate import End, RealFunction, RealPath, decimal_text
from axis_path.core.evaluate.quantities import with_unit
from axis_path.core.kinds.drawing import Drawing, cached_drawing, stopped
from axis_path.core.kinds.functions.lane import end_text, make_lane
from axis_path.core.kinds.functions.read_off import READING_DIGITS, quickly_read
from axis_path.core.language import GREEK
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.domains import round_to
from axis_path.core.lines.sliders import written_number
from axis_path.core.threads import SharedCache

Floats = NDArray[np.float64]

#: The scale of a lane goes on beyond the ends by this part of the span.
_BEYOND = 0.06
#: Lane scales have fewer ticks than axes.
_TICK_PX = 2
_LONGEST_EXACT = 8
#: Ends nearer to one another than this, in px, are one place: the curve is closed.
_SAME_PX = 0.5
#: Lanes of paths without gaps, by all that they depend on.
_lanes: SharedCache[tuple[object, ...], dict[str, Any]] = SharedCache(64)


def draw_path(path: RealPath, window: Window, unit: AngleUnit, *, is_hidden: bool) -> Drawing:
    """Draw a path; of a hidden one only the lane."""
    key = (*path.x.key(), *path.y.key(), path.assumed, window, unit, is_hidden)
    return cached_drawing(key, lambda: _drawn(path, window, unit, is_hidden=is_hidden))


def _drawn(path: RealPath, window: Window, unit: AngleUnit, *, is_hidden: bool) -> Drawing:
    if is_hidden:
        lane = _lane(path, Curve([]), window, unit)
        return Drawing({"curve": None, "lane": lane, "why": None}, None)
    try:
        with calculation():
            curve = sample_path(path, window)
    except StoppedError as err:
        return stopped(_lane(path, Curve([]), window, unit), err)
    pieces = visible_lines(curve.pieces, window)
    data = {
        "curve": {"pieces": pieces, "bands": [], "ends": _ends(path, curve, window)},
        "lane": _lane(path, curve, window, unit),
        "why": _why(path, curve, bool(pieces)),
        "note": _note(path, curve) if pieces else "",
    }
    return Drawing(data, last_visible_point(curve, window), curve=curve)


def nearest_on(
    path: RealPath, curve: Curve, at: tuple[float, float], window: Window
) -> dict[str, Any] | None:
    """Return the point of a path nearest to a place, with its parameter; None if none is drawn.

    Args:
        path: it is read at parameters that a person would write, near enough for the eye.
        curve: the path as it is drawn in the window.
        at: the place in axis units.
        window: what part of the plane is seen.
    """
    if curve.is_empty:
        return None
    scales = *window.across_from, *window.down_from
    best, t = math.inf, path.low.near
    for piece, ts in zip(curve.pieces, curve.parameters, strict=True):
        away, k, part = nearest_part(piece, *scales, *at)
        if away < best:
            best, t = away, float(ts[k] + part * (ts[k + 1] - ts[k]))
    return _read_at(path, t, window)


def _read_at(path: RealPath, t: float, window: Window) -> dict[str, Any]:
    span = path.high.near - path.low.near
    rounded = round_to(t, span / (2 * window.visible.width))
    largest = sys.float_info.max
    ends = (min(max(end.near, -largest), largest) for end in (path.low, path.high))
    low, high = map(Fraction, ends)
    inside = min(max(rounded, low), high)
    t_ball = ball.from_fraction(inside)
    texts, position = [], []
    for k, function in enumerate((path.x, path.y)):
        words, near = quickly_read(function, inside)
        if not words:
            words = _coordinate(function, t_ball)
            near = float(path.points(np.array([float(inside)]))[0, k])
        texts.append(words)
        position.append(near)
    x, y = position
    is_known = math.isfinite(x) and math.isfinite(y)
    return {
        "text": _point_words(path, t_ball, *texts),
        "reason": "the point nearest to the pointer",
        **visible_tenths((x, y) if is_known else None, window),
    }


def visible_tenths(point: tuple[float, float] | None, window: Window) -> dict[str, int | None]:
    """Return where a point stands, in tenths of a pixel; None for both without one."""
    if point is None:
        return {"x": None, "y": None}
    x, y = point_tenths(*point, window)
    return {"x": x, "y": y}


def point_text(path: RealPath, t: Ball) -> str:
    """Describe where a path is at a parameter; every digit is right."""
    return _point_words(path, t, _coordinate(path.x, t), _coordinate(path.y, t))


def _coordinate(function: RealFunction, t: Ball) -> str:
    def at_bits(bits: int) -> Ball:
        with precision(bits):
            return function.prove(t)

    return decimal_text(at_bits, READING_DIGITS)


def _point_words(path: RealPath, t: Ball, x: str, y: str) -> str:
    name = GREEK.get(path.variable, path.variable)
    x_unit, y_unit = path.x.units.x.printed, path.x.units.y.printed
    point = f"({with_unit(x, x_unit)}, {with_unit(y, y_unit)})" if x and y else "undefined"
    return f"{name} = {with_unit(_short(t), path.x.units.variable.printed)}: {point}"


def _short(value: Ball) -> str:
    if value.exact is not None:
        exact = Fraction(int(value.exact.p), int(value.exact.q))
        text = written_number(exact).replace("-", "−")
        if len(text) <= _LONGEST_EXACT:
            return text
    return end_text(End(value, closed=True)) if value.turns is not None else _rounded(value)


def _rounded(value: Ball) -> str:
    return f"{float(value.value.mid()):.5g}".replace("-", "−")


def span_words(path: RealPath) -> str:
    """Describe between which parameters a path is drawn."""
    name = GREEK.get(path.variable, path.variable)
    left, right = ("≤" if end.closed else "<" for end in (path.low, path.high))
    low, high = (end_text(end, path.x.units.variable.printed) for end in (path.low, path.high))
    return f"{low} {left} {name} {right} {high}"


def _ends(path: RealPath, curve: Curve, window: Window) -> list[dict[str, Any]]:
    """Return the ends, filled where they belong to the path, and rings where a point is left out.

    A path that closes, or whose ends were taken for it, has no ends.
    """
    low, high = path.low.near, path.high.near
    left_out = (float(value.value.mid()) for value in path.x.without)
    holes = [t for t in left_out if low < t < high]
    parameters = np.array([low, high, *holes])
    points = None if holes else _drawn_ends(path, curve)
    if points is None:
        points = path.points_near(parameters)
    px = [window.px_of(x, y) for x, y in points.tolist()]
    closed = [path.low.closed, path.high.closed, *(False for _ in holes)]
    is_closed = path.assumed or math.dist(*px[:2]) < _SAME_PX
    ends = []
    for k in range(2 if is_closed else 0, len(parameters)):
        if window.reaches(px[k]):
            x, y = points[k].tolist()
            ends.append({**visible_tenths((x, y), window), "closed": closed[k]})
    return ends


def _drawn_ends(path: RealPath, curve: Curve) -> Floats | None:
    """Return the points at both ends as they are drawn, (2, 2); None if they are not."""
    ts, pieces = curve.parameters, curve.pieces
    if not pieces or (ts[0][0], ts[-1][-1]) != (path.low.near, path.high.near):
        return None
    return np.array([pieces[0][0], pieces[-1][-1]])


def lane_scale(path: RealPath) -> tuple[float, float]:
    """Return from where to where the lane of a path goes, a little beyond its ends."""
    low, high = path.low.near, path.high.near
    span = high - low if high > low else 1.0
    beyond = _BEYOND * span
    return low - beyond, (high if high > low else low + span) + beyond


def _lane(path: RealPath, curve: Curve, window: Window, unit: AngleUnit) -> dict[str, Any]:
    """Return the lane, whose scale is that of the parameter.

    One without gaps is the same while the ends are: in most frames.
    """
    if len(curve.undefined):
        return _made_lane(path, curve, window, unit)
    without = tuple(repr(value) for value in path.x.without)
    key = (
        path.variable, path.low.key, path.high.key, path.assumed, without,
        window.visible.width, unit,
    )  # fmt: skip
    return _lanes.get_or_make(key, lambda: _made_lane(path, curve, window, unit))


def _made_lane(path: RealPath, curve: Curve, window: Window, unit: AngleUnit) -> dict[str, Any]:
    start, stop = lane_scale(path)
    scale = Window((start, stop), (0.0, 1.0), window.visible.width, 1)
    lane = make_lane(path.x, curve, scale, [])
    for side in path.assumed:
        lane[side] = None
    ticks = make_ticks(
        start, stop, window.visible.width / _TICK_PX, _labels(path, unit),
        degree=1.0 if unit is AngleUnit.DEGREES else math.pi / 180,
    )  # fmt: skip
    positions = tenths_across(np.array(ticks.positions), scale)
    marks = [{"x": int(x), "text": text} for x, text in zip(positions, ticks.labels, strict=True)]
    return lane | {"scale": {"low": start, "high": stop, "ticks": marks}, "complete": True}


def _labels(path: RealPath, unit: AngleUnit) -> Labels:
    """Label the scale by what the parameter is: an angle, or a number."""
    if path.variable == "theta":
        return Labels.DEGREES if unit is AngleUnit.DEGREES else Labels.PI
    has_turns = any(end.value.turns is not None for end in (path.low, path.high))
    return Labels.PI if has_turns and unit is AngleUnit.RADIANS else Labels.NUMBERS


def _why(path: RealPath, curve: Curve, is_visible: bool) -> dict[str, Any] | None:
    name = path.name
    if curve.domain is None:
        return _sentence(f"Nothing of {name} is drawn: its domain {span_words(path)} is empty.")
    if curve.is_empty and len(curve.undefined):
        return _sentence(
            f"Nothing of {name} is drawn: it has no real point for {span_words(path)}."
        )
    if not is_visible and len(curve.unsettled):
        return _sentence(
            f"{name} turns too often to be drawn truly. Narrow its domain to see a part of it."
        )
    if not is_visible:
        return _sentence(f"Nothing of {name} is seen: it lies outside the window.", frame=True)
    return None


def _note(path: RealPath, curve: Curve) -> str:
    """Describe which part is not drawn."""
    if not len(curve.unsettled):
        return ""
    low, high = float(curve.unsettled[0, 0]), float(curve.unsettled[-1, 1])
    name = GREEK.get(path.variable, path.variable)
    return f"turns too often to be drawn for {low:.4g} ≤ {name} ≤ {high:.4g}".replace("-", "−")


def _sentence(sentence: str, frame: bool = False) -> dict[str, Any]:
    return {"sentence": sentence, "frame": frame}
