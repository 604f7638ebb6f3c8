"""Cells of a table: values, and what is made of them from row to row, every digit proved."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.evaluate import VALUE_BITS, RealFunction, decimal_text
from axis_path.core.limits import SUMMED_ROWS
from axis_path.core.tabulate.columns import Series
from axis_path.core.tabulate.form import NumberForm, digits_needed, written
from axis_path.core.tabulate.values import Abscissae


@dataclass(frozen=True, slots=True)
class Head:
    """A column as it stands in a table.

    Attributes:
        text: what was typed, or the name of a function.
        name: what stands above it.
        function: whose values it shows.
        series: what it shows of them.
        digits: how many.
        form: how its numbers are written.
        tone: the colour of a shown function; None for another column.
        own: its place among the columns of the table's own; None for a shown function alone.
    """

    text: str
    name: str
    function: RealFunction
    series: Series
    digits: int
    form: NumberForm
    tone: int | None = None
    own: int | None = None


@dataclass(frozen=True)
class Cells:
    """The cells of one column, at exact places.

    Attributes:
        head: the column.
        abscissae: all values of x of the table.
    """

    head: Head
    abscissae: Abscissae
    #: The sum up to a row, for each number of bits: rows are mostly asked for in order.
    _sums: dict[int, tuple[int, Ball]] = field(default_factory=dict, compare=False, repr=False)

    def value(self, row: int, bits: int = VALUE_BITS) -> Ball:
        """Return a cell, computed with so many binary digits; undefined with its reason."""
        with precision(bits):
            match self.head.series:
                case Series.VALUE:
                    return self._at(row)
                case Series.SUM:
                    return self._sum(row, bits)
            if not row:
                return ball.undefined("there is no row before this one")
            now, before = self._at(row), self._at(row - 1)
            if self.head.series is Series.DIFFERENCE:
                return ball.subtract(now, before)
            return ball.divide(now, before)

    def number(self, row: int) -> float:
        """Return the float nearest to a cell, NaN where it has no value."""
        value = self.value(row)
        return float(value.value.mid()) if value.is_defined else math.nan

    def text(self, row: int, near: float | None = None) -> str:
        """Write a cell as its column does; empty where it has no value.

        Args:
            row: which one.
            near: the float nearest to it, if it is known.
        """
        digits, form = self.head.digits, self.head.form
        value = self.number(row) if near is None else near
        needed = digits_needed(value if math.isfinite(value) else 0.0, digits, form)
        if not needed:
            return written("0", 0.0, digits, form)
        return written(
            decimal_text(lambda bits: self.value(row, bits), needed), value, digits, form
        )

    def reason(self, row: int) -> str:
        """Explain why a cell has no value; empty if it has one."""
        value = self.value(row)
        if value.is_defined:
            return ""
        reason = value.reason or "not decided"
        if self.head.series is not Series.VALUE:
            return reason
        return f"{reason} at {self.head.function.variable} = {self.abscissae.text(row)}"

    def _at(self, row: int) -> Ball:
        return self.head.function.prove_within(self.abscissae.at(row))

    def _sum(self, row: int, bits: int) -> Ball:
        if row >= SUMMED_ROWS.value:
            return ball.undefined(f"running sums are made of {SUMMED_ROWS.value:,} rows at most")
        last, total = self._sums.get(bits, (-1, ball.from_fraction(0)))
        if last > row:
            last, total = -1, ball.from_fraction(0)
        for index in range(last + 1, row + 1):
            value = self._at(index)
            if total.is_defined and not value.is_defined:
                total = ball.undefined(
                    f"no value in a row above, at {self.head.function.variable} = "
                    f"{self.abscissae.text(index)}"
                )
            elif total.is_defined:
                total = ball.add(total, value)
        self._sums[bits] = row, total
        return total
