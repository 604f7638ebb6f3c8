"""Bring the vertices of contours to where the function has the level, along the sides of cells.

Marching squares put a vertex where a straight line between two corners has the level. A function
that bends within a cell has it elsewhere: each vertex is moved along its side, between two corners
at which the values lie on both sides of the level.

Source: Dowell and Jarratt, *A modified regula falsi method*, 1971 (the "Illinois" step).
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.relations.tiling import Grid
from axis_path.core.evaluate import RealSurface

Floats = NDArray[np.float64]
_ROUNDS = 5
#: Values between two ends count no more than this many times those at the ends.
_LARGEST = 1e6
#: A coordinate this near to a line of the grid is on it, in cells.
_ON_LINE = 1e-6


def settled(
    lines: list[Floats], surface: RealSurface, grid: Grid, values: Floats, level: float = 0.0
) -> list[Floats]:
    """Return contour lines with every vertex where the function has the level.

    Args:
        lines: (n, 2) arrays of (x, y), as contourpy gives them.
        surface: the function.
        grid: the cells.
        values: its values at the corners, (rows + 1, columns + 1); NaN where they are not known.
        level: what it is along the lines.
    """
    if not lines:
        return lines
    points = np.concatenate(lines)
    is_upright, column = _on(grid.xs, points[:, 0])
    is_level, row = _on(grid.ys, points[:, 1])
    # A vertex at a corner stands where it should.
    upright, level_side = is_upright & ~is_level, is_level & ~is_upright
    for chosen, moves in ((upright, 1), (level_side, 0)):
        at = np.flatnonzero(chosen)
        grid_lines = grid.ys if moves else grid.xs
        cell = np.clip(np.searchsorted(grid_lines, points[at, moves]) - 1, 0, len(grid_lines) - 2)
        if moves:
            ends = values[cell, column[at]], values[cell + 1, column[at]]
        else:
            ends = values[row[at], cell], values[row[at], cell + 1]
        with np.errstate(over="ignore"):
            one, other = (end - level for end in ends)
        crossed = np.isfinite(one) & np.isfinite(other) & (np.sign(one) * np.sign(other) < 0)
        at, cell = at[crossed], cell[crossed]
        points[at, moves] = _root(
            surface, points[at], moves, (grid_lines[cell], grid_lines[cell + 1]),
            (one[crossed], other[crossed]), level,
        )  # fmt: skip
    return np.split(points, np.cumsum([len(line) for line in lines])[:-1])


def _on(grid_lines: Floats, given: Floats) -> tuple[NDArray[np.bool_], NDArray[np.int64]]:
    """Return which coordinates lie on lines of the grid, and the nearest line of each."""
    above = np.clip(np.searchsorted(grid_lines, given), 1, len(grid_lines) - 1)
    below = above - 1
    nearest = np.where(given - grid_lines[below] < grid_lines[above] - given, below, above)
    width = grid_lines[above] - grid_lines[below]
    return np.abs(given - grid_lines[nearest]) <= _ON_LINE * width, nearest


def _root(
    surface: RealSurface,
    points: Floats,
    moves: int,
    ends: tuple[Floats, Floats],
    at_ends: tuple[Floats, Floats],
    level: float,
) -> Floats:
    """Return where the function has the level between two ends, (n,), by the Illinois method.

    Args:
        surface: the function.
        points: (n, 2) points; the coordinate ``moves`` is looked for, the other one stays.
        moves: 0 or 1.
        ends: between which values it lies.
        at_ends: the function less the level there, of both signs.
        level: the level.
    """
    (a, b), (u, v) = (end.copy() for end in ends), at_ends
    # Only how large values are to one another matters: products of large ones would overflow.
    size = np.maximum(np.abs(u), np.abs(v))
    u, v = u / size, v / size
    estimate, lost = points.copy(), np.zeros(len(points), dtype=np.bool_)
    for _ in range(_ROUNDS):
        estimate[:, moves] = np.clip(a - u * (b - a) / (v - u), np.minimum(a, b), np.maximum(a, b))
        value = surface.sample(estimate[:, 0], estimate[:, 1]) - level
        lost |= np.isnan(value)
        with np.errstate(over="ignore"):
            value = np.clip(np.where(lost, 0.0, value) / size, -_LARGEST, _LARGEST)
        is_other = value * v < 0
        a, u = np.where(is_other, b, a), np.where(is_other, v, u / 2)
        b, v = estimate[:, moves].copy(), value
        done = v == 0
        a, u = np.where(done, b, a), np.where(done, -1.0, u)
        v = np.where(done, 1.0, v)
    # Where there is no value on the way, nothing is known that is better than the straight line.
    return np.where(lost, points[:, moves], a - u * (b - a) / (v - u))
