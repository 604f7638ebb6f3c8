"""A program: the steps that some results need, run by any of the backends.

Compiled once from the graph; the variable and the sliders are its inputs, so that moving a slider
compiles nothing.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Protocol, TypeVar

from axis_path.core.evaluate.graph import IMAGINARY, Fence, Graph, Inner, Op, Split, Step

V = TypeVar("V")


class Backend(Protocol[V]):
    """One kind of arithmetic, as a program uses it."""

    def number(self, value: Fraction) -> V:
        """Give an exact number."""

    def constant(self, name: str) -> V:
        """Give a constant of the catalogue."""

    def operation(self, op: str) -> Callable[..., V]:
        """Give an operation by its name; whole powers and roots take their payload last."""

    def within(self, fence: Fence, body: V, subject: V, bounds: tuple[V, ...]) -> V:
        """Give the body where the subject lies inside the fence."""

    def pieces(self, split: Split, subject: V, pieces: list[tuple[V, tuple[V, ...]]]) -> V:
        """Give, of bodies with their bounds, the first one whose fence holds the subject."""

    def guard(self, body: V, witness: V) -> V:
        """Give the body where the witness is defined."""

    def summarise(self, inner: Inner, low: V, high: V, captured: list[V]) -> V:
        """Give a sum, a product or an integral."""


@dataclass(frozen=True, slots=True)
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

    @property
    def is_complex(self) -> bool:
        """Tell whether i takes part."""
        return any(step.op == Op.CONSTANT and step.payload == IMAGINARY for step in self.steps)


def extract(graph: Graph, *tops: int) -> Program:
    """Take what some steps need out of the graph."""
    order = graph.reachable(*tops)
    place = {index: position for position, index in enumerate(order)}
    steps = tuple(
        Step(step.op, tuple(place[argument] for argument in step.arguments), step.payload)
        for step in (graph.steps[index] for index in order)
    )
    return Program(
        steps,
        tuple(place[top] for top in tops),
        _named(steps, Op.PARAMETER),
        _named(steps, Op.INPUT),
    )


def _named(steps: tuple[Step, ...], op: Op) -> frozenset[str]:
    return frozenset(
        step.payload for step in steps if step.op == op and isinstance(step.payload, str)
    )


def run(program: Program, backend: Backend[V], variable: V, parameters: Mapping[str, V]) -> list[V]:
    """Compute the results of a program.

    Args:
        program: what to compute.
        backend: the arithmetic.
        variable: the value of the variable.
        parameters: the values of all sliders and inputs that the program reads.
    """
    values: list[V] = []
    for step in program.steps:
        if step.op == Op.VARIABLE:
            values.append(variable)
        elif step.op in (Op.PARAMETER, Op.INPUT):
            values.append(parameters[step.payload])  # type: ignore[index]
        else:
            values.append(_step(step, backend, values))
    return [values[place] for place in program.results]


def run_inner(inner: Inner, backend: Backend[V], captured: list[V], bound: V) -> V:
    """Compute the body of a sum, product or integral for one value of its variable."""
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
    payload = step.payload
    inputs = [values[argument] for argument in step.arguments]
    if payload is None:
        if step.op == Op.GUARD:
            return backend.guard(*inputs)
        return backend.operation(step.op)(*inputs)
    if isinstance(payload, Fraction):
        return backend.number(payload)
    if isinstance(payload, str):
        return backend.constant(payload)
    if isinstance(payload, Fence):
        return backend.within(payload, inputs[0], inputs[1], tuple(inputs[2:]))
    if isinstance(payload, Split):
        return backend.pieces(payload, inputs[0], _grouped(payload, inputs[1:]))
    if isinstance(payload, Inner):
        return backend.summarise(payload, inputs[0], inputs[1], inputs[2:])
    if isinstance(payload, tuple):
        return backend.operation(step.op)(*inputs, *payload)
    return backend.operation(step.op)(*inputs, payload)


def _grouped(split: Split, inputs: list[V]) -> list[tuple[V, tuple[V, ...]]]:
    pieces, at = [], 0
    for fence in split.fences:
        count = 0 if fence is None else fence.count
        pieces.append((inputs[at], tuple(inputs[at + 1 : at + 1 + count])))
        at += 1 + count
    return pieces
