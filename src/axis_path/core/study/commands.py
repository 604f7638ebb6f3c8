"""Changes to a study as plain data, so that they can be sent, tried out and kept.

The same commands serve a draft, while a pointer drags something, and the change that is kept when
it lets go. Each gives a few words for the undo button.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Edited, called, listed
from axis_path.core.features.data.edits import refresh_fits
from axis_path.core.features.data.fits import Fits
from axis_path.core.features.fields import CommandError, number_of, text_of
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
        command: ``{"do": name, …}``; ``docs/commands.md`` lists them.
        window: where the hand is, for rounding to what a pixel can tell.

    Raises:
        MathError: the command cannot be carried out.
    """
    if not isinstance(command, dict) or command.get("do") not in COMMANDS:
        raise CommandError("This change is not known here; reload the page.")
    try:
        changed, label = COMMANDS[command["do"]](snapshot, command, window)
        if changed.query(Fits).key != snapshot.query(Fits).key:
            changed = refresh_fits(changed)
    except KeyError as err:
        raise CommandError("The line is not there any more; reload the page.") from err
    return Change(changed, label)


def _write(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    text = text_of(command, "text")
    if command.get("id") is None:
        line_id = snapshot.next_id()
        after = command.get("after")
        snapshot = write(snapshot, line_id, text, after=after if isinstance(after, int) else None)
        return snapshot, f"Write {called(snapshot, line_id)}"
    line_id = number_of(command, "id")
    snapshot.line(line_id)
    snapshot, followed = write_renaming(snapshot, line_id, text)
    label = f"Edit {called(snapshot, line_id)}"
    return snapshot, f"{label}, and its name in {listed(followed)}" if followed else label


def _rename(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    line_id, new = number_of(command, "id"), text_of(command, "name")
    old = snapshot.definition(line_id).name
    if old is None:
        raise CommandError("This line has no name to change.")
    snapshot = rename(snapshot, old, new.strip())
    return snapshot, f"Rename {old} to {new.strip()}"


def _remove(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    line_id = number_of(command, "id")
    name = called(snapshot, line_id)
    own = snapshot.definition(line_id).name
    needed_by = [] if own is None else snapshot.query(Sliders).users(own)
    snapshot = remove_line(snapshot, line_id)
    needed = f", which {listed(needed_by)} needed" if needed_by else ""
    return snapshot, f"Delete {name}{needed}"


def _remove_several(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    ids = command.get("ids")
    if not isinstance(ids, list) or not ids or not all(isinstance(each, int) for each in ids):
        raise CommandError("The change lacks its `ids`.")
    for line_id in ids:
        snapshot.line(line_id)
        snapshot = remove_line(snapshot, line_id)
    return snapshot, f"Delete {len(ids)} lines"


#: Every command by its name: those that all features follow, then those of each feature.
COMMANDS: dict[str, Command] = {
    "write": _write,
    "rename": _rename,
    "remove": _remove,
    "remove_several": _remove_several,
}
for _feature in FEATURES:
    COMMANDS |= _feature.commands
