"""Letters of a set that could be a name or a unit: which is meant, and how to mean the other."""

from __future__ import annotations

import re
from dataclasses import dataclass

from axis_path.core.catalogue.units import find_unit
from axis_path.core.compile.sets.model import ReadSet
from axis_path.core.language.sets.letters import gives, units_in


@dataclass(frozen=True, slots=True)
class LetterMeaning:
    """What a letter behind a number means in an equation.

    Attributes:
        equation: which, from 0.
        sentence: what is meant, and how the other is written.
        other: what else could be meant: ``the name m``, ``the metre``.
        text: the equation with the other meaning.
    """

    equation: int
    sentence: str
    other: str
    text: str


def meanings_of(read: ReadSet) -> list[LetterMeaning]:
    """Return all letters of a set that could be a name or a unit."""
    meanings = []
    for place, equation in enumerate(read.equations):
        for name, unit in units_in(equation.compared).items():
            if name in (*read.unknowns, *read.others) and not gives(equation.compared, name):
                full = unit.parts[0][0].name
                sentence = (
                    f"In equation {place + 1} `{name}` is the unit {full}; for the name write a "
                    f"sign between, as in `2*{name}`."
                )
                text = _behind_numbers(equation.text, name, f"*{name}")
                meanings.append(LetterMeaning(place, sentence, f"the name {name}", text))
        for name in equation.meant:
            unknown = "the unknown" if name in read.unknowns else "the name"
            own = find_unit(name)
            if own is None:
                continue
            sentence = (
                f"In equation {place + 1} `{name}` is {unknown}; for the unit write `{own.name}`."
            )
            text = _behind_numbers(equation.text, name, f" {own.name}")
            meanings.append(LetterMeaning(place, sentence, f"the {own.name}", text))
    return meanings


def _behind_numbers(text: str, letter: str, other: str) -> str:
    """Return a text with something else in the place of a letter that stands behind a number."""
    return re.sub(rf"(?<=[0-9.])\s+{re.escape(letter)}(?![\w])", lambda _: other, text)
