"""Equations and inequalities as they are typed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from axis_path.core.catalogue.units import NO_UNIT, UnitProduct
from axis_path.core.errors import EquationError
from axis_path.core.evaluate import (
    RealFunction,
)
from axis_path.core.language import RelationLine, Vocabulary, typeset_line
from axis_path.core.language.parsing.body import Condition as Compared
from axis_path.core.language.tree import Node
from axis_path.core.language.walk import names_in

#: Letters that may be unknowns without having been named so.
LETTERS = frozenset("abcdfghjklmnopqrstuvwxyz") | {
    "theta",
    "alpha",
    "beta",
    "gamma",
    "phi",
    "omega",
}


@dataclass(frozen=True, slots=True)
class Equation:
    """An equation or a chain of inequalities in one unknown.

    Attributes:
        unknown: its name.
        sides: the terms between the signs, as functions of the unknown.
        gaps: every term less the next.
        signs: between the terms.
        mathml: how it is written.
        unit: of the unknown; ``value_unit`` that of the sides.
    """

    unknown: str
    sides: tuple[RealFunction, ...]
    gaps: tuple[RealFunction, ...]
    signs: tuple[str, ...]
    mathml: str
    unit: UnitProduct = NO_UNIT
    value_unit: UnitProduct = NO_UNIT

    @property
    def is_equation(self) -> bool:
        """Check whether it is one equation."""
        return self.signs == ("=",)


def typeset_compared(compared: Compared) -> str:
    """Typeset what was read as MathML."""
    return typeset_line(RelationLine(None, compared.terms, compared.signs, compared.span), None)


def unknowns_in(terms: Sequence[Node], vocabulary: Vocabulary) -> set[str]:
    """Return the names in terms that may be unknowns."""
    return {
        name
        for term in terms
        for name in names_in(term)
        if name in vocabulary.variables | vocabulary.letters
    }


def only_unknown(letters: set[str]) -> str:
    """Return the one unknown, or x where there are several.

    Raises:
        EquationError: there is none, or more than one and no x.
    """
    if not letters:
        raise EquationError("There is no unknown in this equation: every letter in it has a value.")
    if len(letters) > 1:
        if "x" in letters:
            return "x"
        listed = ", ".join(f"`{letter}`" for letter in sorted(letters))
        raise EquationError(f"Which is the unknown: {listed}? Give the others a value.")
    return next(iter(letters))


def reading_order(name: str) -> tuple[int, str]:
    """Order unknowns as they are read: x, y, z first."""
    return ("xyz".index(name) if name in "xyz" else 3, name)
