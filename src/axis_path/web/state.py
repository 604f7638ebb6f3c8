"""What one process keeps: the database's engine, and the workers that compute.

It holds nothing that another process could not make again.
"""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from flask import current_app
from sqlalchemy import Engine
from sqlalchemy.orm import Session

from axis_path.compute import Compute
from axis_path.jobs import Queue
from axis_path.store import session_scope
from axis_path.web.bench.guard import Guard
from axis_path.web.bench.prefetch import PrefetchPolicy

STATE_KEY = "axis_path"


class WebState:
    """The database's engine, what computes, the queue, and requests that had better not be asked.

    Attributes:
        engine: of the database.
        compute: the workers.
        queue: for what takes longer than a request.
        guard: the requests that ended a worker.
        prefetch: says which pages may prefetch.
    """

    def __init__(self, engine: Engine, compute: Compute, prefetch: PrefetchPolicy) -> None:
        self.engine = engine
        self.compute = compute
        self.queue = Queue(engine)
        self.guard = Guard()
        self.prefetch = prefetch


def web_state() -> WebState:
    """Return the state of this process."""
    state: WebState = current_app.extensions[STATE_KEY]
    return state


@contextmanager
def database() -> Iterator[Session]:
    """Open a session for one request; it commits at the end of the block."""
    with session_scope(web_state().engine) as session:
        yield session
