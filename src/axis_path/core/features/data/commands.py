"""Commands of the Data panel: columns, what is drawn of them, and fits."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.data import Column, number_of_cell
from axis_path.core.draw import Window
from axis_path.core.errors import DataError, LimitError
from axis_path.core.features.command import Command, Edited
from axis_path.core.features.data.columns import Columns
from axis_path.core.features.data.edits import (
    follow_fit,
    keep_column,
    put_column,
    remove_column,
    remove_rows,
    sort_rows,
    try_formula,
    with_columns,
)
from axis_path.core.features.data.fits import Fits
from axis_path.core.features.data.section import Data, Plot, fit_from_dict, with_data
from axis_path.core.features.fields import CommandError, number_of, text_of
from axis_path.core.language import NAME_PATTERN
from axis_path.core.limits import COLUMN_CELLS, FITS


def _columns(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Keep whole columns, as they were pasted or loaded."""
    given = command.get("columns")
    if not isinstance(given, list) or not given:
        raise CommandError("The change lacks its `columns`.")
    for each in given:
        if not isinstance(each, dict) or not isinstance(each.get("cells"), list):
            raise CommandError("The change lacks its `cells`.")
        cells = [cell if isinstance(cell, str | int | float) else None for cell in each["cells"]]
        unit = text_of(each, "unit") if isinstance(each.get("unit"), str) else ""
        snapshot = keep_column(snapshot, text_of(each, "name"), cells, unit[:40])
    names = ", ".join(str(each["name"]) for each in given)
    return snapshot, f"Take {names[:60]}"


def _cell(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Change one cell; the columns grow as far as they are written into."""
    column = snapshot.query(Columns).column_of(text_of(command, "name"))
    if column.formula:
        raise DataError(f"`{column.name}` is calculated: change its formula, not its cells.")
    row, value = number_of(command, "row"), number_of_cell(text_of(command, "text"))
    if not 0 <= row < COLUMN_CELLS.value:
        raise LimitError(f"A column has {COLUMN_CELLS.value:,} cells at most.")
    cells = [*column.cells, *[None] * (row + 1 - len(column.cells))]
    cells[row] = value
    snapshot = put_column(snapshot, column.name, replace(column, cells=tuple(cells)))
    return snapshot, f"Change {column.name}"


def _rename(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    name, to = text_of(command, "name"), text_of(command, "to")
    column = next((each for each in snapshot.section(Data).columns if each.name == name), None)
    if column is None:
        raise DataError(f"There is no column `{name}`.")
    if NAME_PATTERN.fullmatch(to) is None:
        raise DataError(f"`{to}` cannot be the name of a column.")
    if to != column.name and any(each.name == to for each in snapshot.section(Data).columns):
        raise DataError(f"There is a column `{to}` already.")
    unit = text_of(command, "unit") if isinstance(command.get("unit"), str) else column.unit
    snapshot = put_column(snapshot, column.name, replace(column, name=to, unit=unit[:40]))
    return snapshot, f"Rename {column.name}"


def _calculate(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Calculate a column from others, row by row; an empty formula leaves its cells as typed."""
    name, formula = text_of(command, "name"), text_of(command, "formula").strip()
    known = next((each for each in snapshot.section(Data).columns if each.name == name), None)
    if known is not None and not formula:
        snapshot = put_column(
            snapshot, name, replace(snapshot.query(Columns).column_of(name), formula="")
        )
        return snapshot, f"Type {name}"
    made = replace(known or Column(name, ()), cells=(), formula=formula)
    snapshot.query(Columns).check_formula(made)
    if known is None:
        snapshot = keep_column(snapshot, name, [])
    snapshot = with_columns(
        snapshot, [made if each.name == name else each for each in snapshot.section(Data).columns]
    )
    return snapshot, f"Calculate {name}"


def _filter(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Keep only the rows that conditions hold for, in points, fits and summaries."""
    rows = command.get("rows")
    if isinstance(rows, list):
        text = snapshot.query(Columns).condition_of(
            _row_numbers(rows), text_of(command, "x"), text_of(command, "y")
        )
    else:
        text = text_of(command, "text").strip()
    if text:
        snapshot.query(Columns).rows_where(text)
    snapshot = with_data(snapshot, row_filter=text)
    return snapshot, ("Filter the rows" if text else "Keep all rows")


def _remove_rows(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    rows = _row_numbers(command.get("rows"))
    snapshot = remove_rows(snapshot, rows)
    return snapshot, f"Delete {len(rows)} rows"


def _row_numbers(given: object) -> list[int]:
    if not isinstance(given, list) or not all(type(row) is int for row in given):
        raise CommandError("The change lacks its `rows`.")
    return given


def _remove(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    name = text_of(command, "name")
    snapshot = remove_column(snapshot, name)
    return snapshot, f"Delete {name}"


def _sort(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Sort all rows by one column; missing cells come last."""
    name = text_of(command, "name")
    snapshot = sort_rows(snapshot, name, falls=command.get("falls") is True)
    return snapshot, f"Sort by {name}"


def _plot(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Draw two columns as points, or take them away."""
    errors = [
        text_of(command, name) if isinstance(command.get(name), str) else ""
        for name in ("x_error", "y_error")
    ]
    plot = Plot(text_of(command, "x"), text_of(command, "y"), *errors)
    kept = [each for each in snapshot.section(Data).plots if (each.x, each.y) != (plot.x, plot.y)]
    if command.get("away") is not True:
        for name in plot.columns:
            snapshot.query(Columns).column_of(name)
        if len(kept) >= FITS.value:
            raise LimitError(f"A study draws {FITS.value} pairs of columns at most.")
        kept.append(plot)
    snapshot = with_data(snapshot, plots=tuple(kept))
    return snapshot, f"Draw {plot.y} against {plot.x}"


def _fit(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    number = max((each.id for each in snapshot.section(Data).fits), default=0) + 1
    ask = fit_from_dict({**command, "id": number})
    if ask.formula and not ask.start:
        ask = replace(ask, start=snapshot.query(Fits).formula_start(ask.formula))
    snapshot.query(Fits).made_fit(ask)
    if len(snapshot.section(Data).fits) >= FITS.value:
        raise LimitError(f"A study keeps {FITS.value} fits at most.")
    others = (each for each in snapshot.section(Data).fits if replace(each, id=number) != ask)
    snapshot = with_data(snapshot, fits=(ask, *others))
    return snapshot, f"Fit {ask.y} against {ask.x}"


def _follow(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Write a line that follows a fit."""
    snapshot, line_id = follow_fit(snapshot, number_of(command, "fit"))
    return snapshot, f"Write {snapshot.definition(line_id).name}"


def _try(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    """Make sliders of a formula's letters, and draw it."""
    snapshot = try_formula(snapshot, text_of(command, "formula"))
    return snapshot, "Make sliders of a formula"


def _unfit(snapshot: Snapshot, command: dict[str, Any], _window: Window) -> Edited:
    number = number_of(command, "fit")
    snapshot = with_data(
        snapshot, fits=tuple([each for each in snapshot.section(Data).fits if each.id != number])
    )
    return snapshot, "Remove a fit"


COMMANDS: dict[str, Command] = {
    "columns": _columns,
    "cell": _cell,
    "calculate": _calculate,
    "filter_rows": _filter,
    "remove_rows": _remove_rows,
    "rename_column": _rename,
    "remove_column": _remove,
    "sort_columns": _sort,
    "plot": _plot,
    "fit": _fit,
    "follow_fit": _follow,
    "try_formula": _try,
    "unfit": _unfit,
}
