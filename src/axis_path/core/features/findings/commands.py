"""Commands of the Findings panel: to ask, to note, to label, to forget."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.integral_queries import Integrals, is_endless
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.results import Results
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.errors import EquationError, LimitError
from axis_path.core.evaluate import RealFunction
from axis_path.core.features.command import Command, Edited
from axis_path.core.features.fields import number_of, text_of
from axis_path.core.features.findings.section import (
    QueryKind,
    SavedQueries,
    SavedQuery,
    labels_from,
    query_from_dict,
)
from axis_path.core.features.findings.solver import Solver
from axis_path.core.kinds.drawables import Drawables
from axis_path.core.limits import FINDINGS


def _find(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    clean = {
        name: "\n".join(text_of({name: line}, name) for line in str(command[name]).splitlines())
        for name in ("low", "high", "text", "unknown")
        if isinstance(command.get(name), str)
    }
    number = max((each.id for each in snapshot.section(SavedQueries).queries), default=0) + 1
    ask = query_from_dict({**command, **clean, "id": number, "note": "", "labels": []})
    _check_ask(snapshot, ask)
    # The newest comes first; the same search again moves up instead of standing twice.
    queries = snapshot.section(SavedQueries).queries
    before = next((each for each in queries if each.same_question(ask)), None)
    if before is not None:
        ask = replace(ask, note=before.note, labels=before.labels)
    kept = [each for each in queries if each is not before]
    if len(kept) >= FINDINGS.value:
        raise LimitError(f"A study can keep {FINDINGS.value} findings.")
    snapshot = _with(snapshot, (ask, *kept))
    if ask.what is QueryKind.SOLVE:
        return snapshot, f"Solve {ask.text.splitlines()[0]}"
    return snapshot, f"Locate the {ask.what.value} of {snapshot.definition(ask.line or 0).name}"


def _check_ask(snapshot: Snapshot, ask: SavedQuery) -> None:
    """Refuse what cannot be asked; what has no answer for now says so in its entry."""
    if ask.what is QueryKind.SOLVE:
        texts = [line for line in ask.text.splitlines() if line.strip()]
        if not texts:
            raise EquationError("Write an equation first, as in `x^2 = 2`.")
        if len(texts) == 1:
            snapshot.query(Solver).equation(texts[0], ask.unknown or None)
        else:
            snapshot.query(Solver).check_system(texts)
        for end in (ask.low, ask.high):
            if end is not None:
                snapshot.query(Numbers).number(end)
        return
    name = snapshot.definition(ask.line or 0).name or ""
    if ask.what is QueryKind.DATA:
        snapshot.query(Results).points_of(name)
        return
    if ask.what is QueryKind.INTERSECTIONS:
        other = snapshot.definition(ask.other or 0).name or ""
        if other == name:
            raise EquationError("Choose two different curves.")
        curves = [snapshot.query(Drawables).curve_of(each) for each in (name, other)]
        functions = [each for each in curves if isinstance(each, RealFunction)]
        snapshot.query(Numbers).interval(functions[0] if functions else None, ask.low, ask.high)
        return
    function = snapshot.query(Curves).function(name)
    if ask.what is QueryKind.POINT:
        snapshot.query(Numbers).number(ask.text)
    elif ask.what is QueryKind.INTERVAL and any(map(is_endless, (ask.low, ask.high))):
        snapshot.query(Integrals).endless_parts(function, ask.low, ask.high)
    else:
        snapshot.query(Numbers).interval(function, ask.low, ask.high)


def _note_finding(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    note = text_of(command, "note")
    snapshot = _change_ask(snapshot, number_of(command, "ask"), note=note)
    return snapshot, "Note a finding"


def _label_finding(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Label some answers on the plane; without an entry, none of any."""
    if command.get("ask") is None:
        asks = snapshot.section(SavedQueries).queries
        snapshot = _with(snapshot, tuple(replace(ask, labels=()) for ask in asks))
        return snapshot, "Take all labels away"
    snapshot = _change_ask(
        snapshot, number_of(command, "ask"), labels=labels_from(command.get("labels"))
    )
    return snapshot, "Label a finding"


def _with(snapshot: Snapshot, queries: tuple[SavedQuery, ...]) -> Snapshot:
    return snapshot.with_section(replace(snapshot.section(SavedQueries), queries=queries))


def _change_ask(snapshot: Snapshot, number: int, **changes: Any) -> Snapshot:  # noqa: ANN401 - fields of an ask
    asks = snapshot.section(SavedQueries).queries
    return _with(
        snapshot, tuple(replace(ask, **changes) if ask.id == number else ask for ask in asks)
    )


def _forget(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    number = number_of(command, "ask")
    queries = snapshot.section(SavedQueries).queries
    asks = tuple(ask for ask in queries if ask.id != number)
    snapshot = _with(snapshot, asks)
    return snapshot, "Remove a finding"


COMMANDS: dict[str, Command] = {
    "find": _find,
    "forget": _forget,
    "note_finding": _note_finding,
    "label_finding": _label_finding,
}
