"""Tables of values. Read ``values.py``."""

from axis_path.core.tabulate.between import Between, Happening, happenings
from axis_path.core.tabulate.spec import NumberForm, TableSpec, digits_needed, written
from axis_path.core.tabulate.values import Places, ValueTable, counted, listed, make_table, spaced

__all__ = [
    "Between",
    "Happening",
    "NumberForm",
    "Places",
    "TableSpec",
    "ValueTable",
    "counted",
    "digits_needed",
    "happenings",
    "listed",
    "make_table",
    "spaced",
    "written",
]
