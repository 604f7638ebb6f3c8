"""What is said of a search that was stopped: what it has found until then, or what can be seen."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from typing import TypeVar

from axis_path.core.deadline import grace_period, is_brief
from axis_path.core.errors import StoppedError
from axis_path.core.limits import MOST_FINDINGS
from axis_path.core.locate.finding import Finding, Findings

T = TypeVar("T")
#: So long, in s, what is known of a stopped search may still be put together.
GRACE_S = 0.6
UNSURE = "the search was stopped before it was checked"


def located_or_sampled(
    err: StoppedError, results: Sequence[T], look: Callable[[], Sequence[T]]
) -> tuple[Sequence[T], str]:
    """Return what a stopped search has found, or else what a look shows, and what is said of it.

    Args:
        err: what stopped it.
        results: what it has found.
        look: a short look at what was searched, where nothing was found.

    Raises:
        StoppedError: there is nothing to report, or nobody wants a part of it.
    """
    if is_brief():
        raise err
    if results:
        return (
            results,
            f"{err.message} Until then these were found; they are not checked to the end.",
        )
    with grace_period(GRACE_S):
        sampled = look()
    if not sampled:
        raise err
    return sampled, f"{err.message} Until then these were seen; they are not checked."


def located_until_stopped(
    locate: Callable[[list[Finding]], Findings], look: Callable[[], Sequence[Finding]]
) -> Findings:
    """Locate; if it is stopped, give what was found or can be seen, none of it proved.

    Args:
        locate: puts what it finds into the list it is given, so that it is not lost.
        look: a short look, where nothing was found.

    Raises:
        StoppedError: there is nothing to report.
    """
    findings: list[Finding] = []
    try:
        return locate(findings)
    except StoppedError as err:
        items, note = located_or_sampled(err, findings, look)
    unsure = (
        replace(item, proved=False, note=item.note or UNSURE)
        for item in items[: MOST_FINDINGS.value]
    )
    return Findings(tuple(sorted(unsure, key=lambda item: item.x)), complete=False, note=note)


def put_together(items: Iterator[T], is_stopped: bool) -> list[T]:
    """Return the items that are made of what was found; after a stop, as many as come soon.

    Args:
        items: they are made one by one.
        is_stopped: whether the search was stopped.

    Raises:
        StoppedError: none came.
    """
    if not is_stopped:
        return list(items)
    made: list[T] = []
    try:
        with grace_period(GRACE_S):
            made.extend(items)
    except StoppedError:
        if not made:
            raise
    return made
