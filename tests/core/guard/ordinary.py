"""Smooth functions with simple zeros and turns, computed with 60 digits by mpmath, and places."""

from __future__ import annotations

import math
import random
from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from typing import Any

import mpmath
import numpy as np

mpmath.mp.dps = 60
_SAMPLES = 900


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


def shifted(drawn: random.Random) -> tuple[str, float]:
    """Return x less some place, as it is typed, and the place."""
    text, shift = drawn.choice(SHIFTS)
    if text == "0":
        return "x", shift
    return f"(x + {text[1:]})" if text.startswith("-") else f"(x - {text})", shift


def moved(g: Ordinary, drawn: random.Random) -> tuple[str, float]:
    """Return an ordinary function moved to some place, as it is typed, and the place."""
    inner, shift = shifted(drawn)
    return g.text.replace("X", inner), shift
