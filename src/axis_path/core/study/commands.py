"""Changes to a study as plain data, so that they can be sent, tried out and kept.

The same commands serve a draft, while a hand drags something, and the change that is kept when it
lets go. Each gives a few words for the undo button.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace
from typing import Any

from axis_path.core.draw import Window
from axis_path.core.errors import DomainError, MathError, SliderError
from axis_path.core.study.axes import axes_from_dict
from axis_path.core.study.command_fields import CommandError, number_of, text_of
from axis_path.core.study.data_commands import DATA_COMMANDS
from axis_path.core.study.document import Check, Work, table_from_dict, table_to_dict
from axis_path.core.study.domains import NewEnd, number_text, rewrite_domain, round_to
from axis_path.core.study.family import family_from_dict
from axis_path.core.study.finding_commands import FINDING_COMMANDS
from axis_path.core.study.meaning import Kind
from axis_path.core.study.moving import (
    Runner,
    Trail,
    read_points,
    trail_from_dict,
    trail_to_dict,
)
from axis_path.core.study.renaming import copied_text
from axis_path.core.study.sliders import (
    exact_number,
    play_from_dict,
    play_to_dict,
    slider_from_dict,
)
from axis_path.core.study.study import Study
from axis_path.core.study.style import TONES, style_from_dict


def apply_command(study: Study, command: object, window: Window) -> str:
    """Change a study and say in a few words what was done.

    Args:
        study: is changed.
        command: ``{"do": name, …}``; ``docs/commands.md`` lists them.
        window: where the hand is, for rounding to what a pixel can tell.

    Raises:
        MathError: the command cannot be carried out; the study stays as it was.
    """
    if not isinstance(command, dict) or command.get("do") not in COMMANDS:
        raise CommandError("This change is not known here; reload the page.")
    before = study.fit_key
    try:
        done = COMMANDS[command["do"]](study, command, window)
        if study.fit_key != before:
            study.refresh_fits()
        return done
    except KeyError as err:
        raise CommandError("The line is not there any more; reload the page.") from err


def _called(study: Study, line_id: int) -> str:
    name = study.definition(line_id).name
    return name if name is not None else "a line"


def _write(study: Study, command: dict[str, Any], _window: Window) -> str:
    text = text_of(command, "text")
    if command.get("id") is None:
        line_id = study.next_id()
        after = command.get("after")
        study.write(line_id, text, after=after if isinstance(after, int) else None)
        return f"Write {_called(study, line_id)}"
    line_id = number_of(command, "id")
    study.line(line_id)
    followed = study.write_renaming(line_id, text)
    label = f"Edit {_called(study, line_id)}"
    return f"{label}, and its name in {_listed(followed)}" if followed else label


def _listed(names: list[str]) -> str:
    """Return names as words: `g`, `h` and `p`."""
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _rename(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id, new = number_of(command, "id"), text_of(command, "name")
    old = study.definition(line_id).name
    if old is None:
        raise CommandError("This line has no name to change.")
    study.rename(old, new.strip())
    return f"Rename {old} to {new.strip()}"


def _remove(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id = number_of(command, "id")
    name = _called(study, line_id)
    needed_by = study.remove_line(line_id)
    return f"Delete {name}, which {_listed(needed_by)} needed" if needed_by else f"Delete {name}"


def _hide(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id, hidden = number_of(command, "id"), command.get("hidden") is True
    study.line(line_id)
    study.mark_line(line_id, hidden=hidden)
    return f"{'Hide' if hidden else 'Show'} {_called(study, line_id)}"


def _aside(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id, aside = number_of(command, "id"), command.get("aside") is True
    study.line(line_id)
    study.mark_line(line_id, aside=aside)
    return f"{'Set aside' if aside else 'Take back'} {_called(study, line_id)}"


def _set(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Move a slider; a dragged value snaps to the steps, a typed one (a text) does not."""
    line_id, value = number_of(command, "id"), command.get("value")
    name, _, _ = study.slider_of(line_id)
    if isinstance(value, str):
        study.type_value(line_id, text_of(command, "value").strip())
    elif isinstance(value, int | float) and not isinstance(value, bool):
        study.set(name, study.slider_range(line_id).snap(exact_number(value)))
    else:
        raise SliderError("A slider needs a number.")
    return f"Move {name}"


def _range(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Change the ends, the step, what the values are, how it plays; what is not given stays."""
    line_id = number_of(command, "id")
    name, _, slider = study.slider_of(line_id)
    texts = {key: text_of(command, key) for key in _SLIDER_TEXTS if key in command}
    others = {key: command[key] for key in ("kind",) if key in command}
    if isinstance(command.get("play"), dict):
        others["play"] = {**play_to_dict(slider.play), **command["play"]}
    study.change_slider(line_id, slider_from_dict({**texts, **others}, slider))
    return f"Change {'how' if set(others) == {'play'} else 'the range of'} {name}" + (
        " plays" if set(others) == {"play"} else ""
    )


_SLIDER_TEXTS = ("low", "high", "step", "unit", "note")


def _widen(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id = number_of(command, "id")
    study.widen_slider(line_id)
    return f"Widen the range of {_called(study, line_id)}"


def _fix(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id, fixed = number_of(command, "id"), command.get("fixed") is True
    study.fix(line_id, fixed=fixed)
    return f"Make {_called(study, line_id)} a {'constant' if fixed else 'slider'}"


def _runner(study: Study, command: dict[str, Any], window: Window) -> str:
    """Put the runner of a path somewhere (``t``, rounded to ``pixel``, or a text), or play it."""
    line_id, t = number_of(command, "id"), command.get("t")
    name = _called(study, line_id)
    path = study.path(name)
    runner = study.line(line_id).runner or Runner()
    if isinstance(t, int | float) and not isinstance(t, bool) and math.isfinite(t):
        pixel = (path.high.near - path.low.near) / window.width
        runner = replace(runner, at=number_text(round_to(float(t), pixel or 1.0)))
    elif isinstance(t, str):
        text = text_of(command, "t").strip()
        study.number(text)
        runner = replace(runner, at=text)
    if isinstance(command.get("play"), dict):
        play = play_from_dict({**play_to_dict(runner.play), **command["play"]})
        study.put_runner(line_id, replace(runner, play=play))
        return f"Change how the runner of {name} plays"
    study.put_runner(line_id, runner if "t" in command and t is not None else None)
    return f"Move the runner of {name}" if t is not None else f"Take the runner of {name} away"


def _trail(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Let a point leave a trail or none, clear or thin it, or add the positions it went through."""
    line_id = number_of(command, "id")
    name, what = _called(study, line_id), command.get("how")
    trail = study.line(line_id).trail
    if what == "off":
        study.put_trail(line_id, None)
        return f"Take the trail of {name} away"
    trail = trail or Trail()
    if what == "add":
        study.put_trail(line_id, trail.with_more(read_points(command.get("points"))))
        return f"Draw the trail of {name}"
    if what == "show":
        most = {"most": command["most"]} if "most" in command else {}
        study.put_trail(line_id, trail_from_dict(trail_to_dict(trail) | most))
        return f"Show the trail of {name}"
    if what == "clear":
        study.put_trail(line_id, replace(trail, points=()))
        return f"Clear the trail of {name}"
    if what == "thin":
        study.put_trail(line_id, trail.thinned())
        return f"Thin the trail of {name}"
    raise CommandError("This change of a trail is not known here; reload the page.")


def _family(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Draw a line for several values of a slider at once; ``slider`` null for the present one."""
    line_id = number_of(command, "id")
    name = _called(study, line_id)
    if command.get("slider") is None:
        study.put_family(line_id, None)
        return f"Take the family of {name} away"
    family = family_from_dict(command)
    if study.definition(line_id).kind not in _FAMILY_KINDS:
        raise CommandError("Functions, paths, curves and equations have families.")
    before = study.line(line_id).family
    study.put_family(line_id, family)
    try:
        study.family_of(line_id)
    except MathError:
        study.put_family(line_id, before)
        raise
    return f"Draw a family of {name}"


_FAMILY_KINDS = (Kind.FUNCTION, Kind.PATH, Kind.POLAR, Kind.RELATION, Kind.REGION)


def _make_sliders(study: Study, command: dict[str, Any], _window: Window) -> str:
    names = command.get("names")
    if not isinstance(names, list) or not names or not all(isinstance(n, str) for n in names):
        raise CommandError("The change lacks its `names`.")
    study.make_sliders(names)
    return f"Make {'a slider of' if len(names) == 1 else 'sliders of'} {_listed(names)}"


def _domain(study: Study, command: dict[str, Any], window: Window) -> str:
    """Move one end of a domain, fill or hollow it, or leave it open (``x`` and ``text`` None)."""
    line_id, side = number_of(command, "id"), command.get("end")
    definition = study.definition(line_id)
    line = study.function_line(line_id)
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
        study.number(text)
    elif command.get("keep") is True and bound is not None:
        text = definition.text[slice(*bound.value.span)]
    elif bound is None:
        raise DomainError("This side of the domain is open already.")
    end = NewEnd(text, is_closed)
    changed = rewrite_domain(
        definition.text, line, low=end if side == "low" else None,
        high=end if side == "high" else None,
    )  # fmt: skip
    study.write(line_id, changed)
    return f"Change the domain of {definition.name}"


def _unit(study: Study, command: dict[str, Any], _window: Window) -> str:
    unit = command.get("unit")
    if unit not in ("radians", "degrees"):
        raise CommandError("Angles are measured in radians or degrees.")
    study.set_unit(unit)
    return f"Measure in {unit}"


def _digits(study: Study, command: dict[str, Any], _window: Window) -> str:
    digits = number_of(command, "digits")
    study.set_digits(digits)
    return f"Show {digits} digits"


def _move(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Put a line behind another; ``after`` None puts it at the top."""
    line_id, after = number_of(command, "id"), command.get("after")
    if after == line_id:
        raise CommandError("A line cannot stand behind itself.")
    study.move_line(line_id, number_of(command, "after") if after is not None else None)
    return f"Move {study.definition(line_id).name or 'a line'}"


def _duplicate(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Write a line once more behind itself, under the next free name."""
    line_id = number_of(command, "id")
    line, definition = study.line(line_id), study.definition(line_id)
    text = copied_text(line.text, definition.name, frozenset(study.names()))
    copy_id = study.next_id()
    study.write(copy_id, text, after=line_id)
    if definition.slider is not None:
        study.change_slider(copy_id, definition.slider)
    elif line.fixed:
        study.fix(copy_id, fixed=True)
    return f"Duplicate {definition.name or 'a line'}"


def _remove_several(study: Study, command: dict[str, Any], _window: Window) -> str:
    ids = command.get("ids")
    if not isinstance(ids, list) or not ids or not all(isinstance(each, int) for each in ids):
        raise CommandError("The change lacks its `ids`.")
    for line_id in ids:
        study.line(line_id)
        study.remove_line(line_id)
    return f"Delete {len(ids)} lines"


def _check(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Show a sampling check of a function, or none (``line`` None)."""
    if command.get("line") is None:
        study.set_check(None)
        return "Hide the sampling check"
    texts = (text_of(command, name).strip() for name in ("count", "step"))
    check = Check(number_of(command, "line"), *texts)
    study.function_line(check.line)
    study.check_points(check, (0.0, 1.0))
    study.set_check(check)
    return "Show a sampling check"


def _style(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Draw a line in another way; what is not given stays."""
    line_id, tone = number_of(command, "id"), command.get("tone")
    if tone is not None and (type(tone) is not int or not 0 <= tone < TONES):
        raise CommandError("A colour is one of the palette's.")
    style = style_from_dict(command.get("style", {}), study.line(line_id).style)
    study.restyle(line_id, style, tone)
    return f"Change the look of {study.definition(line_id).name or 'a line'}"


def _axes(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Change the look of the axes and the grid; what is not given stays."""
    axes = axes_from_dict(command.get("axes"), study.axes)
    for axis in (axes.x, axes.y):
        if axis.step:
            study.positive(axis.step)
    study.set_axes(axes)
    return "Change the axes"


_TABLE_FIELDS = (
    "start", "stop", "step", "count", "listed", "digits", "form", "columns", "over", "at",
)  # fmt: skip


def _table(study: Study, command: dict[str, Any], _window: Window) -> str:
    kept = table_to_dict(study.table)
    given = {name: command[name] for name in _TABLE_FIELDS if name in command}
    clean = {n: text_of(given, n) if isinstance(v, str) else v for n, v in given.items()}
    spec = table_from_dict(kept | clean)
    study.table_places(spec)
    study.check_columns(spec, study.functions())
    study.set_table(spec)
    return "Change the table"


def _work(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Write a line of the working, whether it reads or not."""
    text = text_of(command, "text")
    if command.get("id") is None:
        number = max((work.id for work in study.working), default=0) + 1
        study.set_working([*study.working, Work(number, text)])
        return "Calculate"
    number = number_of(command, "id")
    study.set_working([Work(number, text) if w.id == number else w for w in study.working])
    return "Change a calculation"


def _unwork(study: Study, command: dict[str, Any], _window: Window) -> str:
    number = number_of(command, "id")
    study.set_working([work for work in study.working if work.id != number])
    return "Delete a calculation"


#: Every command by its name.
COMMANDS: dict[str, Callable[[Study, dict[str, Any], Window], str]] = {
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
