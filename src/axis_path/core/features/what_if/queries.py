"""What-if tables: their rows, and where there is no value."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

from axis_path.core.arithmetic import Ball, precision
from axis_path.core.arithmetic.conversion import to_fraction
from axis_path.core.arithmetic.real_number import EnclosedNumber, RealNumber, ball_of
from axis_path.core.catalogue.units import NO_UNIT, UnitProduct
from axis_path.core.compile.results import Results
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.dimensions import (
    PLAIN_MEASURE,
    PLAIN_QUANTITY,
    CurveUnits,
    ShownQuantity,
    measures_of,
    unit_of,
)
from axis_path.core.document.random_seed import RandomSeed
from axis_path.core.errors import LimitError, MathError, StoppedError, TableError
from axis_path.core.evaluate import (
    VALUE_BITS,
    Expression,
    RealFunction,
    Result,
    ResultKind,
    evaluate_constant,
)
from axis_path.core.features.tables.queries import Tables
from axis_path.core.features.what_if.section import WhatIfSpec
from axis_path.core.features.what_if.varied import quantity_of_name, unit_of_name, varied
from axis_path.core.language import read_expression, spelled
from axis_path.core.language.tree import Converted
from axis_path.core.limits import WHAT_IF_ROWS
from axis_path.core.tabulate import Abscissae, TableSpec
from axis_path.core.threads import SharedCache

#: The end of a range without a value is narrowed by so many bisections.
_BISECTIONS = 24
_END_DIGITS = 5
#: A range without a value that is narrower than this part of a step is a single place.
_SINGLE = 1e-4
_MOST_TABLES = 8


@dataclass(frozen=True, slots=True)
class Column:
    """A column of a what-if table.

    Attributes:
        text: what is computed.
        unit: of its values.
        quantity: what they are.
        problem: why it has no meaning; empty if it has one.
        is_solved: whether equations have to be solved for each value.
        label: the text without the unit that it asks for: D for ``D in kN``.
    """

    text: str
    unit: UnitProduct
    quantity: ShownQuantity
    problem: str = ""
    is_solved: bool = False
    label: str = ""


class WhatIf:
    """The what-if table of a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot

    def table(self, spec: WhatIfSpec | None = None) -> WhatIfTable:
        """Return the table that is kept, or another one.

        Raises:
            MathError: its name cannot be varied, or its rows cannot be made.
        """
        spec = spec or self._snapshot.section(WhatIfSpec)
        study = varied(self._snapshot, spec.name, spec.instead)
        analysis = study.analysis
        names = frozenset[str]().union(*map(analysis.uses_of, spec.columns))
        sliders = tuple(pair for pair in study.sliders_below(names) if pair[0] != spec.name)
        options = tuple(line.options for line in study.lines)
        seed = study.section(RandomSeed).number
        unit = unit_of_name(self._snapshot, spec.name)
        quantity = quantity_of_name(self._snapshot, spec.name, unit)
        own = (unit.symbol, quantity)
        key = (spec, own, study.unit, analysis.keys, sliders, options, seed)
        return _tables.get_or_make(key, lambda: WhatIfTable(study, spec, unit, quantity))


class WhatIfTable:
    """A what-if table in one position of the other sliders.

    Args:
        study: in which the name is a slider.
        spec: what the table is made from.
        unit: of the values of the name.
        quantity: what they are.

    Raises:
        MathError: the rows cannot be made.
    """

    def __init__(
        self, study: Snapshot, spec: WhatIfSpec, unit: UnitProduct, quantity: ShownQuantity
    ) -> None:
        self.study = study
        self.spec = spec
        self.unit = unit
        self.quantity = quantity
        self.name = spelled(spec.name)
        self.rows = self._abscissae()
        self._cells: dict[int, tuple[Result | MathError, ...]] = {}
        self._functions: dict[str, RealFunction] = {}
        self._numbers: dict[int, RealNumber] = {}
        self._states: dict[RealNumber, Snapshot] = {}

    def _abscissae(self) -> Abscissae:
        spec = self.spec
        rows = self.study.query(Tables).table_abscissae(
            TableSpec(
                start=spec.start, stop=spec.stop, step=spec.step, count=spec.count,
                listed=spec.listed, over=self.name,
            )
        )  # fmt: skip
        if rows.count > WHAT_IF_ROWS.value:
            raise LimitError(
                f"A what-if table has {WHAT_IF_ROWS.value} rows at most; this one would have "
                f"{rows.count:,}."
            )
        return rows

    @cached_property
    def columns(self) -> tuple[Column, ...]:
        """Return what is computed for each value."""
        return tuple(self._column(text) for text in self.spec.columns)

    def _column(self, text: str) -> Column:
        analysis = self.study.analysis
        try:
            node = read_expression(text, analysis.names())
            measure, _ = analysis.measured(node, text)
        except MathError as err:
            return Column(text, NO_UNIT, PLAIN_QUANTITY, err.message, label=text)
        own = PLAIN_MEASURE if measure is None else measures_of(measure)[0]
        solved = analysis.solved_in(analysis.uses_of(text))
        label = text[slice(*node.operand.span)] if isinstance(node, Converted) else text
        return Column(
            text, unit_of(own), ShownQuantity.of(own), is_solved=bool(solved), label=label.strip()
        )

    def expression(self, column: Column) -> Expression:
        """Return a column in base units, with the name as a parameter."""
        analysis = self.study.analysis
        node = read_expression(column.text, analysis.names())
        return analysis.expressions.compile_constant(analysis.measured(node, column.text)[1])

    def function(self, column: Column, x: UnitProduct, y: UnitProduct) -> RealFunction:
        """Return a column for which nothing is solved as a function of the name.

        Args:
            column: it has a meaning.
            x: the unit of its variable.
            y: the unit of its values.
        """
        key = f"{column.text}|{x.symbol}|{y.symbol}"
        if key not in self._functions:
            expressions = self.study.analysis.expressions
            node = read_expression(column.text, self.study.analysis.names())
            _, base = self.study.analysis.measured(node, column.text)
            units = CurveUnits(self.unit, y, self.unit, y)
            made = expressions.row_expression(base, (), self.name, None, units)
            made = expressions.units.of_variable(made, self.unit, x)
            self._functions[key] = RealFunction(
                column.text, self.name, made, self.study.values, units=CurveUnits(x, y, x, y)
            )
        return self._functions[key]

    def cells(self, row: int) -> tuple[Result | MathError, ...]:
        """Return the values in a row, or why there are none."""
        known = self._cells.get(row)
        if known is None:
            known = self._cells[row] = self._row_of(self.number(row))
        return known

    def _exact(self, row: int, value: Ball) -> RealNumber:
        """Return the value of a row, as a fraction or with any number of digits."""
        if value.exact is not None:
            return to_fraction(value.exact)

        def at_bits(bits: int) -> Ball:
            with precision(bits):
                return self.rows.at(row)

        return EnclosedNumber(at_bits)

    def _row_of(self, value: RealNumber) -> tuple[Result | MathError, ...]:
        study = self.state(value)
        return tuple(self._quick_cell(study, column, value) for column in self.columns)

    def _quick_cell(self, study: Snapshot, column: Column, value: RealNumber) -> Result | MathError:
        """Return a value; where there is none, no time is spent on what else it could be."""
        if not column.problem:
            try:
                ball = self._ball(column, value)
            except StoppedError:
                raise
            except MathError as err:
                return err
            if not ball.is_defined:
                return TableError(ball.reason or "it could not be decided")
        return self._cell(study, column)

    def _ball(self, column: Column, value: RealNumber) -> Ball:
        """Compute a value without looking for its exact form.

        Raises:
            DomainError: equations have no solution.
        """
        if column.is_solved:
            return evaluate_constant(
                self.expression(column), self.state(value).values, bits=VALUE_BITS
            )
        with precision(VALUE_BITS):
            return self.function(column, self.unit, column.unit).prove(ball_of(value))

    def _cell(self, study: Snapshot, column: Column) -> Result | MathError:
        if column.problem:
            return TableError(column.problem)
        try:
            result = study.query(Results).evaluate(column.text)
        except StoppedError:
            raise
        except MathError as err:
            return err
        if result.kind not in (ResultKind.NUMBER, ResultKind.QUANTITY):
            return TableError(f"`{column.text}` is no number.")
        return TableError(result.reason) if result.reason else result

    def missing(self) -> list[str]:
        """Describe in sentences where columns have no value, as far as the rows tell."""
        sentences = []
        for place, column in enumerate(self.columns):
            if column.problem:
                continue
            known = [self._is_known(place, self.number(row)) for row in range(self.rows.count)]
            for first, last in _runs(known):
                sentences.append(self._gap(place, column, first, last))
        return sentences

    def _is_known(self, place: int, value: RealNumber) -> bool:
        """Check whether a column has a value."""
        try:
            return self._ball(self.columns[place], value).is_defined
        except StoppedError:
            raise
        except MathError:
            return False

    def number(self, row: int) -> RealNumber:
        """Return the value of the name in a row."""
        if row not in self._numbers:
            with precision(VALUE_BITS):
                self._numbers[row] = self._exact(row, self.rows.at(row))
        return self._numbers[row]

    def state(self, number: RealNumber) -> Snapshot:
        """Return the study with a value of the name; equations are solved once for each."""
        if number not in self._states:
            self._states[number] = self.study.with_number(self.name, number)
        return self._states[number]

    def _gap(self, place: int, column: Column, first: int, last: int) -> str:
        """Describe one range of rows without a value."""
        cell = self.cells(first)[place]
        reason = cell.message.rstrip(".?") if isinstance(cell, MathError) else ""
        reason = reason.removeprefix(f"`{column.text}` has no value: ").partition(";")[0]
        if first == 0 and last == self.rows.count - 1:
            return f"`{column.text}` has no value in any row: {reason}."
        low = None if first == 0 else self._edge(place, first - 1, first)
        high = None if last == self.rows.count - 1 else self._edge(place, last + 1, last)
        unit = f" {self.unit.printed}" if self.unit.parts else ""
        name = f"`{self.name}`"
        ends = [end for end in (low, high) if end is not None]
        if first == last and all(self._is_row(end, first) for end in ends):
            where = f"for {name} = {self.rows.text(first, _END_DIGITS)}{unit}"
        elif low is not None and high is not None:
            where = f"for {name} from about {low} to about {high}{unit}"
        elif low is not None:
            where = f"for {name} beyond about {low}{unit}"
        else:
            where = f"for {name} before about {high}{unit}"
        return f"`{column.text}` has no value {where}: {reason}."

    def _is_row(self, end: str, row: int) -> bool:
        """Check whether a range without a value ends at a row itself, as a pole does."""
        step = abs(float(self.number(1)) - float(self.number(0)))
        return abs(float(end.replace("−", "-")) - float(self.number(row))) < _SINGLE * step

    def _edge(self, place: int, known_row: int, missing_row: int) -> str:
        """Return where a column begins to have no value, narrowed by bisection."""
        with precision(VALUE_BITS):
            known, missing = (
                _near(self.rows.at(row)) for row in (known_row, missing_row)
            )  # fmt: skip
        for _ in range(_BISECTIONS):
            middle = (known + missing) / 2
            is_known = self._is_known(place, middle)
            known, missing = (middle, missing) if is_known else (known, middle)
        return f"{float((known + missing) / 2):.{_END_DIGITS}g}".replace("-", "−")


def _near(value: Ball) -> Fraction:
    return Fraction(float(value.value.mid())) if value.exact is None else to_fraction(value.exact)


def _runs(known: Sequence[bool]) -> list[tuple[int, int]]:
    """Return the first and the last row of each range without values."""
    runs, first = list[tuple[int, int]](), None
    for row, is_known in enumerate([*known, True]):
        if not is_known and first is None:
            first = row
        elif is_known and first is not None:
            runs.append((first, row - 1))
            first = None
    return runs


_tables: SharedCache[tuple[object, ...], WhatIfTable] = SharedCache(_MOST_TABLES)
