"""Small graphs of lines of Working."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.bench.job import Job
from axis_path.bench.request import realise
from axis_path.bench.requests import (
    WorkSketchQuery,
)
from axis_path.bench.working.lines import stored
from axis_path.core import Window
from axis_path.core.deadline import calculation
from axis_path.core.draw.pixels import tenths_across, tenths_down
from axis_path.core.features.working.queries import WorkingResults
from axis_path.core.features.working.sketch import curve_sketch, entries_sketch


def work_sketch(job: Job, query: WorkSketchQuery) -> dict[str, Any]:
    """Return a small graph of a line of Working: curves in tenths of a pixel, bars or cells."""
    request = realise(job, query)
    results = request.study.snapshot.query(WorkingResults)
    value = results.read(stored(request.study, query.id))
    width, height = query.size
    with calculation():
        if value.variables and value.problem is None:
            sketch = curve_sketch(results, value, width, height)
        else:
            sketch = entries_sketch(results.result(value), width, height)
    curve, window = sketch.curve, sketch.window
    pieces = [] if curve is None else [_tenths(piece, window) for piece in curve.pieces]
    bands = [] if curve is None else [_band(band, window) for band in curve.bands]
    zero_x, zero_y = (float(_tenths(np.array([[0.0, 0.0]]), window)[k]) for k in (0, 1))
    return {
        "version": request.version,
        "kind": "curve" if curve is not None else "bars" if sketch.bars is not None else "cells",
        "x": list(window.x), "y": list(window.y), "origin": [zero_x, zero_y],
        "pieces": pieces, "bands": bands,
        "bars": _numbers(sketch.bars), "cells": _rows(sketch.cells), "is_cut": sketch.is_cut,
    }  # fmt: skip


def _tenths(points: NDArray[np.float64], window: Window) -> list[int]:
    made = np.column_stack([tenths_across(points[:, 0], window), tenths_down(points[:, 1], window)])
    flat: list[int] = made.ravel().tolist()
    return flat


def _band(band: NDArray[np.float64], window: Window) -> list[int]:
    """Return a band as a polygon: along its upper side and back along its lower one."""
    upper, lower = band[:, [0, 2]], band[::-1, [0, 1]]
    return _tenths(np.concatenate([upper, lower]), window)


def _numbers(values: NDArray[np.float64] | None) -> list[float | None]:
    if values is None:
        return []
    return [None if np.isnan(value) else float(value) for value in values]


def _rows(cells: NDArray[np.float64] | None) -> list[list[float | None]]:
    return [] if cells is None else [_numbers(row) for row in cells]
