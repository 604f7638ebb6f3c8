"""Prove that two solutions of a set, for two values of a parameter, belong to one branch.

Krawczyk's operator is applied with the parameter as an interval. If it maps a box around both
solutions into its interior, there is exactly one solution in the box for every value in between,
and it depends continuously on the value.

Source: Neumaier, "Interval Methods for Systems of Equations", 1990, chapter 5.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from flint import arb

from axis_path.core.arithmetic import Ball, precision
from axis_path.core.arithmetic.real_number import EnclosedNumber, RealNumber
from axis_path.core.errors import NotHandledError
from axis_path.core.evaluate import Expression, evaluate_constant
from axis_path.core.locate.sets.krawczyk import krawczyk
from axis_path.core.locate.sets.problem import SetProblem, Values

_BITS = 64
#: The box reaches so much farther than both solutions, as a part of their distance.
_MARGIN = 0.25
_LEAST_MARGIN = 1e-9


def between(first: arb, second: arb) -> EnclosedNumber:
    """Return a number of which nothing is known but that it lies between two others."""
    with precision(_BITS):
        whole = Ball(first.union(second))
    return EnclosedNumber(lambda _bits: whole)


def branch_through(
    problem: SetProblem, name: str, span: EnclosedNumber, solutions: tuple[Values, Values]
) -> dict[str, Ball] | None:
    """Return a box in which a solution stays between two others; None if that is not proved.

    Args:
        problem: the set; it has as many equations as unknowns.
        name: of the parameter.
        span: between which values it lies.
        solutions: for both ends.

    Returns:
        Balls that hold the unknowns for every value of the parameter, by their inputs.
    """
    names, count = problem.unknowns, len(problem.unknowns)
    first, second = solutions
    if len(problem.gaps) != count or not set(names) <= first.keys() & second.keys():
        return None
    problem = replace(problem, parameters={**_listed(problem), name: span})
    with precision(_BITS):
        box = [_around(first[one].ball.value, second[one].ball.value) for one in names]
        narrowed = _krawczyk(problem, names, box)
        if narrowed is None or not all(
            bool(inner.lower() > outer.lower()) and bool(inner.upper() < outer.upper())
            for inner, outer in zip(narrowed, box, strict=True)
        ):
            return None
        # With another parameter than that of the set, the solutions do not lie in the box.
        if not all(
            one.contains(first[name].ball.value) and one.contains(second[name].ball.value)
            for name, one in zip(names, narrowed, strict=True)
        ):
            return None
        return dict(zip(names, map(Ball, narrowed), strict=True))


def _listed(problem: SetProblem) -> dict[str, RealNumber]:
    used = {one for gap in problem.gaps for one in gap.program.parameters}
    return {one: problem.parameters[one] for one in used}


def _around(a: arb, b: arb) -> arb:
    whole = a.union(b)
    margin = _MARGIN * whole.rad() + _LEAST_MARGIN * (1 + abs(whole).upper())
    return whole + arb(0, margin)


def _krawczyk(problem: SetProblem, names: Sequence[str], box: Sequence[arb]) -> list[arb] | None:
    around = {one: Ball(value) for one, value in zip(names, box, strict=True)}
    middle = {one: Ball(value.mid()) for one, value in zip(names, box, strict=True)}
    try:
        slopes = [
            _at(gap.derivative(one), problem, around) if one in gap.program.inputs else arb(0)
            for gap in problem.gaps
            for one in names
        ]
    except NotHandledError:
        return None
    return krawczyk(box, [_at(gap, problem, middle) for gap in problem.gaps], slopes)


def _at(expression: Expression, problem: SetProblem, inputs: Mapping[str, Ball]) -> arb | None:
    used = {one: inputs[one] for one in expression.program.inputs}
    value = evaluate_constant(expression, problem.parameters, bits=_BITS, inputs=used)
    is_known = value.is_defined and value.continuous and value.value.is_finite()
    return value.value if is_known else None
