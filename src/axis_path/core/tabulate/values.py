"""Tables of values: several functions side by side at the same places.

Places are stored exactly (``pi/6`` stays pi/6), and every number that is shown is computed by the
proving backend. The columns of floats of an ordinary table are the nearest floats to the values.
Those of a very long one are computed fast; a cell whose float could be off by more than a
trillionth, or whose value may be undefined, is computed again by the proving backend.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from flint import fmpq
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, ball, ball_functions, precision
from axis_path.core.arithmetic.conversion import is_short, to_fraction, written_fraction
from axis_path.core.errors import LimitError, TableError
from axis_path.core.evaluate import (
    VALUE_BITS,
    RealFunction,
    decimal_text,
    digits_of,
    multiple_of_pi,
)
from axis_path.core.limits import TABLE_ROWS

Floats = NDArray[np.float64]
#: A place that is off a row by less than this part of a step is that row.
_SAME_ROW = 1e-8
_TRUSTED = 1e-12
#: A table of no more rows has the nearest float in each cell.
_PROVED_ROWS = 5_000


@dataclass(frozen=True)
class Abscissae:
    """Abscissae: ``start + k * step`` for k from 0, or a list of their own.

    Attributes:
        count: how many there are, n.
        step: None for a list.
        listed: the list, empty for evenly spaced places.
    """

    count: int
    start: Ball
    step: Ball | None
    listed: tuple[Ball, ...] = ()

    def at(self, row: int) -> Ball:
        """Return one place exactly, at the present precision."""
        if self.step is None:
            return self.listed[row]
        return ball.add(self.start, ball.multiply(ball.from_fraction(row), self.step))

    def part(self, start: int, stop: int) -> Abscissae:
        """Return the places of some rows, ``start`` to ``stop`` without the last."""
        if self.step is None:
            return Abscissae(stop - start, self.start, None, self.listed[start:stop])
        with precision(VALUE_BITS):
            return Abscissae(stop - start, self.at(start), self.step)

    def row_before(self, x: float) -> int:
        """Return the row after which a place lies: the first such one, or the nearest row.

        A list need not be in order; what lies outside of all rows is nearest to one of the ends.
        """
        if self.step is not None:
            start, step = float(self.start.value.mid()), float(self.step.value.mid())
            row = (x - start) / step if step and math.isfinite(x) else 0.0
            # A place that is a row itself must not fall to the row before by a rounding.
            near = round(min(max(row, 0.0), self.count - 1.0))
            return near if abs(row - near) < _SAME_ROW else int(min(max(row, 0.0), self.count - 1))
        away = self.floats() - x
        crossed = np.flatnonzero(away[:-1] * away[1:] <= 0)
        if crossed.size:
            row = int(crossed[0])
            return row + int(away[row] != 0 and away[row + 1] == 0)
        return int(np.abs(away).argmin())

    def exact_text(self, row: int) -> str | None:
        """Return a place in exact form, as the language reads it, if it has one."""
        with precision(VALUE_BITS):
            abscissa = self.at(row)
        if abscissa.exact is not None:
            return written_fraction(abscissa.exact)
        if abscissa.turns is not None and is_short(abscissa.turns):
            return multiple_of_pi(to_fraction(abscissa.turns))
        return None

    def text(self, row: int, digits: int = 10) -> str:
        """Return a place with ``digits`` digits, all right."""
        with precision(VALUE_BITS):
            abscissa = self.at(row)
            return digits_of(abscissa, digits) or f"{float(abscissa.value.mid()):.{digits}g}"

    def floats(self) -> Floats:
        """Return all places as (n,) floats."""
        if self.step is None:
            return np.array([float(abscissa.value.mid()) for abscissa in self.listed])
        if self.start.exact is not None and self.step.exact is not None:
            # Whole numbers over one denominator: each place is rounded once, not added up.
            bottom = int(self.start.exact.q) * int(self.step.exact.q)
            first = int(self.start.exact.p) * int(self.step.exact.q)
            stride = int(self.step.exact.p) * int(self.start.exact.q)
            if bottom.bit_length() < 1000:
                return np.array([(first + k * stride) / bottom for k in range(self.count)])
        start, step = float(self.start.value.mid()), float(self.step.value.mid())
        return start + step * np.arange(self.count, dtype=np.float64)


def spaced(start: Ball, stop: Ball, step: Ball) -> Abscissae:
    """Return the places from ``start`` to at most ``stop``, a ``step`` apart.

    Raises:
        TableError: the step is zero or leads away from the stop; LimitError: too many rows.
    """
    with precision(VALUE_BITS):
        if any(not part.is_defined for part in (start, stop, step)):
            raise TableError("The start, the stop and the step of a table are numbers.")
        if step.excludes_zero() is False:
            raise TableError("The step of a table cannot be 0.")
        ratio = ball.divide(ball.subtract(stop, start), step)
        if ratio.sign() == -1:
            raise TableError("With this step the table never reaches its stop; change its sign.")
        whole = ball_functions.floor(ratio)
        last = (
            whole.exact if whole.exact is not None else fmpq(math.floor(float(ratio.value.mid())))
        )
        if last >= TABLE_ROWS.value:
            raise LimitError(
                f"The table would have {int(last.p) + 1:,} rows; {TABLE_ROWS.value:,} can be made."
            )
        return Abscissae(int(last.p) + 1, start, step)


def counted(start: Ball, stop: Ball, count: int) -> Abscissae:
    """Return ``count`` places from ``start`` to ``stop``, evenly spaced.

    Raises:
        TableError: fewer than two places; LimitError: too many.
    """
    if count < 2:
        raise TableError("A table from a start to a stop has at least 2 rows.")
    if count > TABLE_ROWS.value:
        raise LimitError(f"A table can have {TABLE_ROWS.value:,} rows at most.")
    with precision(VALUE_BITS):
        step = ball.divide(ball.subtract(stop, start), ball.from_fraction(count - 1))
        return Abscissae(count, start, step)


def listed(abscissae: Sequence[Ball]) -> Abscissae:
    """Return places of one's own.

    Raises:
        LimitError: too many.
    """
    if len(abscissae) > TABLE_ROWS.value:
        raise LimitError(f"A table can have {TABLE_ROWS.value:,} rows at most.")
    return Abscissae(len(abscissae), ball.from_fraction(0), None, tuple(abscissae))


@dataclass(frozen=True)
class ValueTable:
    """A table of values.

    Attributes:
        abscissae: of all rows, exact.
        x: the same as (n,) floats.
        columns: (n,) floats for each function by its name; NaN where undefined. They are the
            nearest to the values in a table of up to 5,000 rows, and right to a trillionth in a
            longer one.
    """

    abscissae: Abscissae
    functions: Mapping[str, RealFunction]
    x: Floats
    columns: dict[str, Floats]

    def reason(self, name: str, row: int) -> str:
        """Explain why a cell has no value; empty if it has one."""
        with precision(VALUE_BITS):
            value = self.functions[name].prove_within(self.abscissae.at(row))
        if value.is_defined:
            return ""
        variable = self.functions[name].variable
        return f"{value.reason or 'not decided'} at {variable} = {self.x_text(row)}"

    def text(self, name: str, row: int, digits: int = 10) -> str:
        """Return a cell with ``digits`` significant digits, all right; empty where undefined."""
        function = self.functions[name]
        return decimal_text(lambda bits: _at_bits(function, self.abscissae, row, bits), digits)

    def exact_x(self, row: int) -> str | None:
        """Return the place of a row in exact form, as the language reads it, if it has one."""
        return self.abscissae.exact_text(row)

    def x_text(self, row: int, digits: int = 10) -> str:
        """Return the place of a row with ``digits`` digits, all right."""
        return self.abscissae.text(row, digits)


def _at_bits(function: RealFunction, abscissae: Abscissae, row: int, bits: int) -> Ball:
    with precision(bits):
        return function.prove_within(abscissae.at(row))


def make_table(
    functions: Mapping[str, RealFunction], abscissae: Abscissae, *, whole: int | None = None
) -> ValueTable:
    """Make a table of all functions at all places.

    Args:
        functions: by the names of their columns.
        abscissae: of the rows.
        whole: how many rows the table has of which these are a part; those of a long table are
            proved only where floats do not suffice for the digits that are written.
    """
    xs = abscissae.floats()
    is_short = (abscissae.count if whole is None else whole) <= _PROVED_ROWS
    columns = {
        name: _column(function, abscissae, xs, is_short=is_short)
        for name, function in functions.items()
    }
    return ValueTable(abscissae, functions, xs, columns)


def _column(function: RealFunction, abscissae: Abscissae, xs: Floats, *, is_short: bool) -> Floats:
    values = function.sample(xs)
    if not len(xs):
        return values
    bounds = function.enclose(np.nextafter(xs, -np.inf), np.nextafter(xs, np.inf))
    with np.errstate(invalid="ignore"):
        wide = ~(bounds.high - bounds.low <= _TRUSTED * np.abs(values))
    edges = np.zeros(len(xs), dtype=np.bool_)
    for end in (function.low, function.high):
        if end is not None:
            edges |= np.abs(xs - end.near) <= 1e-12 * np.abs(end.near)
    doubtful = (wide | bounds.partial | edges) & ~bounds.nowhere
    if is_short:
        doubtful = np.ones(len(xs), dtype=np.bool_)
    with precision(VALUE_BITS):
        for row in np.flatnonzero(doubtful):
            value = function.prove_within(abscissae.at(int(row)))
            # What cannot be distinguished from zero at this precision is zero to every digit of a
            # float.
            values[row] = math.nan
            if value.defined is Defined.YES:
                values[row] = 0.0 if value.value.contains(0) else float(value.value.mid())
    return values
