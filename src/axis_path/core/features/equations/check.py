"""Check a solution of a set by putting its values into every equation."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.catalogue.units import printed_power
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.dimensions import dimension_of, unit_of
from axis_path.core.evaluate import Expression, Result
from axis_path.core.features.equations.solving import SolvedSet, result_of
from axis_path.core.language.tree import Node, Number
from axis_path.core.locate.sets.problem import CHECK_BITS, holds, value_at, with_values
from axis_path.core.locate.sets.values import dependent_value
from axis_path.core.threads import COMPUTING

_ZERO = Number(Fraction(0))


@dataclass(frozen=True, slots=True)
class CheckedEquation:
    """One equation with the values of a solution in it.

    Attributes:
        left: the value of its left side, in the unit in which it is shown; ``right`` likewise.
        residual: the left side less the right as a number of that unit: ``0`` where that is
            proved, else what bounds it.
        is_exact: whether it is proved that both sides are equal.
    """

    left: Result
    right: Result
    residual: str
    is_exact: bool


def check_solution(
    snapshot: Snapshot, solved: SolvedSet, place: int
) -> tuple[CheckedEquation | None, ...]:  # fmt: skip
    """Put the values of a solution into all equations of its set.

    Args:
        snapshot: of the study.
        solved: the set.
        place: which solution, from 0.

    Returns:
        What became of each equation; None for one in which an unknown has no value.
    """
    checker = _Checker(snapshot, solved, place)
    return tuple(checker.equation(k) for k in range(len(solved.read.equations)))


class _Checker:
    def __init__(self, snapshot: Snapshot, solved: SolvedSet, place: int) -> None:
        self._snapshot = snapshot
        self._solved = solved
        self._values = dict(solved.solutions.solutions[place].values)

    def equation(self, place: int) -> CheckedEquation | None:
        problem, measured = self._solved.problem, self._solved.read.measured
        gap = problem.gaps[place]
        if not set(gap.program.inputs) <= self._values.keys():
            return None
        left, right = (self._side(term, place) for term in measured.terms[place])
        is_exact = holds(with_values(problem, gap, self._values), problem, self._values) is True
        return CheckedEquation(
            self._result(left, place), self._result(right, place),
            "0" if is_exact else self._bound(left.minus(right)), is_exact,
        )  # fmt: skip

    def _side(self, term: Node, place: int) -> Expression:
        """Return one side of an equation as a number of the unit of the equation."""
        expressions = self._snapshot.analysis.expressions
        read = self._solved.read
        (side,) = expressions.differences((term, _ZERO), "", read.unknowns, read.units)
        with COMPUTING:
            unit = unit_of(read.measured.sides[place])
            step = expressions.units.step_in_unit(side.step, unit)
        return with_values(self._solved.problem, side.sibling(step), self._values)

    def _result(self, side: Expression, place: int) -> Result:
        measure = self._solved.read.measured.sides[place]
        value = dependent_value(side, self._solved.problem.parameters, self._values)
        return result_of(value, unit_of(measure), dimension_of(measure), self._snapshot.evaluator)

    def _bound(self, residual: Expression) -> str:
        ball = value_at(residual, self._solved.problem, self._values, CHECK_BITS)
        largest = float(ball.value.abs_upper()) if ball.is_defined else math.inf
        if not math.isfinite(largest):
            return "not known"
        if largest == 0:
            return "0"
        power = math.floor(math.log10(largest)) + 1
        return f"less than {printed_power('10', Fraction(power))}"
