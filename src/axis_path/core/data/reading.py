"""Read columns from a text: the separator, the decimal sign and the header are found out and said.

Nothing is taken silently: what is no number is listed with its place and kept out.
"""

from __future__ import annotations

import csv
import io
import re
from collections import Counter
from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.data.column import Column, number_of_cell
from axis_path.core.errors import DataError
from axis_path.core.language import NAME_PATTERN
from axis_path.core.limits import COLUMN_CELLS, COLUMNS

_SEPARATORS = ("\t", ";", ",", " ")
_NAMES = {"\t": "tab", ";": "semicolon", ",": "comma", " ": "space"}
#: The separator is found out from so many lines.
_LOOKED_AT = 200
_MOST_BAD = 200
_MISSING = {"", "-", "–", "—", "na", "n/a", "nan", "null", "none", "?"}


@dataclass(frozen=True, slots=True)
class BadCell:
    """A cell that is no number: where it stands, counted from 1 as an editor does, and its text."""

    line: int
    column: int
    text: str


@dataclass(frozen=True, slots=True)
class ReadColumns:
    """What a text holds, as it was read.

    Attributes:
        separator: tab, semicolon, comma or space.
        decimal: ``.`` or ``,``.
        has_header: whether the first line gives names.
        columns: with names that a study can have.
        bad: cells that are no numbers and were left out; the first of them.
        bad_count: how many there are.
    """

    separator: str
    decimal: str
    has_header: bool
    columns: tuple[Column, ...]
    bad: tuple[BadCell, ...]
    bad_count: int


def read_columns(
    text: str,
    *,
    separator: str = "",
    decimal: str = "",
    has_header: bool | None = None,
) -> ReadColumns:
    """Read a text as columns.

    Args:
        text: lines of cells.
        separator: its name, if it is not to be found out.
        decimal: the decimal sign, likewise.
        has_header: whether the first line gives names, likewise.

    Raises:
        DataError: there is nothing in it, or too much.
    """
    lines = text.lstrip("\ufeff").splitlines()
    if not any(line.strip() for line in lines):
        raise DataError("There is nothing to read: the text is empty.")
    by_name = {name: sign for sign, name in _NAMES.items()}
    sign = by_name.get(separator) or _separator_of(lines)
    rows = _rows(lines, sign)
    width = max(len(cells) for _, cells in rows)
    if width > COLUMNS.value:
        raise DataError(f"There are {width:,} columns; {COLUMNS.value} can be kept.")
    point = decimal or _decimal_of(rows, sign)
    first = rows[0][1]
    if has_header is None:
        has_header = len(rows) > 1 and any(_is_word(cell, point) for cell in first)
    body = rows[1:] if has_header else rows
    if len(body) > COLUMN_CELLS.value:
        raise DataError(f"There are {len(body):,} rows; {COLUMN_CELLS.value:,} can be kept.")
    names = _names(first if has_header else [], width)
    bad: list[BadCell] = []
    columns = []
    for k, (name, unit) in enumerate(names):
        cells = [_cell(line, k, row, point, bad) for line, row in body]
        columns.append(Column(name, tuple(cells), unit))
    bad.sort(key=lambda each: (each.line, each.column))
    return ReadColumns(
        _NAMES[sign], point, has_header, tuple(columns), tuple(bad[:_MOST_BAD]), len(bad)
    )


def _separator_of(lines: list[str]) -> str:
    """Take the separator that most lines have equally often, the rarer sign first."""
    seen = [line for line in lines[:_LOOKED_AT] if line.strip()]
    best, most = " ", 0.0
    for sign in _SEPARATORS:
        counts = Counter(line.strip().count(sign) for line in seen)
        often, lines_with = max(counts.items(), key=lambda item: (item[1], item[0]))
        if often and lines_with / len(seen) > max(most, 0.6):
            best, most = sign, lines_with / len(seen)
            if most > 0.95:
                break
    if best == "," and all(re.fullmatch(r"\s*-?\d+,\d+\s*", line) for line in seen):
        # One column of numbers with a decimal comma.
        return " "
    return best


def _rows(lines: list[str], sign: str) -> list[tuple[int, list[str]]]:
    """Give the lines that are not empty with their cells, and their numbers counted from 1."""
    if sign == " ":
        return [(k, line.split()) for k, line in enumerate(lines, 1) if line.strip()]
    reader = csv.reader(io.StringIO("\n".join(lines)), delimiter=sign)
    try:
        return [
            (reader.line_num, [cell.strip() for cell in cells])
            for cells in reader
            if any(cell.strip() for cell in cells)
        ]
    except csv.Error as err:
        raise DataError(f"The text cannot be read as columns: {err}.") from err


def _decimal_of(rows: list[tuple[int, list[str]]], sign: str) -> str:
    if sign == ",":
        return "."
    cells = [cell for _, row in rows[:_LOOKED_AT] for cell in row]
    commas = sum(
        bool(re.fullmatch(r"[-−+]?\d*,\d+(e[-+]?\d+)?", cell, re.IGNORECASE)) for cell in cells
    )
    points = sum(
        bool(re.fullmatch(r"[-−+]?\d*\.\d+(e[-+]?\d+)?", cell, re.IGNORECASE)) for cell in cells
    )
    return "," if commas > points else "."


def _is_word(cell: str, point: str) -> bool:
    if cell.lower() in _MISSING:
        return False
    try:
        number_of_cell(cell.replace(point, "."))
    except DataError:
        return True
    return False


def _cell(line: int, k: int, row: list[str], point: str, bad: list[BadCell]) -> Fraction | None:
    text = row[k] if k < len(row) else ""
    if text.lower() in _MISSING:
        return None
    try:
        return number_of_cell(text.replace(point, ".") if point == "," else text)
    except DataError:
        bad.append(BadCell(line, k + 1, text[:60]))
        return None


def _names(heads: list[str], width: int) -> list[tuple[str, str]]:
    """Make names that a study can have of the heads of columns, with units from brackets."""
    found: list[tuple[str, str]] = []
    taken: set[str] = set()
    for k in range(width):
        head = heads[k] if k < len(heads) else ""
        match = re.fullmatch(r"(.*?)\s*[(\[](.*)[)\]]\s*", head)
        unit = match[2].strip() if match else ""
        words = re.findall(r"[A-Za-z0-9]+", match[1] if match else head)
        name = words[0] + "".join(word.capitalize() for word in words[1:]) if words else ""
        name = name.lstrip("0123456789")
        if NAME_PATTERN.fullmatch(name) is None:
            name = f"col{k + 1}"
        base, more = name, 2
        while name in taken:
            name, more = f"{base}{more}", more + 1
        taken.add(name)
        found.append((name, unit))
    return found
