"""Commands of Working."""

from __future__ import annotations

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Id, one_line
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Edited, Handler
from axis_path.core.features.working.edits import set_working
from axis_path.core.features.working.section import Working, WorkingLine


class Work(Command, frozen=True, tag="work"):
    """Write a line of Working, whether it reads or not; without an id, a new one."""

    id: Id | None
    text: str


class Unwork(Command, frozen=True, tag="unwork"):
    """Delete a line of Working."""

    id: Id


def _work(snapshot: Snapshot, command: Work, _window: Window) -> Edited:
    text, working = one_line(command.text), snapshot.section(Working).lines
    if command.id is None:
        number = max((work.id for work in working), default=0) + 1
        return set_working(snapshot, [*working, WorkingLine(number, text)]), "Calculate"
    lines = [WorkingLine(work.id, text) if work.id == command.id else work for work in working]
    return set_working(snapshot, lines), "Change a calculation"


def _unwork(snapshot: Snapshot, command: Unwork, _window: Window) -> Edited:
    working = snapshot.section(Working).lines
    snapshot = set_working(snapshot, [work for work in working if work.id != command.id])
    return snapshot, "Delete a calculation"


COMMANDS: dict[type[Command], Handler] = {Work: _work, Unwork: _unwork}
