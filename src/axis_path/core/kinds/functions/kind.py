"""Functions of one variable, as a kind of line."""

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.draw import Window, sample_curve
from axis_path.core.evaluate import RealFunction
from axis_path.core.kinds.drawing import Drawing
from axis_path.core.kinds.functions.drawing import draw_function
from axis_path.core.kinds.kind import LineKind
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.meaning import Kind


def _draw(real: RealFunction, line: Definition, window: Window, _unit: AngleUnit) -> Drawing:
    return draw_function(real, window, is_hidden=line.hidden)


def _same(real: RealFunction) -> RealFunction:
    return real


FUNCTION = LineKind(
    Kind.FUNCTION, Curves.real_function, _draw, curve=_same, sample=sample_curve,
    has_family=True, names_axis=True,
)  # fmt: skip
