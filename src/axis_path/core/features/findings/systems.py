"""Systems of equations: linear ones solved exactly, two others in a box."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from axis_path.core.arithmetic import Ball, ball
from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.numbers import GivenNumber, Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import EquationError, MathError, NotHandledError
from axis_path.core.evaluate import (
    VALUE_BITS,
    Expression,
    RealSurface,
    evaluate_constant,
)
from axis_path.core.features.findings.compared import read_compared
from axis_path.core.features.findings.equations import (
    reading_order,
    typeset_compared,
    unknowns_in,
)
from axis_path.core.language.parsing.body import Condition as Compared
from axis_path.core.language.walk import has_unit_nodes
from axis_path.core.locate import (
    Findings,
    Kind,
    LinearEquation,
    LinearSolution,
    meet_in_box,
    solve_linear,
)

#: A system is solved between these bounds where none are given.
_BOX = 100


@dataclass(frozen=True, slots=True)
class SystemSolution:
    """What solves several equations together.

    Attributes:
        unknowns: their names.
        linear: how a linear system is solved; None if it is not linear.
        findings: the points that solve two equations in two unknowns; None for a linear system.
        sentence: what was found, in words.
    """

    unknowns: tuple[str, ...]
    linear: LinearSolution | None
    findings: Findings | None
    sentence: str


class Systems:
    """Solves several equations together."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._numbers = snapshot.query(Numbers)

    def solve_system(
        self,
        texts: Sequence[str],
        low: GivenNumber | None = None,
        high: GivenNumber | None = None,
    ) -> SystemSolution:
        """Solve several equations together.

        Linear ones in any number of unknowns are solved exactly; two others in two unknowns are
        solved in a box.

        Args:
            texts: the equations.
            low: the least value of both unknowns of two equations that are not linear; -100 by
                default.
            high: the greatest; 100 by default.

        Raises:
            MathError: one does not read, or they cannot be solved so.
        """
        compared, unknowns = self.check_system(texts)
        linear = self._linear(self._gaps(compared, unknowns), unknowns)
        if linear is not None:
            solution = solve_linear(linear)
            return SystemSolution(unknowns, solution, None, _linear_sentence(solution, unknowns))
        if len(unknowns) != 2 or len(texts) != 2:
            raise EquationError(
                "Equations that are not linear are solved two at a time, in two unknowns; these "
                f"are {len(texts)} in {len(unknowns)}."
            )
        return self._in_box(compared, unknowns, low, high)

    def can_solve(self, texts: Sequence[str]) -> bool:
        """Check whether these are plain linear equations, or two others in two unknowns."""
        try:
            compared, unknowns = self.check_system(texts)
            has_units = any(has_unit_nodes(term) for one in compared for term in one.terms)
            if has_units or self._snapshot.analysis.named_units is not None:
                return False
            if len(unknowns) == len(texts) == 2:
                return True
            return self._linear(self._gaps(compared, unknowns), unknowns) is not None
        except MathError:
            return False

    def linear_system(self, texts: Sequence[str]) -> tuple[tuple[str, ...], list[LinearEquation]]:
        """Return several linear equations with their unknowns.

        Raises:
            MathError: one does not read, or is not linear.
        """
        compared, unknowns = self.check_system(texts)
        linear = self._linear(self._gaps(compared, unknowns), unknowns)
        if linear is None:
            raise EquationError("These equations are not linear in their unknowns.")
        return unknowns, linear

    def _gaps(self, compared: list[Compared], unknowns: tuple[str, ...]) -> list[Expression]:
        return [
            self._snapshot.analysis.expressions.differences(one.terms, "", unknowns)[0]
            for one in compared
        ]

    def typeset_system(self, texts: Sequence[str]) -> tuple[str, ...]:
        """Typeset several equations as MathML."""
        return tuple(map(typeset_compared, self.check_system(texts)[0]))

    def check_system(self, texts: Sequence[str]) -> tuple[list[Compared], tuple[str, ...]]:
        """Read several equations, and give them with their unknowns.

        Raises:
            MathError: one does not read, or there is no unknown.
        """
        compared: list[Compared] = []
        letters: set[str] = set()
        for text in texts:
            one, vocabulary = read_compared(self._snapshot, text, None)
            if one.signs != ("=",):
                raise EquationError("A system is made of equations, with one `=` each.")
            compared.append(one)
            letters |= unknowns_in(one.terms, vocabulary)
        if not letters:
            raise EquationError("There is no unknown in these equations.")
        return compared, tuple(sorted(letters, key=reading_order))

    def _linear(
        self, gaps: list[Expression], unknowns: tuple[str, ...]
    ) -> list[LinearEquation] | None:
        """Return the equations as linear ones; None if one of them is not."""
        equations: list[LinearEquation] = []
        zeros = {input_name(name): ball.from_fraction(0) for name in unknowns}
        for gap in gaps:
            factors: list[Ball] = []
            for name in unknowns:
                try:
                    slope = gap.derivative(input_name(name))
                except NotHandledError:
                    return None
                if slope.program.inputs:
                    return None
                factors.append(evaluate_constant(slope, self._snapshot.values, bits=VALUE_BITS))
            right = evaluate_constant(gap, self._snapshot.values, bits=VALUE_BITS, inputs=zeros)
            if not all(number.is_defined for number in (*factors, right)):
                return None
            equations.append(LinearEquation(tuple(factors), ball.negative(right)))
        return equations

    def _in_box(
        self, compared: list[Compared], unknowns: tuple[str, ...],
        low: GivenNumber | None, high: GivenNumber | None,
    ) -> SystemSolution:  # fmt: skip
        one, other = unknowns
        surfaces = [
            RealSurface(
                self._snapshot.analysis.expressions.differences(equation.terms, one, (other,))[0],
                input_name(other), self._snapshot.values,
            )
            for equation in compared
        ]  # fmt: skip
        inside = self._numbers.interval(
            None, -_BOX if low is None else low, _BOX if high is None else high
        )
        ends = float(inside.low.value.mid()), float(inside.high.value.mid())
        result = meet_in_box(surfaces[0], surfaces[1], (ends, ends))
        result = replace(result, items=tuple(replace(f, kind=Kind.SOLUTION) for f in result))
        count = len(result)
        sure = "Proved" if result.complete else "Not proved to be all"
        many = (
            "no solution" if not count else "one solution" if count == 1 else f"{count} solutions"
        )
        sentence = f"{sure}: {many} between {ends[0]:g} and {ends[1]:g}.".replace("-", "−")
        return SystemSolution(unknowns, None, result, sentence)


def _linear_sentence(solution: LinearSolution, unknowns: tuple[str, ...]) -> str:
    if solution.values:
        return "There is exactly one solution."
    if solution.clash:
        numbers = [str(k + 1) for k in solution.clash]
        listed = numbers[0] if len(numbers) == 1 else f"{', '.join(numbers[:-1])} and {numbers[-1]}"
        what = (
            f"equation {listed} says" if len(numbers) == 1 else f"equations {listed} together say"
        )
        return f"There is no solution: {what} that 0 is another number."
    if solution.general:
        free = " and ".join(unknowns[k] for k in solution.free)
        return f"There are infinitely many solutions: {free} may be any number."
    return "Whether it has a solution could not be decided: its coefficients are no fractions."
