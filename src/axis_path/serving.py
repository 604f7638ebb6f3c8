"""What gunicorn reads before it makes its processes: the little that they share.

A page that has a wire stays with the process that took it. Which process takes a connection is
chance, so each counts its wires where the others see it, and sends a page on to one with fewer.
"""

from __future__ import annotations

import threading
from multiprocessing.sharedctypes import RawArray
from typing import Any, Final

_MOST_PROCESSES: Final = 16
#: How many wires each process holds; only the process itself writes there. Without one: -1.
_held = RawArray("i", [-1] * _MOST_PROCESSES)
_lock = threading.Lock()


class _Own:
    """Where this process counts."""

    place = 0


def post_fork(_server: Any, worker: Any) -> None:  # noqa: ANN401 - gunicorn's own
    """Give a new process its place."""
    _Own.place = worker.age % _MOST_PROCESSES
    _held[_Own.place] = 0


def child_exit(_server: Any, worker: Any) -> None:  # noqa: ANN401 - gunicorn's own
    """Forget a process that has ended."""
    _held[worker.age % _MOST_PROCESSES] = -1


def take_wire(most: int) -> bool:
    """Count one more wire of this process.

    Args:
        most: how many it may have.

    Returns:
        Whether it was counted; not if another process holds fewer, or this one has its fill.
    """
    with _lock:
        mine = max(_held[_Own.place], 0)
        others = [held for k, held in enumerate(_held) if held >= 0 and k != _Own.place]
        if mine >= min([most, *(held + 1 for held in others)]):
            return False
        _held[_Own.place] = mine + 1
        return True


def give_wire_back() -> None:
    """Count one less."""
    with _lock:
        _held[_Own.place] -= 1
