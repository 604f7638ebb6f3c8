"""What a table of values is made from, as it was typed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from msgspec import Meta

from axis_path.core.contract import Digits, Line
from axis_path.core.errors import FormatError
from axis_path.core.limits import TABLE_COLUMNS, TABLE_DIGITS
from axis_path.core.tabulate.columns import TableColumn
from axis_path.core.tabulate.form import NumberForm


@dataclass(frozen=True, slots=True)
class TableSpec:
    """A table of values.

    Attributes:
        start: where it begins, as typed; ``stop`` where it ends.
        step: from row to row; not looked at where there is a count.
        count: how many rows from start to stop; empty for a step.
        listed: places of one's own, as typed, with commas between; empty for spaced ones.
        digits: how many are shown: significant ones, or places after the point.
        form: which of these.
        columns: the columns that were added, and what was set for those of shown functions.
        over: a slider whose values the rows are, in place of those of the variable.
        at: where functions are evaluated then, as typed.
    """

    start: Line = "-5"
    stop: Line = "5"
    step: Line = "1"
    count: Line = ""
    listed: Line = ""
    digits: Digits = 6
    form: NumberForm = NumberForm.SIGNIFICANT
    columns: Annotated[tuple[TableColumn, ...], Meta(max_length=TABLE_COLUMNS.value)] = ()
    over: Line = ""
    at: Line = "1"

    def __post_init__(self) -> None:
        """Refuse more digits than are right.

        Raises:
            FormatError: there are too many.
        """
        if not 0 <= self.digits <= TABLE_DIGITS.value:
            raise FormatError(f"A table shows {TABLE_DIGITS.value} digits at most.")
