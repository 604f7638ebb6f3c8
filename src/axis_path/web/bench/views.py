"""What happens on the Bench: the database is read and written here, all else by a worker."""

from __future__ import annotations

import uuid
from collections.abc import Callable
from typing import Any

from flask import Response, render_template, request

from axis_path.bench.errors import RequestError
from axis_path.bench.requests import HistoryQuery, VersionQuery
from axis_path.compute import Lease, WorkerDiedError, never
from axis_path.core.contract import read
from axis_path.core.draw import HOME_X, HOME_Y
from axis_path.store import (
    Opened,
    Overview,
    commit_version,
    move_version,
    open_study,
    save_view,
)
from axis_path.web.answers import json_answer, json_request
from axis_path.web.bench.answering import answer
from axis_path.web.bench.leasing import (
    COMMITTED,
    COMMITTING,
    answer_file,
    computed_json,
    is_gone,
    query_of,
    sent,
    worker_for,
)
from axis_path.web.bench.quarantine import turn_off_guilty_line
from axis_path.web.state import database, web_state


def show(study_id: uuid.UUID) -> str:
    """Show the Bench of a study."""
    with database() as session:
        opened = open_study(session, study_id)
    try:
        known = _opening(study_id, opened.version)
    except WorkerDiedError:
        again = turn_off_guilty_line(study_id, opened.version, "opening")
        if again is None:
            raise
        opened = again
        known = _opening(study_id, opened.version)
    state = {
        "id": str(study_id),
        "title": opened.title,
        "view": {"window": {"x": HOME_X, "y": HOME_Y}, **opened.view},
        **_history(opened),
        **known,
        "prefetch": web_state().prefetch.is_on,
    }
    return render_template("bench/show.html", state=state, title=opened.title)


def _opening(study_id: uuid.UUID, version: int) -> dict[str, Any]:
    with worker_for(study_id) as lease:
        return computed_json(
            lease, query_of(study_id, "opening", body=b"", context={"version": version})
        )


def _history(opened: Opened) -> dict[str, Any]:
    return {"version": opened.version, "undo": opened.undo, "redo": opened.redo}


def task(name: str) -> Callable[[uuid.UUID], Response]:
    """Return the view that answers with what a task returns."""
    return lambda study_id: sent(answer(study_id, name, request.get_data(), is_gone()))


def file_task(name: str) -> Callable[[uuid.UUID], Response]:
    """Return the view that answers with a file that a task makes."""
    return lambda study_id: answer_file(study_id, name)


def commands(study_id: uuid.UUID) -> Response:
    """Apply commands and commit the result as a new version; answered after the commit."""
    version = read(json_request(), VersionQuery, RequestError).version
    with worker_for(study_id, never) as lease:
        changed = computed_json(
            lease, query_of(study_id, "commands", limits=COMMITTING, gone=never)
        )
        with database() as session:
            opened = commit_version(
                session, study_id, version, changed["document"], changed["label"],
                Overview(**changed["overview"]),
            )  # fmt: skip
        return _committed(lease, study_id, opened, is_changed=True)


def history(study_id: uuid.UUID) -> Response:
    """Undo or redo; answered after the commit."""
    query = read(json_request(), HistoryQuery, RequestError)
    with database() as session:
        opened = move_version(session, study_id, query.version, -1 if query.do == "undo" else 1)
    with worker_for(study_id, never) as lease:
        return _committed(lease, study_id, opened, is_changed=False)


def _committed(lease: Lease, study_id: uuid.UUID, opened: Opened, *, is_changed: bool) -> Response:
    """Answer with what the page shows of a version; a line that ends the worker is turned off."""
    context = {"version": opened.version, "is_changed": is_changed}
    try:
        state = computed_json(
            lease, query_of(study_id, "committed", context=context, limits=COMMITTED, gone=never)
        )
    except WorkerDiedError:
        again = turn_off_guilty_line(study_id, opened.version, "scene", request.get_data())
        if again is None:
            raise
        with worker_for(study_id, never) as other:
            return _committed(other, study_id, again, is_changed=False)
    return json_answer(_history(opened) | state)


def view(study_id: uuid.UUID) -> Response:
    """Keep the window and the open tab; no part of the history."""
    with worker_for(study_id) as lease:
        view = computed_json(lease, query_of(study_id, "view"))
    with database() as session:
        save_view(session, study_id, view)
    return json_answer({"kept": True})


def picture(study_id: uuid.UUID) -> Response:
    """Return the present state as a picture, or as a file of the open study format."""
    with database() as session:
        title = open_study(session, study_id).title
    return answer_file(study_id, "picture", {"title": title})
