"""Everything that can be asked of a worker process, by name."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any, Final

from axis_path.bench import files, state, sweeps, windows
from axis_path.bench.answer import Answer, FileAnswer
from axis_path.bench.data import data_dict, read_dict
from axis_path.bench.errors import RequestError
from axis_path.bench.findings import findings_dict
from axis_path.bench.job import Job, StudyCache
from axis_path.bench.opened import open_file
from axis_path.bench.panels import preview_dict
from axis_path.bench.request import read_request
from axis_path.bench.results import exact_dict, working_dict
from axis_path.bench.tables import exact_cells_dict, table_dict
from axis_path.core.features.lines.edits import mark_line
from axis_path.core.limits import DIGITS

_ROW_DIGITS = 7


def _preview(job: Job) -> dict[str, Any]:
    return preview_dict(read_request(job))


def _findings(job: Job) -> dict[str, Any]:
    asked = read_request(job)
    return {"version": asked.version} | findings_dict(asked, job.study_id)


def _table(job: Job) -> dict[str, Any]:
    asked = read_request(job)
    return {"version": asked.version, "table": table_dict(asked)}


def _data(job: Job) -> dict[str, Any]:
    asked = read_request(job)
    return {"version": asked.version, "data": data_dict(asked)}


def _read_data(job: Job) -> dict[str, Any]:
    return read_dict(job.given)


def _exact_cells(job: Job) -> dict[str, Any]:
    asked = read_request(job)
    return {"version": asked.version, **exact_cells_dict(asked)}


def _exact(job: Job) -> dict[str, Any]:
    asked = read_request(job)
    return {"version": asked.version, "exact": exact_dict(asked.study, _ROW_DIGITS)}


def _working(job: Job) -> dict[str, Any]:
    asked = read_request(job)
    digits = asked.given.get("digits")
    if type(digits) is not int or not 1 <= digits <= DIGITS.value:
        raise RequestError(f"Working shows 1 to {DIGITS.value:,} digits.")
    return {"version": asked.version, "working": working_dict(asked.study, digits)}


def _probe(job: Job) -> dict[str, Any]:
    """Do another task with a study of which only the first lines are on.

    A process that dies of it tells which line is to blame.
    """
    study = job.study.copy()
    for line in study.snapshot.lines[job.context["lines"] :]:
        study.edit(mark_line, line.id, disabled=True)
    cache = StudyCache()
    cache.put(job.study_id, job.version, study)
    TASKS[job.context["task"]](replace(job, cache=cache))
    return {}


Task = Callable[[Job], dict[str, Any] | Answer | FileAnswer]
TASKS: Final[dict[str, Task]] = {
    "scene": state.scene,
    "reading": state.reading,
    "commands": state.commands,
    "committed": state.committed,
    "opening": state.opening,
    "probe": _probe,
    "trail": state.trail,
    "view": windows.view,
    "window": windows.window,
    "preview": _preview,
    "findings": _findings,
    "table": _table,
    "data": _data,
    "read_data": _read_data,
    "exact_cells": _exact_cells,
    "exact": _exact,
    "working": _working,
    "sweep": sweeps.sweep,
    "table_csv": files.table_csv,
    "table_workbook": files.table_workbook,
    "picture": files.picture,
    "open_file": open_file,
}
