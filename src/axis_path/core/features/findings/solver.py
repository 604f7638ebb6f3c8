"""Equations, inequalities and systems as they are typed, solved among the names of a study."""

from __future__ import annotations

import math
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import replace

from flint import arb

from axis_path.core.arithmetic import ball, precision
from axis_path.core.compile.numbers import GivenNumber, Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import PlaneUnits
from axis_path.core.dimensions import CurveUnits, unit_of
from axis_path.core.errors import EquationError, MathError
from axis_path.core.evaluate import (
    VALUE_BITS,
    RealFunction,
    evaluate_constant,
    exact_solutions,
    is_identity,
    period,
)
from axis_path.core.features.findings.compared import read_compared
from axis_path.core.features.findings.equations import (
    Equation,
    only_unknown,
    typeset_compared,
    unknowns_in,
)
from axis_path.core.features.findings.solutions import (
    ExactIn,
    between,
    matched,
    readable,
    repeats,
    solution,
)
from axis_path.core.language.tree import AngleUnit
from axis_path.core.locate import (
    SOLUTIONS,
    Condition,
    EndPoint,
    Everywhere,
    Finding,
    Findings,
    Interval,
    SolutionInterval,
    SolutionSet,
    find_everywhere,
    find_solution_set,
    find_zeros,
    period_of,
    reach_of,
)
from axis_path.core.locate.everywhere import FAR

#: An exact form must lie within the bracket of its decimal at so many binary digits.
_CHECK_BITS = 256


class Solver:
    """What can be solved in a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._numbers = snapshot.query(Numbers)

    def equation(self, text: str, unknown: str | None = None) -> Equation:
        """Read an equation or an inequality.

        Args:
            text: as it is typed, ``x^2 - 1 = x``.
            unknown: the letter that is sought; found out if there is only one.

        Raises:
            MathError: it does not read, or there is no unknown, or more than one.
        """
        try:
            return self._equation(text, unknown, with_units=True)
        except MathError as err:
            # Letters that can be units may be unknowns.
            with suppress(MathError):
                return self._equation(text, unknown, with_units=False)
            raise err from None

    def _equation(self, text: str, unknown: str | None, *, with_units: bool) -> Equation:
        compared, vocabulary = read_compared(
            self._snapshot, text, unknown, with_units=with_units
        )  # fmt: skip
        letters = unknowns_in(compared.terms, vocabulary)
        if unknown is None:
            unknown = only_unknown(letters)
        elif unknown not in letters:
            raise EquationError(f"`{unknown}` does not occur in this equation.")
        if len(letters) > 1:
            others = ", ".join(f"`{letter}`" for letter in sorted(letters - {unknown}))
            raise EquationError(
                f"Besides `{unknown}` there are letters without a value: {others}. Give them one, "
                "or write as many equations as there are unknowns."
            )
        measured = self._snapshot.analysis.measured_equations([(text, compared.terms)], [unknown])
        unit = self._snapshot.query(PlaneUnits).unit_across(measured.unknowns[unknown])
        value_unit = unit_of(measured.sides[0])
        units = CurveUnits(x=unit, variable=unit)
        expressions, terms = self._snapshot.analysis.expressions, measured.terms[0]
        gaps = expressions.differences(terms, unknown, units={unknown: unit})
        sides = [expressions.side(term, unknown, unit, value_unit) for term in terms]
        functions = [
            RealFunction("", unknown, expression, self._snapshot.values, units=units)
            for expression in (*sides, *gaps)
        ]
        return Equation(
            unknown,
            tuple(functions[: len(sides)]),
            tuple(functions[len(sides) :]),
            compared.signs,
            typeset_compared(compared),
            unit,
            value_unit,
        )

    def solve(
        self,
        text: str,
        unknown: str | None = None,
        low: GivenNumber | None = None,
        high: GivenNumber | None = None,
        *,
        with_exact: bool = True,
    ) -> Findings:
        """Solve an equation in one unknown: all solutions, exact where that is possible.

        Args:
            text: as it is typed, ``sin(37°) = x/7``.
            unknown: the letter that is sought; found out if there is only one.
            low: where to begin; everywhere if neither end is given.
            high: where to end.
            with_exact: whether exact forms beyond fractions and surds are looked for, which takes
                time.

        Raises:
            MathError: it does not read or cannot be solved so.
        """
        equation = self.equation(text, unknown)
        if not equation.is_equation:
            raise EquationError(
                "This is an inequality: its solutions are intervals, not single values."
            )
        gap = equation.gaps[0]
        everywhere: Everywhere | None = None
        if low is None and high is None:
            everywhere = find_everywhere(gap, SOLUTIONS)
            zeros, within = everywhere.findings, everywhere.interval
        else:
            within = self._numbers.interval(
                gap, FAR * -1 if low is None else low, FAR if high is None else high
            )
            zeros = find_zeros(gap, within, words=SOLUTIONS)
        items = [solution(equation, item) for item in zeros]
        if with_exact and any(not item.exact for item in items):
            items = self._with_exact(gap, items)
        note = zeros.note
        is_open = not zeros.complete and not zeros.along
        if with_exact and is_open and is_identity(gap.expression.program, self._snapshot.values):
            # What is true everywhere has no solutions that could be listed.
            words = f"As far as algebra tells it is true for every {equation.unknown} with values."
            return Findings((), complete=False, note=words, holds_always=True)
        zeros = replace(
            zeros, x_unit=equation.unit.symbol, y_unit=equation.value_unit.symbol
        )  # fmt: skip
        if everywhere is not None and everywhere.period is not None and items:
            note = (
                "These repeat: any whole multiple of "
                f"{everywhere.period_text} may be added to each. {note}"
            ).strip()
        elif everywhere is None and len(items) > 1:
            note = f"{repeats(gap, self._snapshot.values, self._snapshot.unit)} {note}".strip()
        return replace(zeros, items=tuple(items), note=note)

    def _with_exact(self, gap: RealFunction, items: list[Finding]) -> list[Finding]:
        """Return solutions in exact form where a proposal lies in the bracket of just one."""
        exact_in = self._exact_forms(gap)
        return [replace(item, exact=item.exact or exact_in(*item.bracket)) for item in items]

    def _with_exact_ends(
        self, gaps: Sequence[RealFunction], items: Sequence[SolutionInterval]
    ) -> tuple[SolutionInterval, ...]:
        """Return intervals with their ends in exact form where these are known zeros of a gap."""
        made = list(items)
        for gap in gaps:
            ends = [end for item in made for end in (item.low, item.high)]
            if all(end.exact or math.isinf(end.x) for end in ends):
                break
            exact_in = self._exact_forms(gap)

            def exact(end: EndPoint, exact_in: ExactIn = exact_in) -> EndPoint:
                if end.exact or math.isinf(end.x):
                    return end
                low, high = (math.nextafter(end.x, side) for side in (-math.inf, math.inf))
                return replace(end, exact=exact_in(low, high))

            made = [replace(item, low=exact(item.low), high=exact(item.high)) for item in made]
        return tuple(made)

    def _exact_forms(self, gap: RealFunction) -> ExactIn:
        """Return what gives the exact form of a zero of a gap that lies between two floats."""
        texts = exact_solutions(
            gap.expression.program,
            self._snapshot.values,
            in_degrees=self._snapshot.unit is AngleUnit.DEGREES,
        )
        proposals = [
            (readable(text), value)
            for text in texts
            if (value := self._number_at(text)) is not None
        ]
        turn = period(gap.expression.program, self._snapshot.values)
        with precision(_CHECK_BITS):
            length = (
                None
                if turn is None
                else arb.pi() ** turn.power * arb(turn.part.numerator) / turn.part.denominator
            )

        def exact_in(low: float, high: float) -> str | None:
            with precision(_CHECK_BITS):
                result = (
                    matched((low, high), text, value, length, self._snapshot.unit)
                    for text, value in proposals
                )
                return next((text for text in result if text), None)

        return exact_in

    def _number_at(self, text: str) -> arb | None:
        try:
            expression, _ = self._snapshot.analysis.constant(text)
            value = evaluate_constant(expression, self._snapshot.values, bits=_CHECK_BITS)
        except MathError:
            return None
        return value.value if value.is_defined else None

    def solve_inequality(
        self,
        text: str,
        unknown: str | None = None,
        low: GivenNumber | None = None,
        high: GivenNumber | None = None,
        *,
        with_exact: bool = True,
    ) -> SolutionSet:
        """Return all numbers between two ends that satisfy an inequality in one unknown.

        Args:
            text: as it is typed, ``1 < x^2 <= 4``.
            unknown: the letter that is sought; found out if there is only one.
            low: where to begin; without end if it is not given, or from -1000 if that is not known.
            high: where to end, likewise.
            with_exact: whether exact forms of the ends are looked for, which takes a while.

        Raises:
            MathError: it does not read or cannot be solved so.
        """
        equation = self.equation(text, unknown)
        result = self._solution_set(equation, low, high)
        if not with_exact:
            return result
        return replace(result, items=self._with_exact_ends(equation.gaps, result.items))

    def _solution_set(
        self, equation: Equation, low: GivenNumber | None, high: GivenNumber | None
    ) -> SolutionSet:
        conditions = []
        for gap, sign in zip(equation.gaps, equation.signs, strict=True):
            turned = gap
            if sign in ("<", "<="):
                turned = replace(gap, expression=gap.expression.negative())
            conditions.append(Condition(turned, {"<": ">", "<=": ">="}.get(sign, sign)))
        reach, goes_on = reach_of(equation.gaps)
        inside = self._numbers.interval(
            equation.gaps[0],
            reach.low if low is None else low,
            reach.high if high is None else high,
        )
        if low is None and high is None and not any(goes_on):
            repeated = self._in_one_period(equation.gaps, conditions)
            if repeated is not None:
                return repeated
        is_open = (low is None and not goes_on[0], high is None and not goes_on[1])
        goes_on = (goes_on[0] and low is None, goes_on[1] and high is None)
        result = find_solution_set(conditions, inside, goes_on=goes_on)
        if not any(is_open):
            return result
        ends = (f"below −{FAR:,}", f"above {FAR:,}")
        beyond = " and ".join(end for end, is_one in zip(ends, is_open, strict=True) if is_one)
        note = f"{result.note} Whether it holds {beyond} is not decided.".strip()
        return replace(result, complete=False, note=note)

    def _in_one_period(
        self, gaps: Sequence[RealFunction], conditions: Sequence[Condition]
    ) -> SolutionSet | None:
        """Find where a condition on a periodic function holds; None if it is none."""
        repeats = period_of(gaps[0]) if len(gaps) == 1 else None
        if repeats is None:
            return None
        length, text = repeats
        with precision(VALUE_BITS):
            result = find_solution_set(conditions, Interval(ball.from_fraction(0), length))
            first, last = (result.items[0], result.items[-1]) if result.items else (None, None)
            if first is None or last is None or not (first.is_cut_low and last.is_cut_high):
                return self._repeated(result, text)
            if first is last:
                low, high = EndPoint(-math.inf, "−∞", None), EndPoint(math.inf, "∞", None)
                return replace(result, items=(SolutionInterval(low, high, False, False),))
            # One interval goes on beyond the end: it is looked at from where nothing holds.
            start = between(first.high, result.items[1].low)
            result = find_solution_set(conditions, Interval(ball.subtract(start, length), start))
        return self._repeated(result, text)

    @staticmethod
    def _repeated(solutions: SolutionSet, period: str) -> SolutionSet:
        if not solutions.items:
            return solutions
        items = (replace(item, is_cut_low=False, is_cut_high=False) for item in solutions.items)
        solutions = replace(solutions, items=tuple(items))
        note = (
            f"These repeat: any whole multiple of {period} may be added to each. {solutions.note}"
        )
        return replace(solutions, note=note.strip())
