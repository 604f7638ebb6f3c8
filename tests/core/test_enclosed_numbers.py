"""Numbers that are only enclosed: what uses them is the same as with the expression itself."""

import math
import random
import unittest
from fractions import Fraction

import numpy as np
from flint import arb
from hypothesis import given, settings
from hypothesis import strategies as st

from axis_path.core import MathError, Study
from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.arithmetic.real_number import EnclosedNumber, ball_of, fractions_only, key_of
from axis_path.core.compile.curves import Curves
from axis_path.core.draw import Window
from axis_path.core.evaluate import RealFunction
from axis_path.core.evaluate.backends.backends import float_bounds, nearest_float

WINDOW = Window((-6.0, 6.0), (-4.0, 4.0), 600, 400)
#: Equations of one unknown, and the same number as an expression.
NUMBERS = (
    ("u^2 = 2;", "sqrt(2)", ("0", "9")), ("u^3 = 5;", "5^(1/3)", ("0", "9")),
    ("exp(u) = 3;", "ln(3)", ("0", "9")), ("sin u = 1/3;", "asin(1/3)", ("0", "1")),
    ("u + 1/u = 3;", "(3 - sqrt(5))/2", ("0", "1")),
)  # fmt: skip
#: Lines in which the number stands as a factor, an end, an exponent, a coefficient.
LINES = (
    "f(x) = x^2 - k", "f(x) = k x^3 - x", "f(x) = sin(k x)", "f(x) = 1/(x - k)", "f(x) = sqrt(x - k)",
    "f(x) = x^2 for -k <= x < k", "f(x) = abs(x - k) - 1", "f(x) = exp(-k x) - x", "f(x) = x/k + k",
    "f(x) = x^2 for x < k; k x otherwise", "f(x) = (x - k)^2 (x + k)", "f(x) = tan(x/k)",
    "f(x) = ln(x + k)", "f(x) = floor(k x)", "f(x) = sum(k^j, j, 0, 3) x", "f(x) = x - integral(k t, t, 0, x)",
)  # fmt: skip


def with_solved(equation: str, bounds: tuple[str, str], line: str) -> Study:
    """Return a study in which k is found by solving an equation."""
    study = Study()
    study.define(equation)
    bound = {"name": "u", "low": bounds[0], "high": bounds[1]}
    study.apply({"do": "search_between", "id": 1, "bounds": [bound]}, WINDOW)
    study.define("k = u")
    study.define(line)
    return study


def with_expression(expression: str, line: str) -> Study:
    """Return a study in which k is written out."""
    study = Study()
    study.define(f"k = {expression}")
    study.define(line)
    return study


class AgreementTest(unittest.TestCase):
    def test_curves_zeros_and_tables_are_those_of_the_expression(self) -> None:
        drawn = random.Random(11)  # noqa: S311 - a fixed seed is wanted
        for line in LINES:
            equation, expression, bounds = drawn.choice(NUMBERS)
            solved, written = with_solved(equation, bounds, line), with_expression(expression, line)
            with self.subTest(line, number=expression):
                self.assert_same_numbers(solved, written)
                self.assert_same_findings(solved, written)
                self.assert_same_pictures(solved, written)

    def assert_same_numbers(self, solved: Study, written: Study) -> None:
        for text in ("k", "f(1.7)", "f(k)", "f'(2)", "k^2 - 2k", "integral(f, 2, 3)"):
            one, other = _decimal(solved, text), _decimal(written, text)
            self.assertEqual(one, other, text)
        table, same = (
            study.values(["f"], start=-3, stop=3, step=Fraction(1, 3))
            for study in (solved, written)
        )
        for row in range(19):
            self.assertEqual(same.text("f", row, 14), table.text("f", row, 14), row)

    def assert_same_findings(self, solved: Study, written: Study) -> None:
        for search in ("zeros", "extrema", "breaks"):
            found, same = (getattr(study, search)("f", -5, 5) for study in (solved, written))
            self.assertEqual(len(same), len(found), (search, same.note, found.note))
            for one, other in zip(found, same, strict=True):
                self.assertAlmostEqual(other.x, one.x, 9)
                self.assertEqual(other.kind, one.kind)
            if same.complete and search != "breaks":
                self.assertTrue(all(item.proved for item in found), search)

    def assert_same_pictures(self, solved: Study, written: Study) -> None:
        rows = []
        for study in (solved, written):
            scene = study.scene(WINDOW).to_dict()
            rows.append(next(row for row in scene["rows"] if row["name"] == "f"))
        one, other = (row["curve"] for row in rows)
        self.assertEqual(len(other["pieces"]), len(one["pieces"]))
        for a, b in zip(one["pieces"], other["pieces"], strict=True):
            self.assertLessEqual(abs(a[0] - b[0]) + abs(a[-1] - b[-1]), 2)

    def test_what_needs_fractions_is_left_to_the_proved_search(self) -> None:
        study = with_solved("cos u = u;", ("0", "1"), "f(x) = x^2 - k")
        function = study.snapshot.query(Curves).function("f")
        self.assertIsNone(fractions_only(function.parameters, frozenset({"u"})))
        found = study.zeros("f")
        self.assertEqual((2, True), (len(found), found.complete))
        self.assertTrue(all(item.proved and item.exact is None for item in found))
        self.assertAlmostEqual(math.sqrt(0.7390851332151607), found[1].x, 14)
        # A circle of that size meets the line where it should.
        circle = Study()
        for line in ("cos u = u;", "ring: x^2 + y^2 = u", "g(x) = x"):
            circle.define(line)
        meeting = circle.intersections("ring", "g")
        self.assertEqual((2, True), (len(meeting), all(item.proved for item in meeting)))
        self.assertAlmostEqual(math.sqrt(0.7390851332151607 / 2), meeting[1].x, 12)


class NumberTest(unittest.TestCase):
    @settings(max_examples=200, deadline=None)
    @given(st.integers(2, 10**9), st.integers(1, 10**6))
    def test_bounds_hold_the_number_and_balls_are_as_fine_as_wanted(
        self, top: int, bottom: int
    ) -> None:
        def at_bits(bits: int) -> Ball:
            with precision(bits):
                return ball.root(
                    ball.divide(ball.from_fraction(top), ball.from_fraction(bottom)), 1, 2
                )

        number = EnclosedNumber(at_bits)
        low, high = float_bounds(number)
        self.assertLessEqual(Fraction(low) ** 2, Fraction(top, bottom))
        self.assertGreaterEqual(Fraction(high) ** 2, Fraction(top, bottom))
        self.assertLessEqual(high - low, 8 * math.ulp(high))
        self.assertLessEqual(low, nearest_float(number))
        self.assertLessEqual(nearest_float(number), high)
        for bits in (60, 200, 900):
            with precision(bits):
                value = ball_of(number).value
                self.assertTrue(value.rel_accuracy_bits() >= bits - 8)
                self.assertTrue((value * value).contains(arb(top) / bottom))
        self.assertEqual(key_of(number), key_of(number))
        self.assertNotEqual(key_of(number), key_of(EnclosedNumber(at_bits)))

    def test_a_program_takes_it_in_every_arithmetic(self) -> None:
        study = Study()
        study.define("a = 1")
        study.define("f(x) = a x^2 + sin(a) - x/a")
        expression = study.snapshot.query(Curves).function("f").expression
        number = EnclosedNumber(lambda bits: _at(bits))
        function = RealFunction("f", "x", expression, {"a": number})
        xs = np.linspace(-3, 3, 101)
        root = math.sqrt(3)
        wanted = root * xs**2 + math.sin(root) - xs / root
        self.assertLess(np.abs(function.sample(xs) - wanted).max(), 1e-14 * 20)
        enclosed = function.enclose(xs, xs)
        self.assertTrue(np.all(enclosed.low <= wanted) and np.all(wanted <= enclosed.high))
        with precision(256):
            proved = function.prove(ball.from_fraction(2)).value
            exact = arb(3).sqrt() * 4 + arb(3).sqrt().sin() - 2 / arb(3).sqrt()
            self.assertTrue(proved.overlaps(exact))
            self.assertGreater(proved.rel_accuracy_bits(), 240)


def _at(bits: int) -> Ball:
    with precision(bits):
        return Ball(arb(3).sqrt())


def _decimal(study: Study, text: str) -> str:
    try:
        result = study.evaluate(text)
        # Zeros at the end are left out where the number is known to be exact.
        text = result.reason.partition(";")[0] or result.decimal(20)
        return text.rstrip("0").rstrip(".") if "." in text and "·" not in text else text
    except MathError as err:
        return type(err).__name__
