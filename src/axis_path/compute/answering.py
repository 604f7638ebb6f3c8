"""Run one task within its limits of time, wherever that is: in a worker or in this process."""

from __future__ import annotations

import time
import uuid
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import orjson

from axis_path.bench import TASKS, Answer, FileAnswer, Job, RequestError, error_answer, json_bytes
from axis_path.bench.job import StudyCache
from axis_path.core import Deadline, deadline_scope

#: How JSON writes the character 0.
_NUL = b"\\u0000"


@dataclass(frozen=True, slots=True)
class Order:
    """A task as it comes to a worker."""

    task: str
    study_id: uuid.UUID
    body: bytes
    context: dict[str, Any]
    each_s: float
    all_s: float


def read_object(body: bytes) -> dict[str, Any]:
    """Return the JSON object that a page sent.

    Raises:
        RequestError: it is none.
    """
    try:
        given = orjson.loads(body) if body else {}
    except orjson.JSONDecodeError as err:
        raise RequestError from err
    if not isinstance(given, dict) or (_NUL in body and _holds_nul(given)):
        raise RequestError
    return given


def _holds_nul(given: object) -> bool:
    """Check whether a text in it has a character that no text can have in the database."""
    if isinstance(given, str):
        return "\0" in given
    if isinstance(given, dict):
        return any(map(_holds_nul, (*given, *given.values())))
    return isinstance(given, list) and any(map(_holds_nul, given))


def run_order(
    order: Order,
    cache: StudyCache,
    load: Callable[[int], bytes],
    is_cancelled: Callable[[], bool],
    send_file: Callable[[FileAnswer], Answer],
) -> Answer:
    """Run a task and return its answer; an error is one of the answers.

    Args:
        order: what is asked.
        cache: the studies this process has read.
        load: returns the document of a version.
        is_cancelled: tells whether nobody waits any more.
        send_file: sends a file while it is made, within the same limits, and returns its end.
    """
    deadline = Deadline(
        time.monotonic, each_s=order.each_s, all_s=order.all_s, is_cancelled=is_cancelled
    )
    try:
        job = Job(order.study_id, read_object(order.body), order.context, load, cache)
        with deadline_scope(deadline):
            found = TASKS[order.task](job)
            if isinstance(found, FileAnswer):
                return send_file(found)
    except Exception as error:  # noqa: BLE001 - the page is told, the log has the rest
        return error_answer(error)
    return found if isinstance(found, Answer) else Answer(json_bytes(found))
