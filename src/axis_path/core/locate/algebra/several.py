"""Factors of polynomials in several parts, such as x^2 - 2 pi x + pi^2 in x and pi.

Whatever is no sum, product or whole power counts as a part of its own: numbers such as pi, and
functions of the variable. What holds for every value of the parts holds for those that they have,
so a square that is found here is one. That none is found says nothing.

Source: the factoring of polynomials in several variables, in FLINT.
"""

from __future__ import annotations

from fractions import Fraction

from flint import Ordering, fmpq, fmpq_mpoly, fmpq_mpoly_ctx

from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.evaluate import Expression, Op, RealFunction
from axis_path.core.evaluate.graph.graph import Step
from axis_path.core.locate.algebra.inner import InnerFactor, power_of, root_degree

#: Larger ones are not factored: that takes long, and cannot be stopped.
_MOST_PARTS, _HIGHEST_DEGREE, _MOST_TERMS, _MOST_BITS = 5, 12, 80, 400
_SUMS = frozenset({Op.ADD, Op.SUBTRACT, Op.NEGATIVE, Op.MULTIPLY})


def factors_in_parts(function: RealFunction, expression: Expression) -> list[InnerFactor] | None:
    """Return factors whose zeros, together, are those of a polynomial in several parts.

    Args:
        function: it has the values of the sliders.
        expression: of its graph.

    Returns:
        None if it has one factor only, once, or is too large.
    """
    steps = expression.program.steps
    polynomial_parts = _parts_of(steps, expression.program.results[0])
    if len(polynomial_parts) > _MOST_PARTS:
        return None
    powers = _powers_among(steps, polynomial_parts)
    parts = [position for position in polynomial_parts if position not in powers]
    context = fmpq_mpoly_ctx.get([f"u{k}" for k in range(len(parts))], Ordering.lex)
    known = dict(zip(parts, context.gens(), strict=True))
    known |= {position: known[base] ** times for position, (base, times) in powers.items()}
    whole = _polynomial(function, steps, known, context)
    if whole is None:
        return None
    _, factors = whole.factor()
    if len(factors) < 2 and all(times == 1 for _, times in factors):
        return None
    return [
        InnerFactor(expression.polynomial_in(parts, _terms(factor)), int(times))
        for factor, times in factors
    ]


def cancels_in_parts(function: RealFunction, expression: Expression) -> bool:
    """Check whether an expression is zero as a polynomial in its parts, as sqrt(u)^2 - u is.

    Args:
        function: it has the values of the sliders.
        expression: of its graph.
    """
    steps = expression.program.steps
    parts = _parts_of(steps, expression.program.results[0], through_roots=True)
    if len(parts) > _MOST_PARTS:
        return False
    # What is made of other parts stands before these, so that it is divided out first.
    parts.reverse()
    context = fmpq_mpoly_ctx.get([f"u{k}" for k in range(len(parts))], Ordering.lex)
    made = _polynomials(function, steps, dict(zip(parts, context.gens(), strict=True)), context)
    rest = made.get(len(steps) - 1)
    for position in parts:
        degree = root_degree(steps[position])
        inner = made.get(steps[position].arguments[0]) if degree else None
        if rest is not None and degree is not None and inner is not None:
            rest = divmod(rest, made[position] ** degree - inner)[1]
    return rest is not None and rest == 0


def _parts_of(steps: tuple[Step, ...], top: int, *, through_roots: bool = False) -> list[int]:
    """Return the places of the parts of a step, in order; also of what roots are taken of."""
    parts, waiting, sampled = set[int](), [top], set[int]()
    while waiting:
        position = waiting.pop()
        if position in sampled:
            continue
        sampled.add(position)
        if _is_sum(steps, position):
            waiting.extend(steps[position].arguments)
        elif steps[position].op not in (Op.NUMBER, Op.PARAMETER):
            parts.add(position)
            if through_roots and root_degree(steps[position]):
                waiting.extend(steps[position].arguments)
    return sorted(parts)


def _powers_among(steps: tuple[Step, ...], parts: list[int]) -> dict[int, tuple[int, int]]:
    """Return the parts that are powers of another one, with that and the exponent."""
    powers: dict[int, tuple[int, int]] = {}
    for position in parts:
        for base in parts:
            times = None if base == position or base in powers else power_of(steps, position, base)
            if times is not None and 1 < times <= _HIGHEST_DEGREE:
                powers[position] = base, times
                break
    return {position: result for position, result in powers.items() if result[0] not in powers}


def _is_sum(steps: tuple[Step, ...], position: int) -> bool:
    step = steps[position]
    if step.op == Op.INTEGER_POWER:
        return isinstance(step.payload, int) and 0 <= step.payload <= _HIGHEST_DEGREE
    if step.op == Op.DIVIDE:
        below = steps[step.arguments[1]]
        return below.op == Op.NUMBER and bool(below.payload)
    return step.op in _SUMS


def _polynomial(
    function: RealFunction,
    steps: tuple[Step, ...],
    parts: dict[int, fmpq_mpoly],
    context: fmpq_mpoly_ctx,
) -> fmpq_mpoly | None:
    """Return the last step as a polynomial in the parts; None if it is too large."""
    return _polynomials(function, steps, parts, context).get(len(steps) - 1)


def _polynomials(
    function: RealFunction,
    steps: tuple[Step, ...],
    parts: dict[int, fmpq_mpoly],
    context: fmpq_mpoly_ctx,
) -> dict[int, fmpq_mpoly]:
    """Return the steps that are polynomials in the parts, and not too large."""
    made: dict[int, fmpq_mpoly] = {}
    for position, step in enumerate(steps):
        given = [made.get(argument) for argument in step.arguments]
        if position in parts:
            made[position] = parts[position]
        elif step.op == Op.NUMBER and isinstance(step.payload, Fraction):
            made[position] = context.constant(_rational(step.payload))
        elif step.op == Op.PARAMETER:
            value = function.parameters[str(step.payload)]
            if isinstance(value, Fraction):
                made[position] = context.constant(_rational(value))
        elif _is_sum(steps, position) and all(argument is not None for argument in given):
            polynomial = _applied(step, [argument for argument in given if argument is not None])
            if polynomial is not None:
                made[position] = polynomial
    return made


def _applied(step: Step, given: list[fmpq_mpoly]) -> fmpq_mpoly | None:
    match step.op, given:
        case Op.ADD, [a, b]:
            result = a + b
        case Op.SUBTRACT, [a, b]:
            result = a - b
        case Op.NEGATIVE, [a]:
            result = -a
        case Op.MULTIPLY, [a, b]:
            result = a * b if len(a) * len(b) <= _MOST_TERMS**2 else None
        case Op.DIVIDE, [a, b]:
            result = a * (1 / b.leading_coefficient())
        case Op.INTEGER_POWER, [a] if isinstance(step.payload, int):
            is_small = a.total_degree() * step.payload <= _HIGHEST_DEGREE
            result = a**step.payload if is_small else None
        case _:
            result = None
    return result if result is not None and _is_small(result) else None


def _is_small(value: fmpq_mpoly) -> bool:
    bits = max((int(c.p).bit_length() + int(c.q).bit_length() for c in value.coeffs()), default=0)
    return (
        len(value) <= _MOST_TERMS
        and int(value.total_degree()) <= _HIGHEST_DEGREE
        and bits <= _MOST_BITS
    )


def _terms(factor: fmpq_mpoly) -> list[tuple[Fraction, tuple[int, ...]]]:
    return [
        (to_fraction(coefficient), tuple(map(int, powers)))
        for powers, coefficient in factor.to_dict().items()
    ]


def _rational(value: Fraction) -> fmpq:
    return fmpq(value.numerator, value.denominator)
