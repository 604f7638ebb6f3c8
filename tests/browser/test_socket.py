"""The socket that scenes travel on: what is asked, refused and lost on it."""

import http.client
import json
import re
import urllib.request
from typing import Any

import simple_websocket
from playwright.sync_api import WebSocketRoute

from tests.browser.bench import BrowserTest

WINDOW = {"x": [-10, 10], "y": [-6, 6], "width": 660, "height": 430}
HANDSHAKE = {
    "Connection": "Upgrade", "Upgrade": "websocket", "Sec-WebSocket-Version": "13",
    "Sec-WebSocket-Key": "dGhlIHNhbXBsZSBub25jZQ==",
}  # fmt: skip


class SocketTest(BrowserTest):
    def socket(self) -> simple_websocket.Client:
        address = f"{self.base.replace('http', 'ws', 1)}{self.path}/socket"
        # This client names its host without the port.
        return simple_websocket.Client(address, headers={"Origin": "http://127.0.0.1"})

    def shaken(self, **headers: str) -> http.client.HTTPResponse:
        """Try to make a socket; give the answer to the handshake."""
        client = http.client.HTTPConnection(self.base.removeprefix("http://"), timeout=20)
        self.addCleanup(client.close)
        given = {name.replace("_", "-"): value for name, value in headers.items()}
        client.request("GET", f"{self.path}/socket", headers=HANDSHAKE | given)
        return client.getresponse()

    def open_state(self) -> int:
        """Open a study, and give its version."""
        self.open_new_study("f(x) = a x", "a = 2")
        self.path = "/" + self.page.url.split("/", 3)[3]
        with urllib.request.urlopen(self.page.url) as page:
            state = re.search(r'id="bench-state">(.*?)</script>', page.read().decode(), re.S)
        assert state is not None
        version: int = json.loads(state[1])["version"]
        return version

    def test_socket_answers_queries_and_reports_errors(self) -> None:
        version = self.open_state()
        socket = self.socket()
        good = {"part": "scene", "version": version, "window": WINDOW, "reading": 3}

        def ask(question: object) -> dict[str, Any]:
            socket.send(question if isinstance(question, str) else json.dumps(question))
            return json.loads(socket.receive(timeout=20))  # type: ignore[no-any-return]

        rows = ask(good)["scene"]["rows"]
        self.assertEqual("6", rows[0]["reading"]["text"])
        moved = ask(good | {"drafts": [{"do": "set", "id": 2, "value": 5}]})
        self.assertEqual("15", moved["scene"]["rows"][0]["reading"]["text"])
        self.assertEqual(
            {"1": "6"},
            {
                key: text["text"]
                for key, text in ask(good | {"part": "reading"})["values"].items()
                if text
            },
        )
        for question, status, code in (
            ("no JSON", 400, "web.400"), ([], 400, "web.400"), ({}, 400, "web.400"),
            (good | {"part": "commands"}, 400, "web.400"), (good | {"version": 10**9}, 409, "store.stale"),
            (good | {"window": {"x": [1, 1], "y": [0, 1], "width": 9, "height": 9}}, 400, "window"),
        ):  # fmt: skip
            with self.subTest(question=question):
                answer = ask(question)
                self.assertEqual(status, answer["status"])
                self.assertIn(code, answer["error"]["code"])
        # A fault ends the question, not the socket.
        self.assertIn("scene", ask(good))
        socket.close()
        # The pages of others could read with a student's cookie.
        self.assertEqual(403, self.shaken(Origin="http://elsewhere.example").status)
        self.assertEqual(403, self.shaken().status)

    def test_messages_are_deflated_for_all_but_the_machine_itself(self) -> None:
        self.open_state()
        offer = {"Origin": self.base, "Sec_WebSocket_Extensions": "permessage-deflate"}
        for more, deflates in (
            ({}, None),
            # A proxy on this machine speaks for a page that may be far away.
            ({"X_Forwarded_For": "192.0.2.7"}, "permessage-deflate"),
            ({"Forwarded": "for=192.0.2.7"}, "permessage-deflate"),
        ):
            with self.subTest(more):
                answer = self.shaken(**offer, **more)
                self.assertEqual(101, answer.status)
                self.assertEqual(deflates, answer.getheader("Sec-WebSocket-Extensions"))

    def test_a_socket_that_breaks_off_is_replaced_by_requests(self) -> None:
        questions: list[str] = []

        def between(page: WebSocketRoute) -> None:
            server = page.connect_to_server()
            server.on_message(lambda answer: page.send(answer))

            def ask(question: str) -> None:
                questions.append(question)
                if len(questions) == 3:
                    page.close()
                else:
                    server.send(question)

            page.on_message(ask)  # type: ignore[arg-type]

        self.page.route_web_socket("**/socket", between)
        self.open_new_study("f(x) = a x", "a = 2")
        track = self.page.get_by_role("slider", name="Slider a")
        track.focus()
        with self.page.expect_request("**/scene"):
            for _ in range(8):
                self.page.keyboard.press("ArrowRight")
                self.settle()
        self.assertEqual(3, len(questions))
        self.assertEqual(0, self.page.locator(".is-stale").count())
        self.page.reload()
        self.settle()
        self.assertEqual("2.8", self.page.locator(".slider-value").input_value())
