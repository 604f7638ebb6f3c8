"""What the catalogue holds about a function or a constant."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import Enum, StrEnum
from typing import Any

import numpy as np
from flint import acb
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Enclosure
from axis_path.core.arithmetic.arrays.large import is_many
from axis_path.core.catalogue.unit_rules import UnitRule

Floats = NDArray[np.float64]


class Group(StrEnum):
    """The shelves of the Reference."""

    POWERS = "Powers and roots"
    LOGARITHMS = "Exponentials and logarithms"
    TRIGONOMETRY = "Trigonometry"
    HYPERBOLIC = "Hyperbolic functions"
    STEPS = "Parts and steps"
    WHOLE = "Whole numbers"
    SPECIAL = "Special functions"
    PLANE = "Points and angles"
    LISTS = "Lists"
    MATRICES = "Matrices and vectors"
    COMPLEX = "Complex numbers"
    RANGES = "Sums and integrals"
    CONSTANTS = "Constants"
    PHYSICS = "Constants of nature"
    UNITS = "Units"


class Parity(Enum):
    """What a function does when its argument changes sign: change sign too, or stay."""

    ODD = "odd"
    EVEN = "even"


class ValueKind(StrEnum):
    """What an expression may be, whatever its size."""

    NUMBER = "number"
    POINT = "point"
    LIST = "list"
    MATRIX = "matrix"
    TRUTH = "truth"


@dataclass(frozen=True, slots=True)
class Arrays:
    """How a function of lists and matrices is computed.

    Attributes:
        gives: the kind of its value, or what finds it from the kinds of its arguments.
        needs: for each argument a word of ``NEEDS``; the last one holds for further arguments.
        in_field: computes in any arithmetic of entries, which comes first; then the arguments, then
            the options. None for what must look at the numbers themselves.
        proving: computes with proved numbers, called inside ``precision``; None if ``in_field``
            serves.
        large: computes with floats and error bounds, where there are many entries; None if the
            others serve.
        side: more rows or columns than this are many too, however few the entries.
        counts: with how many arguments it is a function of lists; None for any number.
    """

    gives: ValueKind | Callable[[list[ValueKind]], ValueKind]
    needs: tuple[str, ...]
    in_field: Callable[..., Any] | None = None
    proving: Callable[..., Any] | None = None
    large: Callable[..., Any] | None = None
    side: int | None = None
    counts: frozenset[int] | None = None

    def takes_large(self, shape: tuple[int, ...]) -> bool:
        """Check whether a list or a matrix of a shape is computed by ``large``."""
        if self.large is None:
            return False
        return is_many(shape) or (self.side is not None and max(shape) > self.side)

    def takes_count(self, count: int) -> bool:
        """Check whether it is a function of lists with so many arguments."""
        return self.counts is None or count in self.counts

    def kind(self, kinds: list[ValueKind]) -> ValueKind:
        """Return the kind of its value."""
        return self.gives if isinstance(self.gives, ValueKind) else self.gives(kinds)


@dataclass(frozen=True, slots=True)
class Argument:
    """One argument: the name it is shown under, what it means, and whether it may be left out."""

    name: str
    meaning: str
    is_optional: bool = False


@dataclass(frozen=True, slots=True)
class Backends:
    """One operation in each kind of arithmetic; angles are in radians here.

    Attributes:
        fast: on float64 arrays, NaN where undefined.
        enclosing: on enclosures of columns.
        proving: on balls, called inside ``precision``.
        exact: the name of the same function in SymPy; empty if it has none.
        complex: on complex balls, with a flag that asks for a value only where the function is
            analytic; None if it is for real numbers only.
    """

    fast: Callable[..., Floats]
    enclosing: Callable[..., Enclosure]
    proving: Callable[..., Ball]
    exact: str = ""
    complex: Callable[..., acb] | None = None


@dataclass(frozen=True, slots=True)
class FunctionEntry:
    """A function: what the Reference says of it, and how it is computed.

    It is computed in one of four ways: by an operation of each arithmetic (``backends``), by other
    functions (``expansion``), as a point of two numbers (``components``), or from lists and
    matrices as wholes (``arrays``). Texts in our language
    name the arguments ``u``, ``v`` and ``w``, and angles in them are radians.

    Attributes:
        spellings: other names that mean the same.
        derivative: the derivative by each argument. It holds wherever the function has one; empty
            for a function whose derivative is not known here.
        rough: expressions that are zero wherever the function begins, ends, jumps or has a kink;
            elsewhere it has all derivatives. Empty for a function that is smooth everywhere, None
            if such places are not known.
        has_gaps: whether it has no value at its rough places.
        parity: whether it is odd or even, for a function of one number; None if it is neither.
        expansion: for each number of arguments the same in other functions.
        components: the two coordinates of a point, likewise by the number of arguments.
        inverse: the function that ``name^-1`` means, if there is one.
        takes_angle: the places of the arguments that are angles.
        returns_angle: whether the value (of a point, its second coordinate) is an angle.
        repeats: whether more arguments of the last kind may follow.
        arrays: how it is computed of lists and matrices; None for a function of numbers only.
        options: words that may stand last in its brackets.
        units: what it makes of units; None if it is one of plain numbers.
    """

    name: str
    group: Group
    arguments: tuple[Argument, ...]
    meaning: str
    defined: str
    returns: str
    example: str
    backends: Backends | None = None
    derivative: tuple[str, ...] = ()
    rough: tuple[str, ...] | None = ()
    has_gaps: bool = False
    parity: Parity | None = None
    expansion: dict[int, str] | None = None
    components: dict[int, tuple[str, str]] | None = None
    spellings: tuple[str, ...] = ()
    takes_angle: tuple[int, ...] = ()
    returns_angle: bool = False
    inverse: str | None = None
    repeats: bool = False
    arrays: Arrays | None = None
    options: tuple[str, ...] = ()
    units: UnitRule | None = None

    def accepts(self, count: int) -> bool:
        """Check whether the function can be given so many values."""
        least = sum(not argument.is_optional for argument in self.arguments)
        return least <= count and (self.repeats or count <= len(self.arguments))


@dataclass(frozen=True, slots=True)
class SummaryEntry:
    """A sum, a product or an integral, as the Reference shows it; the language reads it itself."""

    name: str
    arguments: tuple[Argument, ...]
    meaning: str
    defined: str
    returns: str
    example: str
    group: Group = Group.RANGES


@dataclass(frozen=True, slots=True)
class ConstantEntry:
    """A fixed number.

    Attributes:
        low: the greatest float that is at most the number.
        high: the smallest float that is at least the number.
        proving: gives the number as a ball.
        exact: its name in SymPy; empty for a number that is put together from others.
    """

    name: str
    meaning: str
    example: str
    low: float
    high: float
    proving: Callable[[], Ball]
    exact: str = ""
    spellings: tuple[str, ...] = ()
    group: Group = Group.CONSTANTS
