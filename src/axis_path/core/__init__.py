"""The mathematics of Axis Path: no web, no database, no clock, no chance.

This is its public face. ``arithmetic`` knows numbers, ``catalogue`` functions, ``language`` texts,
``evaluate`` values; ``draw``, ``locate`` and ``tabulate`` answer questions about functions, and
``study`` holds it all together. Each uses only those named before it.
"""

from axis_path.core.deadline import Deadline, deadline_scope
from axis_path.core.draw import Curve, Window
from axis_path.core.errors import MathError
from axis_path.core.evaluate import Result
from axis_path.core.locate import Finding, Findings
from axis_path.core.study import Definition, Scene, Study
from axis_path.core.tabulate import ValueTable

__all__ = [
    "Curve",
    "Deadline",
    "Definition",
    "Finding",
    "Findings",
    "MathError",
    "Result",
    "Scene",
    "Study",
    "ValueTable",
    "Window",
    "deadline_scope",
]
