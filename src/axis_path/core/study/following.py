"""Fits as definitions: a line whose text is written anew whenever the data change."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import replace
from fractions import Fraction

from axis_path.core.data import Fit
from axis_path.core.errors import DataError, MathError
from axis_path.core.language import read_expression
from axis_path.core.language.tree import names_in
from axis_path.core.study.fit_ledger import FitAsk
from axis_path.core.study.fitting import Fitting
from axis_path.core.study.line import StudyLine

_HEAD = re.compile(r"\s*(\w+\s*\(\s*x\s*\)|y)\s*=")
_LETTERS = frozenset("abcdfghjklmnopqrstuvwz")


class Following(Fitting):
    """Lines of which some follow a fit."""

    def follow_fit(self, number: int) -> StudyLine:
        """Write a line that follows a fit from now on.

        Raises:
            MathError: there is no such fit, or it has no result.
        """
        fit = self.made_fit(self._fit_ask(number))
        line_id = self.next_id()
        self.write(line_id, f"y = {line_of_fit(fit)}")
        self._put_line(replace(self.line(line_id), fit=number))
        return self.line(line_id)

    @property
    def fit_key(self) -> tuple[object, ...]:
        """Return what the fits are made from: while it stays the same, so do they."""
        depends = bool(self.row_filter) or any(column.formula for column in self.columns)
        values = tuple(sorted(self._values.items())) if depends else ()
        return (self.columns, self.fits, self.row_filter, values)

    def refresh_fits(self) -> None:
        """Write all lines that follow a fit anew; one whose fit has no result is set aside."""
        for line in self.lines:
            if line.fit is None:
                continue
            if all(ask.id != line.fit for ask in self.fits):
                self._put_line(replace(line, fit=None, fit_lost=False))
                continue
            try:
                text = line_of_fit(self.made_fit(self._fit_ask(line.fit)))
            except MathError:
                self._put_line(replace(line, aside=True, fit_lost=True))
                continue
            head = _HEAD.match(line.text)
            self._put_line(
                replace(
                    line,
                    text=f"{head[1] if head else 'y'} = {text}",
                    aside=line.aside and not line.fit_lost,
                    fit_lost=False,
                )
            )

    def formula_start(self, formula: str) -> dict[str, float]:
        """Return where the parameters of a formula begin: at the present values of their sliders.

        Raises:
            MathError: it does not read, or one of its letters has no value.
        """
        sliders = self.slider_values
        found = {
            name: float(sliders[name]) for name in self._parameters(formula) if name in sliders
        }
        missing = [name for name in self._parameters(formula) if name not in sliders]
        if missing:
            raise DataError(
                f"`{missing[0]}` has no value to start from: make sliders of the letters, or "
                f"write `{missing[0]} = 1` beside the formula."
            )
        return found

    def try_formula(self, formula: str) -> None:
        """Make sliders of a formula's letters and draw it, to start a fit from by hand.

        Raises:
            MathError: it does not read.
        """
        for name in self._parameters(formula):
            if name not in self.slider_values:
                self.set(name, 1)
        self.write(self.next_id(), f"y = {formula.strip()}")

    @property
    def slider_values(self) -> Mapping[str, Fraction]:
        """Return the values of all sliders by their names."""
        moving = (line.moving for line in self.lines if not line.aside)
        return dict(pair for pair in moving if pair is not None)

    def _parameters(self, formula: str) -> list[str]:
        """Return the letters of a formula that a fit may choose, in the order of their names."""
        names = self._analysis.names()
        free = _LETTERS - names.functions - names.values
        node = read_expression(formula, names.and_variables("x", *free))
        return sorted((names_in(node) & (free | self.slider_values.keys())) - {"x"})

    def _fit_ask(self, number: int) -> FitAsk:
        found = next((ask for ask in self.fits if ask.id == number), None)
        if found is None:
            raise DataError("This fit is not there any more.")
        return found

    def _put_line(self, line: StudyLine) -> None:
        if line != self.line(line.id):
            self._change_lines([line if each.id == line.id else each for each in self.lines])


def line_of_fit(fit: Fit) -> str:
    """Return the curve of a fit as it would be typed, with all digits of its coefficients."""
    text, _, given = fit.text.partition(" with ")
    if not given:
        return text
    values = dict(part.split(" = ") for part in given.split(", "))
    pattern = "|".join(rf"\b{re.escape(name)}\b" for name in values)
    return re.sub(pattern, lambda found: f"({values[found[0]]})", text)


def form_of_fit(fit: Fit) -> str:
    """Write the curve of a fit with the names of its coefficients."""
    form, _, given = fit.text.partition(" with ")
    if given:
        return form
    if fit.names[0] != "c0":
        return f"{fit.names[0]} + {fit.names[1]} ln(x)"
    powers = ("", " x", *(f" x^{k}" for k in range(2, len(fit.names))))[: len(fit.names)]
    return " + ".join(name + power for name, power in zip(fit.names, powers, strict=True))
