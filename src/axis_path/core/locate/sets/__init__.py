"""Solve sets of equations: in blocks, each as exactly as it can be.

Read ``structure.py`` (which equations determine which unknowns), then ``solve.py``.
"""

from axis_path.core.locate.sets.solve import SetSolution, SetSolutions, solve_set
from axis_path.core.locate.sets.structure import Structure, structure_of

__all__ = ["SetSolution", "SetSolutions", "Structure", "solve_set", "structure_of"]
