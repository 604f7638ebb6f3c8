"""Dimensions: what a quantity measures, whatever its unit."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction

#: The units that all others are made of, in the order in which they are written. A bit measures
#: data; the radian is written where an angle takes part, though it is the number 1.
BASE_UNITS = ("kg", "m", "s", "A", "K", "mol", "cd", "bit", "rad")
_ANGLE = BASE_UNITS.index("rad")
_ZERO = Fraction(0)
_SUPERSCRIPTS = str.maketrans("0123456789-", "⁰¹²³⁴⁵⁶⁷⁸⁹⁻")


@dataclass(frozen=True, slots=True)
class Dimension:
    """A product of powers of the base units.

    Attributes:
        exponents: one for each of ``BASE_UNITS``.
    """

    exponents: tuple[Fraction, ...]

    @classmethod
    def of(cls, **exponents: Fraction | int) -> Dimension:
        """Return a dimension by the exponents that are not 0: ``of(m=1, s=-1)`` is a speed."""
        return cls(tuple(Fraction(exponents.get(symbol, 0)) for symbol in BASE_UNITS))

    def __mul__(self, other: Dimension) -> Dimension:
        """Return the dimension of a product."""
        pairs = zip(self.exponents, other.exponents, strict=True)
        return Dimension(tuple(a + b if a and b else a or b for a, b in pairs))

    def __truediv__(self, other: Dimension) -> Dimension:
        """Return the dimension of a quotient."""
        pairs = zip(self.exponents, other.exponents, strict=True)
        return Dimension(tuple(a - b if b else a for a, b in pairs))

    def __pow__(self, power: Fraction | int) -> Dimension:
        """Return the dimension of a power."""
        return Dimension(
            tuple(exponent * power if exponent else exponent for exponent in self.exponents)
        )

    @property
    def is_plain(self) -> bool:
        """Check whether this is the dimension of a plain number."""
        return not any(self.exponents)

    @property
    def angle(self) -> Fraction:
        """Return the power in which an angle takes part."""
        return self.exponents[_ANGLE]

    @property
    def without_angle(self) -> Dimension:
        """Return the dimension with the radian taken as the number 1, as the SI does."""
        if not self.exponents[_ANGLE]:
            return self
        return Dimension((*self.exponents[:_ANGLE], _ZERO, *self.exponents[_ANGLE + 1 :]))

    @property
    def powers(self) -> Mapping[str, Fraction]:
        """Return the exponents that are not 0, by the symbols of the base units."""
        pairs = zip(BASE_UNITS, self.exponents, strict=True)
        return {symbol: exponent for symbol, exponent in pairs if exponent}

    def __str__(self) -> str:
        """Return it in base units, such as ``kg m s^-2``; empty for a plain number."""
        return " ".join(
            symbol if exponent == 1 else f"{symbol}^{exponent_text(exponent)}"
            for symbol, exponent in self.powers.items()
        )

    @property
    def printed(self) -> str:
        """Return it in base units as it is printed, such as ``kg m/s²``; empty for a number."""
        return printed_product(self.powers)


PLAIN = Dimension.of()
ANGLE = Dimension.of(rad=1)
TEMPERATURE = Dimension.of(K=1)


def read_dimension(text: str) -> Dimension:
    """Return the dimension that is written in base units, such as ``kg m s^-2``."""
    parts = (part.partition("^") for part in text.split())
    exponents = {symbol: Fraction(power or 1) for symbol, _, power in parts}
    return Dimension(tuple(exponents.get(symbol, _ZERO) for symbol in BASE_UNITS))


def exponent_text(exponent: Fraction) -> str:
    """Write an exponent: ``-2``, or ``(1/2)``."""
    return str(exponent) if exponent.denominator == 1 else f"({exponent})"


def printed_product(powers: Mapping[str, Fraction]) -> str:
    """Write a product of units with raised exponents and one stroke: ``kg/(m s²)``."""
    top = [printed_power(symbol, power) for symbol, power in powers.items() if power > 0]
    bottom = [printed_power(symbol, -power) for symbol, power in powers.items() if power < 0]
    if not bottom:
        return " ".join(top)
    below = bottom[0] if len(bottom) == 1 else f"({' '.join(bottom)})"
    return f"{' '.join(top) or '1'}/{below}"


def printed_power(symbol: str, power: Fraction) -> str:
    """Write a power of a unit with a raised exponent."""
    if power == 1:
        return symbol
    if power.denominator != 1:
        return f"{symbol}^({power})"
    return symbol + str(power).translate(_SUPERSCRIPTS)
