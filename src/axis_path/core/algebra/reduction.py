"""The reduction of a matrix to its reduced row echelon form, step by step in exact fractions.

The steps are those that one takes on paper: from column to column a pivot is brought to its row,
made 1, and cleared from all other rows. A row that already begins with 1 is taken first, so that
fractions come late.
"""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.algebra.operations import Operation, Rows, apply_operation
from axis_path.core.deadline import check


@dataclass(frozen=True, slots=True)
class Step:
    """One row operation and the matrix after it.

    Attributes:
        operation: in the notation of textbooks, as ``R2 <- R2 - 4 R1``.
        matrix: the rows after it.
        pivots: the positions of the pivots that stand, (row, column) from 0.
    """

    operation: str
    matrix: Rows
    pivots: tuple[tuple[int, int], ...]


@dataclass(frozen=True, slots=True)
class RowReduction:
    """A whole reduction.

    Attributes:
        start: the rows at the beginning.
        steps: none if the matrix is reduced already.
        result: the reduced row echelon form.
        rank: how many rows of it are not 0.
        pivots: the columns of the pivots, from 0.
    """

    start: Rows
    steps: tuple[Step, ...]
    result: Rows
    rank: int
    pivots: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class Progress:
    """How far a matrix is reduced.

    Attributes:
        pivots: how many of its columns are done: a single 1 in a row of its own.
        wrong: how many entries still differ from what they should be.
        is_done: whether it is in reduced row echelon form.
    """

    pivots: int
    wrong: int
    is_done: bool


def reduce_rows(rows: Rows, columns: int | None = None) -> RowReduction:
    """Reduce a matrix.

    Args:
        rows: of fractions, at least one.
        columns: how many columns may hold pivots; the last of a system holds its right sides.
    """
    present, steps, pivots = rows, list[Step](), list[int]()
    standing: tuple[tuple[int, int], ...] = ()

    def take(operation: Operation) -> None:
        nonlocal present
        check()
        present = apply_operation(present, operation)
        steps.append(Step(operation.text, present, standing))

    for column in range(len(rows[0]) if columns is None else columns):
        place = len(pivots)
        if place == len(rows):
            break
        chosen = _pivot_row(present, place, column)
        if chosen is None:
            continue
        if chosen != place:
            take(Operation(place, chosen, None))
        standing = (*standing, (place, column))
        head = present[place][column]
        if head != 1:
            take(Operation(place, None, 1 / head))
        for row in range(len(rows)):
            entry = present[row][column]
            if row != place and entry != 0:
                take(Operation(row, place, -entry))
        pivots.append(column)
    return RowReduction(rows, tuple(steps), present, len(pivots), tuple(pivots))


def _pivot_row(rows: Rows, first: int, column: int) -> int | None:
    """Return the row with the best pivot: 1, then -1, then the smallest whole number."""
    candidates = [row for row in range(first, len(rows)) if rows[row][column] != 0]

    def worth(row: int) -> tuple[int, Fraction, int]:
        entry = rows[row][column]
        kind = 0 if entry == 1 else 1 if entry == -1 else 2 if entry.denominator == 1 else 3
        return kind, abs(entry), row

    # The row that stands there already is kept if its entry is as good.
    return min(candidates, key=worth, default=None)


def progress_of(rows: Rows, columns: int | None = None) -> Progress:
    """Compare a matrix with its reduced form, entry by entry."""
    goal = reduce_rows(rows, columns)
    width = len(rows[0]) if columns is None else columns
    wrong = sum(
        present != wanted
        for row, other in zip(rows, goal.result, strict=True)
        for present, wanted in zip(row[:width], other[:width], strict=True)
    )
    done = 0
    for place, column in enumerate(goal.pivots):
        unit = [Fraction(row == place) for row in range(len(rows))]
        if [row[column] for row in rows] != unit:
            break
        done += 1
    return Progress(done, wrong, rows == goal.result or (wrong == 0 and columns is not None))
