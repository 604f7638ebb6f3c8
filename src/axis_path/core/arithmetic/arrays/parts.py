"""Entries and parts of lists and matrices, and copies with other entries."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TypeVar

import numpy as np

from axis_path.core.arithmetic import messages
from axis_path.core.arithmetic.arrays.array import Array, one_after_the_other, shape_words
from axis_path.core.errors import ListError, ShapeError

E = TypeVar("E")
#: Which rows or columns are meant, from 0: one of them, or several in a row.
Chosen = int | range
_NO_SUCH = {
    "row": messages.NO_SUCH_ROW,
    "column": messages.NO_SUCH_COLUMN,
    "entry": messages.NO_SUCH_ENTRY,
}
_ONLY_ONE = {
    "row": messages.ONLY_ONE_ROW,
    "column": messages.ONLY_ONE_COLUMN,
    "entry": messages.ONLY_ONE_ENTRY,
}


def checked(chosen: Chosen, count: int, what: str) -> Chosen:
    """Return an index, or several, that were checked.

    Args:
        chosen: counted from 0.
        count: how many there are.
        what: what is counted, as ``row``.

    Raises:
        ListError: it is outside.
    """
    first, last = (chosen, chosen) if isinstance(chosen, int) else (chosen.start, chosen.stop - 1)
    if first > last:
        raise ListError(messages.FROM_FIRST_LAST_THERE(first=first + 1, last=last + 1))
    for index in (first, last):
        if not 0 <= index < count:
            text = _NO_SUCH[what] if count > 1 else _ONLY_ONE[what]
            raise ListError(text(number=index + 1, count=count))
    return chosen


def _checked_all(a: Array[E], chosen: Sequence[Chosen]) -> list[Chosen]:
    names = ("row", "column") if a.is_matrix else ("entry",)
    if len(chosen) != len(names):
        shown = messages.TWO_INDICES if a.is_matrix else messages.ONE_INDEX
        raise ShapeError(messages.ARRAY_HAS_SHOWN(array=a.words.capitalize(), shown=shown))
    return [
        checked(part, side, name) for part, side, name in zip(chosen, a.shape, names, strict=True)
    ]


def part(a: Array[E], chosen: Sequence[Chosen]) -> E | Array[E]:
    """Return an entry of a list or a matrix, or a part of it.

    Args:
        a: the list or the matrix.
        chosen: one index, or several in a row, for each side.

    Raises:
        ShapeError: the number of indices does not fit. ListError: one is outside.
    """
    picked = _checked_all(a, chosen)
    if len(picked) == 1:
        (one,) = picked
        return a.entries[one] if isinstance(one, int) else a.taken((len(one),), one)
    row, column = picked
    if isinstance(row, int) and isinstance(column, int):
        return a.at(row, column)
    shape = tuple(len(side) for side in picked if not isinstance(side, int))
    return a.taken(shape, _places(a, picked))


def _places(a: Array[E], picked: Sequence[Chosen]) -> Sequence[int]:
    """Return where the chosen entries stand among all."""
    sides = [_several(side) for side in picked]
    if len(sides) == 1:
        return sides[0]
    return [row * a.column_count + column for row in sides[0] for column in sides[1]]


def _several(chosen: Chosen) -> range:
    return range(chosen, chosen + 1) if isinstance(chosen, int) else chosen


def replaced(a: Array[E], chosen: Sequence[Chosen], value: E | Array[E]) -> Array[E]:
    """Return a copy with some entries replaced: by one number, or by as many as are replaced.

    Raises:
        ShapeError: the shapes do not fit. ListError: an index is outside.
    """
    picked = _checked_all(a, chosen)
    places = _places(a, picked)
    if isinstance(value, Array):
        shape = tuple(len(side) for side in picked if not isinstance(side, int))
        if value.shape != shape:
            wanted = shape_words(shape) if shape else messages.ONE_NUMBER
            raise ShapeError(messages.HERE_WANTED_REPLACED_BUT(wanted=wanted, given=value.words))
        values = value
    else:
        values = Array((1,), (value,))
    count = len(a.entries)
    order = np.arange(count)
    order[np.asarray(places, dtype=np.intp)] = np.arange(count, count + len(values.entries))
    return one_after_the_other(a, values).taken(a.shape, order)
