"""Pieces that meet, or do not, at irrational places."""

from __future__ import annotations

import math
import random
from collections.abc import Callable
from dataclasses import replace

import numpy as np

from tests.core.guard.truths import Case, Truth, about_findings

#: Where pieces meet.
_JOINS = (
    ("sqrt(2)", math.sqrt(2)), ("ln(2)", math.log(2)), ("2^(1/3)", 2 ** (1 / 3)), ("-e/2", -math.e / 2),
    ("pi/5", math.pi / 5), ("3/7", 3 / 7), ("sqrt(5) - 2", math.sqrt(5) - 2), ("1 + sqrt(3)/2", 1 + math.sqrt(3) / 2),
)  # fmt: skip


def piece(drawn: random.Random) -> Case:
    """Return two lines that meet, or do not, at an irrational place."""
    abscissa, c = drawn.choice(_JOINS)
    a, b = drawn.choice((-2, -1, 1, 2)), drawn.choice((-2, -1, 1, 2))
    # Heights of both over the place; 0 often, so that there may be a zero.
    u, v = drawn.choice((0, 0, 1, -2)), drawn.choice((0, 0, 1, 3))
    sign = drawn.choice(("<", "<=", "!="))
    left, right = (f"{k}(x - ({abscissa})) + {h}" for k, h in ((a, u), (b, v)))
    low, high = c - 1.37, c + 1.61
    question = drawn.choice(("zeros", "breaks", "extrema"))
    if sign == "!=":
        text, b, v = f"f(x) = {left} for x != {abscissa}", a, u
        here: int | None = None
    else:
        text, here = (
            f"f(x) = {left} for x {sign} {abscissa}; {right} otherwise",
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
    return about_findings(text, question, (low, high), tuple(truths))


def _zeros(*abscissae: float) -> list[Truth]:
    return [Truth("zero", abscissa, 0.0) for abscissa in abscissae]


#: Forms that do something right beside the place P, where U is 0: u is a small power of ten, as E.
_ADJACENT: tuple[tuple[str, str, Callable[[float], list[Truth]]], ...] = (
    ("sqrt(U) - E", "zeros", lambda u: _zeros(u * u)),
    ("|U| - E", "zeros", lambda u: _zeros(-u, u)),
    ("|U| + U - E", "zeros", lambda u: _zeros(u / 2)),
    ("max(U, 3U) - E", "zeros", lambda u: _zeros(u / 3)),
    ("cbrt(U) - E", "zeros", lambda u: _zeros(u**3)),
    ("sign(U)(U - E)", "zeros", lambda u: _zeros(0.0, u)),
    ("(U - E) sqrt(|U|)", "zeros", lambda u: _zeros(0.0, u)),
    ("U - E for x > P; 1 otherwise", "zeros", lambda u: _zeros(u)),
    ("U + E for x < P; -1 otherwise", "zeros", lambda u: _zeros(-u)),
    ("|U - E|/U", "zeros", lambda u: _zeros(u)),
    ("|U - E|/U", "breaks", lambda u: [Truth("pole", 0.0)]),
    ("sign(U) + sign(U - E)", "breaks", lambda u: [Truth("jump", 0.0), Truth("jump", u)]),
    ("1/U + 1/(U + E)", "breaks", lambda u: [Truth("pole", 0.0), Truth("pole", -u)]),
    ("sin(1) U/U + 1/(U - E)", "breaks", lambda u: [Truth("pole", u), Truth("hole", 0.0)]),
    ("|U - E|/U", "extrema", lambda u: [Truth("minimum", u, 0.0)]),
    ("|U| - E", "extrema", lambda u: [Truth("minimum", 0.0, -u)]),
    ("||U| - E|", "extrema", lambda u: [
        Truth("minimum", -u, 0.0), Truth("maximum", 0.0, u), Truth("minimum", u, 0.0)]),
)  # fmt: skip


def adjacent(drawn: random.Random) -> Case:
    """Return a function that does something right beside a singular place."""
    abscissa, c = drawn.choice((*_JOINS, ("2", 2.0), ("0", 0.0)))
    form, question, truths = drawn.choice(_ADJACENT)
    power = drawn.choice((2, 5, 9, 13, 17, 20))
    text = form.replace("U", f"(x - ({abscissa}))").replace("P", f"({abscissa})")
    moved = tuple(replace(t, x=c + t.x) for t in truths(10.0**-power))
    line = f"f(x) = {text.replace('E', f'10^(-{power})')}"
    return about_findings(line, question, (c - 1.37, c + 1.61), moved)
