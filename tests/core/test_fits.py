"""Fits against certified problems of the Statistical Reference Datasets, and against exact algebra."""

import math
import unittest
from fractions import Fraction
from typing import Any

import numpy as np
from flint import fmpq, fmpq_mat

from axis_path.core import Study
from axis_path.core.data import number_of_cell
from axis_path.core.document.data import Data
from axis_path.core.errors import DataError, FormatError
from axis_path.core.features.data.edits import remove_column

NORRIS = [
    "0.1",
    "0.2",
    "338.8",
    "337.4",
    "118.1",
    "118.2",
    "888.0",
    "884.6",
    "9.2",
    "10.1",
    "228.1",
    "226.5",
    "668.5",
    "666.3",
    "998.5",
    "996.3",
    "449.1",
    "448.6",
    "778.9",
    "777.0",
    "559.2",
    "558.2",
    "0.3",
    "0.4",
    "0.1",
    "0.6",
    "778.1",
    "775.5",
    "668.8",
    "666.9",
    "339.3",
    "338.0",
    "448.9",
    "447.5",
    "10.8",
    "11.6",
    "557.7",
    "556.0",
    "228.3",
    "228.1",
    "998.0",
    "995.8",
    "888.8",
    "887.6",
    "119.6",
    "120.2",
    "0.3",
    "0.3",
    "0.6",
    "0.3",
    "557.6",
    "556.8",
    "339.3",
    "339.1",
    "888.0",
    "887.2",
    "998.5",
    "999.0",
    "778.9",
    "779.0",
    "10.2",
    "11.1",
    "117.6",
    "118.3",
    "228.9",
    "229.2",
    "668.4",
    "669.1",
    "449.2",
    "448.9",
    "0.2",
    "0.5",
]
PONTIUS = [
    ".11019",
    ".21956",
    ".32949",
    ".43899",
    ".54803",
    ".65694",
    ".76562",
    ".87487",
    ".98292",
    "1.09146",
    "1.20001",
    "1.30822",
    "1.41599",
    "1.52399",
    "1.63194",
    "1.73947",
    "1.84646",
    "1.95392",
    "2.06128",
    "2.16844",
    ".11052",
    ".22018",
    ".32939",
    ".43886",
    ".54798",
    ".65739",
    ".76596",
    ".87474",
    ".98300",
    "1.09150",
    "1.20004",
    "1.30818",
    "1.41613",
    "1.52408",
    "1.63159",
    "1.73965",
    "1.84696",
    "1.95445",
    "2.06177",
    "2.16829",
]
WAMPLER3 = [
    "760",
    "-2042",
    "2111",
    "-1684",
    "3888",
    "1858",
    "11379",
    "17560",
    "39287",
    "64382",
    "113159",
    "175108",
    "273291",
    "400186",
    "581243",
    "811568",
    "1121004",
    "1506550",
    "2002767",
    "2611612",
    "3369180",
]
#: Name, x, y, degree, certified coefficients, their deviations, the residual one, and R squared.
LINEAR = (
    ("Norris", NORRIS[1::2], NORRIS[0::2], 1, (-0.262323073774029, 1.00211681802045),
     (0.232818234301152, 0.429796848199937e-3), 0.884796396144373, 0.999993745883712),
    ("Pontius", [150_000 * (k % 20 + 1) for k in range(40)], PONTIUS, 2,
     (0.673565789473684e-3, 0.732059160401003e-6, -0.316081871345029e-14),
     (0.107938612033077e-3, 0.157817399981659e-9, 0.486652849992036e-16),
     0.205177424076185e-3, 0.999999900178537),
    ("Wampler1", range(21), [sum(x**k for k in range(6)) for x in range(21)], 5,
     (1, 1, 1, 1, 1, 1), (0,) * 6, 0, 1),
    ("Wampler3", range(21), WAMPLER3, 5, (1, 1, 1, 1, 1, 1),
     (2152.32624678170, 2363.55173469681, 779.343524331583, 101.475507550350, 5.64566512170752,
      0.112324854679312), 2360.14502379268, 0.999995559025820),
)  # fmt: skip
MISRA1A = ("77.6 114.9 141.1 190.8 239.9 289.0 332.8 378.4 434.8 477.3 536.8 593.1 689.1 760.0",
           "10.07 14.73 17.94 23.93 29.61 35.18 40.02 44.82 50.76 55.05 61.01 66.40 75.47 81.78")  # fmt: skip
RAT43 = ("1 2 3 4 5 6 7 8 9 10 11 12 13 14 15",
         "16.08 33.83 65.80 97.20 191.55 326.20 386.87 520.53 590.03 651.92 724.93 699.56 689.96 "
         "637.56 717.41")  # fmt: skip
MGH09 = ("4 2 1 .5 .25 .167 .125 .1 .0833 .0714 .0625",
         ".1957 .1947 .1735 .16 .0844 .0627 .0456 .0342 .0323 .0235 .0246")  # fmt: skip
BOXBOD = ("1 2 3 5 7 10", "109 149 149 191 213 224")
#: Name, data, formula, where to begin, certified parameters, and the residual deviation.
NONLINEAR = (
    ("Misra1a", MISRA1A, "p (1 - exp(-q x))", {"p": 500, "q": 0.0001},
     (238.94212918, 5.5015643181e-4), 0.10187876330),
    ("Rat43", RAT43, "p/(1 + exp(q - r x))^(1/s)", {"p": 100, "q": 10, "r": 1, "s": 1},
     (699.64151270, 5.2771253025, 0.75962938329, 1.2792483859), 28.262414662),
    ("MGH09", MGH09, "p (x^2 + x q)/(x^2 + x r + s)", {"p": 0.25, "q": 0.39, "r": 0.415, "s": 0.39},
     (0.19280693458, 0.19128232873, 0.12305650693, 0.13606233068), 6.6279236551e-3),
    ("BoxBOD", BOXBOD, "p (1 - exp(-q x))", {"p": 100, "q": 0.75},
     (213.80940889, 0.54723748542), 17.088072423),
)  # fmt: skip


def study_of(x: Any, y: Any) -> Study:
    study = Study()
    study.column("u", list(x))
    study.column("v", list(y))
    return study


class LinearTest(unittest.TestCase):
    def close(self, expected: float, found: float, digits: float = 14.0) -> None:
        self.assertLessEqual(abs(found - expected), 10**-digits * max(abs(expected), 1e-12))

    def test_certified_problems_to_every_digit_that_is_certified(self) -> None:
        for name, x, y, degree, coefficients, errors, deviation, share in LINEAR:
            with self.subTest(name):
                found = study_of(x, y).fit("polynomial", x="u", y="v", degree=degree)
                for expected, value in zip(coefficients, found.coefficients, strict=True):
                    self.close(expected, value, 14)
                for expected, value in zip(errors, found.errors, strict=True):
                    self.close(expected, value, 13)
                self.close(deviation, found.residual_sd, 13)
                self.close(share, found.r_squared, 14)

    def test_ill_conditioned_data_agree_with_exact_algebra(self) -> None:
        """Degree ten on a short stretch: in floats not one digit of the normal equations is left."""
        draw = np.random.default_rng(82)
        x = [
            Fraction(round(float(v), 9)).limit_denominator(10**9)
            for v in draw.uniform(-8.8, -3.1, 82)
        ]
        y = [
            Fraction(round(0.9 + 0.05 * math.sin(float(v)), 4)).limit_denominator(10**4) for v in x
        ]
        found = study_of(x, y).fit("polynomial", x="u", y="v", degree=10)
        matrix = fmpq_mat([[fmpq(v.numerator, v.denominator) ** k for k in range(11)] for v in x])
        right = fmpq_mat([[fmpq(v.numerator, v.denominator)] for v in y])
        exact = (matrix.transpose() * matrix).solve(matrix.transpose() * right)
        for k, value in enumerate(found.coefficients.tolist()):
            expected = Fraction(int(exact[k, 0].p), int(exact[k, 0].q))
            self.assertLess(abs(Fraction(value) - expected), abs(expected) * Fraction(1, 2**51))

    def test_residuals_stand_at_right_angles_to_what_was_fitted(self) -> None:
        draw = np.random.default_rng(1)
        for degree in (1, 2, 4):
            x = np.round(draw.uniform(-5, 5, 30), 3)
            y = np.round(draw.normal(0, 1, 30) + x, 3)
            found = study_of(x.tolist(), y.tolist()).fit("polynomial", x="u", y="v", degree=degree)
            for k in range(degree + 1):
                self.assertLess(abs(float(found.residuals @ x**k)), 1e-9 * 5**k)
            self.assertTrue(0 <= found.r_squared <= 1)

    def test_a_line_predicts_both_ways_and_flags_extrapolation(self) -> None:
        found = study_of(range(1, 9), [2.1, 3.9, 6.2, 7.8, 10.1, 12.2, 13.8, 16.1]).fit(
            "linear", x="u", y="v"
        )
        inside, outside = found.predict(4.5), found.predict(12)
        self.assertFalse(inside.is_outside)
        self.assertTrue(outside.is_outside)
        self.assertLess(inside.high - inside.low, outside.high - outside.low)
        self.assertTrue(inside.low < inside.value < inside.high)
        (abscissa,) = found.solutions_of(inside.value)
        self.assertAlmostEqual(4.5, abscissa.value, 9)
        self.assertTrue(abscissa.low < 4.5 < abscissa.high)
        self.assertAlmostEqual(inside.value, float(found.curve(np.array([4.5]))[0]), 12)

    def test_logarithms_and_the_text_of_a_fit(self) -> None:
        x = [1, 2, 4, 8, 16]
        found = study_of(x, [3, 5, 7, 9, 11]).fit("logarithmic", x="u", y="v")
        self.assertAlmostEqual(3, found.coefficients[0], 13)
        self.assertAlmostEqual(2 / math.log(2), found.coefficients[1], 13)
        study = Study()
        study.define(f"f(x) = {found.text}")
        self.assertEqual("9", study.evaluate("f(8)").decimal(10).rstrip("0").rstrip("."))


class NonlinearTest(unittest.TestCase):
    def test_certified_problems(self) -> None:
        for name, (x, y), formula, start, parameters, deviation in NONLINEAR:
            with self.subTest(name):
                found = study_of(x.split(), y.split()).fit(
                    "formula", x="u", y="v", formula=formula, start=start
                )
                for expected, value in zip(parameters, found.coefficients, strict=True):
                    self.assertLess(abs(value - expected), 1e-10 * abs(expected))
                self.assertAlmostEqual(1, found.residual_sd / deviation, 9)
                self.assertTrue(np.all(found.errors > 0))

    def test_models_by_name_find_what_the_data_were_made_of(self) -> None:
        x = np.round(np.linspace(0.5, 9.5, 25), 3)
        for model, expected, y in (
            ("exponential", (2.5, 0.3), 2.5 * np.exp(0.3 * x)),
            ("exponential", (40, -0.7), 40 * np.exp(-0.7 * x)),
            ("power", (1.5, 1.7), 1.5 * x**1.7),
            ("sinusoidal", (3, 1.3, 0.4, 2), 3 * np.sin(1.3 * x + 0.4) + 2),
            ("logistic", (12, 1.1, 4), 12 / (1 + np.exp(-1.1 * (x - 4)))),
        ):
            with self.subTest(model, expected=expected):
                found = study_of(x.tolist(), y.tolist()).fit(model, x="u", y="v")
                for wanted, value in zip(expected, found.coefficients, strict=True):
                    self.assertAlmostEqual(wanted, value, 6)
                self.assertGreater(found.r_squared, 1 - 1e-12)

    def test_impossible_fits_state_the_reason(self) -> None:
        study = study_of([1, 2, 3, None], [2, 4, 5, 6])
        study.column("w", [1, 2])
        study.column("same", [3, 3, 3, 3])
        study.column("below", [-1, 0, 2, 3])
        for model, fields, words in (
            ("linear", {"x": "u", "y": "w"}, "row by row"),
            ("linear", {"x": "u", "y": "z"}, "no column `z`"),
            ("linear", {"x": "same", "y": "v"}, "too few values"),
            ("polynomial", {"x": "u", "y": "v", "degree": 3}, "at least 4 points; there are 3"),
            ("polynomial", {"x": "u", "y": "v"}, "degree from 0"),
            ("logarithmic", {"x": "below", "y": "v"}, "above 0"),
            ("power", {"x": "below", "y": "v"}, "above 0"),
            ("formula", {"x": "u", "y": "v"}, "start from"),
            ("formula", {"x": "u", "y": "v", "formula": "p x", "start": {"p": 1, "q": 2}}, "`q`"),
            (
                "formula",
                {"x": "below", "y": "v", "formula": "p ln(x)", "start": {"p": 1}},
                "no value",
            ),
            ("splines", {"x": "u", "y": "v"}, "no model"),
        ):
            with self.subTest(model, **fields), self.assertRaisesRegex(DataError, words):
                study.fit(model, **fields)
        self.assertIn("1 rows with a missing", study.fit("linear", x="u", y="v").note)


class ColumnTest(unittest.TestCase):
    def test_cells_are_the_decimals_that_were_typed(self) -> None:
        for given, expected in (
            (0.1, Fraction(1, 10)), ("−2.50", Fraction(-5, 2)), ("1e-3", Fraction(1, 1000)),
            (7, Fraction(7)), ("3/4", Fraction(3, 4)), ("", None), (None, None), (math.nan, None),
            ("1,5", Fraction(3, 2)), ("-0,25", Fraction(-1, 4)),
        ):  # fmt: skip
            self.assertEqual(expected, number_of_cell(given))
        for given in (
            "many",
            "1,5,6",
            "1e999999",
            "1e400",
            "9" * 500,
            "1e-9000",
            "--1",
            "1/0",
            math.inf,
        ):
            with self.subTest(given), self.assertRaises(DataError):
                number_of_cell(given)

    def test_columns_are_stored_and_replaced_by_name(self) -> None:
        study = Study()
        study.column("speed", [4, None, 6.5], "kn")
        study.column("litres", ["3.2", "4", "5"])
        study.column("speed", [1, 2])
        again = Study.from_dict(study.to_dict())
        self.assertEqual(study.snapshot.section(Data).columns, again.snapshot.section(Data).columns)
        self.assertEqual(
            ["speed", "litres"], [column.name for column in again.snapshot.section(Data).columns]
        )
        again.edit(remove_column, "speed")
        self.assertEqual(1, len(again.snapshot.section(Data).columns))
        for name, values in (("2x", [1]), ("x", [1] * 100_001), ("x", ["?"])):
            with self.subTest(name), self.assertRaises(DataError):
                study.column(name, values)
        for wrong in ({"name": "a"}, {"name": "a", "cells": [1]}, {"name": "", "cells": []}, 3):
            with self.subTest(wrong), self.assertRaises(FormatError):
                Study.from_dict(study.to_dict() | {"columns": [wrong]})

    def test_a_column_in_a_few_numbers(self) -> None:
        study = Study()
        study.column("a", [7, 1, None, 3, 5, 9])
        found = study.summary("a")
        self.assertEqual((5, 1, 5.0, 1.0, 9.0), (found.count, found.missing, found.mean,
                                                 found.least, found.greatest))  # fmt: skip
        self.assertAlmostEqual(math.sqrt(10), found.sd, 15)
        self.assertEqual((2.0, 5.0, 8.0), found.quartiles)
        self.assertEqual(5, found.heights.sum())
        # A mean that floats would lose: all of it stands in the last digits.
        study.column("b", ["10000000.2", "10000000.1", "10000000.3"] * 333)
        self.assertAlmostEqual(0.0817, study.summary("b").sd, 4)
        study.column("c", [None])
        with self.assertRaises(DataError):
            study.summary("c")
