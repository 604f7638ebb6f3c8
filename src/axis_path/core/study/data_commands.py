"""Commands of the Data panel: columns, what is drawn of them, and fits."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from axis_path.core.data import number_of_cell
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
    row, value = number_of(command, "row"), number_of_cell(text_of(command, "text"))
    if not 0 <= row < COLUMN_CELLS.value:
        raise LimitError(f"A column has {COLUMN_CELLS.value:,} cells at most.")
    cells = [*column.cells, *[None] * (row + 1 - len(column.cells))]
    cells[row] = value
    study.put_column(column.name, replace(column, cells=tuple(cells)))
    return f"Change {column.name}"


def _rename(study: Study, command: dict[str, Any], _window: Window) -> str:
    column, to = study.column_of(text_of(command, "name")), text_of(command, "to")
    if NAME_PATTERN.fullmatch(to) is None:
        raise DataError(f"`{to}` cannot be the name of a column.")
    if to != column.name and any(each.name == to for each in study.columns):
        raise DataError(f"There is a column `{to}` already.")
    unit = text_of(command, "unit") if isinstance(command.get("unit"), str) else column.unit
    study.put_column(column.name, replace(column, name=to, unit=unit[:40]))
    return f"Rename {column.name}"


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
    plot = Plot(text_of(command, "x"), text_of(command, "y"))
    kept = [each for each in study.plots if each != plot]
    if command.get("away") is not True:
        for name in (plot.x, plot.y):
            study.column_of(name)
        if len(kept) >= FITS.value:
            raise LimitError(f"A study draws {FITS.value} pairs of columns at most.")
        kept.append(plot)
    study.set_plots(kept)
    return f"Draw {plot.y} against {plot.x}"


def _fit(study: Study, command: dict[str, Any], _window: Window) -> str:
    number = max((each.id for each in study.fits), default=0) + 1
    ask = fit_from_dict({**command, "id": number})
    study.made_fit(ask)
    if len(study.fits) >= FITS.value:
        raise LimitError(f"A study keeps {FITS.value} fits at most.")
    study.set_fits([ask, *(each for each in study.fits if replace(each, id=number) != ask)])
    return f"Fit {ask.y} against {ask.x}"


def _unfit(study: Study, command: dict[str, Any], _window: Window) -> str:
    number = number_of(command, "fit")
    study.set_fits([each for each in study.fits if each.id != number])
    return "Remove a fit"


DATA_COMMANDS: dict[str, Callable[[Study, dict[str, Any], Window], str]] = {
    "columns": _columns,
    "cell": _cell,
    "rename_column": _rename,
    "remove_column": _remove,
    "sort_columns": _sort,
    "plot": _plot,
    "fit": _fit,
    "unfit": _unfit,
}
