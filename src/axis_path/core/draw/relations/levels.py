"""Draw a function of two variables: its level curves with labels, and a shaded map."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction
from itertools import pairwise

import numpy as np
from contourpy import FillType, LineType, contour_generator
from numpy.typing import NDArray

from axis_path.core.draw.relations.contour import filled_rings
from axis_path.core.draw.relations.tiling import Grid, calm_cells, corners
from axis_path.core.draw.relations.vertices import settled
from axis_path.core.draw.ticks import nice_step, plain
from axis_path.core.draw.window import Window
from axis_path.core.evaluate import RealSurface

Floats = NDArray[np.float64]
#: About so many levels are drawn.
_LEVELS = 9
#: The levels leave out this part of the values at each end: a pole does not flatten the rest.
_TAIL = 0.03
#: A label stands on a line that is at least so long, in px, and so far from the edges.
_LEAST_LINE_PX, _EDGE_PX = 90.0, 24.0
#: A label follows its line up to this angle, in degrees.
_STEEP = 50.0
#: Labels of different lines keep so far apart, in px.
_APART_PX = 44.0


@dataclass(frozen=True, slots=True)
class Label:
    """A number on a level curve.

    Attributes:
        x: its middle in axis units; ``y`` likewise.
        angle: how it is turned, in degrees as on the screen, from -90 to 90.
    """

    x: float
    y: float
    angle: float


@dataclass(frozen=True, slots=True)
class Level:
    """The curves on which a function has one value.

    Attributes:
        text: the value.
        lines: (n, 2) arrays of (x, y).
        labels: where the value stands.
        rings: what lies between this level and the next: (n, 2) rings, by the rule of even and odd.
    """

    text: str
    lines: list[Floats]
    labels: list[Label]
    rings: list[Floats]


@dataclass(frozen=True, slots=True)
class LevelMap:
    """The level curves of a function in a window.

    Attributes:
        levels: from the lowest to the highest; the first holds what lies below all others.
    """

    levels: list[Level]


def draw_levels(surface: RealSurface, window: Window) -> LevelMap:
    """Draw the level curves of a function, at values that a person would choose."""
    grid = Grid.of(window)
    calm = calm_cells(surface, grid)
    columns, rows = np.meshgrid(grid.xs, grid.ys)
    values = surface.sample(columns.ravel(), rows.ravel()).reshape(columns.shape)
    # A cell that may hold a break is left out with its corners: no line runs through it.
    values[corners(~calm)] = np.nan
    # What lies beyond does not change what is seen.
    across, up = (
        (grid_lines >= low) & (grid_lines <= high)
        for grid_lines, (low, high) in ((grid.xs, window.visible.x), (grid.ys, window.visible.y))
    )
    chosen = _chosen_levels(values[np.ix_(up, across)])
    if not chosen:
        return LevelMap([])
    masked = np.ma.masked_invalid(values)
    generator = contour_generator(
        grid.xs, grid.ys, masked, line_type=LineType.Separate, fill_type=FillType.OuterOffset
    )
    placed: list[tuple[float, float]] = []
    levels = []
    edges = [-np.inf, *map(float, chosen), np.inf]
    for value, (low, high) in zip([None, *chosen], pairwise(edges), strict=True):
        lines = [] if value is None else [np.asarray(line) for line in generator.lines(low)]
        lines = settled(lines, surface, grid, values, low)
        labels = [] if value is None else _labels(lines, window, placed)
        rings = [np.asarray(ring) for ring in filled_rings(generator, low, high)]
        levels.append(Level("" if value is None else plain(value), lines, labels, rings))
    return LevelMap(levels)


def _chosen_levels(values: Floats) -> list[Fraction]:
    known = values[np.isfinite(values)]
    if not len(known):
        return []
    low, high = (float(v) for v in np.quantile(known, (_TAIL, 1 - _TAIL)))
    if not high - low > 1e-12 * max(abs(low), abs(high)):
        return []
    step = nice_step(low, high, _LEVELS, 1.0)
    first, last = math.ceil(Fraction(low) / step), math.floor(Fraction(high) / step)
    return [k * step for k in range(first, last + 1)]


def _labels(lines: list[Floats], window: Window, placed: list[tuple[float, float]]) -> list[Label]:
    """Place one label on each long line, clear of the edges and of the other labels."""
    labels = []
    low = _EDGE_PX - window.beyond
    for line in lines:
        px = np.column_stack([window.across(line[:, 0]), window.down(line[:, 1])])
        steps = np.hypot(*np.diff(px, axis=0).T)
        if float(steps.sum()) < _LEAST_LINE_PX:
            continue
        along = np.concatenate([[0.0], np.cumsum(steps)])
        for part in (0.5, 0.3, 0.7, 0.15, 0.85):
            k = int(np.searchsorted(along, part * along[-1]))
            k = min(max(k, 1), len(px) - 2)
            x, y = (float(v) for v in px[k])
            is_inside = (
                low < x < window.visible.width - low and low < y < window.visible.height - low
            )
            if is_inside and all(math.hypot(x - a, y - b) > _APART_PX for a, b in placed):
                placed.append((x, y))
                labels.append(Label(float(line[k, 0]), float(line[k, 1]), _angle(px, k)))
                break
    return labels


def _angle(px: Floats, k: int) -> float:
    across, down = px[min(k + 3, len(px) - 1)] - px[max(k - 3, 0)]
    angle = math.degrees(math.atan2(down, across))
    angle = angle - 180 if angle > 90 else angle + 180 if angle < -90 else angle
    # Numbers that stand steeply are read wrongly: a 6 as a 9.
    return round(angle, 1) if abs(angle) < _STEEP else 0.0
