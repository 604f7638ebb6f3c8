"""Sweeps: what is asked for is checked before a worker of the queue begins it."""

from __future__ import annotations

from typing import Any

from axis_path.bench.job import Job
from axis_path.bench.request import read_request
from axis_path.jobs import read_sweep


def sweep(job: Job) -> dict[str, Any]:
    """Return the study in its present state and the sweep by names; refuse what cannot be."""
    asked = read_request(job)
    return {"document": asked.study.to_dict(), "asked": read_sweep(asked.study, asked.given)}
