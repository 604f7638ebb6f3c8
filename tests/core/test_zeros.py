"""Every zero, with proof: a zoo of functions whose zeros are known."""

import math
import unittest
from fractions import Fraction
from typing import Any

import numpy as np

from axis_path.core import Study
from axis_path.core.errors import DomainError, MathError
from axis_path.core.evaluate import RealFunction
from axis_path.core.locate import find_zeros, interval
from axis_path.core.locate.algebra.exact import simplest_between
from tests.core.functions import make_function

PI = math.pi
#: On [-10, 10]: the function, its zeros as they are written, all proved and complete.
PROVED: Any = (
    ("x", ["0"]),
    ("2x - 3", ["3/2"]),
    ("x^2 - 2", ["−√2", "√2"]),
    ("x^2 + 1", []),
    ("x^3 - x", ["−1", "0", "1"]),
    ("x^2 - 2x + 1", ["1"]),
    ("(x - 1)^2 (x + 3)", ["−3", "1"]),
    ("x^4 - 4x^2 + 4", ["−√2", "√2"]),
    ("(x-1)(x-2)(x-3)(x-4)(x-5)(x-6)", ["1", "2", "3", "4", "5", "6"]),
    ("x^2 - 10^-12", ["−1/1000000", "1/1000000"]),
    ("x^5 - x - 1", ["1.167303978"]),
    ("cos(x) - x", ["0.7390851332"]),
    ("x e^x - 1", ["0.5671432904"]),
    ("x^3 - 2x - 5", ["2.094551482"]),
    ("sin x", ["−3π", "−2π", "−π", "0", "π", "2π", "3π"]),
    ("sin(x) - 1", ["−3π/2", "π/2", "5π/2"]),
    ("cos(x) + 1", ["−3π", "−π", "π", "3π"]),
    ("tan x", ["−3π", "−2π", "−π", "0", "π", "2π", "3π"]),
    ("x sin x", ["−3π", "−2π", "−π", "0", "π", "2π", "3π"]),
    ("sin(x)/x", ["−3π", "−2π", "−π", "π", "2π", "3π"]),
    ("1/x", []),
    ("1/x - 2", ["1/2"]),
    ("1/x + 1/(x - 1)", ["1/2"]),
    ("(x^2 - 1)/(x - 1)", ["−1"]),
    ("x^2/x", []),
    ("e^x", []),
    ("2^x - 8", ["3"]),
    ("ln x", ["1"]),
    ("ln(x) + 2", ["0.1353352832"]),
    ("sqrt x", ["0"]),
    ("sqrt(x + 1) - 2", ["3"]),
    ("sqrt(x) (x - 2)", ["0", "2"]),
    ("sqrt(x) (x + 2)", ["0"]),
    ("|x| - 1", ["−1", "1"]),
    ("|x^2 - 4|", ["−2", "2"]),
    ("x^(1/3) - 2", ["8"]),
    ("sign(x)", ["0"]),
    ("asin(x/4)", ["0"]),
    ("cosh(x) - 2", ["−1.316957897", "1.316957897"]),
    ("tanh(x)", ["0"]),
    ("cot x", ["−5π/2", "−3π/2", "−π/2", "π/2", "3π/2", "5π/2"]),
    ("sec(x)", []),
    ("asinh(x - 1)", ["1"]),
    ("atanh(x/20)", ["0"]),
    ("acosh(x) - 1", ["1.543080635"]),
    ("cbrt(x) - 2", ["8"]),
    ("log(x, 2) - 3", ["8.000000000"]),
    ("erf(x - 2)", ["2"]),
    ("csch(x)", []),
    ("gamma(x + 11) - 1", ["−10", "−9"]),
    ("integral(t - 2, t, 0, x)", ["0", "4.000000000"]),
    ("sum(x^k, k, 0, 3)", ["−1"]),
    ("x^2/4 for x < 0; 2 - x for 0 <= x < 3; 1 otherwise", ["2"]),
    ("x + 1 for x <= -1; x^2 - 1 for -1 < x < 1; sin x otherwise", ["−1", "π", "2π", "3π"]),
    ("sin x for x < pi; x - pi otherwise", ["−3π", "−2π", "−π", "0", "π"]),
    ("sin x for x < pi; 2 otherwise", ["−3π", "−2π", "−π", "0"]),
)
#: Functions of which not everything can be proved: at least these zeros, and it says so.
NOT_COMPLETE: Any = (
    ("(2^x)^2 - 2 sqrt(2) 2^x + 2", ["0.5000000000"], "could not be distinguished from zero"),
    ("sin(1/x)", ["−0.3183098862", "0.3183098862"], "crowd together at x = 0"),
    ("floor x", [], "zero all along 0 ≤ x < 1"),
    ("max(x, 1) - 1", [], "zero all along −10 ≤ x ≤ 1"),
    ("x - x", [], "zero all along −10 ≤ x ≤ 10"),
)


def in_pieces(text: str) -> RealFunction:
    study = Study()
    return study.function(study.define(f"f(x) = {text}").name)  # type: ignore[arg-type]


class ZerosTest(unittest.TestCase):
    def search(self, text: str, low: str = "-10", high: str = "10") -> Any:
        function = make_function(text) if ";" not in text else in_pieces(text)
        return find_zeros(function, interval(Fraction(low), Fraction(high)))

    def test_every_zero_is_found_and_proved(self) -> None:
        for text, expected in PROVED:
            with self.subTest(text):
                found = self.search(text)

                self.assertEqual(expected, [zero.exact or zero.text for zero in found])
                self.assertTrue(found.complete, found.note)
                self.assertEqual("", found.note)
                self.assertTrue(all(zero.proved for zero in found))

    def test_bracket_contains_the_zero_and_a_sign_change(self) -> None:
        for text in ("x^2 - 2", "cos(x) - x", "x^5 - x - 1", "sin x", "ln(x) + 2"):
            function = make_function(text)
            for zero in self.search(text):
                with self.subTest(text, x=zero.x):
                    low, high = zero.bracket
                    self.assertTrue(low <= zero.x <= high)
                    self.assertLess(high - low, 1e-14 * max(1, abs(zero.x)))
                    one, other = function.sample_unrestricted(
                        zero.x + 1e-7 * (1 + abs(zero.x)) * np.array([-1, 1])
                    )
                    self.assertLess(one * other, 0)

    def test_unproved_zeros_are_listed_as_such(self) -> None:
        for text, expected, words in NOT_COMPLETE:
            with self.subTest(text):
                found = self.search(text)
                written = [zero.exact or zero.text for zero in found]
                notes = found.note + " ".join(zero.note for zero in found)

                self.assertFalse(found.complete)
                self.assertLessEqual(set(expected), set(written))
                self.assertIn(words, notes)

    def test_infinitely_many_zeros_end_with_a_bounded_search(self) -> None:
        found = self.search("sin(1/x)", "-1", "1")
        self.assertFalse(found.complete)
        for k in range(1, 40):
            self.assertTrue(any(abs(zero.x - 1 / (k * PI)) < 1e-12 for zero in found), k)

    def test_known_hard_cases(self) -> None:
        table = (
            ("x^3 - 3*10^-5 x^2 + 2*10^-10 x", "-1", "1", ["0", "1/100000", "1/50000"]),
            ("x - 10^-200", "-1", "1", ["1.000000000·10^−200"]),
            ("x^2 - 10^12", "-10000000", "10000000", ["−1000000", "1000000"]),
            ("10^200 (x - 1/3)", "-10", "10", ["1/3"]),
            ("x^21 - 1", "-10", "10", ["1"]),
        )
        for text, low, high, expected in table:
            with self.subTest(text):
                found = self.search(text, low, high)
                self.assertEqual(expected, [zero.exact or zero.text for zero in found])
                self.assertTrue(found.complete, found.note)

    def test_all_wilkinson_zeros_are_found(self) -> None:
        """Wilkinson's polynomial of degree 20, multiplied out: famous for losing its zeros."""
        coefficients = [1]
        for root in range(1, 21):
            shifted = [*coefficients, 0]
            for k, value in enumerate(coefficients):
                shifted[k + 1] -= root * value
            coefficients = shifted
        text = " + ".join(f"({c}) x^{20 - k}" for k, c in enumerate(coefficients))
        found = self.search(text, "0", "30")

        self.assertEqual([str(k) for k in range(1, 21)], [zero.exact for zero in found])
        self.assertTrue(found.complete)

    def test_the_simplest_fraction_is_found(self) -> None:
        table = (
            ("31/10", "32/10", "16/5"),
            ("-7/2", "-7/2", "-7/2"),
            ("-1", "1", "0"),
            ("333/1000", "334/1000", "1/3"),
            ("1/3", "1/2", "1/2"),
        )
        for low, high, expected in table:
            with self.subTest(low=low, high=high):
                found = simplest_between(Fraction(low), Fraction(high), 1000)
                self.assertEqual(Fraction(expected), found)
        self.assertIsNone(simplest_between(Fraction("0.12345"), Fraction("0.12346"), 10))


class ZerosOfStudyTest(unittest.TestCase):
    def test_closed_ends_count_as_zeros(self) -> None:
        table: Any = (
            ("f(x) = sin x for 0 <= x <= 2pi", None, None, ["0", "π", "2π"]),
            ("f(x) = sin x for 0 < x < 2pi", None, None, ["π"]),
            ("f(x) = sin x for 0 <= x < 2pi", None, None, ["0", "π"]),
            ("f(x) = sin x", "0", "pi", ["0", "π"]),
            ("f(x) = sin x", "-pi/2", "3pi/2", ["0", "π"]),
            ("f(x) = x^2 - 4 for x != 2", -5, 5, ["−2"]),
            ("f(x) = x^2 - 4 for x > 0", -5, 5, ["2"]),
            ("f(x) = x - 3 for 0 <= x <= 1", None, None, []),
            ("f(x) = x for 5 <= x <= 6", -1, 1, []),
        )
        for text, low, high, expected in table:
            with self.subTest(text, low=low, high=high):
                study = Study()
                study.define(text)
                found = study.zeros("f", low, high)

                self.assertEqual(expected, [zero.exact or zero.text for zero in found])
                self.assertTrue(found.complete, found.note)

    def test_zeros_in_degrees_are_degrees(self) -> None:
        study = Study("degrees")
        study.define("f(x) = sin x for 0 <= x <= 360")
        self.assertEqual(["0", "180", "360"], [zero.exact for zero in study.zeros("f")])

    def test_zeros_of_a_function_inside_another_respect_its_domain(self) -> None:
        study = Study()
        study.define("g(x) = x^2 - 1 for x >= 0")
        study.define("f(x) = g(x) (x + 5)")
        self.assertEqual(["1"], [zero.exact for zero in study.zeros("f", -10, 10)])

    def test_zeros_follow_the_slider(self) -> None:
        study = Study()
        study.define("f(x) = x^2 - a")
        study.set("a", 4)
        self.assertEqual(["−2", "2"], [zero.exact for zero in study.zeros("f")])
        study.set("a", "0.09")
        self.assertEqual(["−3/10", "3/10"], [zero.exact for zero in study.zeros("f")])
        study.set("a", -1)
        self.assertEqual(0, len(study.zeros("f")))
        self.assertTrue(study.zeros("f").complete)

    def test_searches_that_cannot_be_are_refused_in_words(self) -> None:
        study = Study()
        study.define("f(x) = x")
        for low, high, error in ((3, 1, DomainError), ("1/0", 3, DomainError), ("(", 1, MathError)):
            with self.subTest(low=low), self.assertRaises(error):
                study.zeros("f", low, high)
        with self.assertRaises(MathError) as caught:
            study.zeros("ff")
        self.assertIn("not defined", caught.exception.message)
