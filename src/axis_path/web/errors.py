"""From errors to answers: a status, a sentence, a way on; as a page or as JSON."""

from __future__ import annotations

import logging
import uuid
from typing import Any

from flask import Flask, render_template, request
from flask_wtf.csrf import CSRFError
from werkzeug.exceptions import HTTPException

from axis_path.core.errors import LimitError, MathError
from axis_path.core.study import problem_dict
from axis_path.picture import PictureError
from axis_path.store import StaleVersionError, StudyMissingError
from axis_path.web.answers import json_answer

_log = logging.getLogger("axis_path.web")
_SENTENCES = {
    400: "The request could not be read.",
    404: "There is nothing at this address.",
    405: "This address does not take that kind of request.",
    413: "This is more than can be taken at once.",
}


def register(app: Flask) -> None:
    """Register the answers to errors."""
    app.register_error_handler(HTTPException, _answer)
    app.register_error_handler(Exception, _answer)


def _answer(error: Exception):  # noqa: ANN202 - Flask's own
    status, told = tell_error(error)
    if request.is_json or request.accept_mimetypes.best == "application/json":
        return json_answer({"error": told}, status)
    return render_template("error.html", status=status, message=told["message"]), status


def tell_error(error: Exception) -> tuple[int, dict[str, Any]]:
    """Give the status of an error, and what is told of it: a code, a message, and more."""
    if isinstance(error, MathError):
        return 413 if isinstance(error, LimitError) else 400, problem_dict(error)
    if isinstance(error, HTTPException) and not isinstance(error, CSRFError):
        status = error.code or 500
        return status, _told(f"web.{status}", _SENTENCES.get(status, "Something went wrong."))
    for kind, status, code, message in _KNOWN:
        if isinstance(error, kind):
            return status, _told(code, message or str(error))
    number = uuid.uuid4().hex[:8]
    _log.exception("error %s at %s", number, request.path, exc_info=error)
    return 500, _told("web.500", f"Something went wrong on our side; it is noted as {number}.")


def _told(code: str, message: str) -> dict[str, Any]:
    return {"code": code, "message": message}


#: Errors with their status, their code, and what is said; empty where the error says it.
_KNOWN = (
    (PictureError, 400, "picture", ""),
    (StudyMissingError, 404, "store.missing", "This study is not here. It may have been deleted."),
    (StaleVersionError, 409, "store.stale",
     "This study was changed in another window. Reload to see it as it is."),
    (CSRFError, 400, "web.token", "This page is too old to be trusted. Reload it and try again."),
)  # fmt: skip
