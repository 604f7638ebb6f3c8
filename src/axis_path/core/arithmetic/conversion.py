"""Whole numbers and fractions out of balls, and their text: bounded, so that no number ends us.

FLINT ends the process when it is asked for the integer 2^(10^80), and Python refuses to write
more than 4,300 digits. Every conversion from a ball to an integer, a fraction or a text goes
through this module, which looks at the size first.
"""

from __future__ import annotations

from fractions import Fraction

from flint import arb, fmpq, fmpz

from axis_path.core.limits import INTEGER_DIGITS

#: Exact forms larger than this are dropped: the digits stand, the fraction would be unreadable.
EXACT_BITS = 4_000
#: Whole numbers are stored exactly up to this size.
WHOLE_BITS = int(INTEGER_DIGITS.value * 3.3219280948873626)
#: A binary fraction is written out if its exponent is at most this far from 0.
FRACTION_BITS = 200_000
_LARGEST_WHOLE = arb(2) ** WHOLE_BITS


def whole_number(value: arb) -> fmpz | None:
    """Return the only whole number in a ball, or None if there is none or it is too large."""
    if not bool(abs(value) < _LARGEST_WHOLE):
        return None
    return value.unique_fmpz()


def to_fraction(value: fmpq) -> Fraction:
    """Return a fraction of the library as Python's."""
    return Fraction(int(value.p), int(value.q))


def fraction_of(value: arb) -> Fraction | None:
    """Return an exact, finite ball as a fraction, or None if its exponent is too large for one."""
    if not (value.is_exact() and value.is_finite()):
        return None
    mantissa, exponent = map(int, value.man_exp())
    if abs(exponent) > FRACTION_BITS:
        return None
    if exponent >= 0:
        return Fraction(mantissa << exponent)
    return Fraction(mantissa, 1 << -exponent)


def is_short(value: Fraction | fmpq) -> bool:
    """Check whether a fraction is small enough to be shown in exact form."""
    if isinstance(value, fmpq):
        return bool(value.height_bits() <= EXACT_BITS)
    return max(value.numerator.bit_length(), value.denominator.bit_length()) <= EXACT_BITS


def written_fraction(value: Fraction | fmpq) -> str | None:
    """Return a fraction as text, such as ``−3/4``, or None if it is too long to be shown."""
    return str(value).replace("-", "−") if is_short(value) else None
