"""Edits of what is chosen for a study as a whole: the unit of angles, and digits."""

from __future__ import annotations

from dataclasses import replace

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import LimitError
from axis_path.core.features.findings.section import SavedQueries
from axis_path.core.language.tree import AngleUnit
from axis_path.core.limits import STUDY_DIGITS


def set_unit(snapshot: Snapshot, angle_unit: str) -> Snapshot:
    """Measure angles in ``radians`` or ``degrees``."""
    return snapshot.after(replace(snapshot.document, unit=AngleUnit(angle_unit)))


def set_digits(snapshot: Snapshot, digits: int) -> Snapshot:
    """Show findings with so many digits.

    Raises:
        LimitError: they are too few or too many.
    """
    if not 2 <= digits <= STUDY_DIGITS.value:
        raise LimitError(f"A study shows 2 to {STUDY_DIGITS.value} digits.")
    return snapshot.with_section(replace(snapshot.section(SavedQueries), digits=digits))
