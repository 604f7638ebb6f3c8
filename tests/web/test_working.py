"""Working over HTTP: its lines, parts of what is large, sketches, reductions, and bad requests."""

import csv
import io
import json
import unittest
import uuid
from typing import Any

import numpy as np

from axis_path.core import Study
from tests.web.test_views import WINDOW, WebTest


class WorkingViewTest(WebTest):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        assert Study().evaluate("sqrt(8)").exact == "2√2"

    def work(self, *texts: str, lines: tuple[str, ...] = ()) -> uuid.UUID:
        study_id = self.make(*lines)
        for text in texts:
            self.post(study_id, "commands", commands=[{"do": "work", "id": None, "text": text}])
        return study_id

    def results(self, study_id: uuid.UUID, digits: int = 10) -> list[Any]:
        lines = self.post(study_id, "working", digits=digits)["working"]
        return [line["result"] for line in lines]

    def test_results_have_their_kind_shape_and_forms(self) -> None:
        study_id = self.work(
            "M^-1", "[1/2, sqrt(8)]", "1 + i", "1/3 < 1/2", "t^2 - 1",
            lines=("M = [[1, 2], [3, 4]]",),
        )  # fmt: skip
        inverse, items, number, truth, expression = self.results(study_id)
        self.assertEqual(("matrix", [2, 2]), (inverse["kind"], inverse["shape"]))
        self.assertIn("<mtable>", inverse["mathml"])
        self.assertEqual(
            ("list", [2], "[1/2, 2√2]"), (items["kind"], items["shape"], items["large"])
        )
        self.assertEqual("[0.5, 2.828427125]", items["beside"])
        self.assertEqual(["rectangular", "polar", "angle"], number["complex_shapes"])
        self.assertEqual(("truth", "true"), (truth["kind"], truth["large"]))
        # An expression with a variable has a sketch in place of a value.
        self.assertIsNone(expression)
        lines = self.post(study_id, "working", digits=10)["working"]
        self.assertEqual(["t"], lines[4]["variables"])

    def test_lines_follow_their_names_and_sliders(self) -> None:
        study_id = self.work("s + 1", "s = 2 a", lines=("a = 3",))
        self.assertEqual("7", self.results(study_id)[0]["large"])
        moved = self.post(
            study_id, "working", digits=10, drafts=[{"do": "write", "id": 1, "text": "a = 5"}]
        )
        self.assertEqual("11", moved["working"][0]["result"]["large"])
        self.post(
            study_id, "commands", commands=[{"do": "show_work", "id": 1, "shape": "scientific"}]
        )
        self.assertEqual("7", self.results(study_id)[0]["large"])
        self.post(study_id, "commands", commands=[{"do": "define_work", "id": 2}])
        answer = self.post(study_id, "commands", commands=[{"do": "clear_work"}])
        self.assertEqual(["a", "s"], [row["name"] for row in answer["scene"]["rows"]])
        self.assertEqual([], self.results(study_id))
        self.post(study_id, "history", do="undo")
        self.assertEqual(["7"], [result["large"] for result in self.results(study_id)])

    def test_long_results_are_cut_and_sent_on_demand(self) -> None:
        study_id = self.work("1000!")
        (result,) = self.results(study_id)
        self.assertEqual((600, 2568), (len(result["large"]), result["length"]))
        whole = self.post(study_id, "work_text", id=1)["text"]
        self.assertEqual(2568, len(whole))
        self.assertTrue(whole.startswith(result["large"]))
        self.post(study_id, "work_text", 400, id=9)

    def test_large_matrices_are_sent_in_parts(self) -> None:
        study_id = self.work("matrix(i/j, i, 1, 35, j, 1, 25)", lines=("L = from 1 to 90 step 1",))
        part = self.post(study_id, "work_cells", id=1, row=30, column=22)
        self.assertEqual(([35, 25], 30, 22), (part["shape"], part["row"], part["column"]))
        self.assertEqual((5, 3), (len(part["cells"]), len(part["cells"][0])))
        self.assertEqual(("1.34783", "31/23"), (part["cells"][0][0], part["exact"][0][0]))
        named = self.post(study_id, "work_cells", name="L", row=80)
        self.assertEqual([[str(k)] for k in range(81, 91)], named["cells"])
        answer = self.file(study_id, id=1)
        rows = [list(map(float, row)) for row in csv.reader(io.StringIO(answer.decode()))]
        expected = np.arange(1, 36)[:, None] / np.arange(1, 26)
        self.assertTrue(np.allclose(expected, rows, rtol=1e-14, atol=0))
        self.assertEqual("1\r\n2\r\n", self.file(study_id, name="L").decode()[:6])
        for wrong in ({"id": 1, "row": 35}, {"name": "L", "row": 90}, {"name": "nobody"}, {}):
            with self.subTest(wrong):
                self.post(study_id, "work_cells", 400, **wrong)

    def test_written_entries_are_changed_and_resized(self) -> None:
        study_id = self.work("L = [1, 2]", "A^2", lines=("A = [[1, 1/3], [0, 2]]", "B = A^-1"))
        part = self.post(study_id, "work_cells", name="A", row=0, column=0)
        self.assertEqual([["1", "1/3"], ["0", "2"]], part["typed"])
        self.assertEqual([], self.post(study_id, "work_cells", name="B")["typed"])

        def change(do: str, status: int = 200, **more: object) -> Any:
            return self.post(study_id, "commands", status, commands=[{"do": do, **more}])

        block = [["5", "sqrt(2)"], ["", "7"]]
        answer = change("enter_cells", id=1, row=1, column=1, cells=block)
        self.assertEqual(
            "A = [[1, 1/3, 0], [0, 5, sqrt(2)], [0, 0, 7]]", answer["scene"]["rows"][0]["text"]
        )
        change("resize_cells", id=1, rows=2, columns=2)
        change("enter_cells", id=1, in_working=True, row=2, column=0, cells=[["9"]])
        lines = self.post(study_id, "working", digits=10)["working"]
        self.assertEqual("L = [1, 2, 9]", lines[0]["text"])
        self.assertEqual("[[1, 2], [0, 25]]", lines[1]["result"]["large"])
        for wrong in (
            {"id": 2, "row": 0, "column": 0, "cells": [["1"]]},
            {"id": 1, "row": 0, "column": 0, "cells": [["1, 2"]]},
            {"id": 1, "row": 0, "column": 1, "cells": [["1"]], "in_working": True},
            {"id": 99, "row": 0, "column": 0, "cells": [["1"]]},
        ):
            with self.subTest(wrong):
                change("enter_cells", 400, **wrong)
        change("enter_cells", 413, id=1, row=60, column=0, cells=[["1"]])
        change("resize_cells", 400, id=1, rows=0, columns=1)

    def test_notes_have_their_formulas(self) -> None:
        study_id = self.work("# the lever `sqrt(2)/2` and `(`", lines=("# see `y = x^2`",))
        (note,) = self.post(study_id, "working", digits=10)["working"]
        self.assertEqual("note", note["kind"])
        self.assertEqual(
            ["the lever ", "sqrt(2)/2", " and ", "("], [part["text"] for part in note["words"]]
        )
        self.assertIn("<msqrt>", note["words"][1]["mathml"])
        self.assertEqual("", note["words"][3]["mathml"])

    def file(self, study_id: uuid.UUID, **more: object) -> bytes:
        body = {"version": self.version(study_id), "window": WINDOW, **more}
        answer = self.client.post(
            f"/studies/{study_id}/work.csv",
            data=json.dumps(body),
            headers={"Content-Type": "application/json", "X-CSRFToken": self.token},
        )
        self.assertEqual((200, "text/csv"), (answer.status_code, answer.mimetype))
        return bytes(answer.data)

    def test_sketches_are_curves_bars_or_cells(self) -> None:
        study_id = self.work("t^2 - 4", "[1, 4, -2]", "[[1, 2], [3, 4]]", "1/u", "7")
        curve = self.post(study_id, "work_sketch", id=1, size=[200, 100])
        self.assertEqual(("curve", 1), (curve["kind"], len(curve["pieces"])))
        across, down = np.array(curve["pieces"][0]).reshape(-1, 2).T / 10
        x = curve["x"][0] + across * (curve["x"][1] - curve["x"][0]) / 200
        y = curve["y"][1] - down * (curve["y"][1] - curve["y"][0]) / 100
        pixel = (curve["y"][1] - curve["y"][0]) / 100
        self.assertLess(np.abs(y - (x**2 - 4)).max(), 2 * pixel)
        self.assertEqual([1, 4, -2], self.post(study_id, "work_sketch", id=2)["bars"])
        self.assertEqual([[1, 2], [3, 4]], self.post(study_id, "work_sketch", id=3)["cells"])
        # No line joins the two sides of a pole.
        self.assertEqual(2, len(self.post(study_id, "work_sketch", id=4)["pieces"]))
        self.post(study_id, "work_sketch", 400, id=5)

    def test_reductions_show_their_steps_and_the_students_own(self) -> None:
        study_id = self.make("A = [[1, 2, 5], [3, -1, 1]]")
        whole = self.post(study_id, "reduction", text="A")
        self.assertEqual(("R2 ← R2 − 3 R1", 2), (whole["steps"][0]["operation"], whole["rank"]))
        self.assertEqual("The rank is 2: so many rows are not 0.", whole["sentence"])
        self.assertEqual([["1", "0", "1"], ["0", "1", "2"]], whole["steps"][-1]["rows"])
        system = self.post(study_id, "reduction", text="x + 2y = 5; 3x - y = 1")
        self.assertEqual((["x", "y"], ["x = 1", "y = 2"]), (system["unknowns"], system["solution"]))
        many = self.post(study_id, "reduction", text="x + y - z = 1; 2x + 2y - 2z = 2")
        self.assertIn("infinitely many", many["sentence"])
        self.assertEqual("x = 1", many["solution"][0][:5])
        none = self.post(study_id, "reduction", text="x + y = 1; x + y = 2")
        self.assertIn("no solution", none["sentence"])
        own = self.post(
            study_id, "reduction", text="A", operations=["R2 <- R2 - 3 R1", "R1 <-> R2"]
        )
        self.assertEqual([True, False], [step["is_nearer"] for step in own["own"]])
        wrong = self.post(study_id, "reduction", text="A", operations=["R1 <- R1 - R9"])
        self.assertEqual(
            "There is no row 9. The rows are numbered 1 to 2.", wrong["own_problem"]["message"]
        )
        for text, status in (
            ("[1, 2]", 400),
            ("7", 400),
            ("x y = 1; x = 2", 400),
            ("random(20, 20)", 413),
        ):
            with self.subTest(text):
                self.post(study_id, "reduction", status, text=text)

    def test_previews_read_a_line_where_it_would_stand(self) -> None:
        study_id = self.work("s = 4", lines=("a = 3",))
        named = self.post(study_id, "preview", text="s a", id=None, is_working=True)
        self.assertIsNone(named["problem"])
        for text, words in (
            ("s = 5", "s"),
            ("(2", "bracket"),
        ):
            with self.subTest(text):
                answer = self.post(study_id, "preview", text=text, id=None, is_working=True)
                self.assertIn(words, answer["problem"]["message"])
        # Rewriting the line itself is no second definition.
        same = self.post(study_id, "preview", text="s = 5", id=1, is_working=True)
        self.assertEqual((None, "s"), (same["problem"], same["name"]))

    def test_complex_values_and_lists_stand_on_the_plane(self) -> None:
        study_id = self.make("z = 3 + 4i", "W = [1, i, -2 - i]")
        scene = self.post(study_id, "scene")["scene"]
        self.assertEqual([None, None], [row["problem"] for row in scene["rows"]])
        self.assertEqual(["Re", "Im"], [scene["axes"][axis]["name"] for axis in ("x", "y")])
        self.post(study_id, "commands", commands=[{"do": "write", "id": None, "text": "f(x) = x"}])
        mixed = self.post(study_id, "scene")["scene"]
        self.assertEqual(["x", "y"], [mixed["axes"][axis]["name"] for axis in ("x", "y")])


if __name__ == "__main__":
    unittest.main()
