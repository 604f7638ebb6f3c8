"""What expressions stand for while they are compiled: numbers, points and lists of them."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from axis_path.core.language.tree import (
    AngleUnit,
    Domain,
    Node,
)


@dataclass(frozen=True, slots=True)
class UserFunction:
    """A function of the study as a compiler needs it."""

    name: str
    variables: tuple[str, ...]
    expression: Node
    domains: tuple[Domain, ...]


@dataclass(frozen=True, slots=True)
class Surroundings:
    """What names mean outside an expression.

    Attributes:
        unit: the unit of angles of the study.
        function: gives a function of the study, or None.
        value: gives the expression of a value, True for a slider, or None.
        mark: gives what stands for the present meaning of a name: equal marks mean the same.
    """

    unit: AngleUnit
    function: Callable[[str], UserFunction | None]
    value: Callable[[str], Node | bool | None]
    mark: Callable[[str], object] = str


@dataclass(frozen=True, slots=True)
class Shaped:
    """A value in the graph.

    Attributes:
        first: the step of a number, or of the first coordinate of a point.
        second: the second coordinate; None for a number.
        lists: the lists over whose elements it runs; none for a single value.
    """

    first: int
    second: int | None = None
    lists: frozenset[str] = frozenset()

    @property
    def words(self) -> str:
        """Describe what it is."""
        one = "number" if self.second is None else "point"
        return f"a list of {one}s" if self.lists else f"a {one}"


@dataclass(frozen=True, slots=True)
class ListSource:
    """Where the elements of a list come from: written out, or evenly spaced.

    Attributes:
        items: the steps of each element, one for a number and two for a point.
        start, stop: the ends of an evenly spaced list; then either ``step`` or ``count``.
    """

    items: tuple[tuple[int, ...], ...] = ()
    start: int | None = None
    stop: int | None = None
    step: int | None = None
    count: int | None = None

    @property
    def steps(self) -> tuple[int, ...]:
        """Return all steps that the list needs."""
        ends = (self.start, self.stop, self.step, self.count)
        return tuple(s for item in self.items for s in item) + tuple(
            s for s in ends if s is not None
        )


#: How the second coordinate of a list's element is marked in its input's name.
SECOND = "′"
