"""Axes, grids, windows that frame, lanes with signs, sampling checks, and the commands for them."""

import math
import unittest
from fractions import Fraction
from typing import Any

import numpy as np

from axis_path.core import MathError, Study, Window
from axis_path.core.draw import Labels, check_sampling, frame, home, make_ticks, sample_curve
from axis_path.core.draw.polar import polar_grid
from axis_path.core.evaluate import digits_between
from axis_path.core.features.axes.section import AxesSpec
from axis_path.core.features.checks.section import SamplingCheck
from axis_path.core.kinds.functions.breaks import breaks_of
from axis_path.core.language.tree import AngleUnit
from axis_path.core.lines.meaning import LineKey, LineKeys
from axis_path.core.locate import find_zeros, interval, quick_zeros
from axis_path.core.scene.pictures import Pictures
from tests.core.functions import make_function

WINDOW = Window((-10, 10), (-6.5, 6.5), 660, 430)


def study_with(*lines: str, unit: str = "radians") -> Study:
    study = Study(unit)
    for line in lines:
        study.define(line)
    return study


class TickTest(unittest.TestCase):
    def test_tick_labels_match_their_positions(self) -> None:
        for labels, degree, unit in (
            (Labels.NUMBERS, 1, 1), (Labels.PI, 1, math.pi), (Labels.DEGREES, 1, 1),
            (Labels.DEGREES, math.pi / 180, math.pi / 180),
        ):  # fmt: skip
            for low, high in ((0, 6.3), (-10, 10), (-0.01, 0.02), (-4_000, 9_000), (1e6, 1e6 + 1)):
                ticks = make_ticks(low, high, 660, labels, degree=degree)
                with self.subTest(labels, low=low, high=high):
                    self.assertTrue(2 <= len(ticks.positions) <= 20)
                    for abscissa, text in zip(ticks.positions, ticks.labels, strict=True):
                        plain = text.replace("−", "-").rstrip("°")
                        if labels is Labels.PI:
                            top, _, bottom = plain.partition("/")
                            count = top.replace("π", "") or "1"
                            count = "-1" if count == "-" else count
                            value = float(count) / float(bottom or 1)
                        else:
                            value = float(plain)
                        self.assertAlmostEqual(
                            abscissa, value * unit, delta=1e-9 * max(abs(abscissa), 1)
                        )

    def test_a_chosen_step_is_used_unless_it_is_too_fine(self) -> None:
        self.assertEqual(
            ("−1", "−0.75", "−0.5"), make_ticks(-1, 1, 660, step=Fraction(1, 4)).labels[:3]
        )
        self.assertLess(len(make_ticks(-1, 1, 660, step=Fraction(1, 1000)).positions), 20)
        self.assertEqual("π/4", make_ticks(0, 7, 660, Labels.PI, step=Fraction(1, 4)).labels[1])

    def test_a_polar_grid_has_circles_and_angles_where_they_belong(self) -> None:
        for unit, text in ((AngleUnit.RADIANS, "π/6"), (AngleUnit.DEGREES, "30°")):
            grid = polar_grid(WINDOW, unit)
            first = grid["circles"][0]
            self.assertAlmostEqual(float(first["text"]) * WINDOW.x_px * 10, first["rx"], delta=1)
            self.assertAlmostEqual(float(first["text"]) * WINDOW.y_px * 10, first["ry"], delta=1)
            spoke = next(candidate for candidate in grid["spokes"] if candidate["text"] == text)
            x, y = spoke["label"][0] / 10, spoke["label"][1] / 10
            self.assertTrue(0 < x < WINDOW.width and 0 < y < WINDOW.height)
            ax, ay = x / WINDOW.x_px - 10, 6.5 - y / WINDOW.y_px
            self.assertAlmostEqual(math.pi / 6, math.atan2(ay, ax), delta=0.01)
        far = polar_grid(Window((100, 101), (100, 101), 660, 430), AngleUnit.RADIANS)
        self.assertLessEqual(len(far["circles"]), 62)


class FlagTest(unittest.TestCase):
    def test_a_crowded_flag_leaves_the_dot_uncovered(self) -> None:
        study = Study()
        lines = (
            "f(x) = x/2 + 1 for x <= 9.5",
            "g(x) = -x/4 for x < 9.9",
            "h(x) = 6",
            "k(x) = x for x <= 3",
        )
        for line in lines:
            study.define(line)
        for window in (WINDOW, WINDOW.widened(160)):
            rows = study.scene(window).to_dict()["rows"]
            f, g, h, k = (row["flag"] for row in rows)
            for flag, row in zip((f, g, k), (rows[0], rows[1], rows[3]), strict=True):
                (end,) = row["curve"]["ends"]
                x, y = end["x"] / 10, end["y"] / 10
                is_clear = x + 5 <= flag["x"] or x - 5 >= flag["x"] + flag["width"]
                self.assertTrue(
                    is_clear or abs(flag["y"] + 9 - y) >= 9 + 5, (row["name"], flag, x, y)
                )
                self.assertLessEqual(flag["x"] + flag["width"], 658)
            # One that goes on has its flag at its line, and so has one with room.
            self.assertEqual(
                [6, 6],
                [round(6.5 - (flag["y"] + 9) * 13 / 430) + (0, 3)[flag is k] for flag in (h, k)],
            )

    def test_flags_cover_neither_numbers_nor_names_of_the_axes(self) -> None:
        looks: Any = {}, {"at_edge": True}, {"title": "Tern Quay"}, {"x": {"name": "time"}}
        for axes, shift in ((axes, shift) for axes in looks for shift in (-12.0, -3.0, 0.0, 4.4)):
            study = study_with(
                "f(x) = sin(2x)/x", "g(x) = 5.9", "h(x) = x^2/99", "p(x) = 0.3x - 6.2", "x = 9.7",
                "q(x) = x^3 + 5", "y < -0.2", "v(x) = -1/8",
            )  # fmt: skip
            study.apply({"do": "axes", "axes": axes}, WINDOW)
            window = Window((-10 + shift, 10 + shift), (-6.5, 6.5), 660, 430)
            scene = study.scene(window).to_dict()
            found = scene["axes"]
            level = 430 - 21 if found["x_axis"] is None else found["x_axis"] / 10
            upright = 0 if found["y_axis"] is None else found["y_axis"] / 10
            name_level = 430 - 14 if found["x_axis"] is None else level
            # Out of sight an axis has its numbers at the edge, and all of them inside.
            right = max(upright - 6, 7.2 * max(4, *map(len, found["y"]["labels"])) + 5)
            # As the picture writes them: the middle of each text, and half of its width.
            texts = [
                *((x / 10, min(level + 11, 424), 3.4 * len(text)) for x, text in zip(found["x"]["positions"], found["x"]["labels"], strict=True)),
                *((right - 3.4 * len(text), y / 10, 3.4 * len(text)) for y, text in zip(found["y"]["positions"], found["y"]["labels"], strict=True)),
                (652 - 4 * len(found["x"]["name"]), min(name_level - 7, 418) - 4, 4 * len(found["x"]["name"])),
                (upright + 12, 12 + 28 * bool(axes.get("title")), 4),
            ]  # fmt: skip
            flags = [row["flag"] for row in scene["rows"] if row["flag"]]
            self.assertGreaterEqual(len(flags), 4)
            for flag in flags:
                for x, y, half in texts:
                    is_clear = abs(x - flag["x"] - flag["width"] / 2) >= half + flag["width"] / 2
                    self.assertTrue(
                        is_clear or abs(y - flag["y"] - 9) >= 9 + 4, (axes, shift, flag, x, y)
                    )


class FrameTest(unittest.TestCase):
    def test_a_wave_shows_a_few_turns(self) -> None:
        for text in ("sin(40x)", "5 sin(300x) + 1", "sin(10^4 x)", "cos(9x) exp(-x^2/50)"):
            with self.subTest(text):
                function = make_function(text)
                found = frame([function], home(660, 430))
                xs = np.linspace(*found.x, 40_001)
                steps = np.sign(np.diff(function.sample(xs)))
                turns = int((steps[1:] != steps[:-1]).sum())
                self.assertTrue(3 <= turns <= 41, turns)

    def test_paths_points_and_equations_are_inside(self) -> None:
        study = study_with("P(t) = (30 + 5cos t, sin t) for 0 <= t <= 2pi", "A = (2, 40)",
                           "x^2/25 + y^2/9 = 1")  # fmt: skip
        found = frame([], WINDOW, study.snapshot.query(Pictures).extents(WINDOW))
        self.assertTrue(found.x[0] < -5 < 35 < found.x[1] and found.y[0] < -3 < 40 < found.y[1])
        only = frame(
            [], WINDOW, study.snapshot.query(Pictures).extents(WINDOW, study.snapshot.lines[0].id)
        )
        self.assertTrue(24 < only.x[0] < 25 and 35 < only.x[1] < 36)


class LaneTest(unittest.TestCase):
    FUNCTIONS = ("x^3 - 4x", "1/x", "tan x", "sin(x) - 0.3", "|x| - 2", "floor(x) + 0.5", "e^x", "ln x",
                 "x^2", "(x^2 + 1)/(x - 1)", "3", "sqrt(4 - x^2) - 1")  # fmt: skip

    def test_signs_and_trends_are_true_where_they_are_shown(self) -> None:
        rng = np.random.default_rng(3)
        for text in self.FUNCTIONS:
            study = study_with(f"f(x) = {text}")
            function, lane = study.function("f"), study.scene(WINDOW).rows[0]["lane"]
            self.assertTrue(lane["signs"])
            for kind in ("signs", "trends"):
                for low, high, sign in lane[kind]:
                    # A stretch is given to a tenth of a pixel.
                    ends = np.array([low + 1, high - 1]) / 10 / WINDOW.x_px - 10
                    if ends[1] <= ends[0]:
                        continue
                    xs = np.sort(rng.uniform(*ends, 60))  # type: ignore[call-overload]
                    ys = function.sample(xs)
                    value = np.sign(ys) if kind == "signs" else np.sign(np.diff(ys))
                    with self.subTest(text, kind=kind, low=low):
                        self.assertTrue((value[np.isfinite(value)] == sign).all())

    def test_intervals_without_values_state_the_reason(self) -> None:
        for text, reasons in (
            ("sqrt(x)", ["sqrt of a negative number"]),
            ("ln(x^2 - 4)", ["ln of a negative number"]),
            ("sqrt(x^2 - 9)", ["sqrt of a negative number"]),
            ("x^2", []),
            ("asin(x)", ["asin", "asin"]),
        ):
            lane = study_with(f"f(x) = {text}").scene(WINDOW).rows[0]["lane"]
            with self.subTest(text):
                self.assertEqual(len(reasons), len(lane["reasons"]))
                self.assertEqual(len(lane["undefined"]), len(lane["reasons"]))
                for part, reason in zip(reasons, lane["reasons"], strict=True):
                    self.assertIn(part, reason)
                    self.assertIn("at x = ", reason)

    def test_quick_zeros_are_those_of_the_slow_way(self) -> None:
        for text in (
            *self.FUNCTIONS,
            "3 exp(-x/5) sin(3x + 1)",
            "x^5 - x - 1",
            "(x - 2)^2",
            "cos(x) - x",
        ):
            function = make_function(text)
            curve = sample_curve(function, WINDOW)
            quick, left = (
                quick_zeros(function, curve.crossings) if len(curve.crossings) else ([], [])
            )
            slow = find_zeros(function, interval(Fraction(-10), Fraction(10)))
            with self.subTest(text):
                for zero in quick:
                    self.assertTrue(zero.proved)
                    match = [
                        s
                        for s in slow
                        if s.bracket[0] <= zero.bracket[1] and zero.bracket[0] <= s.bracket[1]
                    ]
                    self.assertEqual([zero.exact], [s.exact for s in match])
                    self.assertEqual(match[0].exact or match[0].text, zero.text)
                missing = [
                    s
                    for s in slow
                    if not any(
                        q.bracket[0] <= s.bracket[1] and s.bracket[0] <= q.bracket[1] for q in quick
                    )
                ]
                for zero in missing:
                    self.assertTrue(any(low <= zero.x <= high for low, high in left))


class MarksTest(unittest.TestCase):
    """Marks that are stored from earlier windows are those of a fresh study."""

    def marks(self, study: Study, window: Window) -> Any:
        lane = study.scene(window).rows[0]["lane"]
        return [(mark["text"], mark["proved"]) for mark in lane["marks"]], lane["complete"]

    def test_marks_do_not_depend_on_earlier_windows(self) -> None:
        rng = np.random.default_rng(17)
        for text in ("sin(x) + x/9", "x^3 - 4x", "(x - 2)^2 (x + 1)", "cos(3x) - 0.2", "x sin(1/x)", "1/x - 1/2",
                     "ln x", "x^2/4 for x < 0; 2 - x otherwise"):  # fmt: skip
            study = study_with(f"f(x) = {text}")
            middle, width = 0.0, 20.0
            for step in range(25):
                middle += rng.uniform(-0.4, 0.4) * width
                width = float(np.clip(width * rng.choice([0.4, 0.8, 1, 1.3, 2.2]), 0.01, 400))
                window = Window((middle - width / 2, middle + width / 2), (-7, 7), 660, 430)
                found, is_complete = self.marks(study, window)
                # Another name is another function: nothing is stored of it.
                fresh = study_with(f"g_{step}_{len(text)}(x) = {text}")
                expected, expected_complete = self.marks(fresh, window)
                with self.subTest(text, step=step):
                    if is_complete and expected_complete:
                        self.assertEqual(expected, found)
                    # What a window alone would show more of is said to be not all of it.
                    self.assertTrue(not is_complete or set(expected) <= set(found))


class BreakTest(unittest.TestCase):
    def test_holes_are_rings_and_asymptotes_have_guides(self) -> None:
        for text, holes, poles in (
            ("sin(x)/x", [(0, 1)], []),
            ("(x^2 - 1)/(x - 1)", [(1, 2)], []),
            ("(x^2 - 4)(x - 1)/((x - 2)(x - 1))", [(1, 3), (2, 4)], []),
            ("1/x", [], [0]),
            ("1/x^2", [], [0]),
            ("(x^2 + 1)/((x - 3)(x + 4))", [], [-4, 3]),
            ("tan x", [], [k * math.pi / 2 for k in (-5, -3, -1, 1, 3, 5)]),
            ("|x|/x", [], []),
            ("floor x", [], []),
            ("x^2", [], []),
            ("sqrt(x)", [], []),
        ):
            study = study_with(f"f(x) = {text}")
            found = breaks_of(study.function("f"), study.curve("f", WINDOW), WINDOW)
            with self.subTest(text):
                self.assertTrue(
                    np.allclose(
                        np.array(holes).reshape(-1, 2),
                        np.array(found.holes).reshape(-1, 2),
                        atol=1e-3,
                    )
                )
                self.assertEqual(len(poles), len(found.poles))
                self.assertTrue(np.allclose(poles, found.poles, atol=1e-6))
                curve = study.scene(WINDOW).rows[0]["curve"]
                self.assertEqual(len(poles), len(curve["guides"]))
                self.assertEqual(len(holes), len(curve["ends"]))

    def test_guides_can_be_turned_off(self) -> None:
        study = study_with("f(x) = 1/x")
        self.assertTrue(study.scene(WINDOW).axes["guides"])
        study.apply({"do": "axes", "axes": {"guides": False}}, WINDOW)
        self.assertFalse(study.scene(WINDOW).axes["guides"])


class CheckTest(unittest.TestCase):
    def test_features_missed_by_the_sampling_check_are_reported(self) -> None:
        for text, count, words in (
            ("sin(3x)", 5, "miss 18 turns of the curve."),
            ("x^2/5", 5, "miss no turn, but their lines leave the curve by up to"),
            ("x/2", 5, "show this curve as it is."),
            ("1/x", 6, "1 break, which they join across"),
            ("sin(900x)", 50, "cannot show this curve"),
            ("sin(pi x)", 21, "miss 20 turns"),
        ):
            function = make_function(text)
            curve = sample_curve(function, WINDOW)
            with self.subTest(text):
                found = check_sampling(function, curve, WINDOW, np.linspace(-10, 10, count))
                self.assertIn(words, found.sentence)

    def test_sampling_check_is_stored_and_follows_the_study(self) -> None:
        study = study_with("f(x) = sin(3x)")
        study.apply({"do": "check", "line": 1, "count": "5", "step": ""}, WINDOW)
        again = Study.from_dict(study.to_dict())
        self.assertEqual(10, len(again.scene(WINDOW).added["check"]["points"]))
        again.apply({"do": "check", "line": 1, "count": "", "step": "pi/3"}, WINDOW)
        self.assertEqual(20, len(again.scene(WINDOW).added["check"]["points"]) // 2)
        for count, step in (("1", ""), ("2.5", ""), ("", "0"), ("", "1/10^9"), ("a", "")):
            with self.subTest(count=count, step=step), self.assertRaises(MathError):
                again.apply({"do": "check", "line": 1, "count": count, "step": step}, WINDOW)
        again.apply({"do": "check", "line": None}, WINDOW)
        self.assertIsNone(again.scene(WINDOW).added["check"])


class DocumentTest(unittest.TestCase):
    """What is stored of the look comes back, and what is damaged is refused in words."""

    def test_every_field_comes_back(self) -> None:
        study = study_with("f(x) = x", "L = [(1, 2), (3, 4)]")
        for command in (
            {"do": "axes", "axes": {"x": {"labels": "pi", "step": "pi/3", "name": "a"}, "y": {"name": "b"},
                                    "grid": "none", "at_edge": True, "equal": True, "title": "t", "legend": True,
                                    "legend_at": [0.25, 0.5], "guides": False}},
            {"do": "style", "id": 2, "tone": 6, "style": {"stroke": 1, "weight": 1, "flag": False, "joined": True, "mark": "cross"}},
            {"do": "check", "line": 1, "count": "7", "step": ""},
        ):  # fmt: skip
            study.apply(command, WINDOW)
        fields = study.to_dict()
        again = Study.from_dict(fields)
        self.assertEqual(fields, again.to_dict())
        self.assertEqual(
            (
                study.snapshot.section(AxesSpec),
                study.snapshot.section(SamplingCheck).check,
                study.snapshot.lines,
            ),
            (
                again.snapshot.section(AxesSpec),
                again.snapshot.section(SamplingCheck).check,
                again.snapshot.lines,
            ),
        )

    def test_default_values_are_not_stored(self) -> None:
        fields = study_with("f(x) = x").to_dict()
        self.assertFalse({"axes", "check"} & set(fields))
        self.assertNotIn("style", fields["lines"][0])

    def test_damaged_fields_are_refused(self) -> None:
        fields = study_with("f(x) = x").to_dict()
        line = fields["lines"][0]
        for more in (
            {"axes": 5}, {"axes": {"x": 5}}, {"axes": {"x": {"labels": "roman"}}}, {"axes": {"grid": 1}},
            {"axes": {"equal": "no"}}, {"axes": {"legend_at": [1]}}, {"axes": {"legend_at": ["a", "b"]}},
            {"axes": {"legend_at": [math.inf, 0]}}, {"axes": {"title": "x" * 999}}, {"axes": {"x": {"name": 4}}},
            {"check": 5}, {"check": {"line": "f"}}, {"check": {"line": 1, "count": 5}},
            {"lines": [line | {"style": 3}]}, {"lines": [line | {"style": {"weight": True}}]},
            {"lines": [line | {"style": {"stroke": 8}}]}, {"lines": [line | {"style": {"mark": "heart"}}]},
            {"lines": [line | {"style": {"joined": 1}}]},
        ):  # fmt: skip
            with self.subTest(more), self.assertRaises(MathError) as raised:
                Study.from_dict(fields | more)
            self.assertEqual("study.format", raised.exception.code)

    def test_axis_step_without_value_becomes_automatic(self) -> None:
        study = study_with("a = 2", "f(x) = x")
        study.apply({"do": "axes", "axes": {"x": {"step": "a/4"}}}, WINDOW)
        whole = study.scene(WINDOW).axes["x"]["labels"]
        self.assertIn("−9.5", whole)
        study.remove("a")
        self.assertNotIn("−9.5", study.scene(WINDOW).axes["x"]["labels"])
        study.define("a = 2")
        self.assertEqual(whole, study.scene(WINDOW).axes["x"]["labels"])


class DigitsTest(unittest.TestCase):
    def test_digits_that_two_floats_share_are_those_of_all_between(self) -> None:
        rng = np.random.default_rng(6)
        for _ in range(400):
            low = float(rng.uniform(-1, 1) * 10.0 ** rng.integers(-8, 9))
            high = low + abs(low) * float(10.0 ** rng.uniform(-16, -3))
            for digits in (1, 4, 10):
                text = digits_between(low, high, digits)
                if not text:
                    continue
                for part in rng.uniform(0, 1, 4):
                    middle = Fraction(low) + Fraction(float(part)) * (
                        Fraction(high) - Fraction(low)
                    )
                    plain = text.replace("−", "-").replace("·10^", "e")
                    step = Fraction(10) ** (math.floor(math.log10(abs(middle))) - digits + 1)
                    self.assertLessEqual(abs(Fraction(plain) - middle), step * Fraction(51, 100))
        self.assertEqual("", digits_between(-1.0, 1.0, 3))
        self.assertEqual("1.000", digits_between(0.99999, 1.00001, 4))


class KeysTest(unittest.TestCase):
    def test_keys_with_one_changed_are_those_made_anew(self) -> None:
        keys = LineKeys(LineKey(f"f_{k}(x) = {k}", k % 3 == 0, None, False) for k in range(40))
        for abscissa in (0, 7, 39):
            other = LineKey("g(x) = x", False, "g", False)
            changed = keys.with_key(abscissa, other)
            fresh = LineKeys([*keys[:abscissa], other, *keys[abscissa + 1 :]])
            self.assertEqual(fresh, changed)
            self.assertEqual(hash(fresh), hash(changed))
            self.assertNotEqual(keys, changed)
            self.assertEqual(keys, changed.with_key(abscissa, keys[abscissa]))
            self.assertEqual(hash(keys), hash(changed.with_key(abscissa, keys[abscissa])))
        # The same keys in another order are another study.
        self.assertNotEqual(hash(keys), hash(LineKeys(reversed(keys))))

    def test_one_line_of_many_changes_as_in_a_fresh_study(self) -> None:
        study = study_with(*(f"f_{k}(x) = x + {k}" for k in range(60)), "a = 1", "g(x) = a f_3(x)")
        for text in (
            "f_3(x) = x^2",
            "f_59(x) = sin x",
            "a = 4",
            "g(x) = f_3(x) + f_59(x)",
            "a = f_3(2)",
        ):
            study.define(text)
            fresh = study_with(*(line.text for line in study.snapshot.lines))
            self.assertEqual(fresh.names(), study.names())
            self.assertEqual(fresh.evaluate("g(2)").decimal(12), study.evaluate("g(2)").decimal(12))
            self.assertEqual(
                [d.mathml for d in fresh.definitions()], [d.mathml for d in study.definitions()]
            )


class CommandTest(unittest.TestCase):
    def do(self, study: Study, **command: object) -> str:
        return study.apply(command, WINDOW)

    def test_lines_are_moved_duplicated_and_deleted_together(self) -> None:
        study = study_with("f(x) = x", "g(x) = f(x)", "ring: x^2 + y^2 = 4", "x^3")
        self.do(study, do="move", id=3, after=None)
        self.do(study, do="move", id=1, after=4)
        self.assertEqual(["ring", "g", "h", "f"], study.names())
        for line in (2, 3, 4):
            self.do(study, do="duplicate", id=line)
        self.assertEqual(["ring", "ring_1", "g", "g_1", "h", "p", "f"], study.names())
        self.assertTrue(all(definition.problem is None for definition in study.definitions()))
        self.do(study, do="duplicate", id=5)
        self.assertIn("g_2", study.names())
        self.do(study, do="remove_several", ids=[2, 3, 4])
        self.assertEqual({"ring_1", "g_2", "g_1", "p", "f"}, set(study.names()))
        for bad in ({"do": "move", "id": 99, "after": None}, {"do": "move", "id": 1, "after": 1},
                    {"do": "remove_several", "ids": []}, {"do": "remove_several", "ids": [99]}):  # fmt: skip
            with self.subTest(bad), self.assertRaises(MathError):
                study.apply(bad, WINDOW)

    def test_axes_keep_what_is_not_given(self) -> None:
        study = study_with("f(x) = x")
        self.do(study, do="axes", axes={"x": {"labels": "pi", "step": "pi/4", "name": "angle"}})
        self.do(study, do="axes", axes={"grid": "polar", "title": "Beam\nsweep"})
        axes = Study.from_dict(study.to_dict()).scene(WINDOW).axes
        self.assertEqual("angle", axes["x"]["name"])
        self.assertIn("3π/4", axes["x"]["labels"])
        self.assertEqual(["Beam", "sweep"], [line["text"] for line in axes["title"]])
        self.assertTrue(axes["polar"]["circles"])
        for bad in ({"x": {"step": "-1"}}, {"x": {"step": "1/"}}, {"grid": "dotted"}, {"x": {"labels": "no"}},
                    {"equal": "yes"}, {"title": "x" * 500}, 5):  # fmt: skip
            with self.subTest(bad), self.assertRaises(MathError):
                self.do(study, do="axes", axes=bad)

    def test_a_title_holds_formulas_between_backticks(self) -> None:
        study = study_with("a = 2", "f(x) = x")
        title = "The tide `a sin(x)/2` at Tern Quay\n\nplain <b>\nbad `sin(` here\none ` alone"
        self.do(study, do="axes", axes={"title": title})
        lines = study.scene(WINDOW).axes["title"]
        self.assertEqual(
            ["The tide a sin(x)/2 at Tern Quay", "plain <b>", "bad sin( here", "one ` alone"],
            [line["text"] for line in lines],
        )
        self.assertIn("<mfrac>", lines[0]["mathml"])
        self.assertEqual("", lines[1]["mathml"])
        self.assertIn("<mtext>sin(</mtext>", lines[2]["mathml"])
        self.assertEqual("", lines[3]["mathml"])

    def test_axis_labels_that_contradict_the_unit_are_noted(self) -> None:
        for unit, labels, agrees in (("radians", "degrees", "degrees"), ("degrees", "pi", "radians"),
                                     ("radians", "pi", None), ("degrees", "degrees", None)):  # fmt: skip
            study = study_with("f(x) = sin x", unit=unit)
            self.do(study, do="axes", axes={"x": {"labels": labels}})
            note = study.scene(WINDOW).axes["note"]
            with self.subTest(unit, labels=labels):
                self.assertEqual(agrees, note and note["unit"])
                if agrees:
                    self.do(study, do="unit", unit=agrees)
                    self.assertIsNone(study.scene(WINDOW).axes["note"])
