"""What the side panels are answered: tables, data, values, sweeps."""

from __future__ import annotations

from typing import NotRequired, TypedDict

from axis_path.core.document.data import Plot
from axis_path.core.evaluate import ResultKind
from axis_path.core.locate.search_request import Search
from axis_path.core.tabulate import NumberForm, Series

Points = list[tuple[float, float]]


class TableHead(TypedDict):
    """A column of the table; a problem says why it has no values."""

    name: str
    text: str
    own: int | None
    problem: str
    tone: NotRequired[int | None]
    series: NotRequired[Series]
    digits: NotRequired[int]
    form: NotRequired[NumberForm]
    unit: NotRequired[str]


class TableCell(TypedDict):
    """A value with right digits, or why there is none."""

    text: str
    reason: str


class Happening(TypedDict):
    """What functions do between a row and the next ones."""

    sentence: str
    what: str
    last: int


class TableRow(TypedDict):
    """A row of the table."""

    row: int
    x: str
    typed: str
    value: float
    cells: list[TableCell]
    happenings: list[Happening]


TablePart = TypedDict(
    "TablePart",
    {
        "columns": list[TableHead],
        "rows": list[TableRow],
        "count": int,
        "from": int,
        "variable": NotRequired[str],
        "variable_unit": NotRequired[str],
        "problem": str | None,
    },
)


class TableAnswer(TypedDict):
    """Some rows of the table."""

    version: int
    table: TablePart


class ExactCell(TypedDict):
    """An exact value of a row."""

    name: str
    text: str
    mathml: str


class ExactCellsAnswer(TypedDict):
    """The exact values in one row."""

    version: int
    cells: list[ExactCell]
    note: str


class Summary(TypedDict):
    """A column in a few numbers, and its histogram."""

    count: float | None
    missing: float | None
    mean: float | None
    sd: float | None
    least: float | None
    greatest: float | None
    quartiles: list[float | None]
    edges: list[float]
    heights: list[float]


class DataColumn(TypedDict):
    """Some cells of a column."""

    name: str
    unit: str
    formula: str
    problem: str
    cells: list[str]
    summary: Summary | None


class Coefficient(TypedDict):
    """A coefficient of a fit with its standard error."""

    name: str
    value: str
    error: str
    unit: str


class FitAnswer(TypedDict):
    """A fit; a problem says why it has no result."""

    id: int
    model: str
    x: str
    y: str
    degree: int | None
    formula: str
    problem: str
    follows: str | None
    coefficients: NotRequired[list[Coefficient]]
    r_squared: NotRequired[str]
    residual_sd: NotRequired[str]
    freedom: NotRequired[int]
    text: NotRequired[str]
    note: NotRequired[str]
    line: NotRequired[str]
    form: NotRequired[str]
    residuals: NotRequired[Points]
    predicted: NotRequired[str]


DataPart = TypedDict(
    "DataPart",
    {
        "columns": list[DataColumn],
        "count": int,
        "from": int,
        "filter": str,
        "filter_problem": str,
        "kept": int | None,
        "out": list[bool],
        "plots": list[Plot],
        "chosen": list[int],
        "fits": list[FitAnswer],
    },
)


class DataAnswer(TypedDict):
    """Some rows of all columns, and the fits."""

    version: int
    data: DataPart


class ReadColumn(TypedDict):
    """A column that was read from a text."""

    name: str
    unit: str
    cells: list[str]


class BadCell(TypedDict):
    """A cell that is not a number: its line and column in the text, from 1."""

    line: int
    column: int
    text: str


class ReadDataAnswer(TypedDict):
    """A text read as columns."""

    separator: str
    decimal: str
    header: bool
    columns: list[ReadColumn]
    bad: list[BadCell]
    bad_count: int


class ReadWorkbookAnswer(TypedDict):
    """A sheet of a workbook as text, its cells apart by tabs, and the names of all sheets."""

    text: str
    sheet: str
    sheets: list[str]


class ExactResult(TypedDict):
    """A value in its exact form and as a decimal."""

    kind: ResultKind
    decimal: str
    reason: str
    exact: str
    mathml: str
    is_plain: bool
    is_equal: bool
    note: str


class ExactAnswer(TypedDict):
    """The computed values of a study, by the ids of their lines."""

    version: int
    exact: dict[str, ExactResult]


class SweepBegun(TypedDict):
    """A sweep that waits in the queue."""

    sweep: str
    total: int


class SweepItem(TypedDict):
    """A finding for one value of the slider."""

    kind: str
    x: str
    y: str
    proved: bool | None


class SweepRow(TypedDict):
    """What was found for one value of the slider."""

    value: str
    items: list[SweepItem]
    complete: bool


class Branch(TypedDict):
    """One finding followed over the slider: its value, x and y."""

    kind: str
    points: list[tuple[float, float, float]]


class SweepEvent(TypedDict):
    """Where findings appear, merge or vanish."""

    value: float
    x: float
    sentence: str


class SweepResult(TypedDict):
    """A sweep that is done."""

    slider: str
    what: Search
    name: str
    other: str
    low: str | None
    high: str | None
    rows: list[SweepRow]
    branches: list[Branch]
    events: list[SweepEvent]
    low_value: float
    high_value: float
    complete: bool
    note: str


class SweepProgress(TypedDict):
    """How far a sweep is."""

    state: str
    done: int
    total: int
    problem: str
    result: SweepResult | None
