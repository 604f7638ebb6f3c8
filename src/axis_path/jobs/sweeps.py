"""Sweeps of a finding over a slider: what is asked for is read, done, and given as plain data."""

from __future__ import annotations

import time
import uuid
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from sqlalchemy import Engine

from axis_path.core import Study
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.slider_queries import Sliders
from axis_path.core.deadline import Deadline, deadline_scope
from axis_path.core.errors import FormatError, MathError, StoppedError
from axis_path.core.features.findings.searches import Searches
from axis_path.core.kinds.drawables import Drawables
from axis_path.core.locate import Finding, Search, Sweep, Wanted
from axis_path.core.study import written_number
from axis_path.store import session_scope
from axis_path.store.sweeps import (
    AskedSweep,
    SweepState,
    finish_sweep,
    go_on,
    load_sweep,
    sweep_lock,
)

#: Progress is told, and a request to cancel heard, so often.
_REPORT_EVERY_S = 0.2
#: What one value may take, and all of them together.
_EACH_S, _ALL_S = 10.0, 600.0
_USUAL_COUNT = 61


class CancelledError(Exception):
    """Somebody gave the sweep up."""


@dataclass(frozen=True, slots=True)
class SweepAsk:
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


def check_sweep(study: Study, ask: SweepAsk) -> dict[str, Any]:
    """Return a sweep by names, with its values, as plain data for ``run_sweep``.

    Args:
        study: in the state that is asked about.
        ask: what is asked.

    Raises:
        MathError: it cannot be.
    """
    try:
        return _checked(study, ask)
    except KeyError as err:
        raise FormatError("A line of the sweep is not there any more.") from err


def _checked(study: Study, ask: SweepAsk) -> dict[str, Any]:
    slider, _, _ = study.snapshot.query(Sliders).slider_of(ask.slider)
    name = study.snapshot.definition(ask.line).name or ""
    second = "" if ask.other is None else study.snapshot.definition(ask.other).name or ""
    low, high = (end if end is not None and end.strip() else None for end in (ask.low, ask.high))
    wanted = Wanted(ask.what, name, second, low, high)
    values = _values(study, slider, ask)
    function = study.function(name)
    study.snapshot.query(Numbers).interval(function, low, high)
    if wanted.what is Search.INTERSECTIONS:
        study.function(second)
    return {
        "slider": slider, "what": wanted.what.value, "name": name, "other": second,
        "low": low, "high": high, "values": [written_number(value) for value in values],
    }  # fmt: skip


def _values(study: Study, slider: str, ask: SweepAsk) -> list[Fraction]:
    if ask.family is not None:
        members = study.snapshot.query(Drawables).family_of(ask.family).members
        return sorted({member.value for member in members})
    count = _USUAL_COUNT if ask.count is None else ask.count
    return study.snapshot.query(Searches).sweep_values(slider, count)


def run_sweep(engine: Engine, sweep_id: uuid.UUID) -> None:
    """Do a sweep that waits in the store, and keep its result or why there is none."""
    with session_scope(engine) as session:
        asked = load_sweep(session, sweep_id)
    if asked is None or asked.state is not SweepState.WAITING:
        return
    with sweep_lock(engine, sweep_id):
        _run(engine, sweep_id, asked)


def _run(engine: Engine, sweep_id: uuid.UUID, asked: AskedSweep) -> None:
    progress = _Progress(engine, sweep_id)
    try:
        progress.report(0)
        with deadline_scope(Deadline(time.monotonic, each_s=_EACH_S, all_s=_ALL_S)):
            study = Study.from_dict(asked.document)
            wanted = _wanted(asked.asked)
            values = [
                study.snapshot.query(Numbers).rational(text) for text in asked.asked["values"]
            ]
            found = study.sweep(asked.asked["slider"], wanted, values, progress.progress)
        result, state, problem = sweep_dict(found, asked.asked), SweepState.DONE, ""
    except CancelledError:
        result, state, problem = None, SweepState.CANCELLED, "The sweep was cancelled."
    except StoppedError:
        result, state = None, SweepState.FAILED
        problem = "The sweep took too long. Try fewer values, or a narrower interval."
    except MathError as err:
        result, state, problem = None, SweepState.FAILED, err.message
    with session_scope(engine) as session:
        finish_sweep(session, sweep_id, state, result, problem)


def _wanted(asked: dict[str, Any]) -> Wanted:
    ends = (asked["low"], asked["high"])
    return Wanted(Search(asked["what"]), asked["name"], asked["other"], *ends)


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


def sweep_dict(found: Sweep, asked: dict[str, Any]) -> dict[str, Any]:
    """Return a sweep as plain data."""
    return {
        **{name: asked[name] for name in ("slider", "what", "name", "other", "low", "high")},
        "rows": [
            {
                "value": written_number(value).replace("-", "−"),
                "items": [_item(item) for item in one],
                "complete": one.complete,
            }
            for value, one in zip(found.values, found.found, strict=True)
        ],
        "branches": [
            {
                "kind": branch.items[-1].kind.value,
                "points": [
                    [float(value), item.x, item.y]
                    for value, item in zip(branch.values, branch.items, strict=True)
                ],
            }
            for branch in found.branches
        ],
        "events": [
            {"value": float(event.low + event.high) / 2, "x": event.x, "sentence": event.sentence}
            for event in found.events
        ],
        "low_value": float(found.values[0]),
        "high_value": float(found.values[-1]),
        "complete": found.complete,
        "note": found.note,
    }


def _item(item: Finding) -> dict[str, Any]:
    return {
        "kind": item.kind.value, "x": item.exact or item.text, "y": item.y_text,
        "proved": item.proved,
    }  # fmt: skip
