"""Memory that was needed to load everything and is not needed to run it.

The compiler behind the arithmetic brings a library of 170 MB, of which loading the compiled code
reads 70. Nothing is written to those pages, so this process can give them back: the system keeps
them as a cache as long as it likes, and the few that are used again are mapped again.
"""

from __future__ import annotations

import ctypes
import re
from collections.abc import Iterable, Iterator
from pathlib import Path

_DONT_NEED = 4
_MAPS = Path("/proc/self/smaps")
#: Pages of one process alone are counted as these.
_PRIVATE = ("Anonymous:", "Swap:")
#: The first line of a mapping: its ends, what may be done with it, and the file if there is one.
_HEAD = re.compile(r"([0-9a-f]+)-([0-9a-f]+) (\S{4}) \S+ \S+ \S+ *(.*)$")
_LIBRARY = re.compile(r"/\S*\.so\S*$")


def release_memory() -> None:
    """Return unused heap, and the pages of libraries that loading has read.

    Called while the process has one thread. Where the system cannot do that, all stays as it is.
    """
    library = ctypes.CDLL(None)
    if hasattr(library, "malloc_trim"):
        library.malloc_trim(0)
    if not _MAPS.exists() or not hasattr(library, "madvise"):
        return
    for low, high in unwritten(_MAPS.read_text().splitlines()):
        library.madvise(ctypes.c_void_p(low), ctypes.c_size_t(high - low), _DONT_NEED)


def unwritten(lines: Iterable[str]) -> Iterator[tuple[int, int]]:
    """Return where libraries are mapped that nobody can write to and the loader did not.

    What the loader wrote is gone for good when its pages are returned. It can lie in memory or in
    swap: both must be empty.

    Args:
        lines: of ``/proc/self/smaps``.
    """
    span: tuple[int, int] | None = None
    empty: set[str] = set()
    for line in lines:
        if head := _HEAD.match(line):
            is_closed = head[3].startswith("r-") and head[3].endswith("p")
            is_library = _LIBRARY.match(head[4]) is not None
            span = (int(head[1], 16), int(head[2], 16)) if is_closed and is_library else None
            empty = set()
            continue
        match line.split():
            case [field, "0", "kB"] if field in _PRIVATE:
                empty.add(field)
            case _:
                pass
        if span and len(empty) == len(_PRIVATE):
            yield span
            span = None
