"""What Working is answered: its lines, results, tables, sketches and row reductions."""

from __future__ import annotations

from typing import Literal, TypedDict

from axis_path.core.evaluate import ResultKind
from axis_path.core.evaluate.number_forms import NumberShape
from axis_path.core.features.working.queries import WorkKind
from axis_path.core.features.working.section import ComplexShape
from axis_path.core.scene.row_types import NotePart, Problem
from axis_path.core.scene.types import UnitChoice


class WorkResult(TypedDict):
    """A result of Working: what stands large, what stands beside it, and what can be chosen.

    Of a list or a matrix that is too long for a text, ``corner`` holds the first rows.
    """

    kind: ResultKind
    large: str
    beside: str
    length: int
    is_equal: bool
    mathml: str
    latex: str
    shapes: list[NumberShape]
    complex_shapes: list[ComplexShape]
    units: UnitChoice | None
    shape: list[int]
    corner: list[list[str]]
    reason: str
    note: str


class WorkingLine(TypedDict):
    """A line of Working with its result, or why there is none."""

    id: int
    text: str
    kind: WorkKind
    name: str | None
    mathml: str
    latex: str
    variables: list[str]
    shape: NumberShape
    complex_shape: ComplexShape
    digits: int
    problem: Problem | None
    result: WorkResult | None
    is_waiting: bool
    words: list[NotePart]


class WorkingAnswer(TypedDict):
    """All lines of Working."""

    version: int
    working: list[WorkingLine]


class WorkTextAnswer(TypedDict):
    """All of a long result."""

    version: int
    text: str


class WorkSketchAnswer(TypedDict):
    """A small graph: x and y are its window, positions are in tenths of a pixel."""

    version: int
    kind: Literal["curve", "bars", "cells"]
    x: list[float]
    y: list[float]
    origin: list[float]
    pieces: list[list[int]]
    bands: list[list[int]]
    bars: list[float | None]
    cells: list[list[float | None]]
    is_cut: bool


class WorkCellsAnswer(TypedDict):
    """A part of a list or a matrix: its first row and column from 0, and its cells.

    What is typed is empty if the entries are computed.
    """

    version: int
    shape: list[int]
    row: int
    column: int
    cells: list[list[str]]
    exact: list[list[str]]
    typed: list[list[str]]


class ReductionStep(TypedDict):
    """A row operation with the matrix after it; pivots are [row, column] from 0."""

    operation: str
    rows: list[list[str]]
    pivots: list[list[int]]


class OwnReductionStep(TypedDict):
    """An operation that the student chose, with what it led to."""

    operation: str
    rows: list[list[str]]
    sentence: str
    is_done: bool
    is_nearer: bool


class ReductionAnswer(TypedDict):
    """A row reduction with its steps, and what it says."""

    version: int
    unknowns: list[str]
    start: list[list[str]]
    steps: list[ReductionStep]
    rank: int
    pivots: list[int]
    own: list[OwnReductionStep]
    own_problem: Problem | None
    sentence: str
    solution: list[str]
