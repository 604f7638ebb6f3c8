"""The table of values in the open study format."""

from __future__ import annotations

from dataclasses import replace

from axis_path.core.features.lines.renaming import renamed_number
from axis_path.core.language import Vocabulary
from axis_path.core.tabulate import TableSpec

_PRIMES = "'′″"


def renamed(section: TableSpec, names: Vocabulary, name: str, new: str) -> TableSpec:
    """Return the table after a name was changed, in its columns and in what it runs over."""

    def column_text(text: str) -> str:
        if text.rstrip(_PRIMES) == name:
            return new + text[len(name) :]
        letters = (letter for letter in text if letter.isalpha() and letter not in name)
        return renamed_number(text, names.and_variables(*letters), name, new)

    columns = tuple(replace(column, text=column_text(column.text)) for column in section.columns)
    return replace(section, columns=columns, over=new if section.over == name else section.over)
