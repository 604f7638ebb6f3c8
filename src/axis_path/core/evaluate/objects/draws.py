"""Random numbers that a study always draws the same.

Each is a decimal of 15 places, found from the seed, from the definition that draws it and from how
many it has drawn before: neither the order of the lines nor that of computing changes it.
"""

from __future__ import annotations

import hashlib
from fractions import Fraction
from functools import cached_property

import numpy as np

from axis_path.core.arithmetic.bounded.entries import Whole

#: The common denominator.
SIZE = 10**15


class Draws:
    """Draws for one definition.

    Args:
        seed: of the study.
        owner: the name or the text of the definition.
    """

    def __init__(self, seed: int, owner: str) -> None:
        self._key = f"{seed}/{owner}".encode()

    @cached_property
    def _generator(self) -> np.random.Generator:
        digest = hashlib.sha256(self._key).digest()
        return np.random.Generator(np.random.Philox(key=int.from_bytes(digest[:16])))

    def next(self, count: int) -> list[Fraction]:
        """Return the next random numbers, from 0 to 1 without 1."""
        return [Fraction(int(number), SIZE) for number in self.next_numerators(count)]

    def next_numerators(self, count: int) -> Whole:
        """Return the next random numbers, (count,), times 10^15."""
        return self._generator.integers(0, SIZE, size=count, dtype=np.int64)
