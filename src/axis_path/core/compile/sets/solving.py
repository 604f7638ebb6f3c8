"""Solve a set of equations in one position of the sliders."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.compile.analysis import Analysis
from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.sets.model import ReadSet
from axis_path.core.errors import MathError
from axis_path.core.evaluate import Expression
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.locate.sets import SetSolutions, solve_set
from axis_path.core.locate.sets.problem import SetProblem

#: Unknowns of equations that are solved in a box lie between these numbers if nothing is given.
BOX = 100
#: Where that gives no solution, the search goes on between numbers so many times as large.
_WIDER = (10**3, 10**6)
#: Between which numbers an unknown is sought, in its unit.
Ends = Mapping[str, tuple[float, float]]


@dataclass(frozen=True, slots=True)
class SolvedEquations:
    """A set with its solutions.

    Attributes:
        problem: the equations as they were solved.
        solutions: of the equations.
        box: between which numbers was searched, where a box was needed and none was given.
    """

    problem: SetProblem
    solutions: SetSolutions
    box: int = BOX


def solve_equations(
    analysis: Analysis,
    values: Parameters,
    read: ReadSet,
    ends: Ends | None = None,
    search: Ends | None = None,
) -> SolvedEquations:
    """Solve a set of equations.

    Args:
        analysis: of the study.
        values: of its names.
        read: the set.
        ends: between which numbers unknowns lie, for as many of them as is wanted; no solutions
            outside are returned.
        search: between which numbers the others are sought where a search takes place. Without,
            the search is widened until a solution is found.

    Raises:
        MathError: a limit, or a derivative that is not known.
    """
    own, box = dict(ends or {}), BOX
    problem = replace(
        _problem(analysis, values, read, own, dict(search or {}), BOX),
        is_bounded=search is not None,
    )
    solutions = solve_set(problem)
    for wider in _WIDER if search is None else ():
        if solutions.solutions or not (solutions.boxed and solutions.complete):
            break
        box = BOX * wider
        problem = _problem(analysis, values, read, own, {}, box)
        solutions = solve_set(problem)
    return SolvedEquations(problem, solutions, box)


def _problem(
    analysis: Analysis,
    values: Parameters,
    read: ReadSet,
    ends: Ends,
    search: Ends,
    box: int,
) -> SetProblem:
    units = read.units
    gaps = tuple(
        analysis.expressions.differences(terms, "", read.unknowns, units)[0]
        for terms in read.measured.terms
    )

    def read_exact(text: str) -> Expression | None:
        try:
            node = read_expression(text.replace("−", "-"), Vocabulary())
            return analysis.expressions.compile_exact(node)
        except MathError:
            return None

    return SetProblem(
        analysis.cache.graph,
        gaps,
        tuple(map(input_name, read.unknowns)),
        values,
        {
            input_name(name): ends.get(name) or search.get(name) or (-float(box), float(box))
            for name in read.unknowns
        },
        False,
        read_exact,
        frozenset(map(input_name, ends)),
    )
