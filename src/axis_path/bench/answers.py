"""What the Bench is answered: the plain data of each task, field by field, with its types."""

from __future__ import annotations

from typing import Literal, NotRequired, TypedDict

from axis_path.bench.requests import Tab
from axis_path.core.evaluate import ResultKind
from axis_path.core.features.axes.section import AxesSpec
from axis_path.core.features.data.section import Plot
from axis_path.core.features.findings.section import QueryKind
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.meaning import Kind
from axis_path.core.locate.wanted import Search
from axis_path.core.scene.types import Bounds, Problem, Reading, RowReading, Scene
from axis_path.core.tabulate import NumberForm, Series, TableSpec

Places = list[tuple[float, float]]


class ErrorAnswer(TypedDict):
    """The answer to a request that cannot be answered; its status is not 200."""

    error: Problem


class StudyState(TypedDict):
    """What the page must know of a study beyond its scene."""

    unit: AngleUnit
    axes_spec: AxesSpec
    table: TableSpec
    digits: int


class OpeningAnswer(StudyState):
    """What the page must know of a study before its first scene."""

    trails: dict[str, Places]
    is_compiled: bool


class BenchScene(Scene, StudyState):
    """A scene with what the page must know of its study."""


class FindingMark(TypedDict):
    """An answer on the plane and the lanes, in tenths of a pixel."""

    ask: int
    place: int
    kind: str
    proved: bool | None
    x: int
    y: int
    value: float
    line: int | None
    other: int | None
    name: str
    tone: int | None
    text: str
    at: tuple[int, int] | None


class FindingSpan(TypedDict):
    """A stretch in which an inequality holds, in tenths of a pixel."""

    ask: int
    low: int
    high: int
    low_end: Literal["", "open", "closed"]
    high_end: Literal["", "open", "closed"]


class FindingRow(TypedDict):
    """One line of an answer."""

    label: str
    text: str
    decimal: str
    is_equal: bool
    value: str
    x: float | None
    y: float | None
    proved: bool | None
    why: list[str]
    note: str
    flags: list[str]
    latex: str


class Addition(TypedDict):
    """A line of the study that an answer offers."""

    label: str
    text: str


class FindingEntry(TypedDict):
    """A question with its answer now."""

    id: int
    what: QueryKind
    line: int | None
    other: int | None
    low: str | None
    high: str | None
    text: str
    unknown: str
    title: str
    mathml: list[str]
    where: str
    variable: str
    verdict: str
    complete: bool | None
    note: str
    problem: str
    rows: list[FindingRow]
    total: int
    draw: list[str]
    add: list[Addition]
    remark: str
    labels: list[int]


class FollowingFindings(TypedDict):
    """The answers that keep up with a drag, and the questions whose answers come when it rests."""

    findings: list[FindingEntry]
    late: list[int]
    marks: list[FindingMark]
    spans: list[FindingSpan]


class FindingsAnswer(TypedDict):
    """All answers of the Findings panel."""

    version: int
    findings: list[FindingEntry]
    marks: list[FindingMark]
    spans: list[FindingSpan]


class SceneAnswer(TypedDict):
    """The scene of a state, of those before it on the way, and of those that may come next."""

    version: int
    scene: BenchScene
    visited: dict[str, Places]
    before: list[BenchScene]
    found: NotRequired[FollowingFindings]
    ahead: NotRequired[list[SceneAnswer]]
    spent_ms: float


class CommittedAnswer(TypedDict):
    """What is shown of a version that was just committed; no scene if it takes long."""

    version: NotRequired[int]
    undo: NotRequired[str | None]
    redo: NotRequired[str | None]
    trails: dict[str, Places]
    scene: BenchScene | None
    found: NotRequired[FollowingFindings]


class ReadingAnswer(TypedDict):
    """The reading line, and what the lines show at it, by their ids."""

    version: int
    reading: Reading | None
    values: dict[str, RowReading | None]


class ViewAnswer(TypedDict):
    """The window and the open tab as they are kept."""

    window: Bounds
    follows: dict[str, str]
    reading: float | None
    tab: Tab
    folded: bool


class WindowAnswer(TypedDict):
    """Another window; for ``reading`` the number alone."""

    window: NotRequired[Bounds]
    follows: NotRequired[dict[str, str]]
    x: NotRequired[float]


class PreviewAnswer(TypedDict):
    """How a text would be read."""

    text: str
    kind: Kind
    name: str | None
    mathml: str
    domain: str
    latex: str
    hint: str
    problem: Problem | None


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
    residuals: NotRequired[Places]
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


class WorkingLine(TypedDict):
    """A line of Working with its result, or why there is none."""

    id: int
    text: str
    problem: Problem | None
    result: ExactResult | None
    mathml: str


class WorkingAnswer(TypedDict):
    """All lines of Working."""

    version: int
    working: list[WorkingLine]


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
