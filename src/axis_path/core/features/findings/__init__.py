"""Findings: what is located, measured and solved, and the questions stored with a study."""

from axis_path.core.features.findings.measures import Measures
from axis_path.core.features.findings.searches import Searches
from axis_path.core.features.findings.solver import Solver
from axis_path.core.features.findings.systems import Systems

__all__ = ["Measures", "Searches", "Solver", "Systems"]
