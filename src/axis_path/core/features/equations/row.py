"""What rows show of their sets of equations, as plain data."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.compile.results import Results
from axis_path.core.compile.sets.model import ReadSet
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.dimensions import ShownQuantity
from axis_path.core.features.equations.sheets import SetLines, SetSummary
from axis_path.core.features.feature import SceneRequest
from axis_path.core.features.units.row import unit_choice
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
        "sets": {
            id_: _shown(snapshot, snapshot.index_of(int(id_)), one)
            for id_, one in summaries.items()
            if one is not None
        }
    }


def _shown(snapshot: Snapshot, index: int, summary: SetSummary) -> dict[str, Any]:
    """Return a set with its names as they are shown, such as μ for ``mu``."""
    units = snapshot.query(Results).units_of_set(index)
    read = snapshot.analysis.sets[index].read
    return asdict(summary) | {
        "known": [*map(_name, summary.known)],
        "unknown": [*map(_name, summary.unknown)],
        "values": [
            {
                "name": name,
                "mathml": typeset_signature(name, ()),
                "text": text,
                "choice": _choice(read, name, units[name]),
                "used_by": snapshot.analysis.users(name),
            }
            for name, text in summary.values
        ],
    }


def _choice(read: ReadSet, name: str, unit: UnitProduct) -> dict[str, Any] | None:
    """Return the units in which a value can be shown; None for a plain number."""
    return unit_choice(ShownQuantity.of(read.measure(name)), unit) if unit.parts else None


def _name(name: str) -> str:
    return GREEK.get(name, name)
