"""Workbooks (XLSX) that somebody loads: a sheet as a text of cells."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass
from datetime import date, datetime
from itertools import islice

import openpyxl
from openpyxl.worksheet.worksheet import Worksheet

from axis_path.bench import messages
from axis_path.core.errors import DataError
from axis_path.core.limits import COLUMN_CELLS

#: A workbook is compressed: unpacked it must not be larger than this, in bytes.
_MOST_UNPACKED = 64_000_000
_MOST_COLUMNS = 64
_UNREADABLE = messages.NOT_WORKBOOK_XLSX_CAN


@dataclass(frozen=True, slots=True)
class Sheet:
    """A sheet of a workbook.

    Attributes:
        name: the sheet.
        names: all sheets of the workbook.
        text: its cells, apart by tabs, in lines; empty rows at its end are left out.
    """

    name: str
    names: tuple[str, ...]
    text: str


def read_sheet(content: bytes, name: str = "") -> Sheet:
    """Read a sheet of a workbook.

    Formulas count as the values that the workbook keeps for them. Rows and columns are read up to
    the limits of the study, so that a sheet that claims to be endless is not read endlessly.

    Args:
        content: the file.
        name: the sheet; the first if it is empty.

    Raises:
        DataError: it is no workbook, or too large, or has no such sheet.
    """
    _check_size(content)
    try:
        # The parser of XML is hardened by defusedxml, which openpyxl takes where it is installed.
        book = openpyxl.load_workbook(io.BytesIO(content), read_only=True, data_only=True)
        with closing(book):
            names = tuple(sheet.title for sheet in book.worksheets)
            chosen = name or next(iter(names), "")
            text = _text(book[chosen]) if chosen in names else None
    except Exception as err:
        # A damaged file fails in many ways, and all mean the same.
        raise DataError(_UNREADABLE) from err
    if text is None:
        raise DataError(
            messages.THERE_NO_SHEET_NAME(name=name) if name else messages.HAS_NO_SHEET_CELLS
        )
    return Sheet(chosen, names, text)


def _check_size(content: bytes) -> None:
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as packed:
            size = sum(part.file_size for part in packed.infolist())
    except (zipfile.BadZipFile, OSError, ValueError) as err:
        raise DataError(_UNREADABLE) from err
    if size > _MOST_UNPACKED:
        raise DataError(messages.WORKBOOK_TOO_LARGE_READ)


def _text(sheet: Worksheet) -> str:
    lines = ["\t".join(map(_cell, row)).rstrip("\t") for row in _rows(sheet)]
    while lines and not lines[-1]:
        lines.pop()
    return "\n".join(lines)


def _rows(sheet: Worksheet) -> Iterator[tuple[object, ...]]:
    rows = sheet.iter_rows(max_col=_MOST_COLUMNS, values_only=True)
    # One row more has the names of the columns.
    return islice(rows, COLUMN_CELLS.value + 1)


def _cell(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, float) and value.is_integer() and abs(value) < 1e15:
        return str(int(value))
    if isinstance(value, datetime | date):
        return value.isoformat()
    return " ".join(str(value).split())
