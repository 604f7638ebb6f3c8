"""The marks that stand on the plane and the lanes."""

from __future__ import annotations

from fractions import Fraction
from typing import Any

import numpy as np

from axis_path.core.arithmetic import ball
from axis_path.core.draw import Window
from axis_path.core.draw.pixels import tenths_across
from axis_path.core.evaluate import RealFunction
from axis_path.core.limits import MARK_CELLS
from axis_path.core.locate import Finding, Findings, Interval, find_zeros


def locate_marks(function: RealFunction, window: Window) -> Findings:
    """Locate the zeros in the window, with less patience than a search that was asked for."""
    low, high = (ball.from_fraction(Fraction(bound)) for bound in window.x)
    return find_zeros(function, Interval(low, high), max_cells=MARK_CELLS.value)


def mark_dict(finding: Finding, window: Window) -> dict[str, Any]:
    """Give a mark as plain data, with a short text that stands at it."""
    place = np.array([finding.x])
    return {
        "x": int(tenths_across(place, window)[0]),
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
