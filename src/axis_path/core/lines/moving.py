"""What moves on the plane: the runner of a path, and the trail that a point leaves."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from typing import Annotated

from msgspec import Meta

from axis_path.core.contract import Id, Line, Pair
from axis_path.core.errors import FormatError
from axis_path.core.limits import TRAIL_POINTS
from axis_path.core.lines.sliders import Play

#: Positions are stored to so many digits: more than any screen tells apart.
_DIGITS = 10
#: A position, or None where there is none.
Position = tuple[float, float] | None
#: Positions in their order; None where the point was nowhere, or jumped: nothing is joined there.
Points = Annotated[tuple[Pair | None, ...], Meta(max_length=TRAIL_POINTS.value)]


@dataclass(frozen=True, slots=True)
class Runner:
    """The point of a path at one parameter.

    Attributes:
        at: the parameter, an expression as it was typed; empty for the beginning of the path.
        play: how it moves by itself.
    """

    at: Line = ""
    play: Play = field(default_factory=Play)


@dataclass(frozen=True, slots=True)
class Trail:
    """Where a point has been, in the coordinates of the plane.

    Attributes:
        points: the positions, the oldest first.
        most: how many of the last ones are shown.
    """

    points: Points = ()
    most: Id = 500

    def __post_init__(self) -> None:
        """Refuse to show no position, or more than are stored.

        Raises:
            FormatError: the number cannot be.
        """
        if not 1 <= self.most <= TRAIL_POINTS.value:
            raise FormatError(f"A trail shows 1 to {TRAIL_POINTS.value:,} positions.")

    def with_more(self, points: Iterable[Position]) -> Trail:
        """Return the trail with further positions; the oldest leave when there are too many."""
        extended: list[Position] = list(self.points)
        for point in points:
            position = None if point is None else (_rounded(point[0]), _rounded(point[1]))
            if position is not None and not all(map(math.isfinite, position)):
                position = None
            if position != (extended[-1] if extended else None):
                extended.append(position)
        return replace(self, points=tuple(extended[-TRAIL_POINTS.value :]))

    def thinned(self) -> Trail:
        """Return the trail with every second position, the last one among them."""
        remaining: list[Position] = []
        count = 0
        for position in reversed(self.points):
            if position is None or count % 2 == 0:
                remaining.append(position)
            count += position is not None
        return replace(self, points=tuple(reversed(remaining)))

    def strokes(self) -> list[list[tuple[float, float]]]:
        """Return the last positions that are shown, each run that is joined by itself."""
        runs: list[list[tuple[float, float]]] = [[]]
        for position in self.points[-self.most :]:
            if position is None:
                runs.append([])
            else:
                runs[-1].append(position)
        return [run for run in runs if run]


def _rounded(value: float) -> float:
    return float(f"{value:.{_DIGITS}g}")
