"""Columns of data in a study, and curves fitted to them."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace
from fractions import Fraction

import numpy as np
from flint import arb

from axis_path.core.data import (
    MODELS,
    Column,
    Fit,
    ModelName,
    Summary,
    fit_linear,
    fit_nonlinear,
    number_of_cell,
    summarise,
)
from axis_path.core.data.nonlinear_fit import Formula
from axis_path.core.errors import DataError, NotHandledError
from axis_path.core.language import NAME_PATTERN, read_expression
from axis_path.core.language.tree import names_in
from axis_path.core.limits import COLUMN_CELLS, COLUMNS, FIT_DEGREE
from axis_path.core.study.analysis import input_name
from axis_path.core.study.calculating import Calculating
from axis_path.core.study.fit_ledger import FitAsk, Plot

#: A cell of a column, as other programs give it.
GivenCell = float | Fraction | str | None


class Fitting(Calculating):
    """Lines and columns of data."""

    def column(self, name: str, values: Sequence[GivenCell], unit: str = "") -> Column:
        """Keep a column of data; one of the same name is replaced.

        Args:
            name: as names of lines are.
            values: numbers; a float is taken as the decimal that it is written as, None is missing.
            unit: is shown beside the name.

        Raises:
            MathError: the name cannot be, a cell is no number, or there are too many.
        """
        if NAME_PATTERN.fullmatch(name) is None:
            raise DataError(f"`{name}` cannot be the name of a column.")
        if len(values) > COLUMN_CELLS.value:
            raise DataError(f"A column has {COLUMN_CELLS.value:,} cells at most.")
        made = Column(name, tuple(map(number_of_cell, values)), unit)
        kept = [each for each in self.columns if each.name != name]
        if len(kept) >= COLUMNS.value:
            raise DataError(f"A study has {COLUMNS.value} columns at most.")
        places = [each.name for each in self.columns]
        if name in places:
            kept.insert(places.index(name), made)
        else:
            kept.append(made)
        self.set_columns(kept)
        return made

    def put_column(self, name: str, column: Column) -> None:
        """Put a column in the place of another; fits and points go on with it.

        Raises:
            DataError: there is none of that name.
        """
        self._check_column(name)
        self.set_columns([column if each.name == name else each for each in self.columns])
        if column.name != name:
            named = {name: column.name}
            self.set_fits(
                [replace(f, x=named.get(f.x, f.x), y=named.get(f.y, f.y)) for f in self.fits]
            )
            self.set_plots(
                [
                    Plot(*(named.get(n, n) for n in (p.x, p.y, p.x_error, p.y_error)))
                    for p in self.plots
                ]
            )
            self.rename_in_formulas(name, column.name)

    def _check_column(self, name: str) -> None:
        if all(each.name != name for each in self.columns):
            raise DataError(f"There is no column `{name}`.")

    def sort_rows(self, name: str, *, falls: bool = False) -> None:
        """Sort the rows of all columns by one; missing cells come last.

        Raises:
            DataError: there is none of that name.
        """
        by = self.column_of(name)
        count = self.row_count
        keys = [*by.cells, *[None] * (count - len(by.cells))]
        known = [k for k in range(count) if keys[k] is not None]
        known.sort(key=lambda k: keys[k] or 0, reverse=falls)
        order = [*known, *(k for k in range(count) if keys[k] is None)]
        sorted_columns = []
        for each in self.columns:
            if each.formula:
                sorted_columns.append(each)
                continue
            cells = [*each.cells, *[None] * (count - len(each.cells))]
            sorted_columns.append(replace(each, cells=tuple(cells[k] for k in order)))
        self.set_columns(sorted_columns)

    def remove_rows(self, rows: Collection[int]) -> None:
        """Take rows out of all columns."""
        gone = frozenset(rows)
        self.set_columns(
            [
                replace(each, cells=tuple(c for k, c in enumerate(each.cells) if k not in gone))
                for each in self.columns
            ]
        )

    def made_fit(self, ask: FitAsk) -> Fit:
        """Make a fit that is kept.

        Raises:
            MathError: it cannot be made.
        """
        return self.fit(
            ask.model, x=ask.x, y=ask.y, degree=ask.degree, formula=ask.formula or None,
            start=ask.start or None,
        )  # fmt: skip

    def remove_column(self, name: str) -> None:
        """Take a column away.

        Raises:
            DataError: there is none of that name.
        """
        self._check_column(name)
        self.set_columns([each for each in self.columns if each.name != name])
        self.set_fits([each for each in self.fits if name not in (each.x, each.y)])
        self.set_plots(
            [
                replace(
                    each,
                    x_error="" if each.x_error == name else each.x_error,
                    y_error="" if each.y_error == name else each.y_error,
                )
                for each in self.plots
                if name not in (each.x, each.y)
            ]
        )

    @staticmethod
    def summarised(column: Column) -> Summary:
        """Summarise a column that need not be one of the study.

        Raises:
            DataError: it has no number.
        """
        return summarise(column)

    def summary(self, name: str) -> Summary:
        """Summarise a column.

        Raises:
            DataError: there is no such column, or it has no number.
        """
        return summarise(replace(self.column_of(name), cells=self.kept_cells(name)))

    def fit(
        self,
        model: str,
        *,
        x: str,
        y: str,
        degree: int | None = None,
        formula: str | None = None,
        start: Mapping[str, float] | None = None,
    ) -> Fit:
        """Fit a curve to two columns by least squares.

        Args:
            model: linear, polynomial, exponential, power, logarithmic, sinusoidal, logistic, or
                formula.
            x: the name of a column.
            y: the name of another.
            degree: of a polynomial.
            formula: one of your own, in which ``x`` stands for the first column.
            start: where the parameters of a formula begin; for the other models where to begin in
                place of a guess.

        Raises:
            MathError: a column is missing, the points are too few, or nothing is found.
        """
        try:
            chosen = ModelName(model)
        except ValueError as err:
            raise DataError(f"`{model}` is no model that is known here.") from err
        xs, ys, left_out = self._pairs(x, y)
        if chosen in (ModelName.LINEAR, ModelName.POLYNOMIAL):
            found = _polynomial(xs, ys, 1 if chosen is ModelName.LINEAR else degree, chosen)
        elif chosen is ModelName.LOGARITHMIC:
            found = _logarithmic(xs, ys)
        else:
            found = self._nonlinear(chosen, xs, ys, formula, start)
        if left_out:
            said = f"{left_out} rows with a missing cell are left out."
            found = replace(found, note=f"{found.note} {said}".strip())
        return found

    def _nonlinear(
        self, model: ModelName, xs: list[Fraction], ys: list[Fraction],
        formula: str | None, start: Mapping[str, float] | None,
    ) -> Fit:  # fmt: skip
        if model is ModelName.FORMULA:
            if not formula or not start:
                raise DataError("A formula needs values for its parameters to start from.")
            names = tuple(start)
            return fit_nonlinear(
                self._formula(formula, names), xs, ys, [float(start[n]) for n in names], model.value
            )
        known = MODELS[model]
        given = tuple(start[n] for n in known.parameters) if start else None
        if given is None:
            given = known.start(*(np.array([float(v) for v in each]) for each in (xs, ys)))
        made = self._formula(known.formula, known.parameters)
        return fit_nonlinear(made, xs, ys, list(given), model.value)

    def _formula(self, text: str, names: tuple[str, ...]) -> Formula:
        vocabulary = self._analysis.names().and_variables("x", *names)
        node = read_expression(text, vocabulary)
        unused = [name for name in names if name not in names_in(node)]
        if unused:
            raise DataError(f"The parameter `{unused[0]}` does not occur in the formula.")
        value = self._analysis.expression(node, ("x", *names))
        try:
            slopes = tuple(value.derivative(input_name(name)) for name in names)
        except NotHandledError as err:
            raise DataError(f"This formula cannot be fitted: {err.message}") from err
        inputs = tuple(map(input_name, ("x", *names)))
        return Formula(text, value, slopes, names, inputs, self._values)

    def _pairs(self, x: str, y: str) -> tuple[list[Fraction], list[Fraction], int]:
        """Return the rows in which both columns have a number, and how many have not."""
        one, other = self.column_of(x), self.column_of(y)
        if len(one.cells) != len(other.cells):
            raise DataError(
                f"`{x}` has {len(one.cells)} cells and `{y}` {len(other.cells)}: "
                "two columns are fitted row by row."
            )
        pairs = list(zip(self.kept_cells(x), self.kept_cells(y), strict=True))
        rows = [(a, b) for a, b in pairs if a is not None and b is not None]
        return [a for a, _ in rows], [b for _, b in rows], len(pairs) - len(rows)


def _polynomial(
    xs: list[Fraction], ys: list[Fraction], degree: int | None, model: ModelName
) -> Fit:
    if degree is None or not 0 <= degree <= FIT_DEGREE.value:
        raise DataError(f"A polynomial that is fitted has a degree from 0 to {FIT_DEGREE.value}.")
    names = tuple(f"c{k}" for k in range(degree + 1))
    terms = tuple("" if k == 0 else "x" if k == 1 else f"x^{k}" for k in range(degree + 1))
    columns = [lambda x, k=k: x**k for k in range(degree + 1)]
    return fit_linear(xs, ys, columns, model.value, names, terms)


def _logarithmic(xs: list[Fraction], ys: list[Fraction]) -> Fit:
    if any(value <= 0 for value in xs):
        raise DataError("A logarithm is fitted where x is above 0; some values of x are not.")
    columns = [lambda x: arb(1), lambda x: x.log()]
    return fit_linear(xs, ys, columns, ModelName.LOGARITHMIC.value, ("a", "b"), ("", "ln(x)"))
