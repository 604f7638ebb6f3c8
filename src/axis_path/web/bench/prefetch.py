"""When pages may prefetch: while the server has time for it.

A page that is used asks for a scene many times a second while something is dragged, and for little
else. With more active pages than processor cores, what is prefetched for one page delays another.
"""

from __future__ import annotations

import os
import threading
import time
from collections.abc import Callable, Hashable
from typing import Final

#: A page is active if it asked for a scene in so many seconds.
_ACTIVE_S: Final = 2.0


class PrefetchPolicy:
    """Counts the active pages.

    Args:
        is_on: whether the settings allow prefetching at all.
        cores: of the machine; found out by default.
        clock: the time in seconds.
    """

    def __init__(
        self,
        *,
        is_on: bool = True,
        cores: int | None = None,
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        self.is_on = is_on
        self._cores = len(os.sched_getaffinity(0)) if cores is None else cores
        self._clock = clock
        self._asked: dict[Hashable, float] = {}
        self._lock = threading.Lock()

    def note(self, page: Hashable) -> bool:
        """Note that a page asks for a scene; return whether it may prefetch."""
        if not self.is_on:
            return False
        now = self._clock()
        with self._lock:
            self._asked[page] = now
            gone = [inactive for inactive, at in self._asked.items() if now - at > _ACTIVE_S]
            for inactive in gone:
                del self._asked[inactive]
            return len(self._asked) <= self._cores
