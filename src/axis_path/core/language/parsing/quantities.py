"""Nodes of quantities: a number with a unit, and what becomes of it beside other numbers."""

from __future__ import annotations

from axis_path.core.catalogue.units import UnitProduct, read_unit
from axis_path.core.language import messages
from axis_path.core.language.tree import (
    Angle,
    AngleUnit,
    Binary,
    Converted,
    Negative,
    Node,
    Number,
    Operator,
    Quantity,
    Span,
)


def measured(operand: Node, typed: str, span: Span) -> Node:
    """Return a number with a unit; an angle in degrees is written in its own way."""
    unit = _unit(typed)
    if unit.symbol == "°":
        return Angle(operand, AngleUnit.DEGREES, span)
    return Quantity(operand, unit, span, typed=typed)


def converted(operand: Node, typed: str, span: Span) -> Node:
    """Return a value that is shown in a unit."""
    return Converted(operand, _unit(typed), span, typed)


def measured_quotient(left: Node, right: Node, span: Span) -> Node | None:
    """Return ``3/4 kg`` as three quarters of a kilogram; None for another quotient.

    ``100 km/2 h`` is a quotient of two quantities, and so is ``3/(4 kg)``.
    """
    if not isinstance(right, Quantity) or right.more or right.span[0] != right.operand.span[0]:
        return None
    if not (isinstance(right.operand, Number) and _is_numeric(left)):
        return None
    top = Binary(Operator.DIVIDE, left, right.operand, (span[0], right.operand.span[1]))
    return Quantity(top, right.unit, span, typed=right.typed)


def _is_numeric(node: Node) -> bool:
    """Check whether a node is made of written numbers only."""
    if isinstance(node, Binary):
        return _is_numeric(node.left) and _is_numeric(node.right)
    return isinstance(node, Number) or (isinstance(node, Negative) and _is_numeric(node.operand))


def is_mixed(left: Node, right: Node) -> bool:
    """Check whether two quantities are one in larger and smaller units, as ``5 ft 3 in``."""
    if not (isinstance(left, Quantity) and isinstance(right, Quantity)):
        return False
    if left.span[0] != left.operand.span[0] or right.span[0] != right.operand.span[0]:
        return False
    last = left.more[-1] if left.more else left
    first, second = last.unit.factor, right.unit.factor
    return (
        isinstance(last.operand, Number)
        and isinstance(right.operand, Number)
        and not right.more
        and last.unit.dimension == right.unit.dimension
        and first is not None
        and second is not None
        and first.pi == second.pi
        and second.number < first.number
    )


def is_temperature(node: Node) -> bool:
    """Check whether a node is a number of °C or °F without brackets around it."""
    if not isinstance(node, Quantity) or not node.unit.has_zero:
        return False
    return isinstance(node.operand, Number) and node.span[0] == node.operand.span[0]


def _unit(typed: str) -> UnitProduct:
    unit = read_unit(typed)
    if unit is None:
        raise ValueError(messages.TYPED_NOT_UNIT(typed=typed))
    return unit
