"""What looks at the size of numbers: sorting, the median, the least and the greatest."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import cmp_to_key
from typing import Any

from axis_path.core.arithmetic import ball, messages
from axis_path.core.arithmetic.arrays.array import Array, need_list, vector
from axis_path.core.arithmetic.arrays.echelon import UndecidedError
from axis_path.core.arithmetic.arrays.flint_matrices import Matrices, need_values
from axis_path.core.arithmetic.arrays.scalars import SCALARS
from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.bounded import totals
from axis_path.core.arithmetic.bounded.entries import BoundedEntries
from axis_path.core.arithmetic.bounded.pairs import Entries
from axis_path.core.arithmetic.complex_ball import Scalar
from axis_path.core.errors import ListError


def _reals(a: Matrices, what: str) -> list[Ball]:
    need_values(a)
    numbers = [entry for entry in a.entries if isinstance(entry, Ball)]
    if len(numbers) < len(a.entries):
        raise _no_order(what)
    return numbers


def _no_order(what: str) -> ListError:
    return ListError(messages.WHAT_NEEDS_REAL_NUMBERS(what=what))


def need_reals(entries: Entries, what: str) -> BoundedEntries:
    """Return many entries as real numbers.

    Raises:
        ListError: one is complex.
    """
    if isinstance(entries, BoundedEntries):
        return entries
    raise _no_order(what)


def compared(a: Ball, b: Ball) -> int:
    """Return -1, 0 or 1 as a number is less than, equal to or greater than another.

    Raises:
        UndecidedError: more digits are needed.
    """
    if a.exact is not None and b.exact is not None:
        return int(a.exact > b.exact) - int(a.exact < b.exact)
    if a is b:
        return 0
    sign = ball.subtract(a, b).sign()
    if sign is None:
        raise UndecidedError
    return sign


def _nearly(a: Ball, b: Ball) -> int:
    """Compare as far as can be decided: equal numbers may stand in any order."""
    try:
        return compared(a, b)
    except UndecidedError:
        return 0


def in_order(a: Matrices, what: str) -> Sequence[Ball]:
    """Return the entries from the least to the greatest."""
    if a.bounded is not None:
        return totals.in_order(need_reals(a.bounded, what))
    numbers = _reals(a, what)
    if all(number.exact is not None for number in numbers):
        exact: Callable[[Ball], Any] = lambda number: number.exact  # noqa: E731
        return sorted(numbers, key=exact)
    return sorted(numbers, key=cmp_to_key(_nearly))


def sort(a: Matrices) -> Matrices:
    """Return a list from its least entry to its greatest."""
    need_list(a, "Sorting")
    return vector(in_order(a, "Sorting"))


def least(a: Matrices) -> Scalar:
    """Return the least entry."""
    return _extreme(a, messages.MINIMUM, -1)


def greatest(a: Matrices) -> Scalar:
    """Return the greatest entry."""
    return _extreme(a, messages.MAXIMUM, 1)


def _extreme(a: Matrices, what: str, wanted: int) -> Scalar:
    best, *rest = _reals(a, what)
    for number in rest:
        try:
            best = number if compared(number, best) == wanted else best
        except UndecidedError:
            # Both are as large as far as can be seen: one ball holds the larger or the smaller.
            choose = best.value.max if wanted > 0 else best.value.min
            best = Ball(choose(number.value))
    return best


def quantile(a: Matrices, p: Scalar) -> Scalar:
    """Return the value below which a part p of the list lies, interpolated between entries.

    The entries stand at 0, 1/(n - 1), ..., 1 (Hyndman and Fan, 1996, definition 7).

    Raises:
        ListError: p is not between 0 and 1. UndecidedError: it is not sure where it lies.
    """
    need_list(a, messages.QUANTILE)
    ordered = in_order(a, messages.QUANTILE)
    if not isinstance(p, Ball) or not p.is_defined:
        raise ListError(messages.PART_QUANTILE_MUST_BETWEEN)
    if compared(p, ball.from_fraction(0)) < 0 or compared(p, ball.from_fraction(1)) > 0:
        raise ListError(messages.PART_QUANTILE_MUST_BETWEEN)
    position = ball.multiply(p, ball.from_fraction(len(ordered) - 1))
    whole = position.exact.floor() if position.exact is not None else position.value.unique_fmpz()
    if whole is None:
        whole = position.value.floor().unique_fmpz()
    if whole is None:
        raise UndecidedError
    index = min(int(whole), len(ordered) - 1)
    if index == len(ordered) - 1:
        return ordered[index]
    rest = ball.subtract(position, ball.from_fraction(index))
    gap = ball.subtract(ordered[index + 1], ordered[index])
    return SCALARS.add(ordered[index], SCALARS.multiply(rest, gap))


def median(a: Matrices) -> Scalar:
    """Return the middle entry, or the mean of both middle ones."""
    ordered = in_order(a, messages.MEDIAN)
    half, is_odd = divmod(len(ordered), 2)
    if is_odd:
        return ordered[half]
    return ball.divide(ball.add(ordered[half - 1], ordered[half]), ball.from_fraction(2))


def reverse(a: Array[Any]) -> Array[Any]:
    """Return a list from its end to its beginning."""
    need_list(a, "Reversing")
    return vector(a.entries[::-1])
