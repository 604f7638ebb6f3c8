"""Columns of data: typed, or calculated from others row by row, and which rows are stored."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from fractions import Fraction

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, ball
from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.data import Column
from axis_path.core.deadline import check
from axis_path.core.document.data import Data
from axis_path.core.errors import DataError, EquationError, LimitError, MathError
from axis_path.core.evaluate import VALUE_BITS, Expression, evaluate_constant, to_fraction
from axis_path.core.features.data.section import with_data
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.language.read import read_body
from axis_path.core.language.walk import names_in
from axis_path.core.limits import CALCULATED_ROWS
from axis_path.core.lines.sliders import written_number

Cells = tuple[Fraction | None, ...]

#: Which signs of a left side less its right one let a condition hold.
_HOLDS = {"<": (-1,), "<=": (-1, 0), ">": (1,), ">=": (1, 0), "=": (0,)}
#: What is not exact is stored with so many digits: those that a float has.
_DIGITS = 15


class Columns:
    """The columns of data of a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        #: Calculated columns, and the filter, by what they are.
        self._calculated: dict[str, object] = {}

    def column_of(self, name: str) -> Column:
        """Return a column by its name, with its cells in the present state of the sliders.

        Raises:
            MathError: there is none, or it cannot be calculated.
        """
        return self._calculate(name, frozenset())

    def rows_used(self) -> NDArray[np.bool_] | None:
        """Return for each row whether the filter keeps it, (n,); None without a filter.

        Raises:
            MathError: the filter cannot be used any more.
        """
        text = self._snapshot.section(Data).row_filter
        if not text.strip():
            return None
        cache = self._calculated
        if "filter" not in cache:
            cache["filter"] = self.rows_where(text)
        cached = cache["filter"]
        if isinstance(cached, MathError):
            raise cached
        return cached if isinstance(cached, np.ndarray) else None

    def used_cells(self, name: str) -> Cells:
        """Return the cells of a column in the rows that the filter keeps.

        Raises:
            MathError: the column or the filter cannot be used.
        """
        cells, used = self.column_of(name).cells, self.rows_used()
        return cells if used is None else tuple(c for c, k in zip(cells, used, strict=False) if k)

    def rows_where(self, text: str) -> NDArray[np.bool_]:
        """Return for each row whether conditions on the columns hold, (n,).

        A row in which a column that occurs has no number does not hold.

        Args:
            text: one condition, ``2 < speed <= 10``, or several with semicolons between.

        Raises:
            MathError: it does not read, or is no condition.
        """
        holds = np.ones(self.row_count, dtype=np.bool_)
        for part in filter(str.strip, text.split(";")):
            holds &= self._where(part)
        return holds

    @property
    def row_count(self) -> int:
        """Return how many rows the longest typed column has."""
        return max(
            (
                len(column.cells)
                for column in self._snapshot.section(Data).columns
                if not column.formula
            ),
            default=0,
        )

    def check_formula(self, column: Column) -> None:
        """Check that a column can be calculated.

        Raises:
            MathError: its formula does not read, lacks something, or depends on itself.
        """
        document = self._snapshot.document
        others = (other for other in document.section(Data).columns if other.name != column.name)
        trial = with_data(self._snapshot, columns=(*others, column))
        trial.query(Columns).column_of(column.name)

    def condition_of(self, rows: Sequence[int], *names: str) -> str:
        """Return the conditions that two columns hold to in some rows, from the least to the most.

        Raises:
            MathError: a column is not there, or has no number in these rows.
        """
        parts = []
        for name in names:
            cells = self.column_of(name).cells
            known = [c for c in (cells[k] for k in rows if k < len(cells)) if c is not None]
            if not known:
                raise DataError(f"`{name}` has no number in these rows.")
            low, high = map(written_number, (min(known), max(known)))
            parts.append(f"{low} <= {name} <= {high}")
        return "; ".join(parts)

    def _calculate(self, name: str, waiting: frozenset[str]) -> Column:
        columns = self._snapshot.section(Data).columns
        column = next((column for column in columns if column.name == name), None)
        if column is None:
            raise DataError(f"There is no column `{name}`.")
        if not column.formula:
            return column
        if name in waiting:
            raise DataError(f"The formulas of `{name}` and others depend on each other.")
        cache = self._calculated
        cached = cache.get(f"column {name}")
        if not isinstance(cached, Column):
            cached = replace(column, cells=self._cells(column, waiting | {name}))
            cache[f"column {name}"] = cached
        return cached

    def _cells(self, column: Column, waiting: frozenset[str]) -> Cells:
        columns = self._snapshot.section(Data).columns
        others = [other.name for other in columns if other.name != column.name]
        node = read_expression(column.formula, self.names_of(others))
        used = [name for name in others if name in names_in(node)]
        expression = self._snapshot.analysis.expressions.expression(node, used)
        sources = {name: self._calculate(name, waiting).cells for name in used}
        values = self._rows([expression], sources, self.row_count)
        return tuple(None if row is None else _number(row[0]) for row in values)

    def _where(self, text: str) -> NDArray[np.bool_]:
        names = [column.name for column in self._snapshot.section(Data).columns]
        compared = read_body(text, self.names_of(names)).compared
        if compared is None:
            raise DataError(f"`{text.strip()}` is no condition: write one like `2 < speed <= 10`.")
        is_known = all(sign in _HOLDS for sign in compared.signs)
        if not is_known or len({sign[0] for sign in compared.signs}) > 1:
            raise EquationError(f"`{text.strip()}` cannot be a condition for rows.")
        used = sorted({n for term in compared.terms for n in names_in(term) if n in names})
        gaps = self._snapshot.analysis.expressions.differences(compared.terms, "", used)
        sources = {name: self.column_of(name).cells for name in used}
        rows = self._rows(gaps, sources, self.row_count)
        allowed_signs = [_HOLDS[sign] for sign in compared.signs]
        return np.array(
            [
                row is not None
                and all(
                    b.is_defined and b.sign() in w for b, w in zip(row, allowed_signs, strict=True)
                )
                for row in rows
            ],
            dtype=np.bool_,
        )

    def names_of(self, names: Sequence[str]) -> Vocabulary:
        """Return what may be used in a formula; the name of a column goes before one of a line."""
        known = self._snapshot.analysis.names()
        return Vocabulary(known.functions - set(names), known.values, frozenset(names))

    def _rows(
        self, expressions: Sequence[Expression], sources: dict[str, Cells], count: int
    ) -> list[list[Ball] | None]:
        """Compute expressions in every row; None where a cell that they need is missing."""
        if count > CALCULATED_ROWS.value:
            raise LimitError(
                f"Columns of {count:,} rows are neither calculated nor filtered; "
                f"{CALCULATED_ROWS.value:,} rows are the most."
            )
        rows: list[list[Ball] | None] = []
        for row in range(count):
            check()
            cells = {name: cells[row] if row < len(cells) else None for name, cells in
                     sources.items()}  # fmt: skip
            if any(cell is None for cell in cells.values()):
                rows.append(None)
                continue
            inputs = {
                input_name(name): ball.from_fraction(cell)
                for name, cell in cells.items()
                if cell is not None
            }
            rows.append([
                evaluate_constant(expression, self._snapshot.values, bits=VALUE_BITS, inputs=inputs)
                for expression in expressions
            ])  # fmt: skip
        return rows


def _number(shaped: Ball) -> Fraction | None:
    if not shaped.is_defined:
        return None
    if shaped.exact is not None:
        return to_fraction(shaped.exact)
    return Fraction(f"{float(shaped.value.mid()):.{_DIGITS}g}")
