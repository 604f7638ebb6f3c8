"""Answer a question about a study; one that ends its worker is not asked again and again."""

from __future__ import annotations

import uuid
from collections.abc import Callable
from typing import Any

import orjson

from axis_path.bench.prefetch import ALLOWED
from axis_path.compute import Reply, WorkerDiedError
from axis_path.web.bench.leasing import person, query_of, worker_for
from axis_path.web.bench.quarantine import turn_off_guilty_line
from axis_path.web.errors import StudyHaltedError
from axis_path.web.state import web_state

#: What a page asks by itself of a study that it shows.
_OF_A_STUDY = ("scene", "findings", "table", "exact", "data")


def answer(study_id: uuid.UUID, task: str, body: bytes, gone: Callable[[], bool]) -> Reply:
    """Return what a worker answers.

    Args:
        study_id: the study.
        task: a name in ``axis_path.bench.TASKS``.
        body: what the page sent.
        gone: tells whether nobody waits any more.

    Raises:
        StudyHaltedError: the study as it is stored ended its worker; the guilty line is off now.
        WorkerDiedError: the question ended its worker, or did so a short while ago.
    """
    guard = web_state().guard
    key = guard.key(study_id, task, body)
    guard.check(key)
    try:
        with worker_for(study_id, gone) as lease:
            context = _context(study_id, task)
            return lease.ask(query_of(study_id, task, body=body, context=context, gone=gone))
    except WorkerDiedError as err:
        pause_s = guard.note_death(key)
        if task in _OF_A_STUDY and _turned_off(study_id, task, body):
            raise StudyHaltedError from err
        raise WorkerDiedError(retry_after_s=pause_s) from err


def _context(study_id: uuid.UUID, task: str) -> dict[str, Any]:
    """Return what the web process says of a request: whether its page may prefetch."""
    if task != "scene":
        return {}
    return {ALLOWED: web_state().prefetch.note((person(), study_id))}


def _turned_off(study_id: uuid.UUID, task: str, body: bytes) -> bool:
    """Turn off the line that ended the worker, if the state is one that is stored."""
    given = orjson.loads(body)
    if given.get("drafts") or type(given.get("version")) is not int:
        return False
    return turn_off_guilty_line(study_id, given["version"], task, body) is not None
