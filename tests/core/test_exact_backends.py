"""Backends that compute without rounding, and reductions of matrices with roots, against others' work."""

import random
import unittest
from fractions import Fraction

import sympy

from axis_path.core import Study
from axis_path.core.arithmetic.arrays.array import matrix
from axis_path.core.arithmetic.arrays.echelon import reduce_rows
from axis_path.core.arithmetic.bounded.entries import MOST_EXACT
from tests.core.gauss import Gauss

ROUNDS = 12


class Terms:
    """Draws terms as texts of our language together with what computes them in plain Python."""

    def __init__(self, seed: int, leaves: dict[str, str]) -> None:
        self.drawn = random.Random(seed)  # noqa: S311 - terms, no secrets
        self.leaves = leaves

    def term(self, depth: int) -> tuple[str, str]:
        """Return a term, and the same as an expression of Python."""
        if depth == 0 or self.drawn.random() < 0.2:
            return self.drawn.choice(list(self.leaves.items()))
        kind = self.drawn.choice("+-*/^n")
        one, other = self.term(depth - 1)
        if kind == "n":
            return f"(-{one})", f"(-{other})"
        if kind == "^":
            power = self.drawn.randint(0, 3)
            return f"({one})^{power}", f"({other})**{power}"
        if kind == "/":
            bottom = self.drawn.choice((2, 3, -4, 7))
            return f"({one})/({bottom})", f"({other})/number({bottom})"
        second, same = self.term(depth - 1)
        return f"({one}) {kind} ({second})", f"({other}) {kind} ({same})"


class ColumnsTest(unittest.TestCase):
    """Terms of many whole numbers at once."""

    COUNT = 6_000

    def test_terms_of_many_numbers_are_exact_wherever_they_fit(self) -> None:
        # Called by nobody but Python's eval on texts made here.
        terms = Terms(11, {"k": "k", "2": "number(2)", "5": "number(5)", "1/3": "number(1)/3"})
        study, exact = Study(), 0
        for _ in range(ROUNDS):
            text, python = terms.term(3)
            value = study.evaluate(f"list({text}, k, 1, {self.COUNT})")
            for place in (1, 2, 77, self.COUNT):
                expected = eval(python, {"number": Fraction, "k": Fraction(place)})  # noqa: S307
                with self.subTest(text, place=place):
                    found = study.evaluate(f"list({text}, k, 1, {self.COUNT})[{place}]")
                    self.assertLessEqual(
                        abs(Fraction(float(value.value[place - 1])) - expected),
                        abs(expected) / 10**13,
                    )
                    if found.exact is not None:
                        exact += 1
                        self.assertEqual(expected, Fraction(found.exact))
                    else:
                        self.assertGreater(abs(expected) * 10**9, MOST_EXACT // 10**9)
        self.assertGreater(exact, ROUNDS)

    def test_steps_and_remainders_of_many_numbers(self) -> None:
        study = Study()
        for text, python in (
            ("mod(k^2, 7)", lambda k: k * k % 7),
            ("floor(k/3)", lambda k: k // 3),
            ("|k - 3000|", lambda k: abs(k - 3000)),
            ("k^3 - 2k", lambda k: k**3 - 2 * k),
            ("quotient(k, 4)", lambda k: k // 4),
        ):
            with self.subTest(text):
                total = study.evaluate(f"sum(list({text}, k, 1, {self.COUNT}))").exact
                self.assertEqual(str(sum(map(python, range(1, self.COUNT + 1)))), total)


class GaussianTest(unittest.TestCase):
    def test_terms_with_i_are_exact(self) -> None:
        terms = Terms(5, {
            "i": "Gauss(number(0), number(1))", "3": "Gauss(number(3))",
            "(1/2 - i)": "Gauss(number(1)/2, number(-1))", "z": "z",
        })  # fmt: skip
        study = Study()
        study.define("z = 2/3 + 5i/7")
        known = Gauss(Fraction(2, 3), Fraction(5, 7))

        def number(value: int) -> Fraction:
            return Fraction(value)

        for _ in range(ROUNDS):
            text, python = terms.term(3)
            expected = eval(  # noqa: S307
                python.replace("/number", "/Gauss(number").replace("/Gauss(number(", "/ngauss("),
                {
                    "Gauss": Gauss, "number": number, "z": known,
                    "ngauss": lambda value: Gauss(Fraction(value)),
                },
            )  # fmt: skip
            with self.subTest(text):
                # In a list the number is one of an object, and stays exact there.
                part = study.evaluate(f"[{text}, i]").parts[0]
                again = study.evaluate(f"({part.exact}) - ({text})")
                self.assertEqual("0", again.exact)
                self.assertAlmostEqual(complex(expected.re, expected.im), complex(part.value), 9)


class Radicals:
    """SymPy's numbers as an arithmetic for reductions."""

    def number(self, value: Fraction | int) -> sympy.Expr:
        return sympy.Rational(Fraction(value).numerator, Fraction(value).denominator)

    def add(self, a: sympy.Expr, b: sympy.Expr) -> sympy.Expr:
        return sympy.radsimp(sympy.expand(a + b))

    def subtract(self, a: sympy.Expr, b: sympy.Expr) -> sympy.Expr:
        return self.add(a, -b)

    def multiply(self, a: sympy.Expr, b: sympy.Expr) -> sympy.Expr:
        return sympy.radsimp(sympy.expand(a * b))

    def divide(self, a: sympy.Expr, b: sympy.Expr) -> sympy.Expr:
        return sympy.radsimp(sympy.expand(a / b))

    def negative(self, a: sympy.Expr) -> sympy.Expr:
        return -a

    def square_root(self, a: sympy.Expr) -> sympy.Expr:
        return sympy.sqrt(a)

    def squared_size(self, a: sympy.Expr) -> sympy.Expr:
        return self.multiply(a, a)

    def is_zero(self, a: sympy.Expr) -> bool:
        return bool(sympy.simplify(a) == 0)


class RootsTest(unittest.TestCase):
    def setUp(self) -> None:
        self.drawn = random.Random(31)  # noqa: S311 - entries, no secrets

    def surd(self) -> tuple[str, sympy.Expr]:
        a, b, d = self.drawn.randint(-3, 3), self.drawn.randint(-2, 2), self.drawn.choice((2, 3))
        return f"{a} + {b}sqrt({d})", a + b * sympy.sqrt(d)

    def test_reduced_forms_with_roots_are_those_of_sympy(self) -> None:
        for _ in range(6):
            height, width = self.drawn.randint(2, 3), self.drawn.randint(2, 4)
            entries = [[self.surd() for _ in range(width)] for _ in range(height)]
            if self.drawn.random() < 0.6:
                # A row that is a multiple of another by a root.
                entries[-1] = [
                    (f"(1 + sqrt(2)) ({text})", sympy.expand((1 + sympy.sqrt(2)) * value))
                    for text, value in entries[0]
                ]
            text = ", ".join(f"[{', '.join(cell for cell, _ in row)}]" for row in entries)
            expected, pivots = sympy.Matrix([[v for _, v in row] for row in entries]).rref(
                iszerofunc=lambda x: sympy.simplify(x) == 0, simplify=sympy.radsimp
            )
            study = Study()
            study.define(f"A = [{text}]")
            with self.subTest(text):
                self.assertEqual(str(len(pivots)), study.evaluate("rank(A)").exact)
                found = study.evaluate("rref(A)")
                for part, value in zip(found.parts, expected, strict=True):
                    shown = float(part.decimal(12).replace("−", "-"))
                    self.assertAlmostEqual(float(value), shown, 9)
                ours = reduce_rows(matrix([[v for _, v in row] for row in entries]), Radicals())
                self.assertEqual(list(pivots), ours.pivots)

    def test_determinant_0_is_seen(self) -> None:
        study = Study()
        for _ in range(8):
            (a, x), (b, y) = self.surd(), self.surd()
            if sympy.expand(x * y) == 0:
                continue
            # The second row is the first times a root.
            study.define(f"A = [[{a}, {b}], [sqrt(3) ({a}), sqrt(3) ({b})]]")
            with self.subTest(a=a, b=b):
                self.assertEqual("0", study.evaluate("det(A)").exact)
                self.assertEqual("1", study.evaluate("rank(A)").exact)
                self.assertIs(True, study.evaluate("A null_space(A) = [[0], [0]]").value)


if __name__ == "__main__":
    unittest.main()
