"""Processes that are forked, watched, and forked again when they end."""

from __future__ import annotations

import contextlib
import ctypes
import logging
import os
import signal
import time
from collections.abc import Callable
from dataclasses import dataclass, field

_PR_SET_PDEATHSIG, _PR_SET_NAME = 1, 15
#: A process that lived for less is not started again at once: the pause doubles.
_STEADY_S, _FIRST_PAUSE_S, _LONGEST_PAUSE_S = 5.0, 0.1, 5.0
_log = logging.getLogger("axis_path.serving")


@dataclass(slots=True)
class Child:
    """A process that has to be there.

    Attributes:
        name: for the log, and for lists of processes; at most 15 letters.
        run: what it does; the process ends when it returns.
        pid: its process id; 0 while there is none.
        due: when it is to be started, by the monotonic clock.
    """

    name: str
    run: Callable[[], None]
    pid: int = 0
    due: float = 0.0
    _began: float = field(default=0.0)
    _pause: float = field(default=_FIRST_PAUSE_S)

    def start(self) -> None:
        """Fork the process."""
        self._began = time.monotonic()
        parent = os.getpid()
        pid = os.fork()
        if pid:
            self.pid = pid
            return
        status = 1
        try:
            name_process(self.name)
            end_with_parent(parent)
            self.run()
            status = 0
        except SystemExit as end:
            status = end.code if isinstance(end.code, int) else 1
        except BaseException:  # noqa: BLE001 - it is logged, and the process ends
            _log.exception("%s failed", self.name)
        finally:
            os._exit(status)

    def note_end(self, status: int) -> None:
        """Note that the process ended, and when it is to be started again."""
        now = time.monotonic()
        if now - self._began > _STEADY_S:
            self._pause = _FIRST_PAUSE_S
        _log.error("the process %s ended (%s); it is started again", self.name, _reason(status))
        self.pid, self.due = 0, now + self._pause
        self._pause = min(2 * self._pause, _LONGEST_PAUSE_S)

    def signal(self, number: int) -> None:
        """Send a signal to the process if it is there."""
        if self.pid:
            with contextlib.suppress(ProcessLookupError):
                os.kill(self.pid, number)


def name_process(name: str) -> None:
    """Set the name of this process in lists of processes."""
    ctypes.CDLL(None).prctl(_PR_SET_NAME, name.encode())


def end_with_parent(parent: int) -> None:
    """End this process when its parent ends, however that happens."""
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGTERM)
    if os.getppid() != parent:
        os._exit(1)


def _reason(status: int) -> str:
    code = os.waitstatus_to_exitcode(status)
    return f"signal {signal.Signals(-code).name}" if code < 0 else f"status {code}"
