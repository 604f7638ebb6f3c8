"""Studies: lines in any order, one name each, sliders, and what depends on what."""

import unittest
from fractions import Fraction
from typing import Any

import numpy as np

from axis_path.core import MathError, Study, Window
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.errors import (
    ArgumentCountError,
    CycleError,
    FormatError,
    LimitError,
    NameTakenError,
    NoValueError,
    TableError,
    UnknownNameError,
)
from axis_path.core.features.lines.edits import mark_line
from axis_path.core.features.settings.edits import set_unit
from axis_path.core.kinds.states import States
from axis_path.core.study import Kind, SliderRange, slider_value


def build(*lines: str, unit: str = "radians") -> Study:
    study = Study(unit)
    for number, text in enumerate(lines, start=1):
        study.write(number, text)
    return study


def problems(study: Study) -> list[str]:
    return [d.problem.code if d.problem else "" for d in study.definitions()]


class DefinitionTest(unittest.TestCase):
    def test_the_public_face_works_as_promised(self) -> None:
        study = Study(angle_unit="radians")
        made = study.define("f(x) = x^2 - a")
        self.assertEqual(("f", Kind.FUNCTION, "f(x) = x^2 - a"), (made.name, made.kind, made.text))
        self.assertIn("<math>", made.mathml)
        study.set("a", 2.5, low=0, high=5, step=0.1)
        self.assertEqual(["f", "a"], study.names())
        result = study.evaluate("f(2) + 1/3")
        self.assertEqual(("11/6", "1.833333333"), (result.exact, result.decimal(digits=10)))
        self.assertAlmostEqual(11 / 6, result.value)
        curve = study.curve("f", Window(x=(-10, 10), y=(-7, 7), width=660, height=430))
        self.assertEqual((np.float64, 2), (curve.pieces[0].dtype, curve.pieces[0].shape[1]))
        zeros = study.zeros("f", low=-5, high=5)
        self.assertEqual((2, True, "zero"), (len(zeros), zeros.complete, zeros[0].kind))
        table = study.values(["f"], start=0, stop=2, step=0.5)
        self.assertEqual([-2.5, -2.25, -1.5, -0.25, 1.5], table.columns["f"].tolist())
        study.remove("f")
        self.assertEqual(["a"], study.names())

    def test_order_does_not_matter(self) -> None:
        lines = ["h(x) = g(x) + b", "g(x) = a x^2", "b = 2a", "a = 3"]
        for shift in range(4):
            study = build(*lines[shift:], *lines[:shift])
            with self.subTest(shift):
                self.assertEqual([""] * 4, problems(study))
                self.assertEqual("18", study.evaluate("h(2)").exact)

    def test_a_name_that_comes_later_revives_what_waited_for_it(self) -> None:
        study = Study()
        made = study.define("f(x) = a tide(x)")
        self.assertIsInstance(made.problem, UnknownNameError | NoValueError)
        study.define("tide(t) = t + 1")
        waiting = study.snapshot.definition(made.id).problem
        self.assertIsInstance(waiting, NoValueError)
        self.assertEqual(("a",), waiting.letters if waiting else ())
        study.set("a", 2)
        self.assertEqual("8", study.evaluate("f(3)").exact)
        study.remove("tide")
        self.assertIsNotNone(study.snapshot.definition(made.id).problem)

    def test_redefining_changes_everything_that_depends_on_it(self) -> None:
        study = Study()
        study.define("g(x) = x + 1")
        study.define("f(x) = g(x)^2")
        self.assertEqual("16", study.evaluate("f(3)").exact)
        study.define("g(x) = x - 1")
        self.assertEqual("4", study.evaluate("f(3)").exact)
        self.assertEqual(["g", "f"], study.names())

    def test_unnamed_functions_get_the_next_free_name_and_keep_it(self) -> None:
        study = build("x^2", "g(x) = 1", "y = 2x", "x + 1", "x - 1", "3x", "4x")
        self.assertEqual(["f", "g", "h", "p", "q", "f_1", "f_2"], study.names())
        study.remove("f")
        self.assertEqual(["g", "h", "p", "q", "f_1", "f_2"], study.names())

    def test_a_line_that_does_not_read_leaves_the_study_as_it_was(self) -> None:
        study = Study()
        study.define("f(x) = x")
        before = study.to_dict()
        for text, error in (
            ("f(x) = (x", MathError),
            ("g(x) = sinn(x)", UnknownNameError),
            ("sin(x) = 1", NameTakenError),
            ("f(x) = f(x) + 1", CycleError),
            ("g(x) = f(x, 2)", ArgumentCountError),
            ("g(x) = max(x)", ArgumentCountError),
            ("x^2 + y^2 = = 1", MathError),
        ):
            with self.subTest(text):
                with self.assertRaises(error):
                    study.define(text)
                self.assertEqual(before, study.to_dict())

    def test_argument_counts_are_named(self) -> None:
        study = Study()
        study.define("f(x) = x")
        for text, message in (
            ("f(1, 2)", "`f` needs 1 value and was given 2."),
            ("max(1)", "`max` needs 2 values and was given 1."),
        ):
            with self.subTest(text), self.assertRaises(ArgumentCountError) as caught:
                study.evaluate(text)
            self.assertEqual(message, caught.exception.message)

    def test_a_bad_line_is_stored_and_affects_no_other(self) -> None:
        study = build("f(x) = x^2", "g(x) = (", "h(x) = f(x) + 1", "k(x) = g(x)")
        self.assertEqual(["", "language.grammar", "", "language.no_value"], problems(study))
        self.assertEqual("g(x) = (", study.snapshot.definition(2).text)
        self.assertEqual("10", study.evaluate("h(3)").exact)

    def test_a_circle_names_its_members(self) -> None:
        study = build("f(x) = g(x)", "g(x) = h(x) + 1", "h(x) = 2f(x)", "k(x) = f(x)", "m(x) = x")
        self.assertEqual(["study.cycle"] * 3 + ["language.no_value", ""], problems(study))
        problem = study.snapshot.definition(1).problem
        assert problem is not None
        for name in ("`f`", "`g`", "`h`"):
            self.assertIn(name, problem.message)

    def test_a_name_stands_for_one_line(self) -> None:
        study = build("f(x) = 1", "f(x) = 2", "a = 1", "a(x) = x")
        self.assertEqual(["", "study.name_taken", "", "study.name_taken"], problems(study))
        self.assertIn("line 1", study.snapshot.definition(2).problem.message)  # type: ignore[union-attr]

    def test_names_without_a_value_are_offered_together(self) -> None:
        problem = build("f(x) = m x + c").snapshot.definition(1).problem
        assert problem is not None
        self.assertEqual(("m", "c"), problem.letters)
        self.assertEqual("`m` and `c` have no value yet: make them sliders?", problem.message)
        self.assertEqual((7, 8), problem.position)

    def test_hidden_lines_work_and_disabled_lines_do_not(self) -> None:
        study = build("f(x) = x + 1", "g(x) = f(x)")
        study.edit(mark_line, 1, hidden=True)
        self.assertEqual("3", study.evaluate("g(2)").exact)
        self.assertEqual(["g"], [d.name for d, _ in study.snapshot.query(States).functions()])
        study.edit(mark_line, 1, hidden=False, disabled=True)
        self.assertEqual(["", "language.no_value"], problems(study))
        self.assertEqual(["g"], study.names())
        study.edit(mark_line, 1, disabled=False)
        self.assertEqual(["", ""], problems(study))

    def test_many_definitions_in_a_row_stay_small_and_quick(self) -> None:
        study = Study()
        study.write(1, "f_0(x) = x + 1/2")
        for k in range(1, 100):
            study.write(k + 1, f"f_{k}(x) = f_{k - 1}(x) + f_{k - 1}(x)")
        self.assertEqual(str(2**99 * Fraction(3, 2)), study.evaluate("f_99(1)").exact)

    def test_too_deeply_nested_definitions_are_refused(self) -> None:
        study = build("f_0(x) = x", *(f"f_{k}(x) = f_{k - 1}(x + {k}) + 1" for k in range(1, 120)))
        last = study.definitions()[-1].problem
        self.assertIsInstance(last, LimitError)

    def test_degrees_change_what_the_study_means(self) -> None:
        study = build("f(x) = sin x")
        self.assertAlmostEqual(0.0, study.evaluate("f(pi)").value)
        study.edit(set_unit, "degrees")
        self.assertEqual("1/2", study.evaluate("f(30)").exact)


class SliderTest(unittest.TestCase):
    def test_a_slider_keeps_what_was_typed_exactly(self) -> None:
        study = Study()
        study.set("a", 0.1)
        self.assertEqual("3/10", study.evaluate("3a").exact)
        study.set("a", "1/3")
        self.assertEqual("1/3", study.evaluate("a").exact)

    def test_a_slider_snaps_to_its_steps_from_its_lower_end(self) -> None:
        chosen = SliderRange(Fraction(-1), Fraction(2), Fraction(2, 5))
        for value, expected in (
            ("0", "-1/5"),
            ("0.1", "1/5"),
            ("-5", "-1"),
            ("9", "2"),
            ("1.95", "2"),
            ("1.5", "7/5"),
        ):
            with self.subTest(value):
                self.assertEqual(Fraction(expected), chosen.snap(Fraction(value)))

    def test_sliders_that_cannot_be_are_refused(self) -> None:
        study = build("b = 2a", "a = 1")
        for kwargs in (
            {"name": "a", "value": 1, "low": 5, "high": 1},
            {"name": "a", "value": 1, "low": 0, "high": 1, "step": 0},
            {"name": "a", "value": 1, "low": 0, "high": 1, "step": 2},
            {"name": "a", "value": float("nan")},
            {"name": "a", "value": "abc"},
            {"name": "a", "value": "1e200"},
            {"name": "b", "value": 1},
        ):
            with self.subTest(**kwargs), self.assertRaises(MathError):
                study.set(**kwargs)
        with self.assertRaises(MathError):
            study.set("sin", 1)
        self.assertEqual("1", study.evaluate("a").exact)

    def test_which_lines_are_sliders(self) -> None:
        for text, expected in (
            ("a = 2.5", ("a", Fraction(5, 2))),
            ("θ = -1", ("theta", Fraction(-1))),
            ("a=1e-3", ("a", Fraction(1, 1000))),
            ("a = −2", ("a", Fraction(-2))),
            ("a = 2b", None),
            ("a = 1/2", None),
            ("f(x) = 2", None),
            ("x = 2", None),
            ("y = 2", None),
        ):
            with self.subTest(text):
                self.assertEqual(expected, slider_value(text))

    def test_the_value_of_a_slider_does_not_compile_anything_anew(self) -> None:
        study = build("f(x) = x^2 + a", "a = 1")
        before = study.function("f").expression
        study.set("a", 3)
        self.assertIs(before, study.function("f").expression)
        self.assertEqual("7", study.evaluate("f(2)").exact)


class ValuesTest(unittest.TestCase):
    def setUp(self) -> None:
        self.study = build("f(x) = sin x", "g(x) = 1/(x - 1) for 0 <= x < 3", "h(x) = sqrt(x)")

    def test_exact_x_values_have_exact_cells(self) -> None:
        table = self.study.values(["f"], start=0, stop="2pi", step="pi/6")
        self.assertEqual(13, len(table.x))
        cells = [table.text("f", row) for row in (0, 1, 3, 6, 9, 12)]
        self.assertEqual(["0", "0.5", "1", "0", "−1", "0"], cells)
        self.assertEqual([0.0, 0.0], table.columns["f"][[6, 12]].tolist())

    def test_undefined_cells_state_the_reason(self) -> None:
        table = self.study.values(["g", "h"], start=-1, stop=3, step=1)
        self.assertTrue(np.isnan(table.columns["g"][[0, 2, 4]]).all())
        self.assertEqual("outside the domain of g at x = −1", table.reason("g", 0))
        self.assertEqual("a division by zero at x = 1", table.reason("g", 2))
        self.assertEqual("outside the domain of g at x = 3", table.reason("g", 4))
        self.assertEqual("sqrt of a negative number at x = −1", table.reason("h", 0))
        self.assertEqual(("", ""), (table.reason("g", 1), table.text("g", 2)))

    def test_steps_of_tenths_do_not_drift(self) -> None:
        table = self.study.values(["h"], start=0, stop=10, step="0.1")
        self.assertEqual(101, len(table.x))
        self.assertEqual([k / 10 for k in range(101)], table.x.tolist())
        self.assertEqual("0.3", table.x_text(3))

    def test_counts_and_listed_x_values(self) -> None:
        self.assertEqual(
            [0, 0.25, 0.5, 0.75, 1], self.study.values(["f"], 0, 1, count=5).x.tolist()
        )
        self.assertEqual([3, 1], self.study.values(["f"], x=[3, "1"]).x.tolist())
        down = self.study.values(["f"], start=2, stop=0, step=-1)
        self.assertEqual([2, 1, 0], down.x.tolist())

    def test_catastrophic_cancellation_shows_no_wrong_digit(self) -> None:
        study = build("f(x) = (1 - cos(x))/x^2", "g(x) = (x + 10^16) - 10^16")
        table = study.values(["f", "g"], x=["10^-9"])
        self.assertEqual("0.5000000000", table.text("f", 0))
        self.assertAlmostEqual(0.5, table.columns["f"][0], delta=1e-15)
        self.assertEqual(1e-9, table.columns["g"][0])

    def test_tables_that_cannot_be_are_refused(self) -> None:
        for start, stop, step, error in (
            (0, 1, 0, TableError),
            (0, 1, -1, TableError),
            (1, 0, 1, TableError),
            (0, 1, "10^-9", LimitError),
            ("1/0", 1, 1, MathError),
            ("q", 1, 1, MathError),
        ):
            with self.subTest(start=start, step=step), self.assertRaises(error):
                self.study.values(["f"], start, stop, step)
        with self.assertRaises(UnknownNameError):
            self.study.values(["nope"], 0, 1, 1)


class DocumentTest(unittest.TestCase):
    def document(self) -> dict[str, Any]:
        study = build("f(x) = a x for x > 0", "a = 2", "# note", "x^2", "bad (", unit="degrees")
        study.edit(mark_line, 1, hidden=True)
        study.edit(mark_line, 4, disabled=True)
        study.set("a", 3, low=-1, high="7/3", step="1/3")
        return study.to_dict()

    def test_written_text_is_read_back(self) -> None:
        document = self.document()
        again = Study.from_dict(document)

        self.assertEqual(document, again.to_dict())
        self.assertEqual(build().to_dict(), Study.from_dict(Study().to_dict()).to_dict())
        self.assertEqual("degrees", again.snapshot.unit)
        self.assertEqual(Fraction(7, 3), again.snapshot.query(Sliders).slider_range(2).high)

    def test_damaged_documents_are_refused_in_words(self) -> None:
        whole = self.document()
        for damage in (  # type: ignore[var-annotated]
            None,
            [],
            "x",
            {},
            {"format": "other"},
            whole | {"version": 3},
            whole | {"lines": {}},
            whole | {"angle_unit": "turns"},
            whole | {"lines": [3]},
            whole | {"findings": [{}]},
            whole | {"lines": [{"id": 1}]},
            whole | {"lines": [{"id": True, "text": "x"}]},
            whole | {"lines": [{"id": 1, "text": "x"}, {"id": 1, "text": "y"}]},
            whole | {"lines": [{"id": k, "text": "x"} for k in range(501)]},
            whole | {"lines": [{"id": 1, "text": "x" * 2001}]},
            whole
            | {
                "lines": [
                    {"id": 1, "text": "a=1", "slider": {"low": "2", "high": "1", "step": "1"}}
                ]
            },
            whole | {"table": {"start": 3}},
        ):
            with self.subTest(str(damage)[:60]), self.assertRaises(FormatError) as caught:
                Study.from_dict(damage)
            self.assertTrue(caught.exception.message.endswith("."))

    def test_no_more_lines_than_the_limit(self) -> None:
        study = build(*(f"# {k}" for k in range(500)))
        with self.assertRaises(LimitError):
            study.write(501, "x")
        self.assertEqual(500, len(study.snapshot.lines))
