"""What is decided column by column while curves are drawn, compiled.

NumPy would make twenty passes over short arrays for each of these.
"""

from __future__ import annotations

import numpy as np
from numba import njit

_compiled = njit(cache=True, error_model="numpy", nogil=True)


@_compiled
def _clipped(value, floor, top):
    # No number stays none.
    return top if value > top else floor if value < floor else value


@_compiled
def rough_columns(
    left, right, low, high, calm, empty, y_left, y_right, straight, floor, top, x_px, y_px,
    tolerance,
):  # fmt: skip
    """Tell which columns of a function need to be cut, (n,) flags.

    One that is not proved to be continuous does, and one in whose enclosure a point may be further
    from its straight line than ``tolerance`` px, as far as it lies between ``floor`` and ``top``:
    beyond the line's ends, or in a corner between them.
    """
    found = np.zeros(len(left), dtype=np.bool_)
    for i in range(len(left)):
        if empty[i] or not right[i] - left[i] > 1e-15 * abs(left[i]):
            continue
        if not calm[i]:
            found[i] = True
        elif not straight[i]:
            height = _clipped(high[i], floor, top) - _clipped(low[i], floor, top)
            line = abs(_clipped(y_right[i], floor, top) - _clipped(y_left[i], floor, top))
            across, up = (right[i] - left[i]) * x_px, line * y_px
            corner = across * up / max(np.hypot(across, up), 1e-12)
            found[i] = (height - line) * y_px + corner > tolerance
    return found


@_compiled
def find_bands(
    first, low, high, calm, tall, y_left, y_right, floor, top, y_px, most_turns, least_px
):
    """Find the pixel columns in which a curve turns more often than can be shown.

    Args:
        first: where the columns of each pixel begin, (m + 1,); the last is n.

    Returns:
        For each pixel whether it is a band, and its lowest and highest values, (m,) each.
    """
    count = len(first) - 1
    chosen = np.zeros(count, dtype=np.bool_)
    lowest, highest = np.zeros(count), np.zeros(count)
    for k in range(count):
        way, floor_here, top_here, is_calm = 0.0, np.inf, -np.inf, True
        for i in range(first[k], first[k + 1]):
            if not calm[i]:
                is_calm = False
                break
            one, other = _clipped(y_left[i], floor, top), _clipped(y_right[i], floor, top)
            if tall[i]:
                bottom, upper = _clipped(low[i], floor, top), _clipped(high[i], floor, top)
                way += 4 * (upper - bottom)
            else:
                bottom, upper = min(one, other), max(one, other)
                way += abs(one - other)
            floor_here, top_here = min(floor_here, bottom), max(top_here, upper)
        if is_calm:
            height = (top_here - floor_here) * y_px
            lowest[k], highest[k] = floor_here, top_here
            chosen[k] = way * y_px > most_turns * height and height > least_px
    return chosen, lowest, highest


@_compiled
def settled_boxes(
    x_low, x_high, y_low, y_high, x_left, x_right, y_left, y_right, width, height, margin, near_px
):
    """Tell which columns of a path lie outside the window, and in which its line is near enough.

    The line is near if its box is so thin that nothing in it is further away than ``near_px``. All
    is in px.
    """
    count = len(x_low)
    away, near = np.zeros(count, dtype=np.bool_), np.zeros(count, dtype=np.bool_)
    for i in range(count):
        away[i] = (
            x_high[i] < -margin or x_low[i] > width + margin
            or y_high[i] < -margin or y_low[i] > height + margin
        )  # fmt: skip
        across, down = x_high[i] - x_low[i], y_high[i] - y_low[i]
        unseen = max(across - abs(x_right[i] - x_left[i]), down - abs(y_right[i] - y_left[i]))
        slack = across * down / max(np.hypot(across, down), 1e-12)
        near[i] = slack + max(unseen, 0.0) <= near_px
    return away, near


@_compiled
def straight_columns(
    left, right, low, high, partial, broken, y_left, y_right, x_px, y_px, tolerance
):
    """Tell in which columns a line is near enough, by enclosures of the second derivative.

    In height a line differs from its curve by an eighth of the second derivative times the width
    squared at the most. A steep line is nearer than that, unless the curve turns beside it.
    """
    found = np.zeros(len(left), dtype=np.bool_)
    for i in range(len(left)):
        if not (partial[i] or broken[i]):
            width = right[i] - left[i]
            away = max(abs(low[i]), abs(high[i])) * width**2 / 8 * y_px
            up, across = abs(y_right[i] - y_left[i]) * y_px, width * x_px
            # So the slope changes by no more than itself.
            if 8 * away <= up:
                away *= across / np.hypot(across, up)
            found[i] = away <= tolerance
    return found


@_compiled
def _product(low, high, other_low, other_high):
    one, two = low * other_low, low * other_high
    three, four = high * other_low, high * other_high
    return min(min(one, two), min(three, four)), max(max(one, two), max(three, four))


@_compiled
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


@_compiled
def piece_tenths(piece, x_start, x_px, y_top, y_px, height):
    """Give the points of a piece, (n, 2), one after the other, in whole tenths of a px.

    Ordinates are cut off one height outside of the window. Inside runs of equal height, as there,
    only the ends are kept.
    """
    count = len(piece)
    xs, ys = np.empty(count, dtype=np.int64), np.empty(count, dtype=np.int64)
    for i in range(count):
        down = _clipped((y_top - piece[i, 1]) * y_px, -height, 2.0 * height)
        xs[i] = np.int64(np.rint((piece[i, 0] - x_start) * x_px * 10))
        ys[i] = np.int64(np.rint(down * 10))
    found = np.empty(2 * count, dtype=np.int64)
    at = 0
    for i in range(count):
        if 0 < i < count - 1 and ys[i] == ys[i - 1] and ys[i] == ys[i + 1]:
            continue
        found[at], found[at + 1] = xs[i], ys[i]
        at += 2
    return found[:at]


@_compiled
def last_inside(piece, left, right, floor, top):
    """Give the place of the rightmost point of a piece, (n, 2), inside a box; -1 if none is."""
    best = -1
    for i in range(len(piece)):
        x, y = piece[i, 0], piece[i, 1]
        if left <= x <= right and floor <= y <= top and (best < 0 or x > piece[best, 0]):
            best = i
    return best


@_compiled
def trends(low, high, partial, broken):
    """Give where a slope has one sign, by its enclosures: rows of from, to (behind) and sign."""
    count = len(low)
    found = np.empty((count, 3), dtype=np.int64)
    at, before = 0, 0
    for i in range(count):
        sign = 0
        if not (partial[i] or broken[i]):
            sign = 1 if low[i] > 0 else -1 if high[i] < 0 else 0
        if sign and sign == before:
            found[at - 1, 1] = i + 1
        elif sign:
            found[at, 0], found[at, 1], found[at, 2] = i, i + 1, sign
            at += 1
        before = sign
    return found[:at]
