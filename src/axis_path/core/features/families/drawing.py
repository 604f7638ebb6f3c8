"""The curves of families as plain data: lines only, graded from the first value to the last."""

from __future__ import annotations

from typing import Any

from axis_path.core.contract import write
from axis_path.core.deadline import calculation
from axis_path.core.draw import Window, sample_curve, sample_path
from axis_path.core.draw.pixels import (
    band_tenths,
    last_visible_point,
    visible_lines,
)
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate import RealFunction, RealPath
from axis_path.core.kinds.drawing import NOTHING, Drawing, cached_drawing, stopped
from axis_path.core.kinds.problems import problem_dict
from axis_path.core.kinds.relations.drawing import draw_equation
from axis_path.core.language import GREEK
from axis_path.core.lines.family import Drawable, FamilyState, Member

#: The name under which drawings of members are kept apart from those of whole lines.
_MEMBER = "member"


def draw_member(real: Drawable | None, window: Window) -> Drawing:
    """Draw one curve of a family."""
    if real is None:
        return NOTHING
    if isinstance(real, RealFunction):
        return cached_drawing((_MEMBER, *real.key(), window), lambda: _function(real, window))
    if isinstance(real, RealPath):
        key = (_MEMBER, *real.x.key(), *real.y.key(), window)
        return cached_drawing(key, lambda: _path(real, window))
    return draw_equation("", real, window, is_hidden=False)


def _function(function: RealFunction, window: Window) -> Drawing:
    try:
        with calculation():
            curve = sample_curve(function, window)
    except StoppedError as err:
        return stopped(None, err)
    data = {
        "pieces": visible_lines(curve.pieces, window),
        "bands": [band_tenths(band, window) for band in curve.bands],
    }
    return Drawing({"curve": data}, last_visible_point(curve, window))


def _path(path: RealPath, window: Window) -> Drawing:
    try:
        with calculation():
            curve = sample_path(path, window)
    except StoppedError as err:
        return stopped(None, err)
    data = {"pieces": visible_lines(curve.pieces, window), "bands": []}
    return Drawing({"curve": data}, last_visible_point(curve, window))


def family_row(
    state: FamilyState, drawn: list[Drawing], flags: list[dict[str, int] | None]
) -> dict[str, Any]:
    """Return a family as plain data.

    Args:
        state: the family.
        drawn: what is drawn of its members; nothing of a hidden line.
        flags: where their values are written.
    """
    members = [
        _member(member, drawing, flag)
        for member, drawing, flag in zip(state.members, drawn, flags, strict=True)
    ]
    return {
        **write(state.family),
        "name": state.name,
        "sign": GREEK.get(state.name, state.name),
        "members": members,
        "problem": None if state.problem is None else problem_dict(state.problem),
    }


def _member(member: Member, drawing: Drawing, flag: dict[str, int] | None) -> dict[str, Any]:
    curve = drawing.data["curve"] or {}
    return {
        "text": member.text,
        "pieces": curve.get("pieces", []),
        "bands": curve.get("bands", []),
        "dashed": curve.get("dashed", []),
        "flag": flag,
        "problem": member.problem,
    }
