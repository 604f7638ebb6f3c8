"""Algebra step by step: the reduction of a matrix, row operation by row operation.

Nothing here knows of studies or text. Read ``reduction.py``.
"""

from axis_path.core.algebra.operations import Operation, apply_operation, read_operation
from axis_path.core.algebra.reduction import (
    Progress,
    RowReduction,
    Step,
    progress_of,
    reduce_rows,
)
from axis_path.core.algebra.solution_set import SolutionKind, SolutionSet, solution_set

__all__ = [
    "Operation",
    "Progress",
    "RowReduction",
    "SolutionKind",
    "SolutionSet",
    "Step",
    "apply_operation",
    "progress_of",
    "read_operation",
    "reduce_rows",
    "solution_set",
]
