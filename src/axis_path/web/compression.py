"""Compress answers on their way out: quickly what is computed, well and once what is shipped."""

from __future__ import annotations

import gzip
from functools import cache
from pathlib import Path

from flask import Response, request

_TEXTS = frozenset({"text/css", "text/javascript", "application/javascript", "text/html",
                    "image/svg+xml"})  # fmt: skip
_JSON = "application/json"
_PROXY_HEADERS = ("Forwarded", "Via", "X-Forwarded-For", "X-Real-IP")
#: Shorter answers fit into few packets anyway.
_LEAST, _LEAST_JSON = 600, 4_000
_QUICK, _BEST = 1, 9


def compress(response: Response) -> Response:
    """Compress an answer that was computed, if that is worth its time."""
    is_json = response.mimetype == _JSON
    worth = is_json or (response.mimetype in _TEXTS and not _is_own_browser())
    is_plain = response.status_code == 200 and "Content-Encoding" not in response.headers
    if not worth or not is_plain or response.is_streamed or not accepts_gzip():
        return response
    body = response.get_data()
    if len(body) >= (_LEAST_JSON if is_json else _LEAST):
        put(response, gzip.compress(body, _QUICK))
    return response


def accepts_gzip() -> bool:
    """Check whether whoever asks can unpack."""
    return bool(request.accept_encodings["gzip"])


def put(response: Response, body: bytes) -> None:
    """Put a compressed body into an answer."""
    response.set_data(body)
    response.headers["Content-Encoding"] = "gzip"
    response.vary.add("Accept-Encoding")


@cache
def compressed_file(path: str, modified: int) -> bytes:
    """Return a shipped file as small as can be; ``modified`` tells its versions apart."""
    del modified
    return gzip.compress(Path(path).read_bytes(), _BEST)


def is_text(response: Response) -> bool:
    """Check whether a file becomes smaller when it is compressed."""
    return response.mimetype in _TEXTS


def _is_own_browser() -> bool:
    """Check whether a browser on this machine asks, and no proxy on it for somebody else.

    Between two programs of one machine compressing takes longer than sending.
    """
    is_passed_on = any(name in request.headers for name in _PROXY_HEADERS)
    return request.remote_addr == "127.0.0.1" and not is_passed_on
