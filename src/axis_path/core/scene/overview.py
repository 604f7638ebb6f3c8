"""A study in short, as a list of studies shows it."""

from __future__ import annotations

from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.lines.meaning import Kind

#: So many lines are shown.
OVERVIEW_LINES = 3
_LONGEST_TEXT, _LONGEST_MATHML = 120, 4_000


def overview(snapshot: Snapshot) -> dict[str, Any]:
    """Return the first lines of a study, as text and typeset, and how many there are.

    A line whose typeset form is very long is given as text alone.
    """
    lines = []
    for definition in snapshot.definitions()[:OVERVIEW_LINES]:
        size = len(definition.mathml) + len(definition.domain_mathml)
        is_typeset = definition.problem is None and size < _LONGEST_MATHML
        lines.append({
            "text": definition.text[:_LONGEST_TEXT],
            "mathml": definition.mathml if is_typeset else "",
            "domain": definition.domain_mathml if is_typeset else "",
            "is_note": definition.kind is Kind.NOTE,
        })  # fmt: skip
    return {"lines": lines, "count": len(snapshot.lines)}
