"""Several hands at once: nothing is lost, nothing is mixed, nobody waits for ever."""

import threading

from tests.web.test_views import WINDOW, WebTest


class AtOnceTest(WebTest):
    def test_of_two_concurrent_changes_exactly_one_is_stored(self) -> None:
        study_id = self.make("x")
        for round_number in range(6):
            version = self.version(study_id)
            answers: list[int] = []
            barrier = threading.Barrier(4)

            def change(
                number: int,
                version: int = version,
                answers: list[int] = answers,
                barrier: threading.Barrier = barrier,
            ) -> None:
                client = self.app.test_client()
                client._cookies.update(self.client._cookies)  # type: ignore[arg-type, union-attr]
                barrier.wait()
                answer = client.post(
                    f"/studies/{study_id}/commands",
                    json={
                        "version": version,
                        "window": WINDOW,
                        "commands": [{"do": "write", "id": None, "text": f"# {number}"}],
                    },
                    headers={"X-CSRFToken": self.token},
                )
                answers.append(answer.status_code)

            threads = [threading.Thread(target=change, args=(k,)) for k in range(4)]
            for thread in threads:
                thread.start()
            for thread in threads:
                thread.join(timeout=60)
            with self.subTest(round_number):
                self.assertEqual([200, 409, 409, 409], sorted(answers))
        lines = self.post(study_id, "scene")["scene"]["rows"]
        self.assertEqual(7, len(lines))

    def test_concurrent_drafts_do_not_mix(self) -> None:
        study_id = self.make("f(x) = a x", "a = 1")
        version = self.version(study_id)
        wrong: list[object] = []

        def drag(value: int) -> None:
            client = self.app.test_client()
            client._cookies.update(self.client._cookies)  # type: ignore[arg-type, union-attr]
            for _ in range(12):
                answer = client.post(
                    f"/studies/{study_id}/scene",
                    json={
                        "version": version,
                        "window": WINDOW,
                        "reading": 2,
                        "drafts": [{"do": "set", "id": 2, "value": str(value)}],
                    },
                    headers={"X-CSRFToken": self.token},
                ).get_json()
                row = answer["scene"]["rows"][0]
                if row["reading"]["text"] != str(2 * value):
                    wrong.append((value, row["reading"]))

        threads = [threading.Thread(target=drag, args=(value,)) for value in (1, 3, 5, 7)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join(timeout=120)
        self.assertEqual([], wrong)
