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

import numpy as np
from contourpy import ContourGenerator, LineType, contour_generator
from numpy.typing import NDArray

from axis_path.core.draw.columns import runs_of
from axis_path.core.draw.relations.finer import look_finer
from axis_path.core.draw.relations.tiling import Grid, changes_sign, sample_corners, tile
from axis_path.core.draw.relations.vertices import settled
from axis_path.core.evaluate import RealSurface

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class ZeroSet:
    """Where a function of two variables is zero.

    Attributes:
        lines: (n, 2) arrays of (x, y).
        dots: (n, 2) places that may be single points of it.
        specks: (n, 2) places of parts that are too small to be seen as lines.
        dense: cells through which it runs several times, (rows, columns).
    """

    lines: list[Floats]
    dots: Floats = field(default_factory=lambda: np.empty((0, 2)))
    specks: Floats = field(default_factory=lambda: np.empty((0, 2)))
    dense: Flags | None = None


def zero_set(surface: RealSurface, grid: Grid) -> ZeroSet:
    """Find where a function is zero."""
    tiling = tile(surface, grid)
    if not tiling.maybe.any():
        return ZeroSet([])
    values = sample_corners(surface, grid, tiling.maybe)
    row, column = np.nonzero(tiling.maybe)
    changes = np.zeros(grid.shape, dtype=np.bool_)
    around = [values[row + down, column + right] for down in (0, 1) for right in (0, 1)]
    changes[row, column] = changes_sign(around)
    # Where all corners are zero it is zero all over, as floor(x) is for 0 ≤ x < 1.
    flat = np.zeros(grid.shape, dtype=np.bool_)
    flat[row, column] = np.logical_and.reduce([corner == 0 for corner in around])
    refined = look_finer(surface, grid, tiling, changes | flat)
    shaded = refined.dense | flat
    hidden = (changes & ~tiling.calm) | refined.redrawn | shaded
    drawn = settled(_lines(grid, values), surface, grid, values)
    lines = [part for line in drawn for part in _without(line, grid, hidden)]
    dense = shaded if shaded.any() else None
    return ZeroSet([*lines, *refined.segments], refined.dots, refined.specks, dense)


def _lines(grid: Grid, values: Floats) -> list[Floats]:
    masked = np.ma.masked_invalid(values)
    generator = contour_generator(grid.xs, grid.ys, masked, line_type=LineType.Separate)
    return [np.asarray(line) for line in generator.lines(0.0)]


def filled_rings(generator: ContourGenerator, low: float, high: float) -> list[Floats]:
    """Return the rings, (n, 2), that bound the places between two values, by even and odd."""
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


def runs(line: Floats, visible: Flags) -> list[Floats]:
    """Return the parts of a line that its kept segments make."""
    if visible.all():
        return [line]
    return [line[a : b + 1] for a, b in zip(*runs_of(visible), strict=True)]
