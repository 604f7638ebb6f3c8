"""Whether a subject lies inside the fence of a domain, in each arithmetic."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, Enclosure, ball, enclosure
from axis_path.core.evaluate.graph.graph import Fence

Floats = NDArray[np.float64]


def samples_inside(fence: Fence, subject: Floats, bounds: tuple[Floats, ...]) -> NDArray[np.bool_]:
    """Return which samples lie inside a fence; NaN lies outside."""
    holds = ~np.isnan(subject)
    rest = list(bounds)
    if fence.low is not None:
        low = rest.pop(0)
        holds = holds & (subject >= low if fence.low else subject > low)
    if fence.high is not None:
        high = rest.pop(0)
        holds = holds & (subject <= high if fence.high else subject < high)
    for value in rest:
        holds = holds & (subject != value)
    return holds


def columns_inside(
    fence: Fence, subject: Enclosure, bounds: tuple[Enclosure, ...]
) -> tuple[enclosure.Flags, enclosure.Flags]:
    """Return the columns that lie wholly inside and wholly outside a fence."""
    inside: enclosure.Flags = ~np.isnan(subject.low)
    outside: enclosure.Flags = np.isnan(subject.low)
    rest = list(bounds)
    if fence.low is not None:
        low = rest.pop(0)
        inside = inside & ((subject.low >= low.high) if fence.low else (subject.low > low.high))
        outside = outside | ((subject.high < low.low) if fence.low else (subject.high <= low.low))
    if fence.high is not None:
        high = rest.pop(0)
        inside = inside & ((subject.high <= high.low) if fence.high else (subject.high < high.low))
        outside = outside | (
            (subject.low > high.high) if fence.high else (subject.low >= high.high)
        )
    for value in rest:
        inside = inside & ((subject.low > value.high) | (subject.high < value.low))
        outside = outside | (
            (subject.low == subject.high) & (subject.low == value.low) & (value.low == value.high)
        )
    return inside, outside


def ball_inside(
    fence: Fence, subject: Ball, bounds: tuple[Ball, ...], equal: frozenset[int] = frozenset()
) -> bool | None:
    """Check whether a fence holds on a whole ball, on none of it, or neither.

    Args:
        fence: what limits the subject.
        subject: a number or an interval.
        bounds: the ends and the values that are left out.
        equal: the places of bounds that are known to be the subject itself.
    """
    rest = list(enumerate(bounds))
    holds: bool | None = True
    if fence.low is not None:
        k, low = rest.pop(0)
        above = fence.low if k in equal else _is_above(subject, low, closed=fence.low)
        holds = _both(holds, above)
    if fence.high is not None:
        k, high = rest.pop(0)
        below = fence.high if k in equal else _is_above(high, subject, closed=fence.high)
        holds = _both(holds, below)
    for k, value in rest:
        holds = _both(holds, False if k in equal else _differs(subject, value))
    return None if subject.defined is not Defined.YES and holds else holds


def _both(a: bool | None, b: bool | None) -> bool | None:
    if a is False or b is False:
        return False
    return None if a is None or b is None else True


def _is_above(a: Ball, b: Ball, *, closed: bool) -> bool | None:
    """Check whether a > b (a >= b if closed) holds on all of the balls, on none, or neither."""
    value = ball.subtract(a, b).value
    if bool(value > 0) or (closed and bool(value >= 0)):
        return True
    if bool(value < 0) or (not closed and bool(value <= 0)):
        return False
    return None


def _differs(a: Ball, b: Ball) -> bool | None:
    sign = ball.subtract(a, b).sign()
    return None if sign is None else sign != 0
