"""What must hold between answers, whatever the function: moved, stretched, mirrored, split, inverted.

No answer is known beforehand here. Each is held against the answer to a question that mathematics
ties to it.
"""

import math
import unittest
from fractions import Fraction
from itertools import pairwise

import numpy as np

from axis_path.core import Study
from axis_path.core.locate import Findings, Kind, showing

#: Functions of every temper on [-3, 3], all defined there.
FUNCTIONS = (
    "x^3 - 2x + 0.3",
    "sin(3x) + x/4",
    "exp(-x^2) - 1/2",
    "|x - 1| - 3/4",
    "(x^2 - 2)/(x^2 + 1)",
    "x^2 sin(5x) - 0.1",
    "ln(x + 4) - 1",
    "cbrt(x) + x/3 - 0.2",
    "atan(4x) - x/2",
    "sqrt(x + 3.5) - 1.4",
    "x^2 - 1 for x < 0; x - 1 for x >= 0",
    "cosh(x) - 2.5",
)
LOW, HIGH = -3, 3


def study_of(text: str, *more: str) -> Study:
    study = Study()
    for line in (f"f(x) = {text}", *more):
        result = study.define(line)
        assert result is not None
    return study


def zeros(study: Study, name: str = "f", low: float = LOW, high: float = HIGH) -> Findings:
    return study.zeros(name, low, high)


class MovedTest(unittest.TestCase):
    def same(self, expected: list[float], found: list[float], digits: int = 9) -> None:
        self.assertEqual(len(expected), len(found), (expected, found))
        for left, right in zip(expected, found, strict=True):
            self.assertAlmostEqual(left, right, digits)

    def test_zeros_follow_transformations(self) -> None:
        for text in FUNCTIONS:
            study = study_of(
                text, "moved(x) = f(x - 2)", "tall(x) = -7f(x)", "wide(x) = f(x/3)",
                "turned(x) = f(-x)",
            )  # fmt: skip
            abscissae = [item.x for item in zeros(study)]
            for name, map_place, low, high in (
                ("moved", lambda x: x + 2, LOW + 2, HIGH + 2),
                ("tall", lambda x: x, LOW, HIGH),
                ("wide", lambda x: 3 * x, 3 * LOW, 3 * HIGH),
                ("turned", lambda x: -x, -HIGH, -LOW),
            ):
                with self.subTest(text, name=name):
                    found = zeros(study, name, low, high)
                    self.assertTrue(found.complete, found.note)
                    self.same(sorted(map(map_place, abscissae)), [item.x for item in found])

    def test_extrema_swap_kind_under_negation(self) -> None:
        other = {Kind.MAXIMUM: Kind.MINIMUM, Kind.MINIMUM: Kind.MAXIMUM}
        for text in FUNCTIONS:
            with self.subTest(text):
                study = study_of(text, "over(x) = 3 - 2f(x)")
                upright, turned = study.extrema("f", LOW, HIGH), study.extrema("over", LOW, HIGH)
                self.assertEqual(
                    [(other[e.kind], e.is_global, e.at_end) for e in upright],
                    [(e.kind, e.is_global, e.at_end) for e in turned],
                )
                self.same([e.x for e in upright], [e.x for e in turned], 7)
                self.same([3 - 2 * e.y for e in upright], [e.y for e in turned], 9)

    def test_intersections_are_zeros_of_the_difference(self) -> None:
        for text in FUNCTIONS:
            for other in ("x/2", "1/5", "cos x"):
                with self.subTest(text, other=other):
                    study = study_of(text, f"g(x) = {other}", "d(x) = f(x) - g(x)")
                    met = study.intersections("f", "g", LOW, HIGH)
                    apart = zeros(study, "d")
                    self.assertTrue(met.complete and apart.complete, met.note + apart.note)
                    self.same([item.x for item in apart], [item.x for item in met])
                    # Which of the two is named first changes nothing.
                    again = study.intersections("g", "f", LOW, HIGH)
                    self.same([item.x for item in met], [item.x for item in again])

    def test_a_product_is_zero_where_one_of_its_factors_is(self) -> None:
        for left, right in pairwise(FUNCTIONS):
            with self.subTest(left, right=right):
                study = study_of(left, f"g(x) = {right}", "p(x) = f(x) g(x)")
                expected = sorted([z.x for z in zeros(study)] + [z.x for z in zeros(study, "g")])
                found = zeros(study, "p")
                near = [b - a for a, b in pairwise(expected)]
                if not near or min(near) > 1e-6:
                    self.same(expected, [z.x for z in found])

    def test_an_answer_for_two_halves_is_the_answer_for_the_whole(self) -> None:
        draw = np.random.default_rng(21)
        for text in FUNCTIONS:
            middle = float(draw.uniform(-2, 2))
            with self.subTest(text, middle=middle):
                study = study_of(text)
                halves = [*zeros(study, high=middle), *zeros(study, low=middle)]
                self.same([z.x for z in zeros(study)], [z.x for z in halves])
                parts = [
                    *study.inflections("f", LOW, middle),
                    *study.inflections("f", middle, HIGH),
                ]
                whole = study.inflections("f", LOW, HIGH)
                self.same([e.x for e in whole], [e.x for e in parts], 6)


class SplitTest(unittest.TestCase):
    def test_sign_intervals_partition_the_interval(self) -> None:
        for text in FUNCTIONS:
            with self.subTest(text):
                study = study_of(text)
                spans = []
                for sign in (">", "<"):
                    found = study.solve_inequality(f"f(x) {sign} 0", None, LOW, HIGH)
                    self.assertTrue(found.complete)
                    spans += [(s.low.x, s.high.x) for s in found.items]
                spans.sort()
                self.assertAlmostEqual(LOW, spans[0][0], 12)
                self.assertAlmostEqual(HIGH, spans[-1][1], 12)
                ends = [high for _, high in spans[:-1]]
                for (_, high), (low, _) in pairwise(spans):
                    self.assertAlmostEqual(high, low, 10)
                inner = [z.x for z in zeros(study) if LOW < z.x < HIGH]
                self.assertEqual(len(inner), len(ends))
                for end, zero in zip(ends, inner, strict=True):
                    self.assertAlmostEqual(zero, end, 9)

    def test_solutions_of_inequalities_hold_at_every_sample(self) -> None:
        xs = np.linspace(LOW, HIGH, 4001)
        for text in FUNCTIONS:
            with self.subTest(text):
                study = study_of(text)
                ys = study.function("f").sample(xs)
                found = study.solve_inequality("f(x) >= 0.25", None, LOW, HIGH)
                inside = np.zeros(len(xs), dtype=bool)
                for span in found.items:
                    inside |= (xs >= span.low.x) & (xs <= span.high.x)
                clear = np.abs(ys - 0.25) > 1e-9
                np.testing.assert_array_equal((ys >= 0.25)[clear], inside[clear])

    def test_integrals_areas_and_arcs_add_up(self) -> None:
        answered = 0
        # An arc over a kink, or to where the slope has no end, is unknown yet, and says so.
        smooth = [text for text in FUNCTIONS if "|" not in text and "cbrt" not in text]
        for text in smooth:
            with self.subTest(text):
                study = study_of(text)
                parts = [
                    study.over_interval("f", a, b) for a, b in pairwise((LOW, -0.5, 1.25, HIGH))
                ]
                whole = study.over_interval("f", LOW, HIGH)
                for k, what in ((0, "integral"), (1, "area"), (3, "arc")):
                    measures = [whole[k], *(part[k] for part in parts)]
                    if any(measure.reason for measure in measures):
                        continue
                    answered += 1
                    total = math.fsum(part[k].value for part in parts)
                    self.assertAlmostEqual(whole[k].value, total, 8, what)
                if whole[0].reason:
                    continue
                self.assertAlmostEqual(whole[0].value / (HIGH - LOW), whole[2].value, 9)
                if whole[1].reason or whole[3].reason:
                    continue
                self.assertGreaterEqual(whole[1].value, abs(whole[0].value) - 1e-9)
                # The straight way from end to end is the shortest.
                low, high = study.function("f").sample(np.array([LOW, HIGH], float))
                self.assertGreaterEqual(whole[3].value, math.hypot(HIGH - LOW, high - low) - 1e-9)
        self.assertEqual(3 * len(smooth), answered)

    def test_polynomial_integrals_are_exact_fractions(self) -> None:
        rng, decided = np.random.default_rng(11), 0
        for _ in range(20):
            tops = rng.integers(-9, 9, 5).tolist()
            low, high = (
                Fraction(-int(rng.integers(0, 40)), 7),
                Fraction(int(rng.integers(1, 30)), 9),
            )
            study = study_of(" + ".join(f"({top})/3*x^{k}" for k, top in enumerate(tops)))
            whole, area, mean, _ = study.over_interval("f", str(low), str(high))
            exact = sum(
                Fraction(top, 3 * (k + 1)) * (high ** (k + 1) - low ** (k + 1))
                for k, top in enumerate(tops)
            )
            self.assertAlmostEqual(float(exact), whole.value, 12)
            for measure, fraction in ((whole, exact), (mean, exact / (high - low))):
                if "/" in measure.text:
                    decided += 1
                    self.assertEqual(str(fraction).replace("-", "−"), measure.text)
            # A cut that is no fraction is near the zero and not at it: nothing is exact then.
            if abs(exact) < 0.999 * area.value:  # type: ignore[operator]
                self.assertEqual("", area.decimal)
        self.assertGreater(decided, 10)


class KinkTest(unittest.TestCase):
    def test_integrals_over_kinks_roots_and_near_poles(self) -> None:
        """Each of these ran out of evaluations once, and was said not to be decided."""
        for text, low, high, expected in (
            ("|x - 1| - 3/4", -3, 3, "5.5"),
            ("|x - 1| - 3/4", -3, 4, "7.25"),
            ("|x - 1/3| + 1", -3, 4, "19.27777778"),
            ("|x^2 - 2|", -2, 2, "4.875805666"),
            ("cbrt(x) + 1", -1, 8, "20.25000000"),
            ("cbrt(x - 1)", -7, 2, "−11.25000000"),
            ("sqrt(|x|)", -4, 9, "23.33333333"),
            ("max(x, 1 - x)", -1, 2, "3.75"),
            ("1/(x^2 + 10^-4)", -1, 1, "312.1593320"),
            ("sqrt(1 + (3cos(3x) + 1/4)^2)", -3, 3, "13.21317218"),
        ):
            with self.subTest(text, low=low, high=high):
                result = Study().evaluate(f"integral({text}, x, {low}, {high})")
                self.assertEqual("", result.reason)
                self.assertEqual(expected, result.decimal(10))

    def test_kinks_and_jumps_are_measured_part_by_part(self) -> None:
        root = math.sqrt(2)
        for text, low, high, expected in (
            ("|x|", -1, 1, (1, 1, 0.5, 2 * root)),
            ("|x| - 1/2", -1, 1, (0, 0.5, 0, 2 * root)),
            ("floor(x)", 0, "5/2", (2, 2, 0.8, 2.5)),
            ("sign(x - 1/3)", -1, 2, (1 / 3, 3, 1 / 9, 3)),
            ("max(x, 1 - x)", -1, 2, (3.75, 3.75, 1.25, 3 * root)),
            ("x^2/2 for x < 0; 3x for x >= 0", -1, 1, (5 / 3, 5 / 3, 5 / 6,
             math.sqrt(10) + (root + math.asinh(1)) / 2)),
            ("|x^2 - 2|", -2, 2, (8 * (2 * root - 1) / 3, 8 * (2 * root - 1) / 3,
             2 * (2 * root - 1) / 3, 2 * math.sqrt(17) + math.asinh(4) / 2)),
            ("|sin(x)|", 0, "4pi", (8, 8, 2 / math.pi, 15.28079116)),
        ):  # fmt: skip
            measures = study_of(text).over_interval("f", low, high)
            for measure, value in zip(measures, expected, strict=True):
                with self.subTest(text, measure=measure.name):
                    self.assertEqual("", measure.reason)
                    self.assertAlmostEqual(value, measure.value, 8)
        for text in ("x^2 for 0 < x <= 2", "x^2 for 0 <= x < 2"):
            self.assertAlmostEqual(8 / 3, study_of(text).over_interval("f")[0].value, 9)
        for text, integral in (("|x|/x", 0), ("sin(x)/x", 1.892166140734366), ("ln(|x|)", -2)):
            self.assertAlmostEqual(integral, study_of(text).over_interval("f", -1, 1)[0].value, 9)
        for measure in study_of("1/x").over_interval("f", -1, 1)[:3]:
            self.assertEqual(("", "it diverges near x = 0"), (measure.text, measure.reason))

    def test_arc_lengths_match_their_inverse_functions(self) -> None:
        """Mirrored at y = x a graph keeps its length; what was upright then lies flat."""
        for text, low, high, inverse, first, last in (
            ("sqrt(x)", 0, 1, "x^2", 0, 1),
            ("sqrt(x^2 - 2)", "sqrt(2)", 2, "sqrt(x^2 + 2)", 0, "sqrt(2)"),
            ("cbrt(x - 1/3)", -1, 2, "x^3", "-cbrt(4/3)", "cbrt(5/3)"),
            ("asin(x)", -1, 1, "sin(x)", "-pi/2", "pi/2"),
            ("acosh(x)", 1, 3, "cosh(x)", 0, "acosh(3)"),
            ("x^(1/5)", -1, 1, "x^5", -1, 1),
        ):
            with self.subTest(text):
                length = study_of(text).over_interval("f", low, high)[3]
                self.assertEqual("", length.reason)
                self.assertEqual(
                    study_of(inverse).over_interval("f", first, last)[3].text, length.text
                )
        study = study_of("sqrt(1 - x^2)")
        with showing(20):
            self.assertEqual("3.1415926535897932385", study.over_interval("f", -1, 1)[3].text)
        # Neile's parabola, the first curve whose length was found.
        for text, low, high, value in (  # type: ignore[assignment]
            ("x^(3/2)", 0, "4/3", 56 / 27),
            ("x^(2/3)", -1, 8, (40**1.5 + 13**1.5 - 16) / 27),
        ):
            self.assertAlmostEqual(value, study_of(text).over_interval("f", low, high)[3].value, 9)
        whole, area, *_ = study_of("cbrt(x^3 - x)").over_interval("f", -2, 2)
        self.assertEqual("0", whole.text)
        # That it is odd is known by its form only; in pieces it has none that tells.
        pieces = study_of("cbrt(x) for x < 0; x^(1/3) for x >= 0").over_interval("f", -2, 2)
        self.assertRegex(pieces[0].text, r"^0 ± 10\^−[2-9]\d$")
        self.assertEqual("3.592118207", area.text)
        # Its slope is found by one exponent, for the rule of products has no value at 0.
        length = study_of("x sqrt(x)").over_interval("f", 0, 1)[3]
        self.assertAlmostEqual(8 / 27 * (3.25**1.5 - 1), length.value, 9)
        # Its slope is a sum that is unknown from 0 at the end, but grows there in a known way.
        length = study_of("x sqrt(sin x)").over_interval("f", 0, 1)[3]
        self.assertEqual("1.375931586", length.text)

    def test_the_area_counts_both_sides_of_the_axis(self) -> None:
        for text, low, high, expected in (
            ("sin(x)", 0, "2pi", 4),
            ("x^3", -1, 1, 0.5),
            ("x^2 - 1", -2, 2, 4),
            ("|x| - 1", -2, 3, 3.5),
            ("cos(x) - 1/2", 0, "2pi", 2 * math.sqrt(3) + math.pi / 3),
        ):
            with self.subTest(text):
                area = study_of(text).over_interval("f", low, high)[1]
                self.assertEqual("", area.reason)
                self.assertAlmostEqual(expected, area.value, 9)


#: Functions with breaks of every kind between -3 and 3.
BROKEN = (
    "1/(x - 1)",
    "(x^2 - 1)/(x - 1)",
    "|x|/x",
    "floor(x/2)",
    "tan(x)",
    "sin(x)/x",
    "1/(x^2 - 2)",
    "sqrt(2 - x)",
    "ln(x + 1)",
    "x + 1/x",
)


class BreakTest(unittest.TestCase):
    def test_breaks_go_along_when_a_function_is_moved_or_turned_over(self) -> None:
        for text in BROKEN:
            study = study_of(text, "moved(x) = f(x - 5)", "over(x) = 1 - 3f(x)")
            breaks = study.breaks("f", LOW, HIGH)
            self.assertTrue(breaks.items, text)
            for name, by in (("moved", 5), ("over", 0)):
                with self.subTest(text, name=name):
                    found = study.breaks(name, LOW + by, HIGH + by)
                    self.assertEqual(breaks.complete, found.complete)
                    self.assertEqual([b.kind for b in breaks], [b.kind for b in found])
                    np.testing.assert_allclose(
                        [b.x for b in found], [b.x + by for b in breaks], atol=1e-12
                    )

    def test_a_pole_is_a_zero_of_the_reciprocal(self) -> None:
        for text in FUNCTIONS:
            with self.subTest(text):
                study = study_of(text, "r(x) = 1/f(x)")
                crossed = [z.x for z in zeros(study) if LOW < z.x < HIGH]
                poles = [b.x for b in study.breaks("r", LOW, HIGH) if b.kind is Kind.POLE]
                np.testing.assert_allclose(poles, crossed, atol=1e-9)

    def test_no_zero_is_claimed_where_there_is_a_break(self) -> None:
        for text in BROKEN:
            with self.subTest(text):
                study = study_of(f"({text})")
                breaks = [b.x for b in study.breaks("f", LOW, HIGH) if b.kind is not Kind.END]
                for zero in zeros(study):
                    y = float(study.function("f").sample(np.array([zero.x]))[0])
                    near = min((abs(zero.x - x) for x in breaks), default=1.0)
                    self.assertTrue(abs(y) < 1e-9 or near > 1e-9, (zero.x, y))


class TangentTest(unittest.TestCase):
    def test_a_tangent_touches_and_runs_as_steep_as_secants_do(self) -> None:
        for text in FUNCTIONS:
            for abscissa in (-1.3, 0.45, 2.2):
                with self.subTest(text, abscissa=abscissa):
                    study = study_of(text)
                    function = study.function("f")
                    at = study.at_point("f", abscissa)
                    value, slope = at.measures[0].value, at.measures[1].value
                    h = 1e-5
                    y = function.sample(np.array([abscissa - h, abscissa, abscissa + h]))
                    self.assertAlmostEqual(float(y[1]), value, 12)
                    self.assertAlmostEqual(float(y[2] - y[0]) / (2 * h), slope, 5)
                    study.define(f"t(x) = {at.tangent}")
                    on = study.function("t").sample(np.array([abscissa, abscissa + 1.0]))
                    self.assertAlmostEqual(value, float(on[0]), 9)
                    self.assertAlmostEqual(slope, float(on[1] - on[0]), 9)

    def test_a_normal_stands_at_a_right_angle_on_the_curve(self) -> None:
        for text in FUNCTIONS:
            with self.subTest(text):
                study = study_of(text)
                at = study.at_point("f", 0.7)
                slope = at.measures[1].value
                if not at.normal or abs(slope) < 1e-9:
                    continue
                study.define(f"n(x) = {at.normal}")
                low, high = study.function("n").sample(np.array([0.7, 1.7]))
                self.assertAlmostEqual(at.measures[0].value, float(low), 9)
                self.assertAlmostEqual(-1.0, slope * float(high - low), 7)

    def test_curvature_matches_the_circle_through_near_points(self) -> None:
        for text in ("x^2", "sin(x)", "exp(x)", "x^3 - x", "1/(1 + x^2)"):
            with self.subTest(text):
                study = study_of(text)
                abscissa, h = 0.6, 1e-4
                xs = np.array([abscissa - h, abscissa, abscissa + h])
                ys = study.function("f").sample(xs)
                sides = [
                    math.hypot(xs[j] - xs[i], ys[j] - ys[i]) for i, j in ((0, 1), (1, 2), (0, 2))
                ]
                area = (xs[1] - xs[0]) * (ys[2] - ys[0]) - (xs[2] - xs[0]) * (ys[1] - ys[0])
                circle = 2 * abs(area) / math.prod(sides)
                measures = study.at_point("f", abscissa).measures
                (curvature,) = (m.value for m in measures if m.name == "curvature")
                self.assertAlmostEqual(circle, abs(curvature), 5)
