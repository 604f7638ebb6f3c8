"""One definition for several values of a slider at once."""

import unittest
from typing import Any

import numpy as np

from axis_path.core import MathError, Study, Window

WINDOW = Window((-6, 6), (-4, 4), 600, 400)


def do(study: Study, name: str, **command: object) -> str:
    return study.apply({"do": name, **command}, WINDOW)


def distance(points: Any, abscissa: Any) -> Any:
    """Return how far a place is from a polyline."""
    begins, steps = points[:-1], np.diff(points, axis=0)
    length = np.maximum((steps**2).sum(axis=1), 1e-9)
    part = np.clip(((abscissa - begins) * steps).sum(axis=1) / length, 0, 1)
    return np.hypot(*(begins + part[:, None] * steps - abscissa).T).min()


class FamilyTest(unittest.TestCase):
    def setUp(self) -> None:
        self.study = Study()
        for line in (
            "f(x) = a x^2 - b",
            "P(t) = (a cos(t), sin(t)) for 0 <= t <= b",
            "x^2 + y^2 = a",
            "g(x) = 2x",
        ):
            self.study.define(line)
        self.study.set("a", 1, low=-4, high=4, step="0.5")
        self.study.set("b", 2, low=0, high=9, step="0.5")
        self.f, self.path, self.circle, self.other, self.a, self.b = (
            line.id for line in self.study.snapshot.lines
        )

    def family(self, line_id: int, study: Study | None = None) -> Any:
        rows = (study or self.study).scene(WINDOW).to_dict()["rows"]
        return next(row["family"] for row in rows if row["id"] == line_id)

    def test_each_member_is_the_curve_of_its_own_value(self) -> None:
        for line_id in (self.f, self.path, self.circle):
            do(self.study, "family", id=line_id, slider=self.a, values="1/2, 1, sqrt(2) + 1")
            found = self.family(line_id)
            self.assertEqual(
                ["1/2", "1", "sqrt(2) + 1"], [member["text"] for member in found["members"]]
            )
            for member, value in zip(
                found["members"], ("1/2", "1", "2.414213562373095"), strict=True
            ):
                alone = self.study.copy()
                alone.set("a", value)
                row = next(row for row in alone.scene(WINDOW).rows if row["id"] == line_id)
                self.assertEqual(row["curve"]["pieces"], member["pieces"])
                self.assertTrue(member["pieces"])
        # The slider itself stays where it is, and moving it leaves the family alone.
        before = self.family(self.f)
        do(self.study, "set", id=self.a, value=3)
        self.assertEqual(
            before["members"][0]["pieces"], self.family(self.f)["members"][0]["pieces"]
        )
        # Another slider moves all of them, and a domain that uses it.
        ends = self.family(self.path)["members"][0]["pieces"][-1][-2:]
        do(self.study, "set", id=self.b, value=1)
        self.assertNotEqual(
            before["members"][0]["pieces"], self.family(self.f)["members"][0]["pieces"]
        )
        self.assertNotEqual(ends, self.family(self.path)["members"][0]["pieces"][-1][-2:])

    def test_evenly_spaced_values_follow_other_sliders(self) -> None:
        do(self.study, "family", id=self.f, slider=self.a, first="0", last="b", count="5")
        self.assertEqual(
            ["0", "0.5", "1", "1.5", "2"], [m["text"] for m in self.family(self.f)["members"]]
        )
        do(self.study, "set", id=self.b, value=8)
        self.assertEqual(
            ["0", "2", "4", "6", "8"], [m["text"] for m in self.family(self.f)["members"]]
        )
        again = Study.from_dict(self.study.to_dict())
        self.assertEqual(self.family(self.f), self.family(self.f, again))

    def test_values_stand_on_their_own_curves_and_cover_none_another(self) -> None:
        do(self.study, "family", id=self.f, slider=self.a, first="-2", last="2", count="9")
        members = [m for m in self.family(self.f)["members"] if m["flag"]]
        self.assertEqual(9, len(members))
        for member in members:
            flag = member["flag"]
            middle = np.array([flag["x"] + flag["width"] / 2, flag["y"] + 9])
            away = [distance(np.reshape(piece, (-1, 2)) / 10, middle) for piece in member["pieces"]]
            self.assertLess(min(away), 2)
        boxes = [(m["flag"]["x"], m["flag"]["y"], m["flag"]["width"]) for m in members]
        for k, (x, y, width) in enumerate(boxes):
            for left, top, wide in boxes[:k]:
                self.assertTrue(x >= left + wide or left >= x + width or abs(y - top) >= 18)

    def test_invalid_families_are_refused(self) -> None:
        before = self.study.to_dict()
        for bad, words in (
            ({"first": "0", "last": "1", "count": "25"}, "at most 24 curves; 25 are asked for"),
            ({"values": ",".join(map(str, range(99)))}, "99 are asked for"),
            ({"first": "0", "last": "1", "count": "1"}, "at least 2 curves"),
            ({"first": "0", "last": "1", "count": "2.5"}, "whole number"),
            ({"values": "1, 1/0"}, "no value"), ({"values": "1, ("}, ""), ({"values": "q"}, "q"),
        ):  # fmt: skip
            with self.subTest(bad), self.assertRaises(MathError) as caught:
                do(self.study, "family", id=self.f, slider=self.a, **bad)
            self.assertIn(words, caught.exception.message)
        with self.assertRaises(MathError) as caught:
            do(self.study, "family", id=self.other, slider=self.a, values="1, 2")
        self.assertIn("does not depend on `a`", caught.exception.message)
        with self.assertRaises(MathError):
            do(self.study, "family", id=self.a, slider=self.b, values="1, 2")
        self.assertEqual(before, self.study.to_dict())

    def test_a_member_without_a_curve_is_named_and_the_rest_drawn(self) -> None:
        do(
            self.study,
            "write",
            id=self.path,
            text="P(t) = (a cos(t), sin(t)) for 0 <= t <= sqrt(a)",
        )
        do(self.study, "family", id=self.path, slider=self.a, values="-1, 1")
        bad, good = self.family(self.path)["members"]
        self.assertIn("no value", bad["problem"])
        self.assertEqual(([], ""), (bad["pieces"], good["problem"]))
        do(self.study, "remove", id=self.a)
        self.study.set("a", 1)
        self.assertIn("slider of this family is gone", self.family(self.path)["problem"]["message"])
        do(self.study, "family", id=self.path, slider=None)
        self.assertIsNone(self.family(self.path))


if __name__ == "__main__":
    unittest.main()
