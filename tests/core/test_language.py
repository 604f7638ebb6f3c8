"""How lines are read: the contract of the language as tables of text and meaning."""

import dataclasses
import unittest
import xml.etree.ElementTree as ET
from fractions import Fraction
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from axis_path.core import Study, Window
from axis_path.core.compile.results import Results
from axis_path.core.errors import LimitError, MathError
from axis_path.core.language import (
    FunctionLine,
    NoteLine,
    RelationLine,
    ValueLine,
    Vocabulary,
    latex,
    latex_line,
    nearest,
    plain,
    plain_line,
    read_expression,
    read_line,
    typeset,
    typeset_domain,
    typeset_line,
)
from axis_path.core.language.complain import COMPLAINTS
from axis_path.core.language.tree import (
    Angle,
    AngleUnit,
    At,
    Binary,
    Built,
    Call,
    Counter,
    Derivative,
    Index,
    Items,
    Last,
    Name,
    Negative,
    Node,
    Number,
    Operator,
    Over,
    Pair,
    Part,
    Percent,
    Range,
    Replaced,
    Summary,
    Transposed,
)
from axis_path.core.study import Kind
from tests.core.bracketed import bracketed

WINDOW = Window((-10, 10), (-7, 7), 200, 140)
KNOWN = Vocabulary(
    functions=frozenset({"f", "tide"}),
    values=frozenset({"a", "b", "l", "w", "ab"}),
    variables=frozenset({"x"}),
)

READINGS = (
    # Precedence and grouping
    ("1 + 2 * 3", "(1 + (2 * 3))"),
    ("1 - 2 - 3", "((1 - 2) - 3)"),
    ("8 / 4 / 2", "((8 / 4) / 2)"),
    ("2^3^2", "(2 ^ (3 ^ 2))"),
    ("-x^2", "(-(x ^ 2))"),
    ("(-x)^2", "((-x) ^ 2)"),
    ("2^-3", "(2 ^ (-3))"),
    ("2^-x^2", "(2 ^ (-(x ^ 2)))"),
    ("--x", "(-(-x))"),
    ("+x", "x"),
    ("2 * -3", "(2 * (-3))"),
    ("x^1/2", "((x ^ 1) / 2)"),
    # Products without a sign
    ("2x", "(2 * x)"),
    ("1/2x", "((1 / 2) * x)"),
    ("2(x + 1)", "(2 * (x + 1))"),
    ("(x + 1)(x - 1)", "((x + 1) * (x - 1))"),
    ("2x(x)", "((2 * x) * x)"),
    ("a(x + 1)", "(a * (x + 1))"),
    ("l w", "(l * w)"),
    ("lw", "(l * w)"),
    ("ab", "ab"),
    ("abx", "(ab * x)"),
    ("2pi x", "((2 * pi) * x)"),
    ("xsin x", "(x * sin[x])"),
    ("2e3", "2000"),
    ("2e", "(2 * e)"),
    ("2 x^2 a", "((2 * (x ^ 2)) * a)"),
    # Functions with and without brackets
    ("sin x", "sin[x]"),
    ("sin 2x", "sin[(2 * x)]"),
    ("sin2x", "sin[(2 * x)]"),
    ("sin x + 1", "(sin[x] + 1)"),
    ("sin 2x * 3", "sin[((2 * x) * 3)]"),
    ("sin x/2", "sin[(x / 2)]"),
    ("x sin x cos x", "((x * sin[x]) * cos[x])"),
    ("sin x * cos x", "(sin[x] * cos[x])"),
    ("sin x / cos x", "(sin[x] / cos[x])"),
    ("sin cos x", "sin[cos[x]]"),
    ("sin(x) x", "(sin[x] * x)"),
    ("sin^2 x", "(sin[x] ^ 2)"),
    ("sin² x", "(sin[x] ^ 2)"),
    ("sin^2(x) x", "((sin[x] ^ 2) * x)"),
    ("sin^-1 x", "asin[x]"),
    ("tan⁻¹(x)", "atan[x]"),
    ("arcsin x", "asin[x]"),
    ("ln x^2", "ln[(x ^ 2)]"),
    ("sin -x", "sin[(-x)]"),
    ("e^sin x", "(e ^ sin[x])"),
    ("f(x)^2", "(f[x] ^ 2)"),
    ("f(2x) tide(x)", "(f[(2 * x)] * tide[x])"),
    ("max(x, 1)", "max[x, 1]"),
    # Signs of print
    ("x² + x³", "((x ^ 2) + (x ^ 3))"),
    ("x⁻¹", "(x ^ (-1))"),
    ("3 × x ÷ 2 − 1", "(((3 * x) / 2) - 1)"),
    ("2·x", "(2 * x)"),
    ("√2 x", "(sqrt[2] * x)"),
    ("√(x + 1) x", "(sqrt[(x + 1)] * x)"),
    ("π + theta + θ", "((pi + theta) + theta)"),
    ("|x| + 1", "(abs[x] + 1)"),
    ("|x||x - 1|", "(abs[x] * abs[(x - 1)])"),
    ("||x| - 1|", "abs[(abs[x] - 1)]"),
    ("2|x|", "(2 * abs[x])"),
    ("30°", "(30 degrees)"),
    ("sin 30°", "sin[(30 degrees)]"),
    ("2 rad", "(2 radians)"),
    ("0.1 + .5", "(1/10 + 1/2)"),
)

LINES = (
    ("f(x) = x^2 - 3", FunctionLine, "f", "x"),
    ("tide(t) = 2t", FunctionLine, "tide", "t"),
    ("f_1(x) = x", FunctionLine, "f_1", "x"),
    ("y = x^2", FunctionLine, None, "x"),
    ("x^2 - 3", FunctionLine, None, "x"),
    ("a = 2.5", ValueLine, "a", None),
    ("b = 2a", ValueLine, "b", None),
    ("# any text = 3", NoteLine, None, None),
)

DOMAINS = (
    ("0 <= x <= 2pi", "0 ≤ x ≤ 2 π"),
    ("-2 <= x < 3", "− 2 ≤ x < 3"),
    ("3 > x >= -2", "− 2 ≤ x < 3"),
    ("x > 0", "x > 0"),
    ("0 < x", "x > 0"),
    ("x <= 4", "x ≤ 4"),
    ("x != 2", "x ≠ 2"),
    ("x ≠ 2", "x ≠ 2"),
    ("x > 0, x != 2", "x > 0 , x ≠ 2"),
    ("x > 0 and x < 2", "0 < x < 2"),
    ("-inf < x < 5", "x < 5"),
    ("0 < x < ∞", "x > 0"),
)

#: A line, what it is, and the plain text that it is printed as.
KINDS = (
    ("x^2 + y^2 = 36", RelationLine, "x^2 + y^2 = 36"),
    ("ring: x^2 + y^2 = 36", RelationLine, "ring: x^2 + y^2 = 36"),
    ("3x + y > 1", RelationLine, "3*x + y > 1"),
    ("1 < x^2 + y^2 <= 9", RelationLine, "1 < x^2 + y^2 <= 9"),
    ("x = 3", RelationLine, "x = 3"),
    ("y = x + y", RelationLine, "y = x + y"),
    ("b = x + y", RelationLine, "b = x + y"),
    ("area(l, w) = l w for l > 0, w < 2", FunctionLine, "area(l, w) = l*w for l > 0, w < 2"),
    ("r(θ) = 2 for 0 <= θ <= 2π", FunctionLine, "r(theta) = 2 for 0 <= theta <= 2*pi"),
    ("P(t) = (cos t, sin t)", FunctionLine, "P(t) = (cos(t), sin(t))"),
    ("A = (2, 3)", ValueLine, "A = (2, 3)"),
    ("(a, f(a))", ValueLine, "(a, f(a))"),
    ("L = [1, 4, 9]", ValueLine, "L = [1, 4, 9]"),
    ("from 1 to 4 step 1/2", ValueLine, "from 1 to 4 step 1/2"),
    ("M = from -4 to 4 in 100 points", ValueLine, "M = from -4 to 4 in 100 points"),
    ("f(L)^2 + [1, 2](3)", FunctionLine, None),
    (
        "g(x) = x for x < 0; 2x for 0 <= x < 1; 5 otherwise",
        FunctionLine,
        "g(x) = x for x < 0; 2*x for 0 <= x < 1; 5 otherwise",
    ),
    ("f'(x) + f″(2)", FunctionLine, "f'(x) + f''(2)"),
    ("5! + x!^2", FunctionLine, "factorial(5) + factorial(x)^2"),
    ("c = integral(f, 0, 2)", ValueLine, "c = integral(f(x), x, 0, 2)"),
    ("c = sum(k^2, k, 1, 10)", ValueLine, "c = sum(k^2, k, 1, 10)"),
    ("product(k x, k, 1, 3)", FunctionLine, "product(k*x, k, 1, 3)"),
    ("z = 2i + 1", ValueLine, "z = 2*i + 1"),
    ("f(from 1 to 3 step 1)", FunctionLine, "f((from 1 to 3 step 1))"),
    ("-x^2 - (-x)^-2", FunctionLine, "-x^2 - (-x)^-2"),
    ("2(3x)/(4/x)", FunctionLine, "2*(3*x)/(4/x)"),
)

#: A text, and what it is after its one-click repair.
REPAIRS = (
    ("f(x) = (x + 1", "f(x) = (x + 1)"),
    ("sqrt(x for x > 0", "sqrt(x) for x > 0"),
    ("[1, 2", "[1, 2]"),
    ("|x - 1", "|x - 1|"),
    ("x + 1)", "x + 1"),
    ("2 3", "2 * 3"),
    ("2 sinn(x)", "2 sin(x)"),
    ("2х + 1", "2x + 1"),
    ("ｘ^2", "x^2"),
    ("g(x) = f'", "g(x) = f'(x)"),
    ("x + y", "f(x, y) = x + y"),
    ("c: 3", "c = 3"),
    ("x if x > 0", "x for x > 0"),
    ("½x", "(1/2)x"),
)

WRONG = (
    # text, code, message, place
    ("sinn(x)", "language.unknown_name", "`sinn` is unknown. Did you mean `sin`?", "sinn"),
    ("snh(x)", "language.unknown_name", "`snh` is unknown. Did you mean `sinh`?", "snh"),
    ("tdie(x)", "language.unknown_name", "`tdie` is unknown. Did you mean `tide`?", "tdie"),
    (
        "2 + quux",
        "language.unknown_name",
        "`quux` is unknown. Do you mean the product `q u u x`?",
        "quux",
    ),
    ("x2", "language.unknown_name", "`x2` is unknown.", "x2"),
    ("(x + 1", "language.grammar", "A closing bracket is missing.", "("),
    ("x + 1)", "language.grammar", "This closing bracket has no opening bracket before it.", ")"),
    ("|x", "language.grammar", "A closing bar is missing.", "|"),
    (
        "2 3",
        "language.grammar",
        "Two numbers stand side by side. A sign is missing between them.",
        "2 3",
    ),
    ("x $ 2", "language.grammar", "`$` cannot be used here.", "$"),
    ("sin", "language.grammar", "`sin` needs a value after it, as in `sin(2)`.", "sin"),
    ("sin + 1", "language.grammar", "`sin` needs a value after it, as in `sin(2)`.", "sin"),
    ("f(x) = ", "language.grammar", "Write something here first.", ""),
    ("f(x) = inf", "language.grammar", "∞ can only be an end", "inf"),
    (
        "sin(x) = 2",
        "study.name_taken",
        "`sin` already has a meaning. Choose another name.",
        "sin",
    ),
    ("e = 3", "study.name_taken", "`e` already has a meaning. Choose another name.", "e"),
    ("x for y > 0", "study.domain", "The domain must say which values `x` can have.", "y > 0"),
    (
        "x for x > 0, x > 1",
        "study.domain",
        "The domain has two lower ends. Keep only one of them.",
        "x > 1",
    ),
    (
        "x for 0 < x > 3",
        "study.domain",
        "Both signs of a domain must point the same way, as in `0 <= x < 3`.",
        "0 < x > 3",
    ),
    (
        "a = 2 for x > 1",
        "language.grammar",
        "A value has no domain, but a function has, as in `f(x) = x^2 for x > 0`.",
        "2 for x > 1",
    ),
    ("∫ x", "language.grammar", "Instead of ∫, write `integral(x^2, x, 0, 2)`.", "∫"),
    (
        "5%3",
        "language.grammar",
        "% after a number means hundredths. For a remainder, write `mod(7, 3)`.",
        "%3",
    ),
    ("d/dx x^2", "language.grammar", "Write a derivative with ′", "d/dx"),
    ("q'(2)", "language.unknown_name", "`q` is not a function here", "q'"),
    ("integral(q, 0, 1)", "language.unknown_name", "`q` is not a function here", "q"),
    ("f(x) = 1 = 2", "language.grammar", "A function has one value", "1 = 2"),
    (
        "3 = 4",
        "language.grammar",
        "To draw an equation or an inequality, use x or y in it.",
        "3 = 4",
    ),
    ("1 < x > 3", "language.grammar", "Both signs must point the same way", "1 < x > 3"),
    ("sum(k^2, 2, 1, 3)", "language.grammar", "The second part of `sum`", "2"),
    ("sum(k, 1, 3)", "language.argument_count", "`sum` needs an expression", "sum(k, 1, 3)"),
    ("f'(1, 2)", "language.argument_count", "A derivative takes one value", "f'(1, 2)"),
    ("x for x < 0; 2 otherwise; 3 for x > 1", "study.domain", "`otherwise` must be in", None),
    ("h(x, x) = x", "study.name_taken", "Two variables have the same name.", None),
)


def replace_spans(line: Any, like: Any) -> Any:
    """The same line with the places of another, which are no part of its meaning."""
    abscissae = {
        name: getattr(like, name) for name in ("name_span", "domain_start") if hasattr(like, name)
    }
    return dataclasses.replace(line, **abscissae)


class ReadingTest(unittest.TestCase):
    def test_each_text_is_read_as_the_bracketed_tree(self) -> None:
        for text, expected in READINGS:
            with self.subTest(text):
                self.assertEqual(expected, bracketed(read_expression(text, KNOWN)))

    def test_each_kind_of_line_is_recognized(self) -> None:
        for text, kind, name, variable in LINES:
            with self.subTest(text):
                line = read_line(text, Vocabulary(values=frozenset({"a"})))

                self.assertIsInstance(line, kind)
                self.assertEqual(name, getattr(line, "name", None))
                self.assertEqual(variable, getattr(line, "variable", None))

    def test_each_domain_is_read_with_its_ends(self) -> None:
        for text, expected in DOMAINS:
            with self.subTest(text):
                line = read_line(f"f(x) = x for {text}", Vocabulary())
                assert isinstance(line, FunctionLine)
                shown = ET.fromstring(typeset_domain(line.domain, "x"))

                self.assertEqual(expected, " ".join(shown.itertext()).replace("\u2062 ", ""))

    def test_each_kind_of_line_is_read_and_printed(self) -> None:
        for text, kind, printed in KINDS:
            with self.subTest(text):
                line = read_line(text, KNOWN)
                self.assertIsInstance(line, kind)
                if printed is not None:
                    self.assertEqual(printed, plain_line(line))
                    self.assertEqual(line, replace_spans(read_line(printed, KNOWN), line))
                ET.fromstring(typeset_line(line, "f"))
                self.assertTrue(latex_line(line, "f"))

    def test_one_click_repairs_read(self) -> None:
        for text, mended in REPAIRS:
            with self.subTest(text):
                with self.assertRaises(MathError) as caught:
                    read_line(text, KNOWN)
                repair = caught.exception.repair
                assert repair is not None
                start, end = repair.position
                self.assertEqual(mended, text[:start] + repair.text + text[end:])
                self.assertTrue(repair.label)
                read_line(mended, KNOWN)

    def test_a_letter_that_is_hidden_by_the_variable_is_the_variable(self) -> None:
        line = read_line("g(a) = a^2", KNOWN)
        assert isinstance(line, FunctionLine)

        self.assertEqual("(a ^ 2)", bracketed(line.expression))


#: As it is written at school, and the same in full.
SCHOOL = (
    ("sinx/x", "sin(x)/x"), ("sin x/x", "sin(x)/x"), ("ln x/x^2", "ln(x)/x^2"),
    ("sin 2x/a", "sin(2x)/a"), ("sin pi/6", "sin(pi/6)"), ("cos x/2", "cos(x/2)"),
    ("log_2 8", "log(8, 2)"), ("log2(8x)", "log(8x, 2)"), ("log₂(x)", "log(x, 2)"),
    ("log_a(x)", "log(x, a)"), ("log_2(x)^3", "log(x, 2)^3"), ("lg x", "log10(x)"),
    ("x**2", "x^2"), ("2**-x", "2^(-x)"), ("∛x", "cbrt(x)"), ("³√(x + 1)", "cbrt(x + 1)"),
    ("2∛x", "2cbrt(x)"), ("⌊x/2⌋", "floor(x/2)"), ("2⌈x⌉ + 1", "2ceil(x) + 1"),
    ("xy", "x y"), ("2xyx", "2 x y x"),
)  # fmt: skip


class SchoolTest(unittest.TestCase):
    def test_school_notation_is_read_as_it_is_meant(self) -> None:
        names = Vocabulary(values=frozenset("a"), variables=frozenset({"x", "y"}))
        for text, full in SCHOOL:
            with self.subTest(text):
                self.assertEqual(read_expression(full, names), read_expression(text, names))

    def test_the_reading_of_a_division_after_a_function_is_shown(self) -> None:
        for text, hint in (
            ("y = sin x/x", "This is read as sin(x)/x. If you mean the other, write sin(x/x)."),
            ("sin 2x/3", "This is read as sin(2x/3). If you mean the other, write sin(2x)/3."),
            ("lnx/x + 1", "This is read as ln(x)/x. If you mean the other, write ln(x/x)."),
            ("sin x/(x + 1)", "The division is outside: sin(x) is divided."),
            ("sin(x)/x", ""), ("x/sin x", ""), ("sin x + x/2", ""), ("sin x/", ""), ("√x/2", ""),
        ):  # fmt: skip
            with self.subTest(text):
                self.assertEqual(hint, Study().snapshot.query(Results).hint(text))

    def test_equations_of_the_plane_define_no_names(self) -> None:
        for text in ("xy = 1", "sin(x) = y", "sin(x) = sin(y)", "ln(y) = x", "yx = 2x + 1"):
            with self.subTest(text):
                study = Study()
                line = study.define(text)
                self.assertEqual((Kind.RELATION, None), (line.kind, line.name))
                self.assertEqual([], study.scene(WINDOW).to_dict()["sliders"])
        study = Study()
        study.define("f(x) := a x^2")
        study.define("a := 1")
        self.assertEqual(9.0, study.evaluate("f(3)").value)

    def test_other_spellings_get_a_repair_that_reads(self) -> None:
        for text, repaired in (
            ("Sin(x)", "sin(x)"), ("2PI x", "2pi x"), ("Y = 2x + 3", "y = 2x + 3"),
            ("y = 2X + 3", "y = 2x + 3"), ("½x", "(1/2)x"), ("A(2|3)", "A = (2, 3)"),
            ("x^2 if x > 0", "x^2 for x > 0"),
        ):  # fmt: skip
            with self.subTest(text):
                study = Study()
                study.write(1, text)
                repair = study.definitions()[0].problem.repair  # type: ignore[union-attr]
                start, stop = repair.position  # type: ignore[union-attr]
                mended = text[:start] + repair.text + text[stop:]  # type: ignore[union-attr]
                self.assertEqual(repaired, mended)
                study.write(1, mended)
                self.assertIsNone(study.definitions()[0].problem)


class ComplaintTest(unittest.TestCase):
    def test_errors_state_their_position(self) -> None:
        for text, code, message, abscissa in WRONG:
            with self.subTest(text):
                with self.assertRaises(MathError) as caught:
                    read_line(text, KNOWN)
                error = caught.exception

                self.assertEqual(code, error.code)
                self.assertTrue(error.message.startswith(message), error.message)
                if abscissa is not None:
                    self.assertEqual(abscissa, text[slice(*error.position)])

    def test_complaint_examples_produce_their_message(self) -> None:
        for complaint in COMPLAINTS:
            for text in complaint.examples:
                with self.subTest(text):
                    with self.assertRaises(complaint.error) as caught:
                        read_line(text, KNOWN)
                    beginning = complaint.message.split("{", maxsplit=1)[0]
                    self.assertTrue(caught.exception.message.startswith(beginning))

    def test_a_suggestion_can_replace_the_faulty_text(self) -> None:
        text = "2 sinn(x) + 1"
        with self.assertRaises(MathError) as caught:
            read_expression(text, KNOWN)
        start, end = caught.exception.position
        mended = text[:start] + (caught.exception.suggestion or "") + text[end:]

        self.assertEqual("((2 * sin[x]) + 1)", bracketed(read_expression(mended, KNOWN)))

    def test_one_slip_finds_the_name_and_two_do_not(self) -> None:
        names = frozenset({"sin", "cosh", "sqrt", "tide"})
        table = (
            ("si", "sin"),
            ("sni", "sin"),
            ("sine", "sin"),
            ("cosj", "cosh"),
            ("SIN", "sin"),
            ("tides", "tide"),
            ("sq", None),
            ("rope", None),
            ("x", None),
        )
        for run, expected in table:
            with self.subTest(run):
                self.assertEqual(expected, nearest(run, names))


class LimitTest(unittest.TestCase):
    def test_texts_past_the_limits_are_refused_in_words(self) -> None:
        table = (
            ("x" * 2_001, "2,001 characters"),
            ("(" * 101 + "x" + ")" * 101, "100 brackets"),
            ("+".join(["x"] * 400), "150 operations"),
            ("-" * 400 + "x", "150 operations"),
            ("2^" * 400 + "2", "150 operations"),
            ("1e999999", "power of ten"),
            ("1e99999999999", "power of ten"),
        )
        for text, words in table:
            with self.subTest(text[:12]), self.assertRaises(LimitError) as caught:
                read_line(text, KNOWN)
            with self.subTest(text[:12]):
                self.assertIn(words, caught.exception.message)

    def test_texts_at_the_limits_are_read(self) -> None:
        for text in ("(" * 99 + "x" + ")" * 99, "+".join(["x"] * 150), "f(x) = 1e9000 x"):
            with self.subTest(text[:12]):
                read_line(text, KNOWN)


class TypesettingTest(unittest.TestCase):
    def shown(self, text: str) -> str:
        return " ".join(ET.fromstring(typeset(read_expression(text, KNOWN))).itertext())

    def test_formulas_are_set_as_print_does(self) -> None:
        table = (
            ("-x^2", "− x 2"),
            ("(-x)^2", "( − x ) 2"),
            ("a - (b - x)", "a − ( b − x )"),
            ("2(x + 1)", "2 \u2062 ( x + 1 )"),
            ("2 * 3", "2 · 3"),
            ("x * 2", "x · 2"),
            ("sin^2 x", "sin 2 ( x )"),
            ("|x|", "| x |"),
            ("theta", "θ"),
        )
        for text, expected in table:
            with self.subTest(text):
                self.assertEqual(expected, self.shown(text))

    def test_fractions_roots_and_indices_have_their_elements(self) -> None:
        table = (("1/(x + 1)", "mfrac"), ("sqrt(x)", "msqrt"), ("x^2", "msup"), ("1/2x", "mfrac"))
        for text, element in table:
            with self.subTest(text):
                tree = ET.fromstring(typeset(read_expression(text, KNOWN)))
                self.assertTrue(list(tree.iter(element)))
        line = read_line("f_1(x) = x", Vocabulary())
        self.assertIn("<msub>", typeset_line(line, "f_1"))

    def test_no_text_of_a_student_becomes_markup(self) -> None:
        line = read_line("f(x) = x for x < 2", Vocabulary())
        self.assertIn("&lt;", typeset_domain(line.domain, "x"))  # type: ignore[union-attr]


names = st.sampled_from(["x", "a", "b", "pi", "e", "theta"]).map(Name)
figures = st.one_of(
    st.integers(0, 99).map(Fraction),
    st.decimals("0", "9", places=3).map(lambda d: Fraction(str(d))),
).map(Number)


def larger(inner: st.SearchStrategy[Node]) -> st.SearchStrategy[Node]:
    """Trees with one more operation, of every kind there is."""
    functions = st.sampled_from(["sin", "sqrt", "abs", "factorial", "f", "tide"])
    return st.one_of(
        st.builds(Binary, st.sampled_from(list(Operator)), inner, inner),
        st.builds(Negative, inner),
        st.builds(Angle, inner, st.sampled_from(list(AngleUnit))),
        st.builds(Call, functions, st.tuples(inner)),
        st.builds(Call, st.sampled_from(["max", "log"]), st.tuples(inner, inner)),
        st.builds(Pair, inner, inner),
        st.builds(Items, st.lists(inner, min_size=1, max_size=3).map(tuple)),
        st.builds(Range, inner, inner, step=inner),
        st.builds(Range, inner, inner, count=inner),
        st.builds(Derivative, st.sampled_from(["f", "sin"]), st.integers(1, 3), inner),
        st.builds(Over, st.sampled_from(list(Summary)), inner, st.just("k"), inner, inner),
        st.builds(Percent, inner),
        st.builds(Transposed, inner),
        st.builds(Index, inner, subscripts(inner)),
        st.builds(Replaced, inner, subscripts(inner), inner),
        st.builds(Built, inner, counters(inner)),
        st.builds(
            Call, st.just("sd"), st.tuples(inner), options=st.sampled_from(((), ("population",)))
        ),
    )


def subscripts(inner: st.SearchStrategy[Node]) -> st.SearchStrategy[tuple[Any, ...]]:
    """One or two subscripts: an index, a part, or all."""
    ends = st.one_of(
        inner,
        st.just(Last()),
        st.builds(Binary, st.just(Operator.SUBTRACT), st.just(Last()), figures),
    )
    each = st.one_of(st.builds(At, ends), st.builds(Part, ends, ends), st.just(Part()))
    return st.lists(each, min_size=1, max_size=2).map(tuple)


def counters(inner: st.SearchStrategy[Node]) -> st.SearchStrategy[tuple[Counter, ...]]:
    """The counters of a list or of a matrix."""
    return st.one_of(
        st.tuples(st.builds(Counter, st.just("k"), inner, inner)),
        st.tuples(
            st.builds(Counter, st.just("m"), inner, inner),
            st.builds(Counter, st.just("n"), inner, inner),
        ),
    )


class PrintingTest(unittest.TestCase):
    @settings(max_examples=500, deadline=None, derandomize=True)
    @given(st.recursive(st.one_of(names, figures), larger, max_leaves=14))
    def test_plain_text_reads_back_to_the_same_tree(self, tree: Node) -> None:
        text = plain(tree)

        self.assertEqual(tree, read_expression(text, KNOWN), text)
        ET.fromstring(typeset(tree))
        # Every brace of LaTeX has its partner.
        printed = latex(tree).replace("\\{", "").replace("\\}", "")
        self.assertEqual(printed.count("{"), printed.count("}"))
        self.assertEqual(printed.count("\\left"), printed.count("\\right"))

    def test_latex_is_what_a_textbook_prints(self) -> None:
        table = (
            ("x^2/(a + 1)", r"\frac{{x}^{2}}{a + 1}"),
            ("sqrt(x) + root(x, 3)", r"\sqrt{x} + \sqrt[3]{x}"),
            ("sin^2 x", r"{\sin}^{2}\left(x\right)"),
            ("sum(k^2, k, 1, 10)", r"\sum_{k = 1}^{10} {k}^{2}"),
            ("integral(f, 0, 2)", r"\int_{0}^{2} f\left(x\right)\,dx"),
            ("theta + pi", r"\theta  + \pi"),
            ("|x - 1|", r"\left|x-1\right|"),
        )
        for text, expected in table:
            with self.subTest(text):
                self.assertEqual(expected, latex(read_expression(text, KNOWN)))


class AnyTextTest(unittest.TestCase):
    @settings(max_examples=400, deadline=None, derandomize=True)
    @given(
        st.text(
            alphabet="x2y.+-*/^()|,=<>! sincoabfkθ²√°forandtosumptherwise#;:[]′'\"&\\{}∞",
            max_size=40,
        )
    )
    def test_any_text_is_read_or_refused_with_a_position_inside_it(self, text: str) -> None:
        try:
            line = read_line(text, KNOWN)
        except MathError as error:
            start, end = error.position
            self.assertTrue(error.message)
            self.assertTrue(0 <= start <= end <= len(text), (error.message, error.position))
        else:
            ET.fromstring(typeset_line(line, "f") or "<math></math>")
