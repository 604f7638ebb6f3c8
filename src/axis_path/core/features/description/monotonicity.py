"""The monotonicity of a function in a window, in sentences that say no more than is proved."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import Window
from axis_path.core.evaluate import RealFunction
from axis_path.core.evaluate.quantities import with_unit
from axis_path.core.features.findings.answer import is_whole
from axis_path.core.features.findings.searches import Searches
from axis_path.core.kinds.functions.lane import end_text
from axis_path.core.locate import Finding, Findings, Kind, showing

#: Numbers are read aloud: more digits would hide the message.
_DIGITS = 4
#: So many events are described one by one.
_MOST_EVENTS = 8
_INNER = (0.3, 0.7)
_TURNS = frozenset({Kind.MINIMUM, Kind.MAXIMUM})


@dataclass(frozen=True, slots=True)
class _Stop:
    """An abscissa up to which the function is described."""

    x: float
    words: str


def describe_function(snapshot: Snapshot, name: str, window: Window) -> list[str]:
    """Describe a function in a window: its domain, how it rises and falls, its zeros and breaks.

    Args:
        snapshot: has the function.
        name: of the function.
        window: what is seen of it.

    Raises:
        MathError: the function does not work.
    """
    function = snapshot.query(Curves).function(name)
    low, high = window.x if not window.log_x else (10 ** window.x[0], 10 ** window.x[1])
    ends = _visible_interval(function, low, high)
    if ends is None:
        return [_domain(function), "None of it lies in the window."]
    bounds = tuple(f"{end:.12g}" for end in (low, high))
    searches = snapshot.query(Searches)
    with showing(_DIGITS):
        zeros = searches.zeros(name, *_within(function, bounds))
        extrema = searches.extrema(name, *_within(function, bounds), at_window=True)
        breaks = searches.breaks(name, *_within(function, bounds))
        sentences = [
            _domain(function),
            _monotonicity(function, ends, extrema, breaks),
            _zeros(function, zeros),
            *_breaks(function, breaks),
        ]
    is_sure = all(map(is_whole, (zeros, extrema, breaks)))
    sentences.append("All of this is proved." if is_sure else "Not all of this is proved.")
    return [sentence for sentence in sentences if sentence]


def _visible_interval(
    function: RealFunction, low: float, high: float
) -> tuple[float, float] | None:
    """Return from where to where a function is seen; None if it is not."""
    if function.low is not None:
        low = max(low, function.low.near)
    if function.high is not None:
        high = min(high, function.high.near)
    return (low, high) if low < high else None


def _within(function: RealFunction, bounds: tuple[str, ...]) -> tuple[str | None, str | None]:
    """Return where to search: an end of the domain stays what it is if it lies in the window."""
    low, high = bounds
    is_low_own = function.low is not None and function.low.near >= float(low)
    is_high_own = function.high is not None and function.high.near <= float(high)
    return (None if is_low_own else low, None if is_high_own else high)


def _domain(function: RealFunction) -> str:
    variable = function.variable
    unit = function.units.variable.printed
    low, high = (end and end_text(end, unit) for end in (function.low, function.high))
    closed = [end is None or end.closed for end in (function.low, function.high)]
    left = f"{low} {'≤' if closed[0] else '<'} " if low else ""
    right = f" {'≤' if closed[1] else '<'} {high}" if high else ""
    if not low and not high:
        return "No domain is given."
    return f"It is defined for {left}{variable}{right}.".replace("-", "−")


def _monotonicity(
    function: RealFunction, ends: tuple[float, float], extrema: Findings, breaks: Findings
) -> str:
    stops = sorted(_stops(function, ends, extrema, breaks), key=lambda stop: stop.x)
    if len(stops) > _MOST_EVENTS:
        turns = sum(item.kind in _TURNS for item in extrema)
        return f"It rises and falls: it has {turns} extrema in the window."
    sentences: list[str] = []
    parts: list[str] = []
    start = before = ends[0]
    for stop in stops:
        if stop.x == before:
            continue
        verb = _verb(function, before, stop.x)
        before = stop.x
        if verb:
            parts.append(f"{verb} to {stop.words}")
            continue
        # Between two parts it has no value.
        sentences.extend(_part(function, start, parts))
        start, parts = stop.x, []
    sentences.extend(_part(function, start, parts))
    return " ".join(sentences)


def _part(function: RealFunction, start: float, parts: list[str]) -> Iterator[str]:
    if parts:
        yield f"From {_place(function, _number(start))} it {', then '.join(parts)}."


def _stops(
    function: RealFunction, ends: tuple[float, float], extrema: Findings, breaks: Findings
) -> Iterator[_Stop]:
    variable = function.variable
    for item in extrema:
        if ends[0] < item.x < ends[1]:
            is_one = variable not in _short(item)
            at = (
                with_unit(_short(item), function.units.variable.printed) if is_one else _short(item)
            )
            value = with_unit(item.y_exact or item.y_text, function.units.y.printed)
            words = f"({at}, {value})" if is_one else f"{value} for {at}"
            yield _Stop(item.x, f"its {item.kind.label} {words}")
    for item in breaks:
        if ends[0] < item.x < ends[1]:
            yield _Stop(item.x, f"the {item.kind.label} at {_place(function, _short(item))}")
    yield _Stop(ends[1], _place(function, _number(ends[1])))


def _verb(function: RealFunction, low: float, high: float) -> str:
    """Return whether a function rises, falls or stays level between two neighbouring events."""
    inner = np.array([low + part * (high - low) for part in _INNER])
    first, last = function.sample(inner)
    if not np.isfinite((first, last)).all():
        return ""
    if first == last:
        return "stays level"
    return "rises" if last > first else "falls"


def _zeros(function: RealFunction, zeros: Findings) -> str:
    if zeros.along:
        return zeros.along
    if not len(zeros):
        return "It has no zero in the window." if zeros.complete else "No zero was found."
    unit = function.units.variable.printed
    zeros_in_words = [with_unit(_short(item), unit) for item in list(zeros)[:_MOST_EVENTS]]
    more = len(zeros) - len(zeros_in_words)
    word = "Zero" if len(zeros) == 1 else "Zeros"
    rest = f", and {more} more" if more > 0 else ""
    return f"{word} at {function.variable} = {', '.join(zeros_in_words)}{rest}."


def _breaks(function: RealFunction, breaks: Findings) -> Iterator[str]:
    ends = [end.near for end in (function.low, function.high) if end is not None]
    events = [item for item in breaks if not (item.kind is Kind.END and item.x in ends)]
    for item in events[:_MOST_EVENTS]:
        why = f": {item.why}" if item.why else ""
        label = item.kind.label
        yield f"{label[0].upper()}{label[1:]} at {_place(function, _short(item))}{why}."


def _place(function: RealFunction, text: str) -> str:
    """Return a value of the variable with its unit: ``t = 3 s``."""
    return f"{function.variable} = {with_unit(text, function.units.variable.printed)}"


def _short(item: Finding) -> str:
    return item.exact or item.text


def _number(value: float) -> str:
    return f"{value:.{_DIGITS}g}".replace("-", "−")
