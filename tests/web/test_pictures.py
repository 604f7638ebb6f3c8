"""Pictures, typed readings and studies from files, through the front door."""

import io
import itertools
import json
import time
from types import SimpleNamespace
from typing import Any
from unittest import mock

from flask import Flask

from axis_path.compute import Limits
from axis_path.core import Study
from axis_path.core.errors import StoppedError
from axis_path.core.kinds.paths import drawing as path_drawing
from axis_path.core.scene import readings
from axis_path.store import create_study, open_study, session_scope
from axis_path.web import Settings, create_app
from tests.databases import DatabaseTest

WINDOW = {"x": [-10, 10], "y": [-7, 7], "width": 300, "height": 200}


class FrontDoorTest(DatabaseTest):
    app: Flask

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        # However busy the machine is, a change comes with its picture.
        cls.enterClassContext(mock.patch("axis_path.bench.state._QUICK_S", 3600.0))
        cls.app = create_app(Settings(cls.url, "a secret for tests"))
        cls.app.config["WTF_CSRF_ENABLED"] = False
        cls.addClassCleanup(cls.app.extensions["axis_path"].engine.dispose)

    def setUp(self) -> None:
        self.client = self.app.test_client()
        study = Study()
        study.define("f(x) = x^2 - 3")
        study.define("P(t) = (cos t, sin t) for 0 <= t <= 2pi")
        self.document = study.to_dict()
        with session_scope(self.engine) as session:
            self.study_id = create_study(session, "Quay", self.document)
            session.flush()
            self.version = open_study(session, self.study_id).version

    def ask(self, part: str, **more: object) -> Any:
        body = {"version": self.version, "window": WINDOW, **more}
        return self.client.post(f"/studies/{self.study_id}/{part}", json=body)


class FileTest(FrontDoorTest):
    def open(self, data: bytes, name: str = "a.svg") -> Any:
        return self.client.post("/studies/open", data={"file": (io.BytesIO(data), name)})

    def test_findings_are_drawn_in_the_picture(self) -> None:
        commands = [
            {"do": "find", "what": "zeros", "line": 1, "low": "-9", "high": "9"},
            {"do": "find", "what": "solve", "text": "x^2 < 4"},
            {"do": "label_finding", "query": 1, "labels": [0]},
        ]
        self.version = self.ask("commands", commands=commands).get_json()["version"]
        plain = self.ask("picture", format="svg").get_data(as_text=True)
        found = self.ask("picture", format="svg", with_findings=True).get_data(as_text=True)
        self.assertNotIn("−1.732", plain)
        # Both zeros are marked, one is labelled, and the interval lies on the axis with its ends.
        self.assertIn(">−1.732</text>", found)
        self.assertEqual(
            2, found.count('stroke-linejoin="round"/>') - plain.count('stroke-linejoin="round"/>')
        )
        self.assertEqual(2, found.count('r="4.5"') - plain.count('r="4.5"'))
        for form in ("png", "pdf"):
            made = self.ask("picture", format=form, with_findings=True).get_data()
            self.assertNotEqual(self.ask("picture", format=form).get_data(), made)

    def test_every_format_comes_with_its_media_type_and_opens_again(self) -> None:
        for form, media in (("svg", "image/svg+xml"), ("png", "image/png"), ("pdf", "application/pdf"),
                            ("study", "application/json")):  # fmt: skip
            with self.subTest(form):
                made = self.ask("picture", format=form, scale=2, white=True)
                self.assertEqual((200, media), (made.status_code, made.mimetype))
                opened = self.open(made.data)
                self.assertEqual(302, opened.status_code)
                page = self.client.get(opened.location).get_data(as_text=True)
                self.assertIn("Quay", page)
                self.assertIn("-7", page)

    def test_wrong_requests_are_refused(self) -> None:
        for more in ({}, {"format": "gif"}, {"format": "png", "scale": 0}, {"format": "png", "scale": "2"},
                     {"format": "png", "scale": 99}):  # fmt: skip
            with self.subTest(more):
                self.assertEqual(400, self.ask("picture", **more).status_code)

    def test_a_file_without_a_study_is_refused(self) -> None:
        damaged = json.dumps(self.document | {"lines": 5}).encode()
        later = json.dumps(self.document | {"version": 99}).encode()
        for data in (b"", b"<svg/>", b"\xff\xfe\x00", damaged, later, b"[1, 2]", b"{}"):
            with self.subTest(data[:20]):
                answer = self.open(data)
                self.assertEqual("/studies", answer.location)
                page = self.client.get("/studies").get_data(as_text=True)
                self.assertIn("The file could not be opened.", page)
        self.assertEqual(302, self.client.post("/studies/open").status_code)

    def test_a_title_or_window_in_a_file_that_cannot_be_is_left_out(self) -> None:
        for more in ({"title": 5}, {"title": " "}, {"window": {"x": [1, 0], "y": [0, 1]}}, {"window": 7},
                     {"window": {"x": [0, 1], "y": [0, 1], "width": 3}}):  # fmt: skip
            with self.subTest(more):
                opened = self.open(json.dumps(self.document | more).encode())
                page = self.client.get(opened.location)
                self.assertEqual(200, page.status_code)
                self.assertIn("Untitled study", page.get_data(as_text=True))

    def test_a_title_is_no_markup(self) -> None:
        opened = self.open(json.dumps(self.document | {"title": "<script>x</script>"}).encode())
        page = self.client.get(opened.location).get_data(as_text=True)
        self.assertNotIn("<script>x", page)

    def test_a_reading_is_typed_or_follows_the_pointer(self) -> None:
        typed = self.ask("window", how="reading", text="pi/2").json["x"]
        self.assertEqual(1.5707963267948966, typed)
        for text in ("", "1/0", "f", "(1, 2)", "2 + i", "[1, 2]"):
            with self.subTest(text):
                self.assertEqual(400, self.ask("window", how="reading", text=text).status_code)
        found = self.ask("reading", reading=typed, is_reading_typed=True).json
        self.assertEqual("1.5708", found["reading"]["text"])
        self.assertEqual("−0.53260", found["values"]["1"]["text"])
        rounded = self.ask("reading", reading=typed).json
        self.assertEqual("1.55", rounded["reading"]["text"])
        near = self.ask("reading", reading=2, pointer_y=0).json["values"]["2"]
        self.assertTrue(near["text"].startswith(("t = 0: (1, 0)", "t = 6.28")), near["text"])
        # A whole scene under the resting pointer keeps what the path reads there.
        rows = self.ask("scene", reading=2, pointer_y=0).json["scene"]["rows"]
        self.assertEqual(near, next(row["reading"] for row in rows if row["id"] == 2))
        # It is read on the curve that was drawn: not sampled again, and not at all if it is hidden.
        with mock.patch.object(
            path_drawing,
            "sample_path",
            wraps=path_drawing.sample_path,  # type: ignore[attr-defined]
        ) as sampled:
            for place in (2, 1.5, 1):
                self.ask("scene", reading=place, pointer_y=0)
            self.assertEqual(0, sampled.call_count)
        hidden = self.ask(
            "scene", reading=2, pointer_y=0, drafts=[{"do": "hide", "id": 2, "hidden": True}]
        )
        self.assertIsNone(hidden.json["scene"]["rows"][1]["reading"])
        # One that takes too long is not known, and the picture stands.
        with mock.patch.object(
            readings, "nearest_on", side_effect=StoppedError("It took too long.")
        ):
            slow = self.ask("scene", reading=2, pointer_y=0).json["scene"]["rows"][1]
        self.assertEqual("not known", slow["reading"]["text"])
        self.assertTrue(slow["curve"]["pieces"])

    def test_style_commands_are_stored_and_undone(self) -> None:
        commands = [{"do": "axes", "axes": {"legend": True, "grid": "none"}}, {"do": "move", "id": 2, "after": None},
                    {"do": "style", "id": 1, "tone": 3}, {"do": "check", "line": 1, "count": "4", "step": ""}]  # fmt: skip
        answer = self.ask("commands", commands=commands).json
        scene = answer["scene"]
        self.assertEqual([2, 1], [row["id"] for row in scene["rows"]])
        self.assertEqual(
            (3, "none", [2, 1]),
            (scene["rows"][1]["tone"], scene["axes"]["grid"], scene["legend"]["rows"]),
        )
        self.assertEqual(8, len(scene["check"]["points"]))
        undone = self.client.post(  # type: ignore[index]
            f"/studies/{self.study_id}/history",
            json={"version": answer["version"], "window": WINDOW, "do": "undo"},
        ).json["scene"]
        self.assertEqual([1, 2], [row["id"] for row in undone["rows"]])
        self.assertIsNone(undone["legend"])
        self.assertIsNone(undone["check"])


class DeadlineTest(FrontDoorTest):
    """What takes too long is said in its own place, whatever page asked; the rest is answered."""

    def impatient(self, part: str, **more: object) -> Any:
        # A clock of its own: threads of the libraries go on by the real one.
        ticks = itertools.count()
        clock = SimpleNamespace(monotonic=lambda: next(ticks) * 3.0)
        with mock.patch("axis_path.compute.answering.time", clock):
            return self.ask(part, **more)

    def test_every_question_is_answered_in_time_with_a_sentence(self) -> None:
        commands = [
            {"do": "find", "line": 1, "low": "-5", "high": "5"},
            {"do": "work", "id": None, "text": "sum(k, k, 1, 99)"},
        ]
        self.version = self.ask("commands", commands=commands).json["version"]
        elsewhere = WINDOW | {"x": [-9, 11]}
        scene = self.impatient("scene", reading=1, window=elsewhere).json["scene"]
        self.assertIn("it was stopped", scene["rows"][0]["why"]["sentence"])
        self.assertEqual("not known", scene["rows"][0]["reading"]["text"])
        working = self.impatient("working", digits=10).json["working"][0]
        self.assertEqual("limit.time", working["problem"]["code"])
        self.assertIn("stopped", self.impatient("findings").json["findings"][0]["problem"])
        self.assertIn("stopped", self.impatient("table").json["table"]["problem"])
        # Nothing of that is stored: the next answer is whole.
        scene = self.ask("scene", reading=1, window=elsewhere).json["scene"]
        self.assertIsNone(scene["rows"][0]["why"])
        self.assertEqual("−2", scene["rows"][0]["reading"]["text"])
        (line,) = self.ask("working", digits=10).json["working"]
        self.assertEqual("4950", line["result"]["large"])

    def test_change_commits_before_a_slow_picture(self) -> None:
        slow = "s(x) = sum(sin(k x)/k, k, 1, 99999)"
        limits = Limits(step_s=0.1, total_s=0.4)
        with mock.patch("axis_path.web.bench.views.COMMITTED", limits):
            began = time.monotonic()
            reply = self.ask("commands", commands=[{"do": "write", "id": None, "text": slow}])
            taken = time.monotonic() - began
        self.assertEqual(200, reply.status_code)
        self.assertIn("it was stopped", reply.json["scene"]["rows"][2]["why"]["sentence"])
        # Without limits the picture takes minutes.
        self.assertLess(taken, 20)
