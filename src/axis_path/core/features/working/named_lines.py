"""Working among the names of its study: its own names are known there, and only there."""

from __future__ import annotations

from dataclasses import replace

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.features.working.section import Working, WorkingLine
from axis_path.core.lines.line import StudyLine
from axis_path.core.lines.meaning import name_in_head

#: The ids of lines of Working among those of the study begin above all others.
_FIRST_ID = 2**40


def with_working(snapshot: Snapshot) -> Snapshot:
    """Return the snapshot with the named lines of Working behind its own.

    They are constants there: nothing of them is drawn, and no number is a slider.
    """
    own = tuple(
        StudyLine(line_id(line), line.text, hidden=True, fixed=True)
        for line in snapshot.section(Working).lines
        if defines_name(line)
    )
    if not own:
        return snapshot
    # What was compiled for the study and for earlier edits of Working is found again from it.
    _ = snapshot.analysis
    return snapshot.after(replace(snapshot.document, lines=(*snapshot.lines, *own)))


def defines_name(line: WorkingLine) -> bool:
    """Check whether a line of Working has a name of its own."""
    return name_in_head(line.text) is not None


def line_id(line: WorkingLine) -> int:
    """Return the id of a line of Working among those of the study."""
    return _FIRST_ID + line.id
