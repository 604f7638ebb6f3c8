"""Sweeps of a finding over a slider: what is asked for is read, done, and given as plain data."""

from __future__ import annotations

import time
import uuid
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

#: Progress is told, and a wish to cancel heard, so often.
_TELL_EVERY_S = 0.2
#: What one value may take, and all of them together.
_EACH_S, _ALL_S = 10.0, 600.0
_USUAL_COUNT = 61


class CancelledError(Exception):
    """Somebody gave the sweep up."""


def read_sweep(study: Study, given: dict[str, Any]) -> dict[str, Any]:
    """Read what to sweep, and refuse at once what cannot be.

    Args:
        study: in the state that is asked about.
        given: ``slider`` (an id), ``what``, ``line`` and ``other`` (ids of functions), ``low`` and
            ``high`` (texts or None), ``count`` or ``family`` (the id of a line whose values count).

    Returns:
        The same by names, with the number of values, as plain data for ``run_sweep``.

    Raises:
        MathError: it cannot be.
    """
    try:
        return _read(study, given)
    except KeyError as err:
        raise FormatError("A line of the sweep is not there any more.") from err


def _read(study: Study, given: dict[str, Any]) -> dict[str, Any]:
    slider, _, _ = study.snapshot.query(Sliders).slider_of(_id(given, "slider"))
    name = study.snapshot.definition(_id(given, "line")).name or ""
    other = given.get("other")
    second = "" if other is None else study.snapshot.definition(_id(given, "other")).name or ""
    ends = [given.get(end) for end in ("low", "high")]
    low, high = (end if isinstance(end, str) and end.strip() else None for end in ends)
    try:
        wanted = Wanted(Search(str(given.get("what"))), name, second, low, high)
    except ValueError as err:
        raise FormatError("Zeros, extrema or intersections can be followed.") from err
    values = _values(study, slider, given)
    function = study.function(name)
    study.snapshot.query(Numbers).interval(function, low, high)
    if wanted.what is Search.INTERSECTIONS:
        study.function(second)
    return {
        "slider": slider, "what": wanted.what.value, "name": name, "other": second,
        "low": low, "high": high, "values": [written_number(value) for value in values],
    }  # fmt: skip


def _id(given: dict[str, Any], name: str) -> int:
    value = given.get(name)
    if not isinstance(value, int) or isinstance(value, bool):
        raise FormatError(f"The sweep lacks its `{name}`.")
    return value


def _values(study: Study, slider: str, given: dict[str, Any]) -> list[Fraction]:
    if given.get("family") is not None:
        members = study.snapshot.query(Drawables).family_of(_id(given, "family")).members
        return sorted({member.value for member in members})
    count = given.get("count", _USUAL_COUNT)
    if not isinstance(count, int) or isinstance(count, bool):
        raise FormatError("A sweep takes a whole number of values.")
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
    teller = _Teller(engine, sweep_id)
    try:
        teller.tell(0)
        with deadline_scope(Deadline(time.monotonic, each_s=_EACH_S, all_s=_ALL_S)):
            study = Study.from_dict(asked.document)
            wanted = _wanted(asked.asked)
            values = [
                study.snapshot.query(Numbers).rational(text) for text in asked.asked["values"]
            ]
            found = study.sweep(asked.asked["slider"], wanted, values, teller.progress)
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


class _Teller:
    """Keeps the progress where the page can see it, and hears whether it is still wanted."""

    def __init__(self, engine: Engine, sweep_id: uuid.UUID) -> None:
        self._engine, self._id = engine, sweep_id
        self._told = 0.0

    def progress(self, done: int) -> None:
        """Note how many values are done, now and then.

        Raises:
            CancelledError: nobody wants it any more.
        """
        if time.monotonic() - self._told >= _TELL_EVERY_S:
            self.tell(done)

    def tell(self, done: int) -> None:
        """Note how many values are done."""
        self._told = time.monotonic()
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
