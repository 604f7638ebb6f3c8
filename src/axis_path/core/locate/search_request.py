"""What a search is for, as it was asked."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum


class Search(StrEnum):
    """What is located."""

    ZEROS = "zeros"
    EXTREMA = "extrema"
    INTERSECTIONS = "intersections"


@dataclass(frozen=True, slots=True)
class SearchRequest:
    """A search by the names of functions.

    Attributes:
        other: the second function, of intersections.
        low: the lower end as it was typed; None for that of the domain; ``high`` likewise.
    """

    what: Search
    name: str
    other: str = ""
    low: str | None = None
    high: str | None = None
