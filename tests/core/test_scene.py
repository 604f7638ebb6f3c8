"""What the bench draws: one state, everything in it, and a reason where nothing is drawn."""

import json
import math
import unittest
from fractions import Fraction
from typing import Any

import numpy as np
from scipy.spatial import cKDTree

from axis_path.core import Study, Window
from axis_path.core.errors import LimitError, MathError
from axis_path.core.features.findings.section import SavedQueries
from axis_path.core.features.lines.edits import mark_line
from axis_path.core.kinds.functions.read_off import proved_reading, quickly_read
from axis_path.core.limits import FINDINGS
from axis_path.core.lines.domains import NewEnd
from axis_path.core.scene.legend import drawn_points
from axis_path.core.study import QueryKind, answer, rewrite_domain, round_to_px
from axis_path.store.demo import DEMO, morning_tide
from tests.core.test_study import build

WINDOW = Window((-10, 10), (-7, 7), 660, 430)


def moved_by(window: Window, dx: int, dy: int) -> Window:
    """Return the window that shows everything so many px farther to the right and down."""
    across, up = dx / window.x_px, dy / window.y_px
    return Window.from_flat(
        (window.flat_x[0] - across, window.flat_x[1] - across),
        (window.flat_y[0] + up, window.flat_y[1] + up),
        window.width, window.height, {"log_x": window.log_x, "log_y": window.log_y},
    )  # fmt: skip


def drawn_px(curve: dict[str, Any]) -> np.ndarray:
    """Return places all along what is drawn, (n, 2) in px."""
    levels = [line for level in curve.get("levels") or [] for line in level["lines"]]
    return drawn_points([curve, {"pieces": levels}])


def inside(abscissae: np.ndarray) -> np.ndarray:
    """Keep what lies in the window, and not at its very edge."""
    low, high = np.array([4, 4]), np.array([656, 426])
    return abscissae[((abscissae > low) & (abscissae < high)).all(axis=1)]


def farthest(abscissae: np.ndarray, others: np.ndarray) -> float:
    """Return how far the farthest of places is from the nearest other one, less the spread of these."""
    if not len(abscissae):
        return 0.0
    return float(cKDTree(others).query(abscissae)[0].max()) if len(others) else math.inf


class SceneTest(unittest.TestCase):
    def scene(self, *lines: str, **more: float) -> dict[str, Any]:
        return build(*lines).scene(WINDOW, **more).to_dict()  # type: ignore[arg-type]

    def test_a_scene_is_plain_data_of_whole_tenths(self) -> None:
        scene = self.scene("f(x) = a x for -2 <= x < 3", "a = 2", "# note", "g(x) = (", reading_x=1)
        text = json.dumps(scene)
        self.assertEqual(scene["rows"], json.loads(text)["rows"])
        piece = scene["rows"][0]["curve"]["pieces"][0]
        self.assertTrue(all(isinstance(abscissa, int) for abscissa in piece))
        self.assertEqual(
            ["function", "parameter", "note", "unread"], [r["kind"] for r in scene["rows"]]
        )

    def test_the_lane_shares_the_axis_of_the_plane(self) -> None:
        row = self.scene("f(x) = x^2 for -2 <= x < 3")["rows"][0]
        curve, lane = row["curve"], row["lane"]
        self.assertEqual(2640, lane["low"]["x"])
        self.assertEqual(4290, lane["high"]["x"])
        self.assertEqual([2640, 4290], lane["band"])
        self.assertEqual((True, False), (lane["low"]["closed"], lane["high"]["closed"]))
        self.assertEqual(curve["ends"][0]["x"], lane["low"]["x"])
        self.assertEqual(curve["pieces"][0][0], lane["low"]["x"])

    def test_zeros_stand_on_the_lane_with_their_numbers(self) -> None:
        lane = self.scene("f(x) = x^2 - 2")["rows"][0]["lane"]
        self.assertEqual(["−1.41", "1.41"], [mark["short"] for mark in lane["marks"]])
        self.assertEqual([2833, 3767], [mark["x"] for mark in lane["marks"]])
        self.assertTrue(lane["complete"])

    def test_a_slider_comes_to_the_picture_that_a_fresh_study_has(self) -> None:
        """Whatever is stored from one state of the sliders to the next, nothing of it stays."""
        lines = (
            "f(x) = 1/((x - 1)(x - s)) + s/4", "g(x) = (x^2 - 1)/(x - 1) + s", "h(x) = tan(s x)",
            "q(x) = 1/(x - 1) for x < 0; x^2/s for 0 <= x < s; 1/(x - s) otherwise",
            "j(x) = sign(x - 1)^2 + 1/(x - s) for x >= 0; 1/(x - 1) otherwise",
            "w(x) = 3exp(-x/5) sin(3x + s)", "k(x) = x^2 for s <= x < 4", "c(x) = |x - s| - s/2",
            "P(t) = (cos(t), sin(s t)) for 0 <= t <= s pi", "d(x) = s/(x - 2) for x >= 1; s otherwise",
        )  # fmt: skip
        moved = build("s = 1", *lines)
        for step, value in enumerate(("1", "2", "1.5", "3", "0.5", "1", "1/3")):
            moved.set("s", value)
            # Of functions with other names nothing is known from before.
            named = [f"{line[0]}_{step}{line[1:]}" for line in lines]
            fresh = build(f"s = {value}", *named).scene(WINDOW).to_dict()["rows"]
            for row, other in zip(moved.scene(WINDOW).to_dict()["rows"], fresh, strict=True):
                with self.subTest(row["name"], s=value):
                    for part in ("curve", "lane", "closes"):
                        self.assertEqual(other[part], row[part])

    def test_drawing_beyond_the_window_equals_a_moved_window(self) -> None:
        """A picture that slides is as true as one that was redrawn."""
        lines = (
            "f(x) = 1/((x - 1)(x + 12))", "g(x) = x^3/30 - 2x", "h(x) = 9exp(-x/9) sin(3x)",
            "q(x) = x^2/9 for -11 <= x < 0; 2 - x for 0 <= x < 9", "w(x) = 5 sin(900x)",
            "P(t) = (11cos(3t), 8sin(2t)) for 0 <= t <= 2pi", "x^2/121 + y^2/49 = 1", "A = (11, 8)",
            "r(theta) = 12 sin(4theta) for 0 <= theta <= 2pi", "F(x, y) = x*y", "x + y > 14",
        )  # fmt: skip
        logarithmic = Window((0.01, 100), (0.1, 50), 660, 430, log_x=True, log_y=True)
        study = build(*lines)
        for window in (WINDOW, logarithmic):
            wide = study.scene(window.widened(120)).to_dict()
            self.assertEqual(window.to_dict()["x"], wide["window"]["x"])
            for dx, dy in ((0, 0), (110, -70), (-120, 120)):
                moved = moved_by(window, dx, dy)
                for row, other in zip(
                    wide["rows"], study.scene(moved).to_dict()["rows"], strict=True
                ):
                    if row["kind"] == "several" and (dx, dy) != (0, 0):
                        # Which levels are drawn is chosen by what is seen.
                        continue
                    with self.subTest(row["text"], moved=(dx, dy), log=window.log_x):
                        slid, fresh = (drawn_px(drawn_row["curve"]) for drawn_row in (row, other))
                        slid = slid + np.array([dx, dy])
                        for one, two in ((slid, fresh), (fresh, slid)):
                            self.assertLess(farthest(inside(one), two), 1.6)
                        if row["lane"] and row["lane"]["complete"] and "scale" not in row["lane"]:
                            marks = [mark["x"] + 10 * dx for mark in row["lane"]["marks"]]
                            marks = [x for x in marks if 0 <= x <= 6600]
                            expected = [mark["x"] for mark in other["lane"]["marks"]]
                            np.testing.assert_allclose(marks, expected, atol=1.5)
        # What can be drawn no farther is drawn as far as it goes.
        far = Window((1e149, 9.9e149), (0, 1))
        self.assertEqual(0, far.widened(200).beyond)

    def test_fast_readings_equal_proved_ones(self) -> None:
        lines = (
            "f(x) = x^2/4", "g(x) = sin(3x) exp(-x/5)", "h(x) = 1/(x - 1)", "j(x) = sqrt(x + 2)",
            "k(x) = floor(x) + x/8", "m(x) = x^9/7", "n(x) = gamma(x) for 1/3 < x <= 4", "p(x) = 10^5 x",
            "q(x) = x/3 for x < 0; 2 - x for 0 <= x < 3", "t(x) = tan(x) - x", "u(x) = x - 1.2345",
        )  # fmt: skip
        study = build(*lines)
        abscissae = {
            Fraction(k, d) for d in (1, 2, 3, 8, 1000) for k in range(-3 * d, 5 * d, max(d // 9, 1))
        }
        quick = 0
        for name in "fghjkmnpqtu":
            function = study.function(name)
            for x in abscissae:
                text, y = quickly_read(function, x)
                if text:
                    quick += 1
                    proved = proved_reading(function, x)
                    self.assertEqual(proved, text, (name, x))
                    self.assertAlmostEqual(
                        1, function.sample(np.array([float(x)]))[0] / y, places=12
                    )
        self.assertGreater(quick, 0.5 * 11 * len(abscissae))

    def test_intervals_without_a_value_are_on_the_lane(self) -> None:
        ((low, high),) = self.scene("f(x) = ln(x^2 - 1)")["rows"][0]["lane"]["undefined"]
        self.assertAlmostEqual(2970, low, delta=2)
        self.assertAlmostEqual(3630, high, delta=2)

    def test_the_reading_line_shows_a_value_for_every_function(self) -> None:
        scene = self.scene("f(x) = x^2", "g(x) = sqrt(x)", "h(x) = 1/(x + 2)", reading_x=-2.001)
        self.assertEqual("-2", scene["reading"]["text"].replace("−", "-"))
        self.assertEqual(
            ["4", "undefined", "undefined"], [r["reading"]["text"] for r in scene["rows"]]
        )
        self.assertEqual(
            "sqrt of a negative number at x = −2", scene["rows"][1]["reading"]["reason"]
        )
        alone = build("f(x) = x^2").readings(WINDOW, -2.001)
        self.assertEqual("4", alone["values"]["1"]["text"])

    def test_readings_are_right_to_the_last_digit(self) -> None:
        scene = self.scene("f(x) = (1 - cos(x/10^7))/(x/10^7)^2", reading_x=1)
        self.assertEqual("0.50000", scene["rows"][0]["reading"]["text"])

    def test_an_undrawn_line_states_the_reason(self) -> None:
        table = (
            (
                "sqrt(x) for -5 <= x <= -1",
                "no real value for −5 ≤ x ≤ −1 (sqrt of a negative number at x = −3)",
            ),
            ("ln(-x^2 - 1)", "no real value for −10 ≤ x ≤ 10 (ln of a negative number at x = 0)"),
            ("x for 20 <= x < 30", "its domain 20 ≤ x < 30 lies outside the window"),
            ("x for x > 50", "its domain x > 50 lies outside the window"),
            ("x for 3 <= x <= 1", "its lower end 3 is not below its upper end 1"),
            ("x^2 + 100", "lies above the window"),
            ("-x^2 - 100", "lies below the window"),
            ("sign(x)/0", "no real value"),
        )
        for text, words in table:
            with self.subTest(text):
                row = self.scene(text)["rows"][0]
                self.assertIn(words, row["why"]["sentence"])
        self.assertIsNone(self.scene("x")["rows"][0]["why"])

    def test_a_domain_without_a_value_is_a_problem_of_its_row(self) -> None:
        row = self.scene("f(x) = x for 1/a < x < 5", "a = 0")["rows"][0]
        self.assertIn("a division by zero", row["problem"]["message"])
        self.assertIsNone(row["curve"])

    def test_an_empty_bench_says_what_to_do(self) -> None:
        self.assertIn("Write a definition", self.scene()["empty"])
        self.assertIn("nothing to draw", self.scene("# only a note")["empty"])
        study = build("x")
        study.edit(mark_line, 1, hidden=True)
        self.assertIn("hidden", study.scene(WINDOW).empty or "")

    def test_computed_parameters_show_their_value(self) -> None:
        rows = self.scene("b = a/3", "a = 2", "c = 1/(a - 2)")["rows"]
        self.assertEqual("0.66667", rows[0]["value"])
        self.assertEqual("no value: a division by zero", rows[2]["value"])

    def test_a_scene_belongs_to_one_state(self) -> None:
        study = build("f(x) = x - a", "a = 1")
        for value in (1, 2, -3):
            study.set("a", value)
            scene = study.scene(WINDOW, reading_x=5).to_dict()
            row = scene["rows"][0]
            with self.subTest(value):
                self.assertEqual(value, scene["sliders"][0]["value"])
                self.assertEqual(str(5 - value), row["reading"]["text"])
                self.assertEqual(3300 + 330 * value, row["lane"]["marks"][0]["x"])

    def test_the_demo_studies_show_their_findings(self) -> None:
        for make in DEMO:
            demo = make()
            study = Study.from_dict(demo.document)
            bounds = demo.view["window"]
            scene = study.scene(Window(tuple(bounds["x"]), tuple(bounds["y"]))).to_dict()
            with self.subTest(demo.title):
                self.assertTrue(
                    all(r["problem"] is None and r["why"] is None for r in scene["rows"])
                )
                self.assertTrue(all(slider["used_by"] for slider in scene["sliders"]))
                for ask in study.snapshot.section(SavedQueries).queries:
                    found = answer(study.snapshot, ask, with_exact=False)
                    self.assertEqual("", found.problem, ask)
                    self.assertTrue(found.rows, ask)
                    # Between data nothing is proved, and what is measured is no search.
                    is_search = ask.what not in (
                        QueryKind.DATA,
                        QueryKind.POINT,
                        QueryKind.INTERVAL,
                    )
                    self.assertEqual(is_search, found.complete, ask)


class CommandTest(unittest.TestCase):
    def carry_out(self, study: Study, **command: object) -> str:
        return study.apply(command, WINDOW)

    def test_each_command_matches_its_label(self) -> None:
        study = Study()
        steps = (
            ({"do": "write", "id": None, "text": "f(x) = a x"}, "Write f"),
            ({"do": "make_sliders", "names": ["a"]}, "Make a slider of a"),
            ({"do": "write", "id": 1, "text": "f(x) =  a x\n+ 1 for x > 0"}, "Edit f"),
            ({"do": "set", "id": 2, "value": 2.57}, "Move a"),
            ({"do": "set", "id": 2, "value": "pi/4"}, "Move a"),
            (
                {"do": "range", "id": 2, "low": "0", "high": "2pi", "step": "0.1"},
                "Change the range of a",
            ),
            ({"do": "hide", "id": 1, "hidden": True}, "Hide f"),
            ({"do": "hide", "id": 1, "hidden": False}, "Show f"),
            ({"do": "disable", "id": 1, "disabled": True}, "Turn off f"),
            ({"do": "disable", "id": 1, "disabled": False}, "Turn on f"),
            ({"do": "unit", "unit": "degrees"}, "Measure in degrees"),
            ({"do": "table", "start": "0", "stop": "360", "step": "30"}, "Change the table"),
            ({"do": "find", "line": 1, "low": "-5", "high": "5"}, "Locate the zeros of f"),
            ({"do": "forget", "query": 1}, "Remove a finding"),
            ({"do": "remove", "id": 1}, "Delete f"),
        )
        for command, label in steps:
            with self.subTest(command):
                self.assertEqual(label, study.apply(command, WINDOW))
        self.assertEqual(["a"], study.names())

    def test_a_pasted_text_of_several_lines_is_one_line(self) -> None:
        study = Study()
        self.carry_out(study, do="write", id=None, text=" f(x) =\n x^2\t")
        self.assertEqual("f(x) = x^2", study.snapshot.lines[0].text)

    def test_a_dragged_slider_snaps_and_a_typed_value_does_not(self) -> None:
        study = build("a = 1")
        self.carry_out(study, do="set", id=1, value=2.5678)
        self.assertEqual("a = 2.6", study.snapshot.lines[0].text)
        self.carry_out(study, do="set", id=1, value="2.5678")
        self.assertEqual("a = 2.5678", study.snapshot.lines[0].text)

    def test_a_dragged_end_rewrites_only_the_domain(self) -> None:
        table = (
            ("f(x) = x^2", {"end": "low", "x": 1.234}, "f(x) = x^2 for x >= 1.24"),
            ("f(x) = x^2", {"end": "high", "x": 1.234}, "f(x) = x^2 for x <= 1.24"),
            ("f(t) = t for 0 < t <= 2pi", {"end": "low", "x": -3.0}, "f(t) = t for -3 < t <= 2pi"),
            (
                "x + 1 for 0<=x<=3, x != 2",
                {"end": "high", "x": 4.0},
                "x + 1 for 0 <= x <= 4, x != 2",
            ),
            ("f(x) = x for 0 <= x", {"end": "low", "text": None}, "f(x) = x"),
            ("f(x) = x for 1 < x < 2", {"end": "low", "text": None}, "f(x) = x for x < 2"),
            (
                "f(x) = x for 1 < x < 2",
                {"end": "high", "keep": True, "closed": True},
                "f(x) = x for 1 < x <= 2",
            ),
            ("f(x) = x for x > 1", {"end": "high", "text": "2pi"}, "f(x) = x for 1 < x <= 2pi"),
        )
        for text, command, expected in table:
            with self.subTest(text, **command):
                study = build(text)
                self.carry_out(study, do="domain", id=1, **command)
                self.assertEqual(expected, study.snapshot.lines[0].text)
                self.assertIsNone(study.snapshot.definition(1).problem)

    def test_a_rewritten_domain_keeps_how_its_variable_is_written(self) -> None:
        study = build("f(τ) = τ^2 for 0 <= τ < 3")
        line = study.snapshot.function_line(1)
        changed = rewrite_domain(study.snapshot.lines[0].text, line, high=NewEnd("5", closed=True))
        self.assertEqual("f(τ) = τ^2 for 0 <= τ <= 5", changed)

    def test_rounding_stays_within_half_a_pixel_in_few_figures(self) -> None:
        for value in (0.0, 1.23456, -7.77777, 3.14159, 9.99):
            for width in (20.0, 0.004, 3e6):
                window = Window((-width, width), (-1, 1), 660, 430)
                x = value * width / 20
                with self.subTest(x=x, width=width):
                    rounded = round_to_px(x, window)
                    self.assertLessEqual(abs(float(rounded) - x) * window.x_px, 0.5000001)

    def test_commands_that_cannot_be_leave_the_study_as_it_was(self) -> None:
        study = build("f(x) = x", "a = 1", "# note", "bad (")
        before = study.to_dict()
        for command in (  # type: ignore[var-annotated]
            None,
            [],
            {},
            {"do": "explode"},
            {"do": "write"},
            {"do": "write", "id": 99, "text": "x"},
            {"do": "write", "id": True, "text": "x"},
            {"do": "write", "id": 1, "text": "x" * 3000},
            {"do": "remove", "id": 99},
            {"do": "set", "id": 1, "value": 3},
            {"do": "set", "id": 2},
            {"do": "set", "id": 2, "value": "1/0"},
            {"do": "set", "id": 2, "value": "(("},
            {"do": "set", "id": 2, "value": True},
            {"do": "range", "id": 2, "low": "3", "high": "1", "step": "1"},
            {"do": "domain", "id": 3, "end": "low", "x": 1},
            {"do": "domain", "id": 1, "end": "up", "x": 1},
            {"do": "domain", "id": 1, "end": "low", "text": "1/0"},
            {"do": "domain", "id": 1, "end": "low"},
            {"do": "unit", "unit": "turns"},
            {"do": "table", "start": "0", "stop": "1", "step": "0"},
            {"do": "find", "line": 4},
            {"do": "find", "line": 1, "low": "5", "high": "1"},
            {"do": "make_sliders", "names": []},
            {"do": "make_sliders", "names": ["sin"]},
        ):
            with self.subTest(str(command)[:80]):
                with self.assertRaises(MathError):
                    study.apply(command, WINDOW)
                self.assertEqual(before, study.to_dict())

    def test_the_same_search_stands_once_and_the_ledger_is_bounded(self) -> None:
        study = Study.from_dict(morning_tide().document)
        line = study.snapshot.section(SavedQueries).queries[0].line
        for k in range(2, FINDINGS.value + 2 - len(study.snapshot.section(SavedQueries).queries)):
            self.carry_out(study, do="find", line=line, low="0", high=str(k))
        self.assertEqual(FINDINGS.value, len(study.snapshot.section(SavedQueries).queries))
        with self.assertRaises(LimitError):
            self.carry_out(study, do="find", line=line, low="0", high="500")
        self.carry_out(study, do="find", line=line, low="0", high="5")
        self.assertEqual("5", study.snapshot.section(SavedQueries).queries[0].high)
        self.assertEqual(
            1, sum(ask.high == "5" for ask in study.snapshot.section(SavedQueries).queries)
        )
        self.assertLessEqual(len(study.snapshot.section(SavedQueries).queries), FINDINGS.value)

    def test_deleting_a_function_removes_its_findings(self) -> None:
        study = Study.from_dict(morning_tide().document)
        line = study.snapshot.section(SavedQueries).queries[0].line
        self.carry_out(study, do="remove", id=line)
        self.assertTrue(study.snapshot.section(SavedQueries).queries)
        self.assertFalse(
            [
                ask
                for ask in study.snapshot.section(SavedQueries).queries
                if line in (ask.line, ask.other)
            ]
        )
