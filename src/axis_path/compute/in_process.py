"""Answers without a worker process: for tests of what is answered, and for tools."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager

from axis_path.bench import Answer, FileAnswer
from axis_path.bench.job import StudyCache
from axis_path.compute.answering import Order, run_order
from axis_path.compute.lease import Caller, Lease, Query, Reply


class InProcess:
    """Answers in the process that asks, one request at a time."""

    def __init__(self) -> None:
        self._cache = StudyCache()
        self._lock = threading.Lock()

    @contextmanager
    def lease(self, caller: Caller) -> Iterator[Lease]:
        """Wait until no other request is answered."""
        with self._lock:
            yield self

    def ask(self, query: Query) -> Reply:
        """Return the answer; a file is read to its end."""
        order = Order(
            query.task,
            query.study_id,
            query.body,
            query.context,
            query.limits.step_s,
            query.limits.total_s,
        )
        failures: list[Exception] = []

        def load(version: int) -> bytes:
            try:
                return query.load(version)
            except Exception as error:
                failures.append(error)
                raise

        answer = run_order(order, self._cache, load, query.is_gone, _whole_file)
        if failures:
            # A worker would not have heard of it: it concerns the caller alone.
            raise failures[0]
        return Reply(answer.status, answer.media_type, answer.body)

    def close(self) -> None:
        """Do nothing: there is no process to end."""


def _whole_file(file: FileAnswer) -> Answer:
    return Answer(b"".join(file.blocks), file.media_type)
