"""Requests that ended a worker are not carried out again at once: each death doubles the pause."""

from __future__ import annotations

import hashlib
import threading
import time
import uuid
from collections.abc import Callable
from dataclasses import dataclass

from cachetools import LRUCache

from axis_path.compute import WorkerDiedError

_FIRST_PAUSE_S, _LONGEST_PAUSE_S = 1.0, 120.0
#: A study whose requests have gone well for so long is as good as any other.
_FORGET_S = 600.0
_MOST_CACHED = 2_000


@dataclass(frozen=True, slots=True)
class _Deaths:
    count: int
    until: float


class Guard:
    """The requests that ended a worker, and until when they are refused.

    Args:
        clock: the time in seconds.
    """

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock = clock
        self._deaths: LRUCache[bytes, _Deaths] = LRUCache(_MOST_CACHED)
        self._lock = threading.Lock()

    @staticmethod
    def key(study_id: uuid.UUID, task: str, body: bytes) -> bytes:
        """Return what tells a request from others."""
        return hashlib.blake2b(body, digest_size=16, key=task.encode()).digest() + study_id.bytes

    def check(self, key: bytes) -> None:
        """Refuse a request that is in its pause.

        Raises:
            WorkerDiedError: it is; it says when to try again.
        """
        with self._lock:
            deaths = self._deaths.get(key)
            left = 0.0 if deaths is None else deaths.until - self._clock()
        if left > 0:
            raise WorkerDiedError(retry_after_s=left)

    def note_death(self, key: bytes) -> float:
        """Note that a request ended its worker, and return for how long it is refused."""
        with self._lock:
            now = self._clock()
            before = self._deaths.get(key)
            is_new = before is None or now - before.until > _FORGET_S
            count = 1 if before is None or is_new else before.count + 1
            pause: float = min(_FIRST_PAUSE_S * 2 ** (count - 1), _LONGEST_PAUSE_S)
            self._deaths[key] = _Deaths(count, now + pause)
        return pause
