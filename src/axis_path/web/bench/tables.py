"""The table of values as plain data, row by row as it is looked at, and as CSV."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import Any

from axis_path.core import Study, ValueTable
from axis_path.core.errors import MathError
from axis_path.core.evaluate import RealFunction
from axis_path.core.patience import calculation
from axis_path.core.tabulate import (
    Places,
    TableSpec,
    digits_needed,
    happenings,
    make_table,
    written,
)
from axis_path.web.bench.request import BenchRequest

_MOST_ROWS = 200
#: Of a place that is sought so many rows before it are shown too.
_ROWS_BEFORE = 4
#: A finer table has so many rows.
_FINER_ROWS = 11
_LONGEST_EXACT = 12
#: So many rows are computed at once for a file.
_ROWS_OF_FILE = 4_000


def table_dict(asked: BenchRequest) -> dict[str, Any]:
    """Give some rows of the table of all shown functions, every digit right."""
    study, spec = asked.study, _spec(asked)
    shown = study.functions()
    functions = {d.name or "": f for d, f in shown}
    columns = [{"name": d.name, "variable": d.variable, "tone": d.tone} for d, _ in shown]
    nothing: dict[str, Any] = {"columns": columns, "rows": [], "count": 0, "from": 0}
    try:
        places = study.table_places(spec)
    except MathError as err:
        return nothing | {"problem": err.message}
    first = _row_before(places, asked.given.get("around"))
    first = asked.given.get("from") if first is None else first
    start = min(max(first if isinstance(first, int) else 0, 0), max(places.count - 1, 0))
    stop = min(start + _MOST_ROWS, places.count)
    try:
        with calculation():
            table = make_table(functions, places.part(start, stop))
            rows = _rows(table, functions, start, spec)
    except MathError as err:
        return nothing | {"problem": err.message}
    for each in happenings(table.columns):
        said = {"sentence": each.sentence, "what": each.what.value, "last": start + each.last}
        rows[each.row]["happenings"].append(said)
    return {
        "problem": None, "columns": columns, "rows": rows, "count": places.count, "from": start,
    }  # fmt: skip


def _spec(asked: BenchRequest) -> TableSpec:
    """Give what the table is made from: what is kept, or what a finer look is at."""
    finer = asked.given.get("finer")
    kept: TableSpec = asked.study.table
    if not isinstance(finer, list) or len(finer) != 2 or not all(isinstance(e, str) for e in finer):
        return kept
    return replace(kept, start=finer[0], stop=finer[1], count=str(_FINER_ROWS), listed="")


def _row_before(places: Places, x: object) -> int | None:
    """Give some rows before the one that stands before a place; None without a place."""
    if not isinstance(x, int | float) or isinstance(x, bool) or places.count < 2:
        return None
    first, second = make_table({}, places.part(0, 2)).x
    row = math.floor((x - first) / (second - first)) if math.isfinite(x) and second != first else 0
    return max(row - _ROWS_BEFORE, 0)


def _rows(
    part: ValueTable, names: Iterable[str], start: int, spec: TableSpec
) -> list[dict[str, Any]]:
    return [
        {
            "row": start + row,
            "x": _place(part, row),
            # As it is typed to begin a finer table here.
            "typed": _typed(part, row),
            "value": float(part.x[row]),
            "cells": [_cell(part, name, row, spec) for name in names],
            "happenings": [],
        }
        for row in range(len(part.x))
    ]


def _place(part: ValueTable, row: int) -> str:
    """Write a place exactly if that is short (π/6 stays π/6), else with its digits."""
    exact = part.exact_x(row)
    text = part.x_text(row, 10)
    if exact is None or len(exact) > _LONGEST_EXACT or ("/" in exact and "π" not in exact):
        return text if exact is not None else part.x_text(row, 6)
    return exact


def _typed(part: ValueTable, row: int) -> str:
    exact = part.exact_x(row)
    return repr(float(part.x[row])) if exact is None else exact


def _cell(table: ValueTable, name: str, row: int, spec: TableSpec) -> dict[str, str]:
    value = float(table.columns[name][row])
    digits = digits_needed(value if math.isfinite(value) else 0.0, spec.digits, spec.form)
    if not digits:
        return {"text": written("0", 0.0, spec.digits, spec.form), "reason": ""}
    text = written(table.text(name, row, digits), value, spec.digits, spec.form)
    return {"text": text, "reason": "" if text else table.reason(name, row)}


def table_lines(study: Study) -> Iterator[str]:
    """Give the whole table as CSV after RFC 4180, line by line, with the digits that floats have.

    Raises:
        MathError: the table cannot be made.
    """
    places = study.table_places(study.table)
    shown = study.functions()
    functions: dict[str, RealFunction] = {d.name or "": f for d, f in shown}
    variable = shown[0][0].variable or "x" if shown else "x"
    yield ",".join([variable, *functions]) + "\r\n"
    for start in range(0, places.count, _ROWS_OF_FILE):
        part = make_table(functions, places.part(start, min(start + _ROWS_OF_FILE, places.count)))
        columns = [part.x.tolist(), *(part.columns[name].tolist() for name in functions)]
        yield "".join(
            ",".join("" if math.isnan(value) else f"{value:.15g}" for value in row) + "\r\n"
            for row in zip(*columns, strict=True)
        )
