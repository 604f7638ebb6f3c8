"""The window: which part of the coordinate plane is seen, and how large it is drawn."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from axis_path.core.errors import WindowError

Floats = NDArray[np.float64]
LARGEST_PX = 8_000
#: Bounds beyond this leave no room for computing with floats.
LARGEST_BOUND = 1e150
#: The least width of a window in steps of the floats at its bounds.
FINEST = 1e-11


@dataclass(frozen=True, slots=True)
class Window:
    """The part of the plane from ``x[0]`` to ``x[1]`` and ``y[0]`` to ``y[1]``, in axis units.

    Attributes:
        width: how wide it is drawn, in px; ``height`` likewise.
    """

    x: tuple[float, float]
    y: tuple[float, float]
    width: int = 660
    height: int = 430

    def __post_init__(self) -> None:
        """Refuse bounds between which nothing can be drawn.

        Raises:
            WindowError: bounds in the wrong order, not finite, too close or too far.
        """
        for name, (low, high) in (("x", self.x), ("y", self.y)):
            if not (math.isfinite(low) and math.isfinite(high)) or low >= high:
                raise WindowError(f"The window's {name} goes from a lower to a higher number.")
            size = max(abs(low), abs(high))
            if size > LARGEST_BOUND:
                raise WindowError(f"The window's {name} goes too far to be drawn.")
            if high - low < FINEST * size or high - low < 1e-150:
                raise WindowError(f"The window is too narrow in {name} to be drawn truly.")
        if not (1 <= self.width <= LARGEST_PX and 1 <= self.height <= LARGEST_PX):
            raise WindowError(f"A picture has between 1 and {LARGEST_PX} px on each side.")

    @property
    def x_px(self) -> float:
        """Give how many px one unit of x takes."""
        return self.width / (self.x[1] - self.x[0])

    @property
    def y_px(self) -> float:
        """Give how many px one unit of y takes."""
        return self.height / (self.y[1] - self.y[0])

    def across(self, xs: Floats) -> Floats:
        """Give the px from the left edge of abscissae."""
        return (xs - self.x[0]) * self.x_px

    def down(self, ys: Floats) -> Floats:
        """Give the px from the upper edge of ordinates."""
        with np.errstate(over="ignore"):
            return (self.y[1] - ys) * self.y_px

    def columns(self) -> Floats:
        """Give the edges of the pixel columns: width + 1 floats from x[0] to x[1]."""
        return np.linspace(self.x[0], self.x[1], self.width + 1)
