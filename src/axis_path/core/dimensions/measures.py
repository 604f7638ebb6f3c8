"""What is known of the unit of an expression, before anything is computed."""

from __future__ import annotations

from dataclasses import dataclass, replace
from enum import Enum
from fractions import Fraction

from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.dimensions.terms import NUMBER, Term


class Zero(Enum):
    """Whether a temperature counts from a zero of its own."""

    NONE = "none"
    #: Typed in °C or °F: a sum of two of these has no meaning.
    TEMPERATURE = "temperature"
    #: What two of these differ by.
    DIFFERENCE = "difference"


@dataclass(frozen=True, slots=True)
class Measure:
    """The dimension of a number, or of all entries of a list or a matrix.

    Attributes:
        term: the dimension.
        unit: the unit that follows from how the expression is written; None if none does.
        zero: whether it is a temperature with a zero of its own.
        is_chosen: whether the unit is the one that was written for the whole value.
    """

    term: Term
    unit: UnitProduct | None = None
    zero: Zero = Zero.NONE
    is_chosen: bool = False

    @property
    def known(self) -> Measure:
        """Return the measure with its unknown dimensions taken as plain numbers."""
        return replace(self, term=Term(self.term.known))

    @property
    def is_any(self) -> bool:
        """Check whether any dimension will do."""
        return bool(self.term.unknowns)

    def shares_nothing(self, other: Measure) -> bool:
        """Check whether no unknown dimension takes part in both."""
        return {one for one, _ in self.term.unknowns}.isdisjoint(
            one for one, _ in other.term.unknowns
        )

    def to_the(self, power: Fraction) -> Measure:
        """Return the measure of a power."""
        unit = None if self.unit is None else self.unit.to_the(power)
        return Measure(self.term.to_the(power), unit)


@dataclass(frozen=True, slots=True)
class PlaneMeasure:
    """The dimensions of both coordinates of a point, or of all points of a list."""

    first: Measure
    second: Measure


def measure_of(unit: UnitProduct) -> Measure:
    """Return the measure of a number of a unit."""
    zero = Zero.TEMPERATURE if unit.has_zero else Zero.NONE
    return Measure(Term(unit.dimension), unit if unit.parts else None, zero)


AnyMeasure = Measure | PlaneMeasure
PLAIN_MEASURE = Measure(NUMBER)


@dataclass(frozen=True, slots=True)
class Signature:
    """What a function takes and what it gives.

    Attributes:
        variables: the measure of each variable.
        value: the measure of the value.
    """

    variables: tuple[Measure, ...]
    value: AnyMeasure


def measures_of(measure: AnyMeasure) -> tuple[Measure, ...]:
    """Return the measure of a number, or those of both coordinates."""
    return (measure,) if isinstance(measure, Measure) else (measure.first, measure.second)
