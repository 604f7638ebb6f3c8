"""Numbers that are written out in an expression, such as an exponent."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction

from axis_path.core.language.tree import Binary, Negative, Node, Number, Operator


def written_fraction(node: Node) -> Fraction | None:
    """Return the number that is written out, such as ``-1/2``; None for anything else."""
    match node:
        case Number(value):
            return value
        case Negative(operand):
            opposite = written_fraction(operand)
            return None if opposite is None else -opposite
        case Binary(operator, left, right) if operator in _WRITTEN:
            one, other = written_fraction(left), written_fraction(right)
            if one is None or other is None or (operator is Operator.DIVIDE and not other):
                return None
            return _WRITTEN[operator](one, other)
        case _:
            return None


_WRITTEN: dict[Operator, Callable[[Fraction, Fraction], Fraction]] = {
    Operator.ADD: lambda a, b: a + b,
    Operator.SUBTRACT: lambda a, b: a - b,
    Operator.MULTIPLY: lambda a, b: a * b,
    Operator.DIVIDE: lambda a, b: a / b,
}
