"""Numbers that know how far they are sure: enclosures, balls, and digits."""

import math
import threading
import unittest
from fractions import Fraction

import numpy as np
from flint import arb, fmpq

from axis_path.core import Study
from axis_path.core.arithmetic import Defined, ball, enclosure, precision
from axis_path.core.catalogue import CONSTANTS, DEGREE, FUNCTIONS
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Expression, float_bounds
from axis_path.core.language import Vocabulary, read_expression
from tests.core.functions import is_of_lists, make_function

SEED = 20_261_124
#: Places where something happens, besides the drawn ones.
EDGES = [
    0.0,
    -0.0,
    1.0,
    -1.0,
    0.5,
    -0.5,
    2.0,
    -2.0,
    1e-300,
    -1e-300,
    1e-8,
    1e8,
    -1e8,
    3.0,
    10.0,
    math.pi,
    -math.pi,
    math.pi / 2,
    -math.pi / 2,
    3 * math.pi / 2,
    700.0,
    -700.0,
    1e15,
]
TEXTS = (
    "x^2",
    "x^3",
    "x^-1",
    "x^-2",
    "x^(1/3)",
    "x^(2/3)",
    "x^(-1/3)",
    "x^(1/2)",
    "x^(3/2)",
    "x^x",
    "2^x",
    "x^0",
    "1/x",
    "1/(x^2 - 1)",
    "x/(x - 1)",
    "sin(1/x)",
    "sin(x)/x",
    "sqrt(x^2 - 4)",
    "ln(x^2 - 1)",
    "tan(x/2)",
    "exp(-x^2)",
    "|x - 1| - |x|",
    "floor(x) + ceil(x)",
    "sign(sin x)",
    "max(x, 1/x)",
    "asin(x/2)",
    "e^x - e^-x",
    "(x + 1)(x - 1)/(x + 2)",
    "cosh(x) - sinh(x)",
)


#: What functions of one, two and three values are given.
GIVEN = ("x", "2 - x", "1")


def drawn_points(count: int) -> np.ndarray:
    drawn = np.random.default_rng(SEED)
    return np.concatenate(
        [
            EDGES,
            drawn.normal(0, 1, count),
            drawn.normal(0, 30, count),
            drawn.uniform(-1, 1, count),
            drawn.integers(-40, 40, count),
        ]
    )


class BackendsAgreeTest(unittest.TestCase):
    """The three arithmetics mean the same, for every entry of the catalogue."""

    def texts(self) -> list[str]:
        calls = [
            f"{name}({', '.join(GIVEN[:count])})"
            for name, entry in FUNCTIONS.items()
            for count in (1, 2, 3)
            if entry.accepts(count) and entry.components is None and not is_of_lists(entry)
        ]
        return [*calls, *TEXTS]

    def test_backends_agree_on_values_and_definedness(self) -> None:
        points = drawn_points(40)
        for text in self.texts():
            function = make_function(text)
            fast = function.sample(points)
            bounds = function.enclose(points, points)
            for k, x in enumerate(points):
                with self.subTest(text, x=x), precision(200):
                    proved = function.prove(ball.from_fraction(Fraction(float(x))))
                    if not np.isnan(fast[k]):
                        self.assertIsNot(proved.defined, Defined.NO)
                        self.assertTrue(
                            bounds.low[k] <= fast[k] <= bounds.high[k] or abs(x) > 1e8,
                            (bounds.low[k], fast[k], bounds.high[k]),
                        )
                        self.assert_near(proved.value, float(fast[k]), float(x))
                    if proved.defined is Defined.NO:
                        self.assertTrue(np.isnan(fast[k]))
                        self.assertTrue(proved.reason)
                        self.assertTrue(bounds.partial[k])  # type: ignore[index]
                    elif proved.is_defined and proved.value.is_finite():
                        self.assertFalse(bounds.nowhere[k])  # type: ignore[index]
                        self.assertFalse(proved.value > arb(float(bounds.high[k])))
                        self.assertFalse(proved.value < arb(float(bounds.low[k])))

    def assert_near(self, true: arb, value: float, x: float) -> None:
        # A float function is wrong by its own rounding and by what rounding x does to it.
        allowed = 1e-9 * max(1.0, abs(value)) * max(1.0, abs(x))
        self.assertFalse(abs(true - arb(value)) > arb(allowed), (true, value))

    def test_a_column_without_flags_holds_every_value_inside_it(self) -> None:
        drawn = np.random.default_rng(SEED)
        low = drawn.normal(0, 3, 300)
        high = low + 10 ** drawn.uniform(-6, 0.5, 300)
        inside = low + (high - low) * drawn.uniform(0, 1, (20, 300))
        for text in self.texts():
            with self.subTest(text):
                function = make_function(text)
                bounds = function.enclose(low, high)
                calm = ~(bounds.partial | bounds.broken)
                for xs in inside:
                    ys = function.sample(xs)
                    self.assertFalse(np.isnan(ys[calm]).any())
                    known = ~np.isnan(ys)
                    self.assertTrue((ys >= bounds.low)[known].all())
                    self.assertTrue((ys <= bounds.high)[known].all())
                    self.assertFalse(known[bounds.nowhere].any())

    def test_the_ball_of_an_interval_holds_the_balls_of_its_points(self) -> None:
        drawn = np.random.default_rng(SEED)
        for text in self.texts():
            function = make_function(text)
            for low in drawn.normal(0, 3, 12):
                high = low + 10 ** drawn.uniform(-4, 0.5)
                with self.subTest(text, low=low, high=high), precision(80):
                    wide = function.prove(ball.from_bounds(arb(low), arb(high)))
                    for x in np.linspace(low, high, 7):
                        one = function.prove(ball.from_fraction(Fraction(float(x))))
                        if wide.defined is Defined.YES:
                            self.assertIs(Defined.YES, one.defined)
                        if one.defined is Defined.YES:
                            self.assertIsNot(Defined.NO, wide.defined)
                            self.assertTrue(wide.value.overlaps(one.value))

    def test_slopes_lie_in_the_ball_of_the_derivative(self) -> None:
        for text in self.texts():
            function = make_function(text)
            try:
                derivative: Expression = function.expression.derivative()
            except NotHandledError:
                # A function of whole numbers, which has no slope anywhere.
                self.assertRegex(text, "factorial|binomial|permutations|gcd|lcm|digamma")
                continue
            for x in (Fraction(13, 10), Fraction(-7, 10), Fraction(31, 100), Fraction(-12, 5)):
                with self.subTest(text, x=x), precision(300):
                    step = Fraction(1, 10**30)
                    here, there, slope = (
                        function.prove(ball.from_fraction(x), None),
                        function.prove(ball.from_fraction(x + step), None),
                        function.prove(ball.from_fraction(x), derivative),
                    )
                    if not (here.is_defined and there.is_defined and slope.is_defined):
                        continue
                    quotient = (there.value - here.value) / arb(fmpq(1, 10**30))
                    self.assertTrue(abs(quotient - slope.value) < arb(1e-20), (quotient, slope))


class CatalogueTest(unittest.TestCase):
    def test_every_catalogue_entry_is_complete(self) -> None:
        for name, entry in FUNCTIONS.items():
            with self.subTest(name):
                self.assertEqual(name, entry.name)
                ways = (entry.backends, entry.expansion, entry.components)
                count = sum(way is not None for way in ways)
                self.assertEqual(0 if is_of_lists(entry) else 1, count)
                self.assertIn(len(entry.derivative), (0, len(entry.arguments)))
                for words in (entry.meaning, entry.defined, entry.returns, entry.example):
                    self.assertTrue(words)
                read_expression(entry.example, Vocabulary(variables=frozenset({"x"})))
                if entry.inverse is not None:
                    self.assertIn(entry.inverse, FUNCTIONS)

    def test_constants_lie_between_their_floats(self) -> None:
        for name, entry in CONSTANTS.items():
            with self.subTest(name), precision(200):
                value = entry.proving().value
                self.assertTrue(arb(entry.low) < value < arb(entry.high))
                if name != DEGREE:
                    self.assertEqual(math.nextafter(entry.low, math.inf), entry.high)


class FloatBoundsTest(unittest.TestCase):
    def test_the_closest_floats_lie_around_a_number(self) -> None:
        table = (
            Fraction(1, 3),
            Fraction(-1, 10),
            Fraction(3),
            Fraction(10) ** 400,
            -(Fraction(10) ** 400),
            Fraction(1, 10**400),
            Fraction(0),
        )
        for value in table:
            with self.subTest(value):
                low, high = float_bounds(value)
                self.assertTrue(low <= value <= high)
                self.assertTrue(low == high or math.nextafter(low, math.inf) == high)

    def test_an_unbounded_end_times_zero_is_zero(self) -> None:
        with np.errstate(invalid="ignore"):
            product = enclosure.multiply(
                enclosure.between(np.array([0.0]), np.array([0.0])),
                enclosure.between(np.array([-np.inf]), np.array([np.inf])),
            )
        self.assertTrue(abs(product.low[0]) < 1e-300 and abs(product.high[0]) < 1e-300)


#: Digits from published tables: OEIS A000796, A001113, A002193, A002162, A019692.
PUBLISHED = (
    ("pi", "3.14159265358979323846264338327950288419716939937510582097494"),
    ("e", "2.71828182845904523536028747135266249775724709369995957496697"),
    ("sqrt(2)", "1.41421356237309504880168872420969807856967187537694807317668"),
    ("ln(2)", "0.693147180559945309417232121458176568075500134360255254120680"),
    ("2pi", "6.28318530717958647692528676655900576839433879875021164194989"),
)
EXACT = (
    ("2/3", "2/3", "0.6666666667"),
    ("0.1 + 0.2", "3/10", "0.3"),
    ("1/3 + 1/6", "1/2", "0.5"),
    ("2^10", "1024", "1024"),
    ("(-8)^(1/3)", "-2", "−2"),
    ("sqrt(4/9)", "2/3", "0.6666666667"),
    ("sin(pi)", "0", "0"),
    ("cos(pi/3)", "1/2", "0.5"),
    ("tan(pi/4)", "1", "1"),
    ("sin(30°)", "1/2", "0.5"),
    ("log(1000)", "3", "3"),
    ("log(0.01)", "-2", "−2"),
    ("ln(1)", "0", "0"),
    ("exp(0) + cosh(0)", "2", "2"),
    ("abs(-2.5)", "5/2", "2.5"),
    ("floor(-1/2) + ceil(1/2)", "0", "0"),
    ("max(2, 7/2) - min(1, 2)", "5/2", "2.5"),
    ("sign(-3)", "-1", "−1"),
    ("atan(1)/pi", "1/4", "0.25"),
    ("10^20", "100000000000000000000", "1·10^20"),
    ("0.00001234", "617/50000000", "0.00001234"),
)
DIGITS = (
    ("1/3", 3, "0.333"),
    ("2/3", 1, "0.7"),
    ("999.96", 4, "1000"),
    ("pi 10^6", 3, "3140000"),
    ("pi 10^20", 5, "3.1416·10^20"),
    ("pi 10^-9", 5, "3.1416·10^−9"),
    ("-pi/1000", 4, "−0.003142"),
    ("sqrt(2)^2 - 2", 10, "0"),
    ("10^20 + pi - 10^20", 12, "3.14159265359"),
)
UNDEFINED = (
    ("1/0", "a division by zero"),
    ("sqrt(-1)", "sqrt of a negative number"),
    ("ln(0)", "ln of 0"),
    ("ln(-2)", "ln of a negative number"),
    ("log(-2)", "log of a negative number"),
    ("asin(2)", "asin of a number outside −1 to 1"),
    ("tan(pi/2)", "tan at an odd multiple of 90°"),
    ("0^-1", "a division by zero"),
    ("(-2)^pi", "a power of a negative number"),
    ("(-2)^(1/4)", "an even root of a negative number"),
    ("1 + sqrt(1/0)", "a division by zero"),
    ("e^(10^12)", "too large or too small to be written"),
    ("factorial(-1)", "factorial of a negative number"),
    ("2.5!", "factorial of a number that is not whole"),
    ("atan2(0, 0)", "the angle of (0, 0)"),
    ("mod(5, 0)", "a division by zero"),
    ("acosh(1/2)", "acosh of a number below 1"),
    ("gamma(-3)", "gamma of a whole number that is not positive"),
)


class ResultTest(unittest.TestCase):
    def setUp(self) -> None:
        self.study = Study()

    def test_every_digit_agrees_with_the_published_tables(self) -> None:
        for text, digits in PUBLISHED:
            with self.subTest(text):
                self.assertEqual(digits, self.study.evaluate(text).decimal(60))

    def test_a_thousand_digits_of_a_fraction_and_of_pi_end_right(self) -> None:
        self.assertEqual("0." + "142857" * 166 + "1429", self.study.evaluate("1/7").decimal(1000))
        # The decimals 990 to 1000 of pi are 9216420198 9: with 999 of them the last is rounded up.
        self.assertTrue(self.study.evaluate("pi").decimal(1000).endswith("9216420199"))

    def test_exact_forms_and_their_decimals(self) -> None:
        for text, exact, decimal in EXACT:
            with self.subTest(text):
                result = self.study.evaluate(text)
                self.assertEqual(exact, result.exact)
                self.assertEqual(decimal, result.decimal(10))

    def test_decimals_with_a_chosen_number_of_digits(self) -> None:
        for text, digits, expected in DIGITS:
            with self.subTest(text, digits=digits):
                self.assertEqual(expected, self.study.evaluate(text).decimal(digits))

    def test_undefined_is_no_exception_and_has_a_reason(self) -> None:
        for text, reason in UNDEFINED:
            with self.subTest(text):
                result = self.study.evaluate(text)
                self.assertTrue(math.isnan(result.value))
                self.assertEqual(reason, result.reason.partition(";")[0])
                self.assertEqual("", result.decimal())
                self.assertIsNone(result.exact)

    def test_degrees_change_only_angles(self) -> None:
        degrees = Study("degrees")
        for text, exact in (
            ("sin(30)", "1/2"),
            ("sin(30°)", "1/2"),
            ("cos(60)", "1/2"),
            ("tan(45)", "1"),
            ("asin(1)", "90"),
            ("acos(-1)", "180"),
            ("atan(1)", "45"),
            ("sin(pi rad)", "0"),
            ("30°", "30"),
            ("cosh(0)", "1"),
        ):
            with self.subTest(text):
                self.assertEqual(exact, degrees.evaluate(text).exact)
        self.assertEqual("57.29577951", degrees.evaluate("1 rad").decimal())
        self.assertEqual("0.01745329252", self.study.evaluate("1°").decimal())

    def test_too_many_digits_are_refused(self) -> None:
        for digits in (0, 1_001):
            with self.subTest(digits), self.assertRaises(LimitError):
                self.study.evaluate("pi").decimal(digits)


class PrecisionTest(unittest.TestCase):
    def test_threads_do_not_disturb_one_another(self) -> None:
        """The library has one precision for all threads; the lock keeps each to its own."""
        expected = {digits: Study().evaluate("pi").decimal(digits) for digits in (6, 21, 60, 400)}
        wrong: list[str] = []

        def compute(digits: int) -> None:
            for _ in range(25):
                text = Study().evaluate("pi").decimal(digits)
                if text != expected[digits]:
                    wrong.append(text)

        threads = [threading.Thread(target=compute, args=(digits,)) for digits in expected]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()

        self.assertEqual([], wrong)
