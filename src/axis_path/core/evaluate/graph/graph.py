"""Expressions as one graph of operations, where equal parts are one step.

A step is an operation on earlier steps, known by its index. Interning makes a function that is used
a hundred times one set of steps, so a chain of definitions cannot blow up, and a derivative shares
what it can with its function. Exact numbers are computed while the graph is built.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from axis_path.core.catalogue import OPERATIONS
from axis_path.core.errors import LimitError
from axis_path.core.language.tree import Summary
from axis_path.core.limits import STEPS

#: Exact numbers are folded up to this size; larger ones are left to the backends.
_FOLDED_BITS = 2_000
_LARGEST_FIXED_EXPONENT = 10_000
#: The payload of the constant i.
IMAGINARY = "i"


class Op(StrEnum):
    """Operations that are no functions of the catalogue; those are known by their name."""

    NUMBER = "number"
    VARIABLE = "variable"
    PARAMETER = "parameter"
    CONSTANT = "constant"
    ADD = "add"
    SUBTRACT = "subtract"
    MULTIPLY = "multiply"
    DIVIDE = "divide"
    NEGATIVE = "negative"
    POWER = "power"
    INTEGER_POWER = "integer power"
    ROOT = "root"
    WITHIN = "within"
    PIECES = "pieces"
    GUARD = "guard"
    OVER = "over"
    INPUT = "input"


@dataclass(frozen=True, slots=True)
class Fence:
    """How a domain limits its subject; the bounds themselves are steps.

    Attributes:
        low: None, or whether the lower end belongs to the domain; ``high`` likewise.
        without: how many single values are left out.
        reason: what to say outside.
    """

    low: bool | None
    high: bool | None
    without: int
    reason: str

    @property
    def count(self) -> int:
        """Return how many bounds there are."""
        return (self.low is not None) + (self.high is not None) + self.without


#: What a step has that stands for ∞: nothing is inside, so that it has no value.
ENDLESS = Fence(
    low=True, high=None, without=0,
    reason="an integral without end cannot be used inside a function",
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Split:
    """How a function is in pieces: a fence for each, None for the one that holds everywhere else.

    The arguments of its step are the subject, and for each piece its body and its bounds.
    """

    fences: tuple[Fence | None, ...]
    reason: str

    def bodies(self) -> list[int]:
        """Return the places of the bodies among the arguments."""
        positions, at = [], 1
        for fence in self.fences:
            positions.append(at)
            at += 1 + (0 if fence is None else fence.count)
        return positions


@dataclass(frozen=True, slots=True)
class Inner:
    """What runs inside a sum, a product or an integral.

    The arguments of its step are the two ends and the ``captured`` steps from outside.

    Attributes:
        steps: they refer to the captured values, then the bound variable, then one another.
        result: the place of the result among those.
        fourth: the place of its fourth derivative, for the error of Simpson's rule; None if there
            is none.
    """

    summary: Summary
    captured: int
    steps: tuple[Step, ...]
    result: int
    fourth: int | None = None


Payload = Fraction | str | int | tuple[int, int] | Fence | Split | Inner | None


@dataclass(frozen=True, slots=True)
class Step:
    """One operation on earlier steps."""

    op: str
    arguments: tuple[int, ...] = ()
    payload: Payload = None


class Graph:
    """Grows step by step; a step that exists already is given again."""

    def __init__(self) -> None:
        self.steps: list[Step] = []
        self._index: dict[Step, int] = {}

    def add(self, op: str, arguments: tuple[int, ...] = (), payload: Payload = None) -> int:
        """Return the index of a step, made if it is new.

        Raises:
            LimitError: the graph would grow past its limit.
        """
        step = Step(op, arguments, payload)
        cached = self._index.get(step)
        if cached is None:
            if len(self.steps) >= STEPS.value:
                raise LimitError(
                    f"The definitions need more than {STEPS.value:,} operations together."
                )
            cached = self._index[step] = len(self.steps)
            self.steps.append(step)
        return cached

    def number(self, value: Fraction | int) -> int:
        """Return the step of an exact number."""
        return self.add(Op.NUMBER, payload=Fraction(value))

    def infinity(self) -> int:
        """Return the step that stands for ∞ as the end of an integral; it has no value."""
        zero, one = self.number(0), self.number(1)
        return self.add(Op.WITHIN, (zero, zero, one), ENDLESS)

    def value(self, index: int) -> Fraction | None:
        """Return the exact number that a step is, or None."""
        step = self.steps[index]
        return step.payload if isinstance(step.payload, Fraction) else None

    def plus(self, a: int, b: int) -> int:
        """Return a + b."""
        x, y = self.value(a), self.value(b)
        if x is not None and y is not None:
            return self.number(x + y)
        if x == 0:
            return b
        return a if y == 0 else self.add(Op.ADD, (a, b))

    def negative(self, a: int) -> int:
        """Return -a."""
        x = self.value(a)
        return self.number(-x) if x is not None else self.add(Op.NEGATIVE, (a,))

    def minus(self, a: int, b: int) -> int:
        """Return a - b."""
        x, y = self.value(a), self.value(b)
        if x is not None and y is not None:
            return self.number(x - y)
        return a if y == 0 else self.add(Op.SUBTRACT, (a, b))

    def times(self, a: int, b: int) -> int:
        """Return a b. A product with 0 stays, because its other factor may be undefined."""
        x, y = self.value(a), self.value(b)
        if x is not None and y is not None and _bits(x) + _bits(y) <= _FOLDED_BITS:
            return self.number(x * y)
        if x == 1:
            return b
        return a if y == 1 else self.add(Op.MULTIPLY, (a, b))

    def over(self, a: int, b: int) -> int:
        """Return a / b."""
        x, y = self.value(a), self.value(b)
        if x is not None and y and _bits(x) + _bits(y) <= _FOLDED_BITS:
            return self.number(x / y)
        return a if y == 1 else self.add(Op.DIVIDE, (a, b))

    def to_the(self, a: int, b: int) -> int:
        """Return a^b: with a fixed fraction as exponent it is a whole power or a real root."""
        x, y = self.value(a), self.value(b)
        if y is None or abs(y.numerator) > _LARGEST_FIXED_EXPONENT or y.denominator > 1000:
            return self.add(Op.POWER, (a, b))
        if y.denominator != 1:
            return self.add(Op.ROOT, (a,), (y.numerator, y.denominator))
        n = y.numerator
        if x and _bits(x) * abs(n) <= _FOLDED_BITS:
            return self.number(x**n)
        return a if n == 1 else self.add(Op.INTEGER_POWER, (a,), n)

    def call(self, function: str, arguments: tuple[int, ...]) -> int:
        """Return a function of the catalogue, applied."""
        if function not in OPERATIONS:
            raise ValueError(f"{function} is no operation of the catalogue")
        return self.add(function, arguments)

    def rebuild(self, step: Step, arguments: tuple[int, ...]) -> int:
        """Return the same operation on other arguments, folded where it can be."""
        match step.op, arguments:
            case Op.ADD, (a, b):
                return self.plus(a, b)
            case Op.SUBTRACT, (a, b):
                return self.minus(a, b)
            case Op.MULTIPLY, (a, b):
                return self.times(a, b)
            case Op.DIVIDE, (a, b):
                return self.over(a, b)
            case Op.POWER, (a, b):
                return self.to_the(a, b)
            case Op.NEGATIVE, (a,):
                return self.negative(a)
            case Op.INTEGER_POWER, (a,) if isinstance(step.payload, int):
                return self.to_the(a, self.number(step.payload))
            case _:
                return self.add(step.op, arguments, step.payload)

    def substitute(self, top: int, old: int, new: int) -> int:
        """Return ``top`` with the step ``old`` replaced by ``new`` wherever it is used."""
        made: dict[int, int] = {}
        for index in self.reachable(top):
            if index == old:
                made[index] = new
                continue
            step = self.steps[index]
            arguments = tuple(made[argument] for argument in step.arguments)
            made[index] = index if arguments == step.arguments else self.rebuild(step, arguments)
        return made[top]

    def summarise(
        self,
        summary: Summary,
        body: int,
        bound: int,
        ends: tuple[int, int],
        fourth: int | None = None,
    ) -> int:
        """Return the sum, product or integral of ``body`` over ``bound`` between two ends.

        Args:
            summary: which.
            body: what is summed.
            bound: its variable.
            ends: from where to where.
            fourth: the fourth derivative of the body, if it is known.
        """
        tops = (body,) if fourth is None else (body, fourth)
        order = self.reachable(*tops)
        inner: set[int] = {bound}
        for index in order:
            if any(argument in inner for argument in self.steps[index].arguments):
                inner.add(index)
        captured = list(
            dict.fromkeys(
                argument
                for index in order
                if index in inner and index != bound
                for argument in self.steps[index].arguments
                if argument not in inner
            )
        )
        captured += [top for top in tops if top not in inner and top not in captured]
        position_of = {index: k for k, index in enumerate([*captured, bound])}
        steps = []
        for index in order:
            if index in inner and index != bound:
                step = self.steps[index]
                arguments = tuple(position_of[argument] for argument in step.arguments)
                steps.append(Step(step.op, arguments, step.payload))
                position_of[index] = len(position_of)
        made = Inner(
            summary, len(captured), tuple(steps), position_of[body],
            None if fourth is None else position_of[fourth],
        )  # fmt: skip
        return self.add(Op.OVER, (*ends, *captured), made)

    def instantiate(self, inner: Inner, captured: tuple[int, ...], bound: int) -> int:
        """Return the body of a sum, product or integral for one value of its variable."""
        made = [*captured, bound]
        for step in inner.steps:
            made.append(self.rebuild(step, tuple(made[argument] for argument in step.arguments)))
        return made[inner.result]

    def reachable(self, *tops: int) -> list[int]:
        """Return all steps that the tops need, themselves included, in order of computing."""
        needed: set[int] = set()
        waiting = list(tops)
        while waiting:
            index = waiting.pop()
            if index not in needed:
                needed.add(index)
                waiting.extend(self.steps[index].arguments)
        return sorted(needed)


def _bits(value: Fraction) -> int:
    return value.numerator.bit_length() + value.denominator.bit_length()
