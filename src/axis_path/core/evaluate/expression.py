"""An expression of the graph: a step, with its program and its relatives."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Mapping, Sequence
from fractions import Fraction
from typing import Any, TypeVar

from axis_path.core.arithmetic import Ball
from axis_path.core.evaluate.backends.backends import (
    Proving,
    nearest_float,
)
from axis_path.core.evaluate.graph.derive import derive
from axis_path.core.evaluate.graph.factors import is_zero, zero_factors
from axis_path.core.evaluate.graph.graph import Graph, Op
from axis_path.core.evaluate.graph.levels import exponential_level, wave_levels
from axis_path.core.evaluate.graph.program import (
    Program,
    extract,
    run_all,
)
from axis_path.core.evaluate.settled import Known, settled_value
from axis_path.core.language.tree import Summary
from axis_path.core.threads import COMPUTING

PROVING = Proving()
T = TypeVar("T")
#: So many things are stored with one expression, such as its graph with each other curve.
MOST_CACHED = 64
#: The ends of an integral, as inputs.
LOW, HIGH = "from", "to"


def written(x: Fraction) -> str:
    """Write a place for a sentence, short even where it is no short number."""
    is_long = x.denominator > 10_000 or x.numerator.bit_length() > 100
    text = f"{nearest_float(x):.6g}" if is_long else str(x)
    return text.replace("-", "−")


class Expression:
    """A step of the graph with the programs that were made for it, for any slider values.

    Programs are made when they are first asked for and kept. The graph grows when a derivative is
    made, so all of this happens under the one lock (see ``threads.py``).
    """

    def __init__(self, graph: Graph, step: int) -> None:
        self._graph = graph
        self._step = step
        self._made: dict[str, list[Expression]] = {}
        self._program: Program | None = None
        self._indices: tuple[int, ...] | None = None
        self._joined: dict[tuple[int, ...], Program] = {}
        self._cache: dict[Hashable, Any] = {}

    @property
    def step(self) -> int:
        """Return the place of the expression in its graph."""
        return self._step

    @property
    def known(self) -> Fraction | None:
        """Return the number that is written there, None for anything else."""
        step = self._graph.steps[self._step]
        if step.op == Op.NUMBER and isinstance(step.payload, Fraction):
            return step.payload
        return None

    @property
    def program(self) -> Program:
        """Return the program of the expression."""
        with COMPUTING:
            if self._program is None:
                self._program = extract(self._graph, self._step)
            return self._program

    @property
    def indices(self) -> tuple[int, ...]:
        """Return where each step of the program is in the graph."""
        with COMPUTING:
            if self._indices is None:
                self._indices = tuple(self._graph.reachable(self._step))
            return self._indices

    def cached(self, key: Hashable, make: Callable[[], T], is_good: Callable[[T], bool]) -> T:
        """Return what others made of the expression for any slider values; made if it is missing.

        Args:
            key: by what it is known.
            make: makes it.
            is_good: tells whether what is stored may still be used.
        """
        with COMPUTING:
            cached: T | None = self._cache.get(key)
            if cached is None or not is_good(cached):
                if len(self._cache) >= MOST_CACHED:
                    self._cache.clear()
                cached = self._cache[key] = make()
            return cached

    def sibling(self, step: int) -> Expression:
        """Return another step of the same graph."""
        return Expression(self._graph, step)

    def together(self, *others: Expression) -> Program:
        """Return one program for this and other expressions of the same graph; it is stored."""
        steps = (self._step, *(other._step for other in others))
        with COMPUTING:
            if steps not in self._joined:
                self._joined[steps] = extract(self._graph, *steps)
            return self._joined[steps]

    def derivative(self, by: str = "") -> Expression:
        """Return the derivative by the variable, or by another one under its input's name."""
        with COMPUTING:
            if f"derivative {by}" not in self._made:
                source = self._graph.add(Op.INPUT, payload=by) if by else None
                step = derive(self._graph, self._step, source)
                self._made[f"derivative {by}"] = [Expression(self._graph, step)]
            return self._made[f"derivative {by}"][0]

    def minus(self, other: Expression) -> Expression:
        """Return the difference from another expression of the same graph; it is stored."""
        key = f"minus {other._step}"
        with COMPUTING:
            if key not in self._made:
                step = self._graph.minus(self._step, other._step)
                self._made[key] = [Expression(self._graph, step)]
            return self._made[key][0]

    def negative(self) -> Expression:
        """Return the same with its sign turned; it is stored."""
        with COMPUTING:
            if "negative" not in self._made:
                step = self._graph.negative(self._step)
                self._made["negative"] = [Expression(self._graph, step)]
            return self._made["negative"][0]

    def integral(self) -> Expression:
        """Return the integral by the variable from the input ``LOW`` to ``HIGH``; it is stored."""
        with COMPUTING:
            if "integral" not in self._made:
                graph = self._graph
                ends = (graph.add(Op.INPUT, payload=LOW), graph.add(Op.INPUT, payload=HIGH))
                step = graph.summarise(Summary.INTEGRAL, self._step, graph.add(Op.VARIABLE), ends)
                self._made["integral"] = [Expression(graph, step)]
            return self._made["integral"][0]

    def speed(self) -> Expression:
        """Return how fast the length of the graph grows with the variable: sqrt(1 + slope^2).

        Raises:
            NotHandledError: the slope is not known.
        """
        slope = self.derivative()
        with COMPUTING:
            graph = self._graph
            # Not the slope times itself: a square is never negative, whatever the slope is.
            square = graph.to_the(slope.step, graph.number(2))
            step = graph.to_the(graph.plus(graph.number(1), square), graph.number(Fraction(1, 2)))
            return Expression(graph, step)

    def settle(self, abscissa: Ball, zeros: frozenset[int], parameters: Mapping[str, Ball]) -> Ball:
        """Return the value at a place where some steps of the graph are zero."""
        with COMPUTING:
            plain = run_all(self.program, PROVING, abscissa, parameters)
            return settled_value(
                self.program, self.indices, self._graph,
                lambda: Known(self._graph, abscissa, zeros, parameters, PROVING), plain,
            )  # fmt: skip

    def is_zero(self) -> bool:
        """Check whether it is zero wherever it has a value, as far as its terms show."""
        with COMPUTING:
            return is_zero(self._graph, self._step)

    def wave_levels(self) -> tuple[Expression, Fraction, bool] | None:
        """Return where a sine or cosine is zero, see ``factors.wave_levels``."""
        with COMPUTING:
            levels = wave_levels(self._graph, self._step)
        return None if levels is None else (Expression(self._graph, levels[0]), *levels[1:])

    def exponential_level(self) -> tuple[Expression, Expression] | None:
        """Return where a power of a fixed base is a number.

        Returns:
            What is zero there, and that number: where it is not above 0 there is no such place.
            None if the expression is no such power less a number.
        """
        with COMPUTING:
            graph = self._graph
            level = exponential_level(graph, self._step)
        if level is None:
            return None
        return Expression(graph, level[0]), Expression(graph, level[1])

    def less(self, level: Fraction, *, in_turns: bool) -> Expression:
        """Return the expression less a number, or less a multiple of pi."""
        with COMPUTING:
            graph = self._graph
            number = graph.number(level)
            if in_turns:
                number = graph.times(number, graph.add(Op.CONSTANT, payload="pi"))
            return Expression(graph, graph.minus(self._step, number))

    def polynomial_of(self, position: int, coefficients: Sequence[Fraction]) -> Expression:
        """Return a polynomial of one of the steps.

        Args:
            position: of the step in the program.
            coefficients: those of the powers from 0 upwards, at least one.
        """
        inner = self.indices[position]
        with COMPUTING:
            graph = self._graph
            made = graph.number(coefficients[-1])
            for coefficient in reversed(coefficients[:-1]):
                made = graph.plus(graph.times(made, inner), graph.number(coefficient))
            return Expression(graph, made)

    def polynomial_in(
        self, positions: Sequence[int], terms: Sequence[tuple[Fraction, tuple[int, ...]]]
    ) -> Expression:
        """Return a polynomial of several of the steps.

        Args:
            positions: of the steps in the program.
            terms: each a coefficient, and the power of each step; at least one.
        """
        inner = [self.indices[position] for position in positions]
        with COMPUTING:
            graph = self._graph
            made = graph.number(0)
            for coefficient, powers in terms:
                term = graph.number(coefficient)
                for step, power in zip(inner, powers, strict=True):
                    if power:
                        term = graph.times(term, graph.to_the(step, graph.number(power)))
                made = graph.plus(made, term)
            return Expression(graph, made)

    def is_zero_at(self, number: Fraction) -> bool:
        """Check whether it is zero at a fraction by its terms, as e^x - e x at 1."""
        with COMPUTING:
            graph = self._graph
            variable = graph.add(Op.VARIABLE)
            return is_zero(graph, graph.substitute(self._step, variable, graph.number(number)))

    def step_at(self, position: int) -> Expression:
        """Return a step of the program as an expression."""
        return self.sibling(self.indices[position])

    def with_variable_at(self, position: int) -> Expression:
        """Return the expression with the variable in place of a step of its program."""
        with COMPUTING:
            graph = self._graph
            step = graph.substitute(self._step, self.indices[position], graph.add(Op.VARIABLE))
            return Expression(graph, step)

    def variable_less_surd(self, coefficients: Sequence[Fraction], sign: int) -> Expression:
        """Return x less the larger or the smaller zero of a quadratic.

        Args:
            coefficients: c, b, a of a x^2 + b x + c, with a > 0 and two zeros.
            sign: 1 for the larger zero, -1 for the smaller.
        """
        c, b, a = coefficients
        with COMPUTING:
            graph = self._graph
            square = graph.number((b * b - 4 * a * c) / (4 * a * a))
            root = graph.to_the(square, graph.number(Fraction(1, 2)))
            middle = graph.number(-b / (2 * a))
            zero = graph.plus(middle, root) if sign > 0 else graph.minus(middle, root)
            return Expression(graph, graph.minus(graph.add(Op.VARIABLE), zero))

    def factors(self, *, through_pieces: bool = False) -> list[Expression]:
        """Return expressions whose zeros, together, hold all zeros of this one.

        Args:
            through_pieces: whether functions in pieces are split too; a zero of one piece need
                then be none of the whole.
        """
        key = f"factors {through_pieces}"
        with COMPUTING:
            if key not in self._made:
                steps = zero_factors(self._graph, self._step, through_pieces=through_pieces)
                self._made[key] = [Expression(self._graph, step) for step in steps]
            return self._made[key]
