"""Enclosures of waves and their inverses, and of steps."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np

from axis_path.core.arithmetic.enclosure import (
    Enclosure,
    Flags,
    Floats,
    absolute,
    at_least,
    library,
)

_TURN = 1 / (2 * np.pi)


def _holds_multiple(a: Enclosure, offset: float) -> Flags:
    """Return the columns that may hold ``offset + 2 pi k`` for a whole k."""
    # The margin covers the rounding of the quotient; beyond 1e8 nothing is distinguished.
    margin = 1e-9 + 1e-15 * np.maximum(np.abs(a.low), np.abs(a.high))
    first = np.ceil((a.low - offset) * _TURN - margin)
    last = np.floor((a.high - offset) * _TURN + margin)
    # Written this way round, columns that are no numbers may hold anything.
    return np.asarray(~(first > last))


def _wave(
    a: Enclosure, function: Callable[[Floats], Floats], lowest: float, highest: float
) -> Enclosure:
    """Enclose a wave between -1 and 1 that is lowest and highest once in a turn."""
    wild = ~((np.abs(a.low) < 1e8) & (np.abs(a.high) < 1e8))
    one, other = function(a.low), function(a.high)
    low = np.where(wild | _holds_multiple(a, lowest), -1.0, np.minimum(one, other))
    high = np.where(wild | _holds_multiple(a, highest), 1.0, np.maximum(one, other))
    result = library(low, high, a)
    return Enclosure(
        np.maximum(result.low, -1.0), np.minimum(result.high, 1.0),
        result.partial, result.nowhere, result.broken,
    )  # fmt: skip


def sine(a: Enclosure) -> Enclosure:
    """Enclose sin a."""
    return _wave(a, np.sin, -np.pi / 2, np.pi / 2)


def cosine(a: Enclosure) -> Enclosure:
    """Enclose cos a."""
    return _wave(a, np.cos, np.pi, 0.0)


def tangent(a: Enclosure) -> Enclosure:
    """Enclose tan a; a pole inside makes the column broken."""
    wild = ~((np.abs(a.low) < 1e8) & (np.abs(a.high) < 1e8))
    pole = wild | _holds_multiple(a, np.pi / 2) | _holds_multiple(a, -np.pi / 2)
    with np.errstate(invalid="ignore"):
        result = library(
            np.where(pole, -np.inf, np.tan(a.low)), np.where(pole, np.inf, np.tan(a.high)), a
        )
    return replace(result, partial=result.partial | pole, broken=result.broken | pole)


def _clipped(a: Enclosure) -> tuple[Enclosure, Flags, Flags]:
    """Cut to [-1, 1], with the columns partly and wholly outside."""
    inner = replace(a, low=np.clip(a.low, -1, 1), high=np.clip(a.high, -1, 1))
    return inner, (a.low < -1) | (a.high > 1), (a.low > 1) | (a.high < -1)


def arcsine(a: Enclosure) -> Enclosure:
    """Enclose arcsin a, in radians."""
    inner, partly, wholly = _clipped(a)
    result = library(np.arcsin(inner.low), np.arcsin(inner.high), a)
    return replace(result, partial=result.partial | partly, nowhere=result.nowhere | wholly)


def arccosine(a: Enclosure) -> Enclosure:
    """Enclose arccos a, in radians."""
    inner, partly, wholly = _clipped(a)
    result = library(np.arccos(inner.high), np.arccos(inner.low), a)
    return replace(result, partial=result.partial | partly, nowhere=result.nowhere | wholly)


def arctangent(a: Enclosure) -> Enclosure:
    """Enclose arctan a, in radians."""
    return library(np.arctan(a.low), np.arctan(a.high), a)


def hyperbolic_sine(a: Enclosure) -> Enclosure:
    """Enclose sinh a."""
    return library(np.sinh(a.low), np.sinh(a.high), a)


def hyperbolic_cosine(a: Enclosure) -> Enclosure:
    """Enclose cosh a."""
    size = absolute(a)
    return at_least(library(np.cosh(size.low), np.cosh(size.high), a), 1.0)


def hyperbolic_tangent(a: Enclosure) -> Enclosure:
    """Enclose tanh a."""
    return library(np.tanh(a.low), np.tanh(a.high), a)
