"""Sample a function so that the drawn line is true.

Columns of a few pixels are enclosed by interval arithmetic. A column is joined by a line only where
the function is proved to be defined and continuous in it. Where the curve is not proved to be near
to the line, the column is cut into its pixels, and these are cut again and again, so that nothing
between two points is missed; what is then still not proved stays open. A column in which the curve
turns more often than its pixel can show becomes part of a band from its lowest to its highest
value.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.deadline import check
from axis_path.core.draw.columns import runs_of
from axis_path.core.draw.curves import compiled, refine, table
from axis_path.core.draw.window import Window
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Expression, RealFunction
from axis_path.core.limits import CURVE_POINTS

Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]
#: A program as compiled code takes it, see ``evaluate.enclosed.compiled_form``.
Form = tuple[Any, ...]
#: A line may be this far from anything in the enclosure of its column before that is cut, in px.
_TOLERANCE_PX = 0.45
#: A pixel column is a band if the curve's way up and down in it is longer than this many times its
#: height, and the height is more than this many px.
_BAND_TURNS, _BAND_PX = 2.5, 1.5
#: Further outside the window heights do not matter, in its heights: to the lines, and to bands.
_MARGIN, _FAR = 0.5, 100.0
#: Longer programs are cut round by round.
_MOST_STEPS = 300


@dataclass(frozen=True)
class Curve:
    """A drawn function.

    Attributes:
        pieces: (n, 2) arrays of (x, y), each to be joined by lines, never across a break.
        bands: (n, 3) arrays of (x, low, high), where the curve is faster than the pixels.
        undefined: (n, 2) array of intervals (from, to) of x inside the domain without a value.
        domain: the part of the window's x inside the domain, None if there is none.
        crossings: (n, 2) array of intervals of x, outside of which it is proved to have no zero.
        parameters: of a path, the parameter at each point of each piece, (n,) floats.
        unsettled: of a path, intervals of the parameter in which it turns too often to be drawn.

    Of a path, ``undefined`` and ``domain`` are intervals of the parameter.
    """

    pieces: list[Floats]
    bands: list[Floats] = field(default_factory=list)
    undefined: Floats = field(default_factory=lambda: np.empty((0, 2)))
    domain: tuple[float, float] | None = None
    crossings: Floats = field(default_factory=lambda: np.empty((0, 2)))
    parameters: list[Floats] = field(default_factory=list)
    unsettled: Floats = field(default_factory=lambda: np.empty((0, 2)))

    @property
    def is_empty(self) -> bool:
        """Check whether there is nothing to draw."""
        return not self.pieces and not self.bands


def visible_domain(function: RealFunction, window: Window) -> tuple[float, float] | None:
    """Return the part of the window's x that lies in the function's domain, or None."""
    low, high = window.x
    if function.low is not None:
        low = max(low, function.low.near)
    if function.high is not None:
        high = min(high, function.high.near)
    return (low, high) if low < high else None


def sample_curve(function: RealFunction, window: Window) -> Curve:
    """Draw a function in a window.

    The cost is bounded: at most ``CURVE_POINTS`` columns are looked at.
    """
    domain = visible_domain(function, window)
    if domain is None:
        return Curve([])
    holes = [float(value.value.mid()) for value in function.without]
    inner = [hole for hole in holes if domain[0] < hole < domain[1]]
    # Columns are cut at the ends of the domains of functions inside, rather than searched for them,
    # and so that what happens at an end happens in a column as thin as floats can be.
    cuts = list(inner)
    for end in function.inner_ends():
        cuts += [math.nextafter(end, -math.inf), end, math.nextafter(end, math.inf)]
    first = table.first_columns(window.columns(), *domain, np.array(cuts))
    columns, tall = _refined(function, first, window)
    return _assembled(columns, tall, np.array(inner), window, domain)


def _refined(function: RealFunction, new: Floats, window: Window) -> tuple[Floats, Flags]:
    """Cut columns while that may show more; give their table, and which stay taller than a line."""
    bend = _bend(function)
    forms, edges = _forms(function, bend, window), window.columns()
    if forms is not None:
        check()
        low, high = _heights(window)
        done: tuple[Floats, Flags] = refine.function_columns(
            *forms, bend is not None, new, edges, low, high, window.x_px, window.y_px,
            window.log_x, window.log_y, _TOLERANCE_PX / window.stretch, CURVE_POINTS.value,
        )  # fmt: skip
        return done
    known: Floats | None = None
    spent = 0
    while True:
        check()
        spent += new.shape[1]
        lows, highs, ends = compiled.with_ends(new[0], new[1])
        refined = function.enclose(lows, highs)
        columns = table.make_table(
            new, ends, refined.low, refined.high, refined.partial, refined.nowhere, refined.broken
        )
        rough = _rough(columns, window)
        if bend is not None and rough.any():
            _mark_straight(function, bend, columns, rough, window)
            rough &= columns[table.STRAIGHT] == 0
        table.mark_crossings(columns, rough, window.x_px, window.log_x)
        new, columns = table.cut_columns(columns, rough, edges, CURVE_POINTS.value - spent)
        known = columns if known is None else compiled.merged(known, columns, table.LEFT)
        if not new.shape[1]:
            return known, _rough(known, window)


def _bend(function: RealFunction) -> tuple[Expression, Expression] | None:
    """Return the first and the second derivative; None if there are none."""
    try:
        slope = function.expression.derivative()
        return slope, slope.derivative()
    except (LimitError, NotHandledError):
        return None


def _forms(
    function: RealFunction, bend: tuple[Expression, Expression] | None, window: Window
) -> Form | None:
    """Return the function and its second derivative as ``refine`` takes them, None if it cannot."""
    form = function.compiled()
    if bend is None:
        return both_forms(form, form)
    slope, second = bend
    return both_forms(form, function.compiled(second, *([slope] if window.is_log else [])))


def both_forms(one: Form | None, other: Form | None) -> Form | None:
    """Put two compiled forms together; None without one, and if they are long.

    What is compiled does not ask whether anybody still waits.
    """
    if one is None or other is None or len(one[0]) + len(other[0]) > _MOST_STEPS:
        return None
    return (*one, *other)


def _heights(window: Window) -> tuple[float, float]:
    """Return between which heights on the axis a line has to be near its curve."""
    low, high = window.flat_y
    margin = _MARGIN * (high - low)
    return low - margin, high + margin


def _rough(columns: Floats, window: Window) -> Flags:
    """Return which columns are not known well enough, (n,)."""
    low, high = _heights(window)
    flags: Flags = table.rough_columns(
        columns, low, high, window.x_px, window.y_px, window.log_x, window.log_y,
        _TOLERANCE_PX / window.stretch,
    )  # fmt: skip
    return flags


def _mark_straight(
    function: RealFunction,
    derivatives: tuple[Expression, Expression],
    columns: Floats,
    rough: Flags,
    window: Window,
) -> None:
    """Mark rough columns in which the curve is proved to bend so little that its line is true."""
    at = np.flatnonzero(rough & (columns[table.CALM] != 0))
    left, right = columns[table.LEFT][at], columns[table.RIGHT][at]
    slope, bend = derivatives
    enclosure = function.enclose(left, right, bend)
    low, high = enclosure.low, enclosure.high
    if window.is_log:
        first = function.enclose(left, right, slope)
        low, high = compiled.bends_on_axes(
            left, right, columns[table.LOW][at], columns[table.HIGH][at], first.low, first.high,
            low, high, window.log_x, window.log_y,
        )  # fmt: skip
    table.mark_straight(
        columns, at, low, high, enclosure.partial, enclosure.broken, window.x_px, window.y_px,
        window.log_x, window.log_y, _TOLERANCE_PX / window.stretch,
    )  # fmt: skip


def _assembled(
    columns: Floats, tall: Flags, holes: Floats, window: Window, domain: tuple[float, float]
) -> Curve:
    banded, bands = _bands(columns, tall, window)
    points, starts, undefined, crossings = table.outline(columns, banded, holes)
    pieces = [points[start:stop] for start, stop in pairwise(starts.tolist())]
    return Curve(pieces, bands, undefined, domain, crossings)


def _bands(columns: Floats, tall: Flags, window: Window) -> tuple[Flags, list[Floats]]:
    """Find the pixel columns in which the curve turns more often than can be shown."""
    is_cut = bool((columns[table.FINENESS] > 1).any())
    if not is_cut and not tall.any():
        # None of them: it was shown already.
        return tall, []
    low, high = window.flat_y
    far = _FAR * (high - low)
    banded, chosen, boxes = table.find_bands(
        columns, tall, low - far, high + far, window.y_px, window.log_y, _BAND_TURNS, _BAND_PX
    )
    bands = []
    for start, stop in zip(*runs_of(chosen), strict=True):
        xs = np.append(boxes[start:stop, 0], boxes[stop - 1, 1])
        heights = boxes[[*range(start, stop), stop - 1], 2:]
        bands.append(np.column_stack([xs, 10.0**heights if window.log_y else heights]))
    return banded, bands
