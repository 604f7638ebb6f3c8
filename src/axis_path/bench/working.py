"""Working as plain data: its lines, their results, their sketches, and row reductions."""

from __future__ import annotations

import time
from collections.abc import Iterator
from fractions import Fraction
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.bench.answer import FileAnswer
from axis_path.bench.errors import RequestError
from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import (
    ReductionQuery,
    WorkCellsQuery,
    WorkingQuery,
    WorkSketchQuery,
    WorkTextQuery,
)
from axis_path.bench.results import exact_or_note
from axis_path.core import Study, Window
from axis_path.core.algebra import RowReduction, SolutionKind, SolutionSet
from axis_path.core.algebra.operations import Rows
from axis_path.core.compile.results import Results
from axis_path.core.deadline import calculation
from axis_path.core.draw.pixels import tenths_across, tenths_down
from axis_path.core.errors import CommandError, MathError
from axis_path.core.evaluate import Result, ResultKind
from axis_path.core.features.reduction.queries import OwnStep, Reducible, Reductions, own_steps
from axis_path.core.features.working.edits import set_working
from axis_path.core.features.working.queries import WorkingResults, WorkKind, WorkValue
from axis_path.core.features.working.section import Working, WorkingLine
from axis_path.core.features.working.shown import ShownResult, shown_result
from axis_path.core.features.working.sketch import curve_sketch, entries_sketch
from axis_path.core.language import Vocabulary, latex, read_expression, typeset
from axis_path.core.language.tree import Index, Name, Node, Number, Part
from axis_path.core.limits import DIGITS
from axis_path.core.study import problem_dict

#: After so long no more results are computed in one request; the rest comes with the next.
_BUDGET_S = 4.0
#: So much of a long text is sent at first.
_CUT = 600
_CELLS = 20


def working(job: Job, query: WorkingQuery) -> dict[str, Any]:
    """Return the lines of Working with their results."""
    if not 1 <= query.digits <= DIGITS.value:
        raise RequestError(f"Working shows 1 to {DIGITS.value:,} digits.", "digits")
    request = realise(job, query)
    return {"version": request.version, "working": working_lines(request.study, query.digits)}


def working_lines(study: Study, digits: int) -> list[dict[str, Any]]:
    """Return every line of Working with its result."""
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
            line |= _computed(results, value, digits, study) if in_time else {"is_waiting": True}
        lines.append(line)
    return lines


def _line(value: WorkValue) -> dict[str, Any]:
    line = value.line
    return {
        "id": line.id, "text": line.text, "kind": value.kind.value, "name": value.name,
        "mathml": value.mathml, "latex": value.latex, "variables": list(value.variables),
        "shape": line.shape.value, "complex_shape": line.complex_shape.value,
        "digits": line.digits, "problem": None, "result": None, "is_waiting": False,
    }  # fmt: skip


def _computed(
    results: WorkingResults, value: WorkValue, digits: int, study: Study
) -> dict[str, Any]:
    digits = value.line.digits or digits
    try:
        with calculation():
            result = results.result(value)
            shown = shown_result(results, value, result, digits, study.snapshot.unit)
        note = exact_or_note(result)[1]
    except MathError as err:
        return {"problem": problem_dict(err)}
    return {"result": _result(result, shown, note)}


def _result(result: Result, shown: ShownResult, note: str) -> dict[str, Any]:
    node = _read(shown.large) if shown.large_exact and len(shown.large) <= _CUT else None
    shape = list(result.value.shape) if result.kind in (ResultKind.LIST, ResultKind.MATRIX) else []
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
        "reason": result.reason,
        "note": note or result.remark,
    }


def _read(text: str) -> Node | None:
    try:
        return read_expression(text, Vocabulary())
    except MathError:
        return None


def work_text(job: Job, query: WorkTextQuery) -> dict[str, Any]:
    """Return all of a long result."""
    request = realise(job, query)
    results = request.study.snapshot.query(WorkingResults)
    value = results.read(_stored(request.study, query.id))
    with calculation():
        result = results.result(value)
        digits = value.line.digits or query.digits
        shown = shown_result(results, value, result, digits, request.study.snapshot.unit)
    return {"version": request.version, "text": shown.large}


def _stored(study: Study, line_id: int) -> Any:  # noqa: ANN401 - a line of Working
    line = next((w for w in study.snapshot.section(Working).lines if w.id == line_id), None)
    if line is None:
        raise CommandError("This line of Working is not there any more.")
    return line


def work_cells(job: Job, query: WorkCellsQuery) -> dict[str, Any]:
    """Return a part of a list or a matrix: of a line of Working, or of a name of the study."""
    request = realise(job, query)
    results = request.study.snapshot.query(WorkingResults)
    node, owner = _subject(results, request.study, query)
    computed = results.among.query(Results)
    with calculation():
        whole = computed.of_node(node, owner)
        if whole.kind not in (ResultKind.LIST, ResultKind.MATRIX):
            raise RequestError
        shape = list(whole.value.shape)
        spans = [
            (start, min(start + _CELLS, side))
            for start, side in zip((query.row, query.column), shape, strict=False)
        ]
        part = computed.of_node(_part(node, spans), owner)
        texts = [entry.decimal(query.digits) or "undefined" for entry in part.parts]
        exact = [entry.exact or "" for entry in part.parts]
    width = spans[1][1] - spans[1][0] if len(spans) > 1 else 1
    return {
        "version": request.version,
        "shape": shape,
        "row": spans[0][0],
        "column": spans[1][0] if len(spans) > 1 else 0,
        "cells": [texts[k : k + width] for k in range(0, len(texts), width)],
        "exact": [exact[k : k + width] for k in range(0, len(exact), width)],
    }


def _subject(results: WorkingResults, study: Study, query: WorkCellsQuery) -> tuple[Node, str]:
    """Return the expression that is asked about, and by what its random numbers are drawn."""
    if query.name:
        return Name(query.name), query.name
    if query.id is None:
        raise RequestError
    value = results.read(_stored(study, query.id))
    node = Name(value.name) if value.name is not None else value.node
    if node is None:
        raise RequestError
    return node, value.name or f"working {query.id}"


def _part(node: Node, spans: list[tuple[int, int]]) -> Node:
    """Return the tree of a part; rows and columns count from 0, the last is left out."""
    return Index(
        node,
        tuple(Part(Number(Fraction(low + 1)), Number(Fraction(high))) for low, high in spans),
    )


def work_csv(job: Job, query: WorkCellsQuery) -> FileAnswer:
    """Return all entries of a list or a matrix as CSV, with 15 digits."""
    request = realise(job, query)
    results = request.study.snapshot.query(WorkingResults)
    node, owner = _subject(results, request.study, query)
    with calculation():
        whole = results.among.query(Results).of_node(node, owner)
    if whole.kind not in (ResultKind.LIST, ResultKind.MATRIX):
        raise RequestError
    values = np.atleast_2d(np.asarray(whole.value))
    rows = values.T if whole.kind is ResultKind.LIST and values.shape[0] == 1 else values
    return FileAnswer(_csv(rows), "text/csv")


def _csv(rows: NDArray[Any]) -> Iterator[bytes]:
    for row in rows:
        yield (",".join(map(_cell, row)) + "\r\n").encode()


def _cell(value: Any) -> str:  # noqa: ANN401 - a number of NumPy
    if np.isnan(value):
        return ""
    number = complex(value)
    if number.imag:
        return f"{number.real:.15g}{number.imag:+.15g}i"
    return f"{number.real:.15g}"


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


# Sketches


def work_sketch(job: Job, query: WorkSketchQuery) -> dict[str, Any]:
    """Return a small graph of a line of Working: curves in tenths of a pixel, bars or cells."""
    request = realise(job, query)
    results = request.study.snapshot.query(WorkingResults)
    value = results.read(_stored(request.study, query.id))
    width, height = query.size
    with calculation():
        if value.variables and value.problem is None:
            sketch = curve_sketch(results, value, width, height)
        else:
            sketch = entries_sketch(results.result(value), width, height)
    curve, window = sketch.curve, sketch.window
    pieces = [] if curve is None else [_tenths(piece, window) for piece in curve.pieces]
    bands = [] if curve is None else [_band(band, window) for band in curve.bands]
    zero_x, zero_y = (float(_tenths(np.array([[0.0, 0.0]]), window)[k]) for k in (0, 1))
    return {
        "version": request.version,
        "kind": "curve" if curve is not None else "bars" if sketch.bars is not None else "cells",
        "x": list(window.x), "y": list(window.y), "origin": [zero_x, zero_y],
        "pieces": pieces, "bands": bands,
        "bars": _numbers(sketch.bars), "cells": _rows(sketch.cells), "is_cut": sketch.is_cut,
    }  # fmt: skip


def _tenths(points: NDArray[np.float64], window: Window) -> list[int]:
    made = np.column_stack([tenths_across(points[:, 0], window), tenths_down(points[:, 1], window)])
    flat: list[int] = made.ravel().tolist()
    return flat


def _band(band: NDArray[np.float64], window: Window) -> list[int]:
    """Return a band as a polygon: along its upper side and back along its lower one."""
    upper, lower = band[:, [0, 2]], band[::-1, [0, 1]]
    return _tenths(np.concatenate([upper, lower]), window)


def _numbers(values: NDArray[np.float64] | None) -> list[float | None]:
    if values is None:
        return []
    return [None if np.isnan(value) else float(value) for value in values]


def _rows(cells: NDArray[np.float64] | None) -> list[list[float | None]]:
    return [] if cells is None else [_numbers(row) for row in cells]


# Row reductions


def reduction(job: Job, query: ReductionQuery) -> dict[str, Any]:
    """Return a row reduction with its steps, and what the student's own operations led to."""
    request = realise(job, query)
    snapshot = request.study.snapshot.query(WorkingResults).among
    reductions = snapshot.query(Reductions)
    with calculation():
        subject = reductions.subject(query.text)
        whole = reductions.row_reduction(query.text)
        problem = None
        try:
            own = own_steps(subject, query.operations)
        except MathError as err:
            own, problem = [], problem_dict(err)
        solutions = reductions.solutions(subject)
    return {
        "version": request.version,
        "unknowns": list(subject.unknowns),
        "start": _cells(subject.rows),
        "steps": _steps(whole),
        "rank": whole.rank,
        "pivots": list(whole.pivots),
        "own": [_own(step) for step in own],
        "own_problem": problem,
        "sentence": _sentence(whole, subject, solutions),
        "solution": _solution(subject, solutions),
    }


def _cells(rows: Rows) -> list[list[str]]:
    return [[str(entry).replace("-", "−") for entry in row] for row in rows]


def _steps(whole: RowReduction) -> list[dict[str, Any]]:
    return [
        {
            "operation": _shown(step.operation),
            "rows": _cells(step.matrix),
            "pivots": [list(pivot) for pivot in step.pivots],
        }
        for step in whole.steps
    ]


def _shown(operation: str) -> str:
    return operation.replace("<->", "↔").replace("<-", "←").replace("-", "−")


def _own(step: OwnStep) -> dict[str, Any]:
    if step.after.is_done:
        words = "This is the reduced form."
    elif step.is_nearer:
        words = "Nearer."
    elif step.after == step.before:
        words = "As far as before."
    else:
        words = "Farther away."
    return {
        "operation": _shown(step.operation), "rows": _cells(step.rows), "sentence": words,
        "is_done": step.after.is_done, "is_nearer": step.is_nearer,
    }  # fmt: skip


def _sentence(whole: RowReduction, subject: Reducible, solutions: SolutionSet | None) -> str:
    if solutions is None:
        words = "is" if whole.rank == 1 else "are"
        return (
            f"The rank is {whole.rank}: so many rows {words} not 0."
            if whole.rank
            else "All rows are 0."
        )
    if solutions.kind is SolutionKind.ONE:
        return "There is exactly one solution."
    if solutions.kind is SolutionKind.NONE:
        row = (solutions.contradiction or 0) + 1
        return f"There is no solution: row {row} says that 0 is another number."
    names = " and ".join(subject.unknowns[column] for column, _ in solutions.free)
    return f"There are infinitely many solutions: {names} may be any number."


def _solution(subject: Reducible, solutions: SolutionSet | None) -> list[str]:
    """Return the value of each unknown, in parameters if there are many solutions."""
    if solutions is None or not solutions.values:
        return []
    names = [name for _, name in solutions.free]
    lines = []
    for unknown, (constant, factors) in zip(subject.unknowns, solutions.values, strict=True):
        terms = [str(constant)] if constant or not any(factors) else []
        for name, factor in zip(names, factors, strict=True):
            if factor:
                size = "" if abs(factor) == 1 else f"{abs(factor)} "
                sign = ("-" if factor < 0 else "") if not terms else ("- " if factor < 0 else "+ ")
                terms.append(f"{sign}{size}{name}")
        lines.append(f"{unknown} = {' '.join(terms)}".replace("-", "−"))
    return lines
