"""The three arithmetics, each as a table from operations to callables."""

from __future__ import annotations

import math
from collections.abc import Callable
from fractions import Fraction
from functools import lru_cache
from typing import ClassVar

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, Enclosure, ball, enclosure
from axis_path.core.catalogue import CONSTANTS, FUNCTIONS
from axis_path.core.evaluate.graph import Fence, Op

Floats = NDArray[np.float64]


def nearest_float(value: Fraction) -> float:
    """Give the nearest float; beyond the range of floats an infinity."""
    try:
        return float(value)
    except OverflowError:
        return math.inf if value > 0 else -math.inf


def float_bounds(value: Fraction) -> tuple[float, float]:
    """Give the closest floats below and above a number; equal if it is a float itself."""
    # The numbers of a program are asked for in every frame; whole numbers are quick to look up.
    return _float_bounds(value.numerator, value.denominator)


@lru_cache(maxsize=4096)
def _float_bounds(numerator: int, denominator: int) -> tuple[float, float]:
    value = Fraction(numerator, denominator)
    near = nearest_float(value)
    if math.isinf(near):
        largest = float(np.finfo(np.float64).max)
        return (largest, math.inf) if value > 0 else (-math.inf, -largest)
    exact = Fraction(near)
    low = near if exact <= value else math.nextafter(near, -math.inf)
    high = near if exact >= value else math.nextafter(near, math.inf)
    return low, high


def _divide(a: Floats, b: Floats) -> Floats:
    # A division by zero is undefined here, not infinite: 1/(1/x) has no value at 0.
    return np.where(b == 0, np.nan, a / b)


def _integer_power(a: Floats, n: int) -> Floats:
    if n == 0:
        return np.where(np.isnan(a), np.nan, 1.0)
    return np.where(a == 0, np.nan, a ** float(n)) if n < 0 else a ** float(n)


def _root(a: Floats, numerator: int, denominator: int) -> Floats:
    exponent = numerator / denominator
    if denominator % 2 == 0:
        result = a**exponent
    else:
        size = np.abs(a) ** exponent
        result = np.where(a < 0, -size, size) if numerator % 2 else size
    return np.where(a == 0, np.nan, result) if numerator < 0 else result


def _power(a: Floats, b: Floats) -> Floats:
    missing = np.isnan(a) | np.isnan(b) | ((a == 0) & (b < 0))
    return np.where(missing, np.nan, np.power(a, b))


def _logarithm(function: Callable[[Floats], Floats]) -> Callable[[Floats], Floats]:
    return lambda a: np.where(a > 0, function(a), np.nan)


class Fast:
    """NumPy arrays of float64; NaN where undefined."""

    _operations: ClassVar[dict[str, Callable[..., Floats]]] = {
        **{name: entry.backends.fast for name, entry in FUNCTIONS.items()},
        "ln": _logarithm(np.log),
        "log": _logarithm(np.log10),
        Op.ADD: np.add,
        Op.SUBTRACT: np.subtract,
        Op.MULTIPLY: np.multiply,
        Op.NEGATIVE: np.negative,
        Op.DIVIDE: _divide,
        Op.INTEGER_POWER: _integer_power,
        Op.ROOT: _root,
        Op.POWER: _power,
    }

    def number(self, value: Fraction) -> Floats:
        """Give the nearest float."""
        return np.asarray(nearest_float(value))

    def constant(self, name: str) -> Floats:
        """Give a constant to the nearest float."""
        return np.asarray(CONSTANTS[name].low)

    def operation(self, op: str) -> Callable[..., Floats]:
        """Give an operation on arrays."""
        return self._operations[op]

    def within(
        self, fence: Fence, body: Floats, subject: Floats, bounds: tuple[Floats, ...]
    ) -> Floats:
        """Give NaN outside the fence."""
        holds = ~np.isnan(subject)
        rest = list(bounds)
        if fence.low is not None:
            low = rest.pop(0)
            holds &= subject >= low if fence.low else subject > low
        if fence.high is not None:
            high = rest.pop(0)
            holds &= subject <= high if fence.high else subject < high
        for value in rest:
            holds &= subject != value
        return np.where(holds, body, np.nan)


class Enclosing:
    """Intervals over columns."""

    _operations: ClassVar[dict[str, Callable[..., Enclosure]]] = {
        **{name: entry.backends.enclosing for name, entry in FUNCTIONS.items()},
        Op.ADD: enclosure.add,
        Op.SUBTRACT: enclosure.subtract,
        Op.MULTIPLY: enclosure.multiply,
        Op.NEGATIVE: enclosure.negative,
        Op.DIVIDE: enclosure.divide,
        Op.INTEGER_POWER: enclosure.integer_power,
        Op.ROOT: enclosure.root,
        Op.POWER: enclosure.power,
    }

    def number(self, value: Fraction) -> Enclosure:
        """Give the closest floats around a number."""
        return enclosure.constant(*float_bounds(value))

    def constant(self, name: str) -> Enclosure:
        """Give the closest floats around a constant."""
        return enclosure.constant(CONSTANTS[name].low, CONSTANTS[name].high)

    def operation(self, op: str) -> Callable[..., Enclosure]:
        """Give an operation on enclosures."""
        return self._operations[op]

    def within(
        self,
        fence: Fence,
        body: Enclosure,
        subject: Enclosure,
        bounds: tuple[Enclosure, ...],
    ) -> Enclosure:
        """Mark the columns that lie partly or wholly outside the fence."""
        inside: enclosure.Flags = ~np.isnan(subject.low)
        outside: enclosure.Flags = np.isnan(subject.low)
        rest = list(bounds)
        if fence.low is not None:
            low = rest.pop(0)
            inside = inside & ((subject.low >= low.high) if fence.low else (subject.low > low.high))
            outside = outside | (
                (subject.high < low.low) if fence.low else (subject.high <= low.low)
            )
        if fence.high is not None:
            high = rest.pop(0)
            inside = inside & (
                (subject.high <= high.low) if fence.high else (subject.high < high.low)
            )
            outside = outside | (
                (subject.low > high.high) if fence.high else (subject.low >= high.high)
            )
        for value in rest:
            inside = inside & ((subject.low > value.high) | (subject.high < value.low))
        limited = enclosure.restrict(body, inside=inside, outside=outside)
        return limited.with_flags(subject, *bounds)


class EndsOnVariable(Enclosing):
    """Notes the ends of all fences around the variable itself while a program runs."""

    def __init__(self) -> None:
        self.variable: Enclosure | None = None
        self.ends: list[float] = []

    def within(
        self,
        fence: Fence,
        body: Enclosure,
        subject: Enclosure,
        bounds: tuple[Enclosure, ...],
    ) -> Enclosure:
        """Note the bounds if the subject is the variable."""
        if subject is self.variable:
            for bound in bounds:
                if np.ndim(bound.low) == 0 and np.isfinite(bound.low) and np.isfinite(bound.high):
                    self.ends += [float(bound.low), float(bound.high)]
        return super().within(fence, body, subject, bounds)


class Proving:
    """Balls; used inside ``precision`` only."""

    _operations: ClassVar[dict[str, Callable[..., Ball]]] = {
        **{name: entry.backends.proving for name, entry in FUNCTIONS.items()},
        Op.ADD: ball.add,
        Op.SUBTRACT: ball.subtract,
        Op.MULTIPLY: ball.multiply,
        Op.NEGATIVE: ball.negative,
        Op.DIVIDE: ball.divide,
        Op.INTEGER_POWER: ball.integer_power,
        Op.ROOT: ball.root,
        Op.POWER: ball.power,
    }

    def number(self, value: Fraction) -> Ball:
        """Give the number itself."""
        return ball.from_fraction(value)

    def constant(self, name: str) -> Ball:
        """Give a constant to the working precision."""
        return CONSTANTS[name].proving()

    def operation(self, op: str) -> Callable[..., Ball]:
        """Give an operation on balls."""
        return self._operations[op]

    def within(self, fence: Fence, body: Ball, subject: Ball, bounds: tuple[Ball, ...]) -> Ball:
        """Give no value outside the fence."""
        rest = list(bounds)
        holds: bool | None = True
        if fence.low is not None:
            holds = _both(holds, _is_above(subject, rest.pop(0), closed=fence.low))
        if fence.high is not None:
            holds = _both(holds, _is_above(rest.pop(0), subject, closed=fence.high))
        for value in rest:
            holds = _both(holds, _differs(subject, value))
        if subject.defined is Defined.NO:
            return subject
        if subject.defined is not Defined.YES and holds:
            holds = None
        return ball.restrict(body, holds, fence.reason)


def _both(a: bool | None, b: bool | None) -> bool | None:
    if a is False or b is False:
        return False
    return None if a is None or b is None else True


def _is_above(a: Ball, b: Ball, *, closed: bool) -> bool | None:
    """Tell whether a > b (a >= b if closed) holds on all of the balls, on none, or neither."""
    value = ball.subtract(a, b).value
    if bool(value > 0) or (closed and bool(value >= 0)):
        return True
    if bool(value < 0) or (not closed and bool(value <= 0)):
        return False
    return None


def _differs(a: Ball, b: Ball) -> bool | None:
    sign = ball.subtract(a, b).sign()
    return None if sign is None else sign != 0
