"""Commands of the sampling check."""

from __future__ import annotations

from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.features.checks.queries import Checks
from axis_path.core.features.checks.section import Check, SamplingCheck
from axis_path.core.features.command import Command, Edited
from axis_path.core.features.fields import number_of, text_of


def _check(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Show a sampling check of a function, or none (``line`` None)."""
    if command.get("line") is None:
        snapshot = snapshot.with_section(SamplingCheck())
        return snapshot, "Hide the sampling check"
    texts = (text_of(command, name).strip() for name in ("count", "step"))
    check = Check(number_of(command, "line"), *texts)
    snapshot.function_line(check.line)
    snapshot.query(Checks).check_points(check, (0.0, 1.0))
    snapshot = snapshot.with_section(SamplingCheck(check))
    return snapshot, "Show a sampling check"


COMMANDS: dict[str, Command] = {
    "check": _check,
}
