"""How one line is drawn: its stroke, its weight, its flag, and how its points look."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from axis_path.core.errors import FormatError

#: Colours and strokes of the palette, by index.
TONES = 8


class Mark(StrEnum):
    """What stands at a point."""

    DOT = "dot"
    RING = "ring"
    CROSS = "cross"
    SQUARE = "square"


@dataclass(frozen=True, slots=True)
class LineStyle:
    """What was chosen for a line.

    Attributes:
        stroke: the dashes, as an index of the palette; None for those of its colour.
        weight: 1 thin, 2 as usual, 3 thick.
        flag: whether the lettered flag is shown.
        joined: whether the points of a list are joined.
        mark: what stands at its points.
    """

    stroke: int | None = None
    weight: int = 2
    flag: bool = True
    joined: bool = False
    mark: Mark = Mark.DOT


def style_to_dict(style: LineStyle) -> dict[str, Any]:
    """Return a style as plain data."""
    return {
        "stroke": style.stroke, "weight": style.weight, "flag": style.flag,
        "joined": style.joined, "mark": style.mark.value,
    }  # fmt: skip


def style_from_dict(given: object, present: LineStyle | None = None) -> LineStyle:
    """Read a style; what is not given stays as it is.

    Raises:
        FormatError: a part is of the wrong kind.
    """
    present = present or LineStyle()
    if not isinstance(given, dict):
        raise FormatError("The style of a line is of the wrong kind.")
    stroke, weight = given.get("stroke", present.stroke), given.get("weight", present.weight)
    if stroke is not None and (type(stroke) is not int or not 0 <= stroke < TONES):
        raise FormatError("A stroke is one of the palette's.")
    if type(weight) is not int or weight not in (1, 2, 3):
        raise FormatError("A line is thin (1), usual (2) or thick (3).")
    flag, joined = (given.get(name, getattr(present, name)) for name in ("flag", "joined"))
    if not isinstance(flag, bool) or not isinstance(joined, bool):
        raise FormatError("The style of a line is of the wrong kind.")
    try:
        mark = Mark(given.get("mark", present.mark))
    except ValueError as err:
        raise FormatError("A point is a dot, a ring, a cross or a square.") from err
    return LineStyle(stroke, weight, flag, joined, mark)
