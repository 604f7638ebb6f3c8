"""Solutions as they are written: exact forms moved by periods, and how they repeat."""

from __future__ import annotations

import math
import re
from collections.abc import Callable
from dataclasses import replace
from fractions import Fraction

from flint import arb

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.arithmetic.real_number import Parameters
from axis_path.core.evaluate import (
    VALUE_BITS,
    RealFunction,
    period,
)
from axis_path.core.features.findings.equations import (
    Equation,
)
from axis_path.core.language.tree import AngleUnit
from axis_path.core.locate import (
    EndPoint,
    Finding,
    Kind,
    ball_of,
    value_text,
)

#: Gives the exact form of a zero between two floats, if one is known.
ExactIn = Callable[[float, float], str | None]


def between(end: EndPoint, beginning: EndPoint) -> Ball:
    """Return a number between two intervals; if they meet in one point, that point."""
    if end.x == beginning.x:
        return ball_of(end.exact, math.nextafter(end.x, -math.inf), math.nextafter(end.x, math.inf))
    return ball.from_fraction(Fraction((end.x + beginning.x) / 2))


def solution(equation: Equation, zero: Finding) -> Finding:
    """Return a zero of the difference as a solution, with the value that both sides have there."""
    with precision(VALUE_BITS):
        value = equation.sides[1].prove(ball_of(zero.exact, *zero.bracket))
        text = value_text(value) if value.is_defined else ""
    y = float(value.value.mid()) if value.is_defined else float("nan")
    return replace(zero, kind=Kind.SOLUTION, y=y, y_text=text)


def repeats(gap: RealFunction, values: Parameters, unit: AngleUnit) -> str:
    """Describe how solutions repeat, if the equation is periodic."""
    turn = period(gap.expression.program, values)
    if turn is None:
        return ""
    length = arb.pi() ** turn.power * arb(turn.part.numerator) / turn.part.denominator
    return f"They come back every {_times(1, length, unit)}; these are the ones in between."


def readable(text: str) -> str:
    """Write an exact form as it is shown: with the signs that the language reads as well."""
    return re.sub(r"\bpi\b", "π", text).replace("-", "−")


def matched(
    bracket: tuple[float, float], text: str, value: arb, length: arb | None, unit: AngleUnit
) -> str | None:
    """Return a proposal, moved by whole periods, as the exact form of a solution; None if not."""
    low, high = map(arb, bracket)
    if bool(value >= low) and bool(value <= high):
        return text
    if length is None:
        return None
    turns = round(float((low - value) / length))
    moved = value + turns * length
    if turns and bool(moved >= low) and bool(moved <= high):
        return f"{text} {'+' if turns > 0 else '−'} {_times(abs(turns), length, unit)}"
    return None


def _times(count: int, length: arb, unit: AngleUnit) -> str:
    """Write a whole multiple of a period."""
    if unit is AngleUnit.DEGREES or bool((length - length.mid().floor()).contains(0)):
        return f"{float(count * length):g}"
    turns = Fraction(round(float(count * length / arb.pi()) * 720), 720)
    top = "π" if turns.numerator == 1 else f"{turns.numerator}π"
    return top if turns.denominator == 1 else f"{top}/{turns.denominator}"
