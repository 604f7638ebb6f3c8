"""Calculations with numbers, lists and matrices, against plain Python with fractions."""

import math
import random
import unittest
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from itertools import accumulate, pairwise
from typing import Any

import sympy
from hypothesis import given, settings
from hypothesis import strategies as st

from axis_path.core import MathError, Study
from tests.core import gauss
from tests.core.gauss import Gauss, Rows, Vector

#: Values in exact form as they stand in textbooks and tables.
TEXTBOOK = (
    ("sin(pi/10)", "(√5 - 1)/4"),
    ("(1+sqrt(5))/2", "(1 + √5)/2"),
    ("sqrt(5)/2+1/2", "(1 + √5)/2"),
    ("(1+i)^8", "16"),
    ("sqrt(3+4i)", "2 + i"),
    ("ln(e^3)", "3"),
    ("(-8)^(1/3)", "-2"),
    ("sqrt(12)", "2√3"),
    ("sqrt(50)/5", "√2"),
    ("1/sqrt(2)", "√2/2"),
    ("1/(1+sqrt(2))", "√2 - 1"),
    ("tan(pi/8)", "√2 - 1"),
    ("atan(1)", "π/4"),
    ("asin(1/2)", "π/6"),
    ("exp(i pi)", "-1"),
    ("e^(i pi/3)", "1/2 + i√3/2"),
    ("(2+3i)/(1-i)", "-1/2 + 5i/2"),
    ("|1+i|", "√2"),
    ("arg(-1)", "π"),
    ("(1/2+sqrt(3)/2 i)^3", "-1"),
    ("root(16,4)", "2"),
    ("27^(2/3)", "9"),
    ("log(8,2)", "3"),
    ("10!", "3628800"),
    ("binomial(10,3)", "120"),
    ("sin(pi/3)^2", "3/4"),
    ("cos(pi/5)", "(1 + √5)/4"),
    ("sqrt(2)*sqrt(3)", "√6"),
    ("(sqrt(2)+1)^2", "3 + 2√2"),
    ("sqrt(3+2sqrt(2))", "1 + √2"),
    ("acos(-1/2)", "2π/3"),
    ("2pi/3 + pi/6", "5π/6"),
    ("e^2 e^3", "e^5"),
    ("ln(8)/ln(2)", "3"),
    ("gamma(1/2)", "√π"),
    ("sum(1/k^2,k,1,3)", "49/36"),
    ("0.125", "1/8"),
    ("0.1+0.2", "3/10"),
    ("conj(2-3i)", "2 + 3i"),
    ("(3-4i)-(1-2i)", "2 - 2i"),
    ("1/i", "-i"),
    ("i^2025", "i"),
    ("sqrt(i)", "√2/2 + i√2/2"),
    ("re(e^(i pi/4))", "√2/2"),
    ("cosh(ln(2))", "5/4"),
    ("sinh(ln(3))", "4/3"),
    ("norm([1,1,1])", "√3"),
    ("sd([1,2,3,4])", "√15/3"),
    ("mean([sqrt(2),sqrt(8)])", "3√2/2"),
    ("[[1,1],[1,-1]]/sqrt(2)", "[[√2/2, √2/2], [√2/2, -√2/2]]"),
    ("eigenvalues([[2,1],[1,2]])", "[1, 3]"),
    ("eigenvalues([[0,2],[-3,0]])", "[-i√6, i√6]"),
    ("det([[cos(pi/6),-sin(pi/6)],[sin(pi/6),cos(pi/6)]])", "1"),
    ("[[cos(pi/6),-sin(pi/6)],[sin(pi/6),cos(pi/6)]]^12", "[[1, 0], [0, 1]]"),
    ("quantile([1,2,3,4],0.5)", "5/2"),
    ("-2^2", "-4"),
    ("2^-3", "1/8"),
    ("(1+2i)^-1", "1/5 - 2i/5"),
    ("pi/pi", "1"),
    ("(pi+1)^2 - pi^2 - 2pi", "1"),
    ("e^(2 ln 3)", "9"),
    ("ln(sqrt(e))", "1/2"),
    ("log10(1000)", "3"),
    ("3/4 + 2/3 i", "3/4 + 2i/3"),
    ("sqrt(2)+i sqrt(3)", "√2 + i√3"),
    ("(1+sqrt(2) i)/3", "1/3 + i√2/3"),
    ("quotient(17,5)", "3"),
    ("mod(-7,3)", "2"),
    ("gcd(84,36)", "12"),
    ("trace(identity(5))", "5"),
    ("rank(matrix(i j,i,1,4,j,1,4))", "1"),
    ("cross([1,0,0],[0,1,0])", "[0, 0, 1]"),
    ("list(k^2,k,1,5)", "[1, 4, 9, 16, 25]"),
    ("sum([1,2,3]^2)", "14"),
    ("sin(5pi/12)", "(√6 + √2)/4"),
    ("i^i", "e^(-π/2)"),
    ("ln(1+i)", "ln(2)/2 + πi/4"),
    ("solve([[sqrt(2),1],[1,sqrt(2)]],[1,0])", "[√2, -1]"),
    ("eigenvalues([[1,i],[i,2]])", "[3/2 - i√3/2, 3/2 + i√3/2]"),
    ("eigenvalues([[sqrt(2),1],[1,sqrt(2)]])", "[√2 - 1, 1 + √2]"),
    ("eigenvectors([[2,1],[1,1]])", "[[(1 - √5)/2, (1 + √5)/2], [1, 1]]"),
    ("eigenvectors([[2,-1,0],[-1,2,-1],[0,-1,2]])", "[[1, -1, 1], [√2, 0, -√2], [1, 1, 1]]"),
    ("list([k, 2k], k, 1, 3)", "[[1, 2], [2, 4], [3, 6]]"),
    ("list(sum(from 1 to k step 1), k, 1, 4)", "[1, 3, 6, 10]"),
    ("list([k, i k][2], k, 1, 3)", "[i, 2i, 3i]"),
    ("matrix(sum([i, j]), i, 1, 2, j, 1, 2)", "[[2, 3], [3, 4]]"),
    ("rref([[√2, 1, √3], [1, √2, 0]])", "[[1, 0, √6], [0, 1, -√3]]"),
    ("null_space([[√2, 2], [1, √2]])", "[[-√2], [1]]"),
    ("null_space([[pi, pi^2], [1, pi]])", "[[-π], [1]]"),
    ("rank([[√2, √3], [√6, 3]])", "1"),
    ("rank([[1 + √3, 2], [2, 2√3 - 2]])", "1"),
    ("4 - (2(1+√3)/(1+√3)^2) (2 (1+√3))", "0"),
    ("[(sqrt(8), 1/2), (3, pi)]", "[(2√2, 1/2), (3, π)]"),
)  # fmt: skip


@dataclass(frozen=True)
class Typed:
    """A text of the language in brackets of its own, and its value.

    Attributes:
        value: a Gauss, a tuple of them (a list), or a tuple of such tuples (a matrix).
    """

    text: str
    value: Any


def written(value: Any) -> str:
    """Return a value as its exact form is written."""
    if isinstance(value, Gauss):
        return value.text
    return f"[{', '.join(map(written, value))}]"


def typed(value: Any) -> str:
    """Return a value as somebody types it."""
    if isinstance(value, Gauss):
        if not value.im:
            return f"({value.re})"
        return f"({value.re} + ({value.im}) i)"
    return f"[{', '.join(map(typed, value))}]"


class Calculations:
    """Draws calculations whose value is known."""

    def __init__(self, seed: int, *, is_complex: bool) -> None:
        self._drawn = random.Random(seed)  # noqa: S311 - calculations, no secrets
        self._is_complex = is_complex

    def _value(self) -> Gauss:
        real = Fraction(self._drawn.randint(-6, 6), self._drawn.choice((1, 1, 2, 3)))
        return Gauss(real, Fraction(self._drawn.randint(-3, 3) if self._is_complex else 0))

    def _of(self, ways: list[Callable[[int], Typed]], depth: int) -> Typed:
        return self._drawn.choice(ways)(depth - 1)

    def number(self, depth: int) -> Typed:
        """Return a calculation of a number."""
        if depth <= 0:
            value = self._value()
            return Typed(typed(value), value)
        return self._of(
            [self._sum, self._product, self._quotient, self._square, self._conjugate, self._part,
             self._determinant, self._trace, self._total, self._entry, self._cell],
            depth,
        )  # fmt: skip

    def _two(self, depth: int) -> tuple[Typed, Typed]:
        return self.number(depth), self.number(depth)

    def _sum(self, depth: int) -> Typed:
        a, b = self._two(depth)
        if self._drawn.random() < 0.5:
            return Typed(f"({a.text} - {b.text})", a.value - b.value)
        return Typed(f"({a.text} + {b.text})", a.value + b.value)

    def _product(self, depth: int) -> Typed:
        a, b = self._two(depth)
        return Typed(f"({a.text} {b.text})", a.value * b.value)

    def _quotient(self, depth: int) -> Typed:
        a, b = self._two(depth)
        return a if b.value.is_zero else Typed(f"({a.text}/{b.text})", a.value / b.value)

    def _square(self, depth: int) -> Typed:
        a = self.number(depth)
        return Typed(f"({a.text}^2)", a.value * a.value)

    def _conjugate(self, depth: int) -> Typed:
        a = self.number(depth)
        return Typed(f"conj({a.text})", a.value.conjugate)

    def _part(self, depth: int) -> Typed:
        a = self.number(depth)
        name = self._drawn.choice(("re", "im"))
        return Typed(f"{name}({a.text})", Gauss(getattr(a.value, name)))

    def _determinant(self, depth: int) -> Typed:
        size = self._drawn.randint(1, 3)
        a = self.matrix(depth, size, size)
        return Typed(f"det({a.text})", gauss.determinant(a.value))

    def _trace(self, depth: int) -> Typed:
        a = self.matrix(depth, 2, 2)
        return Typed(f"trace({a.text})", a.value[0][0] + a.value[1][1])

    def _total(self, depth: int) -> Typed:
        a = self.list(depth, self._drawn.randint(1, 4))
        return Typed(f"sum({a.text})", gauss.total(a.value))

    def _entry(self, depth: int) -> Typed:
        a = self.list(depth, 3)
        return Typed(f"({a.text})[last - 1]", a.value[1])

    def _cell(self, depth: int) -> Typed:
        a = self.matrix(depth, 2, 3)
        return Typed(f"({a.text})[2, last]", a.value[1][2])

    def list(self, depth: int, length: int) -> Typed:
        """Return a calculation of a list."""
        if depth <= 0:
            value = tuple(self._value() for _ in range(length))
            return Typed(typed(value), value)
        ways: list[Callable[[int], Typed]] = [
            lambda d: self._list_sum(d, length), lambda d: self._scaled_list(d, length),
            lambda d: self._image(d, length), lambda d: self._reverse(d, length),
            lambda d: self._cumulative(d, length), lambda d: self._differences(d, length),
            lambda d: self._column(d, length), lambda d: self._segment(d, length),
            lambda d: self._replaced_list(d, length),
        ]  # fmt: skip
        return self._of(ways, depth)

    def _list_sum(self, depth: int, length: int) -> Typed:
        a, b = self.list(depth, length), self.list(depth, length)
        return Typed(f"({a.text} + {b.text})", tuple(map(Gauss.__add__, a.value, b.value)))

    def _scaled_list(self, depth: int, length: int) -> Typed:
        k, a = self.number(depth), self.list(depth, length)
        return Typed(f"({k.text} {a.text})", tuple(k.value * x for x in a.value))

    def _image(self, depth: int, length: int) -> Typed:
        a, v = self.matrix(depth, length, 2), self.list(depth, 2)
        made = gauss.times(a.value, gauss.transposed((v.value,)))
        return Typed(f"({a.text} {v.text})", tuple(row[0] for row in made))

    def _reverse(self, depth: int, length: int) -> Typed:
        a = self.list(depth, length)
        return Typed(f"reverse({a.text})", a.value[::-1])

    def _cumulative(self, depth: int, length: int) -> Typed:
        a = self.list(depth, length)
        return Typed(f"cumulative({a.text})", tuple(accumulate(a.value)))

    def _differences(self, depth: int, length: int) -> Typed:
        a = self.list(depth, length + 1)
        return Typed(f"differences({a.text})", tuple(q - p for p, q in pairwise(a.value)))

    def _column(self, depth: int, length: int) -> Typed:
        a = self.matrix(depth, length, 2)
        return Typed(f"({a.text})[all, 2]", tuple(row[1] for row in a.value))

    def _segment(self, depth: int, length: int) -> Typed:
        a = self.list(depth, length + 2)
        return Typed(f"({a.text})[2 to last - 1]", a.value[1:-1])

    def _replaced_list(self, depth: int, length: int) -> Typed:
        a, b = self.list(depth, length), self.number(depth)
        return Typed(f"({a.text} with [1] = {b.text})", (b.value, *a.value[1:]))

    def matrix(self, depth: int, rows: int, columns: int) -> Typed:
        """Return a calculation of a matrix."""
        if depth <= 0:
            value = tuple(tuple(self._value() for _ in range(columns)) for _ in range(rows))
            return Typed(typed(value), value)
        shape = (rows, columns)
        ways: list[Callable[[int], Typed]] = [
            lambda d: self._matrix_sum(d, *shape), lambda d: self._matrix_product(d, *shape),
            lambda d: self._hadamard(d, *shape), lambda d: self._transpose(d, *shape),
            lambda d: self._divided(d, *shape), lambda d: self._replaced_row(d, *shape),
        ]  # fmt: skip
        if columns > 1:
            ways.append(lambda d: self._joined(d, *shape))
        if rows > 1:
            ways.append(lambda d: self._stacked(d, *shape))
        if rows == columns:
            ways.append(lambda d: self._inverse(d, rows))
        return self._of(ways, depth)

    def _matrix_sum(self, depth: int, rows: int, columns: int) -> Typed:
        a, b = self.matrix(depth, rows, columns), self.matrix(depth, rows, columns)
        return Typed(f"({a.text} - {b.text})", gauss.entrywise(Gauss.__sub__, a.value, b.value))

    def _matrix_product(self, depth: int, rows: int, columns: int) -> Typed:
        inner = self._drawn.randint(1, 3)
        a, b = self.matrix(depth, rows, inner), self.matrix(depth, inner, columns)
        return Typed(f"({a.text} {b.text})", gauss.times(a.value, b.value))

    def _hadamard(self, depth: int, rows: int, columns: int) -> Typed:
        a, b = self.matrix(depth, rows, columns), self.matrix(depth, rows, columns)
        return Typed(f"({a.text} ∘ {b.text})", gauss.entrywise(Gauss.__mul__, a.value, b.value))

    def _transpose(self, depth: int, rows: int, columns: int) -> Typed:
        a = self.matrix(depth, columns, rows)
        return Typed(f"({a.text})^T", gauss.transposed(a.value))

    def _divided(self, depth: int, rows: int, columns: int) -> Typed:
        a, k = self.matrix(depth, rows, columns), self.number(depth)
        if k.value.is_zero:
            return a
        return Typed(f"({a.text}/{k.text})", tuple(tuple(x / k.value for x in r) for r in a.value))

    def _replaced_row(self, depth: int, rows: int, columns: int) -> Typed:
        a, v = self.matrix(depth, rows, columns), self.list(depth, columns)
        return Typed(f"({a.text} with [last, all] = {v.text})", (*a.value[:-1], v.value))

    def _joined(self, depth: int, rows: int, columns: int) -> Typed:
        a, b = self.matrix(depth, rows, 1), self.matrix(depth, rows, columns - 1)
        value = tuple(p + q for p, q in zip(a.value, b.value, strict=True))
        return Typed(f"beside({a.text}, {b.text})", value)

    def _stacked(self, depth: int, rows: int, columns: int) -> Typed:
        a, b = self.matrix(depth, 1, columns), self.matrix(depth, rows - 1, columns)
        return Typed(f"above({a.text}, {b.text})", a.value + b.value)

    def _inverse(self, depth: int, size: int) -> Typed:
        a = self.matrix(depth, size, size)
        if gauss.determinant(a.value).is_zero:
            return a
        return Typed(f"({a.text})^-1", gauss.inverse(a.value))


class CalculationsTest(unittest.TestCase):
    """Values and exact forms of calculations that nobody prepared."""

    def check(self, calculation: Typed) -> None:
        if len(calculation.text) > 1500:
            return
        result = Study().evaluate(calculation.text)
        self.assertEqual(written(calculation.value), result.exact, calculation.text)

    @settings(max_examples=150, deadline=None, derandomize=True)
    @given(st.integers(0, 10**9), st.integers(1, 3), st.sampled_from(("number", "list", "matrix")))
    def test_real_ones(self, seed: int, depth: int, kind: str) -> None:
        self.check(self.draw(Calculations(seed, is_complex=False), depth, kind))

    @settings(max_examples=100, deadline=None, derandomize=True)
    @given(st.integers(0, 10**9), st.integers(1, 2), st.sampled_from(("number", "list", "matrix")))
    def test_complex_ones(self, seed: int, depth: int, kind: str) -> None:
        self.check(self.draw(Calculations(seed, is_complex=True), depth, kind))

    def draw(self, drawn: Calculations, depth: int, kind: str) -> Typed:
        if kind == "number":
            return drawn.number(depth)
        return drawn.list(depth, 3) if kind == "list" else drawn.matrix(depth, 2, 3)

    def test_named_parts_give_the_same_in_every_order(self) -> None:
        """Each part of a calculation becomes a line of its own; the lines are shuffled."""
        drawn = random.Random(31)  # noqa: S311 - an order, no secret
        for seed in range(20):
            made = Calculations(seed, is_complex=False)
            a, b, v = made.matrix(1, 2, 3), made.matrix(1, 3, 2), made.list(1, 2)
            lines = [f"A = {a.text}", f"B = {b.text}", f"v = {v.text}", "C = A B", "w = C v"]
            drawn.shuffle(lines)
            study = Study()
            for line in lines:
                study.define(line)
            product = gauss.times(a.value, b.value)
            image: Rows = gauss.times(product, gauss.transposed((v.value,)))
            column: Vector = tuple(row[0] for row in image)
            with self.subTest(lines):
                self.assertEqual(written(product), study.value("C").exact)
                self.assertEqual(written(column), study.value("w").exact)


class TextbookTest(unittest.TestCase):
    def test_exact_forms_are_written_as_in_print_and_read_back(self) -> None:
        study = Study()
        for text, exact in TEXTBOOK:
            with self.subTest(text):
                self.assertEqual(exact, study.evaluate(text).exact)
                if not text.startswith("factor"):
                    self.assertEqual(exact, study.evaluate(exact).exact)

    def test_singular_matrices_with_roots_have_no_inverse(self) -> None:
        study = Study()
        study.define("A = [[√2, 2], [1, √2]]")
        for text, words in (
            ("A^-1", "the determinant is 0"),
            ("[[i, 1], [-1, i]]^-1", "the determinant is 0"),
            ("solve(A, [√2, 1])", "more than one solution"),
            ("solve(A, [1, 1])", "contradict each other"),
        ):
            with self.subTest(text), self.assertRaisesRegex(MathError, words):
                study.evaluate(text)


class WholeNumbersTest(unittest.TestCase):
    """Functions of whole numbers against their definitions."""

    def setUp(self) -> None:
        self.study = Study()

    def exact(self, text: str) -> str:
        exact = self.study.evaluate(text).exact
        assert exact is not None, text
        return exact

    def test_primes_factors_and_divisors(self) -> None:
        drawn = random.Random(360)  # noqa: S311 - numbers, no secrets
        for number in [*range(1, 60), *(drawn.randint(60, 10**9) for _ in range(25)), 2**61 - 1]:
            with self.subTest(number):
                self.assertEqual(
                    sympy.isprime(number), self.study.evaluate(f"is_prime({number})").value
                )
                self.assertEqual(str(sympy.nextprime(number)), self.exact(f"next_prime({number})"))
                if number > 1:
                    parts = sympy.factorint(number).items()
                    powers = "·".join(f"{p}^{n}" if n > 1 else str(p) for p, n in parts)
                    self.assertEqual(powers, self.exact(f"factor({number})"))
                if number < 10**6:
                    divisors = [d for d in range(1, number + 1) if number % d == 0]
                    self.assertEqual(f"{divisors}", self.exact(f"divisors({number})"))

    def test_counting_and_division(self) -> None:
        for n in range(9):
            for k in range(n + 3):
                with self.subTest(n=n, k=k):
                    self.assertEqual(str(math.comb(n, k)), self.exact(f"binomial({n}, {k})"))
                    self.assertEqual(str(math.perm(n, k)), self.exact(f"permutations({n}, {k})"))
        for a in (-17, -6, 0, 5, 42, 10**30 + 1):
            for b in (-4, 3, 12, 10**15):
                with self.subTest(a=a, b=b):
                    self.assertEqual(str(math.gcd(a, b)), self.exact(f"gcd({a}, {b})"))
                    self.assertEqual(str(math.lcm(a, b)), self.exact(f"lcm({a}, {b})"))
                    whole, rest = (
                        int(self.exact(f"quotient({a}, {b})")),
                        int(self.exact(f"mod({a}, {b})")),
                    )
                    self.assertEqual(a, whole * b + rest)

    def test_bad_numbers_are_refused_in_words(self) -> None:
        for text in ("factor(1.5.2)", "factor(sqrt(2))", "divisors(1/2)", "next_prime(2.5)",
                     "permutations(-1, 2)", "is_prime(i)", "quotient(5, 0)"):  # fmt: skip
            with self.subTest(text):
                try:
                    reason = self.study.evaluate(text).reason
                except MathError as err:
                    reason = err.message
                self.assertGreater(len(reason), 8)
