"""Sample a function so that the drawn line is true.

Every pixel column is enclosed by interval arithmetic. A column is joined by a line only where the
function is proved to be defined and continuous in it. Where the enclosure is much taller than the
line, the column is cut again and again, so that nothing between two points is missed; what is then
still not proved stays open. A column in which the curve turns more often than its
pixel can show becomes part of a band from its lowest to its highest value.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.columns import cut, join_by_left, runs_of, take
from axis_path.core.draw.window import Window
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import RealFunction
from axis_path.core.limits import CURVE_POINTS

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
#: Columns are cut in this many; the few at a break in more at once, which saves rounds.
_CUTS, _CUTS_OF_FEW, _FEW = 8, 32, 48
#: A column that is taller than its line is cut down to this part of a pixel, one at a break or at
#: an end of the natural domain to a finer one.
_FINENESS, _FINENESS_AT_BREAKS = 512, 32_768
#: A line may differ from the enclosure of its column by this much before the column is cut, in px.
_TOLERANCE_PX = 0.4
#: A pixel column is a band if the curve's way up and down in it is longer than this many times its
#: height, and the height is more than this many px.
_BAND_TURNS, _BAND_PX = 2.5, 1.5


@dataclass(frozen=True)
class Curve:
    """A drawn function.

    Attributes:
        pieces: (n, 2) arrays of (x, y), each to be joined by lines, never across a break.
        bands: (n, 3) arrays of (x, low, high), where the curve is faster than the pixels.
        undefined: (n, 2) array of stretches (from, to) of x inside the domain without a value.
        domain: the part of the window's x inside the domain, None if there is none.
        crossings: (n, 2) array of stretches of x, outside of which it is proved to have no zero.
        parameters: of a path, the parameter at each point of each piece, (n,) floats.
        unsettled: of a path, stretches of the parameter in which it turns too often to be drawn.

    Of a path, ``undefined`` and ``domain`` are stretches of the parameter.
    """

    pieces: list[Floats]
    bands: list[Floats] = field(default_factory=list)
    undefined: Floats = field(default_factory=lambda: np.empty((0, 2)))
    domain: tuple[float, float] | None = None
    crossings: Floats = field(default_factory=lambda: np.empty((0, 2)))
    parameters: list[Floats] = field(default_factory=list)
    unsettled: Floats = field(default_factory=lambda: np.empty((0, 2)))

    @property
    def is_empty(self) -> bool:
        """Tell whether there is nothing to draw."""
        return not self.pieces and not self.bands


@dataclass(frozen=True)
class _Columns:
    """Columns of any width, (n,) each, in order of x."""

    left: Floats
    right: Floats
    pixel: NDArray[np.int64]
    low: Floats
    high: Floats
    calm: Flags
    empty: Flags
    y_left: Floats
    y_right: Floats
    straight: Flags


def visible_domain(function: RealFunction, window: Window) -> tuple[float, float] | None:
    """Give the part of the window's x that lies in the function's domain, None if there is none."""
    low, high = window.x
    if function.low is not None:
        low = max(low, function.low.near)
    if function.high is not None:
        high = min(high, function.high.near)
    return (low, high) if low < high else None


def sample_curve(function: RealFunction, window: Window) -> Curve:
    """Draw a function in a window.

    The cost is bounded: at most ``CURVE_POINTS`` columns are looked at.
    """
    domain = visible_domain(function, window)
    if domain is None:
        return Curve([])
    edges = window.columns()
    edges = edges[(edges > domain[0]) & (edges < domain[1])]
    holes = [float(value.value.mid()) for value in function.without]
    inner = [hole for hole in holes if domain[0] < hole < domain[1]]
    # Columns are cut at the ends of the domains of functions inside, rather than searched for them.
    fences = [end for end in function.inner_ends() if domain[0] < end < domain[1]]
    edges = np.unique(np.concatenate([[domain[0]], edges, inner, fences, [domain[1]]]))
    columns = _enclosed(function, edges[:-1], edges[1:], np.arange(len(edges) - 1))
    columns, tall = _refined(function, columns, window)
    return _assembled(columns, tall, np.array(inner), window, domain)


def _enclosed(
    function: RealFunction, left: Floats, right: Floats, pixel: NDArray[np.int64]
) -> _Columns:
    bounds = function.enclose(left, right)
    ys = function.sample_unrestricted(np.concatenate([left, right]))
    y_left, y_right = ys[: len(left)], ys[len(left) :]
    calm = ~(bounds.partial | bounds.broken) & np.isfinite(y_left) & np.isfinite(y_right)
    return _Columns(
        left, right, pixel, bounds.low, bounds.high, calm, np.asarray(bounds.nowhere),
        y_left, y_right, np.zeros(len(left), dtype=np.bool_),
    )  # fmt: skip


def _unseen_px(columns: _Columns, window: Window) -> Floats:
    """Give how much of the enclosures' height the straight lines leave out, in px.

    Only what lies in the window, or less than half its height away from it, counts.
    """
    margin = (window.y[1] - window.y[0]) / 2
    floor, top = window.y[0] - margin, window.y[1] + margin
    height = np.clip(columns.high, floor, top) - np.clip(columns.low, floor, top)
    with np.errstate(invalid="ignore"):
        line = np.abs(np.clip(columns.y_right, floor, top) - np.clip(columns.y_left, floor, top))
    return np.asarray((height - np.nan_to_num(line)) * window.y_px)


def _needs_cut(columns: _Columns, window: Window) -> Flags:
    tall = (_unseen_px(columns, window) > _TOLERANCE_PX) & ~columns.straight
    has_room = columns.right - columns.left > 1e-15 * np.abs(columns.left)
    return np.asarray(~columns.empty & (~columns.calm | tall) & has_room)


def _refined(function: RealFunction, columns: _Columns, window: Window) -> tuple[_Columns, Flags]:
    """Cut columns while that may show more; tell which stay taller than their line."""
    finished: list[_Columns] = []
    spent = len(columns.left)
    fineness = 1
    while fineness < _FINENESS_AT_BREAKS:
        rough = _needs_cut(columns, window)
        if rough.any():
            columns = _straightened(function, columns, rough, window)
            rough &= ~columns.straight
        if fineness >= _FINENESS:
            # What is only tall is left to the bands; an open end is brought to where it is.
            rough &= ~columns.calm
        count = int(rough.sum())
        is_few = count <= _FEW
        cuts = _CUTS_OF_FEW if is_few else _CUTS
        too_many = spent + count * cuts > CURVE_POINTS.value
        if not count or too_many or (fineness >= _FINENESS and not is_few):
            break
        spent += count * cuts
        fineness *= cuts
        finished.append(take(columns, ~rough))
        columns = _cut(function, take(columns, rough), cuts)
    columns = join_by_left([*finished, columns])
    return columns, _needs_cut(columns, window)


def _straightened(
    function: RealFunction, columns: _Columns, rough: Flags, window: Window
) -> _Columns:
    """Mark rough columns in which the curve is proved to bend so little that its line is true.

    A line differs from its curve by an eighth of the second derivative times the width squared.
    """
    at = np.flatnonzero(rough & columns.calm)
    try:
        bend = function.expression.derivative().derivative()
    except (LimitError, NotHandledError):
        return columns
    left, right = columns.left[at], columns.right[at]
    found = function.enclose(left, right, bend)
    size = np.maximum(np.abs(found.low), np.abs(found.high))
    with np.errstate(all="ignore"):
        aside = size * (right - left) ** 2 / 8 * window.y_px
    sure = ~(found.partial | found.broken) & (aside <= _TOLERANCE_PX)
    straight = columns.straight.copy()
    straight[at] = sure
    return replace(columns, straight=straight)


def _cut(function: RealFunction, parents: _Columns, cuts: int) -> _Columns:
    pixel = np.repeat(parents.pixel, cuts)
    return _enclosed(function, *cut(parents.left, parents.right, cuts), pixel)


def _assembled(
    columns: _Columns, tall: Flags, holes: Floats, window: Window, domain: tuple[float, float]
) -> Curve:
    banded, bands = _bands(columns, tall, window)
    drawn = columns.calm & ~banded
    starts_new = np.ones(len(drawn) + 1, dtype=np.bool_)
    joined = drawn[1:] & drawn[:-1] & (columns.left[1:] == columns.right[:-1])
    starts_new[1:-1] = ~(joined & ~np.isin(columns.left[1:], holes))
    pieces = []
    cuts = np.flatnonzero(starts_new)
    for start, stop in pairwise(cuts.tolist()):
        if drawn[start]:
            xs = np.append(columns.left[start:stop], columns.right[stop - 1])
            ys = np.append(columns.y_left[start:stop], columns.y_right[stop - 1])
            pieces.append(np.column_stack([xs, ys]))
    may_be_zero = ~columns.empty & ~((columns.low > 0) | (columns.high < 0))
    return Curve(
        pieces, bands, _undefined_stretches(columns), domain, _stretches(columns, may_be_zero)
    )


def _bands(columns: _Columns, tall: Flags, window: Window) -> tuple[Flags, list[Floats]]:
    """Find the pixel columns in which the curve turns more often than can be shown."""
    banded = np.zeros(len(columns.left), dtype=np.bool_)
    if not tall.any() and len(columns.left) == len(np.unique(columns.pixel)):
        return banded, []
    first = np.flatnonzero(np.diff(columns.pixel, prepend=-1))
    unknown = tall & columns.calm
    # Far outside the window heights do not matter, and could be too large to be added.
    far = 100 * (window.y[1] - window.y[0])
    floor, top = window.y[0] - far, window.y[1] + far
    y_left, y_right = np.clip(columns.y_left, floor, top), np.clip(columns.y_right, floor, top)
    low = np.where(unknown, np.clip(columns.low, floor, top), np.minimum(y_left, y_right))
    high = np.where(unknown, np.clip(columns.high, floor, top), np.maximum(y_left, y_right))
    with np.errstate(invalid="ignore"):
        way = np.where(unknown, 4 * (high - low), np.abs(y_right - y_left))
    calm = np.logical_and.reduceat(columns.calm, first)
    lowest = np.minimum.reduceat(np.nan_to_num(low), first)
    highest = np.maximum.reduceat(np.nan_to_num(high), first)
    height = (highest - lowest) * window.y_px
    turns = np.add.reduceat(np.nan_to_num(way), first) * window.y_px > _BAND_TURNS * height
    chosen = calm & turns & (height > _BAND_PX)
    last = np.append(first[1:], len(columns.left)) - 1
    for index in np.flatnonzero(chosen):
        banded[first[index] : last[index] + 1] = True
    return banded, _joined_bands(
        chosen, columns.left[first], columns.right[last], np.column_stack([lowest, highest])
    )


def _joined_bands(chosen: Flags, left: Floats, right: Floats, heights: Floats) -> list[Floats]:
    bands = []
    for start, stop in zip(*runs_of(chosen), strict=True):
        xs = np.append(left[start:stop], right[stop - 1])
        rows = np.concatenate([heights[start:stop], heights[stop - 1 : stop]])
        bands.append(np.column_stack([xs, rows]))
    return bands


def _undefined_stretches(columns: _Columns) -> Floats:
    """Give the stretches of x without a value, (n, 2); single points are left out."""
    missing = columns.empty | (np.isnan(columns.y_left) & np.isnan(columns.y_right))
    return _stretches(columns, missing)


def _stretches(columns: _Columns, chosen: Flags) -> Floats:
    """Give the stretches of x that chosen columns make together, (n, 2)."""
    starts, stops = runs_of(chosen)
    return np.column_stack([columns.left[starts], columns.right[stops - 1]])
