"""What a function is at one point, and over an interval, with every digit right."""

from __future__ import annotations

import math
import re
from collections.abc import Callable
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cache, partial
from itertools import pairwise

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.compile.curves import Curves
from axis_path.core.compile.integrals.queries import Integrals, is_endless
from axis_path.core.compile.numbers import GivenNumber, Numbers
from axis_path.core.compile.results import Results
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import PlaneUnits
from axis_path.core.deadline import calculation
from axis_path.core.dimensions import CurveUnits
from axis_path.core.errors import MathError, NotHandledError
from axis_path.core.evaluate import (
    VALUE_BITS,
    ExactForm,
    RealFunction,
    make_result,
)
from axis_path.core.features.findings.searches import in_units
from axis_path.core.lines.sliders import literal
from axis_path.core.locate import (
    MEASURED,
    MOST_PARTS,
    PART_BITS,
    Asymptotes,
    Findings,
    Interpolation,
    Interval,
    Parts,
    abscissa_text,
    digits_shown,
    find_asymptotes,
    find_breaks,
    find_in_data,
    find_zeros,
    smooth_parts,
    value_text,
)

#: What is shown is asked for with so many binary digits at least, beside those that are shown.
_LEAST_BITS, _MORE_BITS = 64, 16
_UNDECIDED = "it could not be decided"
#: What is nearer to 0 than this can be said to be so.
_TINY = 1e-20
#: More than floats are rounded by.
_ABOVE = 1 + 1e-9


@dataclass(frozen=True, slots=True)
class Measure:
    """One number that was measured.

    Attributes:
        name: what it is.
        text: in exact form where it has one, else a decimal; empty without a value.
        decimal: the decimal, where the text is an exact form.
        value: the nearest float, NaN without a value.
        reason: why there is none.
        unit: of the number, as it is printed; empty for a plain number.
    """

    name: str
    text: str
    decimal: str
    value: float
    reason: str = ""
    unit: str = ""

    def of_unit(self, unit: UnitProduct) -> Measure:
        """Return the measure with the unit of its number."""
        return replace(self, unit=unit.printed if self.text else "")


@dataclass(frozen=True, slots=True)
class AtPoint:
    """A function at one point.

    Attributes:
        measures: value, slope, bend, curvature.
        tangent: the tangent line as a text of our language that follows the function; empty if
            there is none. ``normal`` likewise.
    """

    measures: tuple[Measure, ...]
    tangent: str
    normal: str


class Measures:
    """What can be measured of the functions of a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._curves = snapshot.query(Curves)
        self._integrals = snapshot.query(Integrals)
        self._numbers = snapshot.query(Numbers)
        self._results = snapshot.query(Results)
        self._units = snapshot.query(PlaneUnits)

    def at_point(self, name: str, x: GivenNumber) -> AtPoint:
        """Measure a function at a point.

        Args:
            name: the function.
            x: where.

        Raises:
            MathError: the name is no function that works, or the place has no value.
        """
        function = self._curves.function(name)
        units = function.units
        abscissa = self._numbers.number(x, units.variable)
        with precision(VALUE_BITS):
            value = function.prove_within(abscissa)
            slope, bend = _slopes(function, abscissa)
            one = ball.from_fraction(1)
            per = units.y / units.variable
            measures = [
                _measure("value", value).of_unit(units.y),
                _measure("slope", slope).of_unit(per),
                _measure("second derivative", bend).of_unit(per / units.variable),
            ]
            # Axes of different units have no circle, and so no curvature.
            is_round = units.y == units.variable
            if is_round and slope.defined is Defined.YES and bend.defined is Defined.YES:
                speed = ball.add(one, ball.integer_power(slope, 2))
                curvature = ball.divide(ball.absolute(bend), ball.root(speed, 3, 2))
                reciprocal = units.y.to_the(Fraction(-1))
                measures.append(_measure("curvature", curvature).of_unit(reciprocal))
                if curvature.excludes_zero():
                    radius = _measure("radius of curvature", ball.divide(one, curvature))
                    measures.append(radius.of_unit(units.y))
        if not (value.is_defined and slope.is_defined):
            return AtPoint(tuple(measures), "", "")
        at = _abscissa_text(x, abscissa, units.variable)
        called, there = f"{function.name}({at})", f"{function.name}'({at})"
        inner = at if re.fullmatch(r"[\w.π]+", at) else f"({at})"
        step = f"({function.variable} - {inner})"
        tangent = f"{called} + {there} {step}"
        is_upright = is_round and slope.excludes_zero()
        normal = f"{called} - {step}/{there}" if is_upright else ""
        return AtPoint(tuple(measures), tangent, normal)

    def over_interval(
        self, name: str, low: GivenNumber | None = None, high: GivenNumber | None = None
    ) -> tuple[Measure, ...]:
        """Measure a function over an interval: integral, area, mean value, arc length.

        Args:
            name: the function.
            low: where to begin; as for ``zeros``, or "-inf".
            high: where to end, or "inf".

        Raises:
            MathError: the name is no function that works, or the ends have no value.
        """
        function = self._curves.function(name)
        measures = self._over_interval(function, low, high)
        if function.units.is_plain:
            return measures
        return tuple(_of_units(measure, function.units) for measure in measures)

    def _over_interval(
        self, function: RealFunction, low: GivenNumber | None, high: GivenNumber | None
    ) -> tuple[Measure, ...]:
        """Measure a function over an interval, in numbers on the axes."""
        if is_endless(low) or is_endless(high):
            return self._without_end(function, low, high)
        interval = self._numbers.interval(function, low, high)
        ends = [
            f"({value_text(end) if given is None or function.units.variable.parts else given})"
            for end, given in ((interval.low, low), (interval.high, high))
        ]
        measures = self._by_parts(function, interval, ends)
        if measures is not None:
            return measures
        x, value, slope = function.variable, _called(function, 0), _called(function, 1)
        whole = f"integral({value}, {x}, {ends[0]}, {ends[1]})"
        return (
            self._measured("integral", whole),
            self._measured("area", self._area(function, interval, ends)),
            self._measured("mean value", f"{whole}/({ends[1]} - {ends[0]})"),
            self._measured(
                "arc length", f"integral(sqrt(1 + {slope}^2), {x}, {ends[0]}, {ends[1]})"
            ),
        )

    def _without_end(
        self, function: RealFunction, low: GivenNumber | None, high: GivenNumber | None
    ) -> tuple[Measure, ...]:
        """Measure a function over an interval without end on one side or on both."""
        parts = self._integrals.endless_parts(function, low, high)
        if not isinstance(parts, Parts):
            return tuple(_without_value(name, parts) for name in MEASURED)
        return tuple(
            _measured_at(name, partial(measure, parts), is_rough=True)
            for name, measure in MEASURED.items()
        )

    def _by_parts(
        self, function: RealFunction, interval: Interval, ends: list[str]
    ) -> tuple[Measure, ...] | None:
        parts = smooth_parts(function, interval)
        if parts is None:
            return None
        if isinstance(parts, str):
            return tuple(_without_value(name, parts) for name in MEASURED)
        return tuple(
            self._measured(name, self._area(function, interval, ends))
            if name == "area" and parts.cuts is None
            else _measured_at(name, partial(measure, parts), is_rough=parts.is_rough)
            for name, measure in MEASURED.items()
        )

    def _area(self, function: RealFunction, interval: Interval, ends: list[str]) -> str:
        """Write the area between the graph and the axis: cut where the function is zero.

        The cuts are the nearest floats, which changes the area by the square of what they are off:
        far less than any digit that is shown.
        """
        x, value = function.variable, _called(function, 0)
        zeros = find_zeros(function, interval)
        if not zeros.complete or len(zeros) > MOST_PARTS:
            return f"integral(abs({value}), {x}, {ends[0]}, {ends[1]})"
        low, high = (float(end.value.mid()) for end in (interval.low, interval.high))
        inner = [f"({Fraction(zero.x)})" for zero in zeros if low < zero.x < high]
        cuts = pairwise([ends[0], *inner, ends[1]])
        return " + ".join(f"abs(integral({value}, {x}, {a}, {b}))" for a, b in cuts)

    def _measured(self, name: str, text: str) -> Measure:
        try:
            result = self._results.evaluate(text)
        except MathError as err:
            return _without_value(name, err.message)
        decimal = result.decimal(digits_shown())
        if result.reason or not decimal:
            return _without_value(name, result.reason or _UNDECIDED)
        value = result.value if isinstance(result.value, float) else float("nan")
        return Measure(name, decimal, "", value)

    def asymptotes(
        self, name: str, low: GivenNumber | None = None, high: GivenNumber | None = None
    ) -> Asymptotes:
        """Return the asymptotes of a function.

        Args:
            name: the function.
            low: where vertical ones are sought from; as for ``zeros``.
            high: the same for the upper end.

        Raises:
            MathError: the name is no function that works, or the ends have no value.
        """
        function = self._curves.function(name)
        return find_asymptotes(
            function, find_breaks(function, self._numbers.interval(function, low, high))
        )

    def in_data(
        self, name: str, interpolation: Interpolation = Interpolation.LINES, level: GivenNumber = 0
    ) -> Findings:
        """Locate where a list of points crosses a level, and its extreme values.

        Args:
            name: a list of points.
            interpolation: what is taken to lie between them.
            level: the value that is crossed.

        Raises:
            MathError: the name is no list of points, or too few of them have values.
        """
        definition = self._snapshot.definition_of(name)
        units = self._units.of(definition)
        points = (
            self._results.points_of(name)
            if units.is_plain
            else self._results.points_on_plane(definition, units)
        )
        crossed = float(self._numbers.number(level, units.y).value.mid())
        return in_units(find_in_data(points, interpolation, crossed), units)


def _called(function: RealFunction, order: int) -> str:
    """Return the text of a function, or of its slope, in numbers on the axes."""
    x, primes, units = function.variable, "'" * order, function.units
    if units.is_plain:
        return f"{function.name}{primes}({x})"
    at = f"({x}) {units.variable.spelled}" if units.variable.parts else x
    per = units.y / units.variable.to_the(Fraction(order))
    called = f"{function.name}{primes}({at})"
    return f"({called}/(1 {per.spelled}))" if per.parts else called


def _abscissa_text(given: GivenNumber, abscissa: Ball, unit: UnitProduct) -> str:
    """Return a place as a text of our language, with its unit."""
    text = given.strip() if isinstance(given, str) else value_text(abscissa)
    if not unit.parts or (isinstance(given, str) and literal(given) is None):
        return text
    return f"{text} {unit.spelled}"


def _of_units(measure: Measure, units: CurveUnits) -> Measure:
    """Return what was measured over an interval with its unit: an area has their product."""
    if measure.name == "mean value":
        return measure.of_unit(units.y)
    if measure.name == "arc length":
        if units.y != units.variable:
            return _without_value(measure.name, "a length needs the same unit on both axes")
        return measure.of_unit(units.y)
    if units.y.has_zero:
        other = units.y.of_differences.printed
        words = f"an area under temperatures depends on their zero: show them in {other}"
        return _without_value(measure.name, words)
    return measure.of_unit(units.y * units.variable)


def _measured_at(name: str, at_bits: Callable[[int], Ball], *, is_rough: bool) -> Measure:
    digits = digits_shown()
    least = max(_LEAST_BITS, math.ceil(digits * math.log2(10)) + _MORE_BITS)

    @cache
    def integral_at(bits: int) -> Ball:
        return at_bits(bits)

    try:
        with calculation():
            # A result asks for far more digits than an integral has for little.
            result = make_result(
                lambda bits: integral_at(max(bits - PART_BITS // 2, least)),
                lambda: ExactForm(None),
                most_bits=PART_BITS if is_rough else 2 * PART_BITS,
            )
            decimal = result.decimal(digits)
            output = None if decimal else integral_at(PART_BITS // 2)
    except MathError as err:
        return _without_value(name, err.message)
    if output is not None and output.is_defined and output.value.contains(0):
        return _indistinct_from_zero(name, float(output.value.abs_upper()))
    if result.reason or not decimal:
        return _without_value(name, result.reason or _UNDECIDED)
    text = decimal if integral_at(least).exact is None else value_text(integral_at(least))
    return Measure(name, text, "" if text == decimal else decimal, float(result.value))


def _indistinct_from_zero(name: str, size: float) -> Measure:
    """Describe how near to 0 a number is that no digits tell from it; nearly always it is 0."""
    if not 0 < size < _TINY:
        return _without_value(name, _UNDECIDED)
    # The power of ten above it, however the logarithm is rounded: what is said must hold.
    return Measure(name, f"0 ± 10^−{-math.ceil(math.log10(size * _ABOVE))}", "", 0.0)


def _without_value(name: str, reason: str) -> Measure:
    return Measure(name, "", "", float("nan"), reason)


def _slopes(function: RealFunction, abscissa: Ball) -> tuple[Ball, Ball]:
    try:
        slope = function.expression.derivative()
        return function.prove(abscissa, slope), function.prove(abscissa, slope.derivative())
    except NotHandledError as err:
        nothing = ball.undefined(err.message)
        return nothing, nothing


def _measure(name: str, value: Ball) -> Measure:
    if not value.is_defined:
        return _without_value(name, value.reason or _UNDECIDED)
    text, decimal = value_text(value), abscissa_text(value)
    return Measure(name, text, "" if text == decimal else decimal, float(value.value.mid()))
