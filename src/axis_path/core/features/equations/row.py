"""What rows show of their sets of equations, as plain data."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.features.equations.sheets import SetLines, SetSummary
from axis_path.core.features.feature import SceneRequest
from axis_path.core.kinds.functions.read_off import READING_DIGITS
from axis_path.core.language import GREEK, typeset_signature


def sets_in_scene(snapshot: Snapshot, _request: SceneRequest) -> dict[str, Any]:
    """Return all sets of equations in short, by the ids of their lines."""
    if not snapshot.analysis.sets:
        return {"sets": {}}
    lines = snapshot.query(SetLines)
    summaries = {
        str(snapshot.lines[index].id): lines.summary(snapshot.lines[index].id, READING_DIGITS)
        for index in snapshot.analysis.sets
        if not snapshot.lines[index].disabled
    }
    return {
        "sets": {id_: _shown(snapshot, one) for id_, one in summaries.items() if one is not None}
    }


def _shown(snapshot: Snapshot, summary: SetSummary) -> dict[str, Any]:
    """Return a set with its names as they are shown, such as μ for ``mu``."""
    return asdict(summary) | {
        "known": [*map(_name, summary.known)],
        "unknown": [*map(_name, summary.unknown)],
        "values": [
            {
                "name": name,
                "mathml": typeset_signature(name, ()),
                "text": text,
                "used_by": snapshot.analysis.users(name),
            }
            for name, text in summary.values
        ],
    }


def _name(name: str) -> str:
    return GREEK.get(name, name)
