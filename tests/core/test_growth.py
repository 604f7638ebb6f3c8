"""How functions grow far out, and when numbers made of roots are equal."""

import unittest

import mpmath

from axis_path.core import Study
from axis_path.core.arithmetic import precision
from axis_path.core.locate.limits.growth import growth

FAR = 1e3
#: Functions with the sign that they have for all x beyond 1,000; 0 where they have none.
SIGNS = (
    ("4^x - 6*2^x + 8", lambda x: 4**x - 6 * 2**x + 8, 1),
    ("3^(x - 1) - 9^x", lambda x: mpmath.mpf(3) ** (x - 1) - mpmath.mpf(9) ** x, -1),
    ("sqrt(3x + 1) - sqrt(x - 1) - 2", lambda x: mpmath.sqrt(3 * x + 1) - mpmath.sqrt(x - 1) - 2, 1),
    ("2ln(x) - ln(2x + 3)", lambda x: 2 * mpmath.log(x) - mpmath.log(2 * x + 3), 1),
    ("x^2 + x sin(x)", lambda x: x * x + x * mpmath.sin(x), 1),
    ("e^(-x) - 1/x^3", lambda x: mpmath.exp(-x) - x**-3, -1),
    ("atan(x) - 1", lambda x: mpmath.atan(x) - 1, 1),
    ("x^50/e^x - 1", lambda x: x**50 / mpmath.exp(x) - 1, -1),
    ("ln(x)^5 - sqrt(x)", lambda x: mpmath.log(x) ** 5 - mpmath.sqrt(x), 0),
    ("sin(x) + 3", lambda x: mpmath.sin(x) + 3, 1),
    ("x sin(x)", lambda x: x * mpmath.sin(x), 0),
    ("sqrt(x^2 + 1) - x", lambda x: mpmath.sqrt(x * x + 1) - x, 0),
    ("e^(x^2) - e^x x^9", lambda x: mpmath.exp(x * x) - mpmath.exp(x) * x**9, 1),
    ("1000 - ln(x)", lambda x: 1000 - mpmath.log(x), 0),
)  # fmt: skip


class GrowthTest(unittest.TestCase):
    def test_signs_far_out(self) -> None:
        for text, value, expected in SIGNS:
            study = Study()
            study.define(f"f(x) = {text}")
            with self.subTest(text), precision(128):
                found = growth(study.function("f"), FAR)
                sign = None if found is None else found.sign
                self.assertEqual(expected or None, sign)
                if found is None or sign is None:
                    continue
                for x in (1001, 2345, 10**5):
                    with mpmath.workdps(60):
                        at = value(mpmath.mpf(x))  # type: ignore[no-untyped-call]
                        self.assertEqual(sign, mpmath.sign(at))

    def test_an_unbounded_search_reaches_every_zero(self) -> None:
        study = Study()
        for text, abscissae in (
            ("log(x) = 3", [1000]), ("cbrt(x) = 20", [8000]), ("e^x = 0", []), ("e^(x/1000) = 10", [2302.585092994]),
            ("4^x - 6*2^x + 8 = 0", [1, 2]), ("2ln(x) = ln(2x + 3)", [3]), ("1/(x - 2000) = 1", [2001]),
        ):  # fmt: skip
            with self.subTest(text):
                found = study.solve(text)
                self.assertTrue(found.complete, found.note)
                self.assertEqual(len(abscissae), len(found))
                for abscissa, item in zip(abscissae, found, strict=True):
                    self.assertAlmostEqual(abscissa, item.x, 8)
        self.assertFalse(study.solve("x sin(x) = 1").complete)
        self.assertFalse(study.solve_inequality("x sin(x) > 1").complete)

    def test_inequalities_that_repeat_or_hold_without_end(self) -> None:
        study = Study()
        for text, ends in (
            ("cbrt(x) > 20", [("8000", "∞")]), ("sin(x) <= 1", [("−∞", "∞")]), ("cos(x) > 0", [("−π/2", "π/2")]),
            ("sin(x) < 1", [("−3π/2", "π/2")]), ("tan(x) > 1", [("π/4", "π/2")]), ("sin(x) > 2", []),
        ):  # fmt: skip
            with self.subTest(text):
                found = study.solve_inequality(text)
                self.assertTrue(found.complete, found.note)
                got = [
                    (s.low.exact or s.low.text, s.high.exact or s.high.text) for s in found.items
                ]
                self.assertEqual(ends, got)


class SeparationTest(unittest.TestCase):
    def test_a_left_out_value_is_the_zero_only_if_it_is_equal(self) -> None:
        for text, low, high, count in (
            ("x - sqrt(5 + 2sqrt(6)) for x != sqrt(2) + sqrt(3)", 0, 5, 0),
            ("x^2 - 3 for x != sqrt(3)", 0, 5, 0),
            ("x - cbrt(2 + sqrt(5)) - cbrt(2 - sqrt(5)) for x != 1", 0, 5, 0),
            ("x - 2cos(pi/7) for x != 9/5", 0, 5, 1),
        ):
            with self.subTest(text):
                study = Study()
                study.define(f"f(x) = {text}")
                found = study.zeros("f", low, high)
                self.assertTrue(found.complete, found.note)
                self.assertEqual(count, len(found))
        study = Study()
        # The two differ by 10^-31: the zero may not be denied.
        study.define("f(x) = x - sqrt(10^20 + 1) for x != 10^10 + 1/(2*10^10)")
        found = study.zeros("f", 0, 10**11)
        self.assertFalse(found.complete and not len(found))
