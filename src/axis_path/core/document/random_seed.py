"""The seed of the random numbers that a study draws."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from msgspec import Meta


@dataclass(frozen=True, slots=True)
class RandomSeed:
    """What all random numbers of a study follow from.

    Attributes:
        number: another one draws other numbers.
    """

    number: Annotated[int, Meta(ge=0, le=2**31 - 1)] = 1
