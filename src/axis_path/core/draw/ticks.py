"""Places and labels for the lines of the grid."""

from __future__ import annotations

import math
from dataclasses import dataclass
from fractions import Fraction

_WANTED_PX = 84.0
_FINER = {1: 5, 2: 4, 5: 5}


@dataclass(frozen=True, slots=True)
class Ticks:
    """The ticks of one axis.

    Attributes:
        places: where the labelled lines stand, in axis units.
        labels: their texts.
        finer: where the lines between them stand.
    """

    places: tuple[float, ...]
    labels: tuple[str, ...]
    finer: tuple[float, ...]


def nice_step(low: float, high: float, length_px: float, wanted_px: float = _WANTED_PX) -> Fraction:
    """Give 1, 2 or 5 times a power of ten, so that lines stand about ``wanted_px`` apart."""
    rough = (high - low) * wanted_px / length_px
    power = math.floor(math.log10(rough))
    scale = Fraction(10) ** power
    factors = (1, 2, 5, 10)
    return min(
        (factor * scale for factor in factors), key=lambda s: abs(math.log(float(s) / rough))
    )


def _multiples(low: float, high: float, step: Fraction) -> list[int]:
    first = math.ceil(Fraction(low) / step)
    last = math.floor(Fraction(high) / step)
    return list(range(first, last + 1))


def make_ticks(low: float, high: float, length_px: float) -> Ticks:
    """Place ticks on an axis from ``low`` to ``high`` that is ``length_px`` long."""
    step = nice_step(low, high, length_px)
    multiples = _multiples(low, high, step)
    first_figure = int(str(step.numerator if step.denominator == 1 else
                           (step * 10 ** len(str(step.denominator))).numerator)[0])  # fmt: skip
    fine = step / _FINER.get(first_figure, 5)
    places = tuple(float(k * step) for k in multiples)
    finer = tuple(float(k * fine) for k in _multiples(low, high, fine) if (k * fine) % step != 0)
    return Ticks(places, tuple(plain(k * step) for k in multiples), finer)


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
    places = 0
    while size.denominator != 1 and places < 30:
        size *= 10
        places += 1
    digits = str(round(size)).rjust(places + 1, "0")
    return f"{sign}{digits[:-places]}.{digits[-places:]}" if places else f"{sign}{digits}"
