"""All kinds of lines. A new one is a folder, and a line here."""

from axis_path.core.kinds.equations.kind import EQUATIONS
from axis_path.core.kinds.functions.kind import FUNCTION
from axis_path.core.kinds.kind import LineKind
from axis_path.core.kinds.maps.kind import SEVERAL
from axis_path.core.kinds.operations.kind import OPERATION
from axis_path.core.kinds.paths.kind import PATH, POLAR
from axis_path.core.kinds.relations.kind import REGION, RELATION
from axis_path.core.kinds.values.kind import LIST, MATRIX, NOTE, PARAMETER, POINT, TRUTH, UNREAD
from axis_path.core.lines.meaning import Kind

KINDS: dict[Kind, LineKind] = {
    kind.kind: kind
    for kind in (
        FUNCTION, SEVERAL, OPERATION, PATH, POLAR, RELATION, REGION, PARAMETER, POINT, LIST, MATRIX,
        TRUTH, EQUATIONS, NOTE, UNREAD,
    )
}  # fmt: skip
