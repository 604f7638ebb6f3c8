"""Many complex numbers at once: exact where they fit into 64 bits, else inside their bounds."""

import cmath
import unittest
from collections.abc import Callable
from fractions import Fraction

import numpy as np
from flint import acb, acb_mat, arb, fmpq

from axis_path.core import MathError, Study
from axis_path.core.arithmetic import Ball
from axis_path.core.arithmetic.bounded import operations
from axis_path.core.arithmetic.bounded.entries import BoundedEntries, from_common
from axis_path.core.arithmetic.bounded.pairs import (
    ComplexEntries,
    Entries,
    combined,
    from_scalar,
    from_scalars,
    parts,
)
from axis_path.core.arithmetic.complex_ball import Scalar, of_parts, promoted
from axis_path.core.arithmetic.precision import precision

DIGITS = 12
BITS = 200


def drawn(seed: int, count: int, most: int, bottom: int) -> ComplexEntries:
    source = np.random.default_rng(seed)
    sides = (source.integers(-most, most, count, dtype=np.int64) for _ in range(2))
    return ComplexEntries(*(from_common(side, bottom) for side in sides))


def rounded(a: Entries) -> ComplexEntries:
    """Return the same numbers, not known as fractions any longer."""
    return ComplexEntries(*(BoundedEntries(part.middles, part.bounds) for part in parts(a)))


def ball_of(value: Scalar) -> acb:
    """Return a number as a ball with so many digits that its exact form shows."""
    complex_ball = promoted(value)
    if complex_ball.exact is None:
        return complex_ball.value
    return acb(*(arb(part) for part in complex_ball.exact))


def balls(a: Entries) -> list[acb]:
    return [ball_of(value) for value in a]


class OperationsTest(unittest.TestCase):
    def holds(self, made: Entries | None, exact: list[acb], *, digits: int) -> None:
        assert made is not None
        largest = max(float(abs(number).mid()) for number in exact)
        for value, number in zip(made, exact, strict=True):
            self.assertTrue(promoted(value).value.overlaps(number), (value, number))
        for part in parts(made):
            self.assertLess(part.bounds.greatest(), largest * 10.0**-digits)

    def test_operations_hold_exact_results_and_stay_exact(self) -> None:
        pairs: tuple[tuple[str, Callable[[acb, acb], acb]], ...] = (
            ("add", lambda x, y: x + y), ("subtract", lambda x, y: x - y),
            ("multiply", lambda x, y: x * y), ("divide", lambda x, y: x / y),
        )  # fmt: skip
        for seed in range(4):
            a, b = drawn(seed, 200, 10**8, 7919), drawn(seed + 50, 200, 10**7, 10**5)
            with precision(BITS):
                for name, operation in pairs:
                    operate = getattr(operations, name)
                    exact = list(map(operation, balls(a), balls(b)))
                    with self.subTest(seed=seed, operation=name):
                        self.holds(operate(rounded(a), rounded(b)), exact, digits=12)
                        known = operate(a, b)
                        self.holds(known, exact, digits=12)
                        is_exact = all(part.exact is not None for part in parts(known))
                        self.assertEqual(is_exact, name != "divide")

    def test_real_factors_and_zero_parts_lose_nothing(self) -> None:
        root = from_scalar(Ball(arb(2).sqrt()))
        unit = from_scalar(of_parts(fmpq(0), fmpq(1)))
        made = operations.multiply(root, unit)
        assert isinstance(made, ComplexEntries)
        self.assertEqual(fmpq(0), made.real[0].exact)
        back = operations.multiply(made, unit)
        self.assertIsInstance(back, BoundedEntries)
        square = operations.multiply(unit, unit)
        assert isinstance(square, BoundedEntries)
        self.assertEqual(fmpq(-1), square[0].exact)

    def test_products_inverses_and_determinants_hold_exact_results(self) -> None:
        size = 12
        for seed in range(3):
            a, b = drawn(seed, size * size, 50, 7), drawn(seed + 9, size * 3, 50, 1)
            with self.subTest(seed=seed), precision(BITS):
                matrix = acb_mat(size, size, balls(a))
                right = acb_mat(size, 3, balls(b))
                for one, other in ((a, b), (rounded(a), rounded(b))):
                    made = operations.product(one, other, (size, size, 3))
                    self.holds(made, (matrix * right).entries(), digits=12)
                inverse, condition = operations.inverse(a, size)
                self.holds(inverse, matrix.inv().entries(), digits=10)
                self.assertGreater(condition, 1)
                solved = operations.solution(a, b, size, 3)
                self.holds(solved, matrix.solve(right).entries(), digits=9)
                determinant = promoted(operations.determinant(a, size)).value
                self.assertTrue(determinant.overlaps(matrix.det()))
                self.assertGreater(determinant.rel_accuracy_bits(), 25)

    def test_totals_hold_exact_results(self) -> None:
        a = drawn(3, 2_000, 10**12, 10**6)
        with precision(BITS):
            exact = balls(a)
            whole = sum(exact, acb(0))
            self.assertTrue(promoted(operations.total(rounded(a))).value.contains(whole))
            self.assertTrue(whole.contains(ball_of(operations.total(a))))
            mean = whole / 2_000
            squares = sum((abs(number - mean) ** 2 for number in exact), arb(0))
            spread = operations.squares(operations.from_mean(a)).value
            self.assertTrue(spread.overlaps(squares))
            self.assertGreater(spread.rel_accuracy_bits(), 30)
            running = operations.running(a)
            self.assertTrue(promoted(running[1_999]).value.overlaps(whole))
            steps = operations.differences(a)
            self.assertTrue(ball_of(steps[7]).overlaps(exact[8] - exact[7]))

    def test_numbers_come_back_as_they_were_given(self) -> None:
        thirds = of_parts(fmpq(1, 3), fmpq(-2, 7))
        root = promoted(Ball(arb(2).sqrt()))
        made = from_scalars([thirds, root, Ball(arb(5), exact=fmpq(5))])
        assert isinstance(made, ComplexEntries)
        self.assertTrue(promoted(made[0]).value.overlaps(thirds.value))
        self.assertIsInstance(made[2], Ball)
        self.assertIsInstance(
            combined(made.real, from_common(np.zeros(3, np.int64))), BoundedEntries
        )
        self.assertIsNone(from_scalars([of_parts(fmpq(10**400), fmpq(1))]))


class StudyTest(unittest.TestCase):
    """Lists of 50,000 complex numbers and more in a study."""

    study: Study

    @classmethod
    def setUpClass(cls) -> None:
        cls.study = Study()
        cls.study.define("L = list(k, k, 1, 50000)")
        cls.study.define("F = matrix(exp(-2 pi i j k/210), j, 0, 209, k, 0, 209)")

    def test_functions_agree_with_those_of_single_numbers(self) -> None:
        functions: tuple[tuple[str, Callable[[complex], complex]], ...] = (
            ("exp(i L/1000)", lambda k: cmath.exp(1j * k / 1000)),
            ("e^(i L/1000)", lambda k: cmath.exp(1j * k / 1000)),
            ("sin(L/9999 + i)", lambda k: cmath.sin(k / 9999 + 1j)),
            ("cos(L/9999 + 2i)", lambda k: cmath.cos(k / 9999 + 2j)),
            ("ln(3 - L + i)", lambda k: cmath.log(3 - k + 1j)),
            ("sqrt(i L)", lambda k: cmath.sqrt(1j * k)),
            ("sqrt(-i L)", lambda k: cmath.sqrt(-1j * k)),
            ("(L + i)^3", lambda k: (k + 1j) ** 3),
            ("(L + i)^(-2)", lambda k: (k + 1j) ** -2),
            ("(2 + i)^(i L/50000)", lambda k: (2 + 1j) ** (1j * k / 50000)),
            ("1/(L + i)", lambda k: 1 / (k + 1j)),
            ("conj(L + 2i)", lambda k: k - 2j),
            ("re(L + 2i) - im(L + 2i)", lambda k: k - 2),
            ("arg(3 - L + i)", lambda k: cmath.phase(3 - k + 1j)),
            ("|L + i|", lambda k: abs(k + 1j)),
        )
        for text, function in functions:
            with self.subTest(text):
                values = self.study.evaluate(text).value
                for k in (1, 2, 3, 4, 77, 31_415, 50_000):
                    expected = function(k)
                    off = abs(values[k - 1] - expected)
                    self.assertLess(off, 1e-11 * max(1, abs(expected)), k)

    def test_whole_complex_numbers_stay_exact(self) -> None:
        total = self.study.evaluate("sum((2 + 3i) L)")
        self.assertEqual("2500050000 + 3750075000i", total.exact)
        self.assertEqual("4 + 6 i", self.study.evaluate("(2 + 3i) L").parts[1].decimal(DIGITS))
        self.assertEqual("16667i/2", self.study.evaluate("mean(i L/3)").exact)
        self.assertEqual("-3", self.study.evaluate("max(i (i (L + 2)))").exact)

    def test_the_matrix_of_a_discrete_fourier_transform_is_inverted_by_its_conjugate(self) -> None:
        back = self.study.evaluate("F F^-1")
        self.assertIn("both parts of every entry are accurate to within", back.remark)
        np.testing.assert_allclose(back.value, np.eye(210), atol=1e-8)
        size = self.study.evaluate("norm(F)")
        self.assertEqual("210.000000", size.decimal(9))
        turned = self.study.evaluate("F + F^T").value
        np.testing.assert_allclose(turned, 2 * self.study.evaluate("F").value, atol=1e-10)

    def test_what_is_uncertain_is_shown_with_its_bound(self) -> None:
        part = self.study.evaluate("(F F^-1)[1, 1]").decimal(DIGITS)
        self.assertRegex(part, r"^1\.0+ [+−] \(0 ± \d·10\^−\d+\) i$")

    def test_refusals_say_why(self) -> None:
        for text, words in (
            ("max(i L)", "complex numbers have no order"),
            ("sort(i L)", "complex numbers have no order"),
            ("list(1/(k - 7 + 0i), k, 1, 50000)", r"entry \[7\].*has no value"),
        ):
            with self.subTest(text), self.assertRaisesRegex(MathError, words):
                self.study.evaluate(text)

    def test_exact_parts_do_not_depend_on_the_way_they_are_computed(self) -> None:
        few = self.study.evaluate("list((k + 2i)^2/3, k, 1, 9)")
        many = self.study.evaluate("list((k + 2i)^2/3, k, 1, 50000)")
        for one, other, k in zip(few.parts, many.parts, range(1, 10), strict=False):
            real, imaginary = Fraction(k * k - 4, 3), Fraction(4 * k, 3)
            self.assertAlmostEqual(complex(real, imaginary), other.value, 14)
            self.assertEqual(one.decimal(DIGITS), other.decimal(DIGITS))


if __name__ == "__main__":
    unittest.main()
