"""The process in which exact forms are looked for, with a limit of time and of memory.

Processes are forked from a small server that has loaded SymPy once, so that one that had to be
ended is replaced quickly. They do not run the program that uses us a second time.
"""

from __future__ import annotations

import atexit
import multiprocessing
import resource
import sys
import threading
from collections.abc import Callable
from concurrent.futures import BrokenExecutor
from concurrent.futures import TimeoutError as FutureTimeoutError
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from multiprocessing.context import ForkServerContext, ForkServerProcess
from pathlib import Path
from typing import Any, TypeVar

from pebble import ProcessExpired, ProcessPool

from axis_path.core.arithmetic.real_number import Parameters, fractions_only
from axis_path.core.evaluate.graph.program import Program
from axis_path.core.limits import EXACT_MEMORY, EXACT_TIME

T = TypeVar("T")
#: So many seconds after its limit a worker ends itself whose program was killed meanwhile.
_GRACE_S = 3
_OUT_OF_TIME = "no exact form was found in time"


@dataclass(frozen=True, slots=True)
class ExactForm:
    """What was found.

    Attributes:
        text: the exact form in our language; None if there is none.
        note: why there may be one all the same: the time or the memory ran out; else empty.
    """

    text: str | None
    note: str = ""


class _Process(ForkServerProcess):
    """A process that does not load the main program again."""

    @staticmethod
    def _Popen(process: Any) -> Any:  # noqa: N802, ANN401 - Python's own interface
        main = sys.modules["__main__"]
        hidden = {name: getattr(main, name, None) for name in ("__file__", "__spec__")}
        try:
            for name in hidden:
                setattr(main, name, None)
            return ForkServerProcess._Popen(process)
        finally:
            for name, value in hidden.items():
                if value is not None or name == "__spec__":
                    setattr(main, name, value)
                else:
                    delattr(main, name)


class _Context(ForkServerContext):
    Process = _Process


def _limit_memory(megabytes: int) -> None:
    """Let a worker take so much more than what its libraries have reserved already."""
    pages = int(Path("/proc/self/statm").read_text().split()[0])
    size = pages * resource.getpagesize() + megabytes * 1024 * 1024
    resource.setrlimit(resource.RLIMIT_AS, (size, size))


def _within_limit(function: Callable[..., T], arguments: tuple[Any, ...], limit_ms: int) -> T:
    """Run a function here; the process ends by itself if nobody is left to end it in time."""
    used = resource.getrusage(resource.RUSAGE_SELF)
    ends_s = int(used.ru_utime + used.ru_stime + limit_ms / 1000) + _GRACE_S
    resource.setrlimit(resource.RLIMIT_CPU, (ends_s, resource.RLIM_INFINITY))
    return function(*arguments)


def _work(program: Program, parameters: dict[str, Fraction]) -> str | None:
    from axis_path.core.evaluate.exact.exact_form import find_exact

    return _unless_it_fails(find_exact, program, parameters)


def _solve(program: Program, parameters: dict[str, Fraction], in_degrees: bool) -> tuple[str, ...]:
    from axis_path.core.evaluate.exact.exact_form import find_solutions

    return _unless_it_fails(find_solutions, program, parameters, in_degrees=in_degrees) or ()


def _compare(program: Program, parameters: dict[str, Fraction]) -> bool:
    from axis_path.core.evaluate.exact.exact_form import find_identity

    return _unless_it_fails(find_identity, program, parameters) is True


def _unless_it_fails(find: Callable[..., T], *arguments: object, **more: object) -> T | None:
    """Return what is found; None where SymPy fails, with errors of any class, on odd numbers."""
    try:
        return find(*arguments, **more)
    except MemoryError:
        raise
    except Exception:  # noqa: BLE001 - what it cannot do is not found
        return None


class _Pool:
    """One worker, made when it is first needed."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._pool: ProcessPool | None = None

    def get(self) -> ProcessPool:
        with self._lock:
            if self._pool is None:
                multiprocessing.set_forkserver_preload(["axis_path.core.evaluate.exact.exact_form"])
                self._pool = ProcessPool(
                    max_workers=1,
                    context=_Context(),
                    initializer=_limit_memory,
                    initargs=[EXACT_MEMORY.value],
                )
                atexit.register(self.stop)
            return self._pool

    def stop(self) -> None:
        with self._lock:
            if self._pool is not None:
                self._pool.stop()
                self._pool.join()
                self._pool = None


_pool = _Pool()


#: So many threads may wait for the one process; further ones are refused as busy.
_LONGEST_QUEUE = 8
_queue = threading.BoundedSemaphore(_LONGEST_QUEUE)


def _run_pooled(function: Callable[..., Any], arguments: tuple[Any, ...], limit_ms: int) -> Any:  # noqa: ANN401 - what it returns
    if not _queue.acquire(blocking=False):
        raise TimeoutError
    try:
        future = _pool.get().schedule(
            _within_limit, args=[function, arguments, limit_ms], timeout=limit_ms / 1000
        )
        # Those before it in the queue may take as long each.
        return future.result(timeout=_LONGEST_QUEUE * limit_ms / 1000)
    finally:
        _queue.release()


Runner = Callable[[Callable[..., Any], tuple[Any, ...], int], Any]


class _Runner:
    """How this process does exact work."""

    run: Runner = staticmethod(_run_pooled)


def run_exact_work_with(runner: Runner) -> None:
    """Let another way of running a function within limits do the exact work of this process.

    Args:
        runner: is called with the function, its arguments and the time in ms; it raises
            ``TimeoutError``, ``MemoryError`` or ``RuntimeError`` where there is no result.
    """
    _Runner.run = staticmethod(runner)


def run_limited(function: Callable[..., Any], *arguments: object, limit_ms: int) -> Any:  # noqa: ANN401 - what it returns
    """Run a function with the limits of exact work.

    Raises:
        TimeoutError, MemoryError, RuntimeError: a limit was reached, or it failed.
    """
    return _Runner.run(function, arguments, limit_ms)


def exact_form(
    program: Program, parameters: Parameters, *, limit_ms: int | None = None
) -> ExactForm:
    """Look for the exact form of a program without variables.

    Args:
        program: what to compute.
        parameters: the values of the sliders that it reads.
        limit_ms: how long to look; as long as is usual if it is not given.
    """
    known = fractions_only(parameters, program.parameters)
    if known is None:
        return ExactForm(None)
    used = tuple(known.items())
    try:
        return _cached_form(program, used, EXACT_TIME.value if limit_ms is None else limit_ms)
    except _BusyError:
        return ExactForm(None, _OUT_OF_TIME)


def exact_solutions(
    program: Program, parameters: Parameters, *, in_degrees: bool
) -> tuple[str, ...]:
    """Look for numbers in exact form at which a program with a variable is zero.

    Args:
        program: what must be zero.
        parameters: the values of the sliders that it reads.
        in_degrees: whether the texts are read where angles are degrees.

    Returns:
        Texts of our language, not proved and perhaps not all; none if there was no time.
    """
    known = fractions_only(parameters, program.parameters)
    if known is None:
        return ()
    used = tuple(known.items())
    try:
        return _solutions(program, used, in_degrees)
    except _BusyError:
        return ()


def is_identity(program: Program, parameters: Parameters) -> bool:
    """Check whether a program with a variable simplifies to zero: algebra says so, no proof."""
    used = fractions_only(parameters, program.parameters)
    return used is not None and _limited(_compare, program, used, limit_ms=EXACT_TIME.value) is True


@lru_cache(maxsize=512)
def _solutions(
    program: Program, parameters: tuple[tuple[str, Fraction], ...], in_degrees: bool
) -> tuple[str, ...]:
    solutions = _limited(
        _solve, program, dict(parameters), in_degrees, limit_ms=EXACT_TIME.value // 2
    )
    if isinstance(solutions, tuple):
        return solutions
    _note_tried(program, (*parameters, ("", Fraction(in_degrees))))
    return ()


@lru_cache(maxsize=2048)
def _cached_form(
    program: Program, parameters: tuple[tuple[str, Fraction], ...], limit_ms: int
) -> ExactForm:
    form = _limited(_work, program, dict(parameters), limit_ms=limit_ms)
    if form is not _NOTHING:
        return ExactForm(form)
    _note_tried(program, parameters)
    return ExactForm(None, _OUT_OF_TIME)


def _note_tried(program: Program, parameters: tuple[tuple[str, Fraction], ...]) -> None:
    """Note that there was no answer in time: the machine may have been busy.

    Raises:
        _BusyError: it was the first time; what has no answer twice is stored as that.
    """
    with _tried_lock:
        if len(_tried) > _MOST_TRIED:
            _tried.clear()
        is_first = (program, parameters) not in _tried
        _tried.add((program, parameters))
    if is_first:
        raise _BusyError


class _BusyError(Exception):
    """There was no answer in time; what is raised is not stored."""


_NOTHING = object()
_tried: set[tuple[Program, tuple[tuple[str, Fraction], ...]]] = set()
_tried_lock = threading.Lock()
_MOST_TRIED = 1_000


def _limited(function: Callable[..., Any], *arguments: object, limit_ms: int) -> Any:  # noqa: ANN401 - what it gives
    """Run a function in a worker; ``_NOTHING`` if it came to an end before its answer."""
    try:
        return run_limited(function, *arguments, limit_ms=limit_ms)
    except (FutureTimeoutError, MemoryError, ProcessExpired):
        return _NOTHING
    except (BrokenExecutor, RuntimeError):
        # The workers died, from want of memory perhaps: the next question gets new ones.
        _pool.stop()
        return _NOTHING
