"""A program: the steps that some results need, run by any of the backends.

Compiled once from the graph; the variable and the sliders are its inputs, so that moving a slider
compiles nothing.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Protocol, TypeVar

from axis_path.core.evaluate.graph import Fence, Graph, Op, Step

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


@dataclass(frozen=True, slots=True)
class Program:
    """Steps that refer to one another by place, and the places of the results.

    Attributes:
        parameters: the sliders that the program reads.
    """

    steps: tuple[Step, ...]
    results: tuple[int, ...]
    parameters: frozenset[str]


def extract(graph: Graph, *tops: int) -> Program:
    """Take what some steps need out of the graph."""
    order = graph.reachable(*tops)
    place = {index: position for position, index in enumerate(order)}
    steps = tuple(
        Step(step.op, tuple(place[argument] for argument in step.arguments), step.payload)
        for step in (graph.steps[index] for index in order)
    )
    parameters = frozenset(
        step.payload for step in steps if step.op == Op.PARAMETER and isinstance(step.payload, str)
    )
    return Program(steps, tuple(place[top] for top in tops), parameters)


def run(program: Program, backend: Backend[V], variable: V, parameters: Mapping[str, V]) -> list[V]:
    """Compute the results of a program.

    Args:
        program: what to compute.
        backend: the arithmetic.
        variable: the value of the variable.
        parameters: the values of all sliders that the program reads.
    """
    values: list[V] = []
    for step in program.steps:
        payload = step.payload
        inputs = [values[argument] for argument in step.arguments]
        if step.op == Op.VARIABLE:
            value = variable
        elif isinstance(payload, Fraction):
            value = backend.number(payload)
        elif isinstance(payload, Fence):
            value = backend.within(payload, inputs[0], inputs[1], tuple(inputs[2:]))
        elif isinstance(payload, str):
            is_slider = step.op == Op.PARAMETER
            value = parameters[payload] if is_slider else backend.constant(payload)
        elif payload is None:
            value = backend.operation(step.op)(*inputs)
        elif isinstance(payload, tuple):
            value = backend.operation(step.op)(*inputs, *payload)
        else:
            value = backend.operation(step.op)(*inputs, payload)
        values.append(value)
    return [values[place] for place in program.results]
