"""One worker as the web process sees it: ask it, cancel what it does, kill it."""

from __future__ import annotations

import contextlib
import os
import signal
import time
import uuid
from collections.abc import Iterator
from typing import Any

from axis_path.compute.errors import GoneError, WorkerDiedError
from axis_path.compute.lease import Query, Reply
from axis_path.compute.messages import Channel

#: So often it is checked whether somebody still waits.
_WAKE_MS = 100


class WorkerProcess:
    """A worker and what it is known to hold.

    Attributes:
        study_id: the study that it answered for last.
        is_usable: whether it can be asked again.
        is_early: whether it was made before everything was loaded that it may need.
        idle_since: when its last answer was sent, in seconds of the monotonic clock.
    """

    def __init__(self, channel: Channel, pid: int, is_early: bool) -> None:
        self._channel, self._pid, self.is_early = channel, pid, is_early
        self.study_id: uuid.UUID | None = None
        self.is_usable = True
        self.idle_since = time.monotonic()

    def ask(self, query: Query) -> Reply:
        """Return the answer to one request.

        Raises:
            WorkerDiedError: the worker ended, or was killed because it did not answer in time.
            GoneError: nobody waits any more.
        """
        until = time.monotonic() + query.limits.total_s + query.limits.grace_s
        order = {
            "task": query.task, "study": str(query.study_id), "context": query.context,
            "step_s": query.limits.step_s, "total_s": query.limits.total_s,
        }  # fmt: skip
        self._send(order, query.body)
        failure: Exception | None = None
        while True:
            head, body = self._receive(query, until)
            if "need" in head:
                failure = self._send_document(query, head["need"]) or failure
            elif failure is not None:
                raise failure
            elif "more" in head:
                return Reply(200, head["more"], body, self._blocks(query, until))
            else:
                self._end(head)
                return Reply(head["status"], head["type"], body)

    def kill(self) -> None:
        """End the worker at once."""
        self.is_usable = False
        self._channel.close()
        with contextlib.suppress(ProcessLookupError, PermissionError):
            os.kill(self._pid, signal.SIGKILL)

    def close(self) -> None:
        """Let the worker end by itself: its channel does."""
        self.is_usable = False
        self._channel.close()

    def _end(self, head: dict[str, Any]) -> None:
        self.is_usable = not head["retire"]

    def _send(self, head: dict[str, Any], body: bytes) -> None:
        try:
            self._channel.send(head, body)
        except OSError as err:
            self.kill()
            raise WorkerDiedError from err

    def _send_document(self, query: Query, version: int) -> Exception | None:
        """Send the document that the worker lacks; return what kept us from it."""
        failure: Exception | None = None
        document = b"{}"
        try:
            document = query.load(version)
        except Exception as err:  # noqa: BLE001 - raised again when the worker has answered
            failure = err
        try:
            self._channel.send({}, document)
        except OSError as err:
            self.kill()
            raise WorkerDiedError from err
        return failure

    def _receive(self, query: Query, until: float) -> tuple[dict[str, Any], bytes]:
        is_cancelled = False
        try:
            while not self._channel.poll(_WAKE_MS):
                if time.monotonic() > until:
                    self.kill()
                    raise WorkerDiedError
                if not is_cancelled and query.is_gone():
                    is_cancelled = True
                    self._channel.cancel()
                    until = min(until, time.monotonic() + query.limits.grace_s)
            message = self._channel.receive()
        except (EOFError, OSError) as err:
            self.kill()
            raise (GoneError if is_cancelled else WorkerDiedError) from err
        if message is None:
            # No worker of ours cancels.
            self.kill()
            raise WorkerDiedError
        return message

    def _blocks(self, query: Query, until: float) -> Iterator[bytes]:
        """Yield the rest of a file; whoever stops in between ends the worker.

        Raises:
            WorkerDiedError: it could not be made to its end.
        """
        is_whole = False
        try:
            while True:
                head, body = self._receive(query, until)
                if "more" not in head:
                    self._end(head)
                    is_whole = True
                    if head["status"] != 200:
                        raise WorkerDiedError
                    return
                yield body
        finally:
            if not is_whole:
                self.kill()
