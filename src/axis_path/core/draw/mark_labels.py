"""Where labels stand beside marks: clear of one another, the marks, the flags and the curves."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.pixels import FLAG_HEIGHT, PER_PX, Flag, flag_width
from axis_path.core.draw.window import Window

Floats = NDArray[np.float64]
#: The picture is taken as squares of this size, in px, that a curve crosses or not.
_SQUARE_PX = 4
#: Directions in which a label may stand, the usual first, and how far from its mark in px.
_DIRECTIONS = ((1, -1), (-1, -1), (1, 1), (-1, 1), (0, -1), (0, 1), (1, 0), (-1, 0))
_REACHES_PX = (8, 18, 32)
_MARK_PX = 7
#: What it costs to cover another label, a mark, a square of a curve; and to stand farther away.
_LABEL, _MARK, _CURVE, _FAR, _OUT = 400.0, 60.0, 3.0, 0.6, 900.0


def place_labels(
    marks: Sequence[tuple[float, float]],
    texts: Sequence[str],
    curves: Sequence[list[int]],
    window: Window,
    flags: Sequence[Flag] = (),
) -> list[tuple[int, int]]:
    """Place a label beside each mark that has a text.

    Args:
        marks: where all marks stand, in px.
        texts: what is written beside them; empty for a mark without a label.
        curves: pieces of curves, x and y in turn, in tenths of a pixel.
        window: where the labels must lie.
        flags: the flags of the curves, which they leave free too.

    Returns:
        The middles of the labels in tenths of a pixel, in the order of the marks.
    """
    squares = _squares(curves, window)
    sums = np.pad(np.cumsum(np.cumsum(squares, axis=0), axis=1), ((1, 0), (1, 0)))
    placed: list[tuple[float, float, float]] = [
        (flag.x + flag.width / 2, flag.y + FLAG_HEIGHT / 2, flag.width) for flag in flags
    ]
    positions: list[tuple[int, int]] = []
    for (x, y), text in zip(marks, texts, strict=True):
        if not text:
            positions.append((round(x * PER_PX), round(y * PER_PX)))
            continue
        width = flag_width(text)
        best, least = (x, y), np.inf
        for reach in _REACHES_PX:
            for side, up in _DIRECTIONS:
                middle = (
                    x + side * (reach + width / 2 - (0 if up == 0 else 4)),
                    y + up * (reach + FLAG_HEIGHT / 2),
                )
                cost = _FAR * reach + _cost(middle, width, marks, placed, sums, window)
                if cost < least:
                    best, least = middle, cost
        placed.append((*best, width))
        positions.append((round(best[0] * PER_PX), round(best[1] * PER_PX)))
    return positions


def _cost(
    middle: tuple[float, float], width: float, marks: Sequence[tuple[float, float]],
    placed: list[tuple[float, float, float]], sums: Floats, window: Window,
) -> float:  # fmt: skip
    """Return what it costs that a label stands here."""
    left, right = middle[0] - width / 2, middle[0] + width / 2
    top, bottom = middle[1] - FLAG_HEIGHT / 2, middle[1] + FLAG_HEIGHT / 2
    cost = 0.0
    if left < 2 or top < 2 or right > window.width - 2 or bottom > window.height - 2:
        cost += _OUT
    for x, y, other in placed:
        if abs(x - middle[0]) < (width + other) / 2 + 2 and abs(y - middle[1]) < FLAG_HEIGHT + 1:
            cost += _LABEL
    for x, y in marks:
        if left - _MARK_PX < x < right + _MARK_PX and top - _MARK_PX < y < bottom + _MARK_PX:
            cost += _MARK
    rows, columns = sums.shape[0] - 1, sums.shape[1] - 1
    a, b = (int(np.clip(v // _SQUARE_PX, 0, columns)) for v in (left, right + _SQUARE_PX))
    c, d = (int(np.clip(v // _SQUARE_PX, 0, rows)) for v in (top, bottom + _SQUARE_PX))
    return cost + _CURVE * float(sums[d, b] - sums[c, b] - sums[d, a] + sums[c, a])


def _squares(curves: Sequence[list[int]], window: Window) -> Floats:
    """Return which squares of the picture curves cross, as 0 and 1."""
    rows = int(window.height) // _SQUARE_PX + 1
    columns = int(window.width) // _SQUARE_PX + 1
    squares = np.zeros((rows, columns))
    for piece in curves:
        points = np.array(piece, dtype=np.float64).reshape(-1, 2) / PER_PX
        if len(points) < 2:
            continue
        steps = np.hypot(*np.diff(points, axis=0).T)
        along = np.concatenate([[0.0], np.cumsum(np.minimum(steps, 4 * window.height))])
        count = int(along[-1] // (_SQUARE_PX / 2)) + 2
        at = np.linspace(0, along[-1], min(count, 20_000))
        x, y = (np.interp(at, along, points[:, k]) for k in (0, 1))
        visible = (x >= 0) & (x < window.width) & (y >= 0) & (y < window.height)
        squares[(y[visible] // _SQUARE_PX).astype(int), (x[visible] // _SQUARE_PX).astype(int)] = 1
    return squares
