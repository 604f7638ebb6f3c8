"""A family: one definition drawn for several values of a slider at once."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.contract import Id, Line
from axis_path.core.draw import RealRelation
from axis_path.core.errors import LimitError, MathError
from axis_path.core.evaluate import RealFunction, RealPath
from axis_path.core.limits import FAMILY_CURVES
from axis_path.core.lines.sliders import literal, written_number

Drawable = RealFunction | RealPath | RealRelation


class FamilyError(MathError):
    """A family that cannot be."""

    code = "study.family"


@dataclass(frozen=True, slots=True)
class Family:
    """A family as it is stored, its numbers as they were typed.

    Attributes:
        slider: the id of the slider's line.
        values: the values, with commas between them; empty for evenly spaced ones.
        first: the first of the evenly spaced values; ``last`` the last.
        count: how many they are.
    """

    slider: Id
    values: Line = ""
    first: Line = ""
    last: Line = ""
    count: Line = ""


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


def family_values(
    family: Family, number: Callable[[str], Fraction], unit: str = ""
) -> list[tuple[str, Fraction]]:
    """Return the values of a family, each with its text.

    Args:
        family: as it is stored.
        number: returns the number of the unit that a text stands for.
        unit: of the slider as it is printed; written behind values without one.

    Raises:
        MathError: there are too many or too few, or one is no number.
    """
    if family.values:
        texts = _split(family.values)
        _check_count(len(texts), least=1)
        return [(_with_unit(text, unit).replace("-", "−"), number(text)) for text in texts]
    count = literal(family.count or "5")
    if count is None or count.denominator != 1:
        raise FamilyError("The number of curves is a whole number.")
    _check_count(int(count), least=2)
    first, last = number(family.first), number(family.last)
    step = (last - first) / (count - 1)
    values = [first + k * step for k in range(int(count))]
    return [(_with_unit(_shown(value), unit), value) for value in values]


def _with_unit(text: str, unit: str) -> str:
    is_number = literal(text.replace("−", "-")) is not None
    return f"{text} {unit}" if unit and is_number else text


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
