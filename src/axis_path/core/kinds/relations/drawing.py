"""All that is drawn of an equation or an inequality, and its lane: the x where it exists."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.deadline import calculation
from axis_path.core.draw import RealRelation, RelationPicture, Window, draw_relation
from axis_path.core.draw.pixels import (
    PER_PX,
    line_tenths,
    tenths_across,
    tenths_down,
)
from axis_path.core.errors import StoppedError
from axis_path.core.kinds.drawing import NOTHING, Drawing, cached_drawing, stopped

Floats = NDArray[np.float64]


def draw_equation(name: str, relation: RealRelation, window: Window, *, is_hidden: bool) -> Drawing:
    """Draw an equation or an inequality."""
    if is_hidden:
        return NOTHING
    return cached_drawing((*relation.key(), name, window), lambda: _drawn(name, relation, window))


def _drawn(name: str, relation: RealRelation, window: Window) -> Drawing:
    try:
        with calculation():
            picture = draw_relation(relation, window)
    except StoppedError as err:
        return stopped(None, err)
    data = {
        "curve": {
            "pieces": [line_tenths(line, window) for line in picture.solid],
            "dashed": [line_tenths(line, window) for line in picture.dashed],
            "bands": [],
            "ends": [],
            "dots": _spans(picture.dots, window),
            "specks": _spans(picture.specks, window),
            "fills": [line_tenths(ring, window) for ring in picture.fills],
            "dense": _rectangles(picture.dense, window),
        },
        "lane": _lane(picture, window),
        "why": _why(name, picture),
        "note": _note(relation, picture),
    }
    return Drawing(data, _flag_position(picture, window))


def _spans(points: Floats, window: Window) -> list[int]:
    tenths = np.column_stack(
        [tenths_across(points[:, 0], window), tenths_down(points[:, 1], window)]
    )
    spans: list[int] = np.unique(tenths, axis=0).ravel().tolist()
    return spans


def _rectangles(boxes: Floats, window: Window) -> list[int]:
    """Return boxes as left, top, width, height, … in tenths."""
    left, right = (tenths_across(boxes[:, k], window) for k in (0, 1))
    bottom, top = (tenths_down(boxes[:, k], window) for k in (2, 3))
    rectangles: list[int] = (
        np.column_stack([left, top, right - left, bottom - top]).ravel().tolist()
    )
    return rectangles


def _lane(picture: RelationPicture, window: Window) -> dict[str, Any]:
    """Return the lane: where there is some of it over an x, as far as the window shows."""
    spans = tenths_across(picture.across.ravel(), window).reshape(-1, 2)
    return {
        "low": None, "high": None, "band": None, "fixed": True,
        "bands": [[int(a), int(max(b, a + PER_PX))] for a, b in spans],
        "undefined": [], "holes": [], "marks": [], "complete": True,
    }  # fmt: skip


def _flag_position(picture: RelationPicture, window: Window) -> tuple[float, float] | None:
    """Return the rightmost place of its lines, or of what it fills, in px."""
    lines = [*picture.solid, *picture.dashed, *picture.fills]
    lines += [picture.dots] if len(picture.dots) else []
    if not lines:
        return None
    points = np.concatenate(lines)
    visible = points[window.visible.holds(points)]
    if len(visible):
        points = visible
    x, y = points[np.argmax(points[:, 0])]
    return float(window.across(np.array(x))), float(window.down(np.array(y)))


def _why(name: str, picture: RelationPicture) -> dict[str, Any] | None:
    if picture.is_nowhere:
        sentence = f"Nothing of {name} is drawn: it holds at no point of this window."
    elif picture.is_empty:
        sentence = f"Nothing of {name} is seen in this window."
    else:
        return None
    return {"sentence": sentence, "frame": False}


def _note(relation: RealRelation, picture: RelationPicture) -> str:
    """Describe what is not sure of the picture."""
    if relation.is_equation and len(picture.dense):
        return "shaded: more lines than pixels can show"
    if relation.is_equation and len(picture.dots):
        return "dots: may be on it, not proved"
    return ""
