"""Lists and matrices as tables, a part at a time, and as CSV."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.bench.answer import FileAnswer
from axis_path.bench.errors import RequestError
from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import (
    WorkCellsQuery,
)
from axis_path.bench.working.lines import stored
from axis_path.core import Study
from axis_path.core.compile.results import Results
from axis_path.core.deadline import calculation
from axis_path.core.evaluate import ResultKind
from axis_path.core.features.entries.written import written_entries
from axis_path.core.features.working.queries import WorkingResults
from axis_path.core.language.tree import Index, Name, Node, Number, Part

_MOST_CELLS = 20


def work_cells(job: Job, query: WorkCellsQuery) -> dict[str, Any]:
    """Return a part of a list or a matrix: of a line of Working, or of a name of the study."""
    request = realise(job, query)
    results = request.study.snapshot.query(WorkingResults)
    node, owner = _subject(results, request.study, query)
    computed = results.among.query(Results)
    with calculation():
        whole = computed.of_node(node, owner)
        if whole.kind not in (ResultKind.LIST, ResultKind.MATRIX):
            raise RequestError
        shape = list(whole.value.shape)
        spans = [
            (start, min(start + _MOST_CELLS, side))
            for start, side in zip((query.row, query.column), shape, strict=False)
        ]
        part = computed.of_node(_part(node, spans), owner)
        texts = [entry.decimal(query.digits) or "undefined" for entry in part.parts]
        exact = [entry.exact or "" for entry in part.parts]
    width = spans[1][1] - spans[1][0] if len(spans) > 1 else 1
    return {
        "version": request.version,
        "shape": shape,
        "row": spans[0][0],
        "column": spans[1][0] if len(spans) > 1 else 0,
        "cells": [texts[k : k + width] for k in range(0, len(texts), width)],
        "exact": [exact[k : k + width] for k in range(0, len(exact), width)],
        "typed": _typed(results, request.study, query, spans),
    }


def _typed(
    results: WorkingResults, study: Study, query: WorkCellsQuery, spans: list[tuple[int, int]]
) -> list[list[str]]:
    """Return the entries as they are written in their line; nothing if they are computed."""
    if query.name:
        text = study.snapshot.line_of(query.name).text
    elif query.id is not None:
        text = stored(study, query.id).text
    else:
        raise RequestError
    written = written_entries(text, results.among.analysis.names())
    if written is None:
        return []
    rows, columns = spans[0], spans[1] if len(spans) > 1 else (0, 1)
    return [list(row[slice(*columns)]) for row in written.cells[slice(*rows)]]


def _subject(results: WorkingResults, study: Study, query: WorkCellsQuery) -> tuple[Node, str]:
    """Return the expression that is asked about, and by what its random numbers are drawn."""
    if query.name:
        return Name(query.name), query.name
    if query.id is None:
        raise RequestError
    value = results.read(stored(study, query.id))
    node = Name(value.name) if value.name is not None else value.node
    if node is None:
        raise RequestError
    return node, value.name or f"working {query.id}"


def _part(node: Node, spans: list[tuple[int, int]]) -> Node:
    """Return the tree of a part; rows and columns count from 0, the last is left out."""
    return Index(
        node,
        tuple(Part(Number(Fraction(low + 1)), Number(Fraction(high))) for low, high in spans),
    )


def work_csv(job: Job, query: WorkCellsQuery) -> FileAnswer:
    """Return all entries of a list or a matrix as CSV, with 15 digits."""
    request = realise(job, query)
    results = request.study.snapshot.query(WorkingResults)
    node, owner = _subject(results, request.study, query)
    with calculation():
        whole = results.among.query(Results).of_node(node, owner)
    if whole.kind not in (ResultKind.LIST, ResultKind.MATRIX):
        raise RequestError
    values = np.atleast_2d(np.asarray(whole.value))
    rows = values.T if whole.kind is ResultKind.LIST and values.shape[0] == 1 else values
    return FileAnswer(_csv(rows), "text/csv")


def _csv(rows: NDArray[Any]) -> Iterator[bytes]:
    for row in rows:
        yield (",".join(map(_cell, row)) + "\r\n").encode()


def _cell(value: Any) -> str:  # noqa: ANN401 - a number of NumPy
    if np.isnan(value):
        return ""
    number = complex(value)
    if number.imag:
        return f"{number.real:.15g}{number.imag:+.15g}i"
    return f"{number.real:.15g}"
