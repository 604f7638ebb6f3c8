"""What a line is after reading: a note, a value, a function, a relation or a set of equations."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.language.parsing.body import Condition
from axis_path.core.language.tree import Domain, Node, Span
from axis_path.core.language.walk import domain_nodes


@dataclass(frozen=True, slots=True)
class NoteLine:
    """A line of plain text."""

    text: str


@dataclass(frozen=True, slots=True)
class ValueLine:
    """``a = 2.5``, ``A = (2, 3)`` or ``L = [1, 4, 9]``: a number, a point or a list.

    Attributes:
        name: None for a point or a list without a head, which the study will name.
        name_span: where the name stands in the text.
    """

    name: str | None
    expression: Node
    name_span: Span


@dataclass(frozen=True, slots=True)
class FunctionLine:
    """A function of one or several variables; its value may be a point, and is then a path.

    Attributes:
        name: None for a line without a head, which the study will name.
        variables: at least one.
        domains: one for each variable.
        domain_start: where ``for`` stands in the text, or the end of the text.
    """

    name: str | None
    variables: tuple[str, ...]
    expression: Node
    domains: tuple[Domain, ...]
    name_span: Span
    domain_start: int

    @property
    def variable(self) -> str:
        """Return the first variable."""
        return self.variables[0]

    @property
    def domain(self) -> Domain:
        """Return the domain of the first variable."""
        return self.domains[0]


@dataclass(frozen=True, slots=True)
class RelationLine:
    """An equation or an inequality in x and y.

    Attributes:
        name: from ``ring: …``; None without.
        terms: two or three expressions.
        signs: the signs between them; all ``=``, or none of them.
    """

    name: str | None
    terms: tuple[Node, ...]
    signs: tuple[str, ...]
    name_span: Span

    @property
    def is_region(self) -> bool:
        """Check whether it is an inequality."""
        return "=" not in self.signs


@dataclass(frozen=True, slots=True)
class SetEquation:
    """One equation of a set.

    Attributes:
        text: as it was typed.
        source: the text that ends with it, in which the spans of its nodes count.
        compared: its two sides.
        meant: the names of the set that stand there, and not the units of their letters.
    """

    text: str
    source: str
    compared: Condition
    meant: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class SetLine:
    """Several equations that are solved together: ``W = m g_n; m = 3 kg``.

    Attributes:
        name: from ``ramp: …``; None without.
        readings: the equations, read in one or several ways; the preferred one comes first.
        own: the names that get their values from it.
    """

    name: str | None
    readings: tuple[tuple[SetEquation, ...], ...]
    own: tuple[str, ...]
    name_span: Span

    @property
    def equations(self) -> tuple[SetEquation, ...]:
        """Return the equations as they are read."""
        return self.readings[0]


Line = NoteLine | ValueLine | FunctionLine | RelationLine | SetLine


def line_nodes(line: Line) -> tuple[Node, ...]:
    """Return all expressions of a line."""
    match line:
        case ValueLine(_, expression):
            return (expression,)
        case FunctionLine():
            domains = (node for domain in line.domains for node in domain_nodes(domain))
            return (line.expression, *domains)
        case RelationLine():
            return line.terms
        case SetLine():
            # Which reading fits is found out later; until then all that may be used counts.
            every = (one for reading in line.readings for one in reading)
            return tuple(term for one in every for term in one.compared.terms)
        case NoteLine():
            return ()


def own_variables(line: Line) -> frozenset[str]:
    """Return the names that a line itself gives a meaning to."""
    if isinstance(line, FunctionLine):
        return frozenset(line.variables)
    if isinstance(line, SetLine):
        return frozenset(line.own)
    return frozenset({"x", "y"}) if isinstance(line, RelationLine) else frozenset()
