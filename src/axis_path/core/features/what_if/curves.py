"""The columns of a what-if table as curves that follow it.

A column that is an expression of the name is drawn like any function. One for which equations are
solved has a dot for each row; two rows are joined only where it is proved that one solution leads
from one to the other.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from fractions import Fraction
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, precision
from axis_path.core.arithmetic.real_number import EnclosedNumber, RealNumber, ball_of
from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.sets.solving import SolvedEquations
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.dimensions import ShownQuantity
from axis_path.core.draw import Window, sample_curve
from axis_path.core.errors import MathError, StoppedError
from axis_path.core.evaluate import VALUE_BITS, End, Expression, RealFunction, evaluate_constant
from axis_path.core.features.what_if.queries import Column, WhatIfTable
from axis_path.core.locate.sets.branches import between, branch_through
from axis_path.core.locate.sets.problem import Values

Floats = NDArray[np.float64]
Point = tuple[float, float]
#: Where two rows are not proved to be joined, what lies between is halved so many times.
_HALVINGS = 3
_PROVING_BITS = 64


def axis_unit(
    snapshot: Snapshot, axis: AxisName, own: UnitProduct, quantity: ShownQuantity
) -> UnitProduct | None:
    """Return the unit of an axis for a quantity that has a unit of its own elsewhere.

    None where the axis shows something else; an axis on which nothing stands takes any unit.
    """
    standing = snapshot.query(PlaneUnits).quantities_on(axis)
    if not standing:
        return own
    unit = standing.get(quantity)
    return own if unit is not None and not unit.parts else unit


class WhatIfCurve:
    """A column as a curve.

    Args:
        table: whose column it is.
        column: that has a meaning.
        x: the unit across; ``y`` that upward.
    """

    def __init__(self, table: WhatIfTable, column: Column, x: UnitProduct, y: UnitProduct) -> None:
        self._table = table
        self._column = column
        self._x, self._y = x, y
        units = table.study.analysis.expressions.units
        self._across = units.conversion(table.unit, x)
        self._expression = self._value_expression()

    def lines(self, window: Window) -> list[Floats]:
        """Return the strokes, (n, 2) floats each."""
        if not self._column.is_solved:
            return list(sample_curve(self._function(), window).pieces)
        numbers = [self._table.number(row) for row in range(self._table.rows.count)]
        strokes: list[list[Point]] = [[]]
        for first, second in pairwise(numbers):
            for joint in self._joints(first, second, _HALVINGS):
                if joint is None:
                    strokes.append([])
                    continue
                start, stop = joint
                strokes[-1] += [stop] if strokes[-1] else [start, stop]
        return [np.array(stroke) for stroke in strokes if stroke]

    def dots(self) -> Floats:
        """Return the points of all rows, (n, 2) floats; rows without a value are left out."""
        numbers = (self._table.number(row) for row in range(self._table.rows.count))
        points = [point for point in map(self._point, numbers) if point is not None]
        return np.array(points).reshape(-1, 2)

    # A column without equations to solve

    def _function(self) -> RealFunction:
        function = self._table.function(self._column, self._x, self._y)
        with precision(VALUE_BITS):
            ends = [
                End(self._place(self._table.number(row)), closed=True)
                for row in (0, self._table.rows.count - 1)
            ]
        low, high = sorted(ends, key=lambda end: end.near)
        return replace(function, low=low, high=high)

    def _place(self, number: RealNumber) -> Ball:
        """Return where a value of the name stands across, at the present precision."""
        return RealFunction("", "x", self._across, {}).prove(ball_of(number))

    def _value_expression(self) -> Expression:
        """Return the column in the unit of the axis, without a variable."""
        table = self._table
        analysis = table.study.analysis
        return analysis.expressions.units.in_value_unit(table.expression(self._column), self._y)

    # A column for which equations are solved

    def _point(self, number: RealNumber) -> Point | None:
        study = self._table.state(number)
        try:
            value = evaluate_constant(self._expression, study.values, bits=VALUE_BITS)
        except StoppedError:
            raise
        except MathError:
            return None
        if not value.is_defined or not value.value.is_finite():
            return None
        with precision(VALUE_BITS):
            return float(self._place(number).value.mid()), float(value.value.mid())

    def _joints(
        self, first: RealNumber, second: RealNumber, halvings: int
    ) -> Iterator[tuple[Point, Point] | None]:
        """Yield the steps from one value to another; None for one that is not proved joined."""
        start, stop = self._point(first), self._point(second)
        if start is None or stop is None:
            yield None
        elif self._is_joined(first, second):
            yield start, stop
        elif not halvings:
            yield None
        else:
            middle = Fraction((float(first) + float(second)) / 2)
            yield from self._joints(first, middle, halvings - 1)
            yield from self._joints(middle, second, halvings - 1)

    def _is_joined(self, first: RealNumber, second: RealNumber) -> bool:
        """Check whether it is proved that a curve without a break joins two rows."""
        table, analysis = self._table, self._table.study.analysis
        indices = {analysis.solved_names[name] for name in self._solved_names()}
        if len(indices) != 1:
            return False
        index = next(iter(indices))
        states = [table.state(number) for number in (first, second)]
        solved = [state.solved_sets.solved(index) for state in states]
        chosen = states[0].solved_sets.chosen(index)
        with precision(VALUE_BITS):
            span = between(ball_of(first).value, ball_of(second).value)
        values = tuple(_values_of(one, chosen) for one in solved)
        box = branch_through(solved[0].problem, table.name, span, (values[0], values[1]))
        if box is None:
            return False
        held: dict[str, RealNumber] = {
            name: _held(box[input_name(name)]) for name in self._solved_names()
        }
        parameters = _Held(states[0].values, {**held, table.name: span})
        value = evaluate_constant(self._expression, parameters, bits=_PROVING_BITS)
        return value.is_defined and value.continuous and bool(value.value.is_finite())

    def _solved_names(self) -> frozenset[str]:
        solved = self._table.study.analysis.solved_names
        return frozenset(self._expression.program.parameters & solved.keys())


class _Held(dict[str, RealNumber]):
    """Values of names of which some are only known to lie in an interval."""

    def __init__(self, values: Mapping[str, RealNumber], held: dict[str, RealNumber]) -> None:
        super().__init__(held)
        self._values = values

    def __missing__(self, name: str) -> RealNumber:
        return self._values[name]


def _held(ball: Ball) -> EnclosedNumber:
    return EnclosedNumber(lambda _bits: ball)


def _values_of(solved: SolvedEquations, chosen: int) -> Values:
    return dict(solved.solutions.solutions[chosen].values)
