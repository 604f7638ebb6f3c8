"""Sliders: the range in which a parameter moves, and the values it may take there."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache

from axis_path.core.draw import plain
from axis_path.core.errors import SliderError
from axis_path.core.language import NAME_PATTERN, spelled

_LITERAL = r"[-−+]?\s*(?:[0-9]+(?:\.[0-9]*)?|\.[0-9]+)(?:[eE][+-]?[0-9]{1,3})?"
_SLIDER_LINE = re.compile(rf"\s*({NAME_PATTERN.pattern})\s*=\s*({_LITERAL})\s*")
_LARGEST = Fraction(10) ** 100


@dataclass(frozen=True, slots=True)
class SliderRange:
    """The ends and the step of a slider; all exact."""

    low: Fraction
    high: Fraction
    step: Fraction

    def __post_init__(self) -> None:
        """Refuse a range in which nothing moves.

        Raises:
            SliderError: ends in the wrong order, a step that is not positive or finds no room.
        """
        if self.low >= self.high:
            raise SliderError("A slider goes from a lower to a higher number.")
        if self.step <= 0:
            raise SliderError("The step of a slider is more than 0.")
        if self.step > self.high - self.low:
            raise SliderError("The step of a slider is at most the length of its range.")
        if max(abs(self.low), abs(self.high)) > _LARGEST or self.step < 1 / _LARGEST:
            raise SliderError("The range of a slider goes too far.")

    def snap(self, value: Fraction) -> Fraction:
        """Give the nearest value in the range that a whole number of steps reaches.

        The upper end is a value too, even if no whole number of steps reaches it.
        """
        value = min(max(value, self.low), self.high)
        steps = round((value - self.low) / self.step)
        snapped = min(self.low + steps * self.step, self.high)
        return self.high if abs(self.high - value) < abs(snapped - value) else snapped


@lru_cache(maxsize=4096)
def slider_value(text: str) -> tuple[str, Fraction] | None:
    """Read a line that is a slider, such as ``a = 2.5``; None for any other line."""
    found = _SLIDER_LINE.fullmatch(text)
    if found is None or found[1] in ("x", "y"):
        return None
    value = exact_number(found[2])
    if value and not 1 / _LARGEST <= abs(value) <= _LARGEST:
        # No hand can move there; the line is a number like any other.
        return None
    return spelled(found[1]), value


def exact_number(value: Fraction | float | int | str) -> Fraction:
    """Give the exact number that is meant: of a float, its shortest decimal.

    Raises:
        SliderError: it is not a finite number.
    """
    if isinstance(value, float):
        if not math.isfinite(value):
            raise SliderError("A slider needs a finite number.")
        value = repr(value)
    if isinstance(value, str):
        try:
            return Fraction(value.replace("−", "-").replace(" ", ""))
        except (ValueError, ZeroDivisionError) as err:
            raise SliderError(f"`{value}` is not a number.") from err
    return Fraction(value)


@lru_cache(maxsize=4096)
def written_number(value: Fraction) -> str:
    """Write a number so that the language reads it back exactly."""
    bottom = value.denominator
    for prime in (2, 5):
        while bottom % prime == 0:
            bottom //= prime
    if bottom != 1:
        return f"{value.numerator}/{value.denominator}".replace("−", "-")
    text = plain(value).replace("−", "-")
    return text.replace("·10^", "e") if "·" in text else text


def guessed_range(value: Fraction) -> SliderRange:
    """Give the range that a new slider begins with, wide enough for its value."""
    reach = Fraction(10)
    while reach < abs(value):
        reach *= 10
    if value and abs(value) <= Fraction(1, 10):
        reach = Fraction(1)
    step = reach / 100
    if value % step:
        step = min(step, Fraction(1, max(1, value.denominator)))
    step = max(step, reach / 100_000)
    return SliderRange(-reach, reach, step)
