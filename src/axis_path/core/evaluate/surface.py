"""A real function of two variables, such as stands on the sides of an equation in x and y."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Enclosure
from axis_path.core.arithmetic.real_number import Parameters, ball_of
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate.backends.backends import Fast, Proving, nearest_float
from axis_path.core.evaluate.backends.enclosed import enclose_columns
from axis_path.core.evaluate.expression import Expression
from axis_path.core.evaluate.graph.program import run

Floats = NDArray[np.float64]
_FAST, _PROVING = Fast(), Proving()


@dataclass(frozen=True, slots=True)
class Boxes:
    """Boxes in the plane, (n,) floats each."""

    x_low: Floats
    x_high: Floats
    y_low: Floats
    y_high: Floats

    def take(self, chosen: NDArray[np.bool_] | NDArray[np.int64]) -> Boxes:
        """Return some of the boxes."""
        return Boxes(
            self.x_low[chosen], self.x_high[chosen], self.y_low[chosen], self.y_high[chosen]
        )

    def __len__(self) -> int:
        """Return how many there are."""
        return len(self.x_low)

    def cut(self, parts: int) -> Boxes:
        """Cut each box in ``parts`` times ``parts``, in the order of the boxes."""
        steps = np.arange(parts + 1) / parts
        x = self.x_low[:, None] + (self.x_high - self.x_low)[:, None] * steps
        y = self.y_low[:, None] + (self.y_high - self.y_low)[:, None] * steps
        # The outer edges must be the box's own, to the last bit, so that nothing falls between.
        x[:, -1], y[:, -1] = self.x_high, self.y_high
        shape = (len(self), parts, parts)
        return Boxes(
            np.broadcast_to(x[:, None, :-1], shape).ravel(),
            np.broadcast_to(x[:, None, 1:], shape).ravel(),
            np.broadcast_to(y[:, :-1, None], shape).ravel(),
            np.broadcast_to(y[:, 1:, None], shape).ravel(),
        )


@dataclass(frozen=True, slots=True)
class RealSurface:
    """A function of two variables with the present values of its sliders.

    Attributes:
        expression: its value; the first variable is the graph's own.
        second: under which name the graph knows the second variable.
        parameters: the exact value of every slider.
    """

    expression: Expression
    second: str
    parameters: Parameters = field(default_factory=dict)

    def key(self) -> tuple[object, ...]:
        """Return all that its values depend on."""
        used = sorted(self.expression.program.parameters)
        return (self.expression, self.second, tuple((n, self.parameters[n]) for n in used))

    def of(self, expression: Expression) -> RealSurface:
        """Return another function of the same variables and sliders."""
        return RealSurface(expression, self.second, self.parameters)

    def factors(self) -> list[RealSurface]:
        """Return functions whose zeros, together, hold all zeros of this one."""
        return [self.of(factor) for factor in self.expression.factors()]

    def slopes(self) -> tuple[RealSurface, RealSurface] | None:
        """Return the derivatives by both variables; None if one is not known."""
        try:
            return self.of(self.expression.derivative()), self.of(
                self.expression.derivative(self.second)
            )
        except (LimitError, NotHandledError):
            return None

    def sample(self, xs: Floats, ys: Floats) -> Floats:
        """Return the values at the points (xs, ys), (n,) floats each; NaN where undefined."""
        used = {
            name: np.asarray(nearest_float(self.parameters[name]))
            for name in self.expression.program.parameters
        }
        with np.errstate(all="ignore"):
            result = run(self.expression.program, _FAST, xs, used | {self.second: ys})[0]
            values = np.array(np.broadcast_to(result, np.shape(xs)), dtype=np.float64)
        values[~np.isfinite(values)] = np.nan
        return values

    def enclose(self, boxes: Boxes) -> Enclosure:
        """Enclose the values over boxes."""
        return enclose_columns(
            self.expression.program,
            (boxes.x_low, boxes.x_high),
            self.parameters,
            {self.second: (boxes.y_low, boxes.y_high)},
        )[0]

    def prove(self, x: Ball, y: Ball) -> Ball:
        """Return the ball of values at two numbers, at the present precision."""
        program = self.expression.program
        used = {name: ball_of(self.parameters[name]) for name in program.parameters}
        return run(program, _PROVING, x, used | {self.second: y})[0]
