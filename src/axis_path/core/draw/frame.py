"""Choose a window that shows what matters."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw.window import HOME_LOG, LARGEST_BOUND, Window
from axis_path.core.evaluate import RealFunction

Floats = NDArray[np.float64]
HOME_X, HOME_Y = (-10.0, 10.0), (-6.5, 6.5)
_SAMPLES = 2_401
_MARGIN = 0.08
#: A frame goes no further on a logarithmic axis, in decades.
_FEWEST_DECADES = -100.0
#: A wave with more turns than this in the window is a scribble; it is shown with so many.
_MOST_TURNS, _SHOWN_TURNS = 40, 9


@dataclass(frozen=True, slots=True)
class Extent:
    """How far something reaches that has a size of its own: a path, points, a closed line."""

    x: tuple[float, float]
    y: tuple[float, float]


def extent_of(points: Floats) -> Extent | None:
    """Return how far points, (n, 2), reach, but for the outermost near a pole; None if nowhere."""
    spans = [_span(points[:, k]) for k in (0, 1)]
    if spans[0] is None or spans[1] is None:
        return None
    return Extent(spans[0], spans[1])


def home(width: int, height: int, *, log_x: bool = False, log_y: bool = False) -> Window:
    """Return the window that a new study begins with, on such axes."""
    x, y = (HOME_LOG if log_x else HOME_X), (HOME_LOG if log_y else HOME_Y)
    return Window(x, y, width, height, log_x, log_y)


def frame(
    functions: Sequence[RealFunction], present: Window, extents: Sequence[Extent] = ()
) -> Window:
    """Return a window in which everything is readable.

    Across, it spans the domains of functions that have both ends, and what has a size of its own;
    where there is neither, it stays as it is, but a wave is shown with a few turns. In height, it
    spans the values there, where a pole is not allowed to flatten the rest. On logarithmic axes all
    that is positive is measured in decades.
    """
    return _framed(functions, present, _across(functions, present, extents), extents)


def frame_between(
    functions: Sequence[RealFunction], present: Window, ends: tuple[float, float]
) -> Window:
    """Return a window that shows what functions do between two places, with a margin around it."""
    return _framed(functions, present, _widened(*ends), ())


def _framed(
    functions: Sequence[RealFunction],
    present: Window,
    x: tuple[float, float],
    extents: Sequence[Extent],
) -> Window:
    """Return a window that spans some abscissae, and in height the values there."""
    across = replace(present, x=x, log_x=False).on_axes(log_x=present.log_x, log_y=present.log_y)
    xs = across.between(*across.x, _SAMPLES - 1)
    spans = [_span(_visible(function.sample(xs), across)) for function in functions]
    spans += [_span(_visible(np.array(extent.y), across)) for extent in extents]
    known = [span for span in spans if span is not None]
    if not known:
        return across
    low, high = min(low for low, _ in known), max(high for _, high in known)
    if present.log_y:
        low, high = max(low, _FEWEST_DECADES), min(high, -_FEWEST_DECADES)
        return replace(across, y=_raised(_widened(low, high)))
    low, high = max(low, -LARGEST_BOUND / 4), min(high, LARGEST_BOUND / 4)
    # A curve that stays away from the axis keeps its shape; one close to it shows the axis.
    if 0 < low < (high - low) / 2:
        low = 0.0
    elif -(high - low) / 2 < high < 0:
        high = 0.0
    return replace(across, y=_widened(low, high))


def _visible(values: Floats, window: Window) -> Floats:
    """Return what can be seen of values, as it stands on the axis."""
    return np.log10(values[values > 0]) if window.log_y else values


def _raised(bounds: tuple[float, float]) -> tuple[float, float]:
    return 10.0 ** bounds[0], 10.0 ** bounds[1]


def _widened(low: float, high: float) -> tuple[float, float]:
    """Leave room on both sides; one value alone gets some of its own size."""
    if high - low < 1e-9 * max(abs(low), abs(high), 1e-9):
        size = max(abs(low), 1.0)
        return low - size, high + size
    margin = _MARGIN * (high - low)
    return low - margin, high + margin


def _across(
    functions: Sequence[RealFunction], present: Window, extents: Sequence[Extent]
) -> tuple[float, float]:
    lows = [f.low.near for f in functions if f.low is not None] + [e.x[0] for e in extents]
    highs = [f.high.near for f in functions if f.high is not None] + [e.x[1] for e in extents]
    unbounded = [f for f in functions if f.low is None or f.high is None]
    if not lows or not highs or not min(lows) <= max(highs):
        return present.x if present.log_x else _readable(unbounded, present.x)
    if unbounded and len(lows) + len(highs) < 2:
        return present.x
    low, high = min(lows), max(highs)
    if present.log_x and low > 0:
        return _raised(_widened(math.log10(low), math.log10(high)))
    return _widened(low, high)


def _readable(functions: Sequence[RealFunction], x: tuple[float, float]) -> tuple[float, float]:
    """Narrow an interval of x about its middle until the quickest wave shows a few turns."""
    middle, width = (x[0] + x[1]) / 2, x[1] - x[0]
    for _ in range(40):
        xs = np.linspace(middle - width / 2, middle + width / 2, _SAMPLES)
        most = max((_turns(function.sample(xs)) for function in functions), default=0)
        if most <= _MOST_TURNS:
            break
        # So many turns that samples cannot count them make the interval narrower step by step.
        width *= max(_SHOWN_TURNS / most, 1 / 16)
    return middle - width / 2, middle + width / 2


def _turns(values: Floats) -> int:
    """Count how often a curve turns; what is flat or a break does not count."""
    steps = np.diff(values[np.isfinite(values)])
    steps = steps[steps != 0]
    return int((np.sign(steps[1:]) != np.sign(steps[:-1])).sum())


def _span(values: Floats) -> tuple[float, float] | None:
    known = values[np.isfinite(values)]
    if not len(known):
        return None
    low, high = float(known.min()), float(known.max())
    inner_low, inner_high = (float(v) for v in np.quantile(known, (0.06, 0.94)))
    # The outermost values tower over the rest near a pole: keep to the rest.
    if high - low > 6 * max(inner_high - inner_low, 1e-300):
        middle = (inner_high - inner_low) * 0.6
        return inner_low - middle, inner_high + middle
    return low, high
