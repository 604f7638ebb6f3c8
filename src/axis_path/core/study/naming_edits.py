"""Edits of names that every feature follows: lines are renamed and removed."""

from __future__ import annotations

from dataclasses import replace

from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import NameTakenError
from axis_path.core.features.lines.edits import write
from axis_path.core.features.lines.renaming import (
    check_new_name,
    renamed,
    renamed_number,
    with_head,
)
from axis_path.core.features.registry import SECTIONS
from axis_path.core.language import spelled
from axis_path.core.lines.line import StudyLine
from axis_path.core.lines.meaning import Meaning, name_in_head


def remove(snapshot: Snapshot, name: str) -> Snapshot:
    """Delete the line that defines a name.

    Raises:
        UnknownNameError: there is none.
    """
    return remove_line(snapshot, snapshot.line_of(name).id)


def remove_line(snapshot: Snapshot, line_id: int) -> Snapshot:
    """Delete a line, and what features keep of it."""
    document = snapshot.document
    lines = tuple(line for line in document.lines if line.id != line_id)
    for section in SECTIONS:
        if section.without_line is not None:
            content = section.without_line(document.section(section.kind), line_id)
            document = document.with_section(content)
    return snapshot.after(replace(document, lines=lines))


def rename(snapshot: Snapshot, name: str, new: str) -> Snapshot:
    """Rename a definition, in its own line and in all that use it.

    Raises:
        MathError: there is no such name, or the new one cannot be given to a line.
    """
    line_id = snapshot.line_of(name).id
    name, new = spelled(name), spelled(new)
    is_of_set = name in snapshot.definition(line_id).defines
    check_new_name(new, frozenset(snapshot.names()) - {name})
    lines = [
        replace(line, given=None, text=with_head(line.text, new))
        if line.id == line_id and name_in_head(line.text) is None and not is_of_set
        else line
        for line in _renamed_lines(snapshot, snapshot, name, new)
    ]
    changed = _sections_renamed(snapshot, snapshot, name, new).with_lines(lines)
    made = changed.definition(line_id)
    if new not in (made.defines if is_of_set else (made.name,)):
        raise NameTakenError(f"`{new}` cannot be the name of this line.")
    return changed


def write_renaming(snapshot: Snapshot, line_id: int, text: str) -> tuple[Snapshot, list[str]]:
    """Write a line anew; if its name changes, the lines that used the old one follow.

    Returns:
        The snapshot, and the names of the lines that were changed with it.
    """
    old = snapshot.definition(line_id).name
    new = name_in_head(text)
    changed = write(snapshot, line_id, text)
    if old is None or new is None or old == new or old in changed.names():
        return changed, []
    if changed.definition(line_id).problem is not None and new not in changed.names():
        return changed, []
    users = changed.query(Sliders).users(old)
    lines = [
        before if before.id == line_id else line
        for before, line in zip(
            changed.lines, _renamed_lines(changed, changed, old, new), strict=True
        )
    ]
    return _sections_renamed(changed, changed, old, new).with_lines(lines), users


def _renamed_lines(snapshot: Snapshot, named: Snapshot, name: str, new: str) -> list[StudyLine]:
    """Return the lines of a snapshot with a new name, as another one reads them."""
    meanings = zip(snapshot.lines, named.analysis.meanings, strict=True)
    return [_renamed(named, line, meaning, name, new) for line, meaning in meanings]


def _renamed(
    snapshot: Snapshot, line: StudyLine, meaning: Meaning, name: str, new: str
) -> StudyLine:
    text, slider = renamed(line.text, meaning, name, new), line.slider
    if slider is not None:
        names = snapshot.analysis.names()
        low, high, step = (renamed_number(text, names, name, new) for text in slider.texts)
        slider = slider.with_texts(low, high, step)
    return replace(line, text=text, slider=slider)


def _sections_renamed(snapshot: Snapshot, named: Snapshot, name: str, new: str) -> Snapshot:
    """Let what features keep follow a new name."""
    names, document = named.analysis.names(), snapshot.document
    for section in SECTIONS:
        if section.renamed is not None:
            content = section.renamed(document.section(section.kind), names, name, new)
            document = document.with_section(content)
    return snapshot.after(document)
