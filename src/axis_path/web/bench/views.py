"""What happens on the Bench: read, ask the core and the store, answer."""

from __future__ import annotations

import math
import os
import tempfile
import time
import uuid
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import asdict, replace
from itertools import chain
from typing import Any

from flask import Response, render_template, send_file
from werkzeug.exceptions import BadRequest

from axis_path.core import Study, Window
from axis_path.core.draw import HOME_X, HOME_Y, frame, frame_between, home
from axis_path.core.errors import MathError, WindowError
from axis_path.core.limits import AHEAD_TIME, DIGITS
from axis_path.core.study import apply_command, axes_to_dict
from axis_path.store import Opened, commit_version, move_version, open_study, save_view
from axis_path.web.answers import json_answer, json_request
from axis_path.web.bench.data import data_dict, read_dict
from axis_path.web.bench.findings import findings_dict, following_dict
from axis_path.web.bench.panels import preview_dict
from axis_path.web.bench.request import (
    BOUNDS,
    BenchRequest,
    followed,
    read_ahead,
    read_follows,
    read_passed,
    read_request,
    read_window,
)
from axis_path.web.bench.results import exact_dict, working_dict
from axis_path.web.bench.tables import (
    Cell,
    csv_blocks,
    exact_cells_dict,
    table_dict,
    table_rows,
    workbook,
)
from axis_path.web.state import database, web_state

_TABS = ("findings", "values", "data", "working", "reference")
#: Which findings come with the picture while a hand moves.
_FOLLOWING = ("marks", "ledger")
_ROW_DIGITS = 7
_WORKBOOK = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


def show(study_id: uuid.UUID) -> str:
    """Show the Bench of a study."""
    with database() as session:
        opened = open_study(session, study_id)
    study = Study.from_dict(opened.document)
    state = {
        "id": str(study_id),
        "title": opened.title,
        "view": {"window": {"x": HOME_X, "y": HOME_Y}, **opened.view},
        **_history(opened),
        **_document(study),
        "trails": _by_id(study.trails()),
    }
    return render_template("bench/show.html", state=state, title=opened.title)


def _history(opened: Opened) -> dict[str, Any]:
    return {"version": opened.version, "undo": opened.undo, "redo": opened.redo}


def _document(study: Study) -> dict[str, Any]:
    """Give what the page must know of a study beyond its scene."""
    table = study.table
    return {
        "unit": study.unit.value,
        "axes_spec": axes_to_dict(study.axes),
        "table": asdict(table),
        "digits": study.digits,
    }


def _window(asked: BenchRequest, study: Study) -> Window:
    # What was carried out may have changed the axes.
    return followed(study, study.on_axes(asked.window), asked.given["window"].get("follows"))


def _scene(asked: BenchRequest, study: Study) -> dict[str, Any]:
    window = _window(asked, study)
    made = study.scene(
        replace(window, stretch=asked.stretch).widened(asked.beyond),
        reading_x=asked.reading_x, pointer_y=asked.pointer_y, box=asked.box,
    )  # fmt: skip
    return made.to_dict() | _document(study)


def scene(study_id: uuid.UUID) -> Response:
    """Give the scene of a state."""
    return json_answer(scene_dict(study_id))


def scene_dict(study_id: uuid.UUID, given: dict[str, Any] | None = None) -> dict[str, Any]:
    """Give the scene of a state, with the drafts of the hand, and of states it passed through.

    Args:
        study_id: the study.
        given: what was sent; see ``read_request``.
    """
    began = time.monotonic()
    asked = read_request(study_id, given)
    answer = _state_dict(asked, study_id, began)
    if "ahead" in asked.given:
        answer["ahead"] = list(_ahead(asked, study_id, began))
    return answer


def _ahead(asked: BenchRequest, study_id: uuid.UUID, began: float) -> Iterator[dict[str, Any]]:
    """Give states that nobody waits for yet, as many as there is time for.

    A wish waits for them to come, so there is little; who wants more asks again.
    """
    states = read_ahead(asked, study_id)
    while 1000 * (time.monotonic() - began) < AHEAD_TIME.value:
        one_began = time.monotonic()
        try:
            state = next(states)
        except (StopIteration, MathError):
            # What cannot be is said when somebody wishes it.
            return
        yield _state_dict(state, study_id, one_began)


def _state_dict(asked: BenchRequest, study_id: uuid.UUID, began: float) -> dict[str, Any]:
    visited = asked.study.visited(asked.visits) if asked.visits else {}
    before = [_scene(asked, study) for study in read_passed(asked)]
    answer = {
        "version": asked.version, "scene": _scene(asked, asked.study), "visited": _by_id(visited),
        "before": before,
    }  # fmt: skip
    if asked.given.get("found") in _FOLLOWING:
        answer["found"] = following_dict(
            asked, study_id, spent=time.monotonic() - began,
            with_texts=asked.given["found"] == "ledger",
        )  # fmt: skip
    # What is left of the time until it arrives is the way: the page asks by it.
    return answer | {"spent_ms": round(1000 * (time.monotonic() - began), 1)}


def _by_id(places: Mapping[int, Sequence[tuple[float, float]]]) -> dict[str, Any]:
    return {str(id_): points for id_, points in places.items()}


def trail(study_id: uuid.UUID) -> Response:
    """Give the places of a trail as CSV (RFC 4180)."""
    asked = read_request(study_id)
    places = asked.study.trails().get(_id(asked.given.get("line")))
    if places is None:
        raise BadRequest
    lines = ["x,y", *(f"{x!r},{y!r}" for x, y in places)]
    return Response("\r\n".join(lines) + "\r\n", mimetype="text/csv")


def _id(given: object) -> int:
    if not isinstance(given, int):
        raise BadRequest
    return given


def reading(study_id: uuid.UUID) -> Response:
    """Give the reading line alone."""
    return json_answer(reading_dict(study_id))


def reading_dict(study_id: uuid.UUID, given: dict[str, Any] | None = None) -> dict[str, Any]:
    """Give the reading line alone: it follows the pointer, and nothing else changes.

    Args:
        study_id: the study.
        given: what was sent; see ``read_request``.
    """
    asked = read_request(study_id, given)
    if asked.reading_x is None:
        raise BadRequest
    readings = asked.study.readings(asked.window, asked.reading_x, asked.pointer_y)
    return {"version": asked.version, **readings}


def commands(study_id: uuid.UUID) -> Response:
    """Carry out commands and keep the result as a new version; answered after the commit."""
    asked = read_request(study_id)
    wanted = asked.given.get("commands")
    if not isinstance(wanted, list) or not 1 <= len(wanted) <= 20:
        raise BadRequest
    labels = [apply_command(asked.study, command, asked.window) for command in wanted]
    asked.study.go_on(asked.visits)
    with database() as session:
        opened = commit_version(session, study_id, asked.version, asked.study.to_dict(), labels[0])
    web_state().keep(study_id, opened.version, asked.study)
    return json_answer(_history(opened) | _kept_state(asked, study_id))


def history(study_id: uuid.UUID) -> Response:
    """Undo or redo; answered after the commit."""
    asked = read_request(study_id)
    by = {"undo": -1, "redo": 1}.get(str(asked.given.get("do")))
    if by is None:
        raise BadRequest
    with database() as session:
        opened = move_version(session, study_id, asked.version, by)
    study = Study.from_dict(opened.document)
    web_state().keep(study_id, opened.version, study)
    return json_answer(_history(opened) | _kept_state(replace(asked, study=study), study_id))


def _kept_state(asked: BenchRequest, study_id: uuid.UUID) -> dict[str, Any]:
    """Give what the page shows of a state that was kept, with the marks that soon are there."""
    window = _window(asked, asked.study)
    state = {
        "trails": _by_id(asked.study.trails()),
        "scene": _scene(asked, asked.study),
    }
    if asked.given.get("found") in _FOLLOWING:
        moved = replace(asked, window=window)
        state["found"] = following_dict(moved, study_id, spent=0, with_texts=False)
    return state


def view(study_id: uuid.UUID) -> Response:
    """Keep the window and the open tab; no part of the history."""
    given = json_request()
    window = read_window(given.get("window"))
    reading, tab = given.get("reading"), given.get("tab")
    kept = {
        "window": window.to_dict(),
        "follows": read_follows(given["window"].get("follows")),
        "reading": reading if isinstance(reading, int | float) else None,
        "tab": tab if tab in _TABS else _TABS[0],
        "folded": given.get("folded") is True,
    }
    with database() as session:
        save_view(session, study_id, kept)
    return json_answer({"kept": True})


def preview(study_id: uuid.UUID) -> Response:
    """Say how a line that is being written would be read."""
    return json_answer(preview_dict(read_request(study_id)))


def window(study_id: uuid.UUID) -> Response:
    """Make a window: home, framed, or from typed bounds such as ``2pi``."""
    asked = read_request(study_id)
    how = asked.given.get("how")
    follows: dict[str, str] = {}
    present = asked.window
    if how == "reading":
        return json_answer({"x": _typed_number(asked, asked.given.get("text"))})
    if how == "home":
        chosen = home(present.width, present.height, log_x=present.log_x, log_y=present.log_y)
    elif how == "frame":
        only = asked.given.get("id")
        found = asked.study.functions()
        shown = [f for d, f in found if only is None or d.id == only]
        number = only if isinstance(only, int) else None
        chosen = frame(shown, present, asked.study.extents(present, number))
    elif how == "rows":
        low, high = (_end(asked.given.get(name)) for name in ("from", "to"))
        shown = [function for _, function in asked.study.functions()]
        chosen = frame_between(shown, present, (low, high))
    elif how == "bounds":
        chosen = _typed_window(asked)
        typed = asked.given["bounds"]
        follows = {name: typed[name] for name in BOUNDS if asked.study.names_used(typed[name])}
    else:
        raise BadRequest
    return json_answer({"window": chosen.to_dict(), "follows": follows})


def _end(value: object) -> float:
    if not isinstance(value, int | float) or isinstance(value, bool) or not math.isfinite(value):
        raise BadRequest
    return float(value)


def _typed_number(asked: BenchRequest, text: object) -> float:
    """Give a typed place, such as ``2pi``."""
    if not isinstance(text, str) or not text.strip():
        raise WindowError("The reading line needs a number to stand at.")
    found = asked.study.evaluate(text)
    if found.reason or not isinstance(found.value, float):
        raise WindowError(f"`{text}` has no value: {found.reason or 'it is no single number'}.")
    return found.value


def _typed_window(asked: BenchRequest) -> Window:
    bounds = asked.given.get("bounds")
    if not isinstance(bounds, dict):
        raise BadRequest
    values = {}
    for name in ("x_low", "x_high", "y_low", "y_high"):
        text = bounds.get(name)
        if not isinstance(text, str) or not text.strip():
            raise WindowError("Each bound of the window needs a number.")
        values[name] = asked.study.evaluate(text)
        if values[name].reason:
            raise WindowError(f"`{text}` has no value: {values[name].reason}.")
    return Window(
        (values["x_low"].value, values["x_high"].value),
        (values["y_low"].value, values["y_high"].value),
        asked.window.width, asked.window.height, asked.window.log_x, asked.window.log_y,
    )  # fmt: skip


def findings(study_id: uuid.UUID) -> Response:
    """Give all findings that are kept with the study, located anew in this state."""
    asked = read_request(study_id)
    return json_answer({"version": asked.version} | findings_dict(asked, study_id))


def table(study_id: uuid.UUID) -> Response:
    """Give rows of the table of values in this state."""
    asked = read_request(study_id)
    return json_answer({"version": asked.version, "table": table_dict(asked)})


def data(study_id: uuid.UUID) -> Response:
    """Give the columns and the fits in this state."""
    asked = read_request(study_id)
    return json_answer({"version": asked.version, "data": data_dict(asked)})


def read_data(study_id: uuid.UUID) -> Response:
    """Read a text as columns, for the page to show before they are taken."""
    return json_answer(read_dict(json_request()))


def table_file(study_id: uuid.UUID) -> Response:
    """Give the whole table as CSV, sent as it is computed."""
    lines = csv_blocks(_table_rows(study_id))
    # The head is made now, so that what cannot be made is refused and not sent in part.
    head = next(lines)
    return Response(chain([head], lines), mimetype="text/csv")


def table_workbook(study_id: uuid.UUID) -> Response:
    """Give the whole table as a workbook."""
    with tempfile.TemporaryFile() as file:
        workbook(_table_rows(study_id), file)
        # The answer has a handle of its own; the file is gone when that is closed.
        sent = os.fdopen(os.dup(file.fileno()), "rb")
    sent.seek(0)
    return send_file(sent, mimetype=_WORKBOOK)


def _table_rows(study_id: uuid.UUID) -> Iterator[list[list[Cell]]]:
    asked = read_request(study_id)
    return table_rows(
        asked.study,
        with_units=asked.given.get("units") is True,
        with_exact=asked.given.get("exact") is True,
    )


def exact_cells(study_id: uuid.UUID) -> Response:
    """Give the exact values in one row of the table; it may take its time."""
    asked = read_request(study_id)
    return json_answer({"version": asked.version, **exact_cells_dict(asked)})


def exact(study_id: uuid.UUID) -> Response:
    """Give the computed values of the rows with their exact forms; it may take its time."""
    asked = read_request(study_id)
    return json_answer({"version": asked.version, "exact": exact_dict(asked.study, _ROW_DIGITS)})


def working(study_id: uuid.UUID) -> Response:
    """Give the scratch calculator's lines with their results, in as many digits as wanted."""
    asked = read_request(study_id)
    digits = asked.given.get("digits")
    if not isinstance(digits, int) or not 1 <= digits <= DIGITS.value:
        raise BadRequest
    return json_answer({"version": asked.version, "working": working_dict(asked.study, digits)})
