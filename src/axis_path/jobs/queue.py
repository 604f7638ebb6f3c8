"""The queue: procrastinate on the same PostgreSQL as everything else."""

from __future__ import annotations

import uuid

import procrastinate
from sqlalchemy import Engine

from axis_path.jobs.sweeps import run_sweep

_SWEEP = "sweep"


def _address(engine: Engine) -> str:
    return engine.url.set(drivername="postgresql").render_as_string(hide_password=False)


class Queue:
    """Where web processes put jobs in; it holds no job itself."""

    def __init__(self, engine: Engine) -> None:
        connector = procrastinate.SyncPsycopgConnector(
            conninfo=_address(engine), min_size=1, max_size=2
        )
        self._app = procrastinate.App(connector=connector)
        self._is_open = False

    def put_sweep(self, sweep_id: uuid.UUID) -> None:
        """Let a worker do a sweep that waits in the store."""
        if not self._is_open:
            self._app.open()
            self._is_open = True
        self._app.configure_task(_SWEEP, allow_unknown=True).defer(sweep_id=str(sweep_id))

    def close(self) -> None:
        """Give the connections back."""
        if self._is_open:
            self._app.close()
            self._is_open = False


def work_off(engine: Engine, *, stay: bool) -> None:
    """Do what is in the queue.

    Args:
        engine: of the database that holds it.
        stay: whether to wait for more when it is empty.
    """
    connector = procrastinate.PsycopgConnector(conninfo=_address(engine), min_size=1, max_size=3)
    app = procrastinate.App(connector=connector)

    @app.task(name=_SWEEP)
    def sweep(sweep_id: str) -> None:
        run_sweep(engine, uuid.UUID(sweep_id))

    app.run_worker(
        wait=stay, listen_notify=stay, install_signal_handlers=stay, delete_jobs="always"
    )
