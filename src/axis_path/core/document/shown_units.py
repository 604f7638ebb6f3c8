"""The units in which values and axes are shown, where they were chosen."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

from msgspec import Meta

from axis_path.core.contract import Id, Line


@dataclass(frozen=True, slots=True)
class RowUnit:
    """The unit in which the value of a line is shown, or that of a name in a set of equations."""

    line: Id
    unit: Line
    name: Line = ""


#: Units of different dimensions, one for each.
AxisUnits = Annotated[tuple[Line, ...], Meta(max_length=20)]


@dataclass(frozen=True, slots=True)
class ShownUnits:
    """Which units were chosen; what was not chosen follows from how the lines are written.

    Attributes:
        x: of the axis across, one for each dimension that stands on it.
        y: likewise of the axis upward.
        rows: of the values of lines.
        x_difference: of differences of temperatures on the axis across, empty if it was not chosen;
            ``y_difference`` likewise.
    """

    x: AxisUnits = ()
    y: AxisUnits = ()
    rows: tuple[RowUnit, ...] = ()
    x_difference: Line = ""
    y_difference: Line = ""

    def of_line(self, line_id: int, name: str = "") -> str:
        """Return the unit that was chosen for a line, or a name of its set; empty for none."""
        place = (line_id, name)
        return next((row.unit for row in self.rows if (row.line, row.name) == place), "")

    def with_row(self, line_id: int, unit: str, name: str = "") -> ShownUnits:
        """Return the units with another one for a line or a name; without one if it is empty."""
        others = tuple(row for row in self.rows if (row.line, row.name) != (line_id, name))
        return replace(self, rows=(*others, RowUnit(line_id, unit, name)) if unit else others)

    def without_line(self, line_id: int) -> ShownUnits:
        """Return the units without those of a line."""
        return replace(self, rows=tuple(row for row in self.rows if row.line != line_id))

    def renamed(self, name: str, new: str) -> ShownUnits:
        """Return the units after a name was changed."""
        rows = tuple(replace(row, name=new) if row.name == name else row for row in self.rows)
        return replace(self, rows=rows)
