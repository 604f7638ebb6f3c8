"""Two equations in two unknowns, and linear systems of any size, against what is known."""

import unittest
from fractions import Fraction

import numpy as np

from axis_path.core import Study
from axis_path.core.arithmetic import ball
from axis_path.core.errors import LimitError
from axis_path.core.kinds.drawables import Drawables
from axis_path.core.locate import LinearEquation, Outcome, meet_in_box, solve_linear
from tests.core.functions import systems

#: Two equations, the box, and how many solutions there are: published ones among them.
SYSTEMS = (
    # Himmelblau's function has its four minima where both of these vanish.
    (("x^2 + y = 11", "x + y^2 = 7"), 9, 4),
    (("x^2 + y^2 = 25", "x y = 12"), 9, 4),
    (("x^3 - 3x y^2 = 1", "3x^2 y = y^3"), 3, 3),
    (("y = x^2", "x = y^2"), 3, 2),
    (("sin(x) + y = 1", "x = cos(y)"), 5, 1),
    (("e^x = y", "y = x + 3"), 9, 2),
    (("x^2 + y^2 = 1", "x + y = 3"), 9, 0),
    # Broyden's small problem, and one with a saddle between its solutions.
    (("4 x - y = x^2", "2 y - x = y^2"), 9, 2),
    (("x^2 - y^2 = 1", "x y = 2"), 9, 2),
)


class PlaneTest(unittest.TestCase):
    def test_every_solution_is_found_and_proved(self) -> None:
        for texts, reach, count in SYSTEMS:
            with self.subTest(texts):
                study = Study()
                solved = systems(study).solve_system(texts, -reach, reach)
                found = solved.findings
                if found is None:
                    # A line among them: it may be linear altogether, which is not meant here.
                    self.fail("these are not linear")
                self.assertTrue(found.complete, found.note)
                self.assertEqual(count, len(found))
                for item in found:
                    self.assertTrue(item.proved)
                    self.check(texts, item.x, item.y)

    def check(self, texts: tuple[str, str], x: float, y: float) -> None:
        for text in texts:
            left, right = text.split("=")
            study = Study()
            study.set("u", str(Fraction(x)), low=-99, high=99)
            study.set("v", str(Fraction(y)), low=-99, high=99)
            put = [side.replace("x", "(u)").replace("y", "(v)") for side in (left, right)]
            values = [study.evaluate(side.replace("e^(u)", "exp(u)")).value for side in put]
            self.assertAlmostEqual(*values, delta=1e-11 * (1 + abs(values[0])))

    def test_random_conics_agree_with_a_dense_search(self) -> None:
        draw = np.random.default_rng(11)
        grid = np.linspace(-4, 4, 2_001)
        for _ in range(12):
            a, b, c, d, e = (int(number) for number in draw.integers(-3, 4, 5))
            texts = (f"x^2 + y^2 = {abs(a) + 2}", f"{b or 1}x^2 + {c} x y + {d} x + {e} y = 1")
            with self.subTest(texts):
                found = systems(Study()).solve_system(texts, -4, 4).findings
                radius = np.sqrt(abs(a) + 2)
                angle = np.linspace(0, 2 * np.pi, 200_001)
                x, y = radius * np.cos(angle), radius * np.sin(angle)
                values = (b or 1) * x**2 + c * x * y + d * x + e * y - 1
                crossings = int(np.sum(values[1:] * values[:-1] < 0))
                proved = sum(item.proved for item in found)  # type: ignore[union-attr]
                self.assertGreaterEqual(len(found), crossings)  # type: ignore[arg-type]
                if found.complete:  # type: ignore[union-attr]
                    self.assertEqual(crossings, proved)
        self.assertEqual(2_001, len(grid))

    def test_contacts_are_found_and_marked_unproved(self) -> None:
        study = Study()
        study.define("c: cos(x - 3) + cos(y - 4) = 2")
        study.define("d: x y = 12")
        found = study.intersections("c", "d", 0, 5, y_low=0, y_high=5)
        contact = next(item for item in found if (item.exact, item.y_exact) == ("3", "4"))
        self.assertFalse(found.complete or contact.proved)
        self.assertIn("exactly", contact.note)

    def test_the_work_is_bounded(self) -> None:
        study = Study()
        study.define("c: sin(50x y) = 0")
        study.define("d: cos(50x) = sin(50y)")
        surfaces = [study.snapshot.query(Drawables).curve_of(name) for name in ("c", "d")]
        found = meet_in_box(*surfaces, ((-100, 100), (-100, 100)))  # type: ignore[arg-type, call-arg]
        self.assertFalse(found.complete)
        self.assertIn("smaller window", found.note)
        self.assertTrue(issubclass(LimitError, Exception))


class LinearTest(unittest.TestCase):
    def equations(self, rows: list[list[int]]) -> list[LinearEquation]:
        return [
            LinearEquation(
                tuple(ball.from_fraction(number) for number in row[:-1]),
                ball.from_fraction(row[-1]),
            )
            for row in rows
        ]

    def test_random_systems_of_every_size(self) -> None:
        draw = np.random.default_rng(5)
        for size in (1, 2, 3, 5, 8, 20):
            for _ in range(6):
                matrix = draw.integers(-9, 10, (size, size))
                wanted = [
                    Fraction(int(p), int(q))
                    for p, q in zip(
                        draw.integers(-9, 10, size), draw.integers(1, 7, size), strict=True
                    )
                ]
                scale = int(np.lcm.reduce([value.denominator for value in wanted]))
                rows = []
                for row in matrix.tolist():
                    right = sum(a * value for a, value in zip(row, wanted, strict=True)) * scale
                    rows.append([*(a * scale for a in row), int(right)])
                found = solve_linear(self.equations(rows))
                if abs(np.linalg.det(matrix)) < 0.5:
                    self.assertIs(Outcome.MANY, found.outcome)
                    continue
                self.assertIs(Outcome.ONE, found.outcome)
                self.assertEqual([str(v) for v in wanted], [str(v.exact) for v in found.values])

    def test_general_forms_solve_every_equation(self) -> None:
        rows = [[1, 1, 1, 1, 4], [1, -1, 2, 0, 1], [2, 0, 3, 1, 5]]
        found = solve_linear(self.equations(rows))
        self.assertIs(Outcome.MANY, found.outcome)
        for choice in (0, 1, -3):
            values = [
                constant + sum(choice * factor for factor in factors)
                for constant, factors in found.general
            ]
            for row in rows:
                self.assertEqual(row[-1], sum(a * v for a, v in zip(row, values, strict=False)))

    def test_a_contradiction_names_the_fewest_equations(self) -> None:
        rows = [[1, 0, 0, 1], [0, 1, 0, 2], [0, 0, 1, 3], [1, 1, 0, 4]]
        found = solve_linear(self.equations(rows))
        self.assertEqual((Outcome.NONE, (0, 1, 3)), (found.outcome, found.clash))
        self.assertEqual((0,), solve_linear(self.equations([[0, 0, 1], [1, 0, 1]])).clash)

    def test_coefficients_that_are_no_fractions_are_enclosed(self) -> None:
        solved = systems(Study()).solve_system(["sqrt(2) x + y = 1", "x - pi y = 0"]).linear
        y = 1 / (2**0.5 * np.pi + 1)
        self.assertIs(Outcome.ONE, solved.outcome)  # type: ignore[union-attr]
        for value, expected in zip(solved.values, (np.pi * y, y), strict=True):  # type: ignore[union-attr]
            self.assertAlmostEqual(expected, float(value.value.mid()), 14)
        same = (
            systems(Study()).solve_system(["sqrt(2) x + y = 1", "2 x + sqrt(2) y = sqrt(2)"]).linear
        )
        self.assertIs(Outcome.UNDECIDED, same.outcome)  # type: ignore[union-attr]
