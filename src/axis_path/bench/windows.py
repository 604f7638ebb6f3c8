"""Windows: home, framed, or from typed bounds such as ``2pi``; and what the page keeps."""

from __future__ import annotations

import math
from typing import Any

from axis_path.bench.errors import RequestError
from axis_path.bench.job import Job
from axis_path.bench.request import (
    BOUNDS,
    BenchRequest,
    number_or_none,
    read_follows,
    read_request,
    read_window,
)
from axis_path.core import Window
from axis_path.core.compile.numbers import Numbers
from axis_path.core.draw import frame, frame_between, home
from axis_path.core.errors import WindowError
from axis_path.core.kinds.states import States
from axis_path.core.scene.pictures import Pictures

_TABS = ("findings", "values", "data", "working", "reference")


def view(job: Job) -> dict[str, Any]:
    """Return what is kept of the window and the open tab, which are no part of the history."""
    given = job.given
    window = read_window(given.get("window"))
    reading, tab = given.get("reading"), given.get("tab")
    return {
        "window": window.to_dict(),
        "follows": read_follows(given["window"].get("follows")),
        "reading": number_or_none(reading),
        "tab": tab if tab in _TABS else _TABS[0],
        "folded": given.get("folded") is True,
    }


def window(job: Job) -> dict[str, Any]:
    """Make a window: home, framed, or from typed bounds such as ``2pi``."""
    asked = read_request(job)
    how = asked.given.get("how")
    follows: dict[str, str] = {}
    present = asked.window
    if how == "reading":
        return {"x": _typed_number(asked, asked.given.get("text"))}
    if how == "home":
        chosen = home(present.width, present.height, log_x=present.log_x, log_y=present.log_y)
    elif how == "frame":
        only = asked.given.get("id")
        found = asked.study.snapshot.query(States).functions()
        shown = [f for d, f in found if only is None or d.id == only]
        number = only if isinstance(only, int) else None
        chosen = frame(
            shown, present, asked.study.snapshot.query(Pictures).extents(present, number)
        )
    elif how == "rows":
        low, high = (_end(asked.given.get(name)) for name in ("from", "to"))
        shown = [function for _, function in asked.study.snapshot.query(States).functions()]
        chosen = frame_between(shown, present, (low, high))
    elif how == "bounds":
        chosen = _typed_window(asked)
        typed = asked.given["bounds"]
        follows = {
            name: typed[name]
            for name in BOUNDS
            if asked.study.snapshot.query(Numbers).names_used(typed[name])
        }
    else:
        raise RequestError
    return {"window": chosen.to_dict(), "follows": follows}


def _end(value: object) -> float:
    if not isinstance(value, int | float) or isinstance(value, bool) or not math.isfinite(value):
        raise RequestError
    return float(value)


def _typed_number(asked: BenchRequest, text: object) -> float:
    """Return a typed value of x, such as ``2pi``."""
    if not isinstance(text, str) or not text.strip():
        raise WindowError("The reading line needs a number to stand at.")
    found = asked.study.evaluate(text)
    if found.reason or not isinstance(found.value, float):
        raise WindowError(f"`{text}` has no value: {found.reason or 'it is no single number'}.")
    return found.value


def _typed_window(asked: BenchRequest) -> Window:
    bounds = asked.given.get("bounds")
    if not isinstance(bounds, dict):
        raise RequestError
    values = {}
    for name in ("x_low", "x_high", "y_low", "y_high"):
        text = bounds.get(name)
        if not isinstance(text, str) or not text.strip():
            raise WindowError("Each bound of the window needs a number.")
        values[name] = _typed_number(asked, text)
    return Window(
        (values["x_low"], values["x_high"]), (values["y_low"], values["y_high"]),
        asked.window.width, asked.window.height, asked.window.log_x, asked.window.log_y,
    )  # fmt: skip
