"""Equations of one wave or one exponential: where they take a value."""

from __future__ import annotations

import math
from fractions import Fraction

from axis_path.core.evaluate.graph.factors import (
    LARGEST_EXPONENT,
    factors_of_term,
    is_never_zero,
    terms_of,
)
from axis_path.core.evaluate.graph.graph import Graph, Op, Step

_SMALLEST_LOGARITHM = 1e-6


def wave_levels(graph: Graph, top: int) -> tuple[int, Fraction, bool] | None:
    """Return where a sine or cosine is zero: at which numbers another step is.

    Returns:
        The step u, which is a + n at its zeros for whole numbers n; a; and whether both are counted
        in multiples of pi. None if the step is no sine or cosine.
    """
    step = graph.steps[top]
    if step.op not in ("sin", "cos"):
        return None
    start = Fraction(0) if step.op == "sin" else Fraction(1, 2)
    angle = graph.steps[step.arguments[0]]
    if angle.op == Op.MULTIPLY:
        for pi, other in (angle.arguments, angle.arguments[::-1]):
            if graph.steps[pi] == Step(Op.CONSTANT, (), "pi"):
                return other, start, False
    return step.arguments[0], start, True


def exponential_level(graph: Graph, top: int) -> tuple[int, int] | None:
    """Return where a power of a fixed base, times and less numbers, is zero.

    Returns:
        For k b^u - c the step that is zero where this is, u ln(b) - ln(c/k), and the step of c/k,
        which must be above 0. None if the step has another form.
    """
    variable = graph.add(Op.VARIABLE)
    fixed = graph.number(0)
    moving: list[tuple[int, int]] = []
    for index, sign in terms_of(graph, top):
        if variable in graph.reachable(index):
            moving.append((index, sign))
        else:
            fixed = graph.minus(fixed, index) if sign > 0 else graph.plus(fixed, index)
    if len(moving) != 1 or graph.value(fixed) == 0:
        return None
    factors, is_negative = factors_of_term(graph, moving[0][0])
    powers = [index for index in factors if variable in graph.reachable(index)]
    if len(powers) != 1:
        return None
    if is_negative != (moving[0][1] < 0):
        fixed = graph.negative(fixed)
    for index in factors:
        fixed = fixed if index in powers else graph.over(fixed, index)
    step = graph.steps[powers[0]]
    if step.op == "exp":
        return _less_logarithm(graph, step.arguments[0], fixed), fixed
    if step.op != Op.POWER or not is_never_zero(graph, step):
        return None
    base, exponent = step.arguments
    if graph.steps[base].payload == "e":
        return _less_logarithm(graph, exponent, fixed), fixed
    simple = _whole_logarithm(graph.value(fixed), graph.value(base))
    if simple is not None:
        return graph.minus(exponent, graph.number(simple)), fixed
    logarithm = graph.times(exponent, graph.call("ln", (base,)))
    return _less_logarithm(graph, logarithm, fixed), fixed


def _less_logarithm(graph: Graph, step: int, number: int) -> int:
    if graph.value(number) == 1:
        return step
    return graph.minus(step, graph.call("ln", (number,)))


def _whole_logarithm(number: Fraction | None, base: Fraction | None) -> int | None:
    """Return the whole number n for which a number is base^n; None if there is none."""
    if number is None or base is None or number <= 0:
        return None
    size = _logarithm(base)
    if abs(size) < _SMALLEST_LOGARITHM:
        return None
    n = round(_logarithm(number) / size)
    return n if abs(n) <= LARGEST_EXPONENT and base**n == number else None


def _logarithm(number: Fraction) -> float:
    # Of each part, because the quotient may be beyond all floats.
    return math.log(number.numerator) - math.log(number.denominator)
