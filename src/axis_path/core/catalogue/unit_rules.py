"""What functions make of units."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

_ONE, _NONE = Fraction(1), Fraction(0)


@dataclass(frozen=True, slots=True)
class UnitRule:
    """What a function makes of units.

    Attributes:
        powers: the dimension of the value is the product of those of the arguments to these
            powers; further arguments count with the power 0.
        alike: the places of the arguments that must have one dimension; None for all.
        plain: the places of the arguments that must be plain numbers.
        root: the place of the argument that says which root is taken of the first.
        second: likewise the powers of the second coordinate, of a function whose value is a point.
    """

    powers: tuple[Fraction, ...]
    alike: tuple[int, ...] | None = ()
    plain: tuple[int, ...] = ()
    root: int | None = None
    second: tuple[Fraction, ...] | None = None


#: The value has the unit of the argument.
KEEPS = UnitRule((_ONE,))
#: All arguments have one dimension, which the value has too.
ALIKE = UnitRule((_ONE,), alike=None)
#: All arguments have one dimension; the value is a plain number.
RATIO = UnitRule((), alike=None)
#: The value is a plain number, whatever the arguments are.
COUNTS = UnitRule(())
SQUARES = UnitRule((Fraction(2),))
MULTIPLIES = UnitRule((_ONE, _ONE))


def power_rule(power: Fraction) -> UnitRule:
    """Return the rule of a function whose value has a power of the unit of its argument."""
    return UnitRule((power,))
