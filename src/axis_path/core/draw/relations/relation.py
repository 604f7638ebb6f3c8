"""Draw an equation or an inequality in x and y: its lines, its borders, and what it fills."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from contourpy import FillType, contour_generator
from numpy.typing import NDArray

from axis_path.core.draw.columns import runs_of
from axis_path.core.draw.relations.contour import filled_rings, runs, zero_set
from axis_path.core.draw.relations.tiling import Grid, sample_corners, tile
from axis_path.core.draw.window import Window
from axis_path.core.evaluate import RealSurface

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]


@dataclass(frozen=True, slots=True)
class RealRelation:
    """An equation or an inequality with the present values of its sliders.

    Attributes:
        conditions: functions that must be zero, above zero, or not below zero, all of them.
        signs: for each of them ``=``, ``>`` or ``>=``.
    """

    conditions: tuple[RealSurface, ...]
    signs: tuple[str, ...]

    @property
    def is_equation(self) -> bool:
        """Check whether it is drawn as a line."""
        return self.signs == ("=",)

    def key(self) -> tuple[object, ...]:
        """Return all that its picture depends on, but for the window."""
        return (self.signs, *(condition.key() for condition in self.conditions))


@dataclass(frozen=True, slots=True)
class RelationPicture:
    """What is drawn of an equation or an inequality, in axis units.

    Attributes:
        solid: (n, 2) arrays of (x, y): lines that belong to it; ``dashed`` those that do not.
        dots: (n, 2) places that may be single points of it.
        specks: (n, 2) places of parts that are too small to be seen as lines.
        fills: rings, (n, 2) each, inside of which it holds, by the rule of even and odd.
        dense: boxes, (n, 4) of (x low, x high, y low, y high), in which its lines lie too close
            to be drawn one by one.
        across: (n, 2) intervals of x in which some of it lies.
        is_nowhere: whether it is proved that no point of the window belongs to it.
    """

    solid: list[Floats]
    dashed: list[Floats]
    dots: Floats
    specks: Floats
    fills: list[Floats]
    dense: Floats
    across: Floats
    is_nowhere: bool = False

    @property
    def is_empty(self) -> bool:
        """Check whether there is nothing to draw."""
        parts = (self.solid, self.dashed, self.dots, self.specks, self.fills, self.dense)
        return not any(len(part) for part in parts)


def draw_relation(relation: RealRelation, window: Window) -> RelationPicture:
    """Draw an equation or an inequality in a window."""
    grid = Grid.of(window)
    solid: list[Floats] = []
    dashed: list[Floats] = []
    dots, specks = [np.empty((0, 2))], [np.empty((0, 2))]
    dense = np.zeros(grid.shape, dtype=np.bool_)
    both = zip(relation.conditions, relation.signs, strict=True)
    for index, (condition, sign) in enumerate(both):
        others = [other for k, other in enumerate(relation.conditions) if k != index]
        target = dashed if sign == ">" else solid
        for factor in condition.factors():
            zeros = zero_set(factor, grid)
            target += [part for line in zeros.lines for part in _where(line, condition, others)]
            if relation.is_equation:
                dots.append(zeros.dots[~np.isnan(condition.sample(*zeros.dots.T))])
                specks.append(zeros.specks)
            if zeros.dense is not None:
                dense |= zeros.dense
    filled: list[Floats] = []
    holds = np.zeros(grid.shape, dtype=np.bool_)
    if not relation.is_equation:
        filled, holds = _filled(relation, grid)
    all_dots = np.concatenate(dots)
    columns = np.asarray((dense | holds).any(axis=0))
    return RelationPicture(
        solid, dashed, all_dots, np.concatenate(specks), filled, _boxes(dense, grid),
        _across([*solid, *dashed], all_dots, _intervals(columns, grid), grid),
        _is_nowhere(relation, grid),
    )  # fmt: skip


def _where(line: Floats, condition: RealSurface, others: list[RealSurface]) -> list[Floats]:
    """Keep what of a line belongs to the border: where all has a value and the rest holds."""
    middles = ((line[1:] + line[:-1]) / 2).T
    visible = ~np.isnan(condition.sample(*line.T))
    visible = visible[1:] | visible[:-1]
    for other in others:
        with np.errstate(invalid="ignore"):
            visible &= other.sample(*middles) >= 0
    return runs(line, visible)


def _filled(relation: RealRelation, grid: Grid) -> tuple[list[Floats], Flags]:
    """Return the rings of where all conditions hold, and the cells that hold some of it."""
    lowest: Floats | None = None
    for condition in relation.conditions:
        values = _known_corners(condition, grid)
        lowest = values if lowest is None else np.minimum(lowest, values)
    if lowest is None:
        raise ValueError("a relation has a condition")
    generator = contour_generator(
        grid.xs, grid.ys, np.ma.masked_invalid(lowest), fill_type=FillType.OuterOffset
    )
    rings = filled_rings(generator, 0.0, np.inf)
    with np.errstate(invalid="ignore"):
        above = lowest > 0
    return rings, above[:-1, :-1] | above[:-1, 1:] | above[1:, :-1] | above[1:, 1:]


def _known_corners(condition: RealSurface, grid: Grid) -> Floats:
    """Return a value at each corner: computed where the sign may change, else just the sign."""
    tiling = tile(condition, grid)
    values = np.full((grid.shape[0] + 1, grid.shape[1] + 1), np.nan)
    for down in (slice(None, -1), slice(1, None)):
        for across in (slice(None, -1), slice(1, None)):
            part = values[down, across]
            np.copyto(part, tiling.sign, where=~tiling.maybe)
    if tiling.maybe.any():
        sampled = sample_corners(condition, grid, tiling.maybe)
        np.copyto(values, sampled, where=~np.isnan(sampled))
    return values


def _is_nowhere(relation: RealRelation, grid: Grid) -> bool:
    """Check whether enclosures prove that one condition fails in the whole window."""
    rows, columns = grid.shape
    zero = np.zeros(1, dtype=np.int64)
    whole = grid.boxes(zero, zero, max(rows, columns))
    for condition, sign in zip(relation.conditions, relation.signs, strict=True):
        enclosure = condition.enclose(whole)
        fails = bool(enclosure.nowhere[0] or enclosure.high[0] < 0)  # type: ignore[index]
        if fails or (sign == "=" and bool(enclosure.low[0] > 0)):
            return True
    return False


def _boxes(chosen: Flags, grid: Grid) -> Floats:
    """Return chosen cells as boxes, neighbours in a row taken together."""
    if not chosen.any():
        return np.empty((0, 4))
    padded = np.pad(chosen, ((0, 0), (1, 1))).astype(np.int8)
    rows, edges = np.nonzero(np.diff(padded, axis=1))
    rows, left, right = rows[::2], edges[::2], edges[1::2]
    return np.column_stack([grid.xs[left], grid.xs[right], grid.ys[rows], grid.ys[rows + 1]])


def _intervals(columns: Flags, grid: Grid) -> Floats:
    starts, stops = runs_of(columns)
    return np.column_stack([grid.xs[starts], grid.xs[stops]])


def _across(lines: list[Floats], dots: Floats, intervals: Floats, grid: Grid) -> Floats:
    """Return the intervals of x that lines, dots and filled parts take together."""
    gap = 2 * float(grid.xs[1] - grid.xs[0])
    spans = [(float(line[:, 0].min()), float(line[:, 0].max())) for line in lines]
    spans += [(float(x), float(x)) for x in dots[:, 0]]
    spans += [(float(a), float(b)) for a, b in intervals]
    joined: list[tuple[float, float]] = []
    for low, high in sorted(spans):
        if joined and low <= joined[-1][1] + gap:
            joined[-1] = (joined[-1][0], max(high, joined[-1][1]))
        else:
            joined.append((low, high))
    return np.array(joined).reshape(-1, 2)
