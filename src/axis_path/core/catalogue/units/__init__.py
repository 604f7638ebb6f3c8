"""Units and dimensions: what a unit is called, what it measures, how many base units it is.

The factors come from pint (``definitions.py``). Read ``entry.py``, then ``shelf.py``.
"""

from axis_path.core.catalogue.units.dimension import (
    ANGLE,
    BASE_UNITS,
    PLAIN,
    TEMPERATURE,
    Dimension,
    exponent_text,
    printed_power,
    printed_product,
    read_dimension,
)
from axis_path.core.catalogue.units.entry import ONE, Factor, Measured, Prefixes, Unit, UnitEntry
from axis_path.core.catalogue.units.lookup import find_unit, unit_names, unit_of
from axis_path.core.catalogue.units.product import NO_UNIT, UnitProduct
from axis_path.core.catalogue.units.read import UnitMatch, match_unit, read_unit
from axis_path.core.catalogue.units.shelf import UNITS

__all__ = [
    "ANGLE",
    "BASE_UNITS",
    "NO_UNIT",
    "ONE",
    "PLAIN",
    "TEMPERATURE",
    "UNITS",
    "Dimension",
    "Factor",
    "Measured",
    "Prefixes",
    "Unit",
    "UnitEntry",
    "UnitMatch",
    "UnitProduct",
    "exponent_text",
    "find_unit",
    "match_unit",
    "printed_power",
    "printed_product",
    "read_dimension",
    "read_unit",
    "unit_names",
    "unit_of",
]
