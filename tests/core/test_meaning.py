"""What the lines of a study mean together: every kind of line, names, dependence, exact forms."""

import math
import os
import unittest
from unittest import mock

import numpy as np
from pebble import ProcessExpired

from axis_path.core import MathError, Study, Window
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.errors import ListError, NameTakenError, NotHandledError, ShapeError
from axis_path.core.evaluate.exact import exact_pool
from axis_path.core.evaluate.exact.exact_pool import exact_form, run_limited
from axis_path.core.study import Kind
from tests.core.functions import make_function

WINDOW = Window(x=(-10, 10), y=(-7, 7), width=300, height=200)


def build(*lines: str, unit: str = "radians") -> Study:
    study = Study(unit)
    for line in lines:
        study.define(line)
    return study


class KindTest(unittest.TestCase):
    LINES = (
        ("f(x) = a x^2", Kind.FUNCTION, "f"),
        ("a = 2", Kind.PARAMETER, "a"),
        ("b = 2a", Kind.PARAMETER, "b"),
        ("area(l, w) = l w for l > 0", Kind.SEVERAL, "area"),
        ("P(t) = (cos t, sin t) for 0 <= t <= 2pi", Kind.PATH, "P"),
        ("r(theta) = 2 + sin theta", Kind.POLAR, "r"),
        ("x^2 + y^2 = a", Kind.RELATION, None),
        ("ring: x^2 + y^2 < 9", Kind.REGION, "ring"),
        ("S = (a, f(a))", Kind.POINT, "S"),
        ("(1, 2)", Kind.POINT, "A"),
        ("V = [1, 4, 9]", Kind.LIST, "V"),
        ("from 0 to 1 in 5 points", Kind.LIST, "L"),
        ("W = f(V)", Kind.LIST, "W"),
        ("x^2", Kind.FUNCTION, "g"),
        ("f(V)", Kind.LIST, "h"),
        ("k(x) = f'(x) for x > 0; integral(f, 0, 1) otherwise", Kind.FUNCTION, "k"),
        ("# note", Kind.NOTE, None),
    )

    def test_every_kind_of_line_is_recognized_and_stored(self) -> None:
        study = build(*(text for text, _, _ in self.LINES))
        for (text, kind, name), made in zip(self.LINES, study.definitions(), strict=True):
            with self.subTest(text):
                self.assertIsNone(made.problem)
                self.assertEqual((kind, name), (made.kind, made.name))
        self.assertEqual(study.to_dict(), Study.from_dict(study.to_dict()).to_dict())
        rows = {row["name"]: row for row in study.scene(WINDOW).to_dict()["rows"]}
        self.assertIsNotNone(rows["k"]["curve"])
        self.assertIn("not x and y", rows["area"]["undrawn"])
        self.assertTrue(rows["ring"]["curve"]["fills"])
        self.assertEqual("(2, 8)", rows["S"]["value"])

    def test_values_of_every_kind(self) -> None:
        study = build(*(text for text, _, _ in self.LINES))
        table = (
            ("area(2, 3)", "6"),
            ("P(pi)", "(-1, 0)"),
            ("r(pi/2)", "3"),
            ("S + 2(1, 1)/4", "(5/2, 17/2)"),
            ("W", "[2, 32, 162]"),
            ("W - 2V", "[0, 24, 144]"),
            ("[(1, 2), (3, 4)] 2", "[(2, 4), (6, 8)]"),
            ("L", "[0, 1/4, 1/2, 3/4, 1]"),
            ("k(1) + k(-1)", "14/3"),
            ("f''(0)", "4"),
            ("P'(0)", "(0, 1)"),
        )
        for text, expected in table:
            with self.subTest(text):
                self.assertEqual(expected, study.evaluate(text).exact)
        study.set("a", 3)
        self.assertEqual("(3, 27)", study.evaluate("S").exact)

    def test_list_length_limit(self) -> None:
        study = build("L = from 1 to 10^6 step 1", "f(x) = 1/x")
        values = study.evaluate("f(L)").value
        self.assertEqual((1_000_000,), values.shape)
        self.assertTrue(np.allclose(1 / np.arange(1, 1_000_001), values))
        for text, words in (
            ("from 0 to 10^12 step 1", "too long"),
            ("from 0 to 1 step -1", "leads away"),
            ("from 0 to 1 step 0", "not 0"),
            ("from 0 to 1 in 2.5 points", "whole number"),
            ("L + [1, 2]", "same length"),
            ("[1, (2, 3)]", "numbers only"),
            ("[L, 1]", "not both"),
        ):
            with self.subTest(text), self.assertRaises(MathError) as caught:
                study.evaluate(text)
            with self.subTest(text):
                self.assertIn(words, caught.exception.message)

    def test_shapes_that_do_not_fit_are_refused_in_words(self) -> None:
        study = build("A = (1, 2)", "f(x) = x^2", "L = [1, 2]")
        for text, error in (
            ("A + 1", ShapeError),
            ("A^2", ShapeError),
            ("sin(A)", MathError),
            ("f(A)", MathError),
            ("sum(L, k, 1, 2)", ShapeError),
            ("sqrt(2 + i) + gcd(i, 2)", NotHandledError),
        ):
            with self.subTest(text), self.assertRaises(error):
                study.evaluate(text).decimal()
        with self.assertRaises(NotHandledError):
            study.define("g(x) = x + i")
        with self.assertRaises(ListError):
            study.evaluate("L + (from 1 to 3 step 1)")

    def test_the_variable_of_a_sum_may_have_the_name_of_a_function(self) -> None:
        study = build("m(t) = 2t", "k(t) = t")
        for text, value in (
            ("sum(m^2, m, 1, 3)", 14),
            ("sum(m(2) + k, k, 1, 3)", 18),
            ("sum(sum(k*m, k, 1, 3), m, 1, k(2))", 18),
            ("integral(m, 0, 2)", 4),
        ):
            with self.subTest(text):
                self.assertEqual(value, study.evaluate(text).value)

    def test_calculations_with_i(self) -> None:
        study = build("z = 2 + 3i")
        for text, exact, value in (
            ("z^2", None, -5 + 12j),
            ("|z|^2", "13", 13),
            ("1/(1 + i)", "1/2 - i/2", 0.5 - 0.5j),
            ("e^(i pi)", "-1", -1),
            ("sqrt(-4 + 0i)", "2i", 2j),
        ):
            with self.subTest(text):
                result = study.evaluate(text)
                self.assertAlmostEqual(value, result.value)
                if exact is not None:
                    self.assertEqual(exact, result.exact)
        self.assertEqual("−5 + 12 i", study.evaluate("z^2").decimal())

    def test_undefined_values_state_the_reason_and_x(self) -> None:
        study = build("f(x) = sqrt(x)", "g(x) = x for x > 2; 1 for x < 0")
        self.assertEqual("sqrt of a negative number at x = −1", study.evaluate("f(-1)").reason)
        self.assertIn("outside all pieces", study.evaluate("g(1)").reason)
        table = study.values(["f"], x=[-1, 4])
        self.assertEqual("sqrt of a negative number at x = −1", table.reason("f", 0))


class DependenceTest(unittest.TestCase):
    def test_renaming_a_definition_renames_exactly_its_uses(self) -> None:
        study = build(
            "f(x) = l x", "l = 2", "g(x) = f(x)^2 + f'(x) + integral(f, 0, l)", "h(f) = f + l w",
            "w = 3", "m = lw",
        )  # fmt: skip
        study.rename("f", "rope")
        study.rename("l", "slack")
        self.assertEqual(
            [
                "rope(x) = slack x",
                "slack = 2",
                "g(x) = rope(x)^2 + rope'(x) + integral(rope, 0, slack)",
                "h(f) = f + slack w",
                "w = 3",
                "m = slack w",
            ],
            [line.text for line in study.snapshot.lines],
        )
        self.assertTrue(all(d.problem is None for d in study.definitions()))
        self.assertEqual("6", study.evaluate("m").exact)
        for new in ("sin", "g", "2a", "x"):
            with self.subTest(new), self.assertRaises(NameTakenError):
                study.rename("rope", new)

    def test_editing_a_name_renames_its_uses(self) -> None:
        study = build("f(x) = x^2", "g(x) = f(x) + 1")
        label = study.apply({"do": "write", "id": 1, "text": "q(x) = x^3"}, WINDOW)
        self.assertEqual("Edit q, and its name in g", label)
        self.assertEqual("q(x) + 1", study.snapshot.lines[1].text.split(" = ")[1])
        label = study.apply({"do": "remove", "id": 1}, WINDOW)
        self.assertEqual("Delete q, which g needed", label)

    def test_deleting_reports_the_dependent_lines(self) -> None:
        study = build("a = 2", "f(x) = a x", "g(x) = f(x) + a", "b = 3")
        self.assertEqual(["f", "g"], study.snapshot.query(Sliders).users("a"))
        self.assertEqual(["g"], study.remove("f"))
        self.assertEqual([], study.remove("b"))

    def test_an_edited_study_equals_a_fresh_one(self) -> None:
        """What the edit did not touch is taken over; the result must not show it."""
        study = build("f(x) = x + a", "a = 2", "g(x) = f(x)^2", "h(x) = g(x) - f(1)", "b = h(3)")
        for text in (
            "f(x) = x - a",
            "a = sqrt(2)",
            "g(x) = f(x) for x < 2; 1 otherwise",
            "f(x) = sin x",
        ):
            study.define(text)
            fresh = build(*(line.text for line in study.snapshot.lines))
            for name in ("f(1/3)", "g(1)", "h(1)", "b"):
                with self.subTest(text, name=name):
                    self.assertEqual(
                        fresh.evaluate(name).decimal(25), study.evaluate(name).decimal(25)
                    )

    def test_an_edit_compiles_only_what_depends_on_it(self) -> None:
        study = build(
            "f(x) = x^2",
            "g(x) = f(x) + 1",
            "h(x) = sin x",
            *(f"q_{k}(x) = h(x + {k})" for k in range(200)),
        )
        study.scene(WINDOW)
        untouched = study.function("q_7").expression
        study.define("f(x) = x^3")
        self.assertIs(untouched, study.function("q_7").expression)
        self.assertEqual("9", study.evaluate("g(2)").exact)


#: Calculations with the exact form that a textbook prints.
TEXTBOOK = (
    ("4i + 3", "3 + 4i"),
    ("1/2 - sqrt(3)/2 i", "1/2 - i√3/2"),
    ("cos(36°)", "(1 + √5)/4"),
    ("-tan(pi/6)", "-√3/3"),
    ("e^(-1)", "1/e"),
    ("3e^(-2)", "3/e^2"),
    ("log(5) + log(2)", "1"),
    ("ln(12) - ln(4)", "ln(3)"),
    ("sqrt(3 + 2sqrt(2))", "1 + √2"),
    ("sqrt(6 - 2sqrt(5))", "√5 - 1"),
    ("sinh(ln(2))", "3/4"),
    ("cosh(ln(3))", "5/3"),
    ("sin(2atan(1/2))", "4/5"),
    ("tan(2atan(1/3))", "3/4"),
    ("cos(pi/8)", "√(2 + √2)/2"),
    ("1/(1 + sqrt(2))", "√2 - 1"),
    ("cbrt(54)", "3·2^(1/3)"),
    ("5pi/6 + pi", "11π/6"),
    ("pi sqrt(2)/4", "π√2/4"),
    ("pi^2/6", "π^2/6"),
    ("1/(2pi)", "1/(2π)"),
    ("atan(1/2)/2", "atan(1/2)/2"),
    ("(1 + i)^3", "-2 + 2i"),
)


class ExactFormTest(unittest.TestCase):
    def test_closed_forms_are_found(self) -> None:
        study = Study()
        for text, exact in (
            ("sqrt(8)", "2√2"),
            ("sin(pi/12)", "(√6 - √2)/4"),
            ("acos(-1/2)", "2π/3"),
            ("2^0.5*2^0.5", "2"),
            ("ln(e^3)", "3"),
            ("e^2/e", "e"),
            ("1/(sqrt(3) - 1)", "(1 + √3)/2"),
            ("(-8)^(1/3)", "-2"),
            ("sin(1)", None),
            ("integral(exp(-t^2), t, 0, 1)", None),
        ):
            with self.subTest(text):
                self.assertEqual(exact, study.evaluate(text).exact)

    def test_an_exact_form_is_never_another_number(self) -> None:
        """Whatever algebra says, the decimal of the exact form is that of the number."""
        study = Study()
        for text in (
            "sqrt((1 - sqrt(2))^2)", "((-2)^2)^(1/4)", "ln((-3)^2)", "asin(sin(3))", "atan(tan(2))",
            "(-8)^(2/3)", "abs(pi - 4)", "sqrt(4 - 2sqrt(3))", "floor(pi^2)", "sign(e - 3) sqrt(12)",
        ):  # fmt: skip
            with self.subTest(text):
                result = study.evaluate(text)
                if result.exact is not None:
                    self.assertEqual(
                        result.decimal(40).rstrip("0"),
                        study.evaluate(result.exact).decimal(40).rstrip("0"),
                    )

    def test_timeout_keeps_the_decimal(self) -> None:
        program = make_function(
            "integral(sqrt(1 + sin(t)^3) exp(-t^2), t, 0, 1)"
        ).expression.program
        found = exact_form(program, {}, limit_ms=250)
        self.assertIsNone(found.text)
        self.assertEqual("no exact form was found in time", found.note)
        # The next question finds a worker again.
        self.assertEqual("√3", Study().evaluate("sqrt(3)").exact)

    def test_a_search_that_timed_out_runs_again(self) -> None:
        study = Study()
        with mock.patch.object(exact_pool, "_limited", return_value=exact_pool._NOTHING):
            self.assertEqual(
                [None], [solution.exact for solution in study.solve("e^x = 7", None, 0, 9)]
            )
            self.assertIsNone(study.evaluate("sqrt(10007)").exact)
        self.assertEqual(
            ["ln(7)"], [solution.exact for solution in study.solve("e^x = 7", None, 0, 9)]
        )
        self.assertEqual("√10007", study.evaluate("sqrt(10007)").exact)

    def test_worker_memory_limit_and_replacement(self) -> None:
        with self.assertRaises(MemoryError):
            run_limited(bytearray, 3 * 1024**3, limit_ms=20_000)
        self.assertEqual("√5", Study().evaluate("sqrt(5)").exact)
        with self.assertRaises(ProcessExpired):
            run_limited(os._exit, 1, limit_ms=20_000)
        self.assertEqual("√7", Study().evaluate("sqrt(7)").exact)

    def test_exact_forms_are_written_as_in_a_textbook_and_read_back(self) -> None:
        for text, exact in TEXTBOOK:
            with self.subTest(text):
                study = Study()
                found = study.evaluate(text)
                self.assertEqual(exact, found.exact)
                again = study.evaluate(exact)
                self.assertAlmostEqual(0, abs(found.value - again.value), places=14)
                self.assertEqual(exact, again.exact)

    def test_exact_decimals_have_no_trailing_zeros(self) -> None:
        for text, decimal in (
            ("sinh(ln(2))", "0.75"),
            ("sin(2atan(1/2))", "0.8"),
            ("log(5) + log(2)", "1"),
            ("ln(e^3)", "3"),
            ("e^(i pi)", "−1"),
            ("123456789012", "123456789012"),
            ("-987654321098.5", "−987654321100"),
            ("2^100", "1.267650600·10^30"),
            ("sqrt(1 + 10^(-12))", "1.000000000"),
        ):
            with self.subTest(text):
                self.assertEqual(decimal, Study().evaluate(text).decimal())

    def test_values_by_convention_are_noted(self) -> None:
        study = Study()
        study.define("f(x) = x^x")
        for text in ("0^0", "(1 - 1)^0", "f(0)", "3 + 0^(2 - 2)"):
            with self.subTest(text):
                self.assertEqual("0^0 counts as 1, by convention.", study.evaluate(text).remark)
        for text in ("2^0", "0^2", "f(1)"):
            with self.subTest(text):
                self.assertEqual("", study.evaluate(text).remark)

    def test_degrees_and_radians_in_exact_forms(self) -> None:
        degrees = build(unit="degrees")
        self.assertEqual("1/2", degrees.evaluate("sin(30)").exact)
        self.assertEqual("(√6 - √2)/4", degrees.evaluate("sin 15").exact)
        self.assertEqual("60", degrees.evaluate("acos(1/2)").exact)
        self.assertEqual("1/2", Study().evaluate("sin(30°)").exact)
        self.assertTrue(math.isclose(math.sin(1), degrees.evaluate("sin(1 rad)").value))
