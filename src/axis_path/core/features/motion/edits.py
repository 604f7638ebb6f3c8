"""Edits of trails: they go on through the states that a pointer or a player went through."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from axis_path.core.compile.numbers import GivenNumber
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.features.lines.edits import put_trail
from axis_path.core.features.motion.queries import Motion


def go_on(
    snapshot: Snapshot,
    visits: Sequence[Mapping[int, GivenNumber]],
    window: Window | None = None,
    *,
    is_joined: bool = False,
) -> Snapshot:
    """Let trails go on through some states; see ``Motion.visited``."""
    if not visits:
        return snapshot
    visited = snapshot.query(Motion).visited(visits, window, is_joined=is_joined)
    for line_id, positions in visited.items():
        trail = snapshot.line(line_id).trail
        if trail is None:
            continue
        is_going_on = is_joined or trail.with_more(positions[:1]) == trail
        more = positions if is_going_on else [None, *positions]
        snapshot = put_trail(snapshot, line_id, trail.with_more(more))
    return snapshot
