"""A function beside a place that it leaves out and goes across smoothly, as sin(x)/x at 0.

Top and bottom of a quotient vanish there to some order. Without the power of x - a that they share
they are power series, and so are the function, its slope and the length of its graph: a short
series with a bound for what it leaves out measures them up to a place from which cells go on.
"""

from __future__ import annotations

from dataclasses import dataclass

from flint import arb, arb_series, ctx

from axis_path.core.arithmetic import Ball
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import RealFunction, taylor
from axis_path.core.locate.limits.nearing import Approaching

_MOST_ORDER = 8
#: So many terms are taken.
_TERMS = 40
#: The interval is as wide as these powers of a half, the widest first.
_WIDEST, _NARROWEST = 3, 14
#: What is left out must be smaller than this.
_SMALL = arb(2) ** -100


@dataclass(frozen=True, slots=True)
class NearHole:
    """What is measured from a place on.

    Attributes:
        cut: where the measured interval ends.
        integral: of the function over it; ``length`` that of its graph.
    """

    cut: Ball
    integral: arb
    length: arb


def smooth_near(nearing: Approaching) -> NearHole | None:
    """Measure a branch beside a place across which it goes on smoothly.

    Called inside ``precision``.

    Returns:
        None if it is not known to do so, or changes its sign next to the place.
    """
    try:
        parts = nearing.branches.quotient(nearing.branch)
        if parts is None:
            return None
        orders = [_order(nearing, part) for part in parts]
    except (LimitError, NotHandledError):
        return None
    if orders[0] is None or orders[1] is None or orders[0] < orders[1]:
        return None
    room = abs(nearing.nearby.value - nearing.abscissa.value) / 2
    for power in range(_WIDEST, _NARROWEST):
        width = arb(2) ** -power
        if bool(width < room):
            branch_ends = _measured(nearing, parts, (orders[0], orders[1]), width)
            if branch_ends is not None:
                return branch_ends
    return None


def _order(nearing: Approaching, function: RealFunction) -> int | None:
    """Return how many times a function is zero at the place; None if that is not known."""
    for order in range(_MOST_ORDER):
        value = nearing.value(function)
        if value.is_defined and value.excludes_zero():
            return order
        if value.exact is None or value.exact != 0:
            return None
        function = nearing.branches.derivative(function)
    return None


def _measured(
    nearing: Approaching,
    parts: tuple[RealFunction, RealFunction],
    orders: tuple[int, int],
    width: arb,
) -> NearHole | None:
    abscissa = nearing.abscissa
    cut = Ball((abscissa.value.mid() + nearing.side * width).mid())
    hull = Ball(abscissa.value.union(cut.value))
    top, bottom = orders
    count = _TERMS + top + 1
    about = [[taylor(part, centre, count) for part in parts] for centre in (abscissa, hull)]
    series = []
    for above, below in about:
        if above is None or below is None or below[bottom].contains(0) or above[top].contains(0):
            return None
        series.append((above, below))
    exact = [arb(0)] * (top - bottom)
    sharp = (exact + series[0][0][top:])[: _TERMS + 1], series[0][1][bottom : bottom + _TERMS + 1]
    rough = series[1][0][bottom : bottom + _TERMS + 1], series[1][1][bottom : bottom + _TERMS + 1]
    finding_at, all_along = _values_and_speeds(*sharp), _values_and_speeds(*rough)
    wide = abs(cut.value - abscissa.value)
    integral, length = (
        _sum(near, far, nearing.side, wide) for near, far in zip(finding_at, all_along, strict=True)
    )
    if not (bool(integral.rad() < _SMALL) and bool(length.rad() < _SMALL)):
        return None
    return NearHole(cut, integral, length)


def _values_and_speeds(top: list[arb], bottom: list[arb]) -> tuple[arb_series, arb_series]:
    cap = ctx.cap
    try:
        ctx.cap = _TERMS + 1
        values = arb_series(top, _TERMS + 1) * arb_series(bottom, _TERMS + 1).inv()
        slopes = values.derivative()
        return values, (slopes * slopes + 1).sqrt()
    finally:
        ctx.cap = cap


def _sum(near: arb_series, far: arb_series, side: int, wide: arb) -> arb:
    """Integrate a series over an interval; the last term is taken of the series all along it."""
    last = _TERMS - 1
    total = arb(0)
    for k in range(last):
        total += near[k] * side**k * wide ** (k + 1) / (k + 1)
    return total + far[last] * side**last * wide ** (last + 1) / (last + 1)
