"""What a kind of line is to everything that is above it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.draw import Curve as SampledCurve
from axis_path.core.draw import RealRelation, Window
from axis_path.core.errors import DomainError, UnknownNameError
from axis_path.core.evaluate import RealFunction, RealPath, RealSurface
from axis_path.core.kinds.drawing import Drawing
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.meaning import Kind
from axis_path.core.locate import Curve

Points = NDArray[np.float64]
#: A line in one position of the sliders, as it is drawn: points are (n, 2) floats.
Realised = RealFunction | RealPath | RealRelation | RealSurface | Points


def no_curve(real: Any) -> Curve:  # noqa: ANN401 - of any kind
    """Refuse a line that is no curve.

    Raises:
        DomainError: always.
    """
    raise DomainError("Only a curve can be located.")


def no_sample(real: Any, window: Window) -> SampledCurve:  # noqa: ANN401 - of any kind
    """Refuse a line that is no function and no path.

    Raises:
        UnknownNameError: always.
    """
    raise UnknownNameError("Only functions and paths are sampled.")


def no_reach(real: Any, window: Window) -> list[Points]:  # noqa: ANN401 - of any kind
    """Return nothing: a line of this kind has no size of its own."""
    return []


@dataclass(frozen=True, slots=True)
class LineKind:
    """A kind of line.

    Attributes:
        kind: its name.
        realise: returns a line that works as it is drawn; None if it is not drawn.
        draw: draws it; of a hidden line only the lane.
        curve: returns it in the form in which it is located; raises for what is no curve.
        sample: returns it as a sampled curve; raises for what is none.
        reach: returns points that show how far it reaches.
        stands_on_plane: whether it is drawn on the plane.
        has_family: whether it can be drawn for several values of a slider at once.
        names_axis: whether its variable names the axis across.
        says_if_undrawn: whether its row says so where a line that works is not drawn.
    """

    kind: Kind
    realise: Callable[[Curves, Definition], Realised | None]
    draw: Callable[[Any, Definition, Window, AngleUnit], Drawing]
    curve: Callable[[Any], Curve] = no_curve
    sample: Callable[[Any, Window], SampledCurve] = no_sample
    reach: Callable[[Any, Window], list[Points]] = no_reach
    stands_on_plane: bool = True
    has_family: bool = False
    names_axis: bool = False
    says_if_undrawn: bool = False


def name_of(definition: Definition) -> str:
    """Return what a line is called in sentences: its name, or its text."""
    return definition.name or f"“{definition.text}”"
