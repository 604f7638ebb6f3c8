"""The table of values in the open study format."""

from __future__ import annotations

from dataclasses import asdict, replace
from typing import Any

from axis_path.core.document.fields import field_of
from axis_path.core.errors import FormatError
from axis_path.core.features.lines.renaming import renamed_number
from axis_path.core.language import Vocabulary
from axis_path.core.limits import TABLE_DIGITS
from axis_path.core.tabulate import NumberForm, TableSpec, columns_from_list, columns_to_list


def to_fields(section: TableSpec) -> dict[str, Any]:
    """Return the fields of the study format."""
    return {"table": table_to_dict(section)}


def from_fields(given: dict[str, Any]) -> TableSpec:
    """Read the section.

    Raises:
        FormatError: a field is not what it should be.
    """
    return table_from_dict(field_of(given, "table", dict, {}))


def table_to_dict(table: TableSpec) -> dict[str, Any]:
    """Return what a table is made from as plain data; what is as usual is left out."""
    usual = asdict(TableSpec())
    return {
        name: columns_to_list(table.columns) if name == "columns" else value
        for name, value in asdict(table).items()
        if name in ("start", "stop", "step") or value != usual[name]
    }


def table_from_dict(given: dict[str, Any]) -> TableSpec:
    """Read what a table is made from.

    Raises:
        FormatError: it is of the wrong kind.
    """
    usual = TableSpec()
    texts = {
        name: field_of(given, name, str, getattr(usual, name))
        for name in ("start", "stop", "step", "count", "listed", "over", "at")
    }
    digits = field_of(given, "digits", int, usual.digits)
    if not 0 <= digits <= TABLE_DIGITS.value:
        raise FormatError(f"A table shows {TABLE_DIGITS.value} digits at most.")
    try:
        form = NumberForm(given.get("form", usual.form))
    except ValueError as err:
        raise FormatError("The numbers of a table are written in a way that is not known.") from err
    columns = columns_from_list(given.get("columns", []))
    return TableSpec(**texts, digits=digits, form=form, columns=columns)


_PRIMES = "'′″"


def renamed(section: TableSpec, names: Vocabulary, name: str, new: str) -> TableSpec:
    """Return the table after a name was changed, in its columns and in what it runs over."""

    def column_text(text: str) -> str:
        if text.rstrip(_PRIMES) == name:
            return new + text[len(name) :]
        letters = (letter for letter in text if letter.isalpha() and letter not in name)
        return renamed_number(text, names.and_variables(*letters), name, new)

    columns = tuple(replace(each, text=column_text(each.text)) for each in section.columns)
    return replace(section, columns=columns, over=new if section.over == name else section.over)
