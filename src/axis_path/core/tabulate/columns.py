"""The columns of a table of values, as they were chosen, and what is made of a column's values."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from enum import StrEnum
from typing import Any

from axis_path.core.errors import FormatError
from axis_path.core.limits import TABLE_COLUMNS, TABLE_DIGITS
from axis_path.core.tabulate.form import NumberForm

_LONGEST_TEXT = 500


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

    text: str
    series: Series = Series.VALUE
    digits: int | None = None
    form: NumberForm | None = None
    out: bool = False


def columns_to_list(columns: tuple[TableColumn, ...]) -> list[dict[str, Any]]:
    """Return columns as plain data; what is as usual is left out."""
    usual = asdict(TableColumn(""))
    return [
        {name: value for name, value in asdict(each).items() if value != usual[name]}
        for each in columns
    ]


def columns_from_list(given: object) -> tuple[TableColumn, ...]:
    """Read columns.

    Raises:
        FormatError: one is of the wrong kind, or there are too many.
    """
    if not isinstance(given, list) or len(given) > TABLE_COLUMNS.value:
        raise FormatError(f"A table has {TABLE_COLUMNS.value} columns of its own at most.")
    return tuple(map(_column, given))


def _column(given: object) -> TableColumn:
    wrong = FormatError("A column of the table is of the wrong kind.")
    if not isinstance(given, dict):
        raise wrong
    text, digits, out = given.get("text"), given.get("digits"), given.get("out", False)
    if not isinstance(text, str) or not 0 < len(text.strip()) <= _LONGEST_TEXT:
        raise wrong
    if digits is not None and (type(digits) is not int or not 0 <= digits <= TABLE_DIGITS.value):
        raise wrong
    form = given.get("form")
    try:
        return TableColumn(
            text.strip(),
            Series(given.get("series", Series.VALUE)),
            digits,
            None if form is None else NumberForm(form),
            out is True,
        )
    except ValueError as err:
        raise wrong from err
