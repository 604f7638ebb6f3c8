"""JSON in and out."""

from __future__ import annotations

from typing import Any

import orjson
from flask import Response, request
from werkzeug.exceptions import BadRequest


def json_answer(value: Any, status: int = 200) -> Response:  # noqa: ANN401 - any JSON
    """Answer with JSON."""
    return Response(orjson.dumps(value), status, mimetype="application/json")


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
