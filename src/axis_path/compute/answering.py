"""Run one task within its limits of time, wherever that is: in a worker or in this process."""

from __future__ import annotations

import time
import uuid
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from axis_path.bench import Answer, FileAnswer, Job, error_answer, json_bytes, run_task
from axis_path.bench.job import StudyCache
from axis_path.core import Deadline, deadline_scope
from axis_path.wording import reader_in, speaking

#: A request without a version is about no study.
_NO_VERSION = -1


@dataclass(frozen=True, slots=True)
class Order:
    """A task as it comes to a worker."""

    task: str
    study_id: uuid.UUID
    body: bytes
    context: dict[str, Any]
    step_s: float
    total_s: float


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
        time.monotonic, step_s=order.step_s, total_s=order.total_s, is_cancelled=is_cancelled
    )
    job = Job(order.study_id, _NO_VERSION, order.context, load, cache)
    with speaking(reader_in(order.context)):
        try:
            with deadline_scope(deadline):
                answer = run_task(order.task, job, order.body)
                if isinstance(answer, FileAnswer):
                    return send_file(answer)
        except Exception as error:  # noqa: BLE001 - the page gets the error, the log has the rest
            return error_answer(error)
        return answer if isinstance(answer, Answer) else Answer(json_bytes(answer))
