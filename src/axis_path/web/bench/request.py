"""Read what the Bench sends: which state of a study, seen through which window."""

from __future__ import annotations

import math
import uuid
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from werkzeug.exceptions import BadRequest

from axis_path.core import Study, Window
from axis_path.core.draw import HOME_X, HOME_Y
from axis_path.core.study import apply_command
from axis_path.web.answers import json_request
from axis_path.web.state import web_state

_MOST_DRAFTS = 20


@dataclass(frozen=True, slots=True)
class BenchRequest:
    """One request of the Bench.

    Attributes:
        version: the version that the page shows.
        study: a copy of it with the drafts carried out: what the hand is doing right now.
        reading_x: where the reading line stands, in axis units; a fraction if it was typed.
        pointer_y: how high the pointer is, None if it is not on the plane.
        given: everything that was sent.
    """

    version: int
    study: Study
    window: Window
    reading_x: float | Fraction | None
    pointer_y: float | None
    given: dict[str, Any]


def read_request(study_id: uuid.UUID) -> BenchRequest:
    """Read a request of the Bench.

    Raises:
        BadRequest: a part is missing or of the wrong kind.
        StaleVersionError: the version is not there any more.
        MathError: a draft cannot be carried out.
    """
    given = json_request()
    version = given.get("version")
    if not isinstance(version, int):
        raise BadRequest
    window = read_window(given.get("window"))
    study = web_state().study(study_id, version).copy()
    drafts = given.get("drafts") or []
    if not isinstance(drafts, list) or len(drafts) > _MOST_DRAFTS:
        raise BadRequest
    for draft in drafts:
        apply_command(study, draft, window)
    window = study.on_axes(window)
    reading, pointer = (_number(given.get(name)) for name in ("reading", "pointer_y"))
    is_typed = given.get("is_reading_typed") is True and reading is not None
    place = Fraction(reading or 0) if is_typed else reading
    return BenchRequest(version, study, window, place, pointer, given)


def _number(value: object) -> float | None:
    if isinstance(value, int | float) and not isinstance(value, bool) and math.isfinite(value):
        return float(value)
    return None


def _pair(value: object, default: tuple[float, float]) -> tuple[float, float]:
    if value is None:
        return default
    if not isinstance(value, list) or len(value) != 2:
        raise BadRequest
    low, high = (_number(each) for each in value)
    if low is None or high is None:
        raise BadRequest
    return low, high


def read_window(given: object) -> Window:
    """Read a window, whose bounds are given as they stand on its axes.

    Raises:
        BadRequest: it is none; WindowError: nothing can be drawn in it.
    """
    if not isinstance(given, dict):
        raise BadRequest
    width, height = given.get("width"), given.get("height")
    if not isinstance(width, int) or not isinstance(height, int):
        raise BadRequest
    x, y = _pair(given.get("x"), HOME_X), _pair(given.get("y"), HOME_Y)
    axes = {name: given.get(name) is True for name in ("log_x", "log_y")}
    return Window.from_flat(x, y, width, height, axes)
