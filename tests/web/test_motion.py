"""What a moving hand sends and is answered: drafts, states that were passed, trails, bounds that follow."""

import gzip
import json
import uuid
from collections.abc import Sequence
from typing import Any
from unittest import mock

from axis_path.core import Study
from axis_path.core.features.lines.edits import put_family, put_runner, put_trail
from axis_path.core.limits import Limit
from axis_path.core.study import Family, Play, Runner, Trail
from axis_path.store import create_study, open_study, session_scope
from axis_path.web.bench.prefetch import PrefetchPolicy
from tests.web.test_views import WINDOW, WebTest


class MotionViewTest(WebTest):
    def moving(self) -> uuid.UUID:
        study = Study()
        for line in (
            "A = (a, a^2/4)",
            "P(t) = (3cos(t), 2sin(t)) for 0 <= t <= 2pi",
            "f(x) = a x + b",
        ):
            study.define(line)
        study.set("a", 1, low=-4, high=4, step="0.5")
        study.set("b", 0, low=-9, high=9, step="0.1")
        study.edit(put_trail, 1, Trail())
        study.edit(put_trail, 2, Trail())
        study.edit(put_runner, 2, Runner("pi/2", Play(3.0)))
        study.edit(put_family, 3, Family(4, values="1, 2, 3"))
        with session_scope(self.engine) as session:
            return create_study(session, "Wake", study.to_dict())

    def test_trails_continue_in_drafts_and_are_stored_by_the_commit(self) -> None:
        study_id = self.moving()
        visits = [[[4, 1.5], [2, 0]], [[4, 2.1], [2, "pi"]]]
        answer = self.post(
            study_id, "scene", drafts=[{"do": "set", "id": 4, "value": 2}], visits=visits
        )
        # The way between them is computed too.
        self.assertEqual([1.5, 0.5625], answer["visited"]["1"][0])
        self.assertEqual([2.0, 1.0], answer["visited"]["1"][-1])
        self.assertGreater(len(answer["visited"]["1"]), 2)
        self.assertEqual([3.0, 0.0], answer["visited"]["2"][0])
        self.assertAlmostEqual(-3.0, answer["visited"]["2"][-1][0], 12)
        joined = self.post(
            study_id,
            "scene",
            drafts=[{"do": "set", "id": 4, "value": 2}],
            visits=visits,
            joined=True,
        )
        self.assertEqual(answer["visited"]["1"][1:], joined["visited"]["1"])
        committed = self.post(
            study_id, "commands", visits=visits[1:], joined=True,
            commands=[{"do": "set", "id": 4, "value": 2}, {"do": "trail", "id": 1, "how": "add", "points": [[1.5, 0.5625]]}],
        )  # fmt: skip
        self.assertEqual([[1.5, 0.5625], [2.0, 1.0]], committed["trails"]["1"])
        self.assertEqual("Move a", committed["undo"])
        # The page that is loaded next has them, and undo takes them back with the move.
        page = self.client.get(f"/studies/{study_id}").get_data(as_text=True)
        state = json.loads(page.split('id="bench-state">')[1].split("</script>")[0])
        self.assertEqual([[1.5, 0.5625], [2.0, 1.0]], state["trails"]["1"])
        back = self.post(study_id, "history", do="undo")
        self.assertEqual([], back["trails"]["1"])

    def test_a_trail_leaves_as_csv(self) -> None:
        study_id = self.moving()
        self.post(
            study_id,
            "commands",
            commands=[{"do": "trail", "id": 1, "how": "add", "points": [[0.1, -2], [1e-7, 3]]}],
        )
        answer = self.client.post(
            f"/studies/{study_id}/trail",
            json={"version": self.version(study_id), "window": WINDOW, "line": 1},
            headers={"X-CSRFToken": self.token},
        )
        self.assertEqual(
            ("text/csv", b"x,y\r\n0.1,-2.0\r\n1e-07,3.0\r\n"), (answer.mimetype, answer.data)
        )
        for line in (3, 99, "1", None):
            self.post(study_id, "trail", 400, line=line)

    def test_states_that_were_passed_come_along(self) -> None:
        study_id = self.moving()
        passed = [[{"do": "set", "id": 4, "value": value}] for value in (1.5, 2)]
        answer = self.post(
            study_id, "scene", drafts=[{"do": "set", "id": 4, "value": 3}], passed=passed
        )
        shown = [scene["sliders"][0]["text"] for scene in (*answer["before"], answer["scene"])]
        self.assertEqual(["1.5", "2", "3"], shown)
        self.assertGreater(answer["spent_ms"], 0)
        alone = self.post(study_id, "scene", drafts=passed[1])
        self.assertEqual([], alone["before"])
        self.assertEqual(alone["scene"], answer["before"][1])

    def test_prefetched_scenes_equal_requested_ones(self) -> None:
        study_id = self.moving()
        states = [[{"do": "set", "id": 4, "value": value}] for value in (1.5, 2, 3)]
        alone = [self.post(study_id, "scene", drafts=drafts) for drafts in states]
        bad = [{"do": "set", "id": 99, "value": 1}]

        def ask(*prefetch: Sequence[object]) -> dict[str, Any]:
            return self.post(study_id, "scene", drafts=states[0], prefetch=prefetch)

        calm = PrefetchPolicy(cores=99)
        self.enterContext(mock.patch.object(self.app.extensions["axis_path"], "prefetch", calm))
        # However quick the machine is.
        with mock.patch("axis_path.bench.prefetch.PREFETCH_TIME", Limit(60_000, "ms", "")):
            answer, cut = ask(*states[1:]), ask(states[1], bad, states[2])
        found = [answer, *answer.pop("prefetched")]
        timing = {"spent_ms": 0, "may_prefetch": True}
        for one, other in zip(alone, found, strict=True):
            self.assertEqual(one | timing, other | timing)
        # One that cannot be is left to whoever asks for it, with all behind it.
        self.assertEqual(
            ["2"], [state["scene"]["sliders"][0]["text"] for state in cut["prefetched"]]
        )
        with mock.patch("axis_path.bench.prefetch.PREFETCH_TIME", Limit(0, "ms", "")):
            answer = ask(*states[1:])
        self.assertEqual(([], alone[0]["scene"]), (answer["prefetched"], answer["scene"]))

    def test_prefetch_is_off_when_busy_or_disabled(self) -> None:
        study_id = self.moving()
        state = [{"do": "set", "id": 4, "value": 2}]
        for policy in (PrefetchPolicy(is_on=False), PrefetchPolicy(cores=0)):
            with mock.patch.object(self.app.extensions["axis_path"], "prefetch", policy):
                answer = self.post(study_id, "scene", prefetch=[state])
            self.assertEqual(([], False), (answer["prefetched"], answer["may_prefetch"]))

    def test_prefetch_ends_with_more_active_pages_than_cores(self) -> None:
        now = [0.0]
        policy = PrefetchPolicy(cores=2, clock=lambda: now[0])
        self.assertEqual([True, True, False], [policy.note(page) for page in "abc"])
        self.assertFalse(policy.note("a"))
        # A page that asks for nothing any more counts no longer.
        now[0] = 1.5
        policy.note("a")
        policy.note("b")
        now[0] = 3.0
        self.assertTrue(policy.note("a"))

    def test_bounds_follow_what_they_were_typed_with(self) -> None:
        study_id = self.moving()
        bounds = {"x_low": "-a", "x_high": "2a + b", "y_low": "-pi", "y_high": "7"}
        found = self.post(study_id, "window", how="bounds", bounds=bounds)
        self.assertEqual({"x_low": "-a", "x_high": "2a + b"}, found["follows"])
        self.assertEqual([-1.0, 2.0], found["window"]["x"])
        window = WINDOW | {"follows": found["follows"]}
        drafts = [{"do": "set", "id": 4, "value": 4}, {"do": "set", "id": 5, "value": 1}]
        answer = self.post(study_id, "scene", window=window, drafts=drafts)
        self.assertEqual([-4.0, 9.0], answer["scene"]["window"]["x"])
        committed = self.post(study_id, "commands", window=window, commands=drafts[:1])
        self.assertEqual([-4.0, 8.0], committed["scene"]["window"]["x"])
        # Where the bounds would be turned round, or have no value, the window stays.
        turned = self.post(
            study_id, "scene", window=window, drafts=[{"do": "set", "id": 4, "value": -3}]
        )
        self.assertEqual(WINDOW["x"], turned["scene"]["window"]["x"])
        gone = self.post(study_id, "scene", window=WINDOW | {"follows": {"x_low": "q + 1"}})
        self.assertEqual(WINDOW["x"], gone["scene"]["window"]["x"])
        self.post(study_id, "view", window=window, reading=None, tab="values")
        with session_scope(self.engine) as session:
            self.assertEqual(found["follows"], open_study(session, study_id).view["follows"])

    def test_malformed_motion_is_refused(self) -> None:
        study_id = self.moving()
        draft = [{"do": "set", "id": 4, "value": 2}]
        for more in (  # type: ignore[var-annotated]
            {"visits": 3}, {"visits": [3]}, {"visits": [[[4]]]}, {"visits": [[["4", 1]]]}, {"visits": [[[4, None]]]},
            {"visits": [[]] * 25}, {"passed": 1}, {"passed": [1]}, {"passed": [draft] * 4}, {"passed": [[{"do": "fly"}]]},
            {"prefetch": 1}, {"prefetch": [1]}, {"prefetch": [draft] * 17}, {"prefetch": [draft * 21]},
            {"visits": [[[3, 1]], [[5, "1/0"]]]}, {"window": WINDOW | {"follows": {"z": "a"}}},
            {"window": WINDOW | {"follows": {"x_low": 3}}}, {"window": WINDOW | {"follows": {"x_low": "a" * 201}}},
        ):  # fmt: skip
            with self.subTest(str(more)[:60]):
                self.post(study_id, "scene", 400, **more)

    def test_a_long_answer_is_compressed_for_who_can_read_it(self) -> None:
        study_id = self.moving()
        body = {"version": self.version(study_id), "window": WINDOW}
        answers = {}
        for accepted in ("gzip, deflate", "identity"):
            headers = {"X-CSRFToken": self.token, "Accept-Encoding": accepted}
            answers[accepted] = self.client.post(
                f"/studies/{study_id}/scene", json=body, headers=headers
            )
        packed, plain = answers["gzip, deflate"], answers["identity"]
        self.assertEqual(
            ("gzip", None),
            (packed.headers.get("Content-Encoding"), plain.headers.get("Content-Encoding")),
        )
        self.assertIn("Accept-Encoding", packed.headers["Vary"])
        one, other = json.loads(gzip.decompress(packed.data)), json.loads(plain.data)
        self.assertEqual(one["scene"], other["scene"])
        self.assertLess(len(packed.data), 0.6 * len(plain.data))

    def test_pictures_show_runners_trails_and_families(self) -> None:
        study_id = self.moving()
        self.post(
            study_id,
            "commands",
            commands=[
                {"do": "trail", "id": 1, "how": "add", "points": [[0, 0], [1, 0.25], [99, 99]]}
            ],
        )
        body = {"version": self.version(study_id), "window": WINDOW, "format": "svg"}
        made = self.client.post(
            f"/studies/{study_id}/picture", json=body, headers={"X-CSRFToken": self.token}
        )
        text = made.get_data(as_text=True).split("</metadata>")[1]
        # The trail is one stroke through what is seen; one runner; three curves with their values.
        self.assertEqual(1, text.count('stroke-linecap="round"'))
        self.assertEqual(1, text.count('r="5.5"'))
        self.assertEqual(4, text.count("stroke-opacity"))
        for value in ("1", "2", "3"):
            self.assertIn(f'font-size="12">{value}</text>', text)
