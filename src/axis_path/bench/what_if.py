"""The what-if table as plain data, as curves, and as CSV."""

from __future__ import annotations

import csv
from collections.abc import Iterable, Iterator
from io import StringIO
from typing import Any

from axis_path.bench.answer import FileAnswer
from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import StateQuery, WhatIfQuery
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.deadline import calculation
from axis_path.core.errors import MathError
from axis_path.core.evaluate import Result
from axis_path.core.features.what_if.drawing import what_if_curves, where_drawn
from axis_path.core.features.what_if.queries import WhatIf, WhatIfTable
from axis_path.core.features.what_if.section import WhatIfSpec
from axis_path.core.features.what_if.varied import given_in_set
from axis_path.core.language import GREEK
from axis_path.core.lines.meaning import Kind
from axis_path.core.tabulate import TableSpec

#: So many rows are shown at once.
_MOST_ROWS = 100
_DIGITS_OF_FILE = 15


def what_if(job: Job, query: WhatIfQuery) -> dict[str, Any]:
    """Return the what-if table: some of its rows, and where there is no value."""
    request = realise(job, query)
    snapshot = request.study.snapshot
    spec = snapshot.section(WhatIfSpec)
    answer: dict[str, Any] = {
        "version": request.version,
        "names": _names(snapshot),
        "given": [],
        "unit": "",
        "columns": [],
        "rows": [],
        "count": 0,
        "from": 0,
        "missing": [],
        "drawn": [],
        "problem": "",
    }
    if not spec.name:
        return answer
    try:
        with calculation():
            answer["given"] = _shown(given_in_set(snapshot, spec.name))
            table = snapshot.query(WhatIf).table()
            digits = snapshot.section(TableSpec).digits
            first = min(max(query.from_, 0), max(table.rows.count - 1, 0))
            last = min(first + _MOST_ROWS, table.rows.count)
            answer |= {
                "unit": table.unit.printed,
                "columns": [
                    {
                        "text": one.text,
                        "label": one.label,
                        "unit": one.unit.printed,
                        "problem": one.problem,
                    }
                    for one in table.columns
                ],
                "rows": [_row(table, row, digits) for row in range(first, last)],
                "count": table.rows.count,
                "from": first,
                "missing": table.missing(),
                "drawn": where_drawn(snapshot, table) if spec.is_drawn else [],
            }
    except MathError as err:
        answer["problem"] = err.message
    return answer


def _names(snapshot: Snapshot) -> list[dict[str, str]]:
    """Return the names that can be varied, as they are shown."""
    names: list[str] = []
    for definition in snapshot.definitions():
        if definition.problem is not None or definition.disabled:
            continue
        if definition.kind is Kind.PARAMETER and definition.name:
            names.append(definition.name)
        names += definition.defines
    return _shown(dict.fromkeys(names))


def _shown(names: Iterable[str]) -> list[dict[str, str]]:
    return [{"name": name, "text": GREEK.get(name, name)} for name in names]


def _row(table: WhatIfTable, row: int, digits: int) -> dict[str, Any]:
    return {
        "row": row,
        "value": table.rows.text(row, 10),
        "cells": [_cell(cell, digits) for cell in table.cells(row)],
    }


def _cell(cell: Result | MathError, digits: int) -> dict[str, str]:
    if isinstance(cell, MathError):
        return {"text": "", "reason": cell.message}
    return {"text": (cell if cell.number is None else cell.number).decimal(digits), "reason": ""}


def what_if_curves_now(job: Job, query: StateQuery) -> dict[str, Any]:
    """Return the columns as curves for which equations are solved; the scene has the others."""
    request = realise(job, query)
    curves = what_if_curves(request.study.snapshot, request.window, are_solved=True)
    return {"version": request.version, "curves": curves}


def what_if_csv(job: Job, query: StateQuery) -> FileAnswer:
    """Return the whole what-if table as CSV after RFC 4180, with 15 digits."""
    request = realise(job, query)
    with calculation():
        table = request.study.snapshot.query(WhatIf).table()
        rows = [[_cell(cell, _DIGITS_OF_FILE)["text"] for cell in table.cells(row)]
                for row in range(table.rows.count)]  # fmt: skip
    head = [
        _headed(table.name, table.unit.printed),
        *(_headed(column.label, column.unit.printed) for column in table.columns),
    ]
    values = [table.rows.text(row, _DIGITS_OF_FILE) for row in range(table.rows.count)]
    return FileAnswer(
        _csv([head, *([a, *b] for a, b in zip(values, rows, strict=True))]), "text/csv"
    )


def _headed(name: str, unit: str) -> str:
    return f"{name} in {unit}" if unit else name


def _csv(rows: list[list[str]]) -> Iterator[bytes]:
    for row in rows:
        text = StringIO()
        csv.writer(text).writerow([cell.replace("−", "-").replace("·10^", "e") for cell in row])
        yield text.getvalue().encode()
