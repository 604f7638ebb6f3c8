"""Paths whose meetings with lines and with each other are known, and curves by an angle."""

from __future__ import annotations

import math
import random
from functools import partial

from axis_path.core import Study
from tests.core.guard.ordinary import SHIFTS
from tests.core.guard.truths import Case, Verdict, is_close, weak, wrong

_Point = tuple[float, float]


def crossed(drawn: random.Random) -> Case:
    """Return a parabola as a path between two ends, with a line that may meet it at an end."""
    abscissa, shift = drawn.choice(SHIFTS)
    low, high = drawn.choice(((0, 2), (-1, 2), (-2, -1), (-2, 2)))
    signs = drawn.choice(("<=", "<")), drawn.choice(("<=", "<"))
    height = drawn.choice((0, 1, 2, 4))
    root = math.sqrt(height)
    points = [
        (t + shift, float(height))
        for t in sorted({-root, root})
        if (low <= t if signs[0] == "<=" else low < t)
        and (t <= high if signs[1] == "<=" else t < high)
    ]
    lines = (
        f"A(t) = (t + ({abscissa}), t^2) for {low} {signs[0]} t {signs[1]} {high}",
        f"h(x) = {height}",
    )
    return _case(lines, "h", points)


def circled(drawn: random.Random) -> Case:
    """Return a circle as a path, with a line that crosses it, touches it or misses it."""
    abscissa, shift = drawn.choice(SHIFTS)
    radius = drawn.choice((1, 2, 5))
    k = drawn.choice((-1, 0, 0.5, 1, 1.25))
    height = k * radius
    reach = math.sqrt(max(radius**2 - height**2, 0))
    points = [(x + shift, height) for x in sorted({-reach, reach})] if abs(k) <= 1 else []
    lines = (
        f"A(t) = ({abscissa} + {radius} cos(t), {radius} sin(t)) for 0 <= t <= 2pi",
        f"h(x) = {height}",
    )
    return _case(lines, "h", points)


#: Two paths, and where they meet.
_PAIRS: tuple[tuple[str, str, list[_Point]], ...] = (
    ("(t, t^2)", "(t^2, t)", [(0, 0), (1, 1)]),
    ("(t, t^3)", "(t^3, t)", [(-1, -1), (0, 0), (1, 1)]),
    ("(t, t^2)", "(t, 2 - t^2)", [(-1, 1), (1, 1)]),
    ("(t, t^2)", "(t, 2t - 1)", [(1, 1)]),
    ("(t, t^2)", "(t, -t^2)", [(0, 0)]),
    ("(t, e^t)", "(t, 1 + t)", [(0, 1)]),
    ("(t, t^2 + 1)", "(t, -t^2)", []),
    ("(t, sin(t))", "(t, t)", [(0, 0)]),
)


def met(drawn: random.Random) -> Case:
    """Return two paths, moved to the same place."""
    one, other, points = drawn.choice(_PAIRS)
    abscissa, shift = drawn.choice(SHIFTS)

    def moved(path: str) -> str:
        x, y = path[1:-1].split(", ")
        return f"({x} + ({abscissa}), {y})"

    lines = tuple(
        f"{name}(t) = {moved(path)} for -3 <= t <= 3" for name, path in (("A", one), ("B", other))
    )
    return _case(lines, "B", [(x + shift, y) for x, y in points])


def _case(lines: tuple[str, ...], other: str, points: list[_Point]) -> Case:
    return Case("; ".join(lines), "path", partial(_judge, lines, other, tuple(points)))


def _judge(lines: tuple[str, ...], other: str, points: tuple[_Point, ...]) -> Verdict:
    study = Study()
    for line in lines:
        study.define(line)
    found = study.intersections("A", other)
    left = list(points)
    amiss: list[str] = []
    for item in found:
        point = next((p for p in left if is_close(item.x, p[0]) and is_close(item.y, p[1])), None)
        if point is not None:
            left.remove(point)
        elif item.proved:
            return wrong(f"claims ({item.x}, {item.y}), {item.text}")
        if point is None or not item.proved:
            amiss.append(f"not proved: ({item.x}, {item.y})")
    if left and found.complete:
        return wrong(f"complete without {left}")
    amiss += [f"lacks {point}" for point in left]
    if not found.complete:
        amiss.append(f"incomplete: {found.note}")
    return weak("; ".join(amiss))
