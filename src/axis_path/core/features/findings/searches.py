"""What is located in a study: zeros, extrema, intersections, and how they follow a slider."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from fractions import Fraction

from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.compile.curves import Curves
from axis_path.core.compile.numbers import GivenNumber, Numbers
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import PlaneUnits
from axis_path.core.dimensions.curve_units import CurveUnits
from axis_path.core.dimensions.words import described
from axis_path.core.errors import LimitError, UnitError
from axis_path.core.evaluate import RealFunction, RealSurface
from axis_path.core.kinds.drawables import Drawables
from axis_path.core.language import spelled
from axis_path.core.limits import SWEEP_VALUES
from axis_path.core.locate import (
    Bounds,
    Findings,
    Search,
    SearchRequest,
    Sweep,
    find_breaks,
    find_extrema,
    find_inflections,
    find_intersections,
    find_zeros,
    sweep,
)

#: Two equations are solved between these bounds where none are given.
_FAR = 1_000


def in_units(findings: Findings, units: CurveUnits) -> Findings:
    """Return findings that say of which units their numbers are."""
    if units.is_plain:
        return findings
    return replace(findings, x_unit=units.variable.symbol, y_unit=units.y.symbol)


class Searches:
    """What can be located in a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._drawables = snapshot.query(Drawables)
        self._curves = snapshot.query(Curves)
        self._numbers = snapshot.query(Numbers)
        self._sliders = snapshot.query(Sliders)
        self._units = snapshot.query(PlaneUnits)

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
        function = self._curves.function(name)
        findings = find_zeros(function, self._numbers.interval(function, low, high))
        return in_units(findings, function.units)

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
        function = self._curves.function(name)
        inside = self._numbers.interval(function, low, high)
        is_edge = (
            at_window or (low is None and function.low is None),
            at_window or (high is None and function.high is None),
        )
        inside = replace(inside, low_is_edge=is_edge[0], high_is_edge=is_edge[1])
        return in_units(find_extrema(function, inside), function.units)

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
        function = self._curves.function(name)
        findings = find_inflections(function, self._numbers.interval(function, low, high))
        return in_units(findings, function.units)

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
        function = self._curves.function(name)
        findings = find_breaks(function, self._numbers.interval(function, low, high))
        return in_units(findings, function.units)

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
        one, second = self._drawables.curve_of(name), self._drawables.curve_of(other)
        functions = [curve for curve in (one, second) if isinstance(curve, RealFunction)]
        units = self._common_units(name, other)
        given = [None if end is None else self._numbers.number(end, units.x) for end in (low, high)]
        interval = self._numbers.interval(functions[0] if functions else None, *given)
        is_bounded = functions or low is not None or high is not None
        x = (interval.low, interval.high) if is_bounded else None
        ends = [
            None if end is None else self._numbers.number(end, units.y) for end in (y_low, y_high)
        ]
        y = None if ends[0] is None or ends[1] is None else (ends[0], ends[1])
        if y is None and isinstance(one, RealSurface) and isinstance(second, RealSurface):
            y = (self._numbers.number(-_FAR), self._numbers.number(_FAR))
            x = x or (self._numbers.number(-_FAR), self._numbers.number(_FAR))
        return in_units(find_intersections(one, second, Bounds(x, y), interval), units)

    def _common_units(self, name: str, other: str) -> CurveUnits:
        """Return the units of two curves on the plane.

        Raises:
            UnitError: they do not stand on the same axes, so that they cannot meet.
        """
        one, second = (self._units.of(self._snapshot.definition_of(line)) for line in (name, other))
        for axis in ("x", "y"):
            units = getattr(one, axis), getattr(second, axis)
            is_alike = units[0].has_zero == units[1].has_zero
            if units[0].dimension != units[1].dimension or not is_alike:
                words = [_measured(unit, is_alike=is_alike) for unit in units]
                raise UnitError(
                    f"`{name}` and `{other}` cannot meet: along the {axis} axis `{name}` measures "
                    f"{words[0]} and `{other}` {words[1]}."
                )
        return one

    def sweep_values(self, slider: str, count: int) -> list[Fraction]:
        """Return evenly spaced values over the range of a slider, for a sweep.

        Raises:
            MathError: there is no such slider, or too many or too few are wanted.
        """
        if not 2 <= count <= SWEEP_VALUES.value:
            raise LimitError(f"A sweep takes 2 to {SWEEP_VALUES.value:,} values of the slider.")
        chosen = self._sliders.slider_range(self._snapshot.line_of(slider).id)
        step = (chosen.high - chosen.low) / (count - 1)
        return [chosen.low + k * step for k in range(count)]

    def located(self, request: SearchRequest) -> Findings:
        """Locate what is described, in the present state.

        Raises:
            MathError: it cannot be searched for.
        """
        ends = request.low, request.high
        if request.what is Search.EXTREMA:
            findings = self.extrema(request.name, *ends)
            # An extremum of one side stays at its end whatever the slider does.
            return replace(
                findings, items=tuple(finding for finding in findings if not finding.at_end)
            )
        if request.what is Search.INTERSECTIONS:
            return self.intersections(request.name, request.other, *ends)
        return self.zeros(request.name, *ends)

    def sweep(
        self,
        slider: str,
        request: SearchRequest,
        values: Sequence[Fraction],
        progress: Callable[[int], None] = lambda done: None,
    ) -> Sweep:
        """Follow a finding over values of a slider.

        Args:
            slider: its name.
            request: what to locate for each of its values.
            values: of the slider, rising; see ``sweep_values``.
            progress: receives how many values are done; it may raise to end the sweep.

        Raises:
            MathError: there is no such slider, or it cannot be searched for.
        """
        slider = spelled(slider)
        function = self._curves.function(request.name)
        steps = self._numbers.interval(function, request.low, request.high)
        ends = (float(steps.low.value.mid()), float(steps.high.value.mid()))
        return sweep(
            lambda value: self._at(slider, value).located(request),
            values, name=slider, interval=ends, progress=progress,
        )  # fmt: skip

    def _at(self, slider: str, value: Fraction) -> Searches:
        return self._snapshot.with_values({slider: value}).query(Searches)


def _measured(unit: UnitProduct, *, is_alike: bool) -> str:
    """Return what stands on an axis in a unit, in words."""
    if is_alike:
        return described(unit.dimension)
    return (
        f"a temperature in {unit.printed}" if unit.has_zero else f"a difference in {unit.printed}"
    )
