"""The axes of a study in one position of the sliders."""

from __future__ import annotations

from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.results import Results
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.draw import Window
from axis_path.core.errors import MathError
from axis_path.core.features.axes.drawing import Steps, TitleLine, title_lines
from axis_path.core.features.axes.section import AxesSpec


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
        return Steps(*(self._step(axis.step) for axis in (self.spec.x, self.spec.y)))

    @property
    def unit_across(self) -> str:
        """Return the unit of the axis across as it is printed; empty without just one."""
        units = [unit for unit in self._units.on_axis(AxisName.X) if unit.parts]
        is_only = len(self._units.dimensions_on(AxisName.X)) == 1
        return units[0].printed if units and is_only else ""

    def with_units(self, x: str, y: str) -> tuple[str, str]:
        """Return the names of both axes with the units that stand on them."""
        return self._with_units(x, AxisName.X), self._with_units(y, AxisName.Y)

    def _with_units(self, name: str, axis: AxisName) -> str:
        units = [unit.printed for unit in self._units.on_axis(axis) if unit.parts]
        return f"{name} in {', '.join(units)}" if units else name

    def on_axes(self, window: Window) -> Window:
        """Return a window on these axes that shows the same, as far as it can."""
        return window.on_axes(log_x=self.spec.x.log, log_y=self.spec.y.log)

    def _step(self, text: str) -> float | None:
        try:
            return self._numbers.positive(text) if text else None
        except MathError:
            return None
