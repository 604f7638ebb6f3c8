"""Commands of the Findings panel: to ask, to note, to label, to forget."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from axis_path.core.draw import Window
from axis_path.core.errors import EquationError, LimitError
from axis_path.core.evaluate import RealFunction
from axis_path.core.limits import FINDINGS
from axis_path.core.study.asking import Ask, Question, ask_from_dict, labels_from
from axis_path.core.study.command_fields import number_of, text_of
from axis_path.core.study.measuring import is_endless
from axis_path.core.study.study import Study


def _find(study: Study, command: dict[str, Any], _window: Window) -> str:
    clean = {
        name: "\n".join(text_of({name: line}, name) for line in str(command[name]).splitlines())
        for name in ("low", "high", "text", "unknown")
        if isinstance(command.get(name), str)
    }
    number = max((each.id for each in study.asks), default=0) + 1
    ask = ask_from_dict({**command, **clean, "id": number, "note": "", "labels": []})
    _check_ask(study, ask)
    # The newest comes first; the same search again moves up instead of standing twice.
    before = next((each for each in study.asks if each.same_question(ask)), None)
    if before is not None:
        ask = replace(ask, note=before.note, labels=before.labels)
    kept = [each for each in study.asks if each is not before]
    if len(kept) >= FINDINGS.value:
        raise LimitError(f"A study can keep {FINDINGS.value} findings.")
    study.set_asks([ask, *kept])
    if ask.what is Question.SOLVE:
        return f"Solve {ask.text.splitlines()[0]}"
    return f"Locate the {ask.what.value} of {study.definition(ask.line or 0).name}"


def _check_ask(study: Study, ask: Ask) -> None:
    """Refuse what cannot be asked; what has no answer for now says so in its entry."""
    if ask.what is Question.SOLVE:
        texts = [line for line in ask.text.splitlines() if line.strip()]
        if not texts:
            raise EquationError("Write an equation first, as in `x^2 = 2`.")
        if len(texts) == 1:
            study.equation(texts[0], ask.unknown or None)
        else:
            study.check_system(texts)
        for end in (ask.low, ask.high):
            if end is not None:
                study.number(end)
        return
    name = study.definition(ask.line or 0).name or ""
    if ask.what is Question.DATA:
        study.points_of(name)
        return
    if ask.what is Question.INTERSECTIONS:
        other = study.definition(ask.other or 0).name or ""
        if other == name:
            raise EquationError("Choose two different curves.")
        curves = [study.curve_of(each) for each in (name, other)]
        functions = [each for each in curves if isinstance(each, RealFunction)]
        study.interval(functions[0] if functions else None, ask.low, ask.high)
        return
    function = study.function(name)
    if ask.what is Question.POINT:
        study.number(ask.text)
    elif ask.what is Question.INTERVAL and any(map(is_endless, (ask.low, ask.high))):
        study.endless_parts(function, ask.low, ask.high)
    else:
        study.interval(function, ask.low, ask.high)


def _note_finding(study: Study, command: dict[str, Any], _window: Window) -> str:
    note = text_of(command, "note")
    _change_ask(study, number_of(command, "ask"), note=note)
    return "Note a finding"


def _label_finding(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Label some answers on the plane; without an entry, none of any."""
    if command.get("ask") is None:
        study.set_asks([replace(ask, labels=()) for ask in study.asks])
        return "Take all labels away"
    _change_ask(study, number_of(command, "ask"), labels=labels_from(command.get("labels")))
    return "Label a finding"


def _change_ask(study: Study, number: int, **changes: Any) -> None:  # noqa: ANN401 - fields of an ask
    study.set_asks([replace(ask, **changes) if ask.id == number else ask for ask in study.asks])


def _forget(study: Study, command: dict[str, Any], _window: Window) -> str:
    number = number_of(command, "ask")
    study.set_asks([ask for ask in study.asks if ask.id != number])
    return "Remove a finding"


FINDING_COMMANDS: dict[str, Callable[[Study, dict[str, Any], Window], str]] = {
    "find": _find,
    "forget": _forget,
    "note_finding": _note_finding,
    "label_finding": _label_finding,
}
