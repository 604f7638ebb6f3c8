"""Everything the bench draws, as plain data, for one state of the study.

All of a scene belongs to one set of slider values: curves, lanes, marks, readings and texts are
computed together, so that nothing on the screen can be older than the rest.
"""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from threading import Lock
from typing import Any

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, ball, precision
from axis_path.core.draw import (
    Curve,
    Ticks,
    Window,
    make_ticks,
    plain,
    sample_curve,
)
from axis_path.core.draw.pixels import (
    PER_PX,
    band_tenths,
    last_visible_point,
    piece_tenths,
    place_flags,
    tenths_across,
    tenths_down,
)
from axis_path.core.errors import MathError
from axis_path.core.evaluate import VALUE_BITS, End, RealFunction, decimal_text, digits_of
from axis_path.core.limits import MARK_CELLS
from axis_path.core.locate import Findings, Interval, find_zeros, written
from axis_path.core.study.analysis import Kind
from axis_path.core.study.definition import Definition
from axis_path.core.study.domains import round_to_px
from axis_path.core.study.sliders import written_number

Floats = NDArray[np.float64]
READING_DIGITS = 5
_END_DIGITS = 4
_KEPT_MARKS = 256


@dataclass(frozen=True, slots=True)
class State:
    """A study in one state of its sliders.

    Attributes:
        functions: the functions that work, by the id of their line.
        problems: further problems that only the values of the sliders make, by id.
        computed: the values of parameters that are computed from others, as text, by id.
    """

    definitions: list[Definition]
    functions: dict[int, RealFunction]
    problems: dict[int, MathError]
    computed: dict[int, str]


@dataclass(frozen=True, slots=True)
class Scene:
    """What the bench draws; every place is in tenths of a pixel.

    Attributes:
        window: the window it was made for.
        axes: grid, ticks and the axes themselves.
        rows: one entry for each line, in order: its text, what it means, its curve and its lane.
        sliders: the parameters with a slider.
        reading: the reading line, None if there is none.
        empty: why nothing is drawn, None if something is.
    """

    window: Window
    axes: dict[str, Any]
    rows: list[dict[str, Any]]
    sliders: list[dict[str, Any]]
    reading: dict[str, Any] | None
    empty: str | None

    def to_dict(self) -> dict[str, Any]:
        """Give the scene as data for JSON."""
        return {
            "window": {
                "x": self.window.x, "y": self.window.y,
                "width": self.window.width, "height": self.window.height,
            },
            "axes": self.axes, "rows": self.rows, "sliders": self.sliders,
            "reading": self.reading, "empty": self.empty,
        }  # fmt: skip


def make_scene(state: State, window: Window, *, reading_x: float | None = None) -> Scene:
    """Put together what the bench draws.

    Args:
        state: the study in one state.
        window: what part of the plane is seen.
        reading_x: where the reading line stands, in axis units; None for no line.
    """
    x_reading = None if reading_x is None else round_to_px(reading_x, window)
    definitions, functions = state.definitions, state.functions
    curves = {
        d.id: sample_curve(functions[d.id], window)
        for d in definitions
        if d.id in functions and not d.hidden
    }
    flags = _flags(state, curves, window)
    rows = [
        _row(state, definition, window, x_reading)
        | _drawn(definition, functions.get(definition.id), curves.get(definition.id), window)
        | {"flag": flags.get(definition.id)}
        for definition in definitions
    ]
    return Scene(
        window,
        _axes(window),
        rows,
        [_slider(d, definitions) for d in definitions if d.value is not None and not d.aside],
        _reading(x_reading, window),
        _why_empty(definitions, rows),
    )


def _flags(
    state: State, curves: dict[int, Curve], window: Window
) -> dict[int, dict[str, int] | None]:
    names = {definition.id: definition.name or "" for definition in state.definitions}
    ends = [(names[id_], last_visible_point(curve, window)) for id_, curve in curves.items()]
    return {
        id_: None if flag is None else {"x": flag.x, "y": flag.y, "width": flag.width}
        for id_, flag in zip(curves, place_flags(ends, window), strict=True)
    }


def _row(
    state: State, definition: Definition, window: Window, reading_x: Fraction | None
) -> dict[str, Any]:
    function = state.functions.get(definition.id)
    problem = definition.problem or state.problems.get(definition.id)
    return {
        "id": definition.id,
        "text": definition.text,
        "name": definition.name,
        "kind": definition.kind.value,
        "mathml": definition.mathml,
        "domain": definition.domain_mathml,
        "variable": definition.variable,
        "hidden": definition.hidden,
        "aside": definition.aside,
        "tone": definition.tone,
        "problem": None if problem is None else problem_dict(problem),
        "value": state.computed.get(definition.id),
        "reading": None
        if function is None or reading_x is None
        else _reading_of(function, reading_x, window),
    }


def problem_dict(problem: MathError) -> dict[str, Any]:
    """Give an error as plain data."""
    return {
        "code": problem.code,
        "message": problem.message,
        "position": list(problem.position),
        "suggestion": problem.suggestion,
        "letters": list(problem.letters),
    }


def _reading_of(function: RealFunction, x: Fraction, window: Window) -> dict[str, Any]:
    def at_bits(bits: int) -> Ball:
        with precision(bits):
            return function.prove_within(ball.from_fraction(x))

    text = decimal_text(at_bits, READING_DIGITS)
    y = float(function.sample(np.array([float(x)]))[0])
    is_seen = bool(text) and window.y[0] <= y <= window.y[1]
    return {
        "text": text or "undefined",
        "reason": "" if text else function.reason_at(x),
        "y": int(tenths_down(np.array([y]), window)[0]) if is_seen else None,
    }


def _drawn(
    definition: Definition, function: RealFunction | None, curve: Curve | None, window: Window
) -> dict[str, Any]:
    """Give the curve, the lane and the marks of a row; empty for what is not drawn."""
    if function is None:
        return {"curve": None, "lane": None, "why": None}
    if curve is None:
        return {"curve": None, "lane": _lane(function, Curve([]), window, ()), "why": None}
    zeros = _marks(function, window)
    marks = [_mark(finding, window) for finding in zeros]
    return {
        "curve": {
            "pieces": [piece_tenths(piece, window) for piece in curve.pieces],
            "bands": [band_tenths(band, window) for band in curve.bands],
            "ends": _ends(function, window),
        },
        "lane": _lane(function, curve, window, marks) | {"complete": zeros.complete},
        "why": _why_not_drawn(definition, function, curve, window),
    }


_marks_kept: OrderedDict[tuple[Any, ...], Findings] = OrderedDict()
_marks_lock = Lock()


def _marks(function: RealFunction, window: Window) -> Findings:
    """Locate the zeros in the window; kept, because most frames change one function or none."""
    used = function.expression.program.parameters
    key = (
        function.expression, function.ends_key(), window.x,
        tuple((name, function.parameters[name]) for name in sorted(used)),
    )  # fmt: skip
    with _marks_lock:
        if key in _marks_kept:
            _marks_kept.move_to_end(key)
            return _marks_kept[key]
    low, high = (ball.from_fraction(Fraction(bound)) for bound in window.x)
    found = find_zeros(function, Interval(low, high), max_cells=MARK_CELLS.value)
    with _marks_lock:
        _marks_kept[key] = found
        while len(_marks_kept) > _KEPT_MARKS:
            _marks_kept.popitem(last=False)
    return found


def _mark(finding: Any, window: Window) -> dict[str, Any]:  # noqa: ANN401 - a Finding
    place = np.array([finding.x])
    return {
        "x": int(tenths_across(place, window)[0]),
        "text": finding.exact or finding.text,
        "short": _short(finding),
        "kind": finding.kind.value,
        "proved": finding.proved,
    }


def _short(finding: Any) -> str:  # noqa: ANN401 - a Finding
    """Give the place in few figures, all of them right."""
    if finding.exact is not None and len(finding.exact) <= 6:
        return str(finding.exact)
    low, high = (Fraction(end) for end in finding.bracket)
    for digits in (3, 2, 1):
        one, other = f"{float(low):.{digits}g}", f"{float(high):.{digits}g}"
        if one == other:
            return one.replace("-", "−") if "e" not in one else str(finding.text)
    return str(finding.text)


def _ends(function: RealFunction, window: Window) -> list[dict[str, Any]]:
    """Give the end points of a restricted curve, filled where the end belongs to it."""
    places = [(end.near, end.closed) for end in (function.low, function.high) if end is not None]
    places += [(float(value.value.mid()), False) for value in function.without]
    found = []
    for x, closed in places:
        y = float(function.sample_unrestricted(np.array([x]))[0])
        inside = window.x[0] <= x <= window.x[1] and window.y[0] <= y <= window.y[1]
        if inside:
            across = int(tenths_across(np.array([x]), window)[0])
            down = int(tenths_down(np.array([y]), window)[0])
            found.append({"x": across, "y": down, "closed": closed})
    return found


def _lane(
    function: RealFunction,
    curve: Curve,
    window: Window,
    marks: Any,  # noqa: ANN401 - a list
) -> dict[str, Any]:
    low = _handle(function.low, window)
    high = _handle(function.high, window)
    width = window.width * PER_PX
    start = min(max(low["x"], 0), width) if low else 0
    stop = min(max(high["x"], 0), width) if high else width
    undefined = [
        [int(a), int(b)]
        for a, b in np.clip(
            tenths_across(curve.undefined.ravel(), window).reshape(-1, 2), start, stop
        )
        if b - a >= PER_PX // 2
    ]
    holes = [
        int(tenths_across(np.array([float(v.value.mid())]), window)[0]) for v in function.without
    ]
    return {
        "low": low, "high": high, "band": [start, stop] if start < stop else None,
        "undefined": undefined, "holes": holes, "marks": list(marks),
    }  # fmt: skip


def _handle(end: End | None, window: Window) -> dict[str, Any] | None:
    if end is None:
        return None
    # Far outside the window a handle has a place too, but not one that overflows.
    near = float(np.clip(window.across(np.array(end.near)), -1e6, 1e6))
    return {"x": round(near * PER_PX), "closed": end.closed, "text": end_text(end)}


def end_text(end: End) -> str:
    """Write an end of a domain: exactly if that is short, else with a few digits."""
    with precision(VALUE_BITS):
        exact = written(end.value)
        digits = digits_of(end.value, _END_DIGITS)
    if end.value.turns is not None and exact is not None:
        return exact
    if end.value.exact is not None:
        value = Fraction(int(end.value.exact.p), int(end.value.exact.q))
        text = written_number(value).replace("-", "−")
        return text if len(text) <= 8 else digits or text
    return digits or plain(Fraction(end.near))


def _why_not_drawn(
    definition: Definition, function: RealFunction, curve: Curve, window: Window
) -> dict[str, Any] | None:
    """Say why a function that works shows no curve; None if it shows one."""
    variable = function.variable
    name = definition.name or ""
    if function.low is not None and function.high is not None:
        with precision(VALUE_BITS):
            sign = ball.subtract(function.high.value, function.low.value).sign()
        if sign != 1:
            return _why(
                f"Nothing of {name} is drawn: its domain is empty, because its lower end "
                f"{end_text(function.low)} is not below its upper end {end_text(function.high)}."
            )
    if curve.domain is None:
        place = _domain_words(function)
        return _why(
            f"Nothing of {name} is drawn: its domain {place} lies outside the window.", True
        )
    if curve.is_empty:
        reason = _first_reason(function, curve)
        return _why(
            f"Nothing of {name} is drawn: it has no real value for "
            f"{_interval_words(curve.domain, variable, window)}{reason}."
        )
    side = _outside(curve, window)
    if side:
        return _why(f"Nothing of {name} is seen: its curve lies {side} the window.", True)
    return None


def _why(sentence: str, frame: bool = False) -> dict[str, Any]:
    return {"sentence": sentence, "frame": frame}


def _first_reason(function: RealFunction, curve: Curve) -> str:
    if curve.domain is None:
        return ""
    low, high = curve.domain
    for part in (0.5, 0.25, 0.75):
        x = Fraction(low + (high - low) * part).limit_denominator(10)
        x = x if low < x < high else Fraction(low + (high - low) * part)
        with precision(VALUE_BITS):
            value = function.prove_within(ball.from_fraction(x))
        if value.defined is Defined.NO and value.reason:
            return f" ({value.reason} at {function.variable} = {_number(x)})"
    return ""


def _number(x: Fraction) -> str:
    text = written_number(x).replace("-", "−")
    return text if len(text) <= 8 else f"{float(x):.4g}".replace("-", "−")


def _domain_words(function: RealFunction) -> str:
    low, high = function.low, function.high
    left = f"{end_text(low)} {'≤' if low.closed else '<'} " if low is not None else ""
    right = f" {'≤' if high.closed else '<'} {end_text(high)}" if high is not None else ""
    if low is not None and high is None:
        return f"{function.variable} {'≥' if low.closed else '>'} {end_text(low)}"
    return f"{left}{function.variable}{right}"


def _interval_words(domain: tuple[float, float], variable: str, window: Window) -> str:
    low, high = (_number(round_to_px(end, window)) for end in domain)
    return f"{low} ≤ {variable} ≤ {high}"


def _outside(curve: Curve, window: Window) -> str:
    """Tell on which side of the window a curve lies that is not seen at all."""
    lows = [float(piece[:, 1].min()) for piece in curve.pieces]
    highs = [float(piece[:, 1].max()) for piece in curve.pieces]
    lows += [float(band[:, 1].min()) for band in curve.bands]
    highs += [float(band[:, 2].max()) for band in curve.bands]
    if min(lows) > window.y[1]:
        return "above"
    if max(highs) < window.y[0]:
        return "below"
    sides = [low > window.y[1] or high < window.y[0] for low, high in zip(lows, highs, strict=True)]
    return "above and below" if all(sides) else ""


def make_readings(state: State, window: Window, reading_x: float) -> dict[str, Any]:
    """Give the reading line alone, with the value of every function at it.

    Args:
        state: the study in one state.
        window: what part of the plane is seen.
        reading_x: where the reading line stands, in axis units.
    """
    x = round_to_px(reading_x, window)
    return {
        "reading": _reading(x, window),
        "values": {
            str(id_): _reading_of(function, x, window) for id_, function in state.functions.items()
        },
    }


@lru_cache(maxsize=32)
def _axes(window: Window) -> dict[str, Any]:
    x = make_ticks(window.x[0], window.x[1], window.width)
    y = make_ticks(window.y[0], window.y[1], window.height)
    zero = np.array([0.0])
    x_zero, y_zero = tenths_across(zero, window)[0], np.rint(window.down(zero) * PER_PX)[0]
    return {
        "x": _axis(x, lambda places: tenths_across(places, window)),
        "y": _axis(y, lambda places: tenths_down(places, window)),
        # The y axis stands at x = 0, the x axis at y = 0; None if that is outside.
        "y_axis": int(x_zero) if window.x[0] <= 0 <= window.x[1] else None,
        "x_axis": int(y_zero) if window.y[0] <= 0 <= window.y[1] else None,
    }  # fmt: skip


def _axis(ticks: Ticks, to_tenths: Callable[[Floats], NDArray[np.int64]]) -> dict[str, Any]:
    return {
        "places": to_tenths(np.array(ticks.places)).tolist(),
        "labels": list(ticks.labels),
        "finer": to_tenths(np.array(ticks.finer)).tolist(),
    }


def _slider(definition: Definition, definitions: list[Definition]) -> dict[str, Any]:
    value = definition.value or Fraction(0)
    chosen = definition.slider
    name = definition.name or ""
    users = [d.name for d in definitions if name in d.uses and d.name is not None]
    return {
        "id": definition.id,
        "name": name,
        "text": written_number(value).replace("-", "−"),
        "value": float(value),
        "low": written_number(chosen.low) if chosen else "",
        "high": written_number(chosen.high) if chosen else "",
        "step": written_number(chosen.step) if chosen else "",
        "low_value": float(chosen.low) if chosen else 0.0,
        "high_value": float(chosen.high) if chosen else 1.0,
        "step_value": float(chosen.step) if chosen else 1.0,
        "used_by": users,
        "problem": None if definition.problem is None else problem_dict(definition.problem),
    }


def _reading(x: Fraction | None, window: Window) -> dict[str, Any] | None:
    if x is None or not window.x[0] <= x <= window.x[1]:
        return None
    place = int(tenths_across(np.array([float(x)]), window)[0])
    return {"x": place, "value": float(x), "text": written_number(x).replace("-", "−")}


def _why_empty(definitions: list[Definition], rows: list[dict[str, Any]]) -> str | None:
    functions = [d for d in definitions if d.kind is Kind.FUNCTION and not d.aside]
    if any(row["curve"] and (row["curve"]["pieces"] or row["curve"]["bands"]) for row in rows):
        return None
    if not definitions:
        return "This study is empty. Write a definition below, such as f(x) = x^2 − 3."
    if not functions:
        return "There is no function to draw yet. Write one below, such as f(x) = x^2 − 3."
    if all(d.hidden for d in functions):
        return "All functions are hidden. Show one with the eye beside it."
    return None
