"""The sampling check that is stored with a study."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.contract import Id, Line


@dataclass(frozen=True, slots=True)
class Check:
    """Points of a function that are shown over its curve.

    Attributes:
        line: the id of the function's line.
        count: how many evenly spaced points, as typed; empty for a step.
        step: their distance, as typed; empty for a count.
    """

    line: Id
    count: Line = ""
    step: Line = ""


@dataclass(frozen=True, slots=True)
class SamplingCheck:
    """The check that is shown, if any."""

    check: Check | None = None
