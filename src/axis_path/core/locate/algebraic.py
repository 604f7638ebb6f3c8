"""Prove that a sum of sines, cosines and roots is exactly zero.

Sines and cosines of fractions of pi, roots of fractions, and what is made of them by sums, products
and whole powers are algebraic numbers. If such a number v is not 0, then for a whole D that makes D
v an algebraic integer the product of all its conjugates is at least 1 in size, so that |v| >= 1/(D
(D B)^(d - 1)), where B bounds the conjugates and d is the degree of a field that holds them. A ball
that shows v to be smaller proves that it is 0.

Source: Burnikel et al., *A strong and easily computable separation bound for arithmetic expressions
involving radicals*, 2000, section 2 (the bound by the norm).
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from flint import arb, fmpz

from axis_path.core.arithmetic import Ball, precision
from axis_path.core.evaluate import Expression, Op, RealFunction, prove_steps
from axis_path.core.evaluate.graph import Step

#: More digits than this are not tried.
_MOST_BITS = 12_000


class _NotAlgebraicError(Exception):
    """A step is no algebraic number that this bound is known for."""


@dataclass(frozen=True, slots=True)
class _Size:
    """Logarithms to base 2: of a whole number that clears the denominators, and of a bound."""

    denominator: float
    bound: float


def vanishes(function: RealFunction, expression: Expression, place: Ball) -> bool:
    """Tell whether an expression is proved to be exactly zero at a number that is known exactly.

    Args:
        function: gives the sliders.
        expression: made from the function's.
        place: a fraction, or a fraction of pi.
    """
    if place.exact is None and place.turns is None:
        return False
    chosen = RealFunction(function.name, function.variable, expression, function.parameters)
    rough = prove_steps(chosen, place)
    if not rough.values[rough.result].value.contains(0):
        return False
    try:
        bits = _bits_needed([step for step, _ in rough.steps], rough.values, rough.result)
    except _NotAlgebraicError:
        return False
    if bits > _MOST_BITS:
        return False
    with precision(bits + 64):
        exact = Ball(arb.pi() * arb(place.turns), turns=place.turns) if place.turns else place
        value = chosen.prove(exact)
        return value.is_defined and bool(abs(value.value) < arb(2) ** -bits)


def _bits_needed(steps: list[Step], values: tuple[Ball, ...], result: int) -> int:
    needed = {result}
    for place in range(result, -1, -1):
        if place in needed and values[place].exact is None:
            needed.update(steps[place].arguments)
    turns, degree = 1, 1
    sizes: dict[int, _Size] = {}
    for place in sorted(needed):
        step, value = steps[place], values[place]
        inner = [values[argument] for argument in step.arguments]
        if value.exact is not None:
            size = abs(value.exact)
            sizes[place] = _Size(_log(int(size.q)), max(_log(int(size.p)) - _log(int(size.q)), 0.0))
        elif step.op in ("sin", "cos") and inner[0].turns is not None:
            turns = math.lcm(turns, int(inner[0].turns.q))
            sizes[place] = _Size(1.0, 0.0)
        elif step.op == "sqrt" or (step.op == Op.ROOT and isinstance(step.payload, tuple)):
            top, order = step.payload if isinstance(step.payload, tuple) else (1, 2)
            radicand = inner[0].exact
            if radicand is None or top < 0:
                raise _NotAlgebraicError
            degree *= order
            size = max(_log(abs(int(radicand.p))), _log(int(radicand.q)))
            sizes[place] = _Size(_log(int(radicand.q)) * top, max(size * top / order, 0.0))
        elif value.turns is not None:
            # An angle, which only sines and cosines may take.
            continue
        else:
            sizes[place] = _combined(step, [sizes.get(a) for a in step.arguments])
    degree *= int(fmpz(4 * turns).euler_phi())
    total = sizes.get(result)
    if total is None:
        raise _NotAlgebraicError
    return math.ceil(total.denominator + (degree - 1) * (total.denominator + total.bound)) + 8


def _combined(step: Step, sizes: list[_Size | None]) -> _Size:
    known = [size for size in sizes if size is not None]
    if len(known) < len(sizes) or not known:
        raise _NotAlgebraicError
    if step.op in (Op.ADD, Op.SUBTRACT):
        one, other = known
        return _Size(one.denominator + other.denominator, max(one.bound, other.bound) + 1)
    if step.op == Op.MULTIPLY:
        one, other = known
        return _Size(one.denominator + other.denominator, one.bound + other.bound)
    if step.op == Op.NEGATIVE:
        return known[0]
    if step.op == Op.INTEGER_POWER and isinstance(step.payload, int) and step.payload > 0:
        return _Size(known[0].denominator * step.payload, known[0].bound * step.payload)
    raise _NotAlgebraicError


def _log(value: int) -> float:
    """Give an upper bound of the logarithm to base 2."""
    return float(value.bit_length()) if value > 1 else 0.0
