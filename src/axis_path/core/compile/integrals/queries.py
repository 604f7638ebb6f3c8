"""Integrals that are better measured part by part: over kinks, jumps and without end."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache, partial

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.integrals.integrals import (
    Integral,
    integrals_in,
    needs_parts,
    value_of,
    with_names,
    written_out,
)
from axis_path.core.compile.numbers import GivenNumber, Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import DomainError, NoValueError
from axis_path.core.evaluate import (
    VALUE_BITS,
    ExactForm,
    RealFunction,
    Result,
    evaluate_constant,
    make_result,
)
from axis_path.core.language.tree import Node, Over
from axis_path.core.locate import PART_BITS, EndlessEnd, Parts, endless_end, smooth_parts

#: An end that is no number.
UPWARDS = frozenset({"inf", "+inf", "∞", "+∞"})
DOWNWARDS = frozenset({"-inf", "−inf", "-∞", "−∞"})
#: So many binary digits of an integral are computed at least.
_LEAST_BITS = 64
#: Under such names integrals stand in a calculation.
_INTEGRAL = "integral "
_UNDECIDED = "it could not be decided"


def is_endless(given: GivenNumber | None) -> bool:
    """Check whether an end of an interval is no number, but without end."""
    return str(given).strip() in UPWARDS | DOWNWARDS


class Integrals:
    """The integrals of a study that are cut into parts."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._numbers = snapshot.query(Numbers)

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
            unit = function.units.variable
            numbers = [self._numbers.number(end, unit).value for end in ends if end is not None]
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
        parts = smooth_parts(function, self._numbers.interval(function, *ends), tuple(beyond))
        return parts if parts is not None else _UNDECIDED

    def by_integrals(self, node: Node) -> Result | None:
        """Compute an expression whose integrals are better measured part by part; else None."""
        analysis = self._snapshot.analysis
        names_out = analysis.integral_names
        node = written_out(
            node, lambda name: analysis.number_of(name) if name in names_out else None
        )
        measured: dict[Over, Callable[[int], Ball]] = {}
        integrals = integrals_in(node)
        for integral in integrals:
            result = self._integral_by_parts(integral)
            if result is not None:
                measured[integral.node] = result
        if not measured:
            return None
        names = {over: f"{_INTEGRAL}{k}" for k, over in enumerate(measured)}
        expression = analysis.expressions.expression(with_names(node, names), tuple(names.values()))

        def at_bits(bits: int) -> Ball:
            digits = min(max(bits - PART_BITS // 2, _LEAST_BITS), PART_BITS // 2)
            inputs = {input_name(names[over]): value(digits) for over, value in measured.items()}
            return evaluate_constant(expression, self._snapshot.values, bits=bits, inputs=inputs)

        def look() -> ExactForm:
            return self._snapshot.evaluator.exact_form(
                analysis.expressions.compile_constant(node), at_bits
            )

        return make_result(at_bits, look, most_bits=PART_BITS)

    def _integral_by_parts(self, integral: Integral) -> Callable[[int], Ball] | None:
        """Return what computes an integral that is better measured part by part; else None."""
        low, high, sign = integral.low, integral.high, 1
        if not integral.is_endless:
            with precision(VALUE_BITS):
                order = ball.subtract(self._numbers.number(high), self._numbers.number(low)).sign()
            if order not in (-1, 1):
                return None
            if order < 0:
                low, high, sign = high, low, -1
        elif low.startswith("inf") or high.startswith("-inf"):
            low, high, sign = high, low, -1
        variable = integral.node.variable
        body = self._snapshot.analysis.expressions.side(integral.node.body, variable)
        function = RealFunction("the body", variable, body, self._snapshot.values)
        if integral.is_endless:
            parts: Parts | str | None = self.endless_parts(function, low, high)
            if isinstance(parts, str):
                raise NoValueError(f"This integral has no value that is known: {parts}.")
        else:
            parts = smooth_parts(function, self._numbers.interval(None, low, high))
        if not isinstance(parts, Parts) or not needs_parts(parts):
            return None
        return cache(partial(value_of, parts, sign=sign))
