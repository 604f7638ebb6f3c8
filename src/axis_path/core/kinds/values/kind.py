"""Numbers, points, lists, matrices, notes and what does not read, as kinds of lines.

Points and lists of points are drawn where their values are computed (``states.py``).
"""

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


def _reach(real: Points, _window: Window) -> list[Points]:
    return [real]


def without_curve(kind: Kind, *, stands_on_plane: bool = False) -> LineKind:
    """Return a kind of line that is no curve."""
    return LineKind(kind, _nothing, _draw, reach=_reach, stands_on_plane=stands_on_plane)


POINT = without_curve(Kind.POINT, stands_on_plane=True)
PARAMETER, LIST, MATRIX, TRUTH, NOTE, UNREAD = map(
    without_curve,
    (Kind.PARAMETER, Kind.LIST, Kind.MATRIX, Kind.TRUTH, Kind.NOTE, Kind.UNREAD),
)
