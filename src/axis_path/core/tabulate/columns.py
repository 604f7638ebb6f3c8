"""The columns of a table of values, as they were chosen, and what is made of a column's values."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from msgspec import Meta

from axis_path.core.contract import Digits
from axis_path.core.tabulate.form import NumberForm


class Series(StrEnum):
    """What a column shows of the values from row to row."""

    VALUE = "value"
    DIFFERENCE = "difference"
    RATIO = "ratio"
    SUM = "sum"


@dataclass(frozen=True, slots=True)
class TableColumn:
    """A column that was added to a table, or what was set for one of a shown function.

    Attributes:
        text: an expression in the variable, or the name of a function or of a path.
        series: what is shown of it.
        digits: how many; None for as many as the table has.
        form: how its numbers are written; None for as in the table.
        out: whether a function that is shown is left out of the table.
    """

    text: Annotated[str, Meta(min_length=1, max_length=500)]
    series: Series = Series.VALUE
    digits: Digits | None = None
    form: NumberForm | None = None
    out: bool = False
