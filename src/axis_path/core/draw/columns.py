"""Runs among columns."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

Flags = NDArray[np.bool_]


def runs_of(chosen: Flags) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Return where runs of set flags begin, and the places behind their ends."""
    padded = np.zeros(len(chosen) + 2, dtype=np.bool_)
    padded[1:-1] = chosen
    edges = np.flatnonzero(padded[1:] != padded[:-1])
    return edges[::2], edges[1::2]
