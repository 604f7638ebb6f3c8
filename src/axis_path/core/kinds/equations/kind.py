"""Sets of equations, as a kind of line: their values are used elsewhere, nothing is drawn."""

from axis_path.core.kinds.values.kind import without_curve
from axis_path.core.lines.meaning import Kind

EQUATIONS = without_curve(Kind.EQUATIONS)
