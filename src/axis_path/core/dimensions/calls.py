"""What functions make of units: those of the catalogue by their rules, others by what they take."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from fractions import Fraction
from typing import TYPE_CHECKING

from axis_path.core.catalogue import FUNCTIONS, FunctionEntry
from axis_path.core.catalogue.unit_rules import UnitRule
from axis_path.core.catalogue.units import ANGLE
from axis_path.core.dimensions import complain, temperatures
from axis_path.core.dimensions.coercion import Coercion
from axis_path.core.dimensions.measures import (
    PLAIN_MEASURE,
    AnyMeasure,
    Measure,
    PlaneMeasure,
    Signature,
    measures_of,
)
from axis_path.core.dimensions.terms import NUMBER, Term, Unifier, renamed
from axis_path.core.dimensions.words import described
from axis_path.core.dimensions.written import written_fraction
from axis_path.core.errors import UnitError
from axis_path.core.language.tree import Call, Node

if TYPE_CHECKING:
    from axis_path.core.dimensions.infer import Inference


def call_measure(
    inference: Inference, node: Call, variables: Mapping[str, AnyMeasure]
) -> AnyMeasure:
    """Return the measure of a call.

    Raises:
        UnitError: an argument has another unit than the function takes.
    """
    entry = FUNCTIONS.get(node.function)
    given = [inference.of(argument, variables) for argument in node.arguments]
    if entry is not None:
        return _known(inference, node, entry, given, variables)
    signature = inference.around.signature(node.function)
    flat = [part for measure in given for part in measures_of(measure)]
    nodes = [n for n, m in zip(node.arguments, given, strict=True) for _ in measures_of(m)]
    if signature is None or len(flat) != len(signature.variables):
        for argument in node.arguments if signature is None else ():
            inference.plain_number(argument, variables)
        return PLAIN_MEASURE
    signature = instance(signature, inference.unifier)
    for index, (own, part) in enumerate(zip(signature.variables, flat, strict=True)):
        if not inference.unifier.unify(own.term, part.term):
            raise inference.wrong_argument(node, nodes[index], own, part)
        inference.coerce(nodes[index], part.term, own.term)
    return _with_units(signature)


def _with_units(signature: Signature) -> AnyMeasure:
    """Return the value of a function; its unit is known unless it depends on the arguments."""
    if all(not own.term.unknowns for own in signature.variables):
        return signature.value
    forgotten = [replace(part, unit=None) for part in measures_of(signature.value)]
    return forgotten[0] if len(forgotten) == 1 else PlaneMeasure(forgotten[0], forgotten[1])


def instance(signature: Signature, unifier: Unifier) -> Signature:
    """Return a signature whose unknown dimensions are new ones."""
    parts = (*signature.variables, *measures_of(signature.value))
    numbers = {number for part in parts for number, _ in part.term.unknowns}
    if not numbers:
        return signature
    fresh = {number: unifier.unknown() for number in sorted(numbers)}
    own, *second = [
        Measure(renamed(part.term, fresh), part.unit, part.zero)
        for part in measures_of(signature.value)
    ]
    return Signature(
        tuple(
            Measure(renamed(part.term, fresh), part.unit, part.zero) for part in signature.variables
        ),
        PlaneMeasure(own, second[0]) if second else own,
    )


def _known(
    inference: Inference,
    node: Call,
    entry: FunctionEntry,
    given: list[AnyMeasure],
    variables: Mapping[str, AnyMeasure],
) -> AnyMeasure:
    """Return the measure of a function of the catalogue, by its rule."""
    flat = [part for measure in given for part in measures_of(measure)]
    nodes = [n for n, m in zip(node.arguments, given, strict=True) for _ in measures_of(m)]
    rule = entry.units
    if rule is None:
        for index, (argument, measure) in enumerate(zip(nodes, flat, strict=True)):
            _take_plain(inference, node, argument, measure, is_angle=index in entry.takes_angle)
        return Measure(Term(ANGLE)) if entry.returns_angle else PLAIN_MEASURE
    _check_alike(inference, rule, nodes, flat, variables)
    for index in rule.plain:
        if index < len(flat):
            is_angle = index in entry.takes_angle
            _take_plain(inference, node, nodes[index], flat[index], is_angle=is_angle)
    first = _powers(inference, rule, rule.powers, node, flat)
    if rule.second is not None:
        second = _powers(inference, rule, rule.second, node, flat)
        return PlaneMeasure(first, Measure(Term(ANGLE)) if entry.returns_angle else second)
    if entry.returns_angle:
        return Measure(Term(ANGLE))
    return temperatures.after_function(node.function, first, flat)


def _powers(
    inference: Inference,
    rule: UnitRule,
    powers: tuple[Fraction, ...],
    node: Call,
    flat: list[Measure],
) -> Measure:
    """Return the product of the arguments' measures to the powers of a rule."""
    if rule.root is not None and len(node.arguments) > rule.root:
        index = written_fraction(node.arguments[rule.root])
        if not index:
            _take_plain(inference, node, node.arguments[0], flat[0], is_angle=False)
            return PLAIN_MEASURE
        return flat[0].to_the(1 / index)
    value = PLAIN_MEASURE
    for power, measure in zip(powers, flat, strict=False):
        part = measure if power == 1 else measure.to_the(power)
        unit = part.unit if value.unit is None else value.unit
        if value.unit is not None and part.unit is not None:
            unit = value.unit * part.unit
        value = Measure(value.term * part.term, unit)
    return value


def _check_alike(
    inference: Inference,
    rule: UnitRule,
    nodes: list[Node],
    flat: list[Measure],
    variables: Mapping[str, AnyMeasure],
) -> None:
    """Check that arguments that must have one dimension do."""
    places = range(len(flat)) if rule.alike is None else rule.alike
    chosen = [(nodes[k], flat[k]) for k in places if k < len(flat)]
    for node, measure in chosen[1:]:
        if not inference.unifier.unify(chosen[0][1].term, measure.term):
            raise inference.mismatch(chosen[0], (node, measure), variables)


def _take_plain(
    inference: Inference, call: Call, node: Node, measure: Measure, *, is_angle: bool
) -> None:
    """Check that a function is given a plain number, or an angle."""
    if inference.unifier.unify(measure.term, NUMBER):
        angle = inference.dimension(measure).angle
        if angle and not (is_angle and angle == 1):
            inference.coercions.append(Coercion(node, angle))
        return
    own = complain.shown(inference.text, node.span)
    what = "an angle or a plain number" if is_angle else "a plain number"
    dimension = inference.dimension(measure)
    raise UnitError(
        f"`{call.function}` needs {what}, but {own} is {described(dimension)}. Divide it by "
        f"something in {dimension.printed}.",
        position=call.span,
    )
