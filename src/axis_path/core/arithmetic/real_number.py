"""The numbers that stand for names: fractions, and numbers that are only enclosed."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

import flint

from axis_path.core.arithmetic.ball import Ball, from_fraction
from axis_path.core.arithmetic.precision import precision

#: Floats are made from so many binary digits.
_FLOAT_BITS = 128


@dataclass(frozen=True, eq=False)
class EnclosedNumber:
    """A number without a known fraction, such as the solution of an equation.

    Attributes:
        at_bits: computes it with so many binary digits.
        source: what it was made from; only numbers of the same source are known to be equal.
    """

    at_bits: Callable[[int], Ball]
    source: object = None

    @cached_property
    def bounds(self) -> tuple[float, float]:
        """Return floats between which it lies."""
        value = self.at_bits(_FLOAT_BITS).value
        with precision(_FLOAT_BITS):
            if not value.is_finite():
                return -math.inf, math.inf
            low, high = float(value.lower()), float(value.upper())
        # The conversion rounds to the nearest float, which may lie inside.
        return math.nextafter(low, -math.inf), math.nextafter(high, math.inf)

    def __float__(self) -> float:
        """Return the float nearest to its middle."""
        return float(self.at_bits(_FLOAT_BITS).value.mid())


RealNumber = Fraction | EnclosedNumber
#: The values of names; all that a program reads are known.
Parameters = Mapping[str, RealNumber]


def ball_of(value: RealNumber) -> Ball:
    """Return the ball of a number, at the present precision."""
    if isinstance(value, EnclosedNumber):
        return value.at_bits(flint.ctx.prec)
    return from_fraction(value)


class Balls(dict[str, Ball]):
    """The balls of the values of names, made when they are first asked for."""

    def __init__(self, parameters: Parameters) -> None:
        super().__init__()
        self._parameters = parameters

    def __missing__(self, name: str) -> Ball:
        """Make the ball of a name, at the present precision."""
        self[name] = ball_of(self._parameters[name])
        return self[name]


def key_of(value: RealNumber) -> tuple[object, ...]:
    """Return what is equal for equal numbers, and quickly found."""
    # Whole numbers: to find something by a fraction takes far longer.
    if isinstance(value, EnclosedNumber):
        return (value,)
    return (value.numerator, value.denominator)


def fractions_only(parameters: Parameters, names: frozenset[str]) -> dict[str, Fraction] | None:
    """Return some of the values; None if one of them is no known fraction."""
    known = {name: parameters[name] for name in sorted(names)}
    fractions = {name: value for name, value in known.items() if isinstance(value, Fraction)}
    return fractions if len(fractions) == len(known) else None
