"""Integrals in a calculation that need more than a smooth body between two numbers.

An integral over jumps and kinks, beside a place without a value or without end is measured part by
part (``locate/measure/by_parts.py``), and stands in the rest of the calculation as a number.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.language import plain
from axis_path.core.language.tree import Binary, Call, Name, Negative, Node, Over, Summary
from axis_path.core.language.walk import walk
from axis_path.core.locate import Parts

_INFINITE = "inf"
#: Definitions that hold integrals are followed through so many others.
_DEEPEST = 40


@dataclass(frozen=True, slots=True)
class Integral:
    """An integral in a calculation.

    Attributes:
        node: as it was read.
        low: its lower end as a text; ``high`` likewise.
    """

    node: Over
    low: str
    high: str

    @property
    def is_endless(self) -> bool:
        """Check whether it goes on without end."""
        return any(end.lstrip("-") == _INFINITE for end in (self.low, self.high))


def integrals_in(node: Node) -> list[Integral]:
    """Return the integrals of an expression that are not inside others, each once."""
    integrals: list[Integral] = []
    for over in _outer(node):
        made = Integral(over, plain(over.low), plain(over.high))
        if made not in integrals:
            integrals.append(made)
    return integrals


def _outer(node: Node) -> Iterator[Over]:
    match node:
        case Over(Summary.INTEGRAL):
            yield node
        case Binary(_, left, right):
            yield from _outer(left)
            yield from _outer(right)
        case Negative(operand):
            yield from _outer(operand)
        case Call(_, arguments):
            for argument in arguments:
                yield from _outer(argument)


def with_names(node: Node, names: dict[Over, str]) -> Node:
    """Return an expression with names in place of integrals."""
    match node:
        case Over():
            return Name(names[node]) if node in names else node
        case Binary(_, left, right):
            return replace(node, left=with_names(left, names), right=with_names(right, names))
        case Negative(operand):
            return replace(node, operand=with_names(operand, names))
        case Call(_, arguments):
            return replace(
                node, arguments=tuple(with_names(argument, names) for argument in arguments)
            )
    return node


def holds_integral(node: Node) -> bool:
    """Check whether an integral stands anywhere in an expression."""
    return any(isinstance(part, Over) and part.summary is Summary.INTEGRAL for part in walk(node))


def written_out(
    node: Node, definition: Callable[[str], Node | None], deepest: int = _DEEPEST
) -> Node:
    """Return an expression with the definitions of names in place of these.

    Args:
        node: the expression.
        definition: returns what stands in place of a name; None if it stays.
        deepest: through so many definitions it is followed; further names stay.
    """

    def out(inner: Node) -> Node:
        return written_out(inner, definition, deepest)

    match node:
        case Name(name):
            meaning = definition(name) if deepest > 0 else None
            return node if meaning is None else written_out(meaning, definition, deepest - 1)
        case Binary(_, left, right):
            return replace(node, left=out(left), right=out(right))
        case Negative(operand):
            return replace(node, operand=out(operand))
        case Call(_, arguments):
            return replace(node, arguments=tuple(map(out, arguments)))
    return node


def needs_parts(parts: Parts) -> bool:
    """Check whether an integral is better measured part by part than as one smooth body."""
    is_plain = len(parts.parts) == 1 and not parts.is_rough and not parts.endless
    return not is_plain or parts.is_polynomial


def value_of(parts: Parts, bits: int, sign: int) -> Ball:
    """Return an integral, turned around if its ends were."""
    integral = parts.whole(bits)
    if sign > 0 or integral.defined is Defined.NO:
        return integral
    with precision(bits):
        return ball.negative(integral)
