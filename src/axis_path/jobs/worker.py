"""The process that does the jobs of the queue."""

from __future__ import annotations

from axis_path.jobs.queue import work_off
from axis_path.store import make_engine, purge_deleted, session_scope
from axis_path.store.sweeps import fail_abandoned_sweeps


def work(database_url: str) -> None:
    """Work until the process is ended."""
    engine = make_engine(database_url)
    with session_scope(engine) as session:
        fail_abandoned_sweeps(session)
        purge_deleted(session)
    work_off(engine, stay=True)
