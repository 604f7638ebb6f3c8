"""Zeros of a function by its form: by the levels of a wave, by an inner function, by its factors.

Where a function only touches the axis, enclosures cannot tell that from passing close by. Its form
can: sin(u) is zero where u is a multiple of pi, a polynomial in e^x where one of its factors is,
and u - sin(u) where u is zero. Each such part is simpler, and is searched by itself.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Protocol

from flint import arb, fmpq

from axis_path.core.arithmetic import Ball
from axis_path.core.arithmetic.conversion import to_fraction, whole_number
from axis_path.core.evaluate import VALUE_BITS, Expression, RealFunction, evaluate_constant
from axis_path.core.locate.algebra.inner import composed, inner_factors
from axis_path.core.locate.algebra.polynomial import as_polynomial
from axis_path.core.locate.algebra.several import factors_in_parts
from axis_path.core.locate.cells import Cell, Search

#: A wave is searched level by level if it has no more of them.
_MOST_LEVELS = 64


class Searching(Protocol):
    """Searches an expression of a function's graph in cells."""

    def __call__(
        self,
        function: RealFunction,
        expression: Expression,
        cells: Sequence[Cell],
        *,
        is_smooth: bool,
    ) -> Search:
        """Return what is found."""


@dataclass(frozen=True, slots=True)
class _Part:
    """A simpler expression some of whose zeros are those of a factor.

    Attributes:
        cells: where.
        times: how often each of its zeros counts.
    """

    expression: Expression
    cells: Sequence[Cell]
    times: int = 1


def search_by_form(
    search: Searching, function: RealFunction, factor: Expression, cells: Sequence[Cell],
    *, is_smooth: bool,
) -> Search | None:  # fmt: skip
    """Search a factor of a function in simpler parts.

    Args:
        search: searches each part.
        function: it has the values of the sliders.
        factor: of its graph.
        cells: where to search, in order.
        is_smooth: whether the function is known to be smooth inside each cell.

    Returns:
        None if the factor has no form that helps.
    """
    # No parts at all are an answer too: there is no zero.
    parts = _levels_of(function, factor, cells)
    if parts is None:
        parts = _exponential_levels(function, factor, cells)
    if parts is None:
        parts = _factors_of(function, factor, cells)
    if parts is None:
        parts = _inner_levels(search, function, factor, cells)
    if parts is None:
        return None
    result = Search()
    for part in parts:
        own = search(function, part.expression, part.cells, is_smooth=is_smooth)
        step = part.expression.step
        result.roots += [
            replace(
                root,
                order=None if root.order is None else root.order * part.times,
                zeros=root.zeros | {step},
            )
            for root in own.roots
        ]
        result.undecided += own.undecided
        result.constant += own.constant
        result.is_crowded = result.is_crowded or own.is_crowded
    return result


def _levels_of(
    function: RealFunction, factor: Expression, cells: Sequence[Cell]
) -> list[_Part] | None:
    """Return a sine or cosine as its angle less each level; None if it is none.

    So the double zeros of sin((x - a)^2) become those of (x - a)^2, which is parted into factors.
    """
    waves = factor.wave_levels()
    if waves is None:
        return None
    angle, start, in_turns = waves
    parts: list[_Part] = []
    for cell in cells:
        levels = _levels_over(function.prove(cell.hull(), angle), start, in_turns=in_turns)
        if levels is None:
            return None
        parts += [_Part(angle.less(level, in_turns=in_turns), [cell]) for level in levels]
    # How often a zero counts is for the whole to tell.
    return parts


def _levels_over(values: Ball, start: Fraction, *, in_turns: bool) -> list[Fraction] | None:
    """Return the levels a + n that an angle reaches; None if they are too many."""
    if not values.is_defined or not values.value.is_finite():
        return None
    scaled = (values.value / arb.pi() if in_turns else values.value) - arb(
        fmpq(start.numerator, start.denominator)
    )
    low, high = whole_number(scaled.lower().ceil()), whole_number(scaled.upper().floor())
    if low is None or high is None or high - low > _MOST_LEVELS:
        return None
    return [start + int(n) for n in range(int(low), int(high) + 1)]


def is_exponential(function: RealFunction, factor: Expression) -> bool:
    """Check whether a factor is a power of a fixed base, times and less numbers that are known."""
    return _exponential_levels(function, factor, ()) is not None


def _exponential_levels(
    function: RealFunction, factor: Expression, cells: Sequence[Cell]
) -> list[_Part] | None:
    """Return k b^u - c as u ln(b) - ln(c/k), so that u may go beyond all bounds."""
    levels = factor.exponential_level()
    if levels is None:
        return None
    logarithm, number = levels
    sign = evaluate_constant(number, function.parameters, bits=VALUE_BITS).sign()
    if sign is None:
        return None
    same = [_with_zero(cell, factor.step, logarithm.step) for cell in cells]
    return [_Part(logarithm, same)] if sign > 0 else []


def _with_zero(cell: Cell, one: int, other: int) -> Cell:
    """Note at the ends of a cell that a step is zero where another one is."""
    low, high = (
        zeros | {other} if one in zeros else zeros for zeros in (cell.low_zeros, cell.high_zeros)
    )
    return replace(cell, low_zeros=low, high_zeros=high)


def _factors_of(
    function: RealFunction, factor: Expression, cells: Sequence[Cell]
) -> list[_Part] | None:
    """Return the factors of a polynomial of inner functions; None if it is none."""
    factors = inner_factors(function, factor) or factors_in_parts(function, factor)
    return (
        None
        if factors is None
        else [_Part(inner.expression, cells, inner.times) for inner in factors]
    )


def _inner_levels(
    search: Searching, function: RealFunction, factor: Expression, cells: Sequence[Cell]
) -> list[_Part] | None:
    """Return u less each zero of G for a factor G(u), if these are simple numbers."""
    for outer, inner in composed(factor):
        polynomial = as_polynomial(function, outer)
        if polynomial is not None and polynomial.degree() < 2:
            # Nothing would be any simpler.
            continue
        parts = list(_parts_of(search, function, (outer, inner), cells))
        known = [part for part in parts if part is not None]
        most = len(factor.program.steps)
        # It comes to an end, because each part has fewer steps than the whole.
        if len(known) == len(parts) and all(
            len(part.expression.program.steps) < most for part in known
        ):
            return known
    return None


def _parts_of(
    search: Searching, function: RealFunction, form: tuple[Expression, Expression],
    cells: Sequence[Cell],
) -> Iterator[_Part | None]:  # fmt: skip
    """Yield the parts of G(u) in cells; None where one is not known."""
    outer, inner = form
    for cell in cells:
        values = function.prove(cell.hull(), inner)
        if not (values.is_defined and values.continuous and values.value.is_finite()):
            yield None
            return
        ends = Cell(Ball(values.value.lower()), Ball(values.value.upper()))
        levels = search(function, outer, [ends], is_smooth=False)
        if levels.undecided or levels.constant or levels.is_crowded:
            yield None
            return
        for level in levels.roots:
            exact = level.abscissa.exact
            if not level.proved or exact is None or level.order is None:
                yield None
                return
            yield _Part(inner.less(to_fraction(exact), in_turns=False), [cell], level.order)
