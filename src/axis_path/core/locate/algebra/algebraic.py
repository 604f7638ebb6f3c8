"""Prove that an expression is exactly zero at a number that is known exactly."""

from __future__ import annotations

from flint import arb

from axis_path.core.arithmetic import Ball, precision
from axis_path.core.evaluate import Expression, RealFunction, prove_steps
from axis_path.core.evaluate.separation import bits_to_tell_from_zero

#: More digits than this are not tried.
_MOST_BITS = 12_000


def vanishes(function: RealFunction, expression: Expression, abscissa: Ball) -> bool:
    """Check whether an expression is proved to be exactly zero at a number that is known exactly.

    Args:
        function: gives the sliders.
        expression: made from the function's.
        abscissa: a fraction, or a fraction of pi.
    """
    if abscissa.exact is None and abscissa.turns is None:
        return False
    chosen = RealFunction(function.name, function.variable, expression, function.parameters)
    rough = prove_steps(chosen, abscissa)
    if not rough.values[rough.result].value.contains(0):
        return False
    steps = [step for step, _ in rough.steps]
    bits = bits_to_tell_from_zero(steps, rough.values, rough.result)
    if bits is None or bits > _MOST_BITS:
        return False
    with precision(bits + 64):
        exact = (
            Ball(arb.pi() * arb(abscissa.turns), turns=abscissa.turns)
            if abscissa.turns
            else abscissa
        )
        value = chosen.prove(exact)
        return value.is_defined and bool(abs(value.value) < arb(2) ** -bits)
