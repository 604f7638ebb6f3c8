"""The queue: procrastinate on the same PostgreSQL as everything else."""

from __future__ import annotations

import uuid
from threading import Lock
from typing import TYPE_CHECKING

from sqlalchemy import Engine

from axis_path.jobs.sweeps import run_sweep

if TYPE_CHECKING:
    from procrastinate import App

_SWEEP = "sweep"


def _address(engine: Engine) -> str:
    return engine.url.set(drivername="postgresql").render_as_string(hide_password=False)


class Queue:
    """Where web processes put jobs in; it holds no job itself."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._app: App | None = None
        self._lock = Lock()

    def put_sweep(self, sweep_id: uuid.UUID) -> None:
        """Let a worker do a sweep that waits in the store."""
        app = self._opened()
        app.configure_task(_SWEEP, allow_unknown=True).defer(sweep_id=str(sweep_id))

    def _opened(self) -> App:
        with self._lock:
            if self._app is None:
                # It takes a while to load; most pages put nothing in.
                from procrastinate import App, SyncPsycopgConnector

                connector = SyncPsycopgConnector(
                    conninfo=_address(self._engine), min_size=1, max_size=2
                )
                app = App(connector=connector)
                app.open()
                self._app = app
            return self._app

    def close(self) -> None:
        """Close the connections."""
        with self._lock:
            if self._app is not None:
                self._app.close()
                self._app = None


def work_off(engine: Engine, *, stay: bool) -> None:
    """Do what is in the queue.

    Args:
        engine: of the database that holds it.
        stay: whether to wait for more when it is empty.
    """
    from procrastinate import App, PsycopgConnector

    connector = PsycopgConnector(conninfo=_address(engine), min_size=1, max_size=3)
    app = App(connector=connector)

    @app.task(name=_SWEEP)
    def sweep(sweep_id: str) -> None:
        run_sweep(engine, uuid.UUID(sweep_id))

    app.run_worker(
        wait=stay, listen_notify=stay, install_signal_handlers=stay, delete_jobs="always"
    )
