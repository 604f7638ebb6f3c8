"""A family: one definition drawn for several values of a slider at once."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from axis_path.core.draw import RealRelation
from axis_path.core.errors import FormatError, LimitError, MathError
from axis_path.core.evaluate import RealFunction, RealPath
from axis_path.core.limits import FAMILY_CURVES, LINE_LENGTH
from axis_path.core.lines.sliders import written_number

Drawable = RealFunction | RealPath | RealRelation
_TEXTS = ("values", "first", "last", "count")


class FamilyError(MathError):
    """A family that cannot be."""

    code = "study.family"


@dataclass(frozen=True, slots=True)
class Family:
    """A family as it is kept, its numbers as they were typed.

    Attributes:
        slider: the id of the slider's line.
        values: the values, with commas between them; empty for evenly spaced ones.
        first: the first of the evenly spaced values; ``last`` the last.
        count: how many they are.
    """

    slider: int
    values: str = ""
    first: str = ""
    last: str = ""
    count: str = ""


@dataclass(frozen=True, slots=True)
class Member:
    """One curve of a family.

    Attributes:
        text: the value as it is shown.
        real: what is drawn for it; None where there is nothing, for a reason in ``problem``.
    """

    text: str
    value: Fraction
    real: Drawable | None
    problem: str = ""


@dataclass(frozen=True, slots=True)
class FamilyState:
    """A family in one state of the study; ``problem`` says why it has no members."""

    family: Family
    name: str
    members: tuple[Member, ...] = ()
    problem: MathError | None = None


def family_to_dict(family: Family) -> dict[str, Any]:
    """Return a family as plain data."""
    texts = {name: getattr(family, name) for name in _TEXTS}
    return {"slider": family.slider} | {name: text for name, text in texts.items() if text}


def family_from_dict(given: object) -> Family:
    """Read a family.

    Raises:
        FormatError: a part is of the wrong kind.
    """
    if not isinstance(given, dict) or type(given.get("slider")) is not int:
        raise FormatError("A family is of the wrong kind.")
    texts = [given.get(name, "") for name in _TEXTS]
    if not all(isinstance(text, str) and len(text) <= LINE_LENGTH.value for text in texts):
        raise FormatError("The values of a family are texts.")
    return Family(given["slider"], *(text.strip() for text in texts))


def family_values(family: Family, number: Callable[[str], Fraction]) -> list[tuple[str, Fraction]]:
    """Return the values of a family, each with its text.

    Args:
        family: as it is kept.
        number: gives the number that a text stands for.

    Raises:
        MathError: there are too many or too few, or one is no number.
    """
    if family.values:
        texts = _split(family.values)
        _check_count(len(texts), least=1)
        return [(text.replace("-", "−"), number(text)) for text in texts]
    count = number(family.count or "5")
    if count.denominator != 1:
        raise FamilyError("The number of curves is a whole number.")
    _check_count(int(count), least=2)
    first, last = number(family.first), number(family.last)
    step = (last - first) / (count - 1)
    values = [first + k * step for k in range(int(count))]
    return [(_shown(value), value) for value in values]


def _check_count(count: int, least: int) -> None:
    if count > FAMILY_CURVES.value:
        raise LimitError(
            f"A family has at most {FAMILY_CURVES.value} curves; {count:,} are asked for."
        )
    if count < least:
        raise FamilyError(f"A family has at least {least} curve{'s' if least > 1 else ''}.")


def _split(text: str) -> list[str]:
    """Cut a text at its commas, but for those within brackets."""
    parts, depth = [""], 0
    for sign in text:
        depth += (sign in "([") - (sign in ")]")
        if sign == "," and depth == 0:
            parts.append("")
        else:
            parts[-1] += sign
    return [part.strip() for part in parts if part.strip()]


def _shown(value: Fraction) -> str:
    text = written_number(value)
    return (text if len(text) <= 8 else f"{float(value):.5g}").replace("-", "−")
