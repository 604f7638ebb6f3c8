"""The lines of Working."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated

from msgspec import Meta

from axis_path.core.contract import Id, Line
from axis_path.core.features.lines.renaming import renamed_relation
from axis_path.core.language import Vocabulary
from axis_path.core.limits import LINES


@dataclass(frozen=True, slots=True)
class WorkingLine:
    """A line of the scratch calculator, as typed."""

    id: Id
    text: Line


@dataclass(frozen=True, slots=True)
class Working:
    """All lines of the scratch calculator, in their order."""

    lines: Annotated[tuple[WorkingLine, ...], Meta(max_length=LINES.value)] = ()


def renamed(section: Working, names: Vocabulary, name: str, new: str) -> Working:
    """Return the lines after a name was changed."""
    return Working(
        tuple(
            replace(line, text=renamed_relation(line.text, names, name, new))
            for line in section.lines
        )
    )
