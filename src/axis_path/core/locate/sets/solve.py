"""Solve a set of equations block by block, each block as exactly as it can be.

An unknown in which an equation is linear is put into the others; what is left of a block is solved
as one equation in one unknown, or in a box of its unknowns.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

import numpy as np

from axis_path.core.arithmetic import precision
from axis_path.core.deadline import check
from axis_path.core.errors import LimitError
from axis_path.core.evaluate import Expression, Op, RealFunction
from axis_path.core.locate.cells import interval
from axis_path.core.locate.everywhere import find_everywhere
from axis_path.core.locate.finding import Finding
from axis_path.core.locate.search.verdict import SOLUTIONS
from axis_path.core.locate.search.zeros import find_zeros
from axis_path.core.locate.sets.boxes import BoxSolution, BoxSystem, solve_in_box
from axis_path.core.locate.sets.elimination import eliminate, with_eliminated, without_idle
from axis_path.core.locate.sets.problem import (
    CHECK_BITS,
    SearchState,
    SetProblem,
    Values,
    holds,
    value_at,
    with_values,
)
from axis_path.core.locate.sets.rational import rational_solution
from axis_path.core.locate.sets.structure import Block, Structure, structure_of
from axis_path.core.locate.sets.values import (
    SetValue,
    enclosed_values,
    exact_value,
    simple_fraction,
)
from axis_path.core.threads import COMPUTING

#: What is nearer to 0 than this holds as far as can be computed.
_TINY = 1e-60
#: So many solutions of one set are looked for.
_MOST_SOLUTIONS = 200


@dataclass(frozen=True, slots=True)
class SetSolution:
    """One solution of a set.

    Attributes:
        values: of the unknowns that are determined, by their inputs.
        proved: whether it is proved that there is such a solution.
        doubts: the equations of which it could not be decided whether they hold.
    """

    values: Mapping[str, SetValue]
    proved: bool
    doubts: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True)
class SetSolutions:
    """All solutions of a set that were found.

    Attributes:
        solutions: in the order of the values of the first unknown that differs.
        complete: whether it is proved that there are no others.
        structure: what the equations determine.
        notes: what is not certain, in words.
        boxed: the inputs of the unknowns that were looked for between bounds.
        redundant: equations that follow from the others.
        conflict: a smallest set of equations that contradict one another; empty if none do.
        is_free: the inputs of the unknowns that may be any number.
    """

    solutions: tuple[SetSolution, ...]
    complete: bool
    structure: Structure
    notes: tuple[str, ...] = ()
    boxed: tuple[str, ...] = ()
    redundant: tuple[int, ...] = ()
    conflict: tuple[int, ...] = ()
    is_free: tuple[str, ...] = ()


def solve_set(problem: SetProblem, *, with_conflict: bool = True) -> SetSolutions:
    """Solve a set of equations.

    Args:
        problem: the equations.
        with_conflict: whether the smallest contradictory set is looked for.

    Raises:
        MathError: a limit, or a derivative that is not known.
    """
    structure = _structure(problem)
    state = SearchState()
    solutions: list[Values] = [{}]
    for block in structure.blocks:
        check()
        solutions = list(
            itertools.chain.from_iterable(
                _solved(problem, block, values, state) for values in solutions
            )
        )
        if len(solutions) > _MOST_SOLUTIONS:
            raise LimitError(f"There are more than {_MOST_SOLUTIONS} solutions; bound the search.")
        if not solutions:
            break
    checked = [_checked(problem, structure, values, state) for values in solutions]
    found = sorted((one for one in checked if one is not None), key=_place(problem))
    free = [problem.unknowns[k] for k in structure.free]
    result = SetSolutions(
        tuple(found), state.complete, structure, tuple(state.notes),
        tuple(name for name in problem.unknowns if name in state.boxed),
        tuple(sorted(state.redundant)),
        is_free=tuple(name for name in problem.unknowns if name in {*free, *state.free}),
    )  # fmt: skip
    if found or not state.complete or not with_conflict:
        return result
    return replace(result, conflict=_conflict(problem))


def _structure(problem: SetProblem) -> Structure:
    places = {name: k for k, name in enumerate(problem.unknowns)}
    uses = [frozenset(places[name] for name in gap.program.inputs) for gap in problem.gaps]
    return structure_of(uses, len(problem.unknowns))


def _place(problem: SetProblem) -> Callable[[SetSolution], list[float]]:
    def place(solution: SetSolution) -> list[float]:
        return [
            float(solution.values[name].ball.value.mid())
            for name in problem.unknowns
            if name in solution.values
        ]

    return place


def _conflict(problem: SetProblem) -> tuple[int, ...]:
    """Return a smallest set of equations without a solution: none can be left out of it."""
    chosen = list(range(len(problem.gaps)))
    for k in range(len(problem.gaps)):
        fewer = [equation for equation in chosen if equation != k]
        if fewer and _has_no_solution(problem.only(fewer)):
            chosen = fewer
    return tuple(chosen)


def _has_no_solution(problem: SetProblem) -> bool:
    result = solve_set(problem, with_conflict=False)
    return result.complete and not result.solutions


# Blocks


def _solved(
    problem: SetProblem, block: Block, values: Values, state: SearchState
) -> list[Values]:  # fmt: skip
    """Return the solutions of a block for one solution of those before it."""
    names = [problem.unknowns[k] for k in block.unknowns]
    gaps = [(k, with_values(problem, problem.gaps[k], values)) for k in block.equations]
    fractions = rational_solution([gap for _, gap in gaps], names)
    if fractions is not None:
        return [{**values, **_exactly(problem, names, fractions)}]
    eliminated, gaps, names = eliminate(problem, gaps, names, values)
    gaps = [(equation, without_idle(problem, gap, names)) for equation, gap in gaps]
    left = []
    for equation, gap in gaps:
        if set(gap.program.inputs) & set(names):
            left.append(gap)
            continue
        decided = holds(gap, problem, values)
        if decided is False:
            return []
        if decided is None:
            state.note("Whether an equation follows from the others could not be decided.")
        state.redundant.add(equation)
    free = [name for name in names if len(left) < len(names)]
    if free:
        state.free.update(free)
        return [with_eliminated(problem, eliminated, dict(values), state)]
    return [
        with_eliminated(problem, eliminated, {**values, **core}, state)
        for core in _core(problem, left, names, values, state)
    ]


# What is left of a block


def _core(
    problem: SetProblem,
    gaps: list[Expression],
    names: list[str],
    values: Values,
    state: SearchState,
) -> list[Values]:
    """Return the solutions of equations that are linear in none of their unknowns."""
    if not names:
        return [{}]
    inexact = [name for gap in gaps for name in gap.program.inputs if name not in names]
    if len(names) == 1 and not inexact:
        return _one_unknown(problem, gaps[0], names[0], state)
    return _in_box(problem, gaps, names, values, state)


def _one_unknown(
    problem: SetProblem, gap: Expression, name: str, state: SearchState
) -> list[Values]:  # fmt: skip
    graph = problem.graph
    with COMPUTING:
        own = graph.add(Op.INPUT, payload=name)
        step = graph.substitute(gap.step, own, graph.add(Op.VARIABLE))
    function = RealFunction("", "x", gap.sibling(step), problem.parameters)
    everywhere = find_everywhere(function, SOLUTIONS)
    findings = everywhere.findings
    if findings.along or findings.holds_always:
        state.free.add(name)
        state.note(findings.along or findings.note)
        return [{}]
    bounds = problem.bounds_of(name)
    is_periodic = everywhere.period is not None and len(findings) > 0
    if bounds is not None and (is_periodic or not findings.complete):
        # Between bounds there may be all, where everywhere they cannot be listed.
        within = interval(*map(Fraction, bounds))
        findings, is_periodic = find_zeros(function, within, words=SOLUTIONS), False
    if not findings.complete:
        state.note(findings.note or "Whether these are all solutions is not proved.")
    if is_periodic:
        state.note(f"Solutions repeat: whole multiples of {everywhere.period_text} may be added.")
    kept = [
        finding
        for finding in findings
        if bounds is None or bounds[0] <= finding.x <= bounds[1]
    ]  # fmt: skip
    return [{name: _value_of(problem, gap, name, finding)} for finding in kept]


def _value_of(problem: SetProblem, gap: Expression, name: str, finding: Finding) -> SetValue:
    exact = problem.read_exact(finding.exact) if finding.exact else None
    if exact is not None:
        return exact_value(exact, problem.parameters)
    low, high = finding.bracket
    box = BoxSolution(np.array([low]), np.array([high]), finding.proved)
    system = BoxSystem.of([gap], [name], problem.parameters, {})
    return enclosed_values(system, box, {})[name]


def _in_box(
    problem: SetProblem,
    gaps: list[Expression],
    names: list[str],
    values: Values,
    state: SearchState,
) -> list[Values]:
    inputs = {name for gap in gaps for name in gap.program.inputs} - set(names)
    known = {name: values[name].bounds() for name in inputs}
    system = BoxSystem.of(gaps, names, problem.parameters, known)
    low = np.array([problem.boxes[name][0] for name in names])
    high = np.array([problem.boxes[name][1] for name in names])
    boxes, complete = solve_in_box(system, low, high)
    state.boxed.update(names)
    if not complete:
        state.note("Some places could not be settled: they may hold one solution, several or none.")
    inside = [box for box in boxes if bool(((box.low <= high) & (low <= box.high)).all())]
    return [_values_in(problem, system, box, values) for box in inside]


def _values_in(problem: SetProblem, system: BoxSystem, box: BoxSolution, values: Values) -> Values:
    """Return the values of a solution in a box: fractions, if these solve the equations."""
    if box.proved and not system.known:
        fractions = [
            simple_fraction(float(low), float(high))
            for low, high in zip(box.low, box.high, strict=True)
        ]
        numbers = _as_numbers(problem, system, fractions)
        if numbers is not None:
            return numbers
    return enclosed_values(system, box, values)


def _as_numbers(
    problem: SetProblem, system: BoxSystem, fractions: Sequence[Fraction | None]
) -> Values | None:
    """Return fractions as values if they solve the equations exactly; else None."""
    known = [fraction for fraction in fractions if fraction is not None]
    if len(known) < len(fractions):
        return None
    numbers = _exactly(problem, system.names, known)
    gaps = (with_values(problem, gap, numbers) for gap in system.gaps)
    return numbers if all(holds(gap, problem, {}) for gap in gaps) else None


def _exactly(problem: SetProblem, names: Sequence[str], fractions: Sequence[Fraction]) -> Values:
    with COMPUTING:
        steps = [problem.graph.number(fraction) for fraction in fractions]
    return {
        name: exact_value(problem.gaps[0].sibling(step), problem.parameters)
        for name, step in zip(names, steps, strict=True)
    }


def _checked(
    problem: SetProblem, structure: Structure, values: Values, state: SearchState
) -> SetSolution | None:
    """Return a solution if all equations hold that were not used to find it."""
    doubts = []
    for name, value in values.items():
        number = value.ball
        if not number.is_defined or not number.value.is_finite():
            return None
        low, high = problem.boxes[name]
        middle = float(number.value.mid())
        is_bounded = name in problem.bounded or (problem.is_bounded and name in state.boxed)
        if is_bounded and not low <= middle <= high:
            return None
    for equation in (*structure.extra, *_used(structure)):
        gap = problem.gaps[equation]
        if not set(gap.program.inputs) <= values.keys():
            continue
        decided = holds(with_values(problem, gap, values), problem, values)
        if decided is False:
            return None
        if equation in structure.extra:
            state.redundant.add(equation)
            if decided is None and not _holds_nearly(gap, problem, values):
                doubts.append(equation)
    proved = all(value.proved for value in values.values()) and not doubts
    if doubts:
        state.note("Whether all equations hold at once could not be decided.")
    return SetSolution(values, proved, tuple(doubts))


def _used(structure: Structure) -> list[int]:
    return [equation for block in structure.blocks for equation in block.equations]


def _holds_nearly(gap: Expression, problem: SetProblem, values: Values) -> bool:
    """Check whether an equation holds with as many digits as are computed."""
    with precision(CHECK_BITS):
        value = value_at(gap, problem, values, CHECK_BITS)
        size = float(value.value.abs_upper())
    return math.isfinite(size) and size < _TINY
