"""What follows the head of a line: an expression, pieces with conditions, or a comparison."""

from __future__ import annotations

from dataclasses import dataclass

from axis_path.core.language.tree import (
    Node,
    Span,
)


@dataclass(frozen=True, slots=True)
class Condition:
    """A comparison as it was typed: n terms and the n - 1 signs between them."""

    terms: tuple[Node, ...]
    signs: tuple[str, ...]
    span: Span


@dataclass(frozen=True, slots=True)
class Branch:
    """An expression with the conditions after ``for``; None for ``otherwise``."""

    expression: Node
    conditions: tuple[Condition, ...] | None
    span: Span


@dataclass(frozen=True, slots=True)
class Body:
    """What follows the head of a line.

    Attributes:
        branches: one, without conditions for all numbers, or the pieces of a function.
        compared: the comparison that the body is, if it is an equation or an inequality; there
            are no branches then.
    """

    branches: tuple[Branch, ...]
    compared: Condition | None = None
