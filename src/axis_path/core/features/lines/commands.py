"""Commands of lines: hide, disable, style, move, copy, and the domains of functions."""

from __future__ import annotations

from typing import Annotated, Literal

from msgspec import UNSET, UnsetType

from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import PlaneUnits
from axis_path.core.contract import Changes, Finite, Id, Positive, changes_of
from axis_path.core.draw import Window
from axis_path.core.errors import CommandError, DomainError
from axis_path.core.features.command import Command, Edited, Handler, called, changed
from axis_path.core.features.lines.edits import mark_line, move_line, restyle, write
from axis_path.core.features.lines.renaming import copied_text
from axis_path.core.features.sliders.edits import change_slider, fix
from axis_path.core.lines.domains import NewEnd, number_text, rewrite_domain, round_to
from axis_path.core.lines.style import LineStyle, Tone


class HideLine(Command, frozen=True, tag="hide"):
    """Hide a line: it works but is not drawn."""

    id: Id
    hidden: bool


class DisableLine(Command, frozen=True, tag="disable"):
    """Disable a line, as if it were not written."""

    id: Id
    disabled: bool


class StyleLine(Command, frozen=True, tag="style"):
    """Draw a line in another way; what is not given stays."""

    id: Id
    tone: Tone | None = None
    style: Annotated[Changes, changes_of(LineStyle)] | UnsetType = UNSET


class ChangeDomain(Command, frozen=True, tag="domain"):
    """Change one end of a domain: its value, or only whether it is included.

    ``x`` is rounded to the pixel, ``text`` is taken as typed and removes the end if it is null;
    with ``keep`` the value stays. ``pixel`` is the width of one on a lane with a scale of its own.
    """

    id: Id
    end: Literal["low", "high"]
    x: Finite | None = None
    text: str | None = None
    keep: bool = False
    closed: bool | None = None
    pixel: Positive | None = None


class MoveLine(Command, frozen=True, tag="move"):
    """Put a line behind another; ``after`` null for the top."""

    id: Id
    after: Id | None = None


class DuplicateLine(Command, frozen=True, tag="duplicate"):
    """Write a line once more behind itself, under the next free name."""

    id: Id


def _hide(snapshot: Snapshot, command: HideLine, _window: Window) -> Edited:
    snapshot.line(command.id)
    snapshot = mark_line(snapshot, command.id, hidden=command.hidden)
    return snapshot, f"{'Hide' if command.hidden else 'Show'} {called(snapshot, command.id)}"


def _disable(snapshot: Snapshot, command: DisableLine, _window: Window) -> Edited:
    snapshot.line(command.id)
    snapshot = mark_line(snapshot, command.id, disabled=command.disabled)
    how = "off" if command.disabled else "on"
    return snapshot, f"Turn {how} {called(snapshot, command.id)}"


def _style(snapshot: Snapshot, command: StyleLine, _window: Window) -> Edited:
    style = snapshot.line(command.id).style
    if not isinstance(command.style, UnsetType):
        style = changed(style, command.style)
    snapshot = restyle(snapshot, command.id, style, command.tone)
    return snapshot, f"Change the look of {called(snapshot, command.id)}"


def _domain(snapshot: Snapshot, command: ChangeDomain, window: Window) -> Edited:
    definition = snapshot.definition(command.id)
    line = snapshot.function_line(command.id)
    bound = line.domain.low if command.end == "low" else line.domain.high
    is_closed = (bound is None or bound.closed) if command.closed is None else command.closed
    text, numbers = command.text, snapshot.query(Numbers)
    unit = snapshot.query(PlaneUnits).of(definition).variable
    if command.x is not None:
        pixel = command.pixel or window.pixel_at(command.x)
        text = numbers.with_unit(number_text(round_to(command.x, pixel)), unit)
    elif text is not None:
        text = numbers.with_unit(text, unit)
    elif command.keep and bound is not None:
        text = definition.text[slice(*bound.value.span)]
    elif bound is None:
        raise DomainError("This side of the domain is open already.")
    end = NewEnd(text, is_closed)
    rewritten = rewrite_domain(
        definition.text, line, low=end if command.end == "low" else None,
        high=end if command.end == "high" else None,
    )  # fmt: skip
    return write(snapshot, command.id, rewritten), f"Change the domain of {definition.name}"


def _move(snapshot: Snapshot, command: MoveLine, _window: Window) -> Edited:
    if command.after == command.id:
        raise CommandError("A line cannot stand behind itself.")
    snapshot = move_line(snapshot, command.id, command.after)
    return snapshot, f"Move {called(snapshot, command.id)}"


def _duplicate(snapshot: Snapshot, command: DuplicateLine, _window: Window) -> Edited:
    line, definition = snapshot.line(command.id), snapshot.definition(command.id)
    text = copied_text(line.text, definition.name, frozenset(snapshot.names()))
    copy_id = snapshot.next_id()
    snapshot = write(snapshot, copy_id, text, after=command.id)
    if definition.slider is not None:
        snapshot = change_slider(snapshot, copy_id, definition.slider)
    elif line.fixed:
        snapshot = fix(snapshot, copy_id, fixed=True)
    return snapshot, f"Duplicate {definition.name or 'a line'}"


COMMANDS: dict[type[Command], Handler] = {
    HideLine: _hide,
    DisableLine: _disable,
    StyleLine: _style,
    ChangeDomain: _domain,
    MoveLine: _move,
    DuplicateLine: _duplicate,
}
