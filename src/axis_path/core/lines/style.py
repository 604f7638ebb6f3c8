"""How one line is drawn: its stroke, its weight, its flag, and how its points look."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Literal

from msgspec import Meta

#: Colours and strokes of the palette, by index.
TONES = 8
Tone = Annotated[int, Meta(ge=0, lt=TONES)]


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

    stroke: Tone | None = None
    weight: Literal[1, 2, 3] = 2
    flag: bool = True
    joined: bool = False
    mark: Mark = Mark.DOT
