"""Commands of sliders."""

from __future__ import annotations

from typing import Any

from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.errors import SliderError
from axis_path.core.features.command import Command, Edited, called, listed
from axis_path.core.features.fields import CommandError, number_of, text_of
from axis_path.core.features.sliders.edits import (
    change_slider,
    fix,
    make_sliders,
    set_slider,
    type_value,
    widen_slider,
)
from axis_path.core.lines.sliders import (
    exact_number,
    play_to_dict,
    slider_from_dict,
)


def _set(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Move a slider; a dragged value snaps to the steps, a typed one (a text) does not."""
    line_id, value = number_of(command, "id"), command.get("value")
    name, _, _ = snapshot.query(Sliders).slider_of(line_id)
    if isinstance(value, str):
        snapshot = type_value(snapshot, line_id, text_of(command, "value").strip())
    elif isinstance(value, int | float) and not isinstance(value, bool):
        chosen = snapshot.query(Sliders).slider_range(line_id)
        snapshot = set_slider(snapshot, name, chosen.snap(exact_number(value)))
    else:
        raise SliderError("A slider needs a number.")
    return snapshot, f"Move {name}"


def _range(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Change the ends, the step, what the values are, how it plays; what is not given stays."""
    line_id = number_of(command, "id")
    name, _, slider = snapshot.query(Sliders).slider_of(line_id)
    texts = {key: text_of(command, key) for key in _SLIDER_TEXTS if key in command}
    others = {key: command[key] for key in ("kind",) if key in command}
    if isinstance(command.get("play"), dict):
        others["play"] = {**play_to_dict(slider.play), **command["play"]}
    snapshot = change_slider(snapshot, line_id, slider_from_dict({**texts, **others}, slider))
    if set(others) == {"play"}:
        return snapshot, f"Change how {name} plays"
    return snapshot, f"Change the range of {name}"


_SLIDER_TEXTS = ("low", "high", "step", "unit", "note")


def _widen(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    line_id = number_of(command, "id")
    snapshot = widen_slider(snapshot, line_id)
    return snapshot, f"Widen the range of {called(snapshot, line_id)}"


def _fix(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    line_id, fixed = number_of(command, "id"), command.get("fixed") is True
    snapshot = fix(snapshot, line_id, fixed=fixed)
    return snapshot, f"Make {called(snapshot, line_id)} a {'constant' if fixed else 'slider'}"


def _make_sliders(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    names = command.get("names")
    if not isinstance(names, list) or not names or not all(isinstance(n, str) for n in names):
        raise CommandError("The change lacks its `names`.")
    snapshot = make_sliders(snapshot, names)
    return snapshot, f"Make {'a slider of' if len(names) == 1 else 'sliders of'} {listed(names)}"


COMMANDS: dict[str, Command] = {
    "set": _set,
    "range": _range,
    "widen": _widen,
    "fix": _fix,
    "make_sliders": _make_sliders,
}
