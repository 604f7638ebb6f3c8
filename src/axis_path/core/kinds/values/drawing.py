"""Points, and lists of points, as dots on the plane."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw import Window
from axis_path.core.draw.pixels import tenths_across, tenths_down
from axis_path.core.kinds.drawing import NOTHING, Drawing
from axis_path.core.limits import CURVE_POINTS

Floats = NDArray[np.float64]


def draw_points(name: str, points: Floats, window: Window, *, is_hidden: bool) -> Drawing:
    """Draw points, (n, 2); what has no place in the window is left out, and it is said.

    Args:
        name: what they are called.
        points: NaN where there is no value.
        window: what part of the plane is seen.
        is_hidden: whether nothing is to be drawn.
    """
    if is_hidden:
        return NOTHING
    known = points[np.isfinite(points).all(axis=1)]
    drawn = known[window.holds(known)]
    tenths = np.column_stack(
        [tenths_across(drawn[:, 0], window), tenths_down(drawn[:, 1], window)]
    )[: CURVE_POINTS.value]
    data: dict[str, Any] = {
        "curve": {"pieces": [], "bands": [], "ends": [], "dots": tenths.ravel().tolist()},
        "lane": None,
        "why": _why(name, len(points), len(known), len(drawn)),
    }
    if not len(tenths):
        return Drawing(data, None)
    inside = tenths[window.visible.holds(drawn[: len(tenths)])]
    last = (inside if len(inside) else tenths)[-1] / 10
    return Drawing(data, (float(last[0]), float(last[1])))


def _why(name: str, count: int, known: int, visible: int) -> dict[str, Any] | None:
    if visible or not count:
        return None
    if not known:
        words = "it has no value" if count == 1 else "none of its points has a value"
        return {"sentence": f"Nothing of {name} is drawn: {words}.", "frame": False}
    words = "it lies" if count == 1 else "its points lie"
    return {"sentence": f"Nothing of {name} is seen: {words} outside the window.", "frame": True}
