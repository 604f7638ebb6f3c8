"""Integrals over jumps, holes and poles, and without end: their value, or that there is none."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from itertools import pairwise
from unittest import TestCase

import mpmath
from mpmath import mp

from axis_path.core import Study
from axis_path.core.errors import MathError

#: Body, ends, and the value in closed form.
CONVERGENT = (
    ("1/x^2", "1", "inf", "1"),
    ("1/sqrt(x)", "0", "1", "2"),
    ("ln(x)", "0", "1", "-1"),
    ("ln(x)/sqrt(x)", "0", "1", "-4"),
    ("sqrt(x) ln(x)", "0", "1", "-mpf(4)/9"),
    ("sin(x)/x", "0", "1", "si(1)"),
    ("sin(x)/x", "-2", "3", "si(2) + si(3)"),
    ("(1 - cos(x))/x^2", "0", "1", "si(1) - 1 + cos(1)"),
    ("(x^2 - 1)/(x - 1)", "0", "2", "4"),
    ("e^(-x^2)", "-inf", "inf", "sqrt(pi)"),
    ("1/(1 + x^2)", "-inf", "inf", "pi"),
    ("1/(x^2 + 2x + 5)", "-inf", "inf", "pi/2"),
    ("1/(1 + x^4)", "0", "inf", "pi/(2*sqrt(2))"),
    ("x/(e^x - 1)", "0", "inf", "pi**2/6"),
    ("e^(-x) sin(x)", "0", "inf", "mpf(1)/2"),
    ("1/(x ln(x)^2)", "2", "inf", "1/log(2)"),
    ("1/(x^2 - 1)", "2", "inf", "log(3)/2"),
    ("1/sqrt(1 - x^2)", "-1", "1", "pi"),
    ("x^(-1/3)", "0", "8", "6"),
    ("1/(x - sqrt(2))^(2/3)", "0", "3", "3*(cbrt(3 - sqrt(2)) + cbrt(sqrt(2)))"),
    ("ln(sin(x))", "0", "pi", "-pi*log(2)"),
    ("e^(-1/x)/x^2", "0", "1", "exp(-1)"),
    ("floor(x)", "0", "7/2", "mpf(9)/2"),
    ("|x^2 - 2|", "0", "2", "(8*sqrt(2) - 4)/3"),
    ("sign(x - ln(2)) x", "0", "1", "(1 - 2*log(2)**2)/2"),
    ("1/x^2", "inf", "1", "-1"),
    ("sin(20x)^2", "0", "pi", "pi/2"),
    ("atan(1/x) + 1", "-1", "1", "2"),
    ("e^(1/x)/x^2", "-1", "0", "exp(-1)"),
)
DIVERGENT = (
    ("1/x", "0", "1"), ("1/x", "1", "inf"), ("1/x^2", "-1", "1"), ("1/x", "-1", "1"),
    ("tan(x)", "0", "pi/2"), ("1/(x - sqrt(2))", "0", "3"), ("1/(e^x - 1)", "0", "1"),
    ("1/sqrt(x)", "1", "inf"), ("1/(x ln(x))", "2", "inf"), ("x", "0", "inf"), ("e^x/x", "0", "1"),
    ("1/(cos(x) - x)", "0", "1"), ("ln(x)/x", "0", "1"),
)  # fmt: skip


def speed(slope: Callable[[mpmath.mpf], mpmath.mpf], x: mpmath.mpf) -> mpmath.mpf:
    return mpmath.hypot(1, slope(x))


class ImproperTest(TestCase):
    def test_convergent_integrals_have_values(self) -> None:
        for body, low, high, truth in CONVERGENT:
            with self.subTest(f"{body} from {low} to {high}"), mp.workdps(30):
                expected = eval(truth, vars(mpmath).copy())  # noqa: S307 - the table above
                integral = f"integral({body}, x, {low}, {high})"
                for text, value in ((integral, expected), (f"3 - 2 {integral}", 3 - 2 * expected)):
                    found = Study().evaluate(text)
                    self.assertEqual("", found.reason)
                    shown = mpmath.mpf(found.decimal(10).replace("−", "-"))
                    self.assertLessEqual(abs(shown - value), abs(value) * mpmath.mpf(10) ** -9)

    def test_divergent_integrals_are_reported(self) -> None:
        for body, low, high in DIVERGENT:
            with self.subTest(f"{body} from {low} to {high}"):
                found = Study().evaluate(f"integral({body}, x, {low}, {high})")
                self.assertIn("diverges", found.reason)
                study = Study()
                study.define(f"f(x) = {body}")
                for measure in study.over_interval("f", low, high)[:2]:
                    self.assertIn("diverges", measure.reason)

    def test_undecided_convergence_is_not_claimed(self) -> None:
        for text in (
            "integral(sin(x), x, 0, inf)",
            "integral(sin(x)/x, x, 0, inf)",
            "integral(sin(x)/x^2, x, 1, inf)",
            "integral(sin(1/x), x, 0, 1)",
        ):
            with self.subTest(text):
                found = Study().evaluate(text)
                self.assertNotIn("diverges", found.reason)
                self.assertTrue(found.reason)
        with self.assertRaises(MathError):
            Study().evaluate("integral(sqrt(x), x, -inf, 1)")

    def test_odd_functions_balance_around_their_centre(self) -> None:
        for body, low, high in (
            ("1/cbrt(x - 1)", "0", "2"), ("cbrt(x)", "-1", "1"), ("x e^(-x^2)", "-inf", "inf"),
            ("sign(x) sqrt(|x|)/cos(x)", "-1", "1"), ("sin(x)^3/sqrt(9 - x^2)", "-3", "3"),
            ("atan(2x - 1)/cbrt(2x - 1)^4", "0", "1"),
        ):  # fmt: skip
            with self.subTest(body):
                found = Study().evaluate(f"integral({body}, x, {low}, {high})")
                self.assertEqual(("0", 0), (found.decimal(), found.value), found.reason)
        # What is not odd, or not around its centre, or has no value at all.
        for body, low, high in (
            ("1/cbrt(x - 1)", "0", "3"), ("cbrt(x) + x^2/10^9", "-1", "1"), ("1/x", "-1", "1"),
            ("acot(x)/cbrt(x)", "-1", "1"), ("1/x^3", "-2", "2"),
        ):  # fmt: skip
            with self.subTest(body):
                found = Study().evaluate(f"integral({body}, x, {low}, {high})")
                self.assertNotEqual("0", found.decimal())

    def test_improper_integrals_in_definitions_stay_exact(self) -> None:
        study = Study()
        for line in (
            "A = a integral(1/x^2, x, 1, inf)", "a = 3", "B = A/2 - 1", "f(x) = A x",
            "C = integral(1/sqrt(x), x, 0, 4)", "D = integral(e^(-x^2), x, -inf, inf)^2",
            "E = integral(1/x, x, 1, inf)", "F = 2 E",
        ):  # fmt: skip
            study.define(line)
        values = {name: study.value(name) for name in "ABCDEF"}
        self.assertEqual(["3", "1/2", "4", "π"], [values[name].exact for name in "ABCD"])
        self.assertEqual("3.141592654", values["D"].decimal())
        for name in "EF":
            self.assertIn("diverges", values[name].reason)
        self.assertIn("without end", study.function("f").prove_within(study.number(1)).reason)
        study.set("a", 5)
        self.assertEqual("1.500000000", study.value("B").decimal())
        for text in ("g(x) = integral(e^(-t^2), t, -inf, x)", "s = sum(1/n^2, n, 1, inf)"):
            with self.subTest(text), self.assertRaises(MathError):
                study.define(text)

    def test_lengths_near_holes_and_infinite_slopes(self) -> None:
        for text, low, high, slope in (
            ("sin(x)/x", -1, 1, lambda x: (x * mpmath.cos(x) - mpmath.sin(x)) / x**2),
            ("(e^x - 1)/x", -1, 2, lambda x: (mpmath.exp(x) * (x - 1) + 1) / x**2),
            ("x ln(x)", 0, 2, lambda x: mpmath.log(x) + 1),
            ("x/ln(x)", 0, 0.5, lambda x: 1 / mpmath.log(x) - 1 / mpmath.log(x) ** 2),
            ("e^(-1/x)", 0, 1, lambda x: mpmath.exp(-1 / x) / x**2),
        ):
            with self.subTest(text), mp.workdps(30):
                study = Study()
                study.define(f"f(x) = {text}")
                tenths = [s * mpmath.mpf(10) ** -k for s in (-1, 1) for k in range(20)]
                abscissae = sorted(x for x in {low, high, *tenths} if low <= x <= high and x != 0)
                truth = mpmath.fsum(
                    mpmath.quad(partial(speed, slope), [a, b])
                    for a, b in pairwise(abscissae)
                    if a * b > 0
                )
                found = study.over_interval("f", low, high)[3]
                self.assertAlmostEqual(float(truth), found.value, 8, found.reason)
        for text in ("1/sqrt(x)", "ln(x)"):
            study.define(f"f(x) = {text}")
            self.assertIn("has no end", study.over_interval("f", 0, 1)[3].reason)

    def test_the_length_of_a_wave_and_of_a_line_with_a_hole(self) -> None:
        study = Study()
        study.define("f(x) = sin(20x)")
        study.define("g(x) = (x^2 - 1)/(x - 1)")
        lengths = [study.over_interval("f", 0, "pi")[3], study.over_interval("g", 0, 2)[3]]
        self.assertEqual(["40.24404463", "2.828427125"], [length.text for length in lengths])
        endless = study.over_interval("g", 0, "inf")
        self.assertEqual(
            ["it diverges", "an interval without end has no mean value", "the graph has no end"],
            [endless[k].reason for k in (0, 2, 3)],
        )
