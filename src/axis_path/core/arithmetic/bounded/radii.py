"""Error bounds of many numbers, computed as far as they are asked for."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable, Sequence

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


class Radii(ABC):
    """Bounds for the distance of each number from its float."""

    @abstractmethod
    def all(self) -> Floats:
        """Return all of them, (n,)."""

    @abstractmethod
    def at(self, index: int) -> float:
        """Return one of them."""

    @abstractmethod
    def greatest(self) -> float:
        """Return a number that none of them exceeds."""


class Later(Radii):
    """Bounds that are computed all at once when the first is asked for.

    Args:
        compute: returns them, (n,).
    """

    def __init__(self, compute: Callable[[], Floats]) -> None:
        self._compute: Callable[[], Floats] | None = compute
        self._made = np.zeros(0)

    def all(self) -> Floats:
        """Return all of them, (n,)."""
        if self._compute is not None:
            self._made = self._compute()
            # What they were computed from is not needed any longer.
            self._compute = None
        return self._made

    def at(self, index: int) -> float:
        """Return one of them."""
        return float(self.all()[index])

    def greatest(self) -> float:
        """Return the greatest."""
        return float(self.all().max())


class Relative(Radii):
    """Bounds that are a multiple of the numbers.

    Args:
        middles: the numbers, (n,).
        factor: at least 0.
    """

    def __init__(self, middles: Floats, factor: float) -> None:
        self._middles = middles
        self.factor = factor

    def all(self) -> Floats:
        """Return all of them, (n,)."""
        return self.factor * np.abs(self._middles)

    def at(self, index: int) -> float:
        """Return one of them."""
        return self.factor * abs(float(self._middles[index]))

    def greatest(self) -> float:
        """Return the greatest."""
        return self.factor * float(np.abs(self._middles).max())


class OuterSum(Radii):
    """Bounds of a matrix, row by row, that are sums of products of a row's and a column's number.

    Args:
        pairs: for each product the numbers of the rows and those of the columns, none negative.
        slack: what is multiplied to all, for the roundings, and what is added.
    """

    def __init__(self, pairs: Sequence[tuple[Floats, Floats]], slack: tuple[float, float]) -> None:
        self._pairs = pairs
        self._slack = slack
        self._columns = len(pairs[0][1])

    def all(self) -> Floats:
        """Return all of them, (n,)."""
        factor, rest = self._slack
        total = sum((np.outer(rows, columns) for rows, columns in self._pairs), np.zeros(()))
        return (total * factor + rest).ravel()

    def at(self, index: int) -> float:
        """Return one of them."""
        row, column = divmod(index, self._columns)
        factor, rest = self._slack
        return (
            factor * float(sum(rows[row] * columns[column] for rows, columns in self._pairs)) + rest
        )

    def greatest(self) -> float:
        """Return a number that none of them exceeds."""
        factor, rest = self._slack
        return factor * float(sum(u.max() * v.max() for u, v in self._pairs)) + rest
