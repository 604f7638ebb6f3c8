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

from axis_path.core.draw import compiled
from axis_path.core.draw.columns import cut, join_by_left, runs_of, take
from axis_path.core.draw.window import Window
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import RealFunction
from axis_path.core.limits import CURVE_POINTS

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
#: Columns that are only tall are cut in this many. Those at a break are cut in more if they are
#: few, which saves rounds: up to so many columns in so many parts.
_CUTS, _FEW = 8, 48
_CUTS_AT_BREAKS = ((8, 182), (_FEW, 32), (CURVE_POINTS.value, 8))
#: A column that is taller than its line is cut down to this part of a pixel, one at a break or at
#: an end of the natural domain to a finer one.
_FINENESS, _FINENESS_AT_BREAKS = 512, 32_768
#: A line may differ from the enclosure of its column by this much before the column is cut, in px.
_TOLERANCE_PX = 0.45
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


@dataclass(frozen=True, slots=True)
class _Columns:
    """Columns of any width, in order of x.

    Attributes:
        numbers: (6, n): ``left``, ``right``, ``low``, ``high``, ``y_left`` and ``y_right``.
        flags: (3, n): ``calm`` if proved to be continuous, ``empty`` if there is no value, and
            ``straight`` if its line is proved to be near enough.
        pixel: (n,) which pixel column each is a part of.
        fineness: (n,) in how many parts that was cut.
    """

    numbers: Floats
    flags: Flags
    pixel: NDArray[np.int64]
    fineness: NDArray[np.int64]

    @property
    def left(self) -> Floats:
        return np.asarray(self.numbers[0])

    @property
    def right(self) -> Floats:
        return np.asarray(self.numbers[1])

    @property
    def low(self) -> Floats:
        return np.asarray(self.numbers[2])

    @property
    def high(self) -> Floats:
        return np.asarray(self.numbers[3])

    @property
    def y_left(self) -> Floats:
        return np.asarray(self.numbers[4])

    @property
    def y_right(self) -> Floats:
        return np.asarray(self.numbers[5])

    @property
    def calm(self) -> Flags:
        return np.asarray(self.flags[0])

    @property
    def empty(self) -> Flags:
        return np.asarray(self.flags[1])

    @property
    def straight(self) -> Flags:
        return np.asarray(self.flags[2])


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
    edges = np.concatenate([[domain[0]], edges, inner, fences, [domain[1]]])
    if inner or fences:
        edges = np.unique(edges)
    count = len(edges) - 1
    columns = _enclosed(
        function, edges[:-1], edges[1:], np.arange(count), np.ones(count, dtype=np.int64)
    )
    columns, tall = _refined(function, columns, window)
    return _assembled(columns, tall, np.array(inner), window, domain)


def _enclosed(
    function: RealFunction,
    left: Floats,
    right: Floats,
    pixel: NDArray[np.int64],
    fineness: NDArray[np.int64],
) -> _Columns:
    bounds, y_left, y_right = function.enclose_with_ends(left, right)
    flags = np.zeros((3, len(left)), dtype=np.bool_)
    # A sum of two is finite only if both are, and is quicker to look at.
    flags[0] = ~(bounds.partial | bounds.broken) & np.isfinite(y_left - y_left + y_right)
    flags[1] = bounds.nowhere
    numbers = np.array([left, right, bounds.low, bounds.high, y_left, y_right])
    return _Columns(numbers, flags, pixel, fineness)


def _needs_cut(columns: _Columns, window: Window) -> Flags:
    """Tell which columns are not known well enough.

    Of their height only counts what lies in the window, or less than half its height away from it.
    """
    floor, top = window.flat_y
    margin = (top - floor) / 2
    left, right = (window.flat_xs(each) for each in (columns.left, columns.right))
    low, high, y_left, y_right = (window.flat_ys(each) for each in columns.numbers[2:])
    found: Flags = compiled.rough_columns(
        left, right, low, high, columns.calm, columns.empty, y_left, y_right, columns.straight,
        floor - margin, top + margin, window.x_px, window.y_px, _TOLERANCE_PX,
    )  # fmt: skip
    return found


def _refined(function: RealFunction, columns: _Columns, window: Window) -> tuple[_Columns, Flags]:
    """Cut columns while that may show more; tell which stay taller than their line."""
    finished: list[_Columns] = []
    spent = len(columns.left)
    while True:
        rough = _needs_cut(columns, window)
        if rough.any():
            columns = _straightened(function, columns, rough, window)
            rough &= ~columns.straight
        # What is only tall is left to the bands in the end; an open end is brought to where it is.
        tall = rough & columns.calm & (columns.fineness < _FINENESS)
        breaks = rough & ~columns.calm & (columns.fineness < _FINENESS_AT_BREAKS)
        count = int(breaks.sum())
        if count > _FEW:
            breaks &= columns.fineness < _FINENESS
            count = int(breaks.sum())
        cuts = next(cuts for most, cuts in _CUTS_AT_BREAKS if count <= most)
        more = int(tall.sum()) * _CUTS + count * cuts
        if not more or spent + more > CURVE_POINTS.value:
            break
        spent += more
        parents = [(take(columns, tall), _CUTS), (take(columns, breaks), cuts)]
        finished.append(take(columns, ~(tall | breaks)))
        columns = _cut(function, [each for each in parents if len(each[0].left)])
    columns = join_by_left([*finished, columns])
    return columns, _needs_cut(columns, window)


def _straightened(
    function: RealFunction, columns: _Columns, rough: Flags, window: Window
) -> _Columns:
    """Mark rough columns in which the curve is proved to bend so little that its line is true."""
    chosen = take(columns, rough & columns.calm)
    left, right, low, high, y_left, y_right = chosen.numbers
    try:
        slope = function.expression.derivative()
        found = function.enclose(left, right, slope.derivative())
        bend = (found.low, found.high)
        if window.is_log:
            first = function.enclose(left, right, slope)
            bend = compiled.bends_on_axes(
                left, right, low, high, first.low, first.high, *bend, window.log_x, window.log_y
            )
    except (LimitError, NotHandledError):
        return columns
    left, right = window.flat_xs(left), window.flat_xs(right)
    y_left, y_right = window.flat_ys(y_left), window.flat_ys(y_right)
    sure = compiled.straight_columns(
        left, right, *bend, found.partial, found.broken, y_left, y_right, window.x_px,
        window.y_px, _TOLERANCE_PX,
    )  # fmt: skip
    flags = columns.flags.copy()
    flags[2, rough & columns.calm] = sure
    return replace(columns, flags=flags)


def _cut(function: RealFunction, parents: list[tuple[_Columns, int]]) -> _Columns:
    """Cut columns, each group in its own number of parts."""
    ends = [cut(columns.left, columns.right, cuts) for columns, cuts in parents]
    left, right = (np.concatenate(each) for each in zip(*ends, strict=True))
    pixel = np.concatenate([np.repeat(columns.pixel, cuts) for columns, cuts in parents])
    fineness = [np.repeat(columns.fineness * cuts, cuts) for columns, cuts in parents]
    return _enclosed(function, left, right, pixel, np.concatenate(fineness))


def _assembled(
    columns: _Columns, tall: Flags, holes: Floats, window: Window, domain: tuple[float, float]
) -> Curve:
    banded, bands = _bands(columns, tall, window)
    drawn = columns.calm & ~banded
    starts_new = np.ones(len(drawn) + 1, dtype=np.bool_)
    joined = drawn[1:] & drawn[:-1] & (columns.left[1:] == columns.right[:-1])
    if len(holes):
        joined &= ~np.isin(columns.left[1:], holes)
    starts_new[1:-1] = ~joined
    pieces = []
    cuts = np.flatnonzero(starts_new)
    for start, stop in pairwise(cuts.tolist()):
        if drawn[start]:
            piece = np.empty((stop - start + 1, 2))
            piece[:-1, 0], piece[-1, 0] = columns.left[start:stop], columns.right[stop - 1]
            piece[:-1, 1], piece[-1, 1] = columns.y_left[start:stop], columns.y_right[stop - 1]
            pieces.append(piece)
    may_be_zero = ~columns.empty & ~((columns.low > 0) | (columns.high < 0))
    return Curve(
        pieces, bands, _undefined_stretches(columns), domain, _stretches(columns, may_be_zero)
    )


def _bands(columns: _Columns, tall: Flags, window: Window) -> tuple[Flags, list[Floats]]:
    """Find the pixel columns in which the curve turns more often than can be shown."""
    banded = np.zeros(len(columns.left), dtype=np.bool_)
    if not tall.any() and len(columns.left) == columns.pixel[-1] + 1:
        return banded, []
    first = np.flatnonzero(np.diff(columns.pixel, prepend=-1, append=-1))
    # Far outside the window heights do not matter, and could be too large to be added.
    floor, top = window.flat_y
    far = 100 * (top - floor)
    low, high, y_left, y_right = (window.flat_ys(each) for each in columns.numbers[2:])
    chosen, lowest, highest = compiled.find_bands(
        first, low, high, columns.calm, tall, y_left, y_right, floor - far, top + far,
        window.y_px, _BAND_TURNS, _BAND_PX,
    )  # fmt: skip
    if not chosen.any():
        return banded, []
    last = first[1:] - 1
    first = first[:-1]
    for index in np.flatnonzero(chosen):
        banded[first[index] : last[index] + 1] = True
    heights = np.column_stack([lowest, highest])
    if window.log_y:
        heights = 10.0**heights
    return banded, _joined_bands(chosen, columns.left[first], columns.right[last], heights)


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
