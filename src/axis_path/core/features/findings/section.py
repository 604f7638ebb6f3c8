"""What is asked of a study in the Findings panel, as it is kept with it."""

from __future__ import annotations

from dataclasses import dataclass, fields, replace
from enum import StrEnum
from typing import Any

from axis_path.core.document.fields import field_of
from axis_path.core.errors import FormatError
from axis_path.core.features.lines.renaming import renamed_number, renamed_relation
from axis_path.core.language import Vocabulary
from axis_path.core.limits import FINDING_LABELS, FINDINGS, LINE_LENGTH, STUDY_DIGITS


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


#: A larger number is none that a page could give back.
_LARGEST_ID = 2**53
#: Questions about one line.
OF_A_LINE = frozenset(QueryKind) - {QueryKind.SOLVE}


@dataclass(frozen=True, slots=True)
class SavedQuery:
    """A question that is kept with the study and answered again whenever something changes.

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
    """

    id: int
    line: int | None = None
    low: str | None = None
    high: str | None = None
    what: QueryKind = QueryKind.ZEROS
    other: int | None = None
    text: str = ""
    unknown: str = ""
    note: str = ""
    labels: tuple[int, ...] = ()
    at_window: bool = False

    def same_question(self, other: SavedQuery) -> bool:
        """Check whether another asks for the same."""
        return all(
            getattr(self, each.name) == getattr(other, each.name)
            for each in fields(self)
            if each.name not in ("id", "note", "labels")
        )


def query_to_dict(ask: SavedQuery) -> dict[str, Any]:
    """Return a question as plain data; what is as usual is left out."""
    kept: dict[str, Any] = {"id": ask.id, "what": ask.what.value}
    for name in ("line", "low", "high", "other"):
        if getattr(ask, name) is not None:
            kept[name] = getattr(ask, name)
    for name in ("text", "unknown", "note"):
        if getattr(ask, name):
            kept[name] = getattr(ask, name)
    if ask.labels:
        kept["labels"] = list(ask.labels)
    if ask.at_window:
        kept["at_window"] = True
    return kept


def query_from_dict(given: object) -> SavedQuery:
    """Read a question from plain data.

    Raises:
        FormatError: it is of the wrong kind.
    """
    if not isinstance(given, dict):
        raise FormatError("A finding of the study is of the wrong kind.")
    try:
        what = QueryKind(given.get("what", QueryKind.ZEROS.value))
    except ValueError as err:
        raise FormatError("A finding of the study asks for what is not known.") from err
    numbers = {name: given.get(name) for name in ("id", "line", "other")}
    if numbers["id"] is None or any(
        each is not None and (type(each) is not int or abs(each) > _LARGEST_ID)
        for each in numbers.values()
    ):
        raise FormatError("A finding of the study is of the wrong kind.")
    if what in OF_A_LINE and numbers["line"] is None:
        raise FormatError("A finding of the study names no line.")
    low, high = (
        end if isinstance(end := given.get(name), str) else None for name in ("low", "high")
    )
    text, unknown, note = (
        value[: LINE_LENGTH.value] if isinstance(value := given.get(name), str) else ""
        for name in ("text", "unknown", "note")
    )
    return SavedQuery(
        numbers["id"], numbers["line"], low, high, what, numbers["other"], text, unknown, note,
        labels_from(given.get("labels", [])), given.get("at_window") is True,
    )  # fmt: skip


def labels_from(given: object) -> tuple[int, ...]:
    """Read which answers carry a label.

    Raises:
        FormatError: these are no places in an answer.
    """
    if not isinstance(given, list) or not all(
        isinstance(each, int) and not isinstance(each, bool) and each >= 0 for each in given
    ):
        raise FormatError("The labels of a finding are of the wrong kind.")
    return tuple(sorted(set(given)))[: FINDING_LABELS.value]


#: A new study shows findings with so many digits.
USUAL_DIGITS = 10


@dataclass(frozen=True, slots=True)
class SavedQueries:
    """What is asked in the Findings panel, the newest first, and with how many digits."""

    queries: tuple[SavedQuery, ...] = ()
    digits: int = USUAL_DIGITS


def to_fields(section: SavedQueries) -> dict[str, Any]:
    """Return the fields of the study format."""
    digits = {"digits": section.digits} if section.digits != USUAL_DIGITS else {}
    return {"findings": [query_to_dict(query) for query in section.queries], **digits}


def from_fields(given: dict[str, Any]) -> SavedQueries:
    """Read the section.

    Raises:
        FormatError: a field is not what it should be, or there are too many queries.
    """
    queries = [query_from_dict(each) for each in field_of(given, "findings", list, [])]
    if len(queries) > FINDINGS.value:
        raise FormatError(f"A study can keep {FINDINGS.value} findings.")
    digits = field_of(given, "digits", int, USUAL_DIGITS)
    if not 2 <= digits <= STUDY_DIGITS.value:
        raise FormatError(f"A study shows 2 to {STUDY_DIGITS.value} digits.")
    return SavedQueries(tuple(queries), digits)


def renamed(section: SavedQueries, names: Vocabulary, name: str, new: str) -> SavedQueries:
    """Return the queries after a name was changed."""
    queries = tuple(_renamed_query(query, names, name, new) for query in section.queries)
    return replace(section, queries=queries)


def without_line(section: SavedQueries, line_id: int) -> SavedQueries:
    """Return the queries that are not about a line."""
    queries = tuple(each for each in section.queries if line_id not in (each.line, each.other))
    return replace(section, queries=queries)


def _renamed_query(ask: SavedQuery, names: Vocabulary, name: str, new: str) -> SavedQuery:
    """Do the same for what was asked in the Findings panel."""
    low, high = (end and renamed_number(end, names, name, new) for end in (ask.low, ask.high))
    text = ask.text
    if ask.what is QueryKind.SOLVE:
        text = renamed_relation(text, names, name, new)
    elif ask.what is QueryKind.POINT:
        text = renamed_number(text, names, name, new)
    unknown = new if ask.unknown == name else ask.unknown
    return replace(ask, low=low, high=high, text=text, unknown=unknown)
