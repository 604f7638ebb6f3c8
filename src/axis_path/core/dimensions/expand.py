"""Write trees without units: every quantity in base units of the SI."""

from __future__ import annotations

from collections.abc import Collection
from fractions import Fraction

from axis_path.core.catalogue import DEGREE
from axis_path.core.catalogue.physics import PHYSICAL_CONSTANTS
from axis_path.core.catalogue.units import Factor, UnitProduct
from axis_path.core.dimensions.coercion import Coercion
from axis_path.core.language.rebuild import rebuilt
from axis_path.core.language.tree import (
    AngleUnit,
    Binary,
    Converted,
    Name,
    Node,
    Number,
    Operator,
    Physical,
    Quantity,
    Span,
)

_ONE = Fraction(1)


def expanded(node: Node, unit: AngleUnit, coercions: Collection[Coercion] = ()) -> Node:
    """Return a tree whose quantities are numbers of base units.

    Args:
        node: the tree as it was read.
        unit: of angles, which are numbers of it.
        coercions: the parts of which an angle is left out.
    """
    powers = {id(coercion.node): coercion.power for coercion in coercions}

    def change(made: Node, read: Node) -> Node:
        match made:
            case Quantity():
                made = _quantity(made, unit)
            case Converted(operand):
                made = operand
            case Physical(name):
                constant = PHYSICAL_CONSTANTS[name]
                made = _scaled(_number(constant.value, made.span), constant.unit, unit)
        power = powers.get(id(read))
        if power is None or unit is AngleUnit.RADIANS:
            return made
        return _turned(made, power)

    return rebuilt(node, change)


def in_base_units(node: Node, unit: UnitProduct, angles: AngleUnit) -> Node:
    """Return a number of a unit as a number of base units."""
    scaled = _scaled(node, unit, angles)
    if not unit.offset:
        return scaled
    return Binary(Operator.ADD, scaled, Number(unit.offset), node.span)


def in_unit(node: Node, unit: UnitProduct, angles: AngleUnit) -> Node:
    """Return a number of base units as a number of a unit."""
    if unit.offset:
        node = Binary(Operator.SUBTRACT, node, Number(unit.offset), node.span)
    one = in_unit_of_one(unit, angles)
    return node if one is None else Binary(Operator.DIVIDE, node, one, node.span)


def in_unit_of_one(unit: UnitProduct, angles: AngleUnit) -> Node | None:
    """Return how many base units a unit is; None if it is one."""
    one = _scaled(Number(_ONE), unit, angles)
    return None if one == Number(_ONE) else one


def _quantity(node: Quantity, angles: AngleUnit) -> Node:
    total = in_base_units(node.operand, node.unit, angles)
    for more in node.more:
        # They were changed already: each is a number of base units.
        total = Binary(Operator.ADD, total, more, node.span)
    return total


def _scaled(node: Node, unit: UnitProduct, angles: AngleUnit) -> Node:
    """Return a number times what a unit is in base units."""
    factor = unit.factor or Factor(_ONE)
    scaled = node
    if factor.number != 1:
        scaled = Binary(Operator.MULTIPLY, scaled, Number(factor.number), node.span)
    if factor.pi:
        scaled = _times_power(scaled, Name("pi"), Fraction(factor.pi), node.span)
    angle = unit.dimension.angle
    return _turned(scaled, -angle) if angle and angles is AngleUnit.DEGREES else scaled


def _number(value: Factor, span: Span) -> Node:
    number: Node = Number(value.number, span=span)
    return _times_power(number, Name("pi"), Fraction(value.pi), span) if value.pi else number


def _turned(node: Node, power: Fraction) -> Node:
    """Return a number of degrees, to a power, as one of radians."""
    return _times_power(node, Name(DEGREE), power, node.span)


def _times_power(node: Node, base: Node, power: Fraction, span: Span) -> Node:
    factor = base if power == 1 else Binary(Operator.POWER, base, Number(power), span)
    return Binary(Operator.MULTIPLY, node, factor, span)
