"""Functions of lists and matrices, as a kind of line: they are called, not drawn."""

from axis_path.core.kinds.values.kind import without_curve
from axis_path.core.lines.meaning import Kind

OPERATION = without_curve(Kind.OPERATION)
