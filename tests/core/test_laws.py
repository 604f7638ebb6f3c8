"""Laws of algebra, stated in the language itself, hold for drawn values; false ones are seen."""

import random
import unittest
from collections.abc import Sequence

from axis_path.core import MathError, Study

ROUNDS = 2
#: Laws of square matrices A, B, C of one size, a number k and a list v.
MATRIX_LAWS = (
    "A + B = B + A",
    "A (B + C) = A B + A C",
    "(A B) C = A (B C)",
    "(A B)^T = B^T A^T",
    "(A^T)^T = A",
    "(k A)^T = k A^T",
    "det(A B) = det(A) det(B)",
    "|A^T| = |A|",
    "det(k A) = k^rows(A) det(A)",
    "trace(A B) = trace(B A)",
    "trace(A + B) = trace(A) + trace(B)",
    "A ∘ B = B ∘ A",
    "hadamard(A, B)^T = hadamard(A^T, B^T)",
    "A identity(rows(A)) = A",
    "A^3 = A A A",
    "A^0 = identity(rows(A))",
    "A (B v) = (A B) v",
    "(A v)^T = v^T A^T",
    "dot(v, A v) = (v^T A v)[1]",
    "rref(rref(A)) = rref(A)",
    "rank(A) = rank(A^T)",
    "rank(A^T A) <= rank(A)",
    "norm(A)^2 = trace(A^T A)",
    "beside(A, B)^T = above(A^T, B^T)",
    "beside(A, B)[all, 1 to columns(A)] = A",
    "above(A, B)[rows(A) + 1 to last, all] = B",
    "A[1, all] = (A^T)[all, 1]",
    "(A with [1, all] = 0)[1, 1] = 0",
    "(A with [1, 1] = k)[1, 1] = k",
    "matrix(A[i, j], i, 1, rows(A), j, 1, columns(A)) = A",
    "sum(list(A[n, n], n, 1, rows(A))) = trace(A)",
    "sum(A) = sum(list(sum(A[n, all]), n, 1, rows(A)))",
    "count(A) = rows(A) columns(A)",
    "v v^T = (v v^T)^T",
    "rank(v v^T) = 1",
    "trace(v v^T) = dot(v, v)",
)
#: Of a matrix that has an inverse.
INVERSE_LAWS = (
    "A A^-1 = identity(rows(A))",
    "A^-1 A = identity(rows(A))",
    "(A^-1)^-1 = A",
    "det(A^-1) = 1/det(A)",
    "(A^T)^-1 = (A^-1)^T",
    "A^-2 = (A^-1)^2",
    "A solve(A, v) = v",
    "solve(A, A v) = v",
    "solve(A, B) = A^-1 B",
    "rref(A) = identity(rows(A))",
    "rref(beside(A, v))[all, last] = solve(A, v)",
    "rank(A) = rows(A)",
)
#: What is not decided where the entries hold roots.
UNDECIDED = ("(A^-1)^-1 = A", "rref(beside(A, v))[all, last] = solve(A, v)")
#: Of lists L and M of one length, and numbers.
LIST_LAWS = (
    "sum(L + M) = sum(L) + sum(M)",
    "sum(k L) = k sum(L)",
    "sum(differences(L)) = L[last] - L[1]",
    "cumulative(L)[last] = sum(L)",
    "differences(cumulative(L)) = L[2 to last]",
    "reverse(reverse(L)) = L",
    "sort(reverse(L)) = sort(L)",
    "sort(L)[1] = min(L)",
    "sort(L)[last] = max(L)",
    "max(L) = -min(-L)",
    "median(L) = quantile(L, 1/2)",
    "quantile(L, 0) = min(L)",
    "quantile(L, 1) = max(L)",
    "mean(L) = sum(L)/count(L)",
    "variance(L, population) = mean(L^2) - mean(L)^2",
    "variance(L) (count(L) - 1) = variance(L, population) count(L)",
    "sd(k L)^2 = k^2 variance(L)",
    "variance(L + k) = variance(L)",
    "dot(L, M)^2 <= dot(L, L) dot(M, M)",
    "norm(L)^2 = dot(L, L)",
    "correlation(L, L) = 1",
    "correlation(L, -2L + 3) = -1",
    "correlation(L, M) = correlation(M, L)",
    "L[1 to 2] = [L[1], L[2]]",
    "above(L[1 to 2], L[3 to last]) = L",
    "(L with [1] = k)[2 to last] = L[2 to last]",
    "list(L[n], n, 1, count(L)) = L",
    "product(above(L, M)) = product(L) product(M)",
    "columns(L) = 1",
    "rows(L) = count(L)",
)
SPACE_LAWS = (
    "cross(p, q) = -cross(q, p)",
    "dot(cross(p, q), p) = 0",
    "cross(p, p) = [0, 0, 0]",
    "cross(p, cross(q, r)) = dot(p, r) q - dot(p, q) r",
    "dot(p, cross(q, r)) = det(beside(beside(p, q), r))",
    "norm(cross(p, q))^2 + dot(p, q)^2 = dot(p, p) dot(q, q)",
)
#: Of complex numbers z and w whose parts are fractions.
COMPLEX_LAWS = (
    "conj(z w) = conj(z) conj(w)",
    "z conj(z) = |z|^2",
    "re(z) + i im(z) = z",
    "re(z) = (z + conj(z))/2",
    "im(z) = (z - conj(z))/(2i)",
    "(z w)/w = z",
    "z^3 = z z z",
    "z^-2 = 1/(z z)",
    "(z + w)^2 = z^2 + 2z w + w^2",
)
#: The same with values that have no such parts.
TRANSCENDENTAL_LAWS = (
    "|z w| = |z| |w|",
    "|z| e^(i arg(z)) = z",
    "exp(z) exp(w) = exp(z + w)",
    "exp(ln(z)) = z",
    "sqrt(z)^2 = z",
    "sin(z)^2 + cos(z)^2 = 1",
    "cosh(z)^2 - sinh(z)^2 = 1",
    "sin(z + w) = sin(z) cos(w) + cos(z) sin(w)",
    "sin(i z) = i sinh(z)",
    "tan(z) = sin(z)/cos(z)",
    "1/z = conj(z)/|z|^2",
    "det([[z, w], [conj(w), conj(z)]]) = |z|^2 - |w|^2",
)
#: Of whole numbers m, n > 0.
WHOLE_LAWS = (
    "gcd(m, n) lcm(m, n) = m n",
    "m = n quotient(m, n) + mod(m, n)",
    "-m = n quotient(-m, n) + mod(-m, n)",
    "mod(-m, n) >= 0",
    "gcd(m, 0) = m",
    "binomial(m, n) = binomial(m, m - n)",
    "binomial(m + 1, n + 1) = binomial(m, n) + binomial(m, n + 1)",
    "permutations(m, 2) = m (m - 1)",
    "product(list(j, j, 1, n)) = n!",
    "sum(divisors(n)) >= n",
    "count(divisors(n^2)) >= count(divisors(n))",
    "is_prime(next_prime(n))",
    "n% = n/100",
    "(m n)% = m (n%)",
)


def plain(decimal: str) -> str:
    """Return a decimal without zeros at its end."""
    return decimal.rstrip("0").rstrip(".") if "." in decimal else decimal


class LawsTest(unittest.TestCase):
    def setUp(self) -> None:
        self.drawn = random.Random(20_261_201)  # noqa: S311 - values, no secrets

    def whole(self, low: int = -9, high: int = 9) -> str:
        return str(self.drawn.randint(low, high))

    def fraction(self) -> str:
        return f"{self.whole()}/{self.whole(2, 7)}"

    def surd(self) -> str:
        return f"{self.whole()} + {self.whole(1, 4)}sqrt({self.drawn.choice((2, 3, 5))})"

    def gauss(self) -> str:
        return f"{self.fraction()} + {self.whole(1, 9)}i"

    def listed(self, kind: str, count: int) -> str:
        return f"[{', '.join(getattr(self, kind)() for _ in range(count))}]"

    def square(self, kind: str, size: int) -> str:
        return f"[{', '.join(self.listed(kind, size) for _ in range(size))}]"

    def hold(self, study: Study, laws: Sequence[str], what: str) -> None:
        for law in laws:
            with self.subTest(law, values=what):
                result = study.evaluate(law)
                self.assertIs(True, result.value, result.reason)

    def matrices(self, kind: str, size: int) -> Study:
        study = Study()
        for name in "ABC":
            study.define(f"{name} = {self.square(kind, size)}")
        study.define(f"v = {self.listed(kind, size)}")
        study.define(f"k = {self.fraction()} + 3")
        return study

    def test_matrices(self) -> None:
        for kind, sizes in (("whole", (2, 4)), ("fraction", (3,)), ("surd", (2,))):
            for size in sizes:
                study = self.matrices(kind, size)
                self.hold(study, MATRIX_LAWS, f"{kind} {size}")

    def test_inverses(self) -> None:
        for kind, size in (("whole", 2), ("whole", 4), ("fraction", 3), ("gauss", 2), ("surd", 2)):
            study = self.matrices(kind, size)
            # Far from being singular, whatever was drawn.
            study.define(f"A = {self.square(kind, size)} + 40identity({size})")
            laws = [law for law in INVERSE_LAWS if kind != "surd" or law not in UNDECIDED]
            self.hold(study, laws, f"{kind} {size}")

    def test_eigenvalues(self) -> None:
        for size in (2, 3, 4):
            study = self.matrices("whole", size)
            study.define("S = A + A^T")
            study.define("lam = eigenvalues(S)")
            study.define("V = eigenvectors(S)")
            for law in (
                "sum(lam) = trace(S)",
                "product(lam) = det(S)",
                "sum(lam^2) = trace(S^2)",
                *(f"S V[all, {n}] = lam[{n}] V[all, {n}]" for n in range(1, size + 1)),
                "dot(V[all, 1], V[all, 2]) = 0",
            ):
                with self.subTest(law, size=size):
                    # What is no fraction is equal in all digits, which proves no more than that.
                    self.assertIsNot(False, study.evaluate(law).value)
                    left, right = (study.evaluate(side) for side in law.split(" = "))
                    for one, other in zip(
                        left.parts or (left,), right.parts or (right,), strict=True
                    ):
                        # What is not known to be whole keeps its zeros.
                        self.assertEqual(plain(one.decimal(25)), plain(other.decimal(25)))

    def test_null_spaces(self) -> None:
        for size in (2, 3, 4):
            study = self.matrices("whole", size)
            # A matrix of rank 1 at the most, and one with a repeated row.
            study.define("R = v A[1, all]^T")
            study.define("D = A with [last, all] = 2A[1, all]")
            for name in ("R", "D"):
                law = f"columns(null_space({name})) + rank({name}) = columns({name})"
                self.hold(study, (law,), f"{size}")
                zeros = f"norm({name} null_space({name})) = 0"
                self.hold(study, (zeros, f"det({name}) = 0"), f"{size}")
                with self.assertRaisesRegex(MathError, "determinant is 0"):
                    study.evaluate(f"{name}^-1")

    def test_lists(self) -> None:
        for _ in range(ROUNDS):
            study = Study()
            count = self.drawn.randint(4, 9)
            for name in "LM":
                study.define(f"{name} = {self.listed('fraction', count)}")
            study.define(f"k = {self.whole(1, 9)}/4")
            self.hold(study, LIST_LAWS, study.value("L").exact or "")

    def test_vectors_in_space(self) -> None:
        for kind in ("whole", "fraction", "surd"):
            study = Study()
            for name in "pqr":
                study.define(f"{name} = {self.listed(kind, 3)}")
            self.hold(study, SPACE_LAWS, kind)

    def test_complex_numbers(self) -> None:
        for _ in range(ROUNDS):
            study = Study()
            for name in "zw":
                study.define(f"{name} = {self.gauss()}")
            self.hold(study, COMPLEX_LAWS, study.value("z").exact or "")
            for law in TRANSCENDENTAL_LAWS:
                with self.subTest(law, z=study.value("z").exact):
                    one, other = (study.evaluate(side).decimal(20) for side in law.split(" = "))
                    self.assertEqual(one, other)

    def test_whole_numbers(self) -> None:
        for _ in range(ROUNDS):
            study = Study()
            first, second = sorted(self.drawn.sample(range(2, 60), 2))
            study.define(f"n = {first}")
            study.define(f"m = {second}")
            self.hold(study, WHOLE_LAWS, f"{first}, {second}")

    def test_what_does_not_hold_is_false(self) -> None:
        study = Study()
        study.define("A = [[1, 2], [3, 4]]")
        study.define("B = [[0, 1], [1, 1]]")
        study.define("L = [1, 4, 9]")
        for law in (
            "A B = B A",
            "(A B)^T = A^T B^T",
            "det(A + B) = det(A) + det(B)",
            "A ∘ B = A B",
            "A^-1 = A^T",
            "sum(L^2) = sum(L)^2",
            "mean(L) = median(L)",
            "|1 + 2i| = 1 + 2",
            "sqrt(2) = 1.4142135623730951",
            "A = (identity(2) with [1, 2] = 2)",
            "A = [[1, 2], [3, 4], [5, 6]]",
            "[1, 2] = [1, 2, 3]",
            "is_prime(2^32 + 1)",
        ):
            with self.subTest(law):
                self.assertIs(False, study.evaluate(law).value)


if __name__ == "__main__":
    unittest.main()
