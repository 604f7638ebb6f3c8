"""Expressions of many numbers at once: exactly if they fit into 64 bits, else by enclosures."""

from __future__ import annotations

from collections.abc import Mapping
from fractions import Fraction

import numpy as np

from axis_path.core.arithmetic import Enclosure, enclosure
from axis_path.core.arithmetic.bounded.entries import BoundedEntries, from_bounds, from_common
from axis_path.core.arithmetic.bounded.pairs import (
    Entries,
    combined,
    joined_entries,
    parts,
)
from axis_path.core.arithmetic.bounded.radii import Floats
from axis_path.core.arithmetic.real_number import Parameters, fractions_only
from axis_path.core.deadline import check
from axis_path.core.evaluate.backends.backends import float_bounds
from axis_path.core.evaluate.backends.complex_columns import COMPLEX_COLUMNS, Columns
from axis_path.core.evaluate.backends.enclosed import enclose_columns
from axis_path.core.evaluate.backends.exact_columns import EXACT_COLUMNS
from axis_path.core.evaluate.backends.table import NotExactError
from axis_path.core.evaluate.expression import Expression
from axis_path.core.evaluate.graph.program import run

#: So many numbers are enclosed before it is checked whether anybody still waits.
_CHUNK = 50_000


class MissingError(Exception):
    """An entry may have no value.

    Attributes:
        index: of the entry, from 0.
    """

    def __init__(self, index: int) -> None:
        super().__init__(index)
        self.index = index


def evaluated_at_once(
    expression: Expression,
    values: Parameters,
    inputs: Mapping[str, Entries],
    count: int,
) -> Entries | None:
    """Return an expression of many numbers; None if a function in it is computed one by one.

    Args:
        expression: what to compute.
        values: of the sliders.
        inputs: for each input many numbers, or one.
        count: how many.

    Raises:
        MissingError: it may have no value somewhere.
    """
    exact = _exact(expression, values, inputs, count)
    if exact is not None:
        return exact
    reals = {name: a for name, a in inputs.items() if isinstance(a, BoundedEntries)}
    is_real = len(reals) == len(inputs) and not expression.program.is_complex
    chunks: list[Entries] = []
    for start in range(0, count, _CHUNK):
        check()
        chosen = slice(start, min(start + _CHUNK, count))
        if is_real:
            chunks.append(_between(_real_columns(expression, values, reals, chosen), start))
            continue
        try:
            columns = _complex_columns(expression, values, inputs, chosen)
        except NotExactError:
            return None
        chunks.append(combined(*(_between(side, start) for side in columns)))
    return joined_entries(chunks)


def _exact(
    expression: Expression,
    values: Parameters,
    inputs: Mapping[str, Entries],
    count: int,
) -> Entries | None:
    backend, program = EXACT_COLUMNS, expression.program
    known = fractions_only(values, program.parameters)
    if known is None:
        return None
    try:
        used = {name: backend.number(value) for name, value in known.items()}
        result = run(program, backend, backend.number(Fraction(0)), {**used, **inputs})[0]
    except NotExactError:
        return None
    sides = []
    for side in parts(result):
        if side.exact is None:
            return None
        tops = np.broadcast_to(side.exact.numerators, count)
        sides.append(from_common(tops, side.exact.denominator))
    return combined(*sides)


def _real_columns(
    expression: Expression,
    values: Parameters,
    inputs: Mapping[str, BoundedEntries],
    chosen: slice,
) -> Enclosure:
    zeros = np.zeros(chosen.stop - chosen.start)
    bounds = {name: _bounds(entries, chosen) for name, entries in inputs.items()}
    (result,) = enclose_columns(expression.program, (zeros, zeros), values, bounds)
    return result


def _complex_columns(
    expression: Expression,
    values: Parameters,
    inputs: Mapping[str, Entries],
    chosen: slice,
) -> Columns:
    program, backend = expression.program, COMPLEX_COLUMNS
    zero = enclosure.constant(0.0, 0.0)
    used = {
        name: Columns(enclosure.constant(*float_bounds(values[name])), zero)
        for name in program.parameters
    }
    for name, entries in inputs.items():
        used[name] = Columns(
            *(enclosure.between(*_bounds(part, chosen)) for part in parts(entries))
        )
    with np.errstate(all="ignore"):
        result = run(program, backend, backend.number(Fraction(0)), used)[0]
    shape = (chosen.stop - chosen.start,)
    return Columns(*(_spread(side, shape) for side in result))


def _spread(side: Enclosure, shape: tuple[int, ...]) -> Enclosure:
    """Return an enclosure with an entry for each number."""
    return Enclosure(
        np.broadcast_to(side.low, shape),
        np.broadcast_to(side.high, shape),
        np.broadcast_to(side.partial, shape),
        np.broadcast_to(side.nowhere, shape),
        np.broadcast_to(side.broken, shape),
    )


def _between(side: Enclosure, start: int) -> BoundedEntries:
    """Return numbers between bounds, of which the first has the index ``start``.

    Raises:
        MissingError: one may have no value.
    """
    finite = np.isfinite(side.low) & np.isfinite(side.high)
    missing = side.partial | side.nowhere | ~finite
    if bool(np.any(missing)):
        raise MissingError(start + int(np.argmax(missing)))
    if not side.low.any() and not side.high.any():
        return from_common(np.zeros(side.low.size, dtype=np.int64))
    return from_bounds(side.low, side.high)


def _bounds(entries: BoundedEntries, chosen: slice) -> tuple[Floats, Floats]:
    if len(entries) == 1:
        chosen, count = slice(0, 1), chosen.stop - chosen.start
    else:
        count = 1
    middles, radii = entries.middles[chosen], entries.radii[chosen]
    # Outward: the ends are rounded once each; a radius of 0 leaves the number as it is.
    low = np.where(radii == 0, middles, np.nextafter(middles - radii, -np.inf))
    high = np.where(radii == 0, middles, np.nextafter(middles + radii, np.inf))
    return np.repeat(low, count), np.repeat(high, count)
