"""What a scene is as plain data, for all who draw it: field by field, with its types.

Places are in tenths of a pixel unless said otherwise; lines are flat lists ``x, y, x, y, …``.
"""

from __future__ import annotations

from typing import NotRequired, TypedDict

from axis_path.core.features.axes.section import GridKind
from axis_path.core.lines.meaning import Kind
from axis_path.core.lines.sliders import Play, SliderKind
from axis_path.core.lines.style import LineStyle

Flat = list[int]
Lines = list[Flat]


class Repair(TypedDict):
    """A change of a text that corrects it."""

    position: tuple[int, int]
    text: str
    label: str


class Problem(TypedDict):
    """The one shape of an error: what went wrong, in which field or where in a text."""

    code: str
    message: str
    path: str
    position: NotRequired[tuple[int, int]]
    suggestion: NotRequired[str | None]
    repair: NotRequired[Repair | None]
    letters: NotRequired[list[str]]
    retry_after_s: NotRequired[float]


class Bounds(TypedDict):
    """The bounds of a window as they stand on its axes: in decades on a logarithmic one."""

    x: tuple[float, float]
    y: tuple[float, float]
    log_x: bool
    log_y: bool


class SceneWindow(Bounds):
    """The window of a scene, which reaches ``beyond`` px farther than what is seen."""

    width: int
    height: int
    beyond: int
    stretch: float


class AxisTicks(TypedDict):
    """The labelled lines of an axis, and the finer ones between them."""

    places: Flat
    labels: list[str]
    name: str
    finer: Flat


class Circle(TypedDict):
    """A circle of a polar grid."""

    rx: int
    ry: int
    text: str


class Spoke(TypedDict):
    """A line of a polar grid from its pole."""

    x: int
    y: int
    text: str
    label: tuple[int, int] | None


class PolarGrid(TypedDict):
    """A polar grid."""

    x: int
    y: int
    circles: list[Circle]
    spokes: list[Spoke]


class AxesNote(TypedDict):
    """Why an axis is labelled in another way than was chosen."""

    text: str
    unit: str | None


class TitleLine(TypedDict):
    """A line of the title; a formula in it is MathML."""

    text: str
    mathml: str


class SceneAxes(TypedDict):
    """The axes and the grid."""

    x: AxisTicks
    y: AxisTicks
    x_axis: int | None
    y_axis: int | None
    left_edge: bool
    lower_edge: bool
    grid: GridKind
    guides: bool
    polar: PolarGrid | None
    note: AxesNote | None
    title: list[TitleLine]


class CurveEnd(TypedDict):
    """An end of a curve: filled if it is included."""

    x: int
    y: int
    closed: bool


class LevelLabel(TypedDict):
    """Where the label of a level stands, and its angle in degrees."""

    x: int
    y: int
    angle: float


class Level(TypedDict):
    """A level of a map, with the parts filled above it."""

    text: str
    lines: Lines
    fills: Lines
    labels: list[LevelLabel]


class Curve(TypedDict):
    """What is drawn of a line of the study."""

    pieces: Lines
    bands: Lines
    ends: NotRequired[list[CurveEnd]]
    guides: NotRequired[Flat]
    dashed: NotRequired[Lines]
    dots: NotRequired[Flat]
    specks: NotRequired[Flat]
    fills: NotRequired[Lines]
    dense: NotRequired[Lines]
    levels: NotRequired[list[Level]]
    joined: NotRequired[bool]


class LaneEnd(TypedDict):
    """An end of a domain on its lane."""

    x: int
    closed: bool
    text: str


class LaneMark(TypedDict):
    """A zero, or another mark, on a lane."""

    x: int
    value: float
    text: str
    short: str
    kind: str
    proved: bool


class LaneTick(TypedDict):
    """A label of a lane with a scale of its own."""

    x: int
    text: str


class LaneScale(TypedDict):
    """The scale of a lane whose parameter is not the x of the plane."""

    low: float
    high: float
    ticks: list[LaneTick]


class Lane(TypedDict):
    """Where a line is defined; signs and trends are ``[from, to, -1 | 0 | 1]``."""

    low: LaneEnd | None
    high: LaneEnd | None
    band: tuple[int, int] | None
    bands: NotRequired[list[tuple[int, int]]]
    undefined: list[tuple[int, int]]
    holes: Flat
    marks: list[LaneMark]
    reasons: NotRequired[list[str]]
    complete: NotRequired[bool]
    signs: NotRequired[list[tuple[int, int, int]]]
    trends: NotRequired[list[tuple[int, int, int]]]
    fixed: NotRequired[bool]
    scale: NotRequired[LaneScale]


class RowReading(TypedDict):
    """What a line shows at the reading line."""

    text: str
    reason: str
    x: NotRequired[int]
    y: int | None


class RowEnds(TypedDict):
    """The ends of a domain as they were typed."""

    low: str
    high: str


class RowRunner(TypedDict):
    """The runner of a path."""

    is_set: bool
    at: str
    value: float
    low: float
    high: float
    lane: int
    text: str
    play: Play
    problem: str | None
    x: int | None
    y: int | None


class RowTrail(TypedDict):
    """A trail: how many of its positions are shown."""

    most: int


class Closing(TypedDict):
    """The range over which a path closes."""

    low: str
    high: str
    text: str


class Flag(TypedDict):
    """Where the flag with a name stands."""

    x: int
    y: int
    width: int


class FamilyMember(TypedDict):
    """One curve of a family."""

    text: str
    pieces: Lines
    bands: Lines
    dashed: Lines
    flag: Flag | None
    problem: str


class RowFamily(TypedDict):
    """A line drawn for several values of a slider."""

    slider: int
    values: str
    first: str
    last: str
    count: str
    name: str
    sign: str
    members: list[FamilyMember]
    problem: Problem | None


class NotDrawn(TypedDict):
    """Why nothing of a line is seen, and whether another window would show it."""

    sentence: str
    frame: bool


class Row(TypedDict):
    """A line of the study: its text, what it means, its curve and its lane."""

    id: int
    text: str
    name: str | None
    kind: Kind
    mathml: str
    domain: str
    variable: str | None
    variables: list[str]
    ends: RowEnds
    hidden: bool
    style: LineStyle
    disabled: bool
    fixed: bool
    problem: Problem | None
    value: str | None
    assumed: str
    runner: RowRunner | None
    trail: RowTrail | None
    closes: Closing | None
    undrawn: str | None
    reading: RowReading | None
    tone: int | None
    used_by: list[str]
    note: str
    curve: Curve | None
    lane: Lane | None
    why: NotDrawn | None
    flag: Flag | None
    family: RowFamily | None


class SceneSlider(TypedDict):
    """A slider: its value, its range as typed and as numbers, and how it plays."""

    id: int
    name: str
    sign: str
    text: str
    short: str
    value: float
    about: str
    low: str
    high: str
    step: str
    kind: SliderKind
    unit: str
    note: str
    play: Play
    low_value: float
    high_value: float
    step_value: float
    is_beyond: bool
    used_by: list[str]
    moves: bool
    problem: Problem | None


class Reading(TypedDict):
    """The reading line."""

    x: int
    value: float
    text: str


class Legend(TypedDict):
    """The legend, in px; ``rows`` are indices of lines."""

    x: int
    y: int
    width: int
    height: int
    row: int
    rows: list[int]


class CheckPoints(TypedDict):
    """The points of a sampling check, and what they miss in a sentence."""

    line: int
    count: str
    step: str
    points: Flat
    sentence: str


class DataPoints(TypedDict):
    """Two columns drawn as points, and which of them are chosen."""

    x: str
    y: str
    tone: int
    points: Flat
    chosen: NotRequired[list[int]]
    x_bars: NotRequired[Lines]
    y_bars: NotRequired[Lines]


class Scene(TypedDict):
    """All that is drawn of a study in one state."""

    window: SceneWindow
    axes: SceneAxes
    rows: list[Row]
    sliders: list[SceneSlider]
    reading: Reading | None
    empty: str | None
    legend: Legend | None
    check: CheckPoints | None
    data: list[DataPoints]
