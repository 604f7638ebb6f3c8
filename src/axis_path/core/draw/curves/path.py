"""Sample a path so that the drawn line is true.

The range of the parameter is cut into columns. Both coordinates are enclosed over each, so that the
curve there lies in a box. A column is joined by a straight line only if both coordinates are proved
to be defined and continuous in it, and if one of two things shows that the line is near enough:

* the box is so thin that nothing in it is far from the line;
* the second derivatives are enclosed, and the line differs from the curve by no more than an eighth
  of their size times the square of the column's width.

Any other column is cut again. What is still not near enough when the points run out is left open,
and ``Curve.unsettled`` names it.

Source: de Boor, *A Practical Guide to Splines*, chapter III (the error of a broken line).
"""

from __future__ import annotations

from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from axis_path.core.deadline import check
from axis_path.core.draw.curves import compiled, path_table, refine
from axis_path.core.draw.curves.sample import Curve, Form, both_forms
from axis_path.core.draw.window import Window, evenly
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Expression, RealPath
from axis_path.core.limits import CURVE_POINTS

Floats = NDArray[np.float64]
_FIRST, _CUTS, _CUTS_OF_FEW, _FEW = 128, 4, 32, 24
#: Columns at a break are cut down to this part of a first one.
_FINENESS_AT_BREAKS = 65_536
#: A line may be this far from the curve, in px.
_NEAR_PX = 0.3
#: Outside the window by more than this nothing need be near, in px.
_MARGIN_PX = 2.0
#: The second derivatives of both coordinates; None if there are none.
_Bends = tuple[Expression, Expression] | None


def sample_path(path: RealPath, window: Window) -> Curve:
    """Draw a path in a window; the pieces hold (x, y) in axis units.

    The cost is bounded: at most ``CURVE_POINTS`` columns are looked at.
    """
    low, high = path.low.near, path.high.near
    if not low < high:
        return Curve([])
    cuts = [float(value.value.mid()) for value in path.x.without]
    fences = [*path.x.inner_ends(), *path.y.inner_ends()]
    inner = [cut for cut in (*cuts, *fences) if low < cut < high]
    edges = evenly(low, high, _FIRST)
    if inner:
        edges = np.unique(np.concatenate([edges, inner]))
    return _assembled(_refined(path, window, edges), np.array(cuts), window, (low, high))


def _refined(path: RealPath, window: Window, edges: Floats) -> Floats:
    """Cut columns while that may settle more of them; give their table."""
    bends = _bends(path, window)
    forms = _forms(path, bends)
    if forms is not None:
        check()
        refined: Floats = refine.path_columns(
            *forms, bends is not None, edges, *_window_of(window), _CUTS, _CUTS_OF_FEW, _FEW,
            _FINENESS_AT_BREAKS, CURVE_POINTS.value,
        )  # fmt: skip
        return refined
    left, right = edges[:-1], edges[1:]
    known: Floats | None = None
    spent, fineness = 0, 1
    while True:
        check()
        spent += len(left)
        columns, rough = _enclosed(path, window, bends, left, right)
        cuts = _CUTS_OF_FEW if len(rough) <= _FEW else _CUTS
        is_enough = (
            fineness >= _FINENESS_AT_BREAKS or spent + len(rough) * cuts > CURVE_POINTS.value
        )
        is_last = is_enough or not len(rough)
        if not is_last:
            left, right, columns = path_table.cut_columns(columns, rough, cuts)
            fineness *= cuts
        known = columns if known is None else compiled.merged(known, columns, path_table.LEFT)
        if is_last:
            return known


def _bends(path: RealPath, window: Window) -> _Bends:
    if window.is_log:
        return None
    try:
        return tuple(  # type: ignore[return-value]
            coordinate.expression.derivative().derivative() for coordinate in (path.x, path.y)
        )
    except (LimitError, NotHandledError):
        return None


def _forms(path: RealPath, bends: _Bends) -> Form | None:
    """Return both coordinates and their second derivatives as ``refine`` takes them, if it can."""
    form = path.compiled()
    return both_forms(form, form if bends is None else path.compiled(bends))


def _window_of(window: Window) -> tuple[float | bool, ...]:
    """Return how places in px are found, and how near lines have to be, for ``path_table``."""
    visible = window.visible
    return (
        *window.across_from, *window.down_from,
        visible.width, visible.height, _MARGIN_PX + window.beyond, _NEAR_PX / window.stretch,
    )  # fmt: skip


def _enclosed(
    path: RealPath, window: Window, bends: _Bends, left: Floats, right: Floats
) -> tuple[Floats, NDArray[np.int64]]:
    """Return the table of columns, and the places of those that are not settled."""
    lows, highs, ends = compiled.with_ends(left, right)
    x, y = path.enclose(lows, highs)
    columns = path_table.make_table(
        left, right, ends, x.low, x.high, x.partial, x.nowhere, x.broken,
        y.low, y.high, y.partial, y.nowhere, y.broken,
        *_window_of(window),
    )  # fmt: skip
    rough = path_table.unsettled(columns)
    if bends is not None and len(rough):
        calm = rough[columns[path_table.CALM][rough] != 0]
        x, y = path.enclose(left[calm], right[calm], bends)
        path_table.settle_straight(
            columns, calm, x.low, x.high, x.partial, x.broken, y.low, y.high, y.partial, y.broken,
            window.x_px, window.y_px, _NEAR_PX / window.stretch,
        )  # fmt: skip
        rough = path_table.unsettled(columns)
    return columns, rough


def _assembled(columns: Floats, cuts: Floats, window: Window, span: tuple[float, float]) -> Curve:
    points, ts, starts, undefined, unsettled = path_table.outline(
        columns, cuts, *_window_of(window)[:6]
    )
    parts = list(pairwise(starts.tolist()))
    return Curve(
        [points[start:stop] for start, stop in parts], undefined=undefined, domain=span,
        parameters=[ts[start:stop] for start, stop in parts], unsettled=unsettled,
    )  # fmt: skip
