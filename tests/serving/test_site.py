"""A whole site: studies that end processes, processes that are killed, a database that hangs."""

from __future__ import annotations

import json
import os
import signal
import socket
import threading
import time
import uuid
from pathlib import Path
from typing import Any

from sqlalchemy.engine import make_url

from axis_path.core import Study
from axis_path.store import create_study, open_study, session_scope
from tests.databases import DatabaseTest
from tests.proxy import Proxy
from tests.site import RunningSite
from tests.visitor import TIMEOUT_S, Visitor

WINDOW = {"x": [-10, 10], "y": [-7, 7], "width": 300, "height": 200}


class SiteTest(DatabaseTest):
    """One site for all tests of a class."""

    module = "tests.poisoned_site"
    site: RunningSite

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.site = RunningSite(cls.database(), module=cls.module)
        cls.addClassCleanup(cls.site.stop)

    @classmethod
    def database(cls) -> str:
        return cls.url

    def setUp(self) -> None:
        self.visitor = Visitor(self.site.base)

    def make(self, *lines: str) -> tuple[uuid.UUID, int]:
        study = Study()
        for number, line in enumerate(lines, start=1):
            study.write(number, line)
        with session_scope(self.engine) as session:
            study_id = create_study(session, "Tide", study.to_dict())
            return study_id, open_study(session, study_id).version

    def scene(self, study_id: uuid.UUID, version: int, **more: Any) -> tuple[int, dict[str, Any]]:
        return self.visitor.post(
            f"/studies/{study_id}/scene", version=version, window=WINDOW, **more
        )

    def eventually(self, holds: Any, what: str) -> None:
        until = time.monotonic() + TIMEOUT_S
        while time.monotonic() < until:
            if holds():
                return
            time.sleep(0.05)
        self.fail(what)

    def named(self, name: str) -> list[int]:
        """Return the processes with a name."""
        found = self.site.processes()
        return [pid for pid in sorted(found) if Path(f"/proc/{pid}/comm").read_text()[:-1] == name]


class PoisonedTest(SiteTest):
    def test_a_stored_line_that_crashes_its_process_is_disabled(self) -> None:
        for fault in ("abort", "hang"):
            with self.subTest(fault):
                study_id, version = self.make("f(x) = x", f"# {fault}", "g(x) = 2x")
                # The worker of the queue is forked last; a site answers before that.
                self.eventually(lambda: self.named("axis-path-jobs"), "all processes are there")
                processes = self.lasting()
                status, answer = self.scene(study_id, version)
                self.assertEqual((409, "study.halted"), (status, answer["error"]["code"]))
                with session_scope(self.engine) as session:
                    present = open_study(session, study_id)
                self.assertEqual(
                    [None, True, None], [line.get("halted") for line in present.document["lines"]]
                )
                self.assertIn("Turn off", present.undo or "")
                rows = self.scene(study_id, present.version)[1]["scene"]["rows"]
                self.assertEqual("study.halted", rows[1]["problem"]["code"])
                self.assertEqual([None, None], [rows[0]["problem"], rows[2]["problem"]])
                self.assertEqual(processes, self.lasting())

    def lasting(self) -> set[int]:
        """Return the processes that do not compute: they outlive whatever is computed."""
        found = self.site.processes()
        return {
            pid for pid in found if Path(f"/proc/{pid}/comm").read_text()[:-1] != "axis-path-calc"
        }

    def test_crashing_change_commits_and_turns_off_its_line(self) -> None:
        study_id, version = self.make("f(x) = x")
        status, answer = self.visitor.post(
            f"/studies/{study_id}/commands", version=version, window=WINDOW,
            commands=[{"do": "write", "id": None, "text": "# abort"}],
        )  # fmt: skip
        self.assertEqual(200, status)
        rows = self.scene(study_id, answer["version"])[1]["scene"]["rows"]
        self.assertEqual("study.halted", rows[1]["problem"]["code"])
        # Changed, it gets another chance.
        status, answer = self.visitor.post(
            f"/studies/{study_id}/commands", version=answer["version"], window=WINDOW,
            commands=[{"do": "write", "id": 2, "text": "# a note"}],
        )  # fmt: skip
        rows = self.scene(study_id, answer["version"])[1]["scene"]["rows"]
        self.assertEqual((None, False), (rows[1]["problem"], rows[1]["disabled"]))

    def test_crashing_draft_is_refused_longer_each_time(self) -> None:
        study_id, version = self.make("f(x) = x")
        drafts = [{"do": "write", "id": None, "text": "# abort"}]
        pauses = []
        for _ in range(2):
            status, answer = self.scene(study_id, version, drafts=drafts)
            self.assertEqual((503, "compute.died"), (status, answer["error"]["code"]))
            pauses.append(answer["error"]["retry_after_s"])
            # Within the pause no process dies for it.
            began = time.monotonic()
            again = self.scene(study_id, version, drafts=drafts)[1]["error"]
            self.assertLessEqual(again["retry_after_s"], pauses[-1])
            time.sleep(max(pauses[-1] - (time.monotonic() - began), 0) + 0.1)
        self.assertEqual([1.0, 2.0], pauses)
        self.assertEqual(200, self.scene(study_id, version)[0])

    def test_others_are_answered_while_a_poisoned_page_is_open(self) -> None:
        poisoned, version = self.make("f(x) = x")
        drafts = [{"do": "write", "id": None, "text": "# hang"}]
        bad = Visitor(self.site.base)
        asking = threading.Thread(
            target=bad.post, args=(f"/studies/{poisoned}/scene",),
            kwargs={"version": version, "window": WINDOW, "drafts": drafts},
        )  # fmt: skip
        asking.start()
        good, version = self.make("f(x) = x^2")
        answered = 0
        while asking.is_alive():
            self.assertEqual(200, self.scene(good, version)[0])
            answered += 1
        asking.join()
        # The other one hangs for ten seconds.
        self.assertGreater(answered, 20)


class SuperviseTest(SiteTest):
    module = "axis_path.serving"

    def setUp(self) -> None:
        super().setUp()
        self.eventually(lambda: len(self.site.processes()) >= 5, "everything has been started")

    def test_killed_processes_are_restarted(self) -> None:
        study_id, version = self.make("f(x) = x^2 - 2")
        for name, place in (("axis-path-web", 1), ("axis-path-web", 0), ("axis-path-jobs", 0)):
            self.eventually(lambda name=name, k=place: len(self.named(name)) > k, "it is there")
            pid = self.named(name)[place]
            with self.subTest(name, place=place):
                os.kill(pid, signal.SIGKILL)
                self.eventually(lambda pid=pid: pid not in self.site.processes(), "it is dead")
                self.assertEqual(200, self.scene(study_id, version)[0])
        self.eventually(lambda: len(self.site.processes()) >= 5, "all of them are there again")

    def test_a_killed_worker_loses_only_its_answer(self) -> None:
        study_id, version = self.make("f(x) = x^2 - 2")
        for _ in range(3):
            self.eventually(lambda: self.named("axis-path-calc"), "there are workers")
            for pid in self.named("axis-path-calc"):
                os.kill(pid, signal.SIGKILL)
            self.eventually(lambda: self.scene(study_id, version)[0] == 200, "it is answered")

    def test_a_foreign_name_is_refused(self) -> None:
        with self.assertRaises(TypeError):
            Visitor(self.site.base, "harbour.example")
        for host in ("127.0.0.1", "localhost"):
            self.assertEqual(200, Visitor(self.site.base, host).get("/studies")[0])

    def test_a_page_that_sends_far_ahead_is_cut_off(self) -> None:
        study_id, version = self.make("s(x) = sum(sin(k x)/k, k, 1, 99999)")
        socket = Socket(self.site.base, f"/studies/{study_id}/socket")
        # Spaces after a request mean nothing, and fill the buffers all the same.
        question = json.dumps({"part": "scene", "version": version, "window": WINDOW})
        question += " " * 500_000
        with self.assertRaises(OSError):
            for _ in range(200):
                socket.send(question)
        socket.close()


class HangingDatabaseTest(SiteTest):
    module = "axis_path.serving"
    proxy: Proxy

    @classmethod
    def database(cls) -> str:
        url = make_url(cls.url)
        cls.proxy = Proxy(url.port or 5432)
        cls.addClassCleanup(cls.proxy.close)
        return url.set(port=cls.proxy.port).render_as_string(hide_password=False)

    def test_pages_report_a_lost_server_and_resume(self) -> None:
        study_id, version = self.make("f(x) = x")
        self.assertEqual(200, self.visitor.get("/ready")[0])
        self.proxy.hang()
        try:
            self.assertEqual(200, self.visitor.get("/health")[0])
            self.assertEqual(503, self.visitor.get("/ready")[0])
            status, page = self.visitor.get("/studies")
            self.assertEqual(503, status)
            self.assertIn("The database does not answer", page)
            status, answer = self.scene(study_id, version)
            self.assertEqual((503, "store.unavailable"), (status, answer["error"]["code"]))
        finally:
            self.proxy.go_on()
        self.eventually(lambda: self.visitor.get("/ready")[0] == 200, "it answers again")
        self.assertEqual(200, self.scene(study_id, version)[0])


class Socket:
    """The raw end of a socket that sends and never reads."""

    def __init__(self, base: str, path: str) -> None:
        host, _, port = base.removeprefix("http://").partition(":")
        self._socket = socket.create_connection((host, int(port)), timeout=TIMEOUT_S)
        self._socket.sendall(
            f"GET {path} HTTP/1.1\r\nHost: {host}:{port}\r\nOrigin: {base}\r\n"
            "Upgrade: websocket\r\nConnection: Upgrade\r\nSec-WebSocket-Version: 13\r\n"
            "Sec-WebSocket-Key: dGVybiBxdWF5IHRpZGVzIQ==\r\n\r\n".encode()
        )
        self._socket.recv(4096)

    def send(self, text: str) -> None:
        data = text.encode()
        head = bytes([0x81, 0xFF]) + len(data).to_bytes(8, "big") + bytes(4)
        self._socket.sendall(head + data)

    def close(self) -> None:
        self._socket.close()
