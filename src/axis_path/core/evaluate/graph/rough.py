"""Where the functions of the catalogue are rough, as steps of a graph."""

from __future__ import annotations

from functools import cache

from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.evaluate.graph.compile import Compiler
from axis_path.core.evaluate.graph.graph import Graph, Step
from axis_path.core.evaluate.graph.shapes import Surroundings
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.language.tree import AngleUnit, Node

_RADIANS = Surroundings(AngleUnit.RADIANS, lambda name: None, lambda name: None)


@cache
def _rough_rules(function: str) -> tuple[Node, ...] | None:
    vocabulary = Vocabulary(variables=frozenset({"u", "v"}))
    rough = FUNCTIONS[function].rough
    return (
        None
        if rough is None
        else tuple(read_expression(expression, vocabulary) for expression in rough)
    )


def rough_edges(graph: Graph, step: Step) -> list[int] | None:
    """Return the steps at whose zeros a function is rough, in the order of its entry.

    Args:
        graph: where the steps are, and are made.
        step: a function of the catalogue with its arguments.

    Returns:
        None if they are not known.
    """
    rules = _rough_rules(step.op)
    if rules is None:
        return None
    compiler = Compiler(graph, _RADIANS)
    variables = dict(zip(("u", "v"), step.arguments, strict=False))
    return [compiler.compile(rule, variables) for rule in rules]
