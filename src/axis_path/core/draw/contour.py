"""Draw where a function of two variables is zero, and miss no part that can be seen.

The window is cut into cells of two pixels. Those in which an enclosure excludes zero are left
out, coarsely first; in the others the function is computed at the corners, and marching squares
join the changes of sign. Then every cell that saw no change of sign, but may hold a zero, is looked
at again: a slope that keeps its sign shows that no separate part lies inside; what cannot be
excluded so is cut finer, and is shown as a dot if it still cannot. Where cells hold several
branches at once, they are shaded.

Source: Lorensen and Cline, *Marching cubes*, 1987, in two dimensions, by contourpy; Tupper,
*Reliable two-dimensional graphing methods for mathematical formulae with two free variables*, 2001.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

import numpy as np
from contourpy import ContourGenerator, LineType, contour_generator
from numpy.typing import NDArray

from axis_path.core.draw.window import Window
from axis_path.core.evaluate import Boxes, RealSurface

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
#: The side of a cell.
_CELL_PX = 2
#: The sides of tiles in cells, each a part of the one before.
_TILES = (8, 2, 1)
#: A cell that may hold a separate part is cut in so many parts each way.
_FINER = 4
#: So many cells from a drawn line nothing separate can be seen.
_NEAR = 1
#: More cells than this are not cut finer: they are shaded.
_MOST_CUT = 1_500
#: Fewer cells than this with several branches each are corners and crossings of lines.
_LEAST_DENSE = 150


@dataclass(frozen=True, slots=True)
class Grid:
    """The corners of the cells of a window, from its lower left.

    Attributes:
        xs: (columns + 1,) floats; ``ys``: (rows + 1,) floats, upwards.
    """

    xs: Floats
    ys: Floats

    @staticmethod
    def of(window: Window) -> Grid:
        """Give the grid of a window."""
        columns, rows = (-(-px // _CELL_PX) for px in (window.width, window.height))
        return Grid(np.linspace(*window.x, columns + 1), np.linspace(*window.y, rows + 1))

    @property
    def shape(self) -> tuple[int, int]:
        """Give the numbers of rows and columns of cells."""
        return len(self.ys) - 1, len(self.xs) - 1

    def boxes(self, rows: NDArray[np.int64], columns: NDArray[np.int64], side: int) -> Boxes:
        """Give tiles by the cell in their lower left corner."""
        above = np.minimum(rows + side, len(self.ys) - 1)
        beside = np.minimum(columns + side, len(self.xs) - 1)
        return Boxes(self.xs[columns], self.xs[beside], self.ys[rows], self.ys[above])


@dataclass(frozen=True, slots=True)
class Tiling:
    """What enclosures tell of the cells of a grid, (rows, columns) each.

    Attributes:
        maybe: whether there may be a zero.
        calm: whether the function is proved to be defined and continuous there.
        sign: 1 or -1 where it keeps its sign; 0 where there may be a zero, NaN without a value.
    """

    maybe: Flags
    calm: Flags
    sign: Floats


@dataclass(frozen=True, slots=True)
class ZeroSet:
    """Where a function of two variables is zero.

    Attributes:
        lines: (n, 2) arrays of (x, y).
        dots: (n, 2) places that may be single points of it, or parts smaller than a pixel.
        dense: cells through which it runs several times, (rows, columns).
    """

    lines: list[Floats]
    dots: Floats = field(default_factory=lambda: np.empty((0, 2)))
    dense: Flags | None = None


def tile(surface: RealSurface, grid: Grid) -> Tiling:
    """Enclose a function over a grid, coarsely first."""
    sign = np.zeros(grid.shape)
    calm = np.ones(grid.shape, dtype=np.bool_)
    side = _TILES[0]
    row, column = _first_tiles(grid)
    for finer in (*_TILES[1:], 0):
        found = surface.enclose(grid.boxes(row, column, side))
        known = np.where(found.low > 0, 1.0, np.where(found.high < 0, -1.0, 0.0))
        known = np.where(found.nowhere, np.nan, np.where(found.partial, 0.0, known))
        is_calm = np.asarray(~(found.partial | found.broken))
        _put(sign, row, column, side, known)
        _put(calm, row, column, side, is_calm)
        open_ = known == 0
        if not finer or not open_.any():
            break
        row, column = _cut(row[open_], column[open_], side, finer, grid.shape)
        side = finer
    return Tiling(sign == 0, calm, sign)


def calm_cells(surface: RealSurface, grid: Grid) -> Flags:
    """Tell in which cells a function is proved to be defined and continuous."""
    calm = np.ones(grid.shape, dtype=np.bool_)
    side = _TILES[0]
    row, column = _first_tiles(grid)
    for finer in (*_TILES[1:], 0):
        found = surface.enclose(grid.boxes(row, column, side))
        is_calm = np.asarray(~(found.partial | found.broken))
        _put(calm, row, column, side, is_calm)
        if not finer or is_calm.all():
            break
        row, column = _cut(row[~is_calm], column[~is_calm], side, finer, grid.shape)
        side = finer
    return calm


def _first_tiles(grid: Grid) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    rows, columns = grid.shape
    at = np.meshgrid(np.arange(0, rows, _TILES[0]), np.arange(0, columns, _TILES[0]), indexing="ij")
    return at[0].ravel(), at[1].ravel()


def _put(
    target: NDArray[Any],
    row: NDArray[np.int64],
    column: NDArray[np.int64],
    side: int,
    values: NDArray[Any],
) -> None:
    if side == 1:
        target[row, column] = values
        return
    steps = np.arange(side)
    rows = np.minimum(row[:, None] + steps, target.shape[0] - 1)
    columns = np.minimum(column[:, None] + steps, target.shape[1] - 1)
    target[rows[:, :, None], columns[:, None, :]] = values[:, None, None]


def _cut(
    row: NDArray[np.int64],
    column: NDArray[np.int64],
    side: int,
    finer: int,
    shape: tuple[int, int],
) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    steps = np.arange(0, side, finer)
    full = (len(row), len(steps), len(steps))
    rows = np.broadcast_to(row[:, None, None] + steps[None, :, None], full).ravel()
    columns = np.broadcast_to(column[:, None, None] + steps[None, None, :], full).ravel()
    inside = (rows < shape[0]) & (columns < shape[1])
    return rows[inside], columns[inside]


def corners(chosen: Flags) -> Flags:
    """Give the corners of chosen cells, (rows + 1, columns + 1)."""
    found = np.zeros((chosen.shape[0] + 1, chosen.shape[1] + 1), dtype=np.bool_)
    for down in (slice(None, -1), slice(1, None)):
        for across in (slice(None, -1), slice(1, None)):
            found[down, across] |= chosen
    return found


def sample_corners(surface: RealSurface, grid: Grid, chosen: Flags) -> Floats:
    """Give the values at the corners of chosen cells, NaN at the others."""
    wanted = corners(chosen)
    row, column = np.nonzero(wanted)
    values = np.full(wanted.shape, np.nan)
    values[row, column] = surface.sample(grid.xs[column], grid.ys[row])
    return values


def zero_set(surface: RealSurface, grid: Grid) -> ZeroSet:
    """Find where a function is zero."""
    tiling = tile(surface, grid)
    if not tiling.maybe.any():
        return ZeroSet([])
    values = sample_corners(surface, grid, tiling.maybe)
    row, column = np.nonzero(tiling.maybe)
    changes = np.zeros(grid.shape, dtype=np.bool_)
    changes[row, column] = _changes(values, row, column)
    dense, dots = _unseen(surface, grid, tiling, changes)
    hidden = (changes & ~tiling.calm) | dense
    lines = [part for line in _lines(grid, values) for part in _without(line, grid, hidden)]
    return ZeroSet(lines, dots, dense if dense.any() else None)


def _changes(values: Floats, row: NDArray[np.int64], column: NDArray[np.int64]) -> Flags:
    """Tell in which cells the sign changes between corners, all of which have values."""
    parts = [values[row + down, column + beside] for down in (0, 1) for beside in (0, 1)]
    with np.errstate(invalid="ignore"):
        lowest, highest = np.minimum.reduce(parts), np.maximum.reduce(parts)
        return np.asarray((lowest <= 0) & (highest >= 0))


def _lines(grid: Grid, values: Floats) -> list[Floats]:
    masked = np.ma.masked_invalid(values)
    generator = contour_generator(grid.xs, grid.ys, masked, line_type=LineType.Separate)
    return [np.asarray(line) for line in generator.lines(0.0)]


def filled_rings(generator: ContourGenerator, low: float, high: float) -> list[Floats]:
    """Give the rings, (n, 2), that bound the places between two values, by even and odd."""
    rings: list[Floats] = []
    all_points, all_offsets = generator.filled(low, high)[:2]
    for points, offsets in zip(all_points, all_offsets, strict=True):
        if points is not None and offsets is not None:
            rings += [np.asarray(points[int(a) : int(b)]) for a, b in pairwise(offsets)]
    return rings


def _cells(points: Floats, grid: Grid) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    rows, columns = grid.shape
    column = np.searchsorted(grid.xs, points[:, 0], side="right") - 1
    row = np.searchsorted(grid.ys, points[:, 1], side="right") - 1
    return np.clip(row, 0, rows - 1), np.clip(column, 0, columns - 1)


def _without(line: Floats, grid: Grid, hidden: Flags) -> list[Floats]:
    """Take the segments in some cells out of a line."""
    row, column = _cells((line[1:] + line[:-1]) / 2, grid)
    return runs(line, ~hidden[row, column])


def runs(line: Floats, kept: Flags) -> list[Floats]:
    """Give the parts of a line that its kept segments make."""
    if kept.all():
        return [line]
    edges = np.flatnonzero(np.diff(np.concatenate([[False], kept, [False]]).astype(np.int8)))
    return [line[a : b + 1] for a, b in zip(edges[::2], edges[1::2], strict=True)]


def _unseen(
    surface: RealSurface, grid: Grid, tiling: Tiling, changes: Flags
) -> tuple[Flags, Floats]:
    """Find cells with several branches, and parts that marching squares cannot see."""
    maybe = tiling.maybe & tiling.calm
    row, column = np.nonzero(maybe)
    boxes = grid.boxes(row, column, 1)
    bent = ~_keeps_direction(surface, boxes)
    dense = np.zeros_like(maybe)
    dense[row[bent], column[bent]] = True
    if int((dense & changes).sum()) < _LEAST_DENSE and int(dense.sum()) <= _MOST_CUT:
        alone = np.flatnonzero(bent)
        alone = alone[~_is_near(changes, row[alone], column[alone])]
        return np.zeros_like(maybe), _dots(surface, boxes.take(alone))
    return dense, np.empty((0, 2))


def _is_near(chosen: Flags, row: NDArray[np.int64], column: NDArray[np.int64]) -> Flags:
    """Tell which cells have a chosen one beside them."""
    around = np.pad(chosen, _NEAR)
    steps = range(2 * _NEAR + 1)
    found = [around[row + down, column + beside] for down in steps for beside in steps]
    return np.asarray(np.logical_or.reduce(found))


def _keeps_direction(surface: RealSurface, boxes: Boxes) -> Flags:
    """Tell in which boxes one of the slopes is nowhere zero: one branch at most runs through."""
    slopes = surface.slopes()
    if slopes is None:
        return np.zeros(len(boxes), dtype=np.bool_)
    keeps = np.zeros(len(boxes), dtype=np.bool_)
    for slope in slopes:
        found = slope.enclose(boxes)
        keeps |= ~(found.partial | found.broken) & ((found.low > 0) | (found.high < 0))
    return keeps


def _dots(surface: RealSurface, boxes: Boxes) -> Floats:
    """Give the places inside boxes that cannot be told from zero, one for each box."""
    if not len(boxes):
        return np.empty((0, 2))
    finer = boxes.cut(_FINER)
    found = surface.enclose(finer)
    maybe = ~((found.low > 0) | (found.high < 0) | found.nowhere)
    maybe &= ~_keeps_direction(surface, finer)
    owner = np.repeat(np.arange(len(boxes)), _FINER * _FINER)[maybe]
    left = finer.take(maybe)
    places = np.column_stack([(left.x_low + left.x_high) / 2, (left.y_low + left.y_high) / 2])
    count = np.bincount(owner, minlength=len(boxes))
    sums = [np.bincount(owner, weights=places[:, k], minlength=len(boxes)) for k in (0, 1)]
    kept = count > 0
    return np.column_stack([each[kept] / count[kept] for each in sums])
