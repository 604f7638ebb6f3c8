"""Split an expression into factors whose zeros are easier to prove.

A quotient is zero where its top is, a product where a factor is, a root or a power where its base
is. So tan x is searched as sin x, (x - 1)^2 as x - 1, and 1/x - 2 as 1 - 2x. Whether a zero of a
factor is one of the whole is checked by whoever locates it: the whole may be undefined there.
"""

from __future__ import annotations

from fractions import Fraction

from axis_path.core.errors import LimitError
from axis_path.core.evaluate.graph import Graph, Op, Split, Step

#: Past this many new steps the splitting is given up; the expression is then searched as it is.
_LARGEST_GROWTH = 2_000
_NEVER_ZERO = {"exp", "cosh", "gamma"}
_ZERO_WITH_ARGUMENT = {
    "asinh",
    "atanh",
    "erf",
    "sqrt",
    "abs",
    "sign",
    "asin",
    "atan",
    "sinh",
    "tanh",
}


def zero_factors(graph: Graph, top: int, *, through_pieces: bool) -> list[int]:
    """Give steps such that every zero of ``top`` is a zero of at least one of them.

    Args:
        graph: where the steps are.
        top: the step that is searched.
        through_pieces: whether a function in pieces is split into the bodies of its pieces, whose
            zeros outside their own pieces are none of the function's.
    """
    before = len(graph.steps)
    try:
        numerator = _fractions(graph, top, before + _LARGEST_GROWTH)[0]
    except LimitError:
        numerator = top
    return _factors(graph, numerator, through_pieces=through_pieces)


def as_fraction(graph: Graph, top: int) -> tuple[int, int]:
    """Give a step as a quotient of two that hold no quotients of their own.

    Raises:
        LimitError: they would be too large.
    """
    return _fractions(graph, top, len(graph.steps) + _LARGEST_GROWTH)


def _factors(graph: Graph, top: int, *, through_pieces: bool) -> list[int]:
    found: list[int] = []
    waiting, seen = [top], set[int]()
    while waiting:
        index = waiting.pop()
        if index in seen:
            continue
        seen.add(index)
        step = graph.steps[index]
        if step.op == Op.MULTIPLY:
            waiting.extend(step.arguments)
        elif _is_zero_with_first(step):
            waiting.append(step.arguments[0])
        elif step.op in (Op.ADD, Op.SUBTRACT) and (split := _common(graph, index)) is not None:
            waiting.extend(split)
        elif through_pieces and isinstance(step.payload, Split):
            waiting.extend(step.arguments[place] for place in step.payload.bodies())
        elif step.op not in _NEVER_ZERO and not graph.value(index):
            found.append(index)
    return sorted(found)


def _common(graph: Graph, top: int) -> list[int] | None:
    """Take out what all terms of a sum have as a factor; None if there is nothing."""
    terms: list[tuple[int, int]] = []
    waiting = [(top, 1)]
    while waiting:
        index, sign = waiting.pop()
        step = graph.steps[index]
        if step.op == Op.NEGATIVE:
            waiting.append((step.arguments[0], -sign))
        elif step.op in (Op.ADD, Op.SUBTRACT):
            waiting.append((step.arguments[0], sign))
            waiting.append((step.arguments[1], sign if step.op == Op.ADD else -sign))
        else:
            terms.append((index, sign))
    factored = [_factors_of_term(graph, index) for index, _ in terms]
    shared = set(factored[0][0]).intersection(*(set(factors) for factors, _ in factored[1:]))
    shared = {index for index in shared if graph.value(index) is None}
    if not shared or len(terms) < 2:
        return None
    rest: int | None = None
    for (factors, negative), (_, sign) in zip(factored, terms, strict=True):
        left = list(factors)
        for each in shared:
            left.remove(each)
        made = graph.number(-1 if negative == (sign > 0) else 1)
        for factor in left:
            made = graph.times(made, factor)
        rest = made if rest is None else graph.plus(rest, made)
    return [*shared, rest if rest is not None else graph.number(0)]


def _factors_of_term(graph: Graph, top: int) -> tuple[list[int], bool]:
    """Give the factors of a product, and whether it has an odd number of minus signs."""
    found: list[int] = []
    negative = False
    waiting = [top]
    while waiting:
        step = graph.steps[waiting[-1]]
        index = waiting.pop()
        if step.op == Op.MULTIPLY:
            waiting.extend(step.arguments)
        elif step.op == Op.NEGATIVE:
            waiting.append(step.arguments[0])
            negative = not negative
        else:
            found.append(index)
    return found, negative


def _is_zero_with_first(step: Step) -> bool:
    """Tell whether a step can only be zero where its first argument is."""
    if step.op in (Op.INTEGER_POWER, Op.ROOT):
        return _is_positive_power(step.payload)
    return step.op in _ZERO_WITH_ARGUMENT or step.op in (
        Op.NEGATIVE, Op.WITHIN, Op.GUARD, Op.DIVIDE
    )  # fmt: skip


def _is_positive_power(payload: object) -> bool:
    exponent = _exponent(payload)
    return exponent is not None and exponent > 0


def _exponent(payload: object) -> Fraction | None:
    """Give the fixed exponent of a whole power or a root."""
    match payload:
        case int():
            return Fraction(payload)
        case (int(top), int(bottom)):
            return Fraction(top, bottom)
    return None


def _is_one_over(payload: object) -> bool:
    exponent = _exponent(payload)
    return exponent is not None and exponent < 0


def _fractions(graph: Graph, top: int, limit: int) -> tuple[int, int]:
    """Write ``top`` as a quotient whose parts hold no quotients of their own, if it has any."""
    one = graph.number(1)
    split: dict[int, tuple[int, int]] = {}
    for index in graph.reachable(top):
        if len(graph.steps) > limit:
            raise LimitError("The expression is too large to be split.")
        step = graph.steps[index]
        parts = [split[argument] for argument in step.arguments]
        whole = all(bottom == one for _, bottom in parts)
        split[index] = (index, one)
        if step.op == "tan":
            split[index] = (graph.call("sin", step.arguments), graph.call("cos", step.arguments))
        elif step.op == Op.DIVIDE:
            (a, b), (c, d) = parts
            split[index] = (graph.times(a, d), graph.times(b, c))
        elif whole and step.op in (Op.INTEGER_POWER, Op.ROOT) and _is_one_over(step.payload):
            exponent = graph.number(-(_exponent(step.payload) or 0))
            split[index] = (one, graph.to_the(step.arguments[0], exponent))
        elif step.op in (Op.WITHIN, Op.GUARD) or whole:
            split[index] = parts[0] if step.op in (Op.WITHIN, Op.GUARD) else (index, one)
        elif step.op in (Op.ADD, Op.SUBTRACT):
            (a, b), (c, d) = parts
            left, right = graph.times(a, d), graph.times(c, b)
            joined = graph.plus(left, right) if step.op == Op.ADD else graph.minus(left, right)
            split[index] = (joined, graph.times(b, d))
        elif step.op == Op.MULTIPLY:
            (a, b), (c, d) = parts
            split[index] = (graph.times(a, c), graph.times(b, d))
        elif step.op == Op.NEGATIVE:
            split[index] = (graph.negative(parts[0][0]), parts[0][1])
        elif step.op == Op.INTEGER_POWER and _is_positive_power(step.payload):
            a, b = parts[0]
            exponent = graph.number(step.payload if isinstance(step.payload, int) else 1)
            split[index] = (graph.to_the(a, exponent), graph.to_the(b, exponent))
    return split[top]
