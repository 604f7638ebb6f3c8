"""Where a domain or a piece applies, compiled: single numbers against their ends."""

from __future__ import annotations

from axis_path.core.arithmetic.scalar_kernel import (
    BROKEN,
    INF,
    NOWHERE,
    PARTIAL,
    scalar,
)


@scalar
def _inside(kind_low, kind_high, without, low, high, lows, highs, column, rows, at):
    """Check whether a subject lies wholly inside, and wholly outside, a fence.

    ``kind_low`` is 0 for no lower end, 1 for an open and 2 for a closed one; from ``at`` on stand
    the places of the bounds.
    """
    inside, outside = low == low, low != low
    if kind_low:
        end_low, end_high = lows[rows[at], column], highs[rows[at], column]
        at += 1
        inside &= low >= end_high if kind_low == 2 else low > end_high
        outside |= high < end_low if kind_low == 2 else high <= end_low
    if kind_high:
        end_low, end_high = lows[rows[at], column], highs[rows[at], column]
        at += 1
        inside &= high <= end_low if kind_high == 2 else high < end_low
        outside |= low > end_high if kind_high == 2 else low >= end_high
    for _ in range(without):
        end_low, end_high = lows[rows[at], column], highs[rows[at], column]
        at += 1
        inside &= low > end_high or high < end_low
        outside |= low == high and low == end_low and end_low == end_high
    return inside, outside


@scalar
def within(fence, arguments, lows, highs, flags, row, count):
    body, subject, bounds = arguments[0], arguments[1], arguments[2:]
    for i in range(count):
        inside, outside = _inside(
            fence[0],
            fence[1],
            fence[2],
            lows[subject, i],
            highs[subject, i],
            lows,
            highs,
            i,
            arguments,
            2,
        )
        flag = flags[body, i] | flags[subject, i]
        for bound in bounds:
            flag |= flags[bound, i]
        if not inside:
            flag |= PARTIAL
        if outside:
            flag |= NOWHERE
        lows[row, i], highs[row, i], flags[row, i] = lows[body, i], highs[body, i], flag


@scalar
def pieces(fences, arguments, lows, highs, flags, row, count):
    """Join the bodies that may hold in a column; ``fences`` has -1 for one that holds elsewhere."""
    subject = arguments[0]
    for i in range(count):
        low, high, flag = INF, -INF, 0
        covered, some, held_count, at = False, False, 0, 1
        for piece in range(len(fences) // 3):
            body = arguments[at]
            kind_low, kind_high, without = (
                fences[3 * piece],
                fences[3 * piece + 1],
                fences[3 * piece + 2],
            )
            if kind_low < 0:
                size = 0
                inside, outside = lows[subject, i] == lows[subject, i], False
            else:
                size = (kind_low > 0) + (kind_high > 0) + without
                inside, outside = _inside(
                    kind_low, kind_high, without, lows[subject, i], highs[subject, i], lows, highs,
                    i, arguments, at + 1,
                )  # fmt: skip
            if not outside:
                part = flags[body, i]
                for bound in range(at + 1, at + 1 + size):
                    part |= flags[arguments[bound], i]
                held_count += 1
                if part & NOWHERE:
                    flag |= PARTIAL
                else:
                    some = True
                    low, high = min(low, lows[body, i]), max(high, highs[body, i])
                flag |= part & (PARTIAL | BROKEN)
            if inside:
                # What is written behind holds nowhere here.
                covered = True
                break
            at += 1 + size
        if not covered:
            flag |= PARTIAL
        if held_count > 1:
            flag |= BROKEN
        if not some:
            low, high, flag = 0.0, 0.0, flag | NOWHERE
        lows[row, i], highs[row, i], flags[row, i] = low, high, flag | flags[subject, i]
