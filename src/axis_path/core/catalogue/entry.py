"""What the catalogue holds about a function or a constant."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Ball, Enclosure

Floats = NDArray[np.float64]


class AngleRole(StrEnum):
    """Which side of a function is an angle, and so follows the study's unit."""

    NONE = "none"
    TAKES = "takes"
    RETURNS = "returns"


class Group(StrEnum):
    """The shelves of the Reference."""

    POWERS = "Powers and roots"
    LOGARITHMS = "Exponentials and logarithms"
    TRIGONOMETRY = "Trigonometry"
    HYPERBOLIC = "Hyperbolic functions"
    STEPS = "Parts and steps"
    CONSTANTS = "Constants"


@dataclass(frozen=True, slots=True)
class Argument:
    """One argument, by the name it is shown under, and what it means."""

    name: str
    meaning: str


@dataclass(frozen=True, slots=True)
class Backends:
    """One operation in each kind of arithmetic; angles are in radians here.

    Attributes:
        fast: on float64 arrays, NaN where undefined.
        enclosing: on enclosures of columns.
        proving: on balls, called inside ``precision``.
    """

    fast: Callable[..., Floats]
    enclosing: Callable[..., Enclosure]
    proving: Callable[..., Ball]


@dataclass(frozen=True, slots=True)
class FunctionEntry:
    """A function: what the Reference says of it, and how it is computed.

    Attributes:
        spellings: other names that mean the same.
        derivative: the derivative by each argument, in our language; the arguments there are
            ``u`` and ``v``. It holds wherever the function has a derivative.
        inverse: the function that ``name^-1`` means, if there is one.
    """

    name: str
    group: Group
    arguments: tuple[Argument, ...]
    meaning: str
    defined: str
    returns: str
    example: str
    backends: Backends
    derivative: tuple[str, ...]
    spellings: tuple[str, ...] = ()
    angle: AngleRole = AngleRole.NONE
    inverse: str | None = None


@dataclass(frozen=True, slots=True)
class ConstantEntry:
    """A fixed number.

    Attributes:
        low: the greatest float that is at most the number.
        high: the smallest float that is at least the number.
        proving: gives the number as a ball.
    """

    name: str
    meaning: str
    example: str
    low: float
    high: float
    proving: Callable[[], Ball]
    spellings: tuple[str, ...] = ()
    group: Group = Group.CONSTANTS
