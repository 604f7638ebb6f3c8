"""Input that once broke a request, or held it for long, is answered with a sentence."""

import io
import json
import time
import zlib
from typing import Any
from unittest import mock

import psycopg.errors
from sqlalchemy.exc import OperationalError

from axis_path.core import Study
from axis_path.picture import PictureError, study_in
from axis_path.store import open_study, session_scope
from axis_path.web.bench import views
from tests.web.test_views import WINDOW, WebTest

#: What took minutes takes far less than this on any machine.
SOON_S = 10.0
DEEP = 100_000


class RefusalTest(WebTest):
    def raw(self, path: str, body: bytes, **headers: str) -> Any:
        return self.client.post(
            path, data=body, headers={"X-CSRFToken": self.token, **headers},
            content_type="application/json",
        )  # fmt: skip

    def test_requests_of_the_wrong_kind_are_refused_in_words(self) -> None:
        study_id = self.make("f(x) = x", "a = 1")
        before = self.version(study_id)
        bounds = {"x_low": "0", "x_high": "1", "y_low": "0", "y_high": "1"}
        for address, more in (
            ("scene", {"version": 2**63}), ("scene", {"version": True}), ("scene", {"version": -1}),
            ("history", {"version": 2**63, "do": "undo"}), ("commands", {"version": True}),
            ("window", {"how": "bounds", "bounds": bounds | {"x_low": "(1, 2)"}}),
            ("window", {"how": "bounds", "bounds": bounds | {"y_high": "i"}}),
            ("window", {"how": "bounds", "bounds": bounds | {"y_high": "[1, 2]"}}),
            ("view", {"window": WINDOW | {"follows": {"x_low": "a\0"}}}),
            ("commands", {"commands": [{"do": "write", "id": None, "text": "# a\0b"}]}),
            ("commands", {"commands": [{"do": "write", "id": None, "text": "x"}], "named": 1}),
            ("read_data", {"text": "1,2", "separator": []}),
            ("read_data", {"text": ",,\n,,"}), ("read_data", {"text": ""}),
            ("picture", {"format": "png", "scale": 1e-300}), ("picture", {"format": "gif"}),
            ("working", {"digits": True}), ("sweeps", {"slider": "a"}),
        ):  # fmt: skip
            with self.subTest(address, more=str(more)[:60]):
                answer = self.post(study_id, address, 400, **more)
                self.assertTrue(answer["error"]["message"].endswith("."), answer)
        self.assertEqual(before, self.version(study_id))
        for body in (b"[1]", b"3", b'{"a": "\\ud800"}', b"[" * DEEP, b"\xff", b""):
            with self.subTest(body[:12]):
                answer = self.raw(f"/studies/{study_id}/commands", body)
                self.assertEqual(400, answer.status_code)

    def test_a_title_is_a_text_of_some_length(self) -> None:
        study_id = self.make("x")
        path = f"/studies/{study_id}/rename"
        for title in (3, ["a"], None, {}, "", " \0 ", "\0", "a" * 201):  # type: ignore[var-annotated]
            with self.subTest(str(title)[:20]):
                body = json.dumps({"title": title}).encode()
                answer = self.raw(path, body, Accept="application/json")
                self.assertEqual(400, answer.status_code)
        body = json.dumps({"title": " Tern\0Quay "}).encode()
        self.assertEqual(
            {"title": "Tern Quay"}, self.raw(path, body, Accept="application/json").json
        )

    def test_a_cell_is_a_number_that_can_be_measured(self) -> None:
        study_id = self.make("x")
        for cell in ("1e400", "1e9000", "1e-9999", "9" * 1000):
            commands = [{"do": "columns", "columns": [{"name": "u", "cells": ["1", cell]}]}]
            with self.subTest(cell[:8]):
                answer = self.post(study_id, "commands", 400, commands=commands)
                self.assertIn("too large", answer["error"]["message"])
        began = time.monotonic()
        read = self.post(study_id, "read_data", text="u\n" + "1e9999\n" * 100_000)
        self.assertEqual(100_000, read["bad_count"])
        self.assertLess(time.monotonic() - began, SOON_S)

    def test_no_text_holds_the_process(self) -> None:
        study_id = self.make("f(x) = x")
        listed = "1," * 100_000 + "("
        began = time.monotonic()
        self.post(study_id, "read_data", text="(" * 20_000 + "\n1")
        self.post(study_id, "table", 413, drafts=[{"do": "table", "listed": listed}])
        for svg in (
            "<svg>" + "<metadata>" * 40_000, "<svg>" + "<metadata></metadata>" * 40_000,
            "<svg>" + "<a>" * DEEP,
            "<!DOCTYPE s [<!ENTITY a 'aaaaaaaaaa'>" + "".join(
                f"<!ENTITY a{k} '&a{k - 1 or ''};&a{k - 1 or ''};'>" for k in range(1, 30)
            ) + "]><svg><metadata>&a29;</metadata></svg>",
        ):  # fmt: skip
            with self.subTest(svg[:30]), self.assertRaises(PictureError):
                study_in(svg.encode())
        self.assertLess(time.monotonic() - began, SOON_S)

    def test_opened_files_are_refused_or_cleaned(self) -> None:
        good = Study()
        good.define("# berth")
        document = good.to_dict()
        line = document["lines"][0]
        for content in (
            b"[" * DEEP, json.dumps(document | {"lines": [line | {"id": 10**30}]}).encode(),
            json.dumps(document | {"lines": [line | {"id": 2**60}]}).encode(), b"\x89PNG\r\n\x1a\n",
            b'{"format": "axis-path-study", "version": 1, "lines": ["\\ud800"]}',
            b"\x89PNG\r\n\x1a\n" + b"\xff\xff\xff\xff" + b"zTXt" + zlib.compress(b"{}"),
        ):  # fmt: skip
            with self.subTest(content[:30]):
                self.assertIn("could not be opened", self.opened(content))
        odd = document | {"title": "Quay\0wall", "lines": [line | {"text": "# a\0b"}]}
        page = self.opened(json.dumps(odd).encode())
        self.assertIn("Quaywall", page)

    def opened(self, content: bytes) -> str:
        answer = self.client.post(
            "/studies/open",
            data={"csrf_token": self.token, "file": (io.BytesIO(content), "study.json")},
            follow_redirects=True,
        )
        self.assertEqual(200, answer.status_code)
        return answer.get_data(as_text=True)

    def test_one_spelling_of_a_file_is_served(self) -> None:
        page = self.client.get("/studies").get_data(as_text=True)
        good = page.partition('rel="stylesheet" href="')[2].partition('"')[0]
        self.assertEqual(
            200, self.client.get(good, headers={"Accept-Encoding": "gzip"}).status_code
        )
        folder = good.rpartition("/vendor")[0]
        for name in ("none/../css/base.css", "css/../css/base.css", "css/none.css", "css"):
            with self.subTest(name):
                answer = self.client.get(f"{folder}/{name}", headers={"Accept-Encoding": "gzip"})
                self.assertEqual(404, answer.status_code)

    def test_a_name_that_is_not_ours_is_refused(self) -> None:
        for host, status in (("127.0.0.1:9", 200), ("localhost", 200), ("harbour.example", 400)):
            with self.subTest(host):
                answer = self.client.get("/studies", headers={"Host": host})
                self.assertEqual(status, answer.status_code)

    def test_a_full_disk_is_reported_and_the_next_change_is_stored(self) -> None:
        study_id = self.make("x")
        full = OperationalError("INSERT", {}, psycopg.errors.DiskFull("no space left on device"))
        commands = [{"do": "write", "id": None, "text": "x^2"}]
        with mock.patch.object(views, "commit_version", side_effect=full):
            answer = self.post(study_id, "commands", 507, commands=commands)
        self.assertEqual("store.full", answer["error"]["code"])
        self.post(study_id, "commands", commands=commands)
        with session_scope(self.engine) as session:
            self.assertEqual(2, len(open_study(session, study_id).document["lines"]))
