"""A program: the steps that some results need, run by any of the backends.

Compiled once from the graph; the variable and the sliders are its inputs, so that moving a slider
compiles nothing.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from fractions import Fraction
from functools import partial
from typing import Any, Protocol, TypeVar

from axis_path.core.deadline import check
from axis_path.core.evaluate.graph.graph import IMAGINARY, Fence, Graph, Inner, Op, Split, Step
from axis_path.core.threads import lazy_property

V = TypeVar("V")
_MOST_BITS_OF_SUMS, _LEAST_BITS, _MOST_BITS, _BITS_FOR_ALL = 1_500, 4_000, 120_000, 1_200_000


@dataclass(frozen=True, slots=True)
class Plan:
    """A program bound to one backend: what is left to do when the inputs are known.

    Attributes:
        values: a place for each step, with the constants in theirs if they never change.
        reads: the places of the variable (None) and of named inputs.
        calls: the place, the function, and the places of its arguments, in order.
    """

    values: tuple[Any, ...]
    reads: tuple[tuple[int, str | None], ...]
    calls: tuple[tuple[int, Callable[..., Any], tuple[int, ...]], ...]


class Backend(Protocol[V]):
    """One kind of arithmetic, as a program uses it.

    Attributes:
        plan_name: under which programs keep what they bound to it; empty for a backend that is
            made for one run.
        is_fixed: whether constants are the same in every run.
    """

    plan_name: str
    is_fixed: bool

    def number(self, value: Fraction) -> V:
        """Return an exact number."""

    def constant(self, name: str) -> V:
        """Return a constant of the catalogue."""

    def operation(self, op: str) -> Callable[..., V]:
        """Return an operation by its name; whole powers and roots take their payload last."""

    def within(self, fence: Fence, body: V, subject: V, bounds: tuple[V, ...]) -> V:
        """Return the body where the subject lies inside the fence."""

    def pieces(self, split: Split, subject: V, pieces: list[tuple[V, tuple[V, ...]]]) -> V:
        """Return the first body whose bounds hold the subject."""

    def guard(self, body: V, witness: V) -> V:
        """Return the body where the witness is defined."""

    def summarise(self, inner: Inner, low: V, high: V, captured: list[V]) -> V:
        """Return a sum, a product or an integral."""


@dataclass(frozen=True)
class Program:
    """Steps that refer to one another by place, and the places of the results.

    Attributes:
        parameters: the sliders that the program reads.
        inputs: what else it reads by name: further variables, elements of lists.
    """

    steps: tuple[Step, ...]
    results: tuple[int, ...]
    parameters: frozenset[str]
    inputs: frozenset[str] = frozenset()
    _plans: dict[str, Plan] = field(default_factory=dict, compare=False, repr=False)
    #: What else was made of it once and for all.
    cache: dict[str, object] = field(default_factory=dict, compare=False, repr=False)
    #: Which sliders its values depend on, by intervals of the variable.
    cached_sliders: dict[tuple[float, float], frozenset[str]] = field(
        default_factory=dict, compare=False, repr=False
    )

    def __reduce__(self) -> tuple[object, ...]:
        """Travel to other processes without what was bound to the backends of this one."""
        return Program, (self.steps, self.results, self.parameters, self.inputs)

    @lazy_property
    def is_split(self) -> bool:
        """Check whether it has pieces."""
        return any(isinstance(step.payload, Split) for step in self.steps)

    def plan(self, backend: Backend[V]) -> Plan:
        """Return the program bound to a backend that is known by a name; it is bound once."""
        cached = self._plans.get(backend.plan_name)
        if cached is None:
            cached = self._plans[backend.plan_name] = _bind(self, backend)
        return cached

    @property
    def is_complex(self) -> bool:
        """Check whether i takes part."""
        return any(step.op == Op.CONSTANT and step.payload == IMAGINARY for step in self.steps)


def most_bits(program: Program) -> int:
    """Return with how many binary digits a program may be computed, so that it stays quick.

    The sine of 10^9000 needs 30,000; an integral takes seconds with a tenth of that.
    """
    if any(step.op == Op.OVER for step in program.steps):
        return _MOST_BITS_OF_SUMS
    return max(_LEAST_BITS, min(_MOST_BITS, _BITS_FOR_ALL // max(len(program.steps), 1)))


def extract(graph: Graph, *tops: int) -> Program:
    """Take what some steps need out of the graph."""
    order = graph.reachable(*tops)
    position_of = {index: position for position, index in enumerate(order)}
    steps = tuple(
        Step(step.op, tuple(position_of[argument] for argument in step.arguments), step.payload)
        for step in (graph.steps[index] for index in order)
    )
    return Program(
        steps,
        tuple(position_of[top] for top in tops),
        _named(steps, Op.PARAMETER),
        _named(steps, Op.INPUT),
    )


def _named(steps: tuple[Step, ...], op: Op) -> frozenset[str]:
    return frozenset(
        step.payload for step in steps if step.op == op and isinstance(step.payload, str)
    )


def inner_bounds(program: Program) -> Program | None:
    """Return a program for the ends of domains and pieces on the variable itself, None without any.

    Ends that depend on the variable are no ends of it.
    """
    cache = program.cache
    if "bounds" not in cache:
        cache["bounds"] = _inner_bounds(program)
    cached = cache["bounds"]
    return cached if isinstance(cached, Program) else None


def _inner_bounds(program: Program) -> Program | None:
    steps = program.steps
    moves = [step.op == Op.VARIABLE for step in steps]
    for position, step in enumerate(steps):
        moves[position] = moves[position] or any(moves[argument] for argument in step.arguments)
    result_steps: list[int] = []
    for step in steps:
        if isinstance(step.payload, Fence):
            subject, bounds = step.arguments[1], step.arguments[2:]
        elif isinstance(step.payload, Split):
            bodies = {0, *step.payload.bodies()}
            subject = step.arguments[0]
            bounds = tuple(a for k, a in enumerate(step.arguments) if k not in bodies)
        else:
            continue
        if steps[subject].op == Op.VARIABLE:
            result_steps += [bound for bound in bounds if not moves[bound]]
    if not result_steps:
        return None
    needed = set(result_steps)
    for position in range(len(steps) - 1, -1, -1):
        if position in needed:
            needed.update(steps[position].arguments)
    order = {position: k for k, position in enumerate(sorted(needed))}
    chosen = tuple(
        Step(
            steps[position].op,
            tuple(order[a] for a in steps[position].arguments),
            steps[position].payload,
        )
        for position in order
    )
    names = (_named(chosen, Op.PARAMETER), _named(chosen, Op.INPUT))
    return Program(
        chosen, tuple(order[position] for position in dict.fromkeys(result_steps)), *names
    )


def run(program: Program, backend: Backend[V], variable: V, parameters: Mapping[str, V]) -> list[V]:
    """Compute the results of a program.

    Args:
        program: what to compute.
        backend: the arithmetic.
        variable: the value of the variable.
        parameters: the values of all sliders and inputs that the program reads.
    """
    values = run_all(program, backend, variable, parameters)
    return [values[position] for position in program.results]


def run_all(
    program: Program, backend: Backend[V], variable: V, parameters: Mapping[str, V]
) -> list[V]:
    """Compute all steps of a program."""
    check()
    plan = program.plan(backend) if backend.plan_name else _bind(program, backend)
    values: list[V] = list(plan.values)
    for position, name in plan.reads:
        values[position] = variable if name is None else parameters[name]
    for position, function, arguments in plan.calls:
        if len(arguments) == 2:
            values[position] = function(values[arguments[0]], values[arguments[1]])
        elif len(arguments) == 1:
            values[position] = function(values[arguments[0]])
        else:
            values[position] = function(*(values[argument] for argument in arguments))
    return values


def _bind(program: Program, backend: Backend[V]) -> Plan:
    values: list[Any] = []
    reads: list[tuple[int, str | None]] = []
    calls: list[tuple[int, Callable[..., Any], tuple[int, ...]]] = []
    for position, step in enumerate(program.steps):
        value: Any = None
        if step.op == Op.VARIABLE:
            reads.append((position, None))
        elif step.op in (Op.PARAMETER, Op.INPUT):
            reads.append((position, str(step.payload)))
        else:
            function = bound_step(step, backend)
            if backend.is_fixed and not step.arguments:
                value = function()
            else:
                calls.append((position, function, step.arguments))
        values.append(value)
    return Plan(tuple(values), tuple(reads), tuple(calls))


def run_inner(inner: Inner, backend: Backend[V], captured: list[V], bound: V) -> V:
    """Compute the body of a sum, product or integral for one value of its variable."""
    check()
    values = [*captured, bound]
    # The steps of the fourth derivative come after those of the body, and are not needed here.
    for step in inner.steps[: max(inner.result - inner.captured, 0)]:
        values.append(_step(step, backend, values))
    return values[inner.result]


def run_fourth(
    inner: Inner, backend: Backend[V], captured: list[V], bound: V
) -> tuple[V, V | None]:
    """Compute the body of an integral together with its fourth derivative, if that is known."""
    values = [*captured, bound]
    for step in inner.steps:
        values.append(_step(step, backend, values))
    return values[inner.result], None if inner.fourth is None else values[inner.fourth]


def _step(step: Step, backend: Backend[V], values: list[V]) -> V:
    return bound_step(step, backend)(*(values[argument] for argument in step.arguments))


def bound_step(step: Step, backend: Backend[V]) -> Callable[..., V]:
    """Return a step as a function of the values of its arguments."""
    payload = step.payload
    if payload is None:
        return backend.guard if step.op == Op.GUARD else backend.operation(step.op)
    if isinstance(payload, Fraction):
        return partial(backend.number, payload)
    if isinstance(payload, str):
        return partial(backend.constant, payload)
    if isinstance(payload, Fence):
        return lambda body, subject, *bounds: backend.within(payload, body, subject, bounds)
    if isinstance(payload, Split):
        return lambda subject, *rest: backend.pieces(
            payload, subject, _grouped(payload, list(rest))
        )
    if isinstance(payload, Inner):
        return lambda low, high, *rest: backend.summarise(payload, low, high, list(rest))
    operation = backend.operation(step.op)
    extra = payload if isinstance(payload, tuple) else (payload,)
    return lambda *inputs: operation(*inputs, *extra)


def _grouped(split: Split, inputs: list[V]) -> list[tuple[V, tuple[V, ...]]]:
    pieces, at = [], 0
    for fence in split.fences:
        count = 0 if fence is None else fence.count
        pieces.append((inputs[at], tuple(inputs[at + 1 : at + 1 + count])))
        at += 1 + count
    return pieces
