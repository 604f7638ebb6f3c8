"""Sets of equations that are lines, with their solutions and what checks them."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from axis_path.bench import messages
from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import EquationSetQuery
from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.results import Results
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.deadline import calculation
from axis_path.core.errors import MathError, StoppedError
from axis_path.core.evaluate import Result
from axis_path.core.features.equations.sheets import SetLines, SetSummary
from axis_path.core.features.equations.solving import SolvedSet
from axis_path.core.features.findings.answer_rows import is_same
from axis_path.core.features.findings.section import SavedQueries
from axis_path.core.features.findings.set_answers import checks_of, typeset_equations
from axis_path.core.language import latex_line, typeset_signature
from axis_path.core.lines.set_options import SearchBound

#: So many solutions are put into the equations.
_MOST_CHECKED = 20


def equation_set(job: Job, query: EquationSetQuery) -> dict[str, Any]:
    """Return a set of equations with all its solutions, each with its check by substitution."""
    request = realise(job, query)
    snapshot = request.study.snapshot
    definition, lines = snapshot.definition(query.id), snapshot.query(SetLines)
    settled = snapshot.analysis.sets.get(snapshot.index_of(query.id))
    if settled is None:
        raise definition.problem or MathError(messages.LINE_NOT_SET_EQUATIONS)
    digits = snapshot.section(SavedQueries).digits
    solved: SolvedSet | None = None
    with calculation():
        summary = lines.summary(query.id, digits)
        try:
            solved = lines.solved(query.id)
        except MathError:
            # The summary says why.
            solved = None
        solutions = [] if solved is None else _solutions(snapshot, solved, digits)
    if query.checked and solved is not None:
        _check(snapshot, solved, solutions, digits)
    read = settled.read
    given = {bound.name: bound for bound in _bounds(snapshot, query.id)}
    return {
        "version": request.version,
        "title": definition.name or "",
        "equations": list(typeset_equations(read)),
        "latex": "" if definition.line is None else latex_line(definition.line, definition.name),
        "text": definition.text,
        "known": _known(snapshot, read.known, digits),
        "verdict": "" if summary is None else summary.verdict,
        "is_sure": summary is not None and summary.is_sure,
        "note": "" if summary is None else _note(summary),
        "chosen": lines.chosen(query.id),
        "solutions": solutions,
        "bounds": [
            {
                "name": name,
                "unit": read.unit(name).printed,
                "low": given[name].low if name in given else "",
                "high": given[name].high if name in given else "",
            }
            for name in read.unknowns
        ],
        "box": 0 if solved is None else solved.box,
    }


def _note(summary: SetSummary) -> str:
    return " ".join([summary.note, *(one.sentence for one in summary.meanings)]).strip()


def _bounds(snapshot: Snapshot, line_id: int) -> tuple[SearchBound, ...]:
    options = snapshot.line(line_id).options
    return () if options is None else options.bounds


def _known(snapshot: Snapshot, names: tuple[str, ...], digits: int) -> list[dict[str, Any]]:
    """Return the names of other lines, with their values; functions have none."""
    values = []
    for name in names:
        try:
            result = snapshot.query(Results).value(name)
        except MathError:
            continue
        values.append(_value(name, result, digits, proved=True))
    return values


def _solutions(snapshot: Snapshot, solved: SolvedSet, digits: int) -> list[dict[str, Any]]:
    return [
        {
            "values": [
                _value(name, values[name], digits, proved=one.values[input_name(name)].proved)
                for name in solved.read.unknowns
                if name in values
            ],
            "proved": one.proved,
            "checks": [],
        }
        for values, one in zip(solved.values, solved.solutions.solutions, strict=True)
    ]


def _check(
    snapshot: Snapshot, solved: SolvedSet, solutions: list[dict[str, Any]], digits: int
) -> None:
    """Put the first solutions into their equations; one that takes too long is left out."""
    for place, solution in enumerate(solutions[:_MOST_CHECKED]):
        try:
            with calculation():
                checks = checks_of(snapshot, solved, place, digits)
        except StoppedError:
            continue
        solution["checks"] = [asdict(check) for check in checks]


def _value(name: str, result: Result, digits: int, *, proved: bool) -> dict[str, Any]:
    decimal = result.decimal(digits)
    plain = result if result.number is None else result.number
    exact = "" if plain.rational is None else str(plain.rational).replace("-", "−")
    if is_same(exact, plain.decimal(digits)):
        exact = ""
    return {
        "name": name,
        "mathml": typeset_signature(name, ()),
        "text": decimal or f"no value: {result.reason}",
        "exact": f"= {exact} {decimal.partition(' ')[2]}".strip() if exact else "",
        "proved": proved,
    }
