"""Choose a window that shows what matters."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from axis_path.core.draw.window import LARGEST_BOUND, Window
from axis_path.core.evaluate import RealFunction

HOME_X, HOME_Y = (-10.0, 10.0), (-6.5, 6.5)
_SAMPLES = 801
_MARGIN = 0.08


def home(width: int, height: int) -> Window:
    """Give the window that a new study begins with."""
    return Window(HOME_X, HOME_Y, width, height)


def frame(functions: Sequence[RealFunction], present: Window) -> Window:
    """Give a window in which the functions are readable.

    Across, it spans their domains if they have both ends, and the present window otherwise. In
    height, it spans their values, where a pole is not allowed to flatten the rest.
    """
    x = _across(functions, present)
    xs = np.linspace(x[0], x[1], _SAMPLES)
    values = [function.sample(xs) for function in functions]
    spans = [span for span in map(_span, values) if span is not None]
    if not spans:
        return Window(x, present.y, present.width, present.height)
    low, high = min(low for low, _ in spans), max(high for _, high in spans)
    low, high = max(low, -LARGEST_BOUND / 4), min(high, LARGEST_BOUND / 4)
    # A curve that stays away from the axis keeps its shape; one close to it shows the axis.
    if 0 < low < (high - low) / 2:
        low = 0.0
    elif -(high - low) / 2 < high < 0:
        high = 0.0
    if high - low < 1e-9 * max(abs(low), abs(high), 1e-9):
        size = max(abs(low), 1.0)
        low, high = low - size, high + size
    margin = _MARGIN * (high - low)
    return Window(x, (low - margin, high + margin), present.width, present.height)


def _across(functions: Sequence[RealFunction], present: Window) -> tuple[float, float]:
    lows = [f.low.near for f in functions if f.low is not None]
    highs = [f.high.near for f in functions if f.high is not None]
    unbounded = any(f.low is None or f.high is None for f in functions)
    if not lows or not highs or not min(lows) < max(highs):
        return present.x
    low, high = min(lows), max(highs)
    if unbounded and len(lows) + len(highs) < 2:
        return present.x
    margin = _MARGIN * (high - low)
    return (low - margin, high + margin)


def _span(values: np.ndarray) -> tuple[float, float] | None:
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
