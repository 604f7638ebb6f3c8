"""Complex numbers with fractions as parts, their lists and matrices, in plain Python.

They know nothing of the program: tests compare its values with theirs.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction


@dataclass(frozen=True)
class Gauss:
    """A number re + im i."""

    re: Fraction
    im: Fraction = Fraction(0)

    def __add__(self, other: Gauss) -> Gauss:
        return Gauss(self.re + other.re, self.im + other.im)

    def __neg__(self) -> Gauss:
        return Gauss(-self.re, -self.im)

    def __sub__(self, other: Gauss) -> Gauss:
        return self + -other

    def __mul__(self, other: Gauss) -> Gauss:
        return Gauss(
            self.re * other.re - self.im * other.im, self.re * other.im + self.im * other.re
        )

    def __truediv__(self, other: Gauss) -> Gauss:
        size = other.re**2 + other.im**2
        return self * Gauss(other.re / size, -other.im / size)

    def __pow__(self, exponent: int) -> Gauss:
        made = Gauss(Fraction(1))
        for _ in range(exponent):
            made = made * self
        return made

    @property
    def conjugate(self) -> Gauss:
        return Gauss(self.re, -self.im)

    @property
    def is_zero(self) -> bool:
        return not self.re and not self.im

    @property
    def text(self) -> str:
        """The number as a textbook writes it: ``1/2 - 2i/5``."""
        real, imaginary = str(self.re), _times_i(self.im)
        if not self.im:
            return real
        if not self.re:
            return imaginary
        return f"{real} - {imaginary[1:]}" if self.im < 0 else f"{real} + {imaginary}"


def _times_i(factor: Fraction) -> str:
    size = "" if abs(factor.numerator) == 1 else str(abs(factor.numerator))
    below = "" if factor.denominator == 1 else f"/{factor.denominator}"
    return f"{'-' if factor < 0 else ''}{size}i{below}"


Vector = tuple[Gauss, ...]
Rows = tuple[Vector, ...]


def total(values: Vector) -> Gauss:
    """Add all."""
    return sum(values[1:], values[0])


def transposed(a: Rows) -> Rows:
    """Swap rows and columns."""
    return tuple(zip(*a, strict=True))


def times(a: Rows, b: Rows) -> Rows:
    """Multiply two matrices."""
    return tuple(
        tuple(
            total(tuple(x * y for x, y in zip(row, column, strict=True)))
            for column in transposed(b)
        )
        for row in a
    )


def entrywise(operation: Callable[[Gauss, Gauss], Gauss], a: Rows, b: Rows) -> Rows:
    """Combine two matrices entry by entry."""
    return tuple(tuple(map(operation, p, q)) for p, q in zip(a, b, strict=True))


def determinant(a: Rows) -> Gauss:
    """Expand by the first row."""
    if len(a) == 1:
        return a[0][0]
    parts = []
    for k, entry in enumerate(a[0]):
        minor = determinant(tuple(row[:k] + row[k + 1 :] for row in a[1:]))
        parts.append(entry * minor if k % 2 == 0 else -(entry * minor))
    return total(tuple(parts))


def inverse(a: Rows) -> Rows:
    """Divide the matrix of cofactors by the determinant, which is not 0."""
    size, whole = len(a), determinant(a)
    if size == 1:
        return ((Gauss(Fraction(1)) / whole,),)
    return tuple(
        tuple(_cofactor(a, column, row) / whole for column in range(size)) for row in range(size)
    )


def _cofactor(a: Rows, row: int, column: int) -> Gauss:
    minor = tuple(r[:column] + r[column + 1 :] for k, r in enumerate(a) if k != row)
    value = determinant(minor)
    return value if (row + column) % 2 == 0 else -value
