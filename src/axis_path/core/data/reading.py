"""Read columns from a text: the separator, the decimal sign and the header are found out and said.

Nothing is taken silently: what is no number is listed with its place and kept out.
"""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass
from fractions import Fraction

from axis_path.core.data.column import Column, number_of_cell
from axis_path.core.errors import DataError
from axis_path.core.language import NAME_PATTERN
from axis_path.core.limits import COLUMN_CELLS, COLUMNS

_SEPARATORS = ("\t", ";", ",", " ")
_NAMES = {"\t": "tab", ";": "semicolon", ",": "comma", " ": "space"}
#: What is found out is found out from so many lines.
_LOOKED_AT = 200
#: A separator stands in so many of the lines at least; a tab stands nowhere else at all.
_LEAST_SHARE = {"\t": 0.2, ";": 0.5, ",": 0.5}
_MOST_BAD = 200
_MISSING = {"", "-", "–", "—", "na", "n/a", "nan", "null", "none", "?"}
_LONGEST_LINE, _LONGEST_HEAD = 100_000, 200
#: Signs that stand between thousands: a point, a comma, spaces, an apostrophe.
_GROUP, _BLANKS = 3, " \u00a0\u2009\u202f'’"
_BETWEEN_THOUSANDS = f".,{_BLANKS}"


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
    if max(map(len, lines)) > _LONGEST_LINE:
        raise DataError(f"A line has more than {_LONGEST_LINE:,} characters.")
    by_name = {name: sign for sign, name in _NAMES.items()}
    sign = by_name.get(separator) or _separator_of(lines)
    rows = _rows(lines, sign)
    if not rows:
        raise DataError("There is nothing to read: all cells are empty.")
    width = max(len(cells) for _, cells in rows)
    if width > COLUMNS.value:
        raise DataError(f"There are {width:,} columns; {COLUMNS.value} can be kept.")
    point = decimal if decimal in (".", ",") else _decimal_of(rows, sign)
    first = rows[0][1]
    if has_header is None:
        has_header = len(rows) > 1 and _is_header(first, [cells for _, cells in rows[1:]], point)
    body = rows[1:] if has_header else rows
    if len(body) > COLUMN_CELLS.value:
        raise DataError(f"There are {len(body):,} rows; {COLUMN_CELLS.value:,} can be kept.")
    names = _names(first if has_header else [], width)
    bad: list[BadCell] = []
    columns = []
    for k, (name, unit) in enumerate(names):
        cells = [_cell(line, k, row, point, bad) for line, row in body]
        columns.append(Column(name, tuple(cells), unit))
    bad.sort(key=lambda item: (item.line, item.column))
    return ReadColumns(
        _NAMES[sign], point, has_header, tuple(columns), tuple(bad[:_MOST_BAD]), len(bad)
    )


def _separator_of(lines: list[str]) -> str:
    """Return the separator: the first sign that stands in enough of the lines, else a space."""
    sample_lines = [line for line in lines[:_LOOKED_AT] if line.strip()]
    for sign, least in _LEAST_SHARE.items():
        # Blank cells at either end of a line count too: nothing is stripped here.
        share = sum(sign in line for line in sample_lines) / len(sample_lines)
        if share >= least and not (sign == "," and _are_decimal_commas(sample_lines)):
            return sign
    return " "


def _are_decimal_commas(lines: list[str]) -> bool:
    """Check whether every comma stands in a number, as in ``3,5``, and spaces part the numbers."""
    words = [word for line in lines for word in line.split()]
    with_comma = [word for word in words if "," in word]
    return all(_is_decimal(word, ",") for word in with_comma) and all(
        word in with_comma or _is_digits(word) or word[:1].isalpha() for word in words
    )


def _is_digits(text: str) -> bool:
    return text.lstrip("+-−").isdecimal()


def _is_decimal(text: str, point: str) -> bool:
    """Check whether a text is a number with this decimal sign: digits, the sign, digits."""
    mantissa, _, exponent = text.lower().partition("e")
    if exponent and not _is_digits(exponent):
        return False
    whole, sign, part = mantissa.lstrip("+-−").partition(point)
    return bool(sign) and (whole.isdecimal() or not whole) and part.isdecimal()


def _rows(lines: list[str], sign: str) -> list[tuple[int, list[str]]]:
    """Return the lines that are not empty with their cells, and their numbers counted from 1."""
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
    """Return the decimal sign that the cells speak for."""
    if sign == ",":
        return "."
    cells = [cell for _, row in rows[:_LOOKED_AT] for cell in row]
    return "," if sum(map(_commas_favoured, cells)) > 0 else "."


def _commas_favoured(cell: str) -> float:
    """Return how much a cell speaks for a decimal comma, above 0, or for a point, below."""
    plain = "".join(sign for sign in cell if sign not in _BLANKS)
    if "," in plain and "." in plain:
        # The decimal sign comes last; the other one stands between thousands.
        return 10.0 if plain.rfind(",") > plain.rfind(".") else -10.0
    if _is_decimal(plain, ","):
        # 1,234 may be either.
        return 0.5 if len(plain.partition(",")[2]) == _GROUP else 1.0
    return -1.0 if _is_decimal(plain, ".") else 0.0


def _is_header(first: list[str], body: list[list[str]], point: str) -> bool:
    """Check whether the first row gives names: words above columns of something else.

    A date, a number with signs between its thousands, or a word above words is no name.
    """
    words = [k for k, cell in enumerate(first) if _is_word(cell, point)]
    if not words:
        return False
    below = body[:_LOOKED_AT]
    numbers = [sum(_is_number(row[k], point) for row in below if k < len(row)) for k in words]
    all_words = sum(_is_word(cell, point) for row in below for cell in row)
    return any(numbers) or (len(words) == sum(map(bool, first)) and not all_words)


def _is_word(cell: str, point: str) -> bool:
    """Check whether a cell begins with a letter and is neither a number nor a missing one."""
    is_missing = cell.lower() in _MISSING
    return cell[:1].isalpha() and not is_missing and not _is_number(cell, point)


def _is_number(cell: str, point: str) -> bool:
    try:
        return _number(cell, point) is not None
    except DataError:
        return False


def _number(cell: str, point: str) -> Fraction | None:
    """Read a cell as a number with this decimal sign, and signs between its thousands.

    Raises:
        DataError: it is none.
    """
    plain = cell.replace(point, ".") if point == "," else cell
    if point == "." and "," in cell:
        # Where a point is the decimal sign, a comma stands between thousands, or is a slip.
        plain = _without_thousands(cell, point) or "not a number"
    try:
        return number_of_cell(plain)
    except DataError:
        grouped = _without_thousands(cell, point)
        if grouped is None:
            raise
        return number_of_cell(grouped)


def _without_thousands(cell: str, point: str) -> str | None:
    """Return a number without the signs between its thousands; None if they stand elsewhere."""
    whole, sign, part = cell.partition(point)
    digits = whole.lstrip("+-−")
    between = next((mark for mark in _BETWEEN_THOUSANDS if mark != point and mark in digits), None)
    if between is None:
        return None
    first, *others = digits.split(between)
    if not (first.isdecimal() and len(first) <= 3 and (part.isdecimal() or not sign)):
        return None
    if not all(len(group) == 3 and group.isdecimal() for group in others):
        return None
    return (
        whole[: len(whole) - len(digits)] + first + "".join(others) + ("." + part if sign else "")
    )


def _cell(line: int, k: int, row: list[str], point: str, bad: list[BadCell]) -> Fraction | None:
    text = row[k] if k < len(row) else ""
    if text.lower() in _MISSING:
        return None
    try:
        return _number(text, point)
    except DataError:
        bad.append(BadCell(line, k + 1, text[:60]))
        return None


def _names(heads: list[str], width: int) -> list[tuple[str, str]]:
    """Return names that a study can have, and units, for the heads of columns."""
    pairs: list[tuple[str, str]] = []
    taken: set[str] = set()
    for k in range(width):
        head, unit = _head_and_unit(heads[k] if k < len(heads) else "")
        words = "".join(sign if sign.isalnum() else " " for sign in head).split()
        name = (
            words[0] + "".join(word[:1].upper() + word[1:] for word in words[1:]) if words else ""
        )
        name = name.lstrip("0123456789")
        if NAME_PATTERN.fullmatch(name) is None:
            name = f"col{k + 1}"
        base, more = name, 2
        while name in taken:
            name, more = f"{base}{more}", more + 1
        taken.add(name)
        pairs.append((name, unit))
    return pairs


def _head_and_unit(head: str) -> tuple[str, str]:
    """Split ``t / s``, ``t (s)`` or ``t [s]`` into the quantity and its unit."""
    text = head.strip()[:_LONGEST_HEAD]
    for opening, closing in ("()", "[]"):
        start = text.rfind(opening)
        if start > 0 and text.endswith(closing):
            return text[:start].strip(), text[start + 1 : -1].strip()
    quantity, slash, unit = text.partition(" / ")
    return (quantity.strip(), unit.strip()) if slash and quantity.strip() else (text, "")
