"""What happens between two rows of a table: a sign changes, a function turns, two of them meet."""

from __future__ import annotations

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from enum import StrEnum
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


class Happening(StrEnum):
    """What a table shows to happen between its rows."""

    SIGN = "sign"
    TURN = "turn"
    MEET = "meet"


@dataclass(frozen=True, slots=True)
class Between:
    """One happening.

    Attributes:
        row: it lies between this row and the ``last``.
        last: the row after it; two rows on for a turn.
        what: what happens.
        names: of the columns that take part.
    """

    row: int
    last: int
    what: Happening
    names: tuple[str, ...]

    @property
    def sentence(self) -> str:
        """Return it as a sentence."""
        if self.what is Happening.MEET:
            return f"{self.names[0]} and {self.names[1]} change places"
        words = "changes its sign" if self.what is Happening.SIGN else "turns"
        return f"{self.names[0]} {words}"


def happenings(
    columns: Mapping[str, Floats], meeting: Collection[str] | None = None
) -> list[Between]:
    """Find what happens between the rows, in order; rows without a value say nothing.

    Args:
        columns: (n,) floats for each name.
        meeting: those whose crossings are reported; all by default.
    """
    happenings_between: list[Between] = []
    for name, values in columns.items():
        for k in _crossings(values):
            happenings_between.append(Between(k, k + 1, Happening.SIGN, (name,)))
        steps = np.diff(values)
        with np.errstate(invalid="ignore"):
            turns = np.flatnonzero(steps[1:] * steps[:-1] < 0)
        happenings_between += [Between(k, k + 2, Happening.TURN, (name,)) for k in turns.tolist()]
    compared = [item for item in columns.items() if meeting is None or item[0] in meeting]
    for (one, a), (other, b) in combinations(compared, 2):
        happenings_between += [
            Between(k, k + 1, Happening.MEET, (one, other)) for k in _crossings(a - b)
        ]
    return sorted(
        happenings_between, key=lambda item: (item.row, item.what != Happening.SIGN, item.names)
    )


def _crossings(values: Floats) -> list[int]:
    """Return the rows after which a column changes its sign; a zero counts once, before it."""
    with np.errstate(invalid="ignore"):
        changes = (values[1:] * values[:-1] < 0) | ((values[1:] == 0) & (values[:-1] != 0))
    known = np.isfinite(values)
    return [int(k) for k in np.flatnonzero(changes & known[1:] & known[:-1])]
