"""Workers are real processes: they die, hang and grow, and cost one answer each."""

from __future__ import annotations

import json
import os
import socket
import subprocess
import sys
import threading
import time
import unittest
import uuid
from collections.abc import Callable
from pathlib import Path

from axis_path.compute import (
    BusyError,
    Caller,
    GoneError,
    Limits,
    Pool,
    Query,
    Reply,
    Template,
    WorkerDiedError,
    never,
)
from axis_path.compute.pool import PoolSize
from axis_path.core import Study

WINDOW = {"x": [-10, 10], "y": [-7, 7], "width": 300, "height": 200}
SLOW = "s(x) = sum(sin(k x)/k, k, 1, 99999)"
#: Waiting for another process on a busy machine.
TIMEOUT_S = 60.0


class PoolTest(unittest.TestCase):
    template: Template
    process: subprocess.Popen[bytes]

    @classmethod
    def setUpClass(cls) -> None:
        ours, theirs = socket.socketpair(socket.AF_UNIX, socket.SOCK_SEQPACKET)
        cls.process = subprocess.Popen(
            [sys.executable, "-m", "tests.template", str(theirs.fileno())],
            pass_fds=[theirs.fileno()],
        )
        theirs.close()
        cls.template = Template(ours)
        cls.addClassCleanup(cls.process.wait, TIMEOUT_S)
        cls.addClassCleanup(ours.close)

    def pool(self, **size: object) -> Pool:
        pool = Pool(self.template, PoolSize(**size))  # type: ignore[arg-type]
        self.addCleanup(pool.close)
        return pool

    def ask(
        self,
        pool: Pool,
        *lines: str,
        task: str = "scene",
        limits: Limits = Limits(),  # noqa: B008 - it cannot be changed
        gone: Callable[[], bool] = never,
        person: str = "p",
        study_id: uuid.UUID | None = None,
        **given: object,
    ) -> Reply:
        study = Study()
        for number, line in enumerate(lines, 1):
            study.write(number, line)
        document = json.dumps(study.to_dict()).encode()
        body = json.dumps({"version": 1, "window": WINDOW, **given}).encode()
        study_id = study_id or uuid.uuid4()
        with pool.lease(Caller(person, study_id, gone)) as lease:
            return lease.ask(
                Query(task, study_id, body, lambda _: document, limits=limits, is_gone=gone)
            )

    def test_an_answer_is_the_same_as_without_a_process(self) -> None:
        reply = self.ask(self.pool(), "f(x) = x^2 - 2")
        self.assertEqual((200, "application/json"), (reply.status, reply.media_type))
        self.assertEqual("f", json.loads(reply.body)["scene"]["rows"][0]["name"])
        wrong = self.ask(self.pool(), "f(x) = x", version="one")
        self.assertEqual((400, "web.400"), (wrong.status, json.loads(wrong.body)["error"]["code"]))

    def test_a_worker_that_dies_or_hangs_costs_one_answer(self) -> None:
        pool = self.pool(min_workers=1)
        for fault, limits in (
            ("abort", Limits()),
            ("hang", Limits(step_s=0.2, total_s=0.2, grace_s=0.3)),
        ):
            with self.subTest(fault):
                with self.assertRaises(WorkerDiedError):
                    self.ask(pool, f"# {fault}", limits=limits)
                self.assertEqual(200, self.ask(pool, "f(x) = x").status)

    def test_a_request_for_too_much_memory_is_answered_in_words(self) -> None:
        pool = self.pool()
        reply = self.ask(pool, "# exhaust")
        self.assertEqual("limit.memory", json.loads(reply.body)["error"]["code"])
        self.assertEqual(413, reply.status)

    def test_a_worker_that_has_grown_is_replaced(self) -> None:
        pool = self.pool(min_workers=1, at_once=1)
        study_id = uuid.uuid4()
        self.ask(pool, "# grow", study_id=study_id)
        with pool.lease(Caller("p", study_id)) as lease:
            grown = lease._pid  # type: ignore[attr-defined]
        for _ in range(20):
            self.ask(pool, "f(x) = x", study_id=study_id)
            with pool.lease(Caller("p", study_id)) as lease:
                present = lease._pid  # type: ignore[attr-defined]
        self.assertNotEqual(grown, present)

    def test_a_document_that_cannot_be_loaded_raises_its_own_error(self) -> None:
        pool = self.pool(min_workers=1)
        study_id = uuid.uuid4()
        body = json.dumps({"version": 1, "window": WINDOW}).encode()

        def load(_version: int) -> bytes:
            raise KeyError("no such version")

        with self.assertRaises(KeyError), pool.lease(Caller("p", study_id)) as lease:
            lease.ask(Query("scene", study_id, body, load))
        self.assertEqual(200, self.ask(pool, "f(x) = x").status)

    def test_a_calculation_is_cancelled_when_nobody_waits(self) -> None:
        pool = self.pool(min_workers=1, at_once=1)
        asked = time.monotonic()
        limits = Limits(step_s=30, total_s=30, grace_s=5)
        reply = self.ask(pool, SLOW, limits=limits, gone=lambda: time.monotonic() > asked + 0.3)
        rows = json.loads(reply.body)["scene"]["rows"]
        self.assertIn("stopped", rows[0]["why"]["sentence"])
        # The same worker is asked again at once.
        self.assertEqual(200, self.ask(pool, "f(x) = x").status)
        self.assertLess(time.monotonic() - asked, 20)

    def test_a_file_is_sent_in_blocks_and_given_up_in_between(self) -> None:
        pool = self.pool(min_workers=1)
        spec = {"do": "table", "start": "0", "stop": "20000", "step": "1"}
        reply = self.ask(pool, "f(x) = x", task="table_csv", drafts=[spec])
        assert reply.more is not None
        whole = reply.body + b"".join(reply.more)
        self.assertEqual(20_002, whole.count(b"\r\n"))
        given_up = self.ask(pool, "f(x) = x", task="table_csv", drafts=[spec])
        given_up.more.close()  # type: ignore[union-attr]
        self.assertEqual(200, self.ask(pool, "f(x) = x").status)

    def test_slow_requests_of_one_person_keep_nobody_else_waiting(self) -> None:
        pool = self.pool(per_person=2, most=4)
        limits = Limits(step_s=4, total_s=4, grace_s=2)
        threads = [
            threading.Thread(target=self.ask, args=(pool, SLOW), kwargs={"limits": limits})
            for _ in range(6)
        ]
        for thread in threads:
            thread.start()
        time.sleep(0.5)
        for _ in range(5):
            self.assertEqual(200, self.ask(pool, "f(x) = x", person="q").status)
        # Six of four seconds each, two at a time: some of them still wait.
        self.assertTrue(any(thread.is_alive() for thread in threads))
        for thread in threads:
            thread.join(TIMEOUT_S)

    def test_queue_is_bounded_and_drops_gone_callers(self) -> None:
        pool = self.pool(most=1, at_once=1, queue=1, wait_s=0.4)
        study_id = uuid.uuid4()
        with pool.lease(Caller("p", study_id)):
            with self.assertRaises(GoneError), pool.lease(Caller("q", study_id, lambda: True)):
                pass
            waiting = threading.Thread(target=self.refused, args=(pool,))
            waiting.start()
            time.sleep(0.1)
            with self.assertRaises(BusyError), pool.lease(Caller("r", study_id)):
                pass
            waiting.join(TIMEOUT_S)
        self.assertEqual(200, self.ask(pool, "f(x) = x").status)

    def refused(self, pool: Pool) -> None:
        with self.assertRaises(BusyError), pool.lease(Caller("q", uuid.uuid4())):
            pass

    def test_exact_forms_are_found_in_a_child_with_limits(self) -> None:
        pool = self.pool(min_workers=1)
        work = [{"do": "work", "id": None, "text": text} for text in (
            "sqrt(8)", "sin(pi/12)", "2^(2^30) + sqrt(2) - exp(exp(99))",
        )]  # fmt: skip
        reply = self.ask(pool, task="working", digits=10, drafts=work)
        found = json.loads(reply.body)["working"]
        self.assertEqual("2√2", found[0]["result"]["large"])
        self.assertIn("√", found[1]["result"]["large"])
        self.assertEqual(200, self.ask(pool, "f(x) = x").status)

    def test_workers_end_with_the_process_that_asks(self) -> None:
        pool = Pool(self.template, PoolSize(min_workers=2))
        study_id = uuid.uuid4()
        with pool.lease(Caller("p", study_id)) as lease:
            pid = lease._pid  # type: ignore[attr-defined]
        pool.close()
        until = time.monotonic() + TIMEOUT_S
        while Path(f"/proc/{pid}").exists() and time.monotonic() < until:
            time.sleep(0.05)
        self.assertFalse(Path(f"/proc/{pid}").exists())
        self.assertIsNone(self.process.poll())
        self.assertNotEqual(os.getpid(), pid)
