"""Changes to a study as plain data, so that they can be sent, tried out and kept.

The same commands serve a draft, while a hand drags something, and the change that is kept when it
lets go. Each gives a few words for the undo button.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Any

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.document.axes import axes_from_dict
from axis_path.core.document.document import Check, WorkingLine, table_from_dict, table_to_dict
from axis_path.core.draw import Window
from axis_path.core.errors import DomainError, SliderError
from axis_path.core.features.checks.queries import Checks
from axis_path.core.features.command import Command, Edited
from axis_path.core.features.data.commands import DATA_COMMANDS
from axis_path.core.features.data.edits import refresh_fits
from axis_path.core.features.data.fits import Fits
from axis_path.core.features.fields import CommandError, number_of, text_of
from axis_path.core.features.findings.commands import FINDING_COMMANDS
from axis_path.core.features.lines.edits import (
    mark_line,
    move_line,
    put_family,
    put_runner,
    put_trail,
    remove_line,
    rename,
    restyle,
    write,
    write_renaming,
)
from axis_path.core.features.lines.renaming import copied_text
from axis_path.core.features.settings.edits import set_digits, set_unit, set_working
from axis_path.core.features.sliders.edits import (
    change_slider,
    fix,
    make_sliders,
    set_slider,
    type_value,
    widen_slider,
)
from axis_path.core.features.tables.queries import Tables
from axis_path.core.kinds.states import States
from axis_path.core.lines.domains import NewEnd, number_text, rewrite_domain, round_to
from axis_path.core.lines.family import family_from_dict
from axis_path.core.lines.meaning import Kind
from axis_path.core.lines.moving import (
    Runner,
    Trail,
    read_points,
    trail_from_dict,
    trail_to_dict,
)
from axis_path.core.lines.sliders import (
    exact_number,
    play_from_dict,
    play_to_dict,
    slider_from_dict,
)
from axis_path.core.lines.style import TONES, style_from_dict


@dataclass(frozen=True, slots=True)
class Change:
    """What a command made of a study.

    Attributes:
        snapshot: of the changed study.
        label: a few words for the undo button.
    """

    snapshot: Snapshot
    label: str


def apply(snapshot: Snapshot, command: object, window: Window) -> Change:
    """Return what a command makes of a study; the study itself does not change.

    Args:
        snapshot: of the study.
        command: ``{"do": name, …}``; ``docs/commands.md`` lists them.
        window: where the hand is, for rounding to what a pixel can tell.

    Raises:
        MathError: the command cannot be carried out.
    """
    if not isinstance(command, dict) or command.get("do") not in COMMANDS:
        raise CommandError("This change is not known here; reload the page.")
    try:
        changed, label = COMMANDS[command["do"]](snapshot, command, window)
        if changed.query(Fits).key != snapshot.query(Fits).key:
            changed = refresh_fits(changed)
    except KeyError as err:
        raise CommandError("The line is not there any more; reload the page.") from err
    return Change(changed, label)


def _called(snapshot: Snapshot, line_id: int) -> str:
    name = snapshot.definition(line_id).name
    return name if name is not None else "a line"


def _write(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    text = text_of(command, "text")
    if command.get("id") is None:
        line_id = snapshot.next_id()
        after = command.get("after")
        snapshot = write(snapshot, line_id, text, after=after if isinstance(after, int) else None)
        return snapshot, f"Write {_called(snapshot, line_id)}"
    line_id = number_of(command, "id")
    snapshot.line(line_id)
    snapshot, followed = write_renaming(snapshot, line_id, text)
    label = f"Edit {_called(snapshot, line_id)}"
    return snapshot, f"{label}, and its name in {_listed(followed)}" if followed else label


def _listed(names: list[str]) -> str:
    """Return names as words: `g`, `h` and `p`."""
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _rename(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    line_id, new = number_of(command, "id"), text_of(command, "name")
    old = snapshot.definition(line_id).name
    if old is None:
        raise CommandError("This line has no name to change.")
    snapshot = rename(snapshot, old, new.strip())
    return snapshot, f"Rename {old} to {new.strip()}"


def _remove(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    line_id = number_of(command, "id")
    name = _called(snapshot, line_id)
    own = snapshot.definition(line_id).name
    needed_by = [] if own is None else snapshot.query(Sliders).users(own)
    snapshot = remove_line(snapshot, line_id)
    needed = f", which {_listed(needed_by)} needed" if needed_by else ""
    return snapshot, f"Delete {name}{needed}"


def _hide(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    line_id, hidden = number_of(command, "id"), command.get("hidden") is True
    snapshot.line(line_id)
    snapshot = mark_line(snapshot, line_id, hidden=hidden)
    return snapshot, f"{'Hide' if hidden else 'Show'} {_called(snapshot, line_id)}"


def _aside(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    line_id, aside = number_of(command, "id"), command.get("aside") is True
    snapshot.line(line_id)
    snapshot = mark_line(snapshot, line_id, aside=aside)
    return snapshot, f"{'Set aside' if aside else 'Take back'} {_called(snapshot, line_id)}"


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
    return snapshot, f"Widen the range of {_called(snapshot, line_id)}"


def _fix(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    line_id, fixed = number_of(command, "id"), command.get("fixed") is True
    snapshot = fix(snapshot, line_id, fixed=fixed)
    return snapshot, f"Make {_called(snapshot, line_id)} a {'constant' if fixed else 'slider'}"


def _runner(snapshot: Snapshot, command: dict[str, Any], window: Window) -> Edited:
    """Put the runner of a path somewhere (``t``, rounded to ``pixel``, or a text), or play it."""
    line_id, t = number_of(command, "id"), command.get("t")
    name = _called(snapshot, line_id)
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
    name, what = _called(snapshot, line_id), command.get("how")
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


def _family(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Draw a line for several values of a slider at once; ``slider`` null for the present one."""
    line_id = number_of(command, "id")
    name = _called(snapshot, line_id)
    if command.get("slider") is None:
        snapshot = put_family(snapshot, line_id, None)
        return snapshot, f"Take the family of {name} away"
    family = family_from_dict(command)
    if snapshot.definition(line_id).kind not in _FAMILY_KINDS:
        raise CommandError("Functions, paths, curves and equations have families.")
    snapshot = put_family(snapshot, line_id, family)
    snapshot.query(Curves).family_of(line_id)
    return snapshot, f"Draw a family of {name}"


_FAMILY_KINDS = (Kind.FUNCTION, Kind.PATH, Kind.POLAR, Kind.RELATION, Kind.REGION)


def _make_sliders(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    names = command.get("names")
    if not isinstance(names, list) or not names or not all(isinstance(n, str) for n in names):
        raise CommandError("The change lacks its `names`.")
    snapshot = make_sliders(snapshot, names)
    return snapshot, f"Make {'a slider of' if len(names) == 1 else 'sliders of'} {_listed(names)}"


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


def _remove_several(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    ids = command.get("ids")
    if not isinstance(ids, list) or not ids or not all(isinstance(each, int) for each in ids):
        raise CommandError("The change lacks its `ids`.")
    for line_id in ids:
        snapshot.line(line_id)
        snapshot = remove_line(snapshot, line_id)
    return snapshot, f"Delete {len(ids)} lines"


def _check(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Show a sampling check of a function, or none (``line`` None)."""
    if command.get("line") is None:
        snapshot = snapshot.with_fields(check=None)
        return snapshot, "Hide the sampling check"
    texts = (text_of(command, name).strip() for name in ("count", "step"))
    check = Check(number_of(command, "line"), *texts)
    snapshot.function_line(check.line)
    snapshot.query(Checks).check_points(check, (0.0, 1.0))
    snapshot = snapshot.with_fields(check=check)
    return snapshot, "Show a sampling check"


def _style(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Draw a line in another way; what is not given stays."""
    line_id, tone = number_of(command, "id"), command.get("tone")
    if tone is not None and (type(tone) is not int or not 0 <= tone < TONES):
        raise CommandError("A colour is one of the palette's.")
    style = style_from_dict(command.get("style", {}), snapshot.line(line_id).style)
    snapshot = restyle(snapshot, line_id, style, tone)
    return snapshot, f"Change the look of {snapshot.definition(line_id).name or 'a line'}"


def _axes(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Change the look of the axes and the grid; what is not given stays."""
    axes = axes_from_dict(command.get("axes"), snapshot.document.axes)
    for axis in (axes.x, axes.y):
        if axis.step:
            snapshot.query(Numbers).positive(axis.step)
    snapshot = snapshot.with_fields(axes=axes)
    return snapshot, "Change the axes"


_TABLE_FIELDS = (
    "start", "stop", "step", "count", "listed", "digits", "form", "columns", "over", "at",
)  # fmt: skip


def _table(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    kept = table_to_dict(snapshot.document.table)
    given = {name: command[name] for name in _TABLE_FIELDS if name in command}
    clean = {n: text_of(given, n) if isinstance(v, str) else v for n, v in given.items()}
    spec = table_from_dict(kept | clean)
    snapshot.query(Tables).table_places(spec)
    snapshot.query(Tables).check_columns(spec, snapshot.query(States).functions())
    snapshot = snapshot.with_fields(table=spec)
    return snapshot, "Change the table"


def _work(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Write a line of the working, whether it reads or not."""
    text, working = text_of(command, "text"), snapshot.document.working
    if command.get("id") is None:
        number = max((work.id for work in working), default=0) + 1
        snapshot = set_working(snapshot, [*working, WorkingLine(number, text)])
        return snapshot, "Calculate"
    number = number_of(command, "id")
    snapshot = set_working(
        snapshot, [WorkingLine(number, text) if work.id == number else work for work in working]
    )
    return snapshot, "Change a calculation"


def _unwork(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    number = number_of(command, "id")
    working = snapshot.document.working
    snapshot = set_working(snapshot, [work for work in working if work.id != number])
    return snapshot, "Delete a calculation"


#: Every command by its name.
COMMANDS: dict[str, Command] = {
    "write": _write,
    "rename": _rename,
    "remove": _remove,
    "hide": _hide,
    "aside": _aside,
    "style": _style,
    "set": _set,
    "range": _range,
    "widen": _widen,
    "fix": _fix,
    "make_sliders": _make_sliders,
    "family": _family,
    "runner": _runner,
    "trail": _trail,
    "domain": _domain,
    "unit": _unit,
    "digits": _digits,
    "axes": _axes,
    "check": _check,
    "duplicate": _duplicate,
    "move": _move,
    "remove_several": _remove_several,
    "table": _table,
    **FINDING_COMMANDS,
    **DATA_COMMANDS,
    "work": _work,
    "unwork": _unwork,
}
