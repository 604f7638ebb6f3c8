"""No claim of a zero, a break, a length or an exact form is untrue, wherever singular places lie."""

import unittest

from tests.core.guard import run

COUNT, SEED = 2_000, 25
#: This many may be left undecided, but none may be wrong.
_MOST_WEAK = 60


class GuardTest(unittest.TestCase):
    def test_proofs_agree_with_constructed_truth(self) -> None:
        tally = run(COUNT, SEED)
        self.assertEqual([], [(case.text, case.question, amiss) for case, amiss in tally.wrong])
        self.assertLess(len(tally.weak), _MOST_WEAK)
