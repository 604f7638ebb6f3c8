"""The Findings panel over HTTP: every question asked, answered live, labelled, noted, refused."""

import uuid
from typing import Any
from unittest import mock

from axis_path.core.limits import Limit
from tests.web.test_views import WebTest

ASKED: Any = (
    ({"what": "zeros", "line": 1}, ["−√3", "0", "√3"], "Proved: exactly 3 zeros"),
    ({"what": "extrema", "line": 1}, ["−1", "1"], "Proved: exactly two extrema"),
    ({"what": "inflections", "line": 1}, ["0"], "Proved: exactly one point of inflection"),
    ({"what": "breaks", "line": 2}, ["1"], "Proved: exactly one break"),
    ({"what": "asymptotes", "line": 2}, ["x = 1", "y = x + 1"], "2 asymptotes"),
    ({"what": "intersections", "line": 1, "other": 3}, ["0"], "Proved: exactly 3 intersections"),
    ({"what": "intersections", "line": 1, "other": 4}, ["√2"], "Proved: exactly 6 intersections"),
    ({"what": "point", "line": 1, "text": "2"}, ["2", "9", "12"], ""),
    ({"what": "interval", "line": 1, "low": "0", "high": "1"}, ["−5/4"], ""),
    ({"what": "data", "line": 5, "text": "lines"}, ["0.5"], "3 findings"),
    ({"what": "solve", "text": "x^2 <= 2"}, ["−√2 ≤ x ≤ √2"], "Proved: it holds in 1 interval"),
    ({"what": "solve", "text": "2x = 3"}, ["3/2"], "Proved: exactly one solution"),
    ({"what": "solve", "text": "2x + 3y = 5\nx - y = 1"}, ["8/5", "3/5"], "There is exactly one"),
    ({"what": "solve", "text": "x + y = 1\nx + y = 2"}, [], "There is no solution"),
)
REFUSED = (
    ({"what": "solve", "text": ""}, "Write an equation"),
    ({"what": "solve", "text": "x + 2"}, "no equation"),
    ({"what": "solve", "text": "a x = b"}, "letters without a value"),
    ({"what": "solve", "text": "x = 1", "unknown": "z"}, "does not occur"),
    ({"what": "intersections", "line": 1, "other": 1}, "two different"),
    ({"what": "data", "line": 1}, "no single value"),
    ({"what": "zeros", "line": 1, "low": "3", "high": "2"}, "lower end"),
    ({"what": "wishes", "line": 1}, "cannot be"),
    ({"what": "zeros"}, "Choose a curve"),
)


class FindingsTest(WebTest):
    def study(self) -> uuid.UUID:
        return self.make(
            "f(x) = x^3 - 3x", "h(x) = (x^2 + 1)/(x - 1)", "g(x) = 2 sin x", "c: x^2 + y^2 = 4",
            "L = [(0, -1), (1, 1), (2, 3)]",
        )  # fmt: skip

    def ask(self, study_id: uuid.UUID, status: int = 200, **fields: object) -> dict[str, Any]:
        return self.post(study_id, "commands", status, commands=[{"do": "find", **fields}])

    def test_every_query_is_stored_and_answered(self) -> None:
        study_id = self.study()
        for fields, expected, verdict in ASKED:
            with self.subTest(fields):
                self.ask(study_id, **fields)
                found = self.post(study_id, "findings")["findings"][0]
                self.assertEqual("", found["problem"])
                texts = [row["text"] for row in found["rows"]]
                self.assertLessEqual(set(expected), set(texts))
                self.assertTrue(found["verdict"].startswith(verdict), found["verdict"])
        self.assertEqual(len(ASKED), len(self.post(study_id, "findings")["findings"]))

    def test_values_indistinguishable_from_zero_are_copied_as_shown(self) -> None:
        study_id = self.make("f(x) = cbrt(x) for x < 0; x^(1/3) for x >= 0")
        self.ask(study_id, what="interval", line=1, low="-2", high="2")
        row = self.post(study_id, "findings")["findings"][0]["rows"][0]
        self.assertRegex(row["text"], r"^0 ± 10\^−\d\d$")
        self.assertRegex(row["latex"], r"^0 \\pm \{10\}\^\{-\d\d\}$")

    def test_impossible_queries_are_refused_with_a_sentence(self) -> None:
        study_id = self.study()
        for fields, words in REFUSED:
            with self.subTest(fields):
                self.assertIn(words, self.ask(study_id, 400, **fields)["error"]["message"])

    def test_answers_follow_the_sliders_and_stand_on_the_plane(self) -> None:
        study_id = self.make("f(x) = x^2 - a", "a = 4")
        self.ask(study_id, what="zeros", line=1, low="-5", high="5")
        self.ask(study_id, what="solve", text="f(x) < 0")
        commands = [{"do": "label_finding", "query": 1, "labels": [1]}]
        self.post(study_id, "commands", commands=commands)
        answer = self.post(study_id, "findings", drafts=[{"do": "set", "id": 2, "value": "9"}])
        self.assertEqual(["−3 < x < 3"], [row["text"] for row in answer["findings"][0]["rows"]])
        marks = answer["marks"]
        self.assertEqual([-3, 3], [mark["value"] for mark in marks])
        self.assertEqual(["", "3"], [mark["text"] for mark in marks])
        self.assertNotEqual([marks[1]["x"], marks[1]["y"]], marks[1]["at"])
        (span,) = answer["spans"]
        self.assertEqual((marks[0]["x"], marks[1]["x"]), (span["low"], span["high"]))
        self.assertEqual(("open", "open"), (span["low_end"], span["high_end"]))
        gone = self.post(study_id, "findings", drafts=[{"do": "set", "id": 2, "value": "-1"}])
        self.assertEqual("Proved: no zero", gone["findings"][1]["verdict"])
        self.post(study_id, "commands", commands=[{"do": "label_finding", "query": None}])
        self.assertEqual([], self.post(study_id, "findings")["findings"][1]["labels"])

    def test_a_drag_updates_findings_that_are_fast_enough(self) -> None:
        study_id = self.make("f(x) = x^2 - a", "a = 4", "g(x) = sin(50x) + a/9")
        self.ask(study_id, what="zeros", line=1, low="-5", high="5")
        self.ask(study_id, what="zeros", line=3, low="-10", high="10")
        drafts = [{"do": "set", "id": 2, "value": "7.29"}]
        slow, quick = self.post(study_id, "findings", drafts=drafts)["findings"]
        self.assertEqual(["−2.7", "2.7"], [row["decimal"] for row in quick["rows"]])
        limit = "axis_path.bench.findings.FOLLOWING_TIME"

        def follow(milliseconds: float, found: str = "ledger") -> dict[str, Any]:
            with mock.patch(limit, Limit(milliseconds, "ms", "")):  # type: ignore[arg-type]
                return self.post(study_id, "scene", drafts=drafts, findings=found)["findings"]  # type: ignore[no-any-return]

        whole = follow(5_000)
        self.assertEqual([slow, quick], whole["findings"])
        self.assertEqual(([], []), (whole["late"], follow(5_000, "marks")["findings"]))
        # The slow one took some 50 ms before: it is not even begun.
        part = follow(20)
        self.assertIn(slow["id"], part["late"])
        self.assertTrue(
            {mark["query"] for mark in part["marks"]} <= {quick["id"]} - {*part["late"]}
        )
        nothing = follow(0)
        self.assertEqual({1, 2}, {*nothing["late"]})
        self.assertEqual(([], []), (nothing["findings"], nothing["marks"]))
        self.assertNotIn("findings", self.post(study_id, "scene", drafts=drafts))
        expected = follow(5_000, "marks")["marks"]
        with mock.patch(limit, Limit(5_000, "ms", "")):
            committed = self.post(study_id, "commands", commands=drafts, findings="marks")[
                "findings"
            ]
        self.assertEqual(([], expected), (committed["findings"], committed["marks"]))
        self.assertNotIn("findings", self.post(study_id, "history", do="undo"))

    def test_notes_are_stored_and_deleting_a_line_deletes_its_queries(self) -> None:
        study_id = self.study()
        self.ask(study_id, what="intersections", line=1, other=3)
        self.ask(study_id, what="solve", text="2x = 3")
        commands = [{"do": "note_finding", "query": 2, "note": "for the report"}]
        self.post(study_id, "commands", commands=commands)
        self.post(study_id, "commands", commands=[{"do": "remove", "id": 3}])
        (left,) = self.post(study_id, "findings")["findings"]
        self.assertEqual(("solve", "for the report"), (left["what"], left["remark"]))

    def test_long_answers_are_cut_but_copied_whole(self) -> None:
        study_id = self.make("f(x) = sin(100x)")
        self.ask(study_id, what="zeros", line=1, low="0", high="9")
        (part,) = self.post(study_id, "findings")["findings"]
        self.assertEqual((287, 120), (part["total"], len(part["rows"])))
        (whole,) = self.post(study_id, "findings", whole=part["id"])["findings"]
        self.assertEqual(287, len(whole["rows"]))
