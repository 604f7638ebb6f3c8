"""Words for the person at the terminal: which step runs, and how long it took."""

import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager


class LauncherError(Exception):
    """Something that the person at the terminal must know; the message is for them."""


def say(text: str) -> None:
    """Print a line at once."""
    print(text, flush=True)


@contextmanager
def step(text: str) -> Iterator[None]:
    """Announce a long step, and say when it is done."""
    sys.stdout.write(f"  {text} … ")
    sys.stdout.flush()
    began = time.monotonic()
    try:
        yield
    except BaseException:
        print("stopped", flush=True)
        raise
    print(f"done ({time.monotonic() - began:.0f} s)", flush=True)
