"""Edits of data: columns, rows, filters, points and fits. Each returns the snapshot after it."""

from __future__ import annotations

import re
from collections.abc import Collection, Sequence
from dataclasses import replace
from fractions import Fraction

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.data import Column, number_of_cell
from axis_path.core.document.data import Data, Plot
from axis_path.core.errors import DataError, MathError
from axis_path.core.features.data.columns import Columns
from axis_path.core.features.data.fits import Fits, line_of_fit
from axis_path.core.features.data.section import with_data
from axis_path.core.features.lines.edits import put_line, write
from axis_path.core.features.lines.renaming import renamed_number
from axis_path.core.features.sliders.edits import set_slider
from axis_path.core.language import NAME_PATTERN
from axis_path.core.limits import COLUMN_CELLS, COLUMNS

#: A cell of a column, as other programs give it.
GivenCell = float | Fraction | str | None
_HEAD = re.compile(r"\s*(\w+\s*\(\s*x\s*\)|y)\s*=")


def with_columns(snapshot: Snapshot, columns: Sequence[Column]) -> Snapshot:
    """Keep other columns of data."""
    return with_data(snapshot, columns=tuple(columns))


def keep_column(
    snapshot: Snapshot, name: str, values: Sequence[GivenCell], unit: str = ""
) -> Snapshot:
    """Keep a column of data; one of the same name is replaced.

    Args:
        snapshot: before the edit.
        name: as names of lines are.
        values: numbers; a float is taken as the decimal that it is written as, None is missing.
        unit: is shown beside the name.

    Raises:
        MathError: the name cannot be, a cell is no number, or there are too many.
    """
    if NAME_PATTERN.fullmatch(name) is None:
        raise DataError(f"`{name}` cannot be the name of a column.")
    if len(values) > COLUMN_CELLS.value:
        raise DataError(f"A column has {COLUMN_CELLS.value:,} cells at most.")
    made = Column(name, tuple(map(number_of_cell, values)), unit)
    columns = snapshot.section(Data).columns
    if any(column.name == name for column in columns):
        return with_columns(
            snapshot, [made if column.name == name else column for column in columns]
        )
    if len(columns) >= COLUMNS.value:
        raise DataError(f"A study has {COLUMNS.value} columns at most.")
    return with_columns(snapshot, [*columns, made])


def put_column(snapshot: Snapshot, name: str, column: Column) -> Snapshot:
    """Put a column in the place of another; fits and points go on with it.

    Raises:
        DataError: there is none of that name.
    """
    _check_column(snapshot, name)
    data = snapshot.section(Data)
    columns = tuple(column if other.name == name else other for other in data.columns)
    if column.name == name:
        return with_data(snapshot, columns=columns)
    named = {name: column.name}
    fits = tuple(replace(f, x=named.get(f.x, f.x), y=named.get(f.y, f.y)) for f in data.fits)
    plots = tuple(
        Plot(*(named.get(n, n) for n in (p.x, p.y, p.x_error, p.y_error))) for p in data.plots
    )
    changed = with_data(snapshot, columns=columns, fits=fits, plots=plots)
    return _rename_in_formulas(changed, name, column.name)


def _check_column(snapshot: Snapshot, name: str) -> None:
    if all(column.name != name for column in snapshot.section(Data).columns):
        raise DataError(f"There is no column `{name}`.")


def _rename_in_formulas(snapshot: Snapshot, name: str, new: str) -> Snapshot:
    """Let formulas and the filter follow a column that got another name."""
    data = snapshot.section(Data)
    names = snapshot.query(Columns).names_of([name, *(column.name for column in data.columns)])
    columns = tuple(
        replace(column, formula=renamed_number(column.formula, names, name, new))
        if column.formula
        else column
        for column in data.columns
    )
    sides = re.split(r"([<>=;]+)", data.row_filter)
    row_filter = "".join(
        side if k % 2 or not side.strip() else renamed_number(side, names, name, new)
        for k, side in enumerate(sides)
    )
    return with_data(snapshot, columns=columns, row_filter=row_filter)


def sort_rows(snapshot: Snapshot, name: str, *, falls: bool = False) -> Snapshot:
    """Sort the rows of all columns by one; missing cells come last.

    Raises:
        DataError: there is none of that name.
    """
    columns = snapshot.query(Columns)
    by, count = columns.column_of(name), columns.row_count
    keys = [*by.cells, *[None] * (count - len(by.cells))]
    known = [k for k in range(count) if keys[k] is not None]
    known.sort(key=lambda k: keys[k] or 0, reverse=falls)
    order = [*known, *(k for k in range(count) if keys[k] is None)]
    sorted_columns = []
    for column in snapshot.section(Data).columns:
        if column.formula:
            sorted_columns.append(column)
            continue
        cells = [*column.cells, *[None] * (count - len(column.cells))]
        sorted_columns.append(replace(column, cells=tuple(cells[k] for k in order)))
    return with_columns(snapshot, sorted_columns)


def remove_rows(snapshot: Snapshot, rows: Collection[int]) -> Snapshot:
    """Take rows out of all columns."""
    gone = frozenset(rows)
    return with_columns(
        snapshot,
        [
            replace(column, cells=tuple(c for k, c in enumerate(column.cells) if k not in gone))
            for column in snapshot.section(Data).columns
        ],
    )


def remove_column(snapshot: Snapshot, name: str) -> Snapshot:
    """Take a column away, with the fits and the points that need it.

    Raises:
        DataError: there is none of that name.
    """
    _check_column(snapshot, name)
    data = snapshot.section(Data)
    plots = tuple(
        replace(
            plot,
            x_error="" if plot.x_error == name else plot.x_error,
            y_error="" if plot.y_error == name else plot.y_error,
        )
        for plot in data.plots
        if name not in (plot.x, plot.y)
    )
    return with_data(
        snapshot,
        columns=tuple(column for column in data.columns if column.name != name),
        fits=tuple(fit for fit in data.fits if name not in (fit.x, fit.y)),
        plots=plots,
    )


# Fits as definitions: a line whose text is written anew whenever the data change


def follow_fit(snapshot: Snapshot, number: int) -> tuple[Snapshot, int]:
    """Write a line that follows a fit from now on; return its id too.

    Raises:
        MathError: there is no such fit, or it has no result.
    """
    fits = snapshot.query(Fits)
    line_id = snapshot.next_id()
    changed = write(snapshot, line_id, f"y = {_text_of(fits, number)}")
    return put_line(changed, replace(changed.line(line_id), fit=number)), line_id


def _text_of(fits: Fits, number: int) -> str:
    request = fits.request(number)
    return line_of_fit(fits.made_fit(request), fits.units_of(request))


def refresh_fits(snapshot: Snapshot) -> Snapshot:
    """Write all lines that follow a fit anew; one whose fit has no result is turned off."""
    for line in snapshot.lines:
        if line.fit is None:
            continue
        fits, chosen = snapshot.query(Fits), line
        if all(fit.id != line.fit for fit in snapshot.section(Data).fits):
            chosen = replace(line, fit=None, fit_lost=False)
        else:
            try:
                text = _text_of(fits, line.fit)
            except MathError:
                chosen = replace(line, disabled=True, fit_lost=True)
            else:
                head = _HEAD.match(line.text)
                chosen = replace(
                    line,
                    text=f"{head[1] if head else 'y'} = {text}",
                    disabled=line.disabled and not line.fit_lost,
                    fit_lost=False,
                )
        if chosen != snapshot.line(line.id):
            snapshot = put_line(snapshot, chosen)
    return snapshot


def try_formula(snapshot: Snapshot, formula: str) -> Snapshot:
    """Make sliders of a formula's letters and draw it, to start a fit from by hand.

    Raises:
        MathError: it does not read.
    """
    for name in snapshot.query(Fits).parameters(formula):
        if name not in snapshot.sliders:
            snapshot = set_slider(snapshot, name, 1)
    return write(snapshot, snapshot.next_id(), f"y = {formula.strip()}")
