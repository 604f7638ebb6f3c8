"""Commands of Working."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated

from msgspec import UNSET, Meta, UnsetType

from axis_path.core.catalogue.units import read_unit
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Count, Id, one_line
from axis_path.core.draw import Window
from axis_path.core.errors import CommandError
from axis_path.core.evaluate.number_forms import NumberShape
from axis_path.core.features.command import Command, Edited, Handler, given_fields
from axis_path.core.features.lines.edits import write
from axis_path.core.features.working.edits import set_working
from axis_path.core.features.working.section import ComplexShape, Working, WorkingLine
from axis_path.core.limits import DIGITS


class Work(Command, frozen=True, tag="work"):
    """Write a line of Working, whether it reads or not; without an id, a new one."""

    id: Id | None
    text: str


class Unwork(Command, frozen=True, tag="unwork"):
    """Delete a line of Working."""

    id: Id


class ShowWork(Command, frozen=True, tag="show_work"):
    """Choose how the result of a line of Working is written; what is left out stays."""

    id: Id
    shape: NumberShape | UnsetType = UNSET
    complex_shape: ComplexShape | UnsetType = UNSET
    digits: Annotated[int, Meta(ge=0, le=DIGITS.value)] | UnsetType = UNSET
    unit: str | UnsetType = UNSET


class MoveWork(Command, frozen=True, tag="move_work"):
    """Move a line of Working to another place, counted from 0."""

    id: Id
    to: Count


class ClearWork(Command, frozen=True, tag="clear_work"):
    """Delete all lines of Working."""


class DefineWork(Command, frozen=True, tag="define_work"):
    """Turn a line of Working into a definition of the study."""

    id: Id


def _line(snapshot: Snapshot, line_id: int) -> WorkingLine:
    line = next((w for w in snapshot.section(Working).lines if w.id == line_id), None)
    if line is None:
        raise CommandError("This line of Working is not there any more.")
    return line


def _work(snapshot: Snapshot, command: Work, _window: Window) -> Edited:
    text, working = one_line(command.text), snapshot.section(Working).lines
    if command.id is None:
        number = max((work.id for work in working), default=0) + 1
        return set_working(snapshot, [*working, WorkingLine(number, text)]), "Calculate"
    changed = replace(_line(snapshot, command.id), text=text)
    return _with_line(snapshot, changed), "Change a calculation"


def _with_line(snapshot: Snapshot, line: WorkingLine) -> Snapshot:
    lines = snapshot.section(Working).lines
    return set_working(snapshot, [line if work.id == line.id else work for work in lines])


def _unwork(snapshot: Snapshot, command: Unwork, _window: Window) -> Edited:
    working = snapshot.section(Working).lines
    snapshot = set_working(snapshot, [work for work in working if work.id != command.id])
    return snapshot, "Delete a calculation"


def _show(snapshot: Snapshot, command: ShowWork, _window: Window) -> Edited:
    chosen = given_fields(command, "shape", "complex_shape", "digits", "unit")
    if command.unit is not UNSET and command.unit and read_unit(command.unit) is None:
        raise CommandError(f"`{command.unit}` is not a unit.", path="unit")
    changed = replace(_line(snapshot, command.id), **chosen)
    return _with_line(snapshot, changed), "Show a result"


def _move(snapshot: Snapshot, command: MoveWork, _window: Window) -> Edited:
    line = _line(snapshot, command.id)
    rest = [work for work in snapshot.section(Working).lines if work.id != line.id]
    rest.insert(min(command.to, len(rest)), line)
    return set_working(snapshot, rest), "Move a calculation"


def _clear(snapshot: Snapshot, _command: ClearWork, _window: Window) -> Edited:
    return set_working(snapshot, []), "Clear Working"


def _define(snapshot: Snapshot, command: DefineWork, _window: Window) -> Edited:
    line = _line(snapshot, command.id)
    made = write(snapshot, snapshot.next_id(), line.text)
    rest = [work for work in snapshot.section(Working).lines if work.id != line.id]
    return set_working(made, rest), "Define a calculation"


COMMANDS: dict[type[Command], Handler] = {
    Work: _work, Unwork: _unwork, ShowWork: _show, MoveWork: _move, ClearWork: _clear,
    DefineWork: _define,
}  # fmt: skip
