"""The addresses of the application, through its front door."""

import json
import logging
import re
import uuid
from typing import Any
from unittest import mock

from flask import Flask

from axis_path.core import Study
from axis_path.core.catalogue import FUNCTIONS
from axis_path.core.catalogue.physics import PHYSICAL_CONSTANTS
from axis_path.core.catalogue.units import UNITS
from axis_path.store import create_study, open_study, session_scope
from axis_path.web import Settings, create_app
from axis_path.web.settings import read_settings
from tests.contract import check_answer
from tests.databases import DatabaseTest

WINDOW = {"x": [-10, 10], "y": [-7, 7], "width": 660, "height": 430}


#: What requests say of the state they are about, if it is not all.
FIELDS = {"view": ("window",), "read_data": (), "read_workbook": ()}


class WebTest(DatabaseTest):
    app: Flask

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        # However busy the machine is, a change comes with its picture.
        cls.enterClassContext(mock.patch("axis_path.bench.state._QUICK_S", 3600.0))
        cls.app = create_app(Settings(cls.url, "a secret for tests"))
        cls.addClassCleanup(cls.app.extensions["axis_path"].engine.dispose)

    def setUp(self) -> None:
        self.client = self.app.test_client()
        page = self.client.get("/studies").get_data(as_text=True)
        self.token = re.search(r'name="csrf-token" content="([^"]+)"', page)[1]  # type: ignore[index]

    def make(self, *lines: str) -> uuid.UUID:
        study = Study()
        for number, line in enumerate(lines, start=1):
            study.write(number, line)
        with session_scope(self.engine) as session:
            return create_study(session, "Tide", study.to_dict())

    def version(self, study_id: uuid.UUID) -> int:
        with session_scope(self.engine) as session:
            return open_study(session, study_id).version

    def post(
        self, study_id: uuid.UUID, address: str, status: int = 200, **more: object
    ) -> dict[str, Any]:
        state = {"version": self.version(study_id), "window": WINDOW}
        body = {key: value for key, value in state.items() if key in FIELDS.get(address, state)}
        body |= more
        answer = self.client.post(
            f"/studies/{study_id}/{address}",
            data=json.dumps(body),
            headers={"Content-Type": "application/json", "X-CSRFToken": self.token},
        )
        self.assertEqual(status, answer.status_code, answer.get_data(as_text=True)[:300])
        found: dict[str, Any] = answer.get_json()
        check_answer(address if status == 200 else "error", found)
        return found


class BenchViewTest(WebTest):
    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        # The process of exact forms loads SymPy when it is first asked; no request waits for that.
        assert Study().evaluate("sqrt(8)").exact == "2√2"

    def test_a_command_is_stored_and_answered_with_its_scene(self) -> None:
        study_id = self.make("f(x) = x^2")
        answer = self.post(
            study_id, "commands", commands=[{"do": "write", "id": None, "text": "g(x) = 2x"}]
        )
        self.assertEqual(["f", "g"], [row["name"] for row in answer["scene"]["rows"]])
        self.assertEqual(("Write g", None), (answer["undo"], answer["redo"]))
        self.assertEqual(self.version(study_id), answer["version"])

    def test_a_draft_stores_nothing(self) -> None:
        study_id = self.make("f(x) = a x", "a = 1")
        before = self.version(study_id)
        answer = self.post(
            study_id, "scene", drafts=[{"do": "set", "id": 2, "value": 3}], reading=2
        )
        self.assertEqual("6", answer["scene"]["rows"][0]["reading"]["text"])
        plain = self.post(study_id, "scene", reading=2)
        self.assertEqual("2", plain["scene"]["rows"][0]["reading"]["text"])
        self.assertEqual(before, self.version(study_id))

    def test_undo_and_redo_go_through_every_change(self) -> None:
        study_id = self.make("x")
        self.post(study_id, "commands", commands=[{"do": "remove", "id": 1}])
        undone = self.post(study_id, "history", do="undo")
        self.assertEqual((1, "Delete f"), (len(undone["scene"]["rows"]), undone["redo"]))
        again = self.post(study_id, "history", do="redo")
        self.assertEqual(0, len(again["scene"]["rows"]))

    def test_a_refused_command_changes_nothing(self) -> None:
        study_id = self.make("a = 1")
        before = self.version(study_id)
        answer = self.post(
            study_id,
            "commands",
            400,
            commands=[{"do": "range", "id": 1, "low": "5", "high": "1", "step": "1"}],
        )
        self.assertEqual("study.slider", answer["error"]["code"])
        self.assertEqual(
            "A slider goes from a lower to a higher number.", answer["error"]["message"]
        )
        self.assertEqual(before, self.version(study_id))

    def test_a_change_from_another_window_is_a_conflict(self) -> None:
        study_id = self.make("x")
        old = self.version(study_id)
        self.post(study_id, "commands", commands=[{"do": "remove", "id": 1}])
        answer = self.post(
            study_id, "commands", 409, version=old, commands=[{"do": "remove", "id": 1}]
        )
        self.assertEqual("store.stale", answer["error"]["code"])

    def test_the_panels_follow_the_drafts(self) -> None:
        study_id = self.make("f(x) = x^2 - a", "a = 4")
        self.post(
            study_id, "commands", commands=[{"do": "find", "line": 1, "low": "0", "high": "9"}]
        )
        drafts = [{"do": "set", "id": 2, "value": "9"}]
        found = self.post(study_id, "findings", drafts=drafts)["findings"][0]
        self.assertEqual(["3"], [item["text"] for item in found["rows"]])
        self.assertEqual(
            ("Proved: exactly one zero", "0 ≤ x ≤ 9"), (found["verdict"], found["where"])
        )
        table = self.post(study_id, "table", drafts=drafts)["table"]
        self.assertEqual("16", table["rows"][0]["cells"][0]["text"])
        self.assertEqual((11, "f"), (table["count"], table["columns"][0]["name"]))

    def test_findings_of_broken_lines_state_the_problem(self) -> None:
        study_id = self.make("f(x) = x - a", "a = 1")
        self.post(
            study_id, "commands", commands=[{"do": "find", "line": 1, "low": "0", "high": "9"}]
        )
        for command in ({"do": "disable", "id": 1, "disabled": True}, {"do": "remove", "id": 2}):
            found = self.post(study_id, "findings", drafts=[command])["findings"][0]
            with self.subTest(command):
                self.assertTrue(found["problem"])
                self.assertEqual([], found["rows"])

    def test_a_long_table_comes_in_parts(self) -> None:
        study_id = self.make("f(x) = x")
        spec = {"do": "table", "start": "0", "stop": "1000", "step": "1"}
        self.post(study_id, "commands", commands=[spec])
        table = self.post(study_id, "table", **{"from": 990})["table"]
        self.assertEqual(
            (1001, 11, "990"), (table["count"], len(table["rows"]), table["rows"][0]["x"])
        )

    def test_the_preview_shows_how_a_text_is_read(self) -> None:
        study_id = self.make("f(x) = x")
        answer = self.post(study_id, "preview", id=None, text="g(x) = f(x)^2 for x > 0")
        self.assertEqual(
            ("function", "g", None), (answer["kind"], answer["name"], answer["problem"])
        )
        self.assertIn("<math>", answer["mathml"])
        wrong = self.post(study_id, "preview", id=1, text="f(x) = (x")
        self.assertEqual([7, 8], wrong["problem"]["position"])

    def test_exact_forms_accompany_their_decimals(self) -> None:
        study_id = self.make(
            "k = sqrt(8)", "A = (1/2, k)", "L = [1, 2]", "f(x) = k x", "s = 3", "b = 1/4"
        )
        found = self.post(study_id, "exact")["exact"]
        self.assertEqual({"1", "2", "3", "6"}, set(found))
        self.assertEqual(("2√2", "2.828427"), (found["1"]["exact"], found["1"]["decimal"]))
        self.assertIn("<msqrt>", found["1"]["mathml"])
        self.assertEqual("(1/2, 2√2)", found["2"]["exact"])
        # A decimal that is the number itself needs nothing beside it.
        self.assertEqual(
            [False, False, True, True], [found[key]["is_plain"] for key in ("1", "2", "3", "6")]
        )
        moved = self.post(
            study_id, "exact", drafts=[{"do": "write", "id": 1, "text": "k = sqrt(2)"}]
        )
        self.assertEqual("√2", moved["exact"]["1"]["exact"])

    def test_working_is_stored_with_any_number_of_digits(self) -> None:
        study_id = self.make("f(x) = x^2")
        for text in ("f(1/7)", "1/(1 + i)", "f(", "1/0", "pi"):
            self.post(study_id, "commands", commands=[{"do": "work", "id": None, "text": text}])
        lines = self.post(study_id, "working", digits=12)["working"]
        self.assertEqual(
            ["1/49", "1/2 - i/2", None, "undefined", "π"],
            [line["result"] and line["result"]["large"] for line in lines],
        )
        self.assertEqual("0.0204081632653", lines[0]["result"]["beside"])
        self.assertEqual("0.5 − 0.5 i", lines[1]["result"]["beside"])
        self.assertEqual("A closing bracket is missing.", lines[2]["problem"]["message"])
        self.assertEqual(
            {"position": [2, 2], "text": ")", "label": "Close the bracket"},
            lines[2]["problem"]["repair"],
        )
        self.assertEqual("a division by zero", lines[3]["result"]["reason"])
        long = self.post(study_id, "working", digits=100)["working"][4]["result"]["beside"]
        self.assertEqual(101, len(long))
        self.post(
            study_id,
            "commands",
            commands=[{"do": "work", "id": 1, "text": "f(2)"}, {"do": "unwork", "id": 3}],
        )
        self.assertEqual(
            ["4", "1/2 - i/2", "undefined", "π"],
            [
                line["result"]["large"]
                for line in self.post(study_id, "working", digits=4)["working"]
            ],
        )
        self.post(study_id, "history", do="undo")
        self.assertEqual(5, len(self.post(study_id, "working", digits=4)["working"]))
        for digits in (0, 1001, "7", None):
            with self.subTest(digits):
                self.post(study_id, "working", 400, digits=digits)

    def test_the_reference_lists_every_function(self) -> None:
        answer = self.client.get("/reference").get_json()
        names = [entry["name"] for entry in answer["entries"]]
        written = {"pi", "e", "sum", "product", "integral", "list", "matrix"}
        units = {unit.symbol for unit in UNITS}
        self.assertEqual(set(FUNCTIONS) | set(PHYSICAL_CONSTANTS) | units | written, set(names))
        keys = [(entry["group"], entry["name"]) for entry in answer["entries"]]
        self.assertEqual(len(keys), len(set(keys)))
        for entry in answer["entries"]:
            with self.subTest(entry["name"]):
                self.assertIn(entry["group"], answer["groups"])
                self.assertIn("<math>", entry["signature"] + entry["typeset"])
                self.assertTrue(entry["meaning"] and entry["insert"].startswith(entry["name"]))

    def test_renaming_and_deleting_report_the_affected_lines(self) -> None:
        study_id = self.make("f(x) = x", "g(x) = f(x) + 1")
        answer = self.post(study_id, "commands", commands=[{"do": "rename", "id": 1, "name": "q"}])
        self.assertEqual("Rename f to q", answer["undo"])
        self.assertEqual(["g"], answer["scene"]["rows"][0]["used_by"])
        self.assertEqual("g(x) = q(x) + 1", answer["scene"]["rows"][1]["text"])
        for name, code in (
            ("sin", "study.name_taken"),
            ("g", "study.name_taken"),
            ("2", "study.name_taken"),
        ):
            with self.subTest(name):
                refused = self.post(
                    study_id, "commands", 400, commands=[{"do": "rename", "id": 1, "name": name}]
                )
                self.assertEqual(code, refused["error"]["code"])
        answer = self.post(study_id, "commands", commands=[{"do": "remove", "id": 1}])
        self.assertEqual("Delete q, which g needed", answer["undo"])

    def test_texts_that_are_no_text_are_refused(self) -> None:
        study_id = self.make("f(x) = x")
        for text, status in (("x\x00", 400), ("x" * 2_001, 413)):
            with self.subTest(text[:3]):
                command = {"do": "write", "id": None, "text": text}
                refused = self.post(study_id, "commands", status, commands=[command])
                self.assertTrue(refused["error"]["message"])

    def test_windows_are_made_from_typed_bounds(self) -> None:
        study_id = self.make("f(x) = x for 0 <= x <= 4")
        bounds = {"x_low": "-pi", "x_high": "2pi", "y_low": "-1", "y_high": "1/2"}
        window = self.post(study_id, "window", how="bounds", bounds=bounds)["window"]
        self.assertAlmostEqual(-3.14159265, window["x"][0], places=7)
        self.assertEqual([-10.0, 10.0], self.post(study_id, "window", how="home")["window"]["x"])
        framed = self.post(study_id, "window", how="frame")["window"]
        self.assertTrue(-1 < framed["x"][0] < 0 and 4 < framed["x"][1] < 5)
        for wrong in (
            {**bounds, "x_low": "7"},
            {**bounds, "y_low": ""},
            {**bounds, "y_low": "1/0"},
        ):
            with self.subTest(wrong):
                error = self.post(study_id, "window", 400, how="bounds", bounds=wrong)["error"]
                self.assertEqual("draw.window", error["code"])

    def test_the_view_is_stored_without_history(self) -> None:
        study_id = self.make("x")
        self.post(study_id, "view", reading=1.5, tab="values", folded=True)
        page = self.client.get(f"/studies/{study_id}").get_data(as_text=True)
        state = json.loads(re.search(r'id="bench-state">(.*?)</script>', page, re.S)[1])  # type: ignore[index]
        self.assertEqual([-10.0, 10.0], state["view"]["window"]["x"])
        self.assertEqual(
            (1.5, "values", True), tuple(state["view"][k] for k in ("reading", "tab", "folded"))
        )
        self.assertIsNone(state["undo"])

    def test_requests_that_make_no_sense_are_refused(self) -> None:
        study_id = self.make("x")
        for address, more in (
            ("scene", {"version": "x"}),
            ("scene", {"window": None}),
            ("scene", {"drafts": 3}),
            ("scene", {"window": {**WINDOW, "width": "wide"}}),
            ("scene", {"drafts": [{}]}),
            ("scene", {"window": {**WINDOW, "x": [1, 0]}}),
            ("scene", {"window": {**WINDOW, "x": [1]}}),
            ("scene", {"beyond": 201}),
            ("scene", {"beyond": -1}),
            ("scene", {"beyond": True}),
            ("scene", {"stretch": 0.9}),
            ("scene", {"stretch": 2.1}),
            ("scene", {"stretch": "large"}),
            ("commands", {"commands": []}),
            ("commands", {}),
            ("history", {"do": "jump"}),
            ("window", {"how": "x"}),
            ("reading", {}),
            ("view", {"window": 3}),
        ):
            with self.subTest(address, **more):
                self.assertIn("error", self.post(study_id, address, 400, **more))
        self.post(study_id, "scene", 409, version=10**9)
        beyond = self.post(study_id, "scene", beyond=200)["scene"]["window"]
        self.assertEqual((200, WINDOW["width"]), (beyond["beyond"], beyond["width"]))


class StudiesViewTest(WebTest):
    def form(self, address: str, **fields: str) -> Any:
        return self.client.post(
            address, data={"csrf_token": self.token, **fields}, follow_redirects=True
        )

    def test_a_study_is_made_renamed_copied_deleted_and_brought_back(self) -> None:
        page = self.form("/studies").get_data(as_text=True)
        study_id = json.loads(re.search(r'id="bench-state">(.*?)</script>', page, re.S)[1])["id"]  # type: ignore[index]
        self.assertIn(
            "Low &amp; high",
            self.form(f"/studies/{study_id}/rename", title=" Low &  high ").get_data(as_text=True),
        )
        self.assertIn(
            "Low &amp; high (copy)",
            self.form(f"/studies/{study_id}/duplicate").get_data(as_text=True),
        )
        deleted = self.form(f"/studies/{study_id}/delete").get_data(as_text=True)
        self.assertIn("was deleted", deleted)
        self.assertEqual(404, self.client.get(f"/studies/{study_id}").status_code)
        self.assertIn("is back", self.form(f"/studies/{study_id}/restore").get_data(as_text=True))
        self.assertEqual(200, self.client.get(f"/studies/{study_id}").status_code)

    def test_titles_that_cannot_be_are_refused_in_words(self) -> None:
        study_id = self.make("x")
        for title, words in (
            ("   ", "A study needs a title."),
            ("x" * 201, "up to 200 characters"),
        ):
            with self.subTest(title[:5]):
                page = self.form(f"/studies/{study_id}/rename", title=title).get_data(as_text=True)
                self.assertIn(words, page)

    def test_no_text_of_a_student_becomes_markup(self) -> None:
        study_id = self.make("# <script>alert(1)</script>", "f(x) = </script><b>")
        title = "<img src=x onerror=alert(1)>"
        listed = self.form(f"/studies/{study_id}/rename", title=title).get_data(as_text=True)
        opened = self.client.get(f"/studies/{study_id}").get_data(as_text=True)
        for page in (listed, opened):
            self.assertNotIn("<script>alert", page)
            self.assertNotIn("</script><b>", page)
            self.assertNotIn("<img src=x", page)


class SecurityTest(WebTest):
    def test_every_answer_carries_the_strict_policy(self) -> None:
        study_id = self.make("x")
        for address in ("/studies", f"/studies/{study_id}", "/nowhere", "/health"):
            with self.subTest(address):
                answer = self.client.get(address)
                policy = answer.headers["Content-Security-Policy"]
                self.assertIn("default-src 'none'", policy)
                self.assertIn("script-src 'self'", policy)
                self.assertNotIn("unsafe", policy)
                self.assertEqual("nosniff", answer.headers["X-Content-Type-Options"])

    def test_no_page_has_inline_scripts_or_styles(self) -> None:
        study_id = self.make("x")
        for address in ("/studies", f"/studies/{study_id}", "/nowhere"):
            page = self.client.get(address).get_data(as_text=True)
            with self.subTest(address):
                self.assertNotRegex(page, r"<script(?![^>]*(src=|application/json))")
                self.assertNotRegex(page, r"<style|\sstyle=|\son[a-z]+=|javascript:")

    def test_changes_without_the_token_are_refused(self) -> None:
        study_id = self.make("x")
        for address in ("/studies", f"/studies/{study_id}/delete", f"/studies/{study_id}/commands"):
            with self.subTest(address):
                answer = self.client.post(address, data=b"{}")
                self.assertEqual(400, answer.status_code)
        self.assertEqual(200, self.client.get(f"/studies/{study_id}").status_code)

    def test_errors_are_html_or_json_as_requested(self) -> None:
        page = self.client.get("/nowhere")
        self.assertEqual(404, page.status_code)
        self.assertIn("There is nothing at this address.", page.get_data(as_text=True))
        self.assertIn("Go to your studies", page.get_data(as_text=True))
        self.assertEqual(
            "This study does not exist. It may have been deleted.",
            self.client.get(
                f"/studies/{uuid.uuid4()}", headers={"Accept": "application/json"}
            ).get_json()["error"]["message"],
        )
        huge = self.client.post(
            "/studies", data=b"x" * (5 * 1024 * 1024), headers={"X-CSRFToken": self.token}
        )
        self.assertEqual(413, huge.status_code)

    def test_our_own_faults_show_a_number_and_no_secrets(self) -> None:
        logging.disable(logging.CRITICAL)
        self.addCleanup(logging.disable, logging.NOTSET)
        with mock.patch(
            "axis_path.web.studies.views.list_studies", side_effect=ValueError("secret")
        ):
            answer = self.client.get("/studies")
        self.assertEqual(500, answer.status_code)
        self.assertNotIn("secret", answer.get_data(as_text=True))
        self.assertRegex(answer.get_data(as_text=True), r"recorded as [0-9a-f]{8}")

    def test_settings_that_are_not_known_are_refused(self) -> None:
        good = {"AXIS_PATH_DATABASE_URL": "x", "AXIS_PATH_SECRET_KEY": "y", "OTHER": "z"}
        self.assertEqual("x", read_settings(good).database_url)
        for wrong in ({}, {**good, "AXIS_PATH_SPEED": "9"}):
            with self.subTest(wrong), self.assertRaises(ValueError):
                read_settings(wrong)

    def test_static_files_are_cached_and_compressed(self) -> None:
        page = self.client.get("/studies").get_data(as_text=True)
        address = re.search(r'href="(/assets/[^"]+base\.css)"', page)[1]  # type: ignore[index]
        answer = self.client.get(address, headers={"Accept-Encoding": "gzip"})
        self.assertEqual("gzip", answer.headers["Content-Encoding"])
        self.assertIn("immutable", answer.headers["Cache-Control"])
        self.assertEqual(404, self.client.get("/assets/x/../../app.py").status_code)
        # A page goes out as it is to a browser on this machine, and compressed through a proxy.
        for headers, encoding in (({}, None), ({"X-Forwarded-For": "192.0.2.7"}, "gzip")):
            page = self.client.get("/studies", headers={"Accept-Encoding": "gzip", **headers})  # type: ignore[assignment]
            self.assertEqual(encoding, page.headers.get("Content-Encoding"))  # type: ignore[attr-defined]
