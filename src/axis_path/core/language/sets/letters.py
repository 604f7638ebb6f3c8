"""Distinguish names of a set from units of the same letters.

On paper ``h = 3 m`` is a height of three metres even where m is a mass, and in ``F = W + 0.3 N``
the letter N is the force that another equation defines. So letters behind a number are units where
a quantity is given, and names elsewhere, as far as the dimensions agree. The note
below a solution states which was meant.
"""

from __future__ import annotations

from collections.abc import Collection

from axis_path.core.catalogue.units import UnitProduct
from axis_path.core.language.parsing.body import Condition as Compared
from axis_path.core.language.tree import Name, Node, Quantity
from axis_path.core.language.vocabulary import NAME_PATTERN
from axis_path.core.language.walk import free_uses, has_unit_nodes, walk


def units_in(compared: Compared) -> dict[str, UnitProduct]:
    """Return the units of one symbol in an equation, by what was typed."""
    nodes = (node for term in compared.terms for node in walk(term))
    return {
        node.typed: node.unit
        for node in nodes
        if isinstance(node, Quantity) and NAME_PATTERN.fullmatch(node.typed)
    }


def letters_of_both(compared: Compared, names: Collection[str]) -> tuple[str, ...]:
    """Return the letters that are units in an equation, and names by others of its set.

    Args:
        compared: the two sides of the equation.
        names: those that equations of the set define.
    """
    return tuple(
        typed for typed in units_in(compared) if typed in names and not gives(compared, typed)
    )


def defined_by(compared: Compared) -> frozenset[str]:
    """Return the names that stand alone on a side of an equation."""
    return frozenset(term.name for term in compared.terms if isinstance(term, Name))


def numbers_of(compared: Compared) -> frozenset[str]:
    """Return the name to which an equation gives a plain number: h in ``h = 3``."""
    others = [term for term in compared.terms if not isinstance(term, Name)]
    is_number = len(others) == 1 and not has_unit_nodes(others[0]) and not any(free_uses(others[0]))
    return defined_by(compared) if is_number else frozenset()


def is_given(compared: Compared) -> bool:
    """Check whether an equation gives a quantity to a name, as ``h = 3 m`` does."""
    has_name = any(isinstance(term, Name) for term in compared.terms)
    return has_name and any(map(_is_quantity, compared.terms))


def gives(compared: Compared, name: str) -> bool:
    """Check whether an equation gives a value to this name: ``N = 20 N``."""
    return is_given(compared) and Name(name) in compared.terms


def _is_quantity(term: Node) -> bool:
    """Check whether a side is made of quantities only, without a name."""
    return has_unit_nodes(term) and not any(free_uses(term))
