"""Move compiled expressions from base units to the units in which they are shown."""

from __future__ import annotations

from collections.abc import Sequence

from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.compile.cache import CompileCache
from axis_path.core.compile.compiled import CompiledFunction, CompiledValue
from axis_path.core.compile.inputs import SECOND_OF_PLANE
from axis_path.core.dimensions.curve_units import CurveUnits
from axis_path.core.dimensions.expand import in_unit_of_one
from axis_path.core.evaluate import Expression, FullCompiler, Op, Shaped
from axis_path.core.threads import COMPUTING


class UnitConversion:
    """Multiplies by factors and adds zeros in the graph of a study.

    Args:
        cache: of what was compiled.
        compiler: of the factors.
    """

    def __init__(self, cache: CompileCache, compiler: FullCompiler) -> None:
        self._cache = cache
        self._compiler = compiler

    def step_in_unit(self, step: int, unit: UnitProduct) -> int:
        """Return a step of base units as one in another unit."""
        graph = self._cache.graph
        if unit.offset:
            step = graph.minus(step, graph.number(unit.offset))
        one = in_unit_of_one(unit, self._cache.unit)
        return step if one is None else graph.over(step, self._compiler.compile(one, {}))

    def step_in_base_units(self, step: int, unit: UnitProduct) -> int:
        """Return a step in a unit as one of base units."""
        graph = self._cache.graph
        one = in_unit_of_one(unit, self._cache.unit)
        scaled = step if one is None else graph.times(step, self._compiler.compile(one, {}))
        return graph.plus(scaled, graph.number(unit.offset)) if unit.offset else scaled

    def value(self, value: CompiledValue, units: Sequence[UnitProduct]) -> CompiledValue:
        """Return a point, or a list of points, of base units with coordinates in other units."""
        with COMPUTING:
            steps = [value.first.step, *([] if value.second is None else [value.second.step])]
            first, *second = map(self.step_in_unit, steps, units)
            shaped = Shaped(first, second[0] if second else None, value.shaped.lists)
            parts = [self._expression(step) for step in (first, *second)]
            return CompiledValue(shaped, parts[0], parts[1] if second else None)

    def function(self, function: CompiledFunction, units: CurveUnits) -> CompiledFunction:
        """Return a function of base units as one of numbers on the axes; it is stored."""
        if units.is_plain:
            return function
        key = (function, units)
        cached = self._cache.in_units.get(key)
        if cached is None:
            with COMPUTING:
                cached = self._cache.in_units[key] = self._function(function, units)
        return cached

    def _function(self, function: CompiledFunction, units: CurveUnits) -> CompiledFunction:
        def bound(expression: Expression) -> Expression:
            return self._expression(self.step_in_unit(expression.step, units.variable))

        plane = None
        if function.plane is not None:
            across, up = function.plane
            plane = (
                self._moved(across, units.variable, units.x),
                self._moved(up, units.variable, units.y),
            )
        return CompiledFunction(
            self._moved(function.expression, units.variable, units.value),
            None if function.low is None else bound(function.low),
            None if function.high is None else bound(function.high),
            tuple(map(bound, function.without)),
            plane,
        )

    def on_plane(
        self, expression: Expression, units: CurveUnits, *, has_value: bool
    ) -> Expression:  # fmt: skip
        """Return an expression of x and y in base units as one of numbers on the axes.

        Args:
            expression: its variable is x, its input y.
            units: of the axes.
            has_value: whether its value is shown, and not only whether it is zero.
        """
        if units.is_plain:
            return expression
        key = (expression, units, has_value)
        cached = self._cache.on_plane.get(key)
        if cached is None:
            with COMPUTING:
                graph = self._cache.graph
                x, y = graph.add(Op.VARIABLE), graph.add(Op.INPUT, payload=SECOND_OF_PLANE)
                step = self._substituted(expression.step, x, units.x)
                step = self._substituted(step, y, units.y)
                if has_value:
                    step = self.step_in_unit(step, units.value)
                cached = self._cache.on_plane[key] = self._expression(step)
        return cached

    def input_in_unit(self, name: str, own: UnitProduct, other: UnitProduct) -> Expression:
        """Return a number of one unit, an input of this name, as one of another unit."""
        with COMPUTING:
            step = self._cache.graph.add(Op.INPUT, payload=name)
            return self._expression(self.step_in_unit(self.step_in_base_units(step, own), other))

    def converted(self, expression: Expression, own: UnitProduct, other: UnitProduct) -> Expression:
        """Return an expression that is a number of one unit as a number of another."""
        with COMPUTING:
            step = self.step_in_base_units(expression.step, own)
            return self._expression(self.step_in_unit(step, other))

    def conversion(self, own: UnitProduct, other: UnitProduct) -> Expression:
        """Return a number of one unit, the variable, as one of another unit."""
        with COMPUTING:
            step = self._cache.graph.add(Op.VARIABLE)
            if own != other:
                step = self.step_in_unit(self.step_in_base_units(step, own), other)
            return self._expression(step)

    def in_value_unit(self, expression: Expression, unit: UnitProduct) -> Expression:
        """Return an expression of base units as a number of a unit."""
        with COMPUTING:
            return self._expression(self.step_in_unit(expression.step, unit))

    def of_variable(
        self, expression: Expression, own: UnitProduct, other: UnitProduct
    ) -> Expression:
        """Return an expression whose variable is a number of another unit than it was."""
        if own == other:
            return expression
        with COMPUTING:
            graph = self._cache.graph
            row = graph.add(Op.VARIABLE)
            number = self.step_in_unit(self.step_in_base_units(row, other), own)
            return self._expression(graph.substitute(expression.step, row, number))

    def _moved(
        self, expression: Expression, variable: UnitProduct, value: UnitProduct
    ) -> Expression:  # fmt: skip
        """Return an expression of base units with its variable and its value in other units."""
        own = self._cache.graph.add(Op.VARIABLE)
        step = self._substituted(expression.step, own, variable)
        return self._expression(self.step_in_unit(step, value))

    def _substituted(self, step: int, own: int, unit: UnitProduct) -> int:
        """Return a step with a variable in a unit in the place of one in base units."""
        if not unit.parts:
            return step
        return self._cache.graph.substitute(step, own, self.step_in_base_units(own, unit))

    def _expression(self, step: int) -> Expression:
        return Expression(self._cache.graph, step)
