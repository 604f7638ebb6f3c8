"""Random numbers that a study always draws the same.

Each is a decimal of 15 places, found from the seed, from the definition that draws it and from how
many it has drawn before: neither the order of the lines nor that of computing changes it.
"""

from __future__ import annotations

import hashlib
from fractions import Fraction

import numpy as np

from axis_path.core.deadline import check

_SIZE = 10**15
#: After so many numbers it is checked whether anybody still waits.
_CHUNK = 10_000


class Draws:
    """Draws for one definition.

    Args:
        seed: of the study.
        owner: the name or the text of the definition.
    """

    def __init__(self, seed: int, owner: str) -> None:
        digest = hashlib.sha256(f"{seed}/{owner}".encode()).digest()
        self._generator = np.random.Generator(np.random.Philox(key=int.from_bytes(digest[:16])))

    def next(self, count: int) -> list[Fraction]:
        """Return the next random numbers, from 0 to 1 without 1."""
        whole = self._generator.integers(0, _SIZE, size=count, dtype=np.int64)
        drawn: list[Fraction] = []
        for start in range(0, count, _CHUNK):
            check()
            drawn += [Fraction(int(number), _SIZE) for number in whole[start : start + _CHUNK]]
        return drawn
