"""Sweeps: what is asked for is checked before a worker of the queue begins it."""

from __future__ import annotations

from typing import Any

from msgspec import UnsetType

from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import SweepQuery
from axis_path.jobs import SweepRequest, check_sweep


def sweep(job: Job, query: SweepQuery) -> dict[str, Any]:
    """Return the study in its present state and the sweep by names; refuse what cannot be."""
    study = realise(job, query).study
    request = SweepRequest(
        query.slider, query.what, query.line, query.other, query.low, query.high,
        None if isinstance(query.count, UnsetType) else query.count,
        None if isinstance(query.family, UnsetType) else query.family,
    )  # fmt: skip
    return {"document": study.to_dict(), "order": check_sweep(study, request).fields()}
