"""Find what is asked for, and say how far it is sure.

Read ``zeros.py``: what is proved there and what is not.
"""

from axis_path.core.locate.algebra.exact import ball_of, candidates, written
from axis_path.core.locate.algebra.polynomial import is_polynomial
from axis_path.core.locate.asymptotes import Asymptote, Asymptotes, Direction, find_asymptotes
from axis_path.core.locate.breaks import find_breaks
from axis_path.core.locate.cells import Interval, interval
from axis_path.core.locate.data import Interpolation, find_in_data
from axis_path.core.locate.everywhere import Everywhere, find_everywhere, period_of, reach_of
from axis_path.core.locate.extrema import find_extrema
from axis_path.core.locate.finding import Finding, Findings, Kind
from axis_path.core.locate.inequality import (
    Condition,
    EndPoint,
    SolutionInterval,
    SolutionSet,
    find_solution_set,
)
from axis_path.core.locate.inflections import find_inflections
from axis_path.core.locate.intersections import find_intersections
from axis_path.core.locate.linear import LinearEquation, LinearSolution, Outcome, solve_linear
from axis_path.core.locate.measure.by_parts import (
    MEASURED,
    MOST_PARTS,
    PART_BITS,
    Parts,
    smooth_parts,
)
from axis_path.core.locate.measure.endless import EndlessEnd, endless_end
from axis_path.core.locate.plane.intersections import Bounds, Curve, meet_in_box
from axis_path.core.locate.search.isolated import isolated_points, may_be_isolated
from axis_path.core.locate.search.quick import quick_zeros
from axis_path.core.locate.search.verdict import (
    SOLUTIONS,
    abscissa_text,
    digits_shown,
    showing,
    value_text,
)
from axis_path.core.locate.search.zeros import find_zeros
from axis_path.core.locate.search_request import Search, SearchRequest
from axis_path.core.locate.sweep import Branch, Event, Sweep, sweep

__all__ = [
    "MEASURED",
    "MOST_PARTS",
    "PART_BITS",
    "SOLUTIONS",
    "Asymptote",
    "Asymptotes",
    "Bounds",
    "Branch",
    "Condition",
    "Curve",
    "Direction",
    "EndPoint",
    "EndlessEnd",
    "Event",
    "Everywhere",
    "Finding",
    "Findings",
    "Interpolation",
    "Interval",
    "Kind",
    "LinearEquation",
    "LinearSolution",
    "Outcome",
    "Parts",
    "Search",
    "SearchRequest",
    "SolutionInterval",
    "SolutionSet",
    "Sweep",
    "abscissa_text",
    "ball_of",
    "candidates",
    "digits_shown",
    "endless_end",
    "find_asymptotes",
    "find_breaks",
    "find_everywhere",
    "find_extrema",
    "find_in_data",
    "find_inflections",
    "find_intersections",
    "find_solution_set",
    "find_zeros",
    "interval",
    "is_polynomial",
    "isolated_points",
    "may_be_isolated",
    "meet_in_box",
    "period_of",
    "quick_zeros",
    "reach_of",
    "showing",
    "smooth_parts",
    "solve_linear",
    "sweep",
    "value_text",
    "written",
]
