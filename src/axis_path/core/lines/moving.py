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
Points = Annotated[tuple[Pair, ...], Meta(max_length=TRAIL_POINTS.value)]


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

    def with_more(self, points: Iterable[tuple[float, float]]) -> Trail:
        """Return the trail with further positions; the oldest leave when there are too many."""
        extended = list(self.points)
        for x, y in points:
            place = (_rounded(x), _rounded(y))
            if all(map(math.isfinite, place)) and (not extended or extended[-1] != place):
                extended.append(place)
        return replace(self, points=tuple(extended[-TRAIL_POINTS.value :]))

    def thinned(self) -> Trail:
        """Return the trail with every second position, the last one among them."""
        return replace(self, points=self.points[::-1][::2][::-1])


def _rounded(value: float) -> float:
    return float(f"{value:.{_DIGITS}g}")
