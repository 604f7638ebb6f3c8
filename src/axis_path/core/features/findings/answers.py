"""The answers of the Findings panel: what was located, how sure it is, and how one may check it."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import HOME_X
from axis_path.core.errors import MathError, UnknownNameError
from axis_path.core.evaluate import RealFunction
from axis_path.core.features.findings.answer import (
    COUNTED,
    Answer,
    Row,
    further_note,
    is_whole,
    verdict,
)
from axis_path.core.features.findings.answer_rows import is_same, row
from axis_path.core.features.findings.equation_answers import answer_equation
from axis_path.core.features.findings.measures import Measure, Measures
from axis_path.core.features.findings.searches import Searches
from axis_path.core.features.findings.section import QueryKind, SavedQueries, SavedQuery
from axis_path.core.kinds.functions.lane import end_text
from axis_path.core.locate import (
    Findings,
    Interpolation,
    showing,
)

_TITLES = {
    QueryKind.ZEROS: "Zeros",
    QueryKind.EXTREMA: "Extrema",
    QueryKind.INFLECTIONS: "Points of inflection",
    QueryKind.BREAKS: "Breaks",
    QueryKind.CROSSING: "Crossing of the y axis",
    QueryKind.ASYMPTOTES: "Asymptotes",
    QueryKind.INTERSECTIONS: "Intersections",
    QueryKind.POINT: "At a point",
    QueryKind.INTERVAL: "Over an interval",
    QueryKind.DATA: "Data",
}


def answer(snapshot: Snapshot, ask: SavedQuery, *, with_exact: bool = True) -> Answer:
    """Answer a question in the present state of a study; a failure is an answer too.

    Args:
        snapshot: of the study.
        ask: the question.
        with_exact: whether closed forms of solutions are looked for, which takes time.
    """
    with showing(snapshot.section(SavedQueries).digits):
        return _answer(snapshot, ask, with_exact=with_exact)


def _answer(snapshot: Snapshot, ask: SavedQuery, *, with_exact: bool) -> Answer:
    title = _title(snapshot, ask)
    try:
        definition = _line(snapshot, ask.line) if ask.line is not None else None
        if definition is not None and definition.disabled:
            raise UnknownNameError(f"`{definition.name}` is turned off.")
        if ask.what is QueryKind.SOLVE:
            return answer_equation(snapshot, ask, title, with_exact=with_exact)
        return _ANSWERS[ask.what](snapshot, ask, title)
    except MathError as err:
        return Answer(title, problem=err.message)


def _line(snapshot: Snapshot, line_id: int | None) -> Definition:
    found = next((d for d in snapshot.definitions() if d.id == line_id), None)
    if found is None:
        raise UnknownNameError("The line that this was asked of is gone.")
    return found


def _name(snapshot: Snapshot, line_id: int | None) -> str:
    return _line(snapshot, line_id).name or ""


def _title(snapshot: Snapshot, ask: SavedQuery) -> str:
    if ask.what is QueryKind.SOLVE:
        return ask.text.replace("\n", " ; ")
    names = [
        next((d.name or "?" for d in snapshot.definitions() if d.id == each), "?")
        for each in (ask.line, ask.other)
        if each is not None
    ]
    if ask.what is QueryKind.POINT:
        return f"{names[0]} at {ask.text}"
    joined = " and ".join(names)
    return f"{_TITLES[ask.what]} of {joined}" if ask.what is not QueryKind.INTERVAL else (
        f"{joined} over an interval"
    )  # fmt: skip


# Functions and curves

_SEARCHES: dict[QueryKind, Callable[..., Findings]] = {
    QueryKind.ZEROS: Searches.zeros,
    QueryKind.INFLECTIONS: Searches.inflections,
    QueryKind.BREAKS: Searches.breaks,
}


def _of_function(snapshot: Snapshot, ask: SavedQuery, title: str) -> Answer:
    name = _name(snapshot, ask.line)
    function = snapshot.query(Curves).function(name)
    if ask.what is QueryKind.EXTREMA:
        found = snapshot.query(Searches).extrema(name, ask.low, ask.high, at_window=ask.at_window)
    else:
        found = _SEARCHES[ask.what](snapshot.query(Searches), name, ask.low, ask.high)
    rows = tuple(row(ask.what, function, item) for item in found)
    return Answer(
        title, _where(ask, function), function.variable, rows, verdict(ask.what, found),
        is_whole(found), further_note(found),
    )  # fmt: skip


def _of_curves(snapshot: Snapshot, ask: SavedQuery, title: str) -> Answer:
    one, other = _name(snapshot, ask.line), _name(snapshot, ask.other)
    found = snapshot.query(Searches).intersections(one, other, ask.low, ask.high)
    rows = tuple(row(ask.what, None, item) for item in found)
    where = f"{ask.low} ≤ x ≤ {ask.high}" if ask.low and ask.high else ""
    return Answer(
        title, where.replace("-", "−"), "x", rows, verdict(ask.what, found), is_whole(found),
        further_note(found),
    )  # fmt: skip


def _of_data(snapshot: Snapshot, ask: SavedQuery, title: str) -> Answer:
    way = Interpolation.SMOOTH if ask.text == Interpolation.SMOOTH else Interpolation.LINES
    found = snapshot.query(Measures).in_data(_name(snapshot, ask.line), way)
    # That nothing is proved is said once, of all.
    rows = tuple(replace(row(ask.what, None, item), note="") for item in found)
    count = len(found)
    return Answer(
        title, "by a smooth curve" if way is Interpolation.SMOOTH else "by straight lines", "x",
        rows, f"{count} {COUNTED[ask.what][count != 1]}", note=found.note,
    )  # fmt: skip


def _asymptotes(snapshot: Snapshot, ask: SavedQuery, title: str) -> Answer:
    name = _name(snapshot, ask.line)
    found = snapshot.query(Measures).asymptotes(name, ask.low, ask.high)
    rows = tuple(
        Row(
            each.direction.value, each.text,
            x=each.at if each.slope is None else math.nan, proved=each.proved,
            why=_sides(each.sides),
            note="" if each.proved else "it is seen with many digits, not proved",
        )
        for each in found
    )  # fmt: skip
    count = len(found)
    word = COUNTED[ask.what][count != 1]
    add = tuple((f"draw {each.text}", each.text) for each in found)
    return Answer(
        title, _where(ask, snapshot.query(Curves).function(name)), "x", rows,
        f"{count or 'no'} {word}", not found.note and all(each.proved for each in found),
        found.note, add=add,
    )  # fmt: skip


def _crossing(snapshot: Snapshot, ask: SavedQuery, title: str) -> Answer:
    """Return where the graph crosses the y axis."""
    name = _name(snapshot, ask.line)
    value = snapshot.query(Measures).at_point(name, 0).measures[0]
    if not value.text:
        return Answer(title, verdict="It does not cross the y axis", note=f"{value.reason}.")
    is_equal = is_same(value.text, value.decimal)
    row = Row("y =", value.text, value.decimal, is_equal, x=0.0, y=value.value, proved=True)
    return Answer(title, "", snapshot.query(Curves).function(name).variable, (row,), complete=True)


def _sides(sides: tuple[int, ...]) -> tuple[str, ...]:
    if not sides:
        return ()
    words = {-1: "to the left", 1: "to the right"}
    return (f"The graph comes near to it far out {' and '.join(words[side] for side in sides)}.",)


def _where(ask: SavedQuery, function: RealFunction) -> str:
    """Describe where was searched, as it was typed or as the domain stands now."""
    low = ask.low or (end_text(function.low) if function.low else f"{HOME_X[0]:g}")
    high = ask.high or (end_text(function.high) if function.high else f"{HOME_X[1]:g}")
    # An end of the domain that is not a part of it is not searched either.
    signs = [
        "<" if not typed and end is not None and not end.closed else "≤"
        for typed, end in ((ask.low, function.low), (ask.high, function.high))
    ]
    return f"{low} {signs[0]} {function.variable} {signs[1]} {high}".replace("-", "−")


# Equations


# Measures


def _at_point(snapshot: Snapshot, ask: SavedQuery, title: str) -> Answer:
    name = _name(snapshot, ask.line)
    found = snapshot.query(Measures).at_point(name, ask.text)
    place = snapshot.query(Numbers).number(ask.text)
    function = snapshot.query(Curves).function(name)
    x = float(place.value.mid())
    rows = tuple(
        _measure_row(each, x, found.measures[0].value if k == 0 else math.nan)
        for k, each in enumerate(found.measures)
    )
    add = [
        (label, text)
        for label, text in (("tangent", found.tangent), ("normal", found.normal))
        if text
    ]
    note = "" if found.tangent else "There is no tangent here."
    return Answer(title, "", function.variable, rows, note=note, add=tuple(add))


def _measure_row(measure: Measure, x: float = math.nan, y: float = math.nan) -> Row:
    if not measure.text:
        return Row(measure.name, "no value", note=measure.reason)
    return Row(
        measure.name, measure.text, measure.decimal, x=x if not math.isnan(y) else math.nan, y=y
    )


def _over_interval(snapshot: Snapshot, ask: SavedQuery, title: str) -> Answer:
    name = _name(snapshot, ask.line)
    function = snapshot.query(Curves).function(name)
    rows = tuple(
        _measure_row(each)
        for each in snapshot.query(Measures).over_interval(name, ask.low, ask.high)
    )
    return Answer(title, _where(ask, function), function.variable, rows)


_ANSWERS: dict[QueryKind, Callable[[Snapshot, SavedQuery, str], Answer]] = {
    QueryKind.ZEROS: _of_function,
    QueryKind.EXTREMA: _of_function,
    QueryKind.INFLECTIONS: _of_function,
    QueryKind.BREAKS: _of_function,
    QueryKind.CROSSING: _crossing,
    QueryKind.ASYMPTOTES: _asymptotes,
    QueryKind.INTERSECTIONS: _of_curves,
    QueryKind.POINT: _at_point,
    QueryKind.INTERVAL: _over_interval,
    QueryKind.DATA: _of_data,
}
