"""The axes of a study in one position of the sliders."""

from __future__ import annotations

import math
from dataclasses import replace

from axis_path.core.catalogue.units import UnitProduct, read_unit
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.results import Results
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.draw import Window
from axis_path.core.errors import MathError
from axis_path.core.features.axes.drawing import Steps, TitleLine, title_lines
from axis_path.core.features.axes.section import AxesSpec, AxisSpec


class Axes:
    """The axes, with the steps and the title that they have now."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._numbers = snapshot.query(Numbers)
        self._units = snapshot.query(PlaneUnits)

    @property
    def spec(self) -> AxesSpec:
        """Return how the axes and the grid look."""
        return self._snapshot.section(AxesSpec)

    @property
    def title(self) -> tuple[TitleLine, ...]:
        """Return the title, typeset where it holds formulas."""
        return title_lines(self.spec.title, self._snapshot.query(Results).typeset)

    @property
    def steps(self) -> Steps:
        """Return the steps of the axes; one that has lost its value is automatic."""
        return Steps(self._step(AxisName.X, self.spec.x), self._step(AxisName.Y, self.spec.y))

    @property
    def unit_across(self) -> str:
        """Return the unit of the axis across as it is printed; empty without just one."""
        return self._units.only_unit(AxisName.X).printed

    def with_units(self, x: str, y: str) -> tuple[str, str]:
        """Return the names of both axes with the units that stand on them."""
        return self._with_units(x, AxisName.X), self._with_units(y, AxisName.Y)

    def _with_units(self, name: str, axis: AxisName) -> str:
        units = [unit.printed for unit in self._units.on_axis(axis) if unit.parts]
        return f"{name} in {', '.join(units)}" if units else name

    def on_axes(self, window: Window) -> Window:
        """Return a window on these axes that shows the same, as far as it can."""
        measured = self._in_units(window)
        return measured.on_axes(log_x=self.spec.x.log, log_y=self.spec.y.log)

    def _in_units(self, window: Window) -> Window:
        """Return the window that shows the same where the unit of an axis was changed."""
        x, y = self._units.only_unit(AxisName.X), self._units.only_unit(AxisName.Y)
        if (window.x_unit, window.y_unit) == (x.symbol, y.symbol):
            return window
        return replace(
            window,
            x=_converted(window.x, window.x_unit, x),
            y=_converted(window.y, window.y_unit, y),
            x_unit=x.symbol,
            y_unit=y.symbol,
        )

    def _step(self, name: AxisName, axis: AxisSpec) -> float | None:
        try:
            unit = self._units.only_unit(name)
            return self._numbers.positive(axis.step, unit) if axis.step else None
        except MathError:
            return None


def _converted(bounds: tuple[float, float], old: str, new: UnitProduct) -> tuple[float, float]:
    """Return bounds in a new unit; what had no unit of the same dimension stays."""
    before = read_unit(old) if old else None
    if before is None or before.dimension != new.dimension or before.symbol == new.symbol:
        return bounds
    if before.factor is None or new.factor is None:
        return bounds
    ratio = before.factor / new.factor
    scale = float(ratio.number) * math.pi**ratio.pi
    shift = float((before.offset - new.offset) / new.factor.number)
    return bounds[0] * scale + shift, bounds[1] * scale + shift
