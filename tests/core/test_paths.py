"""Paths and curves by an angle: the drawn line is true, and open where the path is."""

import math
import unittest
from dataclasses import replace
from fractions import Fraction
from itertools import pairwise

import numpy as np

from axis_path.core import MathError, Study, Window
from axis_path.core.arithmetic import ball
from axis_path.core.draw import Curve, sample_path
from axis_path.core.draw.curves.clip import clip_line, nearest_part
from axis_path.core.draw.pixels import tenths_across, tenths_down
from axis_path.core.features.lines.edits import mark_line
from axis_path.core.kinds.paths.drawing import _read_at, point_text
from axis_path.core.kinds.states import States
from axis_path.core.lines.domains import round_to

WINDOW = Window((-10, 10), (-7, 7), 660, 430)
FULL = "for 0 <= t <= 2pi"
TURN = "for 0 <= theta <= 2pi"
#: Paths, each with the parameters that no line may cross.
ZOO: tuple[tuple[str, tuple[float, ...]], ...] = (
    (f"P(t) = (5cos(3t), 5sin(2t)) {FULL}", ()),
    (f"P(t) = (5cos(t)^3, 5sin(t)^3) {FULL}", ()),
    ("P(t) = (t^3, t^2) for -2 <= t <= 2", ()),
    ("P(t) = (1000t, 700t) for -1 <= t <= 1", ()),
    ("P(t) = (t, sqrt(1 - t^2)) for -1 <= t <= 1", ()),
    ("P(t) = (t^(1/5), t) for -8 <= t <= 8", ()),
    ("P(t) = (|t|, t/2) for -8 <= t <= 8", ()),
    ("P(t) = (t, t sin(4t)/2) for -10 <= t <= 10", ()),
    ("P(t) = (t - 2sin(t), 1 - 2cos(t)) for -10 <= t <= 10", ()),
    ("P(t) = (e^t cos(9t)/9, e^t sin(9t)/9) for -5 <= t <= 5", ()),
    ("P(t) = (1/t, t) for -6 <= t <= 6", (0.0,)),
    ("P(t) = (t, tan(t)) for -9 <= t <= 9", tuple(k * math.pi / 2 for k in (-5, -3, -1, 1, 3, 5))),
    ("P(t) = (floor(t), t) for -5 <= t <= 5", tuple(float(k) for k in range(-4, 5))),
    ("P(t) = (t, |t|/t) for -5 <= t <= 5", (0.0,)),
    ("P(t) = (2t, t) for -4 <= t <= 4, t != 1", (1.0,)),
    (f"r(theta) = 2 + 3sin(4theta) {TURN}", ()),
    (f"r(theta) = 3 {TURN}", ()),
    ("r(theta) = theta/10 for 0 <= theta <= 60pi", ()),
    (f"r(theta) = 1/cos(theta) {TURN}", (math.pi / 2, 3 * math.pi / 2)),
    (f"r(theta) = 2/(1 - cos(theta)) {TURN}", ()),
    (f"r(theta) = sqrt(cos(2theta)) 4 {TURN}", ()),
)
#: Where a path ends or breaks, a line may stop this far before, in px.
_GAP_PX = 1.0


def study_with(*lines: str, unit: str = "radians") -> Study:
    study = Study(unit)
    for line in lines:
        study.define(line)
    return study


def in_px(points: np.ndarray, window: Window = WINDOW) -> np.ndarray:
    return np.column_stack([window.across(points[:, 0]), window.down(points[:, 1])])


def distances(points: np.ndarray, curve: Curve, window: Window = WINDOW) -> np.ndarray:
    """Return the distance of each point, in px, from the drawn line."""
    best = np.full(len(points), np.inf)
    for piece in curve.pieces:
        x, y = in_px(piece, window).T
        dx, dy = np.diff(x), np.diff(y)
        length = np.maximum(dx**2 + dy**2, 1e-18)
        for k in range(0, len(points), 100):
            part = points[k : k + 100]
            right, below = part[:, :1] - x[:-1], part[:, 1:] - y[:-1]
            along = np.clip((right * dx + below * dy) / length, 0, 1)
            away = np.square(right - along * dx) + np.square(below - along * dy)
            best[k : k + 100] = np.minimum(best[k : k + 100], np.sqrt(away.min(axis=1)))
    return best


def inside(px: np.ndarray) -> np.ndarray:
    return ((px >= 0) & (px <= (WINDOW.width, WINDOW.height))).all(axis=1)  # type: ignore[return-value]


class PathTest(unittest.TestCase):
    def compare(
        self, line: str, breaks: tuple[float, ...], window: Window, count: int = 6_000
    ) -> int:
        study = study_with(line)
        path = study.path(study.names()[0])
        curve = sample_path(path, window)
        ts = np.random.default_rng(4).uniform(path.low.near, path.high.near, count)
        for abscissa in breaks:
            ts = ts[np.abs(ts - abscissa) > 1e-4]
        points = in_px(path.points(ts), window)
        visible = points[np.isfinite(points).all(axis=1)]
        visible = visible[inside(visible)]
        away = distances(visible, curve, window) if len(visible) else np.zeros(1)
        self.assertLess(float(np.quantile(away, 0.999, method="lower")), 0.5 / window.stretch)
        self.assertLess(float(away.max()), _GAP_PX)
        return len(visible)

    def test_the_line_is_within_half_a_pixel_of_a_dense_truth(self) -> None:
        for line, breaks in ZOO:
            with self.subTest(line):
                self.assertGreater(self.compare(line, breaks, WINDOW), 50)
                large = replace(WINDOW, stretch=2.0)
                self.assertGreater(self.compare(line, breaks, large, 1_500), 12)

    def test_so_it_is_on_logarithmic_axes(self) -> None:
        """What is not positive stands nowhere there, and takes no line with it."""
        compared = 0
        for window in (
            Window((0.01, 10), (-7, 7), 660, 430, log_x=True),
            Window((-10, 10), (0.01, 10), 660, 430, log_y=True),
            Window((0.01, 10), (0.01, 10), 660, 430, log_x=True, log_y=True),
        ):
            for line, breaks in ZOO:
                with self.subTest(line, x=window.log_x, y=window.log_y):
                    compared += self.compare(line, breaks, window, 1_500)
        self.assertGreater(compared, 15_000)

    def test_drawn_points_lie_on_the_path(self) -> None:
        """Every drawn point is the path's own, so a line is no further from it than its middle."""
        for line, _ in ZOO:
            study = study_with(line)
            path = study.path(study.names()[0])
            curve = sample_path(path, WINDOW)
            for piece, ts in zip(curve.pieces, curve.parameters, strict=True):
                middle = in_px(path.points((ts[1:] + ts[:-1]) / 2))
                chord = in_px((piece[1:] + piece[:-1]) / 2)
                near = inside(middle) & inside(chord)
                start, stop = in_px(piece[:-1])[near], in_px(piece[1:])[near]
                step = stop - start
                offset = middle[near] - start
                length = np.maximum(np.hypot(*step.T), 1e-9)
                aside = np.abs(step[:, 0] * offset[:, 1] - step[:, 1] * offset[:, 0]) / length
                with self.subTest(line):
                    self.assertLess(float(aside.max(initial=0)), 0.5)

    def test_paths_that_nobody_chose_are_true_too(self) -> None:
        rng = np.random.default_rng(21)
        for _ in range(15):
            sums = [
                " + ".join(
                    f"({rng.uniform(-3, 3):.2f}) {turn}({k}t)"
                    for k, turn in zip(rng.integers(1, 9, 3), ("sin", "cos", "sin"), strict=True)
                )
                for _ in range(2)
            ]
            line = f"P(t) = ({sums[0]}, {sums[1]}) for 0 <= t <= 2pi"
            path = study_with(line).path("P")
            curve = sample_path(path, WINDOW)
            points = in_px(path.points(rng.uniform(0, 2 * math.pi, 4_000)))
            with self.subTest(line):
                self.assertEqual(0, len(curve.unsettled))
                self.assertLess(float(distances(points[inside(points)], curve).max()), 0.5)

    def test_no_piece_joins_across_a_break(self) -> None:
        for line, breaks in ZOO:
            study = study_with(line)
            curve = sample_path(study.path(study.names()[0]), WINDOW)
            for abscissa in breaks:
                with self.subTest(line, abscissa=abscissa):
                    for ts in curve.parameters:
                        self.assertFalse(ts[0] < abscissa - 1e-9 and ts[-1] > abscissa + 1e-9)

    def test_path_with_too_many_windings_is_reported(self) -> None:
        study = study_with("r(theta) = 3 + sin(1.001theta) for 0 <= theta <= 2*10^6 pi")
        curve = study.curve("r", WINDOW)
        self.assertEqual([], curve.pieces)
        self.assertEqual([[0.0, 2e6 * math.pi]], curve.unsettled.tolist())
        self.assertIn("turns too often", study.scene(WINDOW).rows[0]["why"]["sentence"])

    def test_default_bounds_are_assumed_and_shown(self) -> None:
        for line, unit, low, high, words in (
            ("r(theta) = 2", "radians", 0, 2 * math.pi, "drawn for 0 ≤ θ ≤ 2π"),
            ("r(theta) = 2", "degrees", 0, 360, "drawn for 0 ≤ θ ≤ 360"),
            (
                "r(theta) = 2 for theta > 1",
                "radians",
                1,
                1 + 2 * math.pi,
                "drawn for 1 < θ ≤ 7.283",
            ),
            ("P(t) = (t, t^2)", "radians", -10, 10, "drawn for −10 ≤ t ≤ 10"),
            ("P(t) = (t, t^2) for t <= 3", "radians", -17, 3, "drawn for −17 ≤ t ≤ 3"),
        ):
            with self.subTest(line, unit=unit):
                study = study_with(line, unit=unit)
                path = study.path(study.names()[0])
                self.assertAlmostEqual(low, path.low.near)
                self.assertAlmostEqual(high, path.high.near)
                self.assertEqual(words, study.scene(WINDOW).rows[0]["assumed"])

    def test_degrees_turn_a_curve_by_an_angle_once_in_360(self) -> None:
        study = study_with("r(theta) = 2 + sin(theta)", unit="degrees")
        points = study.path("r").points(np.array([0.0, 90.0, 180.0, 270.0]))
        self.assertTrue(np.allclose([[2, 0], [0, 3], [-2, 0], [0, -1]], points, atol=1e-12))

    def test_a_lane_has_the_scale_of_its_parameter(self) -> None:
        rows = study_with("r(theta) = 2 for 0 <= theta < 2pi", "P(t) = (t, t)").scene(WINDOW).rows
        lane = rows[0]["lane"]
        self.assertEqual(
            ["0", "π/2", "π", "3π/2", "2π"], [t["text"] for t in lane["scale"]["ticks"]]
        )
        self.assertTrue(lane["low"]["closed"])
        self.assertFalse(lane["high"]["closed"])
        self.assertEqual(lane["scale"]["ticks"][0]["x"], lane["low"]["x"])
        self.assertIsNone(rows[1]["lane"]["low"])

    def test_ends_are_dots_but_not_where_a_path_closes(self) -> None:
        for line, count in ((f"P(t) = (cos t, sin t) {FULL}", 0), (f"P(t) = (t, t) {FULL}", 2),
                            ("P(t) = (t, t/2) for 0 <= t <= 4, t != 1, t != 9", 3)):  # fmt: skip
            with self.subTest(line):
                self.assertEqual(
                    count, len(study_with(line).scene(WINDOW).rows[0]["curve"]["ends"])
                )

    def test_an_invisible_path_states_the_reason(self) -> None:
        for line, words in (
            ("P(t) = (t, sqrt(-1 - t^2))", "no real point"),
            ("P(t) = (t + 99, t) for 0 <= t <= 1", "outside the window"),
            ("P(t) = (t, t) for 3 <= t <= 2", "is empty"),
        ):
            with self.subTest(line):
                self.assertIn(words, study_with(line).scene(WINDOW).rows[0]["why"]["sentence"])

    def test_invalid_paths_are_refused(self) -> None:
        with self.assertRaises(MathError):
            study_with("f(x) = x").path("f")


class BadInputTest(unittest.TestCase):
    """What cannot be drawn well is bounded, and says so."""

    def test_windows_at_the_ends_of_what_floats_can_do(self) -> None:
        study = study_with("f(x) = x^2", "P(t) = (t, t^2)", "r(theta) = 2", "x^2 + y^2 = 4", "y > x", "A = (1, 2)",
                           "d(x, y) = x y")  # fmt: skip
        for x, y in (((0, 1e-9), (0, 1e-9)), ((1e6, 1e6 + 1e-4), (-1, 1)), ((-1e140, 1e140), (-1e140, 1e140)),
                     ((-1e-140, 1e-140), (-1, 1)), ((-1e9, 1e9), (-1e-9, 1e-9))):  # fmt: skip
            with self.subTest(x=x, y=y):
                rows = study.scene(Window(x, y, 660, 430)).rows
                self.assertEqual(7, len(rows))
                for row in rows:
                    for piece in row["curve"]["pieces"]:
                        self.assertTrue(all(abs(number) < 1e6 for number in piece))
        for x in ((1, 0), (1, 1), (0, 1e301), (1e6, 1e6 + 1e-14), (math.nan, 1)):
            with self.subTest(x=x), self.assertRaises(MathError):
                Window(x, (0, 1), 660, 430)

    def test_undefined_points_state_the_reason(self) -> None:
        for line, words in (
            ("f(x) = sqrt(-1 - x^2)", "no real value"),
            ("x^2 + y^2 = -1", "at no point of this window"),
            ("x^2 + y^2 < -1", "at no point of this window"),
            ("(x - 99)^2 + y^2 = 1", "at no point of this window"),
            ("d(x, y) = 3", "the same value everywhere"),
            ("d(x, y) = sqrt(-1 - x^2 - y^2)", "no value"),
            ("A = (99, 1)", "outside the window"),
        ):
            with self.subTest(line):
                scene = study_with(line).scene(WINDOW)
                self.assertIn(words, scene.rows[0]["why"]["sentence"])
                self.assertTrue(scene.to_dict())

    def test_a_hundred_curves_and_what_holds_everywhere(self) -> None:
        study = study_with(*(f"f_{k}(x) = sin(x + {k}/10)" for k in range(100)))
        self.assertTrue(all(row["curve"]["pieces"] for row in study.scene(WINDOW).rows))
        for line in ("x = x", "x^2 + y^2 >= 0", "0 < e^x"):
            with self.subTest(line):
                curve = study_with(line).scene(WINDOW).rows[0]["curve"]
                self.assertTrue(curve["dense"] or curve["fills"])

    def test_a_drawing_replaces_only_its_own_line(self) -> None:
        """A hidden line, one turned off and one with a problem draw nothing, and the others stand."""
        study = study_with("P(t) = (t, t)", "x^2 + y^2 = 4", "A = (1, 2)", "d(x, y) = x y")
        whole = study.scene(WINDOW).rows
        for line in (1, 2, 3, 4):
            study.edit(mark_line, line, hidden=True)
            rows = study.scene(WINDOW).rows
            self.assertIsNone(rows[line - 1]["curve"])
            study.edit(mark_line, line, hidden=False, disabled=True)
            self.assertIsNone(study.scene(WINDOW).rows[line - 1]["curve"])
            study.edit(mark_line, line, disabled=False)
        self.assertEqual(whole, study.scene(WINDOW).rows)


class FacadeTest(unittest.TestCase):
    def test_curve_exists_for_drawable_kinds_only(self) -> None:
        study = study_with("f(x) = x", "P(t) = (t, 2t)", "r(theta) = 2", "ring: x^2 + y^2 = 4", "A = (1, 2)",
                           "a = 3", "d(x, y) = x y")  # fmt: skip
        for name in ("f", "P", "r"):
            with self.subTest(name):
                self.assertFalse(study.curve(name, WINDOW).is_empty)
        for name in ("ring", "A", "a", "d", "nothing"):
            with self.subTest(name), self.assertRaises(MathError):
                study.curve(name, WINDOW)
        for name in ("f", "A", "ring"):
            with self.subTest(name), self.assertRaises(MathError):
                study.path(name)

    def test_a_path_follows_its_slider_and_its_functions(self) -> None:
        study = study_with("a = 2", "g(t) = a t", "P(t) = (g(t), t^2) for 0 <= t <= a")
        before = study.path("P").points(np.array([1.0]))
        study.set("a", 3)
        after = study.path("P")
        self.assertEqual([[2.0, 1.0]], before.tolist())
        self.assertEqual([[3.0, 1.0]], after.points(np.array([1.0])).tolist())
        self.assertEqual(3.0, after.high.near)


class ClipTest(unittest.TestCase):
    def test_clipping_keeps_exactly_the_parts_in_the_box(self) -> None:
        rng = np.random.default_rng(8)
        for _ in range(300):
            line = rng.uniform(-3, 3, (rng.integers(2, 9), 2))
            points, starts = clip_line(line, -1.0, -1.0, 1.0, 1.0)
            parts = [points[start:stop] for start, stop in pairwise(starts)]
            for part in parts:
                self.assertTrue((np.abs(part) <= 1 + 1e-12).all())
            # Dense points of the line in the box are as long together as the parts are.
            steps = np.linspace(0, 1, 4_001)[1:] - 1 / 8_000
            dense = line[:-1, None] + (line[1:] - line[:-1])[:, None] * steps[:, None]
            lengths = np.hypot(*(line[1:] - line[:-1]).T)
            expected = float(((np.abs(dense) <= 1).all(axis=2).mean(axis=1) * lengths).sum())
            found = sum(float(np.hypot(*np.diff(part, axis=0).T).sum()) for part in parts)
            self.assertAlmostEqual(expected, found, delta=0.02)


class ReadingTest(unittest.TestCase):
    def test_nearest_point_on_a_polyline(self) -> None:
        rng = np.random.default_rng(5)
        for is_log in (False, True):
            window = Window((0.1, 10), (0.1, 10), 660, 430, log_x=is_log, log_y=is_log)
            for _ in range(60):
                line, at = rng.uniform(0.2, 9, (rng.integers(2, 9), 2)), rng.uniform(0.2, 9, 2)
                away, k, part = nearest_part(line, *window.across_from, *window.down_from, *at)
                px = np.array([window.px_of(*point) for point in line])
                steps = np.linspace(0, 1, 4_001)
                dense = px[:-1, None] + (px[1:] - px[:-1])[:, None] * steps[:, None]
                far = np.hypot(*(dense - window.px_of(*at)).transpose(2, 0, 1))
                self.assertAlmostEqual(float(far.min()), away, delta=0.2)
                found = px[k] + part * (px[k + 1] - px[k])
                self.assertAlmostEqual(away, math.dist(found, window.px_of(*at)), places=6)

    def test_quick_point_equals_proved_point(self) -> None:
        study = study_with("s = 0.3", f"P(t) = (5cos(3t), 4sin(2t + s)) {FULL}", "Q(t) = (t^2/8, 1/t) for -1 <= t <= 4",
                           f"r(theta) = 2 + s sin(4theta) {TURN}")  # fmt: skip
        for path in study.snapshot.query(States).state.paths.values():
            low, high = path.low.near, path.high.near
            for t in (low, high, *np.linspace(low, high, 60), 0.0, 1.0):
                read = _read_at(path, float(t), WINDOW)
                step = (high - low) / (2 * WINDOW.visible.width)
                abscissa = min(max(round_to(float(t), step), Fraction(low)), Fraction(high))
                self.assertEqual(point_text(path, ball.from_fraction(abscissa)), read["text"])
                (x, y), (across, down) = (
                    path.points(np.array([float(abscissa)]))[0],
                    (read["x"], read["y"]),
                )
                if math.isfinite(x) and math.isfinite(y):
                    wanted = (
                        tenths_across(np.array([x]), WINDOW)[0],
                        tenths_down(np.array([y]), WINDOW)[0],
                    )
                    self.assertEqual([int(number) for number in wanted], [across, down])
                else:
                    self.assertEqual([None, None], [across, down])


class PointTest(unittest.TestCase):
    def test_points_and_lists_of_points_are_dots(self) -> None:
        study = study_with("a = 2", "A = (a, a^2)", "L = [(1, 2), (3, 4), (99, 0)]", "M = [1, 2]",
                           "B = (1/0, 2)", "Z = (i, 1)", "P(t) = (t, 2t)", "now = P(a)")  # fmt: skip
        rows = {row["name"]: row for row in study.scene(WINDOW).rows}
        self.assertEqual(1, len(rows["A"]["curve"]["dots"]) // 2)
        self.assertEqual(2, len(rows["L"]["curve"]["dots"]) // 2)
        self.assertEqual(rows["A"]["curve"]["dots"], rows["now"]["curve"]["dots"])
        self.assertIsNone(rows["M"]["curve"])
        for name in ("B", "Z"):
            self.assertIn("no value", rows[name]["why"]["sentence"])
        tones = [rows[name]["tone"] for name in ("A", "L", "P", "now")]
        self.assertEqual(4, len(set(tones)))

    def test_labels_of_points_avoid_one_another_and_the_curves(self) -> None:
        study = study_with(
            "f(x) = x", "A = (1, 1)", "B = (2, 2)", "C = (2.3, 2.2)", "D = (9.9, 6.4)", "g(x) = 2"
        )
        scene = study.scene(WINDOW).to_dict()
        flags = {row["name"]: row["flag"] for row in scene["rows"]}
        boxes = [flags[name] for name in "ABCD"]
        for k, one in enumerate(boxes):
            self.assertTrue(
                one["x"] >= 0 and one["x"] + one["width"] <= 660 and 0 <= one["y"] <= 412
            )
            for other in boxes[k + 1 :]:
                apart = (
                    one["x"] >= other["x"] + other["width"] or other["x"] >= one["x"] + one["width"]
                )
                self.assertTrue(apart or abs(one["y"] - other["y"]) >= 18)
        # Neither the line y = x nor y = 2 runs through the labels of A, B and C.
        for name in "ABC":
            flag = flags[name]
            xs = np.linspace(flag["x"], flag["x"] + flag["width"], 40) / WINDOW.x_px - 10
            for ys in (xs, np.full(40, 2.0)):
                down = (7 - ys) * WINDOW.y_px
                self.assertFalse(((down > flag["y"] + 1) & (down < flag["y"] + 17)).any(), name)
