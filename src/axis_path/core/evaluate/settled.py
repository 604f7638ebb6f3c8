"""What a function is at a place of which it is known which of its steps are zero there.

A place such as the zero of cos x - x is known as a ball. Whatever is computed from the ball alone
is a ball too: |cos x - x| comes out as a ball around 0, and whether x is below the place where a
piece ends cannot be told. But the place is known by what defines it: a step of the graph that is
zero there. So every step is settled from its operands outwards, and one that is known to be zero is
exactly zero: the size and the root of it are 0, it lies at the end of a piece that it defines, and
``floor`` of what differs from a whole number by it is that number.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from functools import cached_property

from flint import arb, fmpq

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.arithmetic.conversion import to_fraction, whole_number
from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.evaluate.factors import implied_zeros, solved
from axis_path.core.evaluate.fences import ball_inside
from axis_path.core.evaluate.graph import Fence, Graph, Op, Split, Step
from axis_path.core.evaluate.program import Backend, bound_step, extract, run_all
from axis_path.core.evaluate.rough import rough_edges
from axis_path.core.evaluate.separation import bits_to_tell_from_zero

#: A number of more steps is not tried, nor one that takes more binary digits.
_MOST_STEPS, _MOST_BITS, _SPARE_BITS = 120, 6_000, 128
_ZERO, _ONE = ball.from_fraction(0), ball.from_fraction(1)


def exact_level(rough: str, argument: Ball) -> Ball | None:
    """Return the number that an argument is where a rough expression of the catalogue is zero.

    Args:
        rough: the expression, such as ``sin(pi u)``.
        argument: a ball about ``u``.

    Returns:
        None if the ball is too wide to tell which of several numbers it is.
    """
    level = _LEVELS.get(rough)
    return None if level is None else level(argument)


def _nearest_whole(argument: Ball) -> Ball | None:
    if not argument.value.is_finite() or not bool(argument.value.rad() < arb(1) / 4):
        return None
    found = whole_number((argument.value.mid() + arb(1) / 2).floor())
    return None if found is None else Ball(arb(found), exact=fmpq(found))


def _nearest_odd_quarter(argument: Ball) -> Ball | None:
    """Return the odd multiple of a quarter turn next to a ball."""
    halves = _nearest_whole(Ball(argument.value / arb.pi() - arb(1) / 2))
    if halves is None or halves.exact is None:
        return None
    turns = halves.exact + fmpq(1, 2)
    return Ball(arb.pi() * arb(turns), turns=turns)


_LEVELS: dict[str, Callable[[Ball], Ball | None]] = {
    "u": lambda _: _ZERO,
    "1 - u": lambda _: _ONE,
    "u - 1": lambda _: _ONE,
    "1 + u": lambda _: ball.negative(_ONE),
    "sin(pi u)": _nearest_whole,
    "cos(u)": _nearest_odd_quarter,
}


class Known:
    """What is known of a place: which steps of a graph are exactly zero there.

    Args:
        graph: where the steps are.
        place: a ball that holds the place.
        zeros: the steps that are zero.
        parameters: the values of the sliders.
        backend: the arithmetic of balls.
    """

    def __init__(
        self,
        graph: Graph,
        place: Ball,
        zeros: frozenset[int],
        parameters: Mapping[str, Ball],
        backend: Backend[Ball],
    ) -> None:
        self._graph, self._zeros = graph, implied_zeros(graph, zeros)
        self.place, self.parameters, self.backend = place, parameters, backend
        self._tried: dict[int, bool] = {}

    def is_zero(self, step: int, value: Ball | None = None) -> bool:
        """Check whether a step is known to be zero.

        Args:
            step: of the graph.
            value: its ball, if it may be zero by computing it where the place is a known number.
        """
        if step in self._zeros or self._graph.value(step) == 0:
            return True
        if value is None or value.exact is not None or value.excludes_zero():
            return False
        if step not in self._tried:
            self._tried[step] = value.is_defined and self._vanishes(step)
        return self._tried[step]

    def _vanishes(self, step: int) -> bool:
        """Check whether a step is zero by the number that the place is, if that is algebraic."""
        if self._number is None:
            return False
        variable = self._graph.add(Op.VARIABLE)
        program = extract(self._graph, self._graph.substitute(step, variable, self._number))
        if len(program.steps) > _MOST_STEPS or any(s.op == Op.OVER for s in program.steps):
            return False
        values = run_all(program, self.backend, _ZERO, self.parameters)
        bits = bits_to_tell_from_zero(program.steps, values, program.results[0])
        if bits is None or bits > _MOST_BITS:
            return False
        with precision(bits + _SPARE_BITS):
            value = run_all(program, self.backend, _ZERO, self.parameters)[program.results[0]]
            return value.is_defined and bool(abs(value.value) < arb(2) ** -bits)

    @cached_property
    def _number(self) -> int | None:
        """Return the place as a step without the variable, if it is one by what is zero there."""
        graph = self._graph
        if self.place.exact is not None:
            return graph.number(to_fraction(self.place.exact))
        if self.place.turns is not None:
            pi = graph.add(Op.CONSTANT, payload="pi")
            return graph.times(graph.number(to_fraction(self.place.turns)), pi)
        found = (solved(graph, step) for step in sorted(self._zeros))
        return next((number for number in found if number is not None), None)

    def are_equal(self, one: int, other: int, values: Sequence[Ball] = ()) -> bool:
        """Check whether two steps are known to be equal.

        Args:
            one: of the graph.
            other: of the graph.
            values: their balls, if they may be equal by computing them.
        """
        if one == other:
            return True
        difference = ball.subtract(*values) if values else None
        if difference is not None and difference.excludes_zero():
            return False
        return self.is_zero(self._graph.minus(other, one)) or self.is_zero(
            self._graph.minus(one, other), difference
        )

    def level(self, step: Step, argument: Ball) -> Ball | None:
        """Return the number at which the argument of a function is known to be; None if it is not.

        Args:
            step: a function of one number.
            argument: a ball about its argument.
        """
        rough = FUNCTIONS[step.op].rough if step.op in FUNCTIONS else None
        if not rough or len(step.arguments) != 1 or not argument.is_defined:
            return None
        if argument.exact is not None or argument.turns is not None:
            return None
        for text, edge in zip(rough, rough_edges(self._graph, step) or (), strict=False):
            if self.is_zero(edge):
                return exact_level(text, argument)
        return None


class Settling:
    """Settles the steps of a graph at one place.

    Args:
        graph: where the steps are; new ones are added where choices are made.
        known: what is known of the place.
    """

    def __init__(self, graph: Graph, known: Known) -> None:
        self._graph, self._known = graph, known
        #: For each step what it is with every choice made, and its ball.
        self._made: dict[int, int] = {}
        self._values: dict[int, Ball] = {}

    def value(self, top: int) -> Ball:
        """Return the ball of a step at the place, exact where what is known settles it."""
        for index in self._graph.reachable(top):
            if index not in self._values:
                self._settle(index)
        return self._values[top]

    def _settle(self, index: int) -> None:
        step = self._graph.steps[index]
        if step.op == Op.VARIABLE:
            self._put(index, index, self._known.place)
            return
        if step.op == Op.PARAMETER:
            self._put(index, index, self._known.parameters[str(step.payload)])
            return
        made = tuple(self._made[argument] for argument in step.arguments)
        values = [self._values[argument] for argument in step.arguments]
        if isinstance(step.payload, Fence):
            self._put(index, *self._within(index, step, step.payload, made, values))
        elif isinstance(step.payload, Split):
            self._put(index, *self._pieces(index, step, step.payload, made, values))
        else:
            self._put(index, *self._operation(index, step, made, values))

    def _put(self, index: int, made: int, value: Ball) -> None:
        if value.is_defined and self._known.is_zero(made, value):
            value = replace(_ZERO, continuous=value.continuous)
        self._made[index], self._values[index] = made, value

    def _operation(
        self, index: int, step: Step, made: tuple[int, ...], values: list[Ball]
    ) -> tuple[int, Ball]:
        rebuilt = self._rebuilt(index, step, made)
        if step.op in ("max", "min") and len(made) == 2:
            sign = self._sign_of_difference(made, values)
            if sign is not None:
                k = 0 if (sign >= 0) == (step.op == "max") else 1
                both = all(value.is_defined for value in values)
                return made[k], values[k] if both else self._applied(step, values)
        if step.op == Op.SUBTRACT and self._known.are_equal(made[0], made[1], values):
            return rebuilt, self._zero_of(values)
        level = self._known.level(Step(step.op, made), values[0]) if len(values) == 1 else None
        if level is not None:
            values = [level]
        value = self._applied(step, values)
        if step.op == "abs" and values[0].is_defined and values[0].sign() in (0, 1):
            return made[0], value
        if value.exact is not None and step.op in ("abs", "sign", "floor", "ceil"):
            return self._graph.number(to_fraction(value.exact)), value
        return rebuilt, value

    def _zero_of(self, values: list[Ball]) -> Ball:
        """Return 0 if both numbers that are equal have a value."""
        difference = ball.subtract(*values)
        return replace(difference, value=arb(0), exact=fmpq(0), turns=None)

    def _applied(self, step: Step, values: list[Ball]) -> Ball:
        return bound_step(step, self._known.backend)(*values)

    def _rebuilt(self, index: int, step: Step, made: tuple[int, ...]) -> int:
        return index if made == step.arguments else self._graph.rebuild(step, made)

    def _sign_of_difference(self, made: tuple[int, ...], values: list[Ball]) -> int | None:
        if self._known.are_equal(made[0], made[1], values):
            return 0
        return ball.subtract(values[0], values[1]).sign()

    def _within(
        self, index: int, step: Step, fence: Fence, made: tuple[int, ...], values: list[Ball]
    ) -> tuple[int, Ball]:
        if values[1].defined is Defined.NO:
            return self._rebuilt(index, step, made), values[1]
        inside = self._is_inside(fence, made[1], made[2:], values[1], values[2:])
        body = made[0] if inside else self._rebuilt(index, step, made)
        return body, ball.restrict(values[0], inside, fence.reason)

    def _pieces(
        self, index: int, step: Step, split: Split, made: tuple[int, ...], values: list[Ball]
    ) -> tuple[int, Ball]:
        if values[0].defined is Defined.NO:
            return self._rebuilt(index, step, made), values[0]
        at = 1
        possible: list[Ball] = []
        for fence in split.fences:
            count = 0 if fence is None else fence.count
            rest = slice(at + 1, at + 1 + count)
            inside = (
                True
                if fence is None
                else self._is_inside(fence, made[0], made[rest], values[0], values[rest])
            )
            if inside and not possible:
                return made[at], values[at]
            if inside is not False:
                possible.append(values[at])
            if inside:
                joined = ball.join(possible, split.reason, is_certain=True)
                return self._rebuilt(index, step, made), joined
            at += 1 + count
        joined = ball.join(possible, split.reason, is_certain=False)
        return self._rebuilt(index, step, made), joined

    def _is_inside(
        self, fence: Fence, subject: int, bounds: tuple[int, ...], at: Ball, values: list[Ball]
    ) -> bool | None:
        are_equal = self._known.are_equal
        equal = frozenset(
            k
            for k, (each, value) in enumerate(zip(bounds, values, strict=True))
            if are_equal(subject, each, (at, value))
        )
        return ball_inside(fence, at, tuple(values), equal)
