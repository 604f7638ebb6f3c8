"""Derivatives on the graph, by the rules of calculus; those of functions are in the catalogue.

What comes out is for proofs and is not printed, so it is not simplified beyond what the graph
does while it is built. A derivative is undefined wherever its rule is, which is never too little:
``|x|`` has the rule ``u/|u|``, with no value at 0.
"""

from __future__ import annotations

from functools import cache

from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.evaluate.compile import Compiler, Surroundings
from axis_path.core.evaluate.graph import Graph, Op, Step
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.language.tree import AngleUnit, Node

_RADIANS = Surroundings(AngleUnit.RADIANS, lambda name: None, lambda name: None)


@cache
def _rule(function: str, place: int) -> Node:
    vocabulary = Vocabulary(variables=frozenset({"u", "v"}))
    return read_expression(FUNCTIONS[function].derivative[place], vocabulary)


def derive(graph: Graph, top: int) -> int:
    """Give the step of the derivative of ``top`` by the variable.

    Raises:
        LimitError: the graph grows too large.
    """
    compiler = Compiler(graph, _RADIANS)
    derivatives: dict[int, int | None] = {}
    for index in graph.reachable(top):
        step = graph.steps[index]
        inner = [derivatives[argument] for argument in step.arguments]
        if step.op == Op.VARIABLE:
            derivatives[index] = graph.number(1)
        elif step.op == Op.WITHIN:
            derivatives[index] = _within(graph, step, inner[0])
        elif all(each is None for each in inner):
            # None is a derivative of 0: the step does not hold the variable.
            derivatives[index] = None
        else:
            derivatives[index] = _derived(compiler, index, inner)
    found = derivatives[top]
    return graph.number(0) if found is None else found


def _within(graph: Graph, step: Step, body: int | None) -> int:
    inner = graph.number(0) if body is None else body
    return graph.add(Op.WITHIN, (inner, *step.arguments[1:]), step.payload)


def _sum(graph: Graph, terms: list[int | None]) -> int:
    present = [term for term in terms if term is not None]
    total = present[0]
    for term in present[1:]:
        total = graph.plus(total, term)
    return total


def _derived(compiler: Compiler, index: int, inner: list[int | None]) -> int:
    graph = compiler.graph
    step = graph.steps[index]
    da = inner[0]
    db = inner[1] if len(inner) > 1 else None
    match step.op:
        case Op.ADD:
            return _sum(graph, inner)
        case Op.SUBTRACT:
            return _sum(graph, [da, None if db is None else graph.negative(db)])
        case Op.NEGATIVE:
            return graph.negative(_sum(graph, inner))
        case Op.MULTIPLY:
            return _product(graph, step, da, db)
        case Op.DIVIDE:
            return _quotient(graph, index, da, db)
        case Op.INTEGER_POWER | Op.ROOT:
            return _fixed_power(graph, step, _sum(graph, inner))
        case Op.POWER:
            return _power(graph, index, da, db)
        case _:
            return _function(compiler, step, inner)


def _product(graph: Graph, step: Step, da: int | None, db: int | None) -> int:
    a, b = step.arguments
    terms = [
        None if da is None else graph.times(da, b),
        None if db is None else graph.times(a, db),
    ]
    return _sum(graph, terms)


def _quotient(graph: Graph, index: int, da: int | None, db: int | None) -> int:
    # (a/b)' = (a' - (a/b) b') / b, which shares a/b with the function.
    b = graph.steps[index].arguments[1]
    top = [
        da,
        None if db is None else graph.negative(graph.times(index, db)),
    ]
    return graph.over(_sum(graph, top), b)


def _fixed_power(graph: Graph, step: Step, da: int) -> int:
    base = step.arguments[0]
    if isinstance(step.payload, tuple):
        top, bottom = step.payload
        exponent = graph.over(graph.number(top), graph.number(bottom))
    else:
        exponent = graph.number(step.payload if isinstance(step.payload, int) else 0)
    lower = graph.to_the(base, graph.minus(exponent, graph.number(1)))
    return graph.times(graph.times(exponent, lower), da)


def _power(graph: Graph, index: int, da: int | None, db: int | None) -> int:
    a, b = graph.steps[index].arguments
    terms: list[int | None] = []
    if da is not None:
        lower = graph.add(Op.POWER, (a, graph.minus(b, graph.number(1))))
        terms.append(graph.times(graph.times(b, lower), da))
    if db is not None:
        terms.append(graph.times(graph.times(index, graph.call("ln", (a,))), db))
    return _sum(graph, terms)


def _function(compiler: Compiler, step: Step, inner: list[int | None]) -> int:
    variables = dict(zip(("u", "v"), step.arguments, strict=False))
    terms = [
        None
        if derivative is None
        else compiler.graph.times(compiler.compile(_rule(step.op, place), variables), derivative)
        for place, derivative in enumerate(inner)
    ]
    return _sum(compiler.graph, terms)
