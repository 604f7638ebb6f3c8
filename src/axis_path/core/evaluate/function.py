"""A real function of one variable, ready to be sampled, enclosed and proved.

It is one expression of a graph together with the present values of the sliders; drawing, locating
and tabulating see functions in this form only.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Hashable, Mapping, Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Any, TypeVar

import numpy as np
from flint import acb
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, Enclosure, ball, precision
from axis_path.core.evaluate.backends.backends import (
    Enclosing,
    Fast,
    Proving,
    nearest_float,
)
from axis_path.core.evaluate.backends.complex import Complex
from axis_path.core.evaluate.backends.enclosed import compiled_form, enclose_columns
from axis_path.core.evaluate.backends.sampled import sample
from axis_path.core.evaluate.graph.depends import sliders_on
from axis_path.core.evaluate.graph.derive import derive
from axis_path.core.evaluate.graph.factors import (
    exponential_level,
    is_zero,
    wave_levels,
    zero_factors,
)
from axis_path.core.evaluate.graph.graph import Graph, Op, Step
from axis_path.core.evaluate.graph.program import (
    Program,
    bound_step,
    extract,
    inner_bounds,
    run,
    run_all,
)
from axis_path.core.evaluate.settled import Known, settled_value
from axis_path.core.language.tree import Summary
from axis_path.core.threads import COMPUTING, kept_property

Floats = NDArray[np.float64]
_FAST, _ENCLOSING, _PROVING = Fast(), Enclosing(), Proving()
#: Precision for single values whose digits are shown as floats: far more than a float's 53 bits.
VALUE_BITS = 128


T = TypeVar("T")
#: So many things are kept with one expression, such as its graph with each other curve.
_MOST_KEPT = 64


def _written(x: Fraction) -> str:
    """Write a place for a sentence, short even where it is no short number."""
    is_long = x.denominator > 10_000 or x.numerator.bit_length() > 100
    text = f"{nearest_float(x):.6g}" if is_long else str(x)
    return text.replace("-", "−")


#: The ends of an integral, as inputs.
LOW, HIGH = "from", "to"


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
        self._kept: dict[Hashable, Any] = {}

    @property
    def step(self) -> int:
        """Return the place of the expression in its graph."""
        return self._step

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

    def kept(self, key: Hashable, make: Callable[[], T], is_good: Callable[[T], bool]) -> T:
        """Return what others made of the expression for any slider values; made if it is missing.

        Args:
            key: by what it is known.
            make: makes it.
            is_good: tells whether what is kept may still be used.
        """
        with COMPUTING:
            found: T | None = self._kept.get(key)
            if found is None or not is_good(found):
                if len(self._kept) >= _MOST_KEPT:
                    self._kept.clear()
                found = self._kept[key] = make()
            return found

    def sibling(self, step: int) -> Expression:
        """Return another step of the same graph."""
        return Expression(self._graph, step)

    def together(self, *others: Expression) -> Program:
        """Return one program for this and other expressions of the same graph; it is kept."""
        steps = (self._step, *(other._step for other in others))
        with COMPUTING:
            if steps not in self._joined:
                self._joined[steps] = extract(self._graph, *steps)
            return self._joined[steps]

    def derivative(self, by: str = "") -> Expression:
        """Return the derivative by the variable, or by another one under its input's name."""
        with COMPUTING:
            if f"derivative {by}" not in self._made:
                place = self._graph.add(Op.INPUT, payload=by) if by else None
                step = derive(self._graph, self._step, place)
                self._made[f"derivative {by}"] = [Expression(self._graph, step)]
            return self._made[f"derivative {by}"][0]

    def minus(self, other: Expression) -> Expression:
        """Return the difference from another expression of the same graph; it is kept."""
        kept = f"minus {other._step}"
        with COMPUTING:
            if kept not in self._made:
                step = self._graph.minus(self._step, other._step)
                self._made[kept] = [Expression(self._graph, step)]
            return self._made[kept][0]

    def negative(self) -> Expression:
        """Return the same with its sign turned; it is kept."""
        with COMPUTING:
            if "negative" not in self._made:
                step = self._graph.negative(self._step)
                self._made["negative"] = [Expression(self._graph, step)]
            return self._made["negative"][0]

    def integral(self) -> Expression:
        """Return the integral by the variable from the input ``LOW`` to ``HIGH``; it is kept."""
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

    def settle(self, place: Ball, zeros: frozenset[int], parameters: Mapping[str, Ball]) -> Ball:
        """Return the value at a place where some steps of the graph are zero."""
        with COMPUTING:
            plain = run_all(self.program, _PROVING, place, parameters)
            return settled_value(
                self.program, self.indices, self._graph,
                lambda: Known(self._graph, place, zeros, parameters, _PROVING), plain,
            )  # fmt: skip

    def is_zero(self) -> bool:
        """Check whether it is zero wherever it has a value, as far as its terms show."""
        with COMPUTING:
            return is_zero(self._graph, self._step)

    def wave_levels(self) -> tuple[Expression, Fraction, bool] | None:
        """Return where a sine or cosine is zero, see ``factors.wave_levels``."""
        with COMPUTING:
            found = wave_levels(self._graph, self._step)
        return None if found is None else (Expression(self._graph, found[0]), *found[1:])

    def exponential_level(self) -> tuple[Expression, Expression] | None:
        """Return where a power of a fixed base is a number.

        Returns:
            What is zero there, and that number: where it is not above 0 there is no such place.
            None if the expression is no such power less a number.
        """
        with COMPUTING:
            graph = self._graph
            found = exponential_level(graph, self._step)
        if found is None:
            return None
        return Expression(graph, found[0]), Expression(graph, found[1])

    def less(self, level: Fraction, *, in_turns: bool) -> Expression:
        """Return the expression less a number, or less a multiple of pi."""
        with COMPUTING:
            graph = self._graph
            number = graph.number(level)
            if in_turns:
                number = graph.times(number, graph.add(Op.CONSTANT, payload="pi"))
            return Expression(graph, graph.minus(self._step, number))

    def polynomial_of(self, place: int, coefficients: Sequence[Fraction]) -> Expression:
        """Return a polynomial of one of the steps.

        Args:
            place: of the step in the program.
            coefficients: those of the powers from 0 upwards, at least one.
        """
        inner = self.indices[place]
        with COMPUTING:
            graph = self._graph
            made = graph.number(coefficients[-1])
            for coefficient in reversed(coefficients[:-1]):
                made = graph.plus(graph.times(made, inner), graph.number(coefficient))
            return Expression(graph, made)

    def polynomial_in(
        self, places: Sequence[int], terms: Sequence[tuple[Fraction, tuple[int, ...]]]
    ) -> Expression:
        """Return a polynomial of several of the steps.

        Args:
            places: of the steps in the program.
            terms: each a coefficient, and the power of each step; at least one.
        """
        inner = [self.indices[place] for place in places]
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

    def is_zero_at(self, place: Fraction) -> bool:
        """Check whether it is zero at a fraction by its terms, as e^x - e x at 1."""
        with COMPUTING:
            graph = self._graph
            variable = graph.add(Op.VARIABLE)
            return is_zero(graph, graph.substitute(self._step, variable, graph.number(place)))

    def step_at(self, place: int) -> Expression:
        """Return a step of the program as an expression."""
        return self.sibling(self.indices[place])

    def with_variable_at(self, place: int) -> Expression:
        """Return the expression with the variable in place of a step of its program."""
        with COMPUTING:
            graph = self._graph
            step = graph.substitute(self._step, self.indices[place], graph.add(Op.VARIABLE))
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
        kept = f"factors {through_pieces}"
        with COMPUTING:
            if kept not in self._made:
                steps = zero_factors(self._graph, self._step, through_pieces=through_pieces)
                self._made[kept] = [Expression(self._graph, step) for step in steps]
            return self._made[kept]


class Constant(Ball):
    """A number that is known by an expression, to as many digits as anyone wants.

    What is computed from it is a ball like any other.

    Attributes:
        expression: without a variable; None for what was made of another one.
    """

    __slots__ = ("expression",)
    expression: Expression | None

    def __init__(self, *fields: Any, **named: Any) -> None:  # noqa: ANN401 - those of a ball
        super().__init__(*fields, **named)
        object.__setattr__(self, "expression", None)

    @classmethod
    def of(cls, value: Ball, expression: Expression) -> Constant:
        """Make a constant from its ball."""
        fields = (value.exact, value.turns, value.defined, value.continuous, value.reason)
        made = cls(value.value, *fields)
        object.__setattr__(made, "expression", expression)
        return made


@dataclass(frozen=True)
class End:
    """One end of a domain with its present value.

    Attributes:
        value: a ball at ``VALUE_BITS``.
        closed: whether the end belongs to the domain.
    """

    value: Ball
    closed: bool

    @kept_property
    def near(self) -> float:
        """Return the end as the nearest float, for drawing."""
        return float(self.value.value.mid())

    @kept_property
    def key(self) -> str:
        """Return a text that is equal for equal ends only."""
        return f"{self.closed} {self.value!r}"

    @kept_property
    def kept(self) -> dict[str, str]:
        """Return what others found out of this end, by what it is; every frame asks for it."""
        return {}


@dataclass(frozen=True)
class RealFunction:
    """A function with the present values of its sliders.

    Attributes:
        name: as it is shown.
        variable: the name of its variable.
        expression: the function without its own domain.
        parameters: the exact value of every slider.
        low: the lower end of its own domain, None if it has none; ``high`` likewise.
        without: single values that its domain leaves out.
    """

    name: str
    variable: str
    expression: Expression
    parameters: Mapping[str, Fraction] = field(default_factory=dict)
    low: End | None = None
    high: End | None = None
    without: tuple[Ball, ...] = ()

    def key(self) -> tuple[object, ...]:
        """Return all that its values and its domain depend on."""
        return self._key

    def key_on(self, low: float, high: float) -> tuple[object, ...]:
        """Return all that its values and its domain depend on between two floats, both included."""
        used = sliders_on(self.expression.program, low, high)
        return (*self._key_of(used), low, high)

    @kept_property
    def _key(self) -> tuple[object, ...]:
        return self._key_of(self.expression.program.parameters)

    def _key_of(self, sliders: frozenset[str]) -> tuple[object, ...]:
        # Whole numbers: to find something by a fraction takes far longer.
        exact = ((name, self.parameters[name]) for name in sorted(sliders))
        values = tuple((name, value.numerator, value.denominator) for name, value in exact)
        return (self.expression, self.name, self.variable, self._ends_key(), values)

    def _ends_key(self) -> tuple[str, ...]:
        """Return a text for each end and left-out value, equal if and only if they are."""
        ends = [end.key if end else "" for end in (self.low, self.high)]
        return (*ends, *(repr(value) for value in self.without))

    def _used(self, expression: Expression) -> list[tuple[str, Fraction]]:
        return [(name, self.parameters[name]) for name in expression.program.parameters]

    def sample(self, xs: Floats) -> Floats:
        """Return the values at ``xs``, (n,) floats; NaN where undefined or beyond all floats."""
        ys = self.sample_unrestricted(xs)
        holds = np.ones(np.shape(xs), dtype=np.bool_)
        if self.low is not None:
            holds &= xs >= self.low.near if self.low.closed else xs > self.low.near
        if self.high is not None:
            holds &= xs <= self.high.near if self.high.closed else xs < self.high.near
        for value in self.without:
            holds &= xs != float(value.value.mid())
        return np.where(holds, ys, np.nan)

    def sample_unrestricted(self, xs: Floats) -> Floats:
        """Return the values at ``xs`` as if the function had no domain of its own."""
        return sample(self.expression.program, xs, self.parameters)

    def inner_ends(self) -> list[float]:
        """Return where the domains of functions that are used on the variable itself end.

        Every end that is no float is given as the floats below and above it.
        """
        bounds = inner_bounds(self.expression.program)
        if bounds is None:
            return []
        nowhere = np.zeros(1)
        found = enclose_columns(bounds, (nowhere, nowhere), self.parameters)
        ends = [float(bound[0]) for end in found for bound in (end.low, end.high)]
        return [end for end in ends if math.isfinite(end)]

    def enclose(
        self, lows: Floats, highs: Floats, expression: Expression | None = None
    ) -> Enclosure:
        """Enclose the values over the columns ``[lows, highs]``, (n,) floats each.

        The function's own domain is left to the caller, who cuts the columns at its ends.
        """
        chosen = expression or self.expression
        return enclose_columns(chosen.program, (lows, highs), self.parameters)[0]

    def enclose_together(self, lows: Floats, highs: Floats, *others: Expression) -> list[Enclosure]:
        """Enclose the values and those of other expressions of this function over columns."""
        program = self.expression.together(*others)
        return enclose_columns(program, (lows, highs), self.parameters)

    def enclose_pair(
        self, lows: Floats, highs: Floats, one: Expression, other: Expression
    ) -> list[Enclosure]:
        """Enclose two expressions that were made from this function's over columns."""
        return enclose_columns(one.together(other), (lows, highs), self.parameters)

    def compiled(self, *expressions: Expression) -> tuple[Any, ...] | None:
        """Return expressions made from this function's as compiled code takes them, or its own.

        See ``compiled_form``.
        """
        first, *others = expressions or (self.expression,)
        return compiled_form(first.together(*others) if others else first.program, self.parameters)

    def prove(self, x: Ball, expression: Expression | None = None) -> Ball:
        """Return the ball of values over ``x``, at the present precision.

        Args:
            x: a number or an interval; the function's own domain is not looked at.
            expression: one that was made from this function's; the function itself by default.
        """
        chosen = expression or self.expression
        parameters = {name: ball.from_fraction(value) for name, value in self._used(chosen)}
        return run(chosen.program, _PROVING, x, parameters)[0]

    def settle(
        self, place: Ball, zeros: frozenset[int], expression: Expression | None = None
    ) -> Ball:
        """Return the value at a place that is known by what is zero there, see ``settled.py``.

        Args:
            place: a ball that holds it; the function's own domain is not looked at.
            zeros: the steps of the function's graph that are exactly zero there.
            expression: one of the same graph; the function itself by default.
        """
        chosen = expression or self.expression
        parameters = {name: ball.from_fraction(value) for name, value in self.parameters.items()}
        return chosen.settle(place, zeros, parameters)

    def prove_within(self, x: Ball) -> Ball:
        """Return the value at one number ``x``, undefined outside the function's own domain."""
        return self.outside(x) or self.prove(x)

    def outside(self, x: Ball) -> Ball | None:
        """Return the undefined ball of a number that is, or may be, outside the own domain.

        Returns:
            None for a number that the domain holds.
        """
        reason = f"outside the domain of {self.name}"
        for end, side in ((self.low, 1), (self.high, -1)):
            if end is None:
                continue
            sign = ball.subtract(x, end.value).sign()
            if sign is None:
                return Ball(x.value, defined=Defined.MAYBE, reason=reason)
            if sign == -side or (sign == 0 and not end.closed):
                return ball.undefined(reason)
        if any(ball.subtract(x, value).sign() == 0 for value in self.without):
            return ball.undefined(f"left out of the domain of {self.name}")
        return None

    def reason_at(self, x: Fraction) -> str:
        """Explain why there is no value at ``x``; empty where there is one."""
        with precision(VALUE_BITS):
            value = self.prove_within(ball.from_fraction(x))
        if value.defined is Defined.YES:
            return ""
        return f"{value.reason or 'it could not be decided'} at {self.variable} = {_written(x)}"


@dataclass(frozen=True, slots=True)
class ProvedSteps:
    """All steps of a function at one place.

    Attributes:
        indices: where each step is in the graph of the function.
        steps: with what computes each from the balls of its arguments.
        values: their balls.
        result: the place of the function's own value among them.
    """

    indices: tuple[int, ...]
    steps: tuple[tuple[Step, Callable[..., Ball]], ...]
    values: tuple[Ball, ...]
    result: int


def prove_steps(function: RealFunction, x: Ball) -> ProvedSteps:
    """Return the balls of all steps of a function at ``x``, at the present precision."""
    program = function.expression.program
    plan = program.plan(_PROVING)
    applied = {place: apply for place, apply, _ in plan.calls}
    values: list[Ball] = list(plan.values)
    for place, name in plan.reads:
        values[place] = x if name is None else ball.from_fraction(function.parameters[name])
    for place, apply, arguments in plan.calls:
        values[place] = apply(*(values[argument] for argument in arguments))
    steps = tuple((step, applied.get(k, ball.undefined)) for k, step in enumerate(program.steps))
    return ProvedSteps(function.expression.indices, steps, tuple(values), program.results[0])


def constant_steps(function: RealFunction) -> tuple[tuple[Step, ...], list[Ball | None], int]:
    """Return the steps of a function, and the balls of those that do not depend on its variable.

    Returns:
        The steps; for each its ball, None if it depends on the variable; the place of the result.
    """
    program = function.expression.program
    values: list[Ball | None] = []
    for step in program.steps:
        given = [values[argument] for argument in step.arguments]
        if step.op == Op.VARIABLE or any(each is None for each in given):
            values.append(None)
        elif step.op == Op.PARAMETER:
            values.append(ball.from_fraction(function.parameters[str(step.payload)]))
        else:
            values.append(bound_step(step, _PROVING)(*given))
    return program.steps, values, program.results[0]


def evaluate_constant(
    expression: Expression,
    parameters: Mapping[str, Fraction],
    *,
    bits: int,
    inputs: Mapping[str, Ball] | None = None,
    wanted: int | None = None,
) -> Ball:
    """Return the ball of an expression without a variable.

    Args:
        expression: what to compute.
        parameters: the values of the sliders.
        bits: the working precision.
        inputs: the elements of the lists that it runs over.
        wanted: how many right bits its integrals need; None for as many as can be had.
    """
    backend = _PROVING if wanted is None else Proving.with_integrals(wanted)
    with precision(bits):
        used = {
            name: ball.from_fraction(parameters[name]) for name in expression.program.parameters
        }
        used |= dict(inputs or {})
        return run(expression.program, backend, ball.from_fraction(0), used)[0]


def evaluate_together(
    expressions: Sequence[Expression],
    parameters: Mapping[str, Fraction],
    inputs: Mapping[str, Ball],
) -> list[Ball]:
    """Compute several expressions of one graph at once, at the present precision.

    Args:
        expressions: without a variable, at least one.
        parameters: the values of the sliders.
        inputs: what else they read by name.
    """
    first, *others = expressions
    program = first.together(*others)
    used = {name: ball.from_fraction(parameters[name]) for name in program.parameters}
    return run(program, _PROVING, ball.from_fraction(0), used | dict(inputs))


def has_zero_to_the_zero(expression: Expression, parameters: Mapping[str, Fraction]) -> bool:
    """Check whether an expression without a variable takes 0^0 anywhere."""
    program = expression.program
    powers = [
        (step.arguments[0], step.arguments[-1])
        for step in program.steps
        if step.op == Op.POWER or (step.op == Op.INTEGER_POWER and step.payload == 0)
    ]
    if not powers or program.inputs:
        return False
    used = {name: ball.from_fraction(parameters[name]) for name in program.parameters}
    with precision(VALUE_BITS):
        values = run_all(program, _PROVING, ball.from_fraction(0), used)
    return any(values[base].exact == 0 and values[last].exact == 0 for base, last in powers)


def evaluate_complex(
    expression: Expression, parameters: Mapping[str, Fraction], *, bits: int
) -> acb:
    """Return the complex ball of an expression without a variable; not finite without a value.

    Raises:
        NotHandledError: something in it takes no complex numbers.
    """
    backend = Complex()
    with precision(bits):
        used = {name: backend.number(parameters[name]) for name in expression.program.parameters}
        return run(expression.program, backend, backend.number(Fraction(0)), used)[0]


def sample_inputs(
    expression: Expression, parameters: Mapping[str, Fraction], inputs: Mapping[str, Floats]
) -> Floats:
    """Return the values of an expression over the elements of lists, (n,) floats or NaN."""
    used = {
        name: np.asarray(nearest_float(parameters[name])) for name in expression.program.parameters
    }
    shape = np.broadcast_shapes(*(np.shape(each) for each in inputs.values()))
    with np.errstate(all="ignore"):
        ys = run(expression.program, _FAST, np.zeros(()), used | dict(inputs))[0]
        full = np.array(np.broadcast_to(ys, shape), dtype=np.float64)
    full[~np.isfinite(full)] = np.nan
    return full
