"""The web server: gunicorn in a forked process, on a socket that it is given."""

from __future__ import annotations

import signal
import socket
from types import FrameType
from typing import Any

from flask import Flask
from gunicorn.app.base import BaseApplication

from axis_path.compute import Pool, Template
from axis_path.web import create_app
from axis_path.web.bench import scene_socket
from axis_path.web.settings import Settings

#: Each page that is used holds one for its socket, see ``MOST_SOCKETS`` in ``scene_socket.py``.
_THREADS = 96
_GRACEFUL_S, _KEEP_ALIVE_S = 4, 30


class WebServer(BaseApplication):  # type: ignore[misc]  # the base has no types
    """Gunicorn with our application.

    Args:
        settings: of the application.
        listener: where requests come in.
        channel: the way to the template process.
    """

    def __init__(self, settings: Settings, listener: socket.socket, channel: socket.socket) -> None:
        self._settings, self._listener, self._channel = settings, listener, channel
        super().__init__()

    def load_config(self) -> None:
        """Set what differs from gunicorn's own choice."""
        chosen: dict[str, Any] = {
            "bind": f"fd://{self._listener.fileno()}",
            "worker_class": "gthread",
            "workers": 1,
            "threads": _THREADS,
            "graceful_timeout": _GRACEFUL_S,
            "keepalive": _KEEP_ALIVE_S,
            "control_socket_disable": True,
            "proc_name": "axis-path-web",
            "post_worker_init": _let_sockets_end,
            "worker_exit": _end_workers,
        }
        for name, value in chosen.items():
            self.cfg.set(name, value)

    def load(self) -> Flask:
        """Make the application, in the process that answers."""
        return create_app(self._settings, Pool(Template(self._channel)))


def _let_sockets_end(_worker: Any) -> None:  # noqa: ANN401 - gunicorn's own
    """Let sockets end when gunicorn ends the process: it would wait for their threads."""
    for number in (signal.SIGTERM, signal.SIGINT, signal.SIGQUIT):
        _stop_sockets_at(number)


def _stop_sockets_at(number: signal.Signals) -> None:
    before = signal.getsignal(number)

    def stop(_: int, frame: FrameType | None) -> None:
        scene_socket.stop()
        if callable(before):
            before(number, frame)

    signal.signal(number, stop)


def _end_workers(_server: Any, worker: Any) -> None:  # noqa: ANN401 - gunicorn's own
    """End the workers that compute: nobody waits for them any more."""
    app = getattr(worker, "wsgi", None)
    if app is not None:
        app.extensions["axis_path"].compute.close()
