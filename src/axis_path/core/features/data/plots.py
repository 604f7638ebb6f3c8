"""Columns of data that are drawn as points, with their error bars."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.document.data import Data, Plot
from axis_path.core.draw import Window
from axis_path.core.draw.pixels import dot_tenths
from axis_path.core.errors import MathError
from axis_path.core.evaluate import RealFunction
from axis_path.core.features.data.columns import Columns
from axis_path.core.features.feature import Box


def in_box(points: NDArray[np.float64], box: Box) -> NDArray[np.bool_]:
    """Return which of points, (n, 2), lie within a part of the plane, (n,)."""
    inside = [(points[:, k] >= low) & (points[:, k] <= high) for k, (low, high) in enumerate(box)]
    return inside[0] & inside[1]


class Plots:
    """The points of data that a study draws."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._columns = snapshot.query(Columns)
        self._units = snapshot.query(PlaneUnits)

    def plotted(self, plot: Plot) -> tuple[NDArray[np.float64], NDArray[np.int64]]:
        """Return the points of two columns, (n, 2), and the rows they stand in, (n,).

        Raises:
            MathError: a column or the filter cannot be used.
        """
        columns = [
            self._on_axis(axis, name) for axis, name in ((AxisName.X, plot.x), (AxisName.Y, plot.y))
        ]
        count = min(map(len, columns))
        points = np.column_stack([column[:count] for column in columns])
        known = np.isfinite(points).all(axis=1)
        used = self._columns.rows_used()
        if used is not None:
            known &= np.append(used, np.zeros(count, dtype=np.bool_))[:count]
        rows = np.flatnonzero(known)
        return points[rows], rows

    def _on_axis(self, axis: AxisName, name: str) -> NDArray[np.float64]:
        """Return the numbers of a column as they stand on an axis, (n,) floats."""
        numbers = self._columns.column_of(name).floats()
        own, shown = self._units.column_unit(name), self._units.column_on(axis, name)
        if own is None or shown is None or own == shown:
            return numbers
        conversion = self._snapshot.analysis.expressions.units.conversion(own, shown)
        return RealFunction(name, "x", conversion, {}).sample_unrestricted(numbers)

    def clouds(self) -> list[NDArray[np.float64]]:
        """Return the points of data that are drawn, (n, 2) for each pair of columns."""
        clouds = []
        for plot in self._snapshot.section(Data).plots:
            try:
                clouds.append(self.plotted(plot)[0])
            except MathError:
                continue
        return [cloud for cloud in clouds if len(cloud)]

    def drawn(self, window: Window, box: Box | None) -> list[dict[str, Any]]:
        """Return the columns that are drawn as points, in tenths of a pixel."""
        outcome = []
        for k, plot in enumerate(self._snapshot.section(Data).plots):
            try:
                points, rows = self.plotted(plot)
            except MathError:
                # The Data panel says why; points of another state do not stay.
                continue
            chosen = [] if box is None else np.flatnonzero(in_box(points, box)).tolist()
            drawn = {"x": plot.x, "y": plot.y, "tone": k, "points": dot_tenths(points, window)}
            for name, column, axis in (
                ("x_bars", plot.x_error, 0), ("y_bars", plot.y_error, 1)
            ):  # fmt: skip
                if column:
                    drawn[name] = self._bars(points, rows, column, axis, window)
            outcome.append(drawn | ({"chosen": chosen} if chosen else {}))
        return outcome

    def _differences(self, name: str, axis: AxisName) -> NDArray[np.float64]:
        """Return errors of measurement in the unit of an axis, (n,) floats: without its zero."""
        cells = self._columns.column_of(name).floats()
        own, shown = self._units.column_unit(name), self._units.column_on(axis, name)
        if own is None or shown is None or own.factor is None or shown.factor is None:
            return cells
        ratio = own.factor / shown.factor
        return np.asarray(cells * (float(ratio.number) * math.pi**ratio.pi))

    def _bars(
        self, points: NDArray[np.float64], rows: NDArray[np.int64], column: str, axis: int,
        window: Window,
    ) -> list[list[int]]:  # fmt: skip
        """Return both ends of the error bars along an axis; none where there is no number."""
        try:
            cells = self._differences(column, AxisName.Y if axis else AxisName.X)
        except MathError:
            return []
        sizes = np.append(cells, np.nan)[np.minimum(rows, len(cells))]
        reach = np.zeros_like(points)
        reach[:, axis] = np.abs(sizes)
        known = np.isfinite(reach).all(axis=1)
        low, high = (points - reach)[known], (points + reach)[known]
        ends = [dot_tenths(end, window) for end in (low, high)]
        return [[*a, *b] for a, b in zip(*(_pairs(end) for end in ends), strict=True)]


def _pairs(flat: list[int]) -> list[list[int]]:
    return [flat[k : k + 2] for k in range(0, len(flat), 2)]
