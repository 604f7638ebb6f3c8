"""Lines that once ended or froze a process, and some mutations of them, do neither."""

import unittest

from flint import arb, fmpq

from axis_path.compute.forked import run_forked
from axis_path.core import MathError, Study
from axis_path.core.arithmetic import precision
from axis_path.core.arithmetic.conversion import (
    FRACTION_BITS,
    WHOLE_BITS,
    fraction_of,
    whole_number,
    written_fraction,
)
from axis_path.core.evaluate import run_exact_work_with
from axis_path.core.evaluate.exact.exact_pool import _run_pooled
from tests.deadly import LINES, mutations, run_batch

COUNT, SEED = 182, 2026


class DeadlyTest(unittest.TestCase):
    def setUp(self) -> None:
        run_exact_work_with(run_forked)
        self.addCleanup(run_exact_work_with, _run_pooled)

    def test_no_line_ends_the_process_that_reads_it(self) -> None:
        texts = list(mutations(COUNT, SEED))
        self.assertEqual(list(LINES), texts[: len(LINES)])
        for first in range(0, COUNT, 91):
            batch = texts[first : first + 91]
            if run_batch(batch):
                self.fail(str([text for text in batch if run_batch([text])]))

    def test_huge_inputs_are_computed_or_refused(self) -> None:
        study = Study()
        for text, expected in (
            ("floor(10^30 + 1/3)", "10000000000000000000000000000000"[:31]),
            ("mod(10^40, 7)", str(10**40 % 7)),
            ("ceil(10^1000/3)", str(-(-(10**1000) // 3))),
        ):
            with self.subTest(text):
                self.assertEqual(expected, study.evaluate(text).exact)
        for text in ("floor(exp(exp(99)))", "mod(10^100^40, 7)", "round(10^100^40, 2)"):
            with self.subTest(text):
                try:
                    result = study.evaluate(text)
                except MathError:
                    continue
                self.assertTrue(result.reason)


class ConversionTest(unittest.TestCase):
    def test_sizes_are_looked_at_before_anything_is_made(self) -> None:
        with precision(64):
            two = arb(2)
            huge = two ** (arb(10) ** 40)
            for value in (huge, -huge, arb(0, 1) * huge, two ** (WHOLE_BITS + 1), arb.nan()):
                self.assertIsNone(whole_number(value))
            self.assertEqual(8, whole_number(two**3 + arb(0, 0.25)))
            self.assertIsNone(whole_number(arb(0.5)))
            for value in (huge, 1 / huge, arb(1) / 3, arb.nan(), two ** (FRACTION_BITS + 1)):
                self.assertIsNone(fraction_of(value))
            self.assertEqual(0.375, fraction_of(arb(0.375)))
        self.assertEqual("−3/4", written_fraction(fmpq(-3, 4)))
        self.assertIsNone(written_fraction(fmpq(10) ** 5000))
