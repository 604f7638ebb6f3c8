"""Functions of lists and matrices, as a kind of line: they are called, not drawn."""

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.draw import Window
from axis_path.core.kinds.drawing import Drawing
from axis_path.core.kinds.kind import LineKind, Points, name_of
from axis_path.core.kinds.values.drawing import draw_points
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.meaning import Kind


def _nothing(_curves: Curves, _definition: Definition) -> None:
    return None


def _draw(real: Points, line: Definition, window: Window, _unit: AngleUnit) -> Drawing:
    return draw_points(name_of(line), real, window, is_hidden=line.hidden)


OPERATION = LineKind(Kind.OPERATION, _nothing, _draw)
