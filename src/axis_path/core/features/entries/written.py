"""The entries of a list or a matrix as they are written in a line."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from axis_path.core.errors import CommandError, LimitError, MathError
from axis_path.core.language import ValueLine, Vocabulary, read_expression, read_line
from axis_path.core.language.tree import Items, Node
from axis_path.core.limits import EXACT_SIDE

#: What an empty cell holds.
EMPTY = "0"
#: As many rows and columns can be entered as exact work can handle.
MOST_SIDE = EXACT_SIDE.value
Cells = tuple[tuple[str, ...], ...]


@dataclass(frozen=True, slots=True)
class WrittenEntries:
    """A list or a matrix that is written out.

    Attributes:
        text: the whole line.
        span: where the brackets stand in it.
        cells: the entries as typed, by rows; a list is a column.
        is_list: whether it is a list, not a matrix.
    """

    text: str
    span: tuple[int, int]
    cells: Cells
    is_list: bool

    def with_cells(self, cells: Cells) -> str:
        """Return the line with other entries."""
        rows = [row[0] if self.is_list else f"[{', '.join(row)}]" for row in cells]
        start, end = self.span
        return f"{self.text[:start]}[{', '.join(rows)}]{self.text[end:]}"


def written_entries(text: str, vocabulary: Vocabulary) -> WrittenEntries | None:
    """Return the entries of a line, None if they are not written out in it.

    Args:
        text: a definition or an expression.
        vocabulary: the names that it may use.
    """
    try:
        line = read_line(text, vocabulary)
        node = line.expression if isinstance(line, ValueLine) else read_expression(text, vocabulary)
    except MathError:
        return None
    if not isinstance(node, Items):
        return None
    rows = [item.items if isinstance(item, Items) else (item,) for item in node.items]
    lists = [isinstance(item, Items) for item in node.items]
    is_even = len({len(row) for row in rows}) == 1 and len(set(lists)) == 1
    if not is_even or not rows[0]:
        return None
    cells = tuple(tuple(_typed(text, entry) for entry in row) for row in rows)
    return WrittenEntries(text, node.span, cells, is_list=not lists[0])


def _typed(text: str, node: Node) -> str:
    return text[slice(*node.span)].strip()


def with_block(
    written: WrittenEntries, cells: Sequence[Sequence[str]], row: int, column: int
) -> Cells:
    """Return the entries with a block put in; the list or the matrix grows for it.

    Raises:
        LimitError: it would be too large. CommandError: a list would need several columns.
    """
    height = max(len(written.cells), row + len(cells))
    width = max(len(written.cells[0]), column + max(map(len, cells), default=0))
    _check_size(written, height, width)
    return tuple(
        tuple(_cell(written.cells, cells, (r, c), (row, column)) for c in range(width))
        for r in range(height)
    )


def resized(written: WrittenEntries, rows: int, columns: int) -> Cells:
    """Return the entries with more or fewer rows and columns; new ones are 0.

    Raises:
        LimitError: it would be too large. CommandError: nothing would be left, or a list would need
            several columns.
    """
    if rows < 1 or columns < 1:
        raise CommandError("A list or a matrix needs at least one entry.")
    _check_size(written, rows, columns)
    old = written.cells
    return tuple(
        tuple(old[r][c] if r < len(old) and c < len(old[0]) else EMPTY for c in range(columns))
        for r in range(rows)
    )


def _check_size(written: WrittenEntries, rows: int, columns: int) -> None:
    if max(rows, columns) > MOST_SIDE:
        raise LimitError(f"Up to {MOST_SIDE} rows and columns can be entered.")
    if written.is_list and columns > 1:
        raise CommandError("A list has one column; write a matrix for more.")


def _cell(
    old: Cells, block: Sequence[Sequence[str]], at: tuple[int, int], start: tuple[int, int]
) -> str:
    row, column = at[0] - start[0], at[1] - start[1]
    if 0 <= row < len(block) and 0 <= column < len(block[row]):
        return block[row][column].strip() or EMPTY
    return old[at[0]][at[1]] if at[0] < len(old) and at[1] < len(old[0]) else EMPTY
