"""Integrals, areas, means and lengths over kinks, jumps, holes, poles and without end."""

from __future__ import annotations

import math
import random
import time
from collections.abc import Callable
from functools import partial
from itertools import pairwise
from typing import Any

import mpmath

from axis_path.core import Deadline, Study, deadline_scope
from axis_path.core.errors import StoppedError
from tests.core.guard.ordinary import ORDINARY, Ordinary, moved, shifted
from tests.core.guard.truths import CLOSE, Case, Verdict, weak, wrong

_M = mpmath
_INF = math.inf
#: What takes longer is left undecided, as it is on the page.
_LONGEST_S = 0.5


def _parts(g: Ordinary, f: Callable[[Any], Any]) -> Any:
    """Integrate between the zeros of g, where a form of it is smooth."""
    abscissae = [g.low, *g.zeros, g.high]
    with mpmath.workdps(25):
        return sum(
            mpmath.quad(lambda x: f(g.value(x)), [a, (a + b) / 2, b])
            for a, b in pairwise(abscissae)
        )


#: Forms with kinks, jumps or holes at the zeros of G, as functions of g. (The low and the high end
#: are floats; so are the zeros, which changes an integral far less than what is compared.)
_FORMS: tuple[tuple[str, Callable[[Any], Any]], ...] = (
    ("G", lambda g: g),
    ("|G|", abs),
    ("max(G, 0)", lambda g: max(g, 0)),
    ("sign(G)", _M.sign),
    ("(G)/|G|", _M.sign),
    ("(G)^2/(G)", lambda g: g),
    ("|G|(G)", lambda g: abs(g) * g),
    ("atan(1/(G))", lambda g: _M.atan(1 / g) if g else _M.mpf(0)),
    ("(e^(G) - 1)/(G)", lambda g: _M.expm1(g) / g if g else _M.mpf(1)),
    ("sign((G)^2)", lambda g: _M.mpf(1)),
)


def between(drawn: random.Random) -> Case:
    """Return a form over an interval, with its integral, its area and its mean value."""
    g = drawn.choice(ORDINARY)
    form, f = drawn.choice(_FORMS)
    inner, shift = moved(g, drawn)
    text = f"f(x) = {form.replace('G', inner)}".replace("T ", "")
    whole = _parts(g, f)
    truths = {
        "integral": float(whole),
        "area": float(_parts(g, lambda v: abs(f(v)))),
        "mean value": float(whole / (g.high - g.low)),
    }
    ends = (repr(g.low + shift), repr(g.high + shift))
    return Case(text, "measure", partial(_judge, text, ends, truths))


#: Measures over an interval without a simple end: X for x less a place, from and to where. Infinity
#: stands for what diverges.
_IMPROPER: tuple[tuple[str, str, float, float, float], ...] = (
    ("1/(X)^2", "integral", 1, _INF, 1), ("1/(X)", "integral", 1, _INF, _INF), ("1/(X)^(3/2)", "integral", 1, _INF, 2),
    ("1/sqrt(X)", "integral", 0, 1, 2), ("1/(X)", "integral", 0, 1, _INF), ("1/cbrt(X)", "integral", 0, 1, 1.5),
    ("ln(X)", "integral", 0, 1, -1), ("e^(-(X))", "integral", 0, _INF, 1), ("e^(-(X)^2)", "integral", -_INF, _INF, math.sqrt(math.pi)),
    ("1/(1 + (X)^2)", "integral", -_INF, _INF, math.pi), ("X e^(-(X))", "integral", 0, _INF, 1), ("1/((X) ln(X)^2)", "integral", math.e, _INF, 1),
    ("1/|X|", "integral", -1, 2, _INF), ("1/(X)^2", "integral", -1, 1, _INF), ("1/sqrt(|X|)", "integral", -1, 4, 6),
    ("1/sqrt(1 - (X)^2)", "integral", -1, 1, math.pi), ("sqrt(X)", "integral", 0, 4, 16 / 3), ("floor(X)", "integral", 0, 5, 10),
    ("mod(X, 1)", "integral", 0, 7, 3.5), ("|X|", "area", -2, 3, 6.5), ("X", "area", -2, 3, 6.5), ("sin(X)", "area", 0, 2 * math.pi, 4),
    ("|X|", "arc length", -2, 3, 5 * math.sqrt(2)), ("sqrt(1 - (X)^2)", "arc length", -1, 1, math.pi), ("2(X) + 1", "arc length", 0, 3, 3 * math.sqrt(5)),
    ("(X)^(3/2)", "arc length", 0, 4, (80 * math.sqrt(10) - 8) / 27), ("cosh(X)", "arc length", -1, 1, 2 * math.sinh(1)),
    ("sqrt(X)", "arc length", 0, 1, (2 * math.sqrt(5) + math.asinh(2)) / 4), ("|X|", "mean value", -1, 3, 1.25),
    ("cbrt(X)", "integral", -1, 8, 11.25), ("sign(X)", "integral", -1, 3, 2), ("1/(X)", "area", -1, 1, _INF), ("1/(X - 1)", "integral", 0, 2, _INF),
)  # fmt: skip


def improper(drawn: random.Random) -> Case:
    """Return a measure with a value in closed form, over poles or without end; or one without."""
    form, measure, low, high, value = drawn.choice(_IMPROPER)
    inner, _ = shifted(drawn)
    text = f"f(x) = {form.replace('X', inner)}"
    abscissa = inner[1:-1].removeprefix("x ") if inner != "x" else "+ 0"
    # "- sqrt(2)" in the function moves the ends by + sqrt(2), exactly.
    offset = abscissa[2:] if abscissa.startswith("-") else f"-({abscissa[2:]})"
    ends = tuple(
        ("-inf" if end < 0 else "inf") if math.isinf(end)
        else f"{_END.get(end, repr(end))} + ({offset})" for end in (low, high)
    )  # fmt: skip
    return Case(
        f"{measure} of {text} from {ends[0]} to {ends[1]}",
        "measure",
        partial(_judge, text, ends, {measure: value}),  # type: ignore[arg-type]
    )


_END = {math.e: "e", 2 * math.pi: "2pi"}


def _judge(text: str, ends: tuple[str, str], truths: dict[str, float]) -> Verdict:
    study = Study()
    study.define(text)
    amiss: list[str] = []
    try:
        with deadline_scope(Deadline(time.monotonic, total_s=_LONGEST_S)):
            measures = study.over_interval("f", *ends)
    except StoppedError as err:
        return weak(err.message)
    for measure in measures:
        truth = truths.get(measure.name)
        if truth is None:
            continue
        if math.isnan(measure.value):
            diverges = "diverges" in measure.reason or "no end" in measure.reason
            if diverges and math.isfinite(truth):
                return wrong(f"{measure.name}: {measure.reason}, in truth {truth}")
            if math.isfinite(truth):
                amiss.append(f"{measure.name}: {measure.reason}")
            elif not diverges:
                amiss.append(f"{measure.name} is not said to diverge: {measure.reason}")
        elif math.isinf(truth) or abs(measure.value - truth) > CLOSE * max(1, abs(truth)):
            return wrong(f"{measure.name} is {measure.text}, in truth {truth}")
    return weak("; ".join(amiss))
