"""Values from published tables, and what is defined at the edges, in every arithmetic."""

import math
import unittest
from fractions import Fraction

import numpy as np
from flint import arb

from axis_path.core import Study
from axis_path.core.arithmetic import Defined, ball, precision
from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.language.walk import names_in
from tests.core.functions import make_function
from tests.core.test_matrices import EXACT as OBJECTS

#: Abramowitz and Stegun, *Handbook of Mathematical Functions*, tables 1.1, 4.x, 6.x, 7.x; OEIS for
#: the constants with more digits.
VALUES = (
    ("sqrt(3)", "1.7320508075688772935274463415"),
    ("cbrt(2)", "1.2599210498948731647672106073"),
    ("root(5, 4)", "1.4953487812212205419118989941"),
    ("exp(1)", "2.7182818284590452353602874714"),
    ("e^pi", "23.140692632779269005729086368"),
    ("pi^e", "22.459157718361045473427152205"),
    ("ln(10)", "2.3025850929940456840179914547"),
    ("ln(3)", "1.0986122886681096913952452369"),
    ("log(2)", "0.30102999566398119521373889472"),
    ("log10(3)", "0.47712125471966243729502790326"),
    ("log(10, 2)", "3.3219280948873623478703194295"),
    ("sin(1)", "0.84147098480789650665250232163"),
    ("cos(1)", "0.54030230586813971740093660744"),
    ("tan(1)", "1.5574077246549022305069748075"),
    ("cot(1)", "0.64209261593433070300641998659"),
    ("sec(1)", "1.8508157176809256179117532414"),
    ("csc(1)", "1.1883951057781212162615994524"),
    ("asin(1/3)", "0.33983690945412193709639251339"),
    ("acos(1/3)", "1.2309594173407746821349291782"),
    ("atan(1/2)", "0.46364760900080611621425623146"),
    ("acot(2)", "0.46364760900080611621425623146"),
    ("asec(3)", "1.2309594173407746821349291782"),
    ("acsc(3)", "0.33983690945412193709639251339"),
    ("sinh(1)", "1.1752011936438014568823818506"),
    ("cosh(1)", "1.5430806348152437784779056208"),
    ("tanh(1)", "0.76159415595576488811945828260"),
    ("coth(1)", "1.3130352854993313036361612469"),
    ("sech(1)", "0.64805427366388539957497735323"),
    ("csch(1)", "0.85091812823932154513384276329"),
    ("asinh(1)", "0.88137358701954302523260932498"),
    ("acosh(2)", "1.3169578969248167086250463473"),
    ("atanh(1/2)", "0.54930614433405484569762261846"),
    ("acoth(2)", "0.54930614433405484569762261846"),
    ("asech(1/2)", "1.3169578969248167086250463473"),
    ("acsch(1)", "0.88137358701954302523260932498"),
    ("gamma(1/2)", "1.7724538509055160272981674833"),
    ("gamma(1/3)", "2.6789385347077476336556929410"),
    ("gamma(-1/2)", "−3.5449077018110320545963349667"),
    ("digamma(1)", "−0.57721566490153286060651209008"),
    ("digamma(1/2)", "−1.9635100260214234794409763330"),
    ("erf(1)", "0.84270079294971486934122063508"),
    ("erf(-1/2)", "−0.52049987781304653768274665389"),
    ("atan2(1, 2)", "0.46364760900080611621425623146"),
    ("angle(2, 1)", "0.46364760900080611621425623146"),
    ("radius(1, 1)", "1.4142135623730950488016887242"),
)

#: Exact values, of which several lie at an edge.
EXACT = (
    ("sqrt(0)", "0"),
    ("sqrt(1/4)", "1/2"),
    ("cbrt(-27)", "-3"),
    ("root(-32, 5)", "-2"),
    ("root(0, 3)", "0"),
    ("0^0", "1"),
    ("(-1)^(1/3)", "-1"),
    ("(-8)^(2/3)", "4"),
    ("exp(0)", "1"),
    ("ln(1)", "0"),
    ("log(1000)", "3"),
    ("log(1/8, 2)", "-3"),
    ("sin(pi/6)", "1/2"),
    ("cos(2pi/3)", "-1/2"),
    ("tan(3pi/4)", "-1"),
    ("cot(pi/2)", "0"),
    ("sec(0)", "1"),
    ("csc(pi/2)", "1"),
    ("asin(1)", "π/2"),
    ("asin(-1/2)", "-π/6"),
    ("acos(-1)", "π"),
    ("acos(1)", "0"),
    ("atan(-1)", "-π/4"),
    ("acot(0)", "π/2"),
    ("asec(1)", "0"),
    ("acsc(-1)", "-π/2"),
    ("sinh(0)", "0"),
    ("cosh(0)", "1"),
    ("tanh(0)", "0"),
    ("sech(0)", "1"),
    ("asinh(0)", "0"),
    ("acosh(1)", "0"),
    ("atanh(0)", "0"),
    ("asech(1)", "0"),
    ("abs(-5/2)", "5/2"),
    ("sign(0)", "0"),
    ("floor(-1/2)", "-1"),
    ("ceil(-1/2)", "0"),
    ("floor(3)", "3"),
    ("round(1/2)", "1"),
    ("round(-3/2)", "-2"),
    ("round(pi, 2)", "157/50"),
    ("mod(7, 3)", "1"),
    ("mod(7, -3)", "-2"),
    ("mod(-1/2, 1/3)", "1/6"),
    ("min(1/2, 1/3)", "1/3"),
    ("max(-1, -2, -3)", "-1"),
    ("factorial(0)", "1"),
    ("10!", "3628800"),
    ("binomial(0, 0)", "1"),
    ("binomial(10, 3)", "120"),
    ("binomial(4, -1)", "0"),
    ("gcd(0, 0)", "0"),
    ("gcd(270, 192)", "6"),
    ("lcm(0, 5)", "0"),
    ("lcm(21, 6)", "42"),
    ("gamma(1)", "1"),
    ("gamma(6)", "120"),
    ("erf(0)", "0"),
    ("atan2(0, -1)", "π"),
    ("atan2(-1, 0)", "-π/2"),
    ("atan2(-1, -1)", "-3π/4"),
    ("angle(-1, 0)", "π"),
    ("angle(0, -1, 0)", "3π/2"),
    ("radius(0, 0)", "0"),
    ("polar(0, 2)", "(2, π/2)"),
    ("rectangular(0, 1)", "(0, 0)"),
    ("to_degrees(pi)", "180"),
    ("to_radians(90)", "π/2"),
)

#: Places without a value, with a word of the reason. A tiny step over the edge is enough.
UNDEFINED = (
    ("sqrt(-10^-40)", "negative"),
    ("root(-16, 4)", "even root"),
    ("root(-8, pi)", "negative"),
    ("0^-1", "zero"),
    ("(-2)^0.5", "negative"),
    ("ln(0)", "ln of 0"),
    ("ln(-10^-40)", "negative"),
    ("log(0)", "log of 0"),
    ("log(8, 1)", "zero"),
    ("log(8, 0)", "ln of 0"),
    ("log(8, -2)", "negative"),
    ("tan(pi/2)", "90°"),
    ("cot(pi)", "zero"),
    ("sec(-pi/2)", "zero"),
    ("csc(0)", "zero"),
    ("asin(1 + 10^-40)", "outside"),
    ("acos(-1 - 10^-40)", "outside"),
    ("asec(1/2)", "outside"),
    ("acsc(0)", "zero"),
    ("coth(0)", "zero"),
    ("csch(0)", "zero"),
    ("acosh(1 - 10^-40)", "below 1"),
    ("atanh(1)", "outside"),
    ("atanh(-1)", "outside"),
    ("acoth(1)", "outside"),
    ("acoth(0)", "zero"),
    ("asech(0)", "zero"),
    ("asech(1 + 10^-40)", "below 1"),
    ("acsch(0)", "zero"),
    ("mod(5, 0)", "zero"),
    ("factorial(-1)", "negative"),
    ("(1/2)!", "not whole"),
    ("binomial(-1, 2)", "negative"),
    ("binomial(5/2, 2)", "not whole"),
    ("gcd(1/2, 1)", "not whole"),
    ("lcm(2, pi)", "not whole"),
    ("gamma(0)", "not positive"),
    ("gamma(-4)", "not positive"),
    ("digamma(-1)", "not positive"),
    ("atan2(0, 0)", "(0, 0)"),
    ("polar(0, 0)", "(0, 0)"),
    ("angle(0, 0, 0)", "(0, 0)"),
)

#: Derivatives as the handbooks print them.
SLOPES = (
    ("sqrt(x)", "1/(2sqrt(x))"),
    ("cbrt(x)", "1/(3cbrt(x)^2)"),
    ("exp(x)", "exp(x)"),
    ("ln(x)", "1/x"),
    ("log(x)", "1/(x ln(10))"),
    ("log(x, 2)", "1/(x ln(2))"),
    ("x^x", "x^x (ln(x) + 1)"),
    ("sin(x)", "cos(x)"),
    ("cos(x)", "-sin(x)"),
    ("tan(x)", "sec(x)^2"),
    ("cot(x)", "-csc(x)^2"),
    ("sec(x)", "sec(x) tan(x)"),
    ("csc(x)", "-csc(x) cot(x)"),
    ("asin(x)", "1/sqrt(1 - x^2)"),
    ("acos(x)", "-1/sqrt(1 - x^2)"),
    ("atan(x)", "1/(1 + x^2)"),
    ("acot(x)", "-1/(1 + x^2)"),
    ("asec(2 + x)", "1/(|2 + x| sqrt((2 + x)^2 - 1))"),
    ("acsc(2 + x)", "-1/(|2 + x| sqrt((2 + x)^2 - 1))"),
    ("sinh(x)", "cosh(x)"),
    ("cosh(x)", "sinh(x)"),
    ("tanh(x)", "sech(x)^2"),
    ("coth(x)", "-csch(x)^2"),
    ("sech(x)", "-sech(x) tanh(x)"),
    ("csch(x)", "-csch(x) coth(x)"),
    ("asinh(x)", "1/sqrt(x^2 + 1)"),
    ("acosh(1 + x)", "1/sqrt((1 + x)^2 - 1)"),
    ("atanh(x)", "1/(1 - x^2)"),
    ("gamma(x)", "gamma(x) digamma(x)"),
    ("erf(x)", "2exp(-x^2)/sqrt(pi)"),
    ("atan2(x, 2)", "2/(x^2 + 4)"),
    ("angle(x, 2)", "-2/(x^2 + 4)"),
    ("radius(x, 2)", "x/sqrt(x^2 + 4)"),
    ("|x - 1/2|", "sign(x - 1/2)"),
    ("max(x, 1/2)", "(1 + sign(x - 1/2))/2"),
    ("mod(x, 2)", "1"),
    ("floor(x)", "0"),
    ("integral(t^2, t, 0, x)", "x^2"),
    ("integral(x t, t, 0, x)", "3x^2/2"),
    ("sum(x^k, k, 0, 3)", "1 + 2x + 3x^2"),
)

#: Definite integrals: Gradshteyn and Ryzhik, *Table of Integrals*, sections 3.2 to 4.3.
INTEGRALS = (
    ("integral(x^3 - x, x, 0, 2)", "2"),
    ("integral(1/(1 + x^2), x, 0, 1)", "π/4"),
    ("integral(sqrt(1 - x^2), x, 0, 1)", "π/4"),
    ("integral(sin(x)^2, x, 0, pi)", "π/2"),
    ("integral(exp(x), x, 0, ln(3))", "2"),
    ("integral(1/x, x, 1, 2)", "ln(2)"),
    ("integral(x exp(x), x, 0, 1)", "1"),
    ("integral(ln(x), x, 1, e)", "1"),
    ("integral(cos(x), x, pi/2, 0)", "-1"),
    ("integral(x^2, x, 3, 3)", "0"),
    ("integral(|x|, x, -1, 2)", "5/2"),
)


class PublishedTest(unittest.TestCase):
    def test_thirty_digits_agree_with_the_tables(self) -> None:
        study = Study()
        for text, digits in VALUES:
            with self.subTest(text):
                count = len(digits.lstrip("−0.").replace(".", ""))
                self.assertEqual(digits, study.evaluate(text).decimal(count))

    def test_exact_values(self) -> None:
        study = Study()
        for text, exact in EXACT:
            with self.subTest(text):
                self.assertEqual(exact, study.evaluate(text).exact)

    def test_every_function_of_the_catalogue_is_in_these_tables(self) -> None:
        tables = [text for table in (VALUES, EXACT, UNDEFINED, SLOPES) for text, _ in table]
        # Those of lists, matrices and whole numbers have tables of their own.
        tables += [text for text, exact in OBJECTS if exact is not None]
        vocabulary = Vocabulary(variables=frozenset({"x", "M"}))
        used = frozenset[str]().union(*(names_in(read_expression(t, vocabulary)) for t in tables))
        self.assertEqual({"random", "is_prime"}, set(FUNCTIONS) - used)

    def test_integrals_agree_with_the_tables(self) -> None:
        study = Study()
        for text, exact in INTEGRALS:
            with self.subTest(text):
                result = study.evaluate(text)
                self.assertEqual(exact, result.exact)
                near = study.evaluate(exact)
                self.assertAlmostEqual(near.value, result.value, places=14)


class EdgeTest(unittest.TestCase):
    """The same places have a value, or none, in every arithmetic."""

    def test_undefined_is_undefined_everywhere_and_has_its_reason(self) -> None:
        study = Study()
        for text, words in UNDEFINED:
            with self.subTest(text):
                result = study.evaluate(text)
                self.assertIn(words, result.reason)
                self.assertEqual("", result.decimal())
                if text.startswith("polar") or "10^-40" in text:
                    # A point has two values; a float cannot stand so near to an edge.
                    continue
                function = make_function(text)
                abscissa = np.zeros(1)
                bounds = function.enclose(abscissa, abscissa)
                is_decided = "pi" not in text
                if is_decided:
                    self.assertTrue(np.isnan(function.sample(abscissa))[0])
                self.assertTrue(bounds.partial[0])  # type: ignore[index]

    def test_defined_edges_are_defined_everywhere(self) -> None:
        for text, _ in EXACT:
            if text.startswith(("polar", "rectangular")):
                continue
            with self.subTest(text):
                function, abscissa = make_function(text), np.zeros(1)
                value = function.sample(abscissa)[0]
                bounds = function.enclose(abscissa, abscissa)
                self.assertFalse(bounds.nowhere[0])  # type: ignore[index]
                # A step at which the function jumps may be missed by a float; nothing else may.
                with precision(200):
                    proved = function.prove(ball.from_fraction(0))
                self.assertIs(Defined.YES, proved.defined)
                if not math.isnan(value):
                    self.assertTrue(bounds.low[0] <= value <= bounds.high[0])


class SlopeTest(unittest.TestCase):
    def test_derivatives_agree_with_the_tables(self) -> None:
        for text, expected in SLOPES:
            function, known = make_function(text), make_function(expected)
            slope = function.expression.derivative()
            for x in (Fraction(1, 4), Fraction(3, 5), Fraction(9, 10)):
                with self.subTest(text, x=x), precision(200):
                    abscissa = ball.from_fraction(x)
                    found, wanted = function.prove(abscissa, slope), known.prove(abscissa)
                    self.assertTrue(found.is_defined and wanted.is_defined, found.reason)
                    self.assertTrue(found.value.overlaps(wanted.value))
                    self.assertTrue(abs(found.value - wanted.value) < arb(1e-40))


#: Numbers so large, so small or so near to one another that a first look tells nothing of them.
#: The cosine and sine of 10^22: Ng, *Argument reduction for huge arguments: good to the last bit*.
FAR = (
    ("cos(10^22)", "0.5232147853951389"),
    ("sin(10^22)", "−0.8522008497671888"),
    ("10^20 + pi - 10^20", "3.141592653589793"),
    ("(10^9000 + 1)/10^9000 - 1", "1.000000000000000·10^−9000"),
    ("mod(10^9000, 7)", "1"),
    ("floor(10^40/3) 3 - 10^40", "−1"),
    ("sqrt(2)^2 - 2", "0"),
    ("0.9^9^9^9", "0"),
    ("binomial(10^30, 2) - (10^60 - 10^30)/2", "0"),
    ("1000!/998!", "999000"),
)


class FarTest(unittest.TestCase):
    def test_a_number_is_computed_as_finely_as_it_needs(self) -> None:
        study = Study()
        for text, expected in FAR:
            with self.subTest(text):
                self.assertEqual(expected, study.evaluate(text).decimal(16))

    def test_undecided_claims_are_not_made(self) -> None:
        study = Study()
        for text, words in (
            ("floor(sqrt(2)^2)", "not decided"),
            ("9^9^9^9", "too large or too small"),
            ("e^(10^12)", "too large or too small"),
        ):
            with self.subTest(text):
                result = study.evaluate(text)
                self.assertIn(words, result.reason)
                self.assertEqual("", result.decimal())
                self.assertTrue(math.isnan(result.value))
