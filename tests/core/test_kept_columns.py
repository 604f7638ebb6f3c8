"""Columns and their fits as a study keeps them: held against one another, and against damage."""

import copy
import unittest
from dataclasses import replace
from typing import Any

import numpy as np

from axis_path.core import Study
from axis_path.core.data import Fit
from axis_path.core.document.data import Data
from axis_path.core.draw import Window
from axis_path.core.errors import DataError, FormatError, LimitError, MathError
from axis_path.core.features.data.edits import put_column, remove_column, sort_rows
from axis_path.core.features.data.fits import Fits
from axis_path.core.features.data.section import with_data
from axis_path.core.limits import COLUMN_CELLS, FITS
from axis_path.core.study import FitRequest, Plot

#: Models with what they are called with, all of which the data below can be fitted with.
MODELS: Any = (
    ("linear", {}),
    ("polynomial", {"degree": 3}),
    ("exponential", {}),
    ("power", {}),
    ("logarithmic", {}),
    ("formula", {"formula": "p x/(q + x)", "start": {"p": 20, "q": 5}}),
)
X = [0.5, 1, 2, 3.25, 4, 5.5, 7, 8, 9.75, 12]
Y = [1.4, 2.7, 4.9, 7.3, 8.2, 10.4, 11.9, 13.1, 14.2, 16.3]


def study_of(x: list[Any], y: list[Any]) -> Study:
    study = Study()
    study.column("a", [str(cell) for cell in x])
    study.column("b", [None if cell is None else str(cell) for cell in y])
    return study


def fitted(x: list[Any], y: list[Any], model: str, options: dict[str, Any]) -> Fit:
    return study_of(x, y).fit(model, x="a", y="b", **options)


class FitTest(unittest.TestCase):
    def near(self, expected: object, found: object) -> None:
        np.testing.assert_allclose(found, expected, rtol=1e-9, atol=1e-11)  # type: ignore[call-overload]

    def test_the_order_of_rows_changes_nothing(self) -> None:
        order = np.random.default_rng(4).permutation(len(X))
        for model, options in MODELS:
            with self.subTest(model):
                fit = fitted(X, Y, model, options)
                mixed = fitted([X[k] for k in order], [Y[k] for k in order], model, options)
                self.near(fit.coefficients, mixed.coefficients)
                self.near(fit.errors, mixed.errors)
                self.near(fit.residuals[order], mixed.residuals)

    def test_rows_that_lack_a_cell_do_not_count(self) -> None:
        for model, options in MODELS:
            with self.subTest(model):
                fit = fitted(X, Y, model, options)
                gaps = fitted([*X, 30], [*Y, None], model, options)
                self.near(fit.coefficients, gaps.coefficients)
                self.assertEqual(fit.freedom, gaps.freedom)

    def test_units_change_only_the_numbers(self) -> None:
        for model, options in MODELS:
            with self.subTest(model):
                fit = fitted(X, Y, model, options)
                tall = fitted(X, [1000 * y for y in Y], model, options)
                self.near(fit.r_squared, tall.r_squared)
                self.near(1000 * fit.residuals, tall.residuals)
                self.near(1000 * fit.residual_sd, tall.residual_sd)
                for abscissa in (1.5, 6, 20):
                    here, there = fit.predict(abscissa), tall.predict(abscissa)
                    self.near(1000 * here.value, there.value)
                    self.near(1000 * here.low, there.low)
                    self.assertEqual(here.is_outside, there.is_outside)

    def test_a_fit_worse_than_the_mean_is_reported(self) -> None:
        options = {"formula": "p + sin(q x)/1000", "start": {"p": 9, "q": 1}}
        self.assertNotIn("level", fitted(X, Y, "formula", options).note)
        fit = fitted(X, Y, "formula", {"formula": "abs(p)/1000 - x", "start": {"p": 1}})
        self.assertLess(fit.r_squared, 0)
        self.assertIn("level line", fit.note)

    def test_no_coefficient_nearby_fits_better(self) -> None:
        """Least squares are least: a step in any direction makes their sum greater."""
        x, y = np.array(X), np.array(Y)
        curves = {
            "linear": lambda c: c[0] + c[1] * x,
            "polynomial": lambda c: c[0] + c[1] * x + c[2] * x**2 + c[3] * x**3,
            "exponential": lambda c: c[0] * np.exp(c[1] * x),
            "power": lambda c: c[0] * x ** c[1],
            "logarithmic": lambda c: c[0] + c[1] * np.log(x),
            "formula": lambda c: c[0] * x / (c[1] + x),
        }
        for model, options in MODELS:
            fit = fitted(X, Y, model, options)
            best = float(np.sum((curves[model](fit.coefficients) - y) ** 2))
            self.near(best, float(np.sum(fit.residuals**2)))
            for k in range(len(fit.coefficients)):
                for step in (-1e-3, 1e-3):
                    with self.subTest(model, k=k, step=step):
                        moved = np.array(fit.coefficients, dtype=float)
                        moved[k] += step * max(abs(moved[k]), 0.01)
                        self.assertGreater(float(np.sum((curves[model](moved) - y) ** 2)), best)

    def test_inverse_prediction_returns_the_abscissa(self) -> None:
        for model, options in MODELS:
            with self.subTest(model):
                fit = fitted(X, Y, model, options)
                for abscissa in (1.5, 4.4, 10.2):
                    value = fit.predict(abscissa).value
                    self.near(
                        abscissa,
                        min(
                            (p.value for p in fit.solutions_of(value)),
                            key=lambda v: abs(v - abscissa),
                        ),
                    )


class KeptTest(unittest.TestCase):
    def study(self) -> Study:
        study = study_of(X, Y)
        study.edit(with_data, plots=(Plot("a", "b"),))
        study.edit(with_data, fits=(
            FitRequest(1, "linear", "a", "b"),
            FitRequest(2, "formula", "a", "b", formula="p x/(q + x)", start={"p": 20, "q": 5}),
        ))  # fmt: skip
        return study

    def test_a_study_is_read_as_it_was_written(self) -> None:
        study = self.study()
        again = Study.from_dict(study.to_dict())
        self.assertEqual(study.to_dict(), again.to_dict())
        self.assertEqual(
            (
                study.snapshot.section(Data).columns,
                study.snapshot.section(Data).fits,
                study.snapshot.section(Data).plots,
            ),
            (
                again.snapshot.section(Data).columns,
                again.snapshot.section(Data).fits,
                again.snapshot.section(Data).plots,
            ),
        )
        for ask in again.snapshot.section(Data).fits:
            self.assertEqual(
                study.snapshot.query(Fits).made_fit(ask).text,
                again.snapshot.query(Fits).made_fit(ask).text,
            )

    def test_damage_is_refused(self) -> None:
        whole = self.study().to_dict()
        for where, wrong in (
            ("fits", "all"),
            ("fits", [{"id": "1"}]),
            ("fits", [{"id": 1, "model": 5}]),
            ("fits", [{"id": 1, "model": "linear", "degree": True}]),
            ("fits", [{"id": 1, "model": "linear", "degree": "2"}]),
            ("fits", [{"id": 1, "model": "formula", "start": {"p": "1"}}]),
            ("fits", [{"id": 1, "model": "formula", "start": {f"p{k}": 1 for k in range(21)}}]),
            ("fits", [{"id": k, "model": "linear"} for k in range(FITS.value + 1)]),
            ("plots", {"x": "a"}),
            ("plots", [{"x": "a"}]),
            ("plots", [["a", "b"]]),
            ("columns", "a"),
            ("columns", [5]),
            ("columns", [{"name": "a", "cells": []}, {"name": "a", "cells": []}]),
        ):
            with self.subTest(where, wrong=str(wrong)[:60]):
                damaged = copy.deepcopy(whole) | {where: wrong}
                with self.assertRaises(FormatError):
                    Study.from_dict(damaged)

    def test_renaming_a_column_updates_its_fits_and_points(self) -> None:
        study = self.study()
        before = study.snapshot.query(Fits).made_fit(study.snapshot.section(Data).fits[0]).text
        study.edit(put_column, "b", replace(study.column_of("b"), name="burn"))
        self.assertEqual(["burn", "burn"], [fit.y for fit in study.snapshot.section(Data).fits])
        self.assertEqual((Plot("a", "burn"),), tuple(study.snapshot.section(Data).plots))
        self.assertEqual(
            before, study.snapshot.query(Fits).made_fit(study.snapshot.section(Data).fits[0]).text
        )
        with self.assertRaises(DataError):
            study.column_of("b")

    def test_sorting_keeps_rows_together_and_gaps_at_the_end(self) -> None:
        study = study_of([3, 1, 2, 5, 4], [30, 10, None, 50, 40])
        study.edit(sort_rows, "b", falls=True)
        self.assertEqual([5, 4, 3, 1, 2], list(study.column_of("a").cells))
        self.assertEqual([50, 40, 30, 10, None], list(study.column_of("b").cells))
        study.edit(sort_rows, "a")
        self.assertEqual([10, None, 30, 40, 50], list(study.column_of("b").cells))

    def test_points_are_drawn_where_both_cells_are(self) -> None:
        study = study_of([1, 2, 3, 400], [1, None, 3, 4])
        study.edit(with_data, plots=(Plot("a", "b"),))
        scene = study.scene(Window((0.0, 10.0), (0.0, 10.0), 100, 100))
        (drawn,) = scene.added["data"]
        # The second lacks a cell.
        self.assertEqual(3, len(drawn["points"]) // 2)
        study.edit(remove_column, "a")
        self.assertEqual(
            0, len(study.scene(Window((0.0, 10.0), (0.0, 10.0), 100, 100)).added["data"])
        )

    def test_columns_have_bounds(self) -> None:
        study = Study()
        with self.assertRaises(MathError):
            study.column("2b", ["1"])
        with self.assertRaises((LimitError, DataError)):
            study.column("a", ["1"] * (COLUMN_CELLS.value + 1))
        with self.assertRaises(DataError):
            study.column("a", ["1", "fog"])
        self.assertEqual((), tuple(study.snapshot.section(Data).columns))
