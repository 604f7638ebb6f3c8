"""All that is drawn of one function in one window: its curve, its lane, or why there is none.

Most frames change one function or none, so the last drawings are kept. What a drawing depends on is
its key, in full: a drawing that is found is never stale.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np

from axis_path.core.deadline import calculation
from axis_path.core.draw import Curve, Window, sample_curve
from axis_path.core.draw.pixels import (
    band_tenths,
    last_visible_point,
    seen_lines,
    tenths_across,
)
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate import RealFunction
from axis_path.core.kinds.breaks import breaks_of
from axis_path.core.kinds.lane import end_points, holes, make_lane, signs_of, trends_of
from axis_path.core.kinds.marks import locate_marks, mark_dicts
from axis_path.core.kinds.reasons import why_not_drawn
from axis_path.core.kinds.single_points import single_points
from axis_path.core.locate import Findings
from axis_path.core.threads import Bounded

_KEPT_DRAWINGS = 128


@dataclass(frozen=True, slots=True)
class Drawing:
    """What is drawn of a function.

    Attributes:
        data: ``curve``, ``lane`` and ``why`` of its row, and ``note``, what is not sure of it;
            plain data that is not changed.
        end: where its lettered flag belongs, in px; None if it is not seen.
        is_whole: False if it was stopped: it is shown, and made anew the next time.
        curve: the sampled curve of a path that is drawn, on which it is read.
    """

    data: dict[str, Any]
    end: tuple[float, float] | None
    is_whole: bool = True
    curve: Curve | None = None


NOTHING = Drawing({"curve": None, "lane": None, "why": None}, None)
#: What a row's data holds where a kind of line has nothing to say of it.
PLAIN = {"note": ""}
_kept: Bounded[tuple[Any, ...], Drawing] = Bounded(_KEPT_DRAWINGS)


def kept(key: tuple[Any, ...], make: Callable[[], Drawing]) -> Drawing:
    """Return the drawing that was made for a key, or make it."""
    found = _kept.get(key, None)
    if found is None:
        found = make()
        if found.is_whole:
            _kept.put(key, found)
    return found


def stopped(lane: dict[str, Any] | None, err: StoppedError) -> Drawing:
    """Return the drawing of a curve that took too long."""
    why = {"sentence": err.message, "frame": False}
    return Drawing({"curve": None, "lane": lane, "why": why}, None, is_whole=False)


def draw_function(function: RealFunction, window: Window, *, is_hidden: bool) -> Drawing:
    """Draw a function; of a hidden one only the lane."""
    make = _hidden if is_hidden else _drawn
    return kept((*function.key(), window, is_hidden), lambda: make(function, window))


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
    marks = mark_dicts(zeros, window)
    breaks = breaks_of(function, curve, window)
    seen = last_visible_point(curve, window)
    points = single_points(function, curve, window)
    data = {
        "curve": {
            "guides": tenths_across(np.array(breaks.poles), window).tolist(),
            "pieces": seen_lines(curve.pieces, window),
            "bands": [band_tenths(band, window) for band in curve.bands],
            "ends": end_points(function, window) + holes(breaks.holes, window) + points,
        },
        "lane": make_lane(function, curve, window, marks)
        | {
            "complete": zeros.complete,
            "signs": signs_of(curve, window),
            "trends": trends_of(function, curve, window),
        },
        "why": None if seen or points else why_not_drawn(function.name, function, curve, window),
    }
    return Drawing(data, seen, is_whole)
