"""The units of one line: of its variables, and of its value."""

from __future__ import annotations

from dataclasses import dataclass, replace

from axis_path.core.catalogue.units import Dimension, UnitProduct
from axis_path.core.dimensions.choose import tidied
from axis_path.core.dimensions.measures import (
    AnyMeasure,
    Measure,
    PlaneMeasure,
    Signature,
    measures_of,
)
from axis_path.core.dimensions.terms import Term, Unifier
from axis_path.core.dimensions.words import described


@dataclass(frozen=True, slots=True)
class LineUnits:
    """What a line measures.

    Attributes:
        variables: of a function its variables, of a relation x and y; none of a value.
        value: what it gives; of a relation what both of its sides are.
    """

    variables: tuple[Measure, ...]
    value: AnyMeasure

    @property
    def is_plain(self) -> bool:
        """Check whether nothing in the line has a unit."""
        parts = (*self.variables, *measures_of(self.value))
        return all(part.term.known.is_plain and part.unit is None for part in parts)

    @property
    def signature(self) -> Signature:
        """Return it as what a function takes and gives."""
        return Signature(self.variables, self.value)

    @property
    def variable_units(self) -> tuple[UnitProduct, ...]:
        """Return the units in which the variables are shown if nothing else was chosen."""
        return tuple(map(unit_of, self.variables))

    @property
    def value_units(self) -> tuple[UnitProduct, ...]:
        """Return the units in which the value, or both coordinates, are shown likewise."""
        return tuple(map(unit_of, measures_of(self.value)))


def dimension_of(measure: Measure) -> Dimension:
    """Return a dimension; where it may be any, that of a plain number."""
    return measure.term.known


def unit_of(measure: Measure) -> UnitProduct:
    """Return the unit in which a value is shown if nothing else was chosen."""
    if measure.is_chosen and measure.unit is not None:
        return measure.unit
    return tidied(measure.unit, dimension_of(measure))


def resolved(measure: AnyMeasure, unifier: Unifier, *, is_generic: bool) -> AnyMeasure:
    """Return a measure with all that was found out.

    Args:
        measure: as it was inferred.
        unifier: what was found out.
        is_generic: whether unknown dimensions may stay, as in a function that takes any.
    """
    if isinstance(measure, PlaneMeasure):
        first, second = (
            _resolved(part, unifier, is_generic=is_generic) for part in measures_of(measure)
        )
        return PlaneMeasure(first, second)
    return _resolved(measure, unifier, is_generic=is_generic)


def _resolved(measure: Measure, unifier: Unifier, *, is_generic: bool) -> Measure:
    term = unifier.resolve(measure.term)
    if not is_generic:
        term = Term(term.known)
    return replace(measure, term=term)


def measured_words(units: LineUnits) -> str:
    """Describe what a line measures: ``a force (kg m/s²)``; empty for plain numbers.

    Of a function it is the value, then what its variables are.
    """
    if units.is_plain:
        return ""
    values = " and ".join(described(dimension_of(part)) for part in measures_of(units.value))
    own = [described(dimension_of(part)) for part in units.variables]
    return f"{values}, of {' and '.join(own)}" if own else values
