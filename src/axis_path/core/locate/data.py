"""Crossings and extreme values of a list of points, by an interpolation that is chosen and said.

Between the points nothing is known, so nothing here is proved: straight lines take the extreme
values at points, a smooth curve (the natural cubic spline) between them too.

Source: de Boor, *A Practical Guide to Splines*, chapter IV, in SciPy's ``CubicSpline``.
"""

from __future__ import annotations

from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from axis_path.core.errors import ListError
from axis_path.core.locate.finding import Finding, Findings, Kind
from axis_path.core.locate.search.verdict import digits_shown

Floats = NDArray[np.float64]
#: What is interpolated between points has no more digits than floats.
_DIGITS = 15


class Interpolation(StrEnum):
    """What is taken to lie between two points."""

    LINES = "lines"
    SMOOTH = "smooth"


_SAID = {
    Interpolation.LINES: "by straight lines between the points",
    Interpolation.SMOOTH: "by the natural cubic spline through the points",
}


def find_in_data(points: Floats, interpolation: Interpolation, level: float = 0.0) -> Findings:
    """Locate where data cross a level, and where they are greatest and least near by.

    Args:
        points: (n, 2); those without a value are left out.
        interpolation: what is taken to lie between them.
        level: the value that is crossed.

    Raises:
        ListError: there are fewer than two points, or two at one place.
    """
    known = points[np.isfinite(points).all(axis=1)]
    known = known[np.argsort(known[:, 0], kind="stable")]
    if len(known) < 2:
        raise ListError("At least two points with values are needed to look between them.")
    if np.any(np.diff(known[:, 0]) == 0):
        twice = known[1:, 0][np.diff(known[:, 0]) == 0][0]
        raise ListError(f"Two points stand at x = {twice:g}: between which is to be looked?")
    smooth = interpolation is Interpolation.SMOOTH and len(known) > 2
    items = _smooth(known, level) if smooth else _lines(known, level)
    left_out = len(points) - len(known)
    note = f"Found {_SAID[interpolation]}; the data themselves say nothing of what lies between."
    if left_out:
        note += f" {left_out} without a value left out."
    return Findings(tuple(sorted(items, key=lambda item: item.x)), complete=False, note=note)


def _made(kind: Kind, x: float, y: float, *, at_end: bool = False, why: str = "") -> Finding:
    note = "between data nothing is proved"
    digits = min(digits_shown(), _DIGITS)
    text, y_text = (f"{value:.{digits}g}".replace("-", "−") for value in (x + 0.0, y + 0.0))
    return Finding(
        kind, x, y, (x, x), proved=False, exact=None, text=text, note=note, y_text=y_text,
        at_end=at_end, why=why,
    )  # fmt: skip


def _lines(points: Floats, level: float) -> list[Finding]:
    x, y = points[:, 0], points[:, 1] - level
    items = [_made(Kind.ZERO, float(a), level, why="at a point of the data") for a in x[y == 0]]
    crossed = np.flatnonzero(y[:-1] * y[1:] < 0)
    for k in crossed.tolist():
        abscissa = x[k] - y[k] * (x[k + 1] - x[k]) / (y[k + 1] - y[k])
        items.append(_made(Kind.ZERO, float(abscissa), level))
    for k in range(len(x)):
        neighbours = [y[j] for j in (k - 1, k + 1) if 0 <= j < len(x)]
        at_end = len(neighbours) == 1
        if all(y[k] > other for other in neighbours):
            items.append(_made(Kind.MAXIMUM, float(x[k]), float(points[k, 1]), at_end=at_end))
        elif all(y[k] < other for other in neighbours):
            items.append(_made(Kind.MINIMUM, float(x[k]), float(points[k, 1]), at_end=at_end))
    return items


def _smooth(points: Floats, level: float) -> list[Finding]:
    # It takes a while to load, and is seldom needed.
    from scipy.interpolate import CubicSpline

    x = points[:, 0]
    curve = CubicSpline(x, points[:, 1] - level, bc_type="natural")
    items = [
        _made(Kind.ZERO, float(abscissa), level)
        for abscissa in np.unique(curve.roots(extrapolate=False))
        if np.isfinite(abscissa)
    ]
    slope, bend = curve.derivative(), curve.derivative(2)
    for abscissa in np.unique(slope.roots(extrapolate=False)):
        side = float(bend(abscissa)) if np.isfinite(abscissa) else 0.0
        if side:
            kind = Kind.MINIMUM if side > 0 else Kind.MAXIMUM
            items.append(_made(kind, float(abscissa), float(curve(abscissa)) + level))
    for abscissa, direction in ((x[0], slope(x[0])), (x[-1], -slope(x[-1]))):
        if direction:
            kind = Kind.MINIMUM if direction > 0 else Kind.MAXIMUM
            items.append(_made(kind, float(abscissa), float(curve(abscissa)) + level, at_end=True))
    return items
