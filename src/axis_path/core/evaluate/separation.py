"""How many binary digits tell an algebraic number from zero.

Fractions, roots, sines and cosines of fractions of pi, and what is made of them by sums, products,
quotients and powers are algebraic numbers. Such a number E is a quotient of two algebraic integers.
If u bounds the conjugates of the one above, l those of the one below, and D is the degree of a
field that holds both, then E is 0 or at least 1/(u^(D - 1) l) in size. A ball that shows E to be
smaller proves that it is 0.

Source: Burnikel, Funke, Mehlhorn, Schirra, Schmitt, *A separation bound for real algebraic
expressions*, ESA 2001, theorem 1. Twice a sine or cosine of a fraction p/q of pi is an algebraic
integer in the field of the 4q-th roots of unity, with conjugates of size 2 at most.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from flint import fmpz

from axis_path.core.arithmetic import Ball
from axis_path.core.evaluate.graph.graph import Op, Step

#: Room for the rounding of the logarithms.
_SPARE_BITS = 16


class _NotAlgebraicError(Exception):
    """A step is no algebraic number that this bound is known for."""


@dataclass(frozen=True, slots=True)
class _Size:
    """Logarithms to base 2 of the bounds u of what stands above and l of what stands below."""

    above: float
    below: float

    def inverse(self) -> _Size:
        return _Size(self.below, self.above)

    def root(self, order: int) -> _Size:
        if self.above >= self.below:
            return _Size((self.above + (order - 1) * self.below) / order, self.below)
        return _Size(self.above, ((order - 1) * self.above + self.below) / order)

    def power(self, exponent: int) -> _Size:
        return _Size(self.above * exponent, self.below * exponent)


def bits_to_tell_from_zero(
    steps: Sequence[Step], values: Sequence[Ball], result: int
) -> int | None:
    """Return how many binary digits after the point show whether a number is zero.

    Args:
        steps: of a program without a variable, or at one place.
        values: their balls, by which fractions and multiples of pi are known.
        result: the place of the number among the steps.

    Returns:
        None if it is no algebraic number that the bound is known for.
    """
    try:
        return _bits(steps, values, result)
    except _NotAlgebraicError:
        return None


def _bits(steps: Sequence[Step], values: Sequence[Ball], result: int) -> int:
    needed = {result}
    for position in range(result, -1, -1):
        if position in needed and values[position].exact is None and values[position].turns is None:
            needed.update(steps[position].arguments)
    turns, degree = 1, 1
    sizes: dict[int, _Size] = {}
    for position in sorted(needed):
        step, value = steps[position], values[position]
        inner = [values[argument] for argument in step.arguments]
        if value.exact is not None:
            sizes[position] = _Size(_log(abs(int(value.exact.p))), _log(int(value.exact.q)))
        elif value.turns is not None:
            # An angle, which only sines and cosines may take.
            continue
        elif step.op in ("sin", "cos", "tan") and inner[0].turns is not None:
            turns = math.lcm(turns, int(inner[0].turns.q))
            sizes[position] = _Size(1.0, 1.0)
        elif step.op == "sqrt" or (step.op == Op.ROOT and isinstance(step.payload, tuple)):
            top, order = step.payload if isinstance(step.payload, tuple) else (1, 2)
            degree *= order
            root = _known(sizes, step.arguments[0]).root(order)
            sizes[position] = root.power(top) if top > 0 else root.power(-top).inverse()
        else:
            sizes[position] = _combined(step, [_known(sizes, a) for a in step.arguments])
    degree *= int(fmpz(4 * turns).euler_phi())
    size = _known(sizes, result)
    return math.ceil(size.above * (degree - 1) + size.below) + _SPARE_BITS


def _known(sizes: dict[int, _Size], position: int) -> _Size:
    if position not in sizes:
        raise _NotAlgebraicError
    return sizes[position]


def _combined(step: Step, sizes: list[_Size]) -> _Size:
    match step.op, sizes:
        case ((Op.ADD | Op.SUBTRACT), [a, b]):
            top = max(a.above + b.below, a.below + b.above) + 1
            return _Size(top, a.below + b.below)
        case Op.MULTIPLY, [a, b]:
            return _Size(a.above + b.above, a.below + b.below)
        case Op.DIVIDE, [a, b]:
            return _Size(a.above + b.below, a.below + b.above)
        case (Op.NEGATIVE, [a]) | ("abs", [a]):
            return a
        case Op.INTEGER_POWER, [a] if isinstance(step.payload, int):
            n = step.payload
            return a.power(n) if n > 0 else a.power(-n).inverse()
    raise _NotAlgebraicError


def _log(value: int) -> float:
    """Return an upper bound of the logarithm to base 2; 0 for 0 and 1."""
    return float(value.bit_length()) if value > 1 else 0.0
