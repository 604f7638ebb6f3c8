"""The columns of a path as one table, and what is decided column by column, compiled.

As ``table``, but with columns of the parameter, and places in px: floats, (9, n).
"""

from __future__ import annotations

import numpy as np

from axis_path.core.draw.curves.compiled import compiled, flat, intervals, joined_runs, middle

#: The edges of a column of the parameter, and the places of the curve at them in px.
LEFT, RIGHT, X_LEFT, X_RIGHT, Y_LEFT, Y_RIGHT = range(6)
#: Whether it is proved to be continuous, to have no value, and to need no further look.
CALM, EMPTY, SETTLED = range(6, 9)
ROWS = 9


@compiled
def make_table(
    left, right, ends, x_low, x_high, x_partial, x_nowhere, x_broken,
    y_low, y_high, y_partial, y_nowhere, y_broken,
    x_start, x_px, log_x, y_top, y_px, log_y, width, height, margin, near_px,
):  # fmt: skip
    """Return the table of new columns.

    A column is settled if it lies outside the window, or if its box is so thin that nothing in it
    is further from its line than ``near_px``.

    Args:
        left: where the columns begin, (n,); ``right`` where they end.
        ends: where their ends stand behind them, as from ``with_ends``.
        x_low: the lower bounds of x over the columns and at their ends, in the order of
            ``with_ends``; ``x_high`` the upper ones, and ``x_partial`` and so on.
        y_low: the same for y, likewise.
        x_start: where the window begins on its axis; ``x_px`` the px of a unit, ``log_x`` whether
            it is logarithmic.
        y_top: where the window ends above, likewise.
        width: the size of the window in px; ``height`` likewise.
        margin: how far outside the window nothing is looked at, in px.
    """
    count = len(left)
    table = np.empty((ROWS, count))
    for i in range(count):
        a, b = ends[i], ends[i] + 1
        x_left = (flat(middle(x_low[a], x_high[a], x_nowhere[a]), log_x) - x_start) * x_px
        x_right = (flat(middle(x_low[b], x_high[b], x_nowhere[b]), log_x) - x_start) * x_px
        y_left = (y_top - flat(middle(y_low[a], y_high[a], y_nowhere[a]), log_y)) * y_px
        y_right = (y_top - flat(middle(y_low[b], y_high[b], y_nowhere[b]), log_y)) * y_px
        first = (flat(x_low[i], log_x) - x_start) * x_px
        last = (flat(x_high[i], log_x) - x_start) * x_px
        upper = (y_top - flat(y_high[i], log_y)) * y_px
        lower = (y_top - flat(y_low[i], log_y)) * y_px
        is_calm = (
            not (x_partial[i] or x_broken[i] or y_partial[i] or y_broken[i])
            and np.isfinite(x_left + y_left) and np.isfinite(x_right + y_right)
        )  # fmt: skip
        is_empty = x_nowhere[i] or y_nowhere[i]
        is_away = (
            last < -margin or first > width + margin
            or lower < -margin or upper > height + margin
        )  # fmt: skip
        across, down = last - first, lower - upper
        unseen = max(across - abs(x_right - x_left), down - abs(y_right - y_left))
        slack = across * down / max(np.hypot(across, down), 1e-12)
        is_near = slack + max(unseen, 0.0) <= near_px
        table[LEFT, i], table[RIGHT, i] = left[i], right[i]
        table[X_LEFT, i], table[X_RIGHT, i] = x_left, x_right
        table[Y_LEFT, i], table[Y_RIGHT, i] = y_left, y_right
        table[CALM, i], table[EMPTY, i] = is_calm, is_empty
        table[SETTLED, i] = is_empty or is_away or (is_calm and is_near)
    return table


@compiled
def settle_straight(
    table, at, x_low, x_high, x_partial, x_broken, y_low, y_high, y_partial, y_broken,
    x_px, y_px, near_px,
):  # fmt: skip
    """Settle columns in which a line is near enough, by enclosures of the second derivatives.

    A line differs from its curve by an eighth of their size times the square of the width.

    Args:
        table: the columns; those in which a line is near enough are settled in it.
        at: the places of the columns that are looked at, (m,).
        x_low: the lower bounds of the second derivative of x there, (m,), and so on.
        x_px: how many px a unit of x takes; ``y_px`` one of y.
        near_px: how far a line may be from its curve.
    """
    for k in range(len(at)):
        if x_partial[k] or x_broken[k] or y_partial[k] or y_broken[k]:
            continue
        i = at[k]
        across = max(abs(x_low[k]), abs(x_high[k])) * x_px
        down = max(abs(y_low[k]), abs(y_high[k])) * y_px
        if (table[RIGHT, i] - table[LEFT, i]) ** 2 / 8 * np.hypot(across, down) <= near_px:
            table[SETTLED, i] = 1


@compiled
def unsettled(table):
    """Return the places of the columns that are not settled and wide enough to be cut."""
    indices = np.empty(table.shape[1], dtype=np.int64)
    count = 0
    for i in range(table.shape[1]):
        is_wide = table[RIGHT, i] - table[LEFT, i] > 1e-15 * abs(table[LEFT, i])
        if is_wide and not table[SETTLED, i]:
            indices[count] = i
            count += 1
    return indices[:count]


@compiled
def cut_columns(table, rough, cuts):
    """Cut the columns at the places ``rough``, each in ``cuts`` parts.

    Returns:
        Where the new columns begin and end, (m,) each, and the table of those that stay.
    """
    count, parents = table.shape[1], len(rough)
    left, right = np.empty(parents * cuts), np.empty(parents * cuts)
    staying = np.empty((ROWS, count - parents))
    next_rough = count_staying = at = 0
    for i in range(count):
        if next_rough >= parents or rough[next_rough] != i:
            staying[:, count_staying] = table[:, i]
            count_staying += 1
            continue
        next_rough += 1
        low, high = table[LEFT, i], table[RIGHT, i]
        for k in range(cuts):
            # The outer edges must be the column's own, to the last bit, for pieces to join.
            left[at] = low + (high - low) * (k / cuts)
            right[at] = high if k == cuts - 1 else low + (high - low) * ((k + 1) / cuts)
            at += 1
    return left, right, staying


@compiled
def outline(table, parted, x_start, x_px, log_x, y_top, y_px, log_y):
    """Return what is drawn of the columns of a path, and what is known of them.

    Args:
        table: the columns.
        parted: parameters at which nothing is joined, (m,).
        x_start: what follows is as in ``make_table``.

    Returns:
        The points of all lines one after the other, (k, 2) in axis units, their parameters, (k,),
        where each line begins among them and the last one ends, the intervals without a point,
        (u, 2), and those that are not settled, (v, 2).
    """
    count = table.shape[1]
    left, right = table[LEFT], table[RIGHT]
    drawn, missing = np.empty(count, dtype=np.bool_), np.empty(count, dtype=np.bool_)
    loose = np.empty(count, dtype=np.bool_)
    for i in range(count):
        is_calm, is_settled = table[CALM, i] != 0, table[SETTLED, i] != 0
        drawn[i], loose[i] = is_calm and is_settled, is_calm and not is_settled
        is_hollow = not is_calm and np.isnan(table[X_LEFT, i] + table[Y_LEFT, i])
        missing[i] = table[EMPTY, i] != 0 or is_hollow
    runs = joined_runs(left, right, drawn, parted)
    points, ts = np.empty((count + len(runs), 2)), np.empty(count + len(runs))
    starts = np.zeros(len(runs) + 1, dtype=np.int64)
    at = 0
    for k in range(len(runs)):
        for i in range(runs[k, 0], runs[k, 1] + 1):
            is_end = i == runs[k, 1]
            j = i - 1 if is_end else i
            x = table[X_RIGHT if is_end else X_LEFT, j] / x_px + x_start
            y = y_top - table[Y_RIGHT if is_end else Y_LEFT, j] / y_px
            points[at, 0], points[at, 1] = 10.0**x if log_x else x, 10.0**y if log_y else y
            ts[at] = right[j] if is_end else left[j]
            at += 1
        starts[k + 1] = at
    missed, left_open = intervals(left, right, missing), intervals(left, right, loose)
    return points[:at], ts[:at], starts, missed, left_open
