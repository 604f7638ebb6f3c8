"""Limits: by rules, by de l'Hôpital, by following; and exact zeros of algebraic numbers."""

import math
import unittest
from fractions import Fraction
from typing import Any

from axis_path.core.arithmetic import ball, precision
from axis_path.core.evaluate import Branches
from axis_path.core.locate.algebra.algebraic import vanishes
from axis_path.core.locate.limits.approach import limit_at
from axis_path.core.locate.limits.limit_rules import Approach
from axis_path.core.locate.limits.nearing import Approaching
from axis_path.core.locate.search.zeros import SEARCH_BITS
from tests.core.functions import make_function

UP, DOWN = Approach.UP, Approach.DOWN
#: A function, a place, the limits from below and from above (None: there is no function), and
#: whether both follow from rules.
LIMITS = (
    ("sin(x)/x", 0, 1.0, 1.0, True),
    ("(1 - cos(x))/x^2", 0, 0.5, 0.5, True),
    ("(exp(x) - 1 - x)/x^2", 0, 0.5, 0.5, True),
    ("tan(x)/x", 0, 1.0, 1.0, True),
    ("(x^3 - 8)/(x - 2)", 2, 12.0, 12.0, True),
    ("(sqrt(x + 1) - 1)/x", 0, 0.5, 0.5, True),
    ("(sin(x) - x)/x^3", 0, -1 / 6, -1 / 6, True),
    ("1/x", 0, DOWN, UP, True),
    ("1/x^2", 0, UP, UP, True),
    ("1/(x - 2)^3", 2, DOWN, UP, True),
    ("ln(x)", 0, None, DOWN, True),
    ("ln(x^2)", 0, DOWN, DOWN, True),
    ("1/ln(x)", 0, None, 0.0, True),
    ("exp(1/x)", 0, 0.0, UP, True),
    ("exp(-1/x^2)", 0, 0.0, 0.0, True),
    ("atan(1/x)", 0, -math.pi / 2, math.pi / 2, True),
    ("tanh(1/x)", 0, -1.0, 1.0, True),
    ("1/(1 + 2^(1/x))", 0, 1.0, 0.0, True),
    ("x sin(1/x)", 0, 0.0, 0.0, True),
    ("x^2 cos(1/x)", 0, 0.0, 0.0, True),
    ("|x|/x", 0, -1.0, 1.0, True),
    ("floor(x)", 3, 2.0, 3.0, True),
    ("gamma(x)", 0, DOWN, UP, True),
    ("x ln(x)", 0, None, 0.0, True),
    ("x ln(|x|)^3", 0, 0.0, 0.0, True),
    ("x e^(1/x)", 0, 0.0, UP, True),
    ("1/(x ln(x))", 0, None, DOWN, True),
    ("1/(1 - e^(1/x))", 0, 1.0, 0.0, True),
    ("x^x", 0, None, 1.0, True),
    ("(1 + x)^(1/x)", 0, math.e, math.e, True),
    ("cos(x)^(1/x^2)", 0, 1 / math.sqrt(math.e), 1 / math.sqrt(math.e), True),
    # Both come to 0, and 0^0 counts as 1; the limit is another one.
    ("x^(1/ln(x))", 0, None, math.e, True),
    ("(x^2)^(1/ln(x))", 0, None, math.e**2, True),
    ("(e^(-1/x^2))^(x^2)", 0, 1 / math.e, 1 / math.e, False),
)
#: What has no limit, or none that is known; nothing may be claimed of it.
UNKNOWN = (("sin(1/x)", 0), ("cos(1/x)/x", 0), ("1/(x sin(1/x))", 0))


class ApproachTest(unittest.TestCase):
    def limit(self, text: str, abscissa: int, side: int) -> Any:
        function = make_function(text)
        with precision(SEARCH_BITS):
            branches = Branches(function)
            nearby = ball.from_fraction(Fraction(abscissa) + Fraction(side, 7_919))
            branch = branches.branch(branches.function, nearby)
            if not branch.prove(nearby).is_defined:
                return None
            at = ball.from_fraction(abscissa)
            return limit_at(Approaching(branches, branch, at, frozenset(), side, nearby))

    def test_limits_from_both_sides(self) -> None:
        for text, abscissa, low, high, is_proved in LIMITS:
            for expected, side in ((low, -1), (high, 1)):
                with self.subTest(text, side=side):
                    found = self.limit(text, abscissa, side)
                    if expected is None:
                        self.assertIsNone(found)
                        continue
                    if is_proved:
                        self.assertTrue(found.proved)
                    if isinstance(expected, Approach):
                        self.assertIs(expected, found.approach)
                        continue
                    self.assertIs(Approach.VALUE, found.approach)
                    value = found.value.value
                    self.assertAlmostEqual(expected, float(value.mid()), 12)
                    if is_proved:
                        # What is proved holds the true limit, not only a number near it.
                        self.assertLess(abs(float(value.mid()) - expected), 1e-15)

    def test_the_function_comes_near_to_every_finite_limit(self) -> None:
        for text, abscissa, *expected, _ in LIMITS:
            function = make_function(text)
            for value, side in zip(expected, (-1, 1), strict=True):
                if isinstance(value, float):
                    with self.subTest(text, side=side):
                        with precision(900):
                            near = ball.from_fraction(abscissa + Fraction(side, 10**40))
                            found = function.prove(near).value
                        room = 2e-2 if "ln" in text else 1e-12
                        self.assertLess(abs(float(found.mid()) - value), room)

    def test_oscillation_gives_no_limit(self) -> None:
        for text, abscissa in UNKNOWN:
            for side in (-1, 1):
                with self.subTest(text, side=side):
                    found = self.limit(text, abscissa, side)
                    self.assertNotIn(found.approach, (Approach.VALUE, UP, DOWN))
                    self.assertFalse(found.proved and found.value)


class AlgebraicTest(unittest.TestCase):
    def vanishes(self, text: str, turns: str) -> bool:
        function = make_function(text)
        with precision(SEARCH_BITS):
            abscissa = ball.multiply(ball.from_fraction(Fraction(turns)), ball.pi())
            return vanishes(function, function.expression, abscissa)

    def test_sums_of_sines_and_roots_that_are_exactly_zero(self) -> None:
        for text, turns in (
            ("sin x - cos x", "1/4"),
            ("2 sin x - sqrt 3", "1/3"),
            ("4 cos x - sqrt 5 - 1", "1/5"),
            ("4 sin x - sqrt 6 + sqrt 2", "1/12"),
            ("8 sin(x) sin(2x) sin(4x) + sqrt 7", "2/7"),
            ("sin(x)^2 + cos(x)^2 - 1", "3/17"),
            ("8 cos(x)^3 - 6 cos x - 1", "1/9"),
            ("sin(3x) - 3 sin x + 4 sin(x)^3", "5/13"),
        ):
            with self.subTest(text):
                self.assertTrue(self.vanishes(text, turns))

    def test_values_close_to_zero_are_not_zero(self) -> None:
        for text, turns in (
            ("sin x - cos x + 10^-40", "1/4"),
            ("8 cos(x)^3 - 6 cos x - 1", "1/7"),
            ("sin x - 1/2 - 10^-60", "1/6"),
            # No algebraic numbers: nothing may be said.
            ("sin(1) + cos(x) - sin(1)", "1/2"),
            ("exp(x) - exp(x)", "1/4"),
        ):
            with self.subTest(text):
                self.assertFalse(self.vanishes(text, turns))
