"""Lists, matrices, complex and whole numbers: values, exact forms, and shapes that do not fit."""

import random
import unittest
from fractions import Fraction
from typing import Any

import numpy as np

from axis_path.core import MathError, Study, Window
from axis_path.core.algebra import apply_operation, read_operation, reduce_rows
from axis_path.core.evaluate import ResultKind
from axis_path.core.features.random.commands import DrawAgain

WINDOW = Window((-10, 10), (-7, 7), 200, 120)
#: Exact values, some from textbooks: the determinant of a Hilbert matrix, Fibonacci numbers.
EXACT = (
    ("[1, 4, 9][2]", "4"),
    ("[1, 4, 9][last - 1]", "4"),
    ("[1, 4, 9, 16][2 to last]", "[4, 9, 16]"),
    ("M[2, 1]", "3"),
    ("M[all, 1]", "[1, 3]"),
    ("M[1 to 2, 2 to last]", "[[2], [4]]"),
    ("M with [2, 1] = 0", "[[1, 2], [0, 4]]"),
    ("M with [1, all] = [7, 8] and [2, 2] = 0", "[[7, 8], [3, 0]]"),
    ("M M", "[[7, 10], [15, 22]]"),
    ("M ∘ M", "[[1, 4], [9, 16]]"),
    ("M^T", "[[1, 3], [2, 4]]"),
    ("M^-1", "[[-2, 1], [3/2, -1/2]]"),
    ("|M|", "-2"),
    ("M [1, 1]", "[3, 7]"),
    ("[1, 1]^T M", "[[4, 6]]"),
    ("[[1, 1], [1, 0]]^30", "[[1346269, 832040], [832040, 514229]]"),
    ("det(matrix(1/(i + j - 1), i, 1, 6, j, 1, 6))", "1/186313420339200000"),
    ("[[√2, 1], [1, √2]]^-1", "[[√2, -1], [-1, √2]]"),
    ("det([[√2, 2], [1, √2]])", "0"),
    ("solve([[2, 1], [1, 3]], [3, 5])", "[4/5, 7/5]"),
    ("rref([[1, 2, 3], [4, 5, 6]])", "[[1, 0, -1], [0, 1, 2]]"),
    ("rank([[1, 2], [2, 4]])", "1"),
    ("null_space([[1, 2], [2, 4]])", "[[-2], [1]]"),
    ("eigenvalues([[1, 1], [1, 0]])", "[(1 - √5)/2, (1 + √5)/2]"),
    ("eigenvalues([[0, -1], [1, 0]])", "[-i, i]"),
    ("eigenvectors([[2, 0, 0], [0, 3, 4], [0, 4, 9]])", "[[0, 1, 0], [-2, 0, 1], [1, 0, 2]]"),
    ("norm([1, 2, 3])", "√14"),
    ("cross([1, 2, 3], [4, 5, 6])", "[-3, 6, -3]"),
    ("trace(M M)", "29"),
    ("beside(M, [5, 6])", "[[1, 2, 5], [3, 4, 6]]"),
    ("above(M, [5, 6])", "[[1, 2], [3, 4], [5, 6]]"),
    ("mean([1, 4, 9])", "14/3"),
    ("sd([2, 4, 4, 4, 5, 5, 7, 9], population)", "2"),
    ("variance([1, 2, 4])", "7/3"),
    ("median([7, 2, 3, 10])", "5"),
    ("quantile([1, 2, 4, 8], 1/4)", "7/4"),
    ("correlation([1, 2, 3], [2, 4, 6])", "1"),
    ("sort([3, -1, 1/2])", "[-1, 1/2, 3]"),
    ("cumulative([1, 4, 9])", "[1, 5, 14]"),
    ("differences([1, 4, 9])", "[3, 5]"),
    ("sum(from 1 to 100 step 1)", "5050"),
    ("sum(M[k, k], k, 1, 2)", "5"),
    ("max([3, 8, 5])", "8"),
    ("gcd([12, 18, 30])", "6"),
    ("[[1, i], [i, 1]]^-1", "[[1/2, -i/2], [-i/2, 1/2]]"),
    ("conj(3 + 4i)", "3 - 4i"),
    ("re((1 + 2i)^2)", "-3"),
    ("arg(1 + i)", "π/4"),
    ("factor(360)", "2^3·3^2·5"),
    ("factor(-12/35)", "-2^2·3/(5·7)"),
    ("divisors(12)", "[1, 2, 3, 4, 6, 12]"),
    ("next_prime(10^12)", "1000000000039"),
    ("permutations(5, 2)", "20"),
    ("quotient(-7, 2)", "-4"),
    ("count([1, 4])", "2"),
    ("hadamard(M, M)", "[[1, 4], [9, 16]]"),
    ("rows(M) columns(M)", "4"),
    ("reverse([1, 4, 9])", "[9, 4, 1]"),
    ("identity(2)", "[[1, 0], [0, 1]]"),
    ("lcm([4, 6])", "12"),
    ("product([2, 3, 7])", "42"),
    ("dot([1, 2], [3, 4])", "11"),
    ("im(3 + 4i)", "4"),
    ("min([3, 8, 5])", "3"),
    ("20% 50", None),
    ("20% · 50", "10"),
)  # fmt: skip
#: What has no meaning, and words of the reason.
REFUSED = (
    ("M [1, 2, 3]", "2 by 2 matrix times a list of 3"),
    ("M + 1", "identity"),
    ("M + [[1, 2, 3]]", "a 2 by 2 matrix and a 1 by 3 matrix"),
    ("1/M", "A^-1"),
    ("[[1, 2], [3]]", "Row 1 has 2 entries, and row 2 has 1 entry"),
    ("M[3, 1]", "no row 3: the rows are numbered 1 to 2"),
    ("M[1]", "two indices"),
    ("M[1.5, 1]", "whole number; this is 3/2"),
    ("[1, 4][3]", "no entry 3"),
    ("[[1, 2], [2, 4]]^-1", "row 2 is 2 times row 1"),
    ("[[1, 2, 3], [4, 5, 6], [7, 8, 9]]^-1", "the determinant is 0"),
    ("[[1, 2, 3]]^2", "square matrix, but this is a 1 by 3 matrix"),
    ("solve([[1, 1], [1, 1]], [1, 2])", "no solution"),
    ("solve([[1, 1], [2, 2]], [1, 2])", "more than one solution"),
    ("dot([1, 2], [1, 2, 3])", "a list of 2 and a list of 3"),
    ("sin(M)", "for each entry of a matrix"),
    ("sort([1, i])", "complex numbers have no order"),
    ("det([1, 2])", "square matrix, but this is a list of 2"),
    ("variance([1])", "at least two entries"),
    ("identity(2000)", "The limit is 1,000 by 1,000"),
    ("is_prime(1/2)", "whole number"),
    ("7 % 3", "mod(7, 3)"),
    ("max(2)", "needs 2 values and was given 1"),
)
STATEMENTS = (
    ("M M^-1 = identity(2)", True),
    ("M ∘ M = M M", False),
    ("[1, 2] = [1, 2, 3]", False),
    ("sqrt(2) sqrt(2) = 2", True),
    ("1 < sqrt(2) <= 2", True),
    ("is_prime(2^31 - 1)", True),
    ("i^2 = -1", True),
)


def build(*lines: str) -> Study:
    study = Study()
    for line in lines:
        study.define(line)
    return study


class ValuesTest(unittest.TestCase):
    def test_exact_values(self) -> None:
        study = build("M = [[1, 2], [3, 4]]")
        for text, exact in EXACT:
            with self.subTest(text):
                if exact is None:
                    self.assertRaises(MathError, study.evaluate, text)
                    continue
                result = study.evaluate(text)
                self.assertEqual(exact, result.exact)
                # The form reads back to the same value.
                again = study.evaluate(exact)
                self.assertTrue(np.allclose(result.value, again.value))

    def test_shapes_that_do_not_fit_are_refused_in_words(self) -> None:
        study = build("M = [[1, 2], [3, 4]]")
        for text, words in REFUSED:
            with self.subTest(text), self.assertRaises(MathError) as caught:
                study.evaluate(text)
            self.assertIn(words, caught.exception.message)

    def test_statements_are_decided(self) -> None:
        study = build("M = [[1, 2], [3, 4]]")
        for text, expected in STATEMENTS:
            with self.subTest(text):
                result = study.evaluate(text)
                self.assertEqual((ResultKind.TRUTH, expected), (result.kind, result.value))

    def test_order_of_lines_does_not_matter(self) -> None:
        lines = [
            "B = A^-1 A",
            "f(x) = d x + B[1, 1]",
            "d = det(A)",
            "A = [[a, 1], [2, 3]]",
            "a = 4",
        ]
        drawn = random.Random(28)  # noqa: S311 - an order, no secret
        for _ in range(4):
            drawn.shuffle(lines)
            study = build(*lines)
            self.assertEqual("[[1, 0], [0, 1]]", study.value("B").exact)
            self.assertEqual("21", study.evaluate("f(2)").exact)
            study.set("a", 5)
            self.assertEqual("27", study.evaluate("f(2)").exact)

    def test_functions_use_matrices_of_their_variable(self) -> None:
        study = build("f(x) = det([[x, 1], [2, x]])", "L = [1, 2, 4]", "g(x) = sum((x - L)^2)")
        self.assertEqual(["√2"], [item.exact for item in study.zeros("f", low=0, high=5)])
        self.assertEqual("7/3", study.extrema("g").items[0].exact)

    def test_random_numbers_stay_until_they_are_drawn_again(self) -> None:
        study = build("a = random()", "b = random()", "R = random(3, 2)", "f(x) = a x")
        values = [study.value(name).decimal(15) for name in ("a", "b", "R")]
        self.assertEqual(3, len(set(values)))
        self.assertEqual(study.value("a").value, study.evaluate("f(1)").value)
        again = Study.from_dict(study.to_dict())
        self.assertEqual(values, [again.value(name).decimal(15) for name in ("a", "b", "R")])
        study.apply(DrawAgain(2), WINDOW)
        self.assertNotEqual(values[0], study.value("a").decimal(15))
        self.assertEqual(study.value("a").value, study.evaluate("f(1)").value)
        with self.assertRaisesRegex(MathError, "draw the number first"):
            study.define("g(x) = random() x")


def drawn_matrix(drawn: random.Random, rows: int, columns: int, rank: int | None = None) -> Any:
    if rank is None:
        return [[Fraction(drawn.randint(-9, 9), drawn.randint(1, 4)) for _ in range(columns)]
                for _ in range(rows)]  # fmt: skip
    left, right = drawn_matrix(drawn, rows, rank), drawn_matrix(drawn, rank, columns)
    return [[sum(a * b for a, b in zip(row, column, strict=True)) for column in zip(*right, strict=True)]
            for row in left]  # fmt: skip


def typed(rows: Any) -> str:
    return "[" + ", ".join(f"[{', '.join(map(str, row))}]" for row in rows) + "]"


class LawsTest(unittest.TestCase):
    """What holds for all matrices, on matrices that are drawn."""

    def setUp(self) -> None:
        self.drawn = random.Random(2026)  # noqa: S311 - matrices, no secrets

    def test_inverses_and_determinants(self) -> None:
        for size in (1, 2, 3, 5, 9):
            a, b = (typed(drawn_matrix(self.drawn, size, size)) for _ in range(2))
            study = build(f"A = {a}", f"B = {b}")
            for text in ("A A^-1 = identity(rows(A))", "det(A B) = det(A) det(B)",
                         "(A B)^T = B^T A^T", "trace(A B) = trace(B A)"):  # fmt: skip
                with self.subTest(text, size=size):
                    self.assertIs(True, study.evaluate(text).value)

    def test_rank_null_space_and_reduced_form(self) -> None:
        for rows, columns, rank in ((3, 5, 2), (5, 3, 3), (4, 4, 1), (6, 8, 5)):
            matrix = drawn_matrix(self.drawn, rows, columns, rank)
            study = build(f"A = {typed(matrix)}")
            with self.subTest(rows=rows, columns=columns):
                true_rank = np.linalg.matrix_rank(np.array(matrix, dtype=float))
                self.assertEqual(true_rank, study.evaluate("rank(A)").value)
                self.assertIs(True, study.evaluate("A null_space(A) = 0 A null_space(A)").value)
                self.assertIs(True, study.evaluate("rref(rref(A)) = rref(A)").value)
                whole = study.row_reduction("A")
                self.assertEqual(true_rank, whole.rank)
                self.assertEqual(typed(whole.result), study.evaluate("rref(A)").exact)
                present = whole.start
                for step in whole.steps:
                    present = apply_operation(present, read_operation(step.operation))
                    self.assertEqual(present, step.matrix)
                self.assertEqual(whole.result, present)

    def test_eigenvectors_belong_to_their_eigenvalues(self) -> None:
        for size in (2, 3, 4, 6):
            study = build(f"A = {typed(drawn_matrix(self.drawn, size, size))}")
            matrix = study.value("A").value
            values, vectors = (study.evaluate(f"{name}(A)").value
                               for name in ("eigenvalues", "eigenvectors"))  # fmt: skip
            with self.subTest(size=size):
                self.assertTrue(np.allclose(matrix @ vectors, vectors * values))
                true = np.sort_complex(np.linalg.eigvals(matrix).astype(complex))
                self.assertTrue(np.allclose(true, np.sort_complex(np.asarray(values, complex))))

    def test_eigenvectors_of_irrational_and_complex_entries(self) -> None:
        for text in (
            "[[sqrt(2), 1], [1, pi]]", "[[sqrt(2), 1, 0], [1, pi, 2], [0, 1, e]]",
            "[[i, 1.5], [pi, 2]]", "[[1, i, 0], [-i, sqrt(3), 2], [0, 2, ln(5)]]",
        ):  # fmt: skip
            study = build(f"A = {text}")
            matrix, values, vectors = (
                study.evaluate(part).value for part in ("A", "eigenvalues(A)", "eigenvectors(A)")
            )
            with self.subTest(text):
                np.testing.assert_allclose(matrix @ vectors, vectors * values, atol=1e-12)
                # Digits on demand, as for any other proved number.
                many = study.evaluate("eigenvalues(A)[1]")
                self.assertGreater(len(many.decimal(40)), 40)

    def test_lists_agree_with_numpy(self) -> None:
        numbers = [Fraction(self.drawn.randint(-99, 99), 7) for _ in range(40)]
        floats = np.array(numbers, dtype=float)
        study = build(f"L = [{', '.join(map(str, numbers))}]")
        for text, expected in (
            ("mean(L)", floats.mean()), ("sd(L)", floats.std(ddof=1)), ("median(L)", np.median(floats)),
            ("quantile(L, 0.3)", np.quantile(floats, 0.3)), ("sort(L)", np.sort(floats)),
            ("cumulative(L)", floats.cumsum()), ("norm(L)", np.linalg.norm(floats)),
            ("sum(L^2)", (floats**2).sum()), ("reverse(L)", floats[::-1]),
        ):  # fmt: skip
            with self.subTest(text):
                self.assertTrue(np.allclose(expected, study.evaluate(text).value))


class OperationTest(unittest.TestCase):
    """Functions of the study that take lists or matrices, or have a matrix as their value."""

    def test_functions_take_matrices_and_lists_as_wholes(self) -> None:
        study = build(
            "A = [[1, 2], [3, 4]]", "p(M) = det(M)", "q(M) = M^T M", "t(M) = M[1, 1] + M[2, 2]",
            "w(v) = dot(v, v)", "r(M) = A^T M", "I(n) = identity(n)", "y(M, v) = M v + w(v) v",
            "z(M) = w(M[1, all]) + sqrt(2)",
        )  # fmt: skip
        for text, expected in (
            ("p(A)", "-2"), ("q(A)", "[[10, 14], [14, 20]]"), ("t(A)", "5"), ("w([1, 2])", "5"),
            ("r(A)", "[[10, 14], [14, 20]]"), ("I(2)", "[[1, 0], [0, 1]]"),
            ("y(A, [1, 2])", "[10, 21]"), ("z(A)", "5 + √2"), ("q([1, 2])", "[5]"),
            ("w(list(k, k, 1, 100000))", "333338333350000"), ("p(q(A)) = p(A)^2", None),
            ("w(w([1, 2]) [1, 0])", "25"),
        ):  # fmt: skip
            with self.subTest(text):
                result = study.evaluate(text)
                self.assertEqual(expected, result.exact)
                self.assertTrue(expected is not None or result.value is True)

    def test_functions_of_numbers_stay_curves(self) -> None:
        study = build(
            "A = [[1, 2], [3, 4]]", "p(M) = det(M)",
            "f(x) = det([[x, 1], [1, x]])", "g(x) = mean([x, 2 x])", "h(x) = det(x A)",
            "k(x) = x + p(A)", "m(x) = [x, 2 x][1]", "n(x) = max(x, 2)",
        )  # fmt: skip
        for line in study.definitions()[2:]:
            with self.subTest(line.text):
                self.assertEqual((None, "function"), (line.problem, str(line.kind)))
                self.assertTrue(study.curve(str(line.name), WINDOW).pieces)

    def test_a_function_of_matrices_is_called_with_what_it_needs(self) -> None:
        study = build("A = [[1, 2], [3, 4]]", "p(M) = det(M)", "w(v) = dot(v, v)")
        for text, words in (
            ("p(3)", "`det` needs a matrix"), ("p([1, 2])", "square"), ("w(A)", "list of numbers"),
            ("p(A, A)", "needs 1 value"), ("p'(1)", "."),
        ):  # fmt: skip
            with self.subTest(text), self.assertRaisesRegex(MathError, words):
                study.evaluate(text)
        with self.assertRaises(MathError):
            study.curve("p", WINDOW)


class ReductionTest(unittest.TestCase):
    def test_operations_are_read_as_they_are_written(self) -> None:
        for text, again in (
            ("R1 <-> R2", "R1 <-> R2"), ("r2 <- r2 - 4 r1", "R2 <- R2 - 4 R1"),
            ("R2 = R2 + 1/3 R1", "R2 <- R2 + 1/3 R1"), ("R3 <- (-1/2) R3", "R3 <- -1/2 R3"),
            ("R1 <- R1/2", "R1 <- 1/2 R1"), ("R2 <- −R1 + R2", "R2 <- R2 - R1"),
        ):  # fmt: skip
            with self.subTest(text):
                self.assertEqual(again, read_operation(text).text)
        for text in ("", "R1", "R1 <- R2", "R1 <- 2 R1 + R2", "R1 + R2", "R1 <- 0 R1 x"):
            with self.subTest(text), self.assertRaises(MathError):
                read_operation(text)

    def test_operations_that_lose_something_are_refused(self) -> None:
        rows = ((Fraction(1), Fraction(2)), (Fraction(3), Fraction(4)))
        for text in ("R1 <- 0 R1", "R1 <-> R1", "R3 <- 2 R3", "R1 <- R1 + 2 R5"):
            with self.subTest(text), self.assertRaises(MathError):
                apply_operation(rows, read_operation(text))

    def test_systems_are_reduced_as_typed(self) -> None:
        study = Study()
        whole = study.row_reduction("x + 2y = 5; 3x - y = 1")
        self.assertEqual(((1, 0, 1), (0, 1, 2)), whole.result)
        self.assertEqual("R2 <- R2 - 3 R1", whole.steps[0].operation)
        self.assertEqual((), reduce_rows(whole.result).steps)
        with self.assertRaisesRegex(MathError, "not linear"):
            study.row_reduction("x y = 5; x = 1")
        with self.assertRaisesRegex(MathError, "needs a matrix"):
            study.row_reduction("[1, 2, 3]")
