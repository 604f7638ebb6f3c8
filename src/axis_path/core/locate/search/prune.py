"""Sift an interval for the zeros of one smooth function, many cells at once.

The interval is cut until in every cell the function is enclosed away from zero, or its slope is, so
that it rises or falls there and has one zero at most. Neighbouring cells with slopes of one sign
are one interval. Newton's method guesses the zero of each; it is proved by the signs a few units in
the last place to both sides of the guess. What no enclosure settles is left to ``zeros.py``.

Source: Moore, Kearfott, Cloud, *Introduction to Interval Analysis*, chapter 8.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from functools import cache
from types import ModuleType

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Enclosure
from axis_path.core.deadline import check
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Expression, RealFunction, middles

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
_FIRST_CELLS, _PARTS = 16, 4
_ROUNDS, _MOST_CELLS, _MANY_LEFT, _CROWD = 11, 6_000, 200, 20
#: Cells are cut off their quarters, so that a zero at a round number does not fall on a cut.
_CUTS = np.array([0.0, 0.2489, 0.4876, 0.7453, 1.0])
#: Narrower cells, relative to their place, are left to balls.
_NARROWEST = 1e-11
_UNBOUNDED_ROUNDS = 3


@dataclass(slots=True)
class Pruned:
    """What pruning has settled, and what not.

    Attributes:
        brackets: (low, high) floats around exactly one zero each, which is simple.
        rest: (low, high) intervals that are not settled, in order.
        is_dense: whether there were too many cells to go on.
        is_crowded: whether that is because there are too many zeros.
    """

    brackets: list[tuple[float, float]] = field(default_factory=list)
    rest: list[tuple[float, float]] = field(default_factory=list)
    is_dense: bool = False
    is_crowded: bool = False


def prune(
    function: RealFunction,
    expression: Expression,
    parts: list[tuple[float, float]],
    *,
    is_smooth: bool,
) -> Pruned:
    """Find the simple zeros of an expression in parts of the line.

    Args:
        function: gives the sliders.
        expression: what is searched; one that was made from the function's.
        parts: from where to where, in order; what happens in one says nothing of its neighbours.
        is_smooth: whether it is known to be smooth inside each part, if not at its ends.
    """
    pruned = Pruned()
    if not parts:
        return pruned
    slope = _slope_of(expression)
    usable = [low < high and math.isfinite(high - low) for low, high in parts]
    if slope is None or not all(usable):
        pruned.rest = list(parts)
        return pruned
    cells = _Cells.of(parts).cut(_FIRST_CELLS)
    steady: list[_Cells] = []
    left: list[_Cells] = []
    for turn in range(_ROUNDS):
        cells, rising, is_bounded = _looked_at(function, expression, slope, cells, is_smooth)
        is_steady = rising != 0
        steady.append(cells.take(is_steady, rising[is_steady]))
        cells = cells.take(~is_steady)
        scale = np.maximum(np.maximum(np.abs(cells.low), np.abs(cells.high)), 1e-12)
        narrow = cells.high - cells.low <= _NARROWEST * scale
        if turn >= _UNBOUNDED_ROUNDS:
            # Values beyond all floats say nothing however often a cell is cut; balls go further.
            narrow |= ~is_bounded[~is_steady]
        left.append(cells.take(narrow))
        cells = cells.take(~narrow)
        if not len(cells.low) or len(cells.low) > _MOST_CELLS:
            break
        cells = cells.cut(_PARTS)
    # What is left after so many cuts, and is still many, will not become fewer.
    pruned.is_dense = len(cells.low) > _MANY_LEFT
    left.append(cells)
    intervals = _Cells.together(steady).joined()
    pruned.brackets, unsure = crossings(function, expression, slope, intervals.low, intervals.high)
    left.append(intervals.take(unsure, np.zeros(int(unsure.sum()))))
    rest = _Cells.together(left).joined()
    pruned.rest = list(zip(rest.low.tolist(), rest.high.tolist(), strict=True))
    pruned.brackets.sort()
    pruned.is_crowded = pruned.is_dense and len(pruned.brackets) > _CROWD
    return pruned


@dataclass(frozen=True, slots=True)
class _Cells:
    """Cells, (n,) each.

    Attributes:
        owner: in which part each lies.
        way: 1 where the expression rises, -1 where it falls, 0 where that is not known.
    """

    low: Floats
    high: Floats
    owner: Floats
    way: Floats

    @classmethod
    def of(cls, parts: list[tuple[float, float]]) -> _Cells:
        """Take every part as one cell."""
        ends = np.array(parts, dtype=np.float64)
        count = len(parts)
        return cls(ends[:, 0], ends[:, 1], np.arange(count, dtype=np.float64), np.zeros(count))

    @classmethod
    def together(cls, cells: list[_Cells]) -> _Cells:
        """Put cells in one row."""
        return cls(
            *(
                np.concatenate([getattr(cell, name) for cell in cells])
                for name in ("low", "high", "owner", "way")
            )
        )

    def take(self, chosen: Flags, way: Floats | None = None) -> _Cells:
        """Return some of the cells."""
        given = self.way[chosen] if way is None else way
        return _Cells(self.low[chosen], self.high[chosen], self.owner[chosen], given)

    def cut(self, parts: int) -> _Cells:
        """Cut every cell; the outer ends stay what they are, to the last bit."""
        cuts = _CUTS if parts == _PARTS else np.linspace(0, 1, parts + 1) ** 1.03
        ends = self.low[:, None] + (self.high - self.low)[:, None] * cuts
        ends[:, 0], ends[:, -1] = self.low, self.high
        return _Cells(
            ends[:, :-1].ravel(), ends[:, 1:].ravel(),
            np.repeat(self.owner, parts), np.repeat(self.way, parts),
        )  # fmt: skip

    def joined(self) -> _Cells:
        """Join neighbours of one part that go the same way."""
        if not len(self.low):
            return self
        order = np.lexsort((self.low, self.owner))
        low, high, owner, way = (
            values[order] for values in (self.low, self.high, self.owner, self.way)
        )
        apart = (low[1:] != high[:-1]) | (way[1:] != way[:-1]) | (owner[1:] != owner[:-1])
        starts = np.flatnonzero(np.concatenate([[True], apart]))
        ends = np.append(starts[1:] - 1, len(high) - 1)
        return _Cells(low[starts], high[ends], owner[starts], way[starts])


def _slope_of(expression: Expression) -> Expression | None:
    try:
        return expression.derivative()
    except (LimitError, NotHandledError):
        return None


def _looked_at(
    function: RealFunction, expression: Expression, slope: Expression, cells: _Cells,
    is_smooth: bool,
) -> tuple[_Cells, Floats, Flags]:  # fmt: skip
    """Return the cells that may hold a zero.

    With each whether the expression rises (1) or falls (-1) there, and whether its values are
    bounded.
    """
    lows, highs = cells.low, cells.high
    values, slopes = _both(function, expression, slope, lows, highs)
    candidates = ~((values.low > 0) | (values.high < 0) | values.nowhere)
    lows, highs = lows[candidates], highs[candidates]
    slope_low, slope_high = slopes.low[candidates], slopes.high[candidates]
    rising = np.where(slope_low > 0, 1.0, np.where(slope_high < 0, -1.0, 0.0))
    rough = np.asarray(values.partial | values.broken | slopes.partial | slopes.broken)[candidates]
    if not is_smooth:
        rising[rough] = 0.0
    # The mean value theorem: f(X) lies in f(m) + f'(X) (X - m), which is tighter in small cells.
    with np.errstate(all="ignore"):
        middle = (lows + highs) / 2
        # The middle of two floats that are close together may be one of them.
        reach = np.maximum(np.abs(slope_low), np.abs(slope_high)) * (highs - lows)
        reach *= np.where(highs - lows > 1e-12 * np.abs(middle), 0.500001, 1.0)
        at_middle = function.enclose(middle, middle, expression)
        known = ~(at_middle.partial | at_middle.nowhere) & np.isfinite(reach)
        if not is_smooth:
            known &= ~rough
        margin = 1e-12 * np.abs(at_middle.low) + 1e-300
        without = known & ((at_middle.low - reach > margin) | (at_middle.high + reach < -margin))
    is_bounded = np.isfinite(values.low[candidates]) & np.isfinite(values.high[candidates])
    return cells.take(candidates).take(~without), rising[~without], is_bounded[~without]


def _both(
    function: RealFunction, expression: Expression, slope: Expression, lows: Floats, highs: Floats
) -> tuple[Enclosure, Enclosure]:
    values, slopes = function.enclose_pair(lows, highs, expression, slope)
    return values, slopes


def crossings(
    function: RealFunction, expression: Expression, slope: Expression, lows: Floats, highs: Floats
) -> tuple[list[tuple[float, float]], Flags]:
    """Locate the zeros in intervals of one direction each.

    Args:
        function: gives the sliders.
        expression: what is searched; it rises, or falls, all over each interval.
        slope: its derivative.
        lows: where the intervals begin, (n,).
        highs: where they end.

    Returns:
        Brackets around the zeros, and which intervals stay unsure.
    """
    if not len(lows):
        return [], np.zeros(0, dtype=np.bool_)
    form = function.compiled(expression, slope)
    if form is None:
        brackets, known = _crossings(function, expression, slope, (lows, highs))
    else:
        check()
        brackets, known = compiled_kernel().crossings(*form, lows, highs)
    return list(map(tuple, brackets[:, known > 0].T.tolist())), known < 0


def _crossings(
    function: RealFunction,
    expression: Expression,
    slope: Expression,
    intervals: tuple[Floats, Floats],
) -> tuple[Floats, NDArray[np.int64]]:
    """Do what ``kernel.crossings`` does, for a program whose enclosures are not compiled."""
    kernel = compiled_kernel()

    def signs_of(enclosure: Enclosure) -> NDArray[np.int64]:
        return kernel.signs(enclosure.low, enclosure.high, enclosure.partial, enclosure.nowhere)  # type: ignore[no-any-return]

    lows, highs = intervals
    count = len(lows)
    brackets, known = np.zeros((2, count)), np.zeros(count, dtype=np.int64)
    ends = np.concatenate([lows, highs])
    at_ends = function.enclose(ends, ends, expression)
    end_signs, values = signs_of(at_ends), middles(at_ends)
    crossed = end_signs[:count] * end_signs[count:]
    known[crossed == 0] = -1
    left = np.flatnonzero(crossed < 0)
    first, last = values[:count][left], values[count:][left]
    a, b, before = lows[left], highs[left], np.full(len(left), np.nan)
    abscissa = kernel.chords(a, b, first, last)
    for _ in range(kernel.NEWTON_ROUNDS):
        pair = function.enclose_pair(abscissa, abscissa, expression, slope)
        if kernel.newton(abscissa, a, b, before, last > 0, *map(middles, pair)):
            break
    for reach in kernel.REACHES:
        sides = kernel.sides_of(abscissa, reach, lows[left], highs[left])
        side_signs = signs_of(function.enclose(sides, sides, expression))
        is_proved = side_signs[: len(left)] * side_signs[len(left) :] < 0
        known[left] = np.where(is_proved, 1, -1)
        brackets[:, left[is_proved]] = sides.reshape(2, -1)[:, is_proved]
        left, abscissa = left[~is_proved], abscissa[~is_proved]
    return brackets, known


@cache
def compiled_kernel() -> ModuleType:
    """Return the compiled code; only what needs it pays for loading it."""
    from axis_path.core.locate.search import kernel

    return kernel
