"""Change the domain of a written function, and nothing else of its text."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache

from axis_path.core.arithmetic import ball, precision
from axis_path.core.draw import Window, nice_step
from axis_path.core.evaluate import VALUE_BITS, End
from axis_path.core.language import FunctionLine
from axis_path.core.language.tree import AngleUnit, Bound
from axis_path.core.lines.meaning import Kind
from axis_path.core.lines.sliders import written_number


@dataclass(frozen=True, slots=True)
class NewEnd:
    """An end of a domain: a text for its value, None to leave that side open to infinity."""

    text: str | None
    closed: bool = True


def rewrite_domain(
    text: str, line: FunctionLine, *, low: NewEnd | None = None, high: NewEnd | None = None
) -> str:
    """Return the text of a function with one or both ends of its domain changed.

    Args:
        text: the present text.
        line: how it was read.
        low: the new lower end; None keeps the present one.
        high: the same for the upper end.
    """
    low = low or _present(text, line.domain.low)
    high = high or _present(text, line.domain.high)
    variable = text[line.name_span[1] :].lstrip(" (")
    name = _written_variable(variable, line)
    parts = []
    if low.text is not None and high.text is not None:
        left = "<=" if low.closed else "<"
        right = "<=" if high.closed else "<"
        parts.append(f"{low.text} {left} {name} {right} {high.text}")
    elif low.text is not None:
        parts.append(f"{name} {'>=' if low.closed else '>'} {low.text}")
    elif high.text is not None:
        parts.append(f"{name} {'<=' if high.closed else '<'} {high.text}")
    parts += [f"{name} != {text[slice(*value.span)]}" for value in line.domain.without]
    body = text[: line.domain_start].rstrip()
    return f"{body} for {', '.join(parts)}" if parts else body


#: How far a path goes whose parameter has no ends; a curve by an angle goes one turn.
_PATH_SPAN = 20
_TURN_DEGREES = 360


def with_ends(low: End | None, high: End | None, kind: Kind, unit: AngleUnit) -> tuple[End, End]:
    """Return the ends between which a path is drawn, taking one that is not given as usual.

    A curve by an angle goes one turn from 0 or from its given end; a path goes from -10 to 10, in
    degrees one turn to both sides, or as far from its given end.
    """
    if low is not None and high is not None:
        return low, high
    with precision(VALUE_BITS):
        if kind is Kind.POLAR:
            in_degrees = unit is AngleUnit.DEGREES
            span = (
                ball.from_fraction(_TURN_DEGREES)
                if in_degrees
                else ball.multiply(ball.from_fraction(2), ball.pi())
            )
            first = ball.from_fraction(0)
        else:
            size = _PATH_SPAN if unit is AngleUnit.RADIANS else 2 * _TURN_DEGREES
            span, first = ball.from_fraction(size), ball.from_fraction(-size // 2)
        if low is None:
            low = End(first if high is None else ball.subtract(high.value, span), closed=True)
        if high is None:
            high = End(ball.add(low.value, span), closed=True)
    return low, high


def _written_variable(after_name: str, line: FunctionLine) -> str:
    """Return the variable as it was typed: ``θ`` stays ``θ``."""
    if line.name is None:
        return line.variable
    return after_name.split(")", 1)[0].strip() or line.variable


def _present(text: str, bound: Bound | None) -> NewEnd:
    if bound is None:
        return NewEnd(None)
    return NewEnd(text[slice(*bound.value.span)], bound.closed)


def round_to_px(value: float, window: Window) -> Fraction:
    """Return the shortest number within half a pixel of an abscissa."""
    return round_to(value, window.pixel_at(value))


def round_to(value: float, pixel: float) -> Fraction:
    """Return the shortest number that is near enough where a pixel is so wide."""
    if not math.isfinite(value):
        return Fraction(0)
    step = _step_within(pixel)
    return round(Fraction(value) / step) * step


@lru_cache(maxsize=64)
def _step_within(pixel: float) -> Fraction:
    """Return the largest of 1, 2, 5 times a power of ten that is at most one pixel wide."""
    step = nice_step(0, 1, 1, pixel)
    for factor in (Fraction(1), Fraction(1, 2), Fraction(1, 5), Fraction(1, 10)):
        if float(step * factor) <= pixel:
            return step * factor
    return step


def number_text(value: Fraction) -> str:
    """Write a number as the end of a domain."""
    return written_number(value)
