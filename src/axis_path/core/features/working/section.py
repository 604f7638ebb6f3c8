"""The lines of Working."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from axis_path.core.document.fields import field_of
from axis_path.core.errors import FormatError
from axis_path.core.features.lines.renaming import renamed_relation
from axis_path.core.language import Vocabulary
from axis_path.core.limits import LINE_LENGTH, LINES


@dataclass(frozen=True, slots=True)
class WorkingLine:
    """A line of the scratch calculator, as typed."""

    id: int
    text: str


@dataclass(frozen=True, slots=True)
class Working:
    """All lines of the scratch calculator, in their order."""

    lines: tuple[WorkingLine, ...] = ()


def to_fields(section: Working) -> dict[str, Any]:
    """Return the fields of the study format."""
    lines = [{"id": line.id, "text": line.text} for line in section.lines]
    return {"working": lines} if lines else {}


def from_fields(given: dict[str, Any]) -> Working:
    """Read the section.

    Raises:
        FormatError: a field is not what it should be, or the lines are too many.
    """
    lines = [_work(each) for each in field_of(given, "working", list, [])]
    if len(lines) > LINES.value:
        raise FormatError(f"The working of a study can have {LINES.value} lines.")
    return Working(tuple(lines))


def _work(given: object) -> WorkingLine:
    if not isinstance(given, dict):
        raise FormatError("A line of the working is of the wrong kind.")
    text = field_of(given, "text", str)
    if len(text) > LINE_LENGTH.value:
        raise FormatError(f"A line of the working has more than {LINE_LENGTH.value:,} characters.")
    return WorkingLine(field_of(given, "id", int), text)


def renamed(section: Working, names: Vocabulary, name: str, new: str) -> Working:
    """Return the lines after a name was changed."""
    return Working(
        tuple(
            replace(line, text=renamed_relation(line.text, names, name, new))
            for line in section.lines
        )
    )
