"""Errors of units that say what is wrong, by how much, and what was probably meant."""

from __future__ import annotations

from collections.abc import Iterable

from axis_path.core.catalogue.physics import PHYSICAL_CONSTANTS, PhysicalConstant
from axis_path.core.catalogue.units import Dimension, find_unit
from axis_path.core.dimensions.words import described, name_of, noun_of
from axis_path.core.errors import Repair, UnitError
from axis_path.core.language.tree import (
    Binary,
    Converted,
    Name,
    Node,
    Number,
    Operator,
    Quantity,
    Span,
)
from axis_path.core.language.walk import walk


def mismatch(
    text: str,
    one: tuple[Node, Dimension],
    other: tuple[Node, Dimension],
    plain_names: Iterable[Name],
) -> UnitError:
    """Return the error of two parts that should have one dimension.

    Args:
        text: the line.
        one: the first part with its dimension.
        other: the part that does not fit.
        plain_names: the names without a unit in both parts.
    """
    (left, first), (right, second) = one, other
    words = (
        f"{shown(text, left.span)} is {described(first)} and {shown(text, right.span)} is "
        f"{described(second)}: {difference(first, second)}."
    )
    span = (min(left.span[0], right.span[0]), max(left.span[1], right.span[1]))
    cause = _cause(text, first, second, plain_names, (left, right))
    if cause is None:
        return UnitError(words, position=span)
    return UnitError(f"{words} {cause[0]}", position=span, repair=cause[1])


def no_conversion(
    text: str, node: Converted, dimension: Dimension, plain_names: Iterable[Name]
) -> UnitError:
    """Return the error of a value that cannot be shown in a unit.

    Args:
        text: the line.
        node: the conversion.
        dimension: what the value is.
        plain_names: the names without a unit in it.
    """
    own, wanted = shown(text, node.operand.span), node.unit.dimension
    if dimension.is_plain:
        words = f"{own} has no unit, so it cannot be shown in {node.unit.printed}."
    else:
        what = noun_of(wanted)
        unit = f"{node.unit.printed}, {name_of(wanted)}" if what else node.unit.printed
        words = f"{own} is {described(dimension)}, not in {unit}: {difference(dimension, wanted)}."
    cause = _cause(text, dimension, wanted, plain_names, (node.operand, node.operand))
    if cause is None:
        return UnitError(words, position=node.span)
    return UnitError(f"{words} {cause[0]}", position=node.span, repair=cause[1])


def difference(first: Dimension, second: Dimension) -> str:
    """Return by what two dimensions differ, in words."""
    quotient = first.without_angle / second.without_angle
    larger = quotient if _is_plainer(quotient) else second.without_angle / first.without_angle
    name = noun_of(larger)
    if not (first.is_plain or second.is_plain) and noun_of(first) and noun_of(second):
        return f"{noun_of(first)} and {noun_of(second)} differ by {larger.printed}"
    words = f" ({name})" if name and not (first.is_plain or second.is_plain) else ""
    return f"they differ by {larger.printed}{words}"


def _is_plainer(quotient: Dimension) -> bool:
    """Check whether a quotient is better known than its reciprocal."""
    if bool(name_of(quotient)) != bool(name_of(quotient**-1)):
        return bool(name_of(quotient))
    powers = quotient.powers.values()
    return sum(power > 0 for power in powers) >= sum(power < 0 for power in powers)


def shown(text: str, span: Span) -> str:
    """Return a part of a line as it was typed."""
    return f"`{text[span[0] : span[1]].strip()}`"


def _cause(
    text: str,
    first: Dimension,
    second: Dimension,
    plain_names: Iterable[Name],
    parts: tuple[Node, Node],
) -> tuple[str, Repair | None] | None:
    """Return what was probably meant, with a repair of the text."""
    quotients = {
        first.without_angle / second.without_angle,
        second.without_angle / first.without_angle,
    }
    for name in plain_names:
        constant = constant_like(name.name, quotients)
        if constant is not None:
            words = f"`{name.name}` has no unit: did you mean {value_of(constant)}?"
            return words, Repair(name.span, constant.name, f"Use {constant.name}")
    hidden = _hidden_unit(parts)
    if hidden is not None:
        name, unit = hidden
        words = f"`{name.name}` is a name of this study here, not the {unit}."
        full = unit.replace(" ", "_")
        return words, Repair(name.span, f" {full}".strip(), f"Mean the {unit}")
    letter = _letter_unit(parts) if first.is_plain or second.is_plain else None
    if letter is None:
        return None
    symbol, name_in_full, span = letter
    words = f"`{symbol}` is read as the {name_in_full} here; write × before it to mean a name."
    return words, Repair(span, f" * {symbol}", f"Mean a name {symbol}")


def constant_like(name: str, dimensions: Iterable[Dimension]) -> PhysicalConstant | None:
    """Return the constant with one of these dimensions whose name begins as a name does."""
    for constant in PHYSICAL_CONSTANTS.values():
        if constant.name.partition("_")[0] == name and constant.unit.dimension in dimensions:
            return constant
    return None


def value_of(constant: PhysicalConstant) -> str:
    """Return a constant with its value: ```g_n`, 9.80665 m/s²``."""
    return f"`{constant.name}`, {constant.shown}"


def _letter_unit(parts: tuple[Node, Node]) -> tuple[str, str, Span] | None:
    """Return a unit of one letter behind a number, which may be meant as a name."""
    for part in parts:
        for node in walk(part):
            if isinstance(node, Quantity) and len(node.typed) == 1 and node.typed.isalpha():
                unit = node.unit.parts[0][0]
                return node.typed, unit.name.replace("_", " "), (node.operand.span[1], node.span[1])
    return None


def _hidden_unit(parts: tuple[Node, Node]) -> tuple[Name, str] | None:
    """Return a name behind a number that hides the unit of the same letters, with that unit."""
    for part in parts:
        for node in walk(part):
            match node:
                case Binary(Operator.MULTIPLY, Number(), Name(name) as hidden):
                    unit = find_unit(name)
                    if unit is not None:
                        return hidden, unit.name.replace("_", " ")
                case _:
                    pass
    return None
