"""How the web asks: a worker is leased for one request and may be asked several things in turn."""

from __future__ import annotations

import uuid
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager
from dataclasses import dataclass, field
from typing import Any, Protocol

from axis_path.core.limits import ALL_TIME, CALCULATION_TIME, GRACE_TIME


@dataclass(frozen=True, slots=True)
class Limits:
    """How long an answer may take.

    Attributes:
        step_s: the time for one calculation, in seconds; then it is stopped and says so.
        total_s: the time for all calculations of the request together.
        grace_s: how much later the worker is killed if it has not answered.
    """

    step_s: float = CALCULATION_TIME.value / 1000
    total_s: float = ALL_TIME.value / 1000
    grace_s: float = GRACE_TIME.value / 1000


def never() -> bool:
    """Return False: somebody always waits."""
    return False


@dataclass(frozen=True, slots=True)
class Query:
    """What is asked of a worker.

    Attributes:
        task: a name in ``axis_path.bench.TASKS``.
        study_id: the study it is about.
        body: what the page sent, a JSON object.
        context: what the web process adds, plain data.
        load: returns the document of a version of the study, as JSON.
        limits: how long it may take.
        is_gone: tells whether nobody waits for the answer any more.
    """

    task: str
    study_id: uuid.UUID
    body: bytes
    load: Callable[[int], bytes]
    context: dict[str, Any] = field(default_factory=dict)
    limits: Limits = field(default_factory=Limits)
    is_gone: Callable[[], bool] = never


@dataclass(frozen=True, slots=True)
class Reply:
    """An answer.

    Attributes:
        status: an HTTP status; from 400 on the body is an error as JSON.
        media_type: of the body.
        body: all of it, or the first block of a file.
        more: the other blocks of a file, sent while they are made.
    """

    status: int
    media_type: str
    body: bytes
    more: Iterator[bytes] | None = None


@dataclass(frozen=True, slots=True)
class Caller:
    """Who needs a worker, and for what.

    Attributes:
        person: who asks; people take turns.
        study_id: a worker that knows the study is preferred.
        is_gone: tells whether nobody waits any more.
        is_long: whether the answer is expected to take long, as a file does.
    """

    person: str
    study_id: uuid.UUID
    is_gone: Callable[[], bool] = never
    is_long: bool = False


class Lease(Protocol):
    """A worker that is this request's alone for a while."""

    def ask(self, query: Query) -> Reply:
        """Return the worker's answer.

        Raises:
            WorkerDiedError: it ended before it answered.
        """
        ...


class Compute(Protocol):
    """Whatever answers the Bench."""

    def lease(self, caller: Caller) -> AbstractContextManager[Lease]:
        """Wait for a worker and have it until the block ends.

        Raises:
            BusyError: too many wait, or this one waited too long; GoneError: nobody waits any more.
        """
        ...

    def close(self) -> None:
        """End all workers."""
        ...
