"""Answers to sets of equations in any number of unknowns, with units."""

from __future__ import annotations

import math

from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.sets.model import ReadSet
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.deadline import calculation
from axis_path.core.errors import MathError
from axis_path.core.evaluate import Result
from axis_path.core.features.equations.check import check_solution
from axis_path.core.features.equations.solving import EquationSets, SolvedSet
from axis_path.core.features.equations.words import set_verdict
from axis_path.core.features.findings.answer import Answer, Check, Row
from axis_path.core.features.findings.answer_rows import is_same
from axis_path.core.features.findings.equations import typeset_compared
from axis_path.core.features.findings.section import SavedQueries, SavedQuery
from axis_path.core.locate.sets import SetSolution

#: So many solutions are checked by putting them in.
_MOST_CHECKS = 20


def answer_set(
    snapshot: Snapshot, saved: SavedQuery, title: str, texts: list[str], *, with_checks: bool
) -> Answer:
    """Answer a set of equations: each unknown of each solution is a row.

    Args:
        snapshot: of the study.
        saved: the question.
        title: what was asked.
        texts: one equation each.
        with_checks: whether the solutions are put into the equations, which takes a moment.
    """
    solved = snapshot.query(EquationSets).solved(texts, None, saved.low, saved.high)
    digits = snapshot.section(SavedQueries).digits
    findings = solved.findings
    rows = tuple(
        row
        for number, (values, solution) in enumerate(
            zip(solved.values, solved.solutions.solutions, strict=True), 1
        )
        for row in _rows(solved, dict(values), solution, number, digits)
    )
    typeset = typeset_equations(solved.read)
    return Answer(
        title, "", solved.read.unknowns[0], rows, set_verdict(solved.solutions), findings.complete,
        findings.note, mathml=typeset,
        checks=_checks(snapshot, solved, digits) if with_checks else (),
    )  # fmt: skip


def typeset_equations(read: ReadSet) -> tuple[str, ...]:
    """Typeset the equations of a set, each as one ``<math>`` element."""
    return tuple(typeset_compared(one.compared) for one in read.equations)


def plain_checks(
    snapshot: Snapshot, saved: SavedQuery, texts: list[str], count: int
) -> tuple[tuple[Check, ...], ...]:
    """Return the equations of a plain system with its solutions put in.

    Args:
        snapshot: of the study.
        saved: the question.
        texts: one equation each.
        count: how many solutions are shown; nothing is checked where another search found others.
    """
    if not 0 < count <= _MOST_CHECKS:
        return ()
    try:
        with calculation():
            solved = snapshot.query(EquationSets).solved(texts, None, saved.low, saved.high)
            if len(solved.values) != count:
                return ()
            return _checks(snapshot, solved, snapshot.section(SavedQueries).digits)
    except MathError:
        return ()


def checks_of(
    snapshot: Snapshot, solved: SolvedSet, place: int, digits: int
) -> tuple[Check, ...]:  # fmt: skip
    """Return the equations with the values of one solution put in.

    Args:
        snapshot: of the study.
        solved: the set.
        place: which solution, from 0.
        digits: of the values.
    """
    typeset, equations = typeset_equations(solved.read), solved.read.equations
    checked = check_solution(snapshot, solved, place)
    return tuple(
        Check(
            mathml, equation.text.strip(), one.left.decimal(digits), one.right.decimal(digits),
            one.residual, one.is_exact,
        )
        for mathml, equation, one in zip(typeset, equations, checked, strict=True)
        if one is not None
    )  # fmt: skip


def _checks(
    snapshot: Snapshot, solved: SolvedSet, digits: int
) -> tuple[tuple[Check, ...], ...]:  # fmt: skip
    places = range(min(len(solved.values), _MOST_CHECKS))
    return tuple(checks_of(snapshot, solved, place, digits) for place in places)


def _rows(
    solved: SolvedSet, values: dict[str, Result], solution: SetSolution, number: int, digits: int
) -> list[Row]:
    """Return the unknowns of one solution, numbered if there are several."""
    several = len(solved.values) > 1
    rows = []
    for name in solved.read.unknowns:
        result = values.get(name)
        if result is None:
            continue
        plain = result if result.number is None else result.number
        decimal = plain.decimal(digits)
        exact = None if plain.rational is None else str(plain.rational).replace("-", "−")
        unit = solved.units[name].printed
        known = solution.values[input_name(name)]
        rows.append(
            Row(
                f"{number}. {name}" if several else name,
                exact or decimal,
                "" if exact in (None, decimal) else decimal,
                is_same(exact, decimal),
                x=math.nan,
                proved=known.proved and solution.proved,
                note=result.reason,
                unit=unit,
            )
        )
    return rows
