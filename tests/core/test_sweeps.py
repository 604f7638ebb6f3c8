"""Findings that follow a slider: extrema, intersections, branches, and where they change."""

import math
import unittest
from fractions import Fraction
from typing import Any

from axis_path.core import Study
from axis_path.core.errors import LimitError
from axis_path.core.features.findings.searches import Searches
from axis_path.core.locate import Search, SearchRequest


def study_of(*lines: str, **sliders: Any) -> Study:
    study = Study()
    for line in lines:
        study.define(line)
    for name, (value, low, high) in sliders.items():
        study.set(name, value, low=low, high=high, step="0.01")
    return study


def swept(study: Study, wanted: SearchRequest, count: int, *progress: Any) -> Any:
    return study.sweep(
        "a", wanted, study.snapshot.query(Searches).sweep_values("a", count), *progress
    )


class SweepTest(unittest.TestCase):
    def test_zeros_that_merge_and_vanish(self) -> None:
        study = study_of("f(x) = x^2 - 2x + a", a=(0, -2, 4))
        visible: Any = []
        found = swept(
            study, SearchRequest(Search.ZEROS, "f", low="-9", high="9"), 25, visible.append
        )
        self.assertEqual(list(range(1, 26)), visible)
        self.assertEqual(
            [2 if value < 1 else 1 if value == 1 else 0 for value in found.values],
            list(map(len, found.findings)),
        )
        self.assertTrue(found.complete)
        self.assertEqual(
            ["Two zeros merge and vanish at a = 1, near 1."],
            [event.sentence for event in found.events],
        )
        for event in found.events:
            self.assertTrue(abs(event.low - 1) < Fraction(1, 10_000), event)
        for branch in found.branches:
            for value, item in zip(branch.values, branch.items, strict=True):
                root = math.sqrt(max(float(1 - value), 0))
                self.assertAlmostEqual(0, min(abs(item.x - 1 - root), abs(item.x - 1 + root)), 9)

    def test_extrema_appear_in_pairs_and_are_named(self) -> None:
        # x^3 - a x has extrema for a > 0 only; at a = 0 there is a point where it stands still.
        study = study_of("f(x) = x^3 - a x", a=(1, "-1.1", "2.3"))
        found = swept(study, SearchRequest(Search.EXTREMA, "f", low="-5", high="5"), 18)
        self.assertEqual(1, len(found.events))
        self.assertIn("Two extrema appear as one and part at a = ", found.events[0].sentence)
        self.assertLess(abs(float(found.events[0].high)), 1e-4)
        self.assertEqual(2, len(found.branches))
        for branch, sign in zip(found.branches, (-1, 1), strict=True):
            value, item = branch.values[-1], branch.items[-1]
            self.assertAlmostEqual(sign * math.sqrt(float(value) / 3), item.x, 12)

    def test_a_zero_that_leaves_through_the_end(self) -> None:
        study = study_of("f(x) = x - a for 0 <= x <= 2", "g(x) = 1", "h(x) = a x", a=(1, 1, 3))
        found = swept(study, SearchRequest(Search.ZEROS, "f"), 12)
        self.assertEqual(
            ["A zero leaves through the upper end at a = 2."],
            [event.sentence for event in found.events],
        )
        # A meeting of two curves moves along without any change.
        met = swept(study, SearchRequest(Search.INTERSECTIONS, "g", "h", "0", "9"), 12)
        self.assertEqual(((), 1), (met.events, len(met.branches)))
        for value, item in zip(met.branches[0].values, met.branches[0].items, strict=True):
            self.assertAlmostEqual(1 / float(value), item.x, 12)

    def test_a_sweep_is_bounded_and_can_be_ended(self) -> None:
        study = study_of("f(x) = x - a", a=(1, 0, 3))
        for count in (1, 1_002):
            with self.assertRaises(LimitError):
                swept(study, SearchRequest(Search.ZEROS, "f"), count)

        def end(done: int) -> None:
            if done == 3:
                raise InterruptedError

        with self.assertRaises(InterruptedError):
            swept(study, SearchRequest(Search.ZEROS, "f", low="0", high="9"), 9, end)


if __name__ == "__main__":
    unittest.main()
