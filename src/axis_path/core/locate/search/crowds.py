"""Where zeros crowd: cells between floats, and a handful of zeros that stands for all."""

from __future__ import annotations

from collections.abc import Sequence

from flint import arb

from axis_path.core.arithmetic import Ball
from axis_path.core.locate.cells import (
    Cell,
    float_above,
    float_below,
)
from axis_path.core.locate.search.prune import Pruned

#: Where zeros crowd without end, so many of them are given.
_MOST_IN_CROWD = 120


def width_of(cells: Sequence[Cell]) -> float:
    """Return the length of cells together."""
    return sum(float((cell.high.value - cell.low.value).mid()) for cell in cells)


def has_floats(cell: Cell) -> bool:
    """Check whether there are floats between the ends of a cell, so that these can be cut."""
    low, high = float_above(cell.low.value.upper()), float_below(cell.high.value.lower())
    return low < (low + high) / 2 < high


def cell_between(low: float, first: Cell | None, high: float, last: Cell | None) -> Cell:
    """Return a cell between two floats, or from the ends of cells that these stand for."""
    return Cell(
        Ball(arb(low)) if first is None else first.low,
        Ball(arb(high)) if last is None else last.high,
        frozenset() if first is None else first.low_zeros,
        frozenset() if last is None else last.high_zeros,
    )


def thinned(pruned: Pruned) -> Pruned:
    """Leave out the zeros next to where they crowd, so that a handful of them stands for all."""
    if len(pruned.brackets) <= _MOST_IN_CROWD:
        return pruned
    low, high = max(pruned.rest, key=lambda interval: interval[1] - interval[0])
    middle = (low + high) / 2
    nearest = sorted(pruned.brackets, key=lambda bracket: abs(bracket[0] - middle))
    dropped = nearest[: len(nearest) - _MOST_IN_CROWD]
    ends = [low, high, *(end for bracket in dropped for end in bracket)]
    crowd = (min(ends), max(ends))
    rest = [(a, b) for a, b in pruned.rest if b < crowd[0] or a > crowd[1]]
    nearest_ones = sorted(nearest[len(dropped) :])
    return Pruned(nearest_ones, sorted([*rest, crowd]), is_dense=True, is_crowded=True)
