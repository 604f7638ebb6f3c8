"""What the names of a set are: expressions of other names, or values that solving finds."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import reduce

from axis_path.core.catalogue import CONSTANTS
from axis_path.core.compile.sets.model import ReadSet
from axis_path.core.dimensions import LineUnits
from axis_path.core.dimensions.expand import in_base_units
from axis_path.core.language import ValueLine
from axis_path.core.language.rebuild import rebuilt
from axis_path.core.language.tree import (
    AngleUnit,
    Binary,
    Name,
    Negative,
    Node,
    Number,
    Operator,
    Parameter,
)
from axis_path.core.language.walk import names_in
from axis_path.core.lines.meaning import PLANE_LETTERS, Kind, Meaning
from axis_path.core.locate.sets import Structure, structure_of

_SUMS = (Operator.ADD, Operator.SUBTRACT)


@dataclass(frozen=True, slots=True, eq=False)
class SettledSet:
    """A set of equations that reads.

    Attributes:
        read: its equations and unknowns.
        structure: which equations determine which unknowns.
        names: what stands under the names that the rest of the study may use.
        solved: those of them that have no expression of their own.
    """

    read: ReadSet
    structure: Structure
    names: dict[str, Meaning]
    solved: frozenset[str]

    @property
    def undetermined(self) -> frozenset[str]:
        """Return the unknowns that the equations do not determine."""
        return frozenset(self.read.unknowns[k] for k in self.structure.free)


def settled_set(read: ReadSet, angles: AngleUnit, *, is_measured: bool) -> SettledSet:
    """Find out what stands under the names of a set.

    An unknown that one equation states, or in which one is linear, is an expression of the others,
    so that it stays exact and follows sliders. All others are found by solving.

    Args:
        read: the set.
        angles: the unit of angles.
        is_measured: whether the study has units.
    """
    structure = structure_without(read, frozenset(), read.unknowns)
    explicit = {} if structure.extra else _explicit(read, structure)
    free = {read.unknowns[k] for k in structure.free}
    units = read.units
    names: dict[str, Meaning] = {}
    for name in read.unknowns:
        if name in PLANE_LETTERS or name in free:
            continue
        base = explicit.get(name) or in_base_units(Parameter(name), units[name], angles)
        measure = read.measure(name)
        names[name] = Meaning(
            Kind.PARAMETER, name,
            line=ValueLine(name, _origin(read), (0, 0)),
            computed=ValueLine(name, base, (0, 0)),
            uses=names_in(base) - CONSTANTS.keys() if name in explicit else frozenset(read.known),
            units=LineUnits((), measure) if is_measured else None,
        )  # fmt: skip
    return SettledSet(read, structure, names, frozenset(names).difference(explicit))


def structure_without(
    read: ReadSet, left_out: frozenset[int], unknowns: Sequence[str]
) -> Structure:  # fmt: skip
    """Return what the equations of a set determine without some of them.

    Args:
        read: the set.
        left_out: the places of the equations that do not count.
        unknowns: the names that are not known.
    """
    places = {name: place for place, name in enumerate(unknowns)}
    uses = [
        frozenset(places[name] for term in terms for name in names_in(term) if name in places)
        for k, terms in enumerate(read.measured.terms)
        if k not in left_out
    ]
    return structure_of(uses, len(places))


def _explicit(read: ReadSet, structure: Structure) -> dict[str, Node]:
    """Return the unknowns that are expressions of others, in base units."""
    explicit: dict[str, Node] = {}
    for block in structure.blocks:
        if len(block.unknowns) > 1:
            continue
        name = read.unknowns[block.unknowns[0]]
        left, right = read.measured.terms[block.equations[0]]
        value = _solved_for(name, left, right)
        if value is not None and not PLANE_LETTERS.intersection(names_in(value), read.unknowns):
            explicit[name] = value
    return explicit


def _solved_for(name: str, left: Node, right: Node) -> Node | None:
    """Return an unknown as an expression of the other names; None if an equation is not linear."""
    for own, other in ((left, right), (right, left)):
        if own == Name(name) and name not in names_in(other):
            return other
    gap = Binary(Operator.SUBTRACT, left, right)
    if not _is_linear(gap, name):
        return None
    # A line through (0, g(0)) and (1, g(1)) meets 0 there; where it is no line this has no value.
    at_zero, at_one = (_with_number(gap, name, value) for value in (0, 1))
    return Binary(Operator.DIVIDE, at_zero, Binary(Operator.SUBTRACT, at_zero, at_one))


def _is_linear(node: Node, name: str) -> bool:
    """Check whether an expression is certainly linear in a name, or does not hold it."""
    if node == Name(name) or name not in names_in(node):
        return True
    match node:
        case Negative(operand):
            return _is_linear(operand, name)
        case Binary(operator, left, right) if operator in _SUMS:
            return _is_linear(left, name) and _is_linear(right, name)
        case Binary(Operator.MULTIPLY, left, right):
            is_one_fixed = name not in names_in(left) or name not in names_in(right)
            return is_one_fixed and _is_linear(left, name) and _is_linear(right, name)
        case Binary(Operator.DIVIDE, left, right):
            return name not in names_in(right) and _is_linear(left, name)
        case _:
            return False


def _with_number(node: Node, name: str, value: int) -> Node:
    number = Number(Fraction(value))
    return rebuilt(node, lambda made, was: number if was == Name(name) else made)


def _origin(read: ReadSet) -> Node:
    """Return everything that the values of a set rest on, as one expression."""
    terms = (term for one in read.equations for term in one.compared.terms)
    return reduce(lambda a, b: Binary(Operator.ADD, a, b), terms)
