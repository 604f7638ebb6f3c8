"""Digits of numeric matrices, lists and complex numbers against mpmath with many more digits."""

import random
import unittest
from collections.abc import Callable
from typing import Any
from unittest import mock

import mpmath

from axis_path.core import MathError, Study
from axis_path.core.evaluate import Result, ResultKind
from axis_path.core.evaluate.exact import exact_pool

DIGITS = 30
#: Entries without an exact form that is kept, and the same for mpmath.
ENTRIES: tuple[tuple[str, Callable[[], Any]], ...] = (
    ("sin(1)", lambda: mpmath.sin(1)),
    ("e^(1/3)", lambda: mpmath.exp(mpmath.mpf(1) / 3)),
    ("ln(7)", lambda: mpmath.log(7)),
    ("-pi^2", lambda: -(mpmath.pi**2)),
    ("cos(2)/5", lambda: mpmath.cos(2) / 5),
    ("gamma(1/3)", lambda: mpmath.gamma(mpmath.mpf(1) / 3)),
    ("3", lambda: mpmath.mpf(3)),
    ("-1/7", lambda: -mpmath.mpf(1) / 7),
    ("tan(3)", lambda: mpmath.tan(3)),
    ("atan(5)", lambda: mpmath.atan(5)),
)


def number(result: Result) -> Any:
    """Return the decimal of a result as a number of mpmath."""
    if result.kind is ResultKind.COMPLEX:
        return mpmath.mpc(*map(number, result.parts))
    return mpmath.mpf(result.decimal(DIGITS).replace("−", "-").replace("·10^", "e"))


class DigitsTest(unittest.TestCase):
    def setUp(self) -> None:
        self.drawn = random.Random(1729)  # noqa: S311 - entries, no secrets
        self.enterContext(mpmath.workdps(90))

    def matrix(self, rows: int, columns: int) -> tuple[str, Any]:
        """Draw a matrix as a text and as one of mpmath."""
        entries = [[self.drawn.choice(ENTRIES) for _ in range(columns)] for _ in range(rows)]
        text = ", ".join(f"[{', '.join(name for name, _ in row)}]" for row in entries)
        return f"[{text}]", mpmath.matrix([[make() for _, make in row] for row in entries])

    def check(self, expected: list[Any], result: Result) -> None:
        """Check each digit: no value is off by more than half a unit of its last one."""
        is_one = result.kind in (ResultKind.NUMBER, ResultKind.COMPLEX)
        parts = (result,) if is_one else result.parts
        self.assertEqual(len(expected), len(parts))
        for value, part in zip(expected, parts, strict=True):
            size = max(abs(value), mpmath.mpf(10) ** -60)
            self.assertLess(abs(number(part) - value) / size, mpmath.mpf(10) ** (1 - DIGITS))

    def test_determinants_inverses_products_and_solutions(self) -> None:
        for size in (2, 3, 5, 8):
            (a_text, a), (b_text, b) = self.matrix(size, size), self.matrix(size, 2)
            study = Study()
            study.define(f"A = {a_text}")
            study.define(f"B = {b_text}")
            try:
                inverse = a**-1
            except ZeroDivisionError:
                self.assertRaises(MathError, study.evaluate, "A^-1")
                continue
            with self.subTest(a_text):
                self.check([mpmath.det(a)], study.evaluate("det(A)"))
                self.check(list(inverse), study.evaluate("A^-1"))
                self.check(list(a * b), study.evaluate("A B"))
                self.check(list(inverse * b), study.evaluate("solve(A, B)"))
                self.check(list((a * b).T), study.evaluate("(A B)^T"))

    def test_no_form_is_sought_before_it_is_asked_for(self) -> None:
        """To look for a form takes seconds for each entry: the digits must not wait for it."""
        study = Study()
        study.define("A = [[tan(3), gamma(1/3)], [-pi^2, ln(7)]]")
        with mock.patch.object(exact_pool, "run_limited", side_effect=AssertionError):
            for text in ("A^-1", "solve(A, [1, 2])", "A A^T", "det(A)", "eigenvalues(A)"):
                self.assertNotIn("undefined", study.evaluate(text).decimal(20), text)
            self.assertRaises(AssertionError, lambda: study.evaluate("A^-1").exact)

    def test_eigenvalues_are_all_there_and_right(self) -> None:
        for size in (2, 3, 4, 6):
            text, a = self.matrix(size, size)
            values = mpmath.eig(a, left=False, right=False)
            ordered = sorted(values, key=lambda z: (mpmath.re(z), mpmath.im(z)))
            with self.subTest(text):
                result = Study().evaluate(f"eigenvalues({text})")
                self.assertEqual(size, len(result.parts))
                for part in result.parts:
                    shown = number(part)
                    nearest = min(ordered, key=lambda z, to=shown: abs(z - to))  # type: ignore[misc]
                    self.assertLess(
                        abs(nearest - shown) / abs(nearest), mpmath.mpf(10) ** (1 - DIGITS)
                    )
                    ordered.remove(nearest)

    def test_statistics_of_lists(self) -> None:
        chosen = [self.drawn.choice(ENTRIES) for _ in range(9)]
        numbers = [make() for _, make in chosen]
        study = Study()
        study.define(f"L = [{', '.join(name for name, _ in chosen)}]")
        mean = mpmath.fsum(numbers) / 9
        variance = mpmath.fsum((x - mean) ** 2 for x in numbers) / 8
        for text, expected in (
            ("mean(L)", mean), ("variance(L)", variance), ("sd(L)", mpmath.sqrt(variance)),
            ("sd(L, population)", mpmath.sqrt(variance * 8 / 9)), ("median(L)", sorted(numbers)[4]),
            ("norm(L)", mpmath.sqrt(mpmath.fsum(x * x for x in numbers))),
            ("product(L)", mpmath.fprod(numbers)), ("max(L)", max(numbers)), ("min(L)", min(numbers)),
        ):  # fmt: skip
            with self.subTest(text):
                self.check([expected], study.evaluate(text))

    def test_complex_functions(self) -> None:
        z = mpmath.mpc(-1.5, 0.75)
        for text, expected in (
            ("exp(z)", mpmath.exp(z)), ("ln(z)", mpmath.log(z)), ("sqrt(z)", mpmath.sqrt(z)),
            ("sin(z)", mpmath.sin(z)), ("atan(z)", mpmath.atan(z)), ("acosh(z)", mpmath.acosh(z)),
            ("z^z", mpmath.power(z, z)), ("z^(1/5)", mpmath.power(z, mpmath.mpf(1) / 5)),
            ("tanh(z)", mpmath.tanh(z)), ("asin(z)", mpmath.asin(z)), ("z^-3", z**-3),
            ("|z|", abs(z)), ("arg(z)", mpmath.arg(z)), ("log(z, 2)", mpmath.log(z) / mpmath.log(2)),
        ):  # fmt: skip
            with self.subTest(text):
                study = Study()
                study.define("z = -1.5 + 0.75 i")
                self.check([expected], study.evaluate(text))

    def test_an_ill_conditioned_inverse_keeps_its_digits(self) -> None:
        """The condition of this matrix is 10^16: floats have no right digit of its inverse."""
        study = Study()
        study.define("H = matrix(1/(i + j - 1) + 0 sin(1), i, 1, 12, j, 1, 12)")
        exact = mpmath.inverse(mpmath.hilbert(12))
        self.check([exact[0, 0], exact[11, 11]], study.evaluate("[(H^-1)[1, 1], (H^-1)[12, 12]]"))


if __name__ == "__main__":
    unittest.main()
