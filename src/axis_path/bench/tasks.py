"""Everything that can be asked of a worker process: one dispatcher for HTTP and the socket."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any, Final, TypeAlias

import msgspec
import orjson

from axis_path.bench import answers as tell
from axis_path.bench import (
    data,
    description,
    files,
    findings,
    panels,
    results,
    sets,
    state,
    sweeps,
    tables,
    windows,
)
from axis_path.bench import panel_answers as panel
from axis_path.bench import requests as ask
from axis_path.bench import what_if as table_of_what_if
from axis_path.bench.answer import Answer, FileAnswer
from axis_path.bench.errors import RequestError
from axis_path.bench.job import Job, StudyCache
from axis_path.bench.opened import open_file
from axis_path.bench.working import answers as work
from axis_path.bench.working import cells, lines, reductions, sketches
from axis_path.core.contract import read
from axis_path.core.features.lines.edits import mark_line

Result: TypeAlias = dict[str, Any] | Answer | FileAnswer


@dataclass(frozen=True, slots=True)
class Task:
    """One thing that can be asked.

    Attributes:
        query: the struct of its request.
        answer: the type of what a page is answered; None for files, and for what the web reads.
        run: returns the answer, given the job and the request.
    """

    query: type[Any]
    answer: Any
    run: Callable[[Job, Any], Result]


def run_task(name: str, job: Job, body: bytes) -> Result:
    """Validate a request and return its answer.

    Args:
        name: of the task.
        job: what is asked about; its version is that of the request unless the web process says so.
        body: the request as JSON; empty for one without fields.

    Raises:
        RequestError: it is not of the form of the task.
        MathError: it cannot be carried out.
    """
    if name == "probe":
        return _probe(job, body)
    task = TASKS[name]
    query: Any = read(read_json(body), task.query, RequestError)
    version = job.context.get("version", getattr(query, "version", job.version))
    return task.run(replace(job, version=version), query)


#: How JSON writes the character 0.
_NUL = b"\\u0000"


def read_json(body: bytes) -> Any:  # noqa: ANN401 - any JSON
    """Return the JSON that a page sent.

    Raises:
        RequestError: it is none, or a text in it cannot be stored in the database.
    """
    try:
        given = orjson.loads(body) if body else {}
    except orjson.JSONDecodeError as err:
        raise RequestError from err
    if _NUL in body and _holds_nul(given):
        raise RequestError
    return given


def _holds_nul(given: object) -> bool:
    if isinstance(given, str):
        return "\0" in given
    if isinstance(given, dict):
        return any(map(_holds_nul, (*given, *given.values())))
    return isinstance(given, list) and any(map(_holds_nul, given))


def _probe(job: Job, body: bytes) -> Result:
    """Do another task with a study of which only the first lines are on.

    A process that dies of it tells which line is to blame.
    """
    given, name = read_json(body), job.context["task"]
    version = given["version"]
    study = replace(job, version=version).study.copy()
    for line in study.snapshot.lines[job.context["lines"] :]:
        study.edit(mark_line, line.id, disabled=True)
    cache = StudyCache()
    cache.put(job.study_id, version, study)
    # What was sent for another task, as for commands, has fields that this one does not know.
    known = {field.encode_name for field in msgspec.structs.fields(TASKS[name].query)}
    fields = {field: value for field, value in given.items() if field in known}
    job = replace(job, context={"version": version}, cache=cache)
    run_task(name, job, orjson.dumps(fields))
    return {}


TASKS: Final[dict[str, Task]] = {
    "scene": Task(ask.SceneQuery, tell.SceneAnswer, state.scene),
    "reading": Task(ask.ReadingQuery, tell.ReadingAnswer, state.reading),
    "commands": Task(ask.CommandsQuery, None, state.commands),
    "committed": Task(ask.CommittedQuery, tell.CommittedAnswer, state.committed),
    "opening": Task(ask.OpeningQuery, tell.OpeningAnswer, state.opening),
    "trail": Task(ask.TrailQuery, None, state.trail),
    "view": Task(ask.ViewQuery, tell.ViewAnswer, windows.view),
    "window": Task(ask.WindowQuery, tell.WindowAnswer, windows.window),
    "preview": Task(ask.PreviewQuery, tell.PreviewAnswer, panels.preview),
    "findings": Task(ask.FindingsQuery, tell.FindingsAnswer, findings.all_findings),
    "description": Task(ask.DescriptionQuery, tell.DescriptionAnswer, description.description),
    "table": Task(ask.TableQuery, panel.TableAnswer, tables.table),
    "data": Task(ask.DataQuery, panel.DataAnswer, data.data),
    "read_data": Task(ask.ReadDataQuery, panel.ReadDataAnswer, data.read_data),
    "read_workbook": Task(ask.ReadWorkbookQuery, panel.ReadWorkbookAnswer, data.read_workbook),
    "exact_cells": Task(ask.ExactCellsQuery, panel.ExactCellsAnswer, tables.exact_cells),
    "exact": Task(ask.ExactQuery, panel.ExactAnswer, results.exact_values),
    "working": Task(ask.WorkingQuery, work.WorkingAnswer, lines.working),
    "work_text": Task(ask.WorkTextQuery, work.WorkTextAnswer, lines.work_text),
    "work_csv": Task(ask.WorkCellsQuery, None, cells.work_csv),
    "work_sketch": Task(ask.WorkSketchQuery, work.WorkSketchAnswer, sketches.work_sketch),
    "work_cells": Task(ask.WorkCellsQuery, work.WorkCellsAnswer, cells.work_cells),
    "reduction": Task(ask.ReductionQuery, work.ReductionAnswer, reductions.reduction),
    "equation_set": Task(ask.EquationSetQuery, tell.EquationSetAnswer, sets.equation_set),
    "what_if": Task(ask.WhatIfQuery, tell.WhatIfAnswer, table_of_what_if.what_if),
    "what_if_curves": Task(
        ask.StateQuery, tell.WhatIfCurvesAnswer, table_of_what_if.what_if_curves_now
    ),
    "what_if_csv": Task(ask.StateQuery, None, table_of_what_if.what_if_csv),
    "sweep": Task(ask.SweepQuery, None, sweeps.sweep),
    "table_csv": Task(ask.TableFileQuery, None, files.table_csv),
    "table_workbook": Task(ask.TableFileQuery, None, files.table_workbook),
    "picture": Task(ask.PictureQuery, None, files.picture),
    "open_file": Task(ask.OpenFileQuery, None, open_file),
}
