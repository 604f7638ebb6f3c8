"""Commands of the axes and the grid."""

from __future__ import annotations

from typing import Any

from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.features.axes.section import AxesSpec, axes_from_dict
from axis_path.core.features.command import Command, Edited


def _axes(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Change the look of the axes and the grid; what is not given stays."""
    axes = axes_from_dict(command.get("axes"), snapshot.section(AxesSpec))
    for axis in (axes.x, axes.y):
        if axis.step:
            snapshot.query(Numbers).positive(axis.step)
    snapshot = snapshot.with_section(axes)
    return snapshot, "Change the axes"


COMMANDS: dict[str, Command] = {
    "axes": _axes,
}
