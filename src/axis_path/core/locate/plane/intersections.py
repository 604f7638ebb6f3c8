"""Where two curves meet in the plane: two equations, or two paths by both of their parameters."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import partial

import numpy as np
from flint import arb

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.errors import NotHandledError
from axis_path.core.evaluate import (
    Boxes,
    End,
    RealFunction,
    RealPath,
    RealSurface,
    SharedGraph,
)
from axis_path.core.locate.algebra.exact import candidates
from axis_path.core.locate.cells import Interval, float_above, float_below
from axis_path.core.locate.finding import Finding, Findings, Kind
from axis_path.core.locate.plane.search import Solution, Solved, Touching, solve_in_plane
from axis_path.core.locate.plane.touching import touching_equations, touching_paths
from axis_path.core.locate.search.stopped import put_together
from axis_path.core.locate.search.verdict import finding_at
from axis_path.core.locate.search.zeros import SEARCH_BITS, searched

#: A function, a path, or an equation as what must be zero.
Curve = RealFunction | RealPath | RealSurface

_OTHER = "variable s"


@dataclass(frozen=True, slots=True)
class Bounds:
    """Where meetings are sought; None for a side without a bound.

    Attributes:
        x: between which abscissae, ``y`` between which ordinates.
    """

    x: tuple[Ball, Ball] | None
    y: tuple[Ball, Ball] | None = None


def without_duplicates(items: list[Finding]) -> list[Finding]:
    """Return each point once: a path that closes, or crosses itself there, comes by again."""
    distinct: list[Finding] = []
    for item in sorted(items, key=lambda other_item: (other_item.x, other_item.y)):
        near = 1e-11 * (1 + abs(item.x) + abs(item.y))
        same = [
            k for k, other in enumerate(distinct)
            if abs(other.x - item.x) <= near and abs(other.y - item.y) <= near
        ]  # fmt: skip
        if not same:
            distinct.append(item)
        elif (item.proved, bool(item.exact)) > (
            distinct[same[0]].proved,
            bool(distinct[same[0]].exact),
        ):
            distinct[same[0]] = item
    return distinct


def of_equations(
    one: RealSurface, other: RealSurface, bounds: Bounds, interval: Interval
) -> Findings:
    """Find where two equations hold together."""
    x, y = bounds.x or (interval.low, interval.high), bounds.y
    if y is None:
        raise NotHandledError(
            "Two equations are solved between bounds of y: give them, or the window."
        )
    return _solved_in(one, other, _box(x, y), lambda s: (s.x, s.y, ""))


def _box(x: tuple[Ball, Ball], y: tuple[Ball, Ball]) -> Boxes:
    ends = (
        float_below(x[0].value.lower()), float_above(x[1].value.upper()),
        float_below(y[0].value.lower()), float_above(y[1].value.upper()),
    )  # fmt: skip
    return Boxes(*(np.array([end]) for end in ends))


def of_paths(shared: SharedGraph, one: Curve, other: Curve, bounds: Bounds) -> Findings:
    """Find where two paths meet: two equations in the parameters of both."""
    if not (isinstance(one, RealPath) and isinstance(other, RealPath)):
        raise NotHandledError("A line x = … and a path are not followed together here.")
    second = shared.input(_OTHER)
    gaps = []
    for mine, theirs in ((one.x, other.x), (one.y, other.y)):
        step = shared.graph.minus(
            shared.take(mine.expression), shared.take(theirs.expression, second)
        )
        gaps.append(RealSurface(shared.expression(step), _OTHER, one.x.parameters))
    ends = ((one.low, one.high), (other.low, other.high))

    def point(solution: Solution) -> tuple[tuple[float, float], tuple[float, float], str]:
        hull = Ball(arb(solution.x[0]).union(arb(solution.x[1])))
        x, y = one.x.prove(hull).value, one.y.prove(hull).value
        words = f"at {one.variable} = {solution.x[0]:.6g} of {one.name}".replace("-", "−")
        return _bounds(x), _bounds(y), words

    box = _box(*(_widened(low.value, high.value) for low, high in ends))
    paths = _Paths(one, ends)
    points = _solved_in(gaps[0], gaps[1], box, point, paths, partial(touching_paths, one, other))
    if bounds.x is None:
        return points
    low, high = (float(end.value.mid()) for end in bounds.x)
    return replace(points, items=tuple(item for item in points if low <= item.x <= high))


def meet_in_box(
    one: RealSurface, other: RealSurface, box: tuple[tuple[float, float], tuple[float, float]]
) -> Findings:
    """Solve two equations in two unknowns between the ends of a box."""
    with precision(SEARCH_BITS):
        ends = Boxes(*(np.array([end]) for end in (*box[0], *box[1])))
        return searched(lambda: _solved_in(one, other, ends, lambda s: (s.x, s.y, "")))


@dataclass(frozen=True, slots=True)
class _Paths:
    """Two paths that are solved for the parameters at which they meet.

    Attributes:
        first: the path whose coordinates are given.
        ends: of both parameters.
    """

    first: RealPath
    ends: tuple[tuple[End, End], tuple[End, End]]

    def holds(self, parameters: Sequence[Ball]) -> bool | None:
        """Check whether both parameters lie on their paths; None if that is not known."""
        answers: set[bool | None] = set()
        for parameter, (low, high) in zip(parameters, self.ends, strict=True):
            for end, side in ((low, 1), (high, -1)):
                sign = ball.subtract(parameter, end.value).sign()
                answers.add(None if sign is None else sign == side or (sign == 0 and end.closed))
        return False if False in answers else None if None in answers else True

    def point(self, parameters: Sequence[Ball]) -> list[Ball]:
        """Return the point at an exact parameter of the first path."""
        return [self.first.x.prove(parameters[0]), self.first.y.prove(parameters[0])]


def _widened(low: Ball, high: Ball) -> tuple[Ball, Ball]:
    """Reach a little beyond the ends of a parameter, so that a meeting there is inside the box."""
    room = (high.value - low.value) / 64
    return Ball(low.value - room), Ball(high.value + room)


def _bounds(value: arb) -> tuple[float, float]:
    return float_below(value.lower()), float_above(value.upper())


def _solved_in(
    one: RealSurface, other: RealSurface, box: Boxes,
    point: Callable[[Solution], tuple[tuple[float, float], tuple[float, float], str]],
    paths: _Paths | None = None, touching: Touching | None = None,
) -> Findings:  # fmt: skip
    """Solve two equations, and give the points; those of two paths are points of the first."""
    solved = solve_in_plane(one, other, box, touching or partial(touching_equations, one, other))
    points = _points_of(solved, (one, other), point, paths)
    items = without_duplicates(put_together(points, solved.stopped is not None))
    if solved.stopped is not None:
        return Findings(tuple(items), complete=False, note=f"{solved.stopped.message} {_BEFORE}")
    complete = solved.complete and all(item.proved for item in items)
    return Findings(tuple(items), complete, "" if complete else _MORE)


def _points_of(
    solved: Solved, equations: tuple[RealSurface, RealSurface],
    point: Callable[[Solution], tuple[tuple[float, float], tuple[float, float], str]],
    paths: _Paths | None,
) -> Iterator[Finding]:  # fmt: skip
    """Yield the points of solutions."""
    for solution in solved.solutions:
        unknowns = [Ball(arb(low).union(arb(high))) for low, high in (solution.x, solution.y)]
        exact = _exact_point(*equations, unknowns)
        is_at = True if paths is None else paths.holds(exact or unknowns)
        if is_at is False:
            continue
        x, y, words = point(solution)
        hulls = [Ball(arb(low).union(arb(high))) for low, high in (x, y)]
        note = "" if solution.proved else _NOT_PROVED
        if exact is not None:
            hulls = exact if paths is None else paths.point(exact)
            note = (
                note
                and "they meet here exactly; that they do not meet again this close is not proved"
            )
        if is_at is None:
            note = "whether it lies before the end of the path is not proved"
        finding = finding_at(Kind.INTERSECTION, *hulls, proved=not note, why=words, note=note)
        yield replace(finding, multiplicity=solution.multiplicity if solution.proved else None)


def _exact_point(one: RealSurface, other: RealSurface, hulls: list[Ball]) -> list[Ball] | None:
    """Return a point of simple numbers in a box that solves both equations exactly, if any."""
    across, up = (
        [result for result, _ in candidates(hull.value.lower(), hull.value.upper())]
        for hull in hulls
    )
    for x in across:
        for y in up:
            values = [surface.prove(x, y) for surface in (one, other)]
            if all(value.is_defined and value.exact == 0 for value in values):
                return [x, y]
    return None


_MORE = "Whether there are more close to those that are not proved is not decided."


_BEFORE = "Until then these were found."


_NOT_PROVED = (
    "they come so close together here that crossing and touching could not be distinguished"
)
