"""Sweeps: asked for, looked at while they are done, given up."""

from __future__ import annotations

import uuid

from flask import Response
from werkzeug.exceptions import NotFound

from axis_path.store.sweeps import AskedSweep, cancel_sweep, create_sweep, load_sweep
from axis_path.web.answers import json_answer
from axis_path.web.bench.leasing import asked_json, query_of, worker_for
from axis_path.web.state import database, web_state


def begin(study_id: uuid.UUID) -> Response:
    """Put a sweep into the queue; what cannot be is refused at once."""
    with worker_for(study_id) as lease:
        read = asked_json(lease, query_of(study_id, "sweep"))
    wanted = read["asked"]
    with database() as session:
        sweep_id = create_sweep(session, study_id, read["document"], wanted)
    web_state().queue.put_sweep(sweep_id)
    return json_answer({"sweep": str(sweep_id), "total": len(wanted["values"])})


def look(study_id: uuid.UUID, sweep_id: uuid.UUID) -> Response:
    """Return how far a sweep is; with its result once it is done."""
    found = _found(study_id, sweep_id)
    return json_answer({
        "state": found.state.value, "done": found.done, "total": len(found.asked["values"]),
        "problem": found.problem, "result": found.result,
    })  # fmt: skip


def cancel(study_id: uuid.UUID, sweep_id: uuid.UUID) -> Response:
    """Return a sweep up."""
    _found(study_id, sweep_id)
    with database() as session:
        cancel_sweep(session, study_id, sweep_id)
    return json_answer({"cancelled": True})


def _found(study_id: uuid.UUID, sweep_id: uuid.UUID) -> AskedSweep:
    with database() as session:
        found = load_sweep(session, sweep_id)
    if found is None or found.study_id != study_id:
        raise NotFound
    return found
