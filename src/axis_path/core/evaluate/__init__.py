"""From trees to values, in three arithmetics: fast, enclosing, proving.

``compile`` puts trees into a graph, ``program`` runs what is needed of it on a backend,
``RealFunction`` is what the rest of the core sees. Read ``graph.py``, then ``function.py``.
"""

from axis_path.core.evaluate.backends import float_bounds, nearest_float
from axis_path.core.evaluate.compile import Compiler, Surroundings, UserFunction
from axis_path.core.evaluate.function import (
    VALUE_BITS,
    End,
    Expression,
    RealFunction,
    evaluate_constant,
)
from axis_path.core.evaluate.graph import Graph, Op
from axis_path.core.evaluate.program import run
from axis_path.core.evaluate.result import Result, decimal_text, digits_of, make_result

__all__ = [
    "VALUE_BITS",
    "Compiler",
    "End",
    "Expression",
    "Graph",
    "Op",
    "RealFunction",
    "Result",
    "Surroundings",
    "UserFunction",
    "decimal_text",
    "digits_of",
    "evaluate_constant",
    "float_bounds",
    "make_result",
    "nearest_float",
    "run",
]
