"""The units in which values and axes are shown, where they were chosen."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

from msgspec import Meta

from axis_path.core.contract import Id, Line


@dataclass(frozen=True, slots=True)
class RowUnit:
    """The unit in which the value of a line is shown."""

    line: Id
    unit: Line


#: Units of different dimensions, one for each.
AxisUnits = Annotated[tuple[Line, ...], Meta(max_length=20)]


@dataclass(frozen=True, slots=True)
class ShownUnits:
    """Which units were chosen; what was not chosen follows from how the lines are written.

    Attributes:
        x: of the axis across, one for each dimension that stands on it.
        y: likewise of the axis upward.
        rows: of the values of lines.
    """

    x: AxisUnits = ()
    y: AxisUnits = ()
    rows: tuple[RowUnit, ...] = ()

    def of_line(self, line_id: int) -> str:
        """Return the unit that was chosen for a line; empty for none."""
        return next((row.unit for row in self.rows if row.line == line_id), "")

    def with_row(self, line_id: int, unit: str) -> ShownUnits:
        """Return the units with another one for a line; without one if it is empty."""
        others = tuple(row for row in self.rows if row.line != line_id)
        return replace(self, rows=(*others, RowUnit(line_id, unit)) if unit else others)
