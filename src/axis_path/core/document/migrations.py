"""Bring study files of earlier versions of the format to the present one, version by version."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any, Final

from axis_path.core.errors import FormatError

FORMAT: Final = "axis-path-study"
#: The version that is written. Its changes since version 1 stand in ``docs/study-format.md``.
VERSION: Final = 2

_Fields = dict[str, Any]


def migrated(given: object) -> _Fields:
    """Return a study file in the present version of the format.

    Args:
        given: the file as plain data, of this version or an earlier one; it does not change.

    Raises:
        FormatError: it is no study, or of a later version.
    """
    if not isinstance(given, dict) or given.get("format") != FORMAT:
        raise FormatError("There is no study in this file.", path="format")
    version = given.get("version")
    if type(version) is not int or not 1 <= version <= VERSION:
        raise FormatError(
            f"This study has version {version} of the format; this program reads versions 1 to "
            f"{VERSION}.",
            path="version",
        )
    for step in range(version, VERSION):
        given = {**_STEPS[step](given), "version": step + 1}
    return given


_PLAY_ENDS = {"fro": "reverse", "over": "restart"}
_NUMBER_FORMS = {"powers": "scientific"}


def _from_1(given: _Fields) -> _Fields:
    """Use the standard words: a line is disabled, motion is reversed, a number is scientific."""
    made = dict(given)
    if isinstance(made.get("lines"), list):
        made["lines"] = [_line_from_1(line) for line in made["lines"]]
    if "table" in made:
        made["table"] = _table_from_1(made["table"])
    return made


def _line_from_1(line: object) -> object:
    if not isinstance(line, dict):
        return line
    made = dict(line)
    if "aside" in made:
        made["disabled"] = made.pop("aside")
    for mover in ("slider", "runner"):
        if isinstance(made.get(mover), dict):
            made[mover] = _with_words(made[mover], "play", "at_end", _PLAY_ENDS)
    return made


def _table_from_1(table: object) -> object:
    if not isinstance(table, dict):
        return table
    made = _renamed(table, "form", _NUMBER_FORMS)
    if isinstance(made.get("columns"), list):
        made["columns"] = [
            _renamed(column, "form", _NUMBER_FORMS) if isinstance(column, dict) else column
            for column in made["columns"]
        ]
    return made


def _with_words(given: _Fields, part: str, field: str, words: Mapping[str, str]) -> _Fields:
    inner = given.get(part)
    return {**given, part: _renamed(inner, field, words)} if isinstance(inner, dict) else given


def _renamed(given: _Fields, field: str, words: Mapping[str, str]) -> _Fields:
    value = given.get(field)
    known = isinstance(value, str) and value in words
    return {**given, field: words[value]} if known else dict(given)  # type: ignore[index]


#: What brings a file of a version to the next one.
_STEPS: Final[Mapping[int, Callable[[_Fields], _Fields]]] = {1: _from_1}
