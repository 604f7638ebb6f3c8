"""The open study format: a study as plain data, and back.

A study file is JSON: ``{"format": "axis-path-study", "version": 2, "angle_unit": …, "lines": […]}``
and a section for each feature that keeps something. Fields that have their default value are left
out. ``docs/study-format.md`` describes every field, ``docs/schema/study.json`` is its JSON Schema.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import fields
from typing import Annotated, Any, Literal, TypeVar, get_type_hints

import msgspec
from msgspec import Meta

from axis_path.core.contract import read, write_changed
from axis_path.core.document.document import Document
from axis_path.core.document.migrations import FORMAT, VERSION, migrated
from axis_path.core.errors import FormatError, MathError
from axis_path.core.features.feature import Section
from axis_path.core.features.registry import SECTIONS
from axis_path.core.language.tree import AngleUnit
from axis_path.core.limits import LINES
from axis_path.core.lines.line import StudyLine
from axis_path.core.lines.sliders import literal

S = TypeVar("S")


def _fields(section: Section[Any]) -> list[tuple[str, str]]:
    """Return the fields of a section that stand by themselves, with their names in the file."""
    own = [] if section.name else fields(section.kind)
    return [(field.name, section.names.get(field.name, field.name)) for field in own]


def _types(section: Section[Any]) -> Iterator[tuple[str, Any, Any]]:
    """Yield what a section adds to a study file: names, types and default values."""
    empty = section.kind()
    if section.name:
        yield section.name, section.kind, msgspec.field(default_factory=section.kind)
    hints = get_type_hints(section.kind, include_extras=True)
    for field, name in _fields(section):
        yield name, hints[field], getattr(empty, field)


def file_of(sections: Iterable[Section[Any]]) -> type[msgspec.Struct]:
    """Return the type of a study file with some sections.

    What else stands in a file, as its title and window, is not read here.
    """
    return msgspec.defstruct(
        "StudyFile",
        [
            ("format", Literal["axis-path-study"]),
            ("version", Literal[2]),
            ("angle_unit", AngleUnit),
            ("lines", Annotated[tuple[StudyLine, ...], Meta(max_length=LINES.value)]),
            *[field for section in sections for field in _types(section)],
        ],
        frozen=True,
    )


StudyFile = file_of(SECTIONS)


def section_to_fields(section: Section[S], value: S) -> dict[str, Any]:
    """Return the fields of a section in a study file; what has its default is left out."""
    plain = write_changed(value)
    if section.name:
        return {section.name: plain} if plain else {}
    return {name: plain[field] for field, name in _fields(section) if field in plain}


def section_from_file(section: Section[S], file: object) -> S:
    """Return a section of a study file that was read."""
    if section.name:
        whole: S = getattr(file, section.name)
        return whole
    return section.kind(**{field: getattr(file, name) for field, name in _fields(section)})


def document_to_dict(document: Document) -> dict[str, Any]:
    """Return a document as plain data for JSON."""
    made = {
        "format": FORMAT,
        "version": VERSION,
        "angle_unit": document.unit.value,
        "lines": [write_changed(line) for line in document.lines],
    }
    for section in SECTIONS:
        made |= section_to_fields(section, document.section(section.kind))
    return made


def document_from_dict(given: object) -> Document:
    """Read a document of any version of the format.

    Raises:
        FormatError: it is no study, of a later version, or a field is not what it should be.
    """
    try:
        file: Any = read(migrated(given), StudyFile, _damaged)
        lines: tuple[StudyLine, ...] = file.lines
        _check_lines(lines)
        sections = {section.kind: section_from_file(section, file) for section in SECTIONS}
    except FormatError:
        raise
    except MathError as err:
        raise FormatError(f"This study cannot be read. {err.message}") from err
    return Document(file.angle_unit, lines, sections)


def _damaged(message: str, path: str) -> FormatError:
    return FormatError(f"This study is damaged. {message}", path=path)


def _check_lines(lines: tuple[StudyLine, ...]) -> None:
    """Refuse two lines of one id, and a range in which nothing moves.

    A range that depends on other lines is looked at when they have values.
    """
    if len({line.id for line in lines}) != len(lines):
        raise FormatError("Two lines of the study have the same id.", path="lines")
    for line in lines:
        if line.slider is not None:
            known = [literal(text) for text in line.slider.texts]
            if None not in known:
                line.slider.range(*(bound for bound in known if bound is not None))
