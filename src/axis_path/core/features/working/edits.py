"""Edits of Working. Each returns the snapshot after it."""

from __future__ import annotations

from collections.abc import Sequence

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import LimitError
from axis_path.core.features.working.section import Working, WorkingLine
from axis_path.core.limits import LINES


def set_working(snapshot: Snapshot, working: Sequence[WorkingLine]) -> Snapshot:
    """Keep other lines of the scratch calculator.

    Raises:
        LimitError: they are too many.
    """
    if len(working) > LINES.value:
        raise LimitError(f"The working of a study can have {LINES.value} lines.")
    return snapshot.with_section(Working(tuple(working)))
