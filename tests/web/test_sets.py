"""Sets of equations and what-if tables over HTTP: what they answer, and what they refuse."""

import csv
import io
import json
import uuid
from typing import Any

from tests.web.test_views import WINDOW, WebTest

RAMP = "ramp: W = m g_n; N = W cos a; m = 20 kg; a = 60°"


class SetTest(WebTest):
    def sheet(self, study_id: uuid.UUID, line: int, **given: Any) -> dict[str, Any]:
        return self.post(study_id, "equation_set", id=line, **given)

    def test_a_sheet_holds_the_set_its_solutions_and_their_check(self) -> None:
        study_id = self.make("k = 2", "u^2 + v = 6; v = k u")
        sheet = self.sheet(study_id, 2)
        self.assertEqual(2, len(sheet["equations"]))
        self.assertEqual(r"\begin{cases} {u}^{2} + v = 6 \\ v = k u \end{cases}", sheet["latex"])
        self.assertEqual(["k"], [one["name"] for one in sheet["known"]])
        self.assertEqual([True, 0], [sheet["is_sure"], sheet["chosen"]])
        self.assertEqual([[], []], [one["checks"] for one in sheet["solutions"]])
        checked = self.sheet(study_id, 2, checked=True)["solutions"]
        for solution in checked:
            for check in solution["checks"]:
                self.assertEqual(check["left"], check["right"])
        # It follows a slider that is dragged, without being saved.
        drafts = [{"do": "set", "id": 1, "value": 1}]
        moved = self.sheet(study_id, 2, drafts=drafts)
        self.assertEqual(["−3", "2"], [one["values"][0]["text"] for one in moved["solutions"]])
        self.assertEqual("2", self.sheet(study_id, 2)["known"][0]["text"])

    def test_bounds_and_the_chosen_solution_are_kept(self) -> None:
        study_id = self.make("u^2 = 4; w = 10*u")
        self.post(study_id, "commands", commands=[{"do": "choose_solution", "id": 1, "number": 1}])
        self.assertEqual(1, self.sheet(study_id, 1)["chosen"])
        scene = self.post(study_id, "scene")["scene"]
        values = {one["name"]: one["text"] for one in scene["sets"]["1"]["values"]}
        self.assertEqual({"u": "2", "w": "20"}, values)
        bounds = [{"name": "u", "low": "-5", "high": "0"}]
        self.post(
            study_id, "commands", commands=[{"do": "search_between", "id": 1, "bounds": bounds}]
        )
        sheet = self.sheet(study_id, 1)
        self.assertEqual(1, len(sheet["solutions"]))
        self.assertEqual(("-5", "0"), (sheet["bounds"][0]["low"], sheet["bounds"][0]["high"]))

    def test_what_makes_no_sense_is_refused_in_words(self) -> None:
        study_id = self.make("u^2 = 4;", "f(x) = x")
        for command, words in (
            ({"do": "choose_solution", "id": 1, "number": 7}, "no solution 8"),
            ({"do": "choose_solution", "id": 2, "number": 0}, "no set"),
            ({"do": "search_between", "id": 1, "bounds": [{"name": "u", "low": "3", "high": "1"}]},
             "from a lower to a higher"),
            ({"do": "search_between", "id": 1, "bounds": [{"name": "u", "low": "fog(", "high": "1"}]},
             ""),
            ({"do": "what_if", "name": "zz"}, "not defined"),
            ({"do": "what_if", "name": "u", "columns": ["2 +"]}, ""),
        ):  # fmt: skip
            with self.subTest(command):
                answer = self.refused(study_id, command)
                self.assertIn(words, answer)
        self.assertEqual(2, len(self.sheet(study_id, 1)["solutions"]))

    def refused(self, study_id: uuid.UUID, command: dict[str, Any]) -> str:
        answer = self.post(study_id, "commands", status=400, commands=[command])
        return str(answer["error"]["message"])


class WhatIfTest(WebTest):
    def raw(self, study_id: uuid.UUID, address: str, **more: object) -> str:
        """Return what is no JSON: a file or a picture."""
        body = {"version": self.version(study_id), "window": WINDOW, **more}
        answer = self.client.post(
            f"/studies/{study_id}/{address}",
            data=json.dumps(body),
            headers={"Content-Type": "application/json", "X-CSRFToken": self.token},
        )
        self.assertEqual(200, answer.status_code)
        return str(answer.get_data(as_text=True))

    def what_if(self, study_id: uuid.UUID, **fields: Any) -> dict[str, Any]:
        self.post(study_id, "commands", commands=[{"do": "what_if", **fields}])
        return self.post(study_id, "what_if")

    def test_rows_pages_and_the_file_agree(self) -> None:
        study_id = self.make(RAMP)
        answer = self.what_if(
            study_id, name="m", start="0", stop="299", step="1", columns=["W", "N/W"]
        )
        self.assertEqual((300, 100, "kg"), (answer["count"], len(answer["rows"]), answer["unit"]))
        self.assertEqual(["N", ""], [column["unit"] for column in answer["columns"]])
        self.assertEqual(["", "a division by zero"],
                         [cell["reason"] for cell in answer["rows"][0]["cells"]])  # fmt: skip
        self.assertEqual(["`N/W` has no value for `m` = 0 kg: a division by zero."],
                         answer["missing"])  # fmt: skip
        later = self.post(study_id, "what_if", **{"from": 250})
        self.assertEqual("250", later["rows"][0]["value"])
        self.assertEqual(50, len(later["rows"]))
        text = self.raw(study_id, "what_if.csv")
        rows = list(csv.reader(io.StringIO(text)))
        self.assertEqual(["m in kg", "W in N", "N/W"], rows[0])
        self.assertEqual(301, len(rows))
        self.assertEqual(["250", "2451.6625", "0.5"], rows[251])

    def test_names_and_what_they_replace_are_offered(self) -> None:
        study_id = self.make(RAMP, "mu = 0.3", "F = mu N")
        answer = self.what_if(study_id, name="N", instead="a", columns=["a/1°"],
                              start="0", stop="400", step="100")  # fmt: skip
        names = {one["name"]: one["text"] for one in answer["names"]}
        self.assertEqual({"W", "N", "m", "a", "mu", "F"}, set(names))
        self.assertEqual("μ", names["mu"])
        self.assertEqual(["m", "a"], [one["name"] for one in answer["given"]])
        self.assertEqual("90", answer["rows"][0]["cells"][0]["text"])
        self.assertIn("beyond about 196.13 N", answer["missing"][0])
        removed = self.what_if(study_id, name="")
        self.assertEqual(([], 0), (removed["rows"], removed["count"]))

    def test_curves_come_with_the_scene_or_after_it(self) -> None:
        study_id = self.make("k = 0", "u^3 - u = k;")
        self.what_if(study_id, name="k", start="-1", stop="1", count="9", columns=["u", "k^2"])
        scene = self.post(study_id, "scene")["scene"]
        self.assertEqual(["k^2"], [curve["label"] for curve in scene["what_if"]])
        solved = self.post(study_id, "what_if_curves")["curves"]
        self.assertEqual(["u"], [curve["label"] for curve in solved])
        self.assertEqual(2, len(solved[0]["lines"]))
        svg = self.raw(study_id, "picture", format="svg")
        self.assertIn(">k^2</text>", svg)
        self.assertIn(">u</text>", svg)
        self.what_if(study_id, is_drawn=False)
        self.assertEqual([], self.post(study_id, "scene")["scene"]["what_if"])
