"""Minima and maxima, local and global.

On every smooth part they are zeros of a derivative, distinguished by the next one or by the slopes
to both sides. At the singular points between the parts (kinks, jumps, ends) the value is held
against the limits from both sides and the way the function goes there. The greatest and least of
all values and limits are the global ones; if that is a limit which is nowhere reached, it is said
in words.

At an end of the interval or the domain that belongs to it, the function has an extremum of one
side; it is marked as ``at_end``.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from axis_path.core.arithmetic import Ball, Defined, ball
from axis_path.core.evaluate import RealFunction
from axis_path.core.locate.breaks import ends_beyond, one_sided_limits
from axis_path.core.locate.cells import Cell, Interval, Root, float_above, float_below
from axis_path.core.locate.finding import Finding, Findings, Kind
from axis_path.core.locate.limits.limit_rules import Approach, Limit
from axis_path.core.locate.search.monotonicity import (
    Monotonicity,
    leaving,
    monotonicity_of,
    open_monotonicity_notes,
    slope_near,
)
from axis_path.core.locate.search.parts import Anatomy, Part, SingularPoint
from axis_path.core.locate.search.sampled import ONLY_SAMPLED, sampled_turns
from axis_path.core.locate.search.stopped import located_until_stopped
from axis_path.core.locate.search.verdict import TURNS, between, finding_at, value_text
from axis_path.core.locate.search.zeros import belongs, located_within


class _Extrema:
    """The extrema in order, each with its value, which is compared with others exactly.

    Args:
        items: takes the extrema.
    """

    def __init__(self, items: list[Finding]) -> None:
        self.items = items
        self.values: list[Ball] = []

    def add(self, item: Finding, value: Ball) -> None:
        """Add an extremum."""
        self.items.append(item)
        self.values.append(value)


@dataclass(frozen=True, slots=True)
class _Height:
    """A value the function takes, or comes to: one candidate for the greatest and the least.

    Attributes:
        limit: the value, or infinity.
        singular: where, in words.
        is_reached: whether the function takes it.
    """

    limit: Limit
    singular: str
    is_reached: bool


def find_extrema(function: RealFunction, interval: Interval) -> Findings:
    """Locate all minima and maxima of a function on an interval.

    Args:
        function: its own domain is respected.
        interval: where to search.
    """
    return located_within(function, interval, _extrema)


def _extrema(anatomy: Anatomy) -> Findings:
    return located_until_stopped(
        lambda items: _all_extrema(anatomy, items), lambda: _sampled_extrema(anatomy)
    )


def _sampled_extrema(anatomy: Anatomy) -> list[Finding]:
    """Return the places at which samples turn, none of them checked."""
    kinds = {1: Kind.MAXIMUM, -1: Kind.MINIMUM}
    return [
        finding_at(kinds[way], abscissa, proved=False, note=ONLY_SAMPLED)
        for abscissa, way in sampled_turns(anatomy.function, anatomy.inside)
    ]


def _all_extrema(anatomy: Anatomy, items: list[Finding]) -> Findings:
    """Locate all; ``items`` takes those that were found, so that they are not lost if stopped."""
    monotonicities = {
        id(part): monotonicity_of(anatomy, part, order=1)
        for part in anatomy.parts
        if part.defined is not Defined.NO
    }
    heights: list[_Height] = []
    extrema = _Extrema(items)
    notes = [anatomy.note] if anatomy.note else []
    complete = anatomy.complete and all(
        monotonicity.is_complete for monotonicity in monotonicities.values()
    )
    for before, singular, after in anatomy.neighbours():
        sides = tuple(
            monotonicities.get(id(part)) if part is not None else None for part in (before, after)
        )
        complete = (
            _at_singular_point(anatomy, (before, singular, after), sides, heights, extrema)
            and complete
        )
        monotonicity = sides[1]
        if monotonicity is None:
            continue
        _plateau(anatomy, monotonicities, monotonicity, extrema)
        for turn in monotonicity.turns:
            complete = _at_turn(monotonicity, turn, extrema) and complete
        notes += _flat_notes(anatomy, monotonicities, monotonicity)
    notes += open_monotonicity_notes(anatomy, monotonicities.values(), items, TURNS)
    marked, words, sure = _with_global(extrema, heights)
    notes += words
    return Findings(tuple(marked), complete and sure, " ".join(notes))


def _at_turn(monotonicity: Monotonicity, turn: Root, findings: _Extrema) -> bool:
    """Add the minimum or maximum at a turn, if the function does more than stand still.

    Returns:
        Whether that is sure.
    """
    branch = monotonicity.part.branch
    bend = branch.prove(turn.abscissa, monotonicity.slope.expression.derivative())
    sign = bend.sign() if bend.is_defined else None
    proved = turn.proved
    if sign in (-1, 1):
        kind = Kind.MINIMUM if sign == 1 else Kind.MAXIMUM
        why = f"the slope is zero and the graph bends {'up' if sign == 1 else 'down'} here"
    else:
        one, other = (slope_near(monotonicity, turn, side) for side in (-1, 1))
        if one is None or other is None:
            return False
        if one == other:
            return True
        kind = Kind.MINIMUM if one < other else Kind.MAXIMUM
        why = f"the slope changes from {_way(one)} to {_way(other)} here"
    abscissa = turn.abscissa
    value = _sharp_value(branch, monotonicity.slope, abscissa)
    findings.add(finding_at(kind, abscissa, value, proved=proved, why=why, note=turn.note), value)
    return True


def _sharp_value(branch: RealFunction, slope: RealFunction, abscissa: Ball) -> Ball:
    """Return the value at a turning point, where the slope is next to nothing, to many digits."""
    if abscissa.exact is not None or abscissa.turns is not None:
        return branch.prove(abscissa)
    middle = abscissa.value.mid()
    value = branch.prove(Ball(middle))
    sharp = value.value + slope.prove(abscissa).value * (abscissa.value - middle)
    return replace(value, value=sharp, exact=None, turns=None)


def _way(sign: int) -> str:
    return {1: "rising", -1: "falling", 0: "level"}[sign]


def _at_singular_point(
    anatomy: Anatomy, neighbours: tuple[Part | None, SingularPoint, Part | None],
    monotonicities: tuple[Monotonicity | None, ...], heights: list[_Height], extrema: _Extrema,
) -> bool:  # fmt: skip
    """Add the extremum at a singular point, if there is one; return whether that is sure."""
    before, singular, after = neighbours
    limits = one_sided_limits(anatomy, before, singular, after)
    value = anatomy.value_at(singular)
    is_own = belongs(anatomy, singular) and value.is_defined
    where = f"{anatomy.function.variable} = {value_text(singular.abscissa)}"
    ranks: list[int | None] = []
    for limit, side in ((limits[0], -1), (limits[1], 1)):
        monotonicity = monotonicities[0 if side == -1 else 1]
        if limit is None:
            continue
        heights.append(_Height(limit, where, is_reached=False))
        ranks.append(_rank(limit, value, monotonicity, side))
    if not is_own or not ranks:
        return not (value.defined is Defined.MAYBE and bool(ranks))
    heights.append(_Height(Limit(Approach.VALUE, value, proved=True), where, is_reached=True))
    if None in ranks:
        return False
    if _is_edge(anatomy, singular):
        return True
    kind = (
        Kind.MAXIMUM
        if all(r == -1 for r in ranks)
        else Kind.MINIMUM
        if all(r == 1 for r in ranks)
        else None
    )
    if kind is None:
        return True
    at_end = len(ranks) == 1
    why = "an end" if at_end else "a kink or a jump"
    finding = finding_at(kind, singular.abscissa, value, proved=singular.proved, why=why)
    extrema.add(replace(finding, at_end=at_end), value)
    return True


def _is_edge(anatomy: Anatomy, singular: SingularPoint) -> bool:
    """Check whether the search only stops at a singular point: the function goes on beyond it."""
    inside, function = anatomy.inside, anatomy.function
    for end, own, is_edge in (
        (anatomy.singular_points[0], function.low, inside.low_is_edge),
        (anatomy.singular_points[-1], function.high, inside.high_is_edge),
    ):
        if singular is end and is_edge:
            is_own = own is not None and own.value.value.overlaps(singular.abscissa.value)
            return not is_own and not ends_beyond(anatomy, singular)
    return False


def _rank(limit: Limit, value: Ball, monotonicity: Monotonicity | None, side: int) -> int | None:
    """Check whether the function is above (1) or below (-1) a value beside it, level is 0."""
    if limit.is_infinite:
        return 1 if limit.approach is Approach.UP else -1
    if limit.value is None or not value.is_defined:
        return None
    sign = ball.subtract(limit.value, value).sign()
    if sign in (-1, 1):
        return sign
    if sign is None and not (value.continuous or limit.value.value.overlaps(value.value)):
        return None
    return leaving(monotonicity, side)


def _level_run(
    anatomy: Anatomy, monotonicities: dict[int, Monotonicity], monotonicity: Monotonicity
) -> tuple[int, int] | None:
    """Return the first and the last of the parts through which a level goes on without a step.

    None if the part is not level, or not the first of them.
    """
    if not monotonicity.flats:
        return None
    parts = anatomy.parts
    first = last = next(k for k, part in enumerate(parts) if part is monotonicity.part)
    if first and _goes_on(anatomy, monotonicities, first - 1):
        return None
    while last + 1 < len(parts) and _goes_on(anatomy, monotonicities, last):
        last += 1
    return first, last


def _goes_on(anatomy: Anatomy, monotonicities: dict[int, Monotonicity], k: int) -> bool:
    """Check whether a part, the next, and the singular point between are level at one height."""
    one, other = anatomy.parts[k : k + 2]
    neighbours = [monotonicities.get(id(part)) for part in (one, other)]
    if not all(monotonicity is not None and monotonicity.flats for monotonicity in neighbours):
        return False
    level = one.branch.prove(one.middle)
    heights = (other.branch.prove(other.middle), anatomy.value_at(one.high))
    return all(height.is_defined and ball.subtract(height, level).sign() == 0 for height in heights)


def _plateau(
    anatomy: Anatomy,
    monotonicities: dict[int, Monotonicity],
    monotonicity: Monotonicity,
    findings: _Extrema,
) -> None:
    """Add an interval that is level all along and lies above, or below, all that is beside it."""
    run = _level_run(anatomy, monotonicities, monotonicity)
    if run is None:
        return
    # A smooth branch that is level somewhere is level all along its part.
    first, last = (anatomy.parts[k] for k in run)
    level = first.branch.prove(first.middle)
    ranks: list[int | None] = []
    for before, singular, after in anatomy.neighbours():
        if singular is not first.low and singular is not last.high:
            continue
        beyond, side = (before, -1) if singular is first.low else (after, 1)
        value = anatomy.value_at(singular)
        own = ball.subtract(value, level).sign() if value.is_defined else 0
        if belongs(anatomy, singular) and own in (-1, 1):
            ranks.append(own)
        if beyond is not None and beyond.defined is not Defined.NO:
            limit = one_sided_limits(anatomy, before, singular, after)[0 if side == -1 else 1]
            other = monotonicities.get(id(beyond))
            ranks.append(None if limit is None else _rank(limit, level, other, side))
    if not ranks or any(rank != ranks[0] for rank in ranks) or ranks[0] not in (-1, 1):
        return
    kind = Kind.MAXIMUM if ranks[0] == -1 else Kind.MINIMUM
    width = float((last.high.abscissa.value - first.low.abscissa.value).mid())
    cell = Cell(first.low.abscissa, last.high.abscissa)
    text = between(cell, anatomy.function.variable, width)
    why = f"it is level all along {text}"
    at = finding_at(kind, first.middle, level, proved=anatomy.complete, why=why)
    bracket = float_below(cell.low.value.lower()), float_above(cell.high.value.upper())
    findings.add(replace(at, bracket=bracket, text=text), level)


def _flat_notes(
    anatomy: Anatomy, monotonicities: dict[int, Monotonicity], monotonicity: Monotonicity
) -> list[str]:
    run = _level_run(anatomy, monotonicities, monotonicity)
    if run is None:
        return []
    width = float((anatomy.inside.high.value - anatomy.inside.low.value).mid())
    first, last = (anatomy.parts[k] for k in run)
    cell = (
        Cell(first.low.abscissa, last.high.abscissa) if run[0] < run[1] else monotonicity.flats[0]
    )
    level = value_text(first.branch.prove(first.middle))
    return [f"It is level at {level} all along {between(cell, anatomy.function.variable, width)}."]


def _with_global(
    findings: _Extrema, heights: list[_Height]
) -> tuple[list[Finding], list[str], bool]:
    """Mark the global extrema, and say of a bound that is not reached what it is."""
    notes: list[str] = []
    items, sure = list(findings.items), True
    for kind, sign in ((Kind.MAXIMUM, 1), (Kind.MINIMUM, -1)):
        upwards = Approach.UP if sign == 1 else Approach.DOWN
        beyond = next((h for h in heights if h.limit.approach is upwards), None)
        word, moves = (
            ("greatest", "grows beyond all bounds")
            if sign == 1
            else ("least", "falls below all bounds")
        )
        if beyond is not None:
            notes.append(f"It has no {word} value: near {beyond.singular} it {moves}.")
            continue
        if any(h.limit.value is None and not h.limit.is_infinite for h in heights):
            sure = False
            continue
        reached = [h.limit.value for h in heights if h.is_reached and h.limit.value is not None]
        reached += findings.values
        # The farthest first: most are seen to be passed by it.
        reached.sort(key=lambda value: value.value.mid() * sign, reverse=True)
        limit = _greatest([h for h in heights if not h.is_reached], sign)
        if limit is not None and all(_compare(value, limit[1], sign) == -1 for value in reached):
            notes.append(
                f"It has no {word} value: near {limit[0].singular} it comes as close as you like "
                f"to {value_text(limit[1])}, and does not reach it."
            )
            continue
        for k, item in enumerate(items):
            own = findings.values[k]
            if item.kind is kind and not any(_compare(v, own, sign) == 1 for v in reached):
                items[k] = replace(item, is_global=True)
    return items, notes, sure


def _greatest(heights: list[_Height], sign: int) -> tuple[_Height, Ball] | None:
    """Return the height whose limit lies farthest up, or down, with the limit."""
    finite = [(h, h.limit.value) for h in heights if h.limit.value is not None]
    return max(finite, key=lambda pair: pair[1].value.mid() * sign, default=None)


def _compare(value: Ball, other: Ball, sign: int) -> int | None:
    """Return 1 if a value lies farther up than another, or down, and -1 if less far."""
    difference_sign = ball.subtract(value, other).sign()
    return None if difference_sign is None else difference_sign * sign
