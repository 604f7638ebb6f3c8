"""The plane in words, as plain data."""

from __future__ import annotations

from typing import Any

from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import DescriptionQuery
from axis_path.core import Study
from axis_path.core.deadline import calculation
from axis_path.core.document.data import Data
from axis_path.core.errors import MathError
from axis_path.core.features.data.plots import Plots
from axis_path.core.features.description import describe, window_in_words


def description(job: Job, query: DescriptionQuery) -> dict[str, Any]:
    """Describe what the window shows of each line that is drawn."""
    request = realise(job, query)
    snapshot = request.study.snapshot
    lines = []
    for line in snapshot.lines:
        with calculation():
            described = describe(snapshot, snapshot.definition(line.id), request.window)
        if described is not None:
            lines.append({
                "id": described.id, "text": described.text, "mathml": described.mathml,
                "sentences": list(described.sentences),
            })  # fmt: skip
    return {
        "version": request.version,
        "window": window_in_words(snapshot, request.window),
        "lines": lines,
        "data": _data(request.study),
    }


def _data(study: Study) -> list[str]:
    """Describe the columns that are drawn as points."""
    sentences = []
    for plot in study.snapshot.section(Data).plots:
        try:
            points, _ = study.snapshot.query(Plots).plotted(plot)
        except MathError as err:
            sentences.append(f"{plot.y} against {plot.x} is not drawn: {err.message}")
            continue
        count = len(points)
        sentences.append(
            f"{count} {'point' if count == 1 else 'points'}: {plot.y} against {plot.x}."
        )
    return sentences
