"""Fits that are kept with a study, and made anew whenever their columns change."""

from __future__ import annotations

from dataclasses import asdict, dataclass, field, replace
from typing import Any

from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.data import Column, number_of_cell
from axis_path.core.document.fields import field_of
from axis_path.core.errors import FormatError, MathError
from axis_path.core.language import NAME_PATTERN
from axis_path.core.limits import COLUMN_CELLS, COLUMNS, FITS, LINE_LENGTH


@dataclass(frozen=True, slots=True)
class FitAsk:
    """A fit as it was asked for.

    Attributes:
        model: what is fitted, ``polynomial``.
        x: the name of a column; ``y`` of another.
        degree: of a polynomial.
        formula: one of the student's own; ``start`` its parameters with where they begin.
    """

    id: int
    model: str
    x: str
    y: str
    degree: int | None = None
    formula: str = ""
    start: dict[str, float] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Plot:
    """Two columns that are drawn as points.

    Attributes:
        x: the name of the column across; ``y`` of the one upward.
        x_error: of a column with how far a point reaches on both sides; may be empty.
        y_error: the same upward and downward.
    """

    x: str
    y: str
    x_error: str = ""
    y_error: str = ""

    @property
    def columns(self) -> tuple[str, ...]:
        """Return the names of all columns that are needed."""
        return tuple(name for name in (self.x, self.y, self.x_error, self.y_error) if name)


def fits_to_list(fits: tuple[FitAsk, ...]) -> list[dict[str, Any]]:
    """Return fits as plain data; what is not used is left out."""
    return [
        {name: value for name, value in asdict(fit).items() if value not in (None, "", {})}
        for fit in fits
    ]


def fits_from_list(given: object) -> tuple[FitAsk, ...]:
    """Read fits from plain data.

    Raises:
        FormatError: one is of the wrong kind, or there are too many.
    """
    if not isinstance(given, list) or len(given) > FITS.value:
        raise FormatError(f"A study keeps {FITS.value} fits at most.")
    return tuple(map(fit_from_dict, given))


def fit_from_dict(given: object) -> FitAsk:
    """Read a fit from plain data.

    Raises:
        FormatError: it is of the wrong kind.
    """
    wrong = FormatError("A fit of the study is of the wrong kind.")
    if not isinstance(given, dict) or not isinstance(given.get("id"), int):
        raise wrong
    texts = [given.get(name, "") for name in ("model", "x", "y", "formula")]
    if not all(isinstance(text, str) and len(text) <= LINE_LENGTH.value for text in texts):
        raise wrong
    degree, start = given.get("degree"), given.get("start", {})
    if degree is not None and (not isinstance(degree, int) or isinstance(degree, bool)):
        raise wrong
    is_start = isinstance(start, dict) and all(
        isinstance(name, str) and isinstance(value, int | float) and not isinstance(value, bool)
        for name, value in start.items()
    )
    if not is_start or len(start) > _MOST_PARAMETERS:
        raise wrong
    model, x, y, formula = texts
    return FitAsk(given["id"], model, x, y, degree, formula, dict(start))


_MOST_PARAMETERS = 20


def plots_to_list(plots: tuple[Plot, ...]) -> list[dict[str, str]]:
    """Return which columns are drawn as plain data; what is not used is left out."""
    return [{name: value for name, value in asdict(plot).items() if value} for plot in plots]


def plots_from_list(given: object) -> tuple[Plot, ...]:
    """Read which columns are drawn from plain data.

    Raises:
        FormatError: they are of the wrong kind.
    """
    names = ("x", "y", "x_error", "y_error")
    is_list = isinstance(given, list) and all(
        isinstance(each, dict)
        and {"x", "y"} <= each.keys()
        and all(isinstance(each.get(name, ""), str) for name in names)
        for each in given
    )
    if not is_list:
        raise FormatError("The points of the study are of the wrong kind.")
    return tuple(
        Plot(*(each.get(name, "") for name in names))
        for each in given[: FITS.value]  # type: ignore[index]
    )


@dataclass(frozen=True, slots=True)
class Data:
    """The data of a study.

    Attributes:
        columns: in their order.
        fits: the newest first.
        plots: which columns are drawn as points.
        row_filter: the conditions that rows must hold to; empty for all rows.
    """

    columns: tuple[Column, ...] = ()
    fits: tuple[FitAsk, ...] = ()
    plots: tuple[Plot, ...] = ()
    row_filter: str = ""


def with_data(snapshot: Snapshot, /, **fields: Any) -> Snapshot:  # noqa: ANN401 - fields of the section
    """Return the snapshot with other columns, fits, plots or another filter."""
    return snapshot.with_section(replace(snapshot.section(Data), **fields))


def to_fields(section: Data) -> dict[str, Any]:
    """Return the fields of the study format; what is empty is left out."""
    fields = {
        "fits": fits_to_list(section.fits),
        "plots": plots_to_list(section.plots),
        "row_filter": section.row_filter,
        "columns": list(map(_column_to_dict, section.columns)),
    }
    return {name: value for name, value in fields.items() if value}


def from_fields(given: dict[str, Any]) -> Data:
    """Read the section.

    Raises:
        FormatError: a field is not what it should be, or there are too many columns.
    """
    columns = tuple(_column(each) for each in field_of(given, "columns", list, []))
    if len(columns) > COLUMNS.value or len({each.name for each in columns}) != len(columns):
        raise FormatError(f"A study has {COLUMNS.value} columns at most, each of its own name.")
    fits, plots = fits_from_list(given.get("fits", [])), plots_from_list(given.get("plots", []))
    row_filter = field_of(given, "row_filter", str, "")[: LINE_LENGTH.value]
    return Data(columns, fits, plots, row_filter)


def _column_to_dict(column: Column) -> dict[str, Any]:
    cells = [None if cell is None else str(cell) for cell in column.cells]
    kept: dict[str, Any] = {"name": column.name, "cells": cells}
    if column.unit:
        kept["unit"] = column.unit
    if column.formula:
        kept |= {"cells": [], "formula": column.formula}
    return kept


def _column(given: object) -> Column:
    if not isinstance(given, dict):
        raise FormatError("A column of the study is of the wrong kind.")
    cells = field_of(given, "cells", list)
    name = field_of(given, "name", str)
    is_text = all(cell is None or isinstance(cell, str) for cell in cells)
    if not is_text or len(cells) > COLUMN_CELLS.value or NAME_PATTERN.fullmatch(name) is None:
        raise FormatError("A column of the study is of the wrong kind.")
    try:
        unit = field_of(given, "unit", str, "")[:100]
        formula = field_of(given, "formula", str, "")[: LINE_LENGTH.value]
        return Column(name, tuple(map(number_of_cell, cells)), unit, formula)
    except MathError as err:
        raise FormatError(f"A column of the study cannot be: {err.message}") from err
