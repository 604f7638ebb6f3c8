"""What a function is at one point, and over an interval, with every digit right."""

from __future__ import annotations

import math
import re
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from functools import cache, partial
from itertools import pairwise

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.deadline import calculation
from axis_path.core.errors import DomainError, MathError, NotHandledError, NoValueError
from axis_path.core.evaluate import (
    VALUE_BITS,
    ExactForm,
    RealFunction,
    Result,
    evaluate_constant,
    make_result,
)
from axis_path.core.language import read_expression
from axis_path.core.language.tree import Name, Node, Over
from axis_path.core.locate import (
    MEASURED,
    MOST_PARTS,
    PART_BITS,
    Asymptotes,
    EndlessEnd,
    Findings,
    Interpolation,
    Interval,
    Parts,
    digits_shown,
    endless_end,
    find_asymptotes,
    find_breaks,
    find_in_data,
    find_zeros,
    place_text,
    smooth_parts,
    value_text,
)
from axis_path.core.study.analysis import input_name
from axis_path.core.study.integrals import (
    Integral,
    integrals_in,
    needs_parts,
    value_of,
    with_names,
    written_out,
)
from axis_path.core.study.sliding import GivenNumber
from axis_path.core.study.solving import Solving

#: What is shown is asked for with so many binary digits at least, beside those that are shown.
_LEAST_BITS, _MORE_BITS = 64, 16
#: An end that is no number.
UPWARDS = frozenset({"inf", "+inf", "∞", "+∞"})
DOWNWARDS = frozenset({"-inf", "−inf", "-∞", "−∞"})
#: Under such names integrals stand in a calculation.
_INTEGRAL = "integral "
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
    """

    name: str
    text: str
    decimal: str
    value: float
    reason: str = ""


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


class Measuring(Solving):
    """Lines whose functions can be measured."""

    def at_point(self, name: str, x: GivenNumber) -> AtPoint:
        """Measure a function at a point.

        Args:
            name: the function.
            x: where.

        Raises:
            MathError: the name is no function that works, or the place has no value.
        """
        function = self.function(name)
        place = self.number(x)
        with precision(VALUE_BITS):
            value = function.prove_within(place)
            slope, bend = _slopes(function, place)
            one = ball.from_fraction(1)
            measures = [
                _measure("value", value),
                _measure("slope", slope),
                _measure("second derivative", bend),
            ]
            if slope.defined is Defined.YES and bend.defined is Defined.YES:
                speed = ball.add(one, ball.integer_power(slope, 2))
                curvature = ball.divide(ball.absolute(bend), ball.root(speed, 3, 2))
                measures.append(_measure("curvature", curvature))
                if curvature.excludes_zero():
                    measures.append(_measure("radius of curvature", ball.divide(one, curvature)))
        if not (value.is_defined and slope.is_defined):
            return AtPoint(tuple(measures), "", "")
        at = x.strip() if isinstance(x, str) else value_text(place)
        called, there = f"{function.name}({at})", f"{function.name}'({at})"
        inner = at if re.fullmatch(r"[\w.π]+", at) else f"({at})"
        step = f"({function.variable} - {inner})"
        tangent = f"{called} + {there} {step}"
        normal = f"{called} - {step}/{there}" if slope.excludes_zero() else ""
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
        function = self.function(name)
        if is_endless(low) or is_endless(high):
            return self._without_end(function, low, high)
        interval = self.interval(function, low, high)
        ends = [
            f"({value_text(end) if given is None else given})"
            for end, given in ((interval.low, low), (interval.high, high))
        ]
        found = self._by_parts(function, interval, ends)
        if found is not None:
            return found
        x, called = function.variable, function.name
        whole = f"integral({called}({x}), {x}, {ends[0]}, {ends[1]})"
        return (
            self._measured("integral", whole),
            self._measured("area", self._area(function, interval, ends)),
            self._measured("mean value", f"{whole}/({ends[1]} - {ends[0]})"),
            self._measured(
                "arc length", f"integral(sqrt(1 + {called}'({x})^2), {x}, {ends[0]}, {ends[1]})"
            ),
        )

    def _without_end(
        self, function: RealFunction, low: GivenNumber | None, high: GivenNumber | None
    ) -> tuple[Measure, ...]:
        """Measure a function over an interval without end on one side or on both."""
        parts = self.endless_parts(function, low, high)
        if not isinstance(parts, Parts):
            return tuple(_without_value(name, parts) for name in MEASURED)
        return tuple(
            _measured_at(name, partial(measure, parts), is_rough=True)
            for name, measure in MEASURED.items()
        )

    def endless_parts(
        self, function: RealFunction, low: GivenNumber | None, high: GivenNumber | None
    ) -> Parts | str:
        """Return the parts of a function over an interval, or why they are not known.

        Args:
            function: what is measured.
            low: where to begin, or "-inf".
            high: where to end, or "inf".

        Raises:
            MathError: the ends have no value, or are in the wrong order.
        """
        if str(low).strip() in UPWARDS or str(high).strip() in DOWNWARDS:
            raise DomainError("The search needs a lower end that is less than its upper end.")
        ends = [None if is_endless(given) else given for given in (low, high)]
        beyond: list[EndlessEnd] = []
        with precision(VALUE_BITS):
            numbers = [self.number(end).value for end in ends if end is not None]
            numbers += [end.value.value for end in (function.low, function.high) if end is not None]
            other = max((abs(float(number.mid())) for number in numbers), default=0.0)
            for k, (given, own) in enumerate(((low, function.low), (high, function.high))):
                if not is_endless(given) or own is not None:
                    continue
                side = (-1, 1)[k]
                end = endless_end(function, side, other)
                if end is None:
                    return "what the function does far out is not known"
                ends[k] = side * end.start
                beyond.append(end)
        parts = smooth_parts(function, self.interval(function, *ends), tuple(beyond))
        return parts if parts is not None else _UNDECIDED

    def evaluate(self, text: str) -> Result:
        """Compute an expression: a number, a point, a list, or a number with i.

        Integrals in it may have kinks, jumps and places without a value, and go on without end.

        Raises:
            MathError: it does not read, or needs a value that is missing.
        """
        node = read_expression(text, self._analysis.names())
        found = self._by_integrals(node)
        return found if found is not None else super().evaluate(text)

    def value(self, name: str) -> Result:
        """Compute the value of a parameter, a point or a list; see ``evaluate`` for integrals.

        Raises:
            MathError: the name is not defined, is a function, or has a problem.
        """
        analysis = self._analysis
        if name in analysis.integral_names:
            found = self._by_integrals(Name(name))
            if found is not None:
                return found
        return super().value(name)

    def _by_integrals(self, node: Node) -> Result | None:
        """Compute an expression whose integrals are better measured part by part; else None."""
        analysis = self._analysis
        names_out = analysis.integral_names
        node = written_out(
            node, lambda name: analysis.number_of(name) if name in names_out else None
        )
        measured: dict[Over, Callable[[int], Ball]] = {}
        integrals = integrals_in(node)
        for integral in integrals:
            found = self._integral_by_parts(integral)
            if found is not None:
                measured[integral.node] = found
        if not measured:
            return None
        names = {over: f"{_INTEGRAL}{k}" for k, over in enumerate(measured)}
        expression = analysis.expression(with_names(node, names), tuple(names.values()))

        def at_bits(bits: int) -> Ball:
            digits = min(max(bits - PART_BITS // 2, _LEAST_BITS), PART_BITS // 2)
            inputs = {input_name(names[over]): each(digits) for over, each in measured.items()}
            return evaluate_constant(expression, self._values, bits=bits, inputs=inputs)

        def look() -> ExactForm:
            return self._evaluator().exact_form(analysis.compile_constant(node), at_bits)

        return make_result(at_bits, look, most_bits=PART_BITS)

    def _integral_by_parts(self, integral: Integral) -> Callable[[int], Ball] | None:
        """Return what computes an integral that is better measured part by part; else None."""
        low, high, sign = integral.low, integral.high, 1
        if not integral.is_endless:
            with precision(VALUE_BITS):
                order = ball.subtract(self.number(high), self.number(low)).sign()
            if order not in (-1, 1):
                return None
            if order < 0:
                low, high, sign = high, low, -1
        elif low.startswith("inf") or high.startswith("-inf"):
            low, high, sign = high, low, -1
        variable = integral.node.variable
        body = self._analysis.side(integral.node.body, variable)
        function = RealFunction("the body", variable, body, self._values)
        if integral.is_endless:
            parts: Parts | str | None = self.endless_parts(function, low, high)
            if isinstance(parts, str):
                raise NoValueError(f"This integral has no value that is known: {parts}.")
        else:
            parts = smooth_parts(function, self.interval(None, low, high))
        if not isinstance(parts, Parts) or not needs_parts(parts):
            return None
        return cache(partial(value_of, parts, sign=sign))

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
        x, called = function.variable, function.name
        found = find_zeros(function, interval)
        if not found.complete or len(found) > MOST_PARTS:
            return f"integral(abs({called}({x})), {x}, {ends[0]}, {ends[1]})"
        low, high = (float(end.value.mid()) for end in (interval.low, interval.high))
        inner = [f"({Fraction(zero.x)})" for zero in found if low < zero.x < high]
        cuts = pairwise([ends[0], *inner, ends[1]])
        return " + ".join(f"abs(integral({called}({x}), {x}, {a}, {b}))" for a, b in cuts)

    def _measured(self, name: str, text: str) -> Measure:
        try:
            result = self.evaluate(text)
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
        function = self.function(name)
        return find_asymptotes(function, find_breaks(function, self.interval(function, low, high)))

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
        return find_in_data(
            self.points_of(name), interpolation, float(self.number(level).value.mid())
        )


def is_endless(given: GivenNumber | None) -> bool:
    """Check whether an end of an interval is no number, but without end."""
    return str(given).strip() in UPWARDS | DOWNWARDS


def _measured_at(name: str, at_bits: Callable[[int], Ball], *, is_rough: bool) -> Measure:
    digits = digits_shown()
    least = max(_LEAST_BITS, math.ceil(digits * math.log2(10)) + _MORE_BITS)

    @cache
    def kept(bits: int) -> Ball:
        return at_bits(bits)

    try:
        with calculation():
            # A result asks for far more digits than an integral has for little.
            result = make_result(
                lambda bits: kept(max(bits - PART_BITS // 2, least)),
                lambda: ExactForm(None),
                most_bits=PART_BITS if is_rough else 2 * PART_BITS,
            )
            decimal = result.decimal(digits)
            found = None if decimal else kept(PART_BITS // 2)
    except MathError as err:
        return _without_value(name, err.message)
    if found is not None and found.is_defined and found.value.contains(0):
        return _not_told_from_zero(name, float(found.value.abs_upper()))
    if result.reason or not decimal:
        return _without_value(name, result.reason or _UNDECIDED)
    text = decimal if kept(least).exact is None else value_text(kept(least))
    return Measure(name, text, "" if text == decimal else decimal, float(result.value))


def _not_told_from_zero(name: str, size: float) -> Measure:
    """Describe how near to 0 a number is that no digits tell from it; nearly always it is 0."""
    if not 0 < size < _TINY:
        return _without_value(name, _UNDECIDED)
    # The power of ten above it, however the logarithm is rounded: what is said must hold.
    return Measure(name, f"0 ± 10^−{-math.ceil(math.log10(size * _ABOVE))}", "", 0.0)


def _without_value(name: str, reason: str) -> Measure:
    return Measure(name, "", "", float("nan"), reason)


def _slopes(function: RealFunction, place: Ball) -> tuple[Ball, Ball]:
    try:
        slope = function.expression.derivative()
        return function.prove(place, slope), function.prove(place, slope.derivative())
    except NotHandledError as err:
        nothing = ball.undefined(err.message)
        return nothing, nothing


def _measure(name: str, value: Ball) -> Measure:
    if not value.is_defined:
        return _without_value(name, value.reason or _UNDECIDED)
    text, decimal = value_text(value), place_text(value)
    return Measure(name, text, "" if text == decimal else decimal, float(value.value.mid()))
