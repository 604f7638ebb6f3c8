"""What can be shown in the same units."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.catalogue.units import PLAIN, Dimension, UnitProduct
from axis_path.core.dimensions.line_units import dimension_of
from axis_path.core.dimensions.measures import Measure, Zero
from axis_path.core.dimensions.words import described


@dataclass(frozen=True, slots=True)
class ShownQuantity:
    """What shares a unit on an axis.

    Attributes:
        dimension: of it.
        is_difference: whether it is a difference of temperatures, which would be read as a
            temperature in °C.
    """

    dimension: Dimension
    is_difference: bool = False

    @classmethod
    def of(cls, measure: Measure) -> ShownQuantity:
        """Return the quantity that an expression measures."""
        return cls(dimension_of(measure), measure.zero is Zero.DIFFERENCE)

    @property
    def words(self) -> str:
        """Describe it in words: ``a length (m)``."""
        words = described(self.dimension)
        return f"a difference of temperatures ({self.dimension})" if self.is_difference else words

    def fits(self, unit: UnitProduct) -> bool:
        """Check whether it can be shown in a unit; an angle is a plain number as well."""
        is_same = unit.dimension.without_angle == self.dimension.without_angle
        return is_same and not (self.is_difference and unit.has_zero)


PLAIN_QUANTITY = ShownQuantity(PLAIN)
