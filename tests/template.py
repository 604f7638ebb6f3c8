"""A template process for tests, whose workers can be made to die, hang or grow: real faults.

A line of a study that holds one of the words in ``FAULTS`` does so when its scene is made, in whichever
process that is.
"""

from __future__ import annotations

import os
import signal
import socket
import sys
import time
from typing import Any

import numpy as np

from axis_path.compute.template import fork_worker
from axis_path.core import Study

#: What a word in a note does to the process that draws the study.
FAULTS = ("abort", "hang", "grow", "exhaust")
_HELD: list[np.ndarray] = []


def poison() -> None:
    """Let a study die of its notes from now on, in this process and all that it forks."""
    draw = Study.scene

    def scene(study: Study, *given: Any, **more: Any) -> Any:
        for line in study.snapshot.lines:
            if line.text.startswith("# ") and not line.disabled:
                _fail(line.text.removeprefix("# "))
        return draw(study, *given, **more)

    Study.scene = scene  # type: ignore[assignment]


def _fail(word: str) -> None:
    if word == "abort":
        os.abort()
    if word == "hang":
        # Whatever a library does, it looks at no clock.
        signal.signal(signal.SIGALRM, signal.SIG_IGN)
        time.sleep(600)
    if word == "grow":
        _HELD.append(np.ones(32 << 20))
    if word == "exhaust":
        _HELD.append(np.ones(1 << 31))


def main() -> None:
    """Fork a worker for each order, until nobody can order any more."""
    poison()
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)
    channel = socket.socket(fileno=int(sys.argv[1]))
    while fork_worker(channel, []) is not None:
        pass


if __name__ == "__main__":
    main()
