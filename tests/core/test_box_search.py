"""Several equations in a box: every solution, proved to be single, wherever it lies."""

import unittest
from collections.abc import Sequence
from itertools import product

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from axis_path.core import Study
from axis_path.core.arithmetic import precision
from axis_path.core.compile.inputs import input_name
from axis_path.core.evaluate import Expression
from axis_path.core.language import Vocabulary, read_expression
from axis_path.core.language.tree import Binary, Operator
from axis_path.core.locate.sets.boxes import BoxSystem, solve_in_box
from axis_path.core.locate.sets.values import enclosed_values, simple_fraction


def system_of(equations: Sequence[str], names: Sequence[str]) -> BoxSystem:
    """Return equations as functions that are to be zero together."""
    expressions = Study().snapshot.analysis.expressions
    known = Vocabulary(variables=frozenset(names))
    gaps: list[Expression] = []
    for equation in equations:
        left, right = (read_expression(side, known) for side in equation.split("="))
        gaps.append(expressions.expression(Binary(Operator.SUBTRACT, left, right), names))
    return BoxSystem.of(gaps, [input_name(name) for name in names], {}, {})


def solutions_of(
    equations: Sequence[str], names: Sequence[str], reach: float = 10
) -> tuple[list[list[float]], bool]:
    """Return the middles of all proved solutions in a box, in order, and whether these are all."""
    low = np.full(len(names), -float(reach))
    found, complete = solve_in_box(system_of(equations, names), low, -low)
    proved = [((one.low + one.high) / 2).tolist() for one in found if one.proved]
    return sorted(proved), complete


class BoxSearchTest(unittest.TestCase):
    def check(self, wanted: Sequence[Sequence[float]], found: Sequence[Sequence[float]]) -> None:
        self.assertEqual(len(wanted), len(found))
        for one, other in zip(sorted(map(list, wanted)), found, strict=True):
            np.testing.assert_allclose(one, other, atol=1e-9)

    def test_all_solutions_are_found_and_proved(self) -> None:
        root = 2**0.5
        cases: list[tuple[tuple[str, ...], str, list[tuple[float, ...]]]] = [
            (("x^2 + y^2 = 4", "x = y"), "xy", [(root, root), (-root, -root)]),
            (("x^2 = 4", "y^2 = 9", "z^2 = 1"), "xyz", list(product((-2, 2), (-3, 3), (-1, 1)))),
            (("x^3 = x", "y = x^2"), "xy", [(0, 0), (1, 1), (-1, 1)]),
            (("exp(x) = y", "x y = 0"), "xy", [(0, 1)]),
            (("x^2 + y^2 = 1", "x y = 1"), "xy", []),
            (("w^2 = 1", "x^2 = 4", "w x y = 6", "z + y = 1"), "wxyz",
             [(w, x, 6 / (w * x), 1 - 6 / (w * x)) for w in (-1, 1) for x in (-2, 2)]),
        ]  # fmt: skip
        for equations, names, wanted in cases:
            with self.subTest(equations):
                found, complete = solutions_of(equations, names)
                self.assertTrue(complete)
                self.check(wanted, found)

    def test_solutions_on_the_border_of_boxes_are_found_once(self) -> None:
        # The first box is cut off its middle; 0 and the ends of the box are the hard places.
        for shift in (0.0, 0.5, -10.0, 10.0, 0.4876 * 20 - 10):
            found, complete = solutions_of(
                (f"x + y = {2 * shift!r}".replace("= -", "= 0 - "), "x - y = 0"), "xy"
            )
            self.assertTrue(complete)
            self.check([(shift, shift)], found)

    def test_a_contact_is_not_claimed_to_be_proved(self) -> None:
        found, complete = solve_in_box(
            system_of(("x^2 + y^2 = 2", "x + y = 2"), "xy"), np.full(2, -5.0), np.full(2, 5.0)
        )
        self.assertFalse(complete)
        self.assertFalse(any(one.proved for one in found))
        self.assertTrue(
            any(bool((abs((one.low + one.high) / 2 - 1) < 1e-3).all()) for one in found)
        )

    def test_a_curve_of_solutions_is_given_up_soon(self) -> None:
        found, complete = solutions_of(("x y = 4", "x^2 y^2 = 16"), "xy")
        self.assertEqual(([], False), (found, complete))

    def test_where_nothing_is_defined_nothing_is_found(self) -> None:
        found, complete = solutions_of(("sqrt(x) + y = 1", "ln(y) = x"), "xy")
        self.check([(0, 1)], found) if found else self.assertFalse(complete)
        self.assertEqual(([], True), solutions_of(("sqrt(-1 - x^2) = y", "x = y"), "xy"))

    @settings(max_examples=30, deadline=None)
    @given(
        st.lists(
            st.lists(st.integers(-6, 6), min_size=2, max_size=3, unique=True),
            min_size=2,
            max_size=3,
        )
    )
    def test_products_of_roots_give_exactly_their_grid(self, roots: list[list[int]]) -> None:
        names = "xyz"[: len(roots)]
        turned = names[1:] + names[:1]
        equations = [
            f"{''.join(f'({name} - ({root}))' for root in own)} (1 + {other}^2/50) = 0"
            for name, other, own in zip(names, turned, roots, strict=True)
        ]
        found, complete = solutions_of(equations, names, 8)
        self.assertTrue(complete)
        self.check(list(product(*roots)), found)

    def test_digits_double_until_there_are_enough(self) -> None:
        system = system_of(("x^2 = 2 + y/10", "y^2 = 3 - x/7"), "xy")
        found, _ = solve_in_box(system, np.zeros(2), np.full(2, 3.0))
        (only,) = found
        values = enclosed_values(system, only, {})
        for bits in (64, 300, 2_000):
            x, y = (values[input_name(name)].at_bits(bits).value for name in "xy")
            self.assertGreater(x.rel_accuracy_bits(), bits)
            with precision(bits + 20):
                self.assertTrue((x * x - 2 - y / 10).contains(0))
                self.assertLess(float((y * y - 3 + x / 7).abs_upper()), 2.0 ** (8 - min(bits, 900)))

    def test_only_short_fractions_are_proposed(self) -> None:
        self.assertEqual(4, simple_fraction(np.nextafter(4, 0), np.nextafter(4, 5)))
        self.assertIsNone(simple_fraction(2**0.5 - 1e-15, 2**0.5 + 1e-15))
