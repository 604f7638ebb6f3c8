"""Real numbers held as floats with error bounds, and as fractions where they are known to be."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import isfinite, lcm
from typing import overload

import numpy as np
from flint import arb, fmpq
from numpy.typing import NDArray

from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.bounded.discs import Discs, Numbers
from axis_path.core.arithmetic.bounded.radii import Floats, Later, Radii, Relative
from axis_path.core.deadline import check

Whole = NDArray[np.int64]
#: The relative error of one rounding.
ROUNDING = 2.0**-53
#: More than any error of an operation whose result is too small for a normal float.
LEAST = 2.0**-1021
#: Numerators and denominators stay below this, so that they fit into 64 bits.
MOST_EXACT = 2**62
#: Whole numbers up to this are floats.
MOST_WHOLE = 2**53
#: So many entries are turned into balls before it is checked whether anybody still waits.
_CHUNK = 5_000


@dataclass(frozen=True)
class Common:
    """Fractions with a common denominator.

    Attributes:
        numerators: (n,), each of less than 2^62.
        denominator: at least 1, less than 2^62.
    """

    numerators: Whole
    denominator: int

    @cached_property
    def size(self) -> int:
        """Return the greatest absolute value of a numerator."""
        if not self.numerators.size:
            return 0
        return max(abs(int(self.numerators.max())), abs(int(self.numerators.min())))


class BoundedEntries(Discs, Sequence[Ball]):
    """Real numbers, all of which have a value; read one by one they are balls.

    Args:
        middles: (n,) finite floats.
        radii: bounds for the distance of each exact number from its float.
        exact: the numbers themselves, if they are known.
    """

    __slots__ = ("exact",)

    def __init__(self, middles: Floats, radii: Radii, exact: Common | None = None) -> None:
        super().__init__(middles, radii)
        self.exact = exact

    def __len__(self) -> int:
        return self.middles.size

    @overload
    def __getitem__(self, index: int) -> Ball: ...
    @overload
    def __getitem__(self, index: slice) -> BoundedEntries: ...
    def __getitem__(self, index: int | slice) -> Ball | BoundedEntries:
        if isinstance(index, slice):
            return self.take(np.arange(len(self))[index])
        if self.exact is not None:
            number = fmpq(int(self.exact.numerators[index]), self.exact.denominator)
            return Ball(arb(number), exact=number)
        middle, radius = float(self.middles[index]), self.bounds.at(index)
        if radius == 0 and middle.is_integer() and abs(middle) <= MOST_WHOLE:
            return Ball(arb(int(middle)), exact=fmpq(int(middle)))
        return Ball(arb(middle, radius))

    def __iter__(self) -> Iterator[Ball]:
        for index in range(len(self)):
            if index % _CHUNK == 0:
                check()
            yield self[index]

    def take(self, indices: NDArray[np.intp]) -> BoundedEntries:
        """Return the entries at these indices, in their order."""
        exact = self.exact
        return BoundedEntries(
            self.middles[indices],
            Later(lambda: self.radii[indices]),
            None if exact is None else Common(exact.numerators[indices], exact.denominator),
        )

    def nearest(self) -> Floats:
        """Return the middles; 0 where a number cannot be distinguished from 0."""
        if self.exact is not None:
            return self.middles
        if self.middles.min() > self.bounds.greatest():
            return self.middles
        sizes = np.abs(self.middles)
        if sizes.min() > self.bounds.greatest():
            return self.middles
        return np.where(sizes <= self.radii, 0.0, self.middles)


def from_common(numerators: Whole, denominator: int = 1) -> BoundedEntries:
    """Return fractions with a common denominator."""
    exact = Common(numerators, denominator)
    middles = numerators / float(denominator)
    if denominator == 1 and exact.size <= MOST_WHOLE:
        return BoundedEntries(middles, Relative(middles, 0.0), exact)
    # Numerator, denominator and quotient are each rounded once.
    return BoundedEntries(middles, Relative(middles, 4 * ROUNDING), exact)


def from_bounds(low: Floats, high: Floats) -> BoundedEntries:
    """Return the numbers that lie between finite bounds, (n,) each."""
    middles = 0.5 * low + 0.5 * high
    radii = np.maximum(high - middles, middles - low)
    bounds = np.where(low == high, 0.0, outward(radii))
    return BoundedEntries(middles, Later(lambda: bounds))


def from_ball(value: Ball) -> BoundedEntries:
    """Return one number; its bounds are those of the ball, rounded outward."""
    if value.value.is_zero():
        return from_common(np.zeros(1, dtype=np.int64))
    if value.exact is not None:
        top, bottom = int(value.exact.p), int(value.exact.q)
        if abs(top) < MOST_EXACT and bottom < MOST_EXACT:
            return from_common(np.array([top], dtype=np.int64), bottom)
    middle = float(value.value.mid())
    distance = float(abs(value.value - arb(middle)).upper())
    radii = outward(np.array([distance]))
    return BoundedEntries(np.array([middle]), Later(lambda: radii))


def from_balls(values: Sequence[Ball]) -> BoundedEntries | None:
    """Return several numbers; None if one is too large for a float."""
    known = _common(values)
    if known is not None:
        return from_common(known.numerators, known.denominator)
    made = [from_ball(value) for value in values]
    middles = np.concatenate([one.middles for one in made])
    if not bool(np.isfinite(middles).all()):
        return None
    radii = np.concatenate([one.radii for one in made])
    return BoundedEntries(middles, Later(lambda: radii))


def _common(values: Sequence[Ball]) -> Common | None:
    bottom, exact = 1, []
    for value in values:
        if value.exact is None:
            return None
        bottom = lcm(bottom, int(value.exact.q))
        if bottom >= MOST_EXACT:
            return None
        exact.append(value.exact)
    tops = [int(number.p) * (bottom // int(number.q)) for number in exact]
    if max(map(abs, tops), default=0) >= MOST_EXACT:
        return None
    return Common(np.array(tops, dtype=np.int64), bottom)


def joined(parts: Sequence[BoundedEntries]) -> BoundedEntries:
    """Return the entries of several, one after the other."""
    return BoundedEntries(
        np.concatenate([part.middles for part in parts]),
        Later(lambda: np.concatenate([part.radii for part in parts])),
        _joined_exact([part.exact for part in parts]),
    )


def _joined_exact(parts: Sequence[Common | None]) -> Common | None:
    known = [part for part in parts if part is not None]
    bottom = lcm(*(part.denominator for part in known))
    if len(known) < len(parts) or bottom >= MOST_EXACT:
        return None
    factors = [bottom // part.denominator for part in known]
    if any(part.size * factor >= MOST_EXACT for part, factor in zip(known, factors, strict=True)):
        return None
    scaled = [part.numerators * factor for part, factor in zip(known, factors, strict=True)]
    return Common(np.concatenate(scaled), bottom)


def are_finite(numbers: Numbers) -> bool:
    """Check whether all floats are finite."""
    return isfinite(abs(numbers.sum())) or bool(np.isfinite(numbers).all())


def outward(radii: Floats) -> Floats:
    """Return radii that were computed with a few roundings, made large enough for those."""
    return radii * (1 + 16 * ROUNDING) + LEAST
