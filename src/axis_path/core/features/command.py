"""What a command is: typed data, and what makes the next snapshot of it."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any, TypeVar

import msgspec

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import one_line, patched
from axis_path.core.draw import Window
from axis_path.core.errors import CommandError


class Command(
    msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True, tag_field="do"
):
    """A change of a study as plain data: ``{"do": name, …}``; each command is a struct."""


#: The next snapshot, and a few words for the undo button.
Edited = tuple[Snapshot, str]
#: Carries out one command: given the snapshot, the command, and the window the pointer is in.
Handler = Callable[[Snapshot, Any, Window], Edited]
T = TypeVar("T")


def changed(present: T, changes: Mapping[str, Any]) -> T:
    """Return a part of a study with some fields changed, as a command says.

    Raises:
        CommandError: a field is unknown or wrong.
    """
    return patched(present, changes, refuse)


def given_fields(command: Command, *names: str) -> dict[str, Any]:
    """Return the fields that a command gives, texts on one line; all of them without names."""
    given = {name: getattr(command, name) for name in names or command.__struct_fields__}
    return {
        name: one_line(value) if type(value) is str else value
        for name, value in given.items()
        if value is not msgspec.UNSET
    }


def refuse(message: str, path: str) -> CommandError:
    """Return the error of a command that cannot be read."""
    return CommandError(message, path=path)


def called(snapshot: Snapshot, line_id: int) -> str:
    """Return what a line is called in the words for the undo button."""
    return snapshot.definition(line_id).name or "a line"


def listed(names: list[str]) -> str:
    """Return names as words: `g`, `h` and `p`."""
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
