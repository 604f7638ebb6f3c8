"""Edits of lines: write, delete, move, rename, mark. Each returns the snapshot after it.

An edit that raises leaves nothing behind, because the snapshot it was given does not change.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from axis_path.core.compile.snapshot import Snapshot, line_name
from axis_path.core.lines.family import Family
from axis_path.core.lines.line import StudyLine
from axis_path.core.lines.meaning import may_come, name_in_head
from axis_path.core.lines.moving import Runner, Trail
from axis_path.core.lines.set_options import SetOptions
from axis_path.core.lines.style import LineStyle


def define(snapshot: Snapshot, text: str) -> tuple[Snapshot, int]:
    """Write a line, or write the line of the same name anew; return its id too.

    A letter that has no value yet, or a name that no other line defines yet, is no error: the
    definition then has a ``problem`` and begins to work when the value is there.

    Raises:
        MathError: the text does not read.
    """
    name = name_in_head(text)
    other = next((line for line in snapshot.lines if line_name(line) == name), None)
    line_id = other.id if name is not None and other is not None else snapshot.next_id()
    changed = write(snapshot, line_id, text)
    problem = changed.definition(line_id).problem
    if problem is not None and not may_come(problem):
        raise problem
    return changed, line_id


def write(snapshot: Snapshot, line_id: int, text: str, *, after: int | None = None) -> Snapshot:
    """Write or replace a line, whether it reads or not; it is stored with its problem.

    Args:
        snapshot: before the edit.
        line_id: the line; one that is not there yet is added.
        text: what was typed.
        after: the line after which a new one stands; at the end by default.

    Raises:
        LimitError: too many lines.
    """
    if snapshot.has_line(line_id):
        line = snapshot.line(line_id)
        # A line that is written by hand no longer follows a fit; one that is renamed does.
        follows = line.fit if line.text.partition("=")[2] == text.partition("=")[2] else None
        # One that was turned off because it could not be computed gets another chance.
        disabled = line.disabled and not line.halted
        line = replace(line, text=text, fit=follows, disabled=disabled, halted=False)
        return snapshot.with_line(line)
    lines = snapshot.lines
    is_last = after is None or not snapshot.has_line(after)
    index = len(lines) if after is None or is_last else snapshot.index_of(after) + 1
    return snapshot.with_lines([*lines[:index], StudyLine(line_id, text), *lines[index:]])


def move_line(snapshot: Snapshot, line_id: int, after: int | None) -> Snapshot:
    """Put a line behind another one, or at the top.

    Raises:
        KeyError: one of them is not there.
    """
    moved = snapshot.line(line_id)
    rest = [line for line in snapshot.lines if line is not moved]
    index = 0 if after is None else rest.index(snapshot.line(after)) + 1
    lines = (*rest[:index], moved, *rest[index:])
    return snapshot.after(replace(snapshot.document, lines=lines))


def mark_line(
    snapshot: Snapshot, line_id: int, *, hidden: bool | None = None, disabled: bool | None = None
) -> Snapshot:
    """Hide a line or show it; disable it or enable it."""
    line = snapshot.line(line_id)
    chosen = replace(
        line,
        hidden=line.hidden if hidden is None else hidden,
        disabled=line.disabled if disabled is None else disabled,
        halted=line.halted and disabled is None,
    )
    return put_line(snapshot, chosen)


def restyle(snapshot: Snapshot, line_id: int, style: LineStyle, tone: int | None) -> Snapshot:
    """Draw a line in another way."""
    line = snapshot.line(line_id)
    return put_line(snapshot, replace(line, style=style, tone=line.tone if tone is None else tone))


def put_runner(snapshot: Snapshot, line_id: int, runner: Runner | None) -> Snapshot:
    """Put the runner of a path to another place."""
    return _with_field(snapshot, line_id, runner=runner)


def put_family(snapshot: Snapshot, line_id: int, family: Family | None) -> Snapshot:
    """Draw a line for several values of a slider at once, or for the present one only."""
    return _with_field(snapshot, line_id, family=family)


def put_options(snapshot: Snapshot, line_id: int, options: SetOptions | None) -> Snapshot:
    """Choose a solution of a set of equations, or where its unknowns are sought."""
    return _with_field(snapshot, line_id, options=options)


def put_trail(snapshot: Snapshot, line_id: int, trail: Trail | None) -> Snapshot:
    """Let a point leave a trail, with the positions it has, or none."""
    return _with_field(snapshot, line_id, trail=trail)


def put_line(snapshot: Snapshot, line: StudyLine) -> Snapshot:
    """Put a line in the place of the one with its id; names and colours are settled anew."""
    return snapshot.with_lines(_with(snapshot.lines, line))


def _with_field(snapshot: Snapshot, line_id: int, **changes: Any) -> Snapshot:  # noqa: ANN401 - fields of a line
    line = replace(snapshot.line(line_id), **changes)
    return snapshot.after(replace(snapshot.document, lines=_with(snapshot.lines, line)))


def _with(lines: Sequence[StudyLine], line: StudyLine) -> tuple[StudyLine, ...]:
    return tuple(line if other.id == line.id else other for other in lines)
