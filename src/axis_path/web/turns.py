"""Turns: what is asked on many wires at once is computed one after the other, in the order it came.

Threads of a process that compute at once take the interpreter from one another every few
milliseconds, and all of them are late. In turn each is answered as soon as it can be, and all wait
alike. Who takes long keeps nobody waiting: after a while its turn is over, and it goes on beside
the others.
"""

from __future__ import annotations

import threading
import time
from collections import deque
from collections.abc import Iterator
from contextlib import contextmanager


class Turns:
    """A queue of threads, of which one has its turn.

    Args:
        most_s: so long the others wait for the one that has its turn, in seconds.
    """

    def __init__(self, most_s: float) -> None:
        self._most_s = most_s
        self._lock = threading.Lock()
        #: Who waits, and who has its turn; each is woken when it may be the next.
        self._waiting: deque[threading.Event] = deque()
        self._holder: threading.Event | None = None
        self._until = 0.0

    @contextmanager
    def take(self) -> Iterator[None]:
        """Wait for one's turn, and have it."""
        me = threading.Event()
        with self._lock:
            self._waiting.append(me)
        while (left := self._left_before(me)) is None or left > 0:
            me.wait(left)
            me.clear()
        try:
            yield
        finally:
            with self._lock:
                if self._holder is me:
                    self._holder = None
                    self._wake_first()

    def _left_before(self, me: threading.Event) -> float | None:
        """Give how long to wait at most: 0 if the turn is taken, None if others come before."""
        with self._lock:
            if self._waiting[0] is not me:
                return None
            now = time.monotonic()
            if self._holder is not None and now < self._until:
                return self._until - now
            self._waiting.popleft()
            self._holder, self._until = me, now + self._most_s
            # It waits no longer than until this turn is over.
            self._wake_first()
            return 0.0

    def _wake_first(self) -> None:
        if self._waiting:
            self._waiting[0].set()
