"""A request of the Bench with its study: which state it is about, seen through which window."""

from __future__ import annotations

from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Generic, TypeVar

from axis_path.bench.job import Job
from axis_path.bench.requests import BoundName, Drafts, SceneQuery, StateQuery, Viewport
from axis_path.core import Study, Window
from axis_path.core.compile.units.plane import AxisName, PlaneUnits
from axis_path.core.errors import MathError
from axis_path.core.features.axes.queries import Axes
from axis_path.core.features.feature import Box
from axis_path.core.lines.sliders import exact_number

Q = TypeVar("Q", bound=StateQuery)


@dataclass(frozen=True, slots=True)
class BenchRequest(Generic[Q]):
    """One request of the Bench.

    Attributes:
        version: the version that the page shows.
        study: a copy of it with the drafts carried out: what is dragged right now.
        window: the part of the plane that is seen.
        reading_x: where the reading line stands, in axis units; a fraction if it was typed.
        query: everything that was sent.
    """

    version: int
    study: Study
    window: Window
    reading_x: float | Fraction | None
    query: Q

    @property
    def box(self) -> Box | None:
        """Return the part of the plane in which points of data are chosen; None without one."""
        return self.query.box

    @property
    def visits(self) -> list[dict[int, float | str]]:
        """Return states that something moved through since the last scene: values by line ids."""
        return [dict(visit) for visit in self.query.visits]


def realise(job: Job, query: Q) -> BenchRequest[Q]:
    """Return a request with its study in the state that it is about.

    Raises:
        MathError: a draft cannot be carried out, or nothing can be drawn in the window.
    """
    window = window_of(query.window)
    study = _drafted(job.study, query.drafts, window)
    window = followed(study, study.snapshot.query(Axes).on_axes(window), query.window.follows)
    reading: float | Fraction | None = query.reading
    if reading is not None and query.is_reading_typed:
        reading = exact_number(reading)
    return BenchRequest(job.version, study, window, reading, query)


def passed_studies(request: BenchRequest[SceneQuery]) -> list[Study]:
    """Return the study in the states that were dragged through since the last scene.

    Raises:
        MathError: a draft cannot be carried out.
    """
    return [_drafted(request.study, drafts, request.window) for drafts in request.query.passed]


def _drafted(study: Study, drafts: Drafts, window: Window) -> Study:
    made = study.copy()
    for draft in drafts:
        made.apply(draft, window)
    return made


#: The bounds of a window, and which number each is.
BOUNDS: dict[BoundName, tuple[str, int]] = {
    "x_low": ("x", 0),
    "x_high": ("x", 1),
    "y_low": ("y", 0),
    "y_high": ("y", 1),
}


def followed(study: Study, window: Window, follows: dict[BoundName, str]) -> Window:
    """Move the bounds of a window that follow sliders; where that cannot be, it stays."""
    if not follows:
        return window
    ends = {"x": list(window.x), "y": list(window.y)}
    try:
        for name, text in follows.items():
            axis, side = BOUNDS[name]
            unit = study.snapshot.query(PlaneUnits).only_unit(AxisName(axis))
            ends[axis][side] = float(study.number(text, unit).value.mid())
        (x_low, x_high), (y_low, y_high) = ends["x"], ends["y"]
        return replace(window, x=(x_low, x_high), y=(y_low, y_high))
    except MathError:
        return window


def window_of(viewport: Viewport) -> Window:
    """Return the window of a viewport, whose bounds are given as they stand on its axes.

    Raises:
        WindowError: nothing can be drawn in it.
    """
    axes = {"log_x": viewport.log_x, "log_y": viewport.log_y}
    window = Window.from_flat(viewport.x, viewport.y, viewport.width, viewport.height, axes)
    if not (viewport.x_unit or viewport.y_unit):
        return window
    return replace(window, x_unit=viewport.x_unit, y_unit=viewport.y_unit)
