"""Points of inflection: where the graph of a function changes the side to which it bends.

On every smooth part they are zeros of the second derivative at which its sign changes; at the
singular points between the parts the graph must go through in one direction.
"""

from __future__ import annotations

from dataclasses import replace

from axis_path.core.arithmetic import Defined, ball
from axis_path.core.evaluate import RealFunction
from axis_path.core.locate.breaks import one_sided_limits
from axis_path.core.locate.cells import Interval
from axis_path.core.locate.finding import Finding, Findings, Kind
from axis_path.core.locate.search.monotonicity import (
    Monotonicity,
    leaving,
    monotonicity_of,
    open_monotonicity_notes,
    slope_near,
)
from axis_path.core.locate.search.parts import Anatomy, SingularPoint
from axis_path.core.locate.search.stopped import located_until_stopped
from axis_path.core.locate.search.verdict import BENDS, between, finding_at
from axis_path.core.locate.search.zeros import located_within


def find_inflections(function: RealFunction, interval: Interval) -> Findings:
    """Locate where the graph of a function changes the side to which it bends.

    Args:
        function: its own domain is respected.
        interval: where to search.
    """
    return located_within(function, interval, _inflections)


def _inflections(anatomy: Anatomy) -> Findings:
    return located_until_stopped(lambda items: _all_inflections(anatomy, items), list)


def _all_inflections(anatomy: Anatomy, items: list[Finding]) -> Findings:
    """Locate all; ``items`` takes those that were found, so that they are not lost if stopped."""
    complete = anatomy.complete
    notes = [anatomy.note] if anatomy.note else []
    monotonicities: dict[int, Monotonicity] = {}
    for part in anatomy.parts:
        if part.defined is not Defined.NO:
            monotonicities[id(part)] = monotonicity_of(anatomy, part, order=2)
            complete = complete and monotonicities[id(part)].is_complete
    for before, singular, after in anatomy.neighbours():
        one, other = (monotonicities.get(id(p)) if p is not None else None for p in (before, after))
        if one is not None and other is not None:
            inflection, sure = _bend_at_singular_point(anatomy, singular, one, other)
            complete = complete and sure
            items += inflection
        if other is None:
            continue
        for turn in other.turns:
            low, high = (slope_near(other, turn, side) for side in (-1, 1))
            if low is None or high is None:
                complete = False
            elif low != high:
                value = other.part.branch.prove(turn.abscissa)
                why = f"the graph bends {_bend(low)} before and {_bend(high)} after"
                items.append(
                    finding_at(
                        Kind.INFLECTION,
                        turn.abscissa,
                        value,
                        proved=turn.proved,
                        why=why,
                        note=turn.note,
                    )
                )
        width = float((anatomy.inside.high.value - anatomy.inside.low.value).mid())
        notes += [
            f"It is straight all along {between(cell, anatomy.function.variable, width)}."
            for cell in other.flats[:3]
        ]
    notes += open_monotonicity_notes(anatomy, monotonicities.values(), items, BENDS)
    return Findings(tuple(items), complete, " ".join(notes))


def _bend(sign: int) -> str:
    return "up" if sign > 0 else "down"


def _bend_at_singular_point(
    anatomy: Anatomy, singular: SingularPoint, one: Monotonicity, other: Monotonicity
) -> tuple[list[Finding], bool]:
    """Return a point of inflection at one, through which the graph goes in one direction."""
    value = anatomy.value_at(singular)
    if not value.is_defined:
        return [], True
    low, high = one_sided_limits(anatomy, one.part, singular, other.part)
    if low is None or high is None or low.value is None or high.value is None:
        return [], True
    if any(ball.subtract(value, bound).sign() in (-1, 1) for bound in (low.value, high.value)):
        return [], True
    # Bends are slopes of slopes here: what is left of the singular point is left upward.
    before, after = _leaving_sign(one, -1), _leaving_sign(other, 1)
    if before is None or after is None or before * after >= 0:
        return [], True
    if not _goes_through(anatomy, singular, one, other):
        return [], True
    why = f"the graph bends {_bend(before)} before and {_bend(after)} after"
    return [
        finding_at(Kind.INFLECTION, singular.abscissa, value, proved=singular.proved, why=why)
    ], True


def _leaving_sign(monotonicity: Monotonicity, side: int) -> int | None:
    sign = leaving(monotonicity, side)
    return None if sign is None else sign * side


def _goes_through(
    anatomy: Anatomy, singular: SingularPoint, one: Monotonicity, other: Monotonicity
) -> bool:
    """Check whether the slopes from both sides come to the same, a vertical tangent included."""
    parts = [
        replace(monotonicity.part, branch=anatomy.branches.derivative(monotonicity.part.branch))
        for monotonicity in (one, other)
    ]
    low, high = one_sided_limits(anatomy, parts[0], singular, parts[1])
    if low is None or high is None:
        return False
    if low.is_infinite or high.is_infinite:
        return low.approach is high.approach
    if low.value is None or high.value is None:
        return False
    return ball.subtract(low.value, high.value).sign() not in (-1, 1)
