"""From trees to values, in three arithmetics: fast, enclosing, proving.

``compile`` puts trees into a graph, ``program`` runs what is needed of it on a backend,
``RealFunction`` is what the rest of the core sees. Read ``graph.py``, then ``function.py``.
"""

from axis_path.core.evaluate.backends import float_bounds, nearest_float
from axis_path.core.evaluate.compile import (
    Compiler,
    ListSource,
    Shaped,
    Surroundings,
    UserFunction,
)
from axis_path.core.evaluate.enclosed import middles
from axis_path.core.evaluate.exact_pool import ExactForm, exact_form
from axis_path.core.evaluate.full import FullCompiler
from axis_path.core.evaluate.function import (
    VALUE_BITS,
    End,
    Expression,
    RealFunction,
    evaluate_complex,
    evaluate_constant,
    sample_inputs,
)
from axis_path.core.evaluate.graph import Graph, Op
from axis_path.core.evaluate.lists import inputs_of
from axis_path.core.evaluate.path import RealPath
from axis_path.core.evaluate.program import most_bits, run
from axis_path.core.evaluate.result import (
    Result,
    ResultKind,
    decimal_text,
    digits_between,
    digits_of,
    make_complex,
    make_list,
    make_point,
    make_result,
    multiple_of_pi,
)
from axis_path.core.evaluate.surface import Boxes, RealSurface

__all__ = [
    "VALUE_BITS",
    "Boxes",
    "Compiler",
    "End",
    "ExactForm",
    "Expression",
    "FullCompiler",
    "Graph",
    "ListSource",
    "Op",
    "RealFunction",
    "RealPath",
    "RealSurface",
    "Result",
    "ResultKind",
    "Shaped",
    "Surroundings",
    "UserFunction",
    "decimal_text",
    "digits_between",
    "digits_of",
    "evaluate_complex",
    "evaluate_constant",
    "exact_form",
    "float_bounds",
    "inputs_of",
    "make_complex",
    "make_list",
    "make_point",
    "make_result",
    "middles",
    "most_bits",
    "multiple_of_pi",
    "nearest_float",
    "run",
    "sample_inputs",
]
