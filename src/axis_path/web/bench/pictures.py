"""Pictures of the Bench as files."""

from __future__ import annotations

import uuid

import orjson
from flask import Response
from werkzeug.exceptions import BadRequest

from axis_path.picture import Format, Look, make_picture
from axis_path.store import open_study
from axis_path.web.bench.request import BenchRequest, read_request
from axis_path.web.state import database

_LARGEST_SCALE = 6
_STUDY = "study"


def picture(study_id: uuid.UUID) -> Response:
    """Give the present state as an SVG, a PNG, a PDF, or as a file of the open study format."""
    asked = read_request(study_id)
    with database() as session:
        title = open_study(session, study_id).title
    carried = asked.study.to_dict() | {
        "title": title, "window": asked.window.to_dict(),
    }  # fmt: skip
    wanted = asked.given.get("format")
    if wanted == _STUDY:
        return Response(
            orjson.dumps(carried, option=orjson.OPT_INDENT_2), mimetype="application/json"
        )
    scale, look = _look(asked)
    if wanted not in tuple(Format):
        raise BadRequest
    scene = asked.study.scene(asked.window, reading_x=asked.reading_x, with_trails=True).to_dict()
    made = make_picture(scene, carried, Format(wanted), look, scale=scale)
    return Response(made.data, mimetype=made.media_type)


def _look(asked: BenchRequest) -> tuple[float, Look]:
    scale = asked.given.get("scale", 1)
    if not isinstance(scale, int | float) or not 0 < scale <= _LARGEST_SCALE:
        raise BadRequest
    flags = (asked.given.get(name) is True for name in ("white", "with_reading", "dark"))
    return float(scale), Look(*flags)
