"""What a scene is as plain data, for all who draw it: field by field, with its types.

Places are in tenths of a pixel unless said otherwise; lines are flat lists ``x, y, x, y, …``.
"""

from __future__ import annotations

from typing import NotRequired, TypedDict

from axis_path.core.features.axes.section import GridKind
from axis_path.core.lines.sliders import Play, SliderKind
from axis_path.core.scene.row_types import Flat, Lines, Problem, Row


class Bounds(TypedDict):
    """The bounds of a window as they stand on its axes: in decades on a logarithmic one."""

    x: tuple[float, float]
    y: tuple[float, float]
    log_x: bool
    log_y: bool
    x_unit: str
    y_unit: str


class SceneWindow(Bounds):
    """The window of a scene, which reaches ``beyond`` px farther than what is seen."""

    width: int
    height: int
    beyond: int
    stretch: float


class AxisTicks(TypedDict):
    """The labelled lines of an axis, and the finer ones between them."""

    positions: Flat
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


class UnitOption(TypedDict):
    """A unit that can be chosen: as it is typed, and as it is printed."""

    symbol: str
    text: str


class UnitChoice(TypedDict):
    """The unit that is shown, and those that fit as well."""

    measures: str
    of_difference: bool
    shown: str
    fits: list[UnitOption]


class HiddenUnit(TypedDict):
    """A name behind a number that hides a unit, and the line with the unit in its place."""

    name: str
    unit: str
    text: str


class RowUnits(TypedDict):
    """The unit of a row, and a name in it that may be meant as a unit."""

    choice: UnitChoice | None
    hidden: HiddenUnit | None


class WhatIfTableSpec(TypedDict, total=False):
    """What the what-if table is made from; what has its usual value is left out."""

    name: str
    start: str
    stop: str
    step: str
    count: str
    listed: str
    columns: list[str]
    instead: str
    is_drawn: bool


class WhatIfCurve(TypedDict):
    """A column of the what-if table as a curve, with a dot for each row."""

    label: str
    tone: int
    lines: Lines
    dots: Flat


class SceneSetValue(TypedDict):
    """An unknown of a set: its name, typeset too, its value with its unit, and who uses it."""

    name: str
    mathml: str
    text: str
    choice: UnitChoice | None
    used_by: list[str]


class SceneLetterMeaning(TypedDict):
    """What a letter behind a number means in an equation of a set, and its text with the other."""

    equation: int
    sentence: str
    other: str
    text: str


class SceneSet(TypedDict):
    """A set of equations in short, with its names as they are shown."""

    known: list[str]
    unknown: list[str]
    verdict: str
    is_sure: bool
    note: str
    count: int
    chosen: int
    values: list[SceneSetValue]
    meanings: list[SceneLetterMeaning]


class SceneUnits(TypedDict):
    """The units of rows, by their ids, and those of both axes."""

    rows: dict[str, RowUnits]
    x: list[UnitChoice]
    y: list[UnitChoice]


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
    units: SceneUnits | None
    sets: dict[str, SceneSet]
    what_if: list[WhatIfCurve]
    what_if_spec: WhatIfTableSpec
