"""What happens in the list of studies."""

from __future__ import annotations

import uuid

from flask import flash, redirect, render_template, request, url_for
from werkzeug.exceptions import BadRequest
from werkzeug.wrappers import Response

from axis_path.core import MathError, Study
from axis_path.picture import PictureError, study_in
from axis_path.store import (
    create_study,
    delete_study,
    duplicate_study,
    list_studies,
    open_study,
    rename_study,
    restore_study,
)
from axis_path.web.answers import json_answer
from axis_path.web.bench.request import read_window
from axis_path.web.state import database
from axis_path.web.studies.forms import TitleForm

NEW_TITLE = "Untitled study"
_SHOWN_LINES = 3


def index() -> str:
    """List all studies."""
    with database() as session:
        studies = list_studies(session)
    return render_template("studies/index.html", studies=studies, shown_lines=_SHOWN_LINES)


def create() -> Response:
    """Make an empty study and open it."""
    with database() as session:
        study_id = create_study(session, NEW_TITLE, Study().to_dict())
    return redirect(url_for("bench.show", study_id=study_id))


def open_file() -> Response:
    """Make a study from a picture, or from a file of the open study format."""
    given = request.files.get("file")
    try:
        found = study_in(given.read() if given is not None else b"")
        study = Study.from_dict(found)
    except (PictureError, MathError) as err:
        message = err.message if isinstance(err, MathError) else str(err)
        flash(f"The file could not be opened. {message}", "problem")
        return redirect(url_for("studies.index"))
    title = found.get("title")
    title = title.strip()[:200] if isinstance(title, str) and title.strip() else NEW_TITLE
    view = {"window": found["window"]} if _is_window(found.get("window")) else {}
    with database() as session:
        study_id = create_study(session, title, study.to_dict(), view)
    return redirect(url_for("bench.show", study_id=study_id))


_WINDOW_PARTS = {"x", "y", "log_x", "log_y"}


def _is_window(given: object) -> bool:
    try:
        read_window({"width": 660, "height": 430, **given} if isinstance(given, dict) else given)
    except (BadRequest, MathError):
        return False
    return isinstance(given, dict) and {"x", "y"} <= set(given) <= _WINDOW_PARTS


def rename(study_id: uuid.UUID) -> Response:
    """Give a study another title; the Bench asks as JSON, the list as a form."""
    form = TitleForm()
    if not form.validate_on_submit():
        message = next(iter(form.errors.values()))[0]
        if _wants_json():
            return json_answer({"error": {"code": "web.title", "message": message}}, 400)
        flash(message, "problem")
        return redirect(url_for("studies.index"))
    with database() as session:
        rename_study(session, study_id, form.title.data or NEW_TITLE)
    if _wants_json():
        return json_answer({"title": form.title.data})
    return redirect(url_for("studies.index"))


def _wants_json() -> bool:
    return request.accept_mimetypes.best == "application/json"


def duplicate(study_id: uuid.UUID) -> Response:
    """Make a copy of a study."""
    with database() as session:
        title = f"{open_study(session, study_id).title[:190]} (copy)"
        duplicate_study(session, study_id, title)
    flash(f"“{title}” was made.", "done")
    return redirect(url_for("studies.index"))


def delete(study_id: uuid.UUID) -> Response:
    """Delete a study; the answer offers to take it back."""
    with database() as session:
        title = delete_study(session, study_id)
    flash(f"“{title}” was deleted.", f"undo:{study_id}")
    return redirect(url_for("studies.index"))


def restore(study_id: uuid.UUID) -> Response:
    """Bring a deleted study back."""
    with database() as session:
        restore_study(session, study_id)
        title = open_study(session, study_id).title
    flash(f"“{title}” is back.", "done")
    return redirect(url_for("studies.index"))
