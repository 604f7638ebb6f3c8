"""A real function of one variable, ready to be sampled, enclosed and proved.

It is one expression of a graph together with the present values of the sliders; drawing, locating
and tabulating see functions in this form only.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from fractions import Fraction
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, Enclosure, ball, precision
from axis_path.core.arithmetic.real_number import Balls, Parameters, RealNumber, ball_of, key_of
from axis_path.core.dimensions.curve_units import PLAIN_UNITS, CurveUnits
from axis_path.core.evaluate.backends.backends import (
    Enclosing,
    Fast,
)
from axis_path.core.evaluate.backends.enclosed import compiled_form, enclose_columns
from axis_path.core.evaluate.backends.sampled import sample
from axis_path.core.evaluate.expression import PROVING, Expression, written
from axis_path.core.evaluate.graph.depends import sliders_on
from axis_path.core.evaluate.graph.graph import Op, Step
from axis_path.core.evaluate.graph.program import (
    bound_step,
    inner_bounds,
    run,
)
from axis_path.core.threads import lazy_property

Floats = NDArray[np.float64]
FAST, _ENCLOSING = Fast(), Enclosing()
#: Precision for single values whose digits are shown as floats: far more than a float's 53 bits.
VALUE_BITS = 128


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

    @lazy_property
    def near(self) -> float:
        """Return the end as the nearest float, for drawing."""
        return float(self.value.value.mid())

    @lazy_property
    def key(self) -> str:
        """Return a text that is equal for equal ends only."""
        return f"{self.closed} {self.value!r}"

    @lazy_property
    def cache(self) -> dict[str, str]:
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
        units: the units of its variable and of its value, where they have any.
    """

    name: str
    variable: str
    expression: Expression
    parameters: Parameters = field(default_factory=dict)
    low: End | None = None
    high: End | None = None
    without: tuple[Ball, ...] = ()
    units: CurveUnits = PLAIN_UNITS

    def key(self) -> tuple[object, ...]:
        """Return all that its values and its domain depend on."""
        return self._key

    def key_on(self, low: float, high: float) -> tuple[object, ...]:
        """Return all that its values and its domain depend on between two floats, both included."""
        used = sliders_on(self.expression.program, low, high)
        return (*self._key_of(used), low, high)

    @lazy_property
    def _key(self) -> tuple[object, ...]:
        return self._key_of(self.expression.program.parameters)

    def _key_of(self, sliders: frozenset[str]) -> tuple[object, ...]:
        values = tuple((name, *key_of(self.parameters[name])) for name in sorted(sliders))
        return (self.expression, self.name, self.variable, self._ends_key(), values)

    def _ends_key(self) -> tuple[str, ...]:
        """Return a text for each end and left-out value, equal if and only if they are."""
        ends = [end.key if end else "" for end in (self.low, self.high)]
        return (*ends, *(repr(value) for value in self.without))

    def _used(self, expression: Expression) -> list[tuple[str, RealNumber]]:
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
        enclosure = enclose_columns(bounds, (nowhere, nowhere), self.parameters)
        ends = [float(bound[0]) for end in enclosure for bound in (end.low, end.high)]
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
        parameters = {name: ball_of(value) for name, value in self._used(chosen)}
        return run(chosen.program, PROVING, x, parameters)[0]

    def settle(
        self, abscissa: Ball, zeros: frozenset[int], expression: Expression | None = None
    ) -> Ball:
        """Return the value at a place that is known by what is zero there, see ``settled.py``.

        Args:
            abscissa: a ball that holds it; the function's own domain is not looked at.
            zeros: the steps of the function's graph that are exactly zero there.
            expression: one of the same graph; the function itself by default.
        """
        chosen = expression or self.expression
        return chosen.settle(abscissa, zeros, Balls(self.parameters))

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
        return f"{value.reason or 'it could not be decided'} at {self.variable} = {written(x)}"


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
    plan = program.plan(PROVING)
    applied = {position: apply for position, apply, _ in plan.calls}
    values: list[Ball] = list(plan.values)
    for position, name in plan.reads:
        values[position] = x if name is None else ball_of(function.parameters[name])
    for position, apply, arguments in plan.calls:
        values[position] = apply(*(values[argument] for argument in arguments))
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
        if step.op == Op.VARIABLE or any(argument is None for argument in given):
            values.append(None)
        elif step.op == Op.PARAMETER:
            values.append(ball_of(function.parameters[str(step.payload)]))
        else:
            values.append(bound_step(step, PROVING)(*given))
    return program.steps, values, program.results[0]
