"""Find out whether a line is a set of equations, and where each of them stands."""

from __future__ import annotations

import re
from dataclasses import dataclass

from axis_path.core.language.vocabulary import NAME_PATTERN

_OPENING, _CLOSING = "([{", ")]}"
_LABEL = re.compile(rf"\s*({NAME_PATTERN.pattern})\s*:(?!=)")
#: What makes semicolons separate the pieces of a function.
_PIECEWISE = re.compile(r"(?<![A-Za-z0-9_])(?:for|otherwise)(?![A-Za-z0-9_])")
_EQUATION = re.compile(r"[^<>=!:]=[^=]")


@dataclass(frozen=True, slots=True)
class EquationText:
    """Where an equation stands.

    Attributes:
        source: a text that ends with the equation.
        start: where the equation begins in it.
    """

    source: str
    start: int = 0

    @property
    def text(self) -> str:
        """Return the equation alone."""
        return self.source[self.start :].strip()


def label_of_set(text: str) -> str | None:
    """Return the name before the colon of a set; None if it has none."""
    label = _LABEL.match(text)
    return None if label is None else label[1]


def split_set(text: str) -> tuple[EquationText, ...]:
    """Return the equations of a line; empty if it is no set.

    A set has semicolons between its equations, or one behind a single equation.
    """
    if ";" not in text or text.lstrip().startswith("#"):
        return ()
    label = _LABEL.match(text)
    parts: list[EquationText] = []
    start, depth = 0 if label is None else label.end(), 0
    has_separator = False
    for place, sign in enumerate(f"{text};"):
        if sign in _OPENING:
            depth += 1
        elif sign in _CLOSING:
            depth -= 1
        elif sign == ";" and depth == 0:
            has_separator |= place < len(text)
            parts.append(EquationText(text[:place], start))
            start = place + 1
    equations = tuple(part for part in parts if part.text)
    is_set = has_separator and equations and _PIECEWISE.search(text) is None
    return equations if is_set and all(_EQUATION.search(one.text) for one in equations) else ()
