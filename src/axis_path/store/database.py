"""The engine and its sessions."""

from __future__ import annotations

import math
import time
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any, ClassVar, TypeVar

import orjson
import psycopg
from psycopg import errors, waiting
from psycopg.abc import PQGen
from sqlalchemy import Engine, create_engine
from sqlalchemy.engine import make_url
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

T = TypeVar("T")
#: How long to wait for a connection, for one of the pool, and for a statement: a database that
#: hangs must not hang every page.
_CONNECT_S, _POOL_S, _STATEMENT_MS, _LOCK_MS = 3, 10, 4_000, 3_000
#: The server gives a statement up by itself; one that hangs is given up so much later.
_SILENCE_MS = 1_000
#: Sessions are short: as many threads as there are share so many connections.
_POOL, _MORE = 8, 8


class BoundedConnection(psycopg.Connection[Any]):
    """A connection that does not wait for ever for a server that hangs."""

    #: The longest wait for an answer, in seconds.
    limit_s: ClassVar[float] = (_STATEMENT_MS + _SILENCE_MS) / 1000

    def wait(self, gen: PQGen[T], interval: float = 0.1, timeout: float | None = None) -> T:
        """Wait for the server.

        Raises:
            OperationalError: it does not answer; the connection is closed.
        """
        until = time.monotonic() + min(self.limit_s, math.inf if timeout is None else timeout)
        return waiting.wait(self._until(gen, until), self.pgconn.socket, interval=interval)

    def _until(self, gen: PQGen[T], until: float) -> PQGen[T]:
        """Pass on what a wait gives and takes, until its time is over."""
        try:
            state = next(gen)
            while True:
                ready = yield state
                if not ready and time.monotonic() > until:
                    self.pgconn.finish()
                    raise errors.OperationalError("the server does not answer")
                state = gen.send(ready)
        except StopIteration as end:
            result: T = end.value
            return result


def _dump(value: Any) -> str:  # noqa: ANN401 - any JSON
    return orjson.dumps(value).decode()


def make_engine(url: str, *, statement_ms: int = _STATEMENT_MS) -> Engine:
    """Make an engine for a PostgreSQL address such as ``postgresql+psycopg://…``.

    Args:
        url: the address.
        statement_ms: a statement that takes longer is given up; 0 for none.
    """
    parts = make_url(url)
    address = parts.set(drivername="postgresql").render_as_string(hide_password=False)
    settings = f"-c statement_timeout={statement_ms} -c lock_timeout={_LOCK_MS}"
    kind = BoundedConnection if statement_ms else psycopg.Connection

    def connect() -> psycopg.Connection[Any]:
        return kind.connect(address, connect_timeout=_CONNECT_S, options=settings)

    return create_engine(
        url,
        creator=connect,
        pool_pre_ping=True,
        pool_size=_POOL,
        max_overflow=_MORE,
        pool_timeout=_POOL_S,
        json_serializer=_dump,
        json_deserializer=orjson.loads,
    )


def is_disk_full(error: BaseException) -> bool:
    """Check whether an error says that the database has no room left."""
    return isinstance(error, DBAPIError) and isinstance(error.orig, errors.DiskFull)


@contextmanager
def session_scope(engine: Engine) -> Iterator[Session]:
    """Open a session; commit at the end of the block, roll back if it raises."""
    with Session(engine, expire_on_commit=False) as session:
        try:
            yield session
            session.commit()
        except BaseException:
            session.rollback()
            raise
