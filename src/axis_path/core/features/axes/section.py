"""How a study's axes and grid look, as stored with it, and what is drawn of them."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

from axis_path.core.contract import Pair
from axis_path.core.draw import Labels
from axis_path.core.errors import FormatError

_LONGEST_NAME, _LONGEST_TITLE = 40, 400


class GridKind(StrEnum):
    """The lines of the grid."""

    FINE = "fine"
    COARSE = "coarse"
    NONE = "none"
    POLAR = "polar"


@dataclass(frozen=True, slots=True)
class AxisSpec:
    """One axis.

    Attributes:
        labels: plain numbers, multiples of pi, or degrees.
        step: the distance of the labelled lines as typed; empty for one that suits the window.
        name: what stands at its end; empty for the name of the variable.
        log: whether it is logarithmic; its labels are powers of ten then, whatever else is chosen.
    """

    labels: Labels = Labels.NUMBERS
    step: str = ""
    name: str = ""
    log: bool = False

    def __post_init__(self) -> None:
        """Refuse texts that have no room at an axis.

        Raises:
            FormatError: one is too long.
        """
        _check("step", self.step, _LONGEST_NAME)
        _check("name", self.name, _LONGEST_NAME)


@dataclass(frozen=True, slots=True)
class AxesSpec:
    """The axes and the grid of a study.

    Attributes:
        at_edge: whether the axes stand at the edge of the picture in place of the origin.
        equal: whether a unit is as long across as up.
        title: what stands above the picture, in lines.
        legend: whether the legend is shown.
        guides: whether vertical asymptotes are drawn as dashed guides.
        legend_at: where it was put, as parts of the width and the height; None for a free corner.
    """

    x: AxisSpec = field(default_factory=AxisSpec)
    y: AxisSpec = field(default_factory=AxisSpec)
    grid: GridKind = GridKind.FINE
    at_edge: bool = False
    equal: bool = False
    title: str = ""
    legend: bool = False
    legend_at: Pair | None = None
    guides: bool = True

    def __post_init__(self) -> None:
        """Refuse a title that has no room above the picture.

        Raises:
            FormatError: it is too long.
        """
        _check("title", self.title, _LONGEST_TITLE)


def _check(what: str, text: str, longest: int) -> None:
    if len(text) > longest:
        raise FormatError(f"The {what} of the axes has at most {longest} characters.")
