"""Commands of the Data panel: columns, what is drawn of them, and fits."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from axis_path.core.data import Column, number_of_cell
from axis_path.core.draw import Window
from axis_path.core.errors import DataError, LimitError
from axis_path.core.language import NAME_PATTERN
from axis_path.core.limits import COLUMN_CELLS, FITS
from axis_path.core.study.command_fields import CommandError, number_of, text_of
from axis_path.core.study.fit_ledger import Plot, fit_from_dict
from axis_path.core.study.study import Study


def _columns(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Keep whole columns, as they were pasted or loaded."""
    given = command.get("columns")
    if not isinstance(given, list) or not given:
        raise CommandError("The change lacks its `columns`.")
    for each in given:
        if not isinstance(each, dict) or not isinstance(each.get("cells"), list):
            raise CommandError("The change lacks its `cells`.")
        cells = [cell if isinstance(cell, str | int | float) else None for cell in each["cells"]]
        unit = text_of(each, "unit") if isinstance(each.get("unit"), str) else ""
        study.column(text_of(each, "name"), cells, unit[:40])
    names = ", ".join(str(each["name"]) for each in given)
    return f"Take {names[:60]}"


def _cell(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Change one cell; the columns grow as far as they are written into."""
    column = study.column_of(text_of(command, "name"))
    if column.formula:
        raise DataError(f"`{column.name}` is calculated: change its formula, not its cells.")
    row, value = number_of(command, "row"), number_of_cell(text_of(command, "text"))
    if not 0 <= row < COLUMN_CELLS.value:
        raise LimitError(f"A column has {COLUMN_CELLS.value:,} cells at most.")
    cells = [*column.cells, *[None] * (row + 1 - len(column.cells))]
    cells[row] = value
    study.put_column(column.name, replace(column, cells=tuple(cells)))
    return f"Change {column.name}"


def _rename(study: Study, command: dict[str, Any], _window: Window) -> str:
    name, to = text_of(command, "name"), text_of(command, "to")
    column = next((each for each in study.columns if each.name == name), None)
    if column is None:
        raise DataError(f"There is no column `{name}`.")
    if NAME_PATTERN.fullmatch(to) is None:
        raise DataError(f"`{to}` cannot be the name of a column.")
    if to != column.name and any(each.name == to for each in study.columns):
        raise DataError(f"There is a column `{to}` already.")
    unit = text_of(command, "unit") if isinstance(command.get("unit"), str) else column.unit
    study.put_column(column.name, replace(column, name=to, unit=unit[:40]))
    return f"Rename {column.name}"


def _calculate(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Calculate a column from others, row by row; an empty formula leaves its cells as typed."""
    name, formula = text_of(command, "name"), text_of(command, "formula").strip()
    known = next((each for each in study.columns if each.name == name), None)
    if known is not None and not formula:
        study.put_column(name, replace(study.column_of(name), formula=""))
        return f"Type {name}"
    made = replace(known or Column(name, ()), cells=(), formula=formula)
    study.check_formula(made)
    if known is None:
        study.column(name, [])
    study.set_columns([made if each.name == name else each for each in study.columns])
    return f"Calculate {name}"


def _filter(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Keep only the rows that conditions hold for, in points, fits and summaries."""
    rows = command.get("rows")
    if isinstance(rows, list):
        text = study.condition_of(_row_numbers(rows), text_of(command, "x"), text_of(command, "y"))
    else:
        text = text_of(command, "text").strip()
    if text:
        study.rows_where(text)
    study.set_row_filter(text)
    return "Filter the rows" if text else "Keep all rows"


def _remove_rows(study: Study, command: dict[str, Any], _window: Window) -> str:
    rows = _row_numbers(command.get("rows"))
    study.remove_rows(rows)
    return f"Delete {len(rows)} rows"


def _row_numbers(given: object) -> list[int]:
    if not isinstance(given, list) or not all(type(row) is int for row in given):
        raise CommandError("The change lacks its `rows`.")
    return given


def _remove(study: Study, command: dict[str, Any], _window: Window) -> str:
    name = text_of(command, "name")
    study.remove_column(name)
    return f"Delete {name}"


def _sort(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Sort all rows by one column; missing cells come last."""
    name = text_of(command, "name")
    study.sort_rows(name, falls=command.get("falls") is True)
    return f"Sort by {name}"


def _plot(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Draw two columns as points, or take them away."""
    errors = [
        text_of(command, name) if isinstance(command.get(name), str) else ""
        for name in ("x_error", "y_error")
    ]
    plot = Plot(text_of(command, "x"), text_of(command, "y"), *errors)
    kept = [each for each in study.plots if (each.x, each.y) != (plot.x, plot.y)]
    if command.get("away") is not True:
        for name in plot.columns:
            study.column_of(name)
        if len(kept) >= FITS.value:
            raise LimitError(f"A study draws {FITS.value} pairs of columns at most.")
        kept.append(plot)
    study.set_plots(kept)
    return f"Draw {plot.y} against {plot.x}"


def _fit(study: Study, command: dict[str, Any], _window: Window) -> str:
    number = max((each.id for each in study.fits), default=0) + 1
    ask = fit_from_dict({**command, "id": number})
    if ask.formula and not ask.start:
        ask = replace(ask, start=study.formula_start(ask.formula))
    study.made_fit(ask)
    if len(study.fits) >= FITS.value:
        raise LimitError(f"A study keeps {FITS.value} fits at most.")
    study.set_fits([ask, *(each for each in study.fits if replace(each, id=number) != ask)])
    return f"Fit {ask.y} against {ask.x}"


def _follow(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Write a line that follows a fit."""
    line = study.follow_fit(number_of(command, "fit"))
    return f"Write {study.definition(line.id).name}"


def _try(study: Study, command: dict[str, Any], _window: Window) -> str:
    """Make sliders of a formula's letters, and draw it."""
    study.try_formula(text_of(command, "formula"))
    return "Make sliders of a formula"


def _unfit(study: Study, command: dict[str, Any], _window: Window) -> str:
    number = number_of(command, "fit")
    study.set_fits([each for each in study.fits if each.id != number])
    return "Remove a fit"


DATA_COMMANDS: dict[str, Callable[[Study, dict[str, Any], Window], str]] = {
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
