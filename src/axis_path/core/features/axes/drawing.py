"""Axes, grid and title as they are drawn."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache
from html import escape
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.draw import Labels, Ticks, Window, make_log_ticks, make_ticks
from axis_path.core.draw.pixels import PER_PX, Flag, tenths_across, tenths_down
from axis_path.core.draw.polar import polar_grid
from axis_path.core.errors import MathError
from axis_path.core.features.axes.section import AxesSpec, GridKind
from axis_path.core.language.tree import AngleUnit

Floats = NDArray[np.float64]
#: A line cut at its backticks has so many parts if there is a formula in it.
_WITH_FORMULA = 3


@dataclass(frozen=True, slots=True)
class Steps:
    """The distances of the labelled lines that were asked for, as numbers; None for automatic."""

    x: float | None = None
    y: float | None = None


#: A line of the title: its text, and the whole of it typeset if formulas stand in it.
TitleLine = tuple[str, str]


def title_lines(title: str, typeset: Callable[[str], str]) -> tuple[TitleLine, ...]:
    """Return the lines of a title; what stands between backticks is a formula.

    Args:
        title: as it was typed.
        typeset: gives a formula as MathML; it may raise a ``MathError``.
    """
    lines = []
    for line in title.splitlines():
        parts = line.split("`")
        if not line.strip():
            continue
        if len(parts) < _WITH_FORMULA:
            lines.append((line, ""))
            continue
        shown = [_formula(part, typeset) if k % 2 else _words(part) for k, part in enumerate(parts)]
        lines.append((line.replace("`", ""), f"<mrow>{''.join(shown)}</mrow>"))
    return tuple(lines)


def _words(text: str) -> str:
    # A plain space at the edge of a text would be lost.
    unbroken = escape(text).replace(" ", "\u00a0")
    return f"<mtext>{unbroken}</mtext>" if text else ""


def _formula(text: str, typeset: Callable[[str], str]) -> str:
    try:
        return typeset(text)
    except MathError:
        # What does not read is shown as it was typed.
        return _words(text)


def draw_axes(
    spec: AxesSpec,
    steps: Steps,
    window: Window,
    unit: AngleUnit,
    *,
    names: tuple[str, str],
    title: tuple[TitleLine, ...],
) -> dict[str, Any]:
    """Return the axes and the grid as plain data, places in tenths of a px.

    Args:
        spec: how they look.
        steps: the distances that were asked for.
        window: what part of the plane is seen.
        unit: how the study measures angles.
        names: what the axes are called by themselves.
        title: the lines of the title.
    """
    x, y = (
        replace(axis, name=axis.name or name)
        for axis, name in zip((spec.x, spec.y), names, strict=True)
    )
    named = replace(spec, x=x, y=y)
    lines = [{"text": text, "mathml": mathml} for text, mathml in title]
    return _drawn(named, steps, window, unit, len(lines)) | {"title": lines}


@lru_cache(maxsize=64)
def _drawn(
    spec: AxesSpec, steps: Steps, window: Window, unit: AngleUnit, title_lines: int
) -> dict[str, Any]:
    degree = 1.0 if unit is AngleUnit.DEGREES else math.pi / 180
    x, y = (
        make_log_ticks(*bounds, px)
        if is_log
        else make_ticks(
            *bounds, px, axis.labels, step=_label_step(step, axis.labels, degree), degree=degree
        )
        for bounds, px, axis, step, is_log in (
            (window.x, window.width, spec.x, steps.x, window.log_x),
            (window.y, window.height, spec.y, steps.y, window.log_y),
        )
    )
    zero = np.array([0.0])
    x_zero, y_zero = (np.rint(scale(zero) * PER_PX)[0] for scale in (window.across, window.down))
    has_y_axis = window.x[0] <= 0 <= window.x[1] and not spec.at_edge
    has_x_axis = window.y[0] <= 0 <= window.y[1] and not spec.at_edge
    # Circles about the origin have no place where there is no origin.
    is_polar = spec.grid is GridKind.POLAR and not window.is_log
    return {
        "x": _axis_data(x, tenths_across(np.array(x.positions), window), window, spec.x.name)
        | {"finer": tenths_across(np.array(x.finer), window).tolist()},
        "y": _axis_data(y, tenths_down(np.array(y.positions), window), window, spec.y.name)
        | {"finer": tenths_down(np.array(y.finer), window).tolist()},
        # The y axis stands at x = 0, the x axis at y = 0; None if that is outside.
        "y_axis": int(x_zero) if has_y_axis else None,
        "x_axis": int(y_zero) if has_x_axis else None,
        # A logarithmic axis has no place for 0: the other one stands at the edge.
        "left_edge": spec.at_edge or window.log_x,
        "lower_edge": spec.at_edge or window.log_y,
        "grid": (
            GridKind.FINE if spec.grid is GridKind.POLAR and not is_polar else spec.grid
        ).value,
        "guides": spec.guides,
        "polar": polar_grid(window, unit, title_lines) if is_polar else None,
        "note": _note(spec, unit, window),
    }


#: How wide a letter of a name and of a number is, and how far above its baseline a text
#: begins, in px.
_NAME_LETTER_PX, _NUMBER_LETTER_PX, _RISE_PX = 12, 8, 14
#: The first baseline of the y axis's name, and how far the lines of a title move it down, in px.
_NAME_TOP_PX, _TITLE_LINE_PX, _TITLE_GAP_PX = 16, 20, 8
_EDGE_PX = 8
#: How wide a bound of the window is, and how far it begins above its axis or the lower edge, in px.
_BOUND_WIDTH_PX, _BOUND_RISE_PX = 64, 34


def label_flags(axes: Mapping[str, Any], window: Window) -> list[Flag]:
    """Return the room for the names and numbers of both axes: as `grid.js` and `svg.py` have it.

    Args:
        axes: what ``draw_axes`` gives.
        window: what is seen.
    """
    x_axis, y_axis = axes["x_axis"], axes["y_axis"]
    level = window.height - 21 if x_axis is None else x_axis // PER_PX
    upright = 0 if y_axis is None else y_axis // PER_PX
    lines = len(axes["title"])
    x_width, y_width = (_NAME_LETTER_PX * len(axes[axis]["name"]) for axis in "xy")
    # Where an axis is out of sight its name and numbers stand at the edge.
    name_level = window.height - 14 if x_axis is None else level
    x_base = min(max(name_level - 7, _NAME_TOP_PX), window.height - 12)
    y_base = _NAME_TOP_PX + (_TITLE_LINE_PX * lines + _TITLE_GAP_PX if lines else 0)
    left = min(max(upright, 0) + _EDGE_PX, window.width - y_width)
    numbers_base = min(max(level + 15, _RISE_PX), window.height - 6)
    longest = max([4, *map(len, axes["y"]["labels"])])
    numbers_right = min(max(upright - 6, _NUMBER_LETTER_PX * longest), window.width - 6)
    return [
        Flag(window.width - _EDGE_PX - x_width, x_base - _RISE_PX, x_width),
        Flag(left, y_base - _RISE_PX, y_width),
        *_bound_flags(level, upright, window),
        *(
            Flag(position // PER_PX - width // 2, numbers_base - _RISE_PX, width)
            for position, width in _numbers(axes["x"])
        ),
        *(
            Flag(numbers_right - width, position // PER_PX + 4 - _RISE_PX, width)
            for position, width in _numbers(axes["y"])
        ),
    ]


def _bound_flags(level: int, upright: int, window: Window) -> Iterator[Flag]:
    """Yield the room of the bounds at the ends of the axes, as ``bounds.model.js`` has it."""
    top = min(max(level - _BOUND_RISE_PX, 0), window.height - _BOUND_RISE_PX)
    right = min(max(upright + _EDGE_PX, 0), window.width - _BOUND_WIDTH_PX)
    yield Flag(0, top, _BOUND_WIDTH_PX)
    yield Flag(window.width - _BOUND_WIDTH_PX, top, _BOUND_WIDTH_PX)
    yield Flag(right, _EDGE_PX, _BOUND_WIDTH_PX)
    yield Flag(right, window.height - _BOUND_RISE_PX, _BOUND_WIDTH_PX)


def _numbers(axis: Mapping[str, Any]) -> Iterator[tuple[int, int]]:
    """Return the place of each number on an axis, in tenths of a px, and its width in px."""
    for position, label in zip(axis["positions"], axis["labels"], strict=True):
        yield position, _NUMBER_LETTER_PX * len(label)


def _axis_data(
    ticks: Ticks, positions: NDArray[np.int64], _window: Window, name: str
) -> dict[str, Any]:
    return {"positions": positions.tolist(), "labels": list(ticks.labels), "name": name}


def _label_step(step: float | None, labels: Labels, degree: float) -> Fraction | None:
    """Return a step in what the labels count: numbers, multiples of pi, or degrees."""
    if step is None:
        return None
    unit = {Labels.NUMBERS: 1.0, Labels.PI: math.pi, Labels.DEGREES: degree}[labels]
    turns = Fraction(step / unit).limit_denominator(10_000)
    return turns if turns > 0 else Fraction(step / unit)


def _note(spec: AxesSpec, unit: AngleUnit, window: Window) -> dict[str, str] | None:
    """Describe where labels and functions measure angles differently, and what would agree."""
    plain = ((spec.x, window.log_x), (spec.y, window.log_y))
    labels = [axis.labels for axis, is_log in plain if not is_log]
    if Labels.DEGREES in labels and unit is AngleUnit.RADIANS:
        return {
            "text": "The axis is labelled in degrees, but functions measure in radians.",
            "unit": "degrees",
        }
    if Labels.PI in labels and unit is AngleUnit.DEGREES:
        return {
            "text": "The axis is labelled in multiples of π, but functions measure in degrees.",
            "unit": "radians",
        }
    return None
