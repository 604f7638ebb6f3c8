"""The Findings panel as plain data: the ledger, and its marks on the plane and the lanes."""

from __future__ import annotations

import math
import time
import uuid
from contextlib import suppress
from dataclasses import asdict, dataclass, replace
from threading import Lock
from typing import Any

import numpy as np
from cachetools import LRUCache

from axis_path.bench.job import Job
from axis_path.bench.request import BenchRequest, realise
from axis_path.bench.requests import FindingsQuery
from axis_path.core import Study, Window
from axis_path.core.deadline import calculation, timeout_scope
from axis_path.core.draw import Flag, place_labels
from axis_path.core.draw.pixels import PER_PX
from axis_path.core.errors import MathError, StoppedError
from axis_path.core.evaluate.quantities import with_unit
from axis_path.core.features.findings.answer import Check
from axis_path.core.features.findings.section import SavedQueries
from axis_path.core.language import Vocabulary, latex, read_expression
from axis_path.core.limits import FOLLOWING_TIME
from axis_path.core.study import Answer, QueryKind, Row, SavedQuery, answer

#: So many lines of an answer are sent; the whole is asked for when it is copied.
_MOST_ROWS = 120
_MOST_MARKS = 400
_MOST_COSTS, _FORGOTTEN = 4_000, 0.97
_LABEL_DIGITS = 4


@dataclass(frozen=True, slots=True)
class _Mark:
    """One place of the ledger on the plane, in px."""

    saved: SavedQuery
    row_index: int
    row: Row
    x: float
    y: float


class Costs:
    """How long answers took the last time, in seconds, by the study and the question."""

    def __init__(self) -> None:
        self._spent: LRUCache[tuple[uuid.UUID, SavedQuery], float] = LRUCache(_MOST_COSTS)
        self._lock = Lock()

    def of(self, study_id: uuid.UUID, saved: SavedQuery) -> float:
        """Return how long an answer will probably take; 0 for one that was not given yet."""
        with self._lock:
            return self._spent.get((study_id, _bare(saved)), 0.0)

    def note(self, study_id: uuid.UUID, saved: SavedQuery, seconds: float) -> None:
        """Keep how long an answer took."""
        with self._lock:
            self._spent[study_id, _bare(saved)] = seconds


def _bare(saved: SavedQuery) -> SavedQuery:
    return replace(saved, note="", labels=())


_costs = Costs()


def following_dict(
    request: BenchRequest[Any], study_id: uuid.UUID, *, spent: float, with_texts: bool
) -> dict[str, Any]:
    """Return the answers that keep up with a drag, and say which come when it rests.

    Args:
        request: the state the pointer has come to.
        study_id: whose answers took how long.
        spent: how long the picture took, in seconds: one that takes long leaves no time for more.
        with_texts: whether the ledger is seen, or only its marks on the plane.
    """
    study = request.study
    answers, late = [], []
    left = FOLLOWING_TIME.value / 1000 - spent
    for saved in study.snapshot.section(SavedQueries).queries:
        began = time.perf_counter()
        made = None
        expected = _costs.of(study_id, saved)
        if expected > left:
            # A busy moment is forgotten in time.
            _costs.note(study_id, saved, _FORGOTTEN * expected)
        else:
            with suppress(StoppedError), timeout_scope(left):
                made = answer(study.snapshot, saved, with_exact=False)
            took = time.perf_counter() - began
            # What was stopped on the way is no answer, and would have taken longer.
            made = made if took <= left else None
            _costs.note(study_id, saved, took if made else max(expected, 2 * took))
            left -= took
        if made is None:
            late.append(saved.id)
        else:
            answers.append((saved, made))
    texts = [_entry(saved, made, is_whole=False) for saved, made in answers] if with_texts else []
    return {"findings": texts, "late": late, **_on_plane(request, answers)}


def _on_plane(
    request: BenchRequest[Any], answers: list[tuple[SavedQuery, Answer]]
) -> dict[str, Any]:
    definitions = request.study.definitions()
    tones = {d.id: d.tone for d in definitions}
    hidden = {d.id for d in definitions if d.hidden}
    return {
        "marks": _marks(request.study, request.window, answers, tones, hidden),
        "spans": _spans(request.window, answers),
    }


def all_findings(job: Job, query: FindingsQuery) -> dict[str, Any]:
    """Return every question that is stored with its answer now, and what stands on the plane."""
    request, study_id, whole = realise(job, query), job.study_id, query.whole
    study = request.study
    # While something moves there is no time to look for closed forms; they come when it rests.
    is_at_rest = not query.drafts and not query.visits
    answers = []
    for saved in study.snapshot.section(SavedQueries).queries:
        began = time.perf_counter()
        answers.append((saved, _answered(study, saved, with_exact=is_at_rest)))
        if not (is_at_rest and saved.what is QueryKind.SOLVE):
            _costs.note(study_id, saved, time.perf_counter() - began)
    return {
        "version": request.version,
        "findings": [_entry(saved, made, is_whole=saved.id == whole) for saved, made in answers],
        **_on_plane(request, answers),
    }


def plane_marks(request: BenchRequest[Any]) -> dict[str, Any]:
    """Return what was located as it stands on the plane: marks with their labels, and spans."""
    study = request.study
    answers = [
        (saved, _answered(study, saved, with_exact=False))
        for saved in study.snapshot.section(SavedQueries).queries
    ]
    return _on_plane(request, answers)


def _answered(study: Study, saved: SavedQuery, *, with_exact: bool) -> Answer:
    try:
        with calculation():
            return answer(study.snapshot, saved, with_exact=with_exact)
    except MathError as err:
        return Answer(saved.text or saved.what.value, problem=err.message)


def _entry(saved: SavedQuery, made: Answer, *, is_whole: bool) -> dict[str, Any]:
    rows = made.rows if is_whole else made.rows[:_MOST_ROWS]
    return {
        "id": saved.id, "what": saved.what.value, "line": saved.line, "other": saved.other,
        "low": saved.low, "high": saved.high, "text": saved.text, "unknown": saved.unknown,
        "title": made.title,
        "mathml": made.mathml, "where": made.where, "variable": made.variable,
        "verdict": made.verdict, "complete": made.complete, "note": made.note,
        "problem": made.problem, "rows": [_row(row) for row in rows], "total": len(made.rows),
        "draw": list(made.draw), "add": [{"label": a, "text": b} for a, b in made.add],
        "checks": [_check(checks, k, made) for k, checks in enumerate(made.checks) if checks],
        "remark": saved.note, "labels": list(saved.labels),
    }  # fmt: skip


def _check(checks: tuple[Check, ...], place: int, made: Answer) -> dict[str, Any]:
    return {
        "label": f"Solution {place + 1}" if len(made.checks) > 1 else "",
        "equations": [asdict(check) for check in checks],
    }


def _row(row: Row) -> dict[str, Any]:
    return {
        "label": row.label, "text": with_unit(row.text, row.unit),
        "decimal": with_unit(row.decimal, row.unit) if row.decimal else "",
        "is_equal": row.is_equal,
        "value": with_unit(row.value, row.value_unit) if row.value else "",
        "x": _number(row.x), "y": _number(row.y), "proved": row.proved, "why": list(row.why),
        "note": row.note, "flags": list(row.flags), "latex": _latex(row.text),
    }  # fmt: skip


def _number(value: float) -> float | None:
    return value if math.isfinite(value) else None


def _latex(text: str) -> str:
    """Write an exact form or a decimal as LaTeX; what does not read as an expression stays."""
    try:
        parts = [latex(read_expression(part, Vocabulary())) for part in text.split(" ± ")]
        return r" \pm ".join(parts)
    except MathError:
        return text


def _marks(
    study: Study, window: Window, answers: list[tuple[SavedQuery, Answer]],
    tones: dict[int, int | None], hidden: set[int],
) -> list[dict[str, Any]]:  # fmt: skip
    marks: list[_Mark] = []
    for saved, made in answers:
        if saved.line in hidden or (saved.what is QueryKind.SOLVE and not made.rows):
            continue
        for row_index, row in enumerate(made.rows):
            if math.isfinite(row.x) and math.isfinite(row.y):
                x = float(window.across(np.array([row.x]))[0])
                y = float(window.down(np.array([row.y]))[0])
                if 0 <= x <= window.width and 0 <= y <= window.height:
                    marks.append(_Mark(saved, row_index, row, x, y))
    marks = marks[:_MOST_MARKS]
    texts = [_label(mark) if mark.row_index in mark.saved.labels else "" for mark in marks]
    curves: list[list[int]] = []
    flags: list[Flag] = []
    if any(texts):
        for shown in study.scene(window).rows:
            curves += (shown.get("curve") or {}).get("pieces", [])
            if shown.get("flag"):
                flags.append(Flag(**shown["flag"]))
    positions = place_labels([(mark.x, mark.y) for mark in marks], texts, curves, window, flags)
    return [
        {
            "query": mark.saved.id, "row": mark.row_index, "kind": _kind(mark),
            "proved": mark.row.proved,
            "x": round(mark.x * PER_PX), "y": round(mark.y * PER_PX), "value": mark.row.x,
            "line": mark.saved.line, "other": mark.saved.other, "name": _label(mark),
            "tone": tones.get(mark.saved.line or 0), "text": text, "at": at,
        }
        for mark, text, at in zip(marks, texts, positions, strict=True)
    ]  # fmt: skip


def _kind(mark: _Mark) -> str:
    return mark.row.label if mark.row.label in _KINDS else mark.saved.what.value


_KINDS = {"minimum", "maximum", "pole", "hole", "jump", "end", "zero"}


def _label(mark: _Mark) -> str:
    """Write where a mark stands, short."""
    x, y = (f"{value + 0.0:.{_LABEL_DIGITS}g}" for value in (mark.row.x, mark.row.y))
    on_axis = mark.row.y == 0 and mark.saved.what in (QueryKind.ZEROS, QueryKind.BREAKS)
    return (x if on_axis else f"({x}, {y})").replace("-", "−")


def _spans(window: Window, answers: list[tuple[SavedQuery, Answer]]) -> list[dict[str, Any]]:
    """Return the intervals of inequalities in tenths of a pixel, cut at the window."""
    spans = []
    for saved, made in answers:
        for span in made.spans:
            low, high = max(span.low, window.x[0]), min(span.high, window.x[1])
            if low > high:
                continue
            ends = window.across(np.array([low, high])) * PER_PX
            spans.append({
                "query": saved.id, "low": round(float(ends[0])), "high": round(float(ends[1])),
                "low_end": _end(span.low, span.low_closed, window),
                "high_end": _end(span.high, span.high_closed, window),
            })  # fmt: skip
    return spans


def _end(value: float, is_closed: bool, window: Window) -> str:
    """Return how an end is drawn: not at all where the interval goes on beyond the window."""
    if not window.x[0] <= value <= window.x[1]:
        return ""
    return "closed" if is_closed else "open"
