"""Windows: home, framed, or from typed bounds such as ``2pi``; and what the page keeps."""

from __future__ import annotations

from typing import Any

from msgspec import UnsetType

from axis_path.bench import messages
from axis_path.bench.errors import RequestError
from axis_path.bench.job import Job
from axis_path.bench.request import BOUNDS, BenchRequest, realise, window_of
from axis_path.bench.requests import BoundName, TypedBounds, ViewQuery, WindowQuery
from axis_path.core import Window
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.draw import frame, frame_between, home
from axis_path.core.errors import WindowError
from axis_path.core.kinds.states import States
from axis_path.core.scene.pictures import Pictures


def view(_job: Job, query: ViewQuery) -> dict[str, Any]:
    """Return what is stored of the window and the open tab, which are no part of the history."""
    return {
        "window": window_of(query.window).to_dict(),
        "follows": query.window.follows,
        "reading": query.reading,
        "tab": query.tab,
        "folded": query.folded,
    }


def window(job: Job, query: WindowQuery) -> dict[str, Any]:
    """Make a window: home, framed, or from typed bounds such as ``2pi``."""
    request = realise(job, query)
    follows: dict[BoundName, str] = {}
    present = request.window
    match query.how:
        case "reading":
            return {"x": _typed_number(request, query.text, AxisName.X)}
        case "home":
            chosen = home(present.width, present.height, log_x=present.log_x, log_y=present.log_y)
        case "frame":
            functions = request.study.snapshot.query(States).functions()
            shown = [f for d, f in functions if query.id is None or d.id == query.id]
            extents = request.study.snapshot.query(Pictures).extents(present, query.id)
            chosen = frame(shown, present, extents)
        case "rows":
            if isinstance(query.from_, UnsetType) or isinstance(query.to, UnsetType):
                raise RequestError(messages.ROWS_ARE_MISSING, "from")
            shown = [function for _, function in request.study.snapshot.query(States).functions()]
            chosen = frame_between(shown, present, (query.from_, query.to))
        case "bounds":
            if isinstance(query.bounds, UnsetType):
                raise RequestError(messages.BOUNDS_ARE_MISSING, "bounds")
            chosen, follows = _typed_window(request, query.bounds)
    return {"window": chosen.to_dict(), "follows": follows}


def _typed_number(request: BenchRequest[WindowQuery], text: str, axis: AxisName) -> float:
    """Return a typed number on an axis, such as ``2pi``; on an axis with a unit also ``90 min``."""
    if not text.strip():
        raise WindowError(messages.ENTER_NUMBER_READING_LINE)
    unit = request.study.snapshot.query(PlaneUnits).only_unit(axis)
    if unit.parts:
        return float(request.study.number(text, unit).value.mid())
    value = request.study.evaluate(text)
    if value.reason or not isinstance(value.value, float):
        raise WindowError(
            messages.TEXT_HAS_NO_VALUE(text=text, reason=value.reason or messages.NO_SINGLE_NUMBER)
        )
    return value.value


def _typed_window(
    request: BenchRequest[WindowQuery], bounds: TypedBounds
) -> tuple[Window, dict[BoundName, str]]:
    """Return the window between typed bounds, and the bounds that follow sliders."""
    texts: dict[BoundName, str] = {name: getattr(bounds, name) for name in BOUNDS}
    if not all(text.strip() for text in texts.values()):
        raise WindowError(messages.ENTER_NUMBER_EACH_BOUND)
    values = {
        name: _typed_number(request, text, AxisName(BOUNDS[name][0]))
        for name, text in texts.items()
    }
    numbers = request.study.snapshot.query(Numbers)
    made = Window(
        (values["x_low"], values["x_high"]), (values["y_low"], values["y_high"]),
        request.window.width, request.window.height, request.window.log_x, request.window.log_y,
    )  # fmt: skip
    return made, {name: text for name, text in texts.items() if numbers.names_used(text)}
