"""The graph of operations: equal parts once, derivatives right, factors that lose no zero."""

import math
import pickle
import re
import threading
import unittest
from fractions import Fraction

import numpy as np
from flint import arb

from axis_path.core.arithmetic import Ball, Defined, ball, ball_functions, precision
from axis_path.core.errors import LimitError
from axis_path.core.evaluate import Expression, Graph, Op, RealFunction, digits_of, run
from axis_path.core.evaluate.backends.backends import Fast
from axis_path.core.evaluate.graph.graph import Inner
from axis_path.core.language.tree import Summary
from axis_path.core.limits import STEPS
from tests.core.functions import make_function


class GraphTest(unittest.TestCase):
    def test_equal_parts_are_one_step(self) -> None:
        one = make_function("sin(x + 1)").expression.program
        two = make_function("sin(x + 1) + sin(x + 1)^2 - 3 sin(x + 1)").expression.program
        self.assertEqual(1, sum(step.op == "sin" for step in two.steps))
        self.assertLess(len(two.steps), 2 * len(one.steps) + 6)

    def test_plain_numbers_are_computed_while_the_graph_is_built(self) -> None:
        table = (
            ("2 + 3 * 4", Fraction(14)),
            ("(1/3)^2 - 1/9", Fraction(0)),
            ("2^-3", Fraction(1, 8)),
            ("-(0.5)", Fraction(-1, 2)),
        )
        for text, value in table:
            with self.subTest(text):
                steps = make_function(text).expression.program.steps
                self.assertEqual((1, value), (len(steps), steps[0].payload))

    def test_undefined_parts_are_not_simplified_away(self) -> None:
        for text in ("0/x", "0 ln(x)", "x^0/x^0 - 1/(x - x)", "(x - x)/(x - x)", "0 * (1/x)"):
            with self.subTest(text):
                value = make_function(text).sample(np.array([0.0]))
                self.assertTrue(np.isnan(value[0]))

    def test_exponents_distinguish_roots_from_powers(self) -> None:
        table = (
            ("x^2", Op.INTEGER_POWER),
            ("x^-3", Op.INTEGER_POWER),
            ("x^(2/6)", Op.ROOT),
            ("x^0.5", Op.ROOT),
            ("x^pi", Op.POWER),
            ("x^x", Op.POWER),
        )
        for text, op in table:
            with self.subTest(text):
                self.assertEqual(op, make_function(text).expression.program.steps[-1].op)

    def test_the_graph_is_bounded(self) -> None:
        graph = Graph()
        with self.assertRaises(LimitError):
            for k in range(STEPS.value + 2):
                graph.number(k)

    def test_unknown_functions_are_our_own_fault(self) -> None:
        with self.assertRaises(ValueError):
            Graph().call("explode", (0,))


class DerivativeTest(unittest.TestCase):
    #: Function, derivative, both as they are written.
    PAIRS = (
        ("x^3 - 2x", "3x^2 - 2"),
        ("sin(2x)", "2cos(2x)"),
        ("x e^x", "(x + 1) e^x"),
        ("ln(x^2 + 1)", "2x/(x^2 + 1)"),
        ("1/x", "-1/x^2"),
        ("x/(x + 1)", "1/(x + 1)^2"),
        ("sqrt(x)", "1/(2 sqrt(x))"),
        ("x sqrt(x)", "1.5sqrt(x)"),
        ("x^(1/3) x^2", "7x^(4/3)/3"),
        ("x^(2/3)", "2/3 x^(-1/3)"),
        ("2^x", "ln(2) 2^x"),
        ("x^x", "x^x (ln(x) + 1)"),
        ("tan(x)", "1/cos(x)^2"),
        ("asin(x/2)", "1/sqrt(4 - x^2)"),
        ("atan(3x)", "3/(1 + 9x^2)"),
        ("tanh(x)", "1/cosh(x)^2"),
        ("|x|", "sign(x)"),
        ("max(x^2, x)", "2x"),
        ("log(x)", "1/(x ln(10))"),
        ("5", "0"),
    )

    def test_derivatives_agree_with_those_of_the_textbook(self) -> None:
        for text, expected in self.PAIRS:
            function, other = make_function(text), make_function(expected)
            for x in (Fraction(11, 10), Fraction(3, 2), Fraction(19, 10)):
                with self.subTest(text, x=x), precision(120):
                    abscissa = ball.from_fraction(x)
                    mine = function.prove(abscissa, function.expression.derivative())
                    theirs = other.prove(abscissa)
                    self.assertIs(Defined.YES, mine.defined)
                    self.assertTrue(abs(mine.value - theirs.value) < arb(1e-28))

    def test_a_derivative_has_no_value_at_a_kink(self) -> None:
        for text in ("|x|", "sign(x)", "max(x, -x)", "x^(1/3)"):
            function = make_function(text)
            with self.subTest(text), precision(64):
                found = function.prove(ball.from_fraction(0), function.expression.derivative())
                self.assertIsNot(Defined.YES, found.defined)


class FactorTest(unittest.TestCase):
    def test_no_zero_is_lost_by_splitting(self) -> None:
        texts = (
            "x (x - 1)/(x + 2)",
            "tan(x) - 1",
            "1/x + 1/(x - 3)",
            "sqrt(x + 1) (x^2 - 2)^3",
            "|x - 1| sin(x)",
            "exp(x) (x - 2)",
            "-(x - 1)/(x^2 + 1)",
            "(1/x - 1/2)^2",
            "sinh(x) tanh(x - 1)",
        )
        xs = np.linspace(-6, 6, 40_001)
        for text in texts:
            function = make_function(text)
            factors = function.expression.factors()
            values = function.sample(xs)
            near = np.flatnonzero(np.abs(values) < 1e-9)
            with self.subTest(text), precision(64):
                for index in near:
                    x = ball.from_fraction(Fraction(float(xs[index])))
                    sizes = [abs(function.prove(x, factor).value) for factor in factors]
                    self.assertTrue(any(size < arb(1e-3) for size in sizes), xs[index])


class BallTest(unittest.TestCase):
    def interval(self, low: float, high: float) -> Ball:
        return ball.from_bounds(arb(low), arb(high))

    def test_intervals_know_whether_they_are_defined_and_continuous(self) -> None:
        yes, maybe, no = Defined.YES, Defined.MAYBE, Defined.NO
        one = ball.from_fraction(1)
        table = (
            (ball.square_root, (1, 4), yes, True),
            (ball.square_root, (-1, 4), maybe, True),
            (ball.square_root, (-4, -1), no, False),
            (ball_functions.logarithm, (0.5, 2), yes, True),
            (ball_functions.logarithm, (-1, 2), maybe, True),
            (ball_functions.logarithm, (-2, -1), no, False),
            (ball_functions.tangent, (-1, 1), yes, True),
            (ball_functions.tangent, (1, 2), maybe, False),
            (ball_functions.floor, (0.25, 0.75), yes, True),
            (ball_functions.floor, (0.75, 1.25), yes, False),
            (ball_functions.sign, (-1, 1), yes, False),
            (ball_functions.arcsine, (0.5, 2), maybe, True),
            (ball_functions.arcsine, (2, 3), no, False),
            (lambda a: ball.divide(one, a), (-1, 1), maybe, False),
            (lambda a: ball.divide(one, a), (1, 2), yes, True),
            (lambda a: ball.root(a, 1, 3), (-8, 8), yes, True),
            (lambda a: ball.integer_power(a, 2), (-2, 3), yes, True),
        )
        for k, (operation, ends, defined, continuous) in enumerate(table):
            with self.subTest(k, ends=ends), precision(64):
                found = operation(self.interval(*ends))
                self.assertIs(defined, found.defined)
                self.assertIs(continuous, found.continuous)
                self.assertEqual(defined is not yes, bool(found.reason))

    def test_reasons_of_parts_come_through_to_the_whole(self) -> None:
        with precision(64):
            broken = ball.square_root(ball.from_fraction(-1))
            for whole in (
                ball.add(broken, ball.from_fraction(1)),
                ball.multiply(ball.from_fraction(0), broken),
                ball_functions.sine(broken),
                ball.divide(ball.from_fraction(1), broken),
            ):
                self.assertIs(Defined.NO, whole.defined)
                self.assertEqual("sqrt of a negative number", whole.reason)

    def test_digits_are_given_only_if_the_ball_is_narrow_enough(self) -> None:
        with precision(64):
            self.assertIsNone(digits_of(self.interval(3.14, 3.15), 4))
            self.assertEqual("3.1", digits_of(self.interval(3.14, 3.149), 2))
            self.assertIsNone(digits_of(self.interval(-1e-30, 1e-30), 1))
            self.assertIsNone(digits_of(Ball(arb.nan()), 1))

    def test_programs_run_the_same_in_many_threads(self) -> None:
        function = make_function("exp(sin(x)) ln(x^2 + 1)")
        derived: list[Expression] = []
        threads = [
            threading.Thread(target=lambda: derived.append(function.expression.derivative()))
            for _ in range(8)
        ]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(1, len({id(step) for step in derived}))
        value = function.sample(np.array([2.0]))[0]
        self.assertAlmostEqual(math.exp(math.sin(2)) * math.log(5), value)


class InnerTest(unittest.TestCase):
    """Steps put in for others, and bodies that run over a variable of their own."""

    TEXTS = (
        "x^2 + sin(x)/x - |x|",
        "sqrt(x + 1) ln(x + 2) - 3^x",
        "max(x, 1/2) + floor(x) - x^(1/3)",
        "sum(k x^k, k, 1, 5)",
        "integral(t^2 x, t, 0, x + 1)",
        "product(x + k, k, 0, 3)/x",
    )

    def test_substituted_step_is_a_composition(self) -> None:
        for text in self.TEXTS:
            for inner in ("x + 1", "2x", "x^2 + 1/3"):
                function = make_function(text)
                direct = make_function(re.sub(r"(?<![a-w])x", f"({inner})", text))
                with self.subTest(text, inner=inner), precision(160):
                    abscissa = make_function(inner).prove(ball.from_fraction(Fraction(3, 4)))
                    put_in = function.prove(abscissa)
                    straight = direct.prove(ball.from_fraction(Fraction(3, 4)))
                    self.assertTrue(put_in.value.overlaps(straight.value))

    def test_substitution_touches_only_what_needs_the_step(self) -> None:
        graph = Graph()
        x, y = graph.add(Op.VARIABLE), graph.add(Op.INPUT, payload="y")
        apart = graph.call("sin", (y,))
        whole = graph.plus(graph.times(x, x), apart)
        moved = graph.substitute(whole, x, graph.number(3))
        self.assertEqual(9, graph.value(graph.steps[moved].arguments[0]))
        self.assertEqual(apart, graph.steps[moved].arguments[1])
        self.assertEqual(whole, graph.substitute(whole, graph.number(77), y))

    def test_a_body_is_the_same_whether_it_is_summed_or_written_out(self) -> None:
        graph = Graph()
        bound, x = graph.add(Op.INPUT, payload="#1"), graph.add(Op.VARIABLE)
        body = graph.times(graph.plus(bound, x), graph.call("cos", (x,)))
        made = graph.summarise(Summary.SUM, body, bound, (graph.number(1), graph.number(3)))
        step = graph.steps[made]
        assert isinstance(step.payload, Inner)
        captured = step.arguments[2:]
        self.assertEqual(body, graph.instantiate(step.payload, captured, bound))
        # The cosine does not hold the bound variable: it is computed once, outside.
        self.assertIn(graph.call("cos", (x,)), captured)
        written = [graph.instantiate(step.payload, captured, graph.number(k)) for k in (1, 2, 3)]
        total = graph.plus(graph.plus(written[0], written[1]), written[2])
        xs = np.linspace(-2, 2, 9)
        one, other = (
            RealFunction("f", "x", Expression(graph, index)).sample(xs) for index in (made, total)
        )
        np.testing.assert_allclose(one, other, rtol=1e-14)

    def test_a_program_travels_without_what_was_bound_to_it(self) -> None:
        function = make_function("sin(x)^2 + sum(k, k, 1, 4)")
        xs = np.linspace(0, 1, 5)
        before = function.sample(xs)
        copy = pickle.loads(pickle.dumps(function.expression.program))  # noqa: S301 - our own
        self.assertEqual(function.expression.program, copy)
        np.testing.assert_array_equal(before, run(copy, Fast(), xs, {})[0])
