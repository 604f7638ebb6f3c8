"""What a command is: it makes the next snapshot of one, and says in a few words what was done."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window

#: The next snapshot, and a few words for the undo button.
Edited = tuple[Snapshot, str]
Command = Callable[[Snapshot, dict[str, Any], Window], Edited]


def called(snapshot: Snapshot, line_id: int) -> str:
    """Return what a line is called in the words for the undo button."""
    return snapshot.definition(line_id).name or "a line"


def listed(names: list[str]) -> str:
    """Return names as words: `g`, `h` and `p`."""
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
