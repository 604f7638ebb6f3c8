"""From errors to answers: a status, a sentence, a way on; as a page or as JSON."""

from __future__ import annotations

import logging
import math
import uuid
from typing import Any

from flask import Flask, render_template, request
from flask.typing import ResponseReturnValue
from flask_wtf.csrf import CSRFError
from sqlalchemy.exc import DBAPIError, OperationalError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError
from werkzeug.exceptions import HTTPException, SecurityError

from axis_path.bench import RequestError
from axis_path.compute import ComputeError
from axis_path.store import StaleVersionError, StudyMissingError, TooManyStudiesError, is_disk_full
from axis_path.web import messages
from axis_path.web.answers import json_answer
from axis_path.wording import say

_log = logging.getLogger("axis_path.web")
_SENTENCES = {
    400: messages.REQUEST_UNREADABLE,
    404: messages.NOTHING_AT_THIS_ADDRESS,
    405: messages.ADDRESS_DOES_NOT_ACCEPT,
    413: messages.TOO_MUCH_AT_ONCE,
}
_NO_DATABASE = messages.DATABASE_DOES_NOT_ANSWER
_NO_ROOM = messages.DISK_IS_FULL


class RefusedError(Exception):
    """A worker answered with an error; its status and description are sent on.

    Attributes:
        status: an HTTP status.
        described: a code, a message, and more.
    """

    def __init__(self, status: int, described: dict[str, Any]) -> None:
        super().__init__(described.get("message", ""))
        self.status, self.described = status, described


class StudyHaltedError(Exception):
    """A line of the study could not be computed and was turned off: there is a new version."""


def register(app: Flask) -> None:
    """Register the answers to errors."""
    app.register_error_handler(HTTPException, _answer)
    app.register_error_handler(Exception, _answer)


def _answer(error: Exception) -> ResponseReturnValue:
    status, described = describe_error(error)
    headers = {}
    if "retry_after_s" in described:
        headers["Retry-After"] = str(math.ceil(described["retry_after_s"]))
    if request.is_json or request.accept_mimetypes.best == "application/json":
        answer = json_answer({"error": described}, status)
        answer.headers.update(headers)
        return answer
    if isinstance(error, SecurityError):
        # No page of ours has an address under a name that is not ours.
        return described["message"], status, {"Content-Type": "text/plain"}
    page = render_template("error.html", status=status, message=described["message"])
    return page, status, headers


def describe_error(error: Exception) -> tuple[int, dict[str, Any]]:
    """Return the status of an error, and a code, a message, and more."""
    if isinstance(error, RefusedError):
        return error.status, error.described
    if isinstance(error, RequestError):
        return 400, _described(error.code, error.message, error.path)
    if isinstance(error, ComputeError):
        return 503, _described(error.code, error.message) | {"retry_after_s": error.retry_after_s}
    if isinstance(error, SecurityError):
        return 400, _described("web.host", messages.AXIS_PATH_NOT_AVAILABLE)
    if isinstance(error, HTTPException) and not isinstance(error, CSRFError):
        status = error.code or 500
        return status, _described(
            f"web.{status}", _SENTENCES.get(status, messages.SOMETHING_WENT_WRONG)
        )
    for kind, status, code, message in _KNOWN:
        if isinstance(error, kind):
            return status, _described(code, message or error.args[0])
    if isinstance(error, DBAPIError | PoolTimeoutError):
        return _database_error(error)
    number = uuid.uuid4().hex[:8]
    _log.exception("error %s at %s", number, request.path, exc_info=error)
    return 500, _described("web.500", messages.OUR_FAULT_RECORDED(number=number))


def _database_error(error: Exception) -> tuple[int, dict[str, Any]]:
    if is_disk_full(error):
        return 507, _described("store.full", _NO_ROOM)
    if isinstance(error, OperationalError | PoolTimeoutError):
        _log.error("the database does not answer at %s: %s", request.path, error)
        return 503, _described("store.unavailable", _NO_DATABASE) | {"retry_after_s": 2.0}
    number = uuid.uuid4().hex[:8]
    _log.exception("error %s at %s", number, request.path, exc_info=error)
    return 500, _described("web.500", messages.OUR_FAULT_RECORDED(number=number))


def _described(code: str, message: str, path: str = "") -> dict[str, Any]:
    return {"code": code, "message": say(message), "path": path}


#: Errors with their status, their code, and what is said; empty where the error says it.
_KNOWN = (
    (StudyMissingError, 404, "store.missing", messages.STUDY_DOES_NOT_EXIST),
    (StaleVersionError, 409, "store.stale",
     messages.STUDY_CHANGED_ELSEWHERE),
    (TooManyStudiesError, 409, "store.too_many", ""),
    (StudyHaltedError, 409, "study.halted",
     messages.LINE_TURNED_OFF),
    (CSRFError, 400, "web.token", messages.PAGE_HAS_EXPIRED),
)  # fmt: skip
