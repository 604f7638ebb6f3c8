"""Solve two equations in two unknowns in a box: all solutions, each proved to be single.

Boxes are left out where an enclosure of either equation excludes zero, narrowed by Krawczyk's
operator, and cut where that does not help. If the operator maps a box into its own inside, the box
holds exactly one solution. What stays undecided in the smallest boxes, as where two curves touch,
is given as found, not proved.

Source: Krawczyk 1969; Neumaier, *Interval Methods for Systems of Equations*, chapter 5.
"""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Enclosure
from axis_path.core.deadline import check, grace_period, is_brief
from axis_path.core.errors import LimitError, StoppedError
from axis_path.core.evaluate import Boxes, RealSurface
from axis_path.core.limits import PLANE_BOXES
from axis_path.core.locate.search.stopped import GRACE_S

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
_ROUNDS = 90
#: Boxes narrower than this, relative to their place, are not cut any more.
_NARROWEST = 1e-10
#: So many boxes that are all as small as this, beside the whole, lie around contacts.
_MANY, _CLOSE = 1_500, 1e-4
#: More than what 40 operations in floats may lose, beside the sizes that take part.
_LOSS = 64 * 2.0**-52


@dataclass(frozen=True, slots=True)
class Solution:
    """One solution: its box, and whether exactly one is proved to lie in it.

    Attributes:
        multiplicity: how often it counts, if that is known of a proved one.
    """

    x: tuple[float, float]
    y: tuple[float, float]
    proved: bool
    multiplicity: int | None = 1


#: Settles a box in which two curves may touch: the solution in it, none (False), or not (True).
Touching = Callable[[Solution], Solution | bool]


@dataclass(frozen=True, slots=True)
class Solved:
    """All solutions in a box, and whether it is proved that there are no others.

    Attributes:
        stopped: what stopped the search; the solutions are those it had proved until then.
    """

    solutions: tuple[Solution, ...]
    complete: bool
    stopped: StoppedError | None = None


def solve_in_plane(
    one: RealSurface, other: RealSurface, box: Boxes, touching: Touching = lambda _: True
) -> Solved:
    """Find where two functions of two variables are both zero.

    Args:
        one: a function.
        other: another of the same variables.
        box: one box, the part of the plane that is searched.
        touching: settles what boxes alone cannot.

    Raises:
        LimitError: there are too many boxes to look at.
        NotHandledError: a derivative is not known.
        StoppedError: the search was stopped before it had proved a solution.
    """
    slopes = (one.slopes(), other.slopes())
    if slopes[0] is None or slopes[1] is None:
        raise LimitError(
            "The slopes of these equations are not known, so they are not solved here."
        )
    matrix = (slopes[0][0], slopes[0][1], slopes[1][0], slopes[1][1])
    proved: list[Boxes] = []
    try:
        narrow = _parted(one, other, matrix, box.cut(4), proved)
    except StoppedError as err:
        if is_brief() or not any(map(len, proved)):
            raise
        # Each of these holds exactly one, whatever was not looked at.
        boxes = _together(proved)
        known = [replace(solution, proved=True) for solution in _solutions_of([boxes])]
        with grace_period(GRACE_S), suppress(StoppedError):
            known = _finished(boxes, one, other, matrix)
        known = _distinct(known)
        return Solved(tuple(sorted(known, key=_place)), complete=False, stopped=err)
    proved_solutions = _finished(_together(proved), one, other, matrix)
    unsure = []
    for cluster in _clusters(
        [
            solution
            for solution in _solutions_of(narrow)
            if not any(_touch(solution, s) for s in proved_solutions)
        ]
    ):
        blown = _blown_up(cluster, one, other, matrix) or touching(cluster)
        if isinstance(blown, Solution):
            proved_solutions.append(blown)
        elif blown:
            unsure.append(cluster)
    solutions = _distinct(proved_solutions) + unsure
    return Solved(tuple(sorted(solutions, key=_place)), complete=not unsure)


def _place(solution: Solution) -> tuple[tuple[float, float], tuple[float, float]]:
    return solution.x, solution.y


def _parted(
    one: RealSurface, other: RealSurface, matrix: tuple[RealSurface, ...], boxes: Boxes,
    proved: list[Boxes],
) -> list[Boxes]:  # fmt: skip
    """Cut boxes until each is empty, or holds one solution for sure, or is too narrow to be cut.

    Args:
        one: a function.
        other: another of the same variables.
        matrix: their slopes.
        boxes: what is searched.
        proved: takes the boxes that hold one solution; they are not lost if this is stopped.

    Returns:
        The narrow boxes that are left.
    """
    narrow: list[Boxes] = []
    looked_at = 0
    for _ in range(_ROUNDS):
        looked_at += len(boxes)
        if looked_at > PLANE_BOXES.value:
            raise LimitError(
                "These equations take too many boxes to solve: search a smaller window."
            )
        check()
        boxes = _not_excluded(boxes, one, other)
        if not len(boxes):
            break
        boxes, sure = _narrowed(boxes, one, other, matrix)
        proved.append(boxes.take(sure))
        boxes = boxes.take(~sure)
        small = _is_narrow(boxes)
        if len(boxes) > _MANY and _are_close(boxes):
            # Around a contact there are the more boxes the smaller they are: they will not part.
            small[:] = True
        narrow.append(boxes.take(small))
        boxes = _halved(boxes.take(~small))
    else:
        narrow.append(boxes)
    return narrow


def _blown_up(
    cluster: Solution, one: RealSurface, other: RealSurface, matrix: tuple[RealSurface, ...]
) -> Solution | None:
    """Prove a solution that lies on the border of boxes, in a box that has it well inside."""
    ends = []
    for low, high in (cluster.x, cluster.y):
        middle, room = (low + high) / 2, (high - low) + 1e-9 * max(1.0, abs(low), abs(high))
        ends += [middle - 4 * room, middle + 4 * room]
    box = Boxes(*(np.array([end]) for end in ends))
    narrower, inside = _narrowed(box, one, other, matrix)
    if not len(narrower) or not inside[0]:
        return None
    return _finished(narrower, one, other, matrix)[0]


def _not_excluded(boxes: Boxes, one: RealSurface, other: RealSurface) -> Boxes:
    for surface in (one, other):
        if not len(boxes):
            break
        values = surface.enclose(boxes)
        boxes = boxes.take(~((values.low > 0) | (values.high < 0) | values.nowhere))
    return boxes


def _narrowed(
    boxes: Boxes, one: RealSurface, other: RealSurface, matrix: tuple[RealSurface, ...]
) -> tuple[Boxes, Flags]:
    """Apply Krawczyk's operator; give what is left of the boxes, and which hold one solution."""
    if not len(boxes):
        return boxes, np.zeros(0, dtype=np.bool_)
    mid_x, mid_y = (boxes.x_low + boxes.x_high) / 2, (boxes.y_low + boxes.y_high) / 2
    at_middle = [s.enclose(Boxes(mid_x, mid_x, mid_y, mid_y)) for s in (one, other)]
    slopes = [s.enclose(boxes) for s in matrix]
    usable = np.ones(len(boxes), dtype=np.bool_)
    for values in (*at_middle, *slopes):
        usable &= (
            ~(values.partial | values.broken) & np.isfinite(values.low) & np.isfinite(values.high)
        )
    with np.errstate(all="ignore"):
        a, b, c, d = ((s.low + s.high) / 2 for s in slopes)
        size = a * d - b * c
        usable &= np.abs(size) > 1e-14 * (np.abs(a * d) + np.abs(b * c))
        columns = _Columns(boxes, at_middle, slopes)
        new_x = _operator(columns, (d / size, -b / size), 0)
        new_y = _operator(columns, (-c / size, a / size), 1)
    low_x, high_x = np.maximum(boxes.x_low, new_x[0]), np.minimum(boxes.x_high, new_x[1])
    low_y, high_y = np.maximum(boxes.y_low, new_y[0]), np.minimum(boxes.y_high, new_y[1])
    with np.errstate(invalid="ignore"):
        inside = usable & (new_x[0] > boxes.x_low) & (new_x[1] < boxes.x_high)
        inside &= (new_y[0] > boxes.y_low) & (new_y[1] < boxes.y_high)
        empty = usable & ((low_x > high_x) | (low_y > high_y))
    low_x, high_x = np.where(usable, low_x, boxes.x_low), np.where(usable, high_x, boxes.x_high)
    low_y, high_y = np.where(usable, low_y, boxes.y_low), np.where(usable, high_y, boxes.y_high)
    return Boxes(low_x, high_x, low_y, high_y).take(~empty), inside[~empty]


@dataclass(frozen=True, slots=True)
class _Columns:
    """Boxes with the enclosures of both functions at their middles, and of the four slopes."""

    boxes: Boxes
    at_middle: list[Enclosure]
    slopes: list[Enclosure]


def _operator(columns: _Columns, inverse: tuple[Floats, Floats], row: int) -> tuple[Floats, Floats]:
    """Return one row of m - Y f(m) + (1 - Y J(X)) (X - m), rounded outward."""
    boxes, (f, g), slopes = columns.boxes, columns.at_middle, columns.slopes
    p, q = inverse
    middles = (boxes.x_low + boxes.x_high) / 2, (boxes.y_low + boxes.y_high) / 2
    middle = middles[row]
    radius_x = np.maximum(boxes.x_high - middles[0], middles[0] - boxes.x_low)
    radius_y = np.maximum(boxes.y_high - middles[1], middles[1] - boxes.y_low)
    f_mid, f_rad = (f.low + f.high) / 2, (f.high - f.low) / 2
    g_mid, g_rad = (g.low + g.high) / 2, (g.high - g.low) / 2
    step = p * f_mid + q * g_mid
    reach = np.abs(p) * f_rad + np.abs(q) * g_rad
    reach += _LOSS * (np.abs(p * f_mid) + np.abs(q * g_mid) + np.abs(middle))
    for column, radius in ((0, radius_x), (1, radius_y)):
        one, other = slopes[column], slopes[2 + column]
        unit = 1.0 if column == row else 0.0
        far = np.zeros(len(middle))
        for u in (one.low, one.high):
            for v in (other.low, other.high):
                rest = np.abs(unit - (p * u + q * v))
                far = np.maximum(far, rest + _LOSS * (unit + np.abs(p * u) + np.abs(q * v)))
        reach += far * radius * (1 + _LOSS)
    return middle - step - reach, middle - step + reach


def _is_narrow(boxes: Boxes) -> Flags:
    def narrow(low: Floats, high: Floats) -> Flags:
        scale = np.maximum(np.maximum(np.abs(low), np.abs(high)), 1e-3)
        return np.asarray(high - low <= _NARROWEST * scale)

    return narrow(boxes.x_low, boxes.x_high) & narrow(boxes.y_low, boxes.y_high)


def _are_close(boxes: Boxes) -> bool:
    def close(low: Floats, high: Floats) -> bool:
        scale = np.maximum(np.maximum(np.abs(low), np.abs(high)), 1e-1)
        return bool(np.all(high - low <= _CLOSE * scale))

    return close(boxes.x_low, boxes.x_high) and close(boxes.y_low, boxes.y_high)


def _halved(boxes: Boxes) -> Boxes:
    """Cut every box across its longer side, beside its size there; off the middle."""
    width = boxes.x_high - boxes.x_low
    height = boxes.y_high - boxes.y_low
    tall = height > width
    cut_x = boxes.x_low + width * 0.4876
    cut_y = boxes.y_low + height * 0.4876
    return Boxes(
        np.concatenate([boxes.x_low, np.where(tall, boxes.x_low, cut_x)]),
        np.concatenate([np.where(tall, boxes.x_high, cut_x), boxes.x_high]),
        np.concatenate([boxes.y_low, np.where(tall, cut_y, boxes.y_low)]),
        np.concatenate([np.where(tall, cut_y, boxes.y_high), boxes.y_high]),
    )


def _solutions_of(parts: list[Boxes]) -> list[Solution]:
    return [
        Solution((float(a), float(b)), (float(c), float(d)), proved=False)
        for part in parts
        for a, b, c, d in zip(part.x_low, part.x_high, part.y_low, part.y_high, strict=True)
    ]


def _finished(
    boxes: Boxes, one: RealSurface, other: RealSurface, matrix: tuple[RealSurface, ...]
) -> list[Solution]:
    """Narrow boxes that hold exactly one solution each, as far as floats go."""
    for _ in range(20):
        if not len(boxes):
            break
        before = (boxes.x_high - boxes.x_low) + (boxes.y_high - boxes.y_low)
        narrower, _ = _narrowed(boxes, one, other, matrix)
        if len(narrower) < len(boxes):
            # None can be empty; where rounding makes one so, what was there before stands.
            break
        after = (narrower.x_high - narrower.x_low) + (narrower.y_high - narrower.y_low)
        boxes = narrower
        if np.all(after > before * 0.7):
            break
    return [replace(solution, proved=True) for solution in _solutions_of([boxes])]


def _together(parts: list[Boxes]) -> Boxes:
    sides = ("x_low", "x_high", "y_low", "y_high")
    return Boxes(
        *(np.concatenate([getattr(part, side) for part in parts] or [[]]) for side in sides)
    )


def _touch(one: Solution, other: Solution) -> bool:
    room = 1e-9
    for a, b in ((one.x, other.x), (one.y, other.y)):
        near = room + (a[1] - a[0]) + (b[1] - b[0])
        if a[0] > b[1] + near or b[0] > a[1] + near:
            return False
    return True


def _distinct(solutions: list[Solution]) -> list[Solution]:
    """Return each once: a solution on the border of two boxes is found in both."""
    distinct: list[Solution] = []
    for solution in solutions:
        same = [k for k in distinct if _overlap(solution, k)]
        if not same:
            distinct.append(solution)
    return distinct


def _overlap(a: Solution, b: Solution) -> bool:
    return a.x[0] <= b.x[1] and b.x[0] <= a.x[1] and a.y[0] <= b.y[1] and b.y[0] <= a.y[1]


def _clusters(boxes: list[Solution]) -> list[Solution]:
    """Join boxes that touch one another: around a contact there are many."""
    clusters: list[Solution] = []
    for box in boxes:
        joined = box
        rest = []
        for other in clusters:
            if _touch(joined, other):
                joined = Solution(
                    (min(joined.x[0], other.x[0]), max(joined.x[1], other.x[1])),
                    (min(joined.y[0], other.y[0]), max(joined.y[1], other.y[1])),
                    proved=False,
                )
            else:
                rest.append(other)
        clusters = [*rest, joined]
    return clusters
