"""Row reduction against plain fractions: each step, the pivots, the solutions, one's own steps."""

import random
import unittest
from fractions import Fraction

from axis_path.core import MathError, Study, Window
from axis_path.core.algebra import (
    SolutionKind,
    apply_operation,
    progress_of,
    read_operation,
    reduce_rows,
    solution_set,
)
from axis_path.core.algebra.operations import Operation, Rows
from axis_path.core.features.reduction.queries import Reductions, own_steps
from axis_path.core.features.working.commands import Work
from axis_path.core.features.working.queries import WorkingResults

WINDOW = Window((-10, 10), (-7, 7), 200, 120)
ROUNDS = 60


def times(rows: Rows, factors: list[Fraction]) -> list[Fraction]:
    """Return the products of rows with a column, without the last entry of each row."""
    return [sum((a * x for a, x in zip(row, factors, strict=False)), Fraction(0)) for row in rows]


class StepsTest(unittest.TestCase):
    def setUp(self) -> None:
        self.drawn = random.Random(4)  # noqa: S311 - matrices, no secrets

    def rows(self, height: int, width: int) -> Rows:
        return tuple(
            tuple(
                Fraction(
                    self.drawn.choice((0, 0, 1, 2, -1, -3, 5)), self.drawn.choice((1, 1, 2, 3))
                )
                for _ in range(width)
            )
            for _ in range(height)
        )

    def check_form(self, rows: Rows, pivots: tuple[int, ...]) -> None:
        """Check what makes a reduced row echelon form."""
        self.assertEqual(sorted(set(pivots)), list(pivots))
        for index, row in enumerate(rows):
            if index >= len(pivots):
                self.assertFalse(any(row[: max(pivots, default=-1) + 1]))
                continue
            column = pivots[index]
            self.assertFalse(any(row[:column]))
            self.assertEqual(1, row[column])
            others = [other[column] for k, other in enumerate(rows) if k != index]
            self.assertFalse(any(others))

    def test_every_step_is_the_operation_that_it_names(self) -> None:
        for _ in range(ROUNDS):
            height, width = self.drawn.randint(1, 5), self.drawn.randint(1, 6)
            start = self.rows(height, width)
            whole = reduce_rows(start)
            with self.subTest(start=start):
                present, seen = start, set[tuple[int, int]]()
                for step in whole.steps:
                    operation = read_operation(step.operation)
                    self.assertEqual(step.operation, operation.text)
                    present = apply_operation(present, operation)
                    self.assertEqual(present, step.matrix)
                    # A pivot that was found stays one.
                    self.assertLessEqual(seen, set(step.pivots))
                    seen = set(step.pivots)
                self.assertEqual(present, whole.result)
                self.assertEqual(whole.rank, len(whole.pivots))
                self.check_form(whole.result, whole.pivots)
                self.assertTrue(progress_of(whole.result).is_done)
                # What is reduced takes no further step.
                self.assertEqual((), reduce_rows(whole.result).steps)

    def test_no_step_leads_away_from_the_goal(self) -> None:
        for _ in range(ROUNDS):
            start = self.rows(self.drawn.randint(2, 4), self.drawn.randint(2, 5))
            before = progress_of(start)
            for step in reduce_rows(start).steps:
                after = progress_of(step.matrix)
                self.assertGreaterEqual(after.pivots, before.pivots)
                before = after
            self.assertEqual(0, before.wrong)

    def test_operations_can_be_undone(self) -> None:
        for _ in range(ROUNDS):
            rows = self.rows(3, 4)
            row, other = self.drawn.sample(range(3), 2)
            factor = Fraction(self.drawn.choice((2, -3, 1)), self.drawn.choice((1, 4)))
            for there, back in (
                (Operation(row, other, None), Operation(row, other, None)),
                (Operation(row, None, factor), Operation(row, None, 1 / factor)),
                (Operation(row, other, factor), Operation(row, other, -factor)),
            ):
                self.assertEqual(rows, apply_operation(apply_operation(rows, there), back))
                self.assertEqual(there, read_operation(there.text))

    def test_notations_of_one_operation_are_the_same(self) -> None:
        for texts in (
            ("R2 <- R2 - 4 R1", "r2 <- r2 - 4r1", "R2 <- -4 R1 + R2", "R2 ← R2 − 4 R1"),
            ("R1 <-> R3", "R1<->R3", "R1 ↔ R3"),
            ("R2 <- 1/3 R2", "R2 <- 1/3R2"),
            ("R1 <- -R1", "R1 <- -1 R1"),
        ):
            self.assertEqual(1, len({read_operation(text).text for text in texts}), texts)
        for text in ("", "R1", "R1 <- ", "R1 <- R2 + R3", "R2 <- 2 R2 + R1", "R0 <- R1", "x <- y"):
            with self.subTest(text), self.assertRaises(MathError):
                apply_operation(self.rows(3, 3), read_operation(text))


class SolutionsTest(unittest.TestCase):
    def setUp(self) -> None:
        self.drawn = random.Random(8)  # noqa: S311 - systems, no secrets

    def entry(self) -> Fraction:
        return Fraction(self.drawn.randint(-4, 4), self.drawn.choice((1, 1, 2)))

    def test_all_solutions_solve_the_system_and_nothing_is_left_out(self) -> None:
        seen = set[SolutionKind]()
        for _ in range(3 * ROUNDS):
            height, unknowns = self.drawn.randint(1, 4), self.drawn.randint(1, 4)
            left = [[self.entry() for _ in range(unknowns)] for _ in range(height)]
            if height > 1 and self.drawn.random() < 0.6:
                left[-1] = [2 * entry for entry in left[0]]
            known = [self.entry() for _ in range(unknowns)]
            right = [
                sum((a * x for a, x in zip(row, known, strict=True)), Fraction(0)) for row in left
            ]
            if self.drawn.random() < 0.4:
                right[-1] += 1
            rows = tuple((*row, value) for row, value in zip(left, right, strict=True))
            found = solution_set(rows)
            seen.add(found.kind)
            rank = reduce_rows(tuple(map(tuple, left))).rank
            with self.subTest(rows=rows):
                if found.kind is SolutionKind.NONE:
                    self.assertGreater(reduce_rows(rows).rank, rank)
                    self.assertIsNotNone(found.contradiction)
                    continue
                self.assertEqual(unknowns - rank, len(found.free))
                self.assertEqual(found.kind is SolutionKind.ONE, not found.free)
                for _ in range(3):
                    parameters = [self.entry() for _ in found.free]
                    at = [
                        constant
                        + sum(
                            (f * t for f, t in zip(factors, parameters, strict=True)), Fraction(0)
                        )
                        for constant, factors in found.values
                    ]
                    self.assertEqual(right, times(rows, at))
                if right == times(rows, known):
                    # The solution that the system was made of is among them.
                    chosen = [known[unknown] for unknown, _ in found.free]
                    at = [
                        constant
                        + sum((f * t for f, t in zip(factors, chosen, strict=True)), Fraction(0))
                        for constant, factors in found.values
                    ]
                    self.assertEqual(known, at)
        self.assertEqual(set(SolutionKind), seen)

    def test_parameters_have_names_that_nothing_else_has(self) -> None:
        rows: Rows = (tuple(map(Fraction, (1, 1, 1, 1, 5))),)
        self.assertEqual(["t", "s", "u"], [name for _, name in solution_set(rows).free])
        taken = frozenset({"t", "u"})
        self.assertEqual(["s", "v", "w"], [name for _, name in solution_set(rows, taken).free])
        every = frozenset({"t", "s", "u", "v", "w"})
        names = [name for _, name in solution_set(rows, every).free]
        self.assertEqual(3, len(set(names) - every))


class StudyTest(unittest.TestCase):
    def setUp(self) -> None:
        self.study = Study()
        self.study.define("A = [[2, 1, 5], [1, -1, 1]]")
        self.study.define("k = 3")
        self.reductions = self.study.snapshot.query(Reductions)

    def test_matrices_and_systems_are_the_same_reduction(self) -> None:
        whole = self.reductions.row_reduction("A")
        system = self.reductions.row_reduction("2x + y = 5; x - y = 1")
        self.assertEqual(whole.steps, system.steps)
        self.assertEqual(((1, 0, 2), (0, 1, 1)), whole.result)
        # A slider is a number, and sides may hold unknowns on both.
        other = self.reductions.row_reduction("2x + y = 2 + k; x = 1 + y")
        self.assertEqual(whole.result, other.result)
        self.assertEqual(whole, self.study.row_reduction("A"))

    def test_ones_own_steps_say_whether_the_goal_is_nearer(self) -> None:
        subject = self.reductions.subject("A")
        made = own_steps(subject, ["R1 <-> R2", "R2 <- R2 - 2 R1", "R2 <- 1/3 R2", "R1 <- R1 + R2"])
        self.assertTrue(made[-1].after.is_done)
        self.assertTrue(all(step.is_nearer for step in made[1:]))
        away = own_steps(subject, ["R1 <-> R2", "R2 <- R2 - 2 R1", "R2 <- R2 + 7 R1"])
        self.assertFalse(away[-1].is_nearer)

    def test_what_cannot_be_reduced_says_why(self) -> None:
        for text, words in (
            ("[1, 2]", "matrix"),
            ("x^2 + y = 1; x = y", "linear"),
            ("x + y", ""),
            ("[[sqrt(2), 1], [1, 2]]", "fraction"),
            ("matrix(i + j, i, 1, 20, j, 1, 20)", "12"),
            ("unknown", "unknown"),
            ("", ""),
        ):
            with self.subTest(text), self.assertRaisesRegex(MathError, words):
                self.reductions.row_reduction(text)

    def test_names_of_working_are_known_in_working_only(self) -> None:
        self.study.apply(Work(None, "B = A[1 to 2, 1 to 2]"), WINDOW)
        with self.assertRaises(MathError):
            self.study.snapshot.query(Reductions).row_reduction("B")
        among = self.study.snapshot.query(WorkingResults).among
        self.assertEqual(((1, 0), (0, 1)), among.query(Reductions).row_reduction("B").result)


if __name__ == "__main__":
    unittest.main()
