"""A short round of the fuzz: every line is read or refused in words, in time and in bounds."""

import time
import unittest

from tests.fuzz import NASTY, attempt, fuzz

#: A refusal takes at most 100 ms on a quiet machine; this one may be busy, and shared.
#: Work is bounded by what it is; a machine that is busy takes several times as long for the same.
TIMEOUT_S = 20.0


class FuzzTest(unittest.TestCase):
    def test_random_lines_raise_only_math_errors(self) -> None:
        outcomes, slowest = fuzz(2_500, seed=20_261_124)
        self.assertEqual(2_500, sum(outcomes.values()))
        # Lines that work are among them, or this would test only refusals.
        self.assertGreater(outcomes["function"], 30)
        self.assertLess(slowest[0][0], 1000 * TIMEOUT_S)

    def test_texts_made_to_hurt_are_refused_in_time(self) -> None:
        for text in NASTY:
            with self.subTest(text[:40]):
                began = time.perf_counter()
                attempt(text)
                self.assertLess(time.perf_counter() - began, TIMEOUT_S)
