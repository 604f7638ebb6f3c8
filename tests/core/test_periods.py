"""A period that is read off an expression really is one, for expressions that nobody prepared."""

import itertools
import math
import random
import unittest
from fractions import Fraction

import numpy as np

from axis_path.core import Study
from axis_path.core.evaluate import Multiple, period
from axis_path.core.evaluate.graph.period import common_period
from axis_path.core.locate.sweep import _nearest_choice

SEED = 20_261_125


def wave(draw: random.Random, depth: int) -> str:
    """Return an expression in t that is made of waves by operations that do not see t."""
    if depth == 0:
        kind = draw.choice(("sin", "cos", "tan", "constant"))
        if kind == "constant":
            return draw.choice(("2", "0.5", "pi", "s", "-3"))
        factor = draw.choice(("", "2", "3", "(1/2)", "(3/4)", "0.4", "s", "(-2)"))
        shift = draw.choice(("", " + 1", " - pi/3", " + s"))
        return f"{kind}({factor} t{shift})"
    one, other = wave(draw, depth - 1), wave(draw, draw.randrange(depth))
    return draw.choice((f"({one} + {other})", f"({one} - {other})", f"{one} * {other}", f"exp(sin({one}))",
                        f"({one})^2", f"|{one}|", f"max({one}, {other})", f"cos({one})", f"{one}/(3 + ({other})^2)"))  # fmt: skip


class PeriodTest(unittest.TestCase):
    def test_values_come_again_after_a_period(self) -> None:
        draw = random.Random(SEED)  # noqa: S311 - chance for tests
        ts = np.array([draw.uniform(-9, 9) for _ in range(40)])
        found = always = 0
        for _ in range(150):
            study = Study()
            study.set("s", draw.choice(("1.5", "2", "0.75")))
            text = wave(draw, draw.randrange(4))
            study.define(f"f(t) = {text}")
            function = study.function("f")
            known = period(function.expression.program, function.parameters)
            # One that holds for all sliders is the one that holds now.
            steady = period(function.expression.program, None)
            self.assertIn(steady, (None, known), text)
            if known is None:
                continue
            found += 1
            always += steady is not None
            length = float(known.part) * math.pi**known.power
            one, other = function.sample(ts), function.sample(ts + length)
            both = np.isfinite(one) & np.isfinite(other) & (abs(one) < 1e6)
            np.testing.assert_allclose(one[both], other[both], rtol=1e-6, atol=1e-7, err_msg=text)
        self.assertGreater(found, 100)
        self.assertTrue(30 < always < found, (always, found))

    def test_the_common_period_is_the_least_of_all(self) -> None:
        draw = random.Random(SEED)  # noqa: S311 - chance for tests
        for _ in range(200):
            parts = [
                Fraction(draw.randint(1, 12), draw.randint(1, 12))
                for _ in range(draw.randint(1, 4))
            ]
            found = common_period(frozenset(Multiple(part, 0) for part in parts))
            self.assertEqual(1, found.power)  # type: ignore[union-attr]
            # Whole numbers of turns of each wave, with no common factor: no shorter one would do.
            turns = [found.part * part / 2 for part in parts]  # type: ignore[union-attr]
            self.assertTrue(all(turn.denominator == 1 for turn in turns), parts)
            self.assertEqual(1, math.gcd(*(turn.numerator for turn in turns)), parts)
        self.assertIsNone(common_period(frozenset()))
        self.assertIsNone(
            common_period(frozenset({Multiple(Fraction(1), 0), Multiple(Fraction(1), 1)}))
        )
        self.assertIsNone(common_period(frozenset({Multiple(Fraction(1, 10**7), 0)})))


class PartnersTest(unittest.TestCase):
    def test_rising_partners_are_as_near_as_any(self) -> None:
        """Against all choices there are."""
        draw = random.Random(SEED)  # noqa: S311 - chance for tests
        for _ in range(120):
            many = sorted(draw.uniform(0, 9) for _ in range(draw.randint(1, 7)))
            few = sorted(draw.uniform(0, 9) for _ in range(draw.randint(0, len(many))))
            chosen = _nearest_choice(few, many)
            self.assertEqual(sorted(set(chosen)), chosen)
            best = min(
                sum(abs(x - many[k]) for x, k in zip(few, abscissae, strict=True))
                for abscissae in itertools.combinations(range(len(many)), len(few))
            )
            taken = sum(abs(x - many[k]) for x, k in zip(few, chosen, strict=True))
            self.assertAlmostEqual(best, taken, 12)


if __name__ == "__main__":
    unittest.main()
