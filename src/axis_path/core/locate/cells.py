"""The cells into which a search cuts its interval, and what it has found in them."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from fractions import Fraction

from flint import arb

from axis_path.core.arithmetic import Ball, ball

#: Cells narrower than this, relative to their place, are not halved any more.
_NARROWEST = 1e-13
#: Cells are cut off the middle, so that a zero at a round number does not fall on the cut.
_CUT = 0.4876


@dataclass(frozen=True, slots=True)
class Interval:
    """Where to search; the ends may be numbers that are known exactly, such as 2 pi.

    Attributes:
        low_closed: whether the lower end belongs to it; ``high_closed`` likewise.
        low_goes_on: whether a function that is zero up to the lower end is zero beyond it too;
            ``high_goes_on`` likewise.
        low_is_edge: whether the search only stops at the lower end, as at the edge of a window;
            ``high_is_edge`` likewise.
    """

    low: Ball
    high: Ball
    low_closed: bool = True
    high_closed: bool = True
    low_goes_on: bool = False
    high_goes_on: bool = False
    low_is_edge: bool = False
    high_is_edge: bool = False


def interval(low: Fraction, high: Fraction) -> Interval:
    """Make a closed interval from two exact numbers."""
    return Interval(ball.from_fraction(low), ball.from_fraction(high))


@dataclass(frozen=True, slots=True)
class Cell:
    """A part of the interval that is looked at.

    Attributes:
        low_zeros: the steps of the function's graph that are proved to be zero at the lower end;
            ``high_zeros`` likewise.
    """

    low: Ball
    high: Ball
    low_zeros: frozenset[int] = frozenset()
    high_zeros: frozenset[int] = frozenset()

    def cut(self, at: Ball) -> tuple[Cell, Cell]:
        """Return the two cells below and above a place inside."""
        return Cell(self.low, at, self.low_zeros), Cell(at, self.high, high_zeros=self.high_zeros)

    def hull(self) -> Ball:
        """Return all numbers of the cell."""
        return ball.from_bounds(self.low.value, self.high.value)

    @property
    def middle(self) -> float:
        """Return where the cell is cut."""
        low, high = float(self.low.value.mid()), float(self.high.value.mid())
        return low + (high - low) * _CUT

    @property
    def is_narrow(self) -> bool:
        """Check whether the cell is not cut any more."""
        low, high = float(self.low.value.mid()), float(self.high.value.mid())
        return high - low <= _NARROWEST * max(abs(low), abs(high), 1e-12)


@dataclass(frozen=True, slots=True)
class Root:
    """A zero of a factor: a place that holds it, exact if it is known.

    Attributes:
        order: how many derivatives, the factor itself first, vanish here; None if not known.
        source: the step of the factor in its graph.
        zeros: all steps that are known to be zero here.
        surd: the exact form, if it is a root of a quadratic.
    """

    abscissa: Ball
    proved: bool
    note: str = ""
    order: int | None = None
    source: int | None = None
    zeros: frozenset[int] = frozenset()
    surd: str | None = None


@dataclass(slots=True)
class Search:
    """What a search has found so far.

    Attributes:
        undecided: cells in which there may be more.
        constant: cells in which the function is zero all along.
        is_crowded: whether there were too many to find them all.
    """

    roots: list[Root] = field(default_factory=list)
    undecided: list[Cell] = field(default_factory=list)
    constant: list[Cell] = field(default_factory=list)
    is_crowded: bool = False


def is_tiny(cell: Cell) -> bool:
    """Check whether a cell is a point to the eye."""
    low, high = float(cell.low.value.mid()), float(cell.high.value.mid())
    return high - low <= 1e-9 * max(abs(low), abs(high), 1e-3)


def merged_cells(cells: list[Cell]) -> list[Cell]:
    """Join neighbours; the cells come out in order of x."""
    merged: list[Cell] = []
    for cell in sorted(cells, key=lambda item: item.low.value.mid()):
        if merged and bool(merged[-1].high.value.upper() >= cell.low.value.lower()):
            one = merged[-1]
            merged[-1] = Cell(one.low, cell.high, one.low_zeros, cell.high_zeros)
        else:
            merged.append(cell)
    return merged


def float_below(value: arb) -> float:
    """Return a float that is at most an exact number, and close to it."""
    near = float(value)
    return near if bool(arb(near) <= value) else math.nextafter(near, -math.inf)


def float_above(value: arb) -> float:
    """Return a float that is at least an exact number, and close to it."""
    near = float(value)
    return near if bool(arb(near) >= value) else math.nextafter(near, math.inf)
