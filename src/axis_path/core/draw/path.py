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

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Enclosure
from axis_path.core.draw import compiled
from axis_path.core.draw.columns import cut, join_by_left, runs_of, take
from axis_path.core.draw.sample import Curve
from axis_path.core.draw.window import Window
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Expression, RealPath, middles
from axis_path.core.limits import CURVE_POINTS

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
_FIRST, _CUTS, _CUTS_OF_FEW, _FEW = 128, 4, 32, 24
#: Columns at a break are cut down to this part of a first one.
_FINENESS_AT_BREAKS = 65_536
#: A line may be this far from the curve, in px.
_NEAR_PX = 0.3
#: Outside the window by more than this nothing need be near, in px.
_MARGIN_PX = 2.0
#: The second derivatives of both coordinates; None if there are none.
_Bends = tuple[Expression, Expression] | None


@dataclass(frozen=True, slots=True)
class _Columns:
    """Columns of the parameter, (n,) each, in its order; places in px."""

    left: Floats
    right: Floats
    x_left: Floats
    x_right: Floats
    y_left: Floats
    y_right: Floats
    calm: Flags
    empty: Flags
    settled: Flags


def sample_path(path: RealPath, window: Window) -> Curve:
    """Draw a path in a window; the pieces hold (x, y) in axis units.

    The cost is bounded: at most ``CURVE_POINTS`` columns are looked at.
    """
    low, high = path.low.near, path.high.near
    if not low < high:
        return Curve([])
    cuts = [float(value.value.mid()) for value in path.x.without]
    fences = [*path.x.inner_ends(), *path.y.inner_ends()]
    inner = [each for each in (*cuts, *fences) if low < each < high]
    edges = np.unique(np.concatenate([np.linspace(low, high, _FIRST + 1), inner]))
    bends = _bends(path, window)
    columns = _refined(path, window, bends, _enclosed(path, window, bends, edges[:-1], edges[1:]))
    return _assembled(columns, np.array(cuts), window, (low, high))


def _bends(path: RealPath, window: Window) -> _Bends:
    if window.is_log:
        return None
    try:
        return tuple(  # type: ignore[return-value]
            each.expression.derivative().derivative() for each in (path.x, path.y)
        )
    except (LimitError, NotHandledError):
        return None


def _enclosed(
    path: RealPath, window: Window, bends: _Bends, left: Floats, right: Floats
) -> _Columns:
    count = len(left)
    places = np.concatenate([left, right])
    found = path.enclose(np.concatenate([left, places]), np.concatenate([right, places]), bends)
    x_box, y_box = (each.part(slice(count)) for each in found[:2])
    with np.errstate(all="ignore"):
        xs = window.across(middles(found[0])[count:])
        ys = window.down(middles(found[1])[count:])
        x_low, x_high = window.across(x_box.low), window.across(x_box.high)
        y_low, y_high = window.down(y_box.high), window.down(y_box.low)
        finite = np.isfinite(xs) & np.isfinite(ys)
        flags = x_box.partial | x_box.broken | y_box.partial | y_box.broken
        calm = ~flags & finite[:count] & finite[count:]
        away, near = compiled.settled_boxes(
            x_low, x_high, y_low, y_high, xs[:count], xs[count:], ys[:count], ys[count:],
            window.width, window.height, _MARGIN_PX, _NEAR_PX,
        )  # fmt: skip
        empty = np.asarray(x_box.nowhere | y_box.nowhere)
        if bends is not None:
            near |= _bent_px(found[2:], window, right - left) <= _NEAR_PX
    return _Columns(
        left, right, xs[:count], xs[count:], ys[:count], ys[count:], calm, empty,
        np.asarray(empty | away | (calm & near)),
    )  # fmt: skip


def _bent_px(bends: list[Enclosure], window: Window, widths: Floats) -> Floats:
    """Give how far the curve may be from its straight line in each column; inf if not known."""
    count = len(widths)
    sizes = [
        _size(bend.part(slice(count))) * per_px
        for bend, per_px in zip(bends, (window.x_px, window.y_px), strict=True)
    ]
    far = widths**2 / 8 * np.hypot(*sizes)
    return np.asarray(np.where(np.isnan(far), np.inf, far))


def _size(found: Enclosure) -> Floats:
    sure = ~(found.partial | found.broken)
    return np.asarray(np.where(sure, np.maximum(np.abs(found.low), np.abs(found.high)), np.inf))


def _refined(path: RealPath, window: Window, bends: _Bends, columns: _Columns) -> _Columns:
    """Cut columns while that may settle more of them."""
    finished: list[_Columns] = []
    spent, fineness = len(columns.left), 1
    while fineness < _FINENESS_AT_BREAKS:
        has_room = columns.right - columns.left > 1e-15 * np.abs(columns.left)
        rough = ~columns.settled & has_room
        count = int(rough.sum())
        cuts = _CUTS_OF_FEW if count <= _FEW else _CUTS
        if not count or spent + count * cuts > CURVE_POINTS.value:
            break
        spent += count * cuts
        fineness *= cuts
        finished.append(take(columns, ~rough))
        columns = _cut(path, window, bends, take(columns, rough), cuts)
    return join_by_left([*finished, columns])


def _cut(path: RealPath, window: Window, bends: _Bends, parents: _Columns, cuts: int) -> _Columns:
    return _enclosed(path, window, bends, *cut(parents.left, parents.right, cuts))


def _assembled(columns: _Columns, cuts: Floats, window: Window, span: tuple[float, float]) -> Curve:
    drawn = columns.calm & columns.settled
    joined = drawn[1:] & drawn[:-1] & (columns.left[1:] == columns.right[:-1])
    joined &= ~np.isin(columns.left[1:], cuts)
    starts = np.flatnonzero(np.concatenate([[True], ~joined, [True]]))
    pieces, parameters = [], []
    for start, stop in pairwise(starts.tolist()):
        if drawn[start]:
            across = np.append(columns.x_left[start:stop], columns.x_right[stop - 1])
            down = np.append(columns.y_left[start:stop], columns.y_right[stop - 1])
            pieces.append(window.points_at(across, down))
            parameters.append(np.append(columns.left[start:stop], columns.right[stop - 1]))
    missing = columns.empty | (~columns.calm & np.isnan(columns.x_left + columns.y_left))
    return Curve(
        pieces, undefined=_stretches(columns, missing), domain=span, parameters=parameters,
        unsettled=_stretches(columns, columns.calm & ~columns.settled),
    )  # fmt: skip


def _stretches(columns: _Columns, chosen: Flags) -> Floats:
    starts, stops = runs_of(chosen)
    return np.column_stack([columns.left[starts], columns.right[stops - 1]])
