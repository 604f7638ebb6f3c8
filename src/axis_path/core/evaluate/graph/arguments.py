"""The arguments of a call: points that count as two, lists, and counts that do not fit."""

from __future__ import annotations

from collections.abc import Callable

from axis_path.core.catalogue import FunctionEntry
from axis_path.core.errors import (
    ArgumentCountError,
    MathError,
    ShapeError,
)
from axis_path.core.evaluate.graph.shapes import (
    Shaped,
    UserFunction,
)
from axis_path.core.language.tree import (
    Call,
)


def mapped(function: Callable[[int], int], value: Shaped) -> Shaped:
    """Return a number or a point with a function applied to each of its coordinates."""
    second = None if value.second is None else function(value.second)
    return Shaped(function(value.first), second, value.lists)


def spread(
    given: list[Shaped], entry: FunctionEntry | None, own: UserFunction | None
) -> tuple[int, ...]:
    """Return the steps of all arguments; a point counts as two, where two are taken."""
    most = 3 if entry is not None else len(own.variables) if own is not None else 1
    steps: list[int] = []
    for argument in given:
        steps.append(argument.first)
        if argument.second is not None:
            if most < 2:
                raise ShapeError("A number is wanted here; this is a point.")
            steps.append(argument.second)
    return tuple(steps)


def wrong_count(node: Call, expected: int, count: int) -> MathError:
    """Return the error of a call with too many or too few arguments."""
    return ArgumentCountError(
        f"`{node.function}` needs {expected} value{'s' if expected > 1 else ''} "
        f"and was given {count}.",
        position=node.span,
    )
