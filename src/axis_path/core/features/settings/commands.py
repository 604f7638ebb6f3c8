"""Commands of what is chosen for a study as a whole."""

from __future__ import annotations

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Count
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Edited, Handler
from axis_path.core.features.settings.edits import set_digits, set_unit
from axis_path.core.language.tree import AngleUnit


class ChangeUnit(Command, frozen=True, tag="unit"):
    """Measure angles in radians or degrees."""

    unit: AngleUnit


class ChangeDigits(Command, frozen=True, tag="digits"):
    """Show findings with so many digits."""

    digits: Count


def _unit(snapshot: Snapshot, command: ChangeUnit, _window: Window) -> Edited:
    return set_unit(snapshot, command.unit), f"Measure in {command.unit.value}"


def _digits(snapshot: Snapshot, command: ChangeDigits, _window: Window) -> Edited:
    return set_digits(snapshot, command.digits), f"Show {command.digits} digits"


COMMANDS: dict[type[Command], Handler] = {ChangeUnit: _unit, ChangeDigits: _digits}
