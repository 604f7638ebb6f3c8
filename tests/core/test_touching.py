"""Solutions at which a curve only touches the axis, and equations that are true all along."""

from __future__ import annotations

import math
from unittest import TestCase

from axis_path.core import Study
from axis_path.core.locate import Kind
from tests.core.functions import systems

#: Equations with all their solutions, and how often each counts.
TOUCHING: tuple[tuple[str, tuple[tuple[float, int], ...]], ...] = (
    ("3sin(x) + 4cos(x) = 5", ((math.atan2(3, 4), 2),)),
    ("5sin(2x) + 12cos(2x) = 13", ((math.atan2(5, 12) / 2, 2),)),
    ("sin(x)^2 = sin(x) - 1/4", ((math.pi / 6, 2), (5 * math.pi / 6, 2))),
    ("1 + cos(3x) = 0", ((math.pi / 3, 2),)),
    ("x + 2/x^2 = 3", ((1 - math.sqrt(3), 1), (1, 1), (1 + math.sqrt(3), 1))),
    ("x/(x^2 + 3) = 1/sqrt(12)", ((math.sqrt(3), 2),)),
    ("1/(x^2 + 1) + (x^4 - 4x^2 + 4)/(x^2 + 3) = 1/(x^2 + 1)", ((-math.sqrt(2), 2), (math.sqrt(2), 2))),
    ("e^(2x) + 4 = 4e^x", ((math.log(2), 2),)),
    ("9^x - 6*3^x + 9 = 0", ((1, 2),)),
    ("ln(x)^3 - 4ln(x)^2 + 5ln(x) = 2", ((math.e, 2), (math.e**2, 1))),
    ("x - 2sqrt(5)sqrt(x) + 5 = 0", ((5, 2),)),
    ("x - 6sqrt(x) + 9 = 0", ((9, 2),)),
    ("x^2 - 2sqrt(2)x + 2 = 0", ((math.sqrt(2), 2),)),
    ("e^x = e x", ((1, 2),)),
    ("2^x = 1 + x ln(2)", ((0, 2),)),
    ("x^2 - 2 = sin(x^2 - 2)", ((-math.sqrt(2), 3), (math.sqrt(2), 3))),
    ("x^2 + pi^2 = 2pi x", ((math.pi, 2),)),
    ("x^3 + 3e^2 x = 3e x^2 + e^3", ((math.e, 3),)),
    ("x^4 + ln(3)^2 = 2x^2 ln(3)", ((-math.sqrt(math.log(3)), 2), (math.sqrt(math.log(3)), 2))),
    ("x^2 + 2x e^x + e^(2x) = 0", ((-0.5671432904097838, 2),)),
    ("e^(x^2 - 3) = x^2 - 2", ((-math.sqrt(3), 2), (math.sqrt(3), 2))),
)  # fmt: skip

ALWAYS = (
    ("1/(x-1) + 1/(x+1) = 2x/(x^2-1)", "It is true for every x except −1 and 1."),
    ("(x^2-1)/(x-1) = x + 1", "It is true for every x except x = 1."),
    ("sin(2x) = 2sin(x)cos(x)", "It is true for every x."),
    ("cos(3x) = 4cos(x)^3 - 3cos(x)", "It is true for every x."),
    ("sqrt(x^2) = x", "It is true for every x ≥ 0."),
    ("asin(x) + acos(x) = pi/2", "It is true for −1 ≤ x ≤ 1."),
    (
        "tan(x)cos(x) = sin(x)",
        "It is true for 0 ≤ x ≤ 2π except π/2 and 3π/2. "
        "This repeats: any whole multiple of 2π may be added.",
    ),
)


class TouchingTest(TestCase):
    def test_touching_solutions_are_proved_with_their_multiplicity(self) -> None:
        for text, expected in TOUCHING:
            with self.subTest(text):
                found = Study().solve(text)
                self.assertTrue(found.complete, found.note)
                self.assertEqual([times for _, times in expected], [s.multiplicity for s in found])
                for solution, (x, _) in zip(found, expected, strict=True):
                    self.assertTrue(solution.proved)
                    self.assertAlmostEqual(x, solution.x, places=12)

    def test_near_contacts_are_not_contacts(self) -> None:
        for text in (
            "3sin(x) + 4cos(x) = 5 - 10^(-30)",
            "e^(2x) + 4 = 4e^x + 10^(-30)",
            "x/(x^2 + 3) = 1/sqrt(12) - 10^(-25)",
        ):
            with self.subTest(text):
                self.assertFalse(
                    [s for s in Study().solve(text) if s.proved and s.multiplicity == 2]
                )

    def test_identities_state_their_excluded_points(self) -> None:
        for text, sentence in ALWAYS:
            with self.subTest(text):
                found = Study().solve(text)
                self.assertEqual((sentence, 0), (found.along, len(found)))

    def test_touching_curves_have_one_proved_intersection(self) -> None:
        circle = "P(t) = (cos(t), sin(t)) for 0 <= t < 2pi"
        for one, other, points in (
            (circle, "Q(t) = (2 + cos(t), sin(t)) for 0 <= t < 2pi", [(1, 0, 2)]),
            (circle, "Q(t) = (t, 2 - t^2 - 1) for -2 <= t <= 2", [(-1, 0, 1), (0, 1, 2), (1, 0, 1)]),
            ("P(t) = (t, t^2) for -3 <= t <= 3", "Q(t) = (t, 2t - 1) for -3 <= t <= 3", [(1, 1, 2)]),
            ("p(theta) = 2", "q(theta) = 1 + cos(theta)", [(2, 0, 2)]),
            ("p(theta) = 1 + cos(theta)", "q(theta) = 1 - cos(theta)",
             [(0, -1, 1), (0, 0, None), (0, 1, 1)]),
            ("one: x^2 + y^2 = 2", "two: x y = 1", [(-1, -1, 2), (1, 1, 2)]),
            ("one: x^2 + y^2 = 3", "two: x + y = 3", []),
        ):  # fmt: skip
            with self.subTest(f"{one} and {other}"):
                study = Study()
                study.define(one)
                study.define(other)
                found = study.intersections(*study.names())
                self.assertTrue(found.complete, found.note)
                self.assertTrue(all(item.proved for item in found))
                self.assertEqual(
                    points,
                    [(round(p.x, 9) + 0.0, round(p.y, 9) + 0.0, p.multiplicity) for p in found],
                )

    def test_systems_of_curves_that_touch_or_nearly_touch(self) -> None:
        for second, points in (
            ("(x - 2)^2 + y^2 = 1", [(1.0, 0.0, 2)]),
            ("(x - 2)^2 + y^2 = 1 - 10^(-20)", []),
            ("x + y = sqrt(2)", None),
            ("3x + 4y = 5", [(0.6, 0.8, 2)]),
            ("y = x^2 - 1", [(-1.0, 0.0, 1), (0.0, -1.0, 2), (1.0, 0.0, 1)]),
        ):
            with self.subTest(second):
                solved = systems(Study()).solve_system(["x^2 + y^2 = 1", second]).findings
                self.assertIsNotNone(solved)
                if points is None:
                    self.assertFalse(solved.complete)  # type: ignore[union-attr]
                    continue
                self.assertTrue(solved.complete, solved.note)  # type: ignore[union-attr]
                self.assertEqual(points, [(p.x, p.y, p.multiplicity) for p in solved])  # type: ignore[union-attr]


class ExponentTest(TestCase):
    def test_powers_of_a_fixed_base_are_searched_by_their_logarithms(self) -> None:
        for text, low, high, abscissae in (
            ("e^(1/(x + 1)) - 3", -5, 5, (1 / math.log(3) - 1,)),
            ("3 - 2*2^(1/x)", -5, 5, (1 / math.log2(1.5),)),
            ("e^(1/(x + 1)) - 1", -5, 5, ()),
            ("5 e^(1/(x + sqrt(2))) + 1", -5, 5, ()),
            ("(1/4)^(1/x) - 64", -1, 1, (-1 / 3,)),
            ("exp(tan(x)) - e", 0, 3, (math.pi / 4,)),
            ("10^300 - 10^(1/x)", -1, 1, (1 / 300,)),
            ("e^(1/x)", -1, 1, ()),
        ):
            with self.subTest(text):
                study = Study()
                study.define(f"f(x) = {text}")
                found = study.zeros("f", low, high)
                self.assertTrue(found.complete, found.note)
                self.assertEqual(len(abscissae), len(found))
                for abscissa, item in zip(abscissae, found, strict=True):
                    self.assertTrue(item.proved)
                    self.assertAlmostEqual(abscissa, item.x, 12)

    def test_quotients_have_their_breaks_and_extrema(self) -> None:
        study = Study()
        study.define("f(x) = 1/(2 - e^(1/(x + 1)))")
        found = study.breaks("f", -5, 5)
        self.assertTrue(found.complete, found.note)
        self.assertEqual([Kind.JUMP, Kind.POLE], [item.kind for item in found])
        self.assertAlmostEqual(1 / math.log(2) - 1, found[1].x, 12)
        for text in ("1/(1 - e^(1/(x + sqrt(2))))", "1/(1 + e^(1/(x + 1)))"):
            study.define(f"f(x) = {text}")
            for search in (study.breaks, study.extrema, study.zeros):
                self.assertTrue(search("f", -5, 5).complete)
