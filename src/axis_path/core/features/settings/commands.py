"""Commands of what is chosen for a study as a whole."""

from __future__ import annotations

from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Edited
from axis_path.core.features.fields import CommandError, number_of
from axis_path.core.features.settings.edits import set_digits, set_unit


def _unit(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    unit = command.get("unit")
    if unit not in ("radians", "degrees"):
        raise CommandError("Angles are measured in radians or degrees.")
    snapshot = set_unit(snapshot, unit)
    return snapshot, f"Measure in {unit}"


def _digits(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    digits = number_of(command, "digits")
    snapshot = set_digits(snapshot, digits)
    return snapshot, f"Show {digits} digits"


COMMANDS: dict[str, Command] = {
    "unit": _unit,
    "digits": _digits,
}
