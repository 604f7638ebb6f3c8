"""Changes to a study as plain data, so that they can be sent, tried out and kept.

The same commands serve a draft, while a hand drags something, and the change that is kept when it
lets go. Each gives a few words for the undo button.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from fractions import Fraction
from typing import Any

from axis_path.core.draw import Window
from axis_path.core.errors import DomainError, LimitError, MathError, SliderError
from axis_path.core.evaluate import ResultKind
from axis_path.core.limits import FINDINGS, LINE_LENGTH
from axis_path.core.study.axes import axes_from_dict
from axis_path.core.study.document import Ask, Check, TableSpec, Work, range_from_texts
from axis_path.core.study.domains import NewEnd, number_text, rewrite_domain, round_to
from axis_path.core.study.renaming import copied_text
from axis_path.core.study.sliders import exact_number, slider_value
from axis_path.core.study.study import Study
from axis_path.core.study.style import TONES, style_from_dict


class CommandError(MathError):
    """A command that cannot be carried out on this study."""

    code = "study.command"


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
    try:
        return COMMANDS[command["do"]](study, command, window)
    except KeyError as err:
        raise CommandError("The line is not there any more; reload the page.") from err


def _number(command: dict[str, Any], name: str) -> int:
    value = command.get(name)
    if not isinstance(value, int) or isinstance(value, bool):
        raise CommandError(f"The change lacks its `{name}`.")
    return value


def _text(command: dict[str, Any], name: str) -> str:
    value = command.get(name)
    if not isinstance(value, str):
        raise CommandError(f"The change lacks its `{name}`.")
    if len(value) > LINE_LENGTH.value:
        raise LimitError(f"More than {LINE_LENGTH.value:,} characters cannot be kept in a line.")
    if any("\ud800" <= sign <= "\udfff" or sign == "\0" for sign in value):
        raise CommandError("The text holds signs that are no characters.")
    # A line is a line: what was pasted over several lines reads as one.
    return " ".join(value.split())


def _called(study: Study, line_id: int) -> str:
    name = study.definition(line_id).name
    return name if name is not None else "a line"


def _write(study: Study, command: dict[str, Any], _window: Window) -> str:
    text = _text(command, "text")
    if command.get("id") is None:
        line_id = study.next_id()
        after = command.get("after")
        study.write(line_id, text, after=after if isinstance(after, int) else None)
        return f"Write {_called(study, line_id)}"
    line_id = _number(command, "id")
    study.line(line_id)
    followed = study.write_renaming(line_id, text)
    label = f"Edit {_called(study, line_id)}"
    return f"{label}, and its name in {_listed(followed)}" if followed else label


def _listed(names: list[str]) -> str:
    """Give names as words: `g`, `h` and `p`."""
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _rename(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id, new = _number(command, "id"), _text(command, "name")
    old = study.definition(line_id).name
    if old is None:
        raise CommandError("This line has no name to change.")
    study.rename(old, new.strip())
    return f"Rename {old} to {new.strip()}"


def _remove(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id = _number(command, "id")
    name = _called(study, line_id)
    needed_by = study.remove_line(line_id)
    return f"Delete {name}, which {_listed(needed_by)} needed" if needed_by else f"Delete {name}"


def _hide(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id, hidden = _number(command, "id"), command.get("hidden") is True
    study.line(line_id)
    study.mark_line(line_id, hidden=hidden)
    return f"{'Hide' if hidden else 'Show'} {_called(study, line_id)}"


def _aside(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id, aside = _number(command, "id"), command.get("aside") is True
    study.line(line_id)
    study.mark_line(line_id, aside=aside)
    return f"{'Set aside' if aside else 'Take back'} {_called(study, line_id)}"


def _slider_of(study: Study, line_id: int) -> tuple[str, Fraction]:
    found = slider_value(study.line(line_id).text)
    if found is None:
        raise SliderError("This line has no slider any more.")
    return found


def _set(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Move a slider; a dragged value snaps to the steps, a typed one (a text) does not."""
    line_id, value = _number(command, "id"), command.get("value")
    name, _ = _slider_of(study, line_id)
    if isinstance(value, str):
        exact = _typed(study, value)
    elif isinstance(value, int | float) and not isinstance(value, bool):
        chosen = study.line(line_id).slider
        exact = exact_number(value)
        exact = chosen.snap(exact) if chosen is not None else exact
    else:
        raise SliderError("A slider needs a number.")
    study.set(name, exact)
    return f"Move {name}"


def _typed(study: Study, text: str) -> Fraction:
    """Read a typed number or expression as an exact number, rounded if it has no finite form."""
    try:
        return exact_number(text.strip())
    except SliderError:
        result = study.evaluate(text)
    if result.reason:
        raise SliderError(f"`{text}` has no value: {result.reason}.")
    if result.kind is not ResultKind.NUMBER:
        raise SliderError(f"`{text}` is no single real number.")
    return result.rational if result.rational is not None else exact_number(result.value)


def _range(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id = _number(command, "id")
    name, value = _slider_of(study, line_id)
    texts = (str(_typed(study, _text(command, part))) for part in ("low", "high", "step"))
    chosen = range_from_texts(*texts)
    study.set(name, value, low=chosen.low, high=chosen.high, step=chosen.step)
    return f"Change the range of {name}"


def _make_sliders(study: Study, command: dict[str, Any], _window: Window) -> str:
    names = command.get("names")
    if not isinstance(names, list) or not names or not all(isinstance(n, str) for n in names):
        raise CommandError("The change lacks its `names`.")
    for name in names:
        study.set(name, 1)
    return f"Make {'a slider of' if len(names) == 1 else 'sliders of'} {' and '.join(names)}"


def _domain(study: Study, command: dict[str, Any], window: Window) -> str:
    """Move one end of a domain, fill or hollow it, or leave it open (``x`` and ``text`` None)."""
    line_id, side = _number(command, "id"), command.get("end")
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


def _move(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Put a line behind another; ``after`` None puts it at the top."""
    line_id, after = _number(command, "id"), command.get("after")
    if after == line_id:
        raise CommandError("A line cannot stand behind itself.")
    study.move_line(line_id, _number(command, "after") if after is not None else None)
    return f"Move {study.definition(line_id).name or 'a line'}"


def _duplicate(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Write a line once more behind itself, under the next free name."""
    line_id = _number(command, "id")
    line, definition = study.line(line_id), study.definition(line_id)
    text = copied_text(line.text, definition.name, frozenset(study.names()))
    study.write(study.next_id(), text, after=line_id)
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
    texts = (_text(command, name).strip() for name in ("count", "step"))
    check = Check(_number(command, "line"), *texts)
    study.function_line(check.line)
    study.check_points(check, (0.0, 1.0))
    study.set_check(check)
    return "Show a sampling check"


def _style(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Draw a line in another way; what is not given stays."""
    line_id, tone = _number(command, "id"), command.get("tone")
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


def _table(study: Study, command: dict[str, Any], _window: Window) -> str:
    spec = TableSpec(*(_text(command, part) for part in ("start", "stop", "step")))
    study.places(spec.start, spec.stop, spec.step)
    study.set_table(spec)
    return "Change the table"


def _find(study: Study, command: dict[str, Any], _window: Window) -> str:
    line_id = _number(command, "line")
    definition = study.definition(line_id)
    function = study.function(definition.name or "")
    low, high = (
        _text(command, end) if isinstance(command.get(end), str) else None
        for end in ("low", "high")
    )
    study.interval(function, low, high)
    if len(study.asks) >= FINDINGS.value:
        raise LimitError(f"A study can keep {FINDINGS.value} findings.")
    number = max((ask.id for ask in study.asks), default=0) + 1
    # The newest comes first; the same search again moves up instead of standing twice.
    kept = [a for a in study.asks if replace(a, id=0) != Ask(0, line_id, low, high)]
    study.set_asks([Ask(number, line_id, low, high), *kept])
    return f"Locate the zeros of {definition.name}"


def _forget(study: Study, command: dict[str, Any], _window: Window) -> str:
    number = _number(command, "ask")
    study.set_asks([ask for ask in study.asks if ask.id != number])
    return "Remove a finding"


#: Every command by its name.
def _work(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Write a line of the working, whether it reads or not."""
    text = _text(command, "text")
    if command.get("id") is None:
        number = max((work.id for work in study.working), default=0) + 1
        study.set_working([*study.working, Work(number, text)])
        return "Calculate"
    number = _number(command, "id")
    study.set_working([Work(number, text) if w.id == number else w for w in study.working])
    return "Change a calculation"


def _unwork(study: Study, command: dict[str, Any], _window: Window) -> str:
    number = _number(command, "id")
    study.set_working([work for work in study.working if work.id != number])
    return "Delete a calculation"


COMMANDS: dict[str, Callable[[Study, dict[str, Any], Window], str]] = {
    "write": _write,
    "rename": _rename,
    "remove": _remove,
    "hide": _hide,
    "aside": _aside,
    "style": _style,
    "set": _set,
    "range": _range,
    "make_sliders": _make_sliders,
    "domain": _domain,
    "unit": _unit,
    "axes": _axes,
    "check": _check,
    "duplicate": _duplicate,
    "move": _move,
    "remove_several": _remove_several,
    "table": _table,
    "find": _find,
    "forget": _forget,
    "work": _work,
    "unwork": _unwork,
}
