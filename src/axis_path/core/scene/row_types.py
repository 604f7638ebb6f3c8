"""What a row of a scene is as plain data: its curve, its lane, its runner, its family."""

from __future__ import annotations

from typing import NotRequired, TypedDict

from axis_path.core.lines.meaning import Kind
from axis_path.core.lines.sliders import Play
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


class NotePart(TypedDict):
    """A piece of a note; a formula is MathML too."""

    text: str
    mathml: str


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
    size: str
    assumed: str
    runner: RowRunner | None
    trail: RowTrail | None
    closes: Closing | None
    words: list[NotePart]
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
