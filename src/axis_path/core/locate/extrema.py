"""Minima and maxima, local and global.

On every smooth part they are zeros of a derivative, told apart by the next one or by the slopes to
both sides. At the spots between the parts (kinks, jumps, ends) the value is held against the limits
from both sides and the way the function goes there. The greatest and least of all values and limits
are the global ones; if that is a limit which is nowhere reached, it is said in words.

At an end of the interval or the domain that belongs to it, the function has an extremum of one
side; it is marked as ``at_end``.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from flint import arb

from axis_path.core.arithmetic import Ball, Defined, ball
from axis_path.core.evaluate import RealFunction
from axis_path.core.locate.breaks import limits_beside
from axis_path.core.locate.cells import Interval, Root, float_above, float_below
from axis_path.core.locate.course import (
    Course,
    course_of,
    leaving,
    open_course_notes,
    slope_beside,
)
from axis_path.core.locate.finding import Finding, Findings, Kind
from axis_path.core.locate.limit_rules import Approach, Limit
from axis_path.core.locate.parts import Anatomy, Part, Spot
from axis_path.core.locate.seen import SEEN, seen_turns
from axis_path.core.locate.stopped import found_until_stopped
from axis_path.core.locate.verdict import TURNS, at_place, between, value_text
from axis_path.core.locate.zeros import belongs, located_within


@dataclass(frozen=True, slots=True)
class _Height:
    """A value the function takes, or comes to: one candidate for the greatest and the least.

    Attributes:
        limit: the value, or infinity.
        spot: where, in words.
        is_reached: whether the function takes it.
    """

    limit: Limit
    spot: str
    is_reached: bool


def find_extrema(function: RealFunction, interval: Interval) -> Findings:
    """Locate all minima and maxima of a function on an interval.

    Args:
        function: its own domain is respected.
        interval: where to search.
    """
    return located_within(function, interval, _extrema)


def _extrema(anatomy: Anatomy) -> Findings:
    return found_until_stopped(
        lambda items: _all_extrema(anatomy, items), lambda: _seen_extrema(anatomy)
    )


def _seen_extrema(anatomy: Anatomy) -> list[Finding]:
    """Give the places at which samples turn, none of them checked."""
    kinds = {1: Kind.MAXIMUM, -1: Kind.MINIMUM}
    return [
        at_place(kinds[way], place, proved=False, note=SEEN)
        for place, way in seen_turns(anatomy.function, anatomy.inside)
    ]


def _all_extrema(anatomy: Anatomy, items: list[Finding]) -> Findings:
    """Locate all; ``items`` takes those that were found, so that they are not lost if stopped."""
    courses = {
        id(part): course_of(anatomy, part, order=1)
        for part in anatomy.parts
        if part.defined is not Defined.NO
    }
    heights: list[_Height] = []
    notes = [anatomy.note] if anatomy.note else []
    complete = anatomy.complete and all(course.is_complete for course in courses.values())
    for before, spot, after in anatomy.beside():
        sides = tuple(
            courses.get(id(part)) if part is not None else None for part in (before, after)
        )
        found, sure = _at_spot(anatomy, (before, spot, after), sides, heights)
        complete = complete and sure
        items += found
        course = sides[1]
        if course is None:
            continue
        level = _plateau(anatomy, courses, course)
        if level is not None:
            items.append(level)
        for turn in course.turns:
            item, sure = _at_turn(course, turn)
            complete = complete and sure
            if item is not None:
                items.append(item)
        notes += _flat_notes(anatomy, course)
    notes += open_course_notes(anatomy, courses.values(), items, TURNS)
    items, words, sure = _with_global(anatomy, items, heights)
    notes += words
    return Findings(tuple(items), complete and sure, " ".join(notes))


def _at_turn(course: Course, turn: Root) -> tuple[Finding | None, bool]:
    """Tell a minimum from a maximum; nothing where the function only stands still."""
    branch = course.part.branch
    bend = branch.prove(turn.place, course.slope.expression.derivative())
    sign = bend.sign() if bend.is_defined else None
    proved = turn.proved
    if sign in (-1, 1):
        kind = Kind.MINIMUM if sign == 1 else Kind.MAXIMUM
        why = f"the slope is zero and the graph bends {'up' if sign == 1 else 'down'} here"
    else:
        one, other = (slope_beside(course, turn, side) for side in (-1, 1))
        if one is None or other is None:
            return None, False
        if one == other:
            return None, True
        kind = Kind.MINIMUM if one < other else Kind.MAXIMUM
        why = f"the slope changes from {_way(one)} to {_way(other)} here"
    place = turn.place
    value = _sharp_value(branch, course.slope, place)
    return at_place(kind, place, value, proved=proved, why=why, note=turn.note), True


def _sharp_value(branch: RealFunction, slope: RealFunction, place: Ball) -> Ball:
    """Give the value at a turning point, where the slope is next to nothing, to many digits."""
    if place.exact is not None or place.turns is not None:
        return branch.prove(place)
    middle = place.value.mid()
    value = branch.prove(Ball(middle))
    sharp = value.value + slope.prove(place).value * (place.value - middle)
    return replace(value, value=sharp, exact=None, turns=None)


def _way(sign: int) -> str:
    return {1: "rising", -1: "falling", 0: "level"}[sign]


def _at_spot(
    anatomy: Anatomy, beside: tuple[Part | None, Spot, Part | None],
    courses: tuple[Course | None, ...], heights: list[_Height],
) -> tuple[list[Finding], bool]:  # fmt: skip
    """Give the extremum at a spot, if there is one, and whether that is sure."""
    before, spot, after = beside
    limits = limits_beside(anatomy, before, spot, after)
    value = anatomy.value_at(spot)
    is_own = belongs(anatomy, spot) and value.is_defined
    sure = True
    where = f"{anatomy.function.variable} = {value_text(spot.place)}"
    ranks: list[int | None] = []
    for limit, side in ((limits[0], -1), (limits[1], 1)):
        course = courses[0 if side == -1 else 1]
        if limit is None:
            continue
        heights.append(_Height(limit, where, is_reached=False))
        ranks.append(_rank(limit, value, course, side))
    if not is_own or not ranks:
        return [], sure and not (value.defined is Defined.MAYBE and bool(ranks))
    heights.append(_Height(Limit(Approach.VALUE, value, proved=True), where, is_reached=True))
    if None in ranks:
        return [], False
    kind = (
        Kind.MAXIMUM
        if all(r == -1 for r in ranks)
        else Kind.MINIMUM
        if all(r == 1 for r in ranks)
        else None
    )
    if kind is None:
        return [], True
    at_end = len(ranks) == 1
    why = "an end" if at_end else "a kink or a jump"
    found = at_place(kind, spot.place, value, proved=spot.proved, why=why)
    return [replace(found, at_end=at_end)], True


def _rank(limit: Limit, value: Ball, course: Course | None, side: int) -> int | None:
    """Tell whether the function is above (1) or below (-1) a value beside it, level is 0."""
    if limit.is_infinite:
        return 1 if limit.approach is Approach.UP else -1
    if limit.value is None or not value.is_defined:
        return None
    sign = ball.subtract(limit.value, value).sign()
    if sign in (-1, 1):
        return sign
    if sign is None and not (value.continuous or limit.value.value.overlaps(value.value)):
        return None
    return leaving(course, side)


def _plateau(anatomy: Anatomy, courses: dict[int, Course], course: Course) -> Finding | None:
    """Give a part that is level all along and lies above, or below, all that is beside it."""
    if not course.flats:
        return None
    # A smooth branch that is level somewhere is level all along its part.
    part = course.part
    level = part.branch.prove(part.middle)
    ranks: list[int | None] = []
    for before, spot, after in anatomy.beside():
        if spot is not part.low and spot is not part.high:
            continue
        beyond, side = (before, -1) if spot is part.low else (after, 1)
        value = anatomy.value_at(spot)
        own = ball.subtract(value, level).sign() if value.is_defined else 0
        if belongs(anatomy, spot) and own in (-1, 1):
            ranks.append(own)
        if beyond is not None and beyond.defined is not Defined.NO:
            limit = limits_beside(anatomy, before, spot, after)[0 if side == -1 else 1]
            other = courses.get(id(beyond))
            ranks.append(None if limit is None else _rank(limit, level, other, side))
    if not ranks or any(rank != ranks[0] for rank in ranks) or ranks[0] not in (-1, 1):
        return None
    kind = Kind.MAXIMUM if ranks[0] == -1 else Kind.MINIMUM
    width = float((part.high.place.value - part.low.place.value).mid())
    why = f"it is level all along {between(part.cell, anatomy.function.variable, width)}"
    found = at_place(kind, part.middle, level, proved=anatomy.complete, why=why)
    bracket = float_below(part.low.place.value.lower()), float_above(part.high.place.value.upper())
    return replace(
        found, bracket=bracket, text=between(part.cell, anatomy.function.variable, width)
    )


def _flat_notes(anatomy: Anatomy, course: Course) -> list[str]:
    width = float((anatomy.inside.high.value - anatomy.inside.low.value).mid())
    notes = []
    for cell in course.flats[:3]:
        value = course.part.branch.prove(cell.hull())
        level = (
            value_text(course.part.branch.prove(Ball(arb(cell.middle))))
            if value.is_defined
            else "?"
        )
        notes.append(
            f"It is level at {level} all along {between(cell, anatomy.function.variable, width)}."
        )
    return notes


def _with_global(
    anatomy: Anatomy, items: list[Finding], heights: list[_Height]
) -> tuple[list[Finding], list[str], bool]:
    """Mark the global extrema, and say of a bound that is not reached what it is."""
    notes: list[str] = []
    sure = True
    for kind, sign in ((Kind.MAXIMUM, 1), (Kind.MINIMUM, -1)):
        candidates = [(k, item) for k, item in enumerate(items) if item.kind is kind]
        beyond = [
            h
            for h in heights
            if h.limit.is_infinite and (h.limit.approach is Approach.UP) == (sign == 1)
        ]
        word, moves = (
            ("greatest", "grows beyond all bounds")
            if sign == 1
            else ("least", "falls below all bounds")
        )
        if beyond:
            notes.append(f"It has no {word} value: near {beyond[0].spot} it {moves}.")
            continue
        if any(h.limit.value is None for h in heights):
            sure = False
            continue
        ends = [h for h in heights if not h.is_reached and h.limit.value is not None]
        tops = [item.y * sign for _, item in candidates]
        reached = [
            float(h.limit.value.value.mid()) * sign
            for h in heights
            if h.is_reached and h.limit.value
        ]
        best = max([*tops, *reached], default=None)
        limit = max(ends, key=lambda h: float(h.limit.value.value.mid()) * sign, default=None)  # type: ignore[union-attr]
        if limit is not None and limit.limit.value is not None:
            height = float(limit.limit.value.value.mid()) * sign
            if best is None or height > best + 1e-12 * max(1.0, abs(best)):
                notes.append(
                    f"It has no {word} value: near {limit.spot} it comes as close as you like to "
                    f"{value_text(limit.limit.value)}, and does not reach it."
                )
                continue
        for k, item in candidates:
            if best is not None and item.y * sign >= best - 1e-13 * max(1.0, abs(best)):
                items[k] = replace(item, is_global=True)
    return items, notes, sure
