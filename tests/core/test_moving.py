"""Runners of paths, and the trails that points leave."""

import math
import unittest
from typing import Any

import numpy as np

from axis_path.core import MathError, Study, Window
from axis_path.core.features.motion.edits import go_on
from axis_path.core.features.motion.queries import Motion

WINDOW = Window((-6, 6), (-4, 4), 600, 400)


def do(study: Study, name: str, **command: object) -> str:
    return study.apply({"do": name, **command}, WINDOW)


class MovingTest(unittest.TestCase):
    def setUp(self) -> None:
        self.study = Study()
        for line in ("P(t) = (3cos(t), 2sin(t)) for 0 <= t <= 2pi", "A = (a, a^2/4)", "B = (1, 2)"):
            self.study.define(line)
        self.study.set("a", 1, low=-4, high=4, step="0.5")
        self.path, self.point, self.fixed, self.slider = (
            line.id for line in self.study.snapshot.lines
        )

    def row(self, line_id: int) -> Any:
        return next(row for row in self.study.scene(WINDOW).rows if row["id"] == line_id)

    def test_a_runner_stands_on_its_path_and_on_its_lane(self) -> None:
        self.assertFalse(self.row(self.path)["runner"]["is_set"])
        do(self.study, "runner", id=self.path, t="pi/2")
        runner = self.row(self.path)["runner"]
        self.assertEqual((3_000, 1_000), (runner["x"], runner["y"]))
        self.assertEqual("t = π/2: (0, 2)", runner["text"])
        # The lane goes 6 % beyond the ends on both sides.
        self.assertEqual(round(6_000 * (0.25 + 0.06) / 1.12), runner["lane"])
        again = Study.from_dict(self.study.to_dict())
        self.assertEqual("pi/2", again.snapshot.line(self.path).runner.at)  # type: ignore[union-attr]
        do(again, "runner", id=self.path, play={"seconds": 3, "at_end": "restart"})
        self.assertEqual(
            (3.0, "pi/2"),
            (
                again.snapshot.line(self.path).runner.play.seconds,  # type: ignore[union-attr]
                again.snapshot.line(self.path).runner.at,  # type: ignore[union-attr]
            ),
        )
        do(again, "runner", id=self.path, t=None)
        self.assertIsNone(again.snapshot.line(self.path).runner)

    def test_a_runner_never_leaves_its_path(self) -> None:
        for given, text in ((99.0, "t = 2π: (3, 0)"), ("-5", "t = 0: (3, 0)")):
            do(self.study, "runner", id=self.path, t=given)
            self.assertEqual(text, self.row(self.path)["runner"]["text"])
        do(self.study, "runner", id=self.path, t="2a")
        do(self.study, "set", id=self.slider, value=1.5)
        self.assertEqual("t = 3: (−2.9700, 0.28224)", self.row(self.path)["runner"]["text"])
        do(self.study, "remove", id=self.slider)
        self.assertIn("a", self.row(self.path)["runner"]["problem"]["message"])
        for bad in ({"t": "("}, {"t": "2", "play": {"seconds": -1}}, {"t": "1/0"}):
            with self.subTest(bad), self.assertRaises(MathError):
                do(self.study, "runner", id=self.path, **bad)
        with self.assertRaises(MathError):
            do(self.study, "runner", id=self.point, t=1)

    def test_a_trail_is_where_the_point_really_was(self) -> None:
        for line_id in (self.path, self.point, self.fixed):
            do(self.study, "trail", id=line_id, how="show")
        do(self.study, "runner", id=self.path, t=0)
        steps = [-4 + k / 2 for k in range(17)]
        visits = [{self.slider: value + 0.1, self.path: value + 4} for value in steps]
        found = self.study.snapshot.query(Motion).visited(visits)
        # A slider takes its own steps, between which the way is computed; it adds nothing for a
        # point that it does not move.
        abscissae = [abscissa for abscissa in found[self.point] if abscissa is not None]
        self.assertLessEqual({(a, a * a / 4) for a in steps}, set(abscissae))
        for x, y in abscissae:
            self.assertEqual(x * x / 4, y)
        window = Window((-10, 10), (-6.5, 6.5), 660, 430)
        px = np.array(
            [window.across(np.array(abscissae)[:, 0]), window.down(np.array(abscissae)[:, 1])]
        )
        self.assertLess(np.hypot(*np.diff(px)).max(), 6.5)
        self.assertNotIn(self.fixed, found)
        for abscissa in found[self.path]:
            x, y = abscissa or (math.nan, math.nan)
            self.assertAlmostEqual(1, x * x / 9 + y * y / 4, 13)
        self.study.edit(go_on, visits)
        count = len(self.study.snapshot.query(Motion).trails()[self.point])
        self.study.edit(go_on, visits[-1:])
        self.assertEqual(count, len(self.study.snapshot.query(Motion).trails()[self.point]))
        # It belongs to the plane: hiding, saving and another window leave it as it is.
        do(self.study, "hide", id=self.point, hidden=True)
        self.assertNotIn(self.point, self.study.snapshot.query(Motion).visited(visits))
        again = Study.from_dict(self.study.to_dict())
        do(again, "hide", id=self.point, hidden=False)
        self.assertEqual(
            self.study.snapshot.query(Motion).trails(), again.snapshot.query(Motion).trails()
        )
        rows = again.scene(Window((0, 6), (0, 4), 600, 400), with_trails=True).rows
        strokes = next(row for row in rows if row["id"] == self.point)["trail"]["strokes"]
        self.assertEqual(1, len(strokes))
        # Across a pole it is not joined, and a point where there is none leaves no mark.
        do(self.study, "write", id=self.point, text="A = (a, 1/a)")
        do(self.study, "hide", id=self.point, hidden=False)
        way = self.study.snapshot.query(Motion).visited([{self.slider: -1}, {self.slider: 2}])
        gaps = [k for k, abscissa in enumerate(way[self.point]) if abscissa is None]
        self.assertEqual(1, len(gaps))
        for k, abscissa in enumerate(way[self.point]):
            if abscissa is not None:
                self.assertEqual(k > gaps[0], abscissa[1] > 0)
        # Nor across a jump, or where a slider starts over.
        do(self.study, "write", id=self.point, text="A = (a, floor(a))")
        way = self.study.snapshot.query(Motion).visited([{self.slider: -1}, {self.slider: 2}])
        self.assertEqual(3, way[self.point].count(None))

    def test_a_slider_stands_exactly_at_the_end_that_it_has_reached(self) -> None:
        study = Study()
        for text in ("A = (a, a)", "k = sin(2a)"):
            study.define(text)
        study.set("a", 1, low=0, high="2pi", step="0.1")
        point, slider = study.snapshot.lines[0].id, study.snapshot.lines[2].id
        do(study, "trail", id=point, how="show")
        do(study, "set", id=slider, value=2 * math.pi)
        scene = study.scene(Window((0, 6), (0, 4), 600, 400))
        self.assertEqual("2pi", scene.sliders[0]["text"])
        self.assertEqual("0", next(row["value"] for row in scene.rows if row["name"] == "k"))
        # It moves on from there like any other.
        visits = [{slider: 6}, {slider: 1}]
        way = study.snapshot.query(Motion).visited(visits)[point]
        self.assertEqual([(6, 6), (1, 1)], [way[0], way[-1]])
        do(study, "set", id=slider, value=1)
        self.assertEqual("1", study.scene(Window((0, 6), (0, 4), 600, 400)).sliders[0]["text"])

    def test_a_trail_is_shortened_thinned_and_cleared(self) -> None:
        points = [[k, k * k] for k in range(9)]
        do(self.study, "trail", id=self.point, how="add", points=points)
        do(self.study, "trail", id=self.point, how="show", most=3)
        row = self.study.scene(Window((-1, 99), (-1, 99)), with_trails=True).rows[1]
        self.assertEqual([6], [len(stroke) for stroke in row["trail"]["strokes"]])
        do(self.study, "trail", id=self.point, how="thin")
        self.assertEqual(
            [(0, 0), (2, 4), (4, 16), (6, 36), (8, 64)],
            list(self.study.snapshot.query(Motion).trails()[self.point]),
        )
        do(self.study, "trail", id=self.point, how="add", points=[[k, 0] for k in range(2_000)])
        do(self.study, "trail", id=self.point, how="add", points=[[k, 1] for k in range(2_000)])
        self.assertEqual(2_000, len(self.study.snapshot.query(Motion).trails()[self.point]))
        do(self.study, "trail", id=self.point, how="clear")
        self.assertEqual((), self.study.snapshot.query(Motion).trails()[self.point])
        do(self.study, "trail", id=self.point, how="off")
        self.assertEqual({}, self.study.snapshot.query(Motion).trails())
        for bad in (
            {"how": "add", "points": [[1]]},
            {"how": "add", "points": [["1", 2]]},
            {"how": "show", "most": 0},
            {"how": "up"},
        ):
            with self.subTest(bad), self.assertRaises(MathError):
                do(self.study, "trail", id=self.point, **bad)


if __name__ == "__main__":
    unittest.main()
