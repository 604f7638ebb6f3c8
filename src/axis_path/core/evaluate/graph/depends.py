"""Which sliders the values of a program over an interval can depend on.

Pieces that cannot hold anywhere in it do not count: what was found near the end of one piece stays
found while a slider moves another.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.evaluate.graph.graph import Fence, Op, Split, Step
from axis_path.core.evaluate.graph.program import Program

#: Of so many intervals it is stored: the same ones are asked for in every frame of a drag.
_MOST_CACHED = 256


@dataclass(frozen=True, slots=True)
class _Interval:
    """Numbers between two ends, None for one that is not there; closed ends belong to it."""

    low: Fraction | None
    high: Fraction | None
    low_closed: bool = True
    high_closed: bool = True

    def begins_by(self, other: _Interval) -> bool:
        """Check whether it has begun where the other does."""
        if self.low is None or other.low is None:
            return self.low is None
        closed = self.low_closed or not other.low_closed
        return self.low < other.low or (self.low == other.low and closed)

    def turned(self) -> _Interval:
        """Return it as seen from the other side of 0."""
        low, high = (None if end is None else -end for end in (self.high, self.low))
        return _Interval(low, high, self.high_closed, self.low_closed)

    def is_empty(self) -> bool:
        """Check whether no number is in it."""
        if self.low is None or self.high is None:
            return False
        closed = self.low_closed and self.high_closed
        return self.low > self.high or (self.low == self.high and not closed)

    def after(self, other: _Interval) -> _Interval:
        """Return what of it lies above all of the other."""
        if other.high is None:
            return _Interval(Fraction(1), Fraction(0))
        rest = _Interval(other.high, self.high, not other.high_closed, self.high_closed)
        return self if rest.begins_by(self) else rest

    def before(self, other: _Interval) -> _Interval:
        """Return what of it lies below all of the other."""
        return self.turned().after(other.turned()).turned()

    def without(self, other: _Interval) -> _Interval:
        """Return what is left of it; all of it if that would be two intervals."""
        below, above = self.before(other), self.after(other)
        if below.is_empty():
            return above
        return below if above.is_empty() else self

    def meets(self, other: _Interval) -> bool:
        """Check whether they have a number in common."""
        return not (self.is_empty() or (self.before(other) == self or self.after(other) == self))


def sliders_on(program: Program, low: float, high: float) -> frozenset[str]:
    """Return the sliders that the values over an interval can depend on, and maybe some more.

    Args:
        program: what is computed.
        low: where the interval begins; the end belongs to it.
        high: where it ends, likewise.
    """
    if not program.is_split:
        return program.parameters
    cached_by_ends = program.cached_sliders
    cached = cached_by_ends.get((low, high))
    if cached is None:
        if len(cached_by_ends) >= _MOST_CACHED:
            cached_by_ends.clear()
        cached = cached_by_ends[low, high] = _sliders_on(program, Fraction(low), Fraction(high))
    return cached


def _sliders_on(program: Program, low: Fraction, high: Fraction) -> frozenset[str]:
    visited: set[int] = set()
    used: set[str] = set()
    waiting = list(program.results)
    while waiting:
        position = waiting.pop()
        if position in visited:
            continue
        visited.add(position)
        step = program.steps[position]
        if step.op == Op.PARAMETER:
            used.add(str(step.payload))
        waiting += _needed(program.steps, step, _Interval(low, high))
    return frozenset(used)


def _needed(steps: tuple[Step, ...], step: Step, left: _Interval) -> list[int]:
    """Return the arguments of a step that its value over an interval of the variable depends on."""
    split = step.payload
    if not isinstance(split, Split) or steps[step.arguments[0]].op != Op.VARIABLE:
        return list(step.arguments)
    needed = [step.arguments[0]]
    for position, fence in zip(split.bodies(), split.fences, strict=True):
        count = 0 if fence is None else fence.count
        body, *bounds = step.arguments[position : position + 1 + count]
        where = _where(fence, [steps[bound] for bound in bounds])
        if where is not None and not left.meets(where):
            continue
        needed += [body, *bounds]
        if where is not None and fence is not None and not fence.without:
            left = left.without(where)
            if left.is_empty():
                break
    return needed


def _where(fence: Fence | None, bounds: list[Step]) -> _Interval | None:
    """Return where a fence holds but for single values; None if its ends are not fixed."""
    if fence is None:
        return _Interval(None, None)
    ends: list[Fraction] = []
    for bound in bounds[: len(bounds) - fence.without]:
        if not isinstance(bound.payload, Fraction):
            return None
        ends.append(bound.payload)
    low = None if fence.low is None else ends.pop(0)
    high = None if fence.high is None else ends.pop(0)
    return _Interval(low, high, bool(fence.low), bool(fence.high))
