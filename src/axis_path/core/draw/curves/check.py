"""What a fixed number of points would show of a curve, and what they would miss."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.curves.sample import Curve
from axis_path.core.draw.window import Window
from axis_path.core.evaluate import RealFunction

Floats = NDArray[np.float64]
#: A turn that the straight lines miss by less than this is not missed, in px.
_NEAR_PX = 2.0


@dataclass(frozen=True, slots=True)
class SamplingCheck:
    """Points of a function joined by straight lines, against the true curve.

    Attributes:
        points: (n, 2) of (x, y), NaN where there is no value.
        missed_turns: how many turns of the curve the points do not show.
        crossed_breaks: how many breaks of the curve the lines run across.
        farthest_px: how far the lines are from the curve at the most, within the window; inf if
            the curve is faster than the pixels.
    """

    points: Floats
    missed_turns: int
    crossed_breaks: int
    farthest_px: float

    @property
    def sentence(self) -> str:
        """Describe in plain words what the points miss."""
        count = len(self.points)
        points = f"These {count} points" if count != 1 else "This one point"
        if self.farthest_px == np.inf:
            return f"{points} cannot show this curve: it turns more often than the pixels."
        missed = []
        if self.missed_turns:
            missed.append(f"{self.missed_turns} turn{'s' * (self.missed_turns > 1)} of the curve")
        if self.crossed_breaks:
            crossed = self.crossed_breaks
            missed.append(f"{crossed} break{'s' * (crossed > 1)}, which they join across")
        if missed:
            verb = "miss" if count != 1 else "misses"
            return f"{points} {verb} {' and '.join(missed)}."
        if self.farthest_px > 1:
            return (
                f"{points} miss no turn, but their lines leave the curve by up to "
                f"{self.farthest_px:.0f} px."
            )
        return f"{points} show this curve as it is."


def check_sampling(
    function: RealFunction, curve: Curve, window: Window, xs: Floats
) -> SamplingCheck:
    """Compare a function's points at ``xs``, joined by straight lines, with its true curve."""
    ys = function.sample(xs)
    points = np.column_stack([xs, ys])
    if curve.bands:
        return SamplingCheck(points, 0, 0, np.inf)
    known = np.isfinite(ys)
    # Lines are drawn straight on the paper.
    lines_x, lines_y = window.flat_points(points[known]).T
    low, high = window.flat_y
    missed, farthest = 0, 0.0
    for whole in curve.pieces:
        piece = window.flat_points(whole)
        inside = (piece[:, 1] >= low) & (piece[:, 1] <= high)
        if len(lines_x):
            drawn = np.interp(piece[:, 0], lines_x, lines_y, left=np.nan, right=np.nan)
            away = np.abs(piece[:, 1] - drawn) * window.y_px
            reached = away[inside & np.isfinite(away)]
            farthest = max(farthest, float(reached.max(initial=0.0)))
        missed += _missed_turns(piece, lines_x, lines_y, window)
    return SamplingCheck(points, missed, _crossed(curve, xs[known]), farthest)


def _turns(piece: Floats) -> NDArray[np.int64]:
    """Return the places in a piece where it turns from rising to falling or back."""
    steps = np.sign(np.diff(piece[:, 1]))
    moving = np.flatnonzero(steps)
    changes = np.flatnonzero(np.diff(steps[moving]))
    return moving[changes] + 1


def _missed_turns(piece: Floats, xs: Floats, ys: Floats, window: Window) -> int:
    """Count the turns near which the points do not turn, or turn somewhere else."""
    missed = 0
    own = _turns(np.column_stack([xs, ys])) if len(xs) > 2 else np.empty(0, dtype=np.int64)
    turns = xs[own] if len(own) else np.empty(0)
    for index in _turns(piece):
        x, y = piece[index]
        if not window.flat_y[0] <= y <= window.flat_y[1]:
            continue
        drawn = np.interp(x, xs, ys, left=np.nan, right=np.nan) if len(xs) else np.nan
        step = float(np.diff(xs).max(initial=0.0))
        has_turn = bool((np.abs(turns - x) <= step).any())
        is_near = abs(y - drawn) * window.y_px <= _NEAR_PX
        missed += not (is_near or (has_turn and len(turns) >= len(_turns(piece))))
    return missed


def _crossed(curve: Curve, xs: Floats) -> int:
    """Count the gaps between pieces that have points on both sides and a line across."""
    ends = sorted((float(piece[0, 0]), float(piece[-1, 0])) for piece in curve.pieces)
    gaps = [(a[1], b[0]) for a, b in pairwise(ends)]
    return sum(
        1
        for low, high in gaps
        if (xs <= low).any() and (xs >= high).any() and not ((xs > low) & (xs < high)).any()
    )
