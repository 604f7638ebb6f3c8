"""Lines of a study in the graph, ready to be evaluated."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.evaluate import Expression, Shaped
from axis_path.core.language.tree import Node


@dataclass(frozen=True)
class CompiledValue:
    """A number, a point or a list in the graph."""

    shaped: Shaped
    first: Expression
    second: Expression | None


@dataclass(frozen=True)
class CompiledObject:
    """A value, or a function, in which lists or matrices take part as wholes.

    It is computed from its tree.
    """

    node: Node


@dataclass(frozen=True)
class CompiledFunction:
    """A function of the study in the graph; bounds are expressions without a variable.

    Attributes:
        expression: its value; of a path the first coordinate.
        plane: both coordinates, of a path or a curve by an angle.
    """

    expression: Expression
    low: Expression | None
    high: Expression | None
    without: tuple[Expression, ...]
    plane: tuple[Expression, Expression] | None = None


@dataclass(frozen=True)
class CompiledRelation:
    """An equation or inequality in x (the variable) and y (an input).

    Attributes:
        conditions: differences that must all be zero, above zero, or not below zero.
        signs: for each of them ``=``, ``>`` or ``>=``.
    """

    conditions: tuple[Expression, ...]
    signs: tuple[str, ...]


Compiled = CompiledValue | CompiledObject | CompiledFunction | CompiledRelation
