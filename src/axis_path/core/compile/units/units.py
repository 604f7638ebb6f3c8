"""Infer the units of lines and expressions among the names of a study."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import partial

from axis_path.core.dimensions import (
    PLAIN_MEASURE,
    AnyMeasure,
    Inference,
    LineUnits,
    Measure,
    Signature,
    Unifier,
    Zero,
    measures_of,
    resolved,
)
from axis_path.core.dimensions.expand import expanded, in_base_units
from axis_path.core.dimensions.terms import Term
from axis_path.core.language import FunctionLine, Line, RelationLine, ValueLine
from axis_path.core.language.tree import AngleUnit, Domain, Name, Node, Parameter, Quantity
from axis_path.core.language.walk import names_in
from axis_path.core.lines.meaning import Meaning


@dataclass
class NamedUnits:
    """What the names of a study measure; those that are missing are plain numbers."""

    values: dict[str, AnyMeasure] = field(default_factory=dict)
    functions: dict[str, Signature] = field(default_factory=dict)

    def value(self, name: str) -> AnyMeasure:
        """Return the measure of a value."""
        return self.values.get(name, PLAIN_MEASURE)

    def signature(self, name: str) -> Signature | None:
        """Return what a function takes and gives; None for one of plain numbers."""
        return self.functions.get(name)

    def with_line(self, name: str, line: Line, units: LineUnits) -> None:
        """Add a line that works."""
        if isinstance(line, FunctionLine):
            self.functions[name] = units.signature
        elif not units.is_plain:
            self.values[name] = units.value

    def copy(self) -> NamedUnits:
        """Return a copy that can go on by itself."""
        return NamedUnits(dict(self.values), dict(self.functions))


def measured_line(text: str, line: Line, names: NamedUnits, angles: AngleUnit) -> MeasuredLine:
    """Infer the units of a line, and write it in base units.

    Args:
        text: as it was typed.
        line: as it was read.
        names: what the other names measure.
        angles: the unit of angles.

    Raises:
        UnitError: units in it do not fit together.
    """
    inference = Inference(text, names)
    match line:
        case FunctionLine():
            units = _of_function(line, inference)
        case RelationLine():
            units = _of_relation(line, inference)
        case ValueLine():
            value = inference.of(line.expression, {})
            units = LineUnits((), resolved(value, inference.unifier, is_generic=False))
        case _:
            return MeasuredLine(line, LineUnits((), PLAIN_MEASURE))
    expand = partial(expanded, unit=angles, coercions=inference.coercions)
    return MeasuredLine(_mapped(line, expand), units)


@dataclass(frozen=True, slots=True)
class MeasuredLine:
    """A line in base units, with what it measures."""

    line: Line
    units: LineUnits


def measured_meaning(
    text: str, meaning: Meaning, names: NamedUnits, angles: AngleUnit
) -> MeasuredLine:
    """Infer the units of a line with what it means, and write it in base units.

    Raises:
        UnitError: units in it do not fit together.
    """
    line = meaning.line
    if line is None:
        raise TypeError("a line that cannot be read has no units")
    if meaning.is_slider and isinstance(line, ValueLine) and meaning.name is not None:
        return slider_line(line, meaning.name, angles)
    return measured_line(text, line, names, angles)


def slider_line(line: ValueLine, name: str, angles: AngleUnit) -> MeasuredLine:
    """Return the line of a slider with a unit, whose number the slider moves."""
    quantity = line.expression
    if not isinstance(quantity, Quantity):
        plain = replace(line, expression=Parameter(name))
        return MeasuredLine(plain, LineUnits((), PLAIN_MEASURE))
    unit = quantity.unit
    zero = Zero.TEMPERATURE if unit.has_zero else Zero.NONE
    measure = Measure(Term(unit.dimension), unit, zero)
    moved = in_base_units(Parameter(name), unit, angles)
    return MeasuredLine(replace(line, expression=moved), LineUnits((), measure))


def measured_expression(
    text: str,
    node: Node,
    names: NamedUnits,
    angles: AngleUnit,
    variables: Mapping[str, Measure] | None = None,
) -> tuple[AnyMeasure, Node]:
    """Infer the units of an expression, and write it in base units.

    Args:
        text: in which it stands.
        node: the expression.
        names: what the names measure.
        angles: the unit of angles.
        variables: what its own variables measure.

    Raises:
        UnitError: units in it do not fit together.
    """
    inference = Inference(text, names)
    measure = inference.of(node, variables or {})
    measure = resolved(measure, inference.unifier, is_generic=False)
    return measure, expanded(node, angles, inference.coercions)


@dataclass(frozen=True, slots=True)
class MeasuredEquations:
    """Equations in base units.

    Attributes:
        terms: of each equation, from left to right.
        unknowns: what their unknowns measure.
        sides: what both sides of each equation measure.
    """

    terms: tuple[tuple[Node, ...], ...]
    unknowns: dict[str, Measure]
    sides: tuple[Measure, ...]


def measured_equations(
    equations: Sequence[tuple[str, tuple[Node, ...]]],
    names: NamedUnits,
    angles: AngleUnit,
    unknowns: Sequence[str],
) -> MeasuredEquations:
    """Infer the units of equations together, and write them in base units.

    Args:
        equations: the text of each, and its terms.
        names: what the names measure.
        angles: the unit of angles.
        unknowns: the names that have no value.

    Raises:
        UnitError: units in one of them do not fit together.
    """
    unifier = Unifier()
    variables = {name: Measure(unifier.unknown()) for name in unknowns}
    written: dict[int, tuple[Node, ...]] = {}
    sides: dict[int, Measure] = {}
    is_new = True
    while is_new:
        is_new = False
        for place in _definitions_first(equations):
            text, terms = equations[place]
            inference = Inference(text, names, unifier)
            sides[place] = side = measures_of(inference.alike(terms, variables))[0]
            written[place] = tuple(expanded(term, angles, inference.coercions) for term in terms)
            is_new |= _with_zero(variables, terms, side)
    places = range(len(equations))
    return MeasuredEquations(
        tuple(written[place] for place in places),
        {name: _ground(measure, unifier) for name, measure in variables.items()},
        tuple(_ground(sides[place], unifier) for place in places),
    )


def _with_zero(variables: dict[str, Measure], terms: tuple[Node, ...], side: Measure) -> bool:
    """Note from where a name counts that stands alone on a side; False if nothing was new.

    What other equations say of a temperature, such as that it is added to another, depends on it.
    """
    if side.zero is Zero.NONE:
        return False
    names = [term.name for term in terms if isinstance(term, Name) and term.name in variables]
    new = [name for name in names if variables[name].zero is Zero.NONE]
    variables |= {name: Measure(variables[name].term, side.unit, side.zero) for name in new}
    return bool(new)


def _definitions_first(equations: Sequence[tuple[str, tuple[Node, ...]]]) -> list[int]:
    """Return the places of equations so that those that give a name its unit come first."""

    def is_other(place: int) -> bool:
        terms = equations[place][1]
        is_value = any(not names_in(term) for term in terms)
        return not (is_value and any(isinstance(term, Name) for term in terms))

    return sorted(range(len(equations)), key=is_other)


def _ground(measure: Measure, unifier: Unifier) -> Measure:
    return measures_of(resolved(measure, unifier, is_generic=False))[0]


def _of_function(line: FunctionLine, inference: Inference) -> LineUnits:
    variables = {
        name: inference.domain(domain, Measure(inference.unifier.unknown()))
        for name, domain in zip(line.variables, line.domains, strict=True)
    }
    value = inference.of(line.expression, variables)
    is_generic = line.name is not None
    own = tuple(
        part
        for measure in variables.values()
        for part in measures_of(resolved(measure, inference.unifier, is_generic=is_generic))
    )
    return LineUnits(own, resolved(value, inference.unifier, is_generic=is_generic))


def _of_relation(line: RelationLine, inference: Inference) -> LineUnits:
    variables = {name: Measure(inference.unifier.unknown()) for name in ("x", "y")}
    value = inference.alike(line.terms, variables)
    known = resolved(value, inference.unifier, is_generic=False)
    x, y = (_of_coordinate(measure, value, inference.unifier) for measure in variables.values())
    is_alone = x.shares_nothing(y)
    return LineUnits((x, y) if is_alone else (x.known, y.known), known)


def _of_coordinate(measure: Measure, value: AnyMeasure, unifier: Unifier) -> Measure:
    """Return what x or y measures in a relation; unknown only if the relation does not name it."""
    own = measures_of(resolved(measure, unifier, is_generic=True))[0]
    sides = measures_of(resolved(value, unifier, is_generic=True))
    return own if all(map(own.shares_nothing, sides)) else own.known


def _mapped(line: Line, change: Callable[[Node], Node]) -> Line:
    match line:
        case ValueLine(_, expression):
            return replace(line, expression=change(expression))
        case RelationLine():
            return replace(line, terms=tuple(map(change, line.terms)))
        case FunctionLine():
            domains = tuple(_domain(domain, change) for domain in line.domains)
            return replace(line, expression=change(line.expression), domains=domains)
        case _:
            return line


def _domain(domain: Domain, change: Callable[[Node], Node]) -> Domain:
    low, high = (
        None if bound is None else replace(bound, value=change(bound.value))
        for bound in (domain.low, domain.high)
    )
    return Domain(low, high, tuple(map(change, domain.without)))
