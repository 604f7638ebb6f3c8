"""The workers of a web process: who gets one next, how many there are, and when one is replaced.

As many requests compute at once as there are processors; one that takes longer than a moment goes
on beside the others, in a worker of its own, so that nobody waits for it. People take turns: each
has a queue, and the next free worker goes to the next person.
"""

from __future__ import annotations

import threading
import time
import uuid
from collections import OrderedDict, deque
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field

from axis_path.compute.errors import BusyError, GoneError
from axis_path.compute.lease import Caller, Lease
from axis_path.compute.process import WorkerProcess
from axis_path.compute.template import Template

#: A request that takes longer no longer keeps the next one waiting.
_MOMENT_S = 0.05
#: So often a request that is not the next one checks whether its page still waits.
_LOOK_S = 0.5
#: A worker beyond those that are always kept ends when it was idle for so long.
_IDLE_S, _SWEEP_S = 20.0, 5.0


@dataclass(frozen=True, slots=True)
class PoolSize:
    """How many there may be.

    Attributes:
        min_workers: workers that are kept when nothing is asked.
        at_once: short requests that compute at the same time.
        most: workers in all.
        per_person: requests of one person.
        long: requests that are expected to take long, in all.
        queue: requests that wait.
        wait_s: how long one waits at most, in seconds.
    """

    min_workers: int = 2
    at_once: int = 2
    most: int = 8
    per_person: int = 3
    long: int = 3
    queue: int = 200
    wait_s: float = 15.0


@dataclass(eq=False, slots=True)
class _Request:
    """A request that waits for a worker, or has one."""

    caller: Caller
    ready: threading.Event = field(default_factory=threading.Event)
    began: float = 0.0
    worker: WorkerProcess | None = None


class Pool:
    """Workers, and the requests that wait for one.

    Args:
        template: makes workers.
        size: how many there may be.
    """

    def __init__(self, template: Template, size: PoolSize = PoolSize()) -> None:
        self._template, self._size = template, size
        self._lock = threading.Lock()
        self._idle: list[WorkerProcess] = []
        self._running: set[_Request] = set()
        self._waiting: OrderedDict[str, deque[_Request]] = OrderedDict()
        self._closed = threading.Event()
        self._may_replace = True
        threading.Thread(target=self._keep, daemon=True, name="pool").start()

    @contextmanager
    def lease(self, caller: Caller) -> Iterator[Lease]:
        """Wait for a worker, see ``Compute.lease``."""
        request = _Request(caller)
        self._wait(request)
        try:
            if request.worker is None:
                request.worker = self._make()
            request.worker.study_id = caller.study_id
            yield request.worker
        finally:
            self._release(request)

    def close(self) -> None:
        """End all workers; what they were at is lost."""
        self._closed.set()
        with self._lock:
            workers = [*self._idle, *(r.worker for r in self._running if r.worker is not None)]
            self._idle.clear()
        for worker in workers:
            worker.kill()

    def _make(self) -> WorkerProcess:
        try:
            return WorkerProcess(*self._template.make_worker())
        except (OSError, EOFError) as err:
            raise BusyError from err

    def _wait(self, request: _Request) -> None:
        until = time.monotonic() + self._size.wait_s
        with self._lock:
            if sum(map(len, self._waiting.values())) >= self._size.queue:
                raise BusyError
            self._waiting.setdefault(request.caller.person, deque()).append(request)
            self._grant()
        while not request.ready.wait(self._until_next_look(request)):
            with self._lock:
                self._grant()
                if request.ready.is_set():
                    return
                is_late = time.monotonic() > until
                if is_late or request.caller.is_gone():
                    self._remove(request)
                    raise BusyError if is_late else GoneError

    def _until_next_look(self, request: _Request) -> float:
        """Return how long to wait: the first in the queue sees that a moment is over."""
        with self._lock:
            is_first = any(queue and queue[0] is request for queue in self._waiting.values())
        return _MOMENT_S / 2 if is_first else _LOOK_S

    def _remove(self, request: _Request) -> None:
        queue = self._waiting[request.caller.person]
        queue.remove(request)
        if not queue:
            del self._waiting[request.caller.person]

    def _grant(self) -> None:
        """Assign workers to those who are next, as long as there is room; the lock is held."""
        size, now = self._size, time.monotonic()
        while self._waiting and len(self._running) < size.most:
            short = sum(now - job.began < _MOMENT_S for job in self._running)
            if short >= size.at_once:
                return
            request = self._next()
            if request is None:
                return
            request.began = now
            request.worker = self._take(request.caller.study_id)
            self._running.add(request)
            request.ready.set()

    def _next(self) -> _Request | None:
        """Take the first request of the next person who may have one more worker."""
        has_room = sum(job.caller.is_long for job in self._running) < self._size.long
        for person, queue in self._waiting.items():
            if self._count_of(person) < self._size.per_person and (
                has_room or not queue[0].caller.is_long
            ):
                request = queue.popleft()
                # The others come first now.
                self._waiting.move_to_end(person)
                if not queue:
                    del self._waiting[person]
                return request
        return None

    def _count_of(self, person: str) -> int:
        return sum(job.caller.person == person for job in self._running)

    def _take(self, study_id: uuid.UUID) -> WorkerProcess | None:
        """Take an idle worker, one that knows the study if there is one; None to make a new one."""
        for k in range(len(self._idle) - 1, -1, -1):
            if self._idle[k].study_id == study_id:
                return self._idle.pop(k)
        unused = next((k for k, worker in enumerate(self._idle) if worker.study_id is None), 0)
        has_room = len(self._idle) + len(self._running) < self._size.min_workers
        return self._idle.pop(unused) if self._idle and not has_room else None

    def _release(self, request: _Request) -> None:
        worker = request.worker
        with self._lock:
            self._running.discard(request)
            if worker is not None and worker.is_usable and not self._closed.is_set():
                worker.idle_since = time.monotonic()
                self._idle.append(worker)
                worker = None
            self._grant()
        if worker is not None:
            worker.close()

    def _keep(self) -> None:
        """Keep a few workers ready, and end those that are no longer needed."""
        while True:
            with self._lock:
                missing = self._size.min_workers - len(self._idle) - len(self._running)
            for _ in range(missing):
                try:
                    worker = self._make()
                except BusyError:
                    break
                with self._lock:
                    if not self._closed.is_set():
                        self._idle.append(worker)
                        self._grant()
                        continue
                worker.kill()
            for worker in self._outdated():
                worker.close()
            self._replace_early()
            if self._closed.wait(_SWEEP_S):
                return

    def _replace_early(self) -> None:
        """Let a worker that was made early go when it rests, if a new one has more."""
        rested = time.monotonic() - _SWEEP_S
        with self._lock:
            early = next((w for w in self._idle if w.is_early and w.idle_since < rested), None)
        if early is None or not self._may_replace:
            return
        try:
            new = self._make()
        except BusyError:
            return
        # The template may never have more.
        self._may_replace = not new.is_early
        with self._lock:
            goes = early if early in self._idle and not new.is_early else new
            if goes is early:
                self._idle[self._idle.index(early)] = new
        goes.close()

    def _outdated(self) -> list[WorkerProcess]:
        """Take out the workers that were idle for long, but for the minimum number."""
        with self._lock:
            many = len(self._idle) + len(self._running) - self._size.min_workers
            old = time.monotonic() - _IDLE_S
            outdated = [worker for worker in self._idle if worker.idle_since < old][: max(many, 0)]
            self._idle = [worker for worker in self._idle if worker not in outdated]
        return outdated
