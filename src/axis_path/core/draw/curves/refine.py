"""The columns of a curve, cut until they show all there is, compiled: all rounds in one call.

A call of compiled code from Python costs as much as some hundred columns do, and each round would
take half a dozen of them. ``sample`` and ``path`` make the same rounds from Python where a
function has steps that are not compiled.
"""

from __future__ import annotations

import numpy as np

from axis_path.core.arithmetic.kernel import enclose
from axis_path.core.draw.curves import path_table, table
from axis_path.core.draw.curves.compiled import bends_on_axes, compiled, merged, trends, with_ends


@compiled
def function_columns(
    codes, arguments, starts, extra, extra_starts, const_low, const_high, results,
    bend_codes, bend_arguments, bend_starts, bend_extra, bend_extra_starts, bend_low, bend_high,
    bend_results,
    has_bend, new, edges, floor, top, x_px, y_px, log_x, log_y, tolerance, most,
):  # fmt: skip
    """Cut the columns of a function while that may show more; see ``sample``.

    Args:
        codes: the function as ``kernel.enclose`` takes it, with ``arguments`` and so on.
        bend_codes: its second derivative in the same way, and if an axis is logarithmic its first
            one behind it; anything if there is none.
        has_bend: whether there is.
        new: the first columns, as from ``table.first_columns``.
        edges: of the pixels.
        floor: further down heights do not matter; ``top`` further up, as on the axis.
        x_px: how many px a unit of x takes on its axis; ``y_px`` likewise.
        log_x: whether x stands on a logarithmic axis; ``log_y`` whether y does.
        tolerance: how far a line may be from its curve, in px.
        most: how many columns may be looked at.

    Returns:
        The table of the columns, as in ``table``, and which of them stay taller than a line.
    """
    known = np.empty((table.ROWS, 0))
    spent = 0
    while True:
        spent += new.shape[1]
        lows, highs, ends = with_ends(new[0], new[1])
        low, high, partial, nowhere, broken = enclose(
            codes, arguments, starts, extra, extra_starts, const_low, const_high,
            lows.reshape(1, len(lows)), highs.reshape(1, len(lows)), results,
        )  # fmt: skip
        columns = table.make_table(new, ends, low[0], high[0], partial[0], nowhere[0], broken[0])
        rough = table.rough_columns(columns, floor, top, x_px, y_px, log_x, log_y, tolerance)
        at = np.flatnonzero(rough & (columns[table.CALM] != 0))
        if has_bend and len(at):
            left, right = columns[table.LEFT][at], columns[table.RIGHT][at]
            low, high, partial, nowhere, broken = enclose(
                bend_codes, bend_arguments, bend_starts, bend_extra, bend_extra_starts,
                bend_low, bend_high,
                left.reshape(1, len(at)), right.reshape(1, len(at)), bend_results,
            )  # fmt: skip
            least, greatest = low[0], high[0]
            if log_x or log_y:
                least, greatest = bends_on_axes(
                    left, right, columns[table.LOW][at], columns[table.HIGH][at], low[1], high[1],
                    least, greatest, log_x, log_y,
                )  # fmt: skip
            table.mark_straight(
                columns, at, least, greatest, partial[0], broken[0], x_px, y_px, log_x, log_y,
                tolerance,
            )  # fmt: skip
            rough &= columns[table.STRAIGHT] == 0
        table.mark_crossings(columns, rough, x_px, log_x)
        new, columns = table.cut_columns(columns, rough, edges, most - spent)
        known = merged(known, columns, table.LEFT)
        if not new.shape[1]:
            break
    return known, table.rough_columns(known, floor, top, x_px, y_px, log_x, log_y, tolerance)


@compiled
def path_columns(
    codes, arguments, starts, extra, extra_starts, const_low, const_high, results,
    bend_codes, bend_arguments, bend_starts, bend_extra, bend_extra_starts, bend_low, bend_high,
    bend_results,
    has_bends, edges,
    x_start, x_px, log_x, y_top, y_px, log_y, width, height, margin, near_px,
    cuts, cuts_of_few, few, finest, most,
):  # fmt: skip
    """Cut the columns of a path while that may settle more of them; see ``path``.

    Args:
        codes: both coordinates as ``kernel.enclose`` takes them, with ``arguments`` and so on.
        bend_codes: their second derivatives, likewise; anything if there are none.
        has_bends: whether there are.
        edges: of the first columns, (n + 1,), in the parameter.
        x_start: what follows up to ``near_px`` is as in ``path_table.make_table``.
        cuts: in how many parts a column is cut, ``cuts_of_few`` if no more than ``few`` are.
        finest: so many parts of a first column are fine enough.
        most: how many columns may be looked at.

    Returns:
        The table of the columns, as in ``path_table``.
    """
    left, right = edges[:-1].copy(), edges[1:].copy()
    known = np.empty((path_table.ROWS, 0))
    spent, fineness = 0, 1
    while True:
        spent += len(left)
        lows, highs, ends = with_ends(left, right)
        low, high, partial, nowhere, broken = enclose(
            codes, arguments, starts, extra, extra_starts, const_low, const_high,
            lows.reshape(1, len(lows)), highs.reshape(1, len(lows)), results,
        )  # fmt: skip
        columns = path_table.make_table(
            left, right, ends, low[0], high[0], partial[0], nowhere[0], broken[0],
            low[1], high[1], partial[1], nowhere[1], broken[1],
            x_start, x_px, log_x, y_top, y_px, log_y, width, height, margin, near_px,
        )  # fmt: skip
        rough = path_table.unsettled(columns)
        at = rough[columns[path_table.CALM][rough] != 0]
        if has_bends and len(at):
            low, high, partial, nowhere, broken = enclose(
                bend_codes, bend_arguments, bend_starts, bend_extra, bend_extra_starts,
                bend_low, bend_high,
                left[at].reshape(1, len(at)), right[at].reshape(1, len(at)), bend_results,
            )  # fmt: skip
            path_table.settle_straight(
                columns, at, low[0], high[0], partial[0], broken[0],
                low[1], high[1], partial[1], broken[1], x_px, y_px, near_px,
            )  # fmt: skip
            rough = path_table.unsettled(columns)
        parts = cuts_of_few if len(rough) <= few else cuts
        is_enough = fineness >= finest or spent + len(rough) * parts > most
        is_last = is_enough or not len(rough)
        if not is_last:
            left, right, columns = path_table.cut_columns(columns, rough, parts)
            fineness *= parts
        known = merged(known, columns, path_table.LEFT)
        if is_last:
            return known


@compiled
def trends_between(
    codes, arguments, starts, extra, extra_starts, const_low, const_high, results,
    edges, start, px, is_log,
):  # fmt: skip
    """Return where a slope has one sign, as ``compiled.trends`` does.

    Args:
        codes: the slope as ``kernel.enclose`` takes it, with ``arguments`` and so on.
        edges: of the columns, (n + 1,), and so on, as ``compiled.trends`` takes them.
    """
    count = len(edges) - 1
    low, high, partial, _, broken = enclose(
        codes, arguments, starts, extra, extra_starts, const_low, const_high,
        edges[:-1].copy().reshape(1, count), edges[1:].copy().reshape(1, count), results,
    )  # fmt: skip
    return trends(low[0], high[0], partial[0], broken[0], edges, start, px, is_log)
