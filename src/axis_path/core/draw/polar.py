"""The polar grid: circles about the origin, and spokes with their angles."""

from __future__ import annotations

import math
from fractions import Fraction
from typing import Any

import numpy as np

from axis_path.core.draw.ticks import nice_step, plain
from axis_path.core.draw.window import Window
from axis_path.core.evaluate import multiple_of_pi
from axis_path.core.language.tree import AngleUnit

_SPOKES = 24
#: Every second spoke has a label.
_LABELLED = 2
_MOST_CIRCLES = 60
#: How far from the edge the labels of angles stand, in px.
_INSET_PX = 18.0
_OFFSET_PX = 14.0
_PER_PX = 10
#: A line of the title is so high.
_TITLE_PX = 20.0
#: So much room the name of an axis takes at its end.
_NAME_PX = 20.0


def polar_grid(window: Window, unit: AngleUnit, title_lines: int = 0) -> dict[str, Any]:
    """Return circles and spokes as plain data, places and radii in tenths of a px.

    Args:
        window: what part of the plane is seen.
        unit: in what the angles are labelled.
        title_lines: how many lines the title has: the angles are labelled below it.
    """
    zero = np.zeros(1)
    centre = (float(window.across(zero)[0]), float(window.down(zero)[0]))
    step = nice_step(window.x[0], window.x[1], window.width)
    corners = [(x, y) for x in window.x for y in window.y]
    farthest = max(math.hypot(x, y) for x, y in corners)
    first = max(math.floor(_nearest(window) / float(step)), 1)
    last = min(math.ceil(farthest / float(step)), first + _MOST_CIRCLES)
    circles = [
        {
            "rx": round(float(k * step) * window.x_px * _PER_PX),
            "ry": round(float(k * step) * window.y_px * _PER_PX),
            "text": plain(k * step),
        }
        for k in range(first, last + 1)
    ]
    spokes = [_spoke(k, centre, farthest, window, unit, title_lines) for k in range(_SPOKES)]
    return {
        "x": round(centre[0] * _PER_PX),
        "y": round(centre[1] * _PER_PX),
        "circles": circles,
        "spokes": spokes,
    }


def _nearest(window: Window) -> float:
    """Return how far the window is from the origin, in axis units."""
    x, y = (max(low, -high, 0.0) for low, high in (window.x, window.y))
    return math.hypot(x, y)


def _spoke(
    k: int,
    centre: tuple[float, float],
    farthest: float,
    window: Window,
    unit: AngleUnit,
    title_lines: int,
) -> dict[str, Any]:
    angle = 2 * math.pi * k / _SPOKES
    across, up = math.cos(angle) * window.x_px, math.sin(angle) * window.y_px
    end = (centre[0] + farthest * across, centre[1] - farthest * up)
    label = (
        _label_position(centre, (across, -up), window, title_lines) if k % _LABELLED == 0 else None
    )
    if label is not None and k % (_SPOKES // 4) == 0:
        # Beside an axis, whose own labels stand on its other side.
        is_level = k % (_SPOKES // 2) == 0
        # At the right and the upper end of an axis stands its name: there the angle keeps away.
        left = _NAME_PX if k == 0 else 0.0
        down = _NAME_PX if k == _SPOKES // 4 else 0.0
        right_of_it = (label[0] + _OFFSET_PX, label[1] + down)
        label = (label[0] - left, label[1] - _OFFSET_PX) if is_level else right_of_it
    turn = Fraction(k, _SPOKES)
    text = multiple_of_pi(2 * turn) if unit is AngleUnit.RADIANS else f"{plain(360 * turn)}°"
    return {
        "x": round(end[0] * _PER_PX),
        "y": round(end[1] * _PER_PX),
        "text": text if label is not None else "",
        "label": None if label is None else [round(coordinate * _PER_PX) for coordinate in label],
    }


def _label_position(
    centre: tuple[float, float], step: tuple[float, float], window: Window, title_lines: int
) -> tuple[float, float] | None:
    """Return where a spoke leaves the window, a little inside; None if it does not cross it."""
    width, height = window.visible.width, window.visible.height
    box = (
        (_INSET_PX, width - _INSET_PX),
        (_INSET_PX + _TITLE_PX * title_lines, height - _INSET_PX),
    )
    enter, leave = 0.0, math.inf
    for coordinate, move, (low, high) in zip(centre, step, box, strict=True):
        if abs(move) < 1e-9:
            if not low <= coordinate <= high:
                return None
            continue
        ends = sorted(((low - coordinate) / move, (high - coordinate) / move))
        enter, leave = max(enter, ends[0]), min(leave, ends[1])
    if enter >= leave or not math.isfinite(leave):
        return None
    return centre[0] + leave * step[0], centre[1] + leave * step[1]
