"""The cells of a window, and what enclosures tell of a function of two variables in them.

Tiles are enclosed coarsely first; only those about which nothing is known are cut.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.window import Window
from axis_path.core.evaluate import Boxes, RealSurface

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
#: The side of a cell.
_CELL_PX = 2
#: The sides of tiles in cells, each a part of the one before.
_TILES = (8, 2, 1)


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
        """Return the grid of a window."""
        columns, rows = (-(-px // _CELL_PX) for px in (window.width, window.height))
        return Grid(window.between(*window.x, columns), window.rows(rows))

    @property
    def shape(self) -> tuple[int, int]:
        """Return the numbers of rows and columns of cells."""
        return len(self.ys) - 1, len(self.xs) - 1

    def boxes(self, rows: NDArray[np.int64], columns: NDArray[np.int64], side: int) -> Boxes:
        """Return tiles by the cell in their lower left corner."""
        above = np.minimum(rows + side, len(self.ys) - 1)
        right = np.minimum(columns + side, len(self.xs) - 1)
        return Boxes(self.xs[columns], self.xs[right], self.ys[rows], self.ys[above])


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


def tile(surface: RealSurface, grid: Grid) -> Tiling:
    """Enclose a function over a grid, coarsely first."""
    sign = np.zeros(grid.shape)
    calm = np.ones(grid.shape, dtype=np.bool_)
    side = _TILES[0]
    row, column = _first_tiles(grid)
    for finer in (*_TILES[1:], 0):
        enclosure = surface.enclose(grid.boxes(row, column, side))
        known = np.where(enclosure.low > 0, 1.0, np.where(enclosure.high < 0, -1.0, 0.0))
        known = np.where(enclosure.nowhere, np.nan, np.where(enclosure.partial, 0.0, known))
        is_calm = np.asarray(~(enclosure.partial | enclosure.broken))
        _put(sign, row, column, side, known)
        _put(calm, row, column, side, is_calm)
        open_ = known == 0
        if not finer or not open_.any():
            break
        row, column = _cut(row[open_], column[open_], side, finer, grid.shape)
        side = finer
    return Tiling(sign == 0, calm, sign)


def calm_cells(surface: RealSurface, grid: Grid) -> Flags:
    """Return in which cells a function is proved to be defined and continuous."""
    calm = np.ones(grid.shape, dtype=np.bool_)
    side = _TILES[0]
    row, column = _first_tiles(grid)
    for finer in (*_TILES[1:], 0):
        enclosure = surface.enclose(grid.boxes(row, column, side))
        is_calm = np.asarray(~(enclosure.partial | enclosure.broken))
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
    """Return the corners of chosen cells, (rows + 1, columns + 1)."""
    flags = np.zeros((chosen.shape[0] + 1, chosen.shape[1] + 1), dtype=np.bool_)
    for down in (slice(None, -1), slice(1, None)):
        for across in (slice(None, -1), slice(1, None)):
            flags[down, across] |= chosen
    return flags


def sample_corners(surface: RealSurface, grid: Grid, chosen: Flags) -> Floats:
    """Return the values at the corners of chosen cells, NaN at the others."""
    is_corner = corners(chosen)
    row, column = np.nonzero(is_corner)
    values = np.full(is_corner.shape, np.nan)
    values[row, column] = surface.sample(grid.xs[column], grid.ys[row])
    return values


def changes_sign(values: list[Floats]) -> Flags:
    """Return where values at several corners have both signs, all of which are known.

    A zero at a corner is no change: (x - y)^2 has one and may be missed by every line.
    """
    with np.errstate(invalid="ignore"):
        lowest, highest = np.minimum.reduce(values), np.maximum.reduce(values)
        return np.asarray((lowest < 0) & (highest > 0))
