"""Columns of numbers that belong together, as frozen dataclasses of arrays of one length."""

from __future__ import annotations

from dataclasses import fields
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

T = TypeVar("T")
Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]


def take(columns: T, chosen: Flags | NDArray[np.int64]) -> T:
    """Give some of the rows of columns, by flags or by places."""
    kind: Any = type(columns)
    return kind(*(getattr(columns, each.name)[chosen] for each in fields(kind)))  # type: ignore[no-any-return]


def join_by_left(parts: list[T]) -> T:
    """Put columns together, in the order of their field ``left``."""
    kind: Any = type(parts[0])
    joined = kind(
        *(np.concatenate([getattr(part, each.name) for part in parts]) for each in fields(kind))
    )
    return take(joined, np.argsort(joined.left, kind="stable"))  # type: ignore[no-any-return]


def runs_of(chosen: Flags) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Give where runs of set flags begin, and the places behind their ends."""
    edges = np.flatnonzero(np.diff(np.concatenate([[False], chosen, [False]]).astype(np.int8)))
    return edges[::2], edges[1::2]


def cut(left: Floats, right: Floats, parts: int) -> tuple[Floats, Floats]:
    """Cut intervals, (n,) each, into equal parts, (n * parts,) each, in their order."""
    edges = left[:, None] + (right - left)[:, None] * np.linspace(0, 1, parts + 1)
    # The outer edges must be the interval's own, to the last bit, for pieces to join.
    edges[:, -1] = right
    return edges[:, :-1].ravel(), edges[:, 1:].ravel()
