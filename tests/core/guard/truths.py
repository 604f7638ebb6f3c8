"""What is true of a case by construction, and how an answer is held against it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Any, NamedTuple

from axis_path.core import Finding, Findings, Study

#: Truths have 60 digits; answers agree with them to within this, in proportion.
CLOSE = 1e-8


@dataclass(frozen=True)
class Truth:
    """One thing that must be found, and nothing else.

    Attributes:
        order: of a zero, how many derivatives vanish with the function; None if that is not checked.
        is_global: of an extremum, whether nothing lies beyond it.
    """

    kind: str
    x: float
    y: float | None = None
    order: int | None = None
    is_global: bool | None = None


class Verdict(NamedTuple):
    """What came of a case.

    Attributes:
        is_wrong: whether something untrue is called proved or complete.
        amiss: what is wrong or undecided; empty if all is well.
    """

    is_wrong: bool
    amiss: str


RIGHT = Verdict(is_wrong=False, amiss="")


def weak(amiss: str) -> Verdict:
    """Return that something is undecided, but nothing wrong; or right if nothing is amiss."""
    return Verdict(is_wrong=False, amiss=amiss)


def wrong(amiss: str) -> Verdict:
    """Return that something untrue is claimed."""
    return Verdict(is_wrong=True, amiss=amiss)


@dataclass(frozen=True)
class Case:
    """A line, a question, and what holds the answer against the truth."""

    text: str
    question: str
    judge: Callable[[], Verdict]


def about_findings(
    text: str,
    question: str,
    ends: tuple[float, float],
    truths: tuple[Truth, ...],
    *,
    in_degrees: bool = False,
) -> Case:
    """Return a case whose question is answered with findings between two ends."""
    return Case(text, question, partial(_judge, text, question, ends, truths, in_degrees))


def _judge(
    text: str,
    question: str,
    ends: tuple[float, float],
    truths: tuple[Truth, ...],
    in_degrees: bool,
) -> Verdict:
    return compare(findings(text, question, ends, in_degrees=in_degrees), truths, ends)


def findings(
    text: str, question: str, ends: tuple[float, float], *, in_degrees: bool = False
) -> Findings:
    """Return what is found of a line, or of an equation if ``solve`` is the question."""
    study = Study(angle_unit="degrees" if in_degrees else "radians")
    between = tuple(map(repr, ends))
    if question == "solve":
        return study.solve(text, None, *between, with_exact=False)
    study.define(text)
    if question == "intersections":
        study.define("h(x) = 0")
        return study.intersections("f", "h", *between)
    return getattr(study, question)("f", *between)  # type: ignore[no-any-return]


def compare(
    found: Findings, truths: tuple[Truth, ...], ends: tuple[float, float] | None = None
) -> Verdict:
    """Hold findings against the truth.

    Args:
        found: what was found.
        truths: all that there is to find.
        ends: of the search; what is found at them is no part of the question.
    """
    left = list(truths)
    amiss: list[str] = []
    for item in found:
        if item.at_end or (ends is not None and min(abs(item.x - end) for end in ends) < CLOSE):
            continue
        truth = next((t for t in left if _agrees(t, item)), None)
        if truth is not None:
            left.remove(truth)
            if not item.proved:
                amiss.append(f"not proved: {item.kind.value} {item.text}")
        elif item.proved:
            return wrong(f"claims {item.kind.value} at {item.text}, y = {item.y}")
        else:
            amiss.append(f"guesses {item.kind.value} at {item.text}")
    if left and found.complete:
        return wrong(f"complete without {left[0]}")
    amiss += [f"lacks {t}" for t in left]
    if not found.complete:
        amiss.append(f"incomplete: {found.note}")
    return weak("; ".join(amiss))


def is_close(a: float, b: float) -> bool:
    """Check whether two floats agree to within the digits that are held against each other."""
    return a == b or abs(a - b) <= CLOSE * max(1.0, abs(b))


def _agrees(truth: Truth, item: Finding) -> bool:
    if item.kind.value != truth.kind or not is_close(item.x, truth.x):
        return False
    if truth.order is not None and item.multiplicity not in (None, truth.order):
        return False
    if truth.is_global is not None and item.is_global != truth.is_global:
        return False
    low, high = item.bracket
    if not low - 1e-12 <= truth.x <= high + 1e-12:
        return False
    return truth.y is None or abs(item.y - truth.y) <= CLOSE * max(abs(truth.y), 1e-18)


def value_of(answer: Any) -> float:
    """Return the float of an answer, NaN if it has none."""
    return answer.value if isinstance(answer.value, float) else float("nan")
