"""A worker: a forked process that answers one request after the other until it is ended.

It has one thread, limits of memory, and nothing that another worker could not make again. While it
computes, whatever arrives on its channel means that nobody waits any more.
"""

from __future__ import annotations

import contextlib
import gc
import os
import resource
import signal
import sys
import uuid
from http import HTTPStatus
from pathlib import Path
from typing import Any

from axis_path.bench import Answer, FileAnswer
from axis_path.bench.job import StudyCache
from axis_path.compute.answering import Order, run_order
from axis_path.compute.messages import Channel
from axis_path.core.errors import StoppedError
from axis_path.core.limits import WORKER_GROWTH, WORKER_MEMORY

_PAGE = resource.getpagesize()
#: After so many answers a worker looks at how large it has grown.
_LOOK_EVERY = 8


def serve(channel: Channel) -> None:
    """Answer until the other side ends or this process has grown too large."""
    for number in (signal.SIGTERM, signal.SIGINT, signal.SIGHUP):
        signal.signal(number, signal.SIG_DFL)
    _limit_memory()
    worker = _Worker(channel)
    with contextlib.suppress(EOFError, OSError):
        # One that was forked before the template had loaded everything is replaced when it rests.
        channel.send({"pid": os.getpid(), "is_early": "sympy" not in sys.modules})
        worker.run()


def _resident_mb() -> float:
    pages = int(Path("/proc/self/statm").read_text().split()[1])
    return pages * _PAGE / 2**20


def _limit_memory() -> None:
    """Limit this process to so much more memory than it has reserved already."""
    pages = int(Path("/proc/self/statm").read_text().split()[0])
    size = pages * _PAGE + WORKER_MEMORY.value * 2**20
    resource.setrlimit(resource.RLIMIT_AS, (size, size))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))


class _Worker:
    """Reads orders and sends answers."""

    def __init__(self, channel: Channel) -> None:
        self._channel = channel
        self._cache = StudyCache()
        self._most_mb = _resident_mb() + WORKER_GROWTH.value
        self._answered = 0

    def run(self) -> None:
        """Answer until the channel ends.

        Raises:
            EOFError: it has ended.
        """
        while True:
            message = self._channel.receive()
            # One that cancels came after its answer had been sent.
            if message is not None:
                self._answer(*message)

    def _answer(self, head: dict[str, Any], body: bytes) -> None:
        order = Order(
            head["task"], uuid.UUID(head["study"]), body, head["context"],
            head["step_s"], head["total_s"],
        )  # fmt: skip
        answer = run_order(order, self._cache, self._load, self._is_cancelled, self._send_file)
        self._answered += 1
        # One that has no memory left must not meet the next request.
        is_due = answer.status != HTTPStatus.OK or self._answered % _LOOK_EVERY == 0
        is_over = is_due and self._is_too_large()
        end = {"status": answer.status, "type": answer.media_type, "retire": is_over}
        self._channel.send(end, answer.body)

    def _load(self, version: int) -> bytes:
        """Query for the document of a version.

        Raises:
            StoppedError: nobody waits any more.
        """
        self._channel.send({"need": version})
        message = self._channel.receive()
        if message is None:
            # The document follows: it is read so that it is not taken for the next order.
            self._channel.receive()
            raise StoppedError("This was stopped.")
        return message[1]

    def _send_file(self, file: FileAnswer) -> Answer:
        for block in file.blocks:
            self._channel.send({"more": file.media_type}, block)
        return Answer(b"", file.media_type)

    def _is_cancelled(self) -> bool:
        return self._channel.poll()

    def _is_too_large(self) -> bool:
        if _resident_mb() < self._most_mb:
            return False
        self._cache = StudyCache()
        gc.collect()
        return _resident_mb() > self._most_mb
