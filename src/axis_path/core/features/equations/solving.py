"""Solve a set of equations, and say what is known, unknown, missing or contradictory."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from axis_path.core.catalogue.units import Dimension, UnitProduct
from axis_path.core.compile.evaluator import Evaluator
from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.numbers import GivenNumber, Numbers
from axis_path.core.compile.results import Results
from axis_path.core.compile.sets.model import ReadSet
from axis_path.core.compile.sets.read_set import read_set
from axis_path.core.compile.sets.solving import BOX, SolvedEquations, solve_equations
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.dimensions import dimension_of
from axis_path.core.errors import EquationError, MathError
from axis_path.core.evaluate import ExactForm, Result, ResultKind, make_result
from axis_path.core.evaluate.quantities import quantity_of
from axis_path.core.features.equations.words import set_note
from axis_path.core.locate import Finding, Findings, Kind
from axis_path.core.locate.sets import SetSolution, SetSolutions
from axis_path.core.locate.sets.problem import SetProblem
from axis_path.core.locate.sets.values import SetValue, dependent_value, exact_value

_MOST_BITS = 20_000
#: The input of a conversion; no name of a study has a space.
_CONVERTED = "value of set"
Bounds = GivenNumber | Mapping[str, GivenNumber] | None


@dataclass(frozen=True, slots=True)
class SolvedSet:
    """A set with all that was found out.

    Attributes:
        read: the equations.
        units: in which the unknowns are shown.
        problem: the equations as they were solved.
        solutions: of the equations.
        values: of each solution, by the names of the set.
        box: between which numbers was searched, where a box was needed.
    """

    read: ReadSet
    units: Mapping[str, UnitProduct]
    problem: SetProblem
    solutions: SetSolutions
    values: tuple[Mapping[str, Result], ...]
    box: int = BOX

    @property
    def findings(self) -> Findings:
        """Return the solutions as findings, with the values of all names of the set."""
        names = self.read.unknowns
        items = tuple(
            _finding(names, values, solution)
            for values, solution in zip(self.values, self.solutions.solutions, strict=True)
        )
        complete = self.solutions.complete and not self.solutions.is_free
        return Findings(items, complete, set_note(self.read, self.solutions, self.box))


class EquationSets:
    """Solves sets of equations among the names of a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._numbers = snapshot.query(Numbers)

    def solve_system(
        self,
        equations: Sequence[str],
        unknowns: Sequence[str] | None = None,
        low: Bounds = None,
        high: Bounds = None,
    ) -> Findings:
        """Solve any number of equations in any order.

        Args:
            equations: as they are typed, ``W = m g_n``.
            unknowns: the names that are sought; all names without a value if they are not given.
            low: the least value of each unknown, in its unit, where equations must be searched; for
                all, or by names. -100 if nothing is given.
            high: the greatest, likewise; 100 if nothing is given.

        Returns:
            One finding for each solution, with ``values`` for every name of the set.

        Raises:
            MathError: one does not read, or its units do not fit.
        """
        return self.solved(equations, unknowns, low, high).findings

    def solved(
        self,
        equations: Sequence[str],
        unknowns: Sequence[str] | None = None,
        low: Bounds = None,
        high: Bounds = None,
    ) -> SolvedSet:
        """Solve equations, with all that is found out; see ``solve_system``."""
        read = read_set(self._snapshot.analysis, equations, unknowns)
        units = read.units
        named = frozenset[str]().union(*(one for one in (low, high) if isinstance(one, Mapping)))
        is_for_all = any(one is not None and not isinstance(one, Mapping) for one in (low, high))
        sought = read.unknowns if is_for_all else [one for one in read.unknowns if one in named]
        ends = {name: self._ends(name, units[name], low, high) for name in sought}
        own, search = (None, ends) if is_for_all else (ends, None)
        solved = solve_equations(self._snapshot.analysis, self._snapshot.values, read, own, search)
        return with_results(self._snapshot, read, solved)

    def _ends(self, name: str, unit: UnitProduct, low: Bounds, high: Bounds) -> tuple[float, float]:
        ends = []
        for given, usual in ((low, -BOX), (high, BOX)):
            own = given.get(name) if isinstance(given, Mapping) else given
            number = self._numbers.number(usual if own is None else own, unit)
            ends.append(float(number.value.mid()))
        if ends[0] >= ends[1]:
            raise EquationError(f"The range of `{name}` goes from a lower to a higher number.")
        return ends[0], ends[1]


def with_results(
    snapshot: Snapshot,
    read: ReadSet,
    solved: SolvedEquations,
    shown: Mapping[str, UnitProduct] | None = None,
) -> SolvedSet:
    """Return a solved set with the values of all its names.

    Args:
        snapshot: of the study.
        read: the set.
        solved: its solutions.
        shown: the units in which the unknowns are shown; their own if they are not given.
    """
    units = read.units if shown is None else shown
    values = tuple(_values(snapshot, read, units, one) for one in solved.solutions.solutions)
    return SolvedSet(read, units, solved.problem, solved.solutions, values, solved.box)


def _values(
    snapshot: Snapshot, read: ReadSet, units: Mapping[str, UnitProduct], solution: SetSolution
) -> dict[str, Result]:
    values: dict[str, Result] = {}
    own = read.units
    for name in read.unknowns:
        value = solution.values.get(input_name(name))
        if value is not None:
            value = _in_unit(snapshot, value, own[name], units[name])
            dimension = dimension_of(read.measure(name))
            values[name] = result_of(value, units[name], dimension, snapshot.evaluator)
    results = snapshot.query(Results)
    for name in read.known:
        try:
            values[name] = results.value(name)
        except MathError:
            continue
    return values


def _in_unit(
    snapshot: Snapshot, value: SetValue, own: UnitProduct, other: UnitProduct
) -> SetValue:  # fmt: skip
    """Return a value in another unit than its own."""
    if own == other:
        return value
    units, parameters = snapshot.analysis.expressions.units, snapshot.values
    if value.expression is not None:
        return exact_value(units.converted(value.expression, own, other), parameters)
    converted = units.input_in_unit(_CONVERTED, own, other)
    return dependent_value(converted, parameters, {_CONVERTED: value})


def result_of(
    value: SetValue, unit: UnitProduct, dimension: Dimension, evaluator: Evaluator
) -> Result:
    """Return a value of a set as a result in its unit."""
    if value.expression is not None:
        number = evaluator.number(value.expression)
    else:
        number = make_result(value.at_bits, lambda: ExactForm(None), most_bits=_MOST_BITS)
    return quantity_of(number, unit, dimension)


def _finding(
    names: Sequence[str], values: Mapping[str, Result], solution: SetSolution
) -> Finding:  # fmt: skip
    shown = [values[name] for name in names if name in values]
    first = shown[0] if shown else None
    second = shown[1] if len(shown) > 1 else None
    x = _float(first)
    bounds = next(iter(solution.values.values())).bounds() if solution.values else (x, x)
    return Finding(
        Kind.SOLUTION, x, _float(second), bounds, solution.proved,
        _rational(first),
        "" if first is None else _number(first).decimal(),
        y_text="" if second is None else _number(second).decimal(),
        y_exact=_rational(second),
        values=dict(values),
    )  # fmt: skip


def _rational(result: Result | None) -> str | None:
    """Return a value as a fraction if it is known to be one; other forms are sought on request."""
    number = None if result is None else _number(result).rational
    return None if number is None else str(number)


def _number(result: Result) -> Result:
    return result if result.number is None else result.number


def _float(result: Result | None) -> float:
    if result is None or result.kind not in (ResultKind.NUMBER, ResultKind.QUANTITY):
        return float("nan")
    return float(result.value)
