"""What the Bench is answered: the plain data of each task, field by field, with its types."""

from __future__ import annotations

from typing import Literal, NotRequired, TypedDict

from axis_path.bench.requests import Tab
from axis_path.core.features.axes.section import AxesSpec
from axis_path.core.features.findings.section import QueryKind
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.meaning import Kind
from axis_path.core.lines.moving import Position
from axis_path.core.scene.row_types import Problem, RowReading
from axis_path.core.scene.types import Bounds, Reading, Scene, WhatIfCurve
from axis_path.core.tabulate import TableSpec


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

    trails: dict[str, list[Position]]
    is_compiled: bool


class BenchScene(Scene, StudyState):
    """A scene with what the page must know of its study."""


class FindingMark(TypedDict):
    """An answer on the plane and the lanes, in tenths of a pixel."""

    query: int
    row: int
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
    """An interval in which an inequality holds, in tenths of a pixel."""

    query: int
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


class CheckedEquation(TypedDict):
    """An equation of a set with the values of a solution in it."""

    mathml: str
    text: str
    left: str
    right: str
    difference: str
    is_exact: bool


class CheckedSolution(TypedDict):
    """A solution put into all equations of its set."""

    label: str
    equations: list[CheckedEquation]


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
    checks: list[CheckedSolution]
    remark: str
    labels: list[int]


class SetName(TypedDict):
    """A name of a set with its value, typeset, and its unit."""

    name: str
    mathml: str
    text: str
    exact: str
    proved: bool


class SetSolutionAnswer(TypedDict):
    """One solution of a set: its unknowns, and its equations with the values put in."""

    values: list[SetName]
    proved: bool
    checks: list[CheckedEquation]


class SetBound(TypedDict):
    """Where an unknown of a set is sought; empty texts where nothing was typed."""

    name: str
    unit: str
    low: str
    high: str


class EquationSetAnswer(TypedDict):
    """A set of equations with all its solutions."""

    version: int
    title: str
    equations: list[str]
    latex: str
    text: str
    known: list[SetName]
    verdict: str
    is_sure: bool
    note: str
    chosen: int
    solutions: list[SetSolutionAnswer]
    bounds: list[SetBound]
    box: int


class WhatIfName(TypedDict):
    """A name that can be varied, and how it is shown."""

    name: str
    text: str


class WhatIfColumn(TypedDict):
    """A column of the what-if table."""

    text: str
    label: str
    unit: str
    problem: str


class WhatIfCell(TypedDict):
    """A value, or why there is none."""

    text: str
    reason: str


class WhatIfRow(TypedDict):
    """A row of the what-if table."""

    row: int
    value: str
    cells: list[WhatIfCell]


WhatIfAnswer = TypedDict(
    "WhatIfAnswer",
    {
        "version": int,
        "names": list[WhatIfName],
        "given": list[WhatIfName],
        "unit": str,
        "columns": list[WhatIfColumn],
        "rows": list[WhatIfRow],
        "count": int,
        "from": int,
        "missing": list[str],
        "drawn": list[str],
        "problem": str,
    },
)


class WhatIfCurvesAnswer(TypedDict):
    """The columns of the what-if table for which equations are solved, as curves."""

    version: int
    curves: list[WhatIfCurve]


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


class DescribedLine(TypedDict):
    """What the window shows of a line, in sentences."""

    id: int
    text: str
    mathml: str
    sentences: list[str]


class DescriptionAnswer(TypedDict):
    """What the window shows, in words."""

    version: int
    window: str
    lines: list[DescribedLine]
    data: list[str]


class SceneAnswer(TypedDict):
    """The scene of a state, of those before it on the way, and of those that may come next."""

    version: int
    scene: BenchScene
    visited: dict[str, list[Position]]
    before: list[BenchScene]
    findings: NotRequired[FollowingFindings]
    prefetched: NotRequired[list[SceneAnswer]]
    may_prefetch: NotRequired[bool]
    spent_ms: float


class CommittedAnswer(TypedDict):
    """What is shown of a version that was just committed; no scene if it takes long."""

    version: NotRequired[int]
    undo: NotRequired[str | None]
    redo: NotRequired[str | None]
    trails: dict[str, list[Position]]
    scene: BenchScene | None
    findings: NotRequired[FollowingFindings]


class ReadingAnswer(TypedDict):
    """The reading line, and what the lines show at it, by their ids."""

    version: int
    reading: Reading | None
    values: dict[str, RowReading | None]


class ViewAnswer(TypedDict):
    """The window and the open tab as they are stored."""

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
    """How a text would be read; a line of Working has no kind."""

    text: str
    kind: Kind | None
    name: str | None
    mathml: str
    domain: str
    latex: str
    hint: str
    problem: Problem | None
