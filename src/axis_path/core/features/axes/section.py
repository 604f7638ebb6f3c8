"""How a study's axes and grid look, as kept with it, and what is drawn of them."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw import Labels
from axis_path.core.errors import FormatError

Floats = NDArray[np.float64]
_LONGEST_NAME, _LONGEST_TITLE = 40, 400
#: A line cut at its backticks has so many parts if there is a formula in it.
_WITH_FORMULA = 3


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
    legend_at: tuple[float, float] | None = None
    guides: bool = True


def axes_to_dict(spec: AxesSpec) -> dict[str, Any]:
    """Return the axes as plain data."""
    return {
        **{name: _axis_to_dict(axis) for name, axis in (("x", spec.x), ("y", spec.y))},
        "grid": spec.grid.value, "at_edge": spec.at_edge, "equal": spec.equal,
        "title": spec.title, "legend": spec.legend,
        "guides": spec.guides,
        "legend_at": None if spec.legend_at is None else list(spec.legend_at),
    }  # fmt: skip


def _axis_to_dict(axis: AxisSpec) -> dict[str, Any]:
    return {
        "labels": axis.labels.value, "step": axis.step, "name": axis.name, "log": axis.log,
    }  # fmt: skip


def axes_from_dict(given: object, present: AxesSpec | None = None) -> AxesSpec:
    """Read axes; what is not given stays as it is.

    Raises:
        FormatError: a part is of the wrong kind.
    """
    if not isinstance(given, dict):
        raise FormatError("The axes are of the wrong kind.")
    present = present or AxesSpec()
    try:
        grid = GridKind(given.get("grid", present.grid))
    except ValueError as err:
        raise FormatError("A grid is fine, coarse, polar, or none.") from err
    return AxesSpec(
        _axis(given.get("x", {}), present.x),
        _axis(given.get("y", {}), present.y),
        grid,
        _flag(given, "at_edge", present),
        _flag(given, "equal", present),
        _text(given, "title", present.title, _LONGEST_TITLE),
        _flag(given, "legend", present),
        _place(given, present.legend_at),
        _flag(given, "guides", present),
    )


def _place(
    given: Mapping[str, object], present: tuple[float, float] | None
) -> tuple[float, float] | None:
    value = given.get("legend_at", present)
    if value is None:
        return None
    match value:
        case [int() | float() as x, int() | float() as y] if math.isfinite(x) and math.isfinite(y):
            return float(x), float(y)
        case (float() as x, float() as y):
            return x, y
    raise FormatError("The place of the legend is a pair of numbers.")


def _axis(given: object, present: AxisSpec) -> AxisSpec:
    if not isinstance(given, dict):
        raise FormatError("An axis is of the wrong kind.")
    try:
        labels = Labels(given.get("labels", present.labels))
    except ValueError as err:
        raise FormatError("An axis is labelled with numbers, multiples of π, or degrees.") from err
    step = _text(given, "step", present.step, _LONGEST_NAME)
    name = _text(given, "name", present.name, _LONGEST_NAME)
    return AxisSpec(labels, step, name, _flag(given, "log", present))


def _text(given: Mapping[str, object], name: str, present: str, longest: int) -> str:
    value = given.get(name, present)
    if not isinstance(value, str) or len(value) > longest:
        raise FormatError(f"The {name} of the axes has at most {longest} characters.")
    return value.strip()


def _flag(given: Mapping[str, object], name: str, present: AxesSpec | AxisSpec) -> bool:
    value = given.get(name, getattr(present, name))
    if not isinstance(value, bool):
        raise FormatError(f"The field `{name}` of the axes is of the wrong kind.")
    return value


def to_fields(section: AxesSpec) -> dict[str, Any]:
    """Return the fields of the study format."""
    return {} if section == AxesSpec() else {"axes": axes_to_dict(section)}


def from_fields(given: dict[str, Any]) -> AxesSpec:
    """Read the section.

    Raises:
        FormatError: a field is not what it should be.
    """
    return axes_from_dict(given.get("axes", {}))
