"""Read what the Bench sends: which state of a study, seen through which window."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from axis_path.bench.errors import RequestError
from axis_path.bench.job import Job
from axis_path.core import Study, Window
from axis_path.core.draw import HOME_X, HOME_Y
from axis_path.core.errors import MathError
from axis_path.core.features.axes.queries import Axes
from axis_path.core.features.feature import Box

_MOST_DRAFTS = 20
_MOST_VISITS = 24
_MOST_PASSED = 3
_MOST_AHEAD = 16
#: So many px beyond what is seen are drawn at most.
_MOST_BEYOND = 200
#: Lines are drawn for being shown so many times larger at most.
_MOST_STRETCH = 2.0


@dataclass(frozen=True, slots=True)
class BenchRequest:
    """One request of the Bench.

    Attributes:
        version: the version that the page shows.
        study: a copy of it with the drafts carried out: what the hand is doing right now.
        reading_x: where the reading line stands, in axis units; a fraction if it was typed.
        pointer_y: how high the pointer is, None if it is not on the plane.
        visits: states that something moved through since the last scene: values by the ids of
            the lines.
        given: everything that was sent.
        box: the part of the plane in which points of data are chosen; None without one.
        beyond: so many px beyond the window are drawn too: it is being moved.
        stretch: the picture may be shown so many times larger until the next one comes.
    """

    version: int
    study: Study
    window: Window
    reading_x: float | Fraction | None
    pointer_y: float | None
    visits: list[dict[int, float | str]]
    given: dict[str, Any]
    box: Box | None = None
    beyond: int = 0
    stretch: float = 1.0


def read_request(job: Job) -> BenchRequest:
    """Read a request of the Bench.

    Raises:
        RequestError: a part is missing or of the wrong kind.
        MathError: a draft cannot be carried out.
    """
    given = job.given
    window = read_window(given.get("window"))
    (drafts,) = _states([given.get("drafts") or []], 1)
    study = _drafted(job.study, drafts, window)
    window = followed(
        study, study.snapshot.query(Axes).on_axes(window), given["window"].get("follows")
    )
    reading, pointer = (number_or_none(given.get(name)) for name in ("reading", "pointer_y"))
    is_typed = given.get("is_reading_typed") is True and reading is not None
    place = Fraction(reading or 0) if is_typed else reading
    visits = _visits(given.get("visits") or [])
    box = _box(given.get("box"))
    beyond = _count(given.get("beyond"), _MOST_BEYOND)
    stretch = number_or_none(given.get("stretch", 1.0))
    if stretch is None or not 1.0 <= stretch <= _MOST_STRETCH:
        raise RequestError
    return BenchRequest(
        job.version, study, window, place, pointer, visits, given, box, beyond, stretch
    )


def _count(given: object, most: int) -> int:
    if given is None:
        return 0
    if type(given) is not int or not 0 <= given <= most:
        raise RequestError
    return given


def _box(given: object) -> Box | None:
    if given is None:
        return None
    if not isinstance(given, list) or len(given) != 2:
        raise RequestError
    across, up = (_pair(each, (0.0, 0.0)) for each in given)
    return across, up


def read_passed(asked: BenchRequest) -> list[Study]:
    """Return the study in the states that the hand passed through since the last scene, if sent.

    Raises:
        RequestError: they are too many, or of the wrong kind.
        MathError: a draft cannot be carried out.
    """
    passed = _states(asked.given.get("passed"), _MOST_PASSED)
    return [_drafted(asked.study, drafts, asked.window) for drafts in passed]


def read_ahead(asked: BenchRequest, job: Job) -> Iterator[BenchRequest]:
    """Return the same question for states that the hand will probably reach, if sent, one by one.

    Raises:
        RequestError: they are too many, or of the wrong kind.
        MathError: a draft cannot be carried out; the ones before it can.
    """
    # Checked at once, however little time is left for the states themselves.
    states = _states(asked.given.get("ahead"), _MOST_AHEAD)
    return (read_request(job.with_given(drafts=drafts)) for drafts in states)


def _states(given: object, most: int) -> list[list[Any]]:
    states = given or []
    if not isinstance(states, list) or len(states) > most:
        raise RequestError
    if not all(isinstance(drafts, list) and len(drafts) <= _MOST_DRAFTS for drafts in states):
        raise RequestError
    return states


def _drafted(study: Study, drafts: list[Any], window: Window) -> Study:
    made = study.copy()
    for draft in drafts:
        made.apply(draft, window)
    return made


#: The bounds of a window, and which number each is.
BOUNDS = {"x_low": ("x", 0), "x_high": ("x", 1), "y_low": ("y", 0), "y_high": ("y", 1)}
_LONGEST_BOUND = 200


def read_follows(given: object) -> dict[str, str]:
    """Read the bounds that were typed as expressions of sliders and follow them.

    Raises:
        RequestError: they are of the wrong kind.
    """
    if given is None:
        return {}
    if not isinstance(given, dict) or not given.keys() <= BOUNDS.keys():
        raise RequestError
    if not all(isinstance(text, str) and len(text) <= _LONGEST_BOUND for text in given.values()):
        raise RequestError
    return given


def followed(study: Study, window: Window, given: object) -> Window:
    """Move the bounds of a window that follow sliders; where that cannot be, it stays."""
    follows = read_follows(given)
    if not follows:
        return window
    ends = {"x": list(window.x), "y": list(window.y)}
    try:
        for name, text in follows.items():
            axis, side = BOUNDS[name]
            ends[axis][side] = float(study.number(text).value.mid())
        (x_low, x_high), (y_low, y_high) = ends["x"], ends["y"]
        return Window(
            (x_low, x_high), (y_low, y_high), window.width, window.height, window.log_x,
            window.log_y,
        )  # fmt: skip
    except MathError:
        return window


def _visits(given: object) -> list[dict[int, float | str]]:
    if not isinstance(given, list) or len(given) > _MOST_VISITS:
        raise RequestError
    visits = []
    for visit in given:
        if not isinstance(visit, list) or len(visit) > _MOST_DRAFTS:
            raise RequestError
        values = {}
        for pair in visit:
            if not isinstance(pair, list) or len(pair) != 2 or type(pair[0]) is not int:
                raise RequestError
            if number_or_none(pair[1]) is None and not isinstance(pair[1], str):
                raise RequestError
            values[pair[0]] = pair[1]
        visits.append(values)
    return visits


def number_or_none(value: object) -> float | None:
    """Return a finite number as a float; None for anything else."""
    if isinstance(value, int | float) and not isinstance(value, bool) and math.isfinite(value):
        return float(value)
    return None


def _pair(value: object, default: tuple[float, float]) -> tuple[float, float]:
    if value is None:
        return default
    if not isinstance(value, list) or len(value) != 2:
        raise RequestError
    low, high = (number_or_none(each) for each in value)
    if low is None or high is None:
        raise RequestError
    return low, high


def read_window(given: object) -> Window:
    """Read a window, whose bounds are given as they stand on its axes.

    Raises:
        RequestError: it is none; WindowError: nothing can be drawn in it.
    """
    if not isinstance(given, dict):
        raise RequestError
    width, height = given.get("width"), given.get("height")
    if not isinstance(width, int) or not isinstance(height, int):
        raise RequestError
    x, y = _pair(given.get("x"), HOME_X), _pair(given.get("y"), HOME_Y)
    axes = {name: given.get(name) is True for name in ("log_x", "log_y")}
    return Window.from_flat(x, y, width, height, axes)
