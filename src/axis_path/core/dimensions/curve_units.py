"""The units in which a line stands on the plane."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.catalogue.units import NO_UNIT, UnitProduct


@dataclass(frozen=True, slots=True)
class CurveUnits:
    """The units in which a line stands on the plane.

    Attributes:
        x: of the axis across.
        y: of the axis upward.
        variable: of the variable: of a function that of the axis across.
        value: of the value of a function of x and y; else that of the axis upward.
    """

    x: UnitProduct = NO_UNIT
    y: UnitProduct = NO_UNIT
    variable: UnitProduct = NO_UNIT
    value: UnitProduct = NO_UNIT

    @property
    def is_plain(self) -> bool:
        """Check whether nothing has a unit."""
        return not any((self.x.parts, self.y.parts, self.variable.parts, self.value.parts))


PLAIN_UNITS = CurveUnits()
