"""Products of powers of units, such as ``km/h`` and ``J/(kg K)``."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cached_property

from axis_path.core.catalogue.units.dimension import (
    PLAIN,
    TEMPERATURE,
    Dimension,
    exponent_text,
    printed_product,
)
from axis_path.core.catalogue.units.entry import ONE, Factor, Unit


@dataclass(frozen=True)
class UnitProduct:
    """A unit as it is written: units with their exponents, in the order of writing.

    Attributes:
        parts: each unit once, with its exponent, which is not 0.
    """

    parts: tuple[tuple[Unit, Fraction], ...]

    @classmethod
    def of(cls, *parts: tuple[Unit, Fraction]) -> UnitProduct:
        """Return a product in which equal units are put together."""
        powers: dict[Unit, Fraction] = {}
        for unit, exponent in parts:
            powers[unit] = powers.get(unit, Fraction(0)) + exponent
        return cls(tuple((unit, exponent) for unit, exponent in powers.items() if exponent))

    def __mul__(self, other: UnitProduct) -> UnitProduct:
        """Return the unit of a product; within it degrees are differences, in K or °R."""
        if not (self.parts and other.parts):
            return self if self.parts else other
        return UnitProduct.of(*_differences(self), *_differences(other))

    def __truediv__(self, other: UnitProduct) -> UnitProduct:
        """Return the unit of a quotient."""
        return self * other.to_the(Fraction(-1))

    def to_the(self, power: Fraction) -> UnitProduct:
        """Return the unit of a power, in which degrees are differences."""
        if power == 1:
            return self
        return UnitProduct.of(*((unit, exponent * power) for unit, exponent in _differences(self)))

    @property
    def of_differences(self) -> UnitProduct:
        """Return the unit of what two values differ by: K for °C, °R for °F."""
        return UnitProduct.of(*_differences(self)) if self.has_zero else self

    @cached_property
    def dimension(self) -> Dimension:
        """Return what it measures."""
        product = PLAIN
        for unit, exponent in self.parts:
            product = product * unit.dimension**exponent
        return product

    @cached_property
    def factor(self) -> Factor | None:
        """Return how many base units it is; None where that is no fraction, as of a root."""
        product = ONE
        for unit, exponent in self.parts:
            if exponent.denominator != 1:
                if unit.factor != ONE:
                    return None
                continue
            product = product * unit.factor.to_the(int(exponent))
        return product

    @property
    def offset(self) -> Fraction:
        """Return where its zero is, in base units; within a product degrees are differences."""
        is_alone = len(self.parts) == 1 and self.parts[0][1] == 1
        return self.parts[0][0].offset if is_alone else Fraction(0)

    @property
    def has_zero(self) -> bool:
        """Check whether it is a temperature with a zero of its own: °C or °F."""
        return bool(self.offset)

    @property
    def is_temperature(self) -> bool:
        """Check whether it measures a temperature."""
        return self.dimension == TEMPERATURE

    @cached_property
    def symbol(self) -> str:
        """Return it as it can be typed: ``kg m/s^2``; empty for no unit."""
        top = [_power(unit, exponent) for unit, exponent in self.parts if exponent > 0]
        bottom = [_power(unit, -exponent) for unit, exponent in self.parts if exponent < 0]
        if not bottom:
            return " ".join(top)
        below = bottom[0] if len(bottom) == 1 else f"({' '.join(bottom)})"
        return f"{' '.join(top) or '1'}/{below}"

    @cached_property
    def printed(self) -> str:
        """Return it as it is printed: ``kg m/s²``; empty for no unit."""
        return printed_product(self._powers)

    @property
    def spelled(self) -> str:
        """Return it in full names, which no name of a study hides: ``metre/second^2``."""
        names = {unit: replace(unit, symbol=unit.name) for unit, _ in self.parts}
        return UnitProduct(tuple((names[unit], power) for unit, power in self.parts)).symbol

    @property
    def _powers(self) -> Mapping[str, Fraction]:
        return {unit.symbol: exponent for unit, exponent in self.parts}


#: The unit of a plain number.
NO_UNIT = UnitProduct(())


#: What is as large as a degree, without its zero: the symbol and the name.
_WITHOUT_ZERO = {"°C": ("K", "kelvin"), "°F": ("°R", "rankine")}


def _differences(product: UnitProduct) -> Iterator[tuple[Unit, Fraction]]:
    """Yield the parts of a unit with what is as large as a degree in its place."""
    for unit, exponent in product.parts:
        if not unit.offset:
            yield unit, exponent
        else:
            symbol, name = _WITHOUT_ZERO[unit.symbol]
            yield replace(unit, symbol=symbol, name=name, offset=Fraction(0)), exponent


def _power(unit: Unit, exponent: Fraction) -> str:
    return unit.symbol if exponent == 1 else f"{unit.symbol}^{exponent_text(exponent)}"
