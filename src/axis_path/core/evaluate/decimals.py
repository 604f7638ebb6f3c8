"""Numbers as decimals whose every digit is right."""

from __future__ import annotations

import math
from collections.abc import Callable
from fractions import Fraction

from flint import arb

from axis_path.core.arithmetic import Ball, Defined, precision
from axis_path.core.arithmetic.conversion import (
    FRACTION_BITS,
    fraction_of,
    to_fraction,
)
from axis_path.core.errors import LimitError
from axis_path.core.limits import DIGITS

#: Plain notation from here to here, powers of ten beyond.
_SMALLEST_PLAIN, _LARGEST_PLAIN = -6, 15
#: From so many digits on, whole numbers are written with all of theirs.
_WHOLE_FROM = 10
START_BITS, _MORE_BITS = 96, 2_000
#: With how many binary digits a number may be computed where nobody says otherwise.
MOST_BITS = 4_000
#: How near to 0 a decimal is shown as 0.
_TINY = arb(2) ** -2_000
#: A decimal that ends so may be one that is exact.
ZEROS = "0000"


NOT_DECIDED = "not decided: it needs more digits than are computed"


def is_writable(value: Ball) -> bool:
    """Check whether a number can be written out: e^(10^12) has more figures than memory."""
    if not value.value.is_finite():
        return False
    # Of an undecided number the radius says how large it may be.
    return _size(value.value.mid()) < FRACTION_BITS and _size(value.value.rad(), 1) < FRACTION_BITS


def _size(value: arb, sign: int = 0) -> int:
    """Return how far the power of two of a number is from 1; with a sign only on that side."""
    mantissa, exponent = value.man_exp()
    if not int(mantissa):
        return 0
    return int(exponent) if sign else abs(int(exponent))


def decimal_text(
    at_bits: Callable[[int], Ball], digits: int = 10, *, most_bits: int = MOST_BITS
) -> str:
    """Return a number with ``digits`` significant digits, computing it as finely as that needs.

    A number that cannot be distinguished from zero with so many binary digits is given as ``0``:
    it is within 10^-600 of it. One that is not defined, or not known well enough for its digits, is
    given as an empty text.
    """
    if not 1 <= digits <= DIGITS.value:
        raise LimitError(f"Between 1 and {DIGITS.value:,} digits can be shown.")
    bits = START_BITS + math.ceil(digits * math.log2(10))
    limit = max(bits if most_bits < MOST_BITS else bits + _MORE_BITS, most_bits)
    while True:
        value = at_bits(bits)
        is_decided = value.defined is not Defined.MAYBE
        is_hopeless = not value.is_defined or not is_writable(value)
        if is_decided and is_hopeless and _is_sharp(value):
            return ""
        if value.is_defined:
            text = digits_of(value, digits)
            if text is not None:
                return text
            if bits >= limit and bool(value.value.rad() < _TINY):
                return "0" if value.value.contains(0) else _fallback(value, digits)
        if bits >= limit:
            return ""
        bits = min(2 * bits, limit)


def _is_sharp(value: Ball) -> bool:
    """Check whether more digits would change nothing about whether a ball can be written."""
    return not value.is_defined or bool(value.value.rel_accuracy_bits() > 1)


def _fallback(value: Ball, digits: int) -> str:
    with precision(4 * digits + _MORE_BITS):
        middle = fraction_of(value.value.mid())
        return "" if middle is None else shown(middle, digits)


def digits_of(number: Ball, digits: int) -> str | None:
    """Return ``digits`` significant digits of a ball, or None if it is too wide for them."""
    if number.exact is not None:
        return shown(to_fraction(number.exact), digits)
    value: arb = number.value
    if not value.is_finite():
        return None
    # The ends are put together exactly: the library would round them to its present precision.
    middle, radius = fraction_of(value.mid()), fraction_of(value.rad())
    if middle is None:
        return None
    if radius is None:
        # It is far smaller than any digit that is shown; a larger one is as good.
        radius = Fraction(1, 2**FRACTION_BITS)
    low, high = middle - radius, middle + radius
    if low <= 0 <= high:
        return None
    one, other = _rounded(low, digits), _rounded(high, digits)
    # Both ends round to the same digits, so what lies between them does.
    return _placed(*one, digits, exact=False) if one == other else None


def digits_between(low: float, high: float, digits: int) -> str:
    """Return ``digits`` significant digits that all numbers between two floats share, or none."""
    one, other = f"{low:.{digits - 1}e}", f"{high:.{digits - 1}e}"
    if one != other or low <= 0 <= high:
        return ""
    mantissa, exponent = one.split("e")
    power = int(exponent)
    if _SMALLEST_PLAIN <= power < digits:
        # The same figures, and quicker: it is asked of every zero of every frame.
        return f"{low:.{digits - 1 - power}f}".replace("-", "−")
    return _placed(int(mantissa.replace(".", "")), power, digits, exact=False)


def _rounded(value: Fraction, digits: int) -> tuple[int, int]:
    """Return the integer of ``digits`` figures and the power of ten that are nearest to a value."""
    size = abs(value)
    power = math.floor(
        (size.numerator.bit_length() - size.denominator.bit_length()) * math.log10(2)
    )
    while size >= Fraction(10) ** (power + 1):
        power += 1
    while size < Fraction(10) ** power:
        power -= 1
    scaled = size * Fraction(10) ** (digits - 1 - power)
    figures = round(scaled)
    if figures == 10**digits:
        figures, power = figures // 10, power + 1
    return (-figures if value < 0 else figures), power


def decimal_places(value: float) -> int:
    """Return the power of ten of the first digit of a number that is not 0."""
    return _rounded(Fraction(value), 17)[1]


def shown(value: Fraction, digits: int) -> str:
    """Write an exact number in at most so many digits.

    Zeros at the end are left out only if nothing was rounded away.
    """
    if value == 0:
        return "0"
    if value.denominator == 1 and digits >= _WHOLE_FROM and abs(value) < 10**_LARGEST_PLAIN:
        # A whole number that can be read is not rounded.
        digits = max(digits, _LARGEST_PLAIN)
    figures, power = _rounded(value, digits)
    is_exact = figures * Fraction(10) ** (power - digits + 1) == value
    return _placed(figures, power, digits, exact=is_exact)


def _placed(figures: int, power: int, digits: int, *, exact: bool) -> str:
    """Set the decimal point; figures has ``digits`` figures, the first worth 10^power."""
    sign = "−" if figures < 0 else ""
    text = str(abs(figures))
    if _SMALLEST_PLAIN <= power < max(_LARGEST_PLAIN, digits):
        if power < 0:
            whole, part = "0", "0" * (-power - 1) + text
        else:
            text = text.ljust(power + 1, "0") if exact or power < digits else text
            whole, part = text[: power + 1].ljust(power + 1, "0"), text[power + 1 :]
        part = part.rstrip("0") if exact else part
        return f"{sign}{whole}.{part}" if part else f"{sign}{whole}"
    mantissa = text.rstrip("0") if exact else text
    point = f".{mantissa[1:]}" if len(mantissa) > 1 else ""
    return f"{sign}{mantissa[0]}{point}·10^{power}".replace("^-", "^−")


def multiple_of_pi(turns: Fraction) -> str:
    """Write a multiple of pi: ``−3π/4``."""
    if turns == 0:
        return "0"
    sign = "−" if turns < 0 else ""
    size = abs(turns.numerator)
    top = "π" if size == 1 else f"{size}π"
    return f"{sign}{top}" if turns.denominator == 1 else f"{sign}{top}/{turns.denominator}"


def power_of_ten(size: Fraction) -> int:
    """Return the greatest n with 10^n at most a positive number; 0 for 0."""
    if not size:
        return 0
    bits = size.numerator.bit_length() - size.denominator.bit_length()
    power = math.floor(bits / math.log2(10))
    power += size >= Fraction(10) ** (power + 1)
    return power - (size < Fraction(10) ** power)
