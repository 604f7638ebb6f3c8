"""Complex functions of the language against mpmath: principal values, on and beside the cuts."""

import itertools
import unittest
from collections.abc import Callable
from fractions import Fraction
from typing import Any

import mpmath

from axis_path.core import MathError, Study

DIGITS = 25
#: Values on the axes, on the cuts, beside them, and anywhere, by their parts.
VALUES: tuple[tuple[str, Fraction | int, Fraction | int], ...] = (
    ("1 + 0i", 1, 0), ("-1 + 0i", -1, 0), ("i", 0, 1), ("-i", 0, -1), ("2 + 0i", 2, 0),
    ("-2 + 0i", -2, 0), ("2i", 0, 2), ("-2i", 0, -2), ("1/2 + 0i", Fraction(1, 2), 0),
    ("-1/2 + 0i", Fraction(-1, 2), 0), ("i/2", 0, Fraction(1, 2)), ("3 + 4i", 3, 4),
    ("-3 + 4i", -3, 4), ("-3 - 4i", -3, -4), ("1/3 - 2i", Fraction(1, 3), -2),
    ("-2 + i/1000", -2, Fraction(1, 1000)), ("-2 - i/1000", -2, Fraction(-1, 1000)),
    ("5/2 + i/10^6", Fraction(5, 2), Fraction(1, 10**6)),
)  # fmt: skip
FUNCTIONS: tuple[tuple[str, Callable[[Any], Any]], ...] = (
    ("sqrt({})", mpmath.sqrt),
    ("ln({})", mpmath.log),
    ("exp({})", mpmath.exp),
    ("sin({})", mpmath.sin),
    ("cos({})", mpmath.cos),
    ("tan({})", mpmath.tan),
    ("asin({})", mpmath.asin),
    ("acos({})", mpmath.acos),
    ("atan({})", mpmath.atan),
    ("sinh({})", mpmath.sinh),
    ("cosh({})", mpmath.cosh),
    ("tanh({})", mpmath.tanh),
    ("asinh({})", mpmath.asinh),
    ("acosh({})", mpmath.acosh),
    ("atanh({})", mpmath.atanh),
    ("|{}|", abs),
    ("arg({})", mpmath.arg),
    ("conj({})", mpmath.conj),
    ("re({})", mpmath.re),
    ("im({})", mpmath.im),
    ("({})^2", lambda z: z**2),
    ("({})^-3", lambda z: z**-3),
    ("({})^i", lambda z: z ** mpmath.j),
    ("2^({})", lambda z: mpmath.mpf(2) ** z),
    ("1/({})", lambda z: 1 / z),
    ("gamma({})", mpmath.gamma),
)  # fmt: skip
#: Where a function has no value.
POLES = {
    "atan({})": ("i", "-i"),
    "atanh({})": ("1 + 0i", "-1 + 0i"),
    "ln({})": ("0i",),
    "gamma({})": ("-1 + 0i", "-2 + 0i"),
}


def real(value: Fraction | int) -> Any:
    """Return a fraction as a number of mpmath."""
    return mpmath.mpf(Fraction(value).numerator) / Fraction(value).denominator


class PrincipalValuesTest(unittest.TestCase):
    def setUp(self) -> None:
        self.enterContext(mpmath.workdps(60))
        self.study = Study()

    def found(self, text: str) -> Any:
        result = self.study.evaluate(text)
        if result.reason:
            return None
        parts = result.parts or (result,)
        numbers = [
            mpmath.mpf(part.decimal(DIGITS).replace("−", "-").replace("·10^", "e"))
            for part in parts
        ]
        return mpmath.mpc(*numbers)

    def test_every_function_at_every_value(self) -> None:
        for (form, function), (value, re, im) in itertools.product(FUNCTIONS, VALUES):
            if value in POLES.get(form, ()):
                continue
            text = form.format(value)
            expected = mpmath.mpc(function(mpmath.mpc(real(re), real(im))))
            with self.subTest(text):
                found = self.found(text)
                self.assertIsNotNone(found)
                size = max(abs(expected), mpmath.mpf(1) / 10**6)
                self.assertLess(abs(found - expected) / size, mpmath.mpf(10) ** (2 - DIGITS))

    def test_poles_have_no_value(self) -> None:
        for form, values in (*POLES.items(), ("1/{}", ("(0i)",))):
            for value in values:
                text = form.format(value)
                with self.subTest(text):
                    self.assertTrue(self.study.evaluate(text).reason)

    def test_sides_of_a_cut_are_told_apart(self) -> None:
        for form, function in (("sqrt({})", mpmath.sqrt), ("ln({})", mpmath.log)):
            above, below = (form.format(f"-2 {sign} i/10^40") for sign in "+-")
            one, other = (self.found(text) for text in (above, below))
            self.assertAlmostEqual(function(mpmath.mpc(-2, 0)), one, 12)
            self.assertAlmostEqual(mpmath.conj(one), other, 12)

    def test_functions_of_real_numbers_refuse_i_in_words(self) -> None:
        for text in (
            "max(1, i)", "min(2, i, 3)", "max([1, i])", "sign(i)", "floor(1 + i)", "round(1 + i)",
            "i < 2", "sort([1, i])", "gcd(i, 2)", "median([i])",
        ):  # fmt: skip
            with self.subTest(text):
                try:
                    words = self.study.evaluate(text).reason
                except MathError as err:
                    words = err.message
                self.assertGreater(len(words.split()), 2)


if __name__ == "__main__":
    unittest.main()
