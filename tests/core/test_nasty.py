"""Functions that textbooks warn of, run through the facade: nothing missed, nothing invented.

The zeros are from Alefeld, Potra, Shi (1995), Moré, Garbow, Hillstrom (1981) in one variable, the
tables of Abramowitz and Stegun, and by hand.
"""

import math
import random
import unittest
from fractions import Fraction
from typing import Any

import numpy as np

from axis_path.core import Study

PI = math.pi
#: A function, an interval, its zeros; all are proved and the search is complete.
NASTY: Any = (
    # Steep, flat, far, and next to one another.
    ("x^9", -1, 1, [0]),
    ("x^19 - 10^-19", -1, 1, [0.1]),
    ("(x - 1)^7 (x - 1.001)", 0, 2, [1, 1.001]),
    ("(x - 1)(x - 1 - 10^-12)", 0, 2, [1, 1 + 1e-12]),
    ("exp(x) - 10^300", 0, 1000, [300 * math.log(10)]),
    ("x^2 - 10^-300", -1, 1, [-1e-150, 1e-150]),
    ("10^300 (x - 1/3)", 0, 1, [1 / 3]),
    ("x + 10^15 - 10^15", -1, 1, [0]),
    ("exp(-100 x^2) - 1/2", -1, 1, [-math.sqrt(math.log(2)) / 10, math.sqrt(math.log(2)) / 10]),
    # Known numbers.
    ("x - cos x", 0, 1, [0.7390851332151607]),
    ("x exp(x) - 1", 0, 1, [0.5671432904097839]),
    ("x^x - 2", 0.5, 2, [1.5596104694623694]),
    ("ln(x) - 1/x", 0.5, 4, [1.7632228343518968]),
    ("tan(x) - x", 0.1, 15, [4.493409457909064, 7.725251836937707, 10.904121659428899,
                             14.066193912831473]),
    ("cos(x) cosh(x) + 1", 0, 9, [1.8751040687119611, 4.694091132974175, 7.854757438237613]),
    ("x tan(x) - 1", 0, 7, [0.8603335890193797, 3.425618459481728, 6.437298179171947]),
    ("exp(x) - 3 x", 0, 3, [0.6190612867359452, 1.5121345516578424]),
    ("x^3 - 2x - 5", 2, 3, [2.0945514815423265]),
    ("gamma(x) - 2", 0.2, 4, [0.4428773964847274, 3]),
    ("erf(x) - 1/2", -2, 2, [0.4769362762044699]),
    # Kinks, steps, pieces, gaps.
    ("| |x| - 1 | - 1/2", -3, 3, [-1.5, -0.5, 0.5, 1.5]),
    ("max(x, 2 - x) - 3/2", -3, 3, [0.5, 1.5]),
    ("floor(x) - x + 1/2", 0, 3, [0.5, 1.5, 2.5]),
    ("mod(x, 1) - 1/4", 0, 3, [0.25, 1.25, 2.25]),
    ("sign(x) (x^2 - 1)", -2, 2, [-1, 0, 1]),
    ("x^2 - 1 for x < 0; x - 2 otherwise", -3, 3, [-1, 2]),
    ("x + 1 for x < 0; 1 - x for x < 3; x - 5 otherwise", -3, 9, [-1, 1, 5]),
    ("sqrt(1 - x^2) - x", -1, 1, [math.sqrt(0.5)]),
    ("asin(x) - acos(x)", -1, 1, [math.sqrt(0.5)]),
    ("ln(x - 1)/(x - 3)", 0, 9, [2]),
    ("(x^2 - 4)/(x - 2)", -9, 9, [-2]),
    ("(x - 2)/(x^2 - 4)", -9, 9, []),
    ("1/x - 1/x", -1, 1, None),
    ("1/(x^2 + 1)", -99, 99, []),
    ("1/x", -1, 1, []),
    ("sin(x)/x", -7, 7, [-2 * PI, -PI, PI, 2 * PI]),
    ("exp(-1/x^2)", -1, 1, []),
    ("x^2 + 10^-30", -1, 1, []),
    ("(x - 1/3)^2 + 10^-12", 0, 1, []),
    # Touching the axis.
    ("1 - sin(x)", 0, 9, [PI / 2, 5 * PI / 2]),
    ("sin(x)^2", -4, 4, [-PI, 0, PI]),
    ("x^4 - 2x^2 + 1", -2, 2, [-1, 1]),
    ("exp(x) - 1 - x - x^2/2 - x^3/6", -1, 1, [0]),
    ("(x^2 - 2)^2 (x^2 - 3)", 0, 2, [math.sqrt(2), math.sqrt(3)]),
)  # fmt: skip
#: What may be thought of as a zero, and is none, or cannot be determined; never complete.
DOUBTFUL = (
    ("sin(1/x)", -1, 1),
    ("x sin(1/x)", -1, 1),
    ("cos(exp(10x))", 0, 3),
    ("max(x, 0)", -1, 1),
    ("sqrt(x) - cbrt(x)", 0, 2),
    ("sin(x)^2 + cos(x)^2 - 1", 0, 1),
    ("(2^x)^2 - 2 sqrt(2) 2^x + 2", 0, 1),
)


class NastyTest(unittest.TestCase):
    def zeros(self, text: str, low: float, high: float) -> Any:
        study = Study()
        study.define(f"f(x) = {text}")
        return study.zeros("f", low, high)

    def test_every_zero_to_twelve_digits(self) -> None:
        for text, low, high, expected in NASTY:
            with self.subTest(text):
                found = self.zeros(text, low, high)
                if expected is None:
                    self.assertFalse(found.complete)
                    continue
                self.assertEqual(len(expected), len(found), [item.text for item in found])
                for x, item in zip(expected, found, strict=True):
                    self.assertAlmostEqual(x, item.x, delta=2e-13 * max(abs(x), 1e-290))
                    self.assertTrue(item.proved, item)
                    self.assertTrue(item.bracket[0] <= item.x <= item.bracket[1])
                self.assertTrue(found.complete, found.note)

    def test_undecided_searches_are_never_complete(self) -> None:
        for text, low, high in DOUBTFUL:
            with self.subTest(text):
                found = self.zeros(text, low, high)
                self.assertFalse(found.complete)
                self.assertTrue(found.note)

    def test_random_functions_against_a_dense_search(self) -> None:
        """Whatever changes its sign between dense samples is found, and nothing else is invented."""
        draw = random.Random(20)  # noqa: S311 - drawn functions, no secrets
        atoms = ("x", "(x - {})", "sin({}x)", "cos(x/{})", "exp(x/{})", "|x - {}|", "(x^2 - {})",
                 "sqrt(x + 9)", "ln(x^2 + {})", "atan({}x)", "max(x, {})", "1/(x^2 + {})")  # fmt: skip
        xs = np.linspace(-4, 4, 40_001)
        for _ in range(60):
            picked = [draw.choice(atoms).format(draw.randint(1, 5)) for _ in range(4)]
            text = f"{picked[0]} {picked[1]} {draw.choice('+-')} {picked[2]} {picked[3]}"
            with self.subTest(text):
                study = Study()
                study.define(f"f(x) = {text}")
                found = study.zeros("f", -4, 4)
                ys = study.function("f").sample(xs)
                abscissae = xs[:-1][ys[1:] * ys[:-1] < 0]
                for abscissa in abscissae:
                    self.assertTrue(
                        any(abscissa - 1e-9 <= item.x <= abscissa + 2.1e-4 for item in found),
                        abscissa,
                    )
                for item in found:
                    near = study.function("f").sample(item.x + np.array([-1e-7, 0, 1e-7]))
                    self.assertLess(np.min(np.abs(near)), 1e-5 * (1 + np.max(np.abs(near))))
                    if item.proved and item.multiplicity == 1:
                        self.assertLess(near[0] * near[2], 0)

    def test_an_exact_form_is_the_zero_itself(self) -> None:
        draw = random.Random(8)  # noqa: S311 - drawn functions, no secrets
        for _ in range(40):
            p, q = draw.randint(-30, 30), draw.randint(1, 40)
            text = f"({q}x - {p}) exp(x) cosh(x)" if p >= 0 else f"({q}x + {-p}) exp(x) cosh(x)"
            (item,) = self.zeros(text, -31, 31)
            self.assertEqual(Fraction(p, q), Fraction((item.exact or "").replace("−", "-")))
            turns = Fraction(draw.randint(1, 23), 24)
            (item,) = self.zeros(f"x - {turns.numerator} pi/{turns.denominator}", 0, 4)
            self.assertIn("π", item.exact)
            self.assertAlmostEqual(float(turns) * PI, item.x, 14)

    def test_the_interval_and_the_domain_bound_the_search(self) -> None:
        study = Study()
        study.define("f(x) = sin x for 0 < x <= 2pi")
        self.assertEqual(["π", "2π"], [item.exact for item in study.zeros("f", -20, 20)])
        self.assertEqual(["π"], [item.exact for item in study.zeros("f", 1, 4)])
        outside = study.zeros("f", -9, -1)
        self.assertEqual((0, True), (len(outside), outside.complete))
        self.assertIn("outside the domain", outside.note)

    def test_degrees_are_searched_as_degrees(self) -> None:
        study = Study(angle_unit="degrees")
        study.define("f(x) = sin x - 1/2")
        study.define("g(x) = cos x")
        self.assertEqual(["30", "150", "390"], [e.exact for e in study.zeros("f", 0, 400)])
        self.assertEqual(["0", "180", "360"], [e.exact for e in study.extrema("g", 0, 360)])
        meet = study.intersections("f", "g", 0, 360)
        self.assertTrue(meet.complete)
        for item in meet:
            angle = math.radians(item.x)
            self.assertAlmostEqual(math.sin(angle) - 0.5, math.cos(angle), 12)
