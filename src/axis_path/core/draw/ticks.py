"""Places and labels for the lines of the grid: plain numbers, multiples of pi, or degrees."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction
from functools import lru_cache

from axis_path.core.evaluate import multiple_of_pi

_TARGET_PX = 84.0
_FINER = {1: 5, 2: 4, 5: 5}
#: Steps of an axis in multiples of pi, and of one in degrees, below and above which they double or
#: follow the decimal steps.
_PI_STEPS = tuple(Fraction(1, n) for n in (12, 6, 4, 3, 2, 1))
_DEGREE_STEPS = tuple(map(Fraction, (1, 2, 5, 10, 15, 30, 45, 90, 180, 360)))
#: A step that is given is not followed where its lines would stand closer than this.
_LEAST_PX = 12
#: Into how many parts such a step is cut by the finer lines.
_FINER_ANGLES = 3


#: Labelled decades stand at least so far apart; those further apart have room for 2 and 5.
_LEAST_DECADE_PX, _ROOMY_DECADE_PX = 48, 150
#: Fewer labels than this do not tell the scale of a logarithmic axis; closer ones are crowded.
_FEWEST_LABELS, _LEAST_LABEL_PX = 3, 44


class Labels(StrEnum):
    """How an axis is labelled."""

    NUMBERS = "numbers"
    PI = "pi"
    DEGREES = "degrees"


@dataclass(frozen=True, slots=True)
class Ticks:
    """The ticks of one axis.

    Attributes:
        positions: where the labelled lines stand, in axis units.
        labels: their texts.
        finer: where the lines between them stand.
    """

    positions: tuple[float, ...]
    labels: tuple[str, ...]
    finer: tuple[float, ...]


def nice_step(low: float, high: float, length_px: float, target_px: float = _TARGET_PX) -> Fraction:
    """Return 1, 2 or 5 times a power of ten, so that lines stand about ``wanted_px`` apart."""
    return _decimal_step((high - low) * target_px / length_px)


def _decimal_step(rough: float) -> Fraction:
    return _nearest(_decimal_steps(math.floor(math.log10(rough))), rough)


@lru_cache(maxsize=64)
def _decimal_steps(power: int) -> tuple[Fraction, ...]:
    return tuple(factor * Fraction(10) ** power for factor in (1, 2, 5, 10))


def _nearest(steps: Iterable[Fraction], rough: float) -> Fraction:
    return min(steps, key=lambda step: abs(math.log(float(step) / rough)))


def _angle_step(rough: float, steps: tuple[Fraction, ...]) -> Fraction:
    """Return the step nearest to a rough one; beyond the usual ones it is decimal."""
    if rough < float(steps[0]) / 2 or rough > float(steps[-1]) * 2:
        return _decimal_step(rough)
    return _nearest(steps, rough)


def _multiples(low: float, high: float, step: Fraction, unit: float = 1.0) -> list[int]:
    if unit == 1.0:
        (a, b), (c, d) = low.as_integer_ratio(), high.as_integer_ratio()
        p, q = step.numerator, step.denominator
        return list(range(-(-a * q // (b * p)), c * q // (d * p) + 1))
    size = float(step) * unit
    return list(range(math.ceil(low / size - 1e-9), math.floor(high / size + 1e-9) + 1))


@lru_cache(maxsize=256)
def make_ticks(
    low: float,
    high: float,
    length_px: float,
    labels: Labels = Labels.NUMBERS,
    *,
    step: Fraction | None = None,
    degree: float = math.pi / 180,
) -> Ticks:
    """Place ticks on an axis from ``low`` to ``high`` that is ``length_px`` long.

    Args:
        low: the lower end of the axis.
        high: the upper end.
        length_px: its length.
        labels: how it is labelled.
        step: the distance of the labelled lines, in numbers, in multiples of pi or in degrees; None
            for one that suits the length.
        degree: how large a degree is on the axis: 1 in a study that measures in degrees.
    """
    unit = {Labels.NUMBERS: 1.0, Labels.PI: math.pi, Labels.DEGREES: degree}[labels]
    rough = (high - low) * _TARGET_PX / length_px / unit
    if step is None or (high - low) / (float(step) * unit) > length_px / _LEAST_PX:
        step = _step(rough, labels)
    multiples = _multiples(low, high, step, unit)
    parts = _finer_parts(step, labels)
    fine = step / parts
    # Quotients of whole numbers, which Python rounds right: fractions would take ten times as long.
    return Ticks(
        tuple(k * step.numerator / step.denominator * unit for k in multiples),
        tuple(_label(k, step, labels) for k in multiples),
        tuple(
            k * fine.numerator / fine.denominator * unit
            for k in _multiples(low, high, fine, unit)
            if k % parts
        ),
    )


def make_log_ticks(low: float, high: float, length_px: float) -> Ticks:
    """Place ticks on a logarithmic axis: at powers of ten, and at 2 and 5 times them where roomy.

    Less than a decade or two is labelled at the numbers of a plain axis, which stand closer and
    closer there.

    Args:
        low: the lower end, above zero.
        high: the upper end.
        length_px: how long the axis is.
    """
    decade_px = length_px / math.log10(high / low)
    first, last = math.floor(math.log10(low) - 1e-9), math.ceil(math.log10(high) + 1e-9)
    every = max(math.ceil(_LEAST_DECADE_PX / decade_px), 1)
    named = (1, 2, 5) if decade_px > _ROOMY_DECADE_PX else (1,)
    finer = range(1, 10) if decade_px > _LEAST_DECADE_PX else (1,)
    powers = [Fraction(10) ** k for k in range(first, last + 1)]
    labelled = [
        factor * power
        for k, power in enumerate(powers, start=first)
        for factor in (named if k % every == 0 else ())
        if low <= float(factor * power) <= high
    ]
    if len(labelled) < _FEWEST_LABELS:
        ticks = make_ticks(low, high, length_px)
        return _apart(ticks, lambda position: decade_px * math.log10(position / low))
    between = sorted(
        float(factor * power)
        for power in powers
        for factor in finer
        if low <= float(factor * power) <= high and factor * power not in labelled
    )
    return Ticks(
        tuple(map(float, labelled)),
        tuple(plain(text).replace("1·10^", "10^") for text in labelled),
        tuple(between),
    )


def _apart(ticks: Ticks, px: Callable[[float], float]) -> Ticks:
    """Leave out labels that would stand too close to the one before; their lines become finer."""
    positions: list[float] = []
    labels: list[str] = []
    finer = [*ticks.finer]
    for position, label in zip(ticks.positions, ticks.labels, strict=True):
        if positions and px(position) - px(positions[-1]) < _LEAST_LABEL_PX:
            finer.append(position)
        else:
            positions.append(position)
            labels.append(label)
    return Ticks(tuple(positions), tuple(labels), tuple(sorted(finer)))


def _step(rough: float, labels: Labels) -> Fraction:
    match labels:
        case Labels.PI:
            return _angle_step(rough, _PI_STEPS)
        case Labels.DEGREES:
            return _angle_step(rough, _DEGREE_STEPS)
        case _:
            return _decimal_step(rough)


@lru_cache(maxsize=256)
def _finer_parts(step: Fraction, labels: Labels) -> int:
    if labels is not Labels.NUMBERS and step in (*_PI_STEPS, *_DEGREE_STEPS):
        return _FINER_ANGLES
    figures = step.numerator
    if step.denominator != 1:
        figures = (step * 10 ** len(str(step.denominator))).numerator
    return _FINER.get(int(str(figures)[0]), 5)


@lru_cache(maxsize=1024)
def _label(multiple: int, step: Fraction, labels: Labels) -> str:
    value = multiple * step
    match labels:
        case Labels.PI:
            return multiple_of_pi(value)
        case Labels.DEGREES:
            return f"{plain(value)}°"
        case _:
            return plain(value)


def plain(value: Fraction) -> str:
    """Write a number with a finite decimal plainly, in powers of ten only if it is very long."""
    if value == 0:
        return "0"
    sign = "−" if value < 0 else ""
    size = abs(value)
    power = math.floor(math.log10(size.numerator) - math.log10(size.denominator))
    if not -6 <= power <= 8:
        mantissa = plain(size / Fraction(10) ** power)
        return f"{sign}{mantissa}·10^{str(power).replace('-', '−')}"
    decimals = 0
    while size.denominator != 1 and decimals < 30:
        size *= 10
        decimals += 1
    digits = str(round(size)).rjust(decimals + 1, "0")
    return f"{sign}{digits[:-decimals]}.{digits[-decimals:]}" if decimals else f"{sign}{digits}"
