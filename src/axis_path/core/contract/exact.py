"""Exact numbers, which JSON does not have: they are written as texts."""

from __future__ import annotations

from fractions import Fraction

from axis_path.core.contract import messages

#: What is longer, or beyond floats by its exponent, is a slip, and would take long to read.
_LONGEST, _LARGEST_EXPONENT = 400, 320


def exact_from_text(text: str) -> Fraction:
    """Return the number that a text stands for, such as ``2.5``, ``11/2`` or ``1e-3``.

    Raises:
        OverflowError: it is too large or too small.
        ValueError: it is not a number.
    """
    try:
        exponent = text.lower().partition("e")[2] or "0"
        if len(text) > _LONGEST or abs(int(exponent)) > _LARGEST_EXPONENT:
            raise OverflowError(messages.TEXT_TOO_LARGE_TOO(text=text[:40]))
        return Fraction(text)
    except (ValueError, ZeroDivisionError) as err:
        raise ValueError(messages.TEXT_NOT_NUMBER(text=text[:40])) from err
