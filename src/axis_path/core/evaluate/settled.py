"""What a function is at a place of which it is known which of its steps are zero there.

A place such as the zero of cos x - x is known as a ball. Whatever is computed from the ball alone
is a ball too: |cos x - x| comes out as a ball around 0, and whether x is below the place where a
piece ends cannot be determined. But the place is known by what defines it: a step of the graph
that is zero there. So every step is settled from its operands outwards, and one that is known to
be zero is exactly zero: the size and the root of it are 0, it lies at the end of a piece that it
defines, and ``floor`` of what differs from a whole number by it is that number.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from fractions import Fraction
from functools import cached_property

from flint import arb, fmpq

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.arithmetic.conversion import to_fraction, whole_number
from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.evaluate.graph.factors import implied_zeros, solved
from axis_path.core.evaluate.graph.fences import ball_inside
from axis_path.core.evaluate.graph.graph import Fence, Graph, Op, Split, Step
from axis_path.core.evaluate.graph.program import Backend, Program, extract, run_all
from axis_path.core.evaluate.graph.rough import rough_edges
from axis_path.core.evaluate.separation import bits_to_tell_from_zero

#: A number of more steps is not tried, nor one that takes more binary digits.
_MOST_STEPS, _MOST_BITS, _SPARE_BITS = 120, 6_000, 128
Plain = Sequence[Ball]
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


def nearest_whole(argument: Ball) -> Ball | None:
    """Return the whole number next to a ball; None if the ball is too wide to tell which."""
    if not argument.value.is_finite() or not bool(argument.value.rad() < arb(1) / 4):
        return None
    whole = whole_number((argument.value.mid() + arb(1) / 2).floor())
    return None if whole is None else Ball(arb(whole), exact=fmpq(whole))


def _nearest_odd_quarter(argument: Ball) -> Ball | None:
    """Return the odd multiple of a quarter turn next to a ball."""
    halves = nearest_whole(Ball(argument.value / arb.pi() - arb(1) / 2))
    if halves is None or halves.exact is None:
        return None
    turns = halves.exact + fmpq(1, 2)
    return Ball(arb.pi() * arb(turns), turns=turns)


_LEVELS: dict[str, Callable[[Ball], Ball | None]] = {
    "u": lambda _: _ZERO,
    "1 - u": lambda _: _ONE,
    "u - 1": lambda _: _ONE,
    "1 + u": lambda _: ball.negative(_ONE),
    "sin(pi u)": nearest_whole,
    "cos(u)": _nearest_odd_quarter,
}


class Known:
    """What is known of a place: which steps of a graph are exactly zero there.

    Args:
        graph: where the steps are.
        abscissa: a ball that contains it.
        zeros: the steps that are zero.
        parameters: the values of the sliders.
        backend: the arithmetic of balls.
    """

    def __init__(
        self,
        graph: Graph,
        abscissa: Ball,
        zeros: frozenset[int],
        parameters: Mapping[str, Ball],
        backend: Backend[Ball],
    ) -> None:
        self._graph, self._zeros = graph, implied_zeros(graph, zeros)
        self.abscissa, self.parameters, self.backend = abscissa, parameters, backend
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
        if self.abscissa.exact is not None:
            return graph.number(to_fraction(self.abscissa.exact))
        if self.abscissa.turns is not None:
            pi = graph.add(Op.CONSTANT, payload="pi")
            return graph.times(graph.number(to_fraction(self.abscissa.turns)), pi)
        shaped = (solved(graph, step) for step in sorted(self._zeros))
        return next((number for number in shaped if number is not None), None)

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
                exact = exact_level(text, argument)
                if exact is not None and exact.exact is not None:
                    self._note(step.arguments[0], to_fraction(exact.exact))
                return exact
        return None

    def _note(self, step: int, number: Fraction) -> None:
        """Note that a step is a number: x^2 is 2 where floor(x^2) jumps next to the root of 2."""
        graph = self._graph
        equal = {graph.minus(step, graph.number(number))}
        if graph.steps[step].op == Op.DIVIDE:
            top, bottom = graph.steps[step].arguments
            equal.add(graph.minus(top, graph.times(bottom, graph.number(number))))
        self._zeros |= implied_zeros(graph, frozenset(equal))


def settled_value(
    program: Program, indices: Sequence[int], graph: Graph, known: Callable[[], Known], plain: Plain
) -> Ball:
    """Return what a program comes to at a place of which it may be known what is zero there.

    Args:
        program: with one result.
        indices: where each of its steps is in the graph.
        graph: new steps are added to it where choices are made.
        known: returns what is known of the place; it is called only if that can change anything.
        plain: the balls of all steps, from the ball of the place alone.
    """
    is_plain = [*map(_is_settled, plain)]
    for k in _choices(program):
        deciding = _deciding(program.steps[k])
        is_plain[k] = is_plain[k] and all(_is_number(plain[argument]) for argument in deciding)
    if all(is_plain):
        return plain[program.results[0]]
    return _Settling(program, indices, graph, known(), plain).value(is_plain)


def _choices(program: Program) -> list[int]:
    """Return the steps of a program that are one of several expressions."""
    cached = program.cache.get("choices")
    if not isinstance(cached, list):
        cached = [k for k, step in enumerate(program.steps) if _deciding(step)]
        program.cache["choices"] = cached
    return cached


def _deciding(step: Step) -> tuple[int, ...]:
    """Return the arguments that decide which of several expressions a step is."""
    if isinstance(step.payload, Fence):
        return step.arguments[1:]
    if isinstance(step.payload, Split):
        bodies = step.payload.bodies()
        return tuple(a for k, a in enumerate(step.arguments) if k not in bodies)
    rough = FUNCTIONS[step.op].rough if step.op in FUNCTIONS else None
    # What is rough where its argument is zero shows by the argument.
    return step.arguments if rough and rough != ("u",) else ()


def _is_settled(value: Ball) -> bool:
    """Check whether a value cannot be zero unnoticed."""
    return value.exact is not None or value.excludes_zero()


def _is_number(value: Ball) -> bool:
    return value.exact is not None or value.turns is not None


class _Settling:
    """Settles the steps of a program at one place, from their plain values.

    Args: as those of ``settled_value``.
    """

    def __init__(
        self, program: Program, indices: Sequence[int], graph: Graph, known: Known, plain: Plain
    ) -> None:
        self._program, self._indices = program, indices
        self._graph, self._known = graph, known
        calls = program.plan(known.backend).calls
        self._apply = {position: function for position, function, _ in calls}
        #: For each step what it is with every choice made, and its ball.
        self._made = list(indices)
        self._values = list(plain)

    def value(self, is_plain: list[bool]) -> Ball:
        """Return the ball of the result, exact where what is known settles it.

        Args:
            is_plain: which steps are what they are whatever is known, if their arguments are.
        """
        for k, step in enumerate(self._program.steps):
            is_same = is_plain[k] and all(is_plain[argument] for argument in step.arguments)
            # What is known to be zero holds no |u|, but u or -u.
            if is_same and step.op != "abs":
                continue
            is_plain[k] = False
            self._settle(k, step)
        return self._values[self._program.results[0]]

    def _settle(self, position: int, step: Step) -> None:
        index = self._indices[position]
        if position not in self._apply:
            self._put(position, index, self._values[position])
            return
        made = tuple(self._made[argument] for argument in step.arguments)
        values = [self._values[argument] for argument in step.arguments]
        if isinstance(step.payload, Fence):
            self._put(position, *self._within(index, step.payload, made, values))
        elif isinstance(step.payload, Split):
            self._put(position, *self._pieces(index, step.payload, made, values))
        else:
            self._put(position, *self._operation(position, step, made, values))

    def _put(self, position: int, made: int, value: Ball) -> None:
        if value.is_defined and self._known.is_zero(made, value):
            value = replace(_ZERO, continuous=value.continuous)
        self._made[position], self._values[position] = made, value

    def _operation(
        self, position: int, step: Step, made: tuple[int, ...], values: list[Ball]
    ) -> tuple[int, Ball]:
        rebuilt, apply = self._rebuilt(self._indices[position], made), self._apply[position]
        if step.op in ("max", "min") and len(made) == 2:
            sign = self._sign_of_difference(made, values)
            if sign is not None:
                k = 0 if (sign >= 0) == (step.op == "max") else 1
                both = all(value.is_defined for value in values)
                return made[k], values[k] if both else apply(*values)
        if step.op == Op.SUBTRACT and self._known.are_equal(made[0], made[1], values):
            return rebuilt, self._zero_of(values)
        level = self._known.level(Step(step.op, made), values[0]) if len(values) == 1 else None
        if level is not None:
            values = [level]
        value = apply(*values)
        sign = values[0].sign() if step.op == "abs" and values[0].is_defined else None
        if sign is not None:
            return (made[0] if sign >= 0 else self._graph.negative(made[0])), value
        if value.exact is not None and step.op in ("abs", "sign", "floor", "ceil"):
            return self._graph.number(to_fraction(value.exact)), value
        return rebuilt, value

    def _zero_of(self, values: list[Ball]) -> Ball:
        """Return 0 if both numbers that are equal have a value."""
        difference = ball.subtract(*values)
        return replace(difference, value=arb(0), exact=fmpq(0), turns=None)

    def _rebuilt(self, index: int, made: tuple[int, ...]) -> int:
        step = self._graph.steps[index]
        return index if made == step.arguments else self._graph.rebuild(step, made)

    def _sign_of_difference(self, made: tuple[int, ...], values: list[Ball]) -> int | None:
        if self._known.are_equal(made[0], made[1], values):
            return 0
        return ball.subtract(values[0], values[1]).sign()

    def _within(
        self, index: int, fence: Fence, made: tuple[int, ...], values: list[Ball]
    ) -> tuple[int, Ball]:
        if values[1].defined is Defined.NO:
            return self._rebuilt(index, made), values[1]
        inside = self._is_inside(fence, made[1], made[2:], values[1], values[2:])
        body = made[0] if inside else self._rebuilt(index, made)
        return body, ball.restrict(values[0], inside, fence.reason)

    def _pieces(
        self, index: int, split: Split, made: tuple[int, ...], values: list[Ball]
    ) -> tuple[int, Ball]:
        if values[0].defined is Defined.NO:
            return self._rebuilt(index, made), values[0]
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
                return self._rebuilt(index, made), joined
            at += 1 + count
        joined = ball.join(possible, split.reason, is_certain=False)
        return self._rebuilt(index, made), joined

    def _is_inside(
        self, fence: Fence, subject: int, bounds: tuple[int, ...], at: Ball, values: list[Ball]
    ) -> bool | None:
        are_equal = self._known.are_equal
        equal = frozenset(
            k
            for k, (bound, value) in enumerate(zip(bounds, values, strict=True))
            if are_equal(subject, bound, (at, value))
        )
        return ball_inside(fence, at, tuple(values), equal)
