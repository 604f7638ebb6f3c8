"""Commands of runners and trails."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from msgspec import UNSET, UnsetType

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Changes, Finite, Id, changes_of, one_line
from axis_path.core.draw import Window
from axis_path.core.features.command import Command, Edited, Handler, called, changed
from axis_path.core.features.lines.edits import put_runner, put_trail
from axis_path.core.lines.domains import number_text, round_to
from axis_path.core.lines.moving import Points, Runner, Trail
from axis_path.core.lines.sliders import Play


class MoveRunner(Command, frozen=True, tag="runner"):
    """Move the runner of a path, remove it (``t`` null), or change how it plays.

    A number ``t`` is rounded to a pixel, a text is taken as it is.
    """

    id: Id
    t: Finite | str | UnsetType | None = UNSET
    play: Annotated[Changes, changes_of(Play)] | UnsetType = UNSET


class ChangeTrail(Command, frozen=True, tag="trail"):
    """Show the trail of a point or a runner, hide, clear or thin it, or add positions to it."""

    id: Id
    how: Literal["show", "off", "clear", "thin", "add"]
    most: Id | UnsetType = UNSET
    points: Points = ()


def _runner(snapshot: Snapshot, command: MoveRunner, window: Window) -> Edited:
    name = called(snapshot, command.id)
    path = snapshot.query(Curves).path(name)
    runner = snapshot.line(command.id).runner or Runner()
    if isinstance(command.t, str):
        numbers, unit = snapshot.query(Numbers), path.x.units.variable
        text = numbers.spelled_out(one_line(command.t), unit)
        numbers.number(text, unit)
        runner = replace(runner, at=text)
    elif isinstance(command.t, float):
        pixel = (path.high.near - path.low.near) / window.width
        runner = replace(runner, at=number_text(round_to(command.t, pixel or 1.0)))
    if not isinstance(command.play, UnsetType):
        play = changed(runner.play, command.play)
        snapshot = put_runner(snapshot, command.id, replace(runner, play=play))
        return snapshot, f"Change how the runner of {name} plays"
    if command.t is UNSET or command.t is None:
        return put_runner(snapshot, command.id, None), f"Remove the runner of {name}"
    return put_runner(snapshot, command.id, runner), f"Move the runner of {name}"


def _trail(snapshot: Snapshot, command: ChangeTrail, _window: Window) -> Edited:
    name = called(snapshot, command.id)
    trail = snapshot.line(command.id).trail or Trail()
    changes: Trail | None = trail
    match command.how:
        case "off":
            changes, label = None, f"Remove the trail of {name}"
        case "add":
            changes, label = trail.with_more(command.points), f"Draw the trail of {name}"
        case "show":
            most = {} if command.most is UNSET else {"most": command.most}
            changes, label = changed(trail, most), f"Show the trail of {name}"
        case "clear":
            changes, label = replace(trail, points=()), f"Clear the trail of {name}"
        case "thin":
            changes, label = trail.thinned(), f"Thin the trail of {name}"
    return put_trail(snapshot, command.id, changes), label


COMMANDS: dict[type[Command], Handler] = {MoveRunner: _runner, ChangeTrail: _trail}
