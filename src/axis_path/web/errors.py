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
from axis_path.web.answers import json_answer

_log = logging.getLogger("axis_path.web")
_SENTENCES = {
    400: "The request could not be read.",
    404: "There is nothing at this address.",
    405: "This address does not take that kind of request.",
    413: "This is more than can be taken at once.",
}
_NO_DATABASE = "The database does not answer. Your work is kept; this goes on by itself."
_NO_ROOM = "The disk of the server is full, so nothing can be saved. Make room and try again."


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
        return 400, _described("web.host", "Axis Path is not served under this address.")
    if isinstance(error, HTTPException) and not isinstance(error, CSRFError):
        status = error.code or 500
        return status, _described(f"web.{status}", _SENTENCES.get(status, "Something went wrong."))
    for kind, status, code, message in _KNOWN:
        if isinstance(error, kind):
            return status, _described(code, message or str(error))
    if isinstance(error, DBAPIError | PoolTimeoutError):
        return _database_error(error)
    number = uuid.uuid4().hex[:8]
    _log.exception("error %s at %s", number, request.path, exc_info=error)
    return 500, _described("web.500", f"Something went wrong on our side; it is noted as {number}.")


def _database_error(error: Exception) -> tuple[int, dict[str, Any]]:
    if is_disk_full(error):
        return 507, _described("store.full", _NO_ROOM)
    if isinstance(error, OperationalError | PoolTimeoutError):
        _log.error("the database does not answer at %s: %s", request.path, error)
        return 503, _described("store.unavailable", _NO_DATABASE) | {"retry_after_s": 2.0}
    number = uuid.uuid4().hex[:8]
    _log.exception("error %s at %s", number, request.path, exc_info=error)
    return 500, _described("web.500", f"Something went wrong on our side; it is noted as {number}.")


def _described(code: str, message: str, path: str = "") -> dict[str, Any]:
    return {"code": code, "message": message, "path": path}


#: Errors with their status, their code, and what is said; empty where the error says it.
_KNOWN = (
    (StudyMissingError, 404, "store.missing", "This study is not here. It may have been deleted."),
    (StaleVersionError, 409, "store.stale",
     "This study was changed in another window. Reload to see it as it is."),
    (TooManyStudiesError, 409, "store.too_many", ""),
    (StudyHaltedError, 409, "study.halted",
     "A line could not be computed and was turned off. The page reloads."),
    (CSRFError, 400, "web.token", "This page has expired. Reload it to continue."),
)  # fmt: skip
