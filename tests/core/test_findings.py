"""Everything that is located besides zeros: published problems, and what textbooks warn of."""

import math
import unittest
from typing import Any

import numpy as np

from axis_path.core import Study, Window
from axis_path.core.errors import EquationError, ListError, MathError
from axis_path.core.locate import Direction, Interpolation, Kind
from tests.core.functions import systems

PI = math.pi
#: Problems 2, 4-7, 9-15 and 20-22 of the collection by Hansen (1979) as it is used to compare
#: methods of global optimisation: the function, the interval, where it is least, and how deep.
HANSEN = (
    ("sin(x) + sin(10x/3)", 2.7, 7.5, 5.145735, -1.899599),
    ("-(16x^2 - 24x + 5) exp(-x)", 1.9, 3.9, 2.868034, -3.85045),
    ("-(1.4 - 3x) sin(18x)", 0, 1.2, 0.96609, -1.48907),
    ("-(x + sin(x)) exp(-x^2)", -10, 10, 0.67956, -0.824239),
    ("sin(x) + sin(10x/3) + ln(x) - 0.84x + 3", 2.7, 7.5, 5.19978, -1.6013),
    ("sin(x) + sin(2x/3)", 3.1, 20.4, 17.039, -1.90596),
    ("-x sin(x)", 0, 10, 7.9787, -7.91673),
    ("2cos(x) + cos(2x)", "-pi/2", "2pi", 2.09439, -1.5),
    ("sin(x)^3 + cos(x)^3", 0, "2pi", PI, -1),
    ("-x^(2/3) - cbrt(1 - x^2)", 0.001, 0.99, 1 / math.sqrt(2), -1.5874),
    ("-exp(-x) sin(2pi x)", 0, 4, 0.224885, -0.788685),
    ("(x^2 - 5x + 6)/(x^2 + 1)", -5, 5, 2.41422, -0.03553),
    ("-(x - sin(x)) exp(-x^2)", -10, 10, 1.195137, -0.0634905),
    ("x sin(x) + x cos(2x)", 0, 10, 4.79507, -9.50835),
    ("exp(-3x) - sin(x)^3", 0, 20, 9 * PI / 2, math.exp(-27 * PI / 2) - 1),
)
#: From Alefeld, Potra, Shi, *Algorithm 748* (1995), table I.
ALGORITHM_748 = (
    ("sin(x) - x/2", "pi/2", "pi", 1.8954942670339809),
    ("2x exp(-5) - 2exp(-5x) + 1", 0, 1, 0.13825715505682406),
    ("2x exp(-20) - 2exp(-20x) + 1", 0, 1, 0.034657359020853851),
    ("(1 + (1 - 5)^2) x - (1 - 5x)^2", 0, 1, 0.038402551840621924),
    ("x^2 - (1 - x)^5", 0, 1, 0.34595481584824217),
    ("x^2 - (1 - x)^10", 0, 1, 0.24512233375330725),
    ("exp(-x)(x - 1) + x", 0, 1, 0.40105813754154704),
    ("exp(-5x)(x - 1) + x^5", 0, 1, 0.51615351875793358),
    ("cos(x) - x", 0, 1, 0.73908513321516064),
    ("x exp(x) - 1", 0, 1, 0.56714329040978387),
    ("tan(x) - x", 4, 4.6, 4.4934094579090642),
)
#: What happens at which places: (kind, x, y); NaN for no value.
BREAKS: Any = (
    ("1/x", -1, 1, [("pole", 0, None)]),
    ("sin(x)/x", -3, 3, [("hole", 0, 1)]),
    ("(1 - cos x)/x^2", -1, 1, [("hole", 0, 0.5)]),
    ("(x^3 - 1)/(x^2 - 1)", -3, 3, [("pole", -1, None), ("hole", 1, 1.5)]),
    ("|x|/x", -1, 1, [("jump", 0, None)]),
    ("floor(x)", -1.5, 1.5, [("jump", -1, -1), ("jump", 0, 0), ("jump", 1, 1)]),
    ("tan(x)", -2, 2, [("pole", -PI / 2, None), ("pole", PI / 2, None)]),
    ("ln(x)", -1, 3, [("pole", 0, None)]),
    ("sqrt(4 - x^2)", -3, 3, [("end", -2, 0), ("end", 2, 0)]),
    ("x^2 for 0 <= x < 2", -1, 3, [("end", 0, 0), ("end", 2, 4)]),
    ("x^2 for x != 1", -2, 2, [("hole", 1, 1)]),
    ("exp(1/x)", -1, 1, [("pole", 0, None)]),
    ("atan(1/x)", -1, 1, [("jump", 0, None)]),
    ("x sin(1/x)", -1, 1, [("hole", 0, 0)]),
    ("1/(x^2 - 2)", -3, 3, [("pole", -math.sqrt(2), None), ("pole", math.sqrt(2), None)]),
    ("gamma(x)", -1.5, 3, [("pole", -1, None), ("pole", 0, None)]),
    ("x^3 - x", -9, 9, []),
)
#: (kind, x, y, global, at an end).
EXTREMA = (
    ("x^3 - 3x", -3, 3, "m -3 -18 ge, M -1 2, m 1 -2, M 3 18 ge"),
    ("|x|", -1, 2, "M -1 1 e, m 0 0 g, M 2 2 ge"),
    ("x^3", -1, 1, "m -1 -1 ge, M 1 1 ge"),
    ("x^4", -1, 2, "M -1 1 e, m 0 0 g, M 2 16 ge"),
    ("|x^2 - 2|", -1.5, 1.5, f"M -1.5 0.25 e, m {-math.sqrt(2)} 0 g, M 0 2 g, "
                             f"m {math.sqrt(2)} 0 g, M 1.5 0.25 e"),
    ("x^(2/3)", -1, 1, "M -1 1 ge, m 0 0 g, M 1 1 ge"),
    ("x^2 for 0 <= x < 2", -1, 3, "m 0 0 ge"),
    ("1/x", -1, 1, "M -1 -1 e, m 1 1 e"),
    ("x + 1/x", -3, 3, f"m -3 {-10 / 3} e, M -1 -2, m 1 2, M 3 {10 / 3} e"),
    ("mod(x, 1)", 0, 2.5, "m 0 0 ge, m 1 0 g, m 2 0 g, M 2.5 0.5 e"),
    ("x exp(-x)", 0.5, 9, f"m 0.5 {0.5 * math.exp(-0.5)} e, M 1 {math.exp(-1)} g, "
                          f"m 9 {9 * math.exp(-9)} ge"),
)  # fmt: skip


def study_of(*lines: str, unit: str = "radians") -> Study:
    study = Study(angle_unit=unit)
    for line in lines:
        study.define(line)
    return study


def only(text: str) -> Study:
    return study_of(f"f(x) = {text}")


class ExtremaTest(unittest.TestCase):
    def test_the_global_minima_of_published_problems(self) -> None:
        for text, low, high, x, y in HANSEN:
            with self.subTest(text):
                found = only(text).extrema("f", low, high)
                best = [item for item in found if item.kind is Kind.MINIMUM and item.is_global]
                self.assertTrue(found.complete, found.note)
                self.assertTrue(any(abs(item.x - x) < 4e-4 for item in best), best)
                self.assertAlmostEqual(y, best[0].y, 4)
                self.assertTrue(all(item.proved for item in found))

    def test_textbook_findings(self) -> None:
        for text, low, high, expected in EXTREMA:
            with self.subTest(text):
                found = only(text).extrema("f", low, high)
                self.assertTrue(found.complete, found.note)
                wanted = [line.split() for line in expected.split(", ")]
                self.assertEqual(len(wanted), len(found), list(found))
                for (letter, x, y, *flags), item in zip(wanted, found, strict=True):
                    kind = Kind.MAXIMUM if letter == "M" else Kind.MINIMUM
                    self.assertEqual(kind, item.kind, item)
                    self.assertAlmostEqual(float(x), item.x, 12)
                    self.assertAlmostEqual(float(y), item.y, 12)
                    is_global, at_end = ("g" in "".join(flags)), ("e" in "".join(flags))
                    self.assertEqual((is_global, at_end), (item.is_global, item.at_end), item)

    def test_unreached_bounds_are_reported(self) -> None:
        for text, words in (
            ("x^2 for 0 <= x < 2", "comes as close as you like to 4, and does not reach it"),
            ("1/x for 0 < x <= 2", "near x = 0 it grows beyond all bounds"),
            ("sin(x)/x", "comes as close as you like to 1"),
            ("max(x, 1)", "It is level at 1 all along −10 < x < 1"),
        ):
            with self.subTest(text):
                self.assertIn(words, only(text).extrema("f").note)

    def test_nothing_between_the_extrema_is_higher_or_lower(self) -> None:
        draw = np.random.default_rng(6)
        parts = ("sin({}x)", "x^2/{}", "|x - {}|", "exp(-{}x^2)", "cos(x + {})", "1/(x^2 + {})")
        xs = np.linspace(-4, 4, 20_001)
        for _ in range(25):
            text = " + ".join(
                draw.choice(["", "2"]) + draw.choice(parts).format(draw.integers(1, 6))
                for _ in range(3)
            )
            with self.subTest(text):
                study = only(text)
                found = study.extrema("f", -4, 4)
                ys = study.function("f").sample(xs)
                self.assertTrue(found.complete, found.note)
                for kind, best in ((Kind.MAXIMUM, ys.max()), (Kind.MINIMUM, ys.min())):
                    heights = [e.y for e in found if e.kind is kind and e.is_global]
                    self.assertAlmostEqual(best, heights[0], 5)
                inner = np.sign(np.diff(ys))
                turns = int(np.sum(inner[1:] * inner[:-1] < 0))
                self.assertGreaterEqual(sum(not e.at_end for e in found), turns)

    def test_extrema_at_domain_ends_not_window_edges(self) -> None:
        for text, low, high, expected in (
            ("f(x) = x^2 - 3", None, None, [0.0]),
            ("f(x) = sqrt(10 - x)", None, None, [10.0]),
            ("f(x) = sqrt(x) - x/8", "0", "20", [0.0, 16.0]),
            ("f(x) = x^2 for x >= 1", "-5", "5", [1.0]),
        ):
            with self.subTest(text):
                study = Study()
                study.define(text)
                found = study.extrema("f", low, high, at_window=True)
                self.assertTrue(found.complete)
                self.assertEqual(expected, [item.x for item in found])

    def test_points_of_inflection(self) -> None:
        for text, expected in (
            ("x^3", [0]),
            ("x^4", []),
            ("exp(-x^2)", [-math.sqrt(0.5), math.sqrt(0.5)]),
            ("cbrt(x)", [0]),
            ("x |x|", [0]),
            ("|x^3|", []),
            ("sin x", [-PI, 0, PI]),
            ("1/x", []),
        ):
            with self.subTest(text):
                found = only(text).inflections("f", -4, 4)
                self.assertTrue(found.complete, found.note)
                self.assertEqual(len(expected), len(found))
                for x, item in zip(expected, found, strict=True):
                    self.assertAlmostEqual(x, item.x, 12)


class ZerosAndBreaksTest(unittest.TestCase):
    def test_published_zeros_to_the_last_digit(self) -> None:
        for text, low, high, x in ALGORITHM_748:
            with self.subTest(text):
                found = only(text).zeros("f", low, high)
                self.assertTrue(found.complete and all(item.proved for item in found), found.note)
                self.assertEqual(1, len(found))
                self.assertAlmostEqual(x, found[0].x, 14)

    def test_zeros_come_with_their_order_and_exact_form(self) -> None:
        for text, expected in (
            ("(x - 1)^3 (x + 2)^2", [("−2", 2), ("1", 3)]),
            ("x^2 - x - 1", [("(1 − √5)/2", 1), ("(1 + √5)/2", 1)]),
            ("cos(x) - 1 + x^2/2", [("0", 4)]),
            ("tan(x) - x", [("0", 3)]),
            ("sin x + cos x - sqrt 2", [("π/4", 2)]),
            ("2cos x - sqrt 3", [("−π/6", 1), ("π/6", 1)]),
            ("|x^2 - 2|", [("−√2", None), ("√2", None)]),
            ("sqrt(x) - x", [("0", None), ("1", 1)]),
            ("(x^2 - 2)/(x^2 - 2)", []),
            ("x^2 + 10^-20", []),
        ):
            with self.subTest(text):
                found = only(text).zeros("f", -4, 4)
                self.assertTrue(found.complete, found.note)
                shown = [(item.exact, item.multiplicity) for item in found]
                if text.startswith("sqrt"):
                    shown[0] = (shown[0][0], None)
                self.assertEqual(expected, shown)

    def test_breaks(self) -> None:
        for text, low, high, expected in BREAKS:
            with self.subTest(text):
                found = only(text).breaks("f", low, high)
                self.assertTrue(found.complete, found.note)
                self.assertEqual([kind for kind, _, _ in expected], [e.kind.value for e in found])
                for (_, x, y), item in zip(expected, found, strict=True):
                    self.assertAlmostEqual(x, item.x, 12)
                    self.assertTrue(item.proved, item)
                    if y is not None:
                        self.assertAlmostEqual(y, item.y, 12)

    def test_single_points_of_a_domain_are_located_and_drawn(self) -> None:
        for text, abscissae in (
            ("f(x) = sqrt(-x^2)", [0.0]),
            ("f(x) = sqrt(x^2(x - 1))", [0.0]),
            ("f(x) = sqrt(-(x^2 - 2)^2) + 1", [-math.sqrt(2), math.sqrt(2)]),
            ("f(x) = asin(x^2 + 1)", [0.0]),
            ("f(x) = sqrt(sin(x) - 1)", [-1.5 * math.pi, math.pi / 2]),
            ("f(x) = sqrt(-x^2 - 10^(-20))", []),
            ("f(x) = ln(-x^2)", []),
        ):
            with self.subTest(text):
                study = Study()
                study.define(text)
                found = study.breaks("f", -5, 5)
                self.assertTrue(found.complete, found.note)
                points = [item for item in found if item.kind is Kind.ISOLATED]
                self.assertTrue(all(item.proved for item in points))
                self.assertEqual(abscissae, [item.x for item in points])
                row = study.scene(Window((-5, 5), (-3, 3), 500, 300)).to_dict()["rows"][0]
                drawn = [(end["x"] / 5_000 - 0.5) * 10 for end in row["curve"]["ends"]]
                self.assertEqual(len(abscissae), len(drawn))
                self.assertTrue(np.allclose(abscissae, drawn, atol=0.01))

    def test_oscillation_is_not_reported_as_a_break(self) -> None:
        found = only("sin(1/x)").breaks("f", -1, 1)
        self.assertFalse(found.complete)
        self.assertEqual([], list(found))
        self.assertIn("x = 0", found.note)

    def test_asymptotes(self) -> None:
        for text, expected in (
            ("1/x", ["x = 0", "y = 0"]),
            ("(x^2 + 1)/(x - 1)", ["x = 1", "y = x + 1"]),
            ("atan(x)", ["y = −π/2", "y = π/2"]),
            ("exp(-x)", ["y = 0"]),
            ("sqrt(x^2 + 1)", ["y = −x", "y = x"]),
            ("(2x^2 - 3)/(x^2 + 1)", ["y = 2"]),
            ("x^2", []),
            ("sin x", []),
            ("1/x for x > 0", ["x = 0", "y = 0"]),
        ):
            with self.subTest(text):
                found = only(text).asymptotes("f", -10, 10)
                self.assertEqual(expected, [item.text for item in found])
                vertical = [item.direction is Direction.VERTICAL for item in found]
                self.assertEqual([text.startswith("x") for text in expected], vertical)


class MeetingTest(unittest.TestCase):
    def test_every_pair_of_kinds_intersects(self) -> None:
        r = math.sqrt(0.5)
        for lines, bounds, expected in (
            (("f(x) = x^2", "g(x) = x + 2"), (), [(-1, 1), (2, 4)]),
            (("f(x) = x^2", "g(x) = x + 2 for x > 0"), (-5, 5), [(2, 4)]),
            (("p(t) = (cos t, sin t)", "f(x) = x"), (), [(-r, -r), (r, r)]),
            (("c: x^2 + y^2 = 4", "f(x) = x"), (), [(-2 * r, -2 * r), (2 * r, 2 * r)]),
            (("c: x^2 + y^2 = 4", "d: x = 1"), (), [(1, -math.sqrt(3)), (1, math.sqrt(3))]),
            (("c: x^2 + y^2 = 4", "d: (x - 1)^2 + y^2 = 4"), (),
             [(0.5, -math.sqrt(3.75)), (0.5, math.sqrt(3.75))]),
            (("r(θ) = 1 + cos θ", "c: x^2 + y^2 = 1"), (), [(0, -1), (0, 1)]),
            (("p(t) = (t, t^2) for -2 <= t <= 2", "q(t) = (cos t, sin t)"), (),
             [(-0.78615137775742328, 0.6180339887498949), (0.78615137775742328, 0.6180339887498949)]),
            (("f(x) = x^2", "g(x) = x^2 + 1"), (), []),
        ):  # fmt: skip
            with self.subTest(lines):
                study = study_of(*lines)
                found = study.intersections(*study.names(), *bounds)
                self.assertTrue(found.complete, found.note)
                points = sorted((round(item.x, 13), item.y) for item in found)
                self.assertEqual(len(expected), len(points))
                for (x, y), (u, v) in zip(expected, points, strict=True):
                    self.assertAlmostEqual(x, u, 12)
                    self.assertAlmostEqual(y, v, 12)

    def test_contacts_are_distinguished_from_crossings(self) -> None:
        for lines, order in (
            (("f(x) = x^2", "g(x) = 2x - 1"), 2),
            (("f(x) = x^3", "g(x) = 0x"), 3),
            (("c: x^2 + y^2 = 4", "d: x = 2"), 2),
            (("p(t) = (cos t, sin t)", "f(x) = 1"), 2),
        ):
            with self.subTest(lines):
                study = study_of(*lines)
                (item,) = study.intersections(*study.names(), -3, 3)  # type: ignore[call-arg]
                self.assertEqual(order, item.multiplicity)
                self.assertEqual(order % 2 == 0, "touch" in item.why)
                self.assertTrue(item.proved)

    def test_unproved_findings_are_listed(self) -> None:
        study = study_of("c: cos(x - 1) + cos(y) = 2", "d: x^2 + y^2 = 1")
        found = study.intersections("c", "d", -3, 3, y_low=-3, y_high=3)
        self.assertIn(("1", 0.0, False), [(e.exact, e.y, e.proved) for e in found])
        self.assertFalse(found.complete)
        same = study_of("f(x) = |x|", "g(x) = x").intersections("f", "g")
        self.assertIn("the same all along 0 ≤ x ≤ 10", same.note)
        region = study_of("c: x^2 + y^2 < 1", "f(x) = x")
        with self.assertRaisesRegex(MathError, "border"):
            region.intersections("c", "f")


class SolveTest(unittest.TestCase):
    def test_equations_as_they_are_typed(self) -> None:
        for text, unit, low, high, expected in (
            ("x^2 - 1 = x", "radians", None, None, ["(1 − √5)/2", "(1 + √5)/2"]),
            ("tan x = 3/4", "degrees", None, None, ["atan(3/4)"]),
            ("sin x = 1/2", "degrees", 0, 720, ["30", "150", "390", "510"]),
            ("sin x = 1/3", "radians", 0, 7, ["asin(1/3)", "π − asin(1/3)", "asin(1/3) + 2π"]),
            ("e^x = 5", "radians", None, None, ["ln(5)"]),
            ("|x - 2| = 3", "radians", None, None, ["−1", "5"]),
            ("sqrt(x + 3) = x - 3", "radians", None, None, ["6"]),
            ("t^2 = 3t - 2", "radians", None, None, ["1", "2"]),
            ("x = x + 1", "radians", None, None, []),
        ):
            with self.subTest(text):
                found = Study(angle_unit=unit).solve(text, None, low, high)
                self.assertTrue(found.complete, found.note)
                self.assertEqual(expected, [item.exact for item in found])
                self.assertTrue(all(item.kind is Kind.SOLUTION and item.proved for item in found))
        self.assertIn("180", Study(angle_unit="degrees").solve("tan x = 3/4").note)
        self.assertIn("true for every x", Study().solve("sin(x)^2 + cos(x)^2 = 1").note)
        # What has no exact form still has all its digits, and every solution.
        (found,) = Study().solve("sin(37°) = x/7")  # type: ignore[assignment]
        self.assertEqual(("4.212705162", "0.601815023"), (found.text, found.y_text[:11]))  # type: ignore[attr-defined]

    def test_unknown_may_be_a_slider(self) -> None:
        study = study_of("f(x) = a x + b")
        study.set("a", 2)
        study.set("b", 3)
        self.assertEqual(["−3/2"], [e.exact for e in study.solve("f(x) = 0")])
        self.assertEqual(["1"], [e.exact for e in study.solve("2a = a + 1", "a")])

    def test_unsolvable_equations_state_the_reason(self) -> None:
        for text, unknown, words in (
            ("3 = 3", None, "no unknown"),
            ("x^2", None, "no equation"),
            ("a x = 3", None, "`a`"),
            ("p = q", None, "Which is the unknown: `p`, `q`"),
            ("3x = 6", "z", "does not occur"),
            ("x^2 > 1", None, "inequality"),
        ):
            with self.subTest(text), self.assertRaisesRegex(EquationError, words):
                Study().solve(text, unknown)

    def test_inequalities(self) -> None:
        for text, low, high, expected in (
            ("x^2 > 1", None, None, "(−∞ −1) (1 ∞)"),
            ("x^2 <= 2", None, None, "[−√2 √2]"),
            ("1 < x^2 <= 4", None, None, "[−2 −1) (1 2]"),
            ("1/x >= 1", None, None, "(0 1]"),
            ("(x - 1)/(x + 2) <= 0", None, None, "(−2 1]"),
            ("x^2 <= 0", None, None, "[0 0]"),
            ("x^2 < 0", None, None, ""),
            ("sin x > 1/2", 0, 7, "(π/6 5π/6) (13π/6 7]"),
            ("|x| < x + 1", None, None, "(−1/2 ∞)"),
            ("ln x <= 0", None, None, "(0 1]"),
        ):
            with self.subTest(text):
                found = Study().solve_inequality(text, None, low, high)
                shown = " ".join(
                    ("[" if s.low_closed else "(") + (s.low.exact or s.low.text) + " "
                    + (s.high.exact or s.high.text) + ("]" if s.high_closed else ")")
                    for s in found.items
                )  # fmt: skip
                self.assertEqual(expected, shown)
                self.assertTrue(found.complete)

    def test_systems(self) -> None:
        study = Study()
        one = systems(study).solve_system(["2x + 3y = 5", "x - y = 1"])
        self.assertEqual(["8/5", "3/5"], [str(value.exact) for value in one.linear.values])  # type: ignore[union-attr]
        none = systems(study).solve_system(["x + y = 1", "z = 2", "2x + 2y = 3"])
        self.assertEqual((0, 2), none.linear.clash)  # type: ignore[union-attr]
        self.assertIn("no solution: equations 1 and 3", none.sentence)
        many = systems(study).solve_system(["x + y + z = 1", "x - y = 2"])
        self.assertEqual((2,), many.linear.free)  # type: ignore[union-attr]
        self.assertEqual("(3/2, (-1/2,))", str(many.linear.general[0]))  # type: ignore[union-attr]
        rest = systems(study).solve_system(["x^2 + y^2 = 4", "x y = 1"])
        self.assertTrue(rest.findings.complete)  # type: ignore[union-attr]
        self.assertEqual(4, len(rest.findings))  # type: ignore[arg-type]
        for item in rest.findings:  # type: ignore[union-attr]
            self.assertAlmostEqual(4, item.x**2 + item.y**2, 12)
            self.assertAlmostEqual(1, item.x * item.y, 12)
        with self.assertRaisesRegex(EquationError, "two at a time"):
            systems(study).solve_system(["x y z = 1", "x + y = z", "x = 2y"])


class MeasureTest(unittest.TestCase):
    def test_a_point_of_a_function(self) -> None:
        study = study_of("f(x) = x^2", "g(x) = |x|")
        at = study.at_point("f", "1")
        self.assertEqual(["1", "2", "2"], [measure.text for measure in at.measures[:3]])
        self.assertAlmostEqual(2 / 5**1.5, at.measures[3].value, 15)
        tangent = study.define(at.tangent).name
        normal = study.define(at.normal).name
        self.assertEqual("2", study.evaluate(f"{tangent}(3/2)").decimal())
        self.assertEqual("0.5", study.evaluate(f"{normal}(2)").decimal())
        kink = study.at_point("g", 0)
        self.assertEqual("", kink.tangent)
        self.assertTrue(kink.measures[1].reason)

    def test_an_interval_of_a_function(self) -> None:
        study = study_of("f(x) = x^2 - 1", "g(x) = cosh x", "h(x) = 1/x")
        whole, area, mean, _ = study.over_interval("f", -2, 2)
        self.assertAlmostEqual(4 / 3, whole.value, 10)
        self.assertAlmostEqual(4, area.value, 8)
        self.assertAlmostEqual(1 / 3, mean.value, 10)
        # The catenary: its arc from 0 to 1 is sinh 1.
        self.assertAlmostEqual(math.sinh(1), study.over_interval("g", 0, 1)[3].value, 10)
        self.assertTrue(study.over_interval("h", -1, 1)[0].reason)

    def test_data_follow_the_stated_interpolation(self) -> None:
        study = study_of("L = [(0, -1), (1, 1), (2, 0.5), (3, 2)]")
        lines = study.in_data("L")
        self.assertEqual(
            [(Kind.MINIMUM, 0), (Kind.ZERO, 0.5), (Kind.MAXIMUM, 1), (Kind.MINIMUM, 2),
             (Kind.MAXIMUM, 3)],
            [(e.kind, e.x) for e in lines],
        )  # fmt: skip
        self.assertIn("straight lines", lines.note)
        self.assertFalse(lines.complete or any(e.proved for e in lines))
        smooth = study.in_data("L", Interpolation.SMOOTH)
        self.assertIn("spline", smooth.note)
        self.assertEqual(1, sum(e.kind is Kind.ZERO for e in smooth))
        self.assertEqual(3, sum(e.kind is Kind.ZERO for e in study.in_data("L", level=0.75)))
        with self.assertRaises(ListError):
            study_of("L = [(0, 1), (0, 2)]").in_data("L")
