"""The lines of Working."""

from __future__ import annotations

from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Annotated

from msgspec import Meta

from axis_path.core.contract import Id, Line
from axis_path.core.evaluate.number_forms import NumberShape
from axis_path.core.features.lines.renaming import renamed_text
from axis_path.core.language import Vocabulary
from axis_path.core.limits import DIGITS, LINES


class ComplexShape(StrEnum):
    """How a complex number is written: a + b i, r e^(i φ), or r ∠ φ."""

    RECTANGULAR = "rectangular"
    POLAR = "polar"
    ANGLE = "angle"


@dataclass(frozen=True, slots=True)
class WorkingLine:
    """A line of the scratch calculator, as typed.

    Attributes:
        shape: what is shown large.
        complex_shape: how a complex number is written.
        digits: how many digits a decimal has; 0 for as many as the panel shows.
        unit: in which a quantity is shown; empty for the one that follows from the line.
    """

    id: Id
    text: Line
    shape: NumberShape = NumberShape.EXACT
    complex_shape: ComplexShape = ComplexShape.RECTANGULAR
    digits: Annotated[int, Meta(ge=0, le=DIGITS.value)] = 0
    unit: Line = ""


@dataclass(frozen=True, slots=True)
class Working:
    """All lines of the scratch calculator, in their order."""

    lines: Annotated[tuple[WorkingLine, ...], Meta(max_length=LINES.value)] = ()


def renamed(section: Working, names: Vocabulary, name: str, new: str) -> Working:
    """Return the lines after a name was changed."""
    return Working(
        tuple(
            replace(line, text=renamed_text(line.text, names, name, new)) for line in section.lines
        )
    )
