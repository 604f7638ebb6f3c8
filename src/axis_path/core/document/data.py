"""The data of a study as it is saved: columns, what is drawn of them, fits and a filter."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated

from msgspec import Meta

from axis_path.core.contract import Finite, Id, Line
from axis_path.core.data import Column
from axis_path.core.errors import FormatError
from axis_path.core.limits import COLUMNS, FITS

#: A formula has so many parameters at most.
MOST_PARAMETERS = 20
Start = Annotated[dict[str, Finite], Meta(max_length=MOST_PARAMETERS)]


@dataclass(frozen=True, slots=True)
class FitRequest:
    """A fit as it was asked for.

    Attributes:
        model: what is fitted, ``polynomial``.
        x: the name of a column; ``y`` of another.
        degree: of a polynomial.
        formula: one of the student's own; ``start`` its parameters with where they begin.
    """

    id: Id
    model: Line
    x: Line
    y: Line
    degree: Id | None = None
    formula: Line = ""
    start: Start = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Plot:
    """Two columns that are drawn as points.

    Attributes:
        x: the name of the column across; ``y`` of the one upward.
        x_error: of a column with how far a point reaches on both sides; may be empty.
        y_error: the same upward and downward.
    """

    x: Line
    y: Line
    x_error: Line = ""
    y_error: Line = ""

    @property
    def columns(self) -> tuple[str, ...]:
        """Return the names of all columns that are needed."""
        return tuple(name for name in (self.x, self.y, self.x_error, self.y_error) if name)


@dataclass(frozen=True, slots=True)
class Data:
    """The data of a study.

    Attributes:
        columns: in their order.
        fits: the newest first.
        plots: which columns are drawn as points.
        row_filter: the conditions that rows must hold to; empty for all rows.
    """

    columns: Annotated[tuple[Column, ...], Meta(max_length=COLUMNS.value)] = ()
    fits: Annotated[tuple[FitRequest, ...], Meta(max_length=FITS.value)] = ()
    plots: Annotated[tuple[Plot, ...], Meta(max_length=FITS.value)] = ()
    row_filter: Line = ""

    def __post_init__(self) -> None:
        """Refuse two columns of one name.

        Raises:
            FormatError: there are two.
        """
        if len({column.name for column in self.columns}) != len(self.columns):
            raise FormatError("Two columns of the study have the same name.")

    def unit_of(self, name: str) -> str:
        """Return the unit of a column as it is written beside its name; empty without one."""
        return next((column.unit for column in self.columns if column.name == name), "")
