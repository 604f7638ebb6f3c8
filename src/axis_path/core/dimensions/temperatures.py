"""Temperatures that count from a zero of their own, and the differences between them."""

from __future__ import annotations

from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.dimensions.measures import AnyMeasure, Measure, PlaneMeasure, Zero
from axis_path.core.dimensions.terms import Unifier
from axis_path.core.errors import UnitError
from axis_path.core.language.tree import Binary, Converted, Negative, Node, Operator, Quantity

#: Functions that choose or average: of temperatures they give a temperature.
_KEEP = {"mean", "median", "quantile", "min", "max", "sort", "reverse", "above", "beside", "re"}
#: Functions whose value is a difference of what they are given.
_DIFFER = {"differences", "sd"}


def forgotten(measure: AnyMeasure) -> AnyMeasure:
    """Return a measure that does not count from a zero of its own."""
    if isinstance(measure, PlaneMeasure):
        return PlaneMeasure(_forgotten(measure.first), _forgotten(measure.second))
    return _forgotten(measure)


def _forgotten(measure: Measure) -> Measure:
    if measure.zero is not Zero.TEMPERATURE and not (measure.unit and measure.unit.has_zero):
        return measure
    return Measure(measure.term, difference_unit(measure.unit))


def difference_unit(unit: UnitProduct | None) -> UnitProduct | None:
    """Return the unit of differences: K for °C, °R for °F."""
    return None if unit is None else unit.of_differences


def zero_of_sum(node: Binary, one: Zero, other: Zero) -> Zero:
    """Return from where a sum or a difference counts.

    Raises:
        UnitError: two temperatures are added, or one is taken from a difference.
    """
    if node.operator is Operator.ADD:
        if one is other is Zero.TEMPERATURE:
            raise UnitError(
                "Two temperatures cannot be added. A difference of temperatures is written in K "
                "(as large as °C) or °R (as large as °F), as in `20 °C + 5 K`.",
                position=node.span,
            )
        return one if other is Zero.NONE or one is Zero.TEMPERATURE else other
    if other is Zero.TEMPERATURE:
        if one is Zero.DIFFERENCE:
            raise UnitError(
                "A temperature cannot be taken from a difference of temperatures.",
                position=node.span,
            )
        return Zero.DIFFERENCE
    return one


def zero_of_product(one: Measure, other: Measure, unifier: Unifier) -> Zero:
    """Return from where a product counts: a multiple of a difference is a difference."""
    for part, factor in ((one, other), (other, one)):
        if part.zero is Zero.DIFFERENCE and unifier.resolve(factor.term).is_plain:
            return Zero.DIFFERENCE
    return Zero.NONE


def unit_of_sum(one: Measure, other: Measure, zero: Zero) -> UnitProduct | None:
    """Return the unit of a sum of temperatures; None for any other sum."""
    if Zero.TEMPERATURE not in (one.zero, other.zero):
        return None
    if zero is Zero.DIFFERENCE:
        return difference_unit(one.unit if one.zero is Zero.TEMPERATURE else other.unit)
    return one.unit if one.zero is Zero.TEMPERATURE else other.unit


def check_multiple(node: Binary, one: Measure, other: Measure, unifier: Unifier) -> None:
    """Check that no temperature in °C or °F is multiplied by a plain number.

    Raises:
        UnitError: one is.
    """
    for part, times, factor in ((node.left, one, other), (node.right, other, one)):
        if not _is_degrees(part) or times.zero is not Zero.TEMPERATURE:
            continue
        if unifier.resolve(factor.term).is_plain:
            raise UnitError(
                "A multiple of a temperature in °C or °F has no meaning, because its zero is "
                "chosen freely. Write the temperature in K, or a difference in K or °R.",
                position=node.span,
            )


def _is_degrees(node: Node) -> bool:
    return isinstance(node, Quantity) or (
        isinstance(node, Negative) and isinstance(node.operand, Quantity)
    )


def check_conversion(measure: Measure, node: Converted) -> None:
    """Check that a difference of temperatures is not shown as a temperature.

    Raises:
        UnitError: it would be.
    """
    if node.unit.has_zero and measure.zero is Zero.DIFFERENCE:
        symbol = node.unit.of_differences.symbol
        raise UnitError(
            f"This is a difference of temperatures; in {node.unit.symbol} it would be read as a "
            f"temperature. Show it in {symbol}, which has the same size.",
            position=node.span,
        )


def after_function(name: str, value: Measure, given: list[Measure]) -> Measure:
    """Return the measure of what a function gives for temperatures.

    Raises:
        UnitError: temperatures are added up.
    """
    if not given or given[0].zero is Zero.NONE:
        return value
    if given[0].zero is Zero.DIFFERENCE:
        is_kept = value.term == given[0].term
        return Measure(value.term, value.unit, Zero.DIFFERENCE if is_kept else value.zero)
    if name in _KEEP:
        return Measure(value.term, value.unit, Zero.TEMPERATURE)
    if name in ("sum", "cumulative"):
        raise UnitError("Temperatures in °C or °F cannot be added up; write them in K.")
    zero = Zero.DIFFERENCE if name in _DIFFER else Zero.NONE
    return Measure(value.term, difference_unit(value.unit), zero)
