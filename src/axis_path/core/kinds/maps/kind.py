"""Functions of several variables, as a kind of line: those of x and y are maps of levels."""

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.draw import Window
from axis_path.core.evaluate import RealSurface
from axis_path.core.kinds.drawing import Drawing
from axis_path.core.kinds.kind import LineKind, name_of
from axis_path.core.kinds.maps.drawing import draw_map
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.meaning import Kind


def _realise(curves: Curves, definition: Definition) -> RealSurface | None:
    return curves.surface(definition) if definition.variables == ("x", "y") else None


def _draw(real: RealSurface, line: Definition, window: Window, _unit: AngleUnit) -> Drawing:
    return draw_map(name_of(line), real, window, is_hidden=line.hidden)


SEVERAL = LineKind(Kind.SEVERAL, _realise, _draw, says_if_undrawn=True)
