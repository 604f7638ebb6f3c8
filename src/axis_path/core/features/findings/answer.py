"""What an answer of the Findings panel is, and its verdict in words."""

from __future__ import annotations

import math
from dataclasses import dataclass

from axis_path.core.features.findings.section import QueryKind
from axis_path.core.locate import (
    Findings,
)

#: What the answers to a question are called: one, and several.
COUNTED = {
    QueryKind.ZEROS: ("zero", "zeros"),
    QueryKind.EXTREMA: ("extremum", "extrema"),
    QueryKind.INFLECTIONS: ("point of inflection", "points of inflection"),
    QueryKind.BREAKS: ("break", "breaks"),
    QueryKind.ASYMPTOTES: ("asymptote", "asymptotes"),
    QueryKind.INTERSECTIONS: ("intersection", "intersections"),
    QueryKind.SOLVE: ("solution", "solutions"),
    QueryKind.DATA: ("finding", "findings"),
}


_SMALL = ("no", "exactly one", "exactly two")


@dataclass(frozen=True, slots=True)
class Row:
    """One line of an answer.

    Attributes:
        label: what it is: ``minimum``, ``x``, ``mean value``.
        text: the place or the number, exact where that is known.
        decimal: the same in the study's digits, if the text is an exact form.
        is_equal: whether the decimal is the number itself.
        value: what belongs to it: the value at a place.
        x: where it stands on the plane, NaN if nowhere; ``y`` likewise.
        proved: whether it is proved; None where nothing is to be proved.
        why: sentences of what it is and by what it is sure, for who opens it.
        note: why it is not proved, or has no value.
        flags: ``global``, ``end``, ``double``, as they are shown beside it.
        unit: of the text, as it is printed; ``value_unit`` that of the value.
    """

    label: str
    text: str
    decimal: str = ""
    is_equal: bool = False
    value: str = ""
    x: float = math.nan
    y: float = math.nan
    proved: bool | None = None
    why: tuple[str, ...] = ()
    note: str = ""
    flags: tuple[str, ...] = ()
    unit: str = ""
    value_unit: str = ""


@dataclass(frozen=True, slots=True)
class Span:
    """An interval of numbers that is shown on a lane."""

    low: float
    high: float
    low_closed: bool
    high_closed: bool


@dataclass(frozen=True, slots=True)
class Check:
    """One equation of a set with the values of a solution in it.

    Attributes:
        mathml: the equation, typeset.
        text: the equation as it was typed.
        left: the value of its left side with its unit; ``right`` likewise.
        difference: ``0`` where that is proved, else what bounds it.
        is_exact: whether it is proved that both sides are equal.
    """

    mathml: str
    text: str
    left: str
    right: str
    difference: str
    is_exact: bool


@dataclass(frozen=True, slots=True)
class Answer:
    """The answer to one question.

    Attributes:
        title: what was asked.
        where: over which interval.
        variable: what the places are called.
        rows: one for each finding.
        verdict: whether these are all, in words; empty where there is no such question.
        complete: whether that is proved.
        note: what else is known, or not certain.
        problem: why there is no answer; empty if there is one.
        spans: of an inequality, for the lane.
        draw: both sides of an equation as texts, to be drawn; empty for others.
        mathml: the equations that were asked, typeset; empty for other questions.
        add: definitions that may be added: (what it is, text).
        checks: of each solution of a set, its equations with the values put in.
    """

    title: str
    where: str = ""
    variable: str = "x"
    rows: tuple[Row, ...] = ()
    verdict: str = ""
    complete: bool = False
    note: str = ""
    problem: str = ""
    spans: tuple[Span, ...] = ()
    draw: tuple[str, ...] = ()
    mathml: tuple[str, ...] = ()
    add: tuple[tuple[str, str], ...] = ()
    checks: tuple[tuple[Check, ...], ...] = ()


def is_whole(findings: Findings) -> bool:
    """Check whether it is proved that there is nothing beyond what is listed."""
    return findings.complete or bool(findings.along)


def further_note(findings: Findings) -> str:
    """Return what is to be said beside the verdict, which says where it holds throughout."""
    return findings.note.replace(findings.along, "").strip() if findings.along else findings.note


def verdict(what: QueryKind, findings: Findings) -> str:
    """Describe in a few words whether all was found."""
    if findings.holds_always and not findings.along:
        return findings.note
    one, many = COUNTED[what]
    count = len(findings)
    if findings.along:
        more = "" if not count else f", and {count} more {one if count == 1 else many}"
        return f"Proved: {findings.along[0].lower()}{findings.along[1:].rstrip('.')}{more}"
    if findings.complete:
        words = _SMALL[count] if count < len(_SMALL) else f"exactly {count}"
        return f"Proved: {words} {one if count <= 1 else many}"
    proved = sum(item.proved for item in findings)
    return f"Not complete: {count} found, {proved} of them proved"
