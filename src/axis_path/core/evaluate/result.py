"""Numbers as text: as many digits as asked for, all of them right."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction
from functools import cache
from typing import Any

import numpy as np
from flint import acb, arb, fmpq
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Defined, precision
from axis_path.core.arithmetic.conversion import (
    FRACTION_BITS,
    fraction_of,
    is_short,
    to_fraction,
)
from axis_path.core.errors import LimitError
from axis_path.core.evaluate.exact.exact_pool import ExactForm
from axis_path.core.limits import DIGITS
from axis_path.core.threads import kept_property

#: Plain notation from here to here, powers of ten beyond.
_SMALLEST_PLAIN, _LARGEST_PLAIN = -6, 15
#: From so many digits on, whole numbers are written with all of theirs.
_WHOLE_FROM = 10
#: A decimal that ends so may be one that is exact.
_ZEROS = "0000"
_START_BITS, _MORE_BITS = 96, 2_000
#: With how many binary digits a number may be computed where nobody says otherwise.
_MOST_BITS = 4_000
#: A float's own bits; how near to 0 a value is taken as 0; how near a decimal is shown as 0.
_FLOAT_BITS, _SMALL, _TINY = 53, arb(2) ** -40, arb(2) ** -2_000
_NOT_DECIDED = "not decided: it needs more digits than are computed"
#: A part of a complex number that cannot be told from 0 in so many digits is 0.
_REAL_DIGITS = 30


class ResultKind(StrEnum):
    """What an expression gave."""

    NUMBER = "number"
    COMPLEX = "complex"
    POINT = "point"
    LIST = "list"


@dataclass(frozen=True)
class Result:
    """What was computed: a number, or a point or a list made of such.

    Attributes:
        kind: what it is.
        value: of a number the nearest float, NaN if there is no value, or a complex number; of a
            point a pair of floats; of a list (n,) floats, of points (n, 2).
        reason: why there is no value; empty if there is one.
        decimals: gives the decimal with so many digits.
        find_exact: looks for the exact form; it may take as long as the limit of exact work.
        parts: the coordinates of a point, or the first elements of a list, as results.
        rational: the number itself, if it is known to be this fraction without a search.
        remark: what else is to be said of it, such as a convention that it rests on.
    """

    kind: ResultKind
    value: Any
    reason: str
    decimals: Callable[[int], str]
    find_exact: Callable[[], ExactForm]
    parts: tuple[Result, ...] = ()
    rational: Fraction | None = None
    remark: str = ""

    @kept_property
    def _exact(self) -> ExactForm:
        return ExactForm(None) if self.reason else self.find_exact()

    @property
    def exact(self) -> str | None:
        """Return the exact form as a text of our language, if one is found in time; else None."""
        return self._exact.text

    @property
    def exact_note(self) -> str:
        """Return a note if the time for an exact form ran out; else an empty text."""
        return self._exact.note

    def decimal(self, digits: int = 10) -> str:
        """Return the value with ``digits`` significant digits, each of them right.

        Trailing zeros that follow from an exact number are left out.

        Raises:
            LimitError: more digits than one decimal may have.
        """
        return self.decimals(digits)


def make_result(
    at_bits: Callable[[int], Ball],
    look: Callable[[], ExactForm],
    *,
    most_bits: int = _MOST_BITS,
    is_exact_sought: bool = False,
    remark: str = "",
) -> Result:
    """Make a number from what computes its ball at a precision.

    Args:
        at_bits: computes the ball with so many binary digits.
        look: looks for an exact form where the ball itself knows none.
        most_bits: with how many it may be asked at the most.
        is_exact_sought: whether a decimal that ends in zeros may look for the exact form, to leave
            them out.
        remark: what else is to be said of the number.
    """
    found = _settled(at_bits, most_bits)
    if not found.is_defined:
        return _no_value(found.reason or _NOT_DECIDED)
    if not _is_writable(found):
        return _no_value("too large or too small to be written")
    if not _is_told(found):
        return _no_value(_NOT_DECIDED)
    # What cannot be told from zero is shown as zero, not as the noise of the last bits.
    value = 0.0 if found.value.contains(0) else float(found.value.mid())

    @cache
    def exact() -> ExactForm:
        known = known_form(found)
        return ExactForm(known) if known is not None else look()

    def decimals(digits: int) -> str:
        text = decimal_text(at_bits, digits, most_bits=most_bits)
        if not (is_exact_sought and "." in text and text.endswith(_ZEROS)):
            return text
        number = _as_fraction(exact())
        return text if number is None else _shown(number, digits)

    return Result(
        ResultKind.NUMBER, value, "", decimals, exact,
        rational=None if found.exact is None else to_fraction(found.exact), remark=remark,
    )  # fmt: skip


def _as_fraction(found: ExactForm) -> Fraction | None:
    try:
        return None if found.text is None else Fraction(found.text)
    except ValueError:
        return None


def _no_value(reason: str) -> Result:
    return Result(
        ResultKind.NUMBER, math.nan, reason, lambda digits: "", lambda: ExactForm(None)
    )  # fmt: skip


def _settled(at_bits: Callable[[int], Ball], most_bits: int) -> Ball:
    """Compute a ball finely enough to tell whether it is defined, and what number it is."""
    bits = _START_BITS
    while True:
        found = at_bits(bits)
        is_clear = found.defined is not Defined.MAYBE and (not found.is_defined or _is_told(found))
        if is_clear or bits >= most_bits:
            return found
        bits = min(4 * bits, most_bits)


def _is_told(found: Ball) -> bool:
    """Check whether a ball says what number it is: its first digits, or that it is as good as 0."""
    if found.exact is not None or found.value.is_exact():
        return True
    if not found.value.contains(0):
        return bool(found.value.rel_accuracy_bits() >= _FLOAT_BITS)
    return bool(found.value.rad() < _SMALL)


def known_form(found: Ball) -> str | None:
    """Return the exact form that a ball carries along: a fraction, or one of pi; else None."""
    if found.exact is not None:
        return str(found.exact)
    if found.turns is None or not is_short(found.turns):
        return None
    top, bottom = int(found.turns.p), int(found.turns.q)
    size = "π" if abs(top) == 1 else f"{abs(top)}π"
    return ("-" if top < 0 else "") + (size if bottom == 1 else f"{size}/{bottom}")


def make_complex(
    at_bits: Callable[[int], acb], look: Callable[[], ExactForm], name_of_i: str = "i"
) -> Result:
    """Make a complex number; a real one is a number like any other.

    Args:
        at_bits: computes the complex ball with so many binary digits.
        look: looks for an exact form.
        name_of_i: how the imaginary unit is written.
    """
    found = at_bits(_START_BITS)
    if not (found.real.is_finite() and found.imag.is_finite()):
        return Result(
            ResultKind.COMPLEX, complex(math.nan, math.nan), "no value there",
            lambda digits: "", lambda: ExactForm(None),
        )  # fmt: skip
    real = make_result(lambda bits: _as_ball(at_bits(bits).real), look)
    imaginary = make_result(lambda bits: _as_ball(at_bits(bits).imag), look)
    if imaginary.decimal(_REAL_DIGITS) == "0":
        return make_result(lambda bits: _as_ball(at_bits(bits).real), look, is_exact_sought=True)

    def decimals(digits: int) -> str:
        a, b = real.decimal(digits), imaginary.decimal(digits)
        if b == "0":
            return a
        size, sign = b.lstrip("−"), "−" if b.startswith("−") else "+"
        size = "" if size == "1" else size + " "
        if a == "0":
            return f"{'−' if sign == '−' else ''}{size}{name_of_i}"
        return f"{a} {sign} {size}{name_of_i}"

    return Result(
        ResultKind.COMPLEX, complex(real.value, imaginary.value), "", decimals, look,
        (real, imaginary),
    )  # fmt: skip


def _as_ball(value: arb) -> Ball:
    number = fraction_of(value)
    exact = None if number is None else fmpq(number.numerator, number.denominator)
    return Ball(value, exact=exact)


def make_point(first: Result, second: Result) -> Result:
    """Put two numbers together."""
    parts = (first, second)

    def exact() -> ExactForm:
        texts = [part.exact for part in parts]
        note = next((part.exact_note for part in parts if part.exact_note), "")
        if any(text is None for text in texts):
            return ExactForm(None, note)
        return ExactForm(f"({texts[0]}, {texts[1]})")

    reason = first.reason or second.reason

    def decimals(digits: int) -> str:
        return "" if reason else f"({first.decimal(digits)}, {second.decimal(digits)})"

    return Result(ResultKind.POINT, (first.value, second.value), reason, decimals, exact, parts)


def make_list(values: NDArray[np.float64], first: tuple[Result, ...]) -> Result:
    """Make a list from its float values and the results of its first elements."""
    more = len(values) - len(first)

    def decimals(digits: int) -> str:
        shown = [part.decimal(digits) or "undefined" for part in first]
        return f"[{', '.join(shown)}{f', … {more:,} more' if more else ''}]"

    def exact() -> ExactForm:
        texts = [part.exact for part in first]
        if more or any(text is None for text in texts):
            return ExactForm(None)
        return ExactForm(f"[{', '.join(text for text in texts if text is not None)}]")

    return Result(ResultKind.LIST, values, "", decimals, exact, first)


def _is_writable(found: Ball) -> bool:
    """Check whether a number can be written out: e^(10^12) has more figures than memory."""
    if not found.value.is_finite():
        return False
    # Of an undecided number the radius says how large it may be.
    return _size(found.value.mid()) < FRACTION_BITS and _size(found.value.rad(), 1) < FRACTION_BITS


def _size(value: arb, sign: int = 0) -> int:
    """Return how far the power of two of a number is from 1; with a sign only on that side."""
    mantissa, exponent = value.man_exp()
    if not int(mantissa):
        return 0
    return int(exponent) if sign else abs(int(exponent))


def decimal_text(
    at_bits: Callable[[int], Ball], digits: int = 10, *, most_bits: int = _MOST_BITS
) -> str:
    """Return a number with ``digits`` significant digits, computing it as finely as that needs.

    A number that cannot be told from zero with so many binary digits is given as ``0``: it is
    within 10^-600 of it. One that is not defined, or not known well enough for its digits, is
    given as an empty text.
    """
    if not 1 <= digits <= DIGITS.value:
        raise LimitError(f"Between 1 and {DIGITS.value:,} digits can be shown.")
    bits = _START_BITS + math.ceil(digits * math.log2(10))
    limit = max(bits if most_bits < _MOST_BITS else bits + _MORE_BITS, most_bits)
    while True:
        found = at_bits(bits)
        is_decided = found.defined is not Defined.MAYBE
        is_hopeless = not found.is_defined or not _is_writable(found)
        if is_decided and is_hopeless and _is_sharp(found):
            return ""
        if found.is_defined:
            text = digits_of(found, digits)
            if text is not None:
                return text
            if bits >= limit and bool(found.value.rad() < _TINY):
                return "0" if found.value.contains(0) else _fallback(found, digits)
        if bits >= limit:
            return ""
        bits = min(2 * bits, limit)


def _is_sharp(found: Ball) -> bool:
    """Check whether more digits would change nothing about whether a ball can be written."""
    return not found.is_defined or bool(found.value.rel_accuracy_bits() > 1)


def _fallback(found: Ball, digits: int) -> str:
    with precision(4 * digits + _MORE_BITS):
        middle = fraction_of(found.value.mid())
        return "" if middle is None else _shown(middle, digits)


def digits_of(found: Ball, digits: int) -> str | None:
    """Return ``digits`` significant digits of a ball, or None if it is too wide for them."""
    if found.exact is not None:
        return _shown(to_fraction(found.exact), digits)
    value: arb = found.value
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
    return _place(*one, digits, exact=False) if one == other else None


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
    return _place(int(mantissa.replace(".", "")), power, digits, exact=False)


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


def _shown(value: Fraction, digits: int) -> str:
    if value == 0:
        return "0"
    if value.denominator == 1 and digits >= _WHOLE_FROM and abs(value) < 10**_LARGEST_PLAIN:
        # A whole number that can be read is not rounded.
        digits = max(digits, _LARGEST_PLAIN)
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


def multiple_of_pi(turns: Fraction) -> str:
    """Write a multiple of pi: ``−3π/4``."""
    if turns == 0:
        return "0"
    sign = "−" if turns < 0 else ""
    size = abs(turns.numerator)
    top = "π" if size == 1 else f"{size}π"
    return f"{sign}{top}" if turns.denominator == 1 else f"{sign}{top}/{turns.denominator}"
