"""The table of values as plain data, row by row as it is looked at, as CSV and as a workbook."""

from __future__ import annotations

import csv
import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from io import StringIO
from typing import Any, BinaryIO

import numpy as np
import xlsxwriter
from numpy.typing import NDArray

from axis_path.bench import messages
from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import ExactCellsQuery, TableQuery
from axis_path.bench.results import exact_or_note
from axis_path.core import Study
from axis_path.core.compile.results import Results
from axis_path.core.deadline import calculation
from axis_path.core.errors import LimitError, MathError
from axis_path.core.evaluate import RealFunction
from axis_path.core.features.axes.section import AxesSpec
from axis_path.core.features.tables.queries import BrokenColumn, Tables
from axis_path.core.kinds.states import States
from axis_path.core.limits import EXACT_CELLS, SHEET_ROWS
from axis_path.core.tabulate import (
    Abscissae,
    Cells,
    Head,
    Series,
    TableSpec,
    happenings,
    make_table,
)

Cell = float | str
_MOST_ROWS = 200
#: Of a place that is sought so many rows before it are shown too.
_ROWS_BEFORE = 4
#: A finer table has so many rows.
_FINER_ROWS = 11
_LONGEST_EXACT = 12
#: So many rows are computed at once for a file.
_ROWS_OF_FILE = 4_000


def table(job: Job, query: TableQuery) -> dict[str, Any]:
    """Return some rows of the table, every digit right."""
    request = realise(job, query)
    return {"version": request.version, "table": _requested_rows(request.study, query)}


def _requested_rows(study: Study, query: TableQuery) -> dict[str, Any]:
    spec = _spec(study, query)
    shown = study.snapshot.query(States).functions()
    nothing: dict[str, Any] = {"columns": [], "rows": [], "count": 0, "from": 0}
    try:
        heads = study.snapshot.query(Tables).table_heads(spec, shown)
        nothing["columns"] = [_head_dict(head) for head in heads]
        nothing["variable_unit"] = study.snapshot.query(Tables).unit_of_rows(spec).printed
        nothing["variable"] = study.snapshot.query(Tables).table_variable(spec, shown)
        abscissae = study.snapshot.query(Tables).table_abscissae(spec)
    except MathError as err:
        return nothing | {"problem": err.message}
    sought = _row_before(abscissae, query.around)
    first = query.from_ if sought is None else sought
    size = _MOST_ROWS if query.rows is None else min(max(query.rows, 1), _MOST_ROWS)
    # About a place as many rows are given as there is room for, else those from a row on.
    last = abscissae.count - (1 if sought is None else size)
    start = min(max(first or 0, 0), max(last, 0))
    stop = min(start + size, abscissae.count)
    try:
        with calculation():
            rows = _rows(heads, abscissae, start, stop)
    except MathError as err:
        return nothing | {"problem": err.message}
    return nothing | {"problem": None, "rows": rows, "count": abscissae.count, "from": start}


def _head_dict(head: Head | BrokenColumn) -> dict[str, Any]:
    if isinstance(head, BrokenColumn):
        return {"name": head.text, "text": head.text, "own": head.own, "problem": head.problem}
    return {
        "name": head.name, "text": head.text, "own": head.own, "tone": head.tone, "problem": "",
        "series": head.series.value, "digits": head.digits, "form": head.form.value,
        "unit": head.function.units.y.printed,
    }  # fmt: skip


def exact_cells(job: Job, query: ExactCellsQuery) -> dict[str, Any]:
    """Return the exact values in one row, of the columns that have values with an exact form.

    Where there was no time to look for one, a note says so.

    Raises:
        MathError: the table cannot be made, or the place has no value.
    """
    request = realise(job, query)
    study, spec, abscissa = request.study, _spec(request.study, query), query.abscissa
    cells, note = [], ""
    for head in study.snapshot.query(Tables).table_heads(
        spec, study.snapshot.query(States).functions()
    ):
        if isinstance(head, Head) and head.series is Series.VALUE:
            cell = study.snapshot.query(Tables).exact_cell(head, abscissa)
            exact, missing = exact_or_note(cell)
            note = note or missing
            if exact is not None:
                cells.append(
                    {
                        "name": head.name,
                        "text": exact,
                        "mathml": study.snapshot.query(Results).typeset(exact),
                    }
                )
    return {"version": request.version, "cells": cells, "note": note}


def _spec(study: Study, query: TableQuery | ExactCellsQuery) -> TableSpec:
    """Return what the table is made from: what is stored, or what a finer look is at."""
    stored = study.snapshot.section(TableSpec)
    if query.finer is None:
        return stored
    start, stop = query.finer
    return replace(stored, start=start, stop=stop, count=str(_FINER_ROWS), listed="")


def _row_before(abscissae: Abscissae, x: float | None) -> int | None:
    """Return some rows before the one that stands before a place; None without a place."""
    if x is None or abscissae.count < 2:
        return None
    return max(abscissae.row_before(x) - _ROWS_BEFORE, 0)


def _rows(
    heads: Sequence[Head | BrokenColumn], abscissae: Abscissae, start: int, stop: int
) -> list[dict[str, Any]]:
    part = make_table(_valued(heads), abscissae.part(start, stop))
    columns = [
        None
        if isinstance(head, BrokenColumn)
        else (Cells(head, abscissae), part.columns.get(str(k)))
        for k, head in enumerate(heads)
    ]
    named = {
        head.name: part.columns[str(k)]
        for k, head in enumerate(heads)
        if isinstance(head, Head) and str(k) in part.columns
    }
    said: dict[int, list[dict[str, Any]]] = {row: [] for row in range(start, stop)}
    functions = {head.name for head in heads if isinstance(head, Head) and head.tone is not None}
    for event in happenings(named, functions):
        happening = {
            "sentence": event.sentence,
            "what": event.what.value,
            "last": start + event.last,
        }
        said[start + event.row].append(happening)
    return [
        {
            "row": row,
            "x": _abscissa_text(abscissae, row),
            # As it is typed to begin a finer table here.
            "typed": _typed(abscissae, row, float(part.x[row - start])),
            "value": float(part.x[row - start]),
            "cells": [_cell(column, row, row - start) for column in columns],
            "happenings": said[row],
        }
        for row in range(start, stop)
    ]


def _valued(heads: Sequence[Head | BrokenColumn]) -> dict[str, RealFunction]:
    """Return the functions whose values are wanted, by the numbers of their columns."""
    return {
        str(k): head.function
        for k, head in enumerate(heads)
        if isinstance(head, Head) and head.series is Series.VALUE
    }


def _abscissa_text(abscissae: Abscissae, row: int) -> str:
    """Write a place exactly if that is short (π/6 stays π/6), else with its digits."""
    exact = abscissae.exact_text(row)
    text = abscissae.text(row, 10)
    if exact is None or len(exact) > _LONGEST_EXACT or ("/" in exact and "π" not in exact):
        return text if exact is not None else abscissae.text(row, 6)
    return exact


def _typed(abscissae: Abscissae, row: int, value: float) -> str:
    exact = abscissae.exact_text(row)
    return repr(value) if exact is None else exact


def _cell(
    column: tuple[Cells, NDArray[np.float64] | None] | None, row: int, at: int
) -> dict[str, str]:
    if column is None:
        return {"text": "", "reason": ""}
    cells, known = column
    text = cells.text(row, None if known is None else float(known[at]))
    return {"text": text, "reason": "" if text else cells.reason(row)}


def table_rows(
    study: Study, *, with_units: bool = False, with_exact: bool = False
) -> Iterator[list[list[Cell]]]:
    """Return the whole table in blocks of rows, the head as a block of its own.

    Args:
        study: whose table.
        with_units: whether the names of the axes, and the unit of a slider, stand in the head.
        with_exact: whether the exact forms of values stand beside them.

    Raises:
        MathError: the table cannot be made, or is too long for exact forms.
    """
    spec, shown = study.snapshot.section(TableSpec), study.snapshot.query(States).functions()
    abscissae = study.snapshot.query(Tables).table_abscissae(spec)
    heads = [
        head
        for head in study.snapshot.query(Tables).table_heads(spec, shown)
        if isinstance(head, Head)
    ]
    exact = [head for head in heads if with_exact and head.series is Series.VALUE]
    if abscissae.count * len(exact) > EXACT_CELLS.value:
        raise LimitError(
            messages.EXACT_FORMS_WRITTEN_UP(
                most=EXACT_CELLS.value, count=abscissae.count * len(exact)
            )
        )
    variable = study.snapshot.query(Tables).table_variable(spec, shown)
    units = _units(study, spec) if with_units else ("", "")
    yield [[
        _with_unit(variable + units[0], study.snapshot.query(Tables).unit_of_rows(spec).printed),
        *(
            _with_unit(
                head.name + (units[1] if head.tone is not None else ""),
                head.function.units.y.printed,
            )
            for head in heads
        ),
        *(f"{name} exact" for name in ([variable] if with_exact else [])),
        *(f"{head.name} exact" for head in exact),
    ]]  # fmt: skip
    cells = [Cells(head, abscissae) for head in heads]
    for start in range(0, abscissae.count, _ROWS_OF_FILE):
        stop = min(start + _ROWS_OF_FILE, abscissae.count)
        part = make_table(_valued(heads), abscissae.part(start, stop), whole=abscissae.count)
        columns: list[list[Any]] = [part.x.tolist()]
        for k, column in enumerate(cells):
            known = part.columns.get(str(k))
            columns.append(
                [column.number(row) for row in range(start, stop)]
                if known is None
                else known.tolist()
            )
        if with_exact:
            typed = [_typed(abscissae, start + k, x) for k, x in enumerate(columns[0])]
            columns.append([text.replace("−", "-") for text in typed])
            columns += [[_exact(study, head, abscissa) for abscissa in typed] for head in exact]
        yield list(map(list, zip(*columns, strict=True)))


def _with_unit(name: str, unit: str) -> str:
    return f"{name} in {unit}" if unit else name


def _units(study: Study, spec: TableSpec) -> tuple[str, str]:
    """Return what the names of the axes say of the places and of the values, in brackets."""
    abscissa_name = study.snapshot.section(AxesSpec).x.name
    if spec.over:
        slider = next(
            (e.slider for e in study.snapshot.lines if e.moving and e.moving[0] == spec.over), None
        )
        abscissa_name = slider.unit if slider is not None else ""
    names = (abscissa_name, study.snapshot.section(AxesSpec).y.name)
    across, up = (f" ({name})" if name else "" for name in names)
    return across, up


def _exact(study: Study, head: Head, abscissa: str) -> str:
    try:
        return study.snapshot.query(Tables).exact_cell(head, abscissa).exact or ""
    except MathError:
        return ""


def csv_blocks(blocks: Iterable[list[list[Cell]]]) -> Iterator[str]:
    """Write blocks of rows as CSV after RFC 4180, with the digits that floats have."""
    for rows in blocks:
        text = StringIO()
        csv.writer(text).writerows([list(map(_shown, row)) for row in rows])
        yield text.getvalue()


def _shown(cell: Cell) -> str:
    if isinstance(cell, str):
        return cell
    return "" if math.isnan(cell) else f"{cell:.15g}"


def workbook(blocks: Iterable[list[list[Cell]]], to: BinaryIO) -> None:
    """Write blocks of rows as a workbook (Office Open XML), row by row.

    Raises:
        LimitError: there are more rows than a sheet has.
    """
    book = xlsxwriter.Workbook(to, {"constant_memory": True, "strings_to_formulas": False})
    sheet = book.add_worksheet("Values")
    bold = book.add_format({"bold": True})
    row = 0
    for block in blocks:
        for cells in block:
            if row >= SHEET_ROWS.value:
                raise LimitError(messages.SHEET_HAS_MOST_ROWS(most=SHEET_ROWS.value))
            for k, cell in enumerate(cells):
                if not isinstance(cell, float):
                    sheet.write_string(row, k, cell, None if row else bold)
                elif math.isfinite(cell):
                    sheet.write_number(row, k, cell)
            row += 1
    sheet.freeze_panes(1, 1)
    book.close()
