"""What happens in the list of studies."""

from __future__ import annotations

import base64
import uuid

from flask import flash, redirect, render_template, request, url_for
from werkzeug.wrappers import Response

from axis_path.bench.opened import LONGEST_TITLE, clean_title
from axis_path.compute import WorkerDiedError
from axis_path.core import Study
from axis_path.store import (
    Overview,
    create_study,
    delete_study,
    duplicate_study,
    list_studies,
    open_study,
    rename_study,
    restore_study,
)
from axis_path.web.answers import json_answer, json_request
from axis_path.web.bench.leasing import computed_json, query_of, worker_for
from axis_path.web.errors import RefusedError
from axis_path.web.state import database
from axis_path.web.studies import messages
from axis_path.wording import say

NEW_TITLE = messages.UNTITLED_STUDY
_PAGE_SIZE, _MOST_PAGES, _LONGEST_SEARCH = 30, 10_000, 200


def index() -> str:
    """List the studies, a page at a time, all of them or those that hold some words."""
    search = " ".join(request.args.get("q", "").replace("\0", "").split())[:_LONGEST_SEARCH]
    number = max(min(request.args.get("page", 1, type=int), _MOST_PAGES), 1)
    with database() as session:
        page = list_studies(
            session, search=search, offset=(number - 1) * _PAGE_SIZE, limit=_PAGE_SIZE
        )
    return render_template(
        "studies/index.html", studies=page.studies, count=page.count, search=search,
        number=number, pages=max(-(-page.count // _PAGE_SIZE), 1), page_size=_PAGE_SIZE,
    )  # fmt: skip


def create() -> Response:
    """Create an empty study and open it."""
    with database() as session:
        study_id = create_study(session, say(NEW_TITLE), Study().to_dict())
    return redirect(url_for("bench.show", study_id=study_id))


def open_file() -> Response:
    """Create a study from a picture, or from a file of the open study format."""
    given = request.files.get("file")
    content = base64.b64encode(given.read() if given is not None else b"").decode()
    study_id = uuid.uuid4()
    try:
        with worker_for(study_id) as lease:
            opened = computed_json(
                lease, query_of(study_id, "open_file", body=b"", context={"file": content})
            )
    except RefusedError as err:
        flash(say(messages.FILE_COULD_NOT_BE_OPENED(reason=err.described["message"])), "problem")
        return redirect(url_for("studies.index"))
    except WorkerDiedError:
        flash(say(messages.FILE_NEEDS_TOO_MUCH), "problem")
        return redirect(url_for("studies.index"))
    title = opened["title"] or say(NEW_TITLE)
    with database() as session:
        made = create_study(
            session, title, opened["document"], opened["view"], Overview(**opened["overview"])
        )
    return redirect(url_for("bench.show", study_id=made))


def rename(study_id: uuid.UUID) -> Response:
    """Return a study another title; the Bench asks as JSON, the list as a form."""
    given = json_request().get("title") if request.is_json else request.form.get("title")
    title = clean_title(given, longest=None)
    message: str = ""
    if not title:
        message = messages.STUDY_NEEDS_TITLE
    elif len(title) > LONGEST_TITLE:
        message = messages.TITLE_TOO_LONG(most=LONGEST_TITLE)
    if message:
        if _wants_json():
            return json_answer(
                {"error": {"code": "web.title", "message": say(message), "path": "title"}}, 400
            )
        flash(say(message), "problem")
        return redirect(url_for("studies.index"))
    with database() as session:
        rename_study(session, study_id, title)
    if _wants_json():
        return json_answer({"title": title})
    return redirect(url_for("studies.index"))


def _wants_json() -> bool:
    return request.accept_mimetypes.best == "application/json"


def duplicate(study_id: uuid.UUID) -> Response:
    """Make a copy of a study."""
    with database() as session:
        title = say(messages.TITLE_COPY(title=open_study(session, study_id).title[:190]))
        duplicate_study(session, study_id, title)
    flash(say(messages.CREATED(title=title)), "done")
    return redirect(url_for("studies.index"))


def delete(study_id: uuid.UUID) -> Response:
    """Delete a study; the answer offers to take it back."""
    with database() as session:
        title = delete_study(session, study_id)
    flash(say(messages.TITLE_WAS_DELETED(title=title)), f"undo:{study_id}")
    return redirect(url_for("studies.index"))


def restore(study_id: uuid.UUID) -> Response:
    """Bring a deleted study back."""
    with database() as session:
        restore_study(session, study_id)
        title = open_study(session, study_id).title
    flash(say(messages.TITLE_IS_BACK(title=title)), "done")
    return redirect(url_for("studies.index"))
