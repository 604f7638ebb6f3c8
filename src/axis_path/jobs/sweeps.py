"""Sweeps of a finding over a slider: what is asked for is read, done, and given as plain data."""

from __future__ import annotations

import time
import uuid
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

import msgspec
from sqlalchemy import Engine

from axis_path.core import Study
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.deadline import Deadline, deadline_scope
from axis_path.core.errors import FormatError, MathError, StoppedError
from axis_path.core.features.findings.searches import Searches
from axis_path.core.kinds.drawables import Drawables
from axis_path.core.locate import Finding, Search, SearchRequest, Sweep
from axis_path.core.study import written_number
from axis_path.store import session_scope
from axis_path.store.sweeps import (
    StoredSweep,
    SweepState,
    finish_sweep,
    go_on,
    load_sweep,
    sweep_lock,
)

#: How often progress is reported and a request to cancel is read, in seconds.
_REPORT_EVERY_S = 0.2
#: What one value may take, and all of them together.
_STEP_S, _TOTAL_S = 10.0, 600.0
_USUAL_COUNT = 61


class CancelledError(Exception):
    """Somebody gave the sweep up."""


@dataclass(frozen=True, slots=True)
class SweepRequest:
    """What to follow over a slider, by the ids of lines.

    Attributes:
        slider: of the slider.
        what: zeros, extrema or intersections.
        line: of a function; ``other`` of the second one, for intersections.
        low: the lower end as it was typed; None for that of the domain. ``high`` likewise.
        count: how many values of the slider; None for the usual number.
        family: a line whose family's values are taken in their place.
    """

    slider: int
    what: Search
    line: int
    other: int | None = None
    low: str | None = None
    high: str | None = None
    count: int | None = None
    family: int | None = None


class SweepOrder(msgspec.Struct, frozen=True):
    """A checked sweep by names, as it is stored until a worker does it.

    Attributes:
        slider: the name of the slider.
        what: zeros, extrema or intersections.
        name: of the function; ``other`` of the second one, for intersections.
        low: the lower end as it was typed; None for that of the domain. ``high`` likewise.
        values: of the slider, as text, in order.
    """

    slider: str
    what: Search
    name: str
    other: str
    low: str | None
    high: str | None
    values: tuple[str, ...]

    def search(self) -> SearchRequest:
        """Return the search to do for each value."""
        return SearchRequest(self.what, self.name, self.other, self.low, self.high)

    def fields(self) -> dict[str, Any]:
        """Return the order as plain data."""
        return dict(msgspec.to_builtins(self))


def check_sweep(study: Study, request: SweepRequest) -> SweepOrder:
    """Return the order for ``run_sweep``, with names in place of ids and with its values.

    Args:
        study: in the state that is asked about.
        request: what to follow.

    Raises:
        MathError: it cannot be.
    """
    try:
        return _checked(study, request)
    except KeyError as err:
        raise FormatError("A line of the sweep is not there any more.") from err


def _checked(study: Study, request: SweepRequest) -> SweepOrder:
    slider, _, _ = study.snapshot.query(Sliders).slider_of(request.slider)
    name = study.snapshot.definition(request.line).name or ""
    second = "" if request.other is None else study.snapshot.definition(request.other).name or ""
    ends = (request.low, request.high)
    low, high = (end if end is not None and end.strip() else None for end in ends)
    values = _values(study, slider, request)
    function = study.function(name)
    study.snapshot.query(Numbers).interval(function, low, high)
    if request.what is Search.INTERSECTIONS:
        study.function(second)
    texts = tuple(written_number(value) for value in values)
    return SweepOrder(slider, request.what, name, second, low, high, texts)


def _values(study: Study, slider: str, request: SweepRequest) -> list[Fraction]:
    if request.family is not None:
        members = study.snapshot.query(Drawables).family_of(request.family).members
        return sorted({member.value for member in members})
    count = _USUAL_COUNT if request.count is None else request.count
    return study.snapshot.query(Searches).sweep_values(slider, count)


def run_sweep(engine: Engine, sweep_id: uuid.UUID) -> None:
    """Do a sweep that waits in the store, and keep its result or why there is none."""
    with session_scope(engine) as session:
        stored = load_sweep(session, sweep_id)
    if stored is None or stored.state is not SweepState.WAITING:
        return
    with sweep_lock(engine, sweep_id):
        _run(engine, sweep_id, stored)


def _run(engine: Engine, sweep_id: uuid.UUID, stored: StoredSweep) -> None:
    progress = _Progress(engine, sweep_id)
    order = msgspec.convert(stored.order, SweepOrder)
    try:
        progress.report(0)
        with deadline_scope(Deadline(time.monotonic, step_s=_STEP_S, total_s=_TOTAL_S)):
            study = Study.from_dict(stored.document)
            values = [study.snapshot.query(Numbers).rational(text) for text in order.values]
            sweep = study.sweep(order.slider, order.search(), values, progress.progress)
        result, state, problem = sweep_dict(sweep, order), SweepState.DONE, ""
    except CancelledError:
        result, state, problem = None, SweepState.CANCELLED, "The sweep was cancelled."
    except StoppedError:
        result, state = None, SweepState.FAILED
        problem = "The sweep took too long. Try fewer values, or a narrower interval."
    except MathError as err:
        result, state, problem = None, SweepState.FAILED, err.message
    with session_scope(engine) as session:
        finish_sweep(session, sweep_id, state, result, problem)


class _Progress:
    """Keeps the progress where the page can see it, and hears whether it is still wanted."""

    def __init__(self, engine: Engine, sweep_id: uuid.UUID) -> None:
        self._engine, self._id = engine, sweep_id
        self._reported_at = 0.0

    def progress(self, done: int) -> None:
        """Note how many values are done, now and then.

        Raises:
            CancelledError: nobody wants it any more.
        """
        if time.monotonic() - self._reported_at >= _REPORT_EVERY_S:
            self.report(done)

    def report(self, done: int) -> None:
        """Note how many values are done."""
        self._reported_at = time.monotonic()
        with session_scope(self._engine) as session:
            if not go_on(session, self._id, done):
                raise CancelledError


def sweep_dict(sweep: Sweep, order: SweepOrder) -> dict[str, Any]:
    """Return a sweep as plain data."""
    return {
        **{name: value for name, value in order.fields().items() if name != "values"},
        "rows": [
            {
                "value": written_number(value).replace("-", "−"),
                "items": [_item(item) for item in one],
                "complete": one.complete,
            }
            for value, one in zip(sweep.values, sweep.findings, strict=True)
        ],
        "branches": [
            {
                "kind": branch.items[-1].kind.value,
                "points": [
                    [float(value), item.x, item.y]
                    for value, item in zip(branch.values, branch.items, strict=True)
                ],
            }
            for branch in sweep.branches
        ],
        "events": [
            {"value": float(event.low + event.high) / 2, "x": event.x, "sentence": event.sentence}
            for event in sweep.events
        ],
        "low_value": float(sweep.values[0]),
        "high_value": float(sweep.values[-1]),
        "complete": sweep.complete,
        "note": sweep.note,
    }


def _item(item: Finding) -> dict[str, Any]:
    return {
        "kind": item.kind.value, "x": item.exact or item.text, "y": item.y_text,
        "proved": item.proved,
    }  # fmt: skip
