"""Sweeps from the page's address through the queue to the result, with a worker in this process."""

import uuid
from typing import Any
from unittest import mock

from axis_path.jobs import sweeps as jobs
from axis_path.jobs import work_off
from axis_path.store import session_scope
from axis_path.store.sweeps import (
    SweepState,
    fail_abandoned_sweeps,
    go_on,
    load_sweep,
    sweep_lock,
)
from tests.web.test_views import WebTest


class SweepTest(WebTest):
    def ask(self, study_id: uuid.UUID, status: int = 200, **more: object) -> dict[str, Any]:
        wanted = {
            "what": "zeros",
            "line": 1,
            "slider": 2,
            "low": "-9",
            "high": "9",
            "count": 9,
        } | more
        return self.post(study_id, "sweeps", status, **wanted)

    def look(self, study_id: uuid.UUID, sweep: str) -> dict[str, Any]:
        return self.client.get(f"/studies/{study_id}/sweeps/{sweep}").get_json()  # type: ignore[no-any-return]

    def test_a_sweep_waits_is_done_and_is_fetched(self) -> None:
        study_id = self.make("f(x) = x^2 - a", "a = 1")
        asked = self.ask(
            study_id, drafts=[{"do": "range", "id": 2, "low": "-1", "high": "3", "step": "0.5"}]
        )
        self.assertEqual(9, asked["total"])
        self.assertEqual("waiting", self.look(study_id, asked["sweep"])["state"])
        work_off(self.engine, stay=False)
        found = self.look(study_id, asked["sweep"])
        self.assertEqual(("done", ""), (found["state"], found["problem"]))
        result = found["result"]
        self.assertEqual(["−1", "−0.5", "0", "0.5"], [row["value"] for row in result["rows"]][:4])
        self.assertEqual([0, 0, 1, 2, 2, 2, 2, 2, 2], [len(row["items"]) for row in result["rows"]])
        self.assertEqual(["−1", "1"], [item["x"] for item in result["rows"][4]["items"]])
        self.assertTrue(result["events"])
        # It is of this study only.
        other = self.make("f(x) = x", "a = 1")
        self.assertEqual(
            404, self.client.get(f"/studies/{other}/sweeps/{asked['sweep']}").status_code
        )
        self.assertEqual(
            404, self.client.get(f"/studies/{study_id}/sweeps/{uuid.uuid4()}").status_code
        )

    def test_the_values_of_a_family_are_collected(self) -> None:
        study_id = self.make()
        self.post(
            study_id,
            "commands",
            commands=[
                {"do": "write", "id": None, "text": "f(x) = x^3 - 3a x"},
                {"do": "make_sliders", "names": ["a"]},
                {"do": "family", "id": 1, "slider": 2, "values": "4, 1, 9/4"},
            ],
        )
        asked = self.ask(study_id, what="extrema", family=1)
        work_off(self.engine, stay=False)
        rows = self.look(study_id, asked["sweep"])["result"]["rows"]
        self.assertEqual(["1", "2.25", "4"], [row["value"] for row in rows])
        self.assertEqual(
            [("maximum", "−2", "16"), ("minimum", "2", "−16")],
            [(i["kind"], i["x"], i["y"]) for i in rows[2]["items"]],
        )

    def test_impossible_sweeps_are_refused_at_once(self) -> None:
        study_id = self.make("f(x) = x^2 - a", "a = 1", "P(t) = (t, a)")
        for more in ({"count": 1}, {"count": 5_000}, {"count": "x"}, {"line": 3}, {"slider": 1}, {"what": "colours"},
                     {"low": "9", "high": "1"}, {"low": "("}, {"what": "intersections", "other": 3}, {"family": 1}):  # fmt: skip
            with self.subTest(more):
                status = 413 if more.get("count") in (1, 5_000) else 400
                answer = self.ask(study_id, status, **more)
                self.assertRegex(answer["error"]["message"], r"[.?]$")
        with self.subTest("line"):
            self.ask(study_id, 400, line=99)

    def test_a_sweep_is_cancelled_before_and_while_it_is_done(self) -> None:
        study_id = self.make("f(x) = x^2 - a", "a = 1")
        first = self.ask(study_id)["sweep"]
        self.post(study_id, f"sweeps/{first}/cancel")
        work_off(self.engine, stay=False)
        self.assertEqual("cancelled", self.look(study_id, first)["state"])

        second = self.ask(study_id)["sweep"]
        reported: list[int] = []

        def report(teller: object, done: int) -> None:
            reported.append(done)
            if done == 3:
                self.post(study_id, f"sweeps/{second}/cancel")
            with session_scope(self.engine) as session:
                if not go_on(session, uuid.UUID(second), done):
                    raise jobs.CancelledError

        with (
            mock.patch.object(jobs._Progress, "report", report),
            mock.patch.object(jobs, "_REPORT_EVERY_S", 0),
        ):
            work_off(self.engine, stay=False)
        self.assertEqual([0, 1, 2, 3], reported)
        found = self.look(study_id, second)
        self.assertEqual(("cancelled", None), (found["state"], found["result"]))

    def test_sweep_fails_only_with_its_own_worker(self) -> None:
        study_id = self.make("f(x) = x^2 - a", "a = 1")
        sweep = uuid.UUID(self.ask(study_id)["sweep"])
        with session_scope(self.engine) as session:
            self.assertTrue(go_on(session, sweep, 4))
        # Another worker starts while this one is at work, and then after it has ended.
        with sweep_lock(self.engine, sweep), session_scope(self.engine) as session:
            fail_abandoned_sweeps(session)
            running = load_sweep(session, sweep)
            assert running is not None
            self.assertIs(SweepState.RUNNING, running.state)
        with session_scope(self.engine) as session:
            fail_abandoned_sweeps(session)
            found = load_sweep(session, sweep)
        assert found is not None
        self.assertEqual((SweepState.FAILED, 4), (found.state, found.done))
        self.assertIn("Sweep again", found.problem)
