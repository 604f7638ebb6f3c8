"""Complex numbers held as their real and their imaginary parts; both stay exact where they are."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import overload

import numpy as np
from flint import acb
from numpy.typing import NDArray

from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.bounded.discs import Discs, Numbers
from axis_path.core.arithmetic.bounded.entries import (
    ROUNDING,
    BoundedEntries,
    from_ball,
    from_balls,
    from_common,
    joined,
    outward,
)
from axis_path.core.arithmetic.bounded.radii import Later
from axis_path.core.arithmetic.complex_ball import ComplexBall, Scalar, promoted, simplified


class ComplexEntries(Sequence[Scalar]):
    """Complex numbers, all of which have a value; read one by one they are balls.

    Args:
        real: the real parts, (n,).
        imaginary: the imaginary parts, (n,).
    """

    __slots__ = ("imaginary", "real")

    def __init__(self, real: BoundedEntries, imaginary: BoundedEntries) -> None:
        self.real = real
        self.imaginary = imaginary

    def __len__(self) -> int:
        return len(self.real)

    @overload
    def __getitem__(self, index: int) -> Scalar: ...
    @overload
    def __getitem__(self, index: slice) -> ComplexEntries: ...
    def __getitem__(self, index: int | slice) -> Scalar | ComplexEntries:
        if isinstance(index, slice):
            return ComplexEntries(self.real[index], self.imaginary[index])
        return of_two_parts(self.real[index], self.imaginary[index])

    def __iter__(self) -> Iterator[Scalar]:
        return map(of_two_parts, self.real, self.imaginary)

    def take(self, indices: NDArray[np.intp]) -> ComplexEntries:
        """Return the entries at these indices, in their order."""
        return ComplexEntries(self.real.take(indices), self.imaginary.take(indices))

    def nearest(self) -> Numbers:
        """Return floats, with 0 for each part that cannot be distinguished from 0."""
        return self.real.nearest() + 1j * self.imaginary.nearest()


#: Many numbers with error bounds.
Entries = BoundedEntries | ComplexEntries


def of_two_parts(real: Ball, imaginary: Ball) -> Scalar:
    """Return the number with these parts, as a real one if it is."""
    exact = None
    if real.exact is not None and imaginary.exact is not None:
        exact = (real.exact, imaginary.exact)
    return simplified(ComplexBall(acb(real.value, imaginary.value), exact))


def parts(a: Entries) -> tuple[BoundedEntries, BoundedEntries]:
    """Return the real and the imaginary parts."""
    if isinstance(a, ComplexEntries):
        return a.real, a.imaginary
    return a, from_common(np.zeros(len(a), dtype=np.int64))


def sides(a: Entries) -> tuple[BoundedEntries, ...]:
    """Return the parts that are held: of real numbers one."""
    return (a.real, a.imaginary) if isinstance(a, ComplexEntries) else (a,)


def together(real: BoundedEntries | None, imaginary: BoundedEntries | None) -> Entries | None:
    """Return the numbers with these parts, as real ones if all are; None if a part is None."""
    return None if real is None or imaginary is None else combined(real, imaginary)


def combined(real: BoundedEntries, imaginary: BoundedEntries) -> Entries:
    """Return the numbers with these parts, as real ones if all are."""
    is_real = imaginary.exact is not None and not imaginary.exact.size
    return real if is_real else ComplexEntries(real, imaginary)


def from_scalar(value: Scalar) -> Entries:
    """Return one number."""
    if isinstance(value, Ball):
        return from_ball(value)
    return ComplexEntries(*map(from_ball, _parts_of(value)))


def from_scalars(values: Sequence[Scalar]) -> Entries | None:
    """Return several numbers; None if one is too large for a float."""
    reals = [value for value in values if isinstance(value, Ball)]
    if len(reals) == len(values):
        return from_balls(reals)
    pairs = [_parts_of(promoted(value)) for value in values]
    return together(*(from_balls(side) for side in zip(*pairs, strict=True)))


def _parts_of(value: ComplexBall) -> tuple[Ball, Ball]:
    real, imaginary = value.exact or (None, None)
    return Ball(value.value.real, exact=real), Ball(value.value.imag, exact=imaginary)


def joined_entries(every: Sequence[Entries]) -> Entries:
    """Return the entries of several, one after the other."""
    if all(isinstance(one, BoundedEntries) for one in every):
        return joined([one for one in every if isinstance(one, BoundedEntries)])
    pairs = [parts(one) for one in every]
    real, imaginary = (joined(side) for side in zip(*pairs, strict=True))
    return ComplexEntries(real, imaginary)


def discs_of(a: Entries) -> Discs:
    """Return numbers with one bound each."""
    if isinstance(a, BoundedEntries):
        return a
    middles = a.real.middles + 1j * a.imaginary.middles
    radii = Later(lambda: outward(np.hypot(a.real.radii, a.imaginary.radii) * (1 + 4 * ROUNDING)))
    return Discs(middles, radii)


def entries_of(a: Discs) -> Entries:
    """Return numbers with one bound each as numbers that are read one by one."""
    if isinstance(a, BoundedEntries):
        return a
    if not a.has_complex:
        return BoundedEntries(a.middles, a.bounds)
    real, imaginary = np.ascontiguousarray(a.middles.real), np.ascontiguousarray(a.middles.imag)
    return ComplexEntries(BoundedEntries(real, a.bounds), BoundedEntries(imaginary, a.bounds))
