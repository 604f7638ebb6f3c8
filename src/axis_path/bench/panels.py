"""What the side panel and the row being written show, as plain data."""

from __future__ import annotations

from typing import Any

from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import PreviewQuery
from axis_path.bench.working.lines import working_preview
from axis_path.core import Study
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.results import Results
from axis_path.core.dimensions import measured_words
from axis_path.core.study import problem_dict


def preview(job: Job, query: PreviewQuery) -> dict[str, Any]:
    """Return how a text would be read in the place of a line, or as a new line."""
    text, study = query.text, realise(job, query).study
    if query.is_working:
        return working_preview(study, " ".join(text.split()), query.id) | {"text": text}
    number = study.snapshot.next_id() if query.id is None else query.id
    study.write(number, " ".join(text.split()))
    made = study.snapshot.definition(number)
    return {
        "text": text,
        "kind": made.kind.value,
        "name": made.name,
        "mathml": made.mathml,
        "domain": made.domain_mathml,
        "latex": made.latex,
        "hint": "" if made.problem else _hint(study, made, text),
        "problem": None if made.problem is None else problem_dict(made.problem),
    }


def _hint(study: Study, definition: Definition, text: str) -> str:
    """Return how a line is read where it could be meant otherwise, else what it measures."""
    hint = study.snapshot.query(Results).hint(text)
    words = "" if definition.units is None else measured_words(definition.units)
    return hint or (f"{words[0].upper()}{words[1:]}" if words else "")
