"""The compiled enclosures say the same as those of NumPy, which the other tests look into."""

import os
import subprocess
import sys
import unittest
from unittest import mock

import numpy as np

from axis_path.core import Study
from axis_path.core.evaluate.backends import enclosed, sampled
from axis_path.core.locate.search import prune, quick

LINES = (
    "x^3/20 - x + s/100", "(x^2 + 1)/((x - 3)(x + 4))", "3exp(-x/5) sin(3x + s)", "1/(1/x)", "cos(x)/x",
    "sqrt(x) + ln(x - 2)", "x^(1/3) - x^(2/5) + x^-3", "tan x + arcsin(x/4) + arccos(x/5)", "(sin x)^-2",
    "floor(x) + ceil(x/2) + sign(x) + abs(x)", "min(x, 2) max(x, 1/x)", "x^s + 2^x", "log(x)/log(2)",
    "sinh x + cosh x + tanh x + arctan x", "x^10 - 3x^7", "e^(1/x)", "5", "1e300 x^9 - 1e308 x",
    "x^2/4 for x < 0; 2 - x for 0 <= x < 3; s otherwise", "ln x for x != 1", "x for -2 < x <= s",
)  # fmt: skip


class KernelTest(unittest.TestCase):
    def test_compiled_and_plain_enclosures_agree(self) -> None:
        draw = np.random.default_rng(20_261_125)
        edges = np.sort(np.concatenate([draw.uniform(-10, 10, 700), [-4, -3, 0, 1, 1.5, 2, 3]]))
        for line in LINES:
            study = Study()
            study.set("s", "1.5", low=0, high=9, step="0.001")
            study.define(f"f(x) = {line}")
            function = study.function("f")
            programs = (function.expression, function.expression.derivative())
            for program in (case.program for case in programs):
                for lows, highs in (
                    (edges[:-1], edges[1:]),
                    (edges, edges),
                    (edges[:3], edges[4:7]),
                ):
                    self.assertIsNotNone(enclosed._encoded(program), line)
                    one = enclosed.enclose_columns(program, (lows, highs), function.parameters)[0]
                    other = enclosed._with_numpy(program, (lows, highs), function.parameters, {})[0]
                    for flag in ("partial", "nowhere", "broken"):
                        same = getattr(one, flag) == getattr(other, flag)
                        self.assertTrue(same.all(), f"{flag} of {line}")
                    held = ~other.nowhere
                    # The compiled ones know that 0 times anything is 0: they may be narrower.
                    known = held & np.isfinite(other.low) & np.isfinite(other.high)
                    for bound in ("low", "high"):
                        a, b = getattr(one, bound)[known], getattr(other, bound)[known]
                        np.testing.assert_allclose(a, b, rtol=1e-8, atol=1e-300, err_msg=line)

    def test_zeros_agree_compiled_and_plain(self) -> None:
        located = 0
        for line in LINES:
            study = Study()
            study.set("s", "1.5", low=0, high=9, step="0.001")
            study.define(f"f(x) = {line}")
            function = study.function("f")
            value, slope = function.expression, function.expression.derivative()
            # Stretches in which it goes one way, as far as enclosures tell.
            edges = np.linspace(-9.13, 9.07, 160)
            lows, highs = edges[:-1], edges[1:]
            way = function.enclose(lows, highs, slope)
            sure = ~(way.partial | way.broken) & ((way.low > 0) | (way.high < 0))
            lows, highs = lows[sure].copy(), highs[sure].copy()
            brackets, unsure = prune.crossings(function, value, slope, lows, highs)
            plain, known = prune._crossings(function, value, slope, (lows, highs))
            with self.subTest(line):
                self.assertEqual(brackets, list(map(tuple, plain[:, known > 0].T.tolist())))
                self.assertEqual(unsure.tolist(), (known < 0).tolist())
                for low, high in brackets:
                    located += 1
                    ends = function.sample(np.array([low, high]))
                    self.assertLessEqual(ends[0] * ends[1], 0)
                    self.assertLess(high - low, 1e-9)
                # The same of all stretches at once, whichever way it goes in them.
                found = quick.quick_zeros(function, np.column_stack([edges[:-1], edges[1:]]))
                with mock.patch.object(quick, "_forms", return_value=None):
                    self.assertEqual(
                        quick.quick_zeros(function, np.column_stack([edges[:-1], edges[1:]])), found
                    )
        self.assertGreater(located, 30)

    def test_joint_results_equal_single_ones(self) -> None:
        study = Study()
        path = study.path(study.define("P(t) = (t cos t, t sin t) for 0 <= t <= 9").name)  # type: ignore[arg-type]
        lows, highs = np.linspace(0, 8, 50), np.linspace(0.2, 8.2, 50)
        bends = tuple(
            coordinate.expression.derivative().derivative() for coordinate in (path.x, path.y)
        )
        together = [*path.enclose(lows, highs), *path.enclose(lows, highs, bends)]  # type: ignore[arg-type]
        alone = [path.x.enclose(lows, highs), path.y.enclose(lows, highs)]
        alone += [path.x.enclose(lows, highs, bend) for bend in bends]
        for one, other in zip(together, alone, strict=True):
            np.testing.assert_array_equal(one.low, other.low)
            np.testing.assert_array_equal(one.high, other.high)

    def test_compiled_values_are_those_of_numpy(self) -> None:
        """Also where something is divided by zero, or grows beyond all floats."""
        xs = np.concatenate([np.linspace(-10, 10, 1_281), [0.0, -0.0, 1e200, -1e-200, 1e308]])
        lines = (
            "(x^2 + 1)/(x - 2)",
            "1/(1/x)",
            "x^-3 - x^7/5",
            "-(s x - 2)^2/(x + 4)/x",
            "x^12 pi",
            "s",
        )
        for line in lines:
            study = Study()
            study.set("s", "1.5", low=0, high=9, step="0.001")
            study.define(f"f(x) = {line}")
            function = study.function("f")
            program = function.expression.program
            self.assertTrue(sampled.is_arithmetic(program), line)
            plain = sampled._with_numpy(program, xs, function.parameters)
            plain[~np.isfinite(plain)] = np.nan
            found = function.sample_unrestricted(xs)
            np.testing.assert_allclose(found, plain, rtol=1e-14, err_msg=line)
            # What may not be written, or is a part of something else, is taken as well.
            fixed = np.broadcast_to(xs, (2, len(xs)))[0]
            np.testing.assert_array_equal(function.sample_unrestricted(fixed), found)
            np.testing.assert_array_equal(function.sample_unrestricted(xs[::3]), found[::3])

    def test_set_up_compiles_all_that_is_ever_needed(self) -> None:
        """Nobody waits for a compiler in the middle of a picture."""
        done = subprocess.run(
            [sys.executable, "-c", ALL_KINDS], capture_output=True, text=True, check=False
        )
        self.assertEqual(("", "set()"), (done.stderr, done.stdout.strip()))

    def test_interpreter_draws_what_overflows(self) -> None:
        """Just after a first start nothing is compiled yet; Python raises where floats overflow."""
        done = subprocess.run(
            [sys.executable, "-W", "ignore", "-c", OVERFLOWS],
            env=os.environ | {"NUMBA_DISABLE_JIT": "1"},
            capture_output=True, text=True, check=False,
        )  # fmt: skip
        self.assertEqual(("", "False"), (done.stderr, done.stdout.strip()))


#: Draws functions whose values are beyond floats, without a compiler.
OVERFLOWS = """
from axis_path.core import Study, Window
from axis_path.core.warm import is_compiled
for line in ("exp(x) + sinh(x) + cosh(2x)", "2^(2^x)"):
    for reach in (1_000,):
        study = Study()
        study.define(line)
        study.scene(Window((-reach, reach), (-reach, reach), 200, 100), reading_x=1.0)
print(is_compiled())
"""

#: Draws everything there is after set-up's own drawing, and prints what was compiled for it.
ALL_KINDS = """
from numba.core.dispatcher import Dispatcher
from axis_path.core import Study, Window
from axis_path.core.arithmetic import fence_kernel, kernel, point_kernel, scalar_kernel
from axis_path.core.draw.curves import clip, compiled, path_table, refine, table
from axis_path.core.warm import warm_up
def known():
    parts = (vars(module).values() for module in (kernel, fence_kernel, scalar_kernel, point_kernel, clip, compiled, refine, table, path_table))
    return {(each.__name__, signature) for part in parts for each in part
            if isinstance(each, Dispatcher) for signature in each.signatures}
warm_up()
before = known()
study = Study()
study.set("s", "1.5")
for line in ("s x", "1/(x - s)", "gamma(x)", "integral(sin(t), t, 0, x)", "sin(1000 x)", "floor x for x != 2",
             "x^2 for -1 < x <= 2", "P(t) = (t^3, gamma(t)) for -2 <= t <= 2, t != 1", "r(theta) = theta",
             "0 < x < y", "x y = s", "d(x, y) = x^2 + y", "5", "sqrt(-1 - x^2)", "x for x < 0; x^2 for x > 1"):
    study.define(line)
for window in (Window((-9, 9), (-6, 6)), Window((0.1, 99), (-1, 1), log_x=True),
               Window((-3, 9), (0.1, 99), log_y=True), Window((1, 9), (0.1, 99), log_x=True, log_y=True)):
    study.scene(window, reading_x=1.0)
    study.readings(window, 1.0, 1.0)
print(known() - before)
"""
