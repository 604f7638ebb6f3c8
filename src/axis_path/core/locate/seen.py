"""Zeros and turns that are merely seen between samples, when there is no time for more."""

from __future__ import annotations

import math

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball
from axis_path.core.errors import StoppedError
from axis_path.core.evaluate import RealFunction
from axis_path.core.locate.cells import Interval, Root

Floats = NDArray[np.float64]
_SAMPLES, _HALVINGS = 500, 16
#: How much smaller values beside a zero are than those of the samples around it.
_SHRUNK = 8
#: Where between its neighbours a sample stands: at no simple number.
_ASIDE = 0.4876
SEEN = "it was seen between two samples; the search was stopped before it was checked"


def seen_zeros(function: RealFunction, inside: Interval) -> list[Root]:
    """Give places where a function changes its sign between samples, none of them proved.

    Poles and jumps are none of them: only beside a zero do values shrink with the distance.
    """
    xs = _places(inside)
    ys = function.sample(xs)
    at = np.flatnonzero(ys[:-1] * ys[1:] < 0)
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
        is_before = values * last < 0
        a, first = np.where(is_before, middle, a), np.where(is_before, values, first)
        b, last = np.where(is_before, b, middle), np.where(is_before, last, values)
    is_zero = _SHRUNK * np.maximum(np.abs(first), np.abs(last)) < most
    return [
        Root(Ball(arb(low).union(arb(high))), proved=False, note=SEEN)
        for low, high in zip(a[is_zero].tolist(), b[is_zero].tolist(), strict=True)
    ]


def seen_turns(function: RealFunction, inside: Interval) -> list[tuple[Ball, int]]:
    """Give places between which the samples of a function turn, and which way: 1 above, -1 below.

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
    at = np.flatnonzero((before * after < 0) & is_calm)
    return [
        (Ball(arb(float(xs[k])).union(arb(float(xs[k + 2])))), 1 if before[k] > 0 else -1)
        for k in at.tolist()
    ]


def _places(inside: Interval) -> Floats:
    """Give where is sampled; nowhere on an interval without ends."""
    low, high = (float(end.value.mid()) for end in (inside.low, inside.high))
    if not (math.isfinite(low) and math.isfinite(high)):
        return np.empty(0)
    inner = low + (high - low) * (np.arange(_SAMPLES) + _ASIDE) / _SAMPLES
    return np.concatenate([[low], inner, [high]])
