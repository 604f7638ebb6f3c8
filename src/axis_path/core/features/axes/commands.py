"""Commands of the axes and the grid."""

from __future__ import annotations

from typing import Annotated, Any

from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.contract import Changes, changes_of
from axis_path.core.draw import Window
from axis_path.core.features.axes.section import AxesSpec
from axis_path.core.features.command import Command, Edited, Handler, changed


class ChangeAxes(Command, frozen=True, tag="axes"):
    """Change the look of the axes and the grid; what is not given stays."""

    axes: Annotated[Changes, changes_of(AxesSpec)]


def _axes(snapshot: Snapshot, command: ChangeAxes, _window: Window) -> Edited:
    axes = changed(snapshot.section(AxesSpec), _stripped(command.axes))
    for name, axis in ((AxisName.X, axes.x), (AxisName.Y, axes.y)):
        if axis.step:
            unit = snapshot.query(PlaneUnits).only_unit(name)
            snapshot.query(Numbers).positive(axis.step, unit)
    return snapshot.with_section(axes), "Change the axes"


def _stripped(given: Any) -> Any:  # noqa: ANN401 - plain data
    """Return plain data whose texts have no blanks around them."""
    if isinstance(given, str):
        return given.strip()
    if isinstance(given, dict):
        return {name: _stripped(value) for name, value in given.items()}
    return given


COMMANDS: dict[type[Command], Handler] = {ChangeAxes: _axes}
