"""The syntax tree: small frozen nodes, all an expression can be.

A node's ``span`` is where it stands in the text, ``(start, end)`` with the end excluded; it
takes no part in comparison, so two readings of the same formula are equal.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from enum import StrEnum
from fractions import Fraction

Span = tuple[int, int]
NOWHERE: Span = (0, 0)


class Operator(StrEnum):
    """The two-sided operations."""

    ADD = "+"
    SUBTRACT = "-"
    MULTIPLY = "*"
    DIVIDE = "/"
    POWER = "^"


class AngleUnit(StrEnum):
    """How a study measures angles."""

    RADIANS = "radians"
    DEGREES = "degrees"


@dataclass(frozen=True, slots=True)
class Number:
    """An exact number; ``text`` keeps how it was typed."""

    value: Fraction
    text: str = field(default="", compare=False)
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Name:
    """A variable, a parameter or a constant, by its spelled name (``theta``, not its sign)."""

    name: str
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Negative:
    """The opposite of a number."""

    operand: Node
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Binary:
    """A two-sided operation."""

    operator: Operator
    left: Node
    right: Node
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Call:
    """A function of the catalogue or of the study, applied."""

    function: str
    arguments: tuple[Node, ...]
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Angle:
    """An angle with its own unit: ``30°``, ``2 rad``."""

    operand: Node
    unit: AngleUnit
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Bound:
    """One end of a domain; ``closed`` means that the end belongs to it."""

    value: Node
    closed: bool


@dataclass(frozen=True, slots=True)
class Domain:
    """Where a function is restricted to; a missing end is unbounded.

    Attributes:
        without: single values that are left out.
    """

    low: Bound | None = None
    high: Bound | None = None
    without: tuple[Node, ...] = ()


Node = Number | Name | Negative | Binary | Call | Angle


def children(node: Node) -> tuple[Node, ...]:
    """Give the nodes directly below ``node``, from left to right."""
    match node:
        case Number() | Name():
            return ()
        case Negative(operand) | Angle(operand):
            return (operand,)
        case Binary(_, left, right):
            return (left, right)
        case Call(_, arguments):
            return arguments


def domain_nodes(domain: Domain) -> tuple[Node, ...]:
    """Give the expressions that a domain is made of."""
    bounds = tuple(end.value for end in (domain.low, domain.high) if end is not None)
    return bounds + domain.without


def walk(node: Node) -> Iterator[Node]:
    """Give every node of a tree, the top first."""
    waiting = [node]
    while waiting:
        current = waiting.pop()
        yield current
        waiting.extend(children(current))


def names_in(node: Node) -> frozenset[str]:
    """Give the names of all variables, parameters, constants and functions in a tree."""
    found: set[str] = set()
    for part in walk(node):
        if isinstance(part, Name):
            found.add(part.name)
        elif isinstance(part, Call):
            found.add(part.function)
    return frozenset(found)
