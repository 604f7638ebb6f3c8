"""Functions in pieces, and edits of whole studies: the same whichever way they are come by."""

import random
import unittest
from fractions import Fraction

import numpy as np
from flint import arb

from axis_path.core import Study, Window
from axis_path.core.arithmetic import Defined, ball, precision
from axis_path.core.errors import CycleError
from axis_path.core.features.lines.edits import mark_line

SEED = 20_261_124
WINDOW = Window(x=(-5, 5), y=(-6, 6), width=400, height=300)

#: A function in pieces, with places and the values there; None where it has none.
PIECES = (
    ("x^2 for x < 0; 2x + 1 for 0 <= x < 2; 5 otherwise", {-3: 9, 0: 1, 1: 3, 2: 5, 9: 5}),
    ("1 for x < 0; 2 for x > 0", {-1: 1, 0: None, 1: 2}),
    ("1 for x <= 1; 2 for x >= 1", {1: 1, 2: 2}),
    ("x for 0 <= x <= 1; 3 for 4 < x <= 5", {0: 0, 1: 1, 2: None, 4: None, 5: 3}),
    ("x for x != 2; 7 otherwise", {2: 7, 3: 3}),
    ("sqrt(x) for x < 4; 0 otherwise", {-1: None, 1: 1, 4: 0}),
    ("1/x for x != 0; 0 otherwise", {0: 0, 2: Fraction(1, 2)}),
    ("1 for x < a; 2 otherwise", {1: 1, 3: 2}),
    ("1 for x < sqrt(2); 2 otherwise", {1: 1, 2: 2}),
)


class PiecesTest(unittest.TestCase):
    def study(self, text: str) -> Study:
        study = Study()
        study.set("a", 2)
        study.define(f"f(x) = {text}")
        return study

    def test_pieces_agree_in_every_arithmetic(self) -> None:
        for text, values in PIECES:
            study = self.study(text)
            function = study.function("f")
            for abscissa, expected in values.items():
                with self.subTest(text, x=abscissa):
                    at = np.array([float(abscissa)])
                    fast, wide = function.sample(at)[0], function.enclose(at, at)
                    result = study.evaluate(f"f({abscissa})")
                    if expected is None:
                        self.assertTrue(np.isnan(fast))
                        self.assertTrue(result.reason)
                        self.assertTrue(wide.partial[0])  # type: ignore[index]
                    else:
                        self.assertEqual(float(expected), fast)  # type: ignore[arg-type]
                        self.assertEqual(str(expected), result.exact)
                        self.assertTrue(wide.low[0] <= expected <= wide.high[0])

    def test_a_slider_recomputes_only_what_depends_on_it(self) -> None:
        """Between two places only some sliders count: the others change no value there."""
        draw = random.Random(SEED)  # noqa: S311
        names, signs = "abcd", ("<", "<=")
        spared = 0
        for _ in range(150):
            cuts = sorted(draw.sample(range(-6, 7), 3))
            turned = [draw.choice(signs) for _ in range(6)]
            heads = [f"for {low} {turned[k]} x {turned[k + 3]} {high}"
                     for k, (low, high) in enumerate(zip([-7, *cuts[:2]], cuts, strict=True))]  # fmt: skip
            draw.shuffle(heads)
            heads[draw.randrange(3)] = draw.choice(["for x < 0", "for x != 1", "for x > c/9 - 2"])
            pieces = "; ".join(f"{n} + x {head}" for n, head in zip(names, heads, strict=False))
            study = Study()
            values = {name: draw.randint(1, 5) for name in names}
            for name, value in values.items():
                study.set(name, value)
            study.define(f"f(x) = {pieces}; d x otherwise")
            before = study.function("f")
            low = draw.randint(-16, 14) / 2
            high = low + draw.choice([0, 0.5, 1, 3, 9])
            key, abscissae = before.key_on(low, high), np.linspace(low, high, 37)
            for name in names:
                study.set(name, values[name] + 1)
                after = study.function("f")
                if after.key_on(low, high) == key:
                    spared += 1
                    np.testing.assert_array_equal(
                        before.sample(abscissae), after.sample(abscissae), f"{pieces}: {name}"
                    )
                study.set(name, values[name])
        # Most pieces lie elsewhere; if every slider counted, nothing would be tested.
        self.assertGreater(spared, 150)

    def test_columns_and_balls_hold_all_pieces_that_they_touch(self) -> None:
        drawn = np.random.default_rng(SEED)
        for text, _ in PIECES:
            function = self.study(text).function("f")
            low = drawn.uniform(-4, 4, 60)
            high = low + 10 ** drawn.uniform(-3, 0.4, 60)
            wide = function.enclose(low, high)
            for part in np.linspace(0, 1, 9):
                xs = low + (high - low) * part
                ys = function.sample(xs)
                for k in range(60):
                    with self.subTest(text, low=low[k], x=xs[k]), precision(80):
                        if np.isnan(ys[k]):
                            self.assertTrue(wide.partial[k])  # type: ignore[index]
                            continue
                        self.assertTrue(wide.low[k] <= ys[k] <= wide.high[k])
                        hull = ball.from_bounds(arb(low[k]), arb(high[k]))
                        found = function.prove(hull)
                        self.assertIsNot(Defined.NO, found.defined)
                        self.assertTrue(found.value.contains(arb(ys[k])) or abs(ys[k]) > 1e6)

    def test_piecewise_curve_opens_at_jumps_only(self) -> None:
        jumping = self.study("x for x < 1; x + 2 otherwise").curve("f", WINDOW)
        for piece in jumping.pieces:
            self.assertFalse(((piece[:-1, 0] < 1) & (piece[1:, 0] > 1)).any())
        ends = [(piece[0, 0], piece[-1, 0]) for piece in jumping.pieces if len(piece) > 2]
        self.assertAlmostEqual(1.0, ends[0][1], places=3)
        self.assertAlmostEqual(1.0, ends[-1][0], places=3)

    def test_zeros_of_a_function_in_pieces(self) -> None:
        study = self.study("x + 1 for x < 0; x - 2 for x > 1; 1 otherwise")
        found = study.zeros("f", -4, 4)
        self.assertEqual(["−1", "2"], [zero.exact for zero in found])
        # A jump over zero is none.
        self.assertEqual(0, len(self.study("-1 for x < 0; 1 otherwise").zeros("f", -2, 2)))


class EditTest(unittest.TestCase):
    """Whatever is edited, the study means what a fresh one with the same lines means."""

    TEXTS = (
        "f(x) = x + a",
        "f(x) = a x^2 for x > -1",
        "f(x) = g(x) + 1",
        "g(x) = f(x)^2",
        "g(x) = sin(b x)",
        "h(x) = f(g(x)) - f(1)",
        "h(x) = f'(x) + sum(k x, k, 1, 3)",
        "a = 2",
        "a = b + 1",
        "b = 1/2",
        "b = h(0)",
        "c = [a, b]",
        "c = (a, f(b))",
        "x^2 - c",
        "x^2 + y^2 = a",
        "# note",
        "f(x) = sin(",
        "q(x) = unknown(x)",
        "a = 3",
        "b = 5/2",
        "f(x) = b - x",
        "g(x) = a/x",
        "p(x) = f(x) + g(x)",
    )

    def meaning(self, study: Study) -> list[tuple[object, ...]]:
        return [
            (
                made.kind,
                made.name,
                made.mathml,
                None if made.problem is None else (made.problem.code, made.problem.message),
            )
            for made in study.definitions()
        ]

    def values(self, study: Study) -> list[str]:
        found = []
        for made in study.definitions():
            if made.problem is None and made.kind == "function" and not made.disabled:
                found.append(study.evaluate(f"{made.name}(3/4)").decimal(20))
        return found

    def test_random_edits_equal_a_fresh_reading(self) -> None:
        drawn = random.Random(SEED)  # noqa: S311 - a fixed seed is wanted
        study = Study()
        for number in range(1, 9):
            study.write(number, drawn.choice(self.TEXTS))
        checked = 0
        for _ in range(260):
            line = drawn.choice(study.snapshot.lines).id
            if drawn.random() < 0.1:
                study.edit(mark_line, line, disabled=drawn.random() < 0.5)
            else:
                study.write(line, drawn.choice(self.TEXTS))
            fresh = Study.from_dict(study.to_dict())
            with self.subTest([row.text for row in study.snapshot.lines]):
                self.assertEqual(self.meaning(fresh), self.meaning(study))
                self.assertEqual(self.values(fresh), self.values(study))
                checked += len(self.values(study))
        self.assertGreater(checked, 40)

    def test_an_edit_that_closes_a_cycle_is_detected(self) -> None:
        study = Study()
        for text in ("f(x) = x", "g(x) = f(x) + 1", "h(x) = g(x)"):
            study.define(text)
        with self.assertRaises(CycleError):
            study.define("f(x) = h(x)")
        self.assertEqual("3", study.evaluate("h(2)").exact)

    def test_edits_upon_edits_do_not_pile_up(self) -> None:
        """The graph that edits share is made anew before it is full."""
        study = Study()
        study.define("f(x) = x")
        study.define("g(x) = f(x)^2")
        for k in range(1, 1500):
            study.write(1, f"f(x) = {k} x^{k % 7 + 2} + sin({k} x) + cos({k} x)/(x^2 + {k})")
            if k % 50 == 0:
                self.assertIsNone(study.snapshot.definition(2).problem)
            study.names()
        self.assertIsNone(study.snapshot.definition(2).problem)
