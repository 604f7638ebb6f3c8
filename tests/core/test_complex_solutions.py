"""Polynomial equations over the complex numbers: all solutions, as often as they count."""

import random
import unittest
from collections import Counter
from fractions import Fraction
from typing import Any

import mpmath

from axis_path.core import Study, Window
from axis_path.core.features.findings.answer import Answer
from axis_path.core.features.findings.answers import answer
from axis_path.core.features.findings.section import SavedQueries
from tests.core.gauss import Gauss

WINDOW = Window((-10, 10), (-7, 7), 200, 120)
#: Equations whose solutions stand in textbooks, with the exact forms in their order.
KNOWN = (
    ("x^2 + 1 = 0", ("−i", "i")),
    ("x^2 - 2x + 5 = 0", ("1 − 2i", "1 + 2i")),
    ("x^3 = 1", ("−1/2 − i√3/2", "−1/2 + i√3/2", "1")),
    ("x^4 = 16", ("−2", "−2i", "2i", "2")),
    ("x^2 = 2", ("−√2", "√2")),
    ("x^4 + 4 = 0", ("−1 − i", "−1 + i", "1 − i", "1 + i")),
    ("2z - 3 = 0", ("3/2",)),
)


def solve(equation: str, *lines: str, unknown: str = "") -> Answer:
    study = Study()
    for line in lines:
        study.define(line)
    study.apply(
        {"do": "find", "what": "solve", "text": equation, "unknown": unknown, "over_complex": True},
        WINDOW,
    )
    (saved,) = study.snapshot.section(SavedQueries).queries
    return answer(study.snapshot, saved)


def polynomial(roots: list[Gauss]) -> list[Gauss]:
    """Multiply (x - root) out; the coefficients, the highest first."""
    made = [Gauss(Fraction(1))]
    for root in roots:
        shifted = [*made, Gauss(Fraction(0))]
        made = [a - root * b for a, b in zip(shifted, [Gauss(Fraction(0)), *made], strict=True)]
    return made


class ComplexSolutionsTest(unittest.TestCase):
    def test_solutions_known_from_textbooks(self) -> None:
        for equation, expected in KNOWN:
            with self.subTest(equation):
                solved = solve(equation)
                self.assertEqual(list(expected), [row.text.split(" = ")[1] for row in solved.rows])
                self.assertTrue(solved.complete)
                self.assertIn("Proved: exactly", solved.verdict)

    def test_drawn_roots_are_all_found_with_their_multiplicities(self) -> None:
        """The roots come in conjugate pairs, so that the coefficients are fractions."""
        drawn = random.Random(8)  # noqa: S311 - roots, no secrets
        for _ in range(25):
            roots: list[Gauss] = []
            while len(roots) < drawn.randint(2, 6):
                root = Gauss(
                    Fraction(drawn.randint(-4, 4), drawn.choice((1, 2))),
                    Fraction(drawn.choice((0, 0, 1, 2, 3))),
                )
                repeated = drawn.choice((1, 1, 1, 2))
                roots += [root, *([root.conjugate] if root.im else [])] * repeated
            terms = " + ".join(
                f"({value.re}) x^{power}"
                for power, value in zip(range(len(roots), -1, -1), polynomial(roots), strict=True)
            )
            with self.subTest(terms):
                solved = solve(f"{terms} = 0")
                counted = Counter((root.re, root.im) for root in roots)
                found = [(Fraction(row.x), Fraction(row.y)) for row in solved.rows]
                self.assertEqual(sorted(counted), found)
                if len(counted) < len(roots):
                    self.assertIn(f"{len(roots)} with their multiplicities", solved.verdict)

    def test_digits_of_roots_without_exact_form(self) -> None:
        solved = solve("x^5 - x - 1 = 0")
        with mpmath.workdps(40):
            true = sorted(
                mpmath.polyroots([1, 0, 0, 0, -1, -1], maxsteps=200, extraprec=200),
                key=lambda z: (mpmath.re(z), mpmath.im(z)),
            )
        self.assertEqual(5, len(solved.rows))
        for row, root in zip(solved.rows, true, strict=True):
            self.assertAlmostEqual(float(mpmath.re(root)), row.x, 14)
            self.assertAlmostEqual(float(mpmath.im(root)), row.y, 14)

    def test_names_of_the_study_take_part(self) -> None:
        solved = solve("p(x) = a", "p(x) = x^2 + 2x", "a = -5")
        self.assertEqual(["−1 − 2i", "−1 + 2i"], [row.text.split(" = ")[1] for row in solved.rows])

    def test_other_equations_are_refused_in_words(self) -> None:
        cases: tuple[tuple[str, Any], ...] = (
            ("sin(x) = 2", "polynomials"), ("x^2 > 1", "no order"), ("x = x", "every number"),
            ("x = x + 1", "no number"), ("sqrt(2) x^2 = 1", "fractions"),
        )  # fmt: skip
        for equation, words in cases:
            with self.subTest(equation):
                self.assertIn(words, solve(equation).problem)


if __name__ == "__main__":
    unittest.main()
