"""Columns that are calculated, rows that are filtered, and lines that follow a fit."""

import unittest
from fractions import Fraction

import numpy as np

from axis_path.core import Study
from axis_path.core.document.data import Data
from axis_path.core.draw import Window
from axis_path.core.errors import DataError, FormatError, LimitError, MathError
from axis_path.core.features.data.columns import Columns
from axis_path.core.features.data.fits import Fits, line_of_fit
from axis_path.core.features.data.plots import Plots
from axis_path.core.limits import CALCULATED_ROWS
from axis_path.core.study import Plot
from axis_path.core.study.format import document_from_dict

WINDOW = Window((-10, 10), (-6.5, 6.5), 660, 430)
V = np.array([4, 6, 8, 10, 12, -3, 0.5])
U = np.array([3.1, 5.2, 8.3, np.nan, 18.1, -2, 0.25])
#: A formula, and the same with NumPy.
FORMULAS = (
    ("u/v", lambda v, u, a: u / v),
    ("a v^2 - u", lambda v, u, a: a * v**2 - u),
    ("sqrt(v) + ln(abs(u))", lambda v, u, a: np.sqrt(v) + np.log(np.abs(u))),
    ("f(v) sin(u)", lambda v, u, a: (v**2 + 1) * np.sin(u)),
    ("7", lambda v, u, a: np.full(len(v), 7.0)),
)
#: Conditions, and the same with NumPy; a row that lacks a number does not hold.
CONDITIONS = (
    ("4 <= v < 10", lambda v, u, a: (v >= 4) & (v < 10)),
    ("v > 0; u < 10", lambda v, u, a: (v > 0) & (u < 10)),
    ("a v > u > 0", lambda v, u, a: (a * v > u) & (u > 0)),
    ("v = 8", lambda v, u, a: v == 8),
    ("sqrt(v) < 2.5; v >= -1000", lambda v, u, a: np.sqrt(v) < 2.5),
    ("u >= -2", lambda v, u, a: u >= -2),
)


def study() -> Study:
    made = Study()
    made.set("a", "3/2")
    made.define("f(x) = x^2 + 1")
    made.column("v", V.tolist())
    made.column("u", U.tolist())
    return made


def do(made: Study, **command: object) -> str:
    return made.apply(command, WINDOW)


class CalculatedTest(unittest.TestCase):
    def test_calculated_rows_follow_formula_sliders_and_cells(self) -> None:
        for formula, with_numpy in FORMULAS:
            made = study()
            do(made, do="calculate", name="w", formula=formula)
            for slider in ("3/2", "-2"):
                made.set("a", slider)
                do(made, do="cell", name="v", row=2, text="2.75")
                v = np.array(V)
                v[2] = 2.75
                with self.subTest(formula, a=slider), np.errstate(all="ignore"):
                    expected = with_numpy(v, U, float(Fraction(slider)))
                    found = made.column_of("w").floats()
                    np.testing.assert_allclose(found, expected, rtol=1e-12)

    def test_calculated_columns_depend_rename_and_reject_cycles(self) -> None:
        made = study()
        do(made, do="calculate", name="w", formula="u/v")
        do(made, do="calculate", name="z", formula="2w + uv")
        with self.assertRaises(MathError):
            do(made, do="calculate", name="q", formula="fog(v)")
        self.assertNotIn("q", [column.name for column in made.snapshot.section(Data).columns])
        do(made, do="calculate", name="z", formula="2w + v")
        with self.assertRaisesRegex(DataError, "depend on each other"):
            do(made, do="calculate", name="w", formula="z + 1")
        before = made.column_of("z")
        do(made, do="filter_rows", text="2w > v - 9; v < 100")
        do(made, do="rename_column", name="w", to="rate")
        self.assertEqual("2rate > v - 9; v < 100", made.snapshot.section(Data).row_filter)
        self.assertEqual(
            ("2rate + v", before.cells),
            (made.snapshot.section(Data).columns[-1].formula, made.column_of("z").cells),
        )
        with self.assertRaisesRegex(DataError, "calculated"):
            do(made, do="cell", name="z", row=0, text="1")
        again = Study.from_dict(made.to_dict())
        self.assertEqual(before.cells, again.column_of("z").cells)
        do(made, do="sort_columns", name="z")
        known = made.column_of("z").floats()
        self.assertTrue(np.all(np.diff(known[np.isfinite(known)]) >= 0))
        do(made, do="calculate", name="rate", formula="")
        self.assertEqual(
            "",
            next(
                column for column in made.snapshot.section(Data).columns if column.name == "rate"
            ).formula,
        )
        do(made, do="remove_column", name="rate")
        with self.assertRaises(MathError):
            made.column_of("z")

    def test_conditions_keep_the_rows_for_which_they_hold(self) -> None:
        for text, with_numpy in CONDITIONS:
            for slider in ("3/2", "-1"):
                made = study()
                made.set("a", slider)
                do(made, do="filter_rows", text=text)
                with self.subTest(text, a=slider), np.errstate(all="ignore"):
                    expected = with_numpy(V, U, float(Fraction(slider)))  # type: ignore[no-untyped-call]
                    self.assertEqual(
                        expected.tolist(),
                        made.snapshot.query(Columns).rows_used().tolist(),  # type: ignore[union-attr]
                    )
                    used = V[expected]
                    if len(used):
                        self.assertAlmostEqual(float(used.mean()), made.summary("v").mean)
                    points, rows = made.snapshot.query(Plots).plotted(Plot("v", "u"))
                    both = np.flatnonzero(expected & np.isfinite(U))
                    self.assertEqual(both.tolist(), rows.tolist())
                    np.testing.assert_array_equal(U[both], points[:, 1])
        for bad in ("v + 1", "v <", "q > 1", "v != 2", "1 < v > 2"):
            made = study()
            with self.subTest(bad), self.assertRaises(MathError):
                do(made, do="filter_rows", text=bad)
            self.assertIsNone(made.snapshot.query(Columns).rows_used())

    def test_chosen_rows_become_a_condition_or_go(self) -> None:
        made = study()
        do(made, do="filter_rows", rows=[0, 2, 1], x="v", y="u")
        self.assertEqual("4 <= v <= 8; 3.1 <= u <= 8.3", made.snapshot.section(Data).row_filter)
        self.assertEqual(
            [0, 1, 2],
            np.flatnonzero(made.snapshot.query(Columns).rows_used()).tolist(),  # type: ignore[arg-type]
        )
        do(made, do="remove_rows", rows=[1, 6])
        self.assertEqual([4, 8, 10, 12, -3], made.column_of("v").floats().tolist())
        made.column("long", [1.0] * (CALCULATED_ROWS.value + 1))
        for command in (
            {"do": "calculate", "name": "w", "formula": "v"},
            {"do": "filter_rows", "text": "v > 1"},
        ):
            with self.assertRaises(LimitError):
                do(made, **command)

    def test_error_bars_have_the_length_of_their_column(self) -> None:
        made = Study()
        for name, cells in (("v", [1, 2, 3]), ("u", [2, 4, 5]), ("e", [1, None, -0.5])):
            made.column(name, cells)
        do(made, do="plot", x="v", y="u", y_error="e", x_error="e")
        (drawn,) = made.scene(WINDOW, box=((1.5, 9), (0, 9))).added["data"]
        px, py = 6600 / 20, 4300 / 13
        (left, low, right, high), second = drawn["y_bars"][0], drawn["y_bars"][1:]
        self.assertEqual((1, left), (len(second), right))
        self.assertAlmostEqual(2 * py, low - high, delta=2)
        self.assertAlmostEqual(2 * px, drawn["x_bars"][0][2] - drawn["x_bars"][0][0], delta=2)
        self.assertEqual([1, 2], drawn["chosen"])
        do(made, do="remove_column", name="e")
        self.assertNotIn("y_bars", made.scene(WINDOW).added["data"][0])

    def test_a_damaged_study_is_refused(self) -> None:
        made = study()
        do(made, do="calculate", name="w", formula="u/v")
        for damage in ({"formula": 7}, {"name": "1x"}, {"cells": "no"}):
            data = made.to_dict()
            data["columns"][2] |= damage
            with self.subTest(damage), self.assertRaises(FormatError):
                document_from_dict(data)


class FollowingTest(unittest.TestCase):
    def fitted(self) -> Study:
        made = study()
        do(made, do="fit", model="linear", x="v", y="u")
        do(made, do="follow_fit", fit=1)
        return made

    def test_a_line_follows_its_fit_through_every_change_of_the_data(self) -> None:
        made = self.fitted()
        line = made.snapshot.lines[-1]
        for command in (
            {"do": "cell", "name": "u", "row": 0, "text": "9"},
            {"do": "filter_rows", "text": "a v > 1"},
            {"do": "set", "id": 1, "value": "1/4"},
            {"do": "remove_rows", "rows": [1]},
            {"do": "sort_columns", "name": "u"},
            {"do": "filter_rows", "text": ""},
            {"do": "rename_column", "name": "v", "to": "speed"},
        ):
            with self.subTest(command):
                before = made.snapshot.line(line.id).text
                do(made, **command)
                expected = line_of_fit(
                    made.snapshot.query(Fits).made_fit(made.snapshot.section(Data).fits[0])
                )
                self.assertEqual(f"y = {expected}", made.snapshot.line(line.id).text)
                is_same = command["do"] in ("sort_columns", "rename_column")
                self.assertEqual(is_same, before == made.snapshot.line(line.id).text)
        again = Study.from_dict(made.to_dict())
        do(again, do="cell", name="u", row=0, text="1")
        self.assertNotEqual(made.snapshot.line(line.id).text, again.snapshot.line(line.id).text)

    def test_no_stale_curve_stays_when_the_fit_has_no_result(self) -> None:
        made = self.fitted()
        line_id = made.snapshot.lines[-1].id
        do(made, do="filter_rows", text="v > 100")
        self.assertTrue(made.snapshot.line(line_id).disabled)
        do(made, do="filter_rows", text="")
        self.assertFalse(made.snapshot.line(line_id).disabled)
        do(made, do="disable", id=line_id, disabled=True)
        do(made, do="filter_rows", text="v > 1")
        self.assertTrue(made.snapshot.line(line_id).disabled)

    def test_edited_or_orphaned_line_stops_following_its_fit(self) -> None:
        made = self.fitted()
        line_id = made.snapshot.lines[-1].id
        body = made.snapshot.line(line_id).text.partition("=")[2]
        do(made, do="write", id=line_id, text=f"speeded(x) ={body}")
        self.assertEqual(1, made.snapshot.line(line_id).fit)
        do(made, do="filter_rows", text="v > 1")
        self.assertTrue(made.snapshot.line(line_id).text.startswith("speeded(x) = "))
        do(made, do="write", id=line_id, text="y = 3x")
        do(made, do="filter_rows", text="")
        self.assertEqual("y = 3x", made.snapshot.line(line_id).text)
        do(made, do="follow_fit", fit=1)
        other = made.snapshot.lines[-1].id
        do(made, do="unfit", fit=1)
        self.assertIsNone(made.snapshot.line(other).fit)

    def test_a_formula_starts_from_sliders(self) -> None:
        made = study()
        with self.assertRaisesRegex(DataError, "`k` has no value"):
            do(made, do="fit", model="formula", x="v", y="u", formula="k v^0 + m x + x^2/9")
        do(made, do="try_formula", formula="k + m x + a x^2")
        self.assertEqual({"a", "k", "m"}, set(made.snapshot.values))
        made.set("k", 2)
        do(made, do="fit", model="formula", x="v", y="u", formula="k + m x + a x^2")
        self.assertEqual({"a": 1.5, "k": 2.0, "m": 1.0}, made.snapshot.section(Data).fits[0].start)
        best = made.snapshot.query(Fits).made_fit(made.snapshot.section(Data).fits[0])
        exact = made.fit("polynomial", x="v", y="u", degree=2)
        np.testing.assert_allclose(
            [best.coefficients[best.names.index(n)] for n in "kma"], exact.coefficients, rtol=1e-9
        )
