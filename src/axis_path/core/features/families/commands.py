"""Commands of families."""

from __future__ import annotations

from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Edited, called
from axis_path.core.features.fields import CommandError, number_of
from axis_path.core.features.lines.edits import (
    put_family,
)
from axis_path.core.kinds.drawables import Drawables
from axis_path.core.kinds.registry import KINDS
from axis_path.core.lines.family import family_from_dict


def _family(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Draw a line for several values of a slider at once; ``slider`` null for the present one."""
    line_id = number_of(command, "id")
    name = called(snapshot, line_id)
    if command.get("slider") is None:
        snapshot = put_family(snapshot, line_id, None)
        return snapshot, f"Take the family of {name} away"
    family = family_from_dict(command)
    if not KINDS[snapshot.definition(line_id).kind].has_family:
        raise CommandError("Functions, paths, curves and equations have families.")
    snapshot = put_family(snapshot, line_id, family)
    snapshot.query(Drawables).family_of(line_id)
    return snapshot, f"Draw a family of {name}"


COMMANDS: dict[str, Command] = {
    "family": _family,
}
