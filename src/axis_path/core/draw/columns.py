"""Columns of numbers that belong together: frozen dataclasses of arrays with one last axis."""

from __future__ import annotations

from dataclasses import fields
from functools import lru_cache
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

T = TypeVar("T")
Floats = NDArray[np.float64]
Flags = NDArray[np.bool_]


def take(columns: T, chosen: Flags | NDArray[np.int64]) -> T:
    """Give some of the columns, by flags or by places."""
    kind: Any = type(columns)
    # Places are quicker to take than flags are.
    places = np.flatnonzero(chosen) if chosen.dtype == np.bool_ else chosen
    return kind(*(np.take(getattr(columns, name), places, axis=-1) for name in _names(kind)))  # type: ignore[no-any-return]


def join_by_left(parts: list[T]) -> T:
    """Put columns together, in the order of their ``left``."""
    if len(parts) == 1:
        return parts[0]
    kind: Any = type(parts[0])
    joined = kind(
        *(np.concatenate([getattr(part, name) for part in parts], axis=-1) for name in _names(kind))
    )
    return take(joined, np.argsort(joined.left, kind="stable"))  # type: ignore[no-any-return]


@lru_cache
def _names(kind: type) -> tuple[str, ...]:
    return tuple(each.name for each in fields(kind))


def runs_of(chosen: Flags) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Give where runs of set flags begin, and the places behind their ends."""
    padded = np.zeros(len(chosen) + 2, dtype=np.bool_)
    padded[1:-1] = chosen
    edges = np.flatnonzero(padded[1:] != padded[:-1])
    return edges[::2], edges[1::2]


def cut(left: Floats, right: Floats, parts: int) -> tuple[Floats, Floats]:
    """Cut intervals, (n,) each, into equal parts, (n * parts,) each, in their order."""
    edges = left[:, None] + (right - left)[:, None] * (np.arange(parts + 1) / parts)
    # The outer edges must be the interval's own, to the last bit, for pieces to join.
    edges[:, -1] = right
    return edges[:, :-1].ravel(), edges[:, 1:].ravel()
