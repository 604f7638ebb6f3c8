"""Parts of a zero set that the corners of cells do not show: thin ends, tiny rings, single points.

A cell whose corners have one sign holds no zero if the function rises or falls throughout, in both
directions: its least and greatest values are at corners then. Any other cell that may hold a zero
is cut finer and looked at in the same way. What is found is drawn; what is still undecided is a
dot, unless a drawn line is so near that nothing separate could be seen.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.relations.close_look import (
    CloseLook,
    corner_values,
    look_closely,
    slopes_in,
)
from axis_path.core.draw.relations.tiling import Grid, Tiling, changes_sign
from axis_path.core.evaluate import Boxes, RealSurface

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
Whole = NDArray[np.int64]
#: A cell is cut in so many parts each way.
_PARTS = 4
#: More cells than this are not cut: they are shaded.
_MOST_CUT = 6_000
#: Where more cells than this lie at edges of what has values, these are left as they are.
_MOST_EDGES = 1_500
#: So many cells together are a speck.
_SPECK = 4
#: Fewer cells than this with several branches each are corners and crossings of lines.
_LEAST_DENSE = 150


@dataclass(frozen=True, slots=True)
class Finer:
    """What a closer look shows.

    Attributes:
        dense: cells through which the zero set runs several times.
        redrawn: cells whose lines are among the ``segments``.
        segments: (2, 2) arrays of (x, y).
        dots: (n, 2) points that cannot be distinguished from zeros.
        specks: (n, 2) places of proved parts that are too small to be seen as lines.
    """

    dense: Flags
    redrawn: Flags
    segments: list[Floats]
    dots: Floats
    specks: Floats


def look_finer(surface: RealSurface, grid: Grid, tiling: Tiling, changes: Flags) -> Finer:
    """Look closer at the cells that may hold a zero which their corners do not show."""
    none = np.zeros(grid.shape, dtype=np.bool_)
    row, column = np.nonzero(tiling.maybe & tiling.calm)
    slopes = slopes_in(surface, grid.boxes(row, column, 1))
    crossed = changes[row, column]
    several = ~(slopes.x | slopes.y)
    unsure = ~crossed & ~(slopes.x & slopes.y)
    if int((several & crossed).sum()) >= _LEAST_DENSE or int(unsure.sum()) > _MOST_CUT:
        dense = _marked(none, row[several], column[several])
        return Finer(dense, none, [], np.empty((0, 2)), np.empty((0, 2)))
    bent = _marked(none, row[several & crossed], column[several & crossed])
    turning = crossed & ~(slopes.x & slopes.y)
    bent |= _with_neighbours(bent) & _marked(none, row[turning], column[turning])
    kinks = _few(_marked(none, row[slopes.broken], column[slopes.broken]))
    edges = _few(tiling.maybe & ~tiling.calm)
    row, column = row[unsure], column[unsure]
    thin, left, positions = _cut(surface, grid.boxes(row, column, 1))
    thin_cells = _marked(none, row[thin], column[thin])
    near = _with_neighbours(changes | thin_cells)
    alone = left & ~near[row, column]
    # The tip of a cusp lies in cells that show nothing, beside others that do.
    tips = _few(_marked(none, row[left & ~alone], column[left & ~alone]))
    redrawn = (
        (thin_cells | tips) | (changes & _with_neighbours(thin_cells | tips)) | bent | kinks | edges
    )
    drawn = np.nonzero(redrawn)
    visible = look_closely(surface, grid.boxes(drawn[0], drawn[1], 1))
    small = thin & _is_small(thin_cells)[row, column] & ~_with_neighbours(changes)[row, column]
    dots = look_closely(surface, grid.boxes(row[alone], column[alone], 1))
    return Finer(
        none, redrawn, [*visible.segments, *dots.segments],
        _apart(dots, positions[alone]), positions[small],
    )  # fmt: skip


def _few(cells: Flags) -> Flags:
    """Return cells in which lines may end or turn a corner; none where they are too many."""
    return cells if int(cells.sum()) <= _MOST_EDGES else np.zeros_like(cells)


def _apart(dots: CloseLook, positions: Floats) -> Floats:
    """Return the points where something too small to be distinguished from a zero may be."""
    if not dots.is_whole:
        return positions
    return dots.left


def _marked(none: Flags, row: Whole, column: Whole) -> Flags:
    marked = none.copy()
    marked[row, column] = True
    return marked


def _with_neighbours(chosen: Flags) -> Flags:
    """Return chosen cells with all that touch them."""
    if not chosen.any():
        return chosen
    around = np.pad(chosen, 1)
    rows, columns = chosen.shape
    parts = [around[a : a + rows, b : b + columns] for a in range(3) for b in range(3)]
    return np.asarray(np.logical_or.reduce(parts))


def _is_small(chosen: Flags) -> Flags:
    """Return which cells have so few chosen ones around them that they are a speck to the eye."""
    reach = 2
    around = np.pad(chosen, reach).astype(np.int64)
    rows, columns = chosen.shape
    steps = range(2 * reach + 1)
    parts = [around[a : a + rows, b : b + columns] for a in steps for b in steps]
    return np.asarray(np.add.reduce(parts) <= _SPECK)


def _cut(surface: RealSurface, boxes: Boxes) -> tuple[Flags, Flags, Floats]:
    """Cut boxes; tell which hold a change of sign, which are still unsure, and where (n, 2)."""
    count, inner = len(boxes), _PARTS * _PARTS
    finer = boxes.cut(_PARTS)
    enclosure = surface.enclose(finer)
    maybe = ~((enclosure.low > 0) | (enclosure.high < 0) | enclosure.nowhere)
    crossed = changes_sign(corner_values(surface, finer)) & maybe
    slopes = slopes_in(surface, finer)
    unsure = maybe & ~crossed & ~(slopes.x & slopes.y)
    middle = np.column_stack([finer.x_low + finer.x_high, finer.y_low + finer.y_high]) / 2
    doubtful = np.asarray(unsure).reshape(count, inner)
    crossings = np.asarray(crossed).reshape(count, inner)
    thin = np.asarray(crossings.any(axis=1))
    # Where something is sure, that is the place; else where something may be.
    weights = np.where(thin[:, None], crossings, doubtful)
    total = np.maximum(weights.sum(axis=1), 1)[:, None]
    positions = (middle.reshape(count, inner, 2) * weights[..., None]).sum(axis=1) / total
    return thin, np.asarray(doubtful.any(axis=1)), positions
