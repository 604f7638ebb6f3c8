"""What the side panel and the row being written show, as plain data."""

from __future__ import annotations

from typing import Any

from axis_path.bench.request import BenchRequest
from axis_path.core.compile.results import Results
from axis_path.core.study import problem_dict


def preview_dict(asked: BenchRequest) -> dict[str, Any]:
    """Return how a text would be read in the place of a line, or as a new line."""
    text, line_id = str(asked.given.get("text", "")), asked.given.get("id")
    study = asked.study
    number = line_id if isinstance(line_id, int) else study.snapshot.next_id()
    study.write(number, " ".join(text.split()))
    made = study.snapshot.definition(number)
    return {
        "text": text,
        "kind": made.kind.value,
        "name": made.name,
        "mathml": made.mathml,
        "domain": made.domain_mathml,
        "latex": made.latex,
        "hint": "" if made.problem else study.snapshot.query(Results).hint(text),
        "problem": None if made.problem is None else problem_dict(made.problem),
    }
