"""The answers of the Findings panel: what was located, how sure it is, and how one may check it."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace

from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.compile.units.plane import PlaneUnits
from axis_path.core.draw import HOME_X
from axis_path.core.errors import MathError, UnknownNameError
from axis_path.core.evaluate import RealFunction
from axis_path.core.evaluate.quantities import with_unit
from axis_path.core.features.findings.answer import (
    COUNTED,
    Answer,
    Row,
    further_note,
    is_whole,
    verdict,
)
from axis_path.core.features.findings.answer_rows import extremum_flags, is_same, row
from axis_path.core.features.findings.equation_answers import answer_equation
from axis_path.core.features.findings.measures import Measure, Measures
from axis_path.core.features.findings.searches import Searches
from axis_path.core.features.findings.section import QueryKind, SavedQueries, SavedQuery
from axis_path.core.kinds.functions.lane import end_text
from axis_path.core.lines.sliders import literal
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


def answer(snapshot: Snapshot, saved: SavedQuery, *, with_exact: bool = True) -> Answer:
    """Answer a question in the present state of a study; a failure is an answer too.

    Args:
        snapshot: of the study.
        saved: the query.
        with_exact: whether closed forms of solutions are looked for, which takes time.
    """
    with showing(snapshot.section(SavedQueries).digits):
        return _answer(snapshot, saved, with_exact=with_exact)


def _answer(snapshot: Snapshot, saved: SavedQuery, *, with_exact: bool) -> Answer:
    title = _title(snapshot, saved)
    try:
        definition = _line(snapshot, saved.line) if saved.line is not None else None
        if definition is not None and definition.disabled:
            raise UnknownNameError(f"`{definition.name}` is turned off.")
        if saved.what is QueryKind.SOLVE:
            return answer_equation(snapshot, saved, title, with_exact=with_exact)
        return _ANSWERS[saved.what](snapshot, saved, title)
    except MathError as err:
        return Answer(title, problem=err.message)


def _line(snapshot: Snapshot, line_id: int | None) -> Definition:
    line = next((d for d in snapshot.definitions() if d.id == line_id), None)
    if line is None:
        raise UnknownNameError("The line that this was asked of is gone.")
    return line


def _name(snapshot: Snapshot, line_id: int | None) -> str:
    return _line(snapshot, line_id).name or ""


def _title(snapshot: Snapshot, saved: SavedQuery) -> str:
    if saved.what is QueryKind.SOLVE:
        return saved.text.replace("\n", " ; ")
    names = [
        next((d.name or "?" for d in snapshot.definitions() if d.id == line_id), "?")
        for line_id in (saved.line, saved.other)
        if line_id is not None
    ]
    if saved.what is QueryKind.POINT:
        return f"{names[0]} at {saved.text}"
    joined = " and ".join(names)
    return f"{_TITLES[saved.what]} of {joined}" if saved.what is not QueryKind.INTERVAL else (
        f"{joined} over an interval"
    )  # fmt: skip


# Functions and curves

_SEARCHES: dict[QueryKind, Callable[..., Findings]] = {
    QueryKind.ZEROS: Searches.zeros,
    QueryKind.INFLECTIONS: Searches.inflections,
    QueryKind.BREAKS: Searches.breaks,
}


def _of_function(snapshot: Snapshot, saved: SavedQuery, title: str) -> Answer:
    name = _name(snapshot, saved.line)
    function = snapshot.query(Curves).function(name)
    if saved.what is QueryKind.EXTREMA:
        findings = snapshot.query(Searches).extrema(
            name, saved.low, saved.high, at_window=saved.at_window
        )
    else:
        findings = _SEARCHES[saved.what](snapshot.query(Searches), name, saved.low, saved.high)
    rows = tuple(row(saved.what, function, item) for item in findings)
    if saved.what is QueryKind.EXTREMA:
        numbers = snapshot.query(Numbers)
        low, high = (
            None if end is None else float(numbers.number(end, function.units.variable).value.mid())
            for end in (saved.low, saved.high)
        )
        rows = tuple(
            replace(line, flags=extremum_flags(item, function, (low, high)))
            for line, item in zip(rows, findings, strict=True)
        )
    return Answer(
        title, _where(saved, function), function.variable, rows, verdict(saved.what, findings),
        is_whole(findings), further_note(findings),
    )  # fmt: skip


def _of_curves(snapshot: Snapshot, saved: SavedQuery, title: str) -> Answer:
    one, other = _name(snapshot, saved.line), _name(snapshot, saved.other)
    findings = snapshot.query(Searches).intersections(one, other, saved.low, saved.high)
    units = snapshot.query(PlaneUnits).of(_line(snapshot, saved.line))
    rows = tuple(row(saved.what, None, item, units) for item in findings)
    where = f"{saved.low} ≤ x ≤ {saved.high}" if saved.low and saved.high else ""
    return Answer(
        title, where.replace("-", "−"), "x", rows, verdict(saved.what, findings),
        is_whole(findings), further_note(findings),
    )  # fmt: skip


def _of_data(snapshot: Snapshot, saved: SavedQuery, title: str) -> Answer:
    way = Interpolation.SMOOTH if saved.text == Interpolation.SMOOTH else Interpolation.LINES
    findings = snapshot.query(Measures).in_data(_name(snapshot, saved.line), way)
    # That nothing is proved is said once, of all.
    units = snapshot.query(PlaneUnits).of(_line(snapshot, saved.line))
    rows = tuple(replace(row(saved.what, None, item, units), note="") for item in findings)
    count = len(findings)
    return Answer(
        title, "by a smooth curve" if way is Interpolation.SMOOTH else "by straight lines", "x",
        rows, f"{count} {COUNTED[saved.what][count != 1]}", note=findings.note,
    )  # fmt: skip


def _asymptotes(snapshot: Snapshot, saved: SavedQuery, title: str) -> Answer:
    name = _name(snapshot, saved.line)
    asymptotes = snapshot.query(Measures).asymptotes(name, saved.low, saved.high)
    rows = tuple(
        Row(
            asymptote.direction.value, asymptote.text,
            x=asymptote.at if asymptote.slope is None else math.nan, proved=asymptote.proved,
            why=_sides(asymptote.sides),
            note="" if asymptote.proved else "it is seen with many digits, not proved",
        )
        for asymptote in asymptotes
    )  # fmt: skip
    count = len(asymptotes)
    word = COUNTED[saved.what][count != 1]
    add = tuple((f"draw {asymptote.text}", asymptote.text) for asymptote in asymptotes)
    return Answer(
        title, _where(saved, snapshot.query(Curves).function(name)), "x", rows,
        f"{count or 'no'} {word}",
        not asymptotes.note and all(asymptote.proved for asymptote in asymptotes),
        asymptotes.note, add=add,
    )  # fmt: skip


def _crossing(snapshot: Snapshot, saved: SavedQuery, title: str) -> Answer:
    """Return where the graph crosses the y axis."""
    name = _name(snapshot, saved.line)
    value = snapshot.query(Measures).at_point(name, 0).measures[0]
    if not value.text:
        return Answer(title, verdict="It does not cross the y axis", note=f"{value.reason}.")
    is_equal = is_same(value.text, value.decimal)
    row = Row(
        "y =", value.text, value.decimal, is_equal, x=0.0, y=value.value, proved=True,
        unit=value.unit,
    )  # fmt: skip
    return Answer(title, "", snapshot.query(Curves).function(name).variable, (row,), complete=True)


def _sides(sides: tuple[int, ...]) -> tuple[str, ...]:
    if not sides:
        return ()
    words = {-1: "to the left", 1: "to the right"}
    return (f"The graph comes near to it far out {' and '.join(words[side] for side in sides)}.",)


def _where(saved: SavedQuery, function: RealFunction) -> str:
    """Describe where was searched, as it was typed or as the domain stands now."""
    low = saved.low or (end_text(function.low) if function.low else f"{HOME_X[0]:g}")
    high = saved.high or (end_text(function.high) if function.high else f"{HOME_X[1]:g}")
    # An end of the domain that is not a part of it is not searched either.
    signs = [
        "<" if not typed and end is not None and not end.closed else "≤"
        for typed, end in ((saved.low, function.low), (saved.high, function.high))
    ]
    unit = function.units.variable.printed
    low, high = (with_unit(end, unit) if literal(end) is not None else end for end in (low, high))
    return f"{low} {signs[0]} {function.variable} {signs[1]} {high}".replace("-", "−")


# Equations


# Measures


def _at_point(snapshot: Snapshot, saved: SavedQuery, title: str) -> Answer:
    name = _name(snapshot, saved.line)
    facts = snapshot.query(Measures).at_point(name, saved.text)
    function = snapshot.query(Curves).function(name)
    abscissa = snapshot.query(Numbers).number(saved.text, function.units.variable)
    x = float(abscissa.value.mid())
    rows = tuple(
        _measure_row(measure, x, facts.measures[0].value if k == 0 else math.nan)
        for k, measure in enumerate(facts.measures)
    )
    add = [
        (label, text)
        for label, text in (("tangent", facts.tangent), ("normal", facts.normal))
        if text
    ]
    note = "" if facts.tangent else "There is no tangent here."
    return Answer(title, "", function.variable, rows, note=note, add=tuple(add))


def _measure_row(measure: Measure, x: float = math.nan, y: float = math.nan) -> Row:
    if not measure.text:
        return Row(measure.name, "no value", note=measure.reason)
    return Row(
        measure.name, measure.text, measure.decimal, x=x if not math.isnan(y) else math.nan, y=y,
        unit=measure.unit,
    )  # fmt: skip


def _over_interval(snapshot: Snapshot, saved: SavedQuery, title: str) -> Answer:
    name = _name(snapshot, saved.line)
    function = snapshot.query(Curves).function(name)
    rows = tuple(
        _measure_row(measure)
        for measure in snapshot.query(Measures).over_interval(name, saved.low, saved.high)
    )
    return Answer(title, _where(saved, function), function.variable, rows)


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
