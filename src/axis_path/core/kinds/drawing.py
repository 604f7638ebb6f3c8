"""What is drawn of one line in one window: its curve, its lane, or why there is none.

Most frames change one function or none, so the last drawings are stored. What a drawing depends on
is its key, in full: a drawing that is found is never stale.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from axis_path.core.draw import Curve
from axis_path.core.errors import StoppedError
from axis_path.core.threads import SharedCache

_MOST_DRAWINGS = 128


@dataclass(frozen=True, slots=True)
class Drawing:
    """What is drawn of a function.

    Attributes:
        data: ``curve``, ``lane`` and ``why`` of its row, and ``note``, what is not sure of it;
            plain data that is not changed.
        end: where its lettered flag belongs, in px; None if it is not seen.
        is_whole: False if it was stopped: it is shown, and made anew the next time.
        curve: the sampled curve of a path that is drawn, on which it is read.
    """

    data: dict[str, Any]
    end: tuple[float, float] | None
    is_whole: bool = True
    curve: Curve | None = None


NOTHING = Drawing({"curve": None, "lane": None, "why": None}, None)
#: What a row's data holds where a kind of line has nothing to say of it.
PLAIN = {"note": ""}
_cache: SharedCache[tuple[Any, ...], Drawing] = SharedCache(_MOST_DRAWINGS)


def cached_drawing(key: tuple[Any, ...], make: Callable[[], Drawing]) -> Drawing:
    """Return the drawing that was made for a key, or make it."""
    cached = _cache.get(key, None)
    if cached is None:
        cached = make()
        if cached.is_whole:
            _cache.put(key, cached)
    return cached


def stopped(lane: dict[str, Any] | None, err: StoppedError) -> Drawing:
    """Return the drawing of a curve that took too long."""
    why = {"sentence": err.message, "frame": False}
    return Drawing({"curve": None, "lane": lane, "why": why}, None, is_whole=False)
