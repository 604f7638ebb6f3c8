"""What the side panel and the row being written show, as plain data."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from axis_path.core import Findings, Study, ValueTable
from axis_path.core.draw import HOME_X
from axis_path.core.errors import MathError
from axis_path.core.patience import calculation
from axis_path.core.study import Ask, end_text, problem_dict
from axis_path.core.tabulate import make_table
from axis_path.web.bench.request import BenchRequest

_MOST_ROWS = 200
_CELL_DIGITS = 6


def preview_dict(asked: BenchRequest) -> dict[str, Any]:
    """Give how a text would be read in the place of a line, or as a new line."""
    text, line_id = str(asked.given.get("text", "")), asked.given.get("id")
    study = asked.study
    number = line_id if isinstance(line_id, int) else study.next_id()
    study.write(number, " ".join(text.split()))
    made = study.definition(number)
    return {
        "text": text,
        "kind": made.kind.value,
        "name": made.name,
        "mathml": made.mathml,
        "domain": made.domain_mathml,
        "latex": made.latex,
        "problem": None if made.problem is None else problem_dict(made.problem),
    }


def findings_dict(study: Study) -> list[dict[str, Any]]:
    """Give every kept search with what it finds now."""
    return [_ask_dict(study, ask) for ask in study.asks]


def _ask_dict(study: Study, ask: Ask) -> dict[str, Any]:
    definition = next((d for d in study.definitions() if d.id == ask.line), None)
    name = definition.name if definition is not None and definition.name else "?"
    variable = (definition.variable if definition is not None else None) or "x"
    shown: dict[str, Any] = {"id": ask.id, "line": ask.line, "name": name, "variable": variable}
    if definition is not None and definition.aside:
        return shown | {"problem": f"{name} is set aside.", "items": [], "where": ""}
    try:
        with calculation():
            found = study.zeros(name, ask.low, ask.high)
    except MathError as err:
        return shown | {"problem": err.message, "items": [], "where": ""}
    return shown | {
        "problem": None,
        "where": _where(ask, variable, study, name),
        "verdict": _verdict(found),
        "complete": found.complete,
        "note": found.note,
        "items": [
            {
                "text": item.exact or item.text,
                "decimal": item.text if item.exact and item.exact != item.text else "",
                "x": item.x,
                "proved": item.proved,
                "note": item.note,
            }
            for item in found
        ],
    }


def _where(ask: Ask, variable: str, study: Study, name: str) -> str:
    """Say where was searched, as it was typed or as the domain stands now."""
    function = study.function(name)
    low = ask.low or (end_text(function.low) if function.low else f"{HOME_X[0]:g}")
    high = ask.high or (end_text(function.high) if function.high else f"{HOME_X[1]:g}")
    return f"{low} ≤ {variable} ≤ {high}".replace("-", "−")


def _verdict(found: Findings) -> str:
    count = len(found)
    words = ("no zero", "exactly one zero", "exactly two zeros")[count] if count < 3 else (
        f"exactly {count} zeros"
    )  # fmt: skip
    if found.complete:
        return f"Proved: {words}"
    proved = sum(item.proved for item in found)
    return f"Not complete: {count} found, {proved} of them proved"


def table_dict(asked: BenchRequest) -> dict[str, Any]:
    """Give some rows of the table of all shown functions, every digit right."""
    study, spec = asked.study, asked.study.table
    shown = study.functions()
    functions = {d.name or "": f for d, f in shown}
    columns = [{"name": d.name, "variable": d.variable, "tone": d.tone} for d, _ in shown]
    try:
        places = study.places(spec.start, spec.stop, spec.step)
    except MathError as err:
        return {"problem": err.message, "columns": columns, "rows": [], "count": 0, "from": 0}
    first = asked.given.get("from")
    start = min(max(first if isinstance(first, int) else 0, 0), max(places.count - 1, 0))
    stop = min(start + _MOST_ROWS, places.count)
    try:
        with calculation():
            rows = _rows(make_table(functions, places.part(start, stop)), functions, start)
    except MathError as err:
        return {"problem": err.message, "columns": columns, "rows": [], "count": 0, "from": 0}
    return {
        "problem": None, "columns": columns, "rows": rows, "count": places.count, "from": start,
    }  # fmt: skip


def _rows(part: ValueTable, names: Iterable[str], start: int) -> list[dict[str, Any]]:
    return [
        {
            "row": start + row,
            "x": part.x_text(row, _CELL_DIGITS),
            "value": float(part.x[row]),
            "cells": [_cell(part, name, row) for name in names],
        }
        for row in range(len(part.x))
    ]


def _cell(table: ValueTable, name: str, row: int) -> dict[str, str]:
    text = table.text(name, row, _CELL_DIGITS)
    return {"text": text, "reason": "" if text else table.reason(name, row)}
