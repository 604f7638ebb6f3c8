"""Numbers of which only a ball is known: every digit shown is right, else the bound holds."""

import random
import re
import unittest
from fractions import Fraction

import numpy as np
from flint import arb, fmpq

from axis_path.core.arithmetic import Ball
from axis_path.core.arithmetic.arrays.flint_matrices import exact_ball
from axis_path.core.arithmetic.bounded import entrywise
from axis_path.core.arithmetic.bounded.entries import (
    BoundedEntries,
    from_ball,
    from_balls,
    from_bounds,
    from_common,
    joined,
)
from axis_path.core.arithmetic.bounded.radii import Later, OuterSum, Relative
from axis_path.core.evaluate import make_point
from axis_path.core.evaluate.bounded_result import LazyParts, make_bounded

_SHOWN = re.compile(r"(?P<near>−?[\d.]+(?:·10\^−?\d+)?)(?: ± (?P<bound>[\d.]+(?:·10\^−?\d+)?))?")


def number(text: str) -> Fraction:
    """Return the number that a decimal of ours says."""
    return Fraction(text.replace("−", "-").replace("·10^", "e"))


class BoundedResultTest(unittest.TestCase):
    def setUp(self) -> None:
        self.drawn = random.Random(41)  # noqa: S311 - numbers, no secrets

    def test_digits_are_right_and_bounds_hold(self) -> None:
        with_bound = 0
        for _ in range(400):
            middle = self.drawn.uniform(-1, 1) * 10.0 ** self.drawn.randint(-8, 8)
            radius = abs(middle) * 10.0 ** self.drawn.randint(-14, 1)
            digits = self.drawn.randint(1, 20)
            ball = Ball(arb(middle, radius))
            text = make_bounded(ball).decimal(digits)
            match = _SHOWN.fullmatch(text)
            with self.subTest(middle=middle, radius=radius, digits=digits, text=text):
                assert match is not None
                near = number(match["near"])
                ends = [Fraction(middle) + sign * Fraction(radius) for sign in (-1, 1)]
                if match["bound"] is not None:
                    with_bound += 1
                    bound = number(match["bound"])
                    self.assertTrue(all(abs(end - near) <= bound for end in ends))
                    self.assertLess(bound, 40 * Fraction(radius))
                    continue
                # Half a unit of the last digit shown covers the whole ball.
                mantissa = match["near"].lstrip("−").split("·")[0]
                places = len(mantissa.partition(".")[2])
                power = match["near"].partition("^")[2].replace("−", "-")
                unit = Fraction(10) ** (int(power or 0) - places)
                whole = "." not in mantissa and not power
                zeros = len(mantissa) - len(mantissa.rstrip("0")) if whole else 0
                unit *= Fraction(10) ** zeros
                self.assertTrue(all(abs(end - near) <= unit / 2 for end in ends))
        self.assertGreater(with_bound, 30)

    def test_exact_numbers_are_results_like_any_other(self) -> None:
        result = make_bounded(exact_ball(fmpq(7, 4)))
        self.assertEqual(("7/4", "1.75"), (result.exact, result.decimal(10)))
        self.assertIsNone(make_bounded(Ball(arb(1, 0.5))).exact)
        point = make_point(result, result)
        self.assertEqual("(1.75, 1.75)", point.decimal(5))

    def test_parts_are_made_when_they_are_asked_for(self) -> None:
        made: list[int] = []

        def make(index: int) -> object:
            made.append(index)
            return make_bounded(exact_ball(fmpq(index)))

        parts = LazyParts(5, make)  # type: ignore[arg-type]
        self.assertEqual((5, []), (len(parts), made))
        self.assertEqual("3", parts[3].decimal(5))
        self.assertEqual("4", parts[-1].decimal(5))
        self.assertEqual(["1", "2"], [part.decimal(5) for part in parts[1:3]])
        self.assertEqual([3, 4, 1, 2], made)
        self.assertEqual(5, len(list(parts)))
        with self.assertRaises(IndexError):
            parts[5]


class RadiiTest(unittest.TestCase):
    def test_single_bounds_are_those_of_all_and_none_exceeds_the_greatest(self) -> None:
        drawn = np.random.default_rng(6)
        u, v, w, x = (drawn.random(6) for _ in range(4))
        middles = drawn.normal(size=36)
        for radii in (
            Relative(middles, 1e-3),
            Relative(middles, 0.0),
            Later(lambda: np.abs(middles) / 7),
            OuterSum(((u, v), (w, x)), (1.001, 1e-9)),
        ):
            every = radii.all()
            self.assertEqual(36, every.size)
            for index in (0, 7, 35):
                self.assertAlmostEqual(every[index], radii.at(index), 14)
            self.assertLessEqual(every.max(), radii.greatest() * (1 + 1e-14))

    def test_bounds_are_computed_once(self) -> None:
        calls: list[int] = []

        def compute() -> np.ndarray:
            calls.append(1)
            return np.ones(3)

        later = Later(compute)
        self.assertEqual(0, len(calls))
        for _ in range(3):
            later.all()
            later.at(1)
        self.assertEqual(1, len(calls))


class EntriesTest(unittest.TestCase):
    def test_parts_and_joins_keep_fractions_where_they_can(self) -> None:
        thirds = from_common(np.arange(1, 7, dtype=np.int64), 3)
        whole = from_common(np.array([5], dtype=np.int64))
        both = joined([thirds, whole])
        self.assertEqual([fmpq(k, 3) for k in range(1, 7)] + [fmpq(5)], [b.exact for b in both])
        self.assertEqual([fmpq(2), fmpq(1)], [b.exact for b in thirds.take(np.array([5, 2]))])
        self.assertEqual(fmpq(4, 3), thirds[1:][2].exact)
        rounded = BoundedEntries(thirds.middles, thirds.bounds)
        self.assertIsNone(joined([thirds, rounded])[1].exact)
        self.assertTrue(rounded[0].value.contains(arb(fmpq(1, 3))))

    def test_numbers_too_long_for_64_bits_are_bounded(self) -> None:
        long = exact_ball(fmpq(10**30 + 1, 7))
        made = from_balls([long, exact_ball(fmpq(1))])
        assert made is not None
        self.assertIsNone(made.exact)
        self.assertTrue(made[0].value.overlaps(long.value))
        self.assertIsNone(from_balls([exact_ball(fmpq(10**400))]))
        self.assertTrue(from_ball(Ball(arb(2).sqrt()))[0].value.overlaps(arb(2).sqrt()))

    def test_zero_is_shown_for_what_may_be_zero(self) -> None:
        entries = from_bounds(np.array([-1e-9, 1.0]), np.array([2e-9, 1.0]))
        self.assertEqual([0.0, 1.0], entries.nearest().tolist())
        self.assertEqual(fmpq(1), entries[1].exact)
        self.assertIsNone(entrywise.divide(from_common(np.ones(1, dtype=np.int64)), entries[:1]))

    def test_what_is_too_large_for_floats_is_refused(self) -> None:
        huge = from_bounds(np.array([1e200]), np.array([1.1e200]))
        self.assertIsNone(entrywise.multiply(huge, huge))
        self.assertIsNotNone(entrywise.add(huge, huge))


if __name__ == "__main__":
    unittest.main()
