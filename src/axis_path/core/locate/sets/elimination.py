"""Put unknowns in which an equation is linear into the other equations."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from axis_path.core.deadline import check
from axis_path.core.errors import NotHandledError
from axis_path.core.evaluate import Expression
from axis_path.core.locate.sets.problem import (
    SearchState,
    SetProblem,
    Values,
    is_not_zero,
    put_in,
    with_values,
    without,
)
from axis_path.core.locate.sets.values import dependent_value
from axis_path.core.threads import COMPUTING


@dataclass(frozen=True, slots=True)
class Eliminated:
    """An unknown that is expressed by others."""

    name: str
    expression: Expression


def eliminate(
    problem: SetProblem, gaps: list[tuple[int, Expression]], names: list[str], values: Values
) -> tuple[list[Eliminated], list[tuple[int, Expression]], list[str]]:
    """Put unknowns in which equations are linear into the other equations, one after another."""
    eliminated: list[Eliminated] = []
    gaps, names = list(gaps), list(names)
    while True:
        check()
        found = _linear_in(problem, gaps, names, values)
        if found is None:
            return eliminated, gaps, names
        index, name, solved = found
        gaps = [
            (equation, put_in(problem, gap, name, solved))
            for k, (equation, gap) in enumerate(gaps)
            if k != index
        ]
        names.remove(name)
        eliminated.append(Eliminated(name, solved))


def without_idle(problem: SetProblem, gap: Expression, names: Sequence[str]) -> Expression:
    """Return an expression without the unknowns on which it does not depend, as x - x."""
    for name in names:
        if name not in gap.program.inputs:
            continue
        try:
            slope = gap.derivative(name)
        except NotHandledError:
            continue
        if slope.known == 0 or slope.is_zero():
            gap = without(problem, gap, name)
    return gap


def _linear_in(
    problem: SetProblem, gaps: list[tuple[int, Expression]], names: list[str], values: Values
) -> tuple[int, str, Expression] | None:
    """Return an equation, an unknown in which it is linear, and what that unknown is by it."""
    by_length = sorted(range(len(gaps)), key=lambda k: len(gaps[k][1].program.steps))
    second: tuple[int, str, Expression] | None = None
    third: tuple[int, str, Expression] | None = None
    for index in by_length:
        gap = gaps[index][1]
        own = [name for name in names if name in gap.program.inputs]
        for name in own:
            try:
                slope = gap.derivative(name)
            except NotHandledError:
                continue
            if name in slope.program.inputs:
                continue
            solved = _solved_for(problem, gap, name, slope)
            if set(slope.program.inputs) & set(names):
                rest = without_idle(problem, without(problem, gap, name), names)
                if third is None and is_not_zero(rest, problem, values):
                    # A product that is not 0 has no factor that is.
                    third = index, name, solved
                continue
            if not is_not_zero(slope, problem, values):
                continue
            if slope.known is not None and abs(slope.known) == 1:
                return index, name, solved
            second = second or (index, name, solved)
    return second or third


def _solved_for(
    problem: SetProblem, gap: Expression, name: str, slope: Expression
) -> Expression:  # fmt: skip
    rest, graph = without(problem, gap, name), problem.graph
    with COMPUTING:
        return gap.sibling(graph.negative(graph.over(rest.step, slope.step)))


def with_eliminated(
    problem: SetProblem, eliminated: Sequence[Eliminated], values: Values, state: SearchState
) -> Values:
    """Add the unknowns that follow from others, the last that was put in first."""
    made = dict(values)
    for one in reversed(eliminated):
        expression = with_values(problem, one.expression, made)
        if not set(expression.program.inputs) <= made.keys():
            # It depends on an unknown that may be any number.
            state.free.add(one.name)
            continue
        made[one.name] = dependent_value(expression, problem.parameters, made)
    return made
