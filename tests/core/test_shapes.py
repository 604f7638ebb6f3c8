"""Kinds and shapes: what an expression is, is known beforehand; what does not fit names both shapes."""

import itertools
import unittest

from axis_path.core import MathError, Study
from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.evaluate import ResultKind
from axis_path.core.language import read_expression

DEFINED = (
    "a = 3", "z = 2 + i", "P = (1, 2)", "L = [1, 4, 9]", "K = [2, 0, 5]", "v = [1, 2]",
    "Q = [(0, 1), (2, 3)]", "A = [[1, 2], [3, 4]]", "B = [[1, 2, 3], [4, 5, 6]]",
    "C = [[7], [8], [9]]", "f(x) = x^2", "g(x, y) = x + 2y", "h(M) = M M",
)  # fmt: skip
NUMBER, COMPLEX, POINT, LIST, MATRIX, TRUTH = (
    ResultKind.NUMBER, ResultKind.COMPLEX, ResultKind.POINT, ResultKind.LIST, ResultKind.MATRIX,
    ResultKind.TRUTH,
)  # fmt: skip
KINDS = {
    NUMBER: (
        "a", "L[2]", "A[1, 2]", "det(A)", "|A|", "sum(L)", "f(a)", "g(1, a)", "dot(v, v)", "norm(B)",
        "trace(A)", "count(B)", "rank(B)", "a^2 + 1", "25%", "max(L)", "max(1, a)", "L[1] + A[2, 2]",
        "sum(k, k, 1, 3)", "mean(A)", "rows(B)", "A[1, all][2]", "(A v)[1]", "gcd(12, 18)", "-a",
        "sum(list(k, k, 1, a))",
    ),
    COMPLEX: ("z", "z + a", "conj(z)", "i^i i", "sqrt(-1 + 0i)", "[z, 1][1]"),
    POINT: ("P", "2P", "P + P", "-P", "(a, f(a))", "Q[1]"),
    LIST: (
        "L", "L + K", "a L", "f(L)", "g(L, K)", "L^2", "A v", "B L", "A[1, all]", "A[all, 2]",
        "L[1 to 2]", "sort(L)", "differences(L)", "list(k, k, 1, 3)", "Q", "2Q", "Q[1 to 2]",
        "eigenvalues(A)", "solve(A, v)", "cross(L, K)", "above(v, L)", "L with [1] = 0", "-L",
        "from 1 to 3 step 1", "random(3)", "divisors(12)", "sin(L)", "[z, 1]", "L ∘ K", "L/2",
        "cumulative(L)", "reverse(Q)",
    ),
    MATRIX: (
        "A", "A^T", "L^T", "A^-1", "A^2", "A A", "A B", "B C", "2A", "A/2", "A + A", "A ∘ A",
        "A[1 to 2, 1 to 2]", "rref(B)", "identity(2)", "beside(A, v)", "above(A, v)", "v^T A",
        "v v^T", "matrix(i + j, i, 1, 2, j, 1, 3)", "null_space(B)", "eigenvectors(A)", "h(A)",
        "A with [1, 1] = 0", "random(2, 2)", "-A", "solve(A, A)", "[L, K]", "[[z, 1], [1, z]]",
        "list([k, 2k], k, 1, 3)",
    ),
    TRUTH: ("1 < 2", "A = A", "L = K", "z = z", "is_prime(7)", "1 < a < 5", "A != B"),
}  # fmt: skip
#: Operations, and which of the values below they take on the left and on the right.
VALUES = {
    "a number": "a", "a list of 3": "L", "a list of 2": "v", "a 2 by 2 matrix": "A",
    "a 2 by 3 matrix": "B", "a 3 by 1 matrix": "C",
}  # fmt: skip


class KindsTest(unittest.TestCase):
    study: Study

    @classmethod
    def setUpClass(cls) -> None:
        cls.study = Study()
        for line in DEFINED:
            cls.study.define(line)

    def test_results_have_the_kind_that_was_known_beforehand(self) -> None:
        kinds = self.study.snapshot.analysis.expressions.search.kinds
        for kind, texts in KINDS.items():
            for text in texts:
                with self.subTest(text):
                    result = self.study.evaluate(text)
                    self.assertEqual(kind, result.kind, result.reason)
                    if kind is TRUTH or "=" in text.replace("with [1] = 0", ""):
                        continue
                    node = self.study.snapshot.analysis.names()
                    known = kinds.kind(read_expression(text, node)).value
                    self.assertEqual("number" if kind is COMPLEX else kind.value, known)

    def test_named_values_have_the_kind_of_what_they_name(self) -> None:
        for kind, texts in KINDS.items():
            if kind is TRUTH:
                continue
            for number, text in enumerate(texts[:8]):
                study = Study()
                for line in DEFINED:
                    study.define(line)
                with self.subTest(text):
                    name = f"value_{number}"
                    study.define(f"{name} = {text}")
                    self.assertEqual(kind, study.value(name).kind)
                    if kind in (LIST, MATRIX):
                        self.assertEqual(
                            study.evaluate(text).value.shape, study.value(name).value.shape
                        )


class FittingTest(unittest.TestCase):
    def setUp(self) -> None:
        self.study = Study()
        for line in DEFINED:
            self.study.define(line)

    def fits(self, sign: str, left: str, right: str) -> bool:
        """Check by the shapes alone whether an operation has a meaning."""
        one, other = (self.study.evaluate(name).value for name in (left, right))
        first: tuple[int, ...] = getattr(one, "shape", ())
        second: tuple[int, ...] = getattr(other, "shape", ())
        match sign:
            case "+":
                if not first and not second:
                    return True
                return first == second or ({len(first), len(second)} == {0, 1})
            case "∘":
                return first == second or not first or not second
            case "*":
                if not first or not second:
                    return True
                if len(first) == 1 and len(second) == 1:
                    return first == second
                if len(first) == 1:
                    return second[0] == 1
                return first[1] == second[0]
            case _:
                if len(second) == 2:
                    return False
                return not second or not first or first == second

    def test_every_operation_between_every_two_shapes(self) -> None:
        for sign in ("+", "*", "∘", "/"):
            for (left, one), (right, other) in itertools.product(VALUES.items(), repeat=2):
                text = f"{one} {sign} {other}"
                with self.subTest(text):
                    if self.fits(sign, one, other):
                        self.study.evaluate(text)
                        continue
                    with self.assertRaises(MathError) as caught:
                        self.study.evaluate(text)
                    message = caught.exception.message.lower()
                    words = [shape.removeprefix("a list of ") for shape in (left, right)]
                    self.assertTrue(
                        all(word in message for word in words) or "number" in message, message
                    )

    def test_functions_of_matrices_fail_in_words_only(self) -> None:
        for name, entry in FUNCTIONS.items():
            if entry.arrays is None:
                continue
            count = sum(not argument.is_optional for argument in entry.arguments)
            for values in itertools.product(("a", "P", "L", "B", "A"), repeat=min(count, 2)):
                if len(values) < count:
                    continue
                text = f"{name}({', '.join(values)})"
                with self.subTest(text):
                    try:
                        result = self.study.evaluate(text)
                    except MathError as err:
                        self.assertTrue(err.message.endswith((".", "?")), err.message)
                        self.assertNotIn("Traceback", err.message)
                    else:
                        self.assertTrue(result.reason or result.decimal(5))


if __name__ == "__main__":
    unittest.main()
