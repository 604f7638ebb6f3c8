"""Changes to a study as plain data, so that they can be sent, tried out and kept.

The same commands serve a draft, while a pointer drags something, and the change that is stored when
it lets go. Each gives a few words for the undo button.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Annotated, Any, Union

from msgspec import Meta

from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Id, one_line, read
from axis_path.core.draw import Window
from axis_path.core.errors import CommandError
from axis_path.core.features.command import Command, Edited, Handler, called, listed, refuse
from axis_path.core.features.data.edits import refresh_fits
from axis_path.core.features.data.fits import Fits
from axis_path.core.features.lines.edits import write
from axis_path.core.features.registry import FEATURES
from axis_path.core.study.naming_edits import remove_line, rename, write_renaming


@dataclass(frozen=True, slots=True)
class Change:
    """What a command made of a study.

    Attributes:
        snapshot: of the changed study.
        label: a few words for the undo button.
    """

    snapshot: Snapshot
    label: str


def apply(snapshot: Snapshot, command: object, window: Window) -> Change:
    """Return what a command makes of a study; the study itself does not change.

    Args:
        snapshot: of the study.
        command: ``{"do": name, …}`` or one of the structs; ``docs/commands.md`` lists them.
        window: where the pointer is, for rounding to what a pixel can tell.

    Raises:
        MathError: the command cannot be carried out.
    """
    known = read_command(command)
    try:
        changed, label = COMMANDS[type(known)](snapshot, known, window)
        if changed.query(Fits).key != snapshot.query(Fits).key:
            changed = refresh_fits(changed)
    except KeyError as err:
        raise CommandError("The line is not there any more; reload the page.") from err
    return Change(changed, label)


def read_command(command: object) -> Command:
    """Return a command as a struct.

    Raises:
        CommandError: it is unknown, or a field is missing, unknown or wrong.
    """
    if isinstance(command, Command):
        return command
    name = command.get("do") if isinstance(command, dict) else None
    if not isinstance(name, str) or name not in NAMES:
        raise CommandError("This change is not known here; reload the page.", path="do")
    return read(command, AnyCommand, refuse)


class WriteLine(Command, frozen=True, tag="write"):
    """Write a line, whether it reads or not; without an id, a new one behind ``after``.

    A new name in its head is taken over by the lines that use it.
    """

    id: Id | None
    text: str
    after: Id | None = None


class RenameLine(Command, frozen=True, tag="rename"):
    """Rename a definition wherever it is used."""

    id: Id
    name: str


class RemoveLine(Command, frozen=True, tag="remove"):
    """Delete a line and the findings about it."""

    id: Id


class RemoveLines(Command, frozen=True, tag="remove_several"):
    """Delete lines."""

    ids: Annotated[list[Id], Meta(min_length=1)]


def _write(snapshot: Snapshot, command: WriteLine, _window: Window) -> Edited:
    text = one_line(command.text)
    if command.id is None:
        line_id = snapshot.next_id()
        snapshot = write(snapshot, line_id, text, after=command.after)
        return snapshot, f"Write {called(snapshot, line_id)}"
    snapshot.line(command.id)
    snapshot, followed = write_renaming(snapshot, command.id, text)
    label = f"Edit {called(snapshot, command.id)}"
    return snapshot, f"{label}, and its name in {listed(followed)}" if followed else label


def _rename(snapshot: Snapshot, command: RenameLine, _window: Window) -> Edited:
    old, new = snapshot.definition(command.id).name, one_line(command.name)
    if old is None:
        raise CommandError("This line has no name to change.")
    return rename(snapshot, old, new), f"Rename {old} to {new}"


def _remove(snapshot: Snapshot, command: RemoveLine, _window: Window) -> Edited:
    name = called(snapshot, command.id)
    definition, sliders = snapshot.definition(command.id), snapshot.query(Sliders)
    own = [*filter(None, (definition.name, *definition.defines))]
    needed_by = list(dict.fromkeys(user for one in own for user in sliders.users(one)))
    needed = f", which {listed(needed_by)} needed" if needed_by else ""
    return remove_line(snapshot, command.id), f"Delete {name}{needed}"


def _remove_several(snapshot: Snapshot, command: RemoveLines, _window: Window) -> Edited:
    for line_id in command.ids:
        snapshot.line(line_id)
        snapshot = remove_line(snapshot, line_id)
    return snapshot, f"Delete {len(command.ids)} lines"


#: What carries out each command: those that all features follow, then those of each feature.
COMMANDS: dict[type[Command], Handler] = {
    WriteLine: _write,
    RenameLine: _rename,
    RemoveLine: _remove,
    RemoveLines: _remove_several,
}
for _feature in FEATURES:
    COMMANDS |= _feature.commands
#: The structs by what ``do`` says.
NAMES: dict[str, type[Command]] = {str(kind.__struct_config__.tag): kind for kind in COMMANDS}


def union_of(commands: Iterable[type[Command]]) -> Any:  # noqa: ANN401 - a type
    """Return the type of any of some commands, distinguished by ``do``."""
    return Union[tuple(commands)]  # noqa: UP007 - the members are known when it runs


if TYPE_CHECKING:
    AnyCommand = Command
else:
    AnyCommand = union_of(COMMANDS)
