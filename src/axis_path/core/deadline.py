"""Deadlines of calculations: how long a caller waits, and whether it still does.

The core has no clock: a caller lends one with its ``Deadline``. Whatever takes long calls ``check``
at every step, so that a calculation ends soon after it should, whichever it is.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from contextlib import AbstractContextManager
from contextvars import ContextVar, Token
from dataclasses import dataclass, field

from axis_path.core import messages
from axis_path.core.errors import CancelledError, StoppedError
from axis_path.core.limits import ALL_TIME, CALCULATION_TIME

#: To ask whether the caller still waits costs more than to look at the clock.
_ASK_EVERY_S = 0.02
_CANCELLED = messages.STOPPED
#: What part of the time of a calculation may be over when it still counts as all.
_FULL = 0.9


def _still_waits() -> bool:
    return False


@dataclass(frozen=True, slots=True)
class Deadline:
    """How long a caller waits.

    Attributes:
        clock: gives the time in seconds.
        step_s: how long one calculation may take: a value, a curve, a search, a table.
        total_s: how long all that is asked for at once may take together.
        is_cancelled: tells whether nobody waits any more.
    """

    clock: Callable[[], float]
    step_s: float = CALCULATION_TIME.value / 1000
    total_s: float = ALL_TIME.value / 1000
    is_cancelled: Callable[[], bool] = _still_waits


@dataclass(slots=True)
class _Wait:
    deadline: Deadline
    end: float
    ask_at: float = field(default=0.0)
    is_one: bool = False
    is_brief: bool = False


_present: ContextVar[_Wait | None] = ContextVar("deadline", default=None)


class _During:
    """Waits so during a block, and as before after it; without a wait nothing is changed.

    A class of its own: a generator takes three times as long, and every frame has some twenty.
    """

    __slots__ = ("_token", "_wait")

    def __init__(self, wait: _Wait | None) -> None:
        self._wait = wait
        self._token: Token[_Wait | None] | None = None

    def __enter__(self) -> None:
        if self._wait is not None:
            self._token = _present.set(self._wait)

    def __exit__(self, *_: object) -> None:
        if self._token is not None:
            _present.reset(self._token)


def deadline_scope(deadline: Deadline) -> AbstractContextManager[None]:
    """Compute for a caller who does not wait for ever."""
    return _During(_Wait(deadline, deadline.clock() + deadline.total_s))


def _until(wait: _Wait, end: float, *, is_brief: bool = False) -> _During:
    """Compute as one calculation that ends at a time."""
    return _During(_Wait(wait.deadline, end, is_one=True, is_brief=is_brief or wait.is_brief))


def calculation() -> AbstractContextManager[None]:
    """Begin one calculation, with a time of its own; one within another belongs to that."""
    wait = _present.get()
    if wait is None or wait.is_one:
        return _During(None)
    return _until(wait, min(wait.end, wait.deadline.clock() + wait.deadline.step_s))


def timeout_scope(seconds: float) -> AbstractContextManager[None]:
    """Compute something that is left if it takes longer, however long the caller would wait.

    Without a clock it takes as long as it takes.
    """
    wait = _present.get()
    if wait is None:
        return _During(None)
    return _until(wait, min(wait.end, wait.deadline.clock() + seconds), is_brief=True)


def is_brief() -> bool:
    """Check whether what is computed is left if it takes longer: nobody wants a part of it."""
    wait = _present.get()
    return wait is not None and wait.is_brief


def grace_period(seconds: float) -> AbstractContextManager[None]:
    """Compute a little after the time is over: what can still be said of what was stopped.

    Raises:
        StoppedError: nobody waits any more.
    """
    wait = _present.get()
    if wait is None:
        return _During(None)
    if wait.deadline.is_cancelled():
        raise CancelledError(_CANCELLED)
    return _until(wait, wait.deadline.clock() + seconds)


def has_full_time() -> bool:
    """Check whether the present calculation still has all the time that one may take."""
    wait = _present.get()
    if wait is None or not wait.is_one or wait.is_brief:
        return False
    return wait.end - wait.deadline.clock() > _FULL * wait.deadline.step_s


def seconds_left() -> float:
    """Return how long the present calculation may still take: 0 if nobody waits, else inf."""
    wait = _present.get()
    if wait is None:
        return math.inf
    if wait.deadline.is_cancelled():
        return 0.0
    return max(wait.end - wait.deadline.clock(), 0.0)


def check() -> None:
    """End the present calculation if nobody waits for it any longer.

    Raises:
        StoppedError: its time is over, or it was cancelled.
    """
    wait = _present.get()
    if wait is None:
        return
    now = wait.deadline.clock()
    if now > wait.end:
        raise StoppedError(messages.TAKES_TOO_LONG(seconds=wait.deadline.step_s))
    if now > wait.ask_at:
        wait.ask_at = now + _ASK_EVERY_S
        if wait.deadline.is_cancelled():
            raise CancelledError(_CANCELLED)
