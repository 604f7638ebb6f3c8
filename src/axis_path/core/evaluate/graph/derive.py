"""Derivatives on the graph, by the rules of calculus; those of functions are in the catalogue.

What comes out is for proofs and is not printed, so it is not simplified beyond what the graph
does while it is built. A derivative is undefined wherever its rule is, which is never too little:
``|x|`` has the rule ``u/|u|``, with no value at 0.
"""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from functools import cache

from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.errors import NotHandledError
from axis_path.core.evaluate.graph.compile import Compiler
from axis_path.core.evaluate.graph.graph import Fence, Graph, Inner, Op, Split, Step
from axis_path.core.evaluate.graph.shapes import Surroundings
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.language.tree import AngleUnit, Node, Summary

_RADIANS = Surroundings(AngleUnit.RADIANS, lambda name: None, lambda name: None)


@cache
def _rule(function: str, position: int) -> Node:
    vocabulary = Vocabulary(variables=frozenset({"u", "v"}))
    return read_expression(FUNCTIONS[function].derivative[position], vocabulary)


def derive(graph: Graph, top: int, by: int | None = None) -> int:
    """Return the step of the derivative of ``top``.

    Args:
        graph: where both stand.
        top: what is derived.
        by: the step it is derived by; the variable by default.

    Raises:
        NotHandledError: a function in it has no known derivative.
        LimitError: the graph grows too large.
    """
    by = graph.add(Op.VARIABLE) if by is None else by
    compiler = Compiler(graph, _RADIANS)
    derivatives: dict[int, int | None] = {}
    for index in graph.reachable(top):
        step = graph.steps[index]
        inner = [derivatives[argument] for argument in step.arguments]
        if index == by:
            derivatives[index] = graph.number(1)
        elif step.op == Op.WITHIN:
            derivatives[index] = _within(graph, step, inner[0])
        elif step.op == Op.GUARD:
            derivatives[index] = inner[0]
        elif all(slope is None for slope in inner):
            # None is a derivative of 0: the step does not hold the variable.
            derivatives[index] = None
        elif step.op == Op.MULTIPLY and (power := _as_one_power(graph, step)) is not None:
            base, exponent = power
            lower = graph.to_the(base, graph.number(exponent - 1))
            outer = graph.times(graph.number(exponent), lower)
            derivatives[index] = graph.times(outer, derivatives[base] or graph.number(0))
        else:
            derivatives[index] = _derived(compiler, index, inner)
    derivative = derivatives[top]
    return graph.number(0) if derivative is None else derivative


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
        case Op.PIECES:
            return _pieces(graph, step, inner)
        case Op.OVER:
            return _summary(graph, step, inner)
        case _:
            return _function(compiler, step, inner)


def _product(graph: Graph, step: Step, da: int | None, db: int | None) -> int:
    a, b = step.arguments
    terms = [
        None if da is None else graph.times(da, b),
        None if db is None else graph.times(a, db),
    ]
    return _sum(graph, terms)


def _as_one_power(graph: Graph, step: Step) -> tuple[int, Fraction] | None:
    """Return ``x^2 sqrt(x)`` as a base and an exponent; None for what is not of this kind.

    The rule of products would have a value nowhere at 0, where the root has no slope. One exponent
    is whole and the other is not, so that the derivative is defined where the product is.
    """
    (base, one), (other, two) = (_base_and_exponent(graph, argument) for argument in step.arguments)
    is_whole = one.denominator == 1, two.denominator == 1
    if base != other or one <= 0 or two <= 0 or is_whole[0] == is_whole[1]:
        return None
    return base, one + two


def _base_and_exponent(graph: Graph, index: int) -> tuple[int, Fraction]:
    step = graph.steps[index]
    if step.op == Op.INTEGER_POWER and isinstance(step.payload, int):
        return step.arguments[0], Fraction(step.payload)
    if step.op == Op.ROOT and isinstance(step.payload, tuple):
        return step.arguments[0], Fraction(*step.payload)
    if step.op == "sqrt":
        return step.arguments[0], Fraction(1, 2)
    return index, Fraction(1)


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
    if graph.value(exponent) == 0:
        # x^0 is 1 at 0 too, and level there.
        return graph.number(0)
    lower = graph.to_the(base, graph.minus(exponent, graph.number(1)))
    return graph.times(graph.times(exponent, lower), da)


def _power(graph: Graph, index: int, da: int | None, db: int | None) -> int:
    a, b = graph.steps[index].arguments
    terms: list[int | None] = []
    if da is not None:
        lower = graph.add(Op.POWER, (a, graph.minus(b, graph.number(1))))
        terms.append(graph.times(graph.times(b, lower), da))
    if db is not None:
        # The logarithm of e is 1, to the last digit.
        is_e = graph.steps[a] == Step(Op.CONSTANT, payload="e")
        rate = index if is_e else graph.times(index, graph.call("ln", (a,)))
        terms.append(graph.times(rate, db))
    return _sum(graph, terms)


def _pieces(graph: Graph, step: Step, inner: list[int | None]) -> int:
    """Derive every piece; where two meet there is no derivative by this rule, so ends are open."""
    split = step.payload
    if not isinstance(split, Split):
        raise TypeError("pieces have a split")
    arguments, fences, at = [step.arguments[0]], list[Fence | None](), 1
    for fence in split.fences:
        count = 0 if fence is None else fence.count
        body = inner[at]
        arguments.append(graph.number(0) if body is None else body)
        arguments.extend(step.arguments[at + 1 : at + 1 + count])
        fences.append(None if fence is None else _opened(fence))
        at += 1 + count
    made = graph.add(
        Op.PIECES, tuple(arguments), Split(tuple(fences), "a derivative where two pieces meet")
    )
    # At an end that is open now, the piece that holds everywhere else must not step in.
    edges = dict.fromkeys(_bounds_of(step, split))
    if not edges:
        return made
    fence = Fence(None, None, len(edges), "a derivative where two pieces meet")
    return graph.add(Op.WITHIN, (made, step.arguments[0], *edges), fence)


def _opened(fence: Fence) -> Fence:
    return replace(
        fence,
        low=None if fence.low is None else False,
        high=None if fence.high is None else False,
    )


def _bounds_of(step: Step, split: Split) -> list[int]:
    bounds, at = list[int](), 1
    for fence in split.fences:
        count = 0 if fence is None else fence.count
        bounds.extend(step.arguments[at + 1 : at + 1 + count])
        at += 1 + count
    return bounds


def _summary(graph: Graph, step: Step, inner: list[int | None]) -> int:
    """Derive an integral by Leibniz's rule, and a sum term by term."""
    body = step.payload
    if not isinstance(body, Inner):
        raise TypeError("a summary has a body")
    low, high, *captured = step.arguments
    outside = tuple(captured)
    is_integral = body.summary is Summary.INTEGRAL
    if not is_integral and (inner[0] is not None or inner[1] is not None):
        raise NotHandledError(f"A {body.summary.value} whose ends move has no derivative here.")
    if body.summary is Summary.PRODUCT:
        raise NotHandledError("The derivative of a product of many factors is not handled.")
    terms: list[int | None] = []
    for end, slope, side in ((high, inner[1], 1), (low, inner[0], -1)):
        if slope is not None:
            at_end = graph.times(graph.instantiate(body, outside, end), slope)
            terms.append(at_end if side == 1 else graph.negative(at_end))
    if any(slope is not None for slope in inner[2:]):
        bound = graph.add(Op.INPUT, payload=f"#derived{len(graph.steps)}")
        inputs = [graph.add(Op.INPUT, payload=f"#input{k}-{bound}") for k in range(len(outside))]
        raw = graph.instantiate(body, tuple(inputs), bound)
        moved: list[int | None] = []
        for position, slope in zip(inputs, inner[2:], strict=True):
            if slope is not None:
                moved.append(graph.times(derive(graph, raw, position), slope))
        under = _sum(graph, moved)
        for position, outer in zip(inputs, outside, strict=True):
            under = graph.substitute(under, position, outer)
        terms.append(graph.summarise(body.summary, under, bound, (low, high)))
    return _sum(graph, terms)


def _function(compiler: Compiler, step: Step, inner: list[int | None]) -> int:
    if not FUNCTIONS[step.op].derivative:
        raise NotHandledError(f"`{step.op}` has no derivative that is known here.")
    variables = dict(zip(("u", "v"), step.arguments, strict=False))
    terms = [
        None
        if derivative is None
        else compiler.graph.times(compiler.compile(_rule(step.op, position), variables), derivative)
        for position, derivative in enumerate(inner)
    ]
    return _sum(compiler.graph, terms)
