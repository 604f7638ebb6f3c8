"""The runner of a path as plain data, and where points have been between two states."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Any

import numpy as np

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.compile.compiled import CompiledValue
from axis_path.core.contract import write
from axis_path.core.draw import Window
from axis_path.core.draw.pixels import dot_tenths
from axis_path.core.errors import MathError
from axis_path.core.evaluate import VALUE_BITS, RealPath, evaluate_constant
from axis_path.core.kinds.paths.drawing import lane_scale, point_text, visible_tenths
from axis_path.core.kinds.problems import problem_dict
from axis_path.core.lines.moving import Runner, Trail

#: A position, or None where there is none.
Place = tuple[float, float] | None


@dataclass(frozen=True, slots=True)
class Visit:
    """A state that something moved through.

    Attributes:
        values: the values of all sliders.
        runners: where the runners of paths are that moved, by the id of their line.
        moved: the sliders that moved.
    """

    values: Mapping[str, Fraction]
    runners: Mapping[int, Fraction]
    moved: frozenset[str] = frozenset()


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
    place, text = None, ""
    with precision(VALUE_BITS):
        t = _inside(path, at if isinstance(at, Ball) else path.low.value)
        if runner is not None:
            place, text = _floats([path.x.prove(t), path.y.prove(t)]), point_text(path, t)
    start, stop = lane_scale(path)
    value = float(t.value.mid())
    kept = runner or Runner()
    return {
        "is_set": runner is not None,
        "at": kept.at,
        "value": value,
        "low": path.low.near,
        "high": path.high.near,
        "lane": round(10 * (value - start) / (stop - start) * window.visible.width),
        "text": text,
        "play": write(kept.play),
        "problem": problem_dict(at) if isinstance(at, MathError) else None,
        **visible_tenths(place, window),
    }


def _inside(path: RealPath, t: Ball) -> Ball:
    """Return a parameter, or the nearest end of the domain: a runner does not leave its path."""
    for end, side in ((path.low, -1), (path.high, 1)):
        if ball.subtract(t, end.value).sign() == side:
            return end.value
    return t


def _floats(point: Sequence[Ball]) -> Place:
    if not all(each.is_defined for each in point):
        return None
    x, y = (float(each.value.mid()) for each in point)
    return (x, y) if math.isfinite(x) and math.isfinite(y) else None


def positions(
    points: Mapping[int, CompiledValue], paths: Mapping[int, RealPath], visits: Sequence[Visit]
) -> dict[int, list[tuple[float, float]]]:
    """Return where points and runners have been, by the ids of their lines.

    A slider that a point does not depend on moves it nowhere, and adds nothing.

    Args:
        points: the points that leave a trail.
        paths: the paths whose runner does.
        visits: the states in their order.
    """
    by_line: dict[int, list[tuple[float, float]]] = {}
    for visit in visits:
        for id_, compiled in points.items():
            if visit.moved & _sliders_of(compiled):
                _note(by_line, id_, _point_in(compiled, visit))
        for id_, path in paths.items():
            if id_ in visit.runners:
                _note(by_line, id_, _runner_in(path, visit, visit.runners[id_]))
    return by_line


def trail_tenths(trail: Trail, window: Window) -> list[int]:
    """Return the places of a trail that are seen, x and y in turn, in tenths of a pixel."""
    if not trail.points:
        return []
    places = np.array(trail.points[-trail.most :])
    return dot_tenths(places[window.holds(places)], window)


def _note(found: dict[int, list[tuple[float, float]]], id_: int, place: Place) -> None:
    if place is not None and found.get(id_, [None])[-1] != place:
        found.setdefault(id_, []).append(place)


def _sliders_of(compiled: CompiledValue) -> frozenset[str]:
    """Return the sliders that a point depends on."""
    parts = (compiled.first, compiled.second or compiled.first)
    return frozenset[str]().union(*(part.program.parameters for part in parts))


def _point_in(compiled: CompiledValue, visit: Visit) -> Place:
    parts = (compiled.first, compiled.second or compiled.first)
    return _floats([evaluate_constant(part, visit.values, bits=VALUE_BITS) for part in parts])


def _runner_in(path: RealPath, visit: Visit, t: Fraction) -> Place:
    x, y = (replace(each, parameters=visit.values) for each in (path.x, path.y))
    with precision(VALUE_BITS):
        at = _inside(path, ball.from_fraction(t))
        return _floats([x.prove(at), y.prove(at)])
