"""What moves on the plane: the runner of a path, and the trail that a point leaves."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from typing import Any

from axis_path.core.errors import FormatError
from axis_path.core.limits import LINE_LENGTH, TRAIL_POINTS
from axis_path.core.lines.sliders import Play, play_from_dict, play_to_dict

#: Positions are kept to so many digits: more than any screen tells apart.
_DIGITS = 10
_USUAL_MOST = 500


@dataclass(frozen=True, slots=True)
class Runner:
    """The point of a path at one parameter.

    Attributes:
        at: the parameter, an expression as it was typed; empty for the beginning of the path.
        play: how it moves by itself.
    """

    at: str = ""
    play: Play = field(default_factory=Play)


@dataclass(frozen=True, slots=True)
class Trail:
    """Where a point has been, in the coordinates of the plane.

    Attributes:
        points: the positions, the oldest first.
        most: how many of the last ones are shown.
    """

    points: tuple[tuple[float, float], ...] = ()
    most: int = _USUAL_MOST

    def with_more(self, points: Iterable[tuple[float, float]]) -> Trail:
        """Return the trail with further positions; the oldest leave when there are too many."""
        found = list(self.points)
        for x, y in points:
            place = (_rounded(x), _rounded(y))
            if all(map(math.isfinite, place)) and (not found or found[-1] != place):
                found.append(place)
        return replace(self, points=tuple(found[-TRAIL_POINTS.value :]))

    def thinned(self) -> Trail:
        """Return the trail with every second position, the last one among them."""
        return replace(self, points=self.points[::-1][::2][::-1])


def _rounded(value: float) -> float:
    return float(f"{value:.{_DIGITS}g}")


def runner_to_dict(runner: Runner) -> dict[str, Any]:
    """Return a runner as plain data."""
    return {"at": runner.at, "play": play_to_dict(runner.play)}


def runner_from_dict(given: object) -> Runner:
    """Read a runner.

    Raises:
        MathError: a part is of the wrong kind.
    """
    at = given.get("at", "") if isinstance(given, dict) else None
    if not isinstance(given, dict) or not isinstance(at, str) or len(at) > LINE_LENGTH.value:
        raise FormatError("The runner of a path is of the wrong kind.")
    return Runner(at, play_from_dict(given.get("play", {})))


def trail_to_dict(trail: Trail) -> dict[str, Any]:
    """Return a trail as plain data."""
    return {"points": [list(point) for point in trail.points], "most": trail.most}


def trail_from_dict(given: object) -> Trail:
    """Read a trail.

    Raises:
        FormatError: a part is of the wrong kind.
    """
    if not isinstance(given, dict):
        raise FormatError("A trail is of the wrong kind.")
    most = given.get("most", _USUAL_MOST)
    if type(most) is not int or not 1 <= most <= TRAIL_POINTS.value:
        raise FormatError(f"A trail shows 1 to {TRAIL_POINTS.value:,} positions.")
    return Trail((), most).with_more(read_points(given.get("points", [])))


def read_points(given: object) -> list[tuple[float, float]]:
    """Read positions.

    Raises:
        FormatError: they are of the wrong kind, or too many.
    """
    if not isinstance(given, list) or len(given) > TRAIL_POINTS.value:
        raise FormatError(f"A trail has at most {TRAIL_POINTS.value:,} positions.")
    for point in given:
        if not isinstance(point, list) or len(point) != 2:
            raise FormatError("A position of a trail has two numbers.")
        if not all(isinstance(each, int | float) and not isinstance(each, bool) for each in point):
            raise FormatError("A position of a trail has two numbers.")
    return [(float(x), float(y)) for x, y in given]
