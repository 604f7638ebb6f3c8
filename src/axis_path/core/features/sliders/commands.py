"""Commands of sliders."""

from __future__ import annotations

from typing import Annotated

from msgspec import UNSET, Meta, UnsetType

from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Changes, Finite, Id, changes_of, one_line
from axis_path.core.draw import Window
from axis_path.core.features.command import (
    Command,
    Edited,
    Handler,
    called,
    changed,
    given_fields,
    listed,
)
from axis_path.core.features.sliders.edits import (
    change_slider,
    fix,
    make_sliders,
    set_slider,
    type_value,
    widen_slider,
)
from axis_path.core.lines.sliders import Play, SliderKind, exact_number, literal


class SetSlider(Command, frozen=True, tag="set"):
    """Move a slider: a number snaps to its steps, a text such as ``pi/2`` stays as it was typed."""

    id: Id
    value: Finite | str


class ChangeRange(Command, frozen=True, tag="range"):
    """Change the ends, the step, the kind of values, how it plays; what is not given stays."""

    id: Id
    low: str | UnsetType = UNSET
    high: str | UnsetType = UNSET
    step: str | UnsetType = UNSET
    unit: str | UnsetType = UNSET
    note: str | UnsetType = UNSET
    kind: SliderKind | UnsetType = UNSET
    play: Annotated[Changes, changes_of(Play)] | UnsetType = UNSET


class WidenRange(Command, frozen=True, tag="widen"):
    """Move an end of a slider to its value, if that lies beyond it."""

    id: Id


class FixSlider(Command, frozen=True, tag="fix"):
    """Turn a slider into a constant, or a constant into a slider."""

    id: Id
    fixed: bool


class MakeSliders(Command, frozen=True, tag="make_sliders"):
    """Make sliders of names without a value, with ranges guessed from their use."""

    names: Annotated[list[str], Meta(min_length=1)]


def _set(snapshot: Snapshot, command: SetSlider, _window: Window) -> Edited:
    name, _, slider = snapshot.query(Sliders).slider_of(command.id)
    if isinstance(command.value, str):
        unit = snapshot.unit_of_slider(name)
        text = snapshot.query(Numbers).spelled_out(one_line(command.value), unit)
        return type_value(snapshot, command.id, text), f"Move {name}"
    chosen = snapshot.query(Sliders).slider_range(command.id)
    value = chosen.snap(exact_number(command.value))
    for end, text in ((chosen.low, slider.low), (chosen.high, slider.high)):
        # At an end such as 2pi it stands there exactly, and not at the nearest decimal.
        if value == end and literal(text) is None:
            return type_value(snapshot, command.id, text), f"Move {name}"
    return set_slider(snapshot, name, value), f"Move {name}"


def _range(snapshot: Snapshot, command: ChangeRange, _window: Window) -> Edited:
    name, _, slider = snapshot.query(Sliders).slider_of(command.id)
    unit, numbers = snapshot.unit_of_slider(name), snapshot.query(Numbers)
    changes = given_fields(command, "unit", "note", "kind", "play")
    for field, text in given_fields(command, "low", "high", "step").items():
        changes[field] = numbers.spelled_out(text, unit)
    snapshot = change_slider(snapshot, command.id, changed(slider, changes))
    if changes.keys() == {"play"}:
        return snapshot, f"Change how {name} plays"
    return snapshot, f"Change the range of {name}"


def _widen(snapshot: Snapshot, command: WidenRange, _window: Window) -> Edited:
    snapshot = widen_slider(snapshot, command.id)
    return snapshot, f"Widen the range of {called(snapshot, command.id)}"


def _fix(snapshot: Snapshot, command: FixSlider, _window: Window) -> Edited:
    snapshot = fix(snapshot, command.id, fixed=command.fixed)
    what = "constant" if command.fixed else "slider"
    return snapshot, f"Make {called(snapshot, command.id)} a {what}"


def _make_sliders(snapshot: Snapshot, command: MakeSliders, _window: Window) -> Edited:
    names = list(map(one_line, command.names))
    snapshot = make_sliders(snapshot, names)
    return snapshot, f"Make {'a slider of' if len(names) == 1 else 'sliders of'} {listed(names)}"


COMMANDS: dict[type[Command], Handler] = {
    SetSlider: _set,
    ChangeRange: _range,
    WidenRange: _widen,
    FixSlider: _fix,
    MakeSliders: _make_sliders,
}
