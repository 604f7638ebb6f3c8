"""Large lists and matrices over HTTP: parts, files, what is said of their digits, and refusals."""

import csv
import io
import json
import re
import unittest
import uuid
from typing import Any

import numpy as np

from axis_path.core import Study
from tests.web.test_views import WINDOW, WebTest

SIDE = 230


class LargeWorkingTest(WebTest):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        assert Study().evaluate("sqrt(8)").exact == "2√2"

    def work(self, *texts: str) -> uuid.UUID:
        study_id = self.make(f"A = random({SIDE}, {SIDE})", f"I = identity({SIDE})")
        for text in texts:
            self.post(study_id, "commands", commands=[{"do": "work", "id": None, "text": text}])
        return study_id

    def lines(self, study_id: uuid.UUID) -> list[Any]:
        lines: list[Any] = self.post(study_id, "working", digits=8)["working"]
        return lines

    def rows_of(self, study_id: uuid.UUID, **query: object) -> list[list[float]]:
        body = {"version": self.version(study_id), "window": WINDOW, **query}
        answer = self.client.post(
            f"/studies/{study_id}/work.csv",
            data=json.dumps(body),
            headers={"Content-Type": "application/json", "X-CSRFToken": self.token},
        )
        self.assertEqual(200, answer.status_code)
        return [list(map(float, row)) for row in csv.reader(io.StringIO(answer.data.decode()))]

    def test_inverses_are_shown_with_what_is_known_of_their_digits(self) -> None:
        study_id = self.work("A^-1", "A A^-1 = I", "det(A)", "rank(A)")
        inverse, identity, determinant, rank = self.lines(study_id)
        self.assertEqual([SIDE, SIDE], inverse["result"]["shape"])
        self.assertRegex(inverse["result"]["note"], r"accurate to within .*10⁻.\.")
        # Floats cannot decide it, and no "false" is claimed.
        self.assertEqual("undefined", identity["result"]["large"])
        self.assertIn("not decided", identity["result"]["reason"])
        self.assertIn("accurate to within", determinant["result"]["note"])
        self.assertEqual(str(SIDE), rank["result"]["large"])

    def test_what_is_too_long_for_a_text_stands_as_a_part_of_a_table(self) -> None:
        study_id = self.work(
            "A", "matrix(i/j, i, 1, 12, j, 1, 12)", "list(k^2 + i k, k, 1, 90)", "[1, 2, 3]",
            "eigenvalues(A)",
        )  # fmt: skip
        drawn, fractions, squares, short, values = (
            line["result"]["corner"] for line in self.lines(study_id)
        )
        rows = self.rows_of(study_id, name="A")
        self.assertEqual((6, 5), (len(drawn), len(drawn[0])))
        for texts, numbers in zip(drawn, rows, strict=False):
            for text, number in zip(texts, numbers, strict=False):
                self.assertAlmostEqual(number, float(text), 7)
        self.assertEqual(["3", "3/2", "1", "3/4", "3/5"], fractions[2])
        self.assertEqual(["9 + 3i"], squares[2])
        self.assertEqual([], short)
        self.assertRegex(values[0][0], r"^−\d\.\d+( [+−] \d\.\d+ i)?$")
        # Another shape of the line is that of its entries too.
        change = {"do": "show_work", "id": 2, "shape": "decimal"}
        self.post(study_id, "commands", commands=[change])
        self.assertEqual("0.75", self.lines(study_id)[1]["result"]["corner"][2][3])

    def test_files_and_parts_hold_the_same_numbers(self) -> None:
        study_id = self.work("A^-1")
        inverse = np.array(self.rows_of(study_id, id=1))
        drawn = np.array(self.rows_of(study_id, name="A"))
        np.testing.assert_allclose(inverse @ drawn, np.eye(SIDE), atol=1e-8)
        part = self.post(study_id, "work_cells", id=1, row=SIDE - 3, column=7)
        self.assertEqual((3, 20), (len(part["cells"]), len(part["cells"][0])))
        self.assertEqual([], part["typed"])
        for r, row in enumerate(part["cells"]):
            for c, text in enumerate(row):
                number = re.sub(r"·10\^", "e", text.replace("−", "-"))
                if "±" not in number:
                    expected = inverse[SIDE - 3 + r, 7 + c]
                    self.assertAlmostEqual(expected, float(number), delta=abs(expected) * 1e-4)

    def test_a_new_draw_changes_every_number(self) -> None:
        study_id = self.work("A[1, 1]")
        before = self.rows_of(study_id, name="A")
        self.post(study_id, "commands", commands=[{"do": "draw_again", "seed": 5}])
        after = self.rows_of(study_id, name="A")
        same = np.mean(np.array(before) == np.array(after))
        self.assertLess(same, 0.01)
        self.post(study_id, "history", do="undo")
        self.assertEqual(before, self.rows_of(study_id, name="A"))

    def test_sketches_of_large_matrices_are_cut(self) -> None:
        study_id = self.work("A", "A[1, all]")
        cells = self.post(study_id, "work_sketch", id=1)
        self.assertTrue(cells["is_cut"])
        self.assertLessEqual(len(cells["cells"]), SIDE)
        bars = self.post(study_id, "work_sketch", id=2)
        self.assertEqual("bars", bars["kind"])

    def test_refusals_are_sentences_and_hurt_no_other_line(self) -> None:
        study_id = self.work(
            "random(1001, 2)", "eigenvectors(identity(80))", "max(list(i k, k, 1, 50000))",
            "(A - A)^-1", "A + [1, 2]", "1 + 1",
        )  # fmt: skip
        *refused, last = self.lines(study_id)
        for line, words in zip(
            refused,
            (
                "1,000 by 1,000",
                "could not be told apart",
                "complex numbers have no order",
                "could not be decided",
                "equal shapes",
            ),
            strict=True,
        ):
            with self.subTest(line["text"]):
                self.assertIn(words, line["problem"]["message"])
        self.assertEqual("2", last["result"]["large"])


if __name__ == "__main__":
    unittest.main()
