"""Commands of units."""

from __future__ import annotations

from dataclasses import replace

from axis_path.core.catalogue.units import UnitProduct, read_unit
from axis_path.core.compile.sets.model import ReadSet
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.contract import Id, one_line
from axis_path.core.dimensions import Measure, ShownQuantity, described, measures_of
from axis_path.core.document.shown_units import ShownUnits
from axis_path.core.draw import Window
from axis_path.core.errors import UnitError, UnknownNameError
from axis_path.core.features.command import Command, Edited, Handler, called
from axis_path.core.language import spelled
from axis_path.core.lines.meaning import VALUED


class ShowIn(Command, frozen=True, tag="show_in"):
    """Show the value of a line in another unit; of a function all values on its axis.

    Of a set of equations it is that of a name in it. An empty unit goes back to the one that
    follows from how the line is written.
    """

    id: Id
    unit: str
    name: str = ""


class AxisUnit(Command, frozen=True, tag="axis_unit"):
    """Show what stands on an axis in another unit: its numbers change, not the picture.

    Temperatures and, with ``of_difference``, their differences have units of their own.
    """

    axis: AxisName
    unit: str
    of_difference: bool = False


def _show_in(snapshot: Snapshot, command: ShowIn, _window: Window) -> Edited:
    definition = snapshot.definition(command.id)
    own_name, text = spelled(one_line(command.name)), one_line(command.unit)
    name = own_name or called(snapshot, command.id)
    section = snapshot.section(ShownUnits)
    if not text:
        section = section.with_row(command.id, "", own_name)
        return snapshot.with_section(section), f"Show {name} as written"
    unit = _unit(text)
    if own_name:
        _check_fit(name, unit, _read_set(snapshot, command.id, own_name).measure(own_name))
        section = section.with_row(command.id, unit.symbol, own_name)
        return snapshot.with_section(section), f"Show {name} in {unit.printed}"
    if definition.units is None:
        raise UnitError(f"`{name}` has no unit, so it cannot be shown in {unit.printed}.")
    _check_fit(name, unit, measures_of(definition.units.value)[0])
    if definition.kind in VALUED:
        section = section.with_row(command.id, unit.symbol)
    else:
        quantity = ShownQuantity.of(measures_of(definition.units.value)[0])
        section = _with_axis_unit(section, AxisName.Y, unit, quantity)
    return snapshot.with_section(section), f"Show {name} in {unit.printed}"


def _read_set(snapshot: Snapshot, line_id: int, name: str) -> ReadSet:
    """Return the set of equations of a line.

    Raises:
        UnknownNameError: the name is none of its unknowns.
    """
    settled = snapshot.analysis.sets.get(snapshot.index_of(line_id))
    if settled is None or name not in settled.read.unknowns:
        raise UnknownNameError(f"`{name}` is no unknown of this line.")
    return settled.read


def _axis_unit(snapshot: Snapshot, command: AxisUnit, _window: Window) -> Edited:
    unit = _unit(one_line(command.unit))
    present = snapshot.query(PlaneUnits).quantities_on(command.axis)
    quantity = ShownQuantity(unit.dimension, command.of_difference)
    if quantity not in present:
        raise UnitError(f"Nothing on the {command.axis} axis is {quantity.words}.")
    _check_quantity("A difference", unit, quantity)
    section = _with_axis_unit(snapshot.section(ShownUnits), command.axis, unit, quantity)
    return snapshot.with_section(section), f"Label the {command.axis} axis in {unit.printed}"


def _unit(text: str) -> UnitProduct:
    unit = read_unit(text)
    if unit is None or unit.factor is None:
        raise UnitError(f"`{text}` is not a unit.")
    return unit


def _check_fit(name: str, unit: UnitProduct, own: Measure) -> None:
    _check_quantity(f"`{name}`", unit, ShownQuantity.of(own))


def _check_quantity(name: str, unit: UnitProduct, quantity: ShownQuantity) -> None:
    if not quantity.fits(unit):
        raise UnitError(
            f"{name} is {quantity.words}, so it cannot be shown in {unit.printed}, "
            f"{described(unit.dimension)}."
        )


def _with_axis_unit(
    section: ShownUnits, axis: AxisName, unit: UnitProduct, quantity: ShownQuantity
) -> ShownUnits:
    """Return the units with another one for a quantity on an axis."""
    is_x = axis is AxisName.X
    if quantity.is_difference:
        if is_x:
            return replace(section, x_difference=unit.symbol)
        return replace(section, y_difference=unit.symbol)
    others = tuple(
        text
        for text in (section.x if is_x else section.y)
        if (known := read_unit(text)) is not None and known.dimension != unit.dimension
    )
    units = (*others, unit.symbol)
    return replace(section, x=units) if is_x else replace(section, y=units)


COMMANDS: dict[type[Command], Handler] = {ShowIn: _show_in, AxisUnit: _axis_unit}
