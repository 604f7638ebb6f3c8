"""Broken lines in px: cut to a box, so that far points need not be sent or drawn, and read off."""

from __future__ import annotations

import numpy as np

from axis_path.core.draw.curves.compiled import clipped, compiled, flat, line_tenths


@compiled
def clip_line(points, left, low, right, high):
    """Return the parts of a broken line that lie in a box.

    Args:
        points: (n, 2) finite floats.
        left: the least x of the box, ``right`` the greatest.
        low: the least y, ``high`` the greatest.

    Returns:
        The points of all parts, (m, 2), in the order of the line, and where each part begins among
        them, with their number behind these, (k + 1,). No part has less than two points.

    Source:
        Liang and Barsky, *A new concept and method for line clipping*, 1984.
    """
    count = len(points)
    inside = np.empty((2 * count, 2))
    starts = np.empty(count + 1, dtype=np.int64)
    at = parts = 0
    is_open = False
    lows, highs = (left, low), (right, high)
    for i in range(count - 1):
        enter, leave = 0.0, 1.0
        for axis in range(2):
            start = points[i, axis]
            step = points[i + 1, axis] - start
            if step == 0:
                if not lows[axis] <= start <= highs[axis]:
                    enter, leave = 1.0, 0.0
                continue
            one, other = (lows[axis] - start) / step, (highs[axis] - start) / step
            enter, leave = max(enter, min(one, other)), min(leave, max(one, other))
        is_begun = is_open and enter == 0
        # What only touches the box is not seen, unless a line comes from inside.
        if enter > leave or (enter == leave and not is_begun):
            is_open = False
            continue
        if not is_begun:
            starts[parts] = at
            parts += 1
            inside[at] = _between(points, i, enter)
            at += 1
        inside[at] = _between(points, i, leave)
        at += 1
        is_open = leave == 1
    starts[parts] = at
    return inside[:at], starts[: parts + 1]


@compiled
def _between(points, i, part):
    """Return the point of a segment at a part of its way; its ends are stored to the last bit."""
    if part == 0:
        return points[i]
    return points[i + 1] if part == 1 else points[i] + (points[i + 1] - points[i]) * part


@compiled
def visible_tenths(
    points, x_start, x_px, log_x, y_top, y_px, log_y, farthest, left, low, right, high, near
):  # fmt: skip
    """Return the parts of a broken line that lie in a box, as ``line_tenths`` does.

    Args:
        points: of the line in axis units, (n, 2).
        x_start: where the box of what is seen begins on its axis; ``x_px`` the px of a unit,
            ``log_x`` whether it is logarithmic.
        y_top: where it ends above, likewise.
        farthest: so far away in px all lies that is farther.
        left: the box in px, up to ``high``.
        near: see ``line_tenths``.

    Returns:
        The numbers of all parts, and where each part begins among them, and the last one ends.
    """
    px = np.empty((len(points), 2))
    for i in range(len(points)):
        px[i, 0] = clipped((flat(points[i, 0], log_x) - x_start) * x_px, -farthest, farthest)
        px[i, 1] = clipped((y_top - flat(points[i, 1], log_y)) * y_px, -farthest, farthest)
    parts, bounds = clip_line(px, left, low, right, high)
    tenths, starts = np.empty(2 * len(parts), dtype=np.int64), np.zeros_like(bounds)
    at = 0
    for k in range(len(bounds) - 1):
        numbers = line_tenths(parts[bounds[k] : bounds[k + 1]], near)
        tenths[at : at + len(numbers)] = numbers
        at += len(numbers)
        starts[k + 1] = at
    return tenths[:at], starts


@compiled
def nearest_part(points, x_start, x_px, log_x, y_top, y_px, log_y, x_at, y_at):
    """Find where a broken line comes nearest to a place.

    Args:
        points: of the line in axis units, (n, 2).
        x_start: see ``seen_tenths``, up to ``log_y``.
        x_at: the place, in axis units; ``y_at`` likewise.

    Returns:
        How far away that is, in px, after which point of the line it is, and which part of the way
        to the next one behind it.
    """
    right, below = (flat(x_at, log_x) - x_start) * x_px, (y_top - flat(y_at, log_y)) * y_px
    best, at, best_part = np.inf, 0, 0.0
    x = (flat(points[0, 0], log_x) - x_start) * x_px
    y = (y_top - flat(points[0, 1], log_y)) * y_px
    for i in range(1, len(points)):
        next_x = (flat(points[i, 0], log_x) - x_start) * x_px
        next_y = (y_top - flat(points[i, 1], log_y)) * y_px
        dx, dy = next_x - x, next_y - y
        part = ((right - x) * dx + (below - y) * dy) / max(dx * dx + dy * dy, 1e-12)
        part = clipped(part, 0.0, 1.0)
        away = np.hypot(x + part * dx - right, y + part * dy - below)
        if away < best:
            best, at, best_part = away, i - 1, part
        x, y = next_x, next_y
    return best, at, best_part
