"""What expressions measure: dimensions, inferred before anything is computed, and units to show.

Read ``terms.py`` (dimensions with unknown parts), then ``infer.py``.
"""

from axis_path.core.dimensions.choose import base_unit, fitting_units, named_unit, tidied
from axis_path.core.dimensions.coercion import Coercion
from axis_path.core.dimensions.curve_units import PLAIN_UNITS, CurveUnits
from axis_path.core.dimensions.infer import Inference, Surroundings
from axis_path.core.dimensions.line_units import (
    LineUnits,
    dimension_of,
    measured_words,
    resolved,
    unit_of,
)
from axis_path.core.dimensions.measures import (
    PLAIN_MEASURE,
    AnyMeasure,
    Measure,
    PlaneMeasure,
    Signature,
    Zero,
    measure_of,
    measures_of,
)
from axis_path.core.dimensions.shown_quantity import PLAIN_QUANTITY, ShownQuantity
from axis_path.core.dimensions.terms import NUMBER, Term, Unifier
from axis_path.core.dimensions.words import described, name_of

__all__ = [
    "NUMBER",
    "PLAIN_MEASURE",
    "PLAIN_QUANTITY",
    "PLAIN_UNITS",
    "AnyMeasure",
    "Coercion",
    "CurveUnits",
    "Inference",
    "LineUnits",
    "Measure",
    "PlaneMeasure",
    "ShownQuantity",
    "Signature",
    "Surroundings",
    "Term",
    "Unifier",
    "Zero",
    "base_unit",
    "described",
    "dimension_of",
    "fitting_units",
    "measure_of",
    "measured_words",
    "measures_of",
    "name_of",
    "named_unit",
    "resolved",
    "tidied",
    "unit_of",
]
