"""The main process of a site: it has loaded everything, forks what is needed, and watches over it.

It has one thread. The web server asks it for workers over a channel; a process that ends is
forked again within a moment, and as nothing has to be loaded for that, at once answers again.
"""

from __future__ import annotations

import contextlib
import logging
import os
import select
import signal
import socket
import time
from importlib import import_module
from types import FrameType

from sqlalchemy.exc import OperationalError

from axis_path.compute.template import fork_worker, prepare_to_fork
from axis_path.core.warm import warm_up
from axis_path.jobs.worker import work
from axis_path.serving.children import Child
from axis_path.serving.memory import release_memory
from axis_path.serving.web import WebServer
from axis_path.store import make_engine
from axis_path.store.prepare import prepare
from axis_path.web.settings import Settings

#: The database may still be starting.
_DATABASE_S = 60.0
_STOP_S = 8.0
#: What is loaded when everything has been started and has had a moment to answer.
_LATER = (
    "axis_path.core.evaluate.exact.exact_form",
    "scipy.optimize",
    "scipy.interpolate",
    "ziamath.zmath",
)
_REST_S = 2.0
_log = logging.getLogger("axis_path.serving")


class Site:
    """The main process.

    Args:
        settings: of the application.
        listener: where requests come in.
    """

    def __init__(self, settings: Settings, listener: socket.socket) -> None:
        self._settings, self._listener = settings, listener
        self._ours, self._theirs = socket.socketpair(socket.AF_UNIX, socket.SOCK_SEQPACKET)
        self._children = [Child("axis-path-web", self._serve), Child("axis-path-jobs", self._work)]
        self._computing: set[int] = set()
        self._is_stopping = False
        self._later = list(_LATER)
        self._load_at = 0.0
        self._wake_read, self._wake_write = os.pipe2(os.O_NONBLOCK | os.O_CLOEXEC)

    def run(self) -> None:
        """Prepare the database, start everything, and stay until a signal ends the site."""
        signal.signal(signal.SIGTERM, self._stop)
        signal.signal(signal.SIGINT, self._stop)
        signal.signal(signal.SIGCHLD, _wake)
        signal.set_wakeup_fd(self._wake_write)
        _prepare_database(self._settings)
        prepare_to_fork()
        self._children[0].start()
        warm_up()
        # The web server can do without; the process of the queue is forked with it.
        import_module("procrastinate")
        prepare_to_fork()
        self._load_at = time.monotonic() + _REST_S
        while not self._is_stopping:
            self._start_what_is_due()
            self._wait()
        self._end()

    def _serve(self) -> None:
        self._in_child()
        self._ours.close()
        WebServer(self._settings, self._listener, self._theirs).run()

    def _work(self) -> None:
        self._in_child()
        for resource in (self._ours, self._theirs, self._listener):
            resource.close()
        work(self._settings.database_url)

    def _in_child(self) -> None:
        signal.set_wakeup_fd(-1)
        for number in (signal.SIGTERM, signal.SIGINT, signal.SIGCHLD):
            signal.signal(number, signal.SIG_DFL)
        os.close(self._wake_read)
        os.close(self._wake_write)

    def _start_what_is_due(self) -> None:
        for child in self._children:
            if not child.pid and child.due <= time.monotonic():
                child.start()

    def _wait(self) -> None:
        """Wait for an order for a worker, the end of a process, or a signal."""
        due = [child.due for child in self._children if not child.pid]
        due += [self._load_at] if self._later else []
        timeout = max(min(due) - time.monotonic(), 0.0) if due else None
        sources: list[socket.socket | int] = [self._ours, self._wake_read]
        ready, _, _ = select.select(sources, [], [], timeout)
        if not ready and self._later and time.monotonic() >= self._load_at:
            self._load_one()
        if self._wake_read in ready:
            os.read(self._wake_read, 512)
            self._reap()
        if self._ours in ready and not self._is_stopping:
            pid = fork_worker(self._ours, [self._theirs, self._listener])
            if pid:
                self._computing.add(pid)

    def _load_one(self) -> None:
        """Load what is seldom needed, now that nothing else is to be done: all have it then."""
        import_module(self._later.pop(0))
        if not self._later:
            prepare_to_fork()
            release_memory()

    def _reap(self) -> None:
        """Take note of all processes that have ended."""
        while True:
            try:
                pid, status = os.waitpid(-1, os.WNOHANG)
            except ChildProcessError:
                return
            if not pid:
                return
            self._computing.discard(pid)
            for child in self._children:
                if child.pid != pid:
                    continue
                if self._is_stopping:
                    child.pid = 0
                else:
                    child.note_end(status)

    def _stop(self, _number: int, _frame: FrameType | None) -> None:
        self._is_stopping = True

    def _end(self) -> None:
        """Let the web server and the queue end what they are at; then nothing is left."""
        until = time.monotonic() + _STOP_S
        for child in self._children:
            child.signal(signal.SIGTERM)
        while any(child.pid for child in self._children) and time.monotonic() < until:
            select.select([self._wake_read], [], [], 0.2)
            with contextlib.suppress(BlockingIOError):
                os.read(self._wake_read, 512)
            self._reap()
        for pid in [*self._computing, *(child.pid for child in self._children if child.pid)]:
            with contextlib.suppress(ProcessLookupError):
                os.kill(pid, signal.SIGKILL)


def _wake(_number: int, _frame: FrameType | None) -> None:
    """Do nothing: the wake-up pipe has the signal."""


def _prepare_database(settings: Settings) -> None:
    """Bring the database up to date; it may not answer yet.

    Raises:
        OperationalError: it does not answer at all.
    """
    # A migration may take longer than any request.
    engine = make_engine(settings.database_url, statement_ms=0)
    until = time.monotonic() + _DATABASE_S
    try:
        while True:
            try:
                prepare(engine)
            except OperationalError:
                if time.monotonic() > until:
                    raise
                time.sleep(0.1)
            else:
                return
    finally:
        engine.dispose()
