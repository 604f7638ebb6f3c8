"""Sets of equations: in any order, solved in blocks, with proofs, and what is missing in them."""

import math
import unittest
from fractions import Fraction
from itertools import permutations

import numpy as np
from flint import fmpq, fmpq_mat
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from axis_path.core import MathError, Study
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.errors import EquationError, UnitError
from axis_path.core.features.equations.check import check_solution
from axis_path.core.features.equations.solving import EquationSets, SolvedSet
from axis_path.core.features.findings.answers import answer
from axis_path.core.features.findings.section import QueryKind, SavedQuery
from axis_path.core.locate.sets import structure_of

RAMP = (
    "m g_n sin(alpha) - F_f = m a", "F_f = mu N", "N = m g_n cos(alpha)", "m = 80 kg",
    "alpha = 20°", "mu = 1/10",
)  # fmt: skip
#: Sets with their solutions, by the first names; exact forms where there is one.
SETS: dict[tuple[str, ...], list[dict[str, str]]] = {
    ("W = m a", "m = 12 kg", "a = g_n"): [{"W": "588399/5000 N", "a": "196133/20000 m/s²"}],
    ("y1 = x^2 - 1", "y2 = x", "y1 = y2"): [{"x": "(1 - √5)/2"}, {"x": "(1 + √5)/2"}],
    ("x^2 + y^2 = 25", "x y = 12"): [
        {"x": "-4", "y": "-3"}, {"x": "-3", "y": "-4"}, {"x": "3", "y": "4"}, {"x": "4", "y": "3"},
    ],
    ("x + y = 3", "x - y = 1"): [{"x": "2", "y": "1"}],
    ("t = s/v", "v = 90 km/h", "s = 45 km"): [{"t": "1800 s"}],
    ("x^2 + y^2 + z^2 = 14", "x y z = 6", "x + y + z = 6"): [
        {"x": str(x), "y": str(y), "z": str(6 - x - y)}
        for x, y in ((1, 2), (1, 3), (2, 1), (2, 3), (3, 1), (3, 2))
    ],
    ("U = R I", "P = U I", "R = 50 Ω", "U = 10 V"): [{"I": "1/5 A"}],
    ("sqrt(2) p + q = 1", "p - q = 0"): [{"p": "√2 - 1"}],
    ("v^2 = 2 g_n h", "h = 5 m"): [{"h": "5 m"}, {"h": "5 m"}],
    ("x^2 = -1",): [],
}  # fmt: skip


class SolvingTest(unittest.TestCase):
    def test_known_sets_have_exactly_their_solutions(self) -> None:
        for equations, wanted in SETS.items():
            for order in (equations, equations[::-1]):
                with self.subTest(order):
                    found = Study().solve_system(order)
                    self.assertTrue(found.complete, found.note)
                    self.assertTrue(all(item.proved for item in found))
                    shown = [
                        {name: item.values[name].exact for name in one}
                        for item, one in zip(found, wanted, strict=True)
                    ]
                    key = str
                    self.assertEqual(sorted(wanted, key=key), sorted(shown, key=key))

    def test_a_ramp_is_solved_in_units_in_any_order(self) -> None:
        for seed in range(6):
            equations = list(RAMP)
            np.random.default_rng(seed).shuffle(equations)
            (one,) = Study().solve_system(equations)
            self.assertEqual("73.72189311704 N", one.values["F_f"].decimal(13))
            self.assertEqual("m/s^2", one.values["a"].unit)
            self.assertAlmostEqual(2.432548174579, one.values["a"].value, places=11)
            self.assertEqual("20 °", one.values["alpha"].decimal())
            self.assertEqual("80 kg", one.values["m"].decimal())

    def test_letters_are_units_where_quantities_are_given_and_names_elsewhere(self) -> None:
        wanted = {
            ("W = 40 N", "N = W cos(60°)", "F = W + 0.3 N"): ("F", "46 N", "3 `N` is the unknown"),
            ("N = 20 N", "F = 0.3 N"): ("F", "0.3 N", "as in `2*N`"),
            ("m = 12 kg", "h = 3 m", "E = m g_n h"): ("E", "353.0394 J", "`m` is the unit metre"),
            ("m = 3 kg", "h = 2 m", "E = 2 m g_n h"): ("E", "117.6798 J", "3 `m` is the unknown"),
            ("m = 3 kg", "x = 4 m + 2 m"): ("x", "6 m", "2 `m` is the unit metre"),
            ("W = m g_n", "W = 196.133 N", "q = 2 m + 1 kg"): ("q", "41 kg", "`m` is the unknown"),
            ("h = 3", "d = 2 h"): ("d", "6", "for the unit write `hour`"),
            ("F = 2 N", "N + F = 5 N"): ("N", "3 N", "`N` is the unit newton"),
        }
        for equations, (name, value, words) in wanted.items():
            found = Study().solve_system(equations)
            self.assertIn(words, found.note)
            for order in permutations(equations):
                with self.subTest(order):
                    (one,) = Study().solve_system(order)
                    self.assertEqual(value, one.values[name].decimal())

    def test_a_set_meets_where_its_curves_do(self) -> None:
        """The same answer as a solution of a set, as an intersection, and as a root."""
        curves = (
            ("x^3 - 2x", "x + 1/2"),
            ("exp(x/3) - 1", "sin(2x)"),
            ("exp(x)", "2x + 3"),
            ("x^2 - 1", "x"),
        )
        for left, right in curves:
            study = Study()
            study.define(f"f(x) = ({left})")
            study.define(f"g(x) = ({right})")
            met = study.intersections("f", "g", low=-3, high=3)
            found = study.solve_system([f"y1 = {left}", f"y2 = {right}", "y1 = y2"], low=-3, high=3)
            with self.subTest(left):
                self.assertTrue(met.complete and found.complete)
                self.assertEqual(len(met), len(found))
                for crossing, solution in zip(met, found, strict=True):
                    values = solution.values
                    self.assertAlmostEqual(crossing.x, values["x"].value, places=12)
                    self.assertAlmostEqual(crossing.y, values["y1"].value, places=12)
                    self.assertEqual(values["y1"].decimal(20), values["y2"].decimal(20))

    @settings(max_examples=60, deadline=None)
    @given(
        st.integers(2, 7).flatmap(
            lambda count: st.tuples(
                st.lists(
                    st.lists(
                        st.fractions(-9, 9, max_denominator=6), min_size=count, max_size=count
                    ),
                    min_size=count,
                    max_size=count,
                ),
                st.lists(st.fractions(-9, 9, max_denominator=6), min_size=count, max_size=count),
            )
        )
    )
    def test_linear_equations_hold_their_rational_solution(
        self, drawn: tuple[list[list[Fraction]], list[Fraction]]
    ) -> None:
        """However they are written: with brackets, quotients and unknowns on both sides."""
        factors, planted = drawn
        names = [f"u{k}" for k in range(len(planted))]
        texts = []
        for row in factors:
            total = sum((a * b for a, b in zip(row, planted, strict=True)), Fraction(0))
            terms = [f"({factor}) ({name} + 1)" for factor, name in zip(row, names, strict=True)]
            texts.append(
                f"{' + '.join(terms)} = ({total + sum(row)}) + ({row[0]}) u0 - u0 ({row[0]})"
            )
        matrix = fmpq_mat([[fmpq(a.numerator, a.denominator) for a in row] for row in factors])
        assume(matrix.det() != 0)
        found = Study().solve_system(texts, unknowns=names)
        (one,) = found
        self.assertTrue(one.proved and found.complete)
        for name, value in zip(names, planted, strict=True):
            self.assertEqual(value, one.values[name].rational)

    def test_solutions_are_put_into_every_equation(self) -> None:
        snapshot = Study().snapshot
        texts = ["x^2 + y^2 = 7", "x y = exp(x)/5", "F = 3 N x", "r = 1/4"]
        solved = snapshot.query(EquationSets).solved(texts)
        for place, values in enumerate(solved.values):
            x, y, *_ = (values[name].value for name in "xy")
            circle, product, force, exact = check_solution(snapshot, solved, place)
            assert circle and product and force and exact
            self.assertAlmostEqual(x**2 + y**2, circle.left.value, places=9)
            self.assertEqual("7", circle.right.decimal())
            self.assertAlmostEqual(math.exp(x) / 5, product.right.value, places=9)
            self.assertRegex(product.residual, "^less than 10⁻[⁰¹²³⁴⁵⁶⁷⁸⁹]{2,3}$")
            self.assertEqual("N", force.right.unit)
            self.assertEqual(("0", True), (exact.residual, exact.is_exact))
        (free,) = check_solution(snapshot, self.not_determined(snapshot), 0)
        self.assertIsNone(free)

    def not_determined(self, snapshot: Snapshot) -> SolvedSet:
        return snapshot.query(EquationSets).solved(["x + y = 3"])

    def test_plain_systems_are_checked_too(self) -> None:
        study = Study()
        study.define("k = 2")
        for text, count in (
            ("x + y = 3\nx - y = k", 1), ("x^2 + y^2 = 25\nx y = 12", 4), ("x^2 + y = 1\nx = y^2", 2),
            ("x + y = 3\n2x + 2y = 6", 0), ("x + y = 3\nx + y = 4", 0),
        ):  # fmt: skip
            saved = SavedQuery(1, None, None, None, QueryKind.SOLVE, text=text)
            found = answer(study.snapshot, saved, with_exact=True)
            with self.subTest(text):
                self.assertEqual(count, len(found.checks))
                for row, checks in zip(found.rows, found.checks, strict=False):
                    for check in checks:
                        sides = (check.left.replace("−", "-"), check.right.replace("−", "-"))
                        self.assertAlmostEqual(float(sides[0]), float(sides[1]), 8)
                    # The row and its check are of one solution.
                    x, y = row.x, row.y
                    left = [float(c.left.replace("−", "-")) for c in checks]
                    if "12" in text:
                        self.assertAlmostEqual(x * y, left[1], 6)

    def test_names_of_the_study_are_known(self) -> None:
        study = Study()
        study.define("m = 12 kg")
        (one,) = study.solve_system(["W = m g_n"])
        self.assertEqual(["W", "m"], list(one.values))
        (again,) = study.solve_system(["W = 60 N", "W = m g_n"], unknowns=["W", "m"])
        self.assertAlmostEqual(6.118297277867, again.values["m"].value, places=11)
        study.set("m", 20)
        (other,) = study.solve_system(["W = m g_n"])
        self.assertEqual("196.133 N", other.values["W"].decimal())
        study.define("k = 3")
        (third,) = study.solve_system(["q = 2*k"])
        self.assertEqual(("6", "3"), tuple(third.values[name].decimal() for name in ("q", "k")))

    @settings(max_examples=40, deadline=None)
    @given(st.integers(1, 6), st.integers(0, 10**6))
    def test_linear_sets_agree_with_their_planted_solution(self, count: int, seed: int) -> None:
        draw = np.random.default_rng(seed)
        names = [f"u{k}" for k in range(count)]
        planted = [Fraction(int(draw.integers(-30, 31)), int(draw.integers(1, 7))) for _ in names]
        matrix = [[int(draw.integers(-5, 6)) for _ in names] for _ in names]
        if round(np.linalg.det(matrix)) == 0:
            return
        equations = []
        for row in matrix:
            left = " + ".join(f"({a}) {name}" for a, name in zip(row, names, strict=True) if a)
            right = sum(a * value for a, value in zip(row, planted, strict=True))
            equations.append(f"{left} = {right}")
        draw.shuffle(equations)
        found = Study().solve_system(equations)
        self.assertTrue(found.complete)
        (one,) = found
        for name, value in zip(names, planted, strict=True):
            self.assertEqual(value, one.values[name].rational, equations)

    @settings(max_examples=10, deadline=None)
    @given(st.integers(2, 3), st.integers(0, 10**6))
    def test_coupled_sets_hold_their_planted_solution(self, count: int, seed: int) -> None:
        draw = np.random.default_rng(seed)
        names = ["x", "y", "z"][:count]
        planted = [int(draw.integers(-6, 7)) for _ in names]
        equations = []
        for _ in names:
            parts, total = [], 0
            for name, value in zip(names, planted, strict=True):
                a, b = int(draw.integers(1, 5)), int(draw.integers(-3, 4))
                parts.append(f"{a} {name}^2 + ({b}) {name}")
                total += a * value**2 + b * value
            a, b = draw.permutation(count)[:2]
            parts.append(f"{names[a]} {names[b]}")
            equations.append(f"{' + '.join(parts)} = {total + planted[a] * planted[b]}")
        found = Study().solve_system(equations, low=-20, high=20)
        near = [
            item
            for item in found
            if all(
                abs(item.values[n].value - v) < 1e-6 for n, v in zip(names, planted, strict=True)
            )
        ]
        self.assertTrue(near or not found.complete, (equations, planted, found.note))
        study = Study()
        for item in found:
            if item.proved:
                for equation in equations:
                    left, right = equation.split(" = ")
                    for name in names:
                        left = left.replace(name, f"({item.values[name].decimal(30)})")
                    left = left.replace("−", "-")
                    self.assertAlmostEqual(float(right), study.evaluate(left).value, places=6)

    def test_any_number_of_digits_is_right(self) -> None:
        (one,) = Study().solve_system(["sin(x) + y = 1", "cos(y) + x = 1"])
        digits = {name: one.values[name].decimal(40) for name in "xy"}
        study = Study()
        residual = study.evaluate(f"sin({digits['x']}) + {digits['y']} - 1")
        self.assertLess(abs(residual.value), 1e-38)
        self.assertEqual(digits["x"][:12], one.values["x"].decimal(11)[:12])

    def test_thirty_equations_in_a_chain(self) -> None:
        equations = [f"s{k} = s{k + 1} + {k} m" for k in range(28)] + ["s28 = 2 km", "q = 2 s0"]
        np.random.default_rng(1).shuffle(equations)
        (one,) = Study().solve_system(equations)
        self.assertEqual(2000 + sum(range(28)), one.values["s0"].value)
        self.assertEqual(30, len(one.values))


class MissingTest(unittest.TestCase):
    def test_what_is_missing_or_contradictory_is_named(self) -> None:
        said = {
            ("x + y + z = 6",): "`x`, `y` and `z` are not determined: two equations are missing.",
            ("x + y = 3", "2x + 2y = 6"): "infinitely many solutions: `x` and `y` can be any",
            ("x + y = 3", "2x + 2y = 7", "z = 4"): "equations 1 and 2 contradict each other",
            ("x + y = 3", "x - y = 1", "x = 5", "w = 2"): "equations 1, 2 and 3 contradict",
            ("x + y = 3", "x - y = 1", "x = 2"): "follows from the others",
            ("w x = 2", "x y = 6", "y z = 12", "z w = 4"): "infinitely many solutions",
            ("x^2 = -1", "y = 2"): "equation 1 has none",
            ("a^2 + b^2 = c^2", "a = 3 m", "b = 4 m", "c = 6 m"): "1, 2, 3 and 4 contradict",
        }  # fmt: skip
        for equations, words in said.items():
            with self.subTest(equations):
                self.assertIn(words, Study().solve_system(equations).note)
        (one,) = Study().solve_system(["x + y = 3", "w = 4"])
        self.assertEqual({"w": "4"}, {n: r.decimal() for n, r in one.values.items()})

    def test_units_and_forms_that_do_not_fit_are_refused(self) -> None:
        for equations, words in {
            ("F = 3 N", "F = 2 kg"): "force and mass differ by m/s²",
            ("W = m g", "m = 2 kg", "W = 20 N", "g = 9.81"): "did you mean `g_n`",
            ("x + 1",): "is not an equation", ("x < 2",): "is not an equation", ("  ",): "Write an equation",
            ("2 = 3",): "There is no unknown",
        }.items():  # fmt: skip
            with self.subTest(equations), self.assertRaises(MathError) as caught:
                Study().solve_system(equations)
            self.assertIn(words, str(caught.exception))
        with self.assertRaises(EquationError):
            Study().solve_system(["x + y = 2"], unknowns=["x"])
        self.assertTrue(issubclass(UnitError, MathError))

    def test_structure_finds_blocks_in_order(self) -> None:
        uses = [frozenset(s) for s in ({0, 1}, {1}, {2, 3}, {2, 3, 0}, {4, 5}, {1})]
        structure = structure_of(uses, 6)
        self.assertEqual([(1,), (0,), (2, 3)], [block.unknowns for block in structure.blocks])
        self.assertEqual((5,), structure.extra)
        self.assertEqual(((4, 5), 1), (structure.free, structure.missing))

    @settings(max_examples=80, deadline=None)
    @given(st.lists(st.frozensets(st.integers(0, 7), min_size=1, max_size=4), max_size=9))
    def test_structure_leaves_nothing_out(self, uses: list[frozenset[int]]) -> None:
        structure = structure_of(uses, 8)
        solved = [unknown for block in structure.blocks for unknown in block.unknowns]
        used = [equation for block in structure.blocks for equation in block.equations]
        self.assertEqual(list(range(8)), sorted([*solved, *structure.free]))
        self.assertEqual(
            list(range(len(uses))), sorted([*used, *structure.extra, *structure.loose])
        )
        known = set[int]()
        for block in structure.blocks:
            self.assertEqual(len(block.equations), len(block.unknowns))
            known |= set(block.unknowns)
            self.assertTrue(all(uses[equation] <= known for equation in block.equations))
