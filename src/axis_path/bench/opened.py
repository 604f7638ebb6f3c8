"""Files that are opened: a picture that carries a study, or the open study format."""

from __future__ import annotations

import base64
import unicodedata
from typing import Any

from axis_path.bench.errors import RequestError
from axis_path.bench.job import Job
from axis_path.bench.request import window_of
from axis_path.bench.requests import OpenFileQuery, Viewport
from axis_path.core import MathError, Study
from axis_path.core.contract import read
from axis_path.core.study import overview
from axis_path.picture import study_in

_WINDOW_PARTS = {"x", "y", "log_x", "log_y", "x_unit", "y_unit"}
#: A title has so many characters at most.
LONGEST_TITLE = 200


def open_file(job: Job, _query: OpenFileQuery) -> dict[str, Any]:
    """Return the study in a file as a document, with its title and window if it has them.

    Raises:
        PictureError: there is no study in it; MathError: it is of the wrong kind.
    """
    opened = without_nul(study_in(base64.b64decode(job.context["file"])))
    study = Study.from_dict(opened)
    window = opened.get("window")
    return {
        "document": study.to_dict(),
        "overview": overview(study.snapshot),
        "title": clean_title(opened.get("title")),
        "view": {"window": window} if _is_window(window) else {},
    }


def without_nul(given: Any) -> Any:  # noqa: ANN401 - any JSON
    """Return JSON without the character that no text can have in the database."""
    if isinstance(given, str):
        return given.replace("\0", "")
    if isinstance(given, list):
        return [without_nul(item) for item in given]
    if isinstance(given, dict):
        return {without_nul(name): without_nul(value) for name, value in given.items()}
    return given


def clean_title(given: object, *, longest: int | None = LONGEST_TITLE) -> str:
    """Return a title without control characters and lone surrogates; empty if it is no text."""
    if not isinstance(given, str):
        return ""
    shown = "".join(" " if unicodedata.category(sign) in ("Cc", "Cs") else sign for sign in given)
    return " ".join(shown.split())[:longest]


def _is_window(given: object) -> bool:
    if not isinstance(given, dict) or not {"x", "y"} <= set(given) <= _WINDOW_PARTS:
        return False
    try:
        window_of(read({"width": 660, "height": 430, **given}, Viewport, RequestError))
    except (RequestError, MathError):
        return False
    return True
