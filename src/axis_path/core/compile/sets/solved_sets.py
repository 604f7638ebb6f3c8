"""The sets of equations of a study, solved in one position of its sliders."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from fractions import Fraction
from typing import cast

from axis_path.core.arithmetic import Defined
from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.arithmetic.real_number import EnclosedNumber, Parameters, RealNumber
from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.compile.analysis import Analysis
from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.sets.solving import SolvedEquations, solve_equations
from axis_path.core.deadline import calculation
from axis_path.core.errors import DomainError, EquationError, MathError, StoppedError
from axis_path.core.evaluate import VALUE_BITS, evaluate_constant
from axis_path.core.lines.set_options import NO_OPTIONS, SetOptions
from axis_path.core.locate.sets.values import SetValue

#: Returns the values of the sliders that names depend on.
SlidersBelow = Callable[[Iterable[str]], tuple[tuple[str, Fraction], ...]]
#: Returns what was chosen for the set of a line, by the index of the line.
OptionsOf = Callable[[int], SetOptions | None]


class SolvedSets:
    """Solves the sets of a study when their values are asked for.

    Args:
        analysis: of the study.
        values: of its names.
        options: what was chosen for each set.
        below: returns the values of the sliders that names depend on.
        seed: of random numbers.
    """

    def __init__(
        self,
        analysis: Analysis,
        values: Parameters,
        options: OptionsOf,
        below: SlidersBelow,
        seed: int,
    ) -> None:
        self._analysis = analysis
        self._seed = seed
        self._below = below
        self._values = values
        self._options = options
        self._solved: dict[int, SolvedEquations | MathError] = {}

    def solved(self, index: int) -> SolvedEquations:
        """Return the solutions of the set of a line.

        Args:
            index: of the line.

        Raises:
            MathError: it cannot be solved.
        """
        known = self._solved.get(index)
        if known is None:
            try:
                with calculation():
                    known = self._solve(index)
            except MathError as err:
                known = err.with_traceback(None)
            if not isinstance(known, StoppedError):
                self._solved[index] = known
        if isinstance(known, MathError):
            raise known
        return known

    def value(self, name: str) -> RealNumber:
        """Return the value of a name in the chosen solution of its set, in its own unit.

        Raises:
            DomainError: it has none, or it is not proved that it has one.
        """
        index = self._analysis.solved_names[name]
        try:
            solutions = self.solved(index).solutions
        except StoppedError:
            raise
        except MathError as err:
            raise DomainError(f"`{name}` has no value: {err.message}") from err
        chosen, count = self.chosen(index), len(solutions.solutions)
        if not count:
            raise DomainError(f"`{name}` has no value: its equations have no solution.")
        if chosen >= count:
            raise DomainError(
                f"`{name}` has no value: solution {chosen + 1} of its equations was chosen, and "
                f"there {'is only one' if count == 1 else f'are only {count}'}."
            )
        solution = solutions.solutions[chosen]
        value = solution.values.get(input_name(name))
        if value is None or input_name(name) in solutions.is_free:
            raise DomainError(f"`{name}` has no value: its equations do not determine it.")
        if not (value.proved and solution.proved):
            raise DomainError(
                f"`{name}` has no value that is proved: see the solutions of its equations."
            )
        return _number(value)

    def options_of(self, names: set[str]) -> tuple[tuple[str, SetOptions], ...]:
        """Return what was chosen for the sets that define names found by solving."""
        where = self._analysis.solved_names
        return tuple((name, self._options(where[name]) or NO_OPTIONS) for name in sorted(names))

    def chosen(self, index: int) -> int:
        """Return which solution of a set is used, from 0."""
        return (self._options(index) or NO_OPTIONS).chosen

    def _solve(self, index: int) -> SolvedEquations:
        """Return the solutions of a set, from before if nothing on which it depends has changed."""
        settled = self._analysis.sets[index]
        known = frozenset(settled.read.known)
        below = self.options_of(self._analysis.solved_in(known))
        options = self._options(index) or NO_OPTIONS
        key = (settled, options.bounds, self._below(known), below, self._seed)
        cache = self._analysis.cache.solved
        return cast("SolvedEquations", cache.get_or_make(key, lambda: self._solved_anew(index)))

    def _solved_anew(self, index: int) -> SolvedEquations:
        read = self._analysis.sets[index].read
        options = self._options(index) or NO_OPTIONS
        if not options.bounds:
            return solve_equations(self._analysis, self._values, read)
        units = read.units
        ends = {
            bound.name: (
                self._end(bound.low, units[bound.name]),
                self._end(bound.high, units[bound.name]),
            )
            for bound in options.bounds
            if bound.name in units
        }
        for name, (low, high) in ends.items():
            if low >= high:
                raise EquationError(f"The range of `{name}` goes from a lower to a higher number.")
        return solve_equations(self._analysis, self._values, read, ends)

    def _end(self, text: str, unit: UnitProduct) -> float:
        expression, _ = self._analysis.constant(text, unit)
        value = evaluate_constant(expression, self._values, bits=VALUE_BITS)
        if value.defined is not Defined.YES:
            raise DomainError(f"`{text}` has no value.")
        return float(value.value.mid())


def _number(value: SetValue) -> RealNumber:
    exact = value.ball.exact
    if exact is not None:
        return to_fraction(exact)
    return EnclosedNumber(value.at_bits, value.expression)
