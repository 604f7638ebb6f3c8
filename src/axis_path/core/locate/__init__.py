"""Find what is asked for, and say how far it is sure.

Read ``zeros.py``: what is proved there and what is not.
"""

from axis_path.core.locate.cells import Interval, interval
from axis_path.core.locate.exact import candidates, written
from axis_path.core.locate.finding import Finding, Findings, Kind
from axis_path.core.locate.polynomial import is_polynomial
from axis_path.core.locate.quick import quick_zeros
from axis_path.core.locate.zeros import find_zeros

__all__ = [
    "Finding",
    "Findings",
    "Interval",
    "Kind",
    "candidates",
    "find_zeros",
    "interval",
    "is_polynomial",
    "quick_zeros",
    "written",
]
