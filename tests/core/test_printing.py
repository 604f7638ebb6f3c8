"""What formulas look like, in MathML and in LaTeX, kind by kind."""

import unittest
import xml.etree.ElementTree as ET

from axis_path.core.language import (
    Vocabulary,
    latex_line,
    plain_line,
    read_line,
    typeset_domains,
    typeset_line,
    typeset_signature,
)
from axis_path.core.language.line_types import FunctionLine

KNOWN = Vocabulary(
    functions=frozenset({"f", "tide"}), values=frozenset({"a", "b", "L", "A_1", "phi"})
)

#: A line, its MathML read aloud, the elements that must be in it, and its LaTeX.
PRINTED = (
    ("f(x) = x^2 - 3", "f ( x ) = x 2 − 3", "msup", r"f\left(x\right) = {x}^{2}-3"),
    ("a = 1/2", "a = 1 2", "mfrac", r"a = \frac{1}{2}"),
    ("g(x) = x/(a + 1)", "g ( x ) = x a + 1", "mfrac", r"g\left(x\right) = \frac{x}{a + 1}"),
    ("g(x) = -(x + 1)", "g ( x ) = − ( x + 1 )", "mo", r"g\left(x\right) = -\left(x + 1\right)"),
    ("g(x) = 2(x + 1)", "g ( x ) = 2 \u2062 ( x + 1 )", "mn", None),
    (
        "g(x) = (2x)^2",
        "g ( x ) = ( 2 \u2062 x ) 2",
        "msup",
        r"g\left(x\right) = {\left(2 x\right)}^{2}",
    ),
    ("g(x) = 2^(x + 1)", "g ( x ) = 2 x + 1", "msup", r"g\left(x\right) = {2}^{x + 1}"),
    ("g(x) = sqrt(x + 1)", "g ( x ) = x + 1", "msqrt", r"g\left(x\right) = \sqrt{x + 1}"),
    ("g(x) = root(x, 3)", "g ( x ) = x 3", "mroot", r"g\left(x\right) = \sqrt[3]{x}"),
    ("g(x) = |x - 1|", "g ( x ) = | x − 1 |", "mo", r"g\left(x\right) = \left|x-1\right|"),
    ("g(x) = x!", "g ( x ) = x !", "mo", r"g\left(x\right) = x!"),
    ("g(x) = (x + 1)!", "g ( x ) = ( x + 1 ) !", "mo", r"g\left(x\right) = \left(x + 1\right)!"),
    (
        "g(x) = sin^2 x",
        "g ( x ) = sin 2 ( x )",
        "msup",
        r"g\left(x\right) = {\sin}^{2}\left(x\right)",
    ),
    ("g(x) = asin(x)", "g ( x ) = asin ( x )", "mi", r"g\left(x\right) = \arcsin \left(x\right)"),
    ("g(x) = gamma(x)", "g ( x ) = Γ ( x )", "mi", r"g\left(x\right) = \Gamma \left(x\right)"),
    (
        "g(x) = tide(x)",
        "g ( x ) = tide ( x )",
        "mi",
        r"g\left(x\right) = \operatorname{tide}\left(x\right)",
    ),
    ("b = 2pi", "b = 2 π", "mi", r"b = 2\,\pi"),
    ("b = sin 30°", "b = sin ( 30 ° )", "mo", r"b = \sin \left(30^{\circ}\right)"),
    ("b = 2 rad", "b = 2 rad", "mtext", r"b = 2\,\text{rad}"),
    ("b = 1.5e6", "b = 1.5 · 10 6", "msup", r"b = 1.5 \cdot {10}^{6}"),
    ("phi = 3", "φ = 3", "mi", r"\phi  = 3"),
    ("A_1 = 3", "A 1 = 3", "msub", r"A_{1} = 3"),
    (
        "P(t) = (t, t^2)",
        "P ( t ) = ( t , t 2 )",
        "mo",
        r"P\left(t\right) = \left(t, {t}^{2}\right)",
    ),
    ("M = [1, a]", "M = [ 1 , a ]", "mo", r"M = \left[1, a\right]"),
    ("M = from 0 to 1 step a", "M = from 0 to 1 step a", "mtext", None),
    ("M = from 0 to 1 in 5 points", "M = from 0 to 1 in 5 points", "mtext", None),
    (
        "area(l, w) = l w",
        "area ( l , w ) = l \u2062 w",
        "mi",
        r"\operatorname{area}\left(l, w\right) = l w",
    ),
    ("x^2 + y^2 = 36", "x 2 + y 2 = 36", "msup", r"{x}^{2} + {y}^{2} = 36"),
    ("1 < x <= 9", "1 < x ≤ 9", "mo", r"1 < x \le 9"),
    ("ring: x + y >= 1", "ring : x + y ≥ 1", "mo", r"\operatorname{ring}\colon x + y \ge 1"),
    ("g(x) = f'(x)", "g ( x ) = f ′ ( x )", "mo", r"g\left(x\right) = f'\left(x\right)"),
    ("g(x) = f'''(x)", "g ( x ) = f ′′′ ( x )", "mo", r"g\left(x\right) = f'''\left(x\right)"),
    ("b = sum(k^2, k, 1, 9)", "b = ∑ k = 1 9 k 2", "munderover", r"b = \sum_{k = 1}^{9} {k}^{2}"),
    ("b = product(k, k, 1, 5)", "b = ∏ k = 1 5 k", "munderover", r"b = \prod_{k = 1}^{5} k"),
    ("b = sum(k + 1, k, 1, 9)", "b = ∑ k = 1 9 ( k + 1 )", "munderover", None),
    (
        "b = integral(f, 0, 2)",
        "b = ∫ 0 2 f ( x ) d x",
        "msubsup",
        r"b = \int_{0}^{2} f\left(x\right)\,dx",
    ),
    ("b = 2 + 3i", "b = 2 + 3 \u2062 i", "mi", "b = 2 + 3 i"),
    (
        "g(x) = x for x < 0; 5 otherwise",
        "g ( x ) = { x for x < 0 5 otherwise",
        "mtable",
        r"g\left(x\right) = \begin{cases} x & \text{for}\,x < 0 \\ 5 & \text{otherwise} \end{cases}",
    ),
)

#: A function with its domain, the domain read aloud, and how LaTeX ends.
DOMAINS = (
    ("g(x) = x for -2 <= x < 3", "− 2 ≤ x < 3", r"\quad \text{for } -2 \le x < 3"),
    ("g(x) = x for x > 0, x != 2", "x > 0 , x ≠ 2", r"\quad \text{for } x > 0, x \ne 2"),
    ("g(l, w) = l w for l > 0, 1 < w <= 2", "l > 0 , 1 < w ≤ 2", r"l > 0, 1 < w \le 2"),
    ("g(x) = x", "", ""),
)


class PrintedTest(unittest.TestCase):
    def aloud(self, markup: str) -> str:
        if not markup:
            return ""
        return " ".join(" ".join(ET.fromstring(markup).itertext()).split())

    def test_every_kind_of_formula_is_set_as_in_a_textbook(self) -> None:
        for text, aloud, element, printed in PRINTED:
            with self.subTest(text):
                line = read_line(text, KNOWN)
                name = getattr(line, "name", None)
                markup = typeset_line(line, name)
                self.assertEqual(aloud, self.aloud(markup))
                self.assertTrue(list(ET.fromstring(markup).iter(element)))
                if printed is not None:
                    self.assertEqual(printed, latex_line(line, name))

    def test_plain_text_is_stable(self) -> None:
        """What is printed once is printed the same when it is read again."""
        for text, *_ in (*PRINTED, *DOMAINS):
            with self.subTest(text):
                printed = plain_line(read_line(text, KNOWN))
                self.assertEqual(printed, plain_line(read_line(printed, KNOWN)))

    def test_domains_are_set_for_every_variable(self) -> None:
        for text, aloud, printed in DOMAINS:
            with self.subTest(text):
                line = read_line(text, KNOWN)
                assert isinstance(line, FunctionLine)
                self.assertEqual(aloud, self.aloud(typeset_domains(line)))
                self.assertTrue(latex_line(line, line.name).endswith(printed))

    def test_signatures_of_the_reference(self) -> None:
        self.assertEqual("atan2 ( y , x )", self.aloud(typeset_signature("atan2", ("y", "x"))))
        self.assertEqual("π", self.aloud(typeset_signature("pi", ())))
