"""The marks that stand on the plane and the lanes."""

from __future__ import annotations

import math
from fractions import Fraction
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw import Curve, Window
from axis_path.core.draw.pixels import tenths_across
from axis_path.core.evaluate import RealFunction
from axis_path.core.limits import LARGEST_MARKS, MARK_CELLS
from axis_path.core.locate import Finding, Findings, find_zeros, interval, quick_zeros

Floats = NDArray[np.float64]


def locate_marks(function: RealFunction, curve: Curve, window: Window) -> Findings:
    """Locate the zeros in the window, as far as a frame has time for.

    Only where the curve may cross the axis is searched. Where more zeros are than could be
    told apart on the screen, none is marked: the Findings panel has the time to locate them.
    """
    stretches = _with_ends(curve.crossings, function, window)
    if len(stretches) > LARGEST_MARKS.value:
        return Findings((), complete=False, note="There are more zeros here than can be marked.")
    if not stretches:
        return Findings((), complete=True)
    quick, left = quick_zeros(function, np.array(stretches))
    kept = [zero for zero in quick if _is_inside(function, zero)]
    # One beside an end of the domain may lie on either side of it: the slow way finds out.
    left += [zero.bracket for zero in quick if _is_unsure(function, zero)]
    slow = [
        find_zeros(function, interval(Fraction(a), Fraction(b)), max_cells=MARK_CELLS.value)
        for a, b in left
    ]
    found = [*kept, *(zero for part in slow for zero in part)]
    return Findings(
        tuple(sorted(found, key=lambda zero: zero.x)),
        complete=all(part.complete for part in slow),
    )


def _is_unsure(function: RealFunction, zero: Finding) -> bool:
    """Tell whether a zero cannot be told from an end of the domain, or a place left out."""
    low, high = zero.bracket
    ends = [end.near for end in (function.low, function.high) if end is not None]
    ends += [float(value.value.mid()) for value in function.without]
    return any(
        math.nextafter(low, -math.inf) <= end <= math.nextafter(high, math.inf) for end in ends
    )


def _is_inside(function: RealFunction, zero: Finding) -> bool:
    above = function.low is None or zero.x > function.low.near
    below = function.high is None or zero.x < function.high.near
    return above and below and not _is_unsure(function, zero)


def _with_ends(
    stretches: Floats, function: RealFunction, window: Window
) -> list[tuple[float, float]]:
    """Add what lies between an end of the domain and the float that the curve is drawn to."""
    slivers = [
        (math.nextafter(end.near, -math.inf), math.nextafter(end.near, math.inf))
        for end in (function.low, function.high)
        if end is not None and end.closed and window.x[0] <= end.near <= window.x[1]
    ]
    joined: list[tuple[float, float]] = []
    for low, high in sorted([*map(tuple, stretches.tolist()), *slivers]):
        if joined and low <= joined[-1][1]:
            joined[-1] = (joined[-1][0], max(high, joined[-1][1]))
        else:
            joined.append((low, high))
    return joined


def mark_dict(finding: Finding, window: Window) -> dict[str, Any]:
    """Give a mark as plain data, with a short text that stands at it."""
    place = np.array([finding.x])
    return {
        "x": int(tenths_across(place, window)[0]),
        "value": finding.x,
        "text": finding.exact or finding.text,
        "short": _short(finding),
        "kind": finding.kind.value,
        "proved": finding.proved,
    }


def _short(finding: Finding) -> str:
    """Give the place in few figures, all of them right."""
    if finding.exact is not None and len(finding.exact) <= 6:
        return str(finding.exact)
    low, high = (Fraction(end) for end in finding.bracket)
    for digits in (3, 2, 1):
        one, other = f"{float(low):.{digits}g}", f"{float(high):.{digits}g}"
        if one == other:
            return one.replace("-", "−") if "e" not in one else str(finding.text)
    return str(finding.text)
