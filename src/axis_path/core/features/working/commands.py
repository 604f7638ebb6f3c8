"""Commands of Working."""

from __future__ import annotations

from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Edited
from axis_path.core.features.fields import number_of, text_of
from axis_path.core.features.working.edits import set_working
from axis_path.core.features.working.section import Working, WorkingLine


def _work(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Write a line of the working, whether it reads or not."""
    text, working = text_of(command, "text"), snapshot.section(Working).lines
    if command.get("id") is None:
        number = max((work.id for work in working), default=0) + 1
        snapshot = set_working(snapshot, [*working, WorkingLine(number, text)])
        return snapshot, "Calculate"
    number = number_of(command, "id")
    snapshot = set_working(
        snapshot, [WorkingLine(number, text) if work.id == number else work for work in working]
    )
    return snapshot, "Change a calculation"


def _unwork(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    number = number_of(command, "id")
    working = snapshot.section(Working).lines
    snapshot = set_working(snapshot, [work for work in working if work.id != number])
    return snapshot, "Delete a calculation"


COMMANDS: dict[str, Command] = {
    "work": _work,
    "unwork": _unwork,
}
