"""The way of one point through the states of a study, joined where the point really goes."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction

import numpy as np

from axis_path.core.draw import Window
from axis_path.core.lines.moving import Position

#: Places nearer than this are joined by a straight line, in px.
_NEAR_PX = 6.0
#: Between two states it is halved so often at most; what still jumps then is not joined.
_DEPTH = 9
#: A way that is halved becomes shorter than this part of itself, unless the point jumps on it.
_SHRINKS = 0.8
#: So many places are computed for one request.
_MOST = 400


@dataclass(frozen=True, slots=True)
class Visit:
    """A state that something moved through.

    Attributes:
        values: the values of all sliders.
        runners: where the runners of paths are that moved, by the id of their line.
        moved: the sliders that moved.
        is_cut: whether it was not reached on a way: a slider started over, or takes whole numbers.
    """

    values: Mapping[str, Fraction]
    runners: Mapping[int, Fraction]
    moved: frozenset[str] = frozenset()
    is_cut: bool = False


def _between(one: Visit, other: Visit) -> Visit:
    """Return the state in the middle of the way from one to another."""
    values = {name: (value + other.values[name]) / 2 for name, value in one.values.items()}
    runners = {
        id_: (t + other.runners[id_]) / 2 for id_, t in one.runners.items() if id_ in other.runners
    }
    return Visit(values, runners, other.moved)


class Track:
    """The places of one point on its way.

    Args:
        at: where it is in a state.
        window: how far places lie apart is measured in its px.
    """

    def __init__(self, at: Callable[[Visit], Position], window: Window) -> None:
        self._at = at
        self._window = window
        self._positions: list[Position] = []
        self._left = _MOST

    def through(self, visits: Sequence[Visit], *, is_joined: bool) -> list[Position]:
        """Return the places on a way; the first state is left out if the way goes on from it."""
        before: tuple[Visit, Position] | None = None
        for visit in visits:
            now = visit, self._at(visit)
            if before is None:
                if not is_joined or len(visits) == 1:
                    self._add(now[1])
            elif visit.is_cut:
                self._add(None)
                self._add(now[1])
            else:
                self._join(before, now)
            before = now
        return self._positions

    def _join(
        self,
        one: tuple[Visit, Position],
        other: tuple[Visit, Position],
        depth: int = _DEPTH,
        whole: float = math.inf,
    ) -> None:
        """Add the places from one state, which is left out, to another.

        Args:
            one: a state, and where the point is there.
            other: the same.
            depth: how often the way between them may be halved.
            whole: how far apart the ends were of what was halved last, in px.
        """
        if one[1] is None and other[1] is None:
            self._add(None)
            return
        away = self._away(one[1], other[1])
        is_near = away <= _NEAR_PX
        if not is_near and depth and self._left:
            self._left -= 1
            middle = _between(one[0], other[0])
            between = middle, self._at(middle)
            self._join(one, between, depth - 1, away)
            self._join(between, other, depth - 1, away)
            return
        # What only goes quickly comes nearer with each halving; what jumps does not.
        if not is_near and away > _SHRINKS * whole:
            self._add(None)
        self._add(other[1])

    def _away(self, one: Position, other: Position) -> float:
        """Return how far two places lie apart, in px; 0 where both are out of sight on one side."""
        if one is None or other is None:
            return math.inf
        xs = self._window.across(np.array([one[0], other[0]]))
        ys = self._window.down(np.array([one[1], other[1]]))
        is_unseen = (
            (xs < 0).all() or (xs > self._window.width).all()
            or (ys < 0).all() or (ys > self._window.height).all()
        )  # fmt: skip
        return 0.0 if is_unseen else math.hypot(xs[1] - xs[0], ys[1] - ys[0])

    def _add(self, position: Position) -> None:
        if position != (self._positions[-1] if self._positions else None):
            self._positions.append(position)
