"""Sums, means and the like over the entries of a list, in any arithmetic."""

from __future__ import annotations

from collections.abc import Callable
from fractions import Fraction
from functools import reduce
from itertools import accumulate, pairwise
from typing import TypeVar

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.arrays.array import Array, Field, need_list, vector
from axis_path.core.errors import ListError, ShapeError

E = TypeVar("E")


def total(a: Array[E], field: Field[E]) -> E:
    """Return the sum of all entries, added in pairs so that a long list is not a deep sum."""
    return _in_pairs(list(a.entries), field.add)


def product(a: Array[E], field: Field[E]) -> E:
    """Return the product of all entries."""
    return _in_pairs(list(a.entries), field.multiply)


def _in_pairs(entries: list[E], join: Callable[[E, E], E]) -> E:
    while len(entries) > 1:
        joined = [join(a, b) for a, b in zip(entries[::2], entries[1::2], strict=False)]
        entries = [*joined, entries[-1]] if len(entries) % 2 else joined
    return entries[0]


def mean(a: Array[E], field: Field[E]) -> E:
    """Return the mean of all entries."""
    return field.divide(total(a, field), field.number(len(a.entries)))


def variance(a: Array[E], field: Field[E], *, is_population: bool) -> E:
    """Return the mean square distance from the mean; of a sample divided by n - 1.

    Raises:
        ListError: a sample of one has none.
    """
    need_list(a, messages.VARIANCE)
    count = len(a.entries) - (not is_population)
    if not count:
        raise ListError(messages.VARIANCE_SAMPLE_NEEDS_AT)
    return field.divide(_squares(a, field), field.number(count))


def standard_deviation(a: Array[E], field: Field[E], *, is_population: bool) -> E:
    """Return the root of the variance."""
    return field.square_root(variance(a, field, is_population=is_population))


def _squares(a: Array[E], field: Field[E]) -> E:
    middle = mean(a, field)
    return total(a.map(lambda entry: field.squared_size(field.subtract(entry, middle))), field)


def correlation(a: Array[E], b: Array[E], field: Field[E]) -> E:
    """Return the correlation coefficient of two lists (Pearson).

    Raises:
        ShapeError: they are not lists of one length.
    """
    if a.is_matrix or b.is_matrix or a.shape != b.shape:
        raise ShapeError(messages.CORRELATION_NEEDS_TWO_LISTS(first=a.words, second=b.words))
    first, second = mean(a, field), mean(b, field)
    one = a.map(lambda entry: field.subtract(entry, first))
    other = b.map(lambda entry: field.subtract(entry, second))
    products = Array(a.shape, tuple(map(field.multiply, one.entries, other.entries)))
    sizes = field.multiply(_squares(a, field), _squares(b, field))
    return field.divide(total(products, field), field.square_root(sizes))


def cumulative(a: Array[E], field: Field[E]) -> Array[E]:
    """Return the running sums."""
    need_list(a, messages.RUNNING_SUM)
    return vector(list(accumulate(a.entries, field.add)))


def differences(a: Array[E], field: Field[E]) -> Array[E]:
    """Return each entry less the one before it.

    Raises:
        ListError: there is one entry only.
    """
    need_list(a, messages.DIFFERENCES)
    if len(a.entries) < 2:
        raise ListError(messages.DIFFERENCES_NEED_AT_LEAST)
    return vector([field.subtract(after, before) for before, after in pairwise(a.entries)])


def evenly_spaced(start: E, step: E, count: int, field: Field[E]) -> Array[E]:
    """Return a list of even steps."""
    return vector(
        [field.add(start, field.multiply(field.number(Fraction(k)), step)) for k in range(count)]
    )


def fold(a: Array[E], join: Callable[[E, E], E]) -> E:
    """Return the entries joined one after the other, as for a greatest common divisor."""
    return reduce(join, a.entries)
