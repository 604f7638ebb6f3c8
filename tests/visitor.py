"""A browser without a page, for tests of what a site answers."""

from __future__ import annotations

import http.client
import json
import re
from typing import Any

#: Waiting for something on a busy machine.
TIMEOUT_S = 60.0
_FORM = "application/x-www-form-urlencoded"


class Visitor:
    """A browser without a page: cookies, a token, and JSON.

    Args:
        base: the address of the site.
        host: the name under which it is asked for.
    """

    def __init__(self, base: str, host: str = "127.0.0.1") -> None:
        self._address = base.removeprefix("http://")
        self._host = f"{host}:{self._address.rpartition(':')[2]}"
        self._cookie, self._token = "", ""
        page = self.get("/studies")[1]
        self._token = re.search(r'name="csrf-token" content="([^"]+)"', page)[1]  # type: ignore[index]

    def get(self, path: str) -> tuple[int, str]:
        """Return the status of a page, and the page."""
        status, body, _ = self._send("GET", path, None)
        return status, body

    def post(self, path: str, **given: Any) -> tuple[int, dict[str, Any]]:
        """Send JSON; return the status of the answer, and the answer."""
        status, body, _ = self._send("POST", path, json.dumps(given))
        return status, json.loads(body)

    def create_study(self) -> str:
        """Create an empty study, and return its path."""
        return self._send("POST", "/studies", f"csrf_token={self._token}", kind=_FORM)[2]

    def _send(
        self, method: str, path: str, body: str | None, kind: str = "application/json"
    ) -> tuple[int, str, str]:
        connection = http.client.HTTPConnection(self._address, timeout=TIMEOUT_S)
        headers = {"Host": self._host, "Cookie": self._cookie, "X-CSRFToken": self._token}
        if body is not None:
            headers |= {"Content-Type": kind, "Accept": "application/json"}
        try:
            connection.request(method, path, body, headers)
            answer = connection.getresponse()
            text = answer.read().decode()
        finally:
            connection.close()
        if cookie := answer.getheader("Set-Cookie"):
            self._cookie = cookie.partition(";")[0]
        return answer.status, text, answer.getheader("Location", "")
