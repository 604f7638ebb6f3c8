"""The lines of Working with their results."""

from __future__ import annotations

import time
from dataclasses import asdict
from typing import Any

from axis_path.bench import messages
from axis_path.bench.errors import RequestError
from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import (
    WorkingQuery,
    WorkTextQuery,
)
from axis_path.bench.results import exact_or_note
from axis_path.core import Study
from axis_path.core.catalogue.units import read_unit
from axis_path.core.deadline import calculation
from axis_path.core.dimensions import ShownQuantity
from axis_path.core.errors import CommandError, MathError
from axis_path.core.evaluate import Result, ResultKind
from axis_path.core.features.units.row import unit_choice
from axis_path.core.features.working.edits import set_working
from axis_path.core.features.working.queries import WorkingResults, WorkKind, WorkValue
from axis_path.core.features.working.section import Working, WorkingLine
from axis_path.core.features.working.shown import ShownResult, first_entries, shown_result
from axis_path.core.language import Vocabulary, latex, read_expression, typeset
from axis_path.core.language.tree import Node
from axis_path.core.limits import DIGITS
from axis_path.core.study import problem_dict

#: After so long no more results are computed in one request; the rest comes with the next.
_BUDGET_S = 4.0
#: So much of a long text is sent at first.
_CUT = 600


def working(job: Job, query: WorkingQuery) -> dict[str, Any]:
    """Return the lines of Working with their results."""
    if not 1 <= query.digits <= DIGITS.value:
        raise RequestError(messages.WORKING_SHOWS_MOST_DIGITS(most=DIGITS.value), "digits")
    request = realise(job, query)
    return {
        "version": request.version,
        "working": working_lines(request.study, query.digits, query.again),
    }


def working_lines(study: Study, digits: int, again: int | None = None) -> list[dict[str, Any]]:
    """Return every line of Working with its result.

    Args:
        study: of which.
        digits: of the decimals.
        again: a line that is computed even if it took too long before.
    """
    # The first line is computed in any case, so that every request comes further.
    end: float | None = None
    results = study.snapshot.query(WorkingResults)
    lines = []
    for value in results.lines():
        line = _line(value)
        if value.problem is not None:
            line["problem"] = problem_dict(value.problem)
        elif value.kind is WorkKind.VALUE and not value.variables:
            in_time = end is None or time.monotonic() < end
            end = end or time.monotonic() + _BUDGET_S
            line |= (
                _computed(results, value, digits, study, again) if in_time else {"is_waiting": True}
            )
        lines.append(line)
    return lines


def _line(value: WorkValue) -> dict[str, Any]:
    line = value.line
    return {
        "id": line.id, "text": line.text, "kind": value.kind.value, "name": value.name,
        "mathml": value.mathml, "latex": value.latex, "variables": list(value.variables),
        "shape": line.shape.value, "complex_shape": line.complex_shape.value,
        "digits": line.digits, "problem": None, "result": None, "is_waiting": False,
        "words": [asdict(part) for part in value.note],
    }  # fmt: skip


def _computed(
    results: WorkingResults, value: WorkValue, digits: int, study: Study, again: int | None
) -> dict[str, Any]:
    digits = value.line.digits or digits
    try:
        with calculation():
            result = results.result(value, again=value.line.id == again)
            shown = shown_result(results, value, result, digits, study.snapshot.unit)
        note = exact_or_note(result)[1]
    except MathError as err:
        return {"problem": problem_dict(err)}
    return {"result": _result(result, shown, digits, note)}


def _result(result: Result, shown: ShownResult, digits: int, note: str) -> dict[str, Any]:
    node = _read(shown.large) if shown.large_exact and len(shown.large) <= _CUT else None
    shape = list(result.value.shape) if result.kind in (ResultKind.LIST, ResultKind.MATRIX) else []
    is_long = bool(shape) and len(shown.large) > _CUT
    return {
        "kind": result.kind.value,
        "large": shown.large[:_CUT] or "undefined",
        "beside": shown.beside[:_CUT],
        "length": len(shown.large),
        "is_equal": shown.is_equal,
        "mathml": "" if node is None else typeset(node),
        "latex": "" if node is None else latex(node),
        "shapes": [shape.value for shape in shown.shapes],
        "complex_shapes": [shape.value for shape in shown.complex_shapes],
        "shape": shape,
        "corner": first_entries(result, shown.chosen, digits) if is_long else [],
        "reason": result.reason,
        "note": note or result.remark,
        "units": _units(result),
    }


def _units(result: Result) -> dict[str, Any] | None:
    """Return the unit of a result with those that fit as well; None of a plain number."""
    unit = read_unit(result.unit) if result.unit else None
    return None if unit is None else unit_choice(ShownQuantity(unit.dimension), unit)


def _read(text: str) -> Node | None:
    try:
        return read_expression(text, Vocabulary())
    except MathError:
        return None


def work_text(job: Job, query: WorkTextQuery) -> dict[str, Any]:
    """Return all of a long result."""
    request = realise(job, query)
    results = request.study.snapshot.query(WorkingResults)
    value = results.read(stored(request.study, query.id))
    with calculation():
        result = results.result(value)
        digits = value.line.digits or query.digits
        shown = shown_result(results, value, result, digits, request.study.snapshot.unit)
    return {"version": request.version, "text": shown.large}


def stored(study: Study, line_id: int) -> WorkingLine:
    """Return a line of Working.

    Raises:
        CommandError: it is not there any more.
    """
    line = next((w for w in study.snapshot.section(Working).lines if w.id == line_id), None)
    if line is None:
        raise CommandError(messages.LINE_WORKING_HAS_BEEN)
    return line


def working_preview(study: Study, text: str, line_id: int | None) -> dict[str, Any]:
    """Return how a text would be read as a line of Working, in the place of one or as a new one."""
    lines = [line for line in study.snapshot.section(Working).lines if line.id != line_id]
    own = WorkingLine(max((line.id for line in lines), default=0) + 1, text)
    snapshot = set_working(study.snapshot, [*lines, own])
    value = snapshot.query(WorkingResults).read(own)
    problem = value.problem
    return {
        "kind": None, "name": value.name, "mathml": value.mathml, "domain": "",
        "latex": value.latex, "hint": "",
        "problem": None if problem is None else problem_dict(problem),
    }  # fmt: skip
