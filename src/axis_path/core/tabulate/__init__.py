"""Tables of values. Read ``values.py``."""

from axis_path.core.tabulate.between import Between, Happening, happenings
from axis_path.core.tabulate.columns import (
    Series,
    TableColumn,
)
from axis_path.core.tabulate.form import NumberForm
from axis_path.core.tabulate.series import Cells, Head
from axis_path.core.tabulate.spec import TableSpec
from axis_path.core.tabulate.values import (
    Abscissae,
    ValueTable,
    counted,
    listed,
    make_table,
    spaced,
)

__all__ = [
    "Abscissae",
    "Between",
    "Cells",
    "Happening",
    "Head",
    "NumberForm",
    "Series",
    "TableColumn",
    "TableSpec",
    "ValueTable",
    "counted",
    "happenings",
    "listed",
    "make_table",
    "spaced",
]
