"""Commands of units."""

from __future__ import annotations

from dataclasses import replace

from axis_path.core.catalogue.units import Dimension, UnitProduct, read_unit
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.contract import Id, one_line
from axis_path.core.dimensions import described, dimension_of, measures_of
from axis_path.core.document.shown_units import ShownUnits
from axis_path.core.draw import Window
from axis_path.core.errors import UnitError
from axis_path.core.features.command import Command, Edited, Handler, called
from axis_path.core.lines.meaning import VALUED


class ShowIn(Command, frozen=True, tag="show_in"):
    """Show the value of a line in another unit; of a function all values on its axis.

    An empty unit goes back to the one that follows from how the line is written.
    """

    id: Id
    unit: str


class AxisUnit(Command, frozen=True, tag="axis_unit"):
    """Show what stands on an axis in another unit: its numbers change, not the picture."""

    axis: AxisName
    unit: str


def _show_in(snapshot: Snapshot, command: ShowIn, _window: Window) -> Edited:
    definition = snapshot.definition(command.id)
    name, text = called(snapshot, command.id), one_line(command.unit)
    section = snapshot.section(ShownUnits)
    if not text:
        return snapshot.with_section(section.with_row(command.id, "")), f"Show {name} as written"
    unit = _unit(text)
    if definition.units is None:
        raise UnitError(f"`{name}` has no unit, so it cannot be shown in {unit.printed}.")
    own = dimension_of(measures_of(definition.units.value)[0])
    _check_fit(name, unit, own)
    if definition.kind in VALUED:
        section = section.with_row(command.id, unit.symbol)
    else:
        section = _with_axis_unit(section, AxisName.Y, unit)
    return snapshot.with_section(section), f"Show {name} in {unit.printed}"


def _axis_unit(snapshot: Snapshot, command: AxisUnit, _window: Window) -> Edited:
    unit = _unit(one_line(command.unit))
    present = snapshot.query(PlaneUnits).dimensions_on(command.axis)
    if unit.dimension not in present:
        words = described(unit.dimension)
        raise UnitError(f"Nothing on the {command.axis} axis is {words}.")
    section = _with_axis_unit(snapshot.section(ShownUnits), command.axis, unit)
    return snapshot.with_section(section), f"Label the {command.axis} axis in {unit.printed}"


def _unit(text: str) -> UnitProduct:
    unit = read_unit(text)
    if unit is None or unit.factor is None:
        raise UnitError(f"`{text}` is not a unit.")
    return unit


def _check_fit(name: str, unit: UnitProduct, own: Dimension) -> None:
    if unit.dimension.without_angle != own.without_angle:
        raise UnitError(
            f"`{name}` is {described(own)}, so it cannot be shown in {unit.printed}, "
            f"{described(unit.dimension)}."
        )


def _with_axis_unit(section: ShownUnits, axis: AxisName, unit: UnitProduct) -> ShownUnits:
    """Return the units with another one for its dimension on an axis."""
    present: tuple[str, ...] = getattr(section, axis)
    others = tuple(
        text
        for text in present
        if (known := read_unit(text)) is not None and known.dimension != unit.dimension
    )
    units = (*others, unit.symbol)
    return replace(section, x=units) if axis is AxisName.X else replace(section, y=units)


COMMANDS: dict[type[Command], Handler] = {ShowIn: _show_in, AxisUnit: _axis_unit}
