"""The sampling check that is kept with a study."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any

from axis_path.core.document.fields import field_of
from axis_path.core.limits import LINE_LENGTH


@dataclass(frozen=True, slots=True)
class Check:
    """Points of a function that are shown over its curve.

    Attributes:
        line: the id of the function's line.
        count: how many evenly spaced points, as typed; empty for a step.
        step: their distance, as typed; empty for a count.
    """

    line: int
    count: str = ""
    step: str = ""


@dataclass(frozen=True, slots=True)
class SamplingCheck:
    """The check that is shown, if any."""

    check: Check | None = None


def to_fields(section: SamplingCheck) -> dict[str, Any]:
    """Return the fields of the study format."""
    return {} if section.check is None else {"check": asdict(section.check)}


def from_fields(given: dict[str, Any]) -> SamplingCheck:
    """Read the section.

    Raises:
        FormatError: a field is not what it should be.
    """
    if given.get("check") is None:
        return SamplingCheck()
    return SamplingCheck(_check(field_of(given, "check", dict)))


def _check(given: dict[str, Any]) -> Check:
    texts = (field_of(given, name, str, "")[: LINE_LENGTH.value] for name in ("count", "step"))
    return Check(field_of(given, "line", int), *texts)
