"""Find out the dimension of every expression before anything is computed, like a type."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from fractions import Fraction
from typing import Protocol

from axis_path.core.catalogue.physics import PHYSICAL_CONSTANTS
from axis_path.core.catalogue.units import ANGLE, Dimension, read_unit
from axis_path.core.dimensions import complain, temperatures
from axis_path.core.dimensions.calls import call_measure, instance
from axis_path.core.dimensions.coercion import Coercion
from axis_path.core.dimensions.measures import (
    PLAIN_MEASURE,
    AnyMeasure,
    Measure,
    PlaneMeasure,
    Signature,
    Zero,
    measures_of,
)
from axis_path.core.dimensions.temperatures import difference_unit
from axis_path.core.dimensions.terms import NUMBER, Term, Unifier
from axis_path.core.dimensions.words import described
from axis_path.core.dimensions.written import written_fraction
from axis_path.core.errors import UnitError
from axis_path.core.language.tree import (
    Angle,
    AngleUnit,
    Binary,
    Built,
    Call,
    Converted,
    Derivative,
    Domain,
    Index,
    Items,
    Name,
    Negative,
    Node,
    Number,
    Operator,
    Over,
    Pair,
    Percent,
    Physical,
    Pieces,
    Quantity,
    Range,
    Replaced,
    Summary,
    Transposed,
)
from axis_path.core.language.walk import counter_nodes, is_infinite, subscript_nodes, walk

Variables = Mapping[str, AnyMeasure]
_DEGREE, _RADIAN = read_unit("°"), read_unit("rad")


class Surroundings(Protocol):
    """What the names of a study measure."""

    def value(self, name: str) -> AnyMeasure:
        """Return the measure of a value; a plain number if it has no unit."""

    def signature(self, name: str) -> Signature | None:
        """Return what a function of the study takes and gives; None if nothing has a unit."""


class Inference:
    """Infers the measures of the expressions of one line.

    Args:
        text: the line, for the words of errors.
        around: what the names measure.
        unifier: what is found out about unknown dimensions, where several lines share them.
    """

    def __init__(
        self, text: str, around: Surroundings, unifier: Unifier | None = None
    ) -> None:  # fmt: skip
        self.text = text
        self.around = around
        self.unifier = Unifier() if unifier is None else unifier
        self.coercions: list[Coercion] = []

    # What is asked

    def of(self, node: Node, variables: Variables) -> AnyMeasure:
        """Return the measure of an expression.

        Raises:
            UnitError: its units do not fit together.
        """
        match node:
            case Number(value):
                # 0 fits every unit: 0 kg is as much as 0.
                return PLAIN_MEASURE if value else Measure(self.unifier.unknown())
            case Name(name):
                found = variables.get(name)
                return self.around.value(name) if found is None else found
            case Physical(name):
                unit = PHYSICAL_CONSTANTS[name].unit
                return Measure(Term(unit.dimension), unit)
            case Quantity():
                return self._quantity(node, variables)
            case Converted():
                return self._converted(node, variables)
            case Binary():
                return self._binary(node, variables)
            case Call():
                return call_measure(self, node, variables)
            case Negative(operand) | Percent(operand):
                return temperatures.forgotten(self.of(operand, variables))
            case Angle(operand, unit):
                self.plain_number(operand, variables)
                return Measure(Term(ANGLE), _DEGREE if unit is AngleUnit.DEGREES else _RADIAN)
            case _:
                return self._larger(node, variables)

    def number(self, node: Node, variables: Variables) -> Measure:
        """Return the measure of an expression that is no point."""
        measure = self.of(node, variables)
        if isinstance(measure, Measure):
            return measure
        # What is no number here is refused with its own words when it is compiled.
        return measure.first

    def fit(self, node: Node, variables: Variables, wanted: Measure, whole: Node) -> None:
        """Check that an expression has the dimension of another.

        Raises:
            UnitError: it has another one.
        """
        measure = self.number(node, variables)
        if not self.unifier.unify(measure.term, wanted.term):
            raise self.mismatch((whole, wanted), (node, measure), variables)
        self.coerce(node, measure.term, wanted.term)

    def domain(self, domain: Domain, variable: Measure) -> Measure:
        """Return the measure of a variable after its domain; the unit of an end is its unit."""
        ends = [bound.value for bound in (domain.low, domain.high) if bound is not None]
        for node in (*ends, *domain.without):
            if is_infinite(node):
                continue
            end = self.number(node, {})
            if not self.unifier.unify(end.term, variable.term):
                raise self.mismatch((ends[0], variable), (node, end), {})
            if variable.unit is None and not self._is_zero(node):
                variable = Measure(variable.term, end.unit, end.zero)
        return variable

    def dimension(self, measure: Measure) -> Dimension:
        """Return the dimension of a measure as far as it is known; else that of a number."""
        return self.unifier.dimension(measure.term)

    # Nodes

    def _larger(self, node: Node, variables: Variables) -> AnyMeasure:
        match node:
            case Pair(first, second):
                return PlaneMeasure(self.number(first, variables), self.number(second, variables))
            case Items(items):
                return self.alike(items, variables)
            case Range(start, stop, step, count):
                if count is not None:
                    self.plain_number(count, variables)
                return self.alike(
                    tuple(part for part in (start, stop, step) if part is not None), variables
                )
            case Over():
                return self._over(node, variables)
            case Pieces():
                return self._pieces(node, variables)
            case Derivative():
                return self._derivative(node, variables)
            case _:
                return self._array(node, variables)

    def _array(self, node: Node, variables: Variables) -> AnyMeasure:
        match node:
            case Index(operand, subscripts):
                for part in subscript_nodes(subscripts):
                    self.plain_number(part, variables)
                return self.of(operand, variables)
            case Replaced(operand, subscripts, value):
                for part in subscript_nodes(subscripts):
                    self.plain_number(part, variables)
                return self.alike((operand, value), variables)
            case Transposed(operand, None):
                return self.of(operand, variables)
            case Transposed(operand, _):
                self.plain_number(operand, variables)
                return PLAIN_MEASURE
            case Built(body, counters):
                for end in counter_nodes(counters):
                    self.plain_number(end, variables)
                own = dict.fromkeys((counter.variable for counter in counters), PLAIN_MEASURE)
                return self.of(body, {**variables, **own})
            case _:
                return PLAIN_MEASURE

    def _quantity(self, node: Quantity, variables: Variables) -> Measure:
        operand = self.number(node.operand, variables)
        if not self.unifier.unify(operand.term, NUMBER):
            own = complain.shown(self.text, node.operand.span)
            raise UnitError(
                f"{own} has a unit already: it is {described(self.dimension(operand))}. "
                f"To show it in {node.unit.printed}, write `in {node.unit.symbol}`.",
                position=node.span,
            )
        for more in node.more:
            self.plain_number(more.operand, variables)
        zero = Zero.TEMPERATURE if node.unit.has_zero else Zero.NONE
        return Measure(Term(node.unit.dimension), node.unit, zero, is_chosen=True)

    def _converted(self, node: Converted, variables: Variables) -> AnyMeasure:
        measure = self.of(node.operand, variables)
        unit = node.unit
        for part in measures_of(measure):
            wanted = Term(unit.dimension)
            if not self.unifier.unify(part.term, wanted):
                raise self._no_conversion(node, part, variables)
            self.coerce(node.operand, part.term, wanted)
            temperatures.check_conversion(part, node)
        zero = Zero.TEMPERATURE if unit.has_zero else Zero.NONE
        shown = Measure(Term(unit.dimension), unit, zero, is_chosen=True)
        return shown if isinstance(measure, Measure) else PlaneMeasure(shown, shown)

    def _binary(self, node: Binary, variables: Variables) -> AnyMeasure:
        if node.operator is Operator.POWER:
            return self._power(node, variables)
        left, right = self.of(node.left, variables), self.of(node.right, variables)
        if node.operator in (Operator.ADD, Operator.SUBTRACT):
            return self._sum(node, left, right, variables)
        if isinstance(left, PlaneMeasure) and isinstance(right, Measure):
            return PlaneMeasure(
                self._product(node, left.first, right), self._product(node, left.second, right)
            )
        if isinstance(right, PlaneMeasure) and isinstance(left, Measure):
            return PlaneMeasure(
                self._product(node, left, right.first), self._product(node, left, right.second)
            )
        one, other = measures_of(left)[0], measures_of(right)[0]
        temperatures.check_multiple(node, one, other, self.unifier)
        return self._product(node, one, other)

    def _sum(
        self, node: Binary, left: AnyMeasure, right: AnyMeasure, variables: Variables
    ) -> AnyMeasure:
        parts = []
        for one, other in zip(measures_of(left), measures_of(right), strict=False):
            if not self.unifier.unify(one.term, other.term):
                raise self.mismatch((node.left, one), (node.right, other), variables)
            self._coerce_sum(node, one.term, other.term)
            zero = temperatures.zero_of_sum(node, one.zero, other.zero)
            unit = other.unit if one.unit is None or self._is_zero(node.left) else one.unit
            unit = temperatures.unit_of_sum(one, other, zero) or unit
            parts.append(
                Measure(one.term if one.unit or not other.unit else other.term, unit, zero)
            )
        return parts[0] if len(parts) == 1 else PlaneMeasure(parts[0], parts[1])

    def _product(self, node: Binary, one: Measure, other: Measure) -> Measure:
        if node.operator is Operator.DIVIDE:
            other = other.to_the(Fraction(-1))
        first, second = difference_unit(one.unit), difference_unit(other.unit)
        unit = first or second if first is None or second is None else first * second
        zero = temperatures.zero_of_product(one, other, self.unifier)
        return Measure(one.term * other.term, unit, zero)

    def _power(self, node: Binary, variables: Variables) -> AnyMeasure:
        base = self.number(node.left, variables)
        exponent = written_fraction(node.right)
        if exponent is not None:
            return base.to_the(exponent)
        self.plain_number(node.right, variables)
        if not self.unifier.unify(base.term, NUMBER):
            own = complain.shown(self.text, node.left.span)
            raise UnitError(
                f"{own} is {described(self.dimension(base))}; a quantity takes only exponents that "
                "are written as numbers, so that its unit is known.",
                position=node.span,
            )
        return PLAIN_MEASURE

    def _over(self, node: Over, variables: Variables) -> AnyMeasure:
        ends = [end for end in (node.low, node.high) if not is_infinite(end)]
        if node.summary is not Summary.INTEGRAL:
            for end in ends:
                self.plain_number(end, variables)
            body = self.number(node.body, {**variables, node.variable: PLAIN_MEASURE})
            if node.summary is Summary.PRODUCT:
                self.plain_number(node.body, {**variables, node.variable: PLAIN_MEASURE})
            return body
        along = Measure(self.unifier.unknown())
        for end in ends:
            measure = self.number(end, variables)
            if not self.unifier.unify(along.term, measure.term):
                raise self.mismatch((ends[0], along), (end, measure), variables)
            if measure.unit is not None and along.unit is None:
                along = Measure(along.term, measure.unit)
        body = self.number(node.body, {**variables, node.variable: along})
        return self._product(Binary(Operator.MULTIPLY, node.body, node.low), body, along)

    def _pieces(self, node: Pieces, variables: Variables) -> AnyMeasure:
        variable = variables.get(node.variable, PLAIN_MEASURE)
        for piece in node.pieces:
            if piece.domain is not None and isinstance(variable, Measure):
                self.domain(piece.domain, variable)
        return self.alike(tuple(piece.expression for piece in node.pieces), variables)

    def _derivative(self, node: Derivative, variables: Variables) -> AnyMeasure:
        argument = self.number(node.argument, variables)
        signature = self.around.signature(node.function)
        if signature is None or len(signature.variables) != 1:
            self.plain_number(node.argument, variables)
            return PLAIN_MEASURE
        signature = instance(signature, self.unifier)
        own = signature.variables[0]
        if not self.unifier.unify(own.term, argument.term):
            raise self.wrong_argument(node, node.argument, own, argument)
        value = measures_of(signature.value)[0]
        along = own if own.unit is not None else argument
        unit = None
        if value.unit is not None and along.unit is not None:
            unit = value.unit / along.unit.to_the(Fraction(node.order))
        return Measure(value.term / own.term.to_the(node.order), unit)

    def alike(self, nodes: tuple[Node, ...], variables: Variables) -> AnyMeasure:
        """Return the measure that all of several expressions have.

        Raises:
            UnitError: two of them do not fit together.
        """
        measures = [self.of(node, variables) for node in nodes]
        first = measures[0]
        for node, measure in zip(nodes[1:], measures[1:], strict=True):
            for one, other in zip(measures_of(first), measures_of(measure), strict=False):
                if not self.unifier.unify(one.term, other.term):
                    raise self.mismatch((nodes[0], one), (node, other), variables)
        known = next((m for m in measures if measures_of(m)[0].unit is not None), first)
        for node, measure in zip(nodes, measures, strict=True):
            self.coerce(node, measures_of(measure)[0].term, measures_of(known)[0].term)
        return known

    def plain_number(self, node: Node, variables: Variables) -> None:
        """Check that an expression is a plain number.

        Raises:
            UnitError: it has a unit.
        """
        measure = self.number(node, variables)
        if not self.unifier.unify(measure.term, NUMBER):
            own = complain.shown(self.text, node.span)
            raise UnitError(
                f"A plain number is needed here, but {own} is "
                f"{described(self.dimension(measure))}.",
                position=node.span,
            )

    # Angles

    def _coerce_sum(self, node: Binary, one: Term, other: Term) -> None:
        self.coerce(node.right, other, one)
        self.coerce(node.left, one, other)

    def coerce(self, node: Node, own: Term, wanted: Term) -> None:
        """Note that an angle is to be left out of a part, where another has none."""
        has, needs = self.unifier.dimension(own), self.unifier.dimension(wanted)
        if has.angle and not needs.angle and not needs.is_plain:
            self.coercions.append(Coercion(node, has.angle))

    # Errors

    def _is_zero(self, node: Node) -> bool:
        return isinstance(node, Number) and not node.value

    def _plain_names(self, nodes: tuple[Node, ...], variables: Variables) -> Iterator[Name]:
        """Return the names without a unit in expressions."""
        for top in nodes:
            for node in walk(top):
                if isinstance(node, Name):
                    measure = variables.get(node.name) or self.around.value(node.name)
                    if isinstance(measure, Measure) and self.dimension(measure).is_plain:
                        yield node

    def mismatch(
        self, one: tuple[Node, Measure], other: tuple[Node, Measure], variables: Variables
    ) -> UnitError:
        """Return the error of two parts that should have one dimension."""
        return complain.mismatch(
            self.text,
            (one[0], self.dimension(one[1])),
            (other[0], self.dimension(other[1])),
            self._plain_names((one[0], other[0]), variables),
        )

    def _no_conversion(self, node: Converted, part: Measure, variables: Variables) -> UnitError:
        return complain.no_conversion(
            self.text, node, self.dimension(part), self._plain_names((node.operand,), variables)
        )

    def wrong_argument(
        self, call: Call | Derivative, node: Node, own: Measure, given: Measure
    ) -> UnitError:
        """Return the error of an argument that a function of the study does not take."""
        one, other = self.dimension(own), self.dimension(given)
        shown = complain.shown(self.text, node.span)
        return UnitError(
            f"`{call.function}` takes {described(one)}, but {shown} is {described(other)}: "
            f"{complain.difference(one, other)}.",
            position=node.span,
        )
