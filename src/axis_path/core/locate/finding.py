"""What was located, and how far it is sure."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from typing import overload

from axis_path.core.evaluate import Result


class Kind(StrEnum):
    """What a finding is."""

    ZERO = "zero"
    MINIMUM = "minimum"
    MAXIMUM = "maximum"
    INTERSECTION = "intersection"
    INFLECTION = "inflection"
    POLE = "pole"
    JUMP = "jump"
    HOLE = "hole"
    END = "end"
    ISOLATED = "isolated"
    SOLUTION = "solution"

    @property
    def label(self) -> str:
        """Return what it is called in words."""
        return "isolated point" if self is Kind.ISOLATED else self.value


@dataclass(frozen=True, slots=True)
class Finding:
    """One located point.

    Attributes:
        x: the place, as the nearest float; ``y`` the value there.
        bracket: floats between which the true place lies.
        proved: whether exactly one such point is proved to lie in the bracket.
        exact: the place in exact form where one was found: a fraction, or a multiple of pi.
        text: the place with ten digits, each right; fewer where fewer are sure.
        note: why it is not proved; empty if it is.
        y_text: the value there with ten digits, each right, unless it is 0 by what the finding is.
        y_exact: the value in exact form where one was found.
        is_global: of an extremum, whether nothing in the interval lies beyond it.
        at_end: of an extremum, whether it lies at an end of the domain or the interval.
        multiplicity: of a zero, how many derivatives vanish with the function, counting itself; of
            an intersection, 1 where the curves cross and more where they touch. None if not known.
        why: in words, by what it is proved, or what else is known of it.
        values: of a solution of a set of equations, the value of each of its names.
    """

    kind: Kind
    x: float
    y: float
    bracket: tuple[float, float]
    proved: bool
    exact: str | None
    text: str
    note: str = ""
    y_text: str = ""
    y_exact: str | None = None
    is_global: bool = False
    at_end: bool = False
    multiplicity: int | None = None
    why: str = ""
    values: Mapping[str, Result] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Findings(Sequence[Finding]):
    """All findings of one search, in order of x.

    Attributes:
        items: the findings.
        complete: whether it is proved that there are no others.
        note: what is not certain, or what else is known, in words; may be empty.
        holds_always: whether everything is a solution, so that none can be listed.
        along: where it is so all along, in words, if it is proved that there is nothing but that
            and the findings.
        x_unit: the symbol of the unit of all abscissae, ``y_unit`` that of the values; empty for
            plain numbers.
    """

    items: tuple[Finding, ...]
    complete: bool
    note: str = ""
    holds_always: bool = False
    along: str = ""
    x_unit: str = ""
    y_unit: str = ""

    def __len__(self) -> int:
        """Return how many were found."""
        return len(self.items)

    @overload
    def __getitem__(self, index: int) -> Finding: ...
    @overload
    def __getitem__(self, index: slice) -> tuple[Finding, ...]: ...
    def __getitem__(self, index: int | slice) -> Finding | tuple[Finding, ...]:
        """Return one finding, or some."""
        return self.items[index]

    def __iter__(self) -> Iterator[Finding]:
        """Go through the findings in order of x."""
        return iter(self.items)
