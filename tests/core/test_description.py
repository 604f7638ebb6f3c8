"""The plane in words: what is said of a function agrees with what is known of it."""

import re
import unittest
from fractions import Fraction
from itertools import combinations

import numpy as np

from axis_path.core import Study, Window
from axis_path.core.compile.curves import Curves
from axis_path.core.features.description import describe, window_in_words

WINDOW = Window((-10, 10), (-6.5, 6.5), 660, 430)
#: A line, and sentences that must be among those that describe it.
SAID = (
    ("f(x) = x^2 - 3 for -2 <= x <= 3", (
        "It is defined for −2 ≤ x ≤ 3.",
        "From x = −2 it falls to its minimum (0, −3), then rises to x = 3.",
        "Zeros at x = −√3, √3.",
        "All of this is proved.",
    )),
    ("f(x) = 1/(x - 1)", (
        "From x = −10 it falls to the pole at x = 1, then falls to x = 10.",
        "It has no zero in the window.",
    )),
    ("f(x) = sqrt(x) - 2", ("From x = 0 it rises to x = 10.", "Zero at x = 4.")),
    ("f(x) = 0 x", ("It is zero all along −10 ≤ x ≤ 10.",)),
    ("f(x) = sin(9x)", ("It rises and falls: it has 58 extrema in the window.",)),
    ("f(x) = x for x > 50", ("None of it lies in the window.",)),
    ("f(x) = floor(x) for 0 <= x < 3", ("It is zero all along 0 ≤ x < 1.",)),
    ("P(t) = (cos t, sin t)", ("It is a path, drawn by a parameter.",)),
    ("x^2 + y^2 = 9", ("It is a curve given by an equation.",)),
)  # fmt: skip


def sentences(text: str) -> list[str]:
    study = Study()
    study.define(text)
    line = describe(study.snapshot, study.snapshot.definitions()[0], WINDOW)
    assert line is not None
    return list(line.sentences)


class DescriptionTest(unittest.TestCase):
    def test_lines_are_described_by_what_is_proved(self) -> None:
        for text, wanted in SAID:
            with self.subTest(text):
                self.assertLessEqual(set(wanted), set(sentences(text)))

    def test_undrawn_lines_are_not_described(self) -> None:
        study = Study()
        study.define("# a note")
        study.define("a = 3")
        self.assertEqual(
            [None, None],
            [describe(study.snapshot, line, WINDOW) for line in study.snapshot.definitions()],
        )
        self.assertEqual(
            "The window shows x from −10 to 10, and y from −6.5 to 6.5.",
            window_in_words(Study().snapshot, WINDOW),
        )

    def test_rising_and_falling_is_what_the_values_do(self) -> None:
        for zeros in combinations(range(-8, 9, 4), 3):
            for sign in (1, -1):
                with self.subTest(zeros=zeros, sign=sign):
                    self.check_monotonicity(zeros, sign)

    def check_monotonicity(self, zeros: tuple[int, ...], sign: int) -> None:
        factors = " ".join(f"(x - ({zero}))" for zero in zeros)
        text = f"f(x) = {sign} {factors}"
        study = Study()
        study.define(text)
        function = study.snapshot.query(Curves).function("f")
        line = describe(study.snapshot, study.snapshot.definitions()[0], WINDOW)
        assert line is not None
        sentence = line.sentences[1]
        at = -10.0
        pattern = r"(rises|falls) to (?:its \w+ \(([−\d./]+),|x = 10)"
        for verb, abscissa in re.findall(pattern, sentence):
            end = float(Fraction(abscissa.replace("−", "-"))) if abscissa else 10.0
            low, high = function.sample(np.array([at + 0.02, end - 0.02]))
            if end - at > 0.05:
                self.assertEqual(verb, "rises" if high > low else "falls", sentence)
            at = end
        self.assertEqual(10.0, at)
