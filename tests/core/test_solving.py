"""Solutions held against their equations: put in, rewritten, renamed, and taken together."""

import itertools
import math
import unittest
from typing import Any
from unittest.mock import Mock, patch

import numpy as np

from axis_path.core import Study
from axis_path.core.locate import Findings
from tests.core.functions import systems

#: Left and right sides on [-6, 6], all sides defined there.
EQUATIONS = (
    ("x^3 - 4x", "1"),
    ("sin(2x)", "x/5"),
    ("exp(-x^2)", "1/3"),
    ("|x + 1|", "2 - x/4"),
    ("x^2", "2^x"),
    ("cos(x)^2", "x/10 + 1/2"),
    ("cbrt(x)", "x^3/8"),
    ("atan(x)", "x^2 - 2"),
)
LOW, HIGH = -6, 6
#: How both sides of an equation may be changed without changing a solution.
REWRITTEN = (
    "{right} = {left}",
    "({left}) - ({right}) = 0",
    "3({left}) + 1 = 3({right}) + 1",
    "({left})^3 = ({right})^3",
    "exp(({left}) - ({right})) = 1",
    "-({left}) = -({right})",
)
#: Systems of two equations, with all solutions in [-10, 10] squared.
SYSTEMS: Any = (
    (("x^2 + y^2 = 25", "x y = 12"), [(-4, -3), (-3, -4), (3, 4), (4, 3)]),
    (("y = x^2", "x = y^2"), [(0, 0), (1, 1)]),
    (("x^2 - y^2 = 7", "x + y = 7"), [(4, 3)]),
    (("y = exp(x)", "x^2 + y^2 = 1"), [(-0.9165625831056988, 0.3998912785862044), (0, 1)]),
    (("x^2 + y^2 = 1", "x + y = 3"), []),
)


def solved(text: str, unknown: str | None = None, low: float = LOW, high: float = HIGH) -> Findings:
    return Study().solve(text, unknown, low, high)


class EquationTest(unittest.TestCase):
    def same(self, expected: Findings, found: Findings) -> None:
        abscissae = [item.x for item in expected]
        self.assertEqual(len(abscissae), len(found), (abscissae, [item.x for item in found]))
        np.testing.assert_allclose([item.x for item in found], abscissae, rtol=1e-9, atol=1e-9)

    def test_solutions_satisfy_the_equation(self) -> None:
        xs = np.linspace(LOW, HIGH, 60_001)
        for left, right in EQUATIONS:
            with self.subTest(left, right=right):
                study = Study()
                study.define(f"d(x) = ({left}) - ({right})")
                found = solved(f"{left} = {right}")
                self.assertTrue(found.complete, found.note)
                gap = study.function("d").sample
                ys = gap(xs)
                for item in found:
                    low, high = item.bracket
                    self.assertTrue(low <= item.x <= high)
                    self.assertLess(high - low, 1e-9)
                    self.assertLess(abs(float(gap(np.array([item.x]))[0])), 1e-9)
                changes = int(np.sum(ys[1:] * ys[:-1] < 0))
                self.assertLessEqual(changes, len(found))

    @patch("axis_path.core.features.findings.solver.exact_solutions", return_value=())
    def test_rewriting_an_equation_keeps_its_solutions(self, algebra: Mock) -> None:
        """Algebra is as good as out of time: it is the search that must know its own."""
        for left, right in EQUATIONS:
            found = solved(f"{left} = {right}")
            for form in REWRITTEN:
                with self.subTest(left, form=form):
                    again = solved(form.format(left=left, right=right))
                    self.same(found, again)
        self.assertTrue(algebra.called)

    def test_the_name_of_the_unknown_is_of_no_account(self) -> None:
        for left, right in EQUATIONS:
            with self.subTest(left):
                text = f"{left} = {right}"
                # `exp` has an x that is no unknown.
                renamed = text.replace("exp", "EXP").replace("x", "w").replace("EXP", "exp")
                self.same(solved(text), solved(renamed, "w"))

    def test_a_value_in_a_slider_is_as_good_as_in_the_text(self) -> None:
        for value in ("-1", "0", "1/2", "3"):
            study = Study()
            study.define(f"k = {value}")
            study.define("f(x) = x^3 - 3x - k")
            with self.subTest(value):
                here = solved(f"x^3 - 3x - ({value}) = 0")
                self.same(here, study.solve("f(x) = 0", None, LOW, HIGH))
                self.same(here, study.solve("x^3 - 3x = k", "x", LOW, HIGH))

    def test_exact_forms_equal_their_decimals(self) -> None:
        for text in (
            "x^2 = 3x + 5",
            "4x^3 = x",
            "sin x = 1/2",
            "2^x = 10",
            "tan(x/3) = 1",
            "x^4 = 9",
        ):
            found = solved(text)
            with self.subTest(text):
                self.assertTrue(found.items)
                for item in found:
                    self.assertIsNotNone(item.exact)
                    exact = Study().evaluate((item.exact or "").replace("−", "-"))
                    self.assertAlmostEqual(item.x, exact.value, 12)


class SystemTest(unittest.TestCase):
    def points(self, texts: tuple[str, ...]) -> list[tuple[float, float]]:
        found = systems(Study()).solve_system(texts, -10, 10).findings
        assert found is not None
        self.assertTrue(found.complete, found.note)
        self.assertTrue(all(item.proved for item in found))
        return sorted((round(item.x, 9), round(item.y, 9)) for item in found)

    def test_every_solution_in_either_order(self) -> None:
        for texts, expected in SYSTEMS:
            for order in itertools.permutations(texts):
                with self.subTest(order):
                    points = self.points(order)
                    self.assertEqual(len(expected), len(points))
                    for (x, y), (u, v) in zip(expected, points, strict=True):
                        self.assertTrue(math.isclose(x, u, abs_tol=1e-8))
                        self.assertTrue(math.isclose(y, v, abs_tol=1e-8))
