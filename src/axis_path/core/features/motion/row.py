"""The runner of a path as plain data, and where points have been between two states."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import partial
from typing import Any

import numpy as np

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.compile.compiled import CompiledValue
from axis_path.core.contract import write
from axis_path.core.draw import Window
from axis_path.core.draw.pixels import PER_PX, dot_tenths
from axis_path.core.errors import DomainError, MathError
from axis_path.core.evaluate import VALUE_BITS, RealPath, evaluate_constant
from axis_path.core.features.motion.track import Track, Visit
from axis_path.core.kinds.paths.drawing import lane_scale, point_text, visible_tenths
from axis_path.core.kinds.problems import problem_dict
from axis_path.core.lines.moving import Position, Runner, Trail

#: Farther outside of the window nothing of a trail is kept for a picture.
_FAR_PX = 4_000


@dataclass(frozen=True, slots=True)
class MovingPoint:
    """A point that leaves a trail.

    Attributes:
        compiled: its coordinates.
        sliders: those that move it.
        values: returns the values of all names where the sliders have some values.
    """

    compiled: CompiledValue
    sliders: frozenset[str]
    values: Callable[[Mapping[str, Fraction]], Parameters]


def make_runner(
    path: RealPath, runner: Runner | None, at: Ball | MathError | None, window: Window
) -> dict[str, Any]:
    """Return the runner of a path: where it is on the lane and on the plane, and how it plays.

    Args:
        path: the path with the present values of the sliders.
        runner: as it is stored; None for one that was never moved, which waits at the beginning.
        at: its parameter, or why there is none.
        window: what part of the plane is seen.
    """
    position, text = None, ""
    with precision(VALUE_BITS):
        t = _inside(path, at if isinstance(at, Ball) else path.low.value)
        if runner is not None:
            position, text = _floats([path.x.prove(t), path.y.prove(t)]), point_text(path, t)
    start, stop = lane_scale(path)
    value = float(t.value.mid())
    stored = runner or Runner()
    return {
        "is_set": runner is not None,
        "at": stored.at,
        "value": value,
        "low": path.low.near,
        "high": path.high.near,
        "lane": round(10 * (value - start) / (stop - start) * window.visible.width),
        "text": text,
        "play": write(stored.play),
        "problem": problem_dict(at) if isinstance(at, MathError) else None,
        **visible_tenths(position, window),
    }


def _inside(path: RealPath, t: Ball) -> Ball:
    """Return a parameter, or the nearest end of the domain: a runner does not leave its path."""
    for end, side in ((path.low, -1), (path.high, 1)):
        if ball.subtract(t, end.value).sign() == side:
            return end.value
    return t


def _floats(point: Sequence[Ball]) -> Position:
    if not all(coordinate.is_defined for coordinate in point):
        return None
    x, y = (float(coordinate.value.mid()) for coordinate in point)
    return (x, y) if math.isfinite(x) and math.isfinite(y) else None


def positions(
    points: Mapping[int, MovingPoint],
    paths: Mapping[int, RealPath],
    visits: Sequence[Visit],
    window: Window,
    *,
    is_joined: bool,
) -> dict[int, list[Position]]:
    """Return where points and runners have been, by the ids of their lines.

    Between two states the way of a point is computed too, until its places lie close together: a
    slow machine leaves the same trail as a quick one. Where it is nowhere, or jumps, there is None.
    A slider that a point does not depend on moves it nowhere, and adds nothing.

    Args:
        points: the points that leave a trail, and what moves them.
        paths: the paths whose runner does.
        visits: the states in their order.
        window: how far places lie apart is measured in its px.
        is_joined: whether the first state is only where the way goes on from.
    """
    by_line: dict[int, list[Position]] = {}
    for id_, point in points.items():
        moving = [visit for visit in visits if visit.moved & point.sliders]
        at = partial(_point_in, point)
        by_line[id_] = Track(at, window).through(moving, is_joined=is_joined)
    for id_, path in paths.items():
        moving = [visit for visit in visits if id_ in visit.runners]
        at = partial(_runner_in, path, id_)
        by_line[id_] = Track(at, window).through(moving, is_joined=is_joined)
    return {id_: positions for id_, positions in by_line.items() if positions}


def trail_tenths(trail: Trail, window: Window) -> list[list[int]]:
    """Return a trail as strokes, x and y in turn, in tenths of a pixel; cut far outside."""
    strokes = []
    for run in trail.strokes():
        tenths = dot_tenths(np.array(run), window)
        limit = _FAR_PX * PER_PX
        stroke: list[int] = []
        for x, y in zip(tenths[::2], tenths[1::2], strict=True):
            if -limit <= x <= limit and -limit <= y <= limit:
                stroke += [x, y]
                continue
            strokes.append(stroke)
            stroke = []
        strokes.append(stroke)
    return [stroke for stroke in strokes if stroke]


def _point_in(point: MovingPoint, visit: Visit) -> Position:
    parts = (point.compiled.first, point.compiled.second or point.compiled.first)
    try:
        values = point.values(visit.values)
        return _floats([evaluate_constant(part, values, bits=VALUE_BITS) for part in parts])
    except DomainError:
        # The equations on which it rests have no solution there.
        return None


def _runner_in(path: RealPath, line_id: int, visit: Visit) -> Position:
    x, y = (replace(coordinate, parameters=visit.values) for coordinate in (path.x, path.y))
    with precision(VALUE_BITS):
        at = _inside(path, ball.from_fraction(visit.runners[line_id]))
        return _floats([x.prove(at), y.prove(at)])
