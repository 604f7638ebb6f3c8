"""Commands of families."""

from __future__ import annotations

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Id, one_line
from axis_path.core.draw import Window
from axis_path.core.errors import CommandError
from axis_path.core.features.command import Command, Edited, Handler, called
from axis_path.core.features.lines.edits import (
    put_family,
)
from axis_path.core.kinds.drawables import Drawables
from axis_path.core.kinds.registry import KINDS
from axis_path.core.lines.family import Family


class DrawFamily(Command, frozen=True, tag="family"):
    """Draw a line for several values of a slider at once; without a slider, for the present one.

    The values are ``values``, with commas between them, or ``count`` of them from ``first`` to
    ``last``.
    """

    id: Id
    slider: Id | None
    values: str = ""
    first: str = ""
    last: str = ""
    count: str = ""


def _family(snapshot: Snapshot, command: DrawFamily, _window: Window) -> Edited:
    line_id = command.id
    name = called(snapshot, line_id)
    if command.slider is None:
        snapshot = put_family(snapshot, line_id, None)
        return snapshot, f"Take the family of {name} away"
    texts = (command.values, command.first, command.last, command.count)
    family = Family(command.slider, *map(one_line, texts))
    if not KINDS[snapshot.definition(line_id).kind].has_family:
        raise CommandError("Functions, paths, curves and equations have families.")
    snapshot = put_family(snapshot, line_id, family)
    snapshot.query(Drawables).family_of(line_id)
    return snapshot, f"Draw a family of {name}"


COMMANDS: dict[type[Command], Handler] = {DrawFamily: _family}
