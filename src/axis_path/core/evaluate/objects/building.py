"""Lists and matrices that are built of a term, entry by entry."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from typing import Any

import numpy as np

from axis_path.core.arithmetic.arrays.array import check_size, matrix, shape_words
from axis_path.core.arithmetic.arrays.large import is_many
from axis_path.core.arithmetic.ball import Ball
from axis_path.core.arithmetic.complex_ball import ComplexBall
from axis_path.core.errors import ListError
from axis_path.core.evaluate.objects.algebra import Algebra
from axis_path.core.evaluate.objects.columns import MissingError
from axis_path.core.evaluate.objects.operations import need_index, need_number
from axis_path.core.evaluate.objects.values import Value
from axis_path.core.language.tree import Built, Node

#: Computes a tree, given what its own variables are.
ValueOf = Callable[[Node, Mapping[str, Value]], Value]


def counted(
    node: Built, bound: Mapping[str, Value], value_of: ValueOf, algebra: Algebra[Any]
) -> list[tuple[str, range]]:
    """Return the variables of a list or a matrix that is built, and what they run over.

    Raises:
        ListError: an end is no whole number, or there is nothing. LimitError: there are too many.
    """
    ranges = []
    for counter in node.counters:
        low, high = (
            need_index(value_of(end, bound), algebra) for end in (counter.low, counter.high)
        )
        if low > high:
            raise ListError(f"From {low} to {high} there is nothing.")
        ranges.append((counter.variable, range(low, high + 1)))
    check_size(*(len(span) for _, span in ranges))
    algebra.check_entries(math.prod(len(span) for _, span in ranges))
    return ranges


def built_at_once(
    node: Built,
    ranges: list[tuple[str, range]],
    bound: Mapping[str, Value],
    value_of: ValueOf,
    algebra: Algebra[Any],
) -> Value | None:
    """Return many entries, computed at once; None if each is to be computed by itself.

    Raises:
        ListError: an entry of a large list or matrix has no value.
    """
    if algebra.large is None:
        return None
    try:
        return algebra.large.built(node.body, ranges, bound)
    except MissingError as missing:
        shape = tuple(len(span) for _, span in ranges)
        if not is_many(shape):
            return None
        number = algebra.field.number
        indices = [int(index) for index in np.unravel_index(missing.index, shape)]
        counters = {
            name: number(span[index]) for (name, span), index in zip(ranges, indices, strict=True)
        }
        entry = value_of(node.body, {**bound, **counters})
        if isinstance(entry, Ball | ComplexBall) and not entry.is_defined:
            at = ", ".join(str(index + 1) for index in indices)
            # Complex balls know no reason.
            why = f": {entry.reason}" if isinstance(entry, Ball) else ""
            raise ListError(
                f"The entry [{at}] of {shape_words(shape)} has no value{why}."
            ) from None
        return None


def built(
    node: Built,
    ranges: list[tuple[str, range]],
    bound: Mapping[str, Value],
    value_of: ValueOf,
    algebra: Algebra[Any],
) -> list[Value] | Value:
    """Return the entries of a list, or a matrix, computed one by one."""
    number = algebra.field.number
    if len(ranges) == 1:
        variable, span = ranges[0]
        return [value_of(node.body, {**bound, variable: number(k)}) for k in span]
    (row, rows), (column, columns) = ranges
    return matrix(
        [
            [
                need_number(
                    value_of(node.body, {**bound, row: number(i), column: number(j)}),
                    "The entry of a matrix is a number",
                )
                for j in columns
            ]
            for i in rows
        ]
    )
