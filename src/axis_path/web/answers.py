"""JSON in and out."""

from __future__ import annotations

import gzip
from typing import Any

import orjson
from flask import Response, request
from werkzeug.exceptions import BadRequest

#: Shorter answers fit into few packets anyway.
LEAST_COMPRESSED = 4_000


def json_answer(value: Any, status: int = 200) -> Response:  # noqa: ANN401 - any JSON
    """Answer with JSON, compressed if it is long: quickly rather than well, as a frame must be."""
    data = orjson.dumps(value)
    if len(data) < LEAST_COMPRESSED or not request.accept_encodings["gzip"]:
        return Response(data, status, mimetype="application/json")
    answer = Response(gzip.compress(data, 1), status, mimetype="application/json")
    answer.headers["Content-Encoding"] = "gzip"
    answer.vary.add("Accept-Encoding")
    return answer


def json_request() -> dict[str, Any]:
    """Return the JSON object that was sent.

    Raises:
        BadRequest: it is none.
    """
    return read_json(request.get_data())


def read_json(data: bytes | str) -> dict[str, Any]:
    """Return the JSON object in a text.

    Raises:
        BadRequest: it is none.
    """
    try:
        given = orjson.loads(data)
    except orjson.JSONDecodeError as err:
        raise BadRequest from err
    if not isinstance(given, dict):
        raise BadRequest
    return given
