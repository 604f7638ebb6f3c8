"""What is merely seen in samples: zeros, turns, breaks, changes; there is no time for more."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate import RealFunction
from axis_path.core.locate.cells import Interval, Root
from axis_path.core.locate.finding import Kind

Floats = NDArray[np.float64]
_SAMPLES, _HALVINGS = 500, 16
#: How much smaller values beside a zero are than those of the samples around it.
_SHRUNK = 8
#: Where between its neighbours a sample stands: at no simple number.
_OFFSET = 0.4876
#: Halving a step of a curve as often as this makes it small, but not one of a jump, or of a pole.
_LEAST_HALVINGS, _JUMP, _POLE = 6, 1 / 4, 8
ONLY_SAMPLED = "it was seen between two samples; the search was stopped before it was checked"


def sampled_zeros(function: RealFunction, inside: Interval) -> list[Root]:
    """Return places where a function changes its sign between samples, none of them proved.

    Poles and jumps are none of them: only beside a zero do values shrink with the distance.
    """
    xs = _places(inside)
    ys = function.sample(xs)
    # Signs, for the product of two values may be too large for a float.
    signs = np.sign(ys)
    at = np.flatnonzero(signs[:-1] * signs[1:] < 0)
    a, b = xs[at], xs[at + 1]
    first, last = ys[at], ys[at + 1]
    most = np.maximum(np.abs(first), np.abs(last))
    for _ in range(_HALVINGS if len(at) else 0):
        middle = (a + b) / 2
        try:
            values = function.sample(middle)
        except StoppedError:
            # What is known by now is true as well.
            break
        is_before = np.sign(values) * np.sign(last) < 0
        a, first = np.where(is_before, middle, a), np.where(is_before, values, first)
        b, last = np.where(is_before, b, middle), np.where(is_before, last, values)
    is_zero = _SHRUNK * np.maximum(np.abs(first), np.abs(last)) < most
    return [
        Root(Ball(arb(low).union(arb(high))), proved=False, note=ONLY_SAMPLED)
        for low, high in zip(a[is_zero].tolist(), b[is_zero].tolist(), strict=True)
    ]


def sampled_turns(function: RealFunction, inside: Interval) -> list[tuple[Ball, int]]:
    """Return places between which the samples of a function turn, and which way: 1 above, -1 below.

    A jump or a pole between samples looks like a turn beside it, so the value must come near to
    its neighbours' on both sides.
    """
    xs = _places(inside)
    if not len(xs):
        return []
    ys = function.sample(xs)
    # A place without a value lies beside no turn.
    steps = np.diff(np.where(np.isfinite(ys), ys, np.nan))
    before, after = steps[:-1], steps[1:]
    # Beside a turn the slope is small: neither step is much larger than the ones around it.
    around = np.convolve(np.abs(steps), np.ones(5), mode="same")[:-1]
    is_calm = np.maximum(np.abs(before), np.abs(after)) <= around / 2
    at = np.flatnonzero((np.sign(before) * np.sign(after) < 0) & is_calm)
    return [
        (Ball(arb(float(xs[k])).union(arb(float(xs[k + 2])))), 1 if before[k] > 0 else -1)
        for k in at.tolist()
    ]


def sampled_breaks(function: RealFunction, inside: Interval) -> list[tuple[Ball, Kind]]:
    """Return places where samples jump, grow beyond bounds or end, none of them proved.

    A step between two samples is halved again and again. Of a curve it becomes small, of a jump it
    does not, and beside a pole it grows. Single points that are missing are not seen so.
    """
    xs = _places(inside)
    ys = function.sample(xs)
    if not len(xs):
        return []
    known = np.isfinite(ys)
    # Where the interval itself ends, values may be missing at a single place.
    known[0], known[-1] = known[1], known[-2]
    edges = np.flatnonzero(known[:-1] != known[1:])
    ends = _halved(xs[edges], xs[edges + 1], lambda at: np.isfinite(function.sample(at)))
    breaks = [(abscissa, Kind.END) for abscissa in ends]
    steps = np.abs(np.diff(np.where(np.isfinite(ys), ys, np.nan)))
    at = np.flatnonzero(np.isfinite(steps))
    low, high, first, last = xs[at], xs[at + 1], ys[at], ys[at + 1]
    before = np.maximum(steps[at], np.finfo(float).tiny)
    done = 0
    for done in range(1, _HALVINGS + 1):
        middle = (low + high) / 2
        try:
            values = function.sample(middle)
        except StoppedError:
            done -= 1
            break
        with np.errstate(invalid="ignore", over="ignore"):
            is_lower = np.abs(values - first) >= np.abs(last - values)
        high, last = np.where(is_lower, middle, high), np.where(is_lower, values, last)
        low, first = np.where(is_lower, low, middle), np.where(is_lower, first, values)
    if done >= _LEAST_HALVINGS:
        with np.errstate(invalid="ignore", over="ignore"):
            left = np.abs(last - first) / before
        for k in np.flatnonzero(left > _JUMP).tolist():
            kind = Kind.POLE if left[k] > _POLE else Kind.JUMP
            a, b = float(low[k]), float(high[k])
            if kind is Kind.POLE and not first[k] * last[k] < 0:
                # Of two halves either may hold it: only the samples around it surely do.
                a, b = float(xs[max(at[k] - 1, 0)]), float(xs[min(at[k] + 2, len(xs) - 1)])
            breaks.append((Ball(arb(a).union(arb(b))), kind))
    return _without_duplicates(breaks)


def _without_duplicates(breaks: list[tuple[Ball, Kind]]) -> list[tuple[Ball, Kind]]:
    """Put breaks in order; of those that may be one, the one that is known best."""
    distinct: list[tuple[Ball, Kind]] = []
    for abscissa, kind in sorted(breaks, key=lambda item: float(item[0].value.mid())):
        if distinct and distinct[-1][0].value.overlaps(abscissa.value):
            distinct[-1] = min(
                distinct[-1], (abscissa, kind), key=lambda item: float(item[0].value.rad())
            )
        else:
            distinct.append((abscissa, kind))
    return distinct


def sampled_changes(
    holds: Callable[[Floats], NDArray[np.bool_]], inside: Interval
) -> tuple[bool, list[Ball]]:
    """Return whether something holds where an interval begins, and where samples show a change.

    Args:
        holds: tells of places, (n,) floats, at which of them it holds.
        inside: where it is looked.
    """
    xs = _places(inside)
    if not len(xs):
        return False, []
    is_so = holds(xs)
    at = np.flatnonzero(is_so[:-1] != is_so[1:])
    return bool(is_so[0]), _halved(xs[at], xs[at + 1], holds)


def _halved(low: Floats, high: Floats, holds: Callable[[Floats], NDArray[np.bool_]]) -> list[Ball]:
    """Bring pairs of places, between which something begins or ends to hold, near together."""
    if len(low):
        is_so = holds(low)
    for _ in range(_HALVINGS if len(low) else 0):
        middle = (low + high) / 2
        try:
            is_before = holds(middle) == is_so
        except StoppedError:
            break
        low, high = np.where(is_before, middle, low), np.where(is_before, high, middle)
    ends = zip(low.tolist(), high.tolist(), strict=True)
    return [Ball(arb(a).union(arb(b))) for a, b in ends]


def _places(inside: Interval) -> Floats:
    """Return where is sampled; nowhere on an interval without ends."""
    low, high = (float(end.value.mid()) for end in (inside.low, inside.high))
    if not (math.isfinite(low) and math.isfinite(high)):
        return np.empty(0)
    inner = low + (high - low) * (np.arange(_SAMPLES) + _OFFSET) / _SAMPLES
    return np.concatenate([[low], inner, [high]])
