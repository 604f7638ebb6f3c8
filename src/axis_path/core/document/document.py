"""All that is stored of a study: its lines, and a section for each feature that keeps something."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import TypeVar, cast

from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.line import StudyLine

S = TypeVar("S")


@dataclass(frozen=True, slots=True)
class Document:
    """A study as it is saved.

    Attributes:
        unit: of angles.
        lines: in their order.
        sections: what features keep, by the types of their sections.
    """

    unit: AngleUnit
    lines: tuple[StudyLine, ...] = ()
    sections: Mapping[type, object] = field(default_factory=dict)

    def section(self, kind: type[S]) -> S:
        """Return the section of a feature; a new one if it has kept nothing yet."""
        stored = self.sections.get(kind)
        return kind() if stored is None else cast("S", stored)

    def with_section(self, section: object) -> Document:
        """Return the document with another section of one feature."""
        return replace(self, sections={**self.sections, type(section): section})
