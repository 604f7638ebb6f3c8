"""How long a caller waits for a calculation, and whether it still does.

The core has no clock: a caller lends one with its ``Patience``. Whatever takes long calls ``check``
at every step, so that a calculation ends soon after it should, whichever it is.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field

from axis_path.core.errors import StoppedError
from axis_path.core.limits import ALL_TIME, CALCULATION_TIME

#: To ask whether the caller still waits costs more than to look at the clock.
_ASK_EVERY_S = 0.02
_CANCELLED = "This was stopped."


def _still_waits() -> bool:
    return False


@dataclass(frozen=True, slots=True)
class Patience:
    """How long a caller waits.

    Attributes:
        clock: gives the time in seconds.
        each_s: how long one calculation may take: a value, a curve, a search, a table.
        all_s: how long all that is asked for at once may take together.
        is_cancelled: tells whether nobody waits any more.
    """

    clock: Callable[[], float]
    each_s: float = CALCULATION_TIME.value / 1000
    all_s: float = ALL_TIME.value / 1000
    is_cancelled: Callable[[], bool] = _still_waits


@dataclass(slots=True)
class _Wait:
    patience: Patience
    end: float
    ask_at: float = field(default=0.0)
    is_one: bool = False
    is_brief: bool = False


_present: ContextVar[_Wait | None] = ContextVar("patience", default=None)


@contextmanager
def waiting(patience: Patience) -> Iterator[None]:
    """Compute for a caller who does not wait for ever."""
    token = _present.set(_Wait(patience, patience.clock() + patience.all_s))
    try:
        yield
    finally:
        _present.reset(token)


@contextmanager
def _until(wait: _Wait, end: float, *, is_brief: bool = False) -> Iterator[None]:
    """Compute as one calculation that ends at a time."""
    token = _present.set(_Wait(wait.patience, end, is_one=True, is_brief=is_brief or wait.is_brief))
    try:
        yield
    finally:
        _present.reset(token)


@contextmanager
def calculation() -> Iterator[None]:
    """Begin one calculation, with a time of its own; one within another belongs to that."""
    wait = _present.get()
    if wait is None or wait.is_one:
        yield
        return
    with _until(wait, min(wait.end, wait.patience.clock() + wait.patience.each_s)):
        yield


@contextmanager
def briefly(seconds: float) -> Iterator[None]:
    """Compute something that is left if it takes longer, however long the caller would wait.

    Without a clock it takes as long as it takes.
    """
    wait = _present.get()
    if wait is None:
        yield
        return
    with _until(wait, min(wait.end, wait.patience.clock() + seconds), is_brief=True):
        yield


def is_brief() -> bool:
    """Tell whether what is computed is left if it takes longer: nobody wants a part of it."""
    wait = _present.get()
    return wait is not None and wait.is_brief


@contextmanager
def grace(seconds: float) -> Iterator[None]:
    """Compute a little after the time is over: what can still be said of what was stopped.

    Raises:
        StoppedError: nobody waits any more.
    """
    wait = _present.get()
    if wait is None:
        yield
        return
    if wait.patience.is_cancelled():
        raise StoppedError(_CANCELLED)
    with _until(wait, wait.patience.clock() + seconds):
        yield


def check() -> None:
    """End the present calculation if nobody waits for it any longer.

    Raises:
        StoppedError: its time is over, or it was cancelled.
    """
    wait = _present.get()
    if wait is None:
        return
    now = wait.patience.clock()
    if now > wait.end:
        raise StoppedError(
            f"This takes longer than {wait.patience.each_s:g} s, so it was stopped. "
            "Fewer terms, a narrower domain or simpler numbers take less."
        )
    if now > wait.ask_at:
        wait.ask_at = now + _ASK_EVERY_S
        if wait.patience.is_cancelled():
            raise StoppedError(_CANCELLED)
