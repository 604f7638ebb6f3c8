"""What the catalogue holds about a unit."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from axis_path.core.catalogue.units.dimension import Dimension


class Measured(StrEnum):
    """The shelves of the units in the Reference: what they measure."""

    LENGTH = "Length"
    AREA = "Area"
    VOLUME = "Volume"
    MASS = "Mass"
    TIME = "Time and frequency"
    SPEED = "Speed"
    FORCE = "Force"
    PRESSURE = "Pressure"
    ENERGY = "Energy"
    POWER = "Power"
    TEMPERATURE = "Temperature"
    ANGLE = "Angle"
    ELECTRICITY = "Electricity and magnetism"
    LIGHT = "Light"
    MATTER = "Amount and radiation"
    DATA = "Data"


class Prefixes(StrEnum):
    """Which prefixes a unit takes."""

    NONE = "none"
    DECIMAL = "decimal"
    #: Of data: those of powers of 1024 too.
    BINARY = "binary"


@dataclass(frozen=True, slots=True)
class Factor:
    """How many base units a unit is: a fraction times a power of π."""

    number: Fraction
    pi: int = 0

    def __mul__(self, other: Factor) -> Factor:
        """Return the factor of a product."""
        return Factor(self.number * other.number, self.pi + other.pi)

    def __truediv__(self, other: Factor) -> Factor:
        """Return the factor of a quotient."""
        return Factor(self.number / other.number, self.pi - other.pi)

    def to_the(self, power: int) -> Factor:
        """Return the factor of a power."""
        return Factor(self.number**power, self.pi * power)


ONE = Factor(Fraction(1))


@dataclass(frozen=True, slots=True)
class UnitEntry:
    """A unit without a prefix.

    Attributes:
        symbol: how it is printed.
        names: how it is written out, in one and in several; the first is shown.
        definition: the name in ``definitions.py``, which ``pint`` knows.
        measured: the shelf it stands on.
        prefixes: which prefixes it takes.
        others: further symbols that mean the same.
        remark: what the Reference adds, such as in which country it is used.
    """

    symbol: str
    names: tuple[str, ...]
    definition: str
    measured: Measured
    prefixes: Prefixes = Prefixes.NONE
    others: tuple[str, ...] = ()
    remark: str = ""


@dataclass(frozen=True, slots=True)
class Unit:
    """A unit with its prefix, as it takes part in computing.

    Attributes:
        symbol: how it is printed, with its prefix.
        name: how it is written out.
        factor: how many base units it is.
        dimension: what it measures.
        offset: where its zero is, in base units: 273.15 for the degree Celsius.
    """

    symbol: str
    name: str
    factor: Factor
    dimension: Dimension
    offset: Fraction = Fraction(0)

    def __hash__(self) -> int:
        """Hash the symbol and the name, which no two units share."""
        return hash((self.symbol, self.name))
