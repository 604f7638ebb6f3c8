"""Exact algebra in a child of a worker, which is killed when its time or memory is over.

A worker has one thread, so it can be forked while it works. The child shares all that was loaded
and sees the very values that it needs; only its result is sent back.
"""

from __future__ import annotations

import contextlib
import os
import pickle
import resource
import select
import signal
import time
from collections.abc import Callable
from importlib import import_module
from pathlib import Path
from typing import Any

from axis_path.core.deadline import seconds_left
from axis_path.core.limits import EXACT_MEMORY

_BLOCK = 1 << 16
_WAKE_S = 0.1


def run_forked(function: Callable[..., Any], arguments: tuple[Any, ...], limit_ms: int) -> Any:  # noqa: ANN401 - what it returns
    """Run a function in a child process and return its result.

    Raises:
        TimeoutError: its time is over, or nobody waits any more.
        RuntimeError: the child ended without a result: it failed, or its memory was used up.
    """
    # Loaded here and not in each child: that would take longer than what it does.
    import_module("axis_path.core.evaluate.exact.exact_form")
    reader, writer = os.pipe()
    child = os.fork()
    if child == 0:
        os.close(reader)
        _run_child(writer, function, arguments)
    os.close(writer)
    try:
        data = _read(reader, time.monotonic() + min(limit_ms / 1000, seconds_left()))
    finally:
        os.close(reader)
        with contextlib.suppress(ProcessLookupError):
            os.kill(child, signal.SIGKILL)
        os.waitpid(child, 0)
    if not data:
        raise RuntimeError("the child process ended without a result")
    return pickle.loads(data)  # noqa: S301 - our own child wrote it


def _run_child(writer: int, function: Callable[..., Any], arguments: tuple[Any, ...]) -> None:
    try:
        pages = int(Path("/proc/self/statm").read_text().split()[0])
        size = pages * resource.getpagesize() + EXACT_MEMORY.value * 2**20
        _, most = resource.getrlimit(resource.RLIMIT_AS)
        resource.setrlimit(resource.RLIMIT_AS, (min(size, most) if most > 0 else size, most))
        data = pickle.dumps(function(*arguments))
        while data:
            data = data[os.write(writer, data) :]
    finally:
        # Whatever it was, it ends here: the parent reads that there is no result.
        os._exit(0)


def _read(reader: int, until: float) -> bytes:
    parts: list[bytes] = []
    while True:
        left = until - time.monotonic()
        if left <= 0 or seconds_left() <= 0:
            raise TimeoutError
        if not select.select([reader], [], [], min(left, _WAKE_S))[0]:
            continue
        part = os.read(reader, _BLOCK)
        if not part:
            return b"".join(parts)
        parts.append(part)
