"""Commands of the sampling check."""

from __future__ import annotations

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import PlaneUnits
from axis_path.core.contract import Id, one_line
from axis_path.core.draw import Window
from axis_path.core.features.checks.queries import Checks
from axis_path.core.features.checks.section import Check, SamplingCheck
from axis_path.core.features.command import Command, Edited, Handler


class ShowCheck(Command, frozen=True, tag="check"):
    """Show points of a function over its curve, and what they miss; without a line, none."""

    line: Id | None
    count: str = ""
    step: str = ""


def _check(snapshot: Snapshot, command: ShowCheck, _window: Window) -> Edited:
    if command.line is None:
        return snapshot.with_section(SamplingCheck()), "Hide the sampling check"
    check = Check(command.line, one_line(command.count), one_line(command.step))
    snapshot.function_line(check.line)
    unit = snapshot.query(PlaneUnits).of(snapshot.definition(check.line)).variable
    snapshot.query(Checks).check_points(check, (0.0, 1.0), unit)
    return snapshot.with_section(SamplingCheck(check)), "Show a sampling check"


COMMANDS: dict[type[Command], Handler] = {ShowCheck: _check}
