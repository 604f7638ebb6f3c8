"""Sliders: the range in which a parameter moves, the values it may take there, and how it plays."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, field, replace
from enum import StrEnum
from fractions import Fraction
from functools import lru_cache

from axis_path.core.catalogue import CONSTANTS, FUNCTIONS
from axis_path.core.catalogue.units import read_unit
from axis_path.core.contract import Finite, Line
from axis_path.core.draw import plain
from axis_path.core.errors import SliderError
from axis_path.core.language import NAME_PATTERN, head_name, spelled

_LITERAL = r"[-−+]?\s*(?:[0-9]+(?:\.[0-9]*)?|\.[0-9]+)(?:[eE][+-]?[0-9]{1,3})?"
_SLIDER_LINE = re.compile(
    rf"\s*({NAME_PATTERN.pattern})\s*:?=\s*({_LITERAL})(?:(?:(?<=\S)(?=\S\S)|\s+)([^\s0-9].*?))?\s*"
)
_LARGEST = Fraction(10) ** 100
#: What has a meaning of its own is no slider, even where somebody writes ``e = 3``.
_NOT_SLIDERS = frozenset({"x", "y", *CONSTANTS, *FUNCTIONS})


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
        """Return the nearest value in the range that a whole number of steps reaches.

        The upper end is a value too, even if no whole number of steps reaches it.
        """
        value = min(max(value, self.low), self.high)
        steps = round((value - self.low) / self.step)
        snapped = min(self.low + steps * self.step, self.high)
        return self.high if abs(self.high - value) < abs(snapped - value) else snapped


@lru_cache(maxsize=4096)
def slider_value(text: str) -> tuple[str, Fraction] | None:
    """Read a line that is a slider, such as ``a = 2.5``; None for any other line."""
    match = _SLIDER_LINE.fullmatch(text)
    if match is None or head_name(text) is None or spelled(match[1]) in _NOT_SLIDERS:
        return None
    if match[3] is not None and not _can_move(match[3]):
        return None
    value = exact_number(match[2])
    if value and not 1 / _LARGEST <= abs(value) <= _LARGEST:
        # No hand can move there; the line is a number like any other.
        return None
    return spelled(match[1]), value


@lru_cache(maxsize=4096)
def slider_unit(text: str) -> str:
    """Return the unit of the slider that a line is, as it is typed; empty for a plain number."""
    match = _SLIDER_LINE.fullmatch(text)
    unit = None if match is None else match[3]
    return unit if unit is not None and _can_move(unit) else ""


def written_slider(name: str, value: Fraction, unit: str) -> str:
    """Return the line of a slider, as it is typed."""
    return f"{name} = {written_number(value)} {unit}".rstrip()


def _can_move(unit: str) -> bool:
    """Check whether a slider can have a unit: one whose numbers are fractions of base units."""
    product = read_unit(unit)
    if product is None or product.factor is None:
        return False
    return not product.factor.pi and not product.dimension.without_angle.is_plain


@lru_cache(maxsize=4096)
def literal(text: str) -> Fraction | None:
    """Read a text that is a number, such as ``2.5`` or ``-7/3``; None for an expression."""
    try:
        return exact_number(text)
    except SliderError:
        return None


def exact_number(value: Fraction | float | int | str) -> Fraction:
    """Return the exact number that is meant: of a float, its shortest decimal.

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


class SliderKind(StrEnum):
    """What a slider's values are."""

    REAL = "real"
    WHOLE = "whole"
    ANGLE = "angle"


class AtEnd(StrEnum):
    """What a slider that plays does at an end of its range."""

    STOP = "stop"
    RESTART = "restart"
    REVERSE = "reverse"


@dataclass(frozen=True, slots=True)
class Play:
    """How a slider moves by itself.

    Attributes:
        seconds: how long it takes from end to end.
        forward: whether it begins towards the upper end.
        in_step: whether it shares one clock with all others that do.
    """

    seconds: Finite = 6.0
    forward: bool = True
    at_end: AtEnd = AtEnd.REVERSE
    in_step: bool = False

    def __post_init__(self) -> None:
        """Refuse what nobody could watch.

        Raises:
            SliderError: the time is not between a fifth of a second and an hour.
        """
        if not 0.2 <= self.seconds <= 3_600:
            raise SliderError("A slider takes between 0.2 and 3600 seconds from end to end.")


@dataclass(frozen=True, slots=True)
class Slider:
    """A slider as it is stored; its ends and its step are expressions, as they were typed.

    Attributes:
        unit: the unit of its value, a text that is only shown.
        note: what it stands for, a text that is only shown.
    """

    low: Line
    high: Line
    step: Line
    kind: SliderKind = SliderKind.REAL
    unit: str = ""
    note: str = ""
    play: Play = field(default_factory=Play)

    def __post_init__(self) -> None:
        """Refuse texts that have no room beside the slider.

        Raises:
            SliderError: one is too long.
        """
        for name, text, longest in (("unit", self.unit, 20), ("note", self.note, 200)):
            if len(text) > longest:
                raise SliderError(f"The {name} of a slider has at most {longest} characters.")

    @property
    def texts(self) -> tuple[str, str, str]:
        """Return the ends and the step as they were typed."""
        return self.low, self.high, self.step

    def with_texts(self, low: str, high: str, step: str) -> Slider:
        """Return the same slider with other ends and another step."""
        return replace(self, low=low, high=high, step=step)

    def range(self, low: Fraction, high: Fraction, step: Fraction) -> SliderRange:
        """Return the range for the present values of the ends and the step.

        Raises:
            SliderError: nothing moves between them.
        """
        if self.kind is not SliderKind.WHOLE:
            return SliderRange(low, high, step)
        first, last = Fraction(math.ceil(low)), Fraction(math.floor(high))
        if low < high and first >= last:
            raise SliderError("There are no two whole numbers between the ends of the slider.")
        if step <= 0:
            raise SliderError("The step of a slider is more than 0.")
        return SliderRange(first, last, Fraction(max(1, round(step))))


def guessed_range(value: Fraction, unit: str = "") -> Slider:
    """Return the slider that a new number begins with, wide enough for its value.

    A quantity above zero begins at zero: a mass, a length or a time is seldom less. A temperature
    in °C or °F is.
    """
    reach = Fraction(10)
    while reach < abs(value):
        reach *= 10
    if value and abs(value) <= Fraction(1, 10):
        reach = Fraction(1)
    step = reach / 100
    if value % step:
        step = min(step, Fraction(1, max(1, value.denominator)))
    step = max(step, reach / 100_000)
    product = read_unit(unit) if unit else None
    low = -reach if product is None or product.has_zero or value <= 0 else Fraction(0)
    return Slider(written_number(low), written_number(reach), written_number(step))
