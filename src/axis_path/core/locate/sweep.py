"""A finding as a function of a slider: its branches, and where they begin, meet and end.

The findings are located anew for many values of the slider. Between two values whose findings
differ in number or kind, the place where they change is narrowed by halving. What is the same at
both ends of a step is taken to be the same in between; the result says for which values was looked.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from fractions import Fraction

from axis_path.core.locate.finding import Finding, Findings, Kind

#: A change is narrowed to this part of the range.
_NARROW = Fraction(1, 1_000_000)
#: After so many changes no more are narrowed.
_MOST_EVENTS = 40
#: Two findings that go together are nearer than this part of the interval when they do.
_NEAR = 0.02
_DIGITS = 5


@dataclass(frozen=True, slots=True)
class Branch:
    """One finding, followed while the slider moves.

    Attributes:
        values: the values of the slider, rising.
        items: the finding at each of them.
    """

    values: tuple[Fraction, ...]
    items: tuple[Finding, ...]


@dataclass(frozen=True, slots=True)
class Event:
    """A change in the findings.

    Attributes:
        low: a value of the slider before it; ``high`` one after it.
        x: about where it happens.
        sentence: what happens, in words.
    """

    low: Fraction
    high: Fraction
    x: float
    sentence: str


@dataclass(frozen=True, slots=True)
class Sweep:
    """The findings over the range of a slider.

    Attributes:
        values: the values for which was searched, rising.
        findings: the findings for each value.
        branches: the findings that belong together.
        events: where findings appear, merge or vanish.
        complete: whether each of the searches was.
        note: what is not sure.
    """

    values: tuple[Fraction, ...]
    findings: tuple[Findings, ...]
    branches: tuple[Branch, ...]
    events: tuple[Event, ...]
    complete: bool
    note: str


@dataclass(frozen=True, slots=True)
class _Change:
    """Findings that appear or vanish between two values of the slider."""

    low: Fraction
    high: Fraction
    abscissae: tuple[float, ...]
    verb: str
    noun: str


@dataclass(slots=True)
class _Follower:
    """Gathers branches while the slider moves."""

    locate: Callable[[Fraction], Findings]
    name: str
    interval: tuple[float, float]
    narrow: Fraction
    open: list[tuple[list[Fraction], list[Finding]]] = field(default_factory=list)
    done: list[Branch] = field(default_factory=list)
    changes: list[_Change] = field(default_factory=list)


def sweep(
    locate: Callable[[Fraction], Findings],
    values: Sequence[Fraction],
    *,
    name: str,
    interval: tuple[float, float],
    progress: Callable[[int], None] = lambda done: None,
) -> Sweep:
    """Locate for many values of a slider, and follow what is found.

    Args:
        locate: finds for one value.
        values: at least two, rising.
        name: of the slider, for the sentences.
        interval: where is searched, for telling what leaves through an end.
        progress: receives how many values are done; it may raise to end the sweep.
    """
    follower = _Follower(locate, name, interval, (values[-1] - values[0]) * _NARROW)
    steps = [locate(values[0])]
    for item in steps[0]:
        follower.open.append(([values[0]], [item]))
    progress(1)
    for k, value in enumerate(values[1:], 1):
        steps.append(locate(value))
        _step(follower, (values[k - 1], steps[-2]), (value, steps[-1]))
        progress(k + 1)
    branches = [*follower.done, *(Branch(tuple(v), tuple(i)) for v, i in follower.open)]
    doubtful = sum(not step.complete for step in steps)
    note = "" if not doubtful else (
        f"For {doubtful} of {len(values)} values it is not proved that nothing else is there."
    )  # fmt: skip
    if len(follower.changes) >= _MOST_EVENTS:
        note = f"{note} There may be more changes than the {_MOST_EVENTS} that are listed.".strip()
    return Sweep(
        tuple(values), tuple(steps), tuple(branches), _events(follower), not doubtful, note
    )


def _kinds(findings: Findings) -> list[Kind]:
    return [item.kind for item in findings]


def _step(
    follower: _Follower, before: tuple[Fraction, Findings], after: tuple[Fraction, Findings]
) -> None:
    """Go on from one value to the next; where the findings change, find out where."""
    (low, one), (high, other) = before, after
    if _kinds(one) == _kinds(other):
        for (values, items), item in zip(follower.open, other, strict=True):
            values.append(high)
            items.append(item)
        return
    if high - low > follower.narrow and len(follower.changes) < _MOST_EVENTS:
        middle = (low + high) / 2
        between = follower.locate(middle)
        _step(follower, before, (middle, between))
        _step(follower, (middle, between), after)
        return
    _change(follower, before, after)


def _change(
    follower: _Follower, before: tuple[Fraction, Findings], after: tuple[Fraction, Findings]
) -> None:
    (low, one), (high, other) = before, after
    pairs = _paired(list(one), list(other))
    gone = [k for k in range(len(one)) if k not in pairs]
    come = [k for k in range(len(other)) if k not in pairs.values()]
    for k in gone:
        values, items = follower.open[k]
        follower.done.append(Branch(tuple(values), tuple(items)))
    back = {new: old for old, new in pairs.items()}
    now = []
    for k, item in enumerate(other):
        values, items = follower.open[back[k]] if k in back else ([], [])
        now.append(([*values, high], [*items, item]))
    follower.open = now
    noun = _noun([*one, *other])
    for abscissae, verb in (
        ([one[k].x for k in gone], "vanish"),
        ([other[k].x for k in come], "appear"),
    ):
        if abscissae:
            follower.changes.append(_Change(low, high, tuple(abscissae), verb, noun))


def _events(follower: _Follower) -> tuple[Event, ...]:
    """Name the changes; two that touch are one: where two meet there is one for a moment."""
    near = _NEAR * (follower.interval[1] - follower.interval[0])
    merged: list[_Change] = []
    for change in follower.changes:
        last = merged[-1] if merged else None
        if (
            last is not None
            and change.verb == last.verb
            and change.low - last.high <= follower.narrow
            and abs(change.abscissae[0] - last.abscissae[-1]) < near
        ):
            merged[-1] = replace(
                last, high=change.high, abscissae=last.abscissae + change.abscissae
            )
        else:
            merged.append(change)
    return tuple(
        Event(
            event.low,
            event.high,
            sum(event.abscissae) / len(event.abscissae),
            _sentence(follower, event),
        )
        for event in merged
    )


def _paired(one: list[Finding], other: list[Finding]) -> dict[int, int]:
    """Return which findings go on as which: the nearest of the same kind, in order."""
    few, many = (one, other) if len(one) <= len(other) else (other, one)
    best = _nearest_choice([f.x for f in few], [f.x for f in many])
    matches = {k: best[k] for k in range(len(few)) if few[k].kind == many[best[k]].kind}
    return matches if few is one else {many_place: k for k, many_place in matches.items()}


def _nearest_choice(few: list[float], many: list[float]) -> list[int]:
    """Choose, for rising numbers, rising partners among more numbers, so near as can be.

    A table of the least sums of distances, filled row by row.
    """
    rows: list[list[tuple[float, int]]] = [[(0.0, -1)] * (len(many) + 1)]
    for k, x in enumerate(few):
        row = [(float("inf"), -1)] * (len(many) + 1)
        for j, y in enumerate(many):
            taken = rows[k][j][0] + abs(x - y)
            row[j + 1] = min(row[j], (taken, j), key=lambda item: item[0])
        rows.append(row)
    chosen, column = [], len(many)
    for k in range(len(few), 0, -1):
        partner = rows[k][column][1]
        chosen.append(partner)
        column = partner
    return chosen[::-1]


def _noun(items: Sequence[Finding]) -> str:
    kinds = {item.kind for item in items}
    if len(kinds) == 1:
        return next(iter(kinds)).value
    return "extremum"


def _sentence(follower: _Follower, change: _Change) -> str:
    abscissae, verb, noun = change.abscissae, change.verb, change.noun
    low, high = follower.interval
    near = _NEAR * (high - low)
    where = f"{follower.name} = {_about(change.low, change.high)}"
    # Two that meet do so between them; what is a hair from 0 is 0.
    abscissa = sum(abscissae) / len(abscissae)
    about = f"{0.0 if abs(abscissa) < _NARROW * (high - low) else abscissa:.3g}".replace("-", "−")
    if len(abscissae) == 2 and abs(abscissae[0] - abscissae[1]) < near:
        words = "merge and vanish" if verb == "vanish" else "appear as one and part"
        return f"Two {_plural(noun)} {words} at {where}, near {about}."
    if len(abscissae) == 1:
        for end, side in ((low, "lower"), (high, "upper")):
            if abs(abscissae[0] - end) < near:
                words = "leaves" if verb == "vanish" else "enters"
                return f"{_one(noun)} {words} through the {side} end at {where}."
        words = "vanishes" if verb == "vanish" else "appears"
        return f"{_one(noun)} {words} at {where}, near {about}."
    listed = ", ".join(f"{abscissa:.4g}" for abscissa in abscissae).replace("-", "−")
    return f"{len(abscissae)} {_plural(noun)} {verb} at {where}, near {listed}."


def _plural(noun: str) -> str:
    irregular = {"extremum": "extrema", "minimum": "minima", "maximum": "maxima"}
    return irregular.get(noun, f"{noun}s")


def _one(noun: str) -> str:
    return f"{'An' if noun[0] in 'ei' else 'A'} {noun}"


def _about(low: Fraction, high: Fraction) -> str:
    """Write where a change is, with no more digits than are sure."""
    one, other = float(low), float(high)
    for digits in range(_DIGITS, 1, -1):
        if f"{one:.{digits}g}" == f"{other:.{digits}g}":
            return f"{one:.{digits}g}".replace("-", "−")
    # At a round number the two sides differ in every digit.
    return f"{(one + other) / 2:.{_DIGITS}g}".replace("-", "−")
