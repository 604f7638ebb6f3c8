"""Parts of an expression of which an angle is left out."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.language.tree import Node


@dataclass(frozen=True, slots=True)
class Coercion:
    """A part of which an angle is to be left out, where radians are the number 1.

    Attributes:
        power: the power in which the angle takes part.
    """

    node: Node
    power: Fraction
