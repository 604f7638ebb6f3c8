"""Cut broken lines to a box, so that far points do not have to be sent or drawn."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.columns import runs_of

Floats = NDArray[np.float64]


def clip_line(points: Floats, low: tuple[float, float], high: tuple[float, float]) -> list[Floats]:
    """Give the parts of a broken line that lie in a box.

    Args:
        points: (n, 2) finite floats.
        low: the least x and y of the box.
        high: the greatest.

    Returns:
        Arrays (m, 2), m >= 2, in the order of the line.

    Source:
        Liang and Barsky, *A new concept and method for line clipping*, 1984.
    """
    inside = ((points >= low) & (points <= high)).all(axis=1)
    if inside.all():
        return [points]
    start, stop = points[:-1], points[1:]
    enter, leave = np.zeros(len(start)), np.ones(len(start))
    with np.errstate(all="ignore"):
        for axis in (0, 1):
            step = stop[:, axis] - start[:, axis]
            one = (low[axis] - start[:, axis]) / step
            other = (high[axis] - start[:, axis]) / step
            beside = (step == 0) & ((start[:, axis] < low[axis]) | (start[:, axis] > high[axis]))
            first = np.where(step == 0, np.where(beside, np.inf, -np.inf), np.minimum(one, other))
            last = np.where(step == 0, np.inf, np.maximum(one, other))
            enter, leave = np.maximum(enter, first), np.minimum(leave, last)
        seen = enter <= leave
        at_enter = start + (stop - start) * enter[:, None]
        at_leave = start + (stop - start) * leave[:, None]
    parts: list[Floats] = []
    for begin, end in zip(*runs_of(seen), strict=True):
        # Inside a run of seen segments the line may still leave the box and come back.
        breaks = np.flatnonzero(leave[begin : end - 1] < 1) + begin + 1
        for a, b in zip([begin, *breaks], [*breaks, end], strict=True):
            inner = stop[a : b - 1]
            parts.append(np.concatenate([at_enter[a : a + 1], inner, at_leave[b - 1 : b]]))
    return parts
