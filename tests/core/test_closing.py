"""Paths that would close over a longer range, against published periods of roses and other curves."""

import unittest
from fractions import Fraction
from typing import Any

import numpy as np

from axis_path.core import Study, Window

WINDOW = Window((-6, 6), (-4, 4), 600, 400)


def closes(study: Study, abscissa: int = 0) -> Any:
    return study.scene(WINDOW).rows[abscissa]["closes"]


def built(line: str, unit: str = "radians", **sliders: Any) -> Study:
    study = Study(unit)
    study.define(line)
    for name, value in sliders.items():
        study.set(name, value)
    return study


class ClosingTest(unittest.TestCase):
    def test_the_range_that_closes_a_curve_is_offered(self) -> None:
        """A rose cos(p/q theta) closes after q pi if p q is odd, after 2 q pi if not (Lawrence, 1972)."""
        for p in range(1, 8):
            for q in range(1, 8):
                if Fraction(p, q).denominator != q:
                    continue
                whole = q if p * q % 2 else 2 * q
                study = built(f"r(theta) = cos({p}theta/{q}) for 0 <= theta <= 1")
                text = "π" if whole == 1 else f"{whole}π"
                self.assertEqual(text, closes(study)["text"], f"{p}/{q}")

    def test_other_curves(self) -> None:
        for line, unit, high in (
            ("P(t) = (5cos(3t), 4sin(2t)) for 0 <= t <= 3", "radians", "2pi"),
            ("P(t) = (cos(t/5) + 1, 4sin(2t) cos(t)) for 0 <= t <= 2pi", "radians", "10pi"),
            ("P(t) = (cos(2pi t), sin(3pi t)^3) for 0 <= t <= 1", "radians", "2"),
            ("P(t) = (cos(t), sin(t)) for pi/2 <= t <= pi", "radians", "pi/2 + 2pi"),
            ("P(t) = (cos(t), exp(sin(2t))) for 1 <= t <= 2", "radians", "1 + 2pi"),
            ("r(theta) = cos(theta/2)", "degrees", "720"),
            ("r(theta) = 2 + sin(1.4theta)", "radians", "10pi"),
            ("P(t) = (|sin t|, cos(2t)) for 0 <= t <= 1", "radians", "pi"),
        ):
            study = built(line, unit)
            found = closes(study)
            self.assertEqual(high, found["high"], line)
            ends = [("low", found["low"])] if found["low"] is not None else []
            for end, text in [*ends, ("high", found["high"])]:
                study.apply(
                    {"do": "domain", "id": 1, "end": end, "text": text, "closed": True},
                    WINDOW,
                )
            self.assertIsNone(closes(study), line)
            path = study.path(study.names()[0])
            first, last = path.points(np.array([path.low.near, path.high.near]))
            for a, b in zip(first, last, strict=True):
                self.assertAlmostEqual(a, b, 9, line)

    def test_nothing_is_offered_where_nothing_closes(self) -> None:
        for line in (
            "P(t) = (t, t^2) for 0 <= t <= 1",
            "P(t) = (cos(t), sin(sqrt(2) t)) for 0 <= t <= 9",
            "P(t) = (cos(t), sin(pi t)) for 0 <= t <= 9",
            "P(t) = (cos(t^2), sin t) for 0 <= t <= 9",
            "P(t) = (cos(t), t - t/2) for 0 <= t <= 9",
            "P(t) = (cos(t), sum(sin(k t), k, 1, 3)) for 0 <= t <= 1",
            "P(t) = (cos(t), sin(1.0000001t)) for 0 <= t <= 9",
            "r(theta) = theta for 0 <= theta <= 9",
            "r(theta) = cos(3theta) for 0 <= theta <= 2pi",
            "P(t) = (1, 2) for 0 <= t <= 1",
        ):
            self.assertIsNone(closes(built(line)), line)

    def test_closed_areas_follow_a_slider(self) -> None:
        study = built("r(theta) = cos(k theta) for 0 <= theta <= 2pi", k=3)
        self.assertIsNone(closes(study))
        study.set("k", "1.5")
        self.assertEqual("4π", closes(study)["text"])


if __name__ == "__main__":
    unittest.main()
