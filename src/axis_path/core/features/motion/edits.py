"""Edits of trails: they go on through the states that a hand or a player went through."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from axis_path.core.compile.numbers import GivenNumber
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.features.lines.edits import put_trail
from axis_path.core.features.motion.queries import Motion


def go_on(snapshot: Snapshot, visits: Sequence[Mapping[int, GivenNumber]]) -> Snapshot:
    """Let trails go on through some states; see ``Motion.visited``."""
    for line_id, places in snapshot.query(Motion).visited(visits).items() if visits else ():
        trail = snapshot.line(line_id).trail
        if trail is not None:
            snapshot = put_trail(snapshot, line_id, trail.with_more(places))
    return snapshot
