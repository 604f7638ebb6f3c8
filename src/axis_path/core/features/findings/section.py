"""What is asked of a study in the Findings panel, as it is stored with it."""

from __future__ import annotations

from dataclasses import dataclass, fields, replace
from enum import StrEnum
from typing import Annotated

from msgspec import Meta

from axis_path.core.contract import Count, Id, Line
from axis_path.core.errors import FormatError
from axis_path.core.features.lines.renaming import renamed_number, renamed_relation
from axis_path.core.language import Vocabulary
from axis_path.core.limits import FINDING_LABELS, FINDINGS, STUDY_DIGITS


class QueryKind(StrEnum):
    """What is located or measured."""

    ZEROS = "zeros"
    EXTREMA = "extrema"
    INFLECTIONS = "inflections"
    BREAKS = "breaks"
    CROSSING = "crossing"
    ASYMPTOTES = "asymptotes"
    INTERSECTIONS = "intersections"
    SOLVE = "solve"
    POINT = "point"
    INTERVAL = "interval"
    DATA = "data"


#: Questions about one line.
OF_A_LINE = frozenset(QueryKind) - {QueryKind.SOLVE}


@dataclass(frozen=True, slots=True)
class SavedQuery:
    """A question that is stored with the study and answered again whenever something changes.

    Attributes:
        what: what is asked.
        line: the id of the line it is about; None for an equation.
        low: the lower end as it was typed; None for that of the domain, or for no end.
        high: the upper end, likewise.
        other: the id of the second line, of intersections.
        text: the equation, or several in lines; the place of a point; the interpolation of data.
        unknown: the letter that is sought; empty if it is found out.
        note: of the student.
        labels: which answers carry a label on the plane, by their places in the answer.
        at_window: whether the ends are only those of a window: no extremum lies at them.
        over_complex: whether an equation is solved over the complex numbers.
    """

    id: Id
    line: Id | None = None
    low: Line | None = None
    high: Line | None = None
    what: QueryKind = QueryKind.ZEROS
    other: Id | None = None
    text: Line = ""
    unknown: Line = ""
    note: Line = ""
    labels: Annotated[tuple[Count, ...], Meta(max_length=FINDING_LABELS.value)] = ()
    at_window: bool = False
    over_complex: bool = False

    def __post_init__(self) -> None:
        """Refuse a question about no line.

        Raises:
            FormatError: it needs one.
        """
        if self.what in OF_A_LINE and self.line is None:
            raise FormatError("A finding of the study names no line.")

    def same_question(self, other: SavedQuery) -> bool:
        """Check whether another asks for the same."""
        return all(
            getattr(self, field.name) == getattr(other, field.name)
            for field in fields(self)
            if field.name not in ("id", "note", "labels")
        )


#: A new study shows findings with so many digits.
USUAL_DIGITS = 10


@dataclass(frozen=True, slots=True)
class SavedQueries:
    """What is asked in the Findings panel, the newest first, and with how many digits."""

    queries: Annotated[tuple[SavedQuery, ...], Meta(max_length=FINDINGS.value)] = ()
    digits: Annotated[int, Meta(ge=2, le=STUDY_DIGITS.value)] = USUAL_DIGITS


def renamed(section: SavedQueries, names: Vocabulary, name: str, new: str) -> SavedQueries:
    """Return the queries after a name was changed."""
    queries = tuple(_renamed_query(query, names, name, new) for query in section.queries)
    return replace(section, queries=queries)


def without_line(section: SavedQueries, line_id: int) -> SavedQueries:
    """Return the queries that are not about a line."""
    queries = tuple(query for query in section.queries if line_id not in (query.line, query.other))
    return replace(section, queries=queries)


def _renamed_query(saved: SavedQuery, names: Vocabulary, name: str, new: str) -> SavedQuery:
    """Do the same for what was asked in the Findings panel."""
    low, high = (end and renamed_number(end, names, name, new) for end in (saved.low, saved.high))
    text = saved.text
    if saved.what is QueryKind.SOLVE:
        text = renamed_relation(text, names, name, new)
    elif saved.what is QueryKind.POINT:
        text = renamed_number(text, names, name, new)
    unknown = new if saved.unknown == name else saved.unknown
    return replace(saved, low=low, high=high, text=text, unknown=unknown)
