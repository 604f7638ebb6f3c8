"""How numbers with units are set: units upright, with raised exponents and one stroke."""

from __future__ import annotations

from fractions import Fraction
from typing import TYPE_CHECKING

from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.language.tree import Binary, Converted, Operator, Physical, Quantity

if TYPE_CHECKING:
    from axis_path.core.language.textbook import Textbook

#: How tightly what stands before a unit binds.
_SIGNED = 3


def measured(printer: Textbook, node: Quantity | Converted | Physical) -> str:
    """Set a number with its unit, a conversion, or a constant of nature."""
    match node:
        case Physical(name):
            return printer.name(name)
        case Converted(operand, unit):
            parts = (printer.node(operand), printer.words(" in "), set_unit(printer, unit))
            return printer.space().join(parts)
        case Quantity(operand, unit):
            is_quotient = isinstance(operand, Binary) and operand.operator is Operator.DIVIDE
            number = printer.node(operand) if is_quotient else printer.inside(operand, _SIGNED)
            first = f"{number}{printer.space()}{set_unit(printer, unit)}"
            return printer.space().join([first, *(measured(printer, more) for more in node.more)])


def set_unit(printer: Textbook, unit: UnitProduct) -> str:
    """Set a unit."""
    top = [_power(printer, part.symbol, power) for part, power in unit.parts if power > 0]
    bottom = [_power(printer, part.symbol, -power) for part, power in unit.parts if power < 0]
    above = printer.space().join(top) or printer.number("1")
    if not bottom:
        return above
    below = printer.space().join(bottom)
    return above + printer.stroke() + (printer.bracketed(below) if len(bottom) > 1 else below)


def _power(printer: Textbook, symbol: str, power: Fraction) -> str:
    upright = printer.words(symbol)
    return upright if power == 1 else printer.raised(upright, printer.fraction_of(power))
