"""All that is drawn of a function of x and y: level curves, a shaded map and its scale."""

from __future__ import annotations

from typing import Any

from axis_path.core.deadline import calculation
from axis_path.core.draw import LevelMap, Window, draw_levels
from axis_path.core.draw.pixels import line_tenths, point_tenths
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate import RealSurface
from axis_path.core.kinds.drawing import NOTHING, Drawing, cached_drawing, stopped


def draw_map(name: str, surface: RealSurface, window: Window, *, is_hidden: bool) -> Drawing:
    """Draw the level curves of a function of x and y."""
    if is_hidden:
        return NOTHING
    return cached_drawing(
        (*surface.key(), name, "levels", window), lambda: _drawn(name, surface, window)
    )


def _drawn(name: str, surface: RealSurface, window: Window) -> Drawing:
    try:
        with calculation():
            levels = draw_levels(surface, window)
    except StoppedError as err:
        return stopped(None, err)
    why = None
    if not levels.levels:
        words = f"{name} has no level curves here: it has no value, or the same value everywhere."
        why = {"sentence": words, "frame": False}
    curve = {"pieces": [], "bands": [], "ends": [], "levels": _levels(levels, window)}
    return Drawing({"curve": curve, "lane": None, "why": why}, None)


def _levels(levels: LevelMap, window: Window) -> list[dict[str, Any]]:
    return [
        {
            "text": level.text,
            "lines": [line_tenths(line, window) for line in level.lines],
            "fills": [line_tenths(ring, window) for ring in level.rings],
            "labels": [
                {"x": x, "y": y, "angle": label.angle}
                for label in level.labels
                for x, y in [point_tenths(label.x, label.y, window)]
            ],
        }
        for level in levels.levels
    ]
