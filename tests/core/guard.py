"""Functions whose singular places are known by construction, and what is claimed of them.

    PYTHONPATH=src:. .venv/bin/python -m tests.core.guard 100000 [seed]

Ordinary functions g have simple zeros and turns, computed here with 60 digits by mpmath. Outer
forms put singular places at them: |g| has kinks there, 1/g poles, sqrt(g) ends. Pieces meet at
irrational places. Whatever Axis Path calls proved or complete must agree with that truth; what it
leaves undecided is counted, and is no fault.
"""

from __future__ import annotations

import math
import random
import sys
import time
from collections import Counter
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace
from functools import cache
from itertools import pairwise
from typing import Any

import mpmath
import numpy as np

from axis_path.core import Study

mpmath.mp.dps = 60
_SAMPLES = 900
_CLOSE = 1e-8


@dataclass(frozen=True)
class Ordinary:
    """A smooth function on an interval, with simple zeros and turns only.

    Attributes:
        text: with X for its variable; T turns radians into the angles of the study.
        value: the same for mpmath.
        low: where it is looked at; ``high`` likewise.
    """

    text: str
    value: Callable[[Any], Any]
    low: float
    high: float

    @property
    def zeros(self) -> tuple[float, ...]:
        """Return where it is zero."""
        return _zeros(self, 0)

    @property
    def turns(self) -> tuple[float, ...]:
        """Return where its slope is zero."""
        return _zeros(self, 1)

    @property
    def most(self) -> int:
        """Return a bound of its size."""
        return _most(self)


@cache
def _most(g: Ordinary) -> int:
    xs = np.linspace(g.low, g.high, 400)
    return math.ceil(2 * max(abs(float(g.value(mpmath.mpf(x)))) for x in xs))


@cache
def _zeros(g: Ordinary, order: int) -> tuple[float, ...]:
    def at(x: Any) -> Any:
        return g.value(x) if order == 0 else mpmath.diff(g.value, x, order)

    xs = np.linspace(g.low, g.high, _SAMPLES if order == 0 else _SAMPLES // 3)
    with mpmath.workdps(20):
        signs = [mpmath.sign(at(mpmath.mpf(float(x)))) for x in xs]
    found = []
    for a, b, before, after in zip(xs, xs[1:], signs, signs[1:], strict=False):
        if before * after < 0:
            found.append(float(mpmath.findroot(at, (float(a), float(b)), solver="anderson")))
    return tuple(found)


_M = mpmath
ORDINARY = (
    Ordinary("X^2 - 2", lambda x: x * x - 2, -3.1, 2.7),
    Ordinary("X^2 - X - 1", lambda x: x * x - x - 1, -2.3, 2.9),
    Ordinary("X^3 - 3X + 1", lambda x: x**3 - 3 * x + 1, -2.6, 2.4),
    Ordinary("2X - 1", lambda x: 2 * x - 1, -1.3, 2.2),
    Ordinary("X - sqrt(2)", lambda x: x - _M.sqrt(2), -0.7, 3.1),
    Ordinary("X + ln(2)", lambda x: x + _M.log(2), -2.2, 1.3),
    Ordinary("X - 2^(1/3)", lambda x: x - _M.mpf(2) ** (_M.mpf(1) / 3), -0.4, 2.6),
    Ordinary("X - e/2", lambda x: x - _M.e / 2, -0.4, 2.6),
    Ordinary("cos(T X) - X", lambda x: _M.cos(x) - x, -1.1, 2.3),
    Ordinary("cos(T X) - X/5", lambda x: _M.cos(x) - x / 5, -4.6, 3.3),
    Ordinary("sin(T X) - X/3", lambda x: _M.sin(x) - x / 3, -3.9, 3.7),
    Ordinary("sin(T X) - 1/3", lambda x: _M.sin(x) - _M.mpf(1) / 3, -2.2, 4.3),
    Ordinary("sin(T X)", _M.sin, -3.9, 4.1),
    Ordinary("e^X - 3", lambda x: _M.exp(x) - 3, -1.2, 1.9),
    Ordinary("e^X - X - 2", lambda x: _M.exp(x) - x - 2, -2.7, 1.9),
    Ordinary("e^(-X) - X", lambda x: _M.exp(-x) - x, -0.9, 1.8),
    Ordinary("X e^X - 1", lambda x: x * _M.exp(x) - 1, -0.8, 1.3),
    Ordinary("2^X - 3", lambda x: _M.mpf(2) ** x - 3, -0.9, 2.4),
    Ordinary("X^3 - X - 3", lambda x: x**3 - x - 3, -1.6, 2.3),
    Ordinary("X^4 - 3X^2 + 1", lambda x: x**4 - 3 * x * x + 1, -1.9, 1.8),
    Ordinary("(X^2 - 3)/(X^2 + 1)", lambda x: (x * x - 3) / (x * x + 1), -2.9, 3.2),
    Ordinary("ln(X^2 + 1) - 1", lambda x: _M.log(x * x + 1) - 1, -2.3, 2.9),
    Ordinary("sqrt(X^2 + 1) - 2", lambda x: _M.sqrt(x * x + 1) - 2, -2.6, 2.1),
    Ordinary("atan(X) - 1/2", lambda x: _M.atan(x) - _M.mpf(1) / 2, -1.9, 2.3),
)  # fmt: skip
#: Places to which everything is moved: as they are typed, and their values.
SHIFTS = (
    ("0", 0.0), ("2", 2.0), ("1/3", 1 / 3), ("-3/2", -1.5), ("sqrt(2)", math.sqrt(2)),
    ("e/3", math.e / 3), ("-ln(3)", -math.log(3)), ("pi/4", math.pi / 4), ("-5^(1/3)", -(5 ** (1 / 3))),
)  # fmt: skip


@dataclass(frozen=True)
class Truth:
    """One thing that must be found, and nothing else.

    Attributes:
        order: of a zero, how many derivatives vanish with the function; None if that is not checked.
        is_global: of an extremum, whether nothing lies beyond it.
    """

    kind: str
    x: float
    y: float | None = None
    order: int | None = None
    is_global: bool | None = None


@dataclass(frozen=True)
class Case:
    """A line, a question, and the whole answer."""

    text: str
    question: str
    low: float
    high: float
    truths: tuple[Truth, ...]
    degrees: bool = False


@dataclass
class Tally:
    """What came of some cases.

    Attributes:
        wrong: cases with a claim that is not true, each with what was claimed.
    """

    right: int = 0
    weak: list[tuple[Case, str]] = field(default_factory=list)
    wrong: list[tuple[Case, str]] = field(default_factory=list)


def _at_zeros(kind: str, y: float | None = None) -> Callable[[Ordinary], list[Truth]]:
    return lambda g: [Truth(kind, x, y) for x in g.zeros]


def _none(_: Ordinary) -> list[Truth]:
    return []


def _sign_after(g: Ordinary, x: float) -> int:
    return 1 if g.value(mpmath.mpf(x) + mpmath.mpf(10) ** -9) > 0 else -1


def _size_extrema(g: Ordinary) -> list[Truth]:
    """Return the extrema of |g|: a minimum at each zero, and where g turns."""
    found = [Truth("minimum", x, 0.0) for x in g.zeros]
    for x in g.turns:
        value = g.value(mpmath.mpf(x))
        bends_up = mpmath.diff(g.value, mpmath.mpf(x), 2) > 0
        kind = "minimum" if bends_up == (value > 0) else "maximum"
        found.append(Truth(kind, x, float(abs(value))))
    return found


def _own_extrema(g: Ordinary) -> list[Truth]:
    ends = [float(g.value(mpmath.mpf(x))) for x in (g.low, g.high)]
    values = [*ends, *(float(g.value(mpmath.mpf(x))) for x in g.turns)]
    found = []
    for x, value in zip(g.turns, values[2:], strict=True):
        bends_up = mpmath.diff(g.value, mpmath.mpf(x), 2) > 0
        kind, best = ("minimum", min(values)) if bends_up else ("maximum", max(values))
        found.append(Truth(kind, x, value, is_global=value == best))
    return found


def _scaled(
    truths: Callable[[Ordinary], list[Truth]], by: float, plus: float = 0.0
) -> Callable[[Ordinary], list[Truth]]:
    """Return the same truths of a function that is multiplied by a positive number, and raised."""
    return lambda g: [replace(t, y=None if t.y is None else by * t.y + plus) for t in truths(g)]


def _of_order(order: int) -> Callable[[Ordinary], list[Truth]]:
    return lambda g: [Truth("zero", x, 0.0, order) for x in g.zeros]


_zero, _pole, _jump = _at_zeros("zero", 0.0), _at_zeros("pole"), _at_zeros("jump")
#: Outer forms, with G for g and M for a bound of it, and what is true of them.
FORMS: tuple[tuple[str, str, Callable[[Ordinary], list[Truth]]], ...] = (
    *((text, "zeros", _zero) for text in (
        "G", "|G|", "sqrt(|G|)", "max(G, -(G))", "sqrt((G)^2)", "|G|/e", "-|G|/3", "sign(G)", "(G)^2",
        "(G)|G|", "cbrt(G)", "floor(-|G|/M)", "ceil((G)^2/M^2)", "sign((G)^2)", "min(|G|, 1)", "mod(-|G|/M, 1)",
        "asin(|G|/M)", "tan(|G|/M)", "|G|^(3/2)", "|G|/ln(3)", "G + 0 e", "10^(-15) |G|", "sinh(|G|)", "1 - e^(|G|)",
        "sqrt(G)", "ln(1 + |G|)", "atan(G)", "|G| sqrt(3)", "mod(G, M)", "(G) - (G) e^(G)",
    )),
    *((text, "zeros", _none) for text in ("1/|G|", "e^(G)", "|G| + 1", "sqrt((G)^2 + 1)", "(G)/(G)", "1/sqrt(|G|)", "e^(1/(G)) + 1", "round(1/2 + |G|/M)")),
    *((text, "breaks", _pole) for text in (
        "1/(G)", "1/|G|", "ln(|G|)", "1/(G)^2", "1/sqrt(|G|)", "e^(1/(G))", "(G)^(-3)", "e^(1/|G|)", "1/cbrt(G)", "(G) e^(1/(G))", "1/(|G| ln(2 + |G|))",
        "tan(T (pi/2 + atan(G)/1))",
    )),
    *((text, "breaks", _jump) for text in (
        "sign(G)", "(G)/|G|", "atan(1/(G))", "1/(1 + e^(1/(G)))", "|G|/(G)", "tanh(1/(G))", "1/(1 - e^(1/(G)))",
    )),
    *((text, "breaks", _at_zeros("jump", y)) for text, y in (
        ("mod(G, M)", 0.0), ("floor((G)/M)", 0.0), ("ceil((G)/M)", 0.0), ("round((G)/(2M) + 1/2)", 1.0),
        ("round((G)/(2M) - 1/2)", -1.0), ("sign(G)", 0.0), ("e floor((G)/M)", 0.0),
    )),
    *((text, "breaks", _at_zeros("hole", y)) for text, y in (
        ("(G)/(G)", 1.0), ("sinh(G)/(G)", 1.0), ("(G)^2/(G)", 0.0), ("(e^(G) - 1)/(G)", 1.0),
        ("e^(-1/(G)^2)", 0.0), ("floor(-|G|/M)", -1.0), ("sign((G)^2)", 1.0), ("(G) ln(|G|)", 0.0),
        ("(e^(-1/(G)^2))^((G)^2)", 1 / math.e), ("(1 + |G|)^(1/|G|)", math.e), ("(G)^2 e^(-1/|G|)", 0.0),
    )),
    *((text, "breaks", _none) for text in (
        "|G|", "max(G, -(G))", "sqrt(|G|)", "cbrt(G)", "(G)|G|", "sqrt((G)^2)", "(G)^3", "atan(G)", "|G|^|G|",
    )),
    ("|G|", "extrema", _size_extrema), ("max(G, -(G))", "extrema", _size_extrema),
    ("sqrt((G)^2)", "extrema", _size_extrema), ("G", "extrema", _own_extrema),
    ("(G) + 0 e", "extrema", _own_extrema), ("G", "breaks", _none),
    ("1.6*10^(-19)(G)", "extrema", _scaled(_own_extrema, 1.6e-19)),
    ("(G) + 10^6", "extrema", _scaled(_own_extrema, 1.0, 1e6)),
    *(("(G)" + "*(G)" * k, "zeros", _of_order(k + 1)) for k in range(3)),
    *((text, "zeros", _of_order(order)) for text, order in (
        ("(G)^5", 5), ("(G) sinh(G)", 2), ("(G)^2 (e^(G) - 1)", 3), ("(G)/(1 + (G)^2)", 1), ("tanh(G)^3", 3),
    )),
)  # fmt: skip


def _ends(kind: str, y: float | None) -> Callable[[Ordinary], list[Truth]]:
    return lambda g: [Truth(kind, x, y) for x in g.zeros]


#: Forms that have values on one side of each zero only.
ENDED: tuple[tuple[str, str, Callable[[Ordinary], list[Truth]]], ...] = (
    ("sqrt(G)", "breaks", _ends("end", 0.0)), ("(G)^(3/2)", "breaks", _ends("end", 0.0)),
    ("ln(G)", "breaks", _ends("pole", None)), ("1/sqrt(G)", "breaks", _ends("pole", None)),
    ("acos(1 - (G)/M)", "breaks", _ends("end", 0.0)), ("asin(1 - (G)/M)", "breaks", _ends("end", math.pi / 2)),
    ("acosh(1 + (G))", "breaks", _ends("end", 0.0)), ("(G)^(1/4) + 2", "breaks", _ends("end", 2.0)),
)  # fmt: skip


def cases(count: int, seed: int) -> Iterator[Case]:
    """Yield so many cases."""
    drawn = random.Random(seed)  # noqa: S311 - a fixed seed is wanted
    makers = (_outer, _outer, _outer, _ended, _piece, _inequality, _far, _asked_otherwise)
    for _ in range(count):
        yield drawn.choice(makers)(drawn)


def _moved(g: Ordinary, drawn: random.Random) -> tuple[str, float]:
    text, shift = drawn.choice(SHIFTS)
    inner = (
        "x" if text == "0" else f"(x - {text})" if not text.startswith("-") else f"(x + {text[1:]})"
    )
    return g.text.replace("X", inner), shift


def _outer(drawn: random.Random) -> Case:
    return _of_form(drawn, FORMS)


_ASKED = {"solve": "solution", "intersections": "intersection"}


def _asked_otherwise(drawn: random.Random) -> Case:
    """Return a question about zeros as an equation, or as intersections with the axis."""
    case = _of_form(drawn, tuple(form for form in FORMS if form[1] == "zeros"))
    question = drawn.choice(tuple(_ASKED))
    truths = tuple(Truth(_ASKED[question], t.x) for t in case.truths)
    text = case.text if question == "intersections" else f"{case.text.partition(' = ')[2]} = 0"
    return replace(case, text=text, question=question, truths=truths)


def _ended(drawn: random.Random) -> Case:
    return _of_form(drawn, ENDED)


def _of_form(
    drawn: random.Random, forms: tuple[tuple[str, str, Callable[[Ordinary], list[Truth]]], ...]
) -> Case:
    g = drawn.choice(ORDINARY)
    form, question, truths = drawn.choice(forms)
    inner, shift = _moved(g, drawn)
    text = form.replace("M", str(g.most)).replace("G", inner)
    in_degrees = "T" in text and drawn.random() < 0.2
    text = text.replace("T ", "180/pi " if in_degrees else "")
    if in_degrees and any(name in text for name in ("asin", "acos", "atan")):
        text, in_degrees = text.replace("180/pi ", ""), False
    found = tuple(replace(t, x=t.x + shift) for t in truths(g))
    return Case(f"f(x) = {text}", question, g.low + shift, g.high + shift, found, in_degrees)


#: Where pieces meet.
_JOINS = (
    ("sqrt(2)", math.sqrt(2)), ("ln(2)", math.log(2)), ("2^(1/3)", 2 ** (1 / 3)), ("-e/2", -math.e / 2),
    ("pi/5", math.pi / 5), ("3/7", 3 / 7), ("sqrt(5) - 2", math.sqrt(5) - 2), ("1 + sqrt(3)/2", 1 + math.sqrt(3) / 2),
)  # fmt: skip


def _piece(drawn: random.Random) -> Case:
    """Return two lines that meet, or do not, at an irrational place."""
    place, c = drawn.choice(_JOINS)
    a, b = drawn.choice((-2, -1, 1, 2)), drawn.choice((-2, -1, 1, 2))
    # Heights of both over the place; 0 often, so that there may be a zero.
    u, v = drawn.choice((0, 0, 1, -2)), drawn.choice((0, 0, 1, 3))
    sign = drawn.choice(("<", "<=", "!="))
    left, right = (f"{k}(x - ({place})) + {h}" for k, h in ((a, u), (b, v)))
    low, high = c - 1.37, c + 1.61
    question = drawn.choice(("zeros", "breaks", "extrema"))
    if sign == "!=":
        text, b, v = f"f(x) = {left} for x != {place}", a, u
        here: int | None = None
    else:
        text, here = (
            f"f(x) = {left} for x {sign} {place}; {right} otherwise",
            v if sign == "<" else u,
        )
    truths: list[Truth] = []
    if question == "zeros":
        if here == 0:
            truths.append(Truth("zero", c, 0.0))
        for slope, height, side in ((a, u, -1), (b, v, 1)):
            at = -height / slope
            if at * side > 0 and low < c + at < high:
                truths.append(Truth("zero", c + at, 0.0))
    elif question == "breaks":
        if u != v:
            truths.append(Truth("jump", c))
        elif here != u:
            truths.append(Truth("hole", c, float(u)))
    elif here is not None:
        # Above (1) or below (-1) the value beside the place, by the limit and then the slope.
        ranks = [
            int(np.sign(height - here)) or int(np.sign(slope * side))
            for slope, height, side in ((a, u, -1), (b, v, 1))
        ]
        if ranks[0] == ranks[1]:
            truths.append(Truth("minimum" if ranks[0] > 0 else "maximum", c, float(here)))
    return Case(text, question, low, high, tuple(truths))


def _inequality(drawn: random.Random) -> Case:
    """Return an inequality over an interval: its stretches lie between the zeros of g."""
    g = drawn.choice(ORDINARY)
    inner, shift = _moved(g, drawn)
    sign, form = (
        drawn.choice((">", "<=", "<", ">=")),
        drawn.choice(("{}", "|{}|({})", "{}/3", "cbrt({})")),
    )
    text = f"{form.replace('{}', f'({inner})')} {sign} 0".replace("T ", "")
    places = [g.low, *g.zeros, g.high]
    truths = [
        Truth("stretch", a + shift, b + shift)
        for a, b in pairwise(places)
        if (g.value(mpmath.mpf((a + b) / 2)) > 0) == (sign[0] == ">")
    ]
    return Case(text, "inequality", g.low + shift, g.high + shift, tuple(truths))


#: Functions far out, with the lines they come near to: slope and height, in order.
_LINES: tuple[tuple[str, tuple[tuple[float, float], ...]], ...] = (
    ("1/(X)", ((0, 0),)), ("2 + 1/(X^2)", ((0, 2),)), ("e^(X)", ((0, 0),)), ("atan(X)", ((0, -math.pi / 2), (0, math.pi / 2))),
    ("(X^2 + 1)/(X)", ((1, 0),)), ("tanh(X) - 1", ((0, -2), (0, 0))), ("floor(X)", ()), ("floor(X)/(X)", ((0, 1),)),
    ("sign(sin(X))", ()), ("max(sin(X), 0)", ()), ("mod(X, 3)/(X)", ((0, 0),)), ("3X - 1", ()), ("|X|", ()),
    ("sin(X)/(X)", ((0, 0),)), ("sqrt(X^2 + 1)", ((-1, 0), (1, 0))), ("(2X^2 - 3)/(X^2 + 1)", ((0, 2),)), ("ln(X^2 + 1)", ()),
    ("X + e^(-X)", ((1, 0),)), ("1/(1 + e^(X))", ((0, 1), (0, 0))), ("cos(X)", ()), ("ceil(X) - X", ()), ("e^(-X^2)", ((0, 0),)),
)  # fmt: skip


def _far(drawn: random.Random) -> Case:
    """Return a function of which it is asked to which lines it comes near."""
    form, lines = drawn.choice(_LINES)
    text, shift = drawn.choice(SHIFTS)
    moved = form.replace("X", f"(x - ({text}))")
    truths = tuple(Truth("line", slope, height - slope * shift) for slope, height in lines)
    return Case(f"f(x) = {moved}", "asymptotes", -9.0, 9.0, truths)


def judge(case: Case) -> tuple[str, str]:
    """Ask what a case asks; return ``right``, ``weak`` or ``wrong``, and what is amiss."""
    study = Study(angle_unit="degrees" if case.degrees else "radians")
    if case.question == "inequality":
        return _judge_stretches(case, study)
    ends = (f"{case.low!r}", f"{case.high!r}")
    if case.question == "solve":
        return _compared(case, study.solve(case.text, None, *ends, with_exact=False))
    study.define(case.text)
    if case.question == "asymptotes":
        return _judge_lines(case, study)
    if case.question == "intersections":
        study.define("h(x) = 0")
        return _compared(case, study.intersections("f", "h", *ends))
    return _compared(case, getattr(study, case.question)("f", *ends))


def _compared(case: Case, found: Any) -> tuple[str, str]:
    """Compare findings with the truth."""
    items = [item for item in found if not (item.at_end or _is_window_end(case, item))]
    left = list(case.truths)
    amiss: list[str] = []
    for item in items:
        truth = next((t for t in left if _agrees(t, item)), None)
        if truth is not None:
            left.remove(truth)
            if not item.proved:
                amiss.append(f"not proved: {item.kind.value} {item.text}")
        elif item.proved:
            return "wrong", f"claims {item.kind.value} at {item.text}, y = {item.y}"
        else:
            amiss.append(f"guesses {item.kind.value} at {item.text}")
    if left and found.complete:
        return "wrong", f"complete without {left[0]}"
    amiss += [f"lacks {t}" for t in left] + (
        [] if found.complete else [f"incomplete: {found.note}"]
    )
    return ("weak", "; ".join(amiss)) if amiss else ("right", "")


def _judge_stretches(case: Case, study: Study) -> tuple[str, str]:
    found = study.solve_inequality(
        case.text, None, f"{case.low!r}", f"{case.high!r}", with_exact=False
    )
    ends = [(s.low.x, s.high.x) for s in found.items]
    is_right = len(ends) == len(case.truths) and all(
        abs(low - t.x) <= _CLOSE and abs(high - (t.y or 0.0)) <= _CLOSE
        for (low, high), t in zip(ends, case.truths, strict=True)
    )
    # Single places at which it holds too are told as stretches without length.
    if not is_right:
        long = [(low, high) for low, high in ends if high - low > _CLOSE]
        is_right = "=" in case.text and len(long) == len(case.truths)
    if found.complete:
        return ("right", "") if is_right else ("wrong", f"complete with {ends}")
    return "weak", found.note


def _judge_lines(case: Case, study: Study) -> tuple[str, str]:
    lines = [line for line in study.asymptotes("f") if line.slope is not None]
    for line in lines:
        is_true = any(
            abs((line.slope or 0.0) - t.x) < _CLOSE and abs(line.at - (t.y or 0.0)) < _CLOSE
            for t in case.truths
        )
        if line.proved and not is_true:
            return "wrong", f"claims {line.text}"
    is_whole = len(lines) == len(case.truths) and all(line.proved for line in lines)
    return ("right", "") if is_whole else ("weak", f"{len(lines)} of {len(case.truths)} lines")


def _is_window_end(case: Case, item: Any) -> bool:
    return any(abs(item.x - end) < _CLOSE for end in (case.low, case.high))


def _agrees(truth: Truth, item: Any) -> bool:
    if item.kind.value != truth.kind or abs(item.x - truth.x) > _CLOSE * max(1, abs(truth.x)):
        return False
    if truth.order is not None and item.multiplicity not in (None, truth.order):
        return False
    if truth.is_global is not None and item.is_global != truth.is_global:
        return False
    low, high = item.bracket
    if not low - 1e-12 <= truth.x <= high + 1e-12:
        return False
    return truth.y is None or abs(item.y - truth.y) <= _CLOSE * max(abs(truth.y), 1e-18)


def run(count: int, seed: int) -> Tally:
    """Judge so many cases."""
    tally = Tally()
    for case in cases(count, seed):
        verdict, words = judge(case)
        if verdict == "right":
            tally.right += 1
        else:
            getattr(tally, verdict).append((case, words))
    return tally


def main() -> None:
    """Judge so many cases, and print what is wrong and how often each form is weak."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 1_000
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 1
    began = time.monotonic()
    tally = run(count, seed)
    for case, words in tally.wrong[:60]:
        print(f"WRONG {case.question:8} {case.text}  [{case.low:.3f}, {case.high:.3f}]  {words}")
    weak = Counter((case.question, words.split(":")[0][:40]) for case, words in tally.weak)
    for (question, words), times in weak.most_common(20):
        print(f"{times:6} {question:8} {words}")
    print(f"{count:,} cases: {tally.right:,} right, {len(tally.weak):,} weak, {len(tally.wrong):,} wrong, "
          f"{time.monotonic() - began:.0f} s")  # fmt: skip


if __name__ == "__main__":
    main()
