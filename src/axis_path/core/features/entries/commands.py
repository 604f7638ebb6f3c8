"""Commands that change entries of a list or a matrix in its line."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated

from msgspec import Meta

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Count, Id, Line
from axis_path.core.draw import Window
from axis_path.core.errors import CommandError
from axis_path.core.features.command import Command, Edited, Handler
from axis_path.core.features.entries.written import (
    MOST_SIDE,
    Cells,
    WrittenEntries,
    resized,
    with_block,
    written_entries,
)
from axis_path.core.features.lines.edits import write
from axis_path.core.features.working.edits import set_working
from axis_path.core.features.working.queries import WorkingResults
from axis_path.core.features.working.section import Working
from axis_path.core.language import read_expression

_Row = Annotated[tuple[Line, ...], Meta(min_length=1, max_length=MOST_SIDE)]


class EnterCells(Command, frozen=True, tag="enter_cells"):
    """Put a block of entries into a list or a matrix that is written out; it grows for it."""

    id: Id
    row: Count
    column: Count
    cells: Annotated[tuple[_Row, ...], Meta(min_length=1, max_length=MOST_SIDE)]
    in_working: bool = False


class ResizeCells(Command, frozen=True, tag="resize_cells"):
    """Change the size of a list or a matrix that is written out."""

    id: Id
    rows: Count
    columns: Count
    in_working: bool = False


def _enter(snapshot: Snapshot, command: EnterCells, _window: Window) -> Edited:
    written = _written(snapshot, command.id, in_working=command.in_working)
    vocabulary = snapshot.query(WorkingResults).among.analysis.names()
    for row in command.cells:
        for cell in row:
            if cell.strip():
                read_expression(cell, vocabulary)
    changed = with_block(written, command.cells, command.row, command.column)
    return _with(snapshot, command, written, changed), "Change an entry"


def _resize(snapshot: Snapshot, command: ResizeCells, _window: Window) -> Edited:
    written = _written(snapshot, command.id, in_working=command.in_working)
    changed = resized(written, command.rows, command.columns)
    return _with(snapshot, command, written, changed), "Change the size"


def _written(snapshot: Snapshot, line_id: int, *, in_working: bool) -> WrittenEntries:
    if in_working:
        line = next((w for w in snapshot.section(Working).lines if w.id == line_id), None)
        text = None if line is None else line.text
        names = snapshot.query(WorkingResults).among.analysis.names()
    else:
        text = snapshot.line(line_id).text if snapshot.has_line(line_id) else None
        names = snapshot.analysis.names()
    if text is None:
        raise CommandError("This line is not there any more.")
    written = written_entries(text, names)
    if written is None:
        raise CommandError("These entries are computed; change the line itself.")
    return written


def _with(
    snapshot: Snapshot, command: EnterCells | ResizeCells, written: WrittenEntries, cells: Cells
) -> Snapshot:
    text = written.with_cells(cells)
    if not command.in_working:
        return write(snapshot, command.id, text)
    lines = snapshot.section(Working).lines
    changed = [replace(line, text=text) if line.id == command.id else line for line in lines]
    return set_working(snapshot, changed)


COMMANDS: dict[type[Command], Handler] = {EnterCells: _enter, ResizeCells: _resize}
