"""Parts at whose ends a slope grows beyond all bounds, as that of a square root does.

A sliver beside such an end is bounded, and the rest is integrated over cells that get shorter and
shorter towards it. The values in a sliver bound its integral; the length of its graph lies between
its height and its height and width together, because the graph rises or falls all along, and the
width is smaller than any digit that is shown.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np
from flint import arb
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, ball
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Branches, RealFunction
from axis_path.core.locate.limits.nearing import Approaching
from axis_path.core.locate.measure.improper import bound_near, tail_near
from axis_path.core.locate.measure.removable import smooth_near
from axis_path.core.locate.search.parts import Part, sharpened
from axis_path.core.locate.search.verdict import value_text

Floats = NDArray[np.float64]
#: Beyond this many bits a sliver gets no narrower; its end is known so much better than it is wide.
_NARROWEST, _BETTER = 110, 2.0**-20
#: Towards such an end each cell is so many times shorter than the one before: from all of them the
#: end is equally far, seen by their own length, and few nodes do for each.
_SHORTER = 4
#: What is said of an integral that has no value.
DIVERGES = "it diverges"
#: A sliver in which a function grows beyond all bounds is so many powers of two narrower; beside 0
#: places have digits enough for more.
_DEEP, _DEEPER = 30, 130
_UNKNOWN_LENGTH = "whether the graph rises or falls all along beside an infinite slope is not known"


@dataclass(frozen=True, slots=True)
class Sliver:
    """What is cut off beside an end of a part.

    Attributes:
        abscissa: the end; ``cut`` where the rest of the part begins.
        integral: that of the function over it.
        length: that of the graph in it.
        is_hole: whether the function is bounded beside an end at which it has no value.
    """

    abscissa: Ball
    cut: Ball
    integral: Ball
    length: Ball
    is_hole: bool = False


@dataclass(frozen=True, slots=True)
class TrimmedPart:
    """A part without the slivers beside its ends.

    Attributes:
        branch: the function in it.
        abscissae: the ends of the cells over which it is integrated, in order.
        slivers: those beside its ends, at most two.
    """

    branch: RealFunction
    abscissae: tuple[Ball, ...]
    slivers: tuple[Sliver, ...]


def trim_part(branches: Branches, part: Part, bits: int) -> TrimmedPart:
    """Cut slivers off a part where that helps, too narrow to be seen in so many binary digits."""
    low, high = (sharpened(branches, singular) for singular in (part.low, part.high))
    width = abs(high.value.mid() - low.value.mid()) * arb(2) ** -min(bits, _NARROWEST)
    # Where it is bounded a wider one does: what its values differ by is as small as it is wide.
    wider = arb(2) ** (min(bits, _NARROWEST) // 2)
    first, last = (
        _sliver(Approaching(branches, part.branch, abscissa, singular.zeros, side, part.middle),
                side * width.mid(), wider)
        for singular, abscissa, side in ((part.low, low, 1), (part.high, high, -1))
    )  # fmt: skip
    ends = (first.cut if first else low, last.cut if last else high)
    middle = Ball(((low.value + high.value) / 2).mid())
    abscissae = [*ends, middle] if first and last else [*ends]
    if first:
        abscissae += _towards(first, middle if last else high)
    if last:
        abscissae += _towards(last, middle if first else low)
    slivers = tuple(sliver for sliver in (first, last) if sliver)
    return TrimmedPart(part.branch, tuple(sorted(abscissae, key=_middle)), slivers)


def _towards(sliver: Sliver, farthest: Ball) -> list[Ball]:
    """Return places that come nearer and nearer to a sliver."""
    abscissae = []
    step = (farthest.value - sliver.abscissa.value) / _SHORTER
    while bool(abs(step) > _SHORTER * abs(sliver.cut.value - sliver.abscissa.value)):
        abscissae.append(Ball((sliver.abscissa.value + step).mid()))
        step /= _SHORTER
    return abscissae


def _sliver(nearing: Approaching, width: arb, wider: arb) -> Sliver | None:
    """Return a sliver beside an end of a part; None if its slope has a value, or nothing is known.

    Args:
        nearing: the function in the part, and the end. It is smooth there, so that its value and
            its slope can be missing at the end alone.
        width: how wide the sliver is, negative for one below the end.
        wider: so many times as wide it may be where the function is bounded.
    """
    branches, branch, abscissa = nearing.branches, nearing.branch, nearing.abscissa
    try:
        slope = branches.derivative(branch)
    except (LimitError, NotHandledError):
        return None
    at_end = nearing.value(slope)
    is_too_narrow = not bool(arb(abscissa.value.rad()) < abs(width) * arb(_BETTER))
    if is_too_narrow or (at_end.is_defined and at_end.value.is_finite()):
        return None
    cut = Ball((abscissa.value.mid() + width).mid())
    wide = ball.absolute(ball.subtract(cut, abscissa))
    low, high = (np.array([end]) for end in _floats_around(abscissa, cut))
    values = branch.enclose(low, high)
    if not (np.isfinite(values.low[0]) and np.isfinite(values.high[0])):
        farther = Ball((abscissa.value.mid() + width * wider).mid())
        narrower = width * arb(2) ** -(_DEEPER if abscissa.value.is_zero() else _DEEP)
        nearer = Ball((abscissa.value.mid() + narrower).mid())
        smooth = smooth_near(nearing)
        if smooth is not None:
            return Sliver(abscissa, smooth.cut, Ball(smooth.integral), Ball(smooth.length))
        return _bounded(nearing, slope, farther) or _by_growth(nearing, slope, nearer)
    is_steady = _is_steady(branches, slope, low, high)
    if not is_steady and not nearing.value(branch).is_defined:
        reach = Ball(abscissa.value.union(cut.value))
        if tail_near(nearing, reach, 1 / wide.value) is None:
            # A wave that never comes to rest would take for ever to follow.
            return None
    hull = Ball(arb(float(values.low[0])).union(arb(float(values.high[0]))))
    rise = ball.absolute(Ball(branch.prove(cut).value - branch.prove(abscissa).value))
    if rise.value.is_finite() and is_steady:
        length = Ball(rise.value.union(ball.add(rise, wide).value))
    else:
        reach = Ball(abscissa.value.union(cut.value))
        length = _length_by_slope(replace(nearing, branch=slope), reach, wide.value) or _unknown()
    return Sliver(abscissa, cut, ball.multiply(hull, wide), length)


def _unknown() -> Ball:
    return ball.limited(Ball(ball.whole_line()), Defined.MAYBE, _UNKNOWN_LENGTH)


def _bounded(nearing: Approaching, slope: RealFunction, cut: Ball) -> Sliver | None:
    """Return a sliver beside a place without a value near which the function is bounded."""
    hull = Ball(nearing.abscissa.value.union(cut.value))
    wide = ball.absolute(ball.subtract(cut, nearing.abscissa))
    within = bound_near(nearing, nearing.branch, hull)
    if within is None:
        return None
    steep = bound_near(nearing, slope, hull)
    length = _unknown()
    if steep is not None:
        square = ball.integer_power(Ball(steep), 2)
        speed = ball.root(ball.add(ball.from_fraction(1), square), 1, 2)
        length = ball.multiply(wide, speed)
    return Sliver(nearing.abscissa, cut, ball.multiply(Ball(within), wide), length, is_hole=True)


def _by_growth(nearing: Approaching, slope: RealFunction, cut: Ball) -> Sliver | None:
    """Return a sliver beside a place where it is known how the function grows, or falls to 0."""
    hull = Ball(nearing.abscissa.value.union(cut.value))
    wide = abs(cut.value - nearing.abscissa.value)
    growth_rate = tail_near(nearing, hull, 1 / wide)
    if growth_rate is None:
        return None
    where = f"{nearing.branch.variable} = {value_text(nearing.abscissa)}"
    endless = ball.undefined(f"the graph has no end near {where}")
    if growth_rate.integral is None:
        return Sliver(nearing.abscissa, cut, ball.undefined(f"{DIVERGES} near {where}"), endless)
    length = _length_by_slope(replace(nearing, branch=slope), hull, wide)
    return Sliver(
        nearing.abscissa, cut, Ball(growth_rate.integral), endless if length is None else length
    )


def _length_by_slope(slope: Approaching, hull: Ball, wide: arb) -> Ball | None:
    """Return the length of a graph in a sliver, if it is known how its slope grows or falls to 0.

    Where the slope keeps its sign the graph rises or falls by the integral of its slope.

    Returns:
        None if it has no end.
    """
    way = tail_near(slope, hull, 1 / wide)
    if way is None or way.sign is None:
        return _unknown()
    if way.integral is None:
        return None
    rise = abs(way.integral)
    return Ball(rise.union(rise + wide))


def _is_steady(branches: Branches, slope: RealFunction, low: Floats, high: Floats) -> bool:
    """Check whether a slope keeps its sign in a sliver.

    It has a value all along, so that the bottom of a fraction does not vanish in it.
    """
    fraction = branches.quotient(slope)
    tops = (slope if fraction is None else fraction[0]).enclose(low, high)
    return bool(tops.low[0] >= 0) or bool(tops.high[0] <= 0)


def _floats_around(abscissa: Ball, cut: Ball) -> tuple[float, float]:
    """Return the closest floats that hold a sliver between them; an end that is a float is kept."""
    low, high = (abscissa, cut) if bool(abscissa.value < cut.value) else (cut, abscissa)
    return _next_float(low, -math.inf), _next_float(high, math.inf)


def _next_float(end: Ball, towards: float) -> float:
    near = float(end.value.mid())
    is_float = end.value.is_exact() and bool(arb(near) == end.value)
    return near if is_float else math.nextafter(near, towards)


def _middle(abscissa: Ball) -> arb:
    # Not as a float: places beside an end differ in digits that no float has.
    return abscissa.value.mid()
