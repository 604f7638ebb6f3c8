"""Commands of lines: hide, disable, style, move, copy, and the domains of functions."""

from __future__ import annotations

from typing import Any

from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.errors import DomainError
from axis_path.core.features.command import Command, Edited, called
from axis_path.core.features.fields import CommandError, number_of
from axis_path.core.features.lines.edits import (
    mark_line,
    move_line,
    restyle,
    write,
)
from axis_path.core.features.lines.renaming import copied_text
from axis_path.core.features.sliders.edits import (
    change_slider,
    fix,
)
from axis_path.core.lines.domains import NewEnd, number_text, rewrite_domain, round_to
from axis_path.core.lines.style import TONES, style_from_dict


def _hide(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    line_id, hidden = number_of(command, "id"), command.get("hidden") is True
    snapshot.line(line_id)
    snapshot = mark_line(snapshot, line_id, hidden=hidden)
    return snapshot, f"{'Hide' if hidden else 'Show'} {called(snapshot, line_id)}"


def _disable(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    line_id, disabled = number_of(command, "id"), command.get("disabled") is True
    snapshot.line(line_id)
    snapshot = mark_line(snapshot, line_id, disabled=disabled)
    return snapshot, f"{'Turn off' if disabled else 'Turn on'} {called(snapshot, line_id)}"


def _style(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Draw a line in another way; what is not given stays."""
    line_id, tone = number_of(command, "id"), command.get("tone")
    if tone is not None and (type(tone) is not int or not 0 <= tone < TONES):
        raise CommandError("A colour is one of the palette's.")
    style = style_from_dict(command.get("style", {}), snapshot.line(line_id).style)
    snapshot = restyle(snapshot, line_id, style, tone)
    return snapshot, f"Change the look of {snapshot.definition(line_id).name or 'a line'}"


def _domain(snapshot: Snapshot, command: dict[str, Any], window: Window) -> Edited:
    """Move one end of a domain, fill or hollow it, or leave it open (``x`` and ``text`` None)."""
    line_id, side = number_of(command, "id"), command.get("end")
    definition = snapshot.definition(line_id)
    line = snapshot.function_line(line_id)
    if side not in ("low", "high"):
        raise CommandError("A domain has a low and a high end.")
    bound = line.domain.low if side == "low" else line.domain.high
    closed = command.get("closed")
    is_closed = closed if isinstance(closed, bool) else bound is None or bound.closed
    x, text = command.get("x"), command.get("text")
    if isinstance(x, int | float) and not isinstance(x, bool):
        # A lane of its own scale says how wide its pixels are.
        pixel = command.get("pixel")
        if not isinstance(pixel, float) or not pixel > 0:
            pixel = window.pixel_at(float(x))
        text = number_text(round_to(float(x), pixel))
    elif isinstance(text, str):
        snapshot.query(Numbers).number(text)
    elif command.get("keep") is True and bound is not None:
        text = definition.text[slice(*bound.value.span)]
    elif bound is None:
        raise DomainError("This side of the domain is open already.")
    end = NewEnd(text, is_closed)
    changed = rewrite_domain(
        definition.text, line, low=end if side == "low" else None,
        high=end if side == "high" else None,
    )  # fmt: skip
    snapshot = write(snapshot, line_id, changed)
    return snapshot, f"Change the domain of {definition.name}"


def _move(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Put a line behind another; ``after`` None puts it at the top."""
    line_id, after = number_of(command, "id"), command.get("after")
    if after == line_id:
        raise CommandError("A line cannot stand behind itself.")
    snapshot = move_line(
        snapshot, line_id, number_of(command, "after") if after is not None else None
    )
    return snapshot, f"Move {snapshot.definition(line_id).name or 'a line'}"


def _duplicate(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Write a line once more behind itself, under the next free name."""
    line_id = number_of(command, "id")
    line, definition = snapshot.line(line_id), snapshot.definition(line_id)
    text = copied_text(line.text, definition.name, frozenset(snapshot.names()))
    copy_id = snapshot.next_id()
    snapshot = write(snapshot, copy_id, text, after=line_id)
    if definition.slider is not None:
        snapshot = change_slider(snapshot, copy_id, definition.slider)
    elif line.fixed:
        snapshot = fix(snapshot, copy_id, fixed=True)
    return snapshot, f"Duplicate {definition.name or 'a line'}"


COMMANDS: dict[str, Command] = {
    "hide": _hide,
    "disable": _disable,
    "style": _style,
    "domain": _domain,
    "move": _move,
    "duplicate": _duplicate,
}
