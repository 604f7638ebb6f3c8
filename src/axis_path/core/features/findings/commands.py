"""Commands of the Findings panel: to ask, to note, to label, to forget."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Any

from axis_path.core.catalogue.units import NO_UNIT, UnitProduct
from axis_path.core.compile.curves import Curves
from axis_path.core.compile.integrals.queries import Integrals, is_endless
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.sets.read_set import read_set
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Count, Id, one_line
from axis_path.core.draw import Window
from axis_path.core.errors import CommandError, EquationError, LimitError
from axis_path.core.evaluate import RealFunction
from axis_path.core.features.command import Command, Edited, Handler
from axis_path.core.features.findings.measures import Measures
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
    ``over_complex`` solves one equation over the complex numbers.
    """

    what: QueryKind = QueryKind.ZEROS
    line: Id | None = None
    other: Id | None = None
    low: str | None = None
    high: str | None = None
    text: str = ""
    unknown: str = ""
    at_window: bool = False
    over_complex: bool = False


class NoteFinding(Command, frozen=True, tag="note_finding"):
    """Keep a note with a question."""

    query: Id
    note: str


class LabelFinding(Command, frozen=True, tag="label_finding"):
    """Label some answers on the plane, by their indices; without a question, none of any."""

    query: Id | None
    labels: tuple[Count, ...] = ()


class Forget(Command, frozen=True, tag="forget"):
    """Remove a question."""

    query: Id


def _find(snapshot: Snapshot, command: Find, _window: Window) -> Edited:
    if command.what in OF_A_LINE and command.line is None:
        raise CommandError("Choose a curve first.", path="line")
    number = max((query.id for query in snapshot.section(SavedQueries).queries), default=0) + 1
    low, high = (None if end is None else one_line(end) for end in (command.low, command.high))
    text, unknown = _lines(command.text), one_line(command.unknown)
    saved = SavedQuery(
        number, command.line, low, high, command.what, command.other, text, unknown,
        at_window=command.at_window, over_complex=command.over_complex,
    )  # fmt: skip
    _check_query(snapshot, saved)
    # The newest comes first; the same search again moves up instead of standing twice.
    queries = snapshot.section(SavedQueries).queries
    before = next((query for query in queries if query.same_question(saved)), None)
    if before is not None:
        saved = replace(saved, note=before.note, labels=before.labels)
    remaining = [query for query in queries if query is not before]
    if len(remaining) >= FINDINGS.value:
        raise LimitError(f"A study can keep {FINDINGS.value} findings.")
    snapshot = _with(snapshot, (saved, *remaining))
    if saved.what is QueryKind.SOLVE:
        return snapshot, f"Solve {saved.text.splitlines()[0]}"
    return snapshot, f"Locate the {saved.what.value} of {snapshot.definition(saved.line or 0).name}"


def _check_query(snapshot: Snapshot, saved: SavedQuery) -> None:
    """Refuse what cannot be asked; what has no answer for now says so in its entry."""
    if saved.what is QueryKind.SOLVE:
        texts = [line for line in saved.text.splitlines() if line.strip()]
        if not texts:
            raise EquationError("Write an equation first, as in `x^2 = 2`.")
        units: Iterable[UnitProduct] = (NO_UNIT,)
        if len(texts) == 1:
            units = (snapshot.query(Solver).equation(texts[0], saved.unknown or None).unit,)
        # What is no system of the usual letters may be a set of any names.
        elif not snapshot.query(Systems).can_solve(texts):
            units = read_set(snapshot.analysis, texts).units.values()
        for end in (saved.low, saved.high):
            for unit in units if end is not None else ():
                snapshot.query(Numbers).number(end or "", unit)
        return
    name = snapshot.definition(saved.line or 0).name or ""
    if saved.what is QueryKind.DATA:
        snapshot.query(Measures).in_data(name)
        return
    if saved.what is QueryKind.INTERSECTIONS:
        other = snapshot.definition(saved.other or 0).name or ""
        if other == name:
            raise EquationError("Choose two different curves.")
        curves = [snapshot.query(Drawables).curve_of(line_name) for line_name in (name, other)]
        functions = [curve for curve in curves if isinstance(curve, RealFunction)]
        snapshot.query(Numbers).interval(functions[0] if functions else None, saved.low, saved.high)
        return
    function = snapshot.query(Curves).function(name)
    if saved.what is QueryKind.POINT:
        snapshot.query(Numbers).number(saved.text, function.units.variable)
    elif saved.what is QueryKind.INTERVAL and any(map(is_endless, (saved.low, saved.high))):
        snapshot.query(Integrals).endless_parts(function, saved.low, saved.high)
    else:
        snapshot.query(Numbers).interval(function, saved.low, saved.high)


def _lines(text: str) -> str:
    return "\n".join(map(one_line, text.splitlines()))


def _note_finding(snapshot: Snapshot, command: NoteFinding, _window: Window) -> Edited:
    return _change_query(snapshot, command.query, note=one_line(command.note)), "Note a finding"


def _label_finding(snapshot: Snapshot, command: LabelFinding, _window: Window) -> Edited:
    if command.query is None:
        saved_queries = snapshot.section(SavedQueries).queries
        cleared = tuple(replace(saved, labels=()) for saved in saved_queries)
        return _with(snapshot, cleared), "Remove all labels"
    labels = tuple(sorted(set(command.labels)))[: FINDING_LABELS.value]
    return _change_query(snapshot, command.query, labels=labels), "Label a finding"


def _with(snapshot: Snapshot, queries: tuple[SavedQuery, ...]) -> Snapshot:
    return snapshot.with_section(replace(snapshot.section(SavedQueries), queries=queries))


def _change_query(snapshot: Snapshot, number: int, **changes: Any) -> Snapshot:  # noqa: ANN401 - fields of a saved query
    saved_queries = snapshot.section(SavedQueries).queries
    return _with(
        snapshot,
        tuple(
            replace(saved, **changes) if saved.id == number else saved for saved in saved_queries
        ),
    )


def _forget(snapshot: Snapshot, command: Forget, _window: Window) -> Edited:
    queries = snapshot.section(SavedQueries).queries
    remaining = tuple(saved for saved in queries if saved.id != command.query)
    return _with(snapshot, remaining), "Remove a finding"


COMMANDS: dict[type[Command], Handler] = {
    Find: _find,
    Forget: _forget,
    NoteFinding: _note_finding,
    LabelFinding: _label_finding,
}
