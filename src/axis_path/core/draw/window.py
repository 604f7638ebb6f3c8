"""The window: which part of the coordinate plane is seen, and how large it is drawn."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.errors import WindowError
from axis_path.core.threads import lazy_property

Floats = NDArray[np.float64]
LARGEST_PX = 8_000
#: Bounds beyond this leave no room for computing with floats.
LARGEST_BOUND = 1e150
#: The least width of a window in steps of the floats at its bounds.
FINEST = 1e-11
#: Bounds of a logarithmic axis are at least this far apart, in decades.
_LEAST_DECADES = 0.01
#: What a logarithmic axis shows that was given no positive bounds, and how many decades it shows
#: below a positive upper bound.
HOME_LOG, _SHOWN_DECADES = (0.1, 1000.0), 3
_Bounds = tuple[float, float]


def evenly(low: float, high: float, count: int) -> Floats:
    """Return count + 1 numbers from one to another, far quicker than ``numpy.linspace`` for few."""
    xs = np.arange(count + 1.0)
    xs *= (high - low) / count
    xs += low
    xs[-1] = high
    return xs


@dataclass(frozen=True)
class Window:
    """The part of the plane from ``x[0]`` to ``x[1]`` and ``y[0]`` to ``y[1]``, in axis units.

    On a logarithmic axis powers of ten stand equally far apart. What is measured on the axis
    itself, in units of a plain one and in decades of a logarithmic one, is called flat.

    Attributes:
        width: how wide it is drawn, in px; ``height`` likewise.
        inner: the part of it that is seen, in its middle; None if all of it is. Places in px are
            from the upper left corner of what is seen.
        stretch: how many times larger the picture may be shown: its lines are as true then.
        log_x: whether the horizontal axis is logarithmic; ``log_y`` whether the vertical one is.
        x_unit: the unit of the numbers across, ``y_unit`` that of those upward; empty for none.
    """

    x: _Bounds
    y: _Bounds
    width: int = 660
    height: int = 430
    log_x: bool = False
    log_y: bool = False
    inner: Window | None = None
    stretch: float = 1.0
    x_unit: str = ""
    y_unit: str = ""

    def __post_init__(self) -> None:
        """Refuse bounds between which nothing can be drawn.

        Raises:
            WindowError: bounds in the wrong order, not finite, too close or too far.
        """
        try:
            # Compiled code takes floats: whole numbers would be another kind of window to it.
            for name in ("x", "y"):
                low, high = getattr(self, name)
                object.__setattr__(self, name, (float(low), float(high)))
        except OverflowError as err:
            raise WindowError("The window goes too far to be drawn.") from err
        for name, (low, high), is_log in (("x", self.x, self.log_x), ("y", self.y, self.log_y)):
            if low == high:
                raise WindowError(f"The window's {name} has no width, or too little to be drawn.")
            if not (math.isfinite(low) and math.isfinite(high)) or low > high:
                raise WindowError(f"The window's {name} goes from a lower to a higher number.")
            size = max(abs(low), abs(high))
            if size > LARGEST_BOUND:
                raise WindowError(f"The window's {name} goes too far to be drawn.")
            if high - low < FINEST * size or high - low < 1e-150:
                raise WindowError(f"The window is too narrow in {name} to be drawn truly.")
            if is_log and low <= 0:
                raise WindowError(f"The logarithmic {name} axis begins above 0.")
            if is_log and math.log10(high) - math.log10(low) < _LEAST_DECADES:
                raise WindowError(f"The window is too narrow in {name} for a logarithmic axis.")
        if not (1 <= self.width <= LARGEST_PX and 1 <= self.height <= LARGEST_PX):
            raise WindowError(f"A picture has between 1 and {LARGEST_PX} px on each side.")

    def __hash__(self) -> int:
        """Return the number it is found by: parts of a picture are looked up by their window."""
        return self._hash

    @lazy_property
    def _hash(self) -> int:
        bounds = self.x, self.y, self.width, self.height, self.log_x, self.log_y
        return hash((*bounds, self.inner, self.stretch))

    @property
    def visible(self) -> Window:
        """Return the part of it that is seen."""
        return self if self.inner is None else self.inner

    @property
    def beyond(self) -> int:
        """Return how far it reaches beyond what is seen on each side, in px."""
        return (self.width - self.visible.width) // 2

    def widened(self, px: int) -> Window:
        """Return a window that reaches so many px beyond this one on each side; this one is seen.

        What is drawn in it can be moved by so much and is still whole. Where nothing can be drawn
        so far out, it is this window itself.
        """
        if not px:
            return self
        (left, right), (low, high) = self.flat_x, self.flat_y
        across, up = px / self.x_px, px / self.y_px
        try:
            wide = Window.from_flat(
                (left - across, right + across), (low - up, high + up),
                self.width + 2 * px, self.height + 2 * px,
                {"log_x": self.log_x, "log_y": self.log_y},
            )  # fmt: skip
        except WindowError:
            return self
        return replace(wide, inner=self, stretch=self.stretch)

    @property
    def is_log(self) -> bool:
        """Check whether an axis is logarithmic."""
        return self.log_x or self.log_y

    @lazy_property
    def flat_x(self) -> _Bounds:
        """Return the bounds of x on the axis."""
        return _flat_bounds(self.x, self.log_x)

    @lazy_property
    def flat_y(self) -> _Bounds:
        """Return the bounds of y on the axis."""
        return _flat_bounds(self.y, self.log_y)

    @lazy_property
    def x_px(self) -> float:
        """Return how many px one unit of x takes, one decade of it on a logarithmic axis."""
        return self.width / (self.flat_x[1] - self.flat_x[0])

    @lazy_property
    def y_px(self) -> float:
        """Return how many px one unit of y takes, one decade of it on a logarithmic axis."""
        return self.height / (self.flat_y[1] - self.flat_y[0])

    @lazy_property
    def across_from(self) -> tuple[float, float, bool]:
        """Return how compiled code finds px from the left edge: its place, and the scale."""
        return self.visible.flat_x[0], self.x_px, self.log_x

    @lazy_property
    def down_from(self) -> tuple[float, float, bool]:
        """Return how compiled code finds px from the upper edge, likewise."""
        return self.visible.flat_y[1], self.y_px, self.log_y

    def pixel_at(self, x: float) -> float:
        """Return how wide a pixel is at an abscissa, in axis units."""
        if not self.log_x:
            return 1 / self.x_px
        inside = min(max(x, self.x[0]), self.x[1])
        return inside * math.log(10) / self.x_px

    def flat_xs(self, xs: Floats) -> Floats:
        """Return abscissae as they stand on the axis."""
        return flattened(xs) if self.log_x else xs

    def flat_ys(self, ys: Floats) -> Floats:
        """Return ordinates as they stand on the axis."""
        return flattened(ys) if self.log_y else ys

    def flat_points(self, points: Floats) -> Floats:
        """Return points, (n, 2), as they stand on the axes."""
        if not self.is_log:
            return points
        return np.column_stack([self.flat_xs(points[:, 0]), self.flat_ys(points[:, 1])])

    def across(self, xs: Floats) -> Floats:
        """Return the px from the left edge of abscissae."""
        return (self.flat_xs(xs) - self.visible.flat_x[0]) * self.x_px

    def down(self, ys: Floats) -> Floats:
        """Return the px from the upper edge of ordinates."""
        with np.errstate(over="ignore"):
            return (self.visible.flat_y[1] - self.flat_ys(ys)) * self.y_px

    def px_of(self, x: float, y: float) -> tuple[float, float]:
        """Return where one point stands, as ``across`` and ``down`` do of many, and far quicker."""
        flat_x = math.log10(max(x, _FAR_BELOW)) if self.log_x else x
        flat_y = math.log10(max(y, _FAR_BELOW)) if self.log_y else y
        visible = self.visible
        return (flat_x - visible.flat_x[0]) * self.x_px, (visible.flat_y[1] - flat_y) * self.y_px

    def holds(self, points: Floats) -> NDArray[np.bool_]:
        """Return which of points, (n, 2) in axis units, lie in it, (n,)."""
        x, y = points[:, 0], points[:, 1]
        is_inside: NDArray[np.bool_] = (x >= self.x[0]) & (x <= self.x[1])
        return is_inside & (y >= self.y[0]) & (y <= self.y[1])

    def reaches(self, point: tuple[float, float]) -> bool:
        """Check whether a place in px lies in it, be it seen or not."""
        far = self.beyond
        x, y = point
        return bool(
            -far <= x <= self.visible.width + far and -far <= y <= self.visible.height + far
        )

    def points_at(self, across: Floats, down: Floats) -> Floats:
        """Return the points, (n, 2), at places in px from the left and the upper edge."""
        xs = across / self.x_px + self.visible.flat_x[0]
        ys = self.visible.flat_y[1] - down / self.y_px
        with np.errstate(over="ignore", under="ignore"):
            return np.column_stack([10.0**xs if self.log_x else xs, 10.0**ys if self.log_y else ys])

    def columns(self) -> Floats:
        """Return the edges of the pixel columns: width + 1 floats from x[0] to x[1]."""
        return self._columns.copy()

    @lazy_property
    def _columns(self) -> Floats:
        return self.between(*self.x, self.width)

    def between(self, low: float, high: float, count: int) -> Floats:
        """Return count + 1 abscissae from one to another, equally far apart on the axis."""
        if not self.log_x:
            return evenly(low, high, count)
        return np.geomspace(max(low, self.x[0]), high, count + 1)

    def rows(self, count: int) -> Floats:
        """Return count + 1 ordinates from y[0] to y[1], equally far apart on the axis."""
        return (np.geomspace if self.log_y else np.linspace)(*self.y, count + 1)

    def on_axes(self, *, log_x: bool, log_y: bool) -> Window:
        """Return a window on such axes that shows the same, as far as it can be shown there."""
        return replace(
            self,
            x=_positive(self.x) if log_x else self.x, y=_positive(self.y) if log_y else self.y,
            log_x=log_x, log_y=log_y,
        )  # fmt: skip

    def to_dict(self) -> dict[str, Any]:
        """Return the bounds as they stand on the axes, and which of these are logarithmic."""
        return {
            "x": self.flat_x, "y": self.flat_y, "log_x": self.log_x, "log_y": self.log_y,
            "x_unit": self.x_unit, "y_unit": self.y_unit,
        }  # fmt: skip

    @staticmethod
    def from_flat(
        x: _Bounds, y: _Bounds, width: int, height: int, axes: Mapping[str, bool]
    ) -> Window:
        """Return the window whose bounds stand so on the axes.

        Args:
            x: its bounds across, in units or decades.
            y: its bounds up.
            width: how wide it is drawn, in px.
            height: how high it is drawn.
            axes: ``log_x`` and ``log_y``.

        Raises:
            WindowError: nothing can be drawn in it.
        """
        return Window(
            _raised(x) if axes["log_x"] else x, _raised(y) if axes["log_y"] else y,
            width, height, axes["log_x"], axes["log_y"],
        )  # fmt: skip


#: What is not positive stands nowhere on a logarithmic axis: far below whatever can be seen.
_FAR_BELOW = 5e-324


def flattened(values: Floats) -> Floats:
    """Return where values stand on a logarithmic axis, in decades; NaN stays NaN."""
    with np.errstate(invalid="ignore"):
        return np.log10(np.maximum(values, _FAR_BELOW))


def _flat_bounds(bounds: _Bounds, is_log: bool) -> _Bounds:
    return (math.log10(bounds[0]), math.log10(bounds[1])) if is_log else bounds


def _raised(bounds: _Bounds) -> _Bounds:
    far = math.log10(LARGEST_BOUND)
    if not all(-far <= bound <= far for bound in bounds):
        raise WindowError("The window goes too far to be drawn.")
    low, high = (10.0**bound for bound in bounds)
    return low, high


def _positive(bounds: _Bounds) -> _Bounds:
    """Return bounds on a logarithmic axis that show what is positive between two."""
    low, high = bounds
    if high <= 0 or high < 1e-140:
        return HOME_LOG
    return (low, high) if low > 0 else (high / 10**_SHOWN_DECADES, high)
