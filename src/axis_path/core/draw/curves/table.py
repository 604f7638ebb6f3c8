"""The columns of a function as one table, and what is decided column by column, compiled.

A table holds a row for each quantity, and in it one number for each column, in order of x: floats,
(11, n). So columns are taken, cut and put in order all at once, and nothing between two enclosures
is left to Python.
"""

from __future__ import annotations

import numpy as np

from axis_path.core.draw.curves.compiled import (
    clipped,
    compiled,
    flat,
    intervals,
    joined_runs,
    middle,
)

#: The edges of a column, the bounds of its enclosure, and the values at its edges.
LEFT, RIGHT, LOW, HIGH, Y_LEFT, Y_RIGHT = range(6)
#: Whether it is proved to be continuous, to have no value, and to be near enough to its line.
CALM, EMPTY, STRAIGHT = range(6, 9)
#: Which pixel it begins in, and in how many parts that was cut: less than one if it holds several.
PIXEL, FINENESS = range(9, 11)
ROWS = 11
#: The first columns are so many px wide: most of a curve is smooth, and settled in these.
COARSE = 4
#: Columns that are only tall are cut in this many. Those at a break are cut in more if they are
#: few, which saves rounds.
_CUTS, _CUTS_OF_FEW, _FEW = 8, 32, 48
#: A column that is taller than its line is cut down to this part of a pixel, one at a break or at
#: an end of the natural domain to a finer one.
_FINENESS, _FINENESS_AT_BREAKS = 512, 32_768
#: A column thinner than this is known well enough, whatever happens in it.
_THINNEST_PX = 1 / (2 * _FINENESS_AT_BREAKS)


@compiled
def first_columns(edges, low, high, cuts):
    """Return the first columns between two floats: rows of left, right, pixel and fineness, (4, n).

    Args:
        edges: of the pixels, (n,), rising.
        low: where the first column begins; ``high`` where the last one ends.
        cuts: where columns are cut besides, (m,), in any order, between these or not.
    """
    more = np.sort(cuts)
    columns = np.empty((4, len(edges) // COARSE + len(cuts) + 2))
    left, pixel, count, j = low, 0, 0, 0
    for i in range(0, len(edges) + COARSE, COARSE):
        edge = high if i >= len(edges) else min(edges[i], high)
        while left < edge:
            while j < len(more) and more[j] <= left:
                j += 1
            right = more[j] if j < len(more) and more[j] < edge else edge
            while pixel + 1 < len(edges) and edges[pixel + 1] <= left:
                pixel += 1
            parts = 1
            while pixel + parts < len(edges) and edges[pixel + parts] < right:
                parts += 1
            columns[0, count], columns[1, count] = left, right
            columns[2, count], columns[3, count] = pixel, 1 / parts
            count += 1
            left = right
    return columns[:, :count].copy()


@compiled
def make_table(columns, ends, low, high, partial, nowhere, broken):
    """Return the table of new columns.

    Args:
        columns: rows of left, right, pixel and fineness, (4, n).
        ends: where their ends stand behind them, as from ``with_ends``.
        low: the lower bounds of the enclosures of the columns and of their ends, in the order of
            ``with_ends``; ``high`` the upper ones, and ``partial``, ``nowhere`` and ``broken``.
    """
    count = columns.shape[1]
    table = np.empty((ROWS, count))
    for i in range(count):
        a, b = ends[i], ends[i] + 1
        y_left, y_right = middle(low[a], high[a], nowhere[a]), middle(low[b], high[b], nowhere[b])
        table[LEFT, i], table[RIGHT, i] = columns[0, i], columns[1, i]
        table[LOW, i], table[HIGH, i] = low[i], high[i]
        table[Y_LEFT, i], table[Y_RIGHT, i] = y_left, y_right
        is_calm = not (partial[i] or broken[i]) and np.isfinite(y_left) and np.isfinite(y_right)
        table[CALM, i], table[EMPTY, i], table[STRAIGHT, i] = is_calm, nowhere[i], 0
        table[PIXEL, i], table[FINENESS, i] = columns[2, i], columns[3, i]
    return table


@compiled
def rough_columns(table, floor, top, x_px, y_px, log_x, log_y, tolerance):
    """Return which columns need to be cut, (n,) flags.

    One that is not proved to be continuous does, and one in whose enclosure a point may be further
    from its straight line than ``tolerance`` px, as far as it lies between ``floor`` and ``top``:
    beyond the line's ends, or in a corner between them. Heights are as on the axis.
    """
    flags = np.zeros(table.shape[1], dtype=np.bool_)
    for i in range(table.shape[1]):
        left, right = table[LEFT, i], table[RIGHT, i]
        if table[EMPTY, i] or _is_thin(left, right, x_px, log_x):
            continue
        across = (flat(right, log_x) - flat(left, log_x)) * x_px
        if not table[CALM, i]:
            flags[i] = True
        elif not table[STRAIGHT, i]:
            low = clipped(flat(table[LOW, i], log_y), floor, top)
            high = clipped(flat(table[HIGH, i], log_y), floor, top)
            y_left = clipped(flat(table[Y_LEFT, i], log_y), floor, top)
            y_right = clipped(flat(table[Y_RIGHT, i], log_y), floor, top)
            line = abs(y_right - y_left)
            up = line * y_px
            corner = across * up / max(np.hypot(across, up), 1e-12)
            flags[i] = (high - low - line) * y_px + corner > tolerance
    return flags


@compiled
def mark_straight(
    table, at, low, high, partial, broken, x_px, y_px, log_x, log_y, tolerance
):  # fmt: skip
    """Mark columns in which a line is near enough, by enclosures of the second derivative.

    In height a line differs from its curve by an eighth of the second derivative times the width
    squared at the most. A steep line is nearer than that, unless the curve turns beside it.

    Args:
        table: the columns; those in which a line is near enough are marked in it.
        at: the places of the columns that are looked at, (m,).
        low: the lower bounds of the second derivative on the axes there, (m,); ``high`` the upper
            ones, and ``partial`` and ``broken``.
    """
    for k in range(len(at)):
        if partial[k] or broken[k]:
            continue
        i = at[k]
        width = flat(table[RIGHT, i], log_x) - flat(table[LEFT, i], log_x)
        away = max(abs(low[k]), abs(high[k])) * width**2 / 8 * y_px
        up = abs(flat(table[Y_RIGHT, i], log_y) - flat(table[Y_LEFT, i], log_y)) * y_px
        across = width * x_px
        # So the slope changes by no more than itself.
        if 8 * away <= up:
            away *= across / np.hypot(across, up)
        if away <= tolerance:
            table[STRAIGHT, i] = 1


@compiled
def mark_crossings(table, rough, x_px, log_x):
    """Mark columns of several pixels that may hold a zero: it is looked for in its pixel."""
    for i in range(table.shape[1]):
        is_crossed = table[LOW, i] <= 0 <= table[HIGH, i] and not table[EMPTY, i]
        if is_crossed and table[FINENESS, i] < 1:
            rough[i] |= not _is_thin(table[LEFT, i], table[RIGHT, i], x_px, log_x)


@compiled
def _is_thin(left, right, x_px, log_x):
    """Check whether a column is known well enough, whatever happens in it."""
    across = (flat(right, log_x) - flat(left, log_x)) * x_px
    return across < _THINNEST_PX or not right - left > 1e-15 * abs(left)


@compiled
def cut_columns(table, rough, edges, room):
    """Cut rough columns while that may show more.

    Args:
        table: the columns.
        edges: of the pixels, at which columns of several are cut.
        rough: which of them are not known well enough, (n,).
        room: how many new ones there may be at the most.

    Returns:
        The new columns, rows of left, right, pixel and fineness, (4, m), none if nothing is cut,
        and the table of those that stay.
    """
    count = table.shape[1]
    wide = pixels = tall = breaks = coarse_breaks = 0
    for i in range(count):
        if rough[i] and table[FINENESS, i] < 1:
            wide += 1
            pixels += round(1 / table[FINENESS, i])
        elif rough[i] and table[CALM, i]:
            tall += table[FINENESS, i] < _FINENESS
        elif rough[i]:
            breaks += table[FINENESS, i] < _FINENESS_AT_BREAKS
            coarse_breaks += table[FINENESS, i] < _FINENESS
    # What is only tall is left to the bands in the end; an open end is brought to where it is.
    finest = _FINENESS_AT_BREAKS
    if breaks > _FEW:
        finest, breaks = _FINENESS, coarse_breaks
    cuts = _CUTS_OF_FEW if breaks <= _FEW else _CUTS
    more = pixels + tall * _CUTS + breaks * cuts
    if more > room:
        more = 0
    new = np.empty((4, more))
    if not more:
        return new, table
    staying = np.empty((ROWS, count - wide - tall - breaks))
    at = count_staying = 0
    for i in range(count):
        is_calm = table[CALM, i] != 0
        if not rough[i] or table[FINENESS, i] >= (_FINENESS if is_calm else finest):
            staying[:, count_staying] = table[:, i]
            count_staying += 1
            continue
        left, right, pixel = table[LEFT, i], table[RIGHT, i], int(table[PIXEL, i])
        is_wide = table[FINENESS, i] < 1
        parts = round(1 / table[FINENESS, i]) if is_wide else _CUTS if is_calm else cuts
        # The outer edges must be the column's own, to the last bit, for pieces to join.
        before = left
        for k in range(parts):
            after = right
            if k < parts - 1 and is_wide:
                after = edges[pixel + k + 1]
            elif k < parts - 1:
                after = left + (right - left) * ((k + 1) / parts)
            new[0, at], new[1, at] = before, after
            new[2, at] = pixel + k if is_wide else pixel
            new[3, at] = table[FINENESS, i] * parts
            before = after
            at += 1
    return new, staying


@compiled
def find_bands(table, tall, floor, top, y_px, log_y, most_turns, least_px):
    """Find the pixel columns in which a curve turns more often than can be shown.

    Args:
        table: the columns.
        tall: which of them stay taller than their line, (n,).
        floor: further down heights do not matter; ``top`` further up, as on the axis.
        y_px: how many px one unit of the axis takes.
        log_y: whether that is logarithmic.
        most_turns: how many times its height the way of a curve may be that is no band.
        least_px: how high a band is at the least.

    Returns:
        Which columns belong to bands, (n,), and for each pixel of the m whether it is a band,
        (m,), and its left, right, lowest and highest, (m, 4).
    """
    count = table.shape[1]
    banded = np.zeros(count, dtype=np.bool_)
    chosen = np.zeros(count, dtype=np.bool_)
    boxes = np.empty((count, 4))
    pixels = start = 0
    while start < count:
        stop, way, lowest, highest, is_calm = start, 0.0, np.inf, -np.inf, True
        while stop < count and table[PIXEL, stop] == table[PIXEL, start]:
            one = clipped(flat(table[Y_LEFT, stop], log_y), floor, top)
            other = clipped(flat(table[Y_RIGHT, stop], log_y), floor, top)
            low, high, times = min(one, other), max(one, other), 1
            if tall[stop]:
                low = clipped(flat(table[LOW, stop], log_y), floor, top)
                high = clipped(flat(table[HIGH, stop], log_y), floor, top)
                times = 4
            is_calm &= table[CALM, stop] != 0
            way += times * (high - low)
            lowest, highest = min(lowest, low), max(highest, high)
            stop += 1
        height = (highest - lowest) * y_px
        if is_calm and way * y_px > most_turns * height and height > least_px:
            chosen[pixels] = True
            banded[start:stop] = True
        boxes[pixels] = (table[LEFT, start], table[RIGHT, stop - 1], lowest, highest)
        pixels += 1
        start = stop
    return banded, chosen[:pixels], boxes[:pixels]


@compiled
def outline(table, hidden, parted):
    """Return what is drawn of the columns of a function, and what is known of them.

    Args:
        table: the columns.
        hidden: which of them are not drawn as lines, (n,).
        parted: places at which nothing is joined, (m,).

    Returns:
        The points of all lines one after the other, (k, 2), where each line begins among them and
        the last one ends, the intervals without a value but for single points, (u, 2), and those
        in which there may be a zero, (z, 2).
    """
    count = table.shape[1]
    left, right = table[LEFT], table[RIGHT]
    drawn, missing = np.empty(count, dtype=np.bool_), np.empty(count, dtype=np.bool_)
    crossed = np.empty(count, dtype=np.bool_)
    for i in range(count):
        drawn[i] = table[CALM, i] != 0 and not hidden[i]
        is_hollow = np.isnan(table[Y_LEFT, i]) and np.isnan(table[Y_RIGHT, i])
        missing[i] = table[EMPTY, i] or is_hollow
        crossed[i] = not (table[EMPTY, i] or table[LOW, i] > 0 or table[HIGH, i] < 0)
    runs = joined_runs(left, right, drawn, parted)
    points, starts = np.empty((count + len(runs), 2)), np.zeros(len(runs) + 1, dtype=np.int64)
    at = 0
    for k in range(len(runs)):
        for i in range(runs[k, 0], runs[k, 1]):
            points[at, 0], points[at, 1] = left[i], table[Y_LEFT, i]
            at += 1
        points[at, 0], points[at, 1] = right[runs[k, 1] - 1], table[Y_RIGHT, runs[k, 1] - 1]
        at += 1
        starts[k + 1] = at
    return points[:at], starts, intervals(left, right, missing), intervals(left, right, crossed)
