"""Proofs that one solution of a set leads to another, and the expressions that unknowns are."""

import math
import random
import unittest
from collections.abc import Callable
from fractions import Fraction

from flint import arb
from hypothesis import given, settings
from hypothesis import strategies as st

from axis_path.core import MathError, Study
from axis_path.core.arithmetic import precision
from axis_path.core.compile.inputs import input_name
from axis_path.core.compile.sets.definitions import SettledSet
from axis_path.core.compile.sets.solving import SolvedEquations
from axis_path.core.draw import Window
from axis_path.core.locate.sets.branches import between, branch_through

WINDOW = Window((-10.0, 10.0), (-6.0, 6.0), 800, 480)
#: Sets with a parameter k: the branch of each unknown, and where it is one branch.
BRANCHES: tuple[tuple[str, dict[str, Callable[[float], float]], tuple[float, float]], ...] = (
    ("u^3 + u = k;", {"u": lambda k: _cubic(k)}, (-5.0, 5.0)),
    ("exp(u) = k^2 + 1; v = u - k", {"u": lambda k: math.log(k * k + 1)}, (-3.0, 3.0)),
    ("u + v = k; u - v^3 = v", {"v": lambda k: _other_cubic(k)}, (-4.0, 4.0)),
    ("u + sin(u)/2 = k; w = u k; z_1 + w = 3", {"u": lambda k: _kepler(k)}, (-4.0, 4.0)),
)


def _root(function: Callable[[float], float], low: float, high: float) -> float:
    for _ in range(100):
        middle = (low + high) / 2
        low, high = (middle, high) if function(middle) < 0 else (low, middle)
    return (low + high) / 2


def _cubic(k: float) -> float:
    return float(_root(lambda u: u**3 + u - k, -9, 9))


def _other_cubic(k: float) -> float:
    return float(_root(lambda v: v**3 + 2 * v - k, -9, 9))


def _kepler(k: float) -> float:
    return float(_root(lambda u: u + math.sin(u) / 2 - k, -9, 9))


class BranchTest(unittest.TestCase):
    def solved(self, text: str, k: Fraction) -> SolvedEquations:
        study = Study()
        # As a decimal it is a slider, which is a parameter of the set.
        study.define(f"k = {float(k):.4f}")
        study.define(text)
        return study.snapshot.solved_sets.solved(1)

    def test_a_proved_box_holds_the_whole_branch(self) -> None:
        drawn = random.Random(17)  # noqa: S311 - a fixed seed is wanted
        proved = 0
        for text, wanted, (low, high) in BRANCHES:
            for _ in range(12):
                first = Fraction(drawn.randrange(int(200 * low), int(200 * high)), 200)
                second = first + Fraction(drawn.randrange(1, 40), 200)
                one, other = self.solved(text, first), self.solved(text, second)
                values = [dict(part.solutions.solutions[0].values) for part in (one, other)]
                with precision(64):
                    span = between(_arb(float(first)), _arb(float(second)))
                box = branch_through(one.problem, "k", span, (values[0], values[1]))
                if box is None:
                    continue
                proved += 1
                for step in range(11):
                    k = float(first) + (float(second) - float(first)) * step / 10
                    for name, branch in wanted.items():
                        held = box[input_name(name)].value
                        with self.subTest(text, k=k):
                            self.assertLessEqual(float(held.lower()), branch(k) + 1e-9)
                            self.assertGreaterEqual(float(held.upper()), branch(k) - 1e-9)
        self.assertGreater(proved, 36)

    def test_two_branches_are_never_taken_for_one(self) -> None:
        for text, pairs in (
            ("u^2 = k;", ((0, 1), (1, 0))),
            ("u^2 + v^2 = k; v = u/2", ((0, 1), (1, 0))),
            ("(u - 1)(u - 3) = k - 1;", ((0, 1), (1, 0))),
            ("cos(u) = k/9; w = u^2", ()),
        ):
            first, second = Fraction(1), Fraction(5, 4)
            one, other = self.solved(text, first), self.solved(text, second)
            with precision(64):
                span = between(_arb(1), _arb(1.25))
            for a, b in pairs:
                values = (
                    dict(one.solutions.solutions[a].values), dict(other.solutions.solutions[b].values),
                )  # fmt: skip
                with self.subTest(text, pair=(a, b)):
                    self.assertIsNone(branch_through(one.problem, "k", span, values))

    def test_another_parameter_proves_nothing(self) -> None:
        one, other = (
            self.solved("u^3 + u = k;", Fraction(1)),
            self.solved("u^3 + u = k;", Fraction(2)),
        )
        values = [dict(part.solutions.solutions[0].values) for part in (one, other)]
        with precision(64):
            span = between(_arb(1), _arb(2))
        self.assertIsNone(branch_through(one.problem, "q", span, (values[0], values[1])))

    def test_a_branch_that_ends_on_the_way_is_not_joined(self) -> None:
        """The solutions of u^2 = (k - 2)^2 - 1/100 vanish between k = 1.9 and 2.1."""
        text = "u^2 = (k - 2)^2 - 1/100;"
        one, other = self.solved(text, Fraction(3, 2)), self.solved(text, Fraction(5, 2))
        with precision(64):
            span = between(_arb(1.5), _arb(2.5))
        for place in (0, 1):
            values = [dict(part.solutions.solutions[place].values) for part in (one, other)]
            self.assertIsNone(branch_through(one.problem, "k", span, (values[0], values[1])))


#: Ways to write something that is linear in u, with numbers a and b that are not 0.
LINEAR = (
    "{a} q + {b} = {c}", "({a} + q)/{b} = {c}", "{a}(q - {b}) = {c}(2q + 1)", "{c} - q/{a} = {b}",
    "-({a} - (q + {b})) = {c} q", "q {a} - {b} q = {c}", "{a}/{b} q = {c} - q", "{c} = {a} + {b} q/3",
)  # fmt: skip


class DefinitionTest(unittest.TestCase):
    def settled(self, study: Study) -> SettledSet:
        return study.snapshot.analysis.sets[study.snapshot.index_of(1)]

    @settings(max_examples=150, deadline=None)
    @given(
        st.sampled_from(LINEAR), st.integers(-9, 9), st.integers(1, 9), st.integers(-9, 9),
        st.booleans(),
    )  # fmt: skip
    def test_a_linear_equation_is_solved_without_a_search(
        self, form: str, a: int, b: int, c: int, is_slider: bool
    ) -> None:
        a = a or 4
        text = form.format(a="p" if is_slider else f"({a})", b=b, c=c)
        study = Study()
        study.define(f"{text}; w = 2*q")
        if is_slider:
            study.define(f"p = {a}")
        plain = form.format(a=f"({a})", b=b, c=c)
        left, right = plain.split("=")
        values = [
            [_number(side.replace("q", f"({number})")) for side in (left, right)]
            for number in (0, 1)
        ]
        gaps = [one - other for one, other in values]
        slope = gaps[1] - gaps[0]
        self.assertEqual(frozenset(), self.settled(study).solved, text)
        if not slope:
            result = _result(study)
            self.assertIsNone(result, text)
            return
        wanted = -gaps[0] / slope
        self.assertEqual(wanted, _result(study), text)
        self.assertEqual(str(2 * wanted), study.evaluate("w").exact)

    def test_what_is_not_linear_is_solved(self) -> None:
        for text, solved in (
            ("u^2 + u = 3; w = u + 1", {"u"}), ("1/u = 4; w = u", {"u"}), ("u v = 2; u + v = 3", {"u", "v"}),
            ("sin(u) = 0.5; w = 3 u", {"u"}), ("|u| = 2; w = u", {"u"}), ("w = u + 1; u = 4", set()),
            ("u + v = 3; u - v = 1", {"u", "v"}), ("u = cos(v); v = 2; w = u v", set()),
            ("u = v + u^2; v = 0", {"u"}), ("sum(u, j, 1, 3) = 6; w = u", {"u"}),
        ):  # fmt: skip
            study = Study()
            study.define(text)
            with self.subTest(text):
                self.assertEqual(frozenset(solved), self.settled(study).solved)
                study.evaluate("u")


class FuzzTest(unittest.TestCase):
    def test_random_sets_never_end_in_anything_but_a_sentence(self) -> None:
        """Whatever is written, each name has a value or says why not, and the study is kept."""
        drawn = random.Random(23)  # noqa: S311 - a fixed seed is wanted
        letters = ("u", "v", "w", "m", "N", "x", "y", "s", "t_1", "mu", "h")
        units = ("", "", "", " kg", " m", " N", " s", " m/s")
        operations = (" + ", " - ", " ", "*", "/", "^2 + ")
        for _ in range(120):
            study = Study()
            study.define("a = 2")
            if drawn.random() < 0.3:
                study.define("m = 3 kg")
            equations = []
            for _ in range(drawn.randrange(1, 5)):
                sides = []
                for _ in range(2):
                    parts = [
                        drawn.choice(letters) if drawn.random() < 0.6
                        else f"{drawn.randrange(1, 9)}{drawn.choice(units)}"
                        for _ in range(drawn.randrange(1, 4))
                    ]  # fmt: skip
                    text = parts[0]
                    for part in parts[1:]:
                        text += drawn.choice(operations) + part
                    sides.append(text)
                equations.append(" = ".join(sides))
            text = "; ".join(equations) + ";"
            with self.subTest(text):
                study.apply({"do": "write", "id": None, "text": text}, WINDOW)
                study.apply({"do": "write", "id": None, "text": "f(z) = a z"}, WINDOW)
                scene = study.scene(WINDOW).to_dict()
                self.assertEqual(len(study.snapshot.lines), len(scene["rows"]))
                for name in study.names():
                    try:
                        result = study.evaluate(name)
                    except MathError as err:
                        self.assertTrue(err.message)
                    else:
                        self.assertTrue(result.reason or result.decimal(8))
                again = Study.from_dict(study.to_dict())
                self.assertEqual(scene["sets"], again.scene(WINDOW).to_dict()["sets"])


def _arb(number: float) -> arb:
    made: arb = arb(number)
    return made


def _number(text: str) -> Fraction:
    exact = Study().evaluate(text).exact
    return Fraction(str(exact).replace("−", "-"))


def _result(study: Study) -> Fraction | None:
    """Return q as a fraction; None if it has no value."""
    try:
        exact = study.evaluate("q").exact
    except MathError:
        return None
    return None if exact is None else Fraction(str(exact).replace("−", "-"))
