"""The units of the plane: in which of them a line stands on its axes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum

from axis_path.core.catalogue.units import NO_UNIT, UnitProduct, read_unit
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.dimensions import (
    Measure,
    PlaneMeasure,
    ShownQuantity,
    measure_of,
    measures_of,
    unit_of,
)
from axis_path.core.dimensions.curve_units import PLAIN_UNITS, CurveUnits
from axis_path.core.document.data import Data
from axis_path.core.document.shown_units import ShownUnits
from axis_path.core.lines.meaning import Kind
from axis_path.core.threads import lazy_property


class AxisName(StrEnum):
    """The two axes of the plane."""

    X = "x"
    Y = "y"


@dataclass(frozen=True, slots=True)
class _OnAxes:
    """What a line measures along both axes; None where any quantity may stand there."""

    x: Measure | None
    y: Measure | None


class PlaneUnits:
    """Chooses one unit for each quantity on each axis, so that lines can be compared."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot

    def of(self, definition: Definition) -> CurveUnits:
        """Return the units of a line."""
        if self._snapshot.analysis.named_units is None or definition.units is None:
            return PLAIN_UNITS
        on_axes = _on_axes(definition)
        if on_axes is None:
            return PLAIN_UNITS
        x = self._unit(AxisName.X, on_axes.x)
        y = self._unit(AxisName.Y, on_axes.y)
        variables = definition.units.variables
        variable, value = x, y
        if definition.kind in (Kind.PATH, Kind.POLAR) and variables:
            variable = unit_of(variables[0])
        if definition.kind is Kind.SEVERAL:
            value = unit_of(measures_of(definition.units.value)[0])
        return CurveUnits(x, y, variable, value)

    def unit_across(self, measure: Measure) -> UnitProduct:
        """Return the unit of a quantity: that of the axis across, if the axis has its dimension."""
        own = self._unit(AxisName.X, measure)
        return own if own.parts else unit_of(measure)

    def on_axis(self, axis: AxisName) -> tuple[UnitProduct, ...]:
        """Return the units that stand on an axis, those of lines first."""
        return tuple(dict.fromkeys(self._defaults[axis].values()))

    def quantities_on(self, axis: AxisName) -> Mapping[ShownQuantity, UnitProduct]:
        """Return the unit of each quantity on an axis, plain numbers among them."""
        return self._defaults[axis]

    def only_unit(self, axis: AxisName) -> UnitProduct:
        """Return the unit of an axis on which all lines measure the same; else none."""
        units = self.on_axis(axis)
        return units[0] if len(units) == 1 else NO_UNIT

    def _unit(self, axis: AxisName, measure: Measure | None) -> UnitProduct:
        if measure is None:
            return next((unit for unit in self.on_axis(axis) if unit.parts), NO_UNIT)
        return self._defaults[axis].get(ShownQuantity.of(measure), NO_UNIT)

    @lazy_property
    def _defaults(self) -> dict[AxisName, dict[ShownQuantity, UnitProduct]]:
        """Return the unit of each quantity on each axis: the one that was chosen, or the first."""
        section = self._snapshot.section(ShownUnits)
        units: dict[AxisName, dict[ShownQuantity, UnitProduct]] = {AxisName.X: {}, AxisName.Y: {}}
        for axis, measure in self._measures():
            units[axis].setdefault(ShownQuantity.of(measure), unit_of(measure))
        for axis, texts, difference in (
            (AxisName.X, section.x, section.x_difference),
            (AxisName.Y, section.y, section.y_difference),
        ):
            chosen = [(text, False) for text in texts] + [(difference, True)]
            for text, is_difference in chosen:
                unit = read_unit(text) if text else None
                if unit is not None:
                    quantity = ShownQuantity(unit.dimension, is_difference)
                    if quantity in units[axis] and quantity.fits(unit):
                        units[axis][quantity] = unit
        return units

    def column_unit(self, name: str) -> UnitProduct | None:
        """Return the unit of a column of data; None in a study without units, and without one."""
        if self._snapshot.analysis.named_units is None:
            return None
        unit = read_unit(self._snapshot.section(Data).unit_of(name))
        return unit if unit is not None and unit.factor is not None else None

    def column_on(self, axis: AxisName, name: str) -> UnitProduct | None:
        """Return the unit of an axis in which a column of data is drawn; None for its numbers."""
        own = self.column_unit(name)
        return None if own is None else self._defaults[axis].get(ShownQuantity(own.dimension))

    def _measures(self) -> Iterator[tuple[AxisName, Measure]]:
        yield from self._of_columns()
        for definition in self._snapshot.definitions():
            if definition.disabled or definition.problem is not None or definition.units is None:
                continue
            on_axes = _on_axes(definition)
            if on_axes is not None and on_axes.x is not None:
                yield AxisName.X, on_axes.x
            if on_axes is not None and on_axes.y is not None:
                yield AxisName.Y, on_axes.y

    def _of_columns(self) -> Iterator[tuple[AxisName, Measure]]:
        """Return what the columns measure that are drawn as points."""
        for plot in self._snapshot.section(Data).plots:
            for axis, name in ((AxisName.X, plot.x), (AxisName.Y, plot.y)):
                unit = self.column_unit(name)
                if unit is not None:
                    yield axis, measure_of(unit)


def _on_axes(definition: Definition) -> _OnAxes | None:
    """Return what a line measures along both axes; None for one that does not stand on them."""
    units = definition.units
    if units is None:
        return None
    value = units.value
    match definition.kind:
        case Kind.FUNCTION if isinstance(value, Measure):
            return _OnAxes(_unless_any(units.variables[0], value), value)
        case Kind.POLAR if isinstance(value, Measure):
            return _OnAxes(value, value)
        case Kind.RELATION | Kind.REGION | Kind.SEVERAL if len(units.variables) == 2:
            x, y = units.variables
            return _OnAxes(_unless_any(x, y), _unless_any(y, x))
        case _ if isinstance(value, PlaneMeasure):
            return _OnAxes(value.first, value.second)
        case _:
            return None


def _unless_any(measure: Measure, other: Measure) -> Measure | None:
    """Return what a coordinate measures; None if it may be anything, as t in ``f(t) = 3 m``."""
    return None if measure.is_any and measure.shares_nothing(other) else measure
