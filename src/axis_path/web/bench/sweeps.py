"""Sweeps: asked for, looked at while they are done, given up."""

from __future__ import annotations

import uuid

from flask import Response
from werkzeug.exceptions import NotFound

from axis_path.store.sweeps import StoredSweep, cancel_sweep, create_sweep, load_sweep
from axis_path.web.answers import json_answer
from axis_path.web.bench.leasing import computed_json, query_of, worker_for
from axis_path.web.state import database, web_state


def begin(study_id: uuid.UUID) -> Response:
    """Put a sweep into the queue; what cannot be is refused at once."""
    with worker_for(study_id) as lease:
        read = computed_json(lease, query_of(study_id, "sweep"))
    order = read["order"]
    with database() as session:
        sweep_id = create_sweep(session, study_id, read["document"], order)
    web_state().queue.put_sweep(sweep_id)
    return json_answer({"sweep": str(sweep_id), "total": len(order["values"])})


def look(study_id: uuid.UUID, sweep_id: uuid.UUID) -> Response:
    """Return how far a sweep is; with its result once it is done."""
    stored = _stored_sweep(study_id, sweep_id)
    return json_answer({
        "state": stored.state.value, "done": stored.done, "total": len(stored.order["values"]),
        "problem": stored.problem, "result": stored.result,
    })  # fmt: skip


def cancel(study_id: uuid.UUID, sweep_id: uuid.UUID) -> Response:
    """Cancel a sweep."""
    _stored_sweep(study_id, sweep_id)
    with database() as session:
        cancel_sweep(session, study_id, sweep_id)
    return json_answer({"cancelled": True})


def _stored_sweep(study_id: uuid.UUID, sweep_id: uuid.UUID) -> StoredSweep:
    with database() as session:
        result = load_sweep(session, sweep_id)
    if result is None or result.study_id != study_id:
        raise NotFound
    return result
