"""How the numbers of a table are written."""

from __future__ import annotations

from enum import StrEnum

from axis_path.core.evaluate import decimal_places


class NumberForm(StrEnum):
    """How the numbers of a table are written."""

    SIGNIFICANT = "significant"
    FIXED = "fixed"
    SCIENTIFIC = "scientific"


def digits_needed(value: float, digits: int, form: NumberForm) -> int:
    """Return how many significant digits a number takes in a form; 0 if it is shown as zero."""
    if form is not NumberForm.FIXED or not value:
        return digits
    return max(decimal_places(value) + 1 + digits, 0)


def written(text: str, value: float, digits: int, form: NumberForm) -> str:
    """Write a number of right digits in a form.

    Args:
        text: as ``ValueTable.text`` gives it, with as many digits as ``digits_needed`` says.
        value: the nearest float, for its size.
        digits: how many.
        form: how.
    """
    if not text:
        return text
    if form is NumberForm.SCIENTIFIC:
        return _in_powers(text)
    if form is NumberForm.FIXED and "·" not in text:
        whole, _, part = text.partition(".")
        part = part[:digits].ljust(digits, "0") if value else "0" * digits
        return f"{whole}.{part}" if digits else whole
    return text


def _in_powers(text: str) -> str:
    """Move the decimal point behind the first digit."""
    if "·" in text:
        return text
    sign = "−" if text.startswith("−") else ""
    whole, _, part = text.removeprefix("−").partition(".")
    figures = (whole + part).lstrip("0")
    if not figures:
        return "0"
    power = len(whole) - 1 if whole.strip("0") else -(len(part) - len(part.lstrip("0")) + 1)
    rest = figures[1:]
    if not part:
        rest = rest.rstrip("0")
    return f"{sign}{figures[0]}{'.' + rest if rest else ''}·10^{power}".replace("^-", "^−")
