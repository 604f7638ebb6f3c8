"""The open study format: a study as plain data, and back.

A document is JSON: ``{"format": "axis-path-study", "version": 1, "angle_unit": …, "lines": […]}``,
and the fields of each feature that keeps something. Numbers that must stay exact are texts.
``docs/study-format.md`` describes every field.
"""

from __future__ import annotations

from typing import Any

from axis_path.core.document.document import Document
from axis_path.core.document.fields import field_of
from axis_path.core.document.line_codec import line_from_dict, line_to_dict
from axis_path.core.errors import FormatError
from axis_path.core.features.registry import SECTIONS
from axis_path.core.language.tree import AngleUnit
from axis_path.core.limits import LINES

FORMAT, VERSION = "axis-path-study", 1


def document_to_dict(document: Document) -> dict[str, Any]:
    """Return a document as plain data for JSON."""
    found: dict[str, Any] = {
        "format": FORMAT,
        "version": VERSION,
        "angle_unit": document.unit.value,
        "lines": [line_to_dict(line) for line in document.lines],
    }
    for section in SECTIONS:
        found |= section.to_fields(document.section(section.kind))
    return found


def document_from_dict(given: object) -> Document:
    """Read a document.

    Raises:
        FormatError: it is no study, of a later version, or a field is not what it should be.
    """
    if not isinstance(given, dict) or given.get("format") != FORMAT:
        raise FormatError("This is no Axis Path study.")
    version = given.get("version")
    if version != VERSION:
        raise FormatError(
            f"This study has version {version} of the format; version {VERSION} can be read."
        )
    try:
        unit = AngleUnit(field_of(given, "angle_unit", str))
    except ValueError as err:
        raise FormatError("The unit of angles is radians or degrees.") from err
    lines = [line_from_dict(each) for each in field_of(given, "lines", list)]
    if len(lines) > LINES.value:
        raise FormatError(f"A study can have {LINES.value} lines.")
    if len({line.id for line in lines}) != len(lines):
        raise FormatError("Two lines of the study have the same id.")
    sections = {section.kind: section.from_fields(given) for section in SECTIONS}
    return Document(unit, tuple(lines), sections)
