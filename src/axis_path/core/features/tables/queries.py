"""Tables of values: their places, and the functions that stand in their columns."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from axis_path.core.arithmetic import Ball
from axis_path.core.catalogue.units import NO_UNIT, UnitProduct, read_unit
from axis_path.core.compile.compiled import CompiledValue
from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.numbers import GivenNumber, Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.dimensions import PLAIN_UNITS, CurveUnits, measure_of, measures_of, unit_of
from axis_path.core.errors import MathError, TableError
from axis_path.core.evaluate import RealFunction, Result
from axis_path.core.language import read_expression, spelled
from axis_path.core.lines.meaning import Kind
from axis_path.core.tabulate import (
    Abscissae,
    Head,
    Series,
    TableColumn,
    TableSpec,
    ValueTable,
    counted,
    listed,
    make_table,
    spaced,
)

#: A function by its name alone, or a derivative of it: its values are meant.
_BARE = re.compile(r"(\w+?)(['′″]*)")
_SIGNS = {Series.VALUE: "", Series.DIFFERENCE: "Δ ", Series.RATIO: "ratio of ", Series.SUM: "Σ "}
_USUAL_VARIABLE = "x"

Shown = Sequence[tuple[Definition, RealFunction]]


@dataclass(frozen=True, slots=True)
class BrokenColumn:
    """A column whose expression has lost its meaning.

    Attributes:
        text: what was typed.
        own: its place among the columns of the table's own.
        problem: what is missing.
    """

    text: str
    own: int
    problem: str


class Tables:
    """The tables that can be made of a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._curves = snapshot.query(Curves)
        self._numbers = snapshot.query(Numbers)
        self._units = snapshot.query(PlaneUnits)

    def table_abscissae(self, spec: TableSpec) -> Abscissae:
        """Return the abscissae of a table as it was typed.

        Raises:
            MathError: they cannot be made from what was typed.
        """
        if spec.listed.strip():
            # Between commas there may be spaces; a column that was pasted has nothing else.
            texts = split_list(spec.listed)
            unit = self.unit_of_rows(spec)
            return listed([place for text in texts for place in self._abscissae_of(text, unit)])
        if not spec.count.strip():
            return self.abscissae(spec.start, spec.stop, spec.step, unit=self.unit_of_rows(spec))
        count = self._numbers.number(spec.count)
        if count.exact is None or count.exact.q != 1 or count.exact < 2:
            raise TableError("The number of rows is a whole number, 2 at least.")
        rows = min(int(count.exact.p), 10**15)
        unit = self.unit_of_rows(spec)
        return self.abscissae(spec.start, spec.stop, None, count=rows, unit=unit)

    def _abscissae_of(self, text: str, unit: UnitProduct) -> list[Ball]:
        """Return a place, or those of a list of the study by its name."""
        meaning = self._snapshot.analysis.meaning(spelled(text))
        if meaning is None or meaning.kind is not Kind.LIST:
            return [self._numbers.number(text, unit)]
        compiled = self._snapshot.analysis.compiled(meaning.name or "")
        if not isinstance(compiled, CompiledValue):
            raise TableError(f"`{text}` is no list of numbers.")
        return self._snapshot.evaluator.elements(compiled)

    def values(
        self,
        names: Sequence[str],
        start: GivenNumber | None = None,
        stop: GivenNumber | None = None,
        step: GivenNumber | None = None,
        *,
        count: int | None = None,
        x: Sequence[GivenNumber] | None = None,
    ) -> ValueTable:
        """Make a table of values: by start, stop and step, or count, or at places of one's own.

        Raises:
            MathError: a name is not a function that works, or the table cannot be made.
        """
        functions = {name: self._curves.function(name) for name in names}
        unit = next((function.units.variable for function in functions.values()), NO_UNIT)
        places = self.abscissae(start, stop, step, count=count, x=x, unit=unit)
        return make_table(functions, places)

    def abscissae(
        self,
        start: GivenNumber | None,
        stop: GivenNumber | None,
        step: GivenNumber | None,
        *,
        count: int | None = None,
        x: Sequence[GivenNumber] | None = None,
        unit: UnitProduct = NO_UNIT,
    ) -> Abscissae:
        """Return the abscissae of a table; they are numbers of a unit, or quantities.

        Raises:
            MathError: they cannot be made from what is given.
        """
        if x is not None:
            return listed([self._numbers.number(value, unit) for value in x])
        if start is None or stop is None or (step is None) == (count is None):
            raise ValueError("give start and stop with either step or count, or x")
        first, last = (self._numbers.number(end, unit) for end in (start, stop))
        if count is not None:
            return counted(first, last, count)
        return spaced(first, last, self._numbers.number(step if step is not None else 1, unit))

    def table_variable(self, spec: TableSpec, shown: Shown) -> str:
        """Return the letter above the places of a table."""
        return spec.over or next((d.variable for d, _ in shown if d.variable), _USUAL_VARIABLE)

    def table_heads(self, spec: TableSpec, shown: Shown) -> list[Head | BrokenColumn]:
        """Return the columns of a table: those of the shown functions, then those of its own.

        Raises:
            MathError: the slider that the table runs over is gone, or where functions are
                evaluated has no value.
        """
        self._check_over(spec)
        settings = {
            column.text: (k, column)
            for k, column in enumerate(spec.columns)
            if column.series is Series.VALUE and any(column.text == d.name for d, _ in shown)
        }
        heads: list[Head | BrokenColumn] = []
        for definition, function in shown:
            name = definition.name or ""
            own, column = settings.get(name, (None, TableColumn(name)))
            if not column.out:
                used = function if not spec.over else self._named(name, 0, spec)
                heads.append(_head(column, name, used, spec, own, definition.tone))
        for own, column in enumerate(spec.columns):
            if settings.get(column.text, (None,))[0] == own:
                continue
            try:
                functions = self._column_functions(
                    column.text, spec, self.table_variable(spec, shown)
                )
            except MathError as err:
                heads.append(BrokenColumn(column.text, own, err.message))
                continue
            heads += [
                _head(column, _SIGNS[column.series] + name, function, spec, own)
                for name, function in functions
            ]
        return heads

    def exact_cell(self, head: Head, abscissa: str) -> Result:
        """Return the value of a column at a place, with its exact form.

        Args:
            head: the column; its numbers are values, not made of several rows.
            abscissa: where, as it is typed.

        Raises:
            MathError: the place has no value.
        """
        expression, _ = self._snapshot.analysis.constant(abscissa, self._unit_across)
        return self._snapshot.evaluator.number(
            self._snapshot.analysis.expressions.at_expression(head.function.expression, expression)
        )

    def _check_over(self, spec: TableSpec) -> None:
        moving = map(self._snapshot.moving, self._snapshot.lines)
        if spec.over and all(one is None or spelled(one[0]) != spec.over for one in moving):
            raise TableError(
                f"`{spec.over}` is no slider any more; choose what the rows of the table are."
            )

    def _column_functions(
        self, text: str, spec: TableSpec, variable: str
    ) -> list[tuple[str, RealFunction]]:
        bare = _BARE.fullmatch(text)
        meaning = self._snapshot.analysis.meaning(bare[1]) if bare else None
        if bare and meaning is not None and meaning.kind is Kind.FUNCTION:
            primes = bare[2].replace("″", "''").replace("′", "'")
            return [(text, self._named(bare[1], len(primes), spec))]
        if meaning is not None and meaning.kind in (Kind.PATH, Kind.POLAR) and not spec.over:
            path = self._curves.path(text)
            return [(f"x of {text}", path.x), (f"y of {text}", path.y)]
        return [(text, self._function_of_rows(text, spec, variable))]

    def _named(self, name: str, order: int, spec: TableSpec) -> RealFunction:
        """Return a function of the study, or a derivative of it, as a column."""
        function = self._curves.function(name)
        if not order and not spec.over:
            return function
        text = f"{name}{chr(39) * order}({function.variable})"
        return self._function_of_rows(text, spec, function.variable)

    def _function_of_rows(self, text: str, spec: TableSpec, variable: str) -> RealFunction:
        """Read an expression as a function of what the rows of a table are."""
        letters = {_USUAL_VARIABLE, variable} - {spec.over}
        analysis, unit = self._snapshot.analysis, self._unit_across
        node = read_expression(text, analysis.names().and_variables(*letters))
        if spec.over:
            self._check_unsolved(analysis.solved_in(analysis.uses_of(text)), spec.over)
        at = analysis.constant(spec.at, unit)[0] if spec.over else None
        measure, base = analysis.measured(node, text, dict.fromkeys(letters, measure_of(unit)))
        units = PLAIN_UNITS
        if measure is not None or unit.parts:
            value = NO_UNIT if measure is None else unit_of(measures_of(measure)[0])
            units = CurveUnits(unit, value, unit, value)
        result = analysis.expressions.row_expression(base, letters, spec.over, at, units)
        name = spec.over or variable
        return RealFunction(text, name, result, self._snapshot.values, units=units)

    def _check_unsolved(self, solved: set[str], over: str) -> None:
        """Refuse a column that would have to solve equations anew in each row.

        Raises:
            TableError: it would.
        """
        for name in sorted(solved):
            if any(slider == over for slider, _ in self._snapshot.sliders_below({name})):
                raise TableError(
                    f"`{name}` is found by solving equations: vary `{over}` in a what-if table."
                )

    @property
    def _unit_across(self) -> UnitProduct:
        """Return the unit of the values of x: that of the axis across."""
        return self._units.only_unit(AxisName.X)

    def unit_of_rows(self, spec: TableSpec) -> UnitProduct:
        """Return the unit of what the rows of a table are."""
        return self._snapshot.unit_of_slider(spec.over) if spec.over else self._unit_across

    def check_columns(self, spec: TableSpec, shown: Shown) -> None:
        """Check the columns that a table has not had yet.

        Raises:
            MathError: one cannot be read, or has no meaning here.
        """
        known = {column.text for column in self._snapshot.section(TableSpec).columns}
        names = [(column.text, column.series) for column in spec.columns]
        twice = next((name for name in names if names.count(name) > 1), None)
        if twice is not None and len(spec.columns) > len(self._snapshot.section(TableSpec).columns):
            raise TableError(f"`{twice[0]}` is a column of the table already.")
        for head in self.table_heads(spec, shown):
            if isinstance(head, BrokenColumn) and head.text not in known:
                variable = self.table_variable(spec, shown)
                self._column_functions(head.text, spec, variable)


def _head(
    column: TableColumn,
    name: str,
    function: RealFunction,
    spec: TableSpec,
    own: int | None,
    tone: int | None = None,
) -> Head:
    digits = spec.digits if column.digits is None else column.digits
    form = column.form or spec.form
    return Head(column.text, name, function, column.series, digits, form, tone, own)


def _with_their_units(parts: list[str]) -> list[str]:
    """Put units behind the numbers that they stand behind: ``20 kg 30 kg`` are two values."""
    values: list[str] = []
    for part in parts:
        if values and read_unit(part) is not None:
            values[-1] += f" {part}"
        else:
            values.append(part)
    return values


def split_list(text: str) -> list[str]:
    """Split what was typed as a list: at commas outside of brackets, or at spaces without any."""
    if "," not in text and ";" not in text:
        return _with_their_units(text.split())
    parts, depth, begin = [], 0, 0
    for at, sign in enumerate(text):
        if sign in "([":
            depth += 1
        elif sign in ")]":
            depth = max(depth - 1, 0)
        elif sign in ",;" and not depth:
            parts.append(text[begin:at])
            begin = at + 1
    parts.append(text[begin:])
    return [part.strip() for part in parts if part.strip()]
