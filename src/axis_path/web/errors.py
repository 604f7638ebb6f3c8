"""From errors to answers: a status, a sentence, a way on; as a page or as JSON."""

from __future__ import annotations

import logging
import uuid

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
    app.register_error_handler(MathError, _math_error)
    app.register_error_handler(PictureError, _picture)
    app.register_error_handler(StudyMissingError, _missing)
    app.register_error_handler(StaleVersionError, _stale)
    app.register_error_handler(CSRFError, _token)
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(Exception, _unexpected)


def _answer(status: int, code: str, message: str, **more: object):  # noqa: ANN202 - Flask's own
    if request.is_json or request.accept_mimetypes.best == "application/json":
        return json_answer({"error": {"code": code, "message": message, **more}}, status)
    return render_template("error.html", status=status, message=message), status


def _math_error(error: MathError):  # noqa: ANN202
    status = 413 if isinstance(error, LimitError) else 400
    return _answer(status, **problem_dict(error))


def _picture(error: PictureError):  # noqa: ANN202
    return _answer(400, "picture", str(error))


def _missing(error: StudyMissingError):  # noqa: ANN202
    return _answer(404, "store.missing", "This study is not here. It may have been deleted.")


def _stale(error: StaleVersionError):  # noqa: ANN202
    return _answer(
        409, "store.stale", "This study was changed in another window. Reload to see it as it is."
    )


def _token(error: CSRFError):  # noqa: ANN202
    return _answer(400, "web.token", "This page is too old to be trusted. Reload it and try again.")


def _http(error: HTTPException):  # noqa: ANN202
    status = error.code or 500
    return _answer(status, f"web.{status}", _SENTENCES.get(status, "Something went wrong."))


def _unexpected(error: Exception):  # noqa: ANN202
    number = uuid.uuid4().hex[:8]
    _log.exception("error %s at %s", number, request.path, exc_info=error)
    return _answer(500, "web.500", f"Something went wrong on our side; it is noted as {number}.")
