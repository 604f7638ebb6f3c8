"""What the machine that is measured on does meanwhile."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path


def _ticks() -> tuple[int, int]:
    """Return how many ticks all processors had, and how many of them others took (`man 5 proc`)."""
    fields = [int(field) for field in Path("/proc/stat").read_text().split("\n", 1)[0].split()[1:9]]
    return sum(fields), fields[7]


@contextmanager
def telling_what_was_taken() -> Iterator[None]:
    """Print how much of the processors the host gave to others: what was measured then is slower."""
    whole, taken = _ticks()
    yield
    whole, taken = (now - before for now, before in zip(_ticks(), (whole, taken), strict=True))
    print(f"the host gave {taken / max(whole, 1):.0%} of the processors to others meanwhile")
