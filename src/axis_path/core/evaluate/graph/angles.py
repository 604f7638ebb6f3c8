"""Whether an expression takes its variable, or what is made of it, as an angle."""

from __future__ import annotations

from axis_path.core.evaluate.graph.graph import Op
from axis_path.core.evaluate.graph.period import WAVES
from axis_path.core.evaluate.graph.program import Program


def measures_angles(program: Program) -> bool:
    """Check whether a program takes the sine or the like of what depends on its variable."""
    depends: list[bool] = []
    for step in program.steps:
        is_dependent = step.op == Op.VARIABLE or any(
            depends[position] for position in step.arguments
        )
        if is_dependent and step.op in WAVES:
            return True
        depends.append(is_dependent)
    return False
