"""The Data panel as plain data: columns, summaries, fits with residuals, texts that are read."""

from __future__ import annotations

import math
from dataclasses import asdict, replace
from fractions import Fraction
from typing import Any

import numpy as np

from axis_path.bench import workbook
from axis_path.bench.job import Job
from axis_path.bench.request import BenchRequest, realise
from axis_path.bench.requests import DataQuery, Prediction, ReadDataQuery, ReadWorkbookQuery
from axis_path.core import Study
from axis_path.core.data import Column, Fit, read_columns, summarise
from axis_path.core.deadline import calculation
from axis_path.core.document.data import Data
from axis_path.core.errors import DataError, MathError
from axis_path.core.features.data.columns import Columns
from axis_path.core.features.data.fits import Fits, form_of_fit, line_of_fit, unit_of_coefficient
from axis_path.core.features.data.plots import Plots, in_box
from axis_path.core.features.feature import Box
from axis_path.core.study import FitRequest

#: So many rows are sent at once, and so many points of residuals.
_MOST_ROWS, _MOST_RESIDUALS = 200, 400
_MOST_TEXT = 4_000_000
_SHOWN_BAD = 40
_OPTIONS = ("separator", "decimal")
#: Cells of a calculated column are shown with so many digits; they are stored with all they have.
_CALCULATED_DIGITS = 7


def data(job: Job, query: DataQuery) -> dict[str, Any]:
    """Return some rows of all columns, with what they look like, and every fit made anew."""
    request = realise(job, query)
    return {"version": request.version, "data": _data(request)}


def _data(request: BenchRequest[DataQuery]) -> dict[str, Any]:
    study, query = request.study, request.query
    count = study.snapshot.query(Columns).row_count
    start = min(max(query.from_ or 0, 0), max(count - 1, 0))
    try:
        used, problem = study.snapshot.query(Columns).rows_used(), ""
    except MathError as err:
        used, problem = None, err.message
    shown = slice(start, start + _MOST_ROWS)
    return {
        "columns": [
            _column(study, column.name, start) for column in study.snapshot.section(Data).columns
        ],
        "count": count,
        "from": start,
        "filter": study.snapshot.section(Data).row_filter,
        "filter_problem": problem,
        "kept": None if used is None else int(np.count_nonzero(used)),
        "out": [] if used is None else [not is_used for is_used in used[shown].tolist()],
        "plots": [asdict(plot) for plot in study.snapshot.section(Data).plots],
        "chosen": [] if request.box is None else _chosen(study, request.box),
        "fits": [_fit(study, fit, query.predict) for fit in study.snapshot.section(Data).fits],
    }


def _column(study: Study, name: str, start: int) -> dict[str, Any]:
    used = next(column for column in study.snapshot.section(Data).columns if column.name == name)
    shown = {"name": name, "unit": used.unit, "formula": used.formula, "problem": ""}
    try:
        with calculation():
            column = study.column_of(name)
    except MathError as err:
        return shown | {"cells": [], "summary": None, "problem": err.message}
    try:
        summary = _summary(replace(column, cells=study.snapshot.query(Columns).used_cells(name)))
    except MathError:
        # The filter cannot be used; what is wrong with it is said beside it.
        summary = None
    return shown | {
        "cells": [
            _decimal(cell) if used.formula else _text(cell)
            for cell in column.cells[start : start + _MOST_ROWS]
        ],
        "summary": summary,
    }


def _chosen(study: Study, box: Box) -> list[int]:
    """Return the rows of all points that lie in a part of the plane, in their order."""
    rows: set[int] = set()
    for plot in study.snapshot.section(Data).plots:
        try:
            points, rows_of = study.snapshot.query(Plots).plotted(plot)
        except MathError:
            continue
        rows.update(rows_of[in_box(points, box)].tolist())
    return sorted(rows)


def _text(cell: object) -> str:
    """Write a cell as a decimal if it is one, else as a fraction."""
    if cell is None:
        return ""
    as_float = float(cell)  # type: ignore[arg-type]
    text = f"{as_float:.15g}"
    is_decimal = "e" not in text and str(cell) == str(type(cell)(text))  # type: ignore[call-arg]
    return (text if is_decimal else str(cell)).replace("-", "−")


def _decimal(cell: Fraction | None) -> str:
    return "" if cell is None else f"{float(cell):.{_CALCULATED_DIGITS}g}".replace("-", "−")


def _summary(column: Column) -> dict[str, Any] | None:
    try:
        summary = summarise(column)
    except DataError:
        return None
    names = ("count", "missing", "mean", "sd", "least", "greatest")
    return {name: _number(getattr(summary, name)) for name in names} | {
        "quartiles": [_number(quartile) for quartile in summary.quartiles],
        "edges": summary.edges.tolist(),
        "heights": summary.heights.tolist(),
    }


def _number(value: float) -> float | None:
    return value if math.isfinite(value) else None


def _fit(study: Study, fit_request: FitRequest, prediction: Prediction | None) -> dict[str, Any]:
    snapshot = study.snapshot
    followed = (line.id for line in snapshot.lines if line.fit == fit_request.id)
    shown: dict[str, Any] = {
        "id": fit_request.id, "model": fit_request.model, "x": fit_request.x, "y": fit_request.y,
        "degree": fit_request.degree, "formula": fit_request.formula, "problem": "",
        "follows": next((snapshot.definition(line_id).name for line_id in followed), ""),
    }  # fmt: skip
    try:
        with calculation():
            fit = study.snapshot.query(Fits).made_fit(fit_request)
            predicted = (
                _predicted(fit, prediction)
                if prediction and prediction.fit == fit_request.id
                else ""
            )
    except MathError as err:
        return shown | {"problem": err.message}
    units = snapshot.query(Fits).units_of(fit_request)
    return shown | {
        "coefficients": [
            {
                "name": name, "value": _digits(value), "error": _digits(error, 3),
                "unit": "" if units is None or fit.names[0] != "c0"
                else unit_of_coefficient(power, units).printed,
            }
            for power, (name, value, error) in enumerate(
                zip(fit.names, fit.coefficients.tolist(), fit.errors.tolist(), strict=True)
            )
        ],
        "r_squared": _digits(fit.r_squared), "residual_sd": _digits(fit.residual_sd, 4),
        "freedom": fit.freedom, "text": fit.text, "note": fit.note,
        "line": line_of_fit(fit, units),
        "form": form_of_fit(fit), "residuals": _residuals(fit),
        "predicted": predicted,
    }  # fmt: skip


def _digits(value: float, digits: int = 8) -> str:
    return f"{value:.{digits}g}".replace("-", "−") if math.isfinite(value) else "—"


def _residuals(fit: Fit) -> list[list[float]]:
    step = max(len(fit.x) // _MOST_RESIDUALS, 1)
    pairs = np.column_stack([fit.x, fit.residuals])[::step]
    return [[float(x), float(y)] for x, y in pairs.tolist()]


def _predicted(fit: Fit, prediction: Prediction) -> str:
    """Predict y for an x, or x for a y, in words."""
    if prediction.value is None:
        return ""
    if prediction.of == "x":
        made = fit.predict(prediction.value)
        outside = " It is predicted outside the data." if made.is_outside else ""
        return (
            f"{_digits(made.value, 6)}; with 95 % likelihood from {_digits(made.low, 6)} to "
            f"{_digits(made.high, 6)}.{outside}"
        )
    predictions = fit.solutions_of(prediction.value)
    if not predictions:
        return "Within the data the curve does not have this value."
    parts = [
        f"{_digits(p.value, 6)}; with 95 % likelihood from {_digits(p.low, 6)} to "
        f"{_digits(p.high, 6)}"
        for p in predictions
    ]
    return ", or ".join(parts) + "."


def read_data(_job: Job, query: ReadDataQuery) -> dict[str, Any]:
    """Read a text as columns, for the page to show before they are taken.

    Raises:
        DataError: there is nothing in it, or too much.
    """
    text = query.text
    if len(text) > _MOST_TEXT:
        raise DataError(f"The text has {len(text):,} characters; {_MOST_TEXT:,} can be read.")
    options = {name: getattr(query, name) for name in _OPTIONS if getattr(query, name)}
    columns = read_columns(text.replace("\0", ""), has_header=query.header, **options)
    return {
        "separator": columns.separator, "decimal": columns.decimal, "header": columns.has_header,
        "columns": [
            {"name": c.name, "unit": c.unit, "cells": [_text(cell) for cell in c.cells]}
            for c in columns.columns
        ],
        "bad": [asdict(cell) for cell in columns.bad[:_SHOWN_BAD]],
        "bad_count": columns.bad_count,
    }  # fmt: skip


def read_workbook(_job: Job, query: ReadWorkbookQuery) -> dict[str, Any]:
    """Return a sheet of a workbook as a text that ``read_data`` reads.

    Raises:
        DataError: it is no workbook, or too large, or has no such sheet.
    """
    sheet = workbook.read_sheet(query.content, query.sheet)
    return {"text": sheet.text, "sheet": sheet.name, "sheets": list(sheet.names)}
