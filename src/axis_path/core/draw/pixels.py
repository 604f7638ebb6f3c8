"""From axis units to tenths of pixels, as whole numbers: small to send, quick to draw."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.sample import Curve
from axis_path.core.draw.window import Window

Floats = NDArray[np.float64]
PER_PX = 10


def tenths_across(xs: Floats, window: Window) -> NDArray[np.int64]:
    """Give abscissae as tenths of a pixel from the left edge."""
    return np.rint(window.across(xs) * PER_PX).astype(np.int64)


def tenths_down(ys: Floats, window: Window) -> NDArray[np.int64]:
    """Give ordinates as tenths of a pixel from the upper edge, cut off one height outside.

    Nothing that is cut off is seen, and the lines to it are steeper than a pixel is wide.
    """
    px = np.clip(window.down(ys), -window.height, 2 * window.height)
    return np.rint(px * PER_PX).astype(np.int64)


def piece_tenths(piece: Floats, window: Window) -> list[int]:
    """Give a piece, (n, 2), as x, y, x, y, … in tenths; points that change nothing are left out."""
    xs, ys = tenths_across(piece[:, 0], window), tenths_down(piece[:, 1], window)
    keep = np.ones(len(xs), dtype=np.bool_)
    if len(xs) > 2:
        # Inside runs of equal height, as where the curve is cut off, only the ends matter.
        keep[1:-1] = (ys[1:-1] != ys[:-2]) | (ys[1:-1] != ys[2:])
    return _interleaved(xs[keep], ys[keep])


def band_tenths(band: Floats, window: Window) -> list[int]:
    """Give the outline of a band, (n, 3), as x, y, x, y, … in tenths."""
    xs = tenths_across(band[:, 0], window)
    low, high = tenths_down(band[:, 1], window), tenths_down(band[:, 2], window)
    return _interleaved(np.append(xs, xs[::-1]), np.append(high, low[::-1]))


def _interleaved(xs: NDArray[np.int64], ys: NDArray[np.int64]) -> list[int]:
    found: list[int] = np.column_stack([xs, ys]).ravel().tolist()
    return found


def last_visible_point(curve: Curve, window: Window) -> tuple[float, float] | None:
    """Give the rightmost drawn point inside the window, in px; None if none is inside."""
    low, high = window.y
    best: tuple[float, float] | None = None
    for piece in curve.pieces:
        inside = np.flatnonzero((piece[:, 1] >= low) & (piece[:, 1] <= high))
        if len(inside):
            x, y = piece[inside[-1]]
            if best is None or x > best[0]:
                best = (float(x), float(y))
    for band in curve.bands:
        middle = np.clip((band[-1, 1] + band[-1, 2]) / 2, low, high)
        if best is None or band[-1, 0] > best[0]:
            best = (float(band[-1, 0]), float(middle))
    if best is None:
        return None
    x_px, y_px = window.across(np.array(best[0])), window.down(np.array(best[1]))
    return float(x_px), float(y_px)


def place_flags(
    points: list[tuple[float, float] | None], window: Window, *, size: tuple[int, int]
) -> list[tuple[int, int] | None]:
    """Place the lettered flags of curves beside their ends without covering one another.

    Args:
        points: the end of each curve in px.
        window: where they must lie.
        size: width and height of a flag in px.
    Returns:
        The upper left corners, in the order of the points; None for a curve without an end.
    """
    width, height = size
    placed: list[tuple[int, int] | None] = []
    taken: list[tuple[int, int]] = []
    for point in points:
        if point is None:
            placed.append(None)
            continue
        x = min(round(point[0]) + 3, window.width - width - 2)
        wanted = min(max(round(point[1]) - height // 2, 2), window.height - height - 2)
        offsets = sorted(range(-12, 13), key=abs)
        free = (
            y
            for y in (wanted + offset * (height + 2) for offset in offsets)
            if 2 <= y <= window.height - height - 2
            and all(abs(x - a) >= width + 2 or abs(y - b) >= height + 2 for a, b in taken)
        )
        corner = (x, next(free, wanted))
        taken.append(corner)
        placed.append(corner)
    return placed
