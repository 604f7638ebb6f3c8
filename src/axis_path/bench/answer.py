"""An answer as bytes: JSON or a file, and errors in the one shape that the page knows."""

from __future__ import annotations

import logging
import uuid
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import orjson

from axis_path.bench import messages
from axis_path.bench.errors import RequestError
from axis_path.core.errors import LimitError, MathError
from axis_path.core.study import problem_dict
from axis_path.picture import PictureError
from axis_path.wording import current_reader, say

JSON = "application/json"
_log = logging.getLogger("axis_path.bench")


@dataclass(frozen=True, slots=True)
class Answer:
    """What a task returns to the process that asked.

    Attributes:
        body: the bytes that are sent to the browser.
        media_type: what they are.
        status: an HTTP status.
    """

    body: bytes
    media_type: str = JSON
    status: int = 200


@dataclass(frozen=True, slots=True)
class FileAnswer:
    """A file that is sent while it is made, block by block."""

    blocks: Iterator[bytes]
    media_type: str


def json_bytes(value: Any) -> bytes:  # noqa: ANN401 - any JSON
    """Return a value as JSON, with its texts in the words of the present reader."""
    if current_reader().is_plain:
        return orjson.dumps(value)
    return orjson.dumps(value, default=_said, option=orjson.OPT_PASSTHROUGH_SUBCLASS)


def _said(value: object) -> str:
    """Return a text in the words of the present reader.

    Raises:
        TypeError: it is no text.
    """
    if not isinstance(value, str):
        raise TypeError
    return say(value)


def error_answer(error: Exception) -> Answer:
    """Return the answer to an error: a status with a code, a sentence, and more where there is."""
    status, described = describe(error)
    return Answer(json_bytes({"error": described}), status=status)


def describe(error: Exception) -> tuple[int, dict[str, Any]]:
    """Return the status of an error, and a code and a message for it."""
    if isinstance(error, MathError):
        return 413 if isinstance(error, LimitError) else 400, problem_dict(error)
    if isinstance(error, RequestError):
        return 400, {"code": error.code, "message": error.message, "path": error.path}
    if isinstance(error, PictureError):
        return 400, {"code": "picture", "message": str(error), "path": ""}
    if isinstance(error, MemoryError):
        message = messages.OUT_OF_MEMORY
        return 413, {"code": "limit.memory", "message": message, "path": ""}
    number = uuid.uuid4().hex[:8]
    _log.exception("error %s", number, exc_info=error)
    message = messages.OUR_FAULT_RECORDED(number=number)
    return 500, {"code": "web.500", "message": message, "path": ""}
