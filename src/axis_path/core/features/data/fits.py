"""Curves fitted to columns of data."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import replace
from fractions import Fraction

import numpy as np
from flint import arb

from axis_path.core.catalogue.units import NO_UNIT, UnitProduct
from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import PlaneUnits
from axis_path.core.data import (
    MODELS,
    Fit,
    ModelName,
    Summary,
    fit_linear,
    fit_nonlinear,
    summarise,
)
from axis_path.core.data.linear_fit import written_sum
from axis_path.core.data.nonlinear_fit import Formula
from axis_path.core.document.data import Data, FitRequest
from axis_path.core.errors import DataError, NotHandledError
from axis_path.core.features.data.columns import Columns
from axis_path.core.language import read_expression
from axis_path.core.language.walk import names_in
from axis_path.core.limits import FIT_DEGREE

#: Letters that may be parameters of a formula.
_LETTERS = frozenset("abcdfghjklmnopqrstuvwz")


class Fits:
    """The fits that can be made in a study."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._columns = snapshot.query(Columns)

    def made_fit(self, request: FitRequest) -> Fit:
        """Make a fit that is stored.

        Raises:
            MathError: it cannot be made.
        """
        return self.fit(
            request.model, x=request.x, y=request.y, degree=request.degree,
            formula=request.formula or None, start=request.start or None,
        )  # fmt: skip

    def summary(self, name: str) -> Summary:
        """Summarise a column.

        Raises:
            DataError: there is no such column, or it has no number.
        """
        return summarise(
            replace(self._columns.column_of(name), cells=self._columns.used_cells(name))
        )

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
            fitted = _polynomial(xs, ys, 1 if chosen is ModelName.LINEAR else degree, chosen)
        elif chosen is ModelName.LOGARITHMIC:
            fitted = _logarithmic(xs, ys)
        else:
            fitted = self._nonlinear(chosen, xs, ys, formula, start)
        if left_out:
            said = f"{left_out} rows with a missing cell are left out."
            fitted = replace(fitted, note=f"{fitted.note} {said}".strip())
        return fitted

    def units_of(self, request: FitRequest) -> FitUnits | None:
        """Return the units of the curve of a fit; None in a study in which nothing else has any."""
        if not self._has_units:
            return None
        plane = self._snapshot.query(PlaneUnits)
        x, y = (plane.column_unit(name) or NO_UNIT for name in (request.x, request.y))
        if not (x.parts or y.parts) or x.has_zero or y.has_zero:
            return None
        return x, y

    @property
    def _has_units(self) -> bool:
        """Check whether lines that follow no fit have units."""
        raw = self._snapshot.analysis.raw
        return any(
            meaning.has_units and line.fit is None and not line.disabled
            for line, meaning in zip(self._snapshot.lines, raw, strict=True)
        )

    def request(self, number: int) -> FitRequest:
        """Return a fit that is stored, as it was asked for.

        Raises:
            DataError: it is not there any more.
        """
        fit = next(
            (request for request in self._snapshot.section(Data).fits if request.id == number),
            None,
        )
        if fit is None:
            raise DataError("This fit is not there any more.")
        return fit

    @property
    def key(self) -> tuple[object, ...]:
        """Return what the fits are made from: while it stays the same, so do they."""
        data = self._snapshot.section(Data)
        depends = bool(data.row_filter) or any(column.formula for column in data.columns)
        values = tuple(sorted(self._snapshot.sliders.items())) if depends else ()
        has_fits = bool(data.fits)
        return (data.columns, data.fits, data.row_filter, values, has_fits and self._has_units)

    def formula_start(self, formula: str) -> dict[str, float]:
        """Return where the parameters of a formula begin: at the present values of their sliders.

        Raises:
            MathError: it does not read, or one of its letters has no value.
        """
        sliders, parameters = self._snapshot.sliders, self.parameters(formula)
        missing = [name for name in parameters if name not in sliders]
        if missing:
            raise DataError(
                f"`{missing[0]}` has no value to start from: make sliders of the letters, or "
                f"write `{missing[0]} = 1` beside the formula."
            )
        return {name: float(sliders[name]) for name in parameters}

    def parameters(self, formula: str) -> list[str]:
        """Return the letters of a formula that a fit may choose, in the order of their names."""
        names = self._snapshot.analysis.names()
        free = _LETTERS - names.functions - names.values
        node = read_expression(formula, names.and_variables("x", *free))
        return sorted((names_in(node) & (free | self._snapshot.sliders.keys())) - {"x"})

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
            given = known.start(*(np.array([float(v) for v in values]) for values in (xs, ys)))
        made = self._formula(known.formula, known.parameters)
        return fit_nonlinear(made, xs, ys, list(given), model.value)

    def _formula(self, text: str, names: tuple[str, ...]) -> Formula:
        vocabulary = self._snapshot.analysis.names().and_variables("x", *names)
        node = read_expression(text, vocabulary)
        unused = [name for name in names if name not in names_in(node)]
        if unused:
            raise DataError(f"The parameter `{unused[0]}` does not occur in the formula.")
        value = self._snapshot.analysis.expressions.expression(node, ("x", *names))
        try:
            slopes = tuple(value.derivative(input_name(name)) for name in names)
        except NotHandledError as err:
            raise DataError(f"This formula cannot be fitted: {err.message}") from err
        inputs = tuple(map(input_name, ("x", *names)))
        return Formula(text, value, slopes, names, inputs, self._snapshot.values)

    def _pairs(self, x: str, y: str) -> tuple[list[Fraction], list[Fraction], int]:
        """Return the rows in which both columns have a number, and how many have not."""
        one, other = self._columns.column_of(x), self._columns.column_of(y)
        if len(one.cells) != len(other.cells):
            raise DataError(
                f"`{x}` has {len(one.cells)} cells and `{y}` {len(other.cells)}: "
                "two columns are fitted row by row."
            )
        pairs = list(zip(self._columns.used_cells(x), self._columns.used_cells(y), strict=True))
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


#: The units of the columns across and upward.
FitUnits = tuple[UnitProduct, UnitProduct]


def line_of_fit(fit: Fit, units: FitUnits | None = None) -> str:
    """Return the curve of a fit as it would be typed, with all digits of its coefficients.

    Args:
        fit: of two columns of numbers.
        units: of the columns; None for a curve of plain numbers.
    """
    if units is None:
        return _plain_line(fit)
    x, y = units
    if fit.names[0] == "c0":
        return written_sum(fit.coefficients, [_term(k, x, y) for k in range(len(fit.names))])
    text = (
        re.sub(r"\bx\b", f"(x/(1 {x.spelled}))", _plain_line(fit)) if x.parts else _plain_line(fit)
    )
    if y.parts:
        text = f"({text}) (1 {y.spelled})"
    # A power of any quantity has a meaning: the domain says which one is meant.
    is_power = x.parts and fit.model == ModelName.POWER
    return f"{text} for x > 0 {x.spelled}" if is_power else text


def unit_of_coefficient(power: int, units: FitUnits) -> UnitProduct:
    """Return the unit of the coefficient that stands before a power of x in a polynomial."""
    x, y = units
    return y / x.to_the(Fraction(power))


def _term(power: int, x: UnitProduct, y: UnitProduct) -> str:
    """Return what stands behind a coefficient of a polynomial: its unit, and a power of x."""
    unit = unit_of_coefficient(power, (x, y))
    letter = ("", "x")[power] if power < 2 else f"x^{power}"
    return f"(1 {unit.spelled}) {letter}".rstrip() if unit.parts else letter


def _plain_line(fit: Fit) -> str:
    text, _, given = fit.text.partition(" with ")
    if not given:
        return text
    values = dict(part.split(" = ") for part in given.split(", "))
    pattern = "|".join(rf"\b{re.escape(name)}\b" for name in values)
    return re.sub(pattern, lambda match: f"({values[match[0]]})", text)


def form_of_fit(fit: Fit) -> str:
    """Write the curve of a fit with the names of its coefficients."""
    form, _, given = fit.text.partition(" with ")
    if given:
        return form
    if fit.names[0] != "c0":
        return f"{fit.names[0]} + {fit.names[1]} ln(x)"
    powers = ("", " x", *(f" x^{k}" for k in range(2, len(fit.names))))[: len(fit.names)]
    return " + ".join(name + power for name, power in zip(fit.names, powers, strict=True))
