"""Outer forms around ordinary functions: singular places lie at the zeros of these."""

from __future__ import annotations

import math
import random
from collections.abc import Callable
from dataclasses import dataclass, replace

import mpmath

from tests.core.guard.ordinary import ORDINARY, Ordinary, moved
from tests.core.guard.truths import Case, Truth, about_findings

#: What is true of a form with an ordinary function in it.
Truths = Callable[[Ordinary], list[Truth]]
Form = tuple[str, str, Truths]


def _at_zeros(kind: str, y: float | None = None) -> Truths:
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


def _scaled(truths: Truths, by: float, plus: float = 0.0) -> Truths:
    """Return the same truths of a function that is multiplied by a positive number, and raised."""
    return lambda g: [replace(t, y=None if t.y is None else by * t.y + plus) for t in truths(g)]


def _of_order(order: int) -> Truths:
    return lambda g: [Truth("zero", x, 0.0, order) for x in g.zeros]


_zero, _pole, _jump = _at_zeros("zero", 0.0), _at_zeros("pole"), _at_zeros("jump")
#: Outer forms, with G for g and M for a bound of it, and what is true of them.
FORMS: tuple[Form, ...] = (
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


def _ends(kind: str, y: float | None) -> Truths:
    return lambda g: [Truth(kind, x, y) for x in g.zeros]


#: Forms that have values on one side of each zero only.
ENDED: tuple[Form, ...] = (
    ("sqrt(G)", "breaks", _ends("end", 0.0)), ("(G)^(3/2)", "breaks", _ends("end", 0.0)),
    ("ln(G)", "breaks", _ends("pole", None)), ("1/sqrt(G)", "breaks", _ends("pole", None)),
    ("acos(1 - (G)/M)", "breaks", _ends("end", 0.0)), ("asin(1 - (G)/M)", "breaks", _ends("end", math.pi / 2)),
    ("acosh(1 + (G))", "breaks", _ends("end", 0.0)), ("(G)^(1/4) + 2", "breaks", _ends("end", 2.0)),
)  # fmt: skip


@dataclass(frozen=True)
class Formed:
    """A form with an ordinary function in it, at some place.

    Attributes:
        body: the expression in x.
        ends: between which it is searched.
    """

    body: str
    question: str
    ends: tuple[float, float]
    truths: tuple[Truth, ...]
    in_degrees: bool

    def case(self) -> Case:
        """Return the case of the form as a function."""
        return about_findings(
            f"f(x) = {self.body}", self.question, self.ends, self.truths, in_degrees=self.in_degrees
        )


def formed(drawn: random.Random, forms: tuple[Form, ...] = FORMS) -> Formed:
    """Return one of some forms, with an ordinary function in it, moved to some place."""
    g = drawn.choice(ORDINARY)
    form, question, truths = drawn.choice(forms)
    inner, shift = moved(g, drawn)
    body = form.replace("M", str(g.most)).replace("G", inner)
    in_degrees = "T" in body and drawn.random() < 0.2
    body = body.replace("T ", "180/pi " if in_degrees else "")
    if in_degrees and any(name in body for name in ("asin", "acos", "atan")):
        body, in_degrees = body.replace("180/pi ", ""), False
    found = tuple(replace(t, x=t.x + shift) for t in truths(g))
    return Formed(body, question, (g.low + shift, g.high + shift), found, in_degrees)


def outer(drawn: random.Random) -> Case:
    """Return a form with singular places inside an interval."""
    return formed(drawn).case()


def ended(drawn: random.Random) -> Case:
    """Return a form that has values on one side of each singular place only."""
    return formed(drawn, ENDED).case()


_ASKED = {"solve": "solution", "intersections": "intersection"}
_OF_ZEROS = tuple(form for form in FORMS if form[1] == "zeros")


def asked_otherwise(drawn: random.Random) -> Case:
    """Return a question about zeros as an equation, or as intersections with the axis."""
    it = formed(drawn, _OF_ZEROS)
    question = drawn.choice(tuple(_ASKED))
    truths = tuple(Truth(_ASKED[question], t.x) for t in it.truths)
    text = f"f(x) = {it.body}" if question == "intersections" else f"{it.body} = 0"
    return about_findings(text, question, it.ends, truths, in_degrees=it.in_degrees)
