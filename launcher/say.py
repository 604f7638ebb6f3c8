"""Words for the person at the terminal: which step runs, and how long it took."""

import sys
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager

_TICK_S = 2.0


class LauncherError(Exception):
    """Something that the person at the terminal must know; the message is for them."""


def say(text: str) -> None:
    """Print a line at once."""
    print(text, flush=True)


@contextmanager
def step(text: str) -> Iterator[None]:
    """Announce a long step, show that it goes on, and say when it is done."""
    sys.stdout.write(f"  {text} …")
    sys.stdout.flush()
    began = time.monotonic()
    done = threading.Event()
    ticking = threading.Thread(target=_tick, args=(done,), daemon=True)
    ticking.start()
    word = "stopped"
    try:
        yield
        word = f"done ({time.monotonic() - began:.0f} s)"
    finally:
        done.set()
        ticking.join()
        print(f" {word}", flush=True)


def _tick(done: threading.Event) -> None:
    while not done.wait(_TICK_S):
        sys.stdout.write(".")
        sys.stdout.flush()
