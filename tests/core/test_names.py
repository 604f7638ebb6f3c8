"""Names: how they are given, changed, and kept apart; and lists that are made by a rule."""

import math
import unittest
from fractions import Fraction
from typing import Any

import numpy as np

from axis_path.core import Study, Window
from axis_path.core.errors import MathError, NameTakenError
from axis_path.core.features.findings.section import SavedQueries
from axis_path.core.features.working.edits import set_working
from axis_path.core.features.working.section import Working, WorkingLine
from axis_path.core.study import answer
from axis_path.core.study.naming_edits import write_renaming

#: A line, the old name, the new one, and the line then.
RENAMED = (
    ("f(x) = a x", "a", "slope", "f(x) = slope x"),
    ("f(x) = ax", "a", "k", "f(x) = k x"),
    ("f(x) = 2a", "a", "k", "f(x) = 2k"),
    ("f(x) = 2a x", "a", "k_1", "f(x) = 2k_1 x"),
    ("f(x) = xa", "a", "k", "f(x) = x k"),
    ("f(x) = a(x + 1)", "a", "k", "f(x) = k(x + 1)"),
    ("f(x) = x^a + a^x", "a", "k", "f(x) = x^k + k^x"),
    ("f(x) = |a| + a!", "a", "k", "f(x) = |k| + k!"),
    ("f(x) = x for a <= x < 2a", "a", "k", "f(x) = x for k <= x < 2k"),
    ("f(x) = a for x < a; x otherwise", "a", "k", "f(x) = k for x < k; x otherwise"),
    ("f(a) = a^2", "a", "k", "f(a) = a^2"),
    ("c = sum(a^2, a, 1, 3) + a", "a", "k", "c = sum(a^2, a, 1, 3) + k"),
    ("c = [a, 2a, (a)]", "a", "k", "c = [k, 2k, (k)]"),
    ("c = (a, h(a))", "h", "tide", "c = (a, tide(a))"),
    ("c = h'(a) + h''(2)", "h", "tide", "c = tide'(a) + tide''(2)"),
    ("c = integral(h, 0, a)", "h", "tide", "c = integral(tide, 0, a)"),
    ("c = h^2(a)", "h", "tide", "c = tide^2(a)"),
    ("c = h a", "h", "tide", "c = tide a"),
    ("c = from 0 to a step 1/a", "a", "k", "c = from 0 to k step 1/k"),
    ("x^2 + y^2 = a", "a", "radius_1", "x^2 + y^2 = radius_1"),
    ("ring: x + y < a", "a", "k", "ring: x + y < k"),
    ("# a note on a", "a", "k", "# a note on a"),
    ("θ = 3", "θ", "k", "k = 3"),
)

#: What is written, one after the other, and the names that are given.
GIVEN: Any = (
    (("x^2", "y = x", "2x"), ["f", "g", "h"]),
    (("f(x) = 1", "g(x) = 2", "x^2"), ["f", "g", "h"]),
    (("A = (5, 6)", "(1, 2)", "(3, 4)"), ["A", "B", "C"]),
    (("[1, 2]", "from 1 to 3 step 1"), ["L", "M"]),
    (("x^2 + y^2 = 1", "x = 3"), []),
    (("f = 2", "x"), ["f", "g"]),
    (("q(x) = x^2", "q'(x)", "integral(q, 0, x)"), ["q", "f", "g"]),
    (("q'(x)", "q(x) = x^2"), ["f", "q"]),
)

#: A list, its number of elements, and its last one.
LISTS = (
    ("from 0 to 1 step 1/10", 11, 1.0),
    ("from 0 to 1 step 0.3", 4, 0.9),
    ("from 1 to 0 step -1/4", 5, 0.0),
    ("from 0 to 2pi step pi/6", 13, 2 * math.pi),
    ("from 0 to 2pi step 1", 7, 6.0),
    ("from 0 to sqrt(2)^2 step 1/2", 5, 2.0),
    ("from -4 to 4 in 9 points", 9, 4.0),
    ("from 0 to pi in 2 points", 2, math.pi),
    ("[from 3 to 3 step 1]", 1, 3.0),
    ("2(from 1 to 3 step 1)^2", 3, 18.0),
)


class RenamingTest(unittest.TestCase):
    def test_a_name_is_changed_where_it_is_used_and_nowhere_else(self) -> None:
        for text, old, new, expected in RENAMED:
            with self.subTest(text):
                study = Study()
                own = text.split("=")[0].strip()
                for line in ("a = 3", "h(x) = x^2"):
                    if not line.startswith(own):
                        study.define(line)
                study.define(text)
                study.rename(old, new)
                self.assertEqual(expected, study.snapshot.lines[-1].text)
                self.assertTrue(all(made.problem is None for made in study.definitions()))

    def test_a_change_of_name_is_taken_back_by_the_opposite_change(self) -> None:
        study = Study()
        for text in ("a = 2", "f(x) = a x + a^2 - 1/a", "g(x) = f(a x) - f'(a)", "b = g(a)"):
            study.define(text)
        before, value = study.to_dict(), study.evaluate("b").decimal(30)
        for old, new in (("a", "k"), ("f", "rope"), ("g", "q")):
            study.rename(old, new)
        self.assertEqual(value, study.evaluate("b").decimal(30))
        for old, new in (("q", "g"), ("rope", "f"), ("k", "a")):
            study.rename(old, new)
        self.assertEqual(before, study.to_dict())

    def test_questions_and_the_working_follow_a_new_name(self) -> None:
        for way in ("rename", "write"):
            with self.subTest(way):
                study = Study()
                for text in ("f(x) = a x + 1", "a = 2", "c = 7"):
                    study.define(text)
                for k, saved in enumerate(
                    (
                        {"what": "solve", "text": "f(t) = 3a"}, {"what": "zeros", "line": 1, "low": "-a", "high": "c"},
                        {"what": "solve", "text": "s + f(1) = 3\ns - u = a"}, {"what": "point", "line": 1, "text": "2a"},
                        {"what": "solve", "text": "1 < f(x) ≤ c"},
                    )
                ):  # fmt: skip
                    study.apply({"do": "find", **saved}, Window((-10, 10), (-7, 7)))  # type: ignore[dict-item]
                    self.assertEqual(k + 1, len(study.snapshot.section(SavedQueries).queries))
                study.edit(
                    set_working,
                    [WorkingLine(1, "f(a) + 1"), WorkingLine(2, "3 +"), WorkingLine(3, "aa")],
                )
                verdicts = [
                    answer(study.snapshot, saved).verdict
                    for saved in study.snapshot.section(SavedQueries).queries[:5]
                ]
                for old, new, line in (
                    ("f", "slope", "slope(x) = a x + 1"),
                    ("a", "gain", "gain = 2"),
                ):
                    if way == "rename":
                        study.rename(old, new)
                    else:
                        study.snapshot, _ = write_renaming(
                            study.snapshot, 1 if old == "f" else 2, line
                        )
                self.assertEqual(
                    ["slope(t) = 3gain", "", "s + slope(1) = 3\ns - u = gain", "2gain", "1 < slope(x) ≤ c"],
                    [saved.text for saved in sorted(study.snapshot.section(SavedQueries).queries, key=lambda saved: saved.id)[:5]],
                )  # fmt: skip
                self.assertEqual(
                    ("-gain", "c"),
                    next(
                        (a.low, a.high)
                        for a in study.snapshot.section(SavedQueries).queries
                        if a.low
                    ),
                )
                self.assertEqual("slope(gain) + 1", study.snapshot.section(Working).lines[0].text)
                self.assertEqual("3 +", study.snapshot.section(Working).lines[1].text)
                self.assertEqual(
                    verdicts,
                    [
                        answer(study.snapshot, saved).verdict
                        for saved in study.snapshot.section(SavedQueries).queries[:5]
                    ],
                )

    def test_an_unnamed_line_gets_a_head_with_its_name(self) -> None:
        study = Study()
        study.define("x^2 - 3 for x > 0")
        study.define("y = f(x) + 1")
        study.rename("f", "tide")
        self.assertEqual(
            ["tide(x) = x^2 - 3 for x > 0", "y = tide(x) + 1"],
            [line.text for line in study.snapshot.lines],
        )

    def test_invalid_names_are_refused_without_a_change(self) -> None:
        study = Study()
        study.define("f(x) = x")
        study.define("g(x) = f(x)")
        before = study.to_dict()
        for new in ("g", "sin", "pi", "for", "sum", "i", "x", "2f", "f g", "", "inf"):
            with self.subTest(new), self.assertRaises(NameTakenError):
                study.rename("f", new)
            self.assertEqual(before, study.to_dict())
        with self.assertRaises(MathError):
            study.rename("q", "r")


class GivenTest(unittest.TestCase):
    def test_unnamed_lines_are_given_the_next_free_name(self) -> None:
        for texts, expected in GIVEN:
            with self.subTest(texts):
                study = Study()
                for text in texts:
                    study.define(text)
                self.assertEqual(expected, study.names())
                self.assertEqual(expected, Study.from_dict(study.to_dict()).names())


class ListTest(unittest.TestCase):
    def test_evenly_spaced_lists_end_where_they_must(self) -> None:
        study = Study()
        for text, count, last in LISTS:
            with self.subTest(text):
                values = study.evaluate(text).value
                self.assertEqual(count, len(values))
                self.assertAlmostEqual(last, values[-1], places=12)

    def test_elements_are_exact_and_computed_together(self) -> None:
        study = Study()
        study.define("f(x) = x/3")
        study.define("L = from 0 to 1 step 1/7")
        self.assertEqual(
            f"[{', '.join(str(Fraction(k, 21)) for k in range(8))}]", study.evaluate("f(L)").exact
        )
        long = study.evaluate("sin(from 0 to 100 step 1/100)")
        self.assertTrue(np.allclose(np.sin(np.arange(10_001) / 100), long.value))
        self.assertTrue(long.decimal().endswith("… 9,991 more]"))
        points = study.evaluate("(L, L^2)").value
        self.assertEqual((8, 2), points.shape)
        self.assertTrue(np.isnan(study.evaluate("ln(L)").value[0]))
