"""Tables of values: places of every kind, forms of numbers, and what happens between rows."""

import math
import unittest
from typing import Any
from unittest import mock

import mpmath
import numpy as np

from axis_path.core import Study
from axis_path.core.errors import FormatError, LimitError, MathError, TableError
from axis_path.core.evaluate import RealFunction
from axis_path.core.features.tables.queries import Tables
from axis_path.core.kinds.states import States
from axis_path.core.tabulate import (
    Cells,
    Happening,
    Head,
    NumberForm,
    Series,
    TableColumn,
    TableSpec,
    happenings,
    make_table,
)
from axis_path.core.tabulate.form import digits_needed, written


class PlacesTest(unittest.TestCase):
    def abscissae(self, **fields: Any) -> Any:
        return Study().snapshot.query(Tables).table_abscissae(TableSpec(**fields))

    def test_part_of_a_long_table_is_proved_only_where_floats_do_not_suffice(self) -> None:
        """A file of a million rows is computed in parts; proving each row would take minutes."""
        study = Study()
        study.define("f(x) = x^2 - 3x")
        abscissae = study.snapshot.query(Tables).table_abscissae(TableSpec("1/3", "10", "1/400"))
        with mock.patch.object(
            RealFunction, "prove_within", autospec=True, side_effect=RealFunction.prove_within
        ) as proved:
            whole = make_table({"f": study.function("f")}, abscissae, whole=10**6)
            few = proved.call_count
            make_table({"f": study.function("f")}, abscissae)
        # Beside the zero at 3 the digits of a float do not suffice.
        self.assertLess(few, 40)
        self.assertGreaterEqual(proved.call_count - few, abscissae.count)
        xs = abscissae.floats()
        np.testing.assert_allclose(whole.columns["f"], xs * xs - 3 * xs, rtol=1e-9, atol=1e-12)

    def test_table_floats_are_nearest_to_their_values(self) -> None:
        study = Study()
        truths = {
            "f": ("e^x", mpmath.exp),
            "g": ("cos(x)^3/7", lambda x: mpmath.cos(x) ** 3 / 7),
            "h": ("x^10 e^(-x)", lambda x: x**10 * mpmath.exp(-x)),
        }
        for name, (text, _) in truths.items():
            study.define(f"{name}(x) = {text}")
        table = study.values(list(truths), -170, 170, "1/3")
        with mpmath.workdps(60):
            abscissae = [mpmath.mpf(k) / 3 - 170 for k in range(len(table.x))]
            for name, (_, truth) in truths.items():
                expected = [float(truth(x)) for x in abscissae]
                self.assertEqual(expected, table.columns[name].tolist())

    def test_x_values_by_step_by_count_and_listed(self) -> None:
        for fields, expected in (
            ({"start": "0", "stop": "1", "step": "1/4"}, ["0", "1/4", "1/2", "3/4", "1"]),
            ({"start": "0", "stop": "pi", "count": "3"}, ["0", "π/2", "π"]),
            ({"start": "3", "stop": "1", "count": "3"}, ["3", "2", "1"]),
            ({"listed": "0, pi/6; 2 pi, -1"}, ["0", "π/6", "2π", "−1"]),
            ({"listed": "1 2 3.5"}, ["1", "2", "7/2"]),
            ({"listed": "min(2, 3), 4"}, ["2", "4"]),
            ({"listed": "7"}, ["7"]),
        ):
            with self.subTest(fields):
                study = Study()
                study.define("f(x) = x")
                abscissae = study.snapshot.query(Tables).table_abscissae(TableSpec(**fields))  # type: ignore[arg-type]
                table = study.values(["f"], x=[0])
                shown = [
                    type(table)(abscissae, table.functions, abscissae.floats(), {}).exact_x(row)
                    for row in range(abscissae.count)
                ]
                self.assertEqual(expected, shown)

    def test_an_x_value_is_found_between_its_rows(self) -> None:
        """The row before a place and the next one have it between them, in tables of every kind."""
        for fields in (
            {"start": "-2", "stop": "5", "step": "1/3"}, {"start": "7", "stop": "-7", "count": "40"},
            {"start": "0", "stop": "1", "count": "1000000"}, {"listed": "-1, 0, pi/6, 2, 2, 9"},
            {"listed": "5, 2, 1/3, -4"},
        ):  # fmt: skip
            abscissae = self.abscissae(**fields)
            xs = abscissae.floats()
            low, high = xs.min(), xs.max()
            for x in np.random.default_rng(5).uniform(low, high, 200):
                row = abscissae.row_before(float(x))
                self.assertLessEqual((xs[row] - x) * (xs[row + 1] - x), 0, (fields, x))
            for row in range(0, abscissae.count, max(abscissae.count // 37, 1)):
                self.assertEqual(xs[row], xs[abscissae.row_before(float(xs[row]))])
            ends = {abscissae.row_before(low - 3), abscissae.row_before(high + 3)}
            self.assertEqual({0, abscissae.count - 1}, ends)
        self.assertEqual(0, self.abscissae(listed="0, 9, 4").row_before(5))

    def test_a_million_rows_are_made_and_no_more(self) -> None:
        abscissae = self.abscissae(start="0", stop="1", count="1000000")
        self.assertEqual(1_000_000, abscissae.count)
        self.assertEqual(3, len(abscissae.part(999_990, 999_993).floats()))
        for fields, error in (
            ({"start": "0", "stop": "1", "count": "1000001"}, LimitError),
            ({"start": "0", "stop": "10^12", "step": "1"}, LimitError),
            ({"start": "0", "stop": "1", "step": "0"}, TableError),
            ({"start": "0", "stop": "1", "step": "-1"}, TableError),
            ({"start": "0", "stop": "1", "count": "1"}, TableError),
            ({"start": "0", "stop": "1", "count": "2.5"}, TableError),
            ({"listed": "1, two, 3"}, MathError),
        ):
            with self.subTest(fields), self.assertRaises(error):
                self.abscissae(**fields)

    def test_table_settings_are_stored(self) -> None:
        study = Study()
        spec = TableSpec("0", "1", "1/4", "11", "", 3, NumberForm.FIXED)
        study.keep(spec)
        self.assertEqual(spec, Study.from_dict(study.to_dict()).snapshot.section(TableSpec))
        usual = Study().to_dict()
        self.assertNotIn("table", usual)
        for wrong in ({"digits": 99}, {"digits": "3"}, {"form": "roman"}, {"count": 3}):
            with self.subTest(wrong), self.assertRaises(FormatError):
                Study.from_dict(usual | {"table": wrong})


class FormTest(unittest.TestCase):
    def shown(self, text: str, digits: int, form: NumberForm) -> str:
        study = Study()
        study.define(f"f(x) = {text} + 0x")
        table = study.values(["f"], x=[0])
        value = float(table.columns["f"][0])
        wanted = digits_needed(value, digits, form)
        if not wanted:
            return written("0", 0.0, digits, form)
        return written(table.text("f", 0, wanted), value, digits, form)

    def test_numbers_in_every_form(self) -> None:
        for text, digits, form, expected in (
            ("2/3", 4, NumberForm.SIGNIFICANT, "0.6667"),
            ("2/3", 2, NumberForm.FIXED, "0.67"),
            ("200/3", 2, NumberForm.FIXED, "66.67"),
            ("-1/8", 2, NumberForm.FIXED, "−0.12"),
            ("1/1000", 2, NumberForm.FIXED, "0.00"),
            ("7", 3, NumberForm.FIXED, "7.000"),
            ("0", 2, NumberForm.FIXED, "0.00"),
            ("12345", 0, NumberForm.FIXED, "12345"),
            ("12345.678", 4, NumberForm.SCIENTIFIC, "1.235·10^4"),
            ("0.00012", 4, NumberForm.SCIENTIFIC, "1.2·10^−4"),
            ("-20", 3, NumberForm.SCIENTIFIC, "−2·10^1"),
            ("10^20", 3, NumberForm.SCIENTIFIC, "1·10^20"),
            ("5", 3, NumberForm.SCIENTIFIC, "5·10^0"),
        ):
            with self.subTest(text, digits=digits, form=form):
                self.assertEqual(expected, self.shown(text, digits, form))


class BetweenTest(unittest.TestCase):
    def test_events_between_rows_are_reported(self) -> None:
        x = np.arange(-3.0, 4.0)
        found = happenings({"f": x**2 - 2, "g": x + 0.5})
        reported = [(event.row, event.last, event.sentence) for event in found]
        self.assertIn((1, 2, "f changes its sign"), reported)
        self.assertIn((4, 5, "f changes its sign"), reported)
        self.assertIn((2, 3, "g changes its sign"), reported)
        self.assertIn((2, 4, "f turns"), reported)
        self.assertIn((1, 2, "f and g change places"), reported)
        kinds = {event.what for event in found}
        self.assertEqual({Happening.SIGN, Happening.TURN, Happening.MEET}, kinds)

    def test_a_zero_in_a_row_counts_once(self) -> None:
        found = happenings({"f": np.array([2.0, 1.0, 0.0, -1.0, -2.0])})
        self.assertEqual([(1, Happening.SIGN)], [(event.row, event.what) for event in found])
        gap = happenings({"f": np.array([-1.0, math.nan, 1.0])})
        self.assertEqual([], gap)

    def test_the_true_zero_lies_between_the_rows(self) -> None:
        study = Study()
        study.define("f(x) = cos(3x) - x/4")
        zeros = [zero.x for zero in study.zeros("f", -5, 5)]
        table = study.values(["f"], start=-5, stop=5, count=41)
        signs = [e for e in happenings(table.columns) if e.what is Happening.SIGN]
        self.assertEqual(len(zeros), len(signs))
        for zero, event in zip(zeros, signs, strict=True):
            self.assertTrue(table.x[event.row] <= zero <= table.x[event.last])


class KeptColumnsTest(unittest.TestCase):
    """Columns of a table as they are stored with the study."""

    def test_columns_are_stored_and_damaged_ones_refused(self) -> None:
        study = Study()
        study.define("f(x) = x^2")
        columns = (
            TableColumn("f'(x) + 1"),
            TableColumn("f", Series.SUM, 3, NumberForm.FIXED),
            TableColumn("f", out=True),
        )
        study.keep(TableSpec(columns=columns, over="", at="2pi"))
        fields = study.to_dict()
        self.assertEqual(columns, Study.from_dict(fields).snapshot.section(TableSpec).columns)
        for damage in (
            {"text": ""}, {"text": 4}, {"text": "f", "series": "mist"}, {"text": "f", "digits": 16},
            {"text": "f", "digits": "3"}, {"text": "f", "form": "bold"}, "f", None,
        ):  # fmt: skip
            broken = fields | {"table": fields["table"] | {"columns": [damage]}}
            with self.subTest(damage), self.assertRaises(FormatError):
                Study.from_dict(broken)
        many = fields | {"table": fields["table"] | {"columns": [{"text": "f"}] * 41}}
        with self.assertRaises(FormatError):
            Study.from_dict(many)

    def test_columns_follow_renamed_functions(self) -> None:
        study = Study()
        study.define("f(x) = a x^2")
        study.set("a", 2)
        texts = ("f''", "3f(x) + a", "sin(f(x)/a)", "af(2)")
        study.keep(TableSpec(columns=tuple(map(TableColumn, texts)), over="a"))
        study.rename("f", "height")
        study.rename("a", "slack")
        table = study.snapshot.section(TableSpec)
        self.assertEqual("slack", table.over)
        self.assertEqual("height''", table.columns[0].text)
        heads = study.snapshot.query(Tables).table_heads(
            table, study.snapshot.query(States).functions()
        )
        self.assertEqual([Head] * 5, [type(head) for head in heads])
        value = Cells(heads[2], study.snapshot.query(Tables).table_abscissae(table)).text(7)  # type: ignore[arg-type]
        # With the slider at 2 and x at 1: 3 height(1) + slack.
        self.assertEqual("8", value)
