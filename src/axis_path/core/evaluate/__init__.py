"""From trees to values, in three arithmetics: fast, enclosing, proving.

``compile`` puts trees into a graph, ``program`` runs what is needed of it on a backend,
``RealFunction`` is what the rest of the core sees. Read ``graph.py``, then ``function.py``.
"""

from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.evaluate.backends.backends import float_bounds, nearest_float
from axis_path.core.evaluate.backends.enclosed import middles
from axis_path.core.evaluate.branches import Branches, Edge
from axis_path.core.evaluate.constants import (
    evaluate_complex,
    evaluate_constant,
    evaluate_together,
    has_zero_to_the_zero,
    sample_inputs,
)
from axis_path.core.evaluate.decimals import (
    decimal_places,
    decimal_text,
    digits_between,
    digits_of,
    multiple_of_pi,
)
from axis_path.core.evaluate.exact.exact_pool import (
    ExactForm,
    exact_form,
    exact_solutions,
    is_identity,
    run_exact_work_with,
)
from axis_path.core.evaluate.expression import HIGH, LOW, Expression
from axis_path.core.evaluate.function import (
    VALUE_BITS,
    Constant,
    End,
    RealFunction,
    constant_steps,
    prove_steps,
)
from axis_path.core.evaluate.graph.compile import Compiler
from axis_path.core.evaluate.graph.full import FullCompiler
from axis_path.core.evaluate.graph.graph import Graph, Op
from axis_path.core.evaluate.graph.parity import parity_about
from axis_path.core.evaluate.graph.period import Multiple, period
from axis_path.core.evaluate.graph.program import most_bits, run
from axis_path.core.evaluate.graph.shapes import ListSource, Shaped, Surroundings, UserFunction
from axis_path.core.evaluate.lists import inputs_of
from axis_path.core.evaluate.path import RealPath
from axis_path.core.evaluate.result import (
    Result,
    ResultKind,
    make_complex,
    make_list,
    make_point,
    make_result,
)
from axis_path.core.evaluate.settled import Known, nearest_whole
from axis_path.core.evaluate.shared_graph import SharedGraph
from axis_path.core.evaluate.surface import Boxes, RealSurface
from axis_path.core.evaluate.taylor import taylor

__all__ = [
    "HIGH",
    "LOW",
    "VALUE_BITS",
    "Boxes",
    "Branches",
    "Compiler",
    "Constant",
    "Edge",
    "End",
    "ExactForm",
    "Expression",
    "FullCompiler",
    "Graph",
    "Known",
    "ListSource",
    "Multiple",
    "Op",
    "RealFunction",
    "RealPath",
    "RealSurface",
    "Result",
    "ResultKind",
    "Shaped",
    "SharedGraph",
    "Surroundings",
    "UserFunction",
    "constant_steps",
    "decimal_places",
    "decimal_text",
    "digits_between",
    "digits_of",
    "evaluate_complex",
    "evaluate_constant",
    "evaluate_together",
    "exact_form",
    "exact_solutions",
    "float_bounds",
    "has_zero_to_the_zero",
    "inputs_of",
    "is_identity",
    "make_complex",
    "make_list",
    "make_point",
    "make_result",
    "middles",
    "most_bits",
    "multiple_of_pi",
    "nearest_float",
    "nearest_whole",
    "parity_about",
    "period",
    "prove_steps",
    "run",
    "run_exact_work_with",
    "sample_inputs",
    "taylor",
    "to_fraction",
]
