"""Large lists and matrices: every bound holds the exact number, every digit shown is right."""

import unittest

import numpy as np
from flint import arb, fmpq, fmpq_mat, fmpz_mat

from axis_path.core import MathError, Study
from axis_path.core.arithmetic.bounded import entrywise, linear, operations, totals
from axis_path.core.arithmetic.bounded.entries import BoundedEntries, from_common
from axis_path.core.arithmetic.precision import precision

SIZE = 205
DIGITS = 12


def drawn(seed: int, count: int, most: int, bottom: int = 1) -> BoundedEntries:
    numbers = np.random.default_rng(seed).integers(-most, most, count, dtype=np.int64)
    return from_common(numbers, bottom)


def fractions(entries: BoundedEntries) -> list[fmpq]:
    exact = entries.exact
    assert exact is not None
    return [fmpq(int(top), exact.denominator) for top in exact.numerators]


def rounded(entries: BoundedEntries) -> BoundedEntries:
    """Return the same numbers as floats, not known as fractions any longer."""
    return BoundedEntries(entries.middles, entries.bounds)


class BoundsTest(unittest.TestCase):
    def holds(self, made: BoundedEntries, exact: list[fmpq], *, digits: int) -> None:
        for index, number in enumerate(exact):
            value = made[index].value
            self.assertTrue(value.contains(arb(number)) or abs(value - number).contains(0), index)
        errors, largest = made.radii.max(), np.abs(made.middles).max()
        self.assertLess(errors, largest * 10.0**-digits)

    def test_operations_hold_exact_results(self) -> None:
        for seed in range(6):
            a, b = drawn(seed, 300, 10**12, 7919), drawn(seed + 50, 300, 10**9, 10**6)
            for name, operation in (
                ("add", fmpq.__add__), ("subtract", fmpq.__sub__),
                ("multiply", fmpq.__mul__), ("divide", fmpq.__truediv__),
            ):  # fmt: skip
                exact = list(map(operation, fractions(a), fractions(b)))
                with self.subTest(seed=seed, operation=name):
                    made = getattr(entrywise, name)(rounded(a), rounded(b))
                    self.holds(made, exact, digits=13)
                    known = getattr(entrywise, name)(a, b)
                    if known.exact is not None:
                        self.assertEqual([ball.exact for ball in known], exact)

    def test_products_hold_exact_results(self) -> None:
        for seed, most in ((1, 9), (2, 10**6), (3, 10**14)):
            shape = (40, 60, 30)
            a, b = drawn(seed, 2400, most, 3), drawn(seed + 9, 1800, most, 10**3)
            exact = fmpq_mat(40, 60, fractions(a)) * fmpq_mat(60, 30, fractions(b))
            with self.subTest(most=most):
                for one, other in ((a, b), (rounded(a), rounded(b))):
                    made = operations.product(one, other, shape)
                    assert isinstance(made, BoundedEntries)
                    self.holds(made, exact.entries(), digits=11)
                    is_exact = one.exact is not None and most < 10**7
                    self.assertEqual(made.exact is not None, is_exact)

    def test_inverses_and_solutions_hold_exact_results(self) -> None:
        for seed in range(3):
            a, b = drawn(seed, 900, 50, 7), drawn(seed + 20, 60, 50)
            exact = fmpq_mat(30, 30, fractions(a))
            with self.subTest(seed=seed):
                inverse, _ = operations.inverse(a, 30)
                assert isinstance(inverse, BoundedEntries)
                self.holds(inverse, exact.inv().entries(), digits=9)
                made = operations.solution(a, b, 30, 2)
                assert isinstance(made, BoundedEntries)
                self.holds(made, exact.solve(fmpq_mat(30, 2, fractions(b))).entries(), digits=9)
                with precision(100):
                    determinant = linear.determinant(a, 30)
                self.assertTrue(determinant.contains(arb(exact.det())))
                self.assertGreater(determinant.rel_accuracy_bits(), 25)

    def test_singular_matrices_are_never_inverted(self) -> None:
        for size in (2, 5, 20, 60):
            rows = np.random.default_rng(size).integers(-9, 9, (size, size), dtype=np.int64)
            rows[-1] = rows[:-1].sum(axis=0)
            for solve in (linear.inverse, linear.determinant):
                with (
                    self.subTest(size=size, solve=solve.__name__),
                    precision(100),
                    self.assertRaises(linear.NotProvedError),
                ):
                    solve(from_common(rows.ravel(), 7), size)

    def test_totals_hold_exact_results(self) -> None:
        for seed in range(4):
            a = drawn(seed, 3000, 10**15, 10**15)
            exact = fractions(a)
            mean = sum(exact, fmpq(0)) / 3000
            squares = sum(((x - mean) ** 2 for x in exact), fmpq(0))
            with self.subTest(seed=seed), precision(100):
                self.assertEqual(totals.total(a).exact, sum(exact, fmpq(0)))
                self.assertTrue(totals.total(rounded(a)).value.contains(arb(sum(exact, fmpq(0)))))
                self.assertTrue(
                    operations.squares(operations.from_mean(a)).value.contains(arb(squares))
                )
                running = totals.running(rounded(a))
                self.assertTrue(running[2999].value.contains(arb(sum(exact, fmpq(0)))))
                in_order = sorted(exact)
                self.assertEqual([ball.exact for ball in totals.in_order(a)], in_order)
                for ball, number in zip(totals.in_order(rounded(a)), in_order, strict=True):
                    self.assertTrue(ball.value.contains(arb(number)))


class LargeStudyTest(unittest.TestCase):
    study: Study
    b: fmpz_mat

    @classmethod
    def setUpClass(cls) -> None:
        cls.study = Study()
        cls.study.define(f"A = random({SIZE}, {SIZE})")
        cls.study.define(f"B = matrix(mod(i^2 + 3i j - j, 17) - 8, i, 1, {SIZE}, j, 1, {SIZE})")
        entries = [
            [(i * i + 3 * i * j - j) % 17 - 8 for j in range(1, SIZE + 1)]
            for i in range(1, SIZE + 1)
        ]
        cls.b = fmpz_mat(entries)

    def test_whole_numbers_stay_exact(self) -> None:
        result = self.study.evaluate("B B")
        self.assertEqual(
            result.value.tolist(), [[int(x) for x in row] for row in (self.b * self.b).tolist()]
        )
        self.assertEqual(self.study.evaluate("(B B)[3, 4]").exact, str((self.b * self.b)[2, 3]))
        self.assertEqual(
            self.study.evaluate("trace(B)").exact, str(sum(int(self.b[k, k]) for k in range(SIZE)))
        )
        self.assertEqual(
            self.study.evaluate("sum(list(k^2, k, 1, 100000))").exact, "333338333350000"
        )
        self.assertEqual(self.study.evaluate("mean(from 0 to 1 in 100001 points)").exact, "1/2")

    def test_random_matrix_is_the_same_drawn_in_parts(self) -> None:
        entry = self.study.evaluate("A[1, 1]").exact
        self.assertIsNotNone(entry)
        self.assertEqual(self.study.evaluate("(A^T)[1, 1]").exact, entry)
        self.assertEqual(self.study.evaluate("(A with [2, all] = 0)[1, 1]").exact, entry)

    def test_inverse_states_its_error(self) -> None:
        inverse = self.study.evaluate("A^-1")
        self.assertIn("every entry is accurate to within", inverse.remark)
        back = self.study.evaluate("A A^-1").value
        np.testing.assert_allclose(back, np.eye(SIZE), atol=1e-9)
        self.assertRegex(
            self.study.evaluate("(A A^-1)[1, 2]").decimal(DIGITS), r"^0 ± \d·10\^−\d+$"
        )
        self.assertEqual(self.study.evaluate("rank(A)").exact, str(SIZE))

    def test_scale_of_the_limit(self) -> None:
        self.study.define("G = random(1000, 1000)")
        self.assertEqual(self.study.evaluate("G").value.shape, (1000, 1000))
        self.assertEqual(self.study.evaluate("G^-1").value.shape, (1000, 1000))
        with self.assertRaisesRegex(MathError, "1,000 by 1,000"):
            self.study.evaluate("random(1001, 1)")

    def test_refusals_say_why(self) -> None:
        for text, words in (
            ("(B - B)^-1", "could not be decided whether"),
            (f"matrix(1/(i - j), i, 1, {SIZE}, j, 1, {SIZE})", r"entry \[1, 1\].*has no value"),
            ("(10^400 A)^-1", "above 10\\^308"),
            ("(10^200 A) (10^200 A)", "too large"),
            ("A + [[1]]", "do not fit|shape"),
        ):
            with self.subTest(text), self.assertRaisesRegex(MathError, words):
                self.study.evaluate(text)

    def test_ill_conditioned_inverse_says_so(self) -> None:
        study = Study()
        study.define("H = matrix(1/(i + j - 1), i, 1, 9, j, 1, 9)")
        self.assertIn("ill-conditioned", study.evaluate("H^-1").remark)
        self.assertNotIn("ill-conditioned", study.evaluate("[[2, 1], [1, 3]]^-1").remark)


if __name__ == "__main__":
    unittest.main()
