"""Ranks, reduced forms, eigenvalues and eigenvectors of large matrices: what is claimed holds."""

import unittest
from itertools import pairwise

import numpy as np
from flint import acb, acb_mat, arb, fmpq, fmpq_mat

from axis_path.core import MathError, Study
from axis_path.core.arithmetic.arrays import large_forms
from axis_path.core.arithmetic.arrays.array import Array
from axis_path.core.arithmetic.arrays.large import bounded_form, of_bounded
from axis_path.core.arithmetic.bounded.discs import Discs, exactly
from axis_path.core.arithmetic.bounded.entries import BoundedEntries, from_common
from axis_path.core.arithmetic.bounded.linear import NotProvedError
from axis_path.core.arithmetic.bounded.pairs import ComplexEntries, entries_of, parts
from axis_path.core.arithmetic.bounded.radii import Relative
from axis_path.core.arithmetic.bounded.spectrum import eigenvectors, spectrum
from axis_path.core.arithmetic.complex_ball import Scalar, promoted
from axis_path.core.arithmetic.precision import precision

SIZE = 14
BITS = 300


def drawn(seed: int, rows: int, columns: int, most: int = 9) -> np.ndarray:
    return np.random.default_rng(seed).integers(-most, most + 1, (rows, columns), dtype=np.int64)


def held(numbers: np.ndarray, bottom: int = 1) -> Array[Scalar]:
    return of_bounded(numbers.shape, from_common(numbers.ravel(), bottom))


def rounded(a: Array[Scalar]) -> Array[Scalar]:
    """Return the same matrix, whose entries are not known as fractions any longer."""
    entries = bounded_form(a)
    assert isinstance(entries, BoundedEntries)
    return of_bounded(a.shape, BoundedEntries(entries.middles, entries.bounds))


def rationals(numbers: np.ndarray) -> fmpq_mat:
    return fmpq_mat(*numbers.shape, [fmpq(int(number)) for number in numbers.ravel()])


def truth(numbers: np.ndarray) -> list[acb]:
    """Return the eigenvalues of a matrix with many digits, each as often as it counts."""
    values: list[acb] = acb_mat(rationals(numbers)).eig(multiple=True)
    return values


class SpectrumTest(unittest.TestCase):
    def each_has_its_own(self, claimed: Discs, exact: list[acb]) -> None:
        """Check that each disc holds an eigenvalue, and each eigenvalue has a disc of its own."""
        from scipy.optimize import linear_sum_assignment

        sizes = claimed.radii
        holds = np.zeros((len(exact), len(exact)), dtype=bool)
        for row, value in enumerate(exact):
            for column, middle in enumerate(claimed.middles):
                distance = abs(value - acb(middle.real, middle.imag))
                holds[row, column] = bool(
                    distance <= arb(float(sizes[column])) or distance.contains(0)
                )
        chosen = linear_sum_assignment(~holds)
        self.assertTrue(holds[chosen].all())

    def test_every_eigenvalue_lies_in_its_disc(self) -> None:
        for seed in range(8):
            numbers = drawn(seed, SIZE, SIZE)
            for name, one in (
                ("real", numbers), ("symmetric", numbers + numbers.T), ("sparse", numbers // 5),
            ):  # fmt: skip
                with self.subTest(seed=seed, kind=name), precision(BITS):
                    discs = exactly(one.astype(float).ravel())
                    found = spectrum(discs, SIZE, is_symmetric=name == "symmetric")
                    self.each_has_its_own(found.values, truth(one))
                    real = [value for value in truth(one) if value.imag.contains(0)]
                    self.assertLessEqual(int(found.real.sum()), len(real))
                    if name == "real":
                        self.assertLess(found.values.radii.max(), 1e-9)

    def test_uncertain_entries_widen_the_discs(self) -> None:
        numbers = drawn(30, SIZE, SIZE)
        middles = numbers.astype(float).ravel()
        loose = Discs(middles, Relative(middles, 1e-6))
        found = spectrum(loose, SIZE, is_symmetric=False)
        self.assertGreater(found.values.radii.min(), 1e-6)
        with precision(BITS):
            self.each_has_its_own(found.values, truth(numbers))

    def test_repeated_eigenvalues_are_never_said_to_be_apart(self) -> None:
        for count in (2, 5, SIZE):
            numbers = np.diag([3] * count + list(range(10, 10 + SIZE - count)))
            turned = drawn(count, SIZE, SIZE, 1)
            turned = np.tril(turned, -1) + np.eye(SIZE, dtype=np.int64)
            back = np.rint(np.linalg.inv(turned)).astype(np.int64)
            similar = turned @ numbers @ back
            with self.subTest(count=count):
                try:
                    found = spectrum(
                        exactly(similar.astype(float).ravel()), SIZE, is_symmetric=False
                    )
                except NotProvedError:
                    continue
                self.assertLessEqual(int(found.alone.sum()), SIZE - count)
                with self.assertRaises(NotProvedError):
                    eigenvectors(found, SIZE)

    def test_a_jordan_block_is_refused(self) -> None:
        block = np.eye(SIZE) * 2 + np.eye(SIZE, k=1)
        with self.assertRaises(NotProvedError):
            spectrum(exactly(block.ravel()), SIZE, is_symmetric=False)

    def test_eigenvectors_hold_the_exact_ones(self) -> None:
        for seed in range(5):
            numbers = drawn(seed + 60, SIZE, SIZE)
            for is_symmetric in (False, True):
                one = numbers + numbers.T if is_symmetric else numbers
                with self.subTest(seed=seed, symmetric=is_symmetric), precision(BITS):
                    discs = exactly(one.astype(float).ravel())
                    found = spectrum(discs, SIZE, is_symmetric=is_symmetric)
                    made = eigenvectors(found, SIZE)
                    self.assertLess(made.radii.max(), 1e-6)
                    self.check_vectors(one, found.values.middles, entries_of(made))

    def check_vectors(self, numbers: np.ndarray, values: np.ndarray, made: object) -> None:
        assert isinstance(made, BoundedEntries | ComplexEntries)
        real, imaginary = parts(made)
        roots, vectors = acb_mat(rationals(numbers)).eig(right=True)
        middles = real.middles + 1j * imaginary.middles
        grid = middles.reshape(SIZE, SIZE)
        for column, value in enumerate(values):
            index = min(range(SIZE), key=lambda k: abs(complex(roots[k]) - complex(value)))
            exact = [vectors[row, index] for row in range(SIZE)]
            largest = int(np.abs(grid[:, column]).argmax())
            length = sum((abs(entry) ** 2 for entry in exact), arb(0)).sqrt()
            factor = exact[largest].conjugate() / (abs(exact[largest]) * length)
            for row in range(SIZE):
                ball = promoted(made[row * SIZE + column]).value
                self.assertTrue(ball.overlaps(exact[row] * factor), (row, column, value))


class FormsTest(unittest.TestCase):
    def entries(self, made: Array[Scalar]) -> list[Scalar]:
        return list(made.entries)

    def test_ranks_reduced_forms_and_null_spaces_are_those_of_exact_work(self) -> None:
        for seed in range(6):
            for rows, columns, rank in ((9, 9, 9), (9, 12, 9), (12, 7, 7), (10, 10, 4), (8, 11, 5)):
                left, right = drawn(seed, rows, rank, 3), drawn(seed + 40, rank, columns, 3)
                numbers = left @ right
                exact = rationals(numbers)
                form, found = exact.rref()
                with self.subTest(seed=seed, rows=rows, columns=columns, rank=rank):
                    a = held(numbers)
                    self.assertEqual(fmpq(found), large_forms.rank(a).exact)
                    reduced = large_forms.reduced_form(a)
                    for value, number in zip(reduced.entries, form.entries(), strict=True):
                        self.assertEqual(number, value.exact)
                    space = large_forms.null_space(a)
                    self.assertEqual(max(columns - found, 1), space.column_count)
                    kernel = fmpq_mat(
                        columns, space.column_count, [value.exact for value in space.entries]
                    )
                    self.assertTrue(all(entry == 0 for entry in (exact * kernel).entries()))

    def test_floats_claim_only_what_they_prove(self) -> None:
        proved = 0
        for seed in range(12):
            for rows, columns in ((9, 9), (9, 12), (12, 9)):
                numbers = drawn(seed, rows, columns, 2)
                if seed % 2:
                    numbers[-1] = numbers[0] - numbers[1]
                    numbers[:, -1] = numbers[:, 0]
                exact = rationals(numbers)
                form, found = exact.rref()
                a = rounded(held(numbers))
                with self.subTest(seed=seed, rows=rows, columns=columns):
                    try:
                        self.assertEqual(fmpq(found), large_forms.rank(a).exact)
                        reduced = large_forms.reduced_form(a)
                    except MathError:
                        continue
                    proved += 1
                    for value, number in zip(reduced.entries, form.entries(), strict=True):
                        self.assertTrue(value.value.overlaps(arb(number)))
        self.assertGreater(proved, 12)


class StudyTest(unittest.TestCase):
    study: Study

    @classmethod
    def setUpClass(cls) -> None:
        cls.study = Study()
        cls.study.define("B = random(210, 210)")
        cls.study.define("K = matrix(max(0, 2 - |i - j|), i, 1, 90, j, 1, 90)")

    def test_eigenvalues_of_a_chain_of_masses_are_the_known_ones(self) -> None:
        # 2 - 2 cos(k pi/(n + 1)) with the sign of the neighbours turned.
        values = self.study.evaluate("eigenvalues(K)").value
        known = sorted(2 + 2 * np.cos(np.arange(1, 91) * np.pi / 91))
        np.testing.assert_allclose(values, known, atol=1e-12)
        result = self.study.evaluate("eigenvalues(K)[90]")
        self.assertIn("accurate to within", result.remark)
        self.assertEqual(f"{known[-1]:.8f}", result.decimal(9))

    def test_eigenvectors_have_length_1_and_belong_to_their_values(self) -> None:
        vectors = self.study.evaluate("eigenvectors(K)").value
        values = self.study.evaluate("eigenvalues(K)").value
        np.testing.assert_allclose(np.linalg.norm(vectors, axis=0), 1, atol=1e-12)
        matrix = self.study.evaluate("K").value
        np.testing.assert_allclose(matrix @ vectors, vectors * values, atol=1e-12)

    def test_sums_of_eigenvalues_are_the_trace(self) -> None:
        difference = self.study.evaluate("trace(B) - sum(eigenvalues(B))")
        self.assertRegex(difference.decimal(9), r"^\(0 ± 0\.0000\d+\) \+ \(0 ± 0\.0000\d+\) i$")
        values = self.study.evaluate("eigenvalues(B)").value
        self.assertTrue(all(a.real <= b.real for a, b in pairwise(values)))

    def test_exact_forms_where_they_are_known(self) -> None:
        for text, expected in (
            ("rank(B)", "210"),
            ("rank(matrix(i + j, i, 1, 300, j, 1, 300))", "2"),
            ("rank(matrix(i + j, i, 1, 100, j, 1, 100))", "2"),
            ("null_space(matrix(i + j, i, 1, 250, j, 1, 250))[2, 1]", "-2"),
            ("sum(eigenvalues(matrix(max(0, j - i + 1), i, 1, 70, j, 1, 70)))", "70"),
            ("columns(null_space(matrix(i + j, i, 1, 250, j, 1, 250)))", "248"),
        ):
            with self.subTest(text):
                result = self.study.evaluate(text)
                self.assertEqual((expected, ""), (result.exact, result.remark))

    def test_a_wide_matrix_is_reduced_with_bounds(self) -> None:
        result = self.study.evaluate("rref(random(210, 260))")
        np.testing.assert_array_equal(result.value[:, :210], np.eye(210))
        self.assertIn("every entry is accurate to within", result.remark)

    def test_refusals_say_why(self) -> None:
        for text, words in (
            ("rank(sqrt(2) matrix(i + j, i, 1, 300, j, 1, 300))", "could not be decided how many"),
            ("eigenvectors(identity(80))", "could not be told apart"),
            ("eigenvalues(random(70, 71))", "square"),
            ("null_space(list(k, k, 1, 50000))", "matrix"),
        ):
            with self.subTest(text), self.assertRaisesRegex(MathError, words):
                self.study.evaluate(text)


if __name__ == "__main__":
    unittest.main()
