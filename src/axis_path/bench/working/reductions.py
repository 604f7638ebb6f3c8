"""Row reductions with their steps."""

from __future__ import annotations

from typing import Any

from axis_path.bench import messages
from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import (
    ReductionQuery,
)
from axis_path.core.algebra import RowReduction, SolutionKind, SolutionSet
from axis_path.core.algebra.operations import Rows
from axis_path.core.deadline import calculation
from axis_path.core.errors import MathError
from axis_path.core.features.reduction.queries import OwnStep, Reducible, Reductions, own_steps
from axis_path.core.features.working.queries import WorkingResults
from axis_path.core.study import problem_dict


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
        words = messages.REDUCED_FORM
    elif step.is_nearer:
        words = messages.NEARER
    elif step.after == step.before:
        words = messages.AS_CLOSE_AS_BEFORE
    else:
        words = messages.FARTHER_AWAY
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
            else messages.ALL_ROWS
        )
    if solutions.kind is SolutionKind.ONE:
        return messages.THERE_EXACTLY_ONE_SOLUTION
    if solutions.kind is SolutionKind.NONE:
        row = (solutions.contradiction or 0) + 1
        return messages.THERE_NO_SOLUTION_ROW(row=row)
    names = " and ".join(subject.unknowns[column] for column, _ in solutions.free)
    return messages.THERE_INFINITELY_MANY_SOLUTIONS(names=names)


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
