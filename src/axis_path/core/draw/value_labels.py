"""Where the values of a family stand: on each curve where it is farthest from the others."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.pixels import FLAG_HEIGHT, PER_PX, Flag, flag_width
from axis_path.core.draw.window import Window

Floats = NDArray[np.float64]
#: Places on all curves together that are looked at: their distances are all compared.
_MOST_POSITIONS = 400
_MOST_ON_ONE = 24
#: Nearer to the edge, in px, no value stands.
_EDGE_PX = 14
#: How far the numbers of the axes reach: to the left and right of one, above and below the other.
_NUMBERS_PX = (40, 14, 12, 34)
#: Less than the least room there can be.
_BEYOND = 1e3


def place_values(
    curves: Sequence[list[list[int]]], texts: Sequence[str], window: Window, taken: Sequence[Flag]
) -> list[Flag | None]:
    """Place a text on each curve.

    Args:
        curves: the pieces of each curve, x and y in turn, in tenths of a pixel.
        texts: what stands on them.
        window: where they must lie.
        taken: what they should not cover.

    Returns:
        The places in the order of the curves; None for a curve that is not seen.
    """
    count = max(min(_MOST_ON_ONE, _MOST_POSITIONS // max(len(curves), 1)), 6)
    positions = [_visible(_spread(pieces, count), window) for pieces in curves]
    placed: list[Flag] = list(taken)
    flags_by_curve: list[Flag | None] = []
    for k, (own, text) in enumerate(zip(positions, texts, strict=True)):
        if not len(own):
            flags_by_curve.append(None)
            continue
        others = [other for j, other in enumerate(positions) if j != k and len(other)]
        room = _room(own, np.concatenate(others)) if others else np.zeros(len(own))
        # Of places with much room, those that cover no other text, and none at the axes.
        width = flag_width(text)
        rank = np.minimum(room, 3 * FLAG_HEIGHT) - _BEYOND * _is_at_axis(own, window)
        order = np.argsort(-rank, kind="stable")
        flags = [_flag(own[position], width, window) for position in order]
        free = (flag for flag in flags if not any(_touches(flag, other) for other in placed))
        chosen = next(free, flags[0])
        placed.append(chosen)
        flags_by_curve.append(chosen)
    return flags_by_curve


def _spread(pieces: list[list[int]], count: int) -> Floats:
    """Return places evenly along the pieces of a curve, (n, 2) in px."""
    positions = []
    lengths = [
        _along(np.array(piece, dtype=np.float64).reshape(-1, 2) / PER_PX) for piece in pieces
    ]
    whole = sum(along[-1] for _, along in lengths) or 1.0
    for points, along in lengths:
        share = max(round(count * along[-1] / whole), 1)
        at = (np.arange(share) + 0.5) / share * along[-1]
        positions.append(np.column_stack([np.interp(at, along, points[:, k]) for k in (0, 1)]))
    return np.concatenate(positions) if positions else np.empty((0, 2))


def _along(points: Floats) -> tuple[Floats, Floats]:
    steps = np.hypot(*np.diff(points, axis=0).T)
    return points, np.concatenate([[0.0], np.cumsum(steps)])


def _visible(points: Floats, window: Window) -> Floats:
    inside = (points[:, 0] > _EDGE_PX) & (points[:, 0] < window.width - _EDGE_PX)
    inside &= (points[:, 1] > _EDGE_PX) & (points[:, 1] < window.height - _EDGE_PX)
    return points[inside]


def _room(own: Floats, others: Floats) -> Floats:
    """Return how far each place is from the nearest place of another curve, in px."""
    across = own[:, 0, None] - others[None, :, 0]
    down = own[:, 1, None] - others[None, :, 1]
    distances: Floats = np.sqrt((across**2 + down**2).min(axis=1))
    return distances


def _is_at_axis(positions: Floats, window: Window) -> NDArray[np.bool_]:
    """Return which places lie where the numbers of the axes stand."""
    # An axis out of sight has its numbers at the edge; on a logarithmic one there is no zero.
    upright = float(window.across(np.zeros(1))[0]) if not window.log_x else 0.0
    level = float(window.down(np.zeros(1))[0]) if not window.log_y else float(window.height)
    across, down = positions[:, 0] - upright, positions[:, 1] - level
    left, right, above, below = _NUMBERS_PX
    return ((across > -left) & (across < right)) | ((down > -above) & (down < below))


def _flag(at: Floats, width: int, window: Window) -> Flag:
    left = min(max(at[0] - width / 2, 2.0), window.width - width - 2.0)
    return Flag(round(left), round(at[1] - FLAG_HEIGHT / 2), width)


def _touches(flag: Flag, other: Flag) -> bool:
    return (
        flag.x < other.x + other.width + 2
        and other.x < flag.x + flag.width + 2
        and abs(flag.y - other.y) < FLAG_HEIGHT + 2
    )
