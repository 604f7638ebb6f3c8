"""Sums, products and integrals over floats and over columns.

Fast values of an integral come from Gauss-Legendre quadrature on equal panels; enclosures from the
range of the body on panels, and from Simpson's rule with its error where that is narrower.
"""

from __future__ import annotations

from itertools import pairwise
from typing import Protocol, TypeVar

import numpy as np
from numpy.typing import NDArray

from axis_path.core.arithmetic import Enclosure, enclosure
from axis_path.core.evaluate.graph.graph import Inner
from axis_path.core.evaluate.graph.program import Backend, run_fourth, run_inner
from axis_path.core.language.tree import Summary
from axis_path.core.limits import SUM_TERMS

Floats = NDArray[np.float64]
_PANELS, _NODES = 16, 12
_LARGEST_WHOLE = 2.0**53
_ENCLOSED_PANELS = 24
#: The panels of the grid on which all columns of an integral are enclosed together.
_GRID = 1024


V = TypeVar("V")


class WatchingBackend(Backend[V], Protocol[V]):
    """An arithmetic as an integral uses it.

    Attributes:
        ends: the bounds of all domains and pieces on the watched value, as they come up.
    """

    ends: list[V]

    def watching(self, bound: V) -> WatchingBackend[V]:
        """Return the same arithmetic, which notes in ``ends`` where domains on ``bound`` end."""


# Fast


def fast(
    backend: WatchingBackend[Floats],
    inner: Inner,
    low: Floats,
    high: Floats,
    captured: list[Floats],
) -> Floats:
    """Return a sum, product or integral for every element of its ends and captured values."""
    if inner.summary is Summary.INTEGRAL:
        return _fast_integral(backend, inner, low, high, captured)
    shape = np.broadcast_shapes(np.shape(low), np.shape(high), *map(np.shape, captured))
    with np.errstate(invalid="ignore"):
        whole = (np.floor(low) == low) & (np.floor(high) == high)
        # Beyond 2^53 floats are more than 1 apart: there is no going from one to the next.
        whole = whole & (np.abs(low) < _LARGEST_WHOLE) & (np.abs(high) < _LARGEST_WHOLE)
    is_sum = inner.summary is Summary.SUM
    result = np.full(shape, 0.0 if is_sum else 1.0)
    if not np.any(whole):
        return np.full(shape, np.nan)
    first = float(np.min(np.where(whole, low, np.inf)))
    last = float(np.max(np.where(whole, high, -np.inf)))
    # Written this way round, ends that are no numbers give nothing.
    if not last - first < SUM_TERMS.value:
        return np.full(shape, np.nan)
    for k in np.arange(first, last + 1):
        term = run_inner(inner, backend, captured, np.asarray(k))
        holds = (k >= low) & (k <= high)
        next_one = result + term if is_sum else result * term
        result = np.where(holds, next_one, result)
    return np.where(whole, result, np.nan)


def _fast_integral(
    backend: WatchingBackend[Floats],
    inner: Inner,
    low: Floats,
    high: Floats,
    captured: list[Floats],
) -> Floats:
    """Integrate stretch by stretch: no domain or piece on the variable ends inside one."""
    total: Floats = np.zeros(())
    for start, stop in _intervals(backend, inner, (low, high), captured):
        total = total + _gauss(backend, inner, (start, stop), captured)
    return total


def _intervals(
    backend: WatchingBackend[Floats],
    inner: Inner,
    ends: tuple[Floats, Floats],
    captured: list[Floats],
) -> list[tuple[Floats, Floats]]:
    watched = np.zeros(())
    noting = backend.watching(watched)
    run_inner(inner, noting, captured, watched)
    cuts = sorted({float(cut) for cut in noting.ends if np.ndim(cut) == 0 and np.isfinite(cut)})
    low, high = ends
    bounds = [-np.inf, *cuts, np.inf]
    return [(np.clip(low, a, b), np.clip(high, a, b)) for a, b in pairwise(bounds)]


def _gauss(
    backend: Backend[Floats],
    inner: Inner,
    ends: tuple[Floats, Floats],
    captured: list[Floats],
) -> Floats:
    nodes, weights = np.polynomial.legendre.leggauss(_NODES)
    low, high = ends
    if np.all(low == high):
        return np.zeros(())
    width = (high - low) / _PANELS
    total: Floats = np.zeros(())
    for panel in range(_PANELS):
        middle = low + width * (panel + 0.5)
        for node, weight in zip(nodes, weights, strict=True):
            values = run_inner(inner, backend, captured, middle + width / 2 * node)
            # An interval of no length has no part, whatever the body is there.
            total = total + np.where(width == 0, 0.0, weight * values)
    return total * width / 2


# Enclosing


def enclosing(
    backend: WatchingBackend[Enclosure],
    inner: Inner,
    low: Enclosure,
    high: Enclosure,
    captured: list[Enclosure],
) -> Enclosure:
    """Enclose a sum, product or integral."""
    if inner.summary is Summary.INTEGRAL:
        return _enclosed_integral(backend, inner, low, high, captured)
    fixed = all(np.ndim(end.low) == 0 and end.low == end.high for end in (low, high))
    is_far = max(abs(float(low.low)), abs(float(high.low))) >= _LARGEST_WHOLE if fixed else True
    if is_far or not float(high.low) - float(low.low) < SUM_TERMS.value:
        return _unknown(low, high, *captured)
    is_sum = inner.summary is Summary.SUM
    result = enclosure.constant(0.0, 0.0) if is_sum else enclosure.constant(1.0, 1.0)
    if not (float(low.low).is_integer() and float(high.low).is_integer()):
        return _nowhere(low, high)
    for k in np.arange(float(low.low), float(high.low) + 1):
        term = run_inner(inner, backend, captured, enclosure.constant(k, k))
        result = enclosure.add(result, term) if is_sum else enclosure.multiply(result, term)
    return result.with_flags(*captured)


def _unknown(*sources: Enclosure) -> Enclosure:
    flag = np.bool_(True)
    unbounded = enclosure.constant(-np.inf, np.inf)
    return Enclosure(unbounded.low, unbounded.high, flag, np.bool_(False), flag).with_flags(
        *sources
    )


def _nowhere(*sources: Enclosure) -> Enclosure:
    flag = np.bool_(True)
    return Enclosure(np.zeros(()), np.zeros(()), flag, flag, flag).with_flags(*sources)


def _enclosed_integral(
    backend: WatchingBackend[Enclosure],
    inner: Inner,
    low: Enclosure,
    high: Enclosure,
    captured: list[Enclosure],
) -> Enclosure:
    """Enclose panel by panel between the middles of the ends; then add what the ends are wide."""
    first, last = _middle(low), _middle(high)
    hull = _hull(first, last)
    noting = backend.watching(hull)
    run_inner(inner, noting, captured, hull)
    cuts = np.array([float(end.low) for end in noting.ends if np.ndim(end.low) == 0])
    if all(np.ndim(value.low) == 0 for value in captured):
        total = _on_one_grid(backend, inner, (first.low, last.low), captured, cuts)
    else:
        total = _on_panels(backend, inner, (first, last), captured)
    for end, middle, side in ((high, last, 1), (low, first, -1)):
        values = run_inner(inner, backend, captured, end)
        rest = enclosure.multiply(values, enclosure.subtract(end, middle))
        total = (enclosure.add if side == 1 else enclosure.subtract)(total, rest)
    # An integral over an open place may still exist: what cannot be determined is not said.
    unsure = total.partial | total.nowhere
    return Enclosure(
        np.where(unsure, -np.inf, total.low),
        np.where(unsure, np.inf, total.high),
        unsure | low.partial | high.partial,
        total.nowhere | low.nowhere | high.nowhere,
        # An integral is continuous in its ends and wherever its body is bounded.
        unsure | low.broken | high.broken,
    )


def _on_one_grid(
    backend: Backend[Enclosure],
    inner: Inner,
    ends: tuple[Floats, Floats],
    captured: list[Enclosure],
    cuts: Floats,
) -> Enclosure:
    """Enclose for all columns at once: every end is a place of one grid, and its panels are added.

    Args:
        backend: the arithmetic.
        inner: the integral.
        ends: (n,) or () floats each.
        captured: one enclosure for all columns each.
        cuts: where domains or pieces of the body end.
    """
    knots = np.concatenate([np.atleast_1d(end) for end in ends])
    knots = knots[np.isfinite(knots)]
    if not knots.size:
        return _nowhere()
    low, high = float(knots.min()), float(knots.max())
    inside = cuts[(cuts > low) & (cuts < high)]
    grid = np.unique(np.concatenate([knots, inside, np.linspace(low, high, _GRID + 1)]))
    start, stop = (enclosure.between(part, part) for part in (grid[:-1], grid[1:]))
    width = enclosure.subtract(stop, start)
    parts = _enclosed_panel(backend, inner, (start, stop), width, captured)
    shape = np.shape(grid[1:])
    usable = np.broadcast_to(~(parts.partial | parts.nowhere), shape)
    bounds = [
        np.where(usable, np.broadcast_to(bound, shape), 0.0) for bound in (parts.low, parts.high)
    ]
    sums = [np.concatenate([[0.0], np.cumsum(bound)]) for bound in bounds]
    sizes = np.concatenate([[0.0], np.cumsum(np.maximum(*map(np.abs, bounds)))])
    missing = np.concatenate([[0], np.cumsum(np.broadcast_to(parts.nowhere, shape))])
    doubtful = np.concatenate([[0], np.cumsum(~usable)])
    indices = [np.searchsorted(grid, end) for end in ends]
    known = np.isfinite(ends[0]) & np.isfinite(ends[1])
    one, other = (np.minimum(index, len(grid) - 1) for index in indices)
    first, last = np.minimum(one, other), np.maximum(one, other)
    # A sum of n floats is off by at most n roundings of the sum of their sizes.
    slack = len(grid) * np.finfo(np.float64).eps * sizes[last]
    lower, upper = (total[last] - total[first] for total in sums)
    lower, upper = lower - slack, upper + slack
    turned = other < one
    unsure = (doubtful[last] > doubtful[first]) | ~known
    return Enclosure(
        np.where(turned, -upper, lower),
        np.where(turned, -lower, upper),
        unsure,
        (missing[last] > missing[first]) | ~known,
    )


def _on_panels(
    backend: Backend[Enclosure],
    inner: Inner,
    ends: tuple[Enclosure, Enclosure],
    captured: list[Enclosure],
) -> Enclosure:
    """Enclose column by column on equal panels, where the body itself changes with the column."""
    count = _ENCLOSED_PANELS
    first, last = ends
    width = enclosure.divide(enclosure.subtract(last, first), enclosure.constant(count, count))
    total = enclosure.constant(0.0, 0.0)
    start = first
    for panel in range(count):
        share = enclosure.constant(panel + 1.0, panel + 1.0)
        stop = enclosure.add(first, enclosure.multiply(width, share))
        part = _enclosed_panel(backend, inner, (start, stop), width, captured)
        total = enclosure.add(total, part)
        start = stop
    return total


def _middle(end: Enclosure) -> Enclosure:
    middle = np.where(end.low == end.high, end.low, (end.low + end.high) / 2)
    return enclosure.between(middle, middle)


def _hull(a: Enclosure, b: Enclosure) -> Enclosure:
    return enclosure.between(np.minimum(a.low, b.low), np.maximum(a.high, b.high))


def _enclosed_panel(
    backend: Backend[Enclosure],
    inner: Inner,
    ends: tuple[Enclosure, Enclosure],
    width: Enclosure,
    captured: list[Enclosure],
) -> Enclosure:
    """Enclose the integral over one panel, by its range and by Simpson's rule with its error.

    Source:
        Davis and Rabinowitz, *Methods of Numerical Integration*, section 2.2: the error is the
        fifth power of the width times the fourth derivative somewhere inside, over -2880.
    """
    values, fourth = run_fourth(inner, backend, captured, _hull(*ends))
    by_range = enclosure.multiply(values, width)
    if fourth is None:
        return by_range
    # The middle is enclosed too: Simpson's rule needs it exactly between the ends.
    half = enclosure.divide(enclosure.add(*ends), enclosure.constant(2.0, 2.0))
    samples = [run_inner(inner, backend, captured, index) for index in (ends[0], half, ends[1])]
    weighted = enclosure.add(
        enclosure.add(samples[0], samples[2]),
        enclosure.multiply(samples[1], enclosure.constant(4.0, 4.0)),
    )
    rule = enclosure.divide(enclosure.multiply(weighted, width), enclosure.constant(6.0, 6.0))
    fifth = enclosure.divide(enclosure.integer_power(width, 5), enclosure.constant(2880.0, 2880.0))
    error = enclosure.multiply(fourth, fifth)
    by_rule = enclosure.subtract(rule, error)
    good = ~(fourth.partial | fourth.nowhere | fourth.broken | values.partial | values.broken)
    good = good & np.isfinite(by_rule.low) & np.isfinite(by_rule.high)
    return Enclosure(
        np.where(good, np.maximum(by_rule.low, by_range.low), by_range.low),
        np.where(good, np.minimum(by_rule.high, by_range.high), by_range.high),
        by_range.partial, by_range.nowhere, by_range.broken,
    )  # fmt: skip
