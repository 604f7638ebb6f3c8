"""A set of equations that was read, with what its unknowns measure."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.compile.units.units import MeasuredEquations
from axis_path.core.dimensions import Measure, unit_of
from axis_path.core.language.line_types import SetEquation
from axis_path.core.language.tree import Name


@dataclass(frozen=True, slots=True)
class ReadSet:
    """A set of equations.

    Attributes:
        equations: in the order of typing.
        unknowns: the names without a value, in the order in which they first stand there.
        known: the names of the study that take part.
        measured: the equations in base units, with what the unknowns measure.
        others: the names of the study that do not take part, but are the letters of a unit.
    """

    equations: tuple[SetEquation, ...]
    unknowns: tuple[str, ...]
    known: tuple[str, ...]
    measured: MeasuredEquations
    others: tuple[str, ...] = ()

    def measure(self, name: str) -> Measure:
        """Return what an unknown measures, as the equation that states it says."""
        measure = self.measured.unknowns[name]
        for equation, side in zip(self.equations, self.measured.sides, strict=True):
            if Name(name) in equation.compared.terms and side.unit is not None:
                return Measure(measure.term, side.unit, side.zero, side.is_chosen)
        return measure

    def unit(self, name: str) -> UnitProduct:
        """Return the unit of an unknown: that of what it equals, if one equation says it."""
        return unit_of(self.measure(name))

    @property
    def units(self) -> dict[str, UnitProduct]:
        """Return the units of the unknowns."""
        return {name: self.unit(name) for name in self.unknowns}
