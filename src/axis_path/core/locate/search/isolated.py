"""Single points at which a function has a value, with none on either side: sqrt(-x^2) at 0."""

from __future__ import annotations

from axis_path.core.arithmetic import Ball, Defined, precision
from axis_path.core.errors import LimitError, NotHandledError
from axis_path.core.evaluate import Op, RealFunction
from axis_path.core.locate.cells import Interval
from axis_path.core.locate.search.parts import Anatomy, Part, SingularPoint, take_apart
from axis_path.core.locate.search.zeros import SEARCH_BITS, clip

#: What has a value at the very end of where it is defined; no other operation leaves a point.
_CLOSED = frozenset({"sqrt", "asin", "acos", "acosh", Op.POWER})


def may_be_isolated(function: RealFunction) -> bool:
    """Check whether an operation of a function can leave single points of its domain."""
    return any(
        step.op in _CLOSED
        or (step.op == Op.ROOT and isinstance(step.payload, tuple) and step.payload[1] % 2 == 0)
        for step in function.expression.program.steps
    )


def is_isolated(
    anatomy: Anatomy, before: Part | None, singular: SingularPoint, after: Part | None
) -> bool:
    """Check whether a function is proved to have a value at one and none on either side."""
    if before is None or after is None or not singular.proved:
        return False
    sides = before.defined, after.defined
    return sides == (Defined.NO, Defined.NO) and anatomy.value_at(singular).is_defined


def isolated_points(function: RealFunction, interval: Interval) -> list[tuple[Ball, Ball]]:
    """Return the places of all single points between two ends, and their values.

    Args:
        function: its own domain is respected.
        interval: where to search.
    """
    with precision(SEARCH_BITS):
        inside = clip(function, interval)
        if inside is None or not may_be_isolated(function):
            return []
        try:
            anatomy = take_apart(function, inside)
        except (LimitError, NotHandledError):
            return []
        return [
            (singular.abscissa, anatomy.value_at(singular))
            for before, singular, after in anatomy.neighbours()
            if is_isolated(anatomy, before, singular, after)
        ]
