"""What was chosen for a set of equations: a solution, and where its unknowns are sought."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.contract import Count, Line


@dataclass(frozen=True, slots=True)
class SearchBound:
    """Between which values an unknown of a set is sought.

    Attributes:
        name: of the unknown.
        low: the least value, as it was typed.
        high: the greatest.
    """

    name: Line
    low: Line
    high: Line


@dataclass(frozen=True, slots=True)
class SetOptions:
    """What was chosen for a set of equations.

    Attributes:
        chosen: which of its solutions is used, from 0.
        bounds: of the search; an unknown without one is sought from -100 to 100 in its unit.
    """

    chosen: Count = 0
    bounds: tuple[SearchBound, ...] = ()


NO_OPTIONS = SetOptions()
