"""What the Bench may ask: one typed struct for each task, validated before anything is computed."""

from __future__ import annotations

from typing import Annotated, Literal

import msgspec
from msgspec import UNSET, Meta, UnsetType

from axis_path.core.contract import Finite, Id, Pair
from axis_path.core.draw import HOME_X, HOME_Y
from axis_path.core.locate.search_request import Search
from axis_path.core.study.commands import AnyCommand

#: A bound of the window.
BoundName = Literal["x_low", "x_high", "y_low", "y_high"]
Version = Annotated[int, Meta(ge=0, lt=2**53)]
#: What is dragged or plays right now: commands that are tried out and not stored.
Drafts = Annotated[tuple[AnyCommand, ...], Meta(max_length=20)]
#: Values by the ids of their lines.
Visit = Annotated[tuple[tuple[Id, Finite | str], ...], Meta(max_length=20)]
_Short = Annotated[str, Meta(max_length=200)]
_Px = Annotated[int, Meta(ge=0, le=100_000)]


class Viewport(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A part of the plane on a screen; bounds as they stand on its axes.

    ``follows`` holds the bounds that were typed as expressions of sliders.
    """

    x: Pair = HOME_X
    y: Pair = HOME_Y
    width: _Px
    height: _Px
    log_x: bool = False
    log_y: bool = False
    x_unit: _Short = ""
    y_unit: _Short = ""
    follows: dict[BoundName, _Short] = {}


class StateQuery(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A state of a study, seen through a window: what all requests of the Bench begin with.

    ``visits`` are states that something moved through since the last scene, the first of them only
    where the way goes on from if it is ``joined``; ``beyond`` px around
    the window are drawn too, for it is being moved; the picture may be shown ``stretch`` times
    larger until the next one comes. ``part`` names the task on the socket.
    """

    version: Version
    window: Viewport
    drafts: Drafts = ()
    reading: Finite | None = None
    is_reading_typed: bool = False
    pointer_y: Finite | None = None
    visits: Annotated[tuple[Visit, ...], Meta(max_length=24)] = ()
    joined: bool = False
    box: tuple[Pair, Pair] | None = None
    beyond: Annotated[int, Meta(ge=0, le=200)] = 0
    stretch: Annotated[float, Meta(ge=1.0, le=2.0)] = 1.0
    part: Literal["scene", "reading"] | UnsetType = UNSET


#: Which findings come with the picture while something moves: their marks, or the texts too.
Following = Literal["marks", "ledger"]


class SceneQuery(StateQuery, frozen=True, kw_only=True):
    """The scene of a state, and those of other states if there is time.

    ``passed`` are states that were dragged through since the last scene, ``prefetch`` those that
    will probably come next.
    """

    findings: Following | None = None
    passed: Annotated[tuple[Drafts, ...], Meta(max_length=3)] = ()
    prefetch: Annotated[tuple[Drafts, ...], Meta(max_length=16)] | UnsetType = UNSET


class ReadingQuery(StateQuery, frozen=True, kw_only=True):
    """The values at the reading line alone."""


class CommandsQuery(StateQuery, frozen=True, kw_only=True):
    """Carry out commands and keep what they make; undo is called after the one at ``named``."""

    commands: Annotated[tuple[AnyCommand, ...], Meta(min_length=1, max_length=20)]
    named: Annotated[int, Meta(ge=0, lt=20)] = 0
    findings: Following | None = None


class HistoryQuery(StateQuery, frozen=True, kw_only=True):
    """Undo or redo."""

    do: Literal["undo", "redo"]
    findings: Following | None = None


class CommittedQuery(StateQuery, frozen=True, kw_only=True, forbid_unknown_fields=False):
    """The picture of what was just committed, read from the request that did it."""

    findings: Following | None = None


class VersionQuery(msgspec.Struct, frozen=True):
    """The version that a request is about, whatever else it asks."""

    version: Version


class OpeningQuery(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Nothing is asked but the study itself, before its first scene."""


class TrailQuery(StateQuery, frozen=True, kw_only=True):
    """The positions of a trail, by the id of its line."""

    line: Id


#: The name of a panel; the page knows which there are.
Tab = Annotated[str, Meta(pattern="^[a-z]{1,24}$")]


class ViewQuery(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """The window and the open tab, which are stored and have no history."""

    window: Viewport
    reading: Finite | None = None
    tab: Tab = "findings"
    folded: bool = False


class TypedBounds(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """The bounds of a window as they were typed."""

    x_low: str
    x_high: str
    y_low: str
    y_high: str


class WindowQuery(StateQuery, frozen=True, kw_only=True):
    """Another window: home, framed (all, or one line by ``id``), by rows or by typed bounds.

    ``reading`` asks instead for the number that a typed ``text`` stands for.
    """

    how: Literal["home", "frame", "rows", "bounds", "reading"]
    id: Id | None = None
    from_: Finite | UnsetType = msgspec.field(default=UNSET, name="from")
    to: Finite | UnsetType = UNSET
    bounds: TypedBounds | UnsetType = UNSET
    text: str = ""


class PreviewQuery(StateQuery, frozen=True, kw_only=True):
    """How a text would be read in the place of a line, or as a new line; or as one of Working."""

    text: str = ""
    id: Id | None = None
    is_working: bool = False


class FindingsQuery(StateQuery, frozen=True, kw_only=True):
    """All answers of the Findings panel; ``whole`` asks for every row of one of them."""

    whole: Id | None = None


class DescriptionQuery(StateQuery, frozen=True, kw_only=True):
    """What the window shows, in words."""


class TableQuery(StateQuery, frozen=True, kw_only=True):
    """Some rows of the table: from a row on, or around a value of x.

    ``finer`` looks more closely between two values.
    """

    from_: Id | None = msgspec.field(default=None, name="from")
    rows: Id | None = None
    around: Finite | None = None
    finer: tuple[str, str] | None = None


class ExactCellsQuery(StateQuery, frozen=True, kw_only=True):
    """The exact values in one row of the table."""

    abscissa: str
    finer: tuple[str, str] | None = None


class TableFileQuery(StateQuery, frozen=True, kw_only=True):
    """The whole table as a file."""

    units: bool = False
    exact: bool = False


class Prediction(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """A prediction of a fit: of y for an x, or of x for a y."""

    fit: Id
    of: Literal["x", "y"]
    value: Finite | None


class DataQuery(StateQuery, frozen=True, kw_only=True):
    """Some rows of all columns, and the fits."""

    from_: Id | None = msgspec.field(default=None, name="from")
    predict: Prediction | None = None


class ReadDataQuery(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A text to be read as columns; what is not given is found out."""

    text: str
    separator: str = ""
    decimal: str = ""
    header: bool | None = None


class ReadWorkbookQuery(msgspec.Struct, frozen=True, kw_only=True, forbid_unknown_fields=True):
    """A workbook (XLSX) of which a sheet is to be read; without a name it is the first."""

    content: bytes
    sheet: str = ""


class ExactQuery(StateQuery, frozen=True, kw_only=True):
    """The exact forms of all computed values."""


class WorkingQuery(StateQuery, frozen=True, kw_only=True):
    """The lines of Working with their results; ``again`` is one that took too long before."""

    digits: Id
    again: Id | None = None


class WorkTextQuery(StateQuery, frozen=True, kw_only=True):
    """All of a long result of a line of Working."""

    id: Id
    digits: Annotated[int, Meta(ge=1, le=1_000)] = 10


class WorkSketchQuery(StateQuery, frozen=True, kw_only=True):
    """A small graph of a line of Working; its width and height in px."""

    id: Id
    size: tuple[_Px, _Px] = (220, 120)


class WorkCellsQuery(StateQuery, frozen=True, kw_only=True):
    """A part of a list or a matrix, of a line of Working or of a name; it begins at a cell."""

    id: Id | None = None
    name: _Short = ""
    row: Annotated[int, Meta(ge=0, lt=1_000_000)] = 0
    column: Annotated[int, Meta(ge=0, lt=1_000)] = 0
    digits: Annotated[int, Meta(ge=1, le=50)] = 6


class ReductionQuery(StateQuery, frozen=True, kw_only=True):
    """A row reduction of a matrix or a linear system, and operations that the student chose."""

    text: Annotated[str, Meta(max_length=2_000)]
    operations: Annotated[tuple[_Short, ...], Meta(max_length=60)] = ()


class EquationSetQuery(StateQuery, frozen=True, kw_only=True):
    """A set of equations that is a line: its solutions, and on request each put into them."""

    id: Id
    checked: bool = False


class WhatIfQuery(StateQuery, frozen=True, kw_only=True):
    """Rows of the what-if table, from one on."""

    from_: Annotated[int, Meta(ge=0, le=2**53)] = msgspec.field(default=0, name="from")


class SweepQuery(StateQuery, frozen=True, kw_only=True):
    """Follow a finding over a slider: its values by number, or those of a line's family."""

    slider: Id
    what: Search
    line: Id
    other: Id | None = None
    low: str | None = None
    high: str | None = None
    count: Annotated[int, Meta(ge=0, le=2**53)] | UnsetType = UNSET
    family: Id | UnsetType = UNSET


class PictureQuery(StateQuery, frozen=True, kw_only=True):
    """A picture of the present state, or the study itself."""

    format: Literal["svg", "png", "pdf", "study"]
    scale: Annotated[float, Meta(ge=0.05, le=6)] = 1.0
    white: bool = False
    with_reading: bool = False
    with_findings: bool = False
    dark: bool = False


class OpenFileQuery(msgspec.Struct, frozen=True):
    """Nothing but the file, which comes beside the request."""
