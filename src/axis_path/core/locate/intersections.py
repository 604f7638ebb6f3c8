"""Where two curves meet: functions, paths, curves by an angle, and equations, in any pair.

Whatever one of the two is, if it can be followed by one number (a function by x, a path by its
parameter, an equation that is linear in y or in x), what is sought are the zeros of one function of
that number, and ``zeros.py`` proves them. Only two paths, or two equations, are solved in the plane
(``plane_search.py``).

A crossing is distinguished from a contact by the order of the zero: the difference changes its
sign at an odd one.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.errors import NotHandledError
from axis_path.core.evaluate import (
    End,
    Expression,
    RealFunction,
    RealPath,
    RealSurface,
    SharedGraph,
)
from axis_path.core.locate.cells import Interval, Root
from axis_path.core.locate.finding import Finding, Findings, Kind
from axis_path.core.locate.plane.intersections import (
    Bounds,
    Curve,
    of_equations,
    of_paths,
    without_duplicates,
)
from axis_path.core.locate.search.parts import take_apart
from axis_path.core.locate.search.stopped import put_together
from axis_path.core.locate.search.verdict import SAME_ALL_ALONG, Verdict, finding_at, value_text
from axis_path.core.locate.search.zeros import SEARCH_BITS, clip, judged_roots, searched

_TOUCH = "they touch here without crossing"
_CROSS = "they cross here"


@dataclass(frozen=True, slots=True)
class _Track:
    """A curve that is followed by one number: its coordinates on a shared graph.

    Attributes:
        domain: the function that gives the domain of the number.
        function: the function whose graph it is, if it is one.
    """

    x: int
    y: int
    domain: RealFunction
    function: RealFunction | None = None


def find_intersections(one: Curve, other: Curve, bounds: Bounds, interval: Interval) -> Findings:
    """Locate where two curves meet.

    Args:
        one: a curve.
        other: another with the same values of the sliders.
        bounds: where they are sought.
        interval: the abscissae within which curves without bounds of their own are followed.

    Raises:
        NotHandledError: they cannot be followed.
    """
    with precision(SEARCH_BITS):
        return searched(lambda: _intersections(one, other, bounds, interval))


def _intersections(one: Curve, other: Curve, bounds: Bounds, interval: Interval) -> Findings:
    shared = SharedGraph.of(_expression(one), _expression(other))
    first, second = _track(shared, one), _track(shared, other)
    if first is not None and second is not None:
        if second.function is not None:
            return _along(
                shared, first, _above(shared, first, second.function), other, bounds, interval
            )
        if first.function is not None:
            return _along(
                shared, second, _above(shared, second, first.function), one, bounds, interval
            )
        straight = _along_straight(shared, (one, first), (other, second), bounds, interval)
        return straight or of_paths(shared, one, other, bounds)
    if first is not None and isinstance(other, RealSurface):
        return _along(shared, first, _put_into(shared, first, other), other, bounds, interval)
    if second is not None and isinstance(one, RealSurface):
        return _along(shared, second, _put_into(shared, second, one), one, bounds, interval)
    if isinstance(one, RealSurface) and isinstance(other, RealSurface):
        return of_equations(one, other, bounds, interval)
    raise NotHandledError("These two curves cannot be followed together.")


def _expression(curve: Curve) -> Expression:
    return curve.y.expression if isinstance(curve, RealPath) else curve.expression


def _track(shared: SharedGraph, curve: Curve) -> _Track | None:
    """Follow a curve by one number, if it can be."""
    if isinstance(curve, RealFunction):
        return _Track(shared.variable, shared.take(curve.expression), curve, curve)
    if isinstance(curve, RealPath):
        return _Track(shared.take(curve.x.expression), shared.take(curve.y.expression), curve.x)
    for by, is_up in ((curve.second, True), ("", False)):
        solved = _solved(shared, curve, by)
        if solved is not None:
            domain = RealFunction(
                "", "x" if is_up else "y", shared.expression(solved), curve.parameters
            )
            if is_up:
                return _Track(shared.variable, solved, domain, domain)
            return _Track(solved, shared.variable, domain)
    return None


def _solved(shared: SharedGraph, surface: RealSurface, by: str) -> int | None:
    """Solve an equation for a variable that it is linear in, with a fixed factor; else None."""
    slope = surface.expression.derivative(by)
    if any(step.op in ("variable", "input") for step in slope.program.steps):
        return None
    factor = shared.take(slope)
    value = shared.graph.value(factor)
    if value == 0 or value is None:
        return None
    zero = shared.graph.number(0)
    if by:
        rest = shared.take(surface.expression, inputs={surface.second: zero})
    else:
        rest = shared.take(surface.expression, zero, {surface.second: shared.variable})
    return shared.graph.negative(shared.graph.over(rest, factor))


def _above(shared: SharedGraph, track: _Track, function: RealFunction) -> int:
    """Return how far a curve lies above the graph of a function."""
    return shared.graph.minus(track.y, shared.take(function.expression, track.x))


def _put_into(shared: SharedGraph, track: _Track, surface: RealSurface) -> int:
    return shared.take(surface.expression, track.x, {surface.second: track.y})


def _along_straight(
    shared: SharedGraph,
    one: tuple[Curve, _Track],
    other: tuple[Curve, _Track],
    bounds: Bounds,
    interval: Interval,
) -> Findings | None:
    """Find where two paths meet if one has a coordinate that is linear in its parameter.

    That coordinate of the other path gives the parameter, and so one number is left.
    """
    for (path, _), (followed, track) in ((one, other), (other, one)):
        if not (isinstance(path, RealPath) and isinstance(followed, RealPath)):
            continue
        for straight, across, theirs, height in (
            (path.x, path.y, followed.x, track.y),
            (path.y, path.x, followed.y, track.x),
        ):
            parameter = _parameter_at(shared, straight, theirs)
            if parameter is None:
                continue
            gap = shared.graph.minus(height, shared.take(across.expression, parameter))
            given = replace(track.domain, expression=shared.expression(parameter))
            try:
                return _along(shared, track, gap, _On(given, path), bounds, interval)
            except NotHandledError:
                continue
    return None


def _parameter_at(shared: SharedGraph, straight: RealFunction, theirs: RealFunction) -> int | None:
    """Solve a coordinate of a path for its parameter where the other path has its own coordinate.

    Returns:
        The step; None if the coordinate is not linear.
    """
    line = _line_of(shared, straight)
    if line is None:
        return None
    factor, start = line
    other = _line_of(shared, theirs)
    if other is not None and other[1] == start:
        return shared.graph.times(shared.graph.number(other[0] / factor), shared.variable)
    difference = shared.graph.minus(shared.take(theirs.expression), start)
    return shared.graph.over(difference, shared.graph.number(factor))


def _line_of(shared: SharedGraph, coordinate: RealFunction) -> tuple[Fraction, int] | None:
    """Return the factor and the start of a coordinate that is linear and not level; else None."""
    try:
        factor = shared.graph.value(shared.take(coordinate.expression.derivative()))
    except NotHandledError:
        return None
    return (factor, shared.take(coordinate.expression, shared.graph.number(0))) if factor else None


@dataclass(frozen=True, slots=True)
class _On:
    """A path that another curve must meet between its ends.

    Attributes:
        parameter: of the path, as a function of the number by which the other curve is followed.
    """

    parameter: RealFunction
    path: RealPath

    def holds(self, root: Root) -> bool | None:
        """Check whether the path goes through a root; None if that is not known."""
        at = self.parameter.settle(root.abscissa, root.zeros)
        answers = [
            _inside_end(at, end, side) for end, side in ((self.path.low, 1), (self.path.high, -1))
        ]
        return False if False in answers else None if None in answers else True


def _along(
    shared: SharedGraph,
    track: _Track,
    difference: int,
    other: Curve | _On,
    bounds: Bounds,
    interval: Interval,
) -> Findings:
    """Find where something is zero along a curve, and keep what lies in the bounds."""
    gap = replace(track.domain, expression=shared.expression(difference))
    span = _span(track, other, bounds, interval)
    inside = clip(gap, span)
    if inside is None:
        return Findings((), complete=True, note="There is no place where both are defined.")
    anatomy = take_apart(gap, inside)
    verdict = judged_roots(anatomy, SAME_ALL_ALONG)
    points = _met_at(verdict, shared, track, other, bounds, inside)
    merged = without_duplicates(put_together(points, verdict.is_stopped))
    complete = verdict.complete and all(finding.proved for finding in merged)
    return Findings(tuple(merged), complete, verdict.note)


def _met_at(
    verdict: Verdict,
    shared: SharedGraph,
    track: _Track,
    other: Curve | _On,
    bounds: Bounds,
    inside: Interval,
) -> Iterator[Finding]:
    """Return the points at the roots along a curve, as far as they are in bounds."""
    is_graph = track.function is not None
    x, y = (replace(track.domain, expression=shared.expression(s)) for s in (track.x, track.y))
    for root in verdict.roots:
        abscissa = root.abscissa if is_graph else x.prove(root.abscissa)
        ordinate = y.prove(root.abscissa)
        is_within = _is_within(abscissa, ordinate, bounds, other, is_graph)
        if isinstance(other, _On) and is_within is not False:
            goes_through = other.holds(root)
            is_within = None if is_within is None and goes_through else goes_through
        if is_within is False:
            continue
        why = "" if root.order is None else _TOUCH if root.order % 2 == 0 else _CROSS
        if any(root.abscissa.value.overlaps(end.value) for end in (inside.low, inside.high)):
            why = "they meet here, at an end"
        if not is_graph:
            where = f"at {track.domain.variable} = {value_text(root.abscissa)}"
            if isinstance(other, _On):
                where += f" of {track.domain.name}"
            why = f"{where}; {why}" if why else where
        note = root.note
        proved = root.proved and is_within is True
        if is_within is None:
            note = "whether it lies inside what is searched is not proved"
        finding = finding_at(
            Kind.INTERSECTION, abscissa, ordinate, proved=proved, why=why, note=note
        )
        exact = finding.exact or (root.surd if is_graph else None)
        yield replace(finding, multiplicity=root.order, exact=exact)


def _span(track: _Track, other: Curve | _On, bounds: Bounds, interval: Interval) -> Interval:
    """Return between which values of its number a curve is followed."""
    if track.function is not None:
        return within(other, interval) if isinstance(other, RealFunction) else interval
    low, high = track.domain.low, track.domain.high
    if low is not None and high is not None:
        return Interval(low.value, high.value, low.closed, high.closed)
    return interval if bounds.y is None else Interval(*bounds.y)


def within(function: RealFunction, interval: Interval) -> Interval:
    """Cut an interval to the domain of a function; of one outside, a single point is left."""
    low, high = interval.low, interval.high
    low_closed, high_closed = interval.low_closed, interval.high_closed
    if function.low is not None and bool(function.low.value.value > low.value):
        low, low_closed = function.low.value, function.low.closed
    if function.high is not None and bool(function.high.value.value < high.value):
        high, high_closed = function.high.value, function.high.closed
    return Interval(low, high, low_closed, high_closed)


def _is_within(x: Ball, y: Ball, bounds: Bounds, other: Curve | _On, is_graph: bool) -> bool | None:
    """Check whether a point lies in the bounds and in the domain of the other curve."""
    answers: list[bool | None] = []
    for value, ends in ((x, bounds.x), (y, bounds.y)):
        if ends is not None and not (is_graph and value is x):
            answers += [_not_below(value, ends[0]), _not_below(ends[1], value)]
    if isinstance(other, RealFunction):
        for end, side in ((other.low, 1), (other.high, -1)):
            if end is not None and not is_graph:
                answers.append(_inside_end(x, end, side))
        for value in other.without:
            sign = ball.subtract(x, value).sign()
            answers.append(None if sign is None else sign != 0)
    if False in answers:
        return False
    return None if None in answers else True


def _not_below(value: Ball, bound: Ball) -> bool | None:
    sign = ball.subtract(value, bound).sign()
    return None if sign is None else sign != -1


def _inside_end(x: Ball, end: End, side: int) -> bool | None:
    sign = ball.subtract(x, end.value).sign()
    if sign is None:
        return None
    return sign == side or (sign == 0 and end.closed)
