"""The engine and its sessions."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import orjson
from sqlalchemy import Engine, create_engine
from sqlalchemy.orm import Session


def _dump(value: Any) -> str:  # noqa: ANN401 - any JSON
    return orjson.dumps(value).decode()


def make_engine(url: str) -> Engine:
    """Make an engine for a PostgreSQL address such as ``postgresql+psycopg://…``."""
    return create_engine(
        url, pool_pre_ping=True, json_serializer=_dump, json_deserializer=orjson.loads
    )


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
