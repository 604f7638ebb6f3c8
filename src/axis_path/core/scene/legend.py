"""Where the legend stands: in the corner that the curves leave freest, or where it was put."""

from __future__ import annotations

from typing import Any

import numpy as np

from axis_path.core.draw import Window
from axis_path.core.draw.pixels import PER_PX

_ROW_PX, _PAD_PX, _SAMPLE_PX, _EDGE_PX = 36, 6, 58, 10
_LETTER_PX, _LEAST_PX, _MOST_PX = 7.4, 90, 300
#: Lines are measured at places so far apart.
_SPREAD_PX = 2.0
#: Parts of a drawing that a legend should not cover.
_PARTS = ("pieces", "bands", "dashed")


def place_legend(
    rows: list[dict[str, Any]], window: Window, at: tuple[float, float] | None
) -> dict[str, Any] | None:
    """Return the place of the legend in px, with the ids of its rows; None if nothing is drawn.

    Args:
        rows: the rows of a scene.
        window: the window.
        at: where its upper left corner was put, as parts of the width and the height.
    """
    shown = [row for row in rows if row["curve"] and row["tone"] is not None]
    if not shown:
        return None
    longest = max(len(row["text"].split(" for ")[0]) for row in shown)
    width = int(min(max(_SAMPLE_PX + _LETTER_PX * longest, _LEAST_PX), _MOST_PX, window.width))
    height = 2 * _PAD_PX + _ROW_PX * len(shown)
    right = max(window.width - width - _EDGE_PX, 0)
    low = max(window.height - height - _EDGE_PX, 0)
    if at is not None:
        x, y = (min(max(part, 0.0), 1.0) for part in at)
        x, y = min(round(x * window.width), right), min(round(y * window.height), low)
    else:
        points = drawn_points([row["curve"] for row in shown])
        corners = ((right, _EDGE_PX), (_EDGE_PX, _EDGE_PX), (right, low), (_EDGE_PX, low))
        x, y = min(corners, key=lambda corner: _covered(points, corner, width, height))
    ids = [row["id"] for row in shown]
    return {
        "x": int(x), "y": int(y), "width": width, "height": height, "row": _ROW_PX, "rows": ids,
    }  # fmt: skip


def drawn_points(curves: list[dict[str, Any]]) -> np.ndarray:
    """Return places all along what is drawn, (n, 2) in px."""
    flat = [piece for curve in curves for part in _PARTS for piece in curve.get(part) or []]
    flat += [curve["dots"] for curve in curves if curve.get("dots")]
    if not flat:
        return np.empty((0, 2))
    return np.concatenate([_spread(np.array(piece).reshape(-1, 2) / PER_PX) for piece in flat])


def _spread(line: np.ndarray) -> np.ndarray:
    """Return points all along a line, so that a long straight part counts for its length."""
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(line, axis=0).T))])
    distances = np.arange(0, along[-1] + _SPREAD_PX, _SPREAD_PX)
    return np.column_stack([np.interp(distances, along, line[:, k]) for k in (0, 1)])


def _covered(points: np.ndarray, corner: tuple[int, int], width: int, height: int) -> int:
    """Count the points under a legend that stands in a corner."""
    x, y = corner
    inside = (points[:, 0] >= x) & (points[:, 0] <= x + width)
    inside &= (points[:, 1] >= y) & (points[:, 1] <= y + height)
    return int(inside.sum())
