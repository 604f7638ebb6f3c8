"""Commands of the Data panel: columns, what is drawn of them, and fits."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated

import msgspec
from msgspec import UNSET, Meta, UnsetType

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.contract import Count, Finite, Id, one_line
from axis_path.core.data import Column, number_of_cell
from axis_path.core.document.data import Data, FitRequest, Plot, Start
from axis_path.core.draw import Window
from axis_path.core.errors import DataError, LimitError
from axis_path.core.features.command import Command, Edited, Handler
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
from axis_path.core.features.data.section import with_data
from axis_path.core.language import NAME_PATTERN
from axis_path.core.limits import COLUMN_CELLS, FITS

_LONGEST_UNIT = 40


class GivenColumn(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A column as it was pasted, typed or loaded; a cell that is null is missing."""

    name: str
    cells: list[str | Finite | None]
    unit: str = ""


class KeepColumns(Command, frozen=True, tag="columns"):
    """Keep columns of data; of the same name they are replaced."""

    columns: Annotated[list[GivenColumn], Meta(min_length=1)]


class ChangeCell(Command, frozen=True, tag="cell"):
    """Change one cell; the columns grow as far as they are written into."""

    name: str
    row: Count
    text: str


class RenameColumn(Command, frozen=True, tag="rename_column"):
    """Rename a column, or change its unit."""

    name: str
    to: str
    unit: str | UnsetType = UNSET


class Calculate(Command, frozen=True, tag="calculate"):
    """Calculate a column from others, row by row; an empty formula leaves its cells as typed."""

    name: str
    formula: str


class FilterRows(Command, frozen=True, tag="filter_rows"):
    """Keep only the rows for which conditions hold, in points, fits and summaries.

    The conditions are a text, or those that some rows hold to in two columns.
    """

    text: str = ""
    rows: list[Count] | UnsetType = UNSET
    x: str = ""
    y: str = ""


class RemoveRows(Command, frozen=True, tag="remove_rows"):
    """Delete rows of all columns, by their numbers from 0."""

    rows: list[Count]


class RemoveColumn(Command, frozen=True, tag="remove_column"):
    """Delete a column."""

    name: str


class SortColumns(Command, frozen=True, tag="sort_columns"):
    """Sort all rows by one column; missing cells come last."""

    name: str
    falls: bool = False


class PlotColumns(Command, frozen=True, tag="plot"):
    """Draw two columns as points, or remove them from the plane."""

    x: str
    y: str
    x_error: str = ""
    y_error: str = ""
    away: bool = False


class FitCurve(Command, frozen=True, tag="fit"):
    """Fit a curve to two columns, and keep the fit.

    A formula without ``start`` begins with the present values of the sliders. With ``drawn`` a line
    is written that follows the fit, so that its curve is drawn.
    """

    model: str
    x: str
    y: str
    drawn: bool = False
    degree: Count | None = None
    formula: str = ""
    start: Start = msgspec.field(default_factory=dict)


class FollowFit(Command, frozen=True, tag="follow_fit"):
    """Write a line that follows a fit: its text is written anew when the data change."""

    fit: Id


class TryFormula(Command, frozen=True, tag="try_formula"):
    """Make sliders of a formula's letters, and draw it."""

    formula: str


class Unfit(Command, frozen=True, tag="unfit"):
    """Remove a fit."""

    fit: Id


def _columns(snapshot: Snapshot, command: KeepColumns, _window: Window) -> Edited:
    for column in command.columns:
        name, unit = one_line(column.name), one_line(column.unit)
        snapshot = keep_column(snapshot, name, column.cells, unit[:_LONGEST_UNIT])
    names = ", ".join(column.name for column in command.columns)
    return snapshot, f"Take {names[:60]}"


def _cell(snapshot: Snapshot, command: ChangeCell, _window: Window) -> Edited:
    column = snapshot.query(Columns).column_of(one_line(command.name))
    if column.formula:
        raise DataError(f"`{column.name}` is calculated: change its formula, not its cells.")
    row, value = command.row, number_of_cell(one_line(command.text))
    if not row < COLUMN_CELLS.value:
        raise LimitError(f"A column has {COLUMN_CELLS.value:,} cells at most.")
    cells = [*column.cells, *[None] * (row + 1 - len(column.cells))]
    cells[row] = value
    snapshot = put_column(snapshot, column.name, replace(column, cells=tuple(cells)))
    return snapshot, f"Change {column.name}"


def _rename(snapshot: Snapshot, command: RenameColumn, _window: Window) -> Edited:
    name, to = one_line(command.name), one_line(command.to)
    column = next(
        (column for column in snapshot.section(Data).columns if column.name == name), None
    )
    if column is None:
        raise DataError(f"There is no column `{name}`.")
    if NAME_PATTERN.fullmatch(to) is None:
        raise DataError(f"`{to}` cannot be the name of a column.")
    if to != column.name and any(other.name == to for other in snapshot.section(Data).columns):
        raise DataError(f"There is a column `{to}` already.")
    unit = column.unit if isinstance(command.unit, UnsetType) else one_line(command.unit)
    renamed = replace(column, name=to, unit=unit[:_LONGEST_UNIT])
    snapshot = put_column(snapshot, column.name, renamed)
    return snapshot, f"Rename {column.name}"


def _calculate(snapshot: Snapshot, command: Calculate, _window: Window) -> Edited:
    name, formula = one_line(command.name), one_line(command.formula)
    known = next((column for column in snapshot.section(Data).columns if column.name == name), None)
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
        snapshot,
        [made if column.name == name else column for column in snapshot.section(Data).columns],
    )
    return snapshot, f"Calculate {name}"


def _filter(snapshot: Snapshot, command: FilterRows, _window: Window) -> Edited:
    if isinstance(command.rows, UnsetType):
        text = one_line(command.text)
    else:
        columns = one_line(command.x), one_line(command.y)
        text = snapshot.query(Columns).condition_of(command.rows, *columns)
    if text:
        snapshot.query(Columns).rows_where(text)
    snapshot = with_data(snapshot, row_filter=text)
    return snapshot, ("Filter the rows" if text else "Keep all rows")


def _remove_rows(snapshot: Snapshot, command: RemoveRows, _window: Window) -> Edited:
    snapshot = remove_rows(snapshot, command.rows)
    return snapshot, f"Delete {len(command.rows)} rows"


def _remove(snapshot: Snapshot, command: RemoveColumn, _window: Window) -> Edited:
    name = one_line(command.name)
    snapshot = remove_column(snapshot, name)
    return snapshot, f"Delete {name}"


def _sort(snapshot: Snapshot, command: SortColumns, _window: Window) -> Edited:
    name = one_line(command.name)
    snapshot = sort_rows(snapshot, name, falls=command.falls)
    return snapshot, f"Sort by {name}"


def _plot(snapshot: Snapshot, command: PlotColumns, _window: Window) -> Edited:
    plot = Plot(*map(one_line, (command.x, command.y, command.x_error, command.y_error)))
    remaining = [
        other for other in snapshot.section(Data).plots if (other.x, other.y) != (plot.x, plot.y)
    ]
    if not command.away:
        for name in plot.columns:
            snapshot.query(Columns).column_of(name)
        if len(remaining) >= FITS.value:
            raise LimitError(f"A study draws {FITS.value} pairs of columns at most.")
        remaining.append(plot)
    snapshot = with_data(snapshot, plots=tuple(remaining))
    return snapshot, f"Draw {plot.y} against {plot.x}"


def _fit(snapshot: Snapshot, command: FitCurve, _window: Window) -> Edited:
    fits = snapshot.section(Data).fits
    number = max((fit.id for fit in fits), default=0) + 1
    model, x, y, formula = map(one_line, (command.model, command.x, command.y, command.formula))
    request = FitRequest(number, model, x, y, command.degree, formula, command.start)
    if request.formula and not request.start:
        request = replace(request, start=snapshot.query(Fits).formula_start(request.formula))
    snapshot.query(Fits).made_fit(request)
    if len(fits) >= FITS.value:
        raise LimitError(f"A study keeps {FITS.value} fits at most.")
    # The same fit once more is the fit that there is, and the line that follows it goes on.
    request = next((fit for fit in fits if replace(fit, id=number) == request), request)
    others = (fit for fit in fits if fit.id != request.id)
    snapshot = with_data(snapshot, fits=(request, *others))
    if command.drawn and all(line.fit != request.id for line in snapshot.lines):
        snapshot, _ = follow_fit(snapshot, request.id)
    return snapshot, f"Fit {request.y} against {request.x}"


def _follow(snapshot: Snapshot, command: FollowFit, _window: Window) -> Edited:
    snapshot, line_id = follow_fit(snapshot, command.fit)
    return snapshot, f"Write {snapshot.definition(line_id).name}"


def _try(snapshot: Snapshot, command: TryFormula, _window: Window) -> Edited:
    snapshot = try_formula(snapshot, one_line(command.formula))
    return snapshot, "Make sliders of a formula"


def _unfit(snapshot: Snapshot, command: Unfit, _window: Window) -> Edited:
    remaining = tuple(fit for fit in snapshot.section(Data).fits if fit.id != command.fit)
    return with_data(snapshot, fits=remaining), "Remove a fit"


COMMANDS: dict[type[Command], Handler] = {
    KeepColumns: _columns,
    ChangeCell: _cell,
    Calculate: _calculate,
    FilterRows: _filter,
    RemoveRows: _remove_rows,
    RenameColumn: _rename,
    RemoveColumn: _remove,
    SortColumns: _sort,
    PlotColumns: _plot,
    FitCurve: _fit,
    FollowFit: _follow,
    TryFormula: _try,
    Unfit: _unfit,
}
