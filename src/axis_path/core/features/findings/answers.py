"""The answers of the Findings panel: what was located, how sure it is, and how one may check it."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from fractions import Fraction

from flint import fmpq

from axis_path.core.arithmetic import precision
from axis_path.core.compile.curves import Curves
from axis_path.core.compile.definition import Definition
from axis_path.core.compile.numbers import Numbers
from axis_path.core.compile.snapshot import Snapshot
from axis_path.core.draw import HOME_X
from axis_path.core.errors import EquationError, MathError, StoppedError, UnknownNameError
from axis_path.core.evaluate import VALUE_BITS, RealFunction
from axis_path.core.features.findings.measures import Measure, Measures
from axis_path.core.features.findings.searches import Searches
from axis_path.core.features.findings.section import QueryKind, SavedQueries, SavedQuery
from axis_path.core.features.findings.solver import Solver
from axis_path.core.kinds.functions.lane import end_text
from axis_path.core.kinds.states import States
from axis_path.core.locate import (
    Finding,
    Findings,
    Interpolation,
    Kind,
    LinearSolution,
    Outcome,
    Stretch,
    place_of,
    place_text,
    showing,
    value_text,
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
#: What the answers to a question are called: one, and several.
_COUNTED = {
    QueryKind.ZEROS: ("zero", "zeros"),
    QueryKind.EXTREMA: ("extremum", "extrema"),
    QueryKind.INFLECTIONS: ("point of inflection", "points of inflection"),
    QueryKind.BREAKS: ("break", "breaks"),
    QueryKind.ASYMPTOTES: ("asymptote", "asymptotes"),
    QueryKind.INTERSECTIONS: ("intersection", "intersections"),
    QueryKind.SOLVE: ("solution", "solutions"),
    QueryKind.DATA: ("finding", "findings"),
}
_SMALL = ("no", "exactly one", "exactly two")


@dataclass(frozen=True, slots=True)
class Row:
    """One line of an answer.

    Attributes:
        label: what it is: ``minimum``, ``x``, ``mean value``.
        text: the place or the number, exact where that is known.
        decimal: the same in the study's digits, if the text is an exact form.
        is_equal: whether the decimal is the number itself.
        value: what belongs to it: the value at a place.
        x: where it stands on the plane, NaN if nowhere; ``y`` likewise.
        proved: whether it is proved; None where nothing is to be proved.
        why: sentences of what it is and by what it is sure, for who opens it.
        note: why it is not proved, or has no value.
        flags: ``global``, ``end``, ``double``, as they are shown beside it.
    """

    label: str
    text: str
    decimal: str = ""
    is_equal: bool = False
    value: str = ""
    x: float = math.nan
    y: float = math.nan
    proved: bool | None = None
    why: tuple[str, ...] = ()
    note: str = ""
    flags: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Span:
    """A stretch of numbers that is shown on a lane."""

    low: float
    high: float
    low_closed: bool
    high_closed: bool


@dataclass(frozen=True, slots=True)
class Answer:
    """The answer to one question.

    Attributes:
        title: what was asked.
        where: over which interval.
        variable: what the places are called.
        rows: one for each finding.
        verdict: whether these are all, in words; empty where there is no such question.
        complete: whether that is proved.
        note: what else is known, or not certain.
        problem: why there is no answer; empty if there is one.
        spans: of an inequality, for the lane.
        draw: both sides of an equation as texts, to be drawn; empty for others.
        mathml: the equations that were asked, typeset; empty for other questions.
        add: definitions that may be added: (what it is, text).
    """

    title: str
    where: str = ""
    variable: str = "x"
    rows: tuple[Row, ...] = ()
    verdict: str = ""
    complete: bool = False
    note: str = ""
    problem: str = ""
    spans: tuple[Span, ...] = ()
    draw: tuple[str, ...] = ()
    mathml: tuple[str, ...] = ()
    add: tuple[tuple[str, str], ...] = ()


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
        if definition is not None and definition.aside:
            raise UnknownNameError(f"`{definition.name}` is set aside.")
        if ask.what is QueryKind.SOLVE:
            return _solve(snapshot, ask, title, with_exact=with_exact)
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
    rows = tuple(_row(ask.what, function, item) for item in found)
    return Answer(
        title, _where(ask, function), function.variable, rows, _verdict(ask.what, found),
        _is_whole(found), _note(found),
    )  # fmt: skip


def _of_curves(snapshot: Snapshot, ask: SavedQuery, title: str) -> Answer:
    one, other = _name(snapshot, ask.line), _name(snapshot, ask.other)
    found = snapshot.query(Searches).intersections(one, other, ask.low, ask.high)
    rows = tuple(_row(ask.what, None, item) for item in found)
    where = f"{ask.low} ≤ x ≤ {ask.high}" if ask.low and ask.high else ""
    return Answer(
        title, where.replace("-", "−"), "x", rows, _verdict(ask.what, found), _is_whole(found),
        _note(found),
    )  # fmt: skip


def _of_data(snapshot: Snapshot, ask: SavedQuery, title: str) -> Answer:
    way = Interpolation.SMOOTH if ask.text == Interpolation.SMOOTH else Interpolation.LINES
    found = snapshot.query(Measures).in_data(_name(snapshot, ask.line), way)
    # That nothing is proved is said once, of all.
    rows = tuple(replace(_row(ask.what, None, item), note="") for item in found)
    count = len(found)
    return Answer(
        title, "by a smooth curve" if way is Interpolation.SMOOTH else "by straight lines", "x",
        rows, f"{count} {_COUNTED[ask.what][count != 1]}", note=found.note,
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
    word = _COUNTED[ask.what][count != 1]
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
    is_equal = _is_same(value.text, value.decimal)
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


def _is_whole(found: Findings) -> bool:
    """Check whether it is proved that there is nothing but what is told."""
    return found.complete or bool(found.along)


def _note(found: Findings) -> str:
    """Return what is to be said beside the verdict, which tells where it is so all along."""
    return found.note.replace(found.along, "").strip() if found.along else found.note


def _verdict(what: QueryKind, found: Findings) -> str:
    if found.holds_always and not found.along:
        return found.note
    one, many = _COUNTED[what]
    count = len(found)
    if found.along:
        more = "" if not count else f", and {count} more {one if count == 1 else many}"
        return f"Proved: {found.along[0].lower()}{found.along[1:].rstrip('.')}{more}"
    if found.complete:
        words = _SMALL[count] if count < len(_SMALL) else f"exactly {count}"
        return f"Proved: {words} {one if count <= 1 else many}"
    proved = sum(item.proved for item in found)
    return f"Not complete: {count} found, {proved} of them proved"


def _row(what: QueryKind, function: RealFunction | None, item: Finding) -> Row:
    """Return a finding as a line of the answer."""
    exact = item.exact if item.exact != item.text else None
    label = item.kind.value if what in (QueryKind.EXTREMA, QueryKind.BREAKS, QueryKind.DATA) else ""
    flags = [
        word for word, is_so in (("global", item.is_global), ("at an end", item.at_end)) if is_so
    ]
    if item.multiplicity is not None and item.multiplicity > 1:
        order = {2: "double", 3: "triple"}.get(item.multiplicity, f"order {item.multiplicity}")
        flags.append("touches" if what is QueryKind.INTERSECTIONS else order)
    value = item.y_text if _is_same(item.y_exact, item.y_text) else item.y_exact or item.y_text
    shows_value = item.kind not in (Kind.ZERO,) and bool(item.y_exact or item.y_text)
    return Row(
        label, exact or item.text, item.text if exact else "",
        _is_same(exact, item.text),
        value if shows_value else "",
        item.x, 0.0 if item.kind is Kind.ZERO and what is not QueryKind.DATA else item.y,
        item.proved, _reasons(function, item), item.note, tuple(flags),
    )  # fmt: skip


def _is_same(exact: str | None, decimal: str) -> bool:
    """Check whether a decimal is the very fraction that stands beside it."""
    try:
        return bool(exact) and Fraction(_ascii(exact or "")) == Fraction(_ascii(decimal))
    except ValueError:
        return False


def _ascii(number: str) -> str:
    return number.replace("−", "-").replace("·10^", "e")


def _reasons(function: RealFunction | None, item: Finding) -> tuple[str, ...]:
    """Describe by what a finding is sure, and put it in."""
    said: list[str] = []
    low, high = item.bracket
    if item.kind in (Kind.ZERO, Kind.SOLUTION) and item.proved:
        order = item.multiplicity
        if order is not None and order % 2 == 0:
            said.append("It touches here: the sign is the same on both sides.")
        elif order == 1:
            said.append("The sign changes here, and the slope keeps its sign all over the bracket.")
        elif order is not None:
            said.append(f"The first {order - 1} derivatives are zero here too; the next is not.")
    elif item.why:
        said.append(f"{item.why[0].upper()}{item.why[1:]}.")
    if item.exact:
        said.append(f"It is exactly {item.exact}.")
    elif low < high:
        said.append(f"It lies in a bracket {high - low:.1g} wide.".replace("e-", "·10^−"))
    if function is not None and item.kind is Kind.ZERO:
        said.append(_put_in(function, item))
    return tuple(each for each in said if each)


def _put_in(function: RealFunction, item: Finding) -> str:
    """Put a zero into its function."""
    if item.exact and "√" in item.exact:
        return f"Put in: {function.name}({item.exact}) = 0, for it is a root of a quadratic factor."
    with precision(VALUE_BITS):
        try:
            value = function.prove(place_of(item.exact, *item.bracket))
        except StoppedError:
            # What was found before the time was over is told without.
            return ""
        if not value.is_defined:
            return ""
        called = f"{function.name}({item.exact or item.text})"
        if value.exact is not None:
            return f"Put in: {called} = {value_text(value)}."
        size = float(abs(value.value).upper())
    if size == 0:
        return f"Put in: {called} = 0."
    if not math.isfinite(size):
        # The digits that are known of the place are too few for the function.
        return ""
    # The least power of ten that is not below it.
    power = math.ceil(math.log10(size))
    return f"Put in: {called} lies within 10^{power} of 0.".replace("^-", "^−")


# Equations


def _solve(snapshot: Snapshot, ask: SavedQuery, title: str, *, with_exact: bool) -> Answer:
    texts = [line.strip() for line in ask.text.splitlines() if line.strip()]
    if not texts:
        raise EquationError("Nothing is written here yet.")
    if len(texts) > 1:
        return _system(snapshot, ask, title, texts)
    equation = snapshot.query(Solver).equation(texts[0], ask.unknown or None)
    unknown = equation.unknown
    sides = tuple(part.strip() for part in _split(texts[0]))
    is_on_axis = unknown == "x" or any(
        d.variable == unknown for d, _ in snapshot.query(States).functions()
    )
    draw = _drawn(snapshot, sides, unknown) if equation.is_equation else ()
    where = _between(ask, unknown)
    if not equation.is_equation:
        found = snapshot.query(Solver).solve_inequality(
            texts[0], ask.unknown or None, ask.low, ask.high, with_exact=with_exact
        )
        rows = tuple(_stretch_row(each, unknown) for each in found.items)
        spans = tuple(
            Span(s.low.x, s.high.x, s.low_closed, s.high_closed) for s in found.items if is_on_axis
        )
        count = len(rows)
        words = "nowhere" if not count else f"in {count} stretch{'es' if count > 1 else ''}"
        verdict = f"{'Proved' if found.complete else 'Not proved'}: it holds {words}"
        cut = any(
            (s.is_cut_low and ask.low is None) or (s.is_cut_high and ask.high is None)
            for s in found.items
        )
        note = found.note or ("It may go on beyond what was searched." if cut else "")
        return Answer(
            title, where or "everywhere", unknown, rows, verdict, found.complete, note, spans=spans,
            mathml=(equation.mathml,),
        )  # fmt: skip
    found_all = snapshot.query(Solver).solve(
        texts[0], ask.unknown or None, ask.low, ask.high, with_exact=with_exact
    )
    rows = tuple(_solution_row(item, is_on_axis=is_on_axis) for item in found_all)
    return Answer(
        title, where or "everywhere", unknown, rows, _verdict(ask.what, found_all),
        _is_whole(found_all), "" if found_all.holds_always else _note(found_all), draw=draw,
    )  # fmt: skip


def _drawn(snapshot: Snapshot, sides: tuple[str, ...], unknown: str) -> tuple[str, ...]:
    """Write both sides of an equation as functions of its unknown."""
    if unknown == "x":
        return sides
    names = [name for k in ("", *map(str, range(2, 99))) for name in (f"left{k}", f"right{k}")]
    taken = set(snapshot.names())
    free = [pair for pair in zip(names[::2], names[1::2], strict=True) if taken.isdisjoint(pair)]
    return tuple(f"{name}({unknown}) = {side}" for name, side in zip(free[0], sides, strict=True))


def _split(text: str) -> list[str]:
    return text.split("=") if text.count("=") == 1 else []


def _between(ask: SavedQuery, unknown: str) -> str:
    parts = (f"{ask.low} ≤ " if ask.low else "", unknown, f" ≤ {ask.high}" if ask.high else "")
    return "".join(parts).replace("-", "−") if ask.low or ask.high else ""


def _solution_row(item: Finding, *, is_on_axis: bool) -> Row:
    exact = item.exact if item.exact != item.text else None
    said = _reasons(None, item)
    if item.y_text:
        said = (*said, f"Put in: both sides are {item.y_text}.")
    return Row(
        "",
        exact or item.text,
        item.text if exact else "",
        _is_same(exact, item.text),
        x=item.x if is_on_axis else math.nan,
        y=item.y if is_on_axis else math.nan,
        proved=item.proved,
        why=said,
        note=item.note,
        flags=("double",) if item.multiplicity == 2 else (),
    )


def _stretch_row(stretch: Stretch, unknown: str) -> Row:
    low, high = stretch.low, stretch.high
    if low == high:
        return Row("", f"{unknown} = {low.exact or low.text}", x=low.x, y=0.0, proved=True)
    ends = []
    for place, closed, is_low in (
        (low, stretch.low_closed, True),
        (high, stretch.high_closed, False),
    ):
        sign = "≤" if closed else "<"
        text = place.exact or place.text
        ends.append(
            "" if math.isinf(place.x) else f"{text} {sign} " if is_low else f" {sign} {text}"
        )
    if not any(ends):
        return Row("", f"every {unknown}", proved=True)
    decimals = [
        place.text for place in (low, high) if place.exact and place.exact != place.text
        and not math.isinf(place.x)
    ]  # fmt: skip
    return Row("", f"{ends[0]}{unknown}{ends[1]}", "; ".join(decimals), proved=True)


def _system(snapshot: Snapshot, ask: SavedQuery, title: str, texts: list[str]) -> Answer:
    solved = snapshot.query(Solver).solve_system(texts, ask.low, ask.high)
    names = solved.unknowns
    typeset = snapshot.query(Solver).typeset_system(texts)
    if solved.findings is not None:
        rows = tuple(
            Row(
                f"({', '.join(names)})", f"({i.exact or i.text}, {i.y_exact or i.y_text})",
                x=i.x if names == ("x", "y") else math.nan,
                y=i.y if names == ("x", "y") else math.nan,
                proved=i.proved, note=i.note,
                why=("Krawczyk's operator maps its box into itself, so it holds just one.",)
                if i.proved else (),
            )
            for i in solved.findings
        )  # fmt: skip
        return Answer(
            title, "", names[0], rows, solved.sentence, solved.findings.complete,
            solved.findings.note,
            mathml=typeset,
        )  # fmt: skip
    rows = _linear_rows(solved.linear, names)
    is_known = solved.linear is not None and solved.linear.outcome is not Outcome.UNDECIDED
    return Answer(title, "", names[0], rows, solved.sentence, is_known, mathml=typeset)


def _linear_rows(solution: LinearSolution | None, names: tuple[str, ...]) -> tuple[Row, ...]:
    if solution is None or solution.outcome not in (Outcome.ONE, Outcome.MANY):
        return ()
    if solution.values:
        places = {
            name: float(v.value.mid()) for name, v in zip(names, solution.values, strict=True)
        }
        x, y = (places.get(name, math.nan) for name in "xy") if len(names) == 2 else (math.nan,) * 2
        rows = []
        for name, value in zip(names, solution.values, strict=True):
            text, plain = value_text(value), place_text(value)
            decimal = "" if plain == text else plain
            is_equal = _is_same(text, plain)
            rows.append(Row(name, text, decimal, is_equal, x=x, y=y, proved=True))
        return tuple(rows)
    rows = []
    for name, (constant, factors) in zip(names, solution.general, strict=True):
        if names.index(name) in solution.free:
            rows.append(Row(name, "any number", proved=True))
            continue
        free = [names[k] for k in solution.free]
        terms = [str(constant).replace("-", "−")] if constant != 0 else []
        for factor, letter in zip(factors, free, strict=True):
            if factor != 0:
                size = (
                    ""
                    if abs(factor) == 1
                    else f"({abs(factor)})"
                    if "/" in str(factor)
                    else str(abs(factor))
                )
                sign = ("−" if factor < 0 else "+") if terms else ("−" if factor < 0 else "")
                terms.append(f"{sign} {size}{letter}" if terms else f"{sign}{size}{letter}")
        rows.append(Row(name, " ".join(terms) or "0", proved=True))
    return tuple(rows)


def _term(factor: fmpq, letter: str, *, is_first: bool) -> str:
    """Write a factor of a free unknown, with its sign."""
    size = str(abs(factor))
    written = letter if size == "1" else f"({size}){letter}" if "/" in size else f"{size}{letter}"
    if is_first:
        return f"−{written}" if factor < 0 else written
    return f"{'−' if factor < 0 else '+'} {written}"


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
