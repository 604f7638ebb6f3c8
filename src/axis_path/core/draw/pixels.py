"""From axis units to tenths of pixels, as whole numbers: small to send, quick to draw."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.curves import compiled
from axis_path.core.draw.curves.clip import visible_tenths
from axis_path.core.draw.curves.sample import Curve
from axis_path.core.draw.window import Window

Floats = NDArray[np.float64]
PER_PX = 10
#: A point that a line passes by so little is not sent: half of what rounding to tenths may move it.
_NEAR_PX = 0.05
#: How far a curve is drawn outside the window, so that its stroke leaves it.
_MARGIN_PX = 20.0
#: Nothing is taken to be farther outside, so that products of distances have a value.
_FARTHEST_PX = 1e12


def tenths_across(xs: Floats, window: Window) -> NDArray[np.int64]:
    """Return abscissae as tenths of a pixel from the left edge."""
    return np.rint(window.across(xs) * PER_PX).astype(np.int64)


def tenths_down(ys: Floats, window: Window) -> NDArray[np.int64]:
    """Return ordinates as tenths of a pixel from the upper edge, cut off one height outside.

    Nothing that is cut off is seen, and the lines to it are steeper than a pixel is wide.
    """
    px: Floats = np.minimum(np.maximum(window.down(ys), -window.height), 2 * window.height)
    return np.rint(px * PER_PX).astype(np.int64)


def point_tenths(x: float, y: float, window: Window) -> tuple[int, int]:
    """Return one point as ``tenths_across`` and ``tenths_down`` do many, and far quicker."""
    across, down = window.px_of(x, y)
    across = min(max(across, -_FARTHEST_PX), _FARTHEST_PX)
    down = min(max(down, -window.height), 2 * window.height)
    return round(across * PER_PX), round(down * PER_PX)


def visible_lines(pieces: Sequence[Floats], window: Window) -> list[list[int]]:
    """Return the parts of pieces, (n, 2) each, that are seen, each as ``line_tenths`` gives it."""
    margin = _MARGIN_PX + window.beyond
    visible = window.visible
    box = -margin, -margin, visible.width + margin, visible.height + margin
    points = *window.across_from, *window.down_from
    lines: list[list[int]] = []
    for piece in pieces:
        numbers, starts = visible_tenths(piece, *points, _FARTHEST_PX, *box, _NEAR_PX)
        lines += [numbers[start:stop].tolist() for start, stop in pairwise(starts.tolist())]
    return lines


def line_tenths(line: Floats, window: Window) -> list[int]:
    """Return a line, (n, 2), as x, y, x, y, … in tenths, without points that change nothing."""
    tenths: list[int] = compiled.line_tenths(_px_of(line, window), _NEAR_PX).tolist()
    return tenths


def _px_of(points: Floats, window: Window) -> Floats:
    px = np.column_stack([window.across(points[:, 0]), window.down(points[:, 1])])
    return np.minimum(np.maximum(px, -_FARTHEST_PX), _FARTHEST_PX)


def dot_tenths(points: Floats, window: Window) -> list[int]:
    """Return points, (n, 2), as x, y, x, y, … in tenths, in their order."""
    return _interleaved(tenths_across(points[:, 0], window), tenths_down(points[:, 1], window))


def band_tenths(band: Floats, window: Window) -> list[int]:
    """Return the outline of a band, (n, 3), as x, y, x, y, … in tenths."""
    xs = tenths_across(band[:, 0], window)
    low, high = tenths_down(band[:, 1], window), tenths_down(band[:, 2], window)
    return _interleaved(np.append(xs, xs[::-1]), np.append(high, low[::-1]))


def _interleaved(xs: NDArray[np.int64], ys: NDArray[np.int64]) -> list[int]:
    pairs: list[int] = np.column_stack([xs, ys]).ravel().tolist()
    return pairs


def last_visible_point(curve: Curve, window: Window) -> tuple[float, float] | None:
    """Return the rightmost drawn point that is seen, in px; None if none is."""
    window = window.visible
    low, high = window.y
    best: tuple[float, float] | None = None
    for piece in curve.pieces:
        point = compiled.last_inside(piece, window.x[0], window.x[1], low, high)
        if not np.isnan(point[0]) and (best is None or point[0] > best[0]):
            best = point
    for whole in curve.bands:
        band = whole[(whole[:, 0] >= window.x[0]) & (whole[:, 0] <= window.x[1])]
        if not len(band):
            continue
        middle = np.clip((band[-1, 1] + band[-1, 2]) / 2, low, high)
        if best is None or band[-1, 0] > best[0]:
            best = (float(band[-1, 0]), float(middle))
    if best is None:
        return None
    return window.px_of(*best)


@dataclass(frozen=True, slots=True)
class Flag:
    """Where a curve's lettered flag stands: its upper left corner and its width, in px."""

    x: int
    y: int
    width: int


FLAG_HEIGHT = 18
_LETTER_PX, _LEAST_PX, _GAP_PX = 8, 20, 2
#: How far from the end of its curve a flag stands: clear of the dot there, or of a mark.
_FROM_END_PX, _DOT_PX = 8, 6


def place_flags(
    ends: Sequence[tuple[str, tuple[float, float] | None]],
    window: Window,
    obstacles: Floats | None = None,
    reserved: Sequence[Flag] = (),
) -> list[Flag | None]:
    """Place the lettered flags of curves beside their ends without covering one another.

    Args:
        ends: the name of each curve and its end in px, None if it has none in the window.
        window: where they must lie.
        obstacles: (n, 2) places in px that the flags should not cover either, if they can help it.
        reserved: where something else stands that they should not cover.

    Returns:
        The flags in the order of the ends; None for a curve without an end.
    """
    placed: list[Flag | None] = []
    for name, point in ends:
        if point is None:
            placed.append(None)
            continue
        width = flag_width(name)
        taken = [*reserved, *(flag for flag in placed if flag is not None)]
        if obstacles is None or not len(obstacles):
            placed.append(_free_flag(point, width, window, taken))
        else:
            placed.append(_freest_flag(point, width, window, taken, obstacles))
    return placed


def flag_width(name: str) -> int:
    """Return how wide a flag with a name is, in px."""
    return max(_LEAST_PX, _LETTER_PX * len(name) + 8)


def _freest_flag(
    point: tuple[float, float], width: int, window: Window, taken: list[Flag], obstacles: Floats
) -> Flag:
    """Return the place around a point that covers no flag and the least of what else is drawn."""
    x, y = point
    after, above = x + _FROM_END_PX, y - FLAG_HEIGHT / 2
    before, over, under = x - _FROM_END_PX - width, y - FLAG_HEIGHT - 6, y + 6
    choices = [
        (after, above), (before, above), (after, over), (after, under), (before, over),
        (before, under), (x - width / 2, over - 4), (x - width / 2, under + 4),
    ]  # fmt: skip
    lowest, farthest = window.height - FLAG_HEIGHT - _GAP_PX, window.width - width - _GAP_PX
    best, least = _free_flag(point, width, window, taken), None
    for left, upper in choices:
        flag = Flag(round(left), round(upper), width)
        is_inside = _GAP_PX <= flag.x <= farthest and _GAP_PX <= flag.y <= lowest
        if not is_inside or not all(_is_clear(flag, other) for other in taken):
            continue
        covered = _covered(flag, obstacles)
        if least is None or covered < least:
            best, least = flag, covered
    return best


def _is_clear(flag: Flag, other: Flag) -> bool:
    return (
        flag.x >= other.x + other.width + _GAP_PX
        or other.x >= flag.x + flag.width + _GAP_PX
        or abs(flag.y - other.y) >= FLAG_HEIGHT + _GAP_PX
    )


def _covered(flag: Flag, points: Floats) -> int:
    inside = (points[:, 0] >= flag.x) & (points[:, 0] <= flag.x + flag.width)
    inside &= (points[:, 1] >= flag.y) & (points[:, 1] <= flag.y + FLAG_HEIGHT)
    return int(inside.sum())


#: How far from where it is wanted a flag may stand, in half heights, the nearest first.
_OFFSETS = sorted(range(-24, 25), key=abs)


def _free_flag(point: tuple[float, float], width: int, window: Window, taken: list[Flag]) -> Flag:
    lowest = window.height - FLAG_HEIGHT - _GAP_PX
    end_x, end_y = round(point[0]), round(point[1])
    x = min(end_x + _FROM_END_PX, window.width - width - _GAP_PX)
    # A curve that ends in sight has a dot there, or a mark; one that goes on has none.
    if x < end_x + _DOT_PX and end_x < window.width - _GAP_PX:
        dot = Flag(end_x - _DOT_PX, end_y - FLAG_HEIGHT // 2, 2 * _DOT_PX)
        taken = [*taken, dot]
    # It moves up and down only.
    taken = [label for label in taken if -label.width - _GAP_PX < label.x - x < width + _GAP_PX]
    centred_y = min(max(end_y - FLAG_HEIGHT // 2, _GAP_PX), lowest)
    for offset in _OFFSETS:
        y = centred_y + offset * (FLAG_HEIGHT + _GAP_PX) // 2
        flag = Flag(x, y, width)
        if _GAP_PX <= y <= lowest and all(_is_clear(flag, other) for other in taken):
            return flag
    return Flag(x, centred_y, width)
