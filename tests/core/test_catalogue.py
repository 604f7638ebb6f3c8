"""The exact backend against the others: every entry, at 60 digits, by an independent library."""

import re
import unittest
from fractions import Fraction
from typing import Any

import mpmath
import numpy as np
import sympy
from flint import arb, fmpq

from axis_path.core import Study
from axis_path.core.arithmetic import Defined, ball, precision
from axis_path.core.catalogue import FUNCTIONS, SUMMARY_ENTRIES
from axis_path.core.evaluate import run
from axis_path.core.evaluate.exact.exact_form import Exact
from axis_path.core.evaluate.exact.sympy_tree import NoExactFormError
from tests.core.functions import is_of_lists, make_function

SEED = 20_261_124
DIGITS = 60
POINTS = 1_500
#: What is given besides x, so that every function of two or three values has some.
CALLS = {1: "{}(x)", 2: "{}(x, 7/4 - x)", 3: "{}(x, 2, 1)"}
#: On whole numbers only; SymPy works them out one by one.
OF_WHOLES = {"factorial", "binomial", "gcd", "lcm"}


def drawn(count: int) -> list[Fraction]:
    """Fractions that are floats too, with whole ones and halves among them."""
    chance = np.random.default_rng(SEED)
    floats = [*chance.normal(0, 2, count), *chance.uniform(-1, 1, count // 2)]
    simple = [Fraction(k, 2) for k in range(-12, 13)]
    return simple + [
        Fraction(float(np.round(number, 6))).limit_denominator(10**6) for number in floats
    ]


class ExactBackendTest(unittest.TestCase):
    """SymPy builds the formula and mpmath evaluates it; our ball must hold what comes out."""

    def calls(self) -> list[str]:
        return [
            CALLS[count].format(name)
            for name, entry in FUNCTIONS.items()
            for count in CALLS
            if entry.accepts(count)
            and entry.components is None
            # SymPy gives 0 an angle.
            and name not in (*OF_WHOLES, "arg")
            and not is_of_lists(entry)
        ]

    def test_balls_hold_the_value_of_the_exact_formula_at_60_digits(self) -> None:
        x = sympy.Symbol("x", real=True)
        points, checked = drawn(POINTS // len(CALLS) // 10), 0
        for text in self.calls():
            function = make_function(text)
            try:
                formula = run(function.expression.program, Exact(), x, {})[0]
            except NoExactFormError:
                # It needs whole numbers, which have a test of their own.
                continue
            evaluate = sympy.lambdify(x, formula, "mpmath")
            for abscissa in points:
                value = self.value(evaluate, abscissa)
                if value is None:
                    continue
                with self.subTest(text, x=abscissa), precision(260):
                    proved = function.prove(ball.from_fraction(abscissa))
                    self.assertIsNot(Defined.NO, proved.defined, value)
                    near = arb(value) + arb(0, 1e-50) * max(1, abs(float(value)))
                    self.assertTrue(proved.value.overlaps(near), (proved.value, value))
                    checked += 1
        self.assertGreater(checked, 2_500)

    def value(self, evaluate: Any, abscissa: Fraction) -> Any:
        """The real value at a place, written with 60 digits; None where there is none."""
        with mpmath.workdps(DIGITS):
            try:
                found = evaluate(mpmath.mpf(abscissa.numerator) / abscissa.denominator)
            except (ZeroDivisionError, ValueError, TypeError):
                return None
            if isinstance(found, mpmath.mpc):
                return None
            found = mpmath.mpf(found)
            return mpmath.nstr(found, DIGITS) if mpmath.isfinite(found) else None

    def test_functions_of_whole_numbers_agree_with_their_definitions(self) -> None:
        table = (
            ("factorial(20)", "2432902008176640000"),
            ("binomial(50, 25)", "126410606437752"),
            ("binomial(5, 7)", "0"),
            ("gcd(84, 30, 18)", "6"),
            ("lcm(4, 6, 10)", "60"),
            ("gcd(0, 0)", "0"),
            ("gcd(-12, 18)", "6"),
            ("round(2.5) + round(-2.5)", "0"),
            ("round(2.345, 2)", "47/20"),
            ("mod(-7, 3)", "2"),
            ("min(3, 1, 2) + max(3, 1, 2)", "4"),
            ("log(8, 2)", "3"),
            ("root(-32, 5)", "-2"),
            ("cbrt(27/8)", "3/2"),
            ("radius(3, 4)", "5"),
            ("to_degrees(pi/6) + to_radians(180)/pi", "31"),
            ("gamma(5)", "24"),
            ("acot(1) + asec(2) + acsc(2)", "3π/4"),
        )
        study = Study()
        for text, expected in table:
            with self.subTest(text):
                self.assertEqual(expected, study.evaluate(text).exact)

    def test_polar_conversion_order_and_angle_range(self) -> None:
        degrees = Study("degrees")
        table = (
            ("polar(0, 5)", "(5, 90)"),
            ("polar(-1, -1)", "(√2, -135)"),
            ("polar(-1, -1, 0)", "(√2, 225)"),
            ("polar(-2, 0)", "(2, 180)"),
            ("angle(0, -3, 0)", "270"),
            ("angle(1, 0, 0)", "0"),
            ("rectangular(2, 60)", "(1, √3)"),
            ("rectangular(polar(3, 4))", "(3, 4)"),
        )
        for text, expected in table:
            with self.subTest(text):
                self.assertEqual(expected, degrees.evaluate(text).exact)

    def test_every_operation_has_its_four_implementations(self) -> None:
        for name, entry in FUNCTIONS.items():
            if entry.backends is not None:
                with self.subTest(name):
                    self.assertTrue(hasattr(sympy, entry.backends.exact) or name == "log10")

    def test_examples_of_the_reference_have_values(self) -> None:
        for entry in (*FUNCTIONS.values(), *SUMMARY_ENTRIES):
            with self.subTest(entry.name):  # type: ignore[attr-defined]
                study = Study()
                example = entry.example  # type: ignore[attr-defined]
                if not re.search(r"(?<![a-z])x(?![a-z])", example):
                    self.assertTrue(study.evaluate(example).decimal())
                    continue
                made = study.define(f"f(x) = {example}")
                self.assertIsNone(made.problem)
                self.assertTrue(
                    study.evaluate("f(2)").decimal() or study.evaluate("f(1/2)").decimal()
                )


class SummaryTest(unittest.TestCase):
    """Sums, products, integrals and derivatives against what textbooks print."""

    def test_sums_products_integrals_and_derivatives(self) -> None:
        study = Study()
        study.define("f(x) = x for x < 1; 2 for 1 <= x < 2; x^2 otherwise")
        study.define("g(x) = x^3 - 2x")
        table = (
            ("sum(k^2, k, 1, 10)", "385"),
            ("sum(k, k, 5, 4)", "0"),
            ("product(k, k, 1, 6)", "720"),
            ("sum(sum(j, j, 1, k), k, 1, 4)", "20"),
            ("integral(g, 0, 2)", "0"),
            ("integral(1/t, t, 1, e)", "1"),
            ("integral(sin(t), t, 0, pi)", "2"),
            ("g'(2)", "10"),
            ("g''(2)", "12"),
            ("g'''(2)", "6"),
            ("sin'(0)", "1"),
            ("ln'(4)", "1/4"),
            ("f(1) + f(2)", "6"),
        )
        for text, expected in table:
            with self.subTest(text):
                self.assertEqual(expected, study.evaluate(text).exact)
        numbers = (
            # Abramowitz and Stegun, tables 7.1 and 5.1; the last by hand.
            ("2/sqrt(pi) integral(exp(-t^2), t, 0, 1)", "0.8427007929"),
            ("integral(sin(t)/t, t, 1, 2)", "0.6593299064"),
            ("integral(f, 0, 3)", "8.833333333"),
            ("integral(|t - 1/3|, t, 0, 1)", "0.2777777778"),
            ("integral(sqrt(t), t, 0, 1)", "0.6666666667"),
        )
        for text, expected in numbers:
            with self.subTest(text):
                self.assertEqual(expected, study.evaluate(text).decimal(10))

    def test_a_missing_integral_or_derivative_is_reported(self) -> None:
        study = Study()
        study.define("f(x) = x for x < 0; x^2 otherwise")
        for text, words in (
            ("integral(1/t, t, -1, 1)", "diverges"),
            ("integral(sqrt(t), t, -1, 1)", "sqrt of a negative number"),
            ("f'(0)", "where two pieces meet"),
            ("ln'(-1)", "ln of a negative number"),
            ("floor'(2)", "a division by zero"),
            ("sum(k, k, 1, 2.5)", "not whole"),
            ("sum(k, k, 1, pi)", "not whole"),
        ):
            with self.subTest(text):
                result = study.evaluate(text)
                self.assertIn(words, result.reason)
                self.assertEqual("", result.decimal())

    def test_integral_enclosures_contain_their_values(self) -> None:
        for text in (
            "integral(sin(t), t, 0, x)",
            "integral(|t - 1|, t, -2, x)",
            "integral(exp(-t^2 x), t, 0, 1)",
            "integral(floor(t), t, 0, x)",
            "sum(x^k/k!, k, 0, 12)",
        ):
            function = make_function(text)
            xs = np.linspace(-3, 3, 61)
            wide, fast = function.enclose(xs[:-1], xs[1:]), function.sample(xs)
            for k in range(60):
                with self.subTest(text, x=xs[k]), precision(120):
                    self.assertFalse(wide.partial[k])  # type: ignore[index]
                    for abscissa in (xs[k], xs[k + 1]):
                        proved = function.prove(ball.from_fraction(Fraction(float(abscissa))))
                        self.assertTrue(proved.is_defined)
                        self.assertFalse(proved.value < arb(float(wide.low[k])))
                        self.assertFalse(proved.value > arb(float(wide.high[k])))
                    self.assertTrue(wide.low[k] - 1e-9 <= fast[k] <= wide.high[k] + 1e-9)

    def test_sums_with_ends_beyond_all_counting_end_at_once(self) -> None:
        for text in (
            "sum(k, k, 1/x, 5)",
            "sum(k, k, e^1000, 5)",
            "sum(k, k, 10^17, 10^17 + 3) x",
            "product(k x, k, -10^300, 10^300)",
        ):
            function = make_function(text)
            xs = np.array([0.0, 1.0, 1e-300])
            with self.subTest(text):
                bounds = function.enclose(xs, xs)
                fast = function.sample(xs)
                known = ~np.isnan(fast)
                self.assertTrue((bounds.low[known] <= fast[known]).all())
                self.assertTrue((bounds.high[known] >= fast[known]).all())

    def test_an_integral_is_the_reverse_of_its_derivative(self) -> None:
        function = make_function("integral(cos(t) + t^2 x, t, 1, x^2)")
        slope = function.expression.derivative()
        with precision(200):
            x, step = Fraction(5, 4), Fraction(1, 10**25)
            here, there = (function.prove(ball.from_fraction(x + side)) for side in (-step, step))
            quotient = (there.value - here.value) / arb(fmpq(2, 10**25))
            found = function.prove(ball.from_fraction(x), slope)
            self.assertTrue(abs(quotient - found.value) < arb(1e-18))
