"""What a table of values is made from, as it was typed."""

from __future__ import annotations

from dataclasses import dataclass

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

    start: str = "-5"
    stop: str = "5"
    step: str = "1"
    count: str = ""
    listed: str = ""
    digits: int = 6
    form: NumberForm = NumberForm.SIGNIFICANT
    columns: tuple[TableColumn, ...] = ()
    over: str = ""
    at: str = "1"
