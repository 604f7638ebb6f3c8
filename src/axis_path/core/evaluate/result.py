"""Numbers as text: as many digits as asked for, all of them right."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction

from flint import arb, fmpq

from axis_path.core.arithmetic import Ball, Defined, precision
from axis_path.core.errors import LimitError
from axis_path.core.limits import DIGITS

#: Plain notation from here to here, powers of ten beyond.
_SMALLEST_PLAIN, _LARGEST_PLAIN = -6, 15
_START_BITS, _MORE_BITS = 96, 2_000
_LARGEST_BITS = 200_000


def to_fraction(value: fmpq) -> Fraction:
    """Give a fraction of the library as Python's."""
    return Fraction(int(value.p), int(value.q))


@dataclass(frozen=True, slots=True)
class Result:
    """A computed number.

    Attributes:
        exact: the number as a fraction, if it is known to be one; else None.
        value: the nearest float; NaN if there is no value.
        reason: why there is no value; empty if there is one.
        at_bits: computes the ball again with any number of binary digits.
    """

    exact: str | None
    value: float
    reason: str
    at_bits: Callable[[int], Ball]

    def decimal(self, digits: int = 10) -> str:
        """Give the number with ``digits`` significant digits, each of them right.

        Trailing zeros that follow from an exact number are left out.

        Raises:
            LimitError: more digits than one decimal may have.
        """
        return decimal_text(self.at_bits, digits)


def make_result(at_bits: Callable[[int], Ball]) -> Result:
    """Make a result from what computes its ball at a precision."""
    found = at_bits(_START_BITS)
    exact = str(to_fraction(found.exact)) if found.exact is not None else None
    if not found.is_defined:
        return Result(None, math.nan, found.reason or "not decided", at_bits)
    if not _is_writable(found):
        return Result(None, math.nan, "too large or too small to be written", at_bits)
    # What cannot be told from zero is shown as zero, not as the noise of the last bits.
    value = 0.0 if found.value.contains(0) else float(found.value.mid())
    return Result(exact, value, "", at_bits)


def _is_writable(found: Ball) -> bool:
    """Tell whether a number can be written out: e^(10^12) has more figures than memory."""
    if not found.value.is_finite():
        return False
    mantissa, exponent = found.value.mid().man_exp()
    size = abs(int(exponent)) if int(mantissa) else 0
    return size < _LARGEST_BITS


def decimal_text(at_bits: Callable[[int], Ball], digits: int = 10) -> str:
    """Give a number with ``digits`` significant digits, computing it as finely as that needs.

    A number that cannot be told from zero within 2,000 further bits is given as ``0``; one that
    is not defined as an empty text.
    """
    if not 1 <= digits <= DIGITS.value:
        raise LimitError(f"Between 1 and {DIGITS.value:,} digits can be shown.")
    bits = _START_BITS + math.ceil(digits * math.log2(10))
    limit = bits + _MORE_BITS
    while True:
        found = at_bits(bits)
        if found.defined is not Defined.YES or not _is_writable(found):
            return ""
        text = digits_of(found, digits)
        if text is not None:
            return text
        if bits >= limit:
            # Its distance from zero, or from a change of digit, is under 10^-600.
            return "0" if found.value.contains(0) else _fallback(found, digits)
        bits = min(2 * bits, limit)


def _fallback(found: Ball, digits: int) -> str:
    with precision(4 * digits + _MORE_BITS):
        return _shown(to_fraction(found.value.mid().fmpq()), digits)


def digits_of(found: Ball, digits: int) -> str | None:
    """Give ``digits`` significant digits of a ball, or None if it is too wide for them."""
    if found.exact is not None:
        return _shown(to_fraction(found.exact), digits)
    value: arb = found.value
    if not value.is_finite():
        return None
    # The ends are put together exactly: the library would round them to its present precision.
    middle, radius = to_fraction(value.mid().fmpq()), to_fraction(value.rad().fmpq())
    low, high = middle - radius, middle + radius
    if low <= 0 <= high:
        return None
    one, other = _rounded(low, digits), _rounded(high, digits)
    # Both ends round to the same digits, so what lies between them does.
    return _place(*one, digits, exact=False) if one == other else None


def _rounded(value: Fraction, digits: int) -> tuple[int, int]:
    """Give the integer of ``digits`` figures and the power of ten that are nearest to a value."""
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


def _shown(value: Fraction, digits: int) -> str:
    if value == 0:
        return "0"
    return _place(*_rounded(value, digits), digits, exact=True)


def _place(figures: int, power: int, digits: int, *, exact: bool) -> str:
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
