"""Linear systems of any size, solved exactly.

With rational coefficients the matrix is brought to reduced row echelon form by python-flint. From
it follow the one solution, the general form of infinitely many, or that there is none, and from
which equations that follows. Other coefficients are balls: then one solution is enclosed, and all
else is said not to be decided.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from flint import arb_mat, fmpq, fmpq_mat

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.locate.search.zeros import SEARCH_BITS


class Outcome(StrEnum):
    """How many solutions a system has."""

    ONE = "one"
    NONE = "none"
    MANY = "many"
    UNDECIDED = "undecided"


@dataclass(frozen=True, slots=True)
class LinearEquation:
    """``factors · unknowns = right``, one factor for each unknown."""

    factors: tuple[Ball, ...]
    right: Ball


@dataclass(frozen=True, slots=True)
class LinearSolution:
    """The solutions of a linear system.

    Attributes:
        values: of each unknown, if there is one solution.
        general: of infinitely many, each unknown as a constant and factors of the free ones.
        free: the places of the unknowns that may be chosen freely.
        clash: the places of equations that contradict one another.
    """

    outcome: Outcome
    values: tuple[Ball, ...] = ()
    general: tuple[tuple[fmpq, tuple[fmpq, ...]], ...] = ()
    free: tuple[int, ...] = ()
    clash: tuple[int, ...] = ()


def solve_linear(equations: Sequence[LinearEquation]) -> LinearSolution:
    """Solve a linear system; it has as many unknowns as every equation has factors."""
    count = len(equations[0].factors)
    rational = all(factor.exact is not None for e in equations for factor in (*e.factors, e.right))
    if not rational:
        return _enclosed(equations, count)
    rows = [[*(f.exact for f in e.factors), e.right.exact] for e in equations]
    reduced, rank = fmpq_mat(rows).rref()
    pivots: list[int] = []
    for row in range(rank):
        pivot = next(k for k in range(count + 1) if reduced[row, k] != 0)
        if pivot == count:
            return LinearSolution(Outcome.NONE, clash=_clash(rows, count))
        pivots.append(pivot)
    if len(pivots) == count:
        values = tuple(ball.from_fraction(_fraction(reduced[k, count])) for k in range(count))
        return LinearSolution(Outcome.ONE, values)
    free = tuple(k for k in range(count) if k not in pivots)
    general = []
    for k in range(count):
        if k in free:
            general.append((fmpq(0), tuple(fmpq(int(k == other)) for other in free)))
        else:
            row = pivots.index(k)
            general.append((reduced[row, count], tuple(-reduced[row, other] for other in free)))
    return LinearSolution(Outcome.MANY, general=tuple(general), free=free)


def _fraction(value: fmpq) -> Fraction:
    return Fraction(int(value.p), int(value.q))


def _clash(rows: list[list[fmpq | None]], count: int) -> tuple[int, ...]:
    """Return a smallest set of equations, from the first ones on, that contradict one another."""
    chosen = list(range(len(rows)))
    for k in range(len(rows)):
        fewer = [row for row in chosen if row != k]
        if fewer and _contradicts([rows[row] for row in fewer], count):
            chosen = fewer
    return tuple(chosen)


def _contradicts(rows: list[list[fmpq | None]], count: int) -> bool:
    whole = fmpq_mat(rows).rref()[1]
    left = fmpq_mat([row[:count] for row in rows]).rref()[1]
    return bool(whole > left)


def _enclosed(equations: Sequence[LinearEquation], count: int) -> LinearSolution:
    if len(equations) != count:
        return LinearSolution(Outcome.UNDECIDED)
    with precision(2 * SEARCH_BITS):
        matrix = arb_mat([[f.value for f in e.factors] for e in equations])
        right = arb_mat([[e.right.value] for e in equations])
        try:
            solution = matrix.solve(right)
        except ZeroDivisionError:
            return LinearSolution(Outcome.UNDECIDED)
        return LinearSolution(Outcome.ONE, tuple(Ball(solution[k, 0]) for k in range(count)))
