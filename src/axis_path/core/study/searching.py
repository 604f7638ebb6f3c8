"""What is located in a study: zeros, extrema, intersections, and how they follow a slider."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from fractions import Fraction

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.draw import HOME_X
from axis_path.core.errors import DomainError, LimitError
from axis_path.core.evaluate import VALUE_BITS, RealFunction, RealSurface
from axis_path.core.language import spelled
from axis_path.core.limits import SWEEP_VALUES
from axis_path.core.locate import (
    Bounds,
    Curve,
    Findings,
    Interval,
    Search,
    Sweep,
    Wanted,
    find_breaks,
    find_extrema,
    find_inflections,
    find_meetings,
    find_zeros,
    sweep,
)
from axis_path.core.study.meaning import Kind
from axis_path.core.study.sliding import GivenNumber
from axis_path.core.study.tabling import Tabling

#: Two equations are solved between these bounds where none are given.
_FAR = 1_000


class Searching(Tabling):
    """Functions that can be searched."""

    def zeros(
        self, name: str, low: GivenNumber | None = None, high: GivenNumber | None = None
    ) -> Findings:
        """Locate all zeros of a function.

        Args:
            name: the function.
            low: where to begin; by default the lower end of its domain, or that of the window a
                study begins with.
            high: the same for the upper end.

        Raises:
            MathError: the name is not a function that works, or the ends have no value.
        """
        function = self.function(name)
        return find_zeros(function, self.interval(function, low, high))

    def extrema(
        self,
        name: str,
        low: GivenNumber | None = None,
        high: GivenNumber | None = None,
        *,
        at_window: bool = False,
    ) -> Findings:
        """Locate all minima and maxima of a function, at kinks, jumps and ends too.

        Args:
            name: the function.
            low: where to begin; as for ``zeros``.
            high: the same for the upper end.
            at_window: whether these ends are only those of a window: no extremum lies at them. Nor
                at those of the first window, where no end is given and the domain has none.

        Raises:
            MathError: the name is not a function that works, or the ends have no value.
        """
        function = self.function(name)
        inside = self.interval(function, low, high)
        is_edge = (
            at_window or (low is None and function.low is None),
            at_window or (high is None and function.high is None),
        )
        inside = replace(inside, low_is_edge=is_edge[0], high_is_edge=is_edge[1])
        return find_extrema(function, inside)

    def inflections(
        self, name: str, low: GivenNumber | None = None, high: GivenNumber | None = None
    ) -> Findings:
        """Locate where the graph of a function changes the side to which it bends.

        Args:
            name: the function.
            low: where to begin; as for ``zeros``.
            high: the same for the upper end.

        Raises:
            MathError: the name is not a function that works, or the ends have no value.
        """
        function = self.function(name)
        return find_inflections(function, self.interval(function, low, high))

    def breaks(
        self, name: str, low: GivenNumber | None = None, high: GivenNumber | None = None
    ) -> Findings:
        """Locate the poles, jumps and holes of a function, and where its domain ends.

        Args:
            name: the function.
            low: where to begin; as for ``zeros``.
            high: the same for the upper end.

        Raises:
            MathError: the name is not a function that works, or the ends have no value.
        """
        function = self.function(name)
        return find_breaks(function, self.interval(function, low, high))

    def intersections(
        self,
        name: str,
        other: str,
        low: GivenNumber | None = None,
        high: GivenNumber | None = None,
        *,
        y_low: GivenNumber | None = None,
        y_high: GivenNumber | None = None,
    ) -> Findings:
        """Locate where two curves meet: functions, paths, curves by an angle, or equations.

        Args:
            name: a curve.
            other: a curve.
            low: where to begin; by default as for ``zeros`` where a function takes part, and
                everywhere where none does.
            high: the same for the upper end.
            y_low: the least ordinate; needed only for two equations, with the bounds of the first
                window by default.
            y_high: the same for the greatest.

        Raises:
            MathError: a name is not a curve that works, or the ends have no value.
        """
        one, second = self.curve_of(name), self.curve_of(other)
        functions = [each for each in (one, second) if isinstance(each, RealFunction)]
        interval = self.interval(functions[0] if functions else None, low, high)
        is_bounded = functions or low is not None or high is not None
        x = (interval.low, interval.high) if is_bounded else None
        ends = [None if end is None else self.number(end) for end in (y_low, y_high)]
        y = None if ends[0] is None or ends[1] is None else (ends[0], ends[1])
        if y is None and isinstance(one, RealSurface) and isinstance(second, RealSurface):
            y = (self.number(-_FAR), self.number(_FAR))
            x = x or (self.number(-_FAR), self.number(_FAR))
        return find_meetings(one, second, Bounds(x, y), interval)

    def curve_of(self, name: str) -> Curve:
        """Return a line that is drawn as a curve, in the form in which it is located.

        Raises:
            MathError: it is no curve, or does not work.
        """
        definition = self.definition(self._line_of(name).id)
        if definition.problem is not None:
            raise definition.problem
        if definition.kind in (Kind.PATH, Kind.POLAR):
            return self._real_path(definition)
        if definition.kind in (Kind.RELATION, Kind.REGION):
            relation = self._real_relation(definition)
            if not relation.is_equation:
                raise DomainError("A region has no line to meet: write its border as an equation.")
            return relation.conditions[0]
        return self._real_function(definition)

    def sweep_values(self, slider: str, count: int) -> list[Fraction]:
        """Return evenly spaced values over the range of a slider, for a sweep.

        Raises:
            MathError: there is no such slider, or too many or too few are wanted.
        """
        if not 2 <= count <= SWEEP_VALUES.value:
            raise LimitError(f"A sweep takes 2 to {SWEEP_VALUES.value:,} values of the slider.")
        chosen = self.slider_range(self._line_of(slider).id)
        step = (chosen.high - chosen.low) / (count - 1)
        return [chosen.low + k * step for k in range(count)]

    def located(self, wanted: Wanted) -> Findings:
        """Locate what is described, in the present state.

        Raises:
            MathError: it cannot be searched for.
        """
        ends = wanted.low, wanted.high
        if wanted.what is Search.EXTREMA:
            found = self.extrema(wanted.name, *ends)
            # An extremum of one side stays at its end whatever the slider does.
            return replace(found, items=tuple(each for each in found if not each.at_end))
        if wanted.what is Search.INTERSECTIONS:
            return self.intersections(wanted.name, wanted.other, *ends)
        return self.zeros(wanted.name, *ends)

    def sweep(
        self,
        slider: str,
        wanted: Wanted,
        values: Sequence[Fraction],
        progress: Callable[[int], None] = lambda done: None,
    ) -> Sweep:
        """Follow a finding over values of a slider.

        Args:
            slider: its name.
            wanted: what to locate for each of its values.
            values: of the slider, rising; see ``sweep_values``.
            progress: is told how many values are done; it may raise to end the sweep.

        Raises:
            MathError: there is no such slider, or it cannot be searched for.
        """
        slider = spelled(slider)
        function = self.function(wanted.name)
        found = self.interval(function, wanted.low, wanted.high)
        ends = (float(found.low.value.mid()), float(found.high.value.mid()))
        return sweep(
            lambda value: self.at({slider: value}).located(wanted),
            values, name=slider, interval=ends, progress=progress,
        )  # fmt: skip

    def interval(
        self,
        function: RealFunction | None,
        low: GivenNumber | Ball | None,
        high: GivenNumber | Ball | None,
    ) -> Interval:
        """Return where to search: what is given, else the domain, else the first window.

        Raises:
            DomainError: there is nothing between the ends.
        """
        ends = []
        own_low, own_high = (None, None) if function is None else (function.low, function.high)
        for given, own, home in ((low, own_low, HOME_X[0]), (high, own_high, HOME_X[1])):
            if isinstance(given, Ball):
                ends.append(given)
            elif given is not None:
                ends.append(self.number(given))
            else:
                ends.append(own.value if own is not None else self.number(home))
        with precision(VALUE_BITS):
            if ball.subtract(ends[1], ends[0]).sign() != 1:
                raise DomainError("The search needs a lower end that is less than its upper end.")
        return Interval(ends[0], ends[1])
