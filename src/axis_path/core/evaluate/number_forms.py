"""The ways in which a result is written: exact, decimal, mixed, in percent, in powers of ten."""

from __future__ import annotations

from contextlib import suppress
from enum import StrEnum
from fractions import Fraction

from axis_path.core.arithmetic import Ball, ball, precision
from axis_path.core.evaluate.decimals import decimal_text
from axis_path.core.evaluate.result import Result, ResultKind

_THREE = 3


class NumberShape(StrEnum):
    """How a result is written."""

    EXACT = "exact"
    DECIMAL = "decimal"
    MIXED = "mixed"
    PERCENT = "percent"
    SCIENTIFIC = "scientific"
    ENGINEERING = "engineering"


def written_in(result: Result, shape: NumberShape, digits: int) -> str:
    """Write a result in a shape; see ``_written_in`` for numbers without a unit."""
    if result.number is not None:
        return result.with_unit(_written_in(result.number, shape, digits))
    return _written_in(result, shape, digits)


def _written_in(result: Result, shape: NumberShape, digits: int) -> str:
    """Write a result in a shape, entry by entry where it is made of several.

    Args:
        result: what was computed.
        shape: how.
        digits: how many significant digits a decimal has.

    Returns:
        An empty text if the result has no such shape.
    """
    if result.kind is ResultKind.TRUTH:
        return result.decimal(digits) if shape is NumberShape.DECIMAL else ""
    if shape is NumberShape.EXACT:
        return result.exact or ""
    if shape is NumberShape.DECIMAL:
        return result.decimal(digits)
    if result.kind is not ResultKind.NUMBER:
        return _of_parts(result, shape, digits)
    if result.reason:
        return ""
    match shape:
        case NumberShape.MIXED:
            return _mixed(result)
        case NumberShape.PERCENT:
            return _percent(result, digits)
        case NumberShape.SCIENTIFIC:
            return in_powers(result.decimal(digits))
        case _:
            return in_powers(result.decimal(digits), step=_THREE)


def _of_parts(result: Result, shape: NumberShape, digits: int) -> str:
    if result.kind is ResultKind.COMPLEX or not result.parts:
        return ""
    texts = [written_in(part, shape, digits) for part in result.parts]
    # An entry that has no such shape, such as a whole number as a mixed one, stays a decimal.
    if not any(texts):
        return ""
    shown = [
        text or part.exact or part.decimal(digits)
        for text, part in zip(texts, result.parts, strict=True)
    ]
    return result.join(shown)


def _mixed(result: Result) -> str:
    number = result.rational
    if number is None:
        try:
            number = Fraction(result.exact or "")
        except ValueError:
            return ""
    whole, rest = divmod(abs(number), 1)
    if not whole or not rest:
        return ""
    return f"{'−' if number < 0 else ''}{whole} {rest}"


def _percent(result: Result, digits: int) -> str:
    at_bits = result.at_bits
    if at_bits is None:
        return ""

    def hundredfold(bits: int) -> Ball:
        with precision(bits):
            return ball.multiply(at_bits(bits), ball.from_fraction(100))

    text = decimal_text(hundredfold, digits)
    if "." in text and result.rational is None and result.exact:
        with suppress(ValueError):
            text = _trimmed(text, Fraction(result.exact) * 100)
    return f"{text} %" if text else ""


def _trimmed(text: str, number: Fraction) -> str:
    short = text.rstrip("0").rstrip(".")
    return short if Fraction(short.replace("−", "-")) == number else text


def in_powers(text: str, *, step: int = 1) -> str:
    """Write a decimal with a power of ten.

    Args:
        text: the decimal, in plain notation or with a power already.
        step: the exponent is a multiple of it: 1 for scientific, 3 for engineering notation.
    """
    if not text:
        return ""
    mantissa, _, exponent = text.partition("·10^")
    power = int(exponent.replace("−", "-")) if exponent else 0
    sign = "−" if mantissa.startswith("−") else ""
    whole, _, part = mantissa.removeprefix("−").partition(".")
    figures = (whole + part).lstrip("0")
    if not figures:
        return "0"
    zeros = len(whole + part) - len(figures)
    # The power of ten of the first figure.
    power += len(whole) - 1 - zeros
    if not part and not exponent:
        figures = figures.rstrip("0")
    shift = power % step
    figures = figures.ljust(shift + 1, "0")
    rest = figures[shift + 1 :]
    exponent_text = str(power - shift).replace("-", "−")
    head = f"{sign}{figures[: shift + 1]}{'.' + rest if rest else ''}"
    return head if power - shift == 0 else f"{head}·10^{exponent_text}"
