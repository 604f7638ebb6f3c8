"""Split an expression into factors whose zeros are easier to prove.

A quotient is zero where its top is, a product where a factor is, a root or a power where its base
is. So tan x is searched as sin x, (x - 1)^2 as x - 1, and 1/x - 2 as 1 - 2x. Whether a zero of a
factor is one of the whole is checked by whoever locates it: the whole may be undefined there.
"""

from __future__ import annotations

from fractions import Fraction

from axis_path.core.errors import LimitError
from axis_path.core.evaluate.graph.graph import Graph, Op, Split, Step

#: Past this many new steps the splitting is given up; the expression is then searched as it is.
_LARGEST_GROWTH = 2_000
#: Whole powers are looked for up to this exponent.
LARGEST_EXPONENT = 400
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
    """Return steps such that every zero of ``top`` is a zero of at least one of them.

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
    """Return a step as a quotient of two that hold no quotients of their own.

    Raises:
        LimitError: they would be too large.
    """
    return _fractions(graph, top, len(graph.steps) + _LARGEST_GROWTH)


def _factors(graph: Graph, top: int, *, through_pieces: bool) -> list[int]:
    steps: list[int] = []
    waiting, visited = [top], set[int]()
    while waiting:
        index = waiting.pop()
        if index in visited:
            continue
        visited.add(index)
        step = graph.steps[index]
        if step.op == Op.MULTIPLY:
            waiting.extend(step.arguments)
        elif is_never_zero(graph, step):
            continue
        elif _is_zero_with_first(step):
            waiting.append(step.arguments[0])
        elif (twice := _twice(graph, step)) is not None:
            waiting.append(twice)
        elif step.op in (Op.ADD, Op.SUBTRACT) and (split := _common(graph, index)) is not None:
            waiting.extend(split)
        elif through_pieces and isinstance(step.payload, Split):
            waiting.extend(step.arguments[position] for position in step.payload.bodies())
        elif not graph.value(index):
            steps.append(index)
    return sorted(steps)


def is_never_zero(graph: Graph, step: Step) -> bool:
    """Check whether a step is above or below zero wherever it has a value."""
    if step.op == Op.POWER:
        base = graph.steps[step.arguments[0]]
        value = base.payload
        return base.op == Op.CONSTANT or (isinstance(value, Fraction) and value > 0)
    return step.op in _NEVER_ZERO


def _twice(graph: Graph, step: Step) -> int | None:
    """Return u for a step that is u + u or u - (-u); None for any other."""
    if step.op not in (Op.ADD, Op.SUBTRACT):
        return None
    one, other = step.arguments
    if step.op == Op.ADD:
        return one if one == other else None
    for u, v in ((one, other), (other, one)):
        if graph.steps[v] == Step(Op.NEGATIVE, (u,)):
            return u
    return None


def is_zero(graph: Graph, top: int) -> bool:
    """Check whether a step is zero wherever it has a value: its terms cancel one another."""
    before = len(graph.steps)
    try:
        numerator = _fractions(graph, top, before + _LARGEST_GROWTH)[0]
    except LimitError:
        return False
    sums: dict[tuple[int, ...], Fraction] = {}
    for index, sign in terms_of(graph, numerator):
        factors, is_negative = factors_of_term(graph, index)
        times = Fraction(-sign if is_negative else sign)
        rest = []
        for factor in factors:
            value = graph.value(factor)
            if value is None:
                rest.append(factor)
            else:
                times *= value
        key = tuple(sorted(rest))
        sums[key] = sums.get(key, Fraction(0)) + times
    return not any(sums.values())


def implied_zeros(graph: Graph, zeros: frozenset[int]) -> frozenset[int]:
    """Return the steps that are zero where some others are: those, and what makes them zero."""
    steps: set[int] = set()
    waiting = list(zeros)
    while waiting:
        index = waiting.pop()
        if index in steps:
            continue
        steps.add(index)
        step = graph.steps[index]
        if _is_zero_with_first(step):
            waiting.append(step.arguments[0])
        elif (twice := _twice(graph, step)) is not None:
            waiting.append(twice)
        elif step.op == Op.MULTIPLY:
            for one, other in (step.arguments, step.arguments[::-1]):
                if graph.value(one):
                    waiting.append(other)
    return frozenset(steps)


def solved(graph: Graph, step: int) -> int | None:
    """Return the number at which a step is zero, if it is a times the variable plus b.

    Returns:
        The step of -b/a; None for any other step.
    """
    variable = graph.add(Op.VARIABLE)
    factor: int | None = None
    rest = graph.number(0)
    for index, sign in terms_of(graph, step):
        if variable not in graph.reachable(index):
            rest = graph.plus(rest, index) if sign > 0 else graph.minus(rest, index)
            continue
        times = _times_variable(graph, index, variable)
        if factor is not None or times is None:
            return None
        factor = times if sign > 0 else graph.negative(times)
    return None if factor is None else graph.over(graph.negative(rest), factor)


def _times_variable(graph: Graph, index: int, variable: int) -> int | None:
    """Return a for a step that is a times the variable."""
    step = graph.steps[index]
    if index == variable:
        return graph.number(1)
    if step.op in (Op.MULTIPLY, Op.DIVIDE) and step.arguments[0] == variable:
        other = step.arguments[1]
        if variable not in graph.reachable(other):
            return other if step.op == Op.MULTIPLY else graph.over(graph.number(1), other)
    if step.op == Op.MULTIPLY and step.arguments[1] == variable:
        return None if variable in graph.reachable(step.arguments[0]) else step.arguments[0]
    return None


def terms_of(graph: Graph, top: int) -> list[tuple[int, int]]:
    """Return the terms of a sum, each with its sign."""
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
    return terms


def _common(graph: Graph, top: int) -> list[int] | None:
    """Take out what all terms of a sum have as a factor; None if there is nothing."""
    terms = terms_of(graph, top)
    factored = [factors_of_term(graph, index) for index, _ in terms]
    shared = set(factored[0][0]).intersection(*(set(factors) for factors, _ in factored[1:]))
    shared = {index for index in shared if graph.value(index) is None}
    if not shared or len(terms) < 2:
        return None
    rest: int | None = None
    for (factors, negative), (_, sign) in zip(factored, terms, strict=True):
        left = list(factors)
        for factor in shared:
            left.remove(factor)
        made = graph.number(-1 if negative == (sign > 0) else 1)
        for factor in left:
            made = graph.times(made, factor)
        rest = made if rest is None else graph.plus(rest, made)
    return [*shared, rest if rest is not None else graph.number(0)]


def factors_of_term(graph: Graph, top: int) -> tuple[list[int], bool]:
    """Return the factors of a product, and whether it has an odd number of minus signs."""
    steps: list[int] = []
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
            steps.append(index)
    return steps, negative


def _is_zero_with_first(step: Step) -> bool:
    """Check whether a step can only be zero where its first argument is."""
    if step.op in (Op.INTEGER_POWER, Op.ROOT):
        return _is_positive_power(step.payload)
    return step.op in _ZERO_WITH_ARGUMENT or step.op in (
        Op.NEGATIVE, Op.WITHIN, Op.GUARD, Op.DIVIDE, Op.POWER
    )  # fmt: skip


def _is_positive_power(payload: object) -> bool:
    exponent = _exponent(payload)
    return exponent is not None and exponent > 0


def _exponent(payload: object) -> Fraction | None:
    """Return the fixed exponent of a whole power or a root."""
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
    moves: set[int] = set()
    for index in graph.reachable(top):
        if len(graph.steps) > limit:
            raise LimitError("The expression is too large to be split.")
        step = graph.steps[index]
        split[index] = (index, one)
        if step.op not in (Op.VARIABLE, Op.INPUT) and moves.isdisjoint(step.arguments):
            # A number: what is divided by it is no quotient.
            continue
        moves.add(index)
        parts = [split[argument] for argument in step.arguments]
        is_by_number = step.op == Op.DIVIDE and step.arguments[1] not in moves
        if not (is_by_number and parts[0][1] == one):
            split[index] = _fraction(graph, index, parts) or split[index]
    return split[top]


def _fraction(graph: Graph, index: int, parts: list[tuple[int, int]]) -> tuple[int, int] | None:
    """Write one step as a quotient of two steps, given those of its arguments; None for itself."""
    one = graph.number(1)
    step = graph.steps[index]
    whole = all(bottom == one for _, bottom in parts)
    if step.op == "tan":
        return graph.call("sin", step.arguments), graph.call("cos", step.arguments)
    if whole and step.op in (Op.INTEGER_POWER, Op.ROOT) and _is_one_over(step.payload):
        exponent = graph.number(-(_exponent(step.payload) or 0))
        return one, graph.to_the(step.arguments[0], exponent)
    if step.op in (Op.WITHIN, Op.GUARD):
        return parts[0]
    if whole and step.op != Op.DIVIDE:
        return None
    match step.op, parts:
        case Op.DIVIDE, [(a, b), (c, d)]:
            return graph.times(a, d), graph.times(b, c)
        case ((Op.ADD | Op.SUBTRACT), [(a, b), (c, d)]):
            left, right = graph.times(a, d), graph.times(c, b)
            joined = graph.plus(left, right) if step.op == Op.ADD else graph.minus(left, right)
            return joined, graph.times(b, d)
        case Op.MULTIPLY, [(a, b), (c, d)]:
            return graph.times(a, c), graph.times(b, d)
        case Op.NEGATIVE, [(a, b)]:
            return graph.negative(a), b
        case Op.INTEGER_POWER, [(a, b)] if _is_positive_power(step.payload):
            exponent = graph.number(step.payload if isinstance(step.payload, int) else 1)
            return graph.to_the(a, exponent), graph.to_the(b, exponent)
    return None
