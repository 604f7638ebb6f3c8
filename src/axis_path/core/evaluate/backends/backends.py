"""The three arithmetics, each as a table from operations to callables."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from fractions import Fraction
from functools import lru_cache
from typing import ClassVar, Generic, Self, TypeVar, cast

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, Enclosure, ball, enclosure
from axis_path.core.arithmetic.real_number import EnclosedNumber, RealNumber
from axis_path.core.catalogue import CONSTANTS, OPERATIONS
from axis_path.core.evaluate.backends import proved_summaries, summaries
from axis_path.core.evaluate.graph.fences import ball_inside, columns_inside, samples_inside
from axis_path.core.evaluate.graph.graph import Fence, Inner, Op, Split
from axis_path.core.language.tree import Summary

Floats = NDArray[np.float64]
V = TypeVar("V")


def nearest_float(value: RealNumber) -> float:
    """Return the nearest float; beyond the range of floats an infinity."""
    try:
        return float(value)
    except OverflowError:
        return math.inf if isinstance(value, Fraction) and value > 0 else -math.inf


def float_bounds(value: RealNumber) -> tuple[float, float]:
    """Return the closest floats below and above a number; equal if it is a float itself."""
    if isinstance(value, EnclosedNumber):
        return value.bounds
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
    quotient = a / b
    if type(cast(object, b)) is np.float64 and b:
        return quotient
    if np.count_nonzero(b) == np.size(b):
        return quotient
    # A division by zero is undefined here, not infinite: 1/(1/x) has no value at 0.
    if np.shape(quotient) != np.shape(b):
        return np.where(b == 0, np.nan, quotient)
    quotient = np.asarray(quotient)
    np.putmask(quotient, b == 0, np.nan)
    return quotient


def _integer_power(a: Floats, n: int) -> Floats:
    if n == 0:
        return np.where(np.isnan(a), np.nan, 1.0)
    power = enclosure.whole_power(a, abs(n))
    return power if n > 0 else _divide(np.ones(()), power)


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


class Watch(Generic[V]):
    """Notes the bounds of all fences on one value, which is watched, as they come up.

    Attributes:
        ends: the bounds.
    """

    #: The name under which programs keep what they bound to this arithmetic.
    name: ClassVar[str] = ""
    #: Whether constants are the same in every run.
    is_fixed: bool = True

    def __init__(self, watched: V | None = None) -> None:
        self._watched = watched
        self.ends: list[V] = []
        self.plan_name = self.name if watched is None else ""

    def watching(self, bound: V) -> Self:
        """Return the same arithmetic, which notes where domains on ``bound`` end."""
        return type(self)(bound)

    def note(self, subject: V, bounds: Iterable[V]) -> None:
        """Note the bounds of a fence if its subject is the watched value."""
        if subject is self._watched:
            self.ends.extend(bounds)


class Fast(Watch[Floats]):
    """NumPy arrays of float64; NaN where undefined."""

    name = "fast"

    _operations: ClassVar[dict[str, Callable[..., Floats]]] = {
        **{name: backends.fast for name, backends in OPERATIONS.items()},
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
        """Return the nearest float."""
        # A scalar, which NumPy adds to an array more quickly than an array of no dimension.
        return cast(Floats, np.float64(nearest_float(value)))

    def constant(self, name: str) -> Floats:
        """Return a constant to the nearest float."""
        return cast(Floats, np.float64(CONSTANTS[name].low))

    def operation(self, op: str) -> Callable[..., Floats]:
        """Return an operation on arrays."""
        return self._operations[op]

    def within(
        self, fence: Fence, body: Floats, subject: Floats, bounds: tuple[Floats, ...]
    ) -> Floats:
        """Return NaN outside the fence."""
        self.note(subject, bounds)
        return np.where(samples_inside(fence, subject, bounds), body, np.nan)

    def pieces(
        self, split: Split, subject: Floats, pieces: list[tuple[Floats, tuple[Floats, ...]]]
    ) -> Floats:
        """Return the first body whose fence holds; NaN outside all."""
        self.note(subject, (bound for _, bounds in pieces for bound in bounds))
        result: Floats = np.full(np.shape(subject), np.nan)
        for fence, (body, bounds) in reversed(list(zip(split.fences, pieces, strict=True))):
            holds = ~np.isnan(subject) if fence is None else samples_inside(fence, subject, bounds)
            result = np.where(holds, body, result)
        return result

    def guard(self, body: Floats, witness: Floats) -> Floats:
        """Return NaN where the witness is NaN."""
        return np.where(np.isnan(witness), np.nan, body)

    def summarise(self, inner: Inner, low: Floats, high: Floats, captured: list[Floats]) -> Floats:
        """Return a sum, a product or an integral; of the latter what its enclosure admits."""
        result = summaries.fast(self, inner, low, high, captured)
        if inner.summary is not Summary.INTEGRAL:
            return result
        sources = [enclosure.between(value, value) for value in (low, high, *captured)]
        bounds = summaries.enclosing(Enclosing(), inner, sources[0], sources[1], sources[2:])
        # Quadrature does not see a jump between its nodes; the enclosure does.
        return np.where(bounds.nowhere, np.nan, np.clip(result, bounds.low, bounds.high))


@lru_cache(maxsize=4096)
def _constant(numerator: int, denominator: int) -> Enclosure:
    return enclosure.constant(*float_bounds(Fraction(numerator, denominator)))


class Enclosing(Watch[Enclosure]):
    """Intervals over columns."""

    name = "enclosing"

    _operations: ClassVar[dict[str, Callable[..., Enclosure]]] = {
        **{name: backends.enclosing for name, backends in OPERATIONS.items()},
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
        """Return the closest floats around a number."""
        return _constant(value.numerator, value.denominator)

    def constant(self, name: str) -> Enclosure:
        """Return the closest floats around a constant."""
        return enclosure.constant(CONSTANTS[name].low, CONSTANTS[name].high)

    def operation(self, op: str) -> Callable[..., Enclosure]:
        """Return an operation on enclosures."""
        return self._operations[op]

    def within(
        self,
        fence: Fence,
        body: Enclosure,
        subject: Enclosure,
        bounds: tuple[Enclosure, ...],
    ) -> Enclosure:
        """Mark the columns that lie partly or wholly outside the fence."""
        self.note(subject, bounds)
        inside, outside = columns_inside(fence, subject, bounds)
        limited = enclosure.restrict(body, inside=inside, outside=outside)
        return limited.with_flags(subject, *bounds)

    def pieces(
        self,
        split: Split,
        subject: Enclosure,
        pieces: list[tuple[Enclosure, tuple[Enclosure, ...]]],
    ) -> Enclosure:
        """Join the bodies that may hold in a column."""
        self.note(subject, (bound for _, bounds in pieces for bound in bounds))
        covered: enclosure.Flags = np.bool_(False)
        parts = []
        for fence, (body, bounds) in zip(split.fences, pieces, strict=True):
            inside, outside = (
                (~np.isnan(subject.low), np.isnan(subject.low))
                if fence is None
                else columns_inside(fence, subject, bounds)
            )
            parts.append((~outside & ~covered, body.with_flags(*bounds)))
            covered = covered | inside
        return enclosure.join(parts, covered).with_flags(subject)

    def guard(self, body: Enclosure, witness: Enclosure) -> Enclosure:
        """Mark the columns in which the witness is not defined throughout."""
        return enclosure.restrict(
            body, inside=~(witness.partial | witness.nowhere), outside=witness.nowhere
        )

    def summarise(
        self, inner: Inner, low: Enclosure, high: Enclosure, captured: list[Enclosure]
    ) -> Enclosure:
        """Enclose a sum, a product or an integral."""
        return summaries.enclosing(self, inner, low, high, captured)


class Proving(Watch[Ball]):
    """Balls; used inside ``precision`` only.

    Attributes:
        wanted_bits: how many right bits an integral needs; None for as many as can be had.
    """

    wanted_bits: int | None = None

    name = "proving"
    # A constant has as many digits as the present precision asks for.
    is_fixed = False

    _operations: ClassVar[dict[str, Callable[..., Ball]]] = {
        **{name: backends.proving for name, backends in OPERATIONS.items()},
        Op.ADD: ball.add,
        Op.SUBTRACT: ball.subtract,
        Op.MULTIPLY: ball.multiply,
        Op.NEGATIVE: ball.negative,
        Op.DIVIDE: ball.divide,
        Op.INTEGER_POWER: ball.integer_power,
        Op.ROOT: ball.root,
        Op.POWER: ball.power,
    }

    @classmethod
    def with_integrals(cls, wanted_bits: int) -> Self:
        """Return the same arithmetic, with integrals of so many right bits."""
        made = cls()
        made.wanted_bits, made.plan_name = wanted_bits, ""
        return made

    def number(self, value: Fraction) -> Ball:
        """Return the number itself."""
        return ball.from_fraction(value)

    def constant(self, name: str) -> Ball:
        """Return a constant to the working precision."""
        return CONSTANTS[name].proving()

    def operation(self, op: str) -> Callable[..., Ball]:
        """Return an operation on balls."""
        return self._operations[op]

    def within(self, fence: Fence, body: Ball, subject: Ball, bounds: tuple[Ball, ...]) -> Ball:
        """Return no value outside the fence."""
        self.note(subject, bounds)
        if subject.defined is Defined.NO:
            return subject
        return ball.restrict(body, ball_inside(fence, subject, bounds), fence.reason)

    def pieces(
        self, split: Split, subject: Ball, pieces: list[tuple[Ball, tuple[Ball, ...]]]
    ) -> Ball:
        """Return the first body whose fence holds; the union of those that cannot be excluded."""
        self.note(subject, (bound for _, bounds in pieces for bound in bounds))
        if subject.defined is Defined.NO:
            return subject
        possible: list[Ball] = []
        for fence, (body, bounds) in zip(split.fences, pieces, strict=True):
            holds = True if fence is None else ball_inside(fence, subject, bounds)
            if holds is not False:
                possible.append(body)
            if holds:
                return ball.join(possible, split.reason, is_certain=True)
        return ball.join(possible, split.reason, is_certain=False)

    def guard(self, body: Ball, witness: Ball) -> Ball:
        """Return no value where the witness has none."""
        if witness.defined is Defined.NO:
            return witness
        return ball.limited(body, witness.defined, witness.reason)

    def summarise(self, inner: Inner, low: Ball, high: Ball, captured: list[Ball]) -> Ball:
        """Return a sum, a product or an integral."""
        return proved_summaries.proving(self, inner, low, high, captured, self.wanted_bits)
