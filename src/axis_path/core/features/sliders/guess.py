"""What a letter stands for, guessed from how it is used, so that its slider begins well.

A letter that is added to an angle is an angle; one that counts (the end of a sum, the n of a
factorial or a root, an exponent called n, m or k) takes whole numbers; one under a fraction line, a
root or a logarithm stays above zero. Everything else gets a range on both sides of zero.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from enum import Enum, auto
from fractions import Fraction

from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.language.tree import (
    AngleUnit,
    Binary,
    Call,
    Name,
    Negative,
    Node,
    Number,
    Operator,
    Over,
    Summary,
)
from axis_path.core.language.walk import children
from axis_path.core.lines.sliders import Slider, SliderKind, guessed_range

_COUNTING = frozenset({"factorial", "binomial", "gcd", "lcm"})
_ABOVE_ZERO = frozenset({"sqrt", "ln", "log"})
_ANGLES = frozenset({"alpha", "beta", "phi", "psi", "theta"})
_COUNTS = frozenset({"n", "m", "k"})


class Role(Enum):
    """What a letter is at one place."""

    ANGLE = auto()
    COUNT = auto()
    ABOVE_ZERO = auto()
    NUMBER = auto()


def guess_slider(name: str, nodes: Iterable[Node], unit: AngleUnit) -> tuple[Fraction, Slider]:
    """Return the value and the slider that a letter without a value begins with.

    Args:
        name: the letter.
        nodes: the expressions it may stand in.
        unit: the unit of angles.
    """
    roles = {role for node in nodes for role in _roles(node, name, Role.NUMBER)}
    if Role.COUNT in roles:
        return Fraction(3), Slider("1", "10", "1", SliderKind.WHOLE)
    if roles == {Role.ANGLE} or (not roles - {Role.ANGLE, Role.NUMBER} and name in _ANGLES):
        if unit is AngleUnit.DEGREES:
            return Fraction(45), Slider("0", "360", "5", SliderKind.ANGLE)
        return Fraction(1), Slider("0", "2pi", "pi/24", SliderKind.ANGLE)
    if Role.ABOVE_ZERO in roles:
        return Fraction(1), Slider("0.1", "10", "0.1")
    return Fraction(1), guessed_range(Fraction(1))


def _roles(node: Node, name: str, role: Role) -> Iterator[Role]:
    """Return what a letter is at each of its places, by what stands around it."""
    match node:
        case Name(own):
            if own == name:
                yield role
        case Negative(operand):
            yield from _roles(operand, name, role)
        case Binary(operator, left, right):
            yield from _roles(left, name, _left_role(operator, right, role))
            yield from _roles(right, name, _right_role(operator, left, right, role))
        case Call(function, parts):
            for index, part in enumerate(parts):
                yield from _roles(part, name, _argument_role(function, index))
        case Over(summary, body, variable, low, high):
            ends = Role.NUMBER if summary is Summary.INTEGRAL else Role.COUNT
            for end in (low, high):
                yield from _roles(end, name, ends)
            if variable != name:
                yield from _roles(body, name, Role.NUMBER)
        case _:
            for part in children(node):
                yield from _roles(part, name, Role.NUMBER)


def _left_role(operator: Operator, right: Node, role: Role) -> Role:
    if operator in (Operator.ADD, Operator.SUBTRACT):
        return role
    # Half an angle and twice an angle are angles; what is a factor of x is none.
    is_scaled = operator in (Operator.MULTIPLY, Operator.DIVIDE) and isinstance(right, Number)
    return role if is_scaled and role is Role.ANGLE else Role.NUMBER


def _right_role(operator: Operator, left: Node, right: Node, role: Role) -> Role:
    if operator in (Operator.ADD, Operator.SUBTRACT):
        return role
    if operator is Operator.DIVIDE and isinstance(right, Name):
        return Role.ABOVE_ZERO
    if operator is Operator.POWER and isinstance(right, Name) and right.name in _COUNTS:
        return Role.COUNT
    is_scaled = operator is Operator.MULTIPLY and isinstance(left, Number)
    return role if is_scaled and role is Role.ANGLE else Role.NUMBER


def _argument_role(function: str, index: int) -> Role:
    entry = FUNCTIONS.get(function)
    if entry is not None and index in entry.takes_angle:
        return Role.ANGLE
    if function in _COUNTING or (function == "root" and index == 1):
        return Role.COUNT
    return Role.ABOVE_ZERO if function in _ABOVE_ZERO else Role.NUMBER
