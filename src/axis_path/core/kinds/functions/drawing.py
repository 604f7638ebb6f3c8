"""All that is drawn of one function in one window: its curve, its lane, or why there is none."""

from __future__ import annotations

import numpy as np

from axis_path.core.deadline import calculation
from axis_path.core.draw import Curve, Window, sample_curve
from axis_path.core.draw.pixels import (
    band_tenths,
    last_visible_point,
    tenths_across,
    visible_lines,
)
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate import RealFunction
from axis_path.core.kinds.drawing import Drawing, cached_drawing, stopped
from axis_path.core.kinds.functions.breaks import breaks_of
from axis_path.core.kinds.functions.lane import end_points, holes, make_lane, signs_of, trends_of
from axis_path.core.kinds.functions.marks import locate_marks, mark_dicts
from axis_path.core.kinds.functions.reasons import why_not_drawn
from axis_path.core.kinds.functions.single_points import single_points
from axis_path.core.locate import Findings


def draw_function(function: RealFunction, window: Window, *, is_hidden: bool) -> Drawing:
    """Draw a function; of a hidden one only the lane."""
    make = _hidden if is_hidden else _drawn
    return cached_drawing((*function.key(), window, is_hidden), lambda: make(function, window))


def _hidden(function: RealFunction, window: Window) -> Drawing:
    lane = make_lane(function, Curve([]), window, [])
    return Drawing({"curve": None, "lane": lane, "why": None}, None)


def _drawn(function: RealFunction, window: Window) -> Drawing:
    try:
        with calculation():
            curve = sample_curve(function, window)
    except StoppedError as err:
        return stopped(make_lane(function, Curve([]), window, []), err)
    try:
        with calculation():
            zeros, is_whole = locate_marks(function, curve, window), True
    except StoppedError as err:
        zeros, is_whole = Findings((), complete=False, note=err.message), False
    marks = mark_dicts(zeros, window, function.units.variable.printed)
    breaks = breaks_of(function, curve, window)
    visible = last_visible_point(curve, window)
    points = single_points(function, curve, window)
    data = {
        "curve": {
            "guides": tenths_across(np.array(breaks.poles), window).tolist(),
            "pieces": visible_lines(curve.pieces, window),
            "bands": [band_tenths(band, window) for band in curve.bands],
            "ends": end_points(function, window) + holes(breaks.holes, window) + points,
        },
        "lane": make_lane(function, curve, window, marks)
        | {
            "complete": zeros.complete,
            "signs": signs_of(curve, window),
            "trends": trends_of(function, curve, window),
        },
        "why": None if visible or points else why_not_drawn(function.name, function, curve, window),
    }
    return Drawing(data, visible, is_whole)
