"""Cut cells again and again where a zero set turns a corner, crosses itself or ends.

A box is drawn as soon as the function is proved to be continuous in it, changes its sign at the
corners and rises or falls throughout in one direction, so that one line runs through it. All others
are cut, down to a small part of a pixel.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.relations.tiling import changes_sign
from axis_path.core.evaluate import Boxes, RealSurface

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
#: A box is cut in so many parts each way, so often, as long as there are no more boxes than this.
_PARTS, _ROUNDS, _MOST_BOXES = 4, 7, 60_000


@dataclass(frozen=True, slots=True)
class CloseLook:
    """What is seen in boxes that are cut again and again.

    Attributes:
        segments: (n, 2) arrays of (x, y).
        left: (n, 2) middles of the smallest boxes that may still hold a zero and show none.
        is_whole: whether none were too many to be cut.
    """

    segments: list[Floats]
    left: Floats
    is_whole: bool = True


def look_closely(surface: RealSurface, boxes: Boxes) -> CloseLook:
    """Draw the zero set in boxes, and say where it may be besides."""
    segments: list[Floats] = []
    is_whole = True
    for _ in range(_ROUNDS):
        if not len(boxes):
            break
        if len(boxes) * _PARTS**2 > _MOST_BOXES:
            is_whole = False
            break
        boxes = boxes.cut(_PARTS)
        enclosure = surface.enclose(boxes)
        maybe = ~((enclosure.low > 0) | (enclosure.high < 0) | enclosure.nowhere)
        boxes = boxes.take(maybe)
        calm = np.asarray(~(enclosure.partial | enclosure.broken))[maybe]
        values = corner_values(surface, boxes)
        crossed = changes_sign(values)
        slopes = slopes_in(surface, boxes)
        shown = calm & crossed & (slopes.x | slopes.y)
        segments += segments_in(boxes.take(shown), [value[shown] for value in values])
        empty = calm & ~crossed & slopes.x & slopes.y & ~np.isnan(np.sum(values, axis=0))
        boxes = boxes.take(~shown & ~empty)
    if not len(boxes):
        return CloseLook(joined(segments), np.empty((0, 2)), is_whole)
    # In the smallest boxes a change of sign is drawn whatever else may be there.
    enclosure = surface.enclose(boxes)
    values = corner_values(surface, boxes)
    shown = changes_sign(values) & ~(enclosure.partial | enclosure.broken)
    segments += segments_in(boxes.take(shown), [value[shown] for value in values])
    return CloseLook(joined(segments), _middles(boxes.take(~shown)), is_whole)


def joined(segments: list[Floats]) -> list[Floats]:
    """Join segments that share an end into lines, (n, 2) each."""
    ends: dict[tuple[float, float], list[int]] = {}
    keys = [tuple(map(_key, segment)) for segment in segments]
    for k, pair in enumerate(keys):
        for key in pair:
            ends.setdefault(key, []).append(k)
    used = [False] * len(segments)
    # Lines begin where only one segment ends; what is left then is closed.
    order = sorted(range(len(segments)), key=lambda k: min(len(ends[key]) for key in keys[k]))
    lines: list[Floats] = []
    for first in order:
        if used[first]:
            continue
        used[first] = True
        line = list(segments[first])
        at = keys[first]
        if len(ends[at[1]]) == 1:
            line, at = line[::-1], at[::-1]
        while (after := next((k for k in ends[at[1]] if not used[k]), None)) is not None:
            used[after] = True
            pair, points = keys[after], segments[after]
            is_turned = pair[1] == at[1]
            line.append(points[0] if is_turned else points[1])
            at = pair[::-1] if is_turned else pair
        lines.append(np.array(line))
    return lines


def _key(point: Floats) -> tuple[float, float]:
    return float(f"{point[0]:.11e}"), float(f"{point[1]:.11e}")


def _middles(boxes: Boxes) -> Floats:
    return np.column_stack([boxes.x_low + boxes.x_high, boxes.y_low + boxes.y_high]) / 2


@dataclass(frozen=True, slots=True)
class Slopes:
    """What is known of the slopes of a function in boxes, (n,) each.

    Attributes:
        x: whether it rises or falls throughout across; ``y`` likewise upwards.
        broken: whether a slope may jump, or may lack a value.
    """

    x: Flags
    y: Flags
    broken: Flags


def slopes_in(surface: RealSurface, boxes: Boxes) -> Slopes:
    """Enclose the slopes of a function in boxes."""
    slopes = surface.slopes()
    if slopes is None or not len(boxes):
        none = np.zeros(len(boxes), dtype=np.bool_)
        return Slopes(none, none, none)
    enclosures = [slope.enclose(boxes) for slope in slopes]
    one_signed = [~(s.partial | s.broken) & ((s.low >= 0) | (s.high <= 0)) for s in enclosures]
    broken = (
        enclosures[0].partial | enclosures[0].broken | enclosures[1].partial | enclosures[1].broken
    )
    return Slopes(np.asarray(one_signed[0]), np.asarray(one_signed[1]), np.asarray(broken))


def corner_values(surface: RealSurface, boxes: Boxes) -> list[Floats]:
    """Return the values at the corners: lower left, lower right, upper right, upper left."""
    corners = (
        (boxes.x_low, boxes.y_low), (boxes.x_high, boxes.y_low),
        (boxes.x_high, boxes.y_high), (boxes.x_low, boxes.y_high),
    )  # fmt: skip
    return [surface.sample(xs, ys) for xs, ys in corners]


def segments_in(boxes: Boxes, values: list[Floats]) -> list[Floats]:
    """Join, in each box with a change of sign, the places where its sides are crossed.

    Source: Lorensen and Cline, *Marching cubes*, 1987, in two dimensions.
    """
    if not len(boxes):
        return []
    xs = (boxes.x_low, boxes.x_high, boxes.x_high, boxes.x_low)
    ys = (boxes.y_low, boxes.y_low, boxes.y_high, boxes.y_high)
    crossings = []
    for k in range(4):
        a, b = values[k], values[(k + 1) % 4]
        with np.errstate(all="ignore"):
            part = np.where((a > 0) != (b > 0), a / (a - b), np.nan)
        x = xs[k] + (xs[(k + 1) % 4] - xs[k]) * part
        crossings.append(np.column_stack([x, ys[k] + (ys[(k + 1) % 4] - ys[k]) * part]))
    segments: list[Floats] = []
    for crossing in np.stack(crossings, axis=1):
        ends = crossing[np.isfinite(crossing).all(axis=1)]
        segments += [ends[k : k + 2] for k in range(0, len(ends) - 1, 2)]
    return segments
