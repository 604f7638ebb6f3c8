"""What is done point by point while curves are drawn, compiled.

NumPy would make many passes over short arrays for each of these.
"""

from __future__ import annotations

import numpy as np
from numba import njit

#: How all of it is compiled; it takes arrays that can be written, in the order of C.
compiled = njit(cache=True, error_model="numpy")


@compiled
def flat(value, is_log):
    """Return where a value stands on its axis; on a logarithmic one 0 and less are far below."""
    return np.log10(max(value, 5e-324)) if is_log and not np.isnan(value) else value


@compiled
def middle(low, high, nowhere):
    """Return the middle of an enclosure; NaN where there is no value or no bound."""
    result = (low + high) / 2
    return np.nan if nowhere or not abs(result) < np.inf else result


@compiled
def with_ends(left, right):
    """Return columns and behind them their ends as columns without width, to be enclosed together.

    Columns that join have their ends in common: behind the n columns stand the left end of each,
    and its right end where the next does not join it.

    Returns:
        Lows and highs, (m,) each, and where the left end of each column stands, (n,): its right end
        is the one behind it.
    """
    count = len(left)
    lows, highs = np.empty(3 * count), np.empty(3 * count)
    ends = np.empty(count, dtype=np.int64)
    at = count
    for i in range(count):
        lows[i], highs[i] = left[i], right[i]
        lows[at] = highs[at] = left[i]
        ends[i] = at
        at += 1
        if i == count - 1 or left[i + 1] != right[i]:
            lows[at] = highs[at] = right[i]
            at += 1
    return lows[:at], highs[:at], ends


@compiled
def merged(one, other, row):
    """Put the columns of two tables, (k, n) and (k, m), in the order of a row, as each is in it."""
    count, more = one.shape[1], other.shape[1]
    table = np.empty((one.shape[0], count + more))
    i = j = 0
    while i < count or j < more:
        if j == more or (i < count and one[row, i] <= other[row, j]):
            table[:, i + j] = one[:, i]
            i += 1
        else:
            table[:, i + j] = other[:, j]
            j += 1
    return table


@compiled
def joined_runs(left, right, drawn, parted):
    """Return the runs of columns that are drawn as one line: their starts and stops, (k, 2).

    Args:
        left: where the columns begin, (n,); ``right`` where they end.
        drawn: which of them are drawn.
        parted: places at which nothing is joined, (m,).
    """
    runs = np.empty((len(left), 2), dtype=np.int64)
    count = 0
    for i in range(len(left)):
        if not drawn[i]:
            continue
        is_joined = i > 0 and drawn[i - 1] and left[i] == right[i - 1]
        for position in parted:
            is_joined &= position != left[i]
        if not is_joined:
            runs[count, 0] = i
            count += 1
        runs[count - 1, 1] = i + 1
    return runs[:count]


@compiled
def intervals(left, right, chosen):
    """Return the intervals that chosen columns make together, (k, 2)."""
    intervals = np.empty((len(left), 2))
    count = 0
    for i in range(len(left)):
        if not chosen[i]:
            continue
        if i == 0 or not chosen[i - 1]:
            intervals[count, 0] = left[i]
            count += 1
        intervals[count - 1, 1] = right[i]
    return intervals[:count]


@compiled
def clipped(value, floor, top):
    """Bring a value between two others; no number stays none."""
    return top if value > top else floor if value < floor else value


@compiled
def _product(low, high, other_low, other_high):
    one, two = low * other_low, low * other_high
    three, four = high * other_low, high * other_high
    return min(min(one, two), min(three, four)), max(max(one, two), max(three, four))


@compiled
def bends_on_axes(left, right, low, high, slope_low, slope_high, bend_low, bend_high, log_x, log_y):
    """Enclose the second derivatives of curves as they stand on logarithmic axes, in decades.

    Args:
        left: where columns of x begin, (n,); above zero if ``log_x``.
        right: where they end.
        low: the least values of the function in them; ``high`` the greatest.
        slope_low: the same for its derivative.
        slope_high: the same.
        bend_low: the same for its second derivative.
        bend_high: the same.
        log_x: whether x stands on a logarithmic axis.
        log_y: whether y does.

    Returns:
        Least and greatest values, (n,) each; no bound where the function is not above zero.
    """
    count, unit = len(left), np.log(10.0)
    lowest, highest = np.empty(count), np.empty(count)
    for i in range(count):
        slope, bend = (slope_low[i], slope_high[i]), (bend_low[i], bend_high[i])
        if log_x:
            # f(10^t) has the slope x f' ln 10, and that again the slope (x^2 f'' + x f') (ln 10)^2.
            slope = _product(*slope, left[i] * unit, right[i] * unit)
            bend = _product(*bend, (left[i] * unit) ** 2, (right[i] * unit) ** 2)
            bend = (bend[0] + slope[0] * unit, bend[1] + slope[1] * unit)
        if log_y:
            if not low[i] > 0:
                lowest[i], highest[i] = -np.inf, np.inf
                continue
            # (log f)' = f'/f, and (log f)'' = f''/f - (f'/f)^2.
            slope = _product(*slope, 1 / high[i], 1 / low[i])
            bend = _product(*bend, 1 / high[i], 1 / low[i])
            square = max(abs(slope[0]), abs(slope[1])) ** 2
            bend = ((bend[0] - square) / unit, bend[1] / unit)
        lowest[i], highest[i] = bend
    return lowest, highest


@compiled
def line_tenths(px, near):
    """Return the points of a line, (n, 2) in px, one after the other, in whole tenths of a px.

    Points are left out where the line between their neighbours passes them by no more than
    ``near``: one walks on from a point as long as there is a direction that passes all points since
    so near, and never back.

    Source:
        Williams, *An efficient algorithm for the piecewise linear approximation of planar curves*,
        1978. As the distance from the point never grows less, what is passed lies beside the line.
    """
    count = len(px)
    output = np.empty(2 * count, dtype=np.int64)
    at = anchor = 0
    # The directions that pass all points since the anchor so near lie between two, turned left.
    first_x = first_y = last_x = last_y = reach = 0.0
    for i in range(count):
        is_used = i == 0
        if i > 0:
            x, y = px[i, 0] - px[anchor, 0], px[i, 1] - px[anchor, 1]
            away = np.hypot(x, y)
            is_open = first_x == 0 and first_y == 0
            is_between = is_open or (
                first_x * y - first_y * x >= 0 and x * last_y - y * last_x >= 0
                and first_x * x + first_y * y > 0
            )  # fmt: skip
            if not (away >= reach and is_between):
                # The line bends after the point before this one.
                is_used = True
                anchor = i - 1
                x, y = px[i, 0] - px[anchor, 0], px[i, 1] - px[anchor, 1]
                away = np.hypot(x, y)
                first_x = first_y = last_x = last_y = 0.0
                is_open = True
            reach = away
            if away > near:
                sine = near / away
                cosine = np.sqrt(1 - sine * sine)
                right_x, right_y = x * cosine + y * sine, y * cosine - x * sine
                left_x, left_y = x * cosine - y * sine, y * cosine + x * sine
                if is_open or first_x * right_y - first_y * right_x > 0:
                    first_x, first_y = right_x, right_y
                if is_open or last_x * left_y - last_y * left_x < 0:
                    last_x, last_y = left_x, left_y
        if is_used:
            k = max(i - 1, 0)
            output[at] = np.int64(np.rint(px[k, 0] * 10))
            output[at + 1] = np.int64(np.rint(px[k, 1] * 10))
            at += 2
    if count > 1:
        output[at] = np.int64(np.rint(px[count - 1, 0] * 10))
        output[at + 1] = np.int64(np.rint(px[count - 1, 1] * 10))
        at += 2
    return output[:at]


@compiled
def last_inside(piece, left, right, floor, top):
    """Return the rightmost point of a line, (n, 2), inside a box; NaN if none of its points is."""
    best = -1
    for i in range(len(piece)):
        x, y = piece[i, 0], piece[i, 1]
        if left <= x <= right and floor <= y <= top and (best < 0 or x > piece[best, 0]):
            best = i
    if best < 0:
        return np.nan, np.nan
    x, y = piece[best, 0], piece[best, 1]
    if best + 1 == len(piece) or not piece[best + 1, 0] > x:
        return x, y
    # The line goes on to the right, and leaves the box behind this point.
    across, up = piece[best + 1, 0] - x, piece[best + 1, 1] - y
    part = min(1.0, (right - x) / across)
    if up > 0:
        part = min(part, (top - y) / up)
    elif up < 0:
        part = min(part, (floor - y) / up)
    return x + part * across, y + part * up


@compiled
def tenths(value, start, px, is_log):
    """Return where an abscissa stands, in tenths of a px from the ``start`` of its axis."""
    return np.int64(np.rint((flat(value, is_log) - start) * px * 10))


@compiled
def trends(low, high, partial, broken, edges, start, px, is_log):
    """Return where a slope has one sign, by its enclosures over the columns between edges.

    Args:
        edges: of the columns, (n + 1,).
        start: see ``tenths``, as what follows.

    Returns:
        Rows of from, to, both in tenths of a px, and sign, (k, 3).
    """
    count = len(low)
    rows = np.empty((count, 3), dtype=np.int64)
    at, before = 0, 0
    for i in range(count):
        sign = 0
        if not (partial[i] or broken[i]):
            sign = 1 if low[i] > 0 else -1 if high[i] < 0 else 0
        if sign and sign != before:
            rows[at, 0], rows[at, 2] = tenths(edges[i], start, px, is_log), sign
            at += 1
        if sign:
            rows[at - 1, 1] = tenths(edges[i + 1], start, px, is_log)
        before = sign
    return rows[:at]


@compiled
def signs_between(points, starts, crossings, start, px, is_log):
    """Return the intervals of lines in which no zero may be, and which sign the values have there.

    Args:
        points: of the lines, one after the other from left to right, (n, 2).
        starts: where each begins among them, and the last one ends, (k + 1,).
        crossings: the intervals in which there may be a zero, (m, 2), likewise; their ends are
            points, or lie between lines.
        start: see ``tenths``, as what follows.

    Returns:
        Rows of from, to, both in tenths of a px, and sign, (j, 3).
    """
    most = len(starts) - 1 + len(crossings)
    rows = np.empty((most, 3), dtype=np.int64)
    count = first = 0
    for line in range(len(starts) - 1):
        at, stop = starts[line], starts[line + 1]
        low, high = points[at, 0], points[stop - 1, 0]
        while first < len(crossings) and crossings[first, 1] < low:
            first += 1
        k = first
        while low < high or k < len(crossings):
            is_last = k >= len(crossings) or crossings[k, 0] > high
            end = high if is_last else crossings[k, 0]
            if end > low:
                while points[at, 0] < low:
                    at += 1
                sign = np.int64(np.sign(points[at, 1]))
                if sign:
                    rows[count, 0] = tenths(low, start, px, is_log)
                    rows[count, 1] = tenths(end, start, px, is_log)
                    rows[count, 2] = sign
                    count += 1
            if is_last:
                break
            low = max(low, crossings[k, 1])
            k += 1
    return rows[:count]
