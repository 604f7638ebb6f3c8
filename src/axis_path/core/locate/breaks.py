"""Breaks: poles, jumps, holes and the ends of a domain, each with what the function does beside it.

Every singular point of the function's anatomy is looked at: its own value there, and its limits
from both sides.
"""

from __future__ import annotations

from dataclasses import replace

from axis_path.core.arithmetic import Ball, Defined, ball
from axis_path.core.evaluate import RealFunction
from axis_path.core.locate.cells import Interval
from axis_path.core.locate.finding import Finding, Findings, Kind
from axis_path.core.locate.limits.approach import limit_at
from axis_path.core.locate.limits.limit_rules import Approach, Limit
from axis_path.core.locate.limits.nearing import Approaching
from axis_path.core.locate.search.isolated import is_isolated
from axis_path.core.locate.search.parts import Anatomy, Part, SingularPoint
from axis_path.core.locate.search.sampled import ONLY_SAMPLED, sampled_breaks
from axis_path.core.locate.search.stopped import located_until_stopped
from axis_path.core.locate.search.verdict import finding_at, value_text
from axis_path.core.locate.search.zeros import located_within

#: How far outside the interval it is looked whether a natural domain ends at its end.
_OFFSET_POWER = 30


def find_breaks(function: RealFunction, interval: Interval) -> Findings:
    """Locate where a function breaks or its domain ends.

    Args:
        function: its own domain is respected; where that ends the function ends.
        interval: where to search.
    """
    return located_within(function, interval, _breaks)


def _breaks(anatomy: Anatomy) -> Findings:
    return located_until_stopped(
        lambda items: _all_breaks(anatomy, items), lambda: _sampled_breaks(anatomy)
    )


def _sampled_breaks(anatomy: Anatomy) -> list[Finding]:
    """Return the places at which samples break, none of them checked."""
    return [
        finding_at(kind, abscissa, proved=False, note=ONLY_SAMPLED)
        for abscissa, kind in sampled_breaks(anatomy.function, anatomy.inside)
    ]


def _all_breaks(anatomy: Anatomy, items: list[Finding]) -> Findings:
    """Locate all; ``items`` takes those that were found, so that they are not lost if stopped."""
    notes = [anatomy.note] if anatomy.note else []
    complete = anatomy.complete
    for before, singular, after in anatomy.neighbours():
        result, note = break_at(anatomy, before, singular, after)
        if result is not None:
            items.append(result)
            complete = complete and result.proved
        elif note:
            notes.append(note)
            complete = False
    return Findings(tuple(items), complete, " ".join(notes))


def break_at(
    anatomy: Anatomy, before: Part | None, singular: SingularPoint, after: Part | None
) -> tuple[Finding | None, str]:
    """Return the break at one, or a sentence if it is not decided; neither without a break."""
    low, high = one_sided_limits(anatomy, before, singular, after)
    value = anatomy.value_at(singular)
    variable = anatomy.function.variable
    if before is None or after is None:
        # The interval ends here: it is a break only if the function itself ends.
        return _end(anatomy, singular, high if before is None else low), ""
    if is_isolated(anatomy, before, singular, after):
        words = "it has a value here, and none on either side"
        return finding_at(Kind.ISOLATED, singular.abscissa, value, proved=True, why=words), ""
    if low is None and high is None:
        return None, ""
    if low is None or high is None:
        return _end(anatomy, singular, low or high), ""
    words = f"from below {_tends(low)}, from above {_tends(high)}"
    if low.is_infinite or high.is_infinite:
        sure = any(limit.is_infinite and limit.proved for limit in (low, high))
        proved = singular.proved and sure
        return finding_at(
            Kind.POLE, singular.abscissa, proved=proved, why=words, note=_sampled(proved)
        ), ""
    if low.value is None or high.value is None:
        if value.is_defined and _is_joined(value, low, high):
            return None, ""
        abscissa = finding_at(Kind.JUMP, singular.abscissa, proved=False).text
        return (
            None,
            f"The behaviour at {variable} = {abscissa} could not be determined.",
        )
    proved = singular.proved and low.proved and high.proved
    differ = _order(anatomy, singular, (before.branch, low), (after.branch, high))
    if differ in (-1, 1):
        return finding_at(
            Kind.JUMP, singular.abscissa, value, proved=proved, why=words, note=_sampled(proved)
        ), ""
    sure = proved and differ == 0
    if value.defined is Defined.NO:
        filled = f"the value {value_text(low.value)} would fill it"
        return finding_at(
            Kind.HOLE, singular.abscissa, low.value, proved=sure, why=filled, note=_sampled(sure)
        ), ""
    own = Limit(Approach.VALUE, value, proved=True, is_two_sided=True)
    moves = (
        _order(anatomy, singular, (anatomy.branches.function, own), (before.branch, low))
        if value.is_defined
        else None
    )
    if moves in (-1, 1):
        stands = f"the point stands at {value_text(value)}"
        moved = f"{stands}; the value {value_text(low.value)} would fill it"
        return finding_at(
            Kind.HOLE, singular.abscissa, low.value, proved=sure, why=moved, note=_sampled(sure)
        ), ""
    if differ == 0 and moves == 0:
        return None, ""
    abscissa = finding_at(Kind.JUMP, singular.abscissa, proved=False).text
    return None, f"Whether it breaks at {variable} = {abscissa} could not be decided."


def _order(
    anatomy: Anatomy,
    singular: SingularPoint,
    one: tuple[RealFunction, Limit],
    other: tuple[RealFunction, Limit],
) -> int | None:
    """Return the sign of the difference of two limits at one; None if it is not known."""
    (f, a), (g, b) = one, other
    if a.value is None or b.value is None:
        return None
    sign = ball.subtract(a.value, b.value).sign()
    if sign is not None or not (a.is_two_sided and b.is_two_sided):
        return sign
    if f.expression.step == g.expression.step:
        return 0
    difference = replace(f, expression=f.expression.minus(g.expression))
    return 0 if anatomy.settled(difference, singular).exact == 0 else None


def one_sided_limits(
    anatomy: Anatomy, before: Part | None, singular: SingularPoint, after: Part | None
) -> tuple[Limit | None, Limit | None]:
    """Return the limits from below and from above; None from a side without values."""
    limits: list[Limit | None] = []
    for part, side in ((before, -1), (after, 1)):
        if part is None or part.defined is Defined.NO:
            limits.append(None)
            continue
        nearing = Approaching(
            anatomy.branches, part.branch, singular.abscissa, singular.zeros, side, part.middle
        )
        limit = limit_at(nearing)
        # Where rough places may be missing, a branch need not be what lies beside the singular
        # point.
        limits.append(limit if anatomy.complete else replace(limit, proved=False))
    return limits[0], limits[1]


def _end(anatomy: Anatomy, singular: SingularPoint, limit: Limit | None) -> Finding | None:
    """Return the end of a domain, or a pole if the function grows beyond all bounds there."""
    if limit is None:
        return None
    is_own = _is_own_end(anatomy, singular)
    if singular.is_end and not is_own and not ends_beyond(anatomy, singular):
        return None
    words = f"it {_tends(limit)} here"
    if limit.is_infinite:
        proved = singular.proved and limit.proved
        return finding_at(
            Kind.POLE, singular.abscissa, proved=proved, why=words, note=_sampled(proved)
        )
    value = anatomy.value_at(singular)
    if value.is_defined:
        words = "the end belongs to the domain"
        return finding_at(Kind.END, singular.abscissa, value, proved=singular.proved, why=words)
    words = "the end does not belong to the domain"
    is_known = limit.value is None or limit.proved
    proved = singular.proved and is_known
    return finding_at(
        Kind.END, singular.abscissa, limit.value, proved=proved, why=words, note=_sampled(is_known)
    )


def _is_own_end(anatomy: Anatomy, singular: SingularPoint) -> bool:
    ends = (anatomy.function.low, anatomy.function.high)
    return any(
        end is not None and end.value.value.overlaps(singular.abscissa.value) and singular.is_end
        for end in ends
    )


def ends_beyond(anatomy: Anatomy, singular: SingularPoint) -> bool:
    """Check whether the function has no value just outside the interval."""
    side = -1 if singular is anatomy.singular_points[0] else 1
    size = max(abs(singular.abscissa.value).upper(), 1)
    outside = Ball(
        (
            singular.abscissa.value
            + side * size * Ball(singular.abscissa.value * 0 + 2).value ** -_OFFSET_POWER
        ).mid()
    )
    return anatomy.function.prove(outside).defined is Defined.NO


def _is_joined(value: Ball, low: Limit, high: Limit) -> bool:
    return value.continuous and Approach.UNKNOWN in (low.approach, high.approach)


def _tends(limit: Limit) -> str:
    if limit.approach is Approach.UP:
        return "grows beyond all bounds"
    if limit.approach is Approach.DOWN:
        return "falls below all bounds"
    if limit.value is None:
        return "comes to no value that is known"
    return f"comes to {value_text(limit.value)}"


def _sampled(proved: bool) -> str:
    return "" if proved else "what it comes to is seen with many digits, not proved"
