"""The ledger: every question with its sentences, stored with the study, and marks that keep clear."""

import unittest
from decimal import Decimal
from typing import Any

import numpy as np

from axis_path.core import Study, Window
from axis_path.core.contract import read, write_changed
from axis_path.core.draw import place_labels
from axis_path.core.draw.pixels import FLAG_HEIGHT, Flag, flag_width
from axis_path.core.errors import FormatError, LimitError
from axis_path.core.features.data.fits import form_of_fit, line_of_fit
from axis_path.core.features.findings.section import SavedQueries
from axis_path.core.study import QueryKind, SavedQuery, answer

WINDOW = Window((-10, 10), (-6.5, 6.5), 660, 430)
LINES = ("f(x) = x^3 - 3x", "g(x) = 2 sin x", "h(x) = 1/x", "L = [(0, 1), (2, -1)]", "k(t) = t - a")
#: A question, the verdict, and words that some line says of itself or of why it is so.
SAID = (
    (SavedQuery(1, 1), "Proved: exactly 3 zeros", "f(0) = 0"),
    (SavedQuery(1, 1, "1", "2"), "Proved: exactly one zero", "root of a quadratic factor"),
    (SavedQuery(1, 2, "1", "2"), "Proved: no zero", ""),
    (SavedQuery(1, 2, "3", "4"), "Proved: exactly one zero", "The sign changes here"),
    (
        SavedQuery(1, 1, "-2", "2", QueryKind.EXTREMA),
        "Proved: exactly 4 extrema",
        "graph bends up here",
    ),
    (
        SavedQuery(1, 3, "-1", "1", QueryKind.BREAKS),
        "Proved: exactly one break",
        "grows beyond all bounds",
    ),
    (SavedQuery(1, 1, what=QueryKind.CROSSING), "", ""),
    (SavedQuery(1, 3, what=QueryKind.CROSSING), "It does not cross", ""),
    (
        SavedQuery(1, 3, what=QueryKind.ASYMPTOTES),
        "2 asymptotes",
        "far out to the left and to the right",
    ),
    (
        SavedQuery(1, 1, "-3", "3", QueryKind.INTERSECTIONS, 2),
        "Proved: exactly 3 intersections",
        "cross",
    ),
    (SavedQuery(1, 4, what=QueryKind.DATA, text="lines"), "3 findings", ""),
    (SavedQuery(1, what=QueryKind.SOLVE, text="x^2 = 2"), "Proved: exactly two solutions", "are 2"),
    (SavedQuery(1, what=QueryKind.SOLVE, text="x^2 < 2"), "Proved: it holds in 1 interval", ""),
    (SavedQuery(1, what=QueryKind.SOLVE, text="x^2 < -1"), "Proved: it holds nowhere", ""),
    (SavedQuery(1, what=QueryKind.SOLVE, text="x y = 1\nx = y"), "Proved: 2 solutions", "Krawczyk"),
    (
        SavedQuery(1, what=QueryKind.SOLVE, text="x + y = 1\n2x + 2y = 2"),
        "There are infinitely many",
        "",
    ),
)
PROBLEMS = (
    (SavedQuery(1, 99), "gone"),
    (SavedQuery(1, 4), "no function"),
    (SavedQuery(1, 1, what=QueryKind.DATA), "no single value"),
    (SavedQuery(1, 1, "2", "1"), "lower end"),
    (SavedQuery(1, 1, what=QueryKind.POINT, text="1/0"), "no value"),
    (SavedQuery(1, what=QueryKind.SOLVE, text="\n"), "Nothing"),
    (SavedQuery(1, what=QueryKind.SOLVE, text="x^2 + y = 1\nx > y"), "needs one `=`"),
)


#: Extrema that are searched for, and what is claimed of each.
CLAIMED = (
    (("0", "5/2"), [{"where the search ends"}, {"global in this interval"},
                  {"global in this interval", "where the search ends"}]),
    ((None, None), [{"global", "at an end of the domain"}, {"global"}, {"at an end of the domain"}]),
    (("-2", "9"), [{"global", "at an end of the domain"}, {"global"}, {"at an end of the domain"}]),
)  # fmt: skip


class LedgerTest(unittest.TestCase):
    def test_an_extremum_claims_no_more_than_was_searched(self) -> None:
        study = Study()
        study.define("f(x) = (x - 1)^2 for -2 <= x <= 3")
        for (low, high), wanted in CLAIMED:
            found = answer(study.snapshot, SavedQuery(1, 1, low, high, QueryKind.EXTREMA))
            with self.subTest(low=low, high=high):
                self.assertEqual(wanted, [set(row.flags) for row in found.rows])

    def test_solutions_name_their_unit_of_angle(self) -> None:
        study = Study("degrees")
        for text, words in (
            ("sin(x) = 1/2", "Angles are in degrees."),
            ("cos(x)^2 > 1/4", "Angles are in degrees."),
            ("sin(30) = x/7", ""),
        ):
            query = SavedQuery(1, None, "0", "360", QueryKind.SOLVE, text=text)
            with self.subTest(text):
                note = answer(study.snapshot, query).note
                self.assertEqual(words, note[: len("Angles are in degrees.")])

    def study(self) -> Study:
        study = Study()
        for line in LINES:
            study.define(line)
        study.set("a", 1, low=0, high=9)
        return study

    def test_every_question_is_answered_in_words(self) -> None:
        study = self.study()
        for saved, verdict, words in SAID:
            with self.subTest(saved):
                found = answer(study.snapshot, saved)
                said = [sentence for row in found.rows for sentence in row.why]
                self.assertEqual("", found.problem)
                self.assertTrue(found.verdict.startswith(verdict), found.verdict)
                self.assertIn(words, " ".join(said))
                self.assertTrue(found.title)

    def test_queries_without_an_answer_state_the_reason(self) -> None:
        study = self.study()
        for saved, words in PROBLEMS:
            with self.subTest(saved):
                self.assertIn(words, answer(study.snapshot, saved).problem)

    def test_numbers_stand_exact_and_as_decimals(self) -> None:
        study = self.study()
        rows = answer(study.snapshot, SavedQuery(1, what=QueryKind.SOLVE, text="16x = 5")).rows
        self.assertEqual(
            [("5/16", "0.3125", True)], [(r.text, r.decimal, r.is_equal) for r in rows]
        )
        rows = answer(study.snapshot, SavedQuery(1, what=QueryKind.SOLVE, text="3x = 1")).rows
        self.assertEqual([("1/3", False)], [(r.text, r.is_equal) for r in rows])
        point = answer(study.snapshot, SavedQuery(1, 1, what=QueryKind.POINT, text="1/2"))
        self.assertEqual(["-11/8", "-9/4", "3"], [r.text.replace("−", "-") for r in point.rows[:3]])
        self.assertEqual(["tangent", "normal"], [label for label, _ in point.add])

    def test_general_forms_read_as_they_are_written(self) -> None:
        saved = SavedQuery(1, what=QueryKind.SOLVE, text="x + 2y - z = 1\nx - y = 3")
        rows = answer(self.study().snapshot, saved).rows
        self.assertEqual(
            [("x", "7/3 + (1/3)z"), ("y", "−2/3 + (1/3)z"), ("z", "any number")],
            [(row.label, row.text) for row in rows],
        )

    def test_a_variable_of_another_name_stands_on_the_plane_too(self) -> None:
        study = self.study()
        found = answer(
            study.snapshot, SavedQuery(1, what=QueryKind.SOLVE, text="k(t) >= 2", unknown="t")
        )
        self.assertEqual([(3.0, True)], [(s.low, s.low_closed) for s in found.spans])
        self.assertEqual((), found.draw)
        lost = answer(study.snapshot, SavedQuery(1, what=QueryKind.SOLVE, text="q^2 = 4"))
        self.assertTrue(all(np.isnan(row.x) for row in lost.rows))

    def test_queries_are_stored_with_the_study(self) -> None:
        study = self.study()
        saved_queries = [saved for saved, _, _ in SAID[:8]]
        queries = [
            SavedQuery(
                k, a.line, a.low, a.high, a.what, a.other, a.text, a.unknown, "noted", (0, 2)
            )
            for k, a in enumerate(saved_queries)
        ]
        study.keep(SavedQueries(tuple(queries)))
        self.assertEqual(
            tuple(queries), Study.from_dict(study.to_dict()).snapshot.section(SavedQueries).queries
        )
        old = {"id": 3, "line": 1, "low": "0", "high": None}
        self.assertEqual(SavedQuery(3, 1, "0"), read(old, SavedQuery, RuntimeError))
        self.assertEqual({"id": 3, "line": 1, "low": "0"}, write_changed(SavedQuery(3, 1, "0")))
        for wrong in ({}, {"id": 1}, {"id": 1, "line": "1"}, {"id": 1, "line": 1, "what": "wish"},  # type: ignore[var-annotated]
                      {"id": 1, "line": 1, "labels": ["x"]}, [], {"id": True, "line": 1}):  # fmt: skip
            with self.subTest(wrong), self.assertRaises(FormatError):
                read(wrong, SavedQuery, lambda text, path: FormatError(text, path=path))


class LabelTest(unittest.TestCase):
    def test_labels_keep_clear_of_marks_curves_and_one_another(self) -> None:
        window = Window((-10, 10), (-6.5, 6.5), 660, 430)
        draw = np.random.default_rng(3)
        x = np.linspace(-10, 10, 400)
        wave = np.column_stack([(x + 10) * 33, (6.5 - 3 * np.sin(x)) / 13 * 430])
        curve = np.rint(wave * 10).astype(int).ravel().tolist()
        for count in (1, 4, 9):
            abscissae = draw.uniform(0.2, 0.8, count)
            marks = [tuple(wave[int(399 * abscissa)]) for abscissa in abscissae]
            texts = [f"({k}.25, {k}.75)" for k in range(count)]
            found = place_labels(marks, texts, [curve], window)
            boxes = [
                (x / 10, y / 10, flag_width(text))
                for (x, y), text in zip(found, texts, strict=True)
            ]
            for k, (x_mid, y_mid, width) in enumerate(boxes):
                self.assertTrue(width / 2 <= x_mid <= 660 - width / 2 and 9 <= y_mid <= 421)
                for left, top, other in boxes[k + 1 :]:
                    apart = abs(left - x_mid) >= (width + other) / 2 - 1
                    self.assertTrue(apart or abs(top - y_mid) >= FLAG_HEIGHT - 1, (k, boxes))
                crossed = np.sum(
                    (np.abs(wave[:, 0] - x_mid) < width / 2) & (np.abs(wave[:, 1] - y_mid) < 8)
                )
                if count == 1:
                    self.assertEqual(0, crossed)

    def test_labels_leave_flags_free(self) -> None:
        window = Window((-10, 10), (-6.5, 6.5), 660, 430)
        mark, text = (400.0, 200.0), "(2.25, 0.5)"
        ((x, y),) = place_labels([mark], [text], [], window)
        width = flag_width(text)
        flag = Flag(round(x / 10) - 10, round(y / 10) - FLAG_HEIGHT // 2, 20)
        ((x, y),) = place_labels([mark], [text], [], window, [flag])
        apart = abs(x / 10 - flag.x - 10) >= (width + 20) / 2
        self.assertTrue(apart or abs(y / 10 - flag.y - FLAG_HEIGHT / 2) >= FLAG_HEIGHT)

    def test_a_mark_without_a_text_has_no_label(self) -> None:
        window = Window((0, 1), (0, 1), 300, 200)
        self.assertEqual([(500, 700)], place_labels([(50, 70)], [""], [], window))


class DigitsTest(unittest.TestCase):
    def test_findings_show_the_chosen_digits(self) -> None:
        study = Study()
        study.define("f(x) = x^3 - 2")
        study.define("g(x) = cos(x) - x/7")
        saved_queries = (
            {"what": "zeros", "line": 1}, {"what": "zeros", "line": 2},
            {"what": "extrema", "line": 2}, {"what": "intersections", "line": 1, "other": 2},
        )  # fmt: skip
        for saved in saved_queries:
            study.apply({"do": "find", "low": "-4", "high": "4", **saved}, WINDOW)
        exact: Any = {}
        for digits in (20, 2, 3, 7, 10, 14, 15, 17):
            study.apply({"do": "digits", "digits": digits}, WINDOW)
            again = Study.from_dict(study.to_dict())
            for saved in again.snapshot.section(SavedQueries).queries:  # type: ignore[assignment]
                for k, row in enumerate(answer(again.snapshot, saved).rows):  # type: ignore[arg-type]
                    shown = Decimal((row.decimal or row.text).replace("−", "-"))
                    key = (saved.id, k)  # type: ignore[attr-defined]
                    best = exact.setdefault(key, shown)
                    with self.subTest(digits=digits, key=key):
                        half = Decimal(1).scaleb(shown.as_tuple().exponent) / 2  # type: ignore[arg-type]
                        self.assertLessEqual(abs(shown - best), half)
                        self.assertLessEqual(len(shown.as_tuple().digits), digits)
        self.assertGreaterEqual(len(exact), 8)
        for bad in (1, 21):
            with self.assertRaises(LimitError):
                study.apply({"do": "digits", "digits": bad}, WINDOW)


class WordsTest(unittest.TestCase):
    """What an answer says of itself is true."""

    def test_the_heading_shows_excluded_ends(self) -> None:
        study = Study()
        study.set("a", 1)
        study.define("f(x) = x - 1/2 for -a <= x < a^2")
        study.define("g(x) = x for 0 < x <= 3")
        for line, expected in ((2, "−1 ≤ x < 1"), (3, "0 < x ≤ 3")):
            self.assertEqual(
                expected, answer(study.snapshot, SavedQuery(1, line), with_exact=True).where
            )
        typed = answer(study.snapshot, SavedQuery(1, 3, "0.5", "2"), with_exact=True)
        self.assertEqual("0.5 ≤ x ≤ 2", typed.where)

    def test_identities_are_not_called_incomplete(self) -> None:
        for text in ("x = x", "x^2 - x^2 = 0", "sin(x)^2 + cos(x)^2 = 1"):
            saved = SavedQuery(1, what=QueryKind.SOLVE, text=text)
            with self.subTest(text):
                found = answer(Study().snapshot, saved, with_exact=True)
                self.assertIn("true for every x", found.verdict)
                self.assertEqual(("", ()), (found.note, found.rows))
        never = answer(
            Study().snapshot, SavedQuery(1, what=QueryKind.SOLVE, text="x = x + 1"), with_exact=True
        )
        self.assertEqual("Proved: no solution", never.verdict)

    def test_constant_fit_shows_right_digits(self) -> None:
        study = Study()
        study.column("u", ["1", "2", "3"])
        study.column("v", ["2", "3", "5"])
        fit = study.fit("polynomial", x="u", y="v", degree=0)
        self.assertEqual(("3.33333333333333", "c0"), (fit.text, form_of_fit(fit)))
        self.assertEqual("3.33333333333333", line_of_fit(fit))
