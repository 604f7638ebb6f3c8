"""Commands of runners and trails."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Edited, called
from axis_path.core.features.fields import CommandError, number_of, text_of
from axis_path.core.features.lines.edits import (
    put_runner,
    put_trail,
)
from axis_path.core.lines.domains import number_text, round_to
from axis_path.core.lines.moving import (
    Runner,
    Trail,
    read_points,
    trail_from_dict,
    trail_to_dict,
)
from axis_path.core.lines.sliders import (
    play_from_dict,
    play_to_dict,
)


def _runner(snapshot: Snapshot, command: dict[str, Any], window: Window) -> Edited:
    """Put the runner of a path somewhere (``t``, rounded to ``pixel``, or a text), or play it."""
    line_id, t = number_of(command, "id"), command.get("t")
    name = called(snapshot, line_id)
    path = snapshot.query(Curves).path(name)
    runner = snapshot.line(line_id).runner or Runner()
    if isinstance(t, int | float) and not isinstance(t, bool) and math.isfinite(t):
        pixel = (path.high.near - path.low.near) / window.width
        runner = replace(runner, at=number_text(round_to(float(t), pixel or 1.0)))
    elif isinstance(t, str):
        text = text_of(command, "t").strip()
        snapshot.query(Numbers).number(text)
        runner = replace(runner, at=text)
    if isinstance(command.get("play"), dict):
        play = play_from_dict({**play_to_dict(runner.play), **command["play"]})
        snapshot = put_runner(snapshot, line_id, replace(runner, play=play))
        return snapshot, f"Change how the runner of {name} plays"
    snapshot = put_runner(snapshot, line_id, runner if "t" in command and t is not None else None)
    if t is None:
        return snapshot, f"Take the runner of {name} away"
    return snapshot, f"Move the runner of {name}"


def _trail(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Let a point leave a trail or none, clear or thin it, or add the positions it went through."""
    line_id = number_of(command, "id")
    name, what = called(snapshot, line_id), command.get("how")
    trail = snapshot.line(line_id).trail
    if what == "off":
        snapshot = put_trail(snapshot, line_id, None)
        return snapshot, f"Take the trail of {name} away"
    trail = trail or Trail()
    if what == "add":
        snapshot = put_trail(snapshot, line_id, trail.with_more(read_points(command.get("points"))))
        return snapshot, f"Draw the trail of {name}"
    if what == "show":
        most = {"most": command["most"]} if "most" in command else {}
        snapshot = put_trail(snapshot, line_id, trail_from_dict(trail_to_dict(trail) | most))
        return snapshot, f"Show the trail of {name}"
    if what == "clear":
        snapshot = put_trail(snapshot, line_id, replace(trail, points=()))
        return snapshot, f"Clear the trail of {name}"
    if what == "thin":
        snapshot = put_trail(snapshot, line_id, trail.thinned())
        return snapshot, f"Thin the trail of {name}"
    raise CommandError("This change of a trail is not known here; reload the page.")


COMMANDS: dict[str, Command] = {
    "runner": _runner,
    "trail": _trail,
}
