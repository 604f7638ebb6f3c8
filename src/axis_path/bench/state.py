"""The scene of a study in a state, alone and after a change; the reading line; trails."""

from __future__ import annotations

import csv
import time
from collections.abc import Mapping, Sequence
from dataclasses import asdict, replace
from functools import partial
from io import StringIO
from typing import Any

import msgspec

from axis_path.bench import messages
from axis_path.bench.answer import Answer
from axis_path.bench.errors import RequestError
from axis_path.bench.findings import following_dict
from axis_path.bench.job import Job
from axis_path.bench.prefetch import prefetched
from axis_path.bench.request import (
    BenchRequest,
    followed,
    passed_studies,
    realise,
)
from axis_path.bench.requests import (
    CommandsQuery,
    CommittedQuery,
    OpeningQuery,
    ReadingQuery,
    SceneQuery,
    TrailQuery,
)
from axis_path.core import Study, Window
from axis_path.core.contract import write
from axis_path.core.features.axes.queries import Axes
from axis_path.core.features.axes.section import AxesSpec
from axis_path.core.features.findings.section import SavedQueries
from axis_path.core.features.motion.edits import go_on
from axis_path.core.features.motion.queries import Motion
from axis_path.core.lines.moving import Position
from axis_path.core.study import overview
from axis_path.core.tabulate import TableSpec
from axis_path.core.warm import is_compiled

#: A scene that takes longer is not sent with the change that it shows.
_QUICK_S = 0.8


def opening(job: Job, _query: OpeningQuery) -> dict[str, Any]:
    """Return what the page must know of a study before it asks for its first scene."""
    study = job.study
    trails = study.snapshot.query(Motion).trails()
    return {**_document(study), "trails": _by_id(trails), "is_compiled": is_compiled()}


def commands(job: Job, query: CommandsQuery) -> dict[str, Any]:
    """Apply commands; the changed study is not committed, and kept aside until it is.

    Returns:
        The document after them, what one of them is called, and what the list shows.
    """
    request = realise(job, query)
    # What undo takes back is called after this one; those before it put what moves in its place.
    if query.named >= len(query.commands):
        raise RequestError(messages.THERE_NO_SUCH_COMMAND, "named")
    labels = [request.study.apply(command, request.window) for command in query.commands]
    request.study.edit(go_on, request.visits, request.window, is_joined=request.query.joined)
    job.cache.changed = request.study
    return {
        "document": request.study.to_dict(),
        "label": labels[query.named],
        "overview": overview(request.study.snapshot),
    }


def committed(job: Job, query: CommittedQuery) -> dict[str, Any]:
    """Return what the page shows of a version that was just committed, with the quick findings.

    The study that ``commands`` changed gets its version here, so that it need not be read again.
    """
    if job.cache.changed is not None and job.context.get("is_changed"):
        job.cache.put(job.study_id, job.version, job.cache.changed)
    request = realise(job, msgspec.structs.replace(query, drafts=(), visits=()))
    window = _window(request, request.study)
    began = time.monotonic()
    state: dict[str, Any] = {
        "trails": _by_id(request.study.snapshot.query(Motion).trails()),
        "scene": _scene(request, request.study),
    }
    if time.monotonic() - began > _QUICK_S:
        # Something was stopped, or might have been. Nobody waits for that to see that it is saved:
        # the page asks for the picture apart, with more time, and can give it up.
        return state | {"scene": None}
    if query.findings is not None:
        moved = replace(request, window=window)
        state["findings"] = following_dict(moved, job.study_id, spent=0, with_texts=False)
    return state


def _document(study: Study) -> dict[str, Any]:
    """Return what the page must know of a study beyond its scene."""
    table = study.snapshot.section(TableSpec)
    return {
        "unit": study.snapshot.unit.value,
        "axes_spec": write(study.snapshot.section(AxesSpec)),
        "table": asdict(table),
        "digits": study.snapshot.section(SavedQueries).digits,
    }


def _window(request: BenchRequest[Any], study: Study) -> Window:
    # What was carried out may have changed the axes.
    return followed(
        study,
        study.snapshot.query(Axes).on_axes(request.window),
        request.query.window.follows,
    )


def _scene(request: BenchRequest[Any], study: Study) -> dict[str, Any]:
    window = _window(request, study)
    made = study.scene(
        replace(window, stretch=request.query.stretch).widened(request.query.beyond),
        reading_x=request.reading_x, pointer_y=request.query.pointer_y, box=request.box,
    )  # fmt: skip
    return made.to_dict() | _document(study)


def scene(job: Job, query: SceneQuery) -> dict[str, Any]:
    """Return the scene of a state with its drafts, and of the states a drag passed through."""
    began = time.monotonic()
    return _state(job, query) | prefetched(job, query, began, partial(_state, job))


def _state(job: Job, query: SceneQuery) -> dict[str, Any]:
    began = time.monotonic()
    request = realise(job, query)
    motion = request.study.snapshot.query(Motion)
    visited = (
        motion.visited(request.visits, request.window, is_joined=query.joined)
        if request.visits
        else {}
    )
    before = [_scene(request, study) for study in passed_studies(request)]
    answer = {
        "version": request.version, "scene": _scene(request, request.study),
        "visited": _by_id(visited), "before": before,
    }  # fmt: skip
    if request.query.findings is not None:
        answer["findings"] = following_dict(
            request, job.study_id, spent=time.monotonic() - began,
            with_texts=request.query.findings == "ledger",
        )  # fmt: skip
    # What is left of the time until it arrives is the way: the page asks by it.
    return answer | {"spent_ms": round(1000 * (time.monotonic() - began), 1)}


def _by_id(positions: Mapping[int, Sequence[Position]]) -> dict[str, Any]:
    return {str(id_): points for id_, points in positions.items()}


def reading(job: Job, query: ReadingQuery) -> dict[str, Any]:
    """Return the reading line alone: it follows the pointer, and nothing else changes."""
    request = realise(job, query)
    if request.reading_x is None:
        raise RequestError(messages.READING_LINE_NOT_SET, "reading")
    readings = request.study.readings(request.window, request.reading_x, query.pointer_y)
    return {"version": request.version, **readings}


def trail(job: Job, query: TrailQuery) -> Answer:
    """Return the positions of a trail as CSV (RFC 4180)."""
    positions = realise(job, query).study.snapshot.query(Motion).trails().get(query.line)
    if positions is None:
        raise RequestError(messages.LINE_HAS_NO_TRAIL, "line")
    text = StringIO()
    csv.writer(text).writerows([("x", "y"), *(position or ("", "") for position in positions)])
    return Answer(text.getvalue().encode(), "text/csv")
