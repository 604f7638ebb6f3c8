"""Prepare the database before a server starts: one process does it, so that none race."""

from __future__ import annotations

from sqlalchemy import Engine

from axis_path.store.database import session_scope
from axis_path.store.demo import load_demo
from axis_path.store.migrate import is_current, migrate


def prepare(engine: Engine) -> None:
    """Migrate, and load the demo into a database that never held a study."""
    if not is_current(engine):
        migrate(engine)
    with session_scope(engine) as session:
        load_demo(session)
