"""Commands of the Findings panel: to ask, to note, to label, to forget."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.integral_queries import Integrals, is_endless
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.results import Results
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Count, Id, one_line
from axis_path.core.draw import Window
from axis_path.core.errors import CommandError, EquationError, LimitError
from axis_path.core.evaluate import RealFunction
from axis_path.core.features.command import Command, Edited, Handler
from axis_path.core.features.findings.section import (
    OF_A_LINE,
    QueryKind,
    SavedQueries,
    SavedQuery,
)
from axis_path.core.features.findings.solver import Solver
from axis_path.core.features.findings.systems import Systems
from axis_path.core.kinds.drawables import Drawables
from axis_path.core.limits import FINDING_LABELS, FINDINGS


class Find(Command, frozen=True, tag="find"):
    """Ask for what is located or measured, and keep the question.

    ``low`` and ``high`` null stand for the ends of the domain, or for everywhere; ``at_window``
    says that they are only those of the window, so that no extremum lies at them. ``text`` is the
    equation, or several in lines; the position of a point; ``lines`` or ``smooth`` for data.
    """

    what: QueryKind = QueryKind.ZEROS
    line: Id | None = None
    other: Id | None = None
    low: str | None = None
    high: str | None = None
    text: str = ""
    unknown: str = ""
    at_window: bool = False


class NoteFinding(Command, frozen=True, tag="note_finding"):
    """Keep a note with a question."""

    ask: Id
    note: str


class LabelFinding(Command, frozen=True, tag="label_finding"):
    """Label some answers on the plane, by their indices; without a question, none of any."""

    ask: Id | None
    labels: tuple[Count, ...] = ()


class Forget(Command, frozen=True, tag="forget"):
    """Remove a question."""

    ask: Id


def _find(snapshot: Snapshot, command: Find, _window: Window) -> Edited:
    if command.what in OF_A_LINE and command.line is None:
        raise CommandError("Choose a curve first.", path="line")
    number = max((each.id for each in snapshot.section(SavedQueries).queries), default=0) + 1
    low, high = (None if end is None else one_line(end) for end in (command.low, command.high))
    text, unknown = _lines(command.text), one_line(command.unknown)
    ask = SavedQuery(
        number, command.line, low, high, command.what, command.other, text, unknown,
        at_window=command.at_window,
    )  # fmt: skip
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
            snapshot.query(Systems).check_system(texts)
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


def _lines(text: str) -> str:
    return "\n".join(map(one_line, text.splitlines()))


def _note_finding(snapshot: Snapshot, command: NoteFinding, _window: Window) -> Edited:
    return _change_ask(snapshot, command.ask, note=one_line(command.note)), "Note a finding"


def _label_finding(snapshot: Snapshot, command: LabelFinding, _window: Window) -> Edited:
    if command.ask is None:
        asks = snapshot.section(SavedQueries).queries
        cleared = tuple(replace(ask, labels=()) for ask in asks)
        return _with(snapshot, cleared), "Remove all labels"
    labels = tuple(sorted(set(command.labels)))[: FINDING_LABELS.value]
    return _change_ask(snapshot, command.ask, labels=labels), "Label a finding"


def _with(snapshot: Snapshot, queries: tuple[SavedQuery, ...]) -> Snapshot:
    return snapshot.with_section(replace(snapshot.section(SavedQueries), queries=queries))


def _change_ask(snapshot: Snapshot, number: int, **changes: Any) -> Snapshot:  # noqa: ANN401 - fields of an ask
    asks = snapshot.section(SavedQueries).queries
    return _with(
        snapshot, tuple(replace(ask, **changes) if ask.id == number else ask for ask in asks)
    )


def _forget(snapshot: Snapshot, command: Forget, _window: Window) -> Edited:
    queries = snapshot.section(SavedQueries).queries
    kept = tuple(ask for ask in queries if ask.id != command.ask)
    return _with(snapshot, kept), "Remove a finding"


COMMANDS: dict[type[Command], Handler] = {
    Find: _find,
    Forget: _forget,
    NoteFinding: _note_finding,
    LabelFinding: _label_finding,
}
