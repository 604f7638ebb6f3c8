"""The shapes of numbers: each says the same number, rounded as decimal arithmetic rounds it."""

import random
import re
import unittest
from decimal import ROUND_HALF_EVEN, Context, Decimal
from fractions import Fraction

from axis_path.core import Study
from axis_path.core.evaluate.decimals import shown
from axis_path.core.evaluate.number_forms import NumberShape, in_powers, written_in

ROUNDS = 200
_POWER = re.compile(r"(?P<mantissa>−?[\d.]+)(?:·10\^(?P<exponent>−?\d+))?")


def number(text: str) -> Fraction:
    """Return the number that a decimal of ours says."""
    match = _POWER.fullmatch(text)
    assert match is not None, text
    exponent = int((match["exponent"] or "0").replace("−", "-"))
    return Fraction(match["mantissa"].replace("−", "-")) * Fraction(10) ** exponent


def rounded(value: Fraction, digits: int) -> Fraction:
    """Return a fraction rounded to so many significant digits by Python's decimal arithmetic."""
    context = Context(prec=digits, rounding=ROUND_HALF_EVEN, Emax=10**6, Emin=-(10**6))
    return Fraction(context.divide(Decimal(value.numerator), Decimal(value.denominator)))


class ShapesTest(unittest.TestCase):
    def setUp(self) -> None:
        self.drawn = random.Random(99)  # noqa: S311 - numbers, no secrets
        self.study = Study()

    def fraction(self) -> Fraction:
        top = self.drawn.randint(
            -(10 ** self.drawn.randint(1, 12)), 10 ** self.drawn.randint(1, 12)
        )
        bottom = 10 ** self.drawn.randint(0, 9) if self.drawn.random() < 0.4 else None
        return Fraction(top, bottom or self.drawn.randint(1, 10 ** self.drawn.randint(1, 9)))

    def test_decimals_are_rounded_right_and_keep_their_zeros(self) -> None:
        for _ in range(ROUNDS):
            value, digits = self.fraction(), self.drawn.randint(1, 25)
            text = shown(value, digits)
            with self.subTest(value=value, digits=digits):
                whole = value.denominator == 1 and digits >= 10 and abs(value) < 10**15
                if whole:
                    self.assertEqual(str(value).replace("-", "−"), text)
                    continue
                self.assertEqual(rounded(value, digits), number(text))
                if number(text) == value:
                    self.assertFalse("." in text.split("·")[0] and text.split("·")[0].endswith("0"))
                elif "." in text and "·" not in text:
                    figures = text.lstrip("−0.").replace(".", "")
                    self.assertEqual(digits, len(figures))

    def test_each_shape_says_the_same_number(self) -> None:
        for _ in range(ROUNDS // 4):
            value = self.fraction()
            result = self.study.evaluate(f"({value.numerator})/{value.denominator}")
            digits = self.drawn.randint(6, 14)
            shapes = {shape: written_in(result, shape, digits) for shape in NumberShape}
            with self.subTest(value=value, digits=digits):
                self.assertEqual(value, Fraction(shapes[NumberShape.EXACT]))
                decimal = number(shapes[NumberShape.DECIMAL])
                for shape in (NumberShape.SCIENTIFIC, NumberShape.ENGINEERING):
                    self.assertEqual(decimal, number(shapes[shape]))
                percent = shapes[NumberShape.PERCENT].removesuffix(" %")
                self.assertLessEqual(
                    abs(number(percent) / 100 - value), abs(value) * Fraction(1, 10 ** (digits - 1))
                )
                self.check_mixed(value, shapes[NumberShape.MIXED])

    def check_mixed(self, value: Fraction, mixed: str) -> None:
        if value.denominator == 1 or abs(value) < 1:
            self.assertEqual("", mixed)
            return
        sign = -1 if mixed.startswith("−") else 1
        whole, rest = mixed.removeprefix("−").split(" ")
        self.assertEqual(value, sign * (int(whole) + Fraction(rest)))
        self.assertLess(Fraction(rest), 1)

    def test_mantissas_lie_where_their_notation_has_them(self) -> None:
        for exponent in range(-30, 31):
            for figure in ("1", "9.99", "−2.5", "123"):
                text = shown(Fraction(figure.replace("−", "-")) * Fraction(10) ** exponent, 8)
                for step, most in ((1, 10), (3, 1000)):
                    made = in_powers(text, step=step)
                    match = _POWER.fullmatch(made)
                    assert match is not None
                    with self.subTest(text, step=step):
                        self.assertTrue(
                            1 <= abs(Fraction(match["mantissa"].replace("−", "-"))) < most
                        )
                        power = int((match["exponent"] or "0").replace("−", "-"))
                        self.assertEqual(0, power % step)
                        self.assertEqual(number(text), number(made))
        self.assertEqual(("0", ""), (in_powers("0"), in_powers("")))

    def test_shapes_of_what_is_no_fraction(self) -> None:
        for text, shape, expected in (
            ("sqrt(2)", NumberShape.EXACT, "√2"),
            ("sqrt(2)", NumberShape.MIXED, ""),
            ("sqrt(2)", NumberShape.PERCENT, "141.4214 %"),
            ("pi 10^7", NumberShape.SCIENTIFIC, "3.141593·10^7"),
            ("pi 10^7", NumberShape.ENGINEERING, "31.41593·10^6"),
            ("-1/8", NumberShape.PERCENT, "−12.5 %"),
            ("[1/2, 7/3]", NumberShape.MIXED, "[1/2, 2 1/3]"),
            ("[1/2, 2]", NumberShape.PERCENT, "[50 %, 200 %]"),
            ("[[1500, 1/4]]", NumberShape.SCIENTIFIC, "[[1.5·10^3, 2.5·10^−1]]"),
            ("1 < 2", NumberShape.DECIMAL, "true"),
            ("1 < 2", NumberShape.EXACT, ""),
            ("1/0", NumberShape.SCIENTIFIC, ""),
            ("1 + i", NumberShape.PERCENT, ""),
        ):
            with self.subTest(text, shape=shape):
                self.assertEqual(expected, written_in(self.study.evaluate(text), shape, 7))


if __name__ == "__main__":
    unittest.main()
