"""Functions made from a text, without a study around them."""

from axis_path.core import Study
from axis_path.core.catalogue import FunctionEntry
from axis_path.core.evaluate import Expression, FullCompiler, Graph, Op, RealFunction, Surroundings
from axis_path.core.features.findings import Systems
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.language.tree import AngleUnit


def make_function(text: str, unit: AngleUnit = AngleUnit.RADIANS) -> RealFunction:
    graph = Graph()
    compiler = FullCompiler(graph, Surroundings(unit, lambda name: None, lambda name: None))
    variable = graph.add(Op.VARIABLE)
    tree = read_expression(text, Vocabulary(variables=frozenset({"x"})))
    step = compiler.compile(tree, {"x": variable})
    return RealFunction("f", "x", Expression(graph, step))


def is_of_lists(entry: FunctionEntry) -> bool:
    """Check whether a function is one of lists, matrices or whole numbers as such."""
    return entry.arrays is not None and entry.arrays.counts is None


def systems(study: Study) -> Systems:
    """Return what solves linear systems, and two equations in a box."""
    return study.snapshot.query(Systems)
