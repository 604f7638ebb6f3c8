"""Paths and curves by an angle, as kinds of lines."""

import numpy as np

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.draw import Window, sample_path
from axis_path.core.evaluate import RealPath
from axis_path.core.kinds.drawing import Drawing
from axis_path.core.kinds.kind import LineKind, Points
from axis_path.core.kinds.paths.drawing import draw_path
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.meaning import Kind

#: By so many points it is seen how far a path reaches.
_REACH_POINTS = 1_001


def _draw(real: RealPath, line: Definition, window: Window, unit: AngleUnit) -> Drawing:
    return draw_path(real, window, unit, is_hidden=line.hidden)


def _same(real: RealPath) -> RealPath:
    return real


def _reach(real: RealPath, _window: Window) -> list[Points]:
    return [real.points(np.linspace(real.low.near, real.high.near, _REACH_POINTS))]


def _kind(kind: Kind) -> LineKind:
    return LineKind(
        kind, Curves.real_path, _draw, curve=_same, sample=sample_path, reach=_reach,
        has_family=True,
    )  # fmt: skip


PATH, POLAR = _kind(Kind.PATH), _kind(Kind.POLAR)
